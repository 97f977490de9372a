"""What changes the shelf."""

from decimal import Decimal, InvalidOperation

from django.db import transaction

from core.errors import InputError
from core.rates import product as core
from core.rates.phrase import read_label_rate
from core.rates.rate import Basis, LabelRate
from core.units import MASS, VOLUME, Quantity, density, positive
from greenmeasure.accounts.models import Club
from greenmeasure.common.errors import Faults
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import number_in, quantity_in
from greenmeasure.shelf.models import Content, Product, RateRow
from greenmeasure.shelf.schemas import ContentIn, ProductIn, RateRowIn


def save_product(club: Club, data: ProductIn, product: Product | None = None) -> Product:
    """Add a product, or change one. Rows that keep their id keep it.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults = Faults()
    product = product or Product(club=club)
    name = faults.of(free_name, Product, club, data.name, product.pk)
    kind = faults.of(_kind, data.kind)
    made = faults.of(core.formulation, data.formulation)
    heavy = faults.of(_density, data) if data.density else None
    contents = [faults.of(_content, i, c) for i, c in enumerate(data.contents)]
    labels = [faults.of(_label, i, r) for i, r in enumerate(data.rates)]
    if not data.rates:
        faults.add("rates", None, "The product has no rate.", "Type at least one rate as the label prints it.")
    package = faults.of(_package, data, made) if data.package else None
    price = faults.of(_price, data, package) if data.price else None
    if made:
        for i, label in enumerate(labels):
            if label:
                faults.of(_fits, i, label, made, bool(heavy))
    faults.raise_any()
    assert name and kind and made
    whole = core.Product(name, kind, made, tuple(c for c in contents if c), heavy)
    faults.of(core.check_product, whole)
    faults.raise_any()
    product.name, product.kind, product.formulation = name, kind.value, made.code
    product.density_value = number_in("density", data.density.value) if data.density else None
    product.density_unit = data.density.unit if data.density else ""
    product.group_code, product.note, product.stains = data.group_code.strip(), data.note, data.stains
    product.package_value = package.value if package else None
    product.package_unit = package.unit.key if package else ""
    product.price = price
    product.ppe_mixing, product.ppe_applying = _lines(data.ppe_mixing), _lines(data.ppe_applying)
    with transaction.atomic():
        product.save()
        _save_contents(product, data.contents)
        _save_rates(product, data.rates)
    return Product.objects.get(pk=product.pk)


def _lines(text: str) -> str:
    return "\n".join(line.strip() for line in text.splitlines() if line.strip())


def _kind(key: str) -> core.Kind:
    try:
        return core.Kind(key)
    except ValueError:
        raise InputError("kind", key, "No type is chosen." if not key else f"“{key}” is not a type of product.",
                         "Pick what the label says it is.") from None  # fmt: skip


def _density(data: ProductIn) -> float:
    assert data.density
    return density("density", number_in("density", data.density.value), data.density.unit)


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
    if given.unit == "%":
        content = core.Content(name, basis, percent=amount)
    else:
        content = core.Content(name, basis, g_per_l=density(f"{field}.amount", amount, given.unit))
    try:
        core.check_contents([content])
    except InputError as fault:
        raise fault.on(fault.field.replace("contents.0", field)) from None
    return content


def _label(i: int, given: RateRowIn) -> LabelRate:
    return read_label_rate(given.phrase, f"rates.{i}.phrase")


def _fits(i: int, label: LabelRate, made: core.Formulation, weighed: bool) -> None:
    field, unit = f"rates.{i}.phrase", label.unit
    if unit.basis is not Basis.PRODUCT:
        return
    if not made.liquid and unit.amount.dimension == VOLUME:
        raise InputError(field, str(label), f"A {made.name} is weighed, and this rate is in {unit.amount.symbol}.",
                         "Give it by weight, or check the formulation.")  # fmt: skip
    if made.liquid and unit.amount.dimension == MASS and not weighed:
        raise InputError("density", None, f"The rate {label} weighs a liquid; pouring it needs the density.",
                         "Find the weight per gallon or kg/L on the label.")  # fmt: skip
    if not made.sprayed and not unit.per_area:
        raise InputError(field, str(label), "Granules have no spray to be a share of.", "Give the rate per area.")


def _package(data: ProductIn, made: core.Formulation | None) -> Quantity:
    assert data.package
    size = quantity_in("package", data.package, MASS, VOLUME)
    if made and made.liquid != (size.unit.dimension == VOLUME):
        raise InputError("package", str(size), f"A {made.name} is not sold by {size.unit.dimension}.",
                         "Use gal, fl oz or L for liquids, lb, oz wt or kg for dry products.")  # fmt: skip
    return size


def _price(data: ProductIn, package: Quantity | None) -> Decimal:
    text = data.price.strip().lstrip("$€£").replace(",", "")
    try:
        price = Decimal(text)
    except InvalidOperation:
        raise InputError("price", data.price, f"“{data.price}” is no price.", "Write it like 84.50.") from None
    if not price.is_finite():
        raise InputError("price", data.price, f"“{data.price}” is no price.", "Write it like 84.50.")
    positive("price", float(price), most=1e6)
    if package is None and not data.package:
        raise InputError("package", None, "A price needs the package it buys.", "Enter the package's size.")
    return price.quantize(Decimal("0.01"))


def _save_contents(product: Product, given: list[ContentIn]) -> None:
    product.contents.all().delete()
    for i, content in enumerate(given):
        basis = Basis(content.basis)
        name = content.name.strip() or basis.text
        Content.objects.create(
            product=product, position=i, name=name, basis=basis.value, unit=content.unit,
            amount=number_in("amount", content.amount),
        )  # fmt: skip


def _save_rates(product: Product, given: list[RateRowIn]) -> None:
    kept = {row.pk: row for row in product.rates.all()}
    for i, row in enumerate(given):
        found = kept.pop(row.id, None) if row.id else None
        found = found or RateRow(product=product)
        found.position, found.use, found.phrase = i, row.use, row.phrase
        found.save()
    for gone in kept.values():
        gone.delete()
