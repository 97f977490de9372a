"""What a line asks that holds no name: a rate, an amount or a temperature in another unit, and plain sums."""

import re

from core.errors import Ambiguous, InputError, NotUnderstood
from core.label.phrase import find_label_rate
from core.label.rate import LabelRate, RateUnit
from core.reckon.asked import Asked, ConversionAsked, SumAsked, WarmthAsked
from core.reckon.names import Names
from core.reckon.sums import find_sum
from core.units import NUMBER, Unit, read_number, read_quantity, read_unit_at, tidy

_CONVERT = re.compile(r"(.+)\s(?:in|as|to|=|into)\s+(?:how many\s+)?(.+)", re.IGNORECASE)
_HOW_MANY = re.compile(r"how (?:many|much)\s+(.+?)\s+(?:in|is|are|to|make)\s+(.+)", re.IGNORECASE)
_RATE_INTO = re.compile(r"(?:in|as|to|into|=)\s+(?:how many\s+)?(?!.*\bpass)", re.IGNORECASE)
_WARMTH = re.compile(
    r"(-?\d+(?:\.\d+)?)\s*(?:°|deg(?:rees)?)?\s*([FC])\s+(?:in|to|as|=)\s*(?:°|deg(?:rees)?)?\s*([FC])", re.IGNORECASE
)
_FOOT_NAMES = (
    (re.compile(r"^(1,?000|100)\s+(?=[a-z])", re.IGNORECASE), lambda m: f"{m[1].replace(',', '')} "),
    (re.compile(r"^1000 (?:sq ft|square feet|ft2|sqft)$", re.IGNORECASE), lambda m: "1000 ft2"),
    (re.compile(r"^100 (?:sq m|square metres|square meters|m2)$", re.IGNORECASE), lambda m: "100 m2"),
)


def alone(text: str, names: Names) -> Asked | None:
    """The conversion or the sum that a line without names is; None where it is neither."""
    if match := _WARMTH.fullmatch(text):
        if match[2].upper() == match[3].upper():
            return None
        return WarmthAsked(float(match[1]), match[2].upper() == "F")
    if match := _HOW_MANY.fullmatch(text):
        text = f"{re.sub(r'^an? ', '1 ', match[2], flags=re.IGNORECASE)} in {match[1]}"
    if found := _conversion(text) or _rate_conversion(text, names):
        return found
    return SumAsked(text) if find_sum(text) else None


def _conversion(text: str) -> ConversionAsked | None:
    match = _CONVERT.fullmatch(text)
    if not match:
        return None
    try:
        target = _unit(match[2])
    except Ambiguous:
        target = None
    except InputError:
        return None
    try:
        amount = read_quantity(match[1], "line")
    except Ambiguous:
        if target is None:
            return None
        amount = read_quantity(match[1], "line", target.dimension)
    except InputError:
        return None
    return ConversionAsked(amount, target or _unit(match[2], amount.unit.dimension))


def _unit(text: str, *dimensions: str) -> Unit:
    clean = tidy(text)
    found, end = read_unit_at(clean, 0, "line", *dimensions)
    if clean[end:].strip():
        raise NotUnderstood("line", clean, f"“{clean[end:].strip()}” was not understood.", "End with one unit.")
    return found


def _rate_conversion(text: str, names: Names) -> ConversionAsked | None:
    """A rate in another unit. What that must measure is known from the rate, so that its `oz` needs no question."""
    try:
        rate, rest = find_label_rate(text, "line")
    except Ambiguous as problem:
        if re.search(r"\s(?:in|as|to|into|=)\s", text) and re.match(NUMBER + r"\s*oz", text, re.IGNORECASE):
            raise problem
        return None
    except InputError:
        return None
    match = _RATE_INTO.match(rest)
    if not match or rate.unit.per is None:
        return None
    return _into(rest[match.end() :], rate, names)


def _into(text: str, rate: LabelRate, names: Names) -> ConversionAsked:
    clean = tidy(text)
    number = re.match(NUMBER + r"\s*(?=[A-Za-z])", clean)
    against, start = (read_number(number[0].strip(), "line"), number.end()) if number else (None, 0)
    amount, end = read_unit_at(clean, start, "line", rate.unit.amount.dimension)
    match = re.match(r"\s*(?:/|per\b)\s*", clean[end:], re.IGNORECASE)
    if not match or rate.unit.per is None:
        raise NotUnderstood("line", text, f"“{clean}” is no rate.", "Say per what, like “fl oz per M” or “kg/ha”.")
    foot = clean[end + match.end() :]
    if names.us and re.fullmatch(r"1,?000|thousand|K", foot, re.IGNORECASE):
        foot = "1000 ft2"
    for pattern, to in _FOOT_NAMES:
        foot = pattern.sub(to, foot)
    per, end = read_unit_at(foot, 0, "line", rate.unit.per.dimension)
    if foot[end:].strip():
        raise NotUnderstood("line", text, f"“{foot[end:].strip()}” was not understood.", "End with the unit.")
    return ConversionAsked(rate, RateUnit(amount, per, rate.basis), against)
