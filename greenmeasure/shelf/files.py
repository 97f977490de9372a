"""The shelf in and out as files: JSON holds whole cards, CSV a line a rate; both say what they would change first."""

import csv
import json
from collections.abc import Iterator
from typing import Any

from django.db import transaction

from core.errors import InputError, NotUnderstood
from core.units import exact_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.bounds import read_json, shaped
from greenmeasure.common.bringing import ImportOut, LineChangeOut, brought_in
from greenmeasure.common.csv_text import Echo, rows_of, safe
from greenmeasure.common.differences import named, short
from greenmeasure.common.differences import plain as alike
from greenmeasure.common.errors import Faulty
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.queries import whole_products
from greenmeasure.shelf.rules import stored_rules, typed_rules
from greenmeasure.shelf.schemas import ContentIn, PackageIn, PrintedIn, ProductIn, RateRowIn

MOST_PRODUCTS = 1000
FORMAT = "green-measure-shelf"


def product_in(product: Product) -> ProductIn:
    """A product as the API takes it: what an export holds and an import reads."""
    density = None
    if product.density_value is not None:
        density = QuantityIn(value=exact_number(product.density_value), unit=product.density_unit)
    return ProductIn(
        name=product.name,
        kind=product.kind,
        also=product.also,
        printed=[PrintedIn(**p) for p in product.printed],
        formulation=product.formulation,
        group_code=product.group_code,
        registration=product.registration,
        looks=product.looks,
        expect=product.expect,
        density=density,
        contents=[
            ContentIn(
                name=c.name,
                basis=c.basis,
                amount=exact_number(c.amount),
                unit=c.unit,
                slow=None if c.slow is None else exact_number(c.slow),
            )
            for c in product.contents.all()
        ],
        rates=[
            RateRowIn(
                use=r.use,
                phrase=r.phrase,
                target=r.target,
                grasses=r.grasses,
                uses=r.uses,
                height_low=r.height_low,
                height_high=r.height_high,
                height_unit=r.height_unit or "in",
                intent=r.intent,
                interval_low=r.interval_low,
                interval_high=r.interval_high,
            )
            for r in product.rates.all()
        ],
        packages=[
            PackageIn(value=exact_number(p.value), unit=p.unit, price="" if p.price is None else str(p.price))
            for p in product.packages.all()
        ],
        rules=typed_rules(product.rules),
        stains=product.stains,
        ppe_mixing=product.ppe_mixing,
        ppe_applying=product.ppe_applying,
        note=product.note,
    )


def plain(data: ProductIn) -> dict[str, Any]:
    """A product as a file holds it: only what is said, rows without their ids."""
    found = data.model_dump(mode="json", exclude={"version"})
    found["rules"] = stored_rules(data.rules)
    found["rates"] = [{k: v for k, v in r.items() if k != "id" and v not in ("", None, [], "any")} for r in found["rates"]]
    for row in found["rates"]:
        if "height_low" not in row and "height_high" not in row:
            row.pop("height_unit", None)
    found["contents"] = [{k: v for k, v in c.items() if v is not None} for c in found["contents"]]
    return {k: v for k, v in found.items() if v not in ("", None, [], {}, False)}


def to_json(account: Account) -> str:
    """The whole shelf as JSON."""
    products = [plain(product_in(p)) for p in whole_products(account).filter(archived_at=None)]
    return json.dumps({"format": FORMAT, "version": 1, "products": products}, indent=1, ensure_ascii=False) + "\n"


COLUMNS = (
    "name",
    "kind",
    "also",
    "formulation",
    "group_code",
    "registration",
    "looks",
    "expect",
    "density",
    "density_unit",
    "contents",
    "package",
    "package_unit",
    "price",
    "stains",
    "rate",
    "for",
    "target",
    "grasses",
    "uses",
    "height_low",
    "height_high",
    "height_unit",
    "intent",
    "interval_low",
    "interval_high",
    "note",
)


def csv_lines(account: Account) -> Iterator[str]:
    """The shelf as CSV (RFC 4180): a line a rate, with its product's facts before it; rules are in the JSON alone."""
    writer = csv.writer(Echo())
    yield writer.writerow(COLUMNS)
    for product in whole_products(account).filter(archived_at=None):
        data = product_in(product)
        package = data.packages[0] if data.packages else None
        for row in data.rates:
            cells = {
                "name": data.name,
                "kind": data.kind,
                "also": " ".join(data.also),
                "formulation": data.formulation,
                "group_code": data.group_code,
                "registration": data.registration,
                "looks": data.looks,
                "expect": data.expect,
                "density": data.density.value if data.density else "",
                "density_unit": data.density.unit if data.density else "",
                "contents": "; ".join(_content_text(c) for c in data.contents),
                "package": package.value if package else "",
                "package_unit": package.unit if package else "",
                "price": package.price if package else "",
                "stains": "yes" if data.stains else "",
                "rate": row.phrase,
                "for": row.use,
                "target": row.target,
                "grasses": " ".join(row.grasses),
                "uses": " ".join(row.uses),
                "height_low": _cell(row.height_low),
                "height_high": _cell(row.height_high),
                "height_unit": row.height_unit,
                "intent": row.intent,
                "interval_low": _cell(row.interval_low),
                "interval_high": _cell(row.interval_high),
                "note": data.note,
            }
            yield writer.writerow([safe(str(cells[c])) for c in COLUMNS])


def _cell(value: object) -> str:
    return "" if value is None else f"{value:g}" if isinstance(value, float) else str(value)


