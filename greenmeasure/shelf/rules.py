"""A label's rules at the border: as typed, with units, into the core's rules; and out again in sentences."""

from collections.abc import Callable
from datetime import date
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field

from core.errors import InputError
from core.label.rules import Incompatible, Leaf, Rules
from core.rates.phrase import read_label_rate
from core.rates.rate import Basis, LabelRate, show_label_rate
from core.units import LENGTH, SPEED, TIME, UNITS, Quantity, celsius, exact_number, show_number
from greenmeasure.common.errors import Faults
from greenmeasure.common.schemas import Line, Name, Out, QuantityIn, Text, filled, number_in, quantity_in

Maybe = QuantityIn | None


class IncompatibleIn(Schema):
    """What must not meet the product within `days`: a product, an active or a group code."""

    what: Name
    days: int = 0
    note: Name = ""


class RulesIn(Schema):
    """A label's rules as typed. What is left empty is not ruled; temperatures are in degF or degC."""

    most_per_application: Line = ""
    most_per_season: Line = ""
    active_per_season: Line = ""
    applications_per_season: int | None = None
    consecutive: int | None = None
    temperature_low: Maybe = None
    temperature_high: Maybe = None
    wind_low: Maybe = None
    wind_high: Maybe = None
    leaf: str = "either"
    rain_before: Maybe = None
    rain_after: Maybe = None
    water_in_delay: Maybe = None
    water_in_depth: Maybe = None
    water_in_time: Maybe = None
    mow_before: Maybe = None
    mow_after: Maybe = None
    bag_clippings: Maybe = None
    seed_before: Maybe = None
    seed_after: Maybe = None
    reentry: Maybe = None
    reentry_note: Line = ""
    buffer: Maybe = None
    mixed_life: Maybe = None
    fill_note: Text = ""
    incompatible: Annotated[list[IncompatibleIn], Field(max_length=30)] = []
    revised: date | None = None


class RuleSaidOut(Out):
    """One rule of the label in a sentence; `key` is the field it came from."""

    key: str
    text: str


HOUR, DAY = UNITS["h"].size, UNITS["day"].size


def _base(q: Quantity | None, size: float) -> float | None:
    return None if q is None else q.base / size


class _Reader:
    """Reads typed rules field by field, gathering faults named `rules.…`."""

    def __init__(self, data: RulesIn, faults: Faults) -> None:
        self.data, self.faults = data, faults

    def quantity(self, name: str, *dimensions: str) -> Quantity | None:
        given = filled(getattr(self.data, name))
        if given is None:
            return None
        return self.faults.of(self._quantity, name, given, dimensions)

    def _quantity(self, name: str, given: QuantityIn, dimensions: tuple[str, ...]) -> Quantity:
        field = f"rules.{name}"
        if number_is_zero(given.value):
            found = Quantity(0.0, UNITS[given.unit])
            if found.unit.dimension not in dimensions:
                raise InputError(field, given.unit, f"{found.unit.symbol} does not measure that.", "Pick another unit.")
            return found
        return quantity_in(field, given, *dimensions)

    def warmth(self, name: str) -> float | None:
        given = filled(getattr(self.data, name))
        if given is None:
            return None
        field = f"rules.{name}"

        def read() -> float:
            text = str(given.value).strip().replace("−", "-")
            minus = text.startswith("-")
            value = number_in(field, text.lstrip("-")) if isinstance(given.value, str) else float(given.value)
            return celsius(field, -value if minus and isinstance(given.value, str) else value, given.unit)

        return self.faults.of(read)

    def rate(self, name: str, active: bool = False) -> LabelRate | None:
        text: str = getattr(self.data, name)
        if not text.strip():
            return None
        found = self.faults.of(read_label_rate, text, f"rules.{name}")
        if found and not found.unit.per_area:
            self.faults.add(f"rules.{name}", text, "A cap is per area.", "Give it per 1,000 sq ft, acre, 100 m² or ha.")
        if found and active and found.basis is not Basis.ACTIVE:
            self.faults.add(f"rules.{name}", text, "That counts product, not active.", "Write it like 2 lb ai per acre.")
        return found

    def count(self, name: str) -> int | None:
        value: int | None = getattr(self.data, name)
        if value is not None and not 1 <= value <= 60:
            self.faults.add(f"rules.{name}", value, f"{value} is no number of applications.", "Enter 1 to 60.")
        return value

    def span(self, low: str, high: str, read: Callable[[str], float | None]) -> tuple[float | None, float | None]:
        found = read(low), read(high)
        if found[0] is not None and found[1] is not None and found[0] > found[1]:
            self.faults.add(f"rules.{high}", getattr(self.data, high).value, "The upper end is below the lower.", "Swap them.")
        return found


def number_is_zero(value: float | str) -> bool:
    """Whether a typed number is nothing: rules may say 0, where quantities may not."""
    return str(value).strip() in ("0", "0.0", "0.00")


