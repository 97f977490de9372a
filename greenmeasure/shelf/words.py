"""The shelf as one says it: stock, contents, strengths, and what a rate row is for."""

from collections.abc import Mapping
from typing import Any

from core.grasses import GRASSES
from core.label.match import height_span
from core.label.product import FORMULATIONS, Kind
from core.label.rate import LabelRate, RateUnit
from core.label.rules import Intent
from core.label.table import BY_KEY
from core.readable import readable
from core.units import UNITS, Quantity, exact_number
from greenmeasure.shelf.models import Content, RateRow

UNIT_TEXT = {"lb/gal": "lb/gal", "kg/l": "kg/L", "g/ml": "g/mL", "g/l": "g/L", "%": "%"}


def stock_text(left: Quantity | None, us: bool) -> str:
    """What is left over all lots, in words; empty where no lot is kept."""
    return "" if left is None else str(readable(left, us))


def strength(value: float, unit: str) -> str:
    """A density or a content's strength, all its digits, with its unit."""
    return f"{exact_number(value)} {UNIT_TEXT[unit]}"


def content_text(content: Content) -> str:
    """A content as a card prints it: 22 % nitrogen (60 % slow)."""
    slow = "" if content.slow is None else f" ({exact_number(content.slow)} % slow)"
    return f"{strength(content.amount, content.unit)} {content.name}{slow}"


_FIELDS = {
    "name": "Name",
    "kind": "Type",
    "also": "It is also",
    "formulation": "Formulation",
    "group_code": "Group code",
    "registration": "Registration number",
    "rates": "Rate",
    "contents": "In it",
    "density": "Density",
    "packages": "Package",
    "stains": "Stains",
    "ppe_mixing": "Worn for mixing",
    "ppe_applying": "Worn for applying",
    "rules.water_in_depth": "Water in with",
    "rules.water_in_time": "Water in for",
}
"""What the fields of a card are called beside what was read for them."""


def field_text(field: str) -> str:
    """What a field of a card, or of its rules (`rules.reentry`), is called."""
    rule = BY_KEY.get(field.removeprefix("rules."))
    return _FIELDS.get(field) or (rule.field if rule else field)


def read_text(field: str, value: Any) -> str:
    """What was read for a field, in words."""
    if field in ("kind", "also"):
        return Kind(value).text.capitalize()
    if field == "formulation":
        return FORMULATIONS[value].name.capitalize()
    if field == "contents":
        slow = f" ({value['slow']} % slow)" if value["slow"] else ""
        return f"{value['amount']} {UNIT_TEXT[value['unit']]} {value['name']}{slow}"
    if field == "density":
        return f"{value['value']} {UNIT_TEXT[value['unit']]}"
    if field == "packages":
        return f"{value['value']} {UNITS[value['unit']].symbol}"
    if field == "rates":
        return "; ".join(part for part in (value["phrase"], *_for_what(value)) if part)
    if field == "stains":
        return "stone, paint or clothes"
    return str(value).replace("\n", ", ")


def _for_what(row: Mapping[str, Any]) -> tuple[str, ...]:
    intent = "" if row["intent"] == Intent.ANY.value else Intent(row["intent"]).text
    days = tuple(int(row[key]) if row[key] else None for key in ("interval_low", "interval_high"))
    return row["target"], intent, ", ".join(row.get("uses", ())), _interval(*days)


def ground_of(row: RateRow) -> str:
    """What ground a row is for, in words; empty where the label does not narrow it."""
    parts = [", ".join(GRASSES[g].name.lower() for g in row.grasses), ", ".join(row.uses)]
    if row.height_low is not None or row.height_high is not None:
        parts.append(height_span(row.core(), UNITS[row.height_unit]))
    if row.intent != Intent.ANY.value:
        parts.append(Intent(row.intent).text)
    parts.append(_interval(row.interval_low, row.interval_high))
    return "; ".join(p for p in parts if p)


def _interval(first: int | None, last: int | None) -> str:
    if first and last:
        return f"every {first} days" if first == last else f"every {first} to {last} days"
    if first:
        return f"{first} days apart or more"
    return f"within {last} days" if last else ""


def show_in(label: LabelRate, unit: RateUnit) -> str:
    """The range in another unit, on one line."""
    low, high = label.lowest, label.highest.to(unit)
    if low.value in (0, label.highest.value):
        return str(high)
    return f"{str(low.to(unit)).split(' ')[0]} to {high}"
