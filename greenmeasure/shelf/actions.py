"""What changes the shelf."""

from decimal import Decimal
from io import BytesIO
from typing import Any

from django.db.models import F, Value
from django.db.models.functions import Greatest

from core.book.after import WINDOW, read_days
from core.errors import InputError
from core.grasses import GRASSES
from core.label import product as core
from core.label.contents import as_nutrient
from core.label.groups import read_codes
from core.label.phrase import read_label_rate, weighed
from core.label.rate import Basis, LabelRate
from core.label.rules import Intent, Use
from core.units import LENGTH, MASS, VOLUME, Quantity, density, positive, quantity, unit
from greenmeasure.accounts.models import Account
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.names import free_name
from greenmeasure.common.pictures import MOST_BYTES, photograph
from greenmeasure.common.schemas import QuantityIn, filled, money_in, number_in, quantity_in
from greenmeasure.common.versions import claim
from greenmeasure.shelf.models import Content, LabelFile, Lot, Package, Product, RateRow
from greenmeasure.shelf.rules import RulesIn, read_rules, stored_rules
from greenmeasure.shelf.schemas import ContentIn, LotIn, PackageIn, ProductIn, RateRowIn


def save_product(account: Account, data: ProductIn, product: Product | None = None) -> Product:
    """Add a product, or change one. Rows that keep their id keep it.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    before, product = product, product or Product(account=account)
    name = faults.of(free_name, Product, account, data.name, product.pk)
    kind = faults.of(_kind, data.kind)
    also = [faults.of(_kind, key, f"also.{i}") for i, key in enumerate(data.also)]
    kinds = tuple(dict.fromkeys(k for k in (kind, *also) if k))
    leading = core.leading(kinds) if kind else None
    made = faults.of(core.formulation, data.formulation)
    heavy = faults.of(_density, typed) if (typed := filled(data.density)) else None
    codes = faults.of(read_codes, data.group_code, "group_code", leading.scheme if leading else "FRAC")
    contents = [faults.of(_content, i, c) for i, c in enumerate(data.contents)]
    if leading and not leading.label_binds:
        for i, c in enumerate(contents):
            if c and c.basis is Basis.ACTIVE:
                faults.of(_no_nutrient, i, c)
    if made and not made.liquid:
        for given in data.rates:
            given.phrase = weighed(given.phrase)
    looks = faults.of(read_days, data.looks, "looks", WINDOW.days)
    rows = [faults.of(_row, i, r) for i, r in enumerate(data.rates)]
    if not data.rates:
        faults.add("rates", None, "The product has no rate.", "Type at least one rate as the label prints it.")
    packages = [faults.of(_package, i, p, made) for i, p in enumerate(data.packages)]
    actives = tuple(c.name for c in contents if c and c.basis is Basis.ACTIVE)
    rules = read_rules(_by_id(account, data.rules), faults, actives)
    if made:
        for i, row in enumerate(rows):
            if row:
                faults.of(_fits, i, row["label"], made, bool(heavy))
    faults.raise_any()
    assert name and kind and made and codes is not None
    whole = core.Product(name, kind, made, tuple(c for c in contents if c), heavy, codes=codes, rules=rules, also=kinds[1:])
    faults.of(core.check_product, whole)
    faults.raise_any()
    product.name, product.kind, product.formulation = name, kind.value, made.code
    product.printed = [p.model_dump() for p in data.printed if p.setting.strip()]
    product.also = [k.value for k in kinds[1:]]
    product.density_value = number_in("density", data.density.value) if heavy and data.density else None
    product.density_unit = data.density.unit if heavy and data.density else ""
    product.group_code, product.note, product.stains = data.group_code.strip(), data.note, data.stains
    product.registration, product.expect = data.registration.strip(), data.expect
    product.looks = ", ".join(map(str, looks or ()))
    product.ppe_mixing, product.ppe_applying = _lines(data.ppe_mixing), _lines(data.ppe_applying)
    product.rules = stored_rules(data.rules)
    with claim(before, data.version):
        product.save()
        _save_contents(product, data.contents)
        _save_rates(product, data.rates, [r for r in rows if r])
        _save_packages(product, [p for p in packages if p])
    return Product.objects.get(pk=product.pk)


def _by_id(account: Account, rules: RulesIn) -> RulesIn:
    """Rules whose things to keep apart know the card that they name, so that it may be renamed."""
    cards = {name.casefold(): pk for name, pk in Product.objects.of(account).kept().values_list("name", "pk")}
    for row in rules.incompatible:
        row.product_id = cards.get(row.what.strip().casefold(), row.product_id)
    return rules


def _lines(text: str) -> str:
    return "\n".join(line.strip() for line in text.splitlines() if line.strip())


def _kind(key: str, field: str = "kind") -> core.Kind:
    try:
        return core.Kind(key)
    except ValueError:
        raise InputError(
            field,
            key,
            "No type is chosen." if not key else f"“{key}” is not a type of product.",
            "Pick what the label says it is.",
        ) from None


def _density(given: QuantityIn) -> float:
    return density("density", number_in("density", given.value), given.unit)


def _content(i: int, given: ContentIn) -> core.Content:
    field = f"contents.{i}"
    amount = number_in(f"{field}.amount", given.amount)
    try:
        basis = Basis(given.basis)
    except ValueError:
        raise InputError(f"{field}.basis", given.basis, f"“{given.basis}” is not counted here.", "Pick one.") from None
    if basis is Basis.PRODUCT:
        raise InputError(f"{field}.basis", given.basis, "A product does not contain itself.", "Pick an active or nutrient.")
    name = given.name.strip() or ("" if basis is Basis.ACTIVE else basis.text)
    slow = None if blank(given.slow) else number_in(f"{field}.slow", given.slow or 0)
    if given.unit == "%":
        content = core.Content(name, basis, percent=amount, slow_percent=slow)
    else:
        content = core.Content(name, basis, g_per_l=density(f"{field}.amount", amount, given.unit), slow_percent=slow)
    try:
        core.check_contents([content])
    except InputError as fault:
        raise fault.on(fault.field.replace("contents.0", field)) from None
    return content


def _no_nutrient(i: int, content: core.Content) -> None:
    """Ask about a nutrient that was typed as an active. Raises InputError."""
    if found := as_nutrient(content.name, content.percent):
        raise InputError(
            f"contents.{i}.basis",
            content.name,
            f"{content.name} is a nutrient: counted as an active it feeds nothing.",
            found.remedy,
        )


def blank(value: object) -> bool:
    """Whether a field was left empty."""
    return value is None or not str(value).strip()


def _row(i: int, given: RateRowIn) -> dict[str, Any]:
    field = f"rates.{i}"
    label = read_label_rate(given.phrase, f"{field}.phrase")
    for name, keys, known in (("grasses", given.grasses, set(GRASSES)), ("uses", given.uses, {u.value for u in Use})):
        if unknown := [k for k in keys if k not in known]:
            raise InputError(f"{field}.{name}", unknown[0], f"“{unknown[0]}” is not known here.", "Pick from the list.")
    if given.intent not in {x.value for x in Intent}:
        raise InputError(f"{field}.intent", given.intent, f"“{given.intent}” is no intent.", "Pick from the list.")
    low, high = (_height(f"{field}.{n}", getattr(given, n), given.height_unit) for n in ("height_low", "height_high"))
    if low is not None and high is not None and low > high:
        raise InputError(f"{field}.height_high", high, "The heights run down.", "Put the lower height first.")
    first, last = (_days(f"{field}.{n}", getattr(given, n)) for n in ("interval_low", "interval_high"))
    if first is not None and last is not None and first > last:
        raise InputError(f"{field}.interval_high", last, "The interval runs down.", "Put the fewer days first.")
    return {
        "label": label,
        "use": given.use,
        "phrase": given.phrase,
        "target": given.target,
        "grasses": given.grasses,
        "uses": given.uses,
        "height_low": low,
        "height_high": high,
        "height_unit": given.height_unit if low is not None or high is not None else "",
        "intent": given.intent,
        "interval_low": first,
        "interval_high": last,
    }


def _height(field: str, given: Any, unit: str) -> float | None:
    if blank(given):
        return None
    return quantity(field, number_in(field, given), unit, LENGTH).value


def _days(field: str, given: Any) -> int | None:
    if blank(given):
        return None
    value = positive(field, number_in(field, given), most=400, symbol="days")
    if value != round(value):
        raise InputError(field, given, f"{given} days is no whole number.", "Labels count whole days.")
    return round(value)


def _fits(i: int, label: LabelRate, made: core.Formulation, weighed: bool) -> None:
    field, unit = f"rates.{i}.phrase", label.unit
    if unit.basis is not Basis.PRODUCT:
        return
    if not made.liquid and unit.amount.dimension == VOLUME:
        raise InputError(
            field,
            str(label),
            f"A {made.name} is weighed, and this rate is in {unit.amount.symbol}.",
            "Give it by weight, or check the formulation.",
        )
    if made.liquid and unit.amount.dimension == MASS and not weighed:
        raise InputError(
            "density",
            None,
            f"The rate {label} weighs a liquid; pouring it needs the density.",
            "Find the weight per gallon or kg/L on the label.",
        )
    if not made.sprayed and not unit.per_area:
        raise InputError(field, str(label), "Granules have no spray to be a share of.", "Give the rate per area.")


def _package(i: int, given: PackageIn, made: core.Formulation | None) -> tuple[Quantity, Decimal | None]:
    field = f"packages.{i}"
    size = quantity(f"{field}.value", number_in(f"{field}.value", given.value), given.unit, MASS, VOLUME)
    if made and made.liquid != (size.unit.dimension == VOLUME):
        raise InputError(
            f"{field}.value",
            str(size),
            f"A {made.name} is not sold by {size.unit.dimension}.",
            "Use gal, fl oz or L for liquids, lb, oz wt or kg for dry products.",
        )
    return size, money_in(f"{field}.price", given.price) if given.price.strip() else None


def _save_contents(product: Product, given: list[ContentIn]) -> None:
    product.contents.all().delete()
    for i, content in enumerate(given):
        basis = Basis(content.basis)
        Content.objects.create(
            product=product,
            position=i,
            name=content.name.strip() or basis.text,
            basis=basis.value,
            unit=content.unit,
            amount=number_in("amount", content.amount),
            slow=None if blank(content.slow) else number_in("slow", content.slow or 0),
        )


def _save_rates(product: Product, given: list[RateRowIn], rows: list[dict[str, Any]]) -> None:
    kept = {row.pk: row for row in product.rates.all()}
    for i, (typed, row) in enumerate(zip(given, rows, strict=True)):
        found = kept.pop(typed.id, None) if typed.id else None
        found = found or RateRow(product=product)
        found.position = i
        for name, value in row.items():
            if name != "label":
                setattr(found, name, value)
        found.save()
    for gone in kept.values():
        gone.delete()


def _save_packages(product: Product, found: list[tuple[Quantity, Decimal | None]]) -> None:
    product.packages.all().delete()
    for i, (size, price) in enumerate(found):
        Package.objects.create(product=product, position=i, value=size.value, unit=size.unit.key, price=price)


# --- stock ------------------------------------------------------------------------------------------------------


def _left(given: QuantityIn) -> Quantity:
    """What is left of a lot; nothing may be. Raises InputError."""
    if str(given.value).strip() == "0":
        return Quantity(0.0, unit(given.unit, "left"))
    return quantity_in("left", given, MASS, VOLUME)


def save_lot(product: Product, data: LotIn, lot: Lot | None = None) -> Lot:
    """Put a lot on the shelf, or say what is left of it.

    Raises:
        Faulty: every field at fault, at once.
        Stale: it was changed since `data.version`, be it by a round that took from it.
    """
    faults = Faults()
    before, lot = lot, lot or Lot(product=product)
    made = core.FORMULATIONS[product.formulation]
    left = faults.of(_left, data.left)
    if left and (left.unit.dimension == VOLUME) != made.liquid:
        faults.add("left", str(left), f"A {made.name} is not measured by {left.unit.dimension}.", "Pick another unit.")
    if not data.number.strip():
        faults.add("number", data.number, "The lot has no number.", "Copy it from the package, or write the day it came.")
    if data.received_on and data.expires_on and data.expires_on < data.received_on:
        faults.add("expires_on", data.expires_on, "It would have expired before it came.", "Check both days.")
    faults.raise_any()
    assert left
    lot.number, lot.left_value, lot.left_unit = data.number, left.value, left.unit.key
    lot.received_on, lot.expires_on, lot.note = data.received_on, data.expires_on, data.note
    with claim(before, data.version):
        lot.save()
        product.account.touch("stock")
    return lot


def lot_of(product: Product, pk: int) -> Lot:
    """A lot of a product. Raises Missing."""
    found = product.lots.filter(pk=pk).first()
    if found is None:
        raise Missing("lot")
    return found


def take_from_lot(lot: Lot, used: Quantity) -> None:
    """Take what was used from a lot; it is never less than empty. Weight from a volume lot is left to be counted by hand.

    The database counts, so that two who take at once both take.
    """
    if used.unit.dimension == lot.left.unit.dimension:
        took = used.base / lot.left.unit.size
        left = Greatest(Value(0.0), F("left_value") - Value(took))
        Lot.objects.filter(pk=lot.pk).update(left_value=left, version=F("version") + 1)


# --- label files ------------------------------------------------------------------------------------------------

MOST_PAGES = 200


def add_label_file(product: Product, name: str, data: bytes) -> LabelFile:
    """Keep a photograph or a PDF of the label; photographs are turned upright, sized down and rid of their place and time.

    Raises:
        InputError: neither, or too large; a photograph is measured before it is decoded.
    """
    if len(data) > MOST_BYTES:
        raise InputError("file", name, f"{len(data) / 1e6:.1f} MB is too large.", "Keep it under 12 MB.")
    if data.startswith(b"%PDF-"):
        kind = "application/pdf"
        _check_pdf(name, data)
    else:
        kind, data = "image/jpeg", photograph(name, data, "Pick a JPEG, a PNG or a PDF.").jpeg
    made = LabelFile.objects.create(product=product, name=name[:120] or "label", kind=kind, data=data)
    product.account.touch("shelf")
    return made


def _check_pdf(name: str, data: bytes) -> None:
    """Raises InputError where what calls itself a PDF has no pages that can be found, or too many."""
    from pypdf import PdfReader
    from pypdf.errors import PyPdfError

    try:
        pages = len(PdfReader(BytesIO(data)).pages)
    except (PyPdfError, ValueError, KeyError, TypeError, AttributeError, RecursionError, OSError):
        pages = 0
    if not pages:
        raise InputError("file", name, f"“{name}” is no PDF that can be read.", "Save it anew, or take a photograph.")
    if pages > MOST_PAGES:
        raise InputError("file", name, f"{pages} pages are no label.", f"{MOST_PAGES} at the most.")


def remove_label_file(product: Product, pk: int) -> None:
    """Take a label's picture away."""
    deleted, _ = product.labels.filter(pk=pk).delete()
    if not deleted:
        raise Missing("label")
    product.account.touch("shelf")
