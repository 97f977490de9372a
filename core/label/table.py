"""A label's rules as one table: what each is called, what it measures, how it is said, and who checks it.

The schema at the border, the stored form, the form's fields, the sentences and the gate are all made from these rows: a rule
that is not here is nowhere. `read` turns what was typed, or stored, into the core's `Rules`; what it cannot read it names, and
the gate stops a plan for it.
"""

import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from enum import StrEnum
from typing import Any

from core.errors import InputError
from core.label.phrase import read_label_rate
from core.label.rate import Basis, LabelRate, show_label_rate
from core.label.rules import DROPLETS, ActiveCap, Helper, Incompatible, Leaf, Rules
from core.readable import joined
from core.units import LENGTH, SPEED, TIME, UNITS, Quantity, celsius, exact_number, read_signed, show_number, typed_quantity, unit


class Kind(StrEnum):
    """What a rule is given as: a quantity of a dimension, a rate, a count, a word, lines of text, names, a day, a list."""

    TEMPERATURE = "temperature"
    SPEED = "speed"
    HOURS = "hours"
    MINUTES = "minutes"
    DAYS = "days"
    DEPTH = "depth"
    DISTANCE = "distance"
    RATE = "rate"
    ACTIVE_RATE = "active_rate"
    COUNT = "count"
    LEAF = "leaf"
    HELPER = "helper"
    DROPLETS = "droplets"
    NAMES = "names"
    LINE = "line"
    TEXT = "text"
    DAY = "day"
    APART = "apart"

    @property
    def quantity(self) -> bool:
        """Whether it is a number with a unit."""
        return self in UNITS_OF


UNITS_OF: dict[Kind, tuple[str, ...]] = {
    Kind.TEMPERATURE: ("degF", "degC"),
    Kind.SPEED: ("mph", "kmh", "mps"),
    Kind.HOURS: ("h", "min", "day"),
    Kind.MINUTES: ("min", "h"),
    Kind.DAYS: ("day", "h"),
    Kind.DEPTH: ("in", "mm"),
    Kind.DISTANCE: ("ft", "m"),
}
"""The units that a quantity is typed in."""
_SIZES: dict[Kind, tuple[str, float]] = {
    Kind.SPEED: (SPEED, 1.0),
    Kind.HOURS: (TIME, UNITS["h"].size),
    Kind.MINUTES: (TIME, UNITS["min"].size),
    Kind.DAYS: (TIME, UNITS["day"].size),
    Kind.DEPTH: (LENGTH, 0.001),
    Kind.DISTANCE: (LENGTH, 1.0),
}


class Checked(StrEnum):
    """Who holds a plan against a rule: the gate, the hours fit to work, or the people who read it."""

    GATE = "gate"
    HOURS = "hours"
    READ = "read"


@dataclass(frozen=True)
class Rule:
    """One rule of a label.

    `key` is its name in what is typed and stored; `attribute` where it stands in `Rules`, with an `end` (0 low, 1 high) where
    two make a span. `sentence` says it, `{}` for what was typed. `section`, `field`, `hint` and `example` are its form field.
    """

    key: str
    kind: Kind
    sentence: str
    checked: Checked
    section: str
    field: str
    hint: str = ""
    example: str = ""
    attribute: str = ""
    end: int | None = None

    @property
    def stands(self) -> str:
        return self.attribute or self.key


_MUCH, _WHEN, _AFTER, _APART = (
    "How much, how often",
    "When: weather, leaf, water",
    "Mowing, seed, people, water nearby",
    "What it must not meet",
)
_DROPS = Kind.DROPLETS
GATE, HOURS, READ = Checked.GATE, Checked.HOURS, Checked.READ