def read_rules(data: RulesIn, faults: Faults) -> Rules:
    """The core's rules from what was typed; faults are gathered under `rules.…`."""
    r = _Reader(data, faults)

    def hours(name: str) -> float | None:
        return _base(r.quantity(name, TIME), HOUR)

    def days(name: str) -> int | None:
        found = _base(r.quantity(name, TIME), DAY)
        return None if found is None else round(found)

    def speed(name: str) -> float | None:
        return _base(r.quantity(name, SPEED), 1.0)

    leaf = Leaf.EITHER
    if data.leaf in {x.value for x in Leaf}:
        leaf = Leaf(data.leaf)
    else:
        faults.add("rules.leaf", data.leaf, f"A leaf is not “{data.leaf}”.", "Use either, dry or wet.")
    return Rules(
        most_per_application=r.rate("most_per_application"),
        most_per_season=r.rate("most_per_season"),
        active_per_season=r.rate("active_per_season", active=True),
        applications_per_season=r.count("applications_per_season"),
        consecutive=r.count("consecutive"),
        temperature=r.span("temperature_low", "temperature_high", r.warmth),
        wind=r.span("wind_low", "wind_high", speed),
        leaf=leaf,
        rain_before=hours("rain_before"),
        rain_after=hours("rain_after"),
        water_in_delay=hours("water_in_delay"),
        water_in_depth=_base(r.quantity("water_in_depth", LENGTH), 0.001),
        water_in_minutes=_base(r.quantity("water_in_time", TIME), 60.0),
        mow_before=hours("mow_before"),
        mow_after=hours("mow_after"),
        bag_clippings=days("bag_clippings"),
        seed_before=days("seed_before"),
        seed_after=days("seed_after"),
        reentry=hours("reentry"),
        reentry_note=data.reentry_note,
        buffer=_base(r.quantity("buffer", LENGTH), 1.0),
        mixed_life=hours("mixed_life"),
        fill_note=data.fill_note,
        incompatible=tuple(Incompatible(i.what, i.days, i.note) for i in data.incompatible if i.what.strip()),
        revised=data.revised,
    )


def rules_of(stored: dict[str, Any]) -> Rules:
    """The core's rules from what is stored; it was checked when it was saved."""
    return read_rules(RulesIn(**stored), Faults()) if stored else Rules()


def stored_rules(data: RulesIn) -> dict[str, Any]:
    """Typed rules as they are stored: only what is ruled."""
    plain = data.model_dump(mode="json")
    blank: tuple[Any, ...] = ("", None, [], "either")
    return {
        k: v for k, v in plain.items() if v not in blank and not (isinstance(v, dict) and not str(v.get("value", "")).strip())
    }


def typed(given: dict[str, Any], name: str) -> str:
    """A stored quantity as it was typed, in words."""
    held = given[name]
    value = held["value"]
    number = value if isinstance(value, str) else exact_number(float(value))
    symbol = {"degF": "°F", "degC": "°C"}.get(held["unit"]) or UNITS[held["unit"]].symbol
    return f"{number} {symbol}"


_SAID: tuple[tuple[str, str], ...] = (
    ("rain_before", "Dry for {} before."),
    ("rain_after", "No rain or water for {} after."),
    ("water_in_delay", "Water it in within {} of the application."),
    ("water_in_depth", "Water in with {} of water."),
    ("water_in_time", "Water in for {}."),
    ("mow_before", "Mow no later than {} before."),
    ("mow_after", "Do not mow for {} after."),
    ("bag_clippings", "Keep clippings off food and compost for {}."),
    ("seed_before", "{} between it and later seeding."),
    ("seed_after", "Not until {} after seeding."),
    ("reentry", "Keep people and animals off for {}."),
    ("buffer", "Keep {} from water."),
    ("mixed_life", "Use the mix within {}."),
)


def rules_said(stored: dict[str, Any]) -> list[RuleSaidOut]:
    """The label's rules in sentences, in the order in which they matter out there."""
    if not stored:
        return []
    rules = rules_of(stored)
    found: list[tuple[str, str]] = []
    if span := _span(stored, "temperature"):
        found.append(("temperature", f"Air {span}."))
    if span := _span(stored, "wind"):
        found.append(("wind", f"Wind {span}."))
    if rules.leaf is not Leaf.EITHER:
        found.append(("leaf", f"Leaf {rules.leaf.value}."))
    found += [(key, words.format(typed(stored, key))) for key, words in _SAID if key in stored]
    if rules.reentry_note:
        found.append(("reentry_note", rules.reentry_note.rstrip(".") + "."))
    for key, words in (("most_per_application", "at once"), ("most_per_season", "a season"), ("active_per_season", "a season")):
        if cap := getattr(rules, key):
            found.append((key, f"At most {show_label_rate(cap)} {words}."))
    if rules.applications_per_season:
        found.append(("applications_per_season", f"At most {rules.applications_per_season} applications a season."))
    if rules.consecutive:
        found.append(("consecutive", f"At most {rules.consecutive} in a row of its group."))
    for other in rules.incompatible:
        gap = f"{show_number(other.days)} days" if other.days else "the same day"
        found.append(("incompatible", f"Not with {other.what} within {gap}. {other.note}".strip()))
    if rules.fill_note:
        found.append(("fill_note", f"Filling: {rules.fill_note.rstrip('.')}."))
    if rules.revised:
        found.append(("revised", f"Label revised {rules.revised:%Y-%m-%d}."))
    return [RuleSaidOut(key=k, text=t) for k, t in found]


def _span(stored: dict[str, Any], name: str) -> str:
    low, high = f"{name}_low", f"{name}_high"
    if low in stored and high in stored:
        return f"{typed(stored, low)} to {typed(stored, high)}"
    if low in stored:
        return f"{typed(stored, low)} or more"
    return f"{typed(stored, high)} or less" if high in stored else ""