def _content_text(c: ContentIn) -> str:
    slow = f" slow {c.slow}" if c.slow is not None else ""
    return f"{c.amount} {c.unit} {c.basis} {c.name}{slow}"


# --- in ---------------------------------------------------------------------------------------------------------


def read(account: Account, form: str, text: str, keep: bool) -> ImportOut:
    """What a file would do, product by product; with `keep`, do it where nothing is refused.

    Raises:
        NotUnderstood, InputError: the file as a whole is at fault.
    """
    given = _from_json(text) if form == "json" else _from_csv(text)
    if len(given) > MOST_PRODUCTS:
        raise InputError("text", len(given), f"{len(given)} products are too many at once.", f"Bring in {MOST_PRODUCTS} at most.")
    held = {p.name.lower(): p for p in whole_products(account).filter(archived_at=None)}
    lines = []
    with transaction.atomic():
        for number, item in given:
            with transaction.atomic():
                lines.append(_line(account, number, item, held, form))
        refused = sum(x.act == "refused" for x in lines)
        if not keep or refused:
            transaction.set_rollback(True)
    return ImportOut(lines=lines, refused=refused, sentence=brought_in(lines, keep))


def _from_json(text: str) -> list[tuple[int, dict[str, Any]]]:
    given = read_json(text)
    products = given.get("products") if isinstance(given, dict) else given
    if not isinstance(products, list) or not all(isinstance(p, dict) for p in products):
        raise NotUnderstood("text", text[:40], "It holds no list of products.", 'It needs {"products": [ … ]}.')
    return list(enumerate(products, start=1))


def _from_csv(text: str) -> list[tuple[int, dict[str, Any]]]:
    """Products by name from the lines of a CSV; the number is the first line of each."""
    found: dict[str, tuple[int, dict[str, Any]]] = {}
    for number, row in rows_of(text, {"name", "rate"}, COLUMNS):
        key = row["name"].lower()
        if key not in found:
            found[key] = (number, _product_of(row))
        found[key][1]["rates"].append(_rate_of(row))
    return list(found.values())


def _product_of(row: dict[str, str]) -> dict[str, Any]:
    made: dict[str, Any] = {
        "name": row["name"],
        "kind": row.get("kind", ""),
        "also": row.get("also", "").split(),
        "formulation": row.get("formulation", ""),
        "group_code": row.get("group_code", ""),
        "registration": row.get("registration", ""),
        "looks": row.get("looks", ""),
        "expect": row.get("expect", ""),
        "note": row.get("note", ""),
        "stains": row.get("stains", "").lower() in ("yes", "true", "1"),
        "rates": [],
        "contents": [_content_of(c) for c in row.get("contents", "").split(";") if c.strip()],
    }
    if row.get("density"):
        made["density"] = {"value": row["density"], "unit": row.get("density_unit") or "lb/gal"}
    if row.get("package"):
        made["packages"] = [{"value": row["package"], "unit": row.get("package_unit") or "lb", "price": row.get("price", "")}]
    return made


def _content_of(text: str) -> dict[str, Any]:
    """`21.3 % active fludioxonil`, `22 % N N slow 8`: amount, unit, what it counts as, its name."""
    words, _, slow = text.strip().partition(" slow ")
    parts = [*words.split(None, 3), "", "", "", ""][:4]
    return {
        "amount": parts[0],
        "unit": parts[1] or "%",
        "basis": parts[2] or "active",
        "name": parts[3],
        **({"slow": slow} if slow else {}),
    }


def _rate_of(row: dict[str, str]) -> dict[str, Any]:
    made: dict[str, Any] = {"phrase": row["rate"], "use": row.get("for", ""), "target": row.get("target", "")}
    made["grasses"], made["uses"] = row.get("grasses", "").split(), row.get("uses", "").split()
    for name in ("height_low", "height_high", "interval_low", "interval_high", "height_unit", "intent"):
        if row.get(name):
            made[name] = row[name]
    return made


def _line(account: Account, number: int, item: dict[str, Any], held: dict[str, Product], form: str) -> LineChangeOut:
    name = str(item.get("name") or f"Product {number}")
    try:
        data = shaped(ProductIn, item)
        was = held.get(" ".join(data.name.lower().split()))
        if was is None:
            save_product(account, data)
            return LineChangeOut(line=number, name=name, act="add", changes=[], problems=[])
        before = product_in(was)
        if form == "csv":
            data = data.model_copy(
                update={
                    "rules": before.rules,
                    "ppe_mixing": before.ppe_mixing,
                    "ppe_applying": before.ppe_applying,
                    "packages": [*data.packages, *before.packages[1:]],
                }
            )
        changes = changed(plain(before), plain(data))
        if not changes:
            return LineChangeOut(line=number, name=name, act="same", changes=[], problems=[])
        ids = {(r.phrase, r.use): r.pk for r in was.rates.all()}
        for row in data.rates:
            row.id = ids.get((row.phrase, row.use))
        data.version = was.version
        save_product(account, data, was)
        return LineChangeOut(line=number, name=name, act="change", changes=changes, problems=[])
    except Faulty as several:
        problems = [f"{f.field}: {f.sentence}" for f in several.faults]
    except InputError as fault:
        problems = [f"{fault.field}: {fault.sentence}"]
    return LineChangeOut(line=number, name=name, act="refused", changes=[], problems=problems)


def changed(before: dict[str, Any], after: dict[str, Any]) -> list[str]:
    """What differs between two cards, a line a field: old → new."""
    return [
        f"{named(key).lower()}: {short(before.get(key))} → {short(after.get(key))}"
        for key in dict.fromkeys([*before, *after])
        if alike(before.get(key)) != alike(after.get(key))
    ]