RULES: tuple[Rule, ...] = (
    Rule("temperature_low", Kind.TEMPERATURE, "Air {} or more.", HOURS, _WHEN, "Air at least", attribute="temperature", end=0),
    Rule("temperature_high", Kind.TEMPERATURE, "Air {} or less.", HOURS, _WHEN, "Air at most", attribute="temperature", end=1),
    Rule("soil_low", Kind.TEMPERATURE, "Soil {} or more.", HOURS, _WHEN, "Soil at least", "At 5 cm.", attribute="soil", end=0),
    Rule("soil_high", Kind.TEMPERATURE, "Soil {} or less.", HOURS, _WHEN, "Soil at most", "At 5 cm.", attribute="soil", end=1),
    Rule("wind_low", Kind.SPEED, "Wind {} or more.", HOURS, _WHEN, "Wind at least", attribute="wind", end=0),
    Rule("wind_high", Kind.SPEED, "Wind {} or less.", HOURS, _WHEN, "Wind at most", attribute="wind", end=1),
    Rule(
        "droplets_low",
        Kind.DROPLETS,
        "Droplets {} or coarser.",
        GATE,
        _WHEN,
        "Droplets no finer than",
        attribute="droplets",
        end=0,
    ),
    Rule(
        "droplets_high",
        Kind.DROPLETS,
        "Droplets {} or finer.",
        GATE,
        _WHEN,
        "Droplets no coarser than",
        attribute="droplets",
        end=1,
    ),
    Rule("leaf", Kind.LEAF, "Leaf {}.", HOURS, _WHEN, "Leaf"),
    Rule("rain_before", Kind.HOURS, "Dry for {} before.", HOURS, _WHEN, "Dry before it, for"),
    Rule("rain_after", Kind.HOURS, "No rain or water for {} after.", HOURS, _WHEN, "No rain after it, for"),
    Rule(
        "water_in_delay",
        Kind.HOURS,
        "Water it in within {} of the application.",
        HOURS,
        _WHEN,
        "Water in within",
        "How long after it the water may come.",
    ),
    Rule("water_in_depth", Kind.DEPTH, "Water in with {} of water.", READ, _WHEN, "with this much", "The depth of water."),
    Rule(
        "water_in_time",
        Kind.MINUTES,
        "Water in for {}.",
        READ,
        _WHEN,
        "or for this long",
        "Where the label gives a time.",
        attribute="water_in_minutes",
    ),
    Rule("mow_before", Kind.HOURS, "Mow no later than {} before.", HOURS, _AFTER, "Mow no later than, before"),
    Rule("mow_after", Kind.HOURS, "Do not mow for {} after.", HOURS, _AFTER, "Do not mow for, after"),
    Rule("bag_clippings", Kind.DAYS, "Keep clippings off food and compost for {}.", READ, _AFTER, "Keep clippings off food for"),
    Rule("seed_before", Kind.DAYS, "{} between it and later seeding.", GATE, _AFTER, "Between it and later seed"),
    Rule("seed_after", Kind.DAYS, "Not until {} after seeding.", GATE, _AFTER, "After seeding, wait"),
    Rule("reentry", Kind.HOURS, "Keep people and animals off for {}.", READ, _AFTER, "Keep off for"),
    Rule("buffer", Kind.DISTANCE, "Keep {} from water.", GATE, _AFTER, "Keep from water"),
    Rule("mixed_life", Kind.HOURS, "Use the mix within {}.", READ, _AFTER, "Use the mix within"),
    Rule("reentry_note", Kind.LINE, "{}.", READ, _AFTER, "Keeping off, in the label’s words", example="Keep off until dry"),
    Rule(
        "most_per_application", Kind.RATE, "At most {} at once.", GATE, _MUCH, "Most at once", example="2 fl oz per 1,000 sq ft"
    ),
    Rule(
        "most_per_season",
        Kind.RATE,
        "At most {} a season.",
        GATE,
        _MUCH,
        "Most product a season",
        example="9 fl oz per 1,000 sq ft",
    ),
    Rule(
        "active_per_season",
        Kind.ACTIVE_RATE,
        "At most {} a season.",
        GATE,
        _MUCH,
        "Most active a season",
        "Of one active by its name: boscalid 1 lb ai per acre; several by semicolons.",
        "2.5 lb ai per acre",
    ),
    Rule("applications_per_season", Kind.COUNT, "At most {} applications a season.", GATE, _MUCH, "Applications a season"),
    Rule("consecutive", Kind.COUNT, "At most {} in a row of its group.", GATE, _MUCH, "In a row of its group"),
    Rule("incompatible", Kind.APART, "Not with {}.", GATE, _APART, "What it must not meet"),
    Rule(
        "never_all",
        Kind.NAMES,
        "Never in one tank with all of {}.",
        GATE,
        _APART,
        "Never with all of these",
        "Products, actives or groups, parted by semicolons.",
        "HRAC 4; HRAC 2",
    ),
    Rule(
        "most_mixed",
        Kind.RATE,
        "At most {} where it is mixed with others.",
        GATE,
        _APART,
        "Most when mixed with others",
        example="0.6 fl oz per 1,000 sq ft",
    ),
    Rule("adjuvant", Kind.HELPER, "Adjuvant {}.", GATE, _APART, "Adjuvant in the tank"),
    Rule("fill_note", Kind.TEXT, "Filling: {}.", READ, _AFTER, "Filling, in the label’s words"),
    Rule("revised", Kind.DAY, "Label revised {}.", READ, _MUCH, "Label revised on"),
)
BY_KEY = {r.key: r for r in RULES}
SPANS = tuple(dict.fromkeys(r.stands for r in RULES if r.end is not None))
"""Rules with a lower and an upper end."""


@dataclass(frozen=True)
class Read:
    """Rules that were read, and the faults of those that could not be, each under the rule's key."""

    rules: Rules
    faults: tuple[InputError, ...]


def read(given: Mapping[str, Any], actives: tuple[str, ...] = ()) -> Read:
    """The rules that were typed or stored, by their keys; a rule that is empty or absent is not ruled.

    Args:
        given: as typed: quantities as `{value, unit}`, rates as phrases, days as ISO dates.
        actives: the names that a season's cap may name; none means that any name is taken.

    What cannot be read, and a key that is no rule, is a fault and no rule.
    """
    values: dict[str, Any] = {name: [None, None] for name in SPANS}
    faults: list[InputError] = []
    for key, typed in given.items():
        rule = BY_KEY.get(key)
        if blank(typed):
            continue
        try:
            if rule is None:
                raise InputError(key, str(typed), f"“{key}” is no rule known here.", "Bring Green Measure up to date.")
            value = _READ[rule.kind](rule, typed)
            if rule.kind is Kind.ACTIVE_RATE and actives:
                _named_here(rule, value, actives)
            if rule.end is None:
                values[rule.stands] = value
            else:
                values[rule.stands][rule.end] = value
        except InputError as fault:
            faults.append(fault)
        except (TypeError, ValueError, KeyError, AttributeError):
            faults.append(InputError(key, str(typed), f"“{typed}” cannot be read.", "Type it again."))
    for name in SPANS:
        low, high = values[name]
        if low is not None and high is not None and low > high:
            faults.append(
                InputError(f"{name}_high", str(given.get(f"{name}_high")), "The upper end is below the lower.", "Swap them.")
            )
        values[name] = (low, high)
    return Read(Rules(**values, unreadable=tuple(f"{_said_field(f.field)}: {f.value}" for f in faults)), tuple(faults))


def blank(typed: Any) -> bool:
    """Whether nothing was typed for a rule."""
    if isinstance(typed, Mapping):
        value = typed.get("value")
        return set(typed) <= {"value", "unit"} and (value is None or not str(value).strip())
    return typed in (None, "", [], (), "either") or (isinstance(typed, str) and not typed.strip())


def _said_field(key: str) -> str:
    rule = BY_KEY.get(key.split(".")[0])
    return rule.field if rule else key


# --- reading one ------------------------------------------------------------------------------------------------


def _quantity(rule: Rule, typed: Any) -> float | int:
    dimension, size = _SIZES[rule.kind]
    text = str(typed["value"]).strip()
    if text in ("0", "0.0", "0.00"):
        found = Quantity(0.0, unit(str(typed["unit"]), rule.key))
        if found.unit.dimension != dimension:
            raise InputError(rule.key, typed["unit"], f"{found.unit.symbol} does not measure that.", "Pick another unit.")
    else:
        found = typed_quantity(rule.key, typed["value"], typed["unit"], dimension)
    value = found.base / size
    return round(value) if rule.kind is Kind.DAYS else value


def _temperature(rule: Rule, typed: Any) -> float:
    value = typed["value"]
    number = read_signed(value, rule.key) if isinstance(value, str) else float(value)
    return celsius(rule.key, number, typed["unit"])


def _rate(rule: Rule, typed: Any) -> LabelRate:
    found = read_label_rate(str(typed), rule.key)
    if not found.unit.per_area:
        raise InputError(rule.key, str(typed), "A cap is per area.", "Give it per 1,000 sq ft, acre, 100 m² or ha.")
    return found


def _active_rates(rule: Rule, typed: Any) -> tuple[ActiveCap, ...]:
    found = []
    for text in str(typed).split(";"):
        if not text.strip():
            continue
        match = re.fullmatch(r"\s*(?:(?P<name>[A-Za-z][\w ,.\-]*?)\s*:?\s+)?(?P<rate>\d.*)", text)
        name = (match["name"] or "").strip() if match else ""
        cap = _rate(rule, match["rate"] if match else text)
        if cap.basis is not Basis.ACTIVE:
            raise InputError(rule.key, text.strip(), "That counts product, not active.", "Write it like 2 lb ai per acre.")
        found.append(ActiveCap(name, cap))
    return tuple(found)


def _named_here(rule: Rule, caps: tuple[ActiveCap, ...], actives: tuple[str, ...]) -> None:
    for cap in caps:
        if cap.name and not any(cap.binds(a) for a in actives):
            here = ", ".join(actives)
            raise InputError(rule.key, cap.name, f"“{cap.name}” is not in it.", f"It holds {here}: name one of them, or none.")


def _count(rule: Rule, typed: Any) -> int:
    value = int(typed)
    if not 1 <= value <= 60:
        raise InputError(rule.key, value, f"{value} is no number of applications.", "Enter 1 to 60.")
    return value


def _leaf(rule: Rule, typed: Any) -> Leaf:
    if typed not in {x.value for x in Leaf}:
        raise InputError(rule.key, str(typed), f"A leaf is not “{typed}”.", "Use either, dry or wet.")
    return Leaf(typed)


def _helper(rule: Rule, typed: Any) -> Helper:
    if typed not in {x.value for x in Helper}:
        raise InputError(rule.key, str(typed), f"An adjuvant is not “{typed}”.", "Use either, needed or forbidden.")
    return Helper(typed)


def _droplets(rule: Rule, typed: Any) -> int:
    if typed not in DROPLETS:
        raise InputError(rule.key, str(typed), f"Droplets are not “{typed}”.", f"Use one of {', '.join(DROPLETS)}.")
    return DROPLETS.index(typed)


def _names(rule: Rule, typed: Any) -> tuple[str, ...]:
    return tuple(name for part in _text(rule, typed).split(";") if (name := part.strip()))


def _text(rule: Rule, typed: Any) -> str:
    if not isinstance(typed, str):
        raise InputError(rule.key, str(typed), f"“{typed}” is no text.", "Type it again.")
    return typed


def _day(rule: Rule, typed: Any) -> date:
    return typed if isinstance(typed, date) else date.fromisoformat(typed)


def _apart(rule: Rule, typed: Any) -> tuple[Incompatible, ...]:
    return tuple(
        Incompatible(str(x["what"]), int(x.get("days") or 0), str(x.get("note") or ""), x.get("product_id"))
        for x in typed
        if str(x["what"]).strip()
    )


_READ: dict[Kind, Callable[[Rule, Any], Any]] = {
    **dict.fromkeys(_SIZES, _quantity),
    Kind.TEMPERATURE: _temperature,
    Kind.RATE: _rate,
    Kind.ACTIVE_RATE: _active_rates,
    Kind.COUNT: _count,
    Kind.LEAF: _leaf,
    Kind.HELPER: _helper,
    Kind.DROPLETS: _droplets,
    Kind.NAMES: _names,
    Kind.LINE: _text,
    Kind.TEXT: _text,
    Kind.DAY: _day,
    Kind.APART: _apart,
}


# --- saying them ------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Said:
    """A rule in a sentence, under its key."""

    key: str
    text: str


def said(given: Mapping[str, Any]) -> tuple[Said, ...]:
    """The rules that were typed or stored in sentences, in the order of the table; what cannot be read is said so."""
    found: list[Said] = []
    broken = {f.field.split(".")[0]: f for f in read(given).faults}
    for rule in RULES:
        typed = given.get(rule.key)
        if blank(typed):
            continue
        if rule.key in broken:
            found.append(Said(rule.key, f"{rule.field}: “{_typed(typed)}” cannot be read. Open the card, and type it again."))
            continue
        found += [Said(rule.key, text) for text in _sentences(rule, typed)]
    return tuple(_joined(found, given))


def _sentences(rule: Rule, typed: Any) -> list[str]:
    if rule.kind is Kind.APART:
        return [_apart_said(rule, x) for x in _apart(rule, typed)]
    if rule.kind is Kind.ACTIVE_RATE:
        return [rule.sentence.format(str(cap)) for cap in _active_rates(rule, typed)]
    if rule.kind is Kind.RATE:
        return [rule.sentence.format(show_label_rate(_rate(rule, typed)))]
    if rule.kind is Kind.NAMES:
        return [rule.sentence.format(joined(list(_names(rule, typed))))]
    return [rule.sentence.format(_typed(typed).rstrip("."))]


def _apart_said(rule: Rule, other: Incompatible) -> str:
    gap = f"{show_number(other.days)} days" if other.days else "the same day"
    return f"{rule.sentence.format(f'{other.what} within {gap}')} {other.note}".strip()


def _joined(every: list[Said], given: Mapping[str, Any]) -> list[Said]:
    """Both ends of a span in one sentence."""
    keys = {s.key for s in every}
    out = []
    for s in every:
        name, _, end = s.key.rpartition("_")
        other = f"{name}_{'high' if end == 'low' else 'low'}"
        both = BY_KEY[s.key].end is not None and other in keys and not s.text.endswith("again.")
        if both and end == "low":
            word = s.text.split(" ")[0]
            out.append(Said(name, f"{word} {_typed(given[s.key])} to {_typed(given[other])}."))
        elif not both:
            out.append(s)
    return out


def _typed(typed: Any) -> str:
    """What was typed, in words."""
    if isinstance(typed, Mapping):
        value, unit = typed.get("value"), str(typed.get("unit"))
        number = value if isinstance(value, str) else exact_number(float(value or 0.0))
        symbol = {"degF": "°F", "degC": "°C"}.get(unit) or (UNITS[unit].symbol if unit in UNITS else unit)
        return f"{number} {symbol}"
    return str(typed)


# --- several labels at once -------------------------------------------------------------------------------------

_LESS, _MORE = -1, 1
_STRICTER = {
    "mixed_life": _LESS,
    "reentry": _MORE,
    "buffer": _MORE,
    "rain_before": _MORE,
    "rain_after": _MORE,
    "mow_before": _MORE,
    "mow_after": _MORE,
    "seed_before": _MORE,
    "seed_after": _MORE,
    "wind_high": _LESS,
    "temperature_low": _MORE,
    "temperature_high": _LESS,
}
"""Rules of which the strictest holds for a whole mix, by key: whether less or more of it is the stricter."""


def strictest(every: Sequence[Rules]) -> dict[str, int]:
    """For each rule that several labels of one tank say, or one of them, whose is the strictest, by its place."""
    found: dict[str, int] = {}
    for key, sign in _STRICTER.items():
        said = [(sign * value, -i) for i, rules in enumerate(every) if (value := _value(rules, key)) is not None]
        if said:
            found[key] = -max(said)[1]
    return found


def _value(rules: Rules, key: str) -> float | None:
    rule = BY_KEY[key]
    value = getattr(rules, rule.stands)
    found: float | None = value if rule.end is None else value[rule.end]
    return found
