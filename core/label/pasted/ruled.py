"""What a label's text rules beside its rates: caps, keeping off, weather, water, mowing, seed, water nearby, what is worn."""

import re
from collections.abc import Callable, Iterator, Sequence

from core.label.pasted.pieces import Found, Statement
from core.label.pasted.rates import CAPPED, printed
from core.label.rate import Basis
from core.units import NUMBER, NUMBER_WORDS, exact_number, read_number

_WORD_NUMBER = "(?:" + "|".join(sorted(NUMBER_WORDS, key=len, reverse=True)) + r"|thirty|sixty|ninety)\b"
_N = rf"(?P<n>{NUMBER}|{_WORD_NUMBER})(?:\s*\(\d+\))?"
_TIME = rf"{_N}[\s-]*(?P<unit>minutes?|mins?|hours?|hrs?|h|days?|weeks?|months?)\b"
_DEGREES = rf"{_N}\s*(?:°|degrees?)?\s*(?P<unit>[FC])\b"
_DEPTH = rf"(?P<n>{NUMBER})(?:\s*(?:to|-)\s*{NUMBER})?\s*(?:-\s*)?(?P<unit>inch(?:es)?|in|mm|\")(?![a-z])"
_SPEED = rf"{_N}\s*(?P<unit>mph|miles per hour|km/h|m/s)"
_FAR = rf"{_N}[\s-]*(?P<unit>feet|foot|ft|metres?|meters?|m|yards?)\b"
_TENS = {"thirty": 30.0, "sixty": 60.0, "ninety": 90.0}
_UNITS = tuple(
    (re.compile(pattern, re.IGNORECASE), key, times)
    for pattern, key, times in (
        (r"min(?:ute)?s?", "min", 1.0),
        (r"h(?:r|our)?s?", "h", 1.0),
        (r"days?", "day", 1.0),
        (r"weeks?", "day", 7.0),
        (r"months?", "day", 30.0),
        (r'in(?:ch(?:es)?)?|"', "in", 1.0),
        (r"mm", "mm", 1.0),
        (r"mph|miles per hour", "mph", 1.0),
        (r"km/h", "kmh", 1.0),
        (r"m/s", "mps", 1.0),
        (r"ft|feet|foot", "ft", 1.0),
        (r"yards?", "ft", 3.0),
        (r"m|met(?:re|er)s?", "m", 1.0),
        (r"F", "degF", 1.0),
        (r"C", "degC", 1.0),
    )
)
"""Units of rules as labels write them: the card's unit, and how many of it are one. A month is 30 days (ours)."""


def _number(text: str) -> float:
    return _TENS.get(text.lower()) or read_number(text)


def _quantity(match: re.Match[str]) -> dict[str, str]:
    key, times = next((key, times) for pattern, key, times in _UNITS if pattern.fullmatch(match["unit"]))
    return {"value": exact_number(_number(match["n"]) * times), "unit": key}


def _count(match: re.Match[str]) -> int:
    return round(_number(match["n"]))


def _sentence(match: re.Match[str]) -> str:
    words = match["words"].strip(" .")
    return words[0].upper() + words[1:]


Builder = Callable[[re.Match[str]], object]
_PATTERNS: tuple[tuple[str, str, Builder], ...] = (
    (
        "reentry",
        rf"(?:\bREI\b|\bre-?(?:stricted[ -])?entry interval|do not (?:re-?)?enter|keep\b.*\b(?:off|out)\b)[^.;]*?{_TIME}",
        _quantity,
    ),
    (
        "reentry_note",
        r"(?P<words>(?:do not (?:allow|enter|let)|keep)\b[^.;]*?\b(?:until|til)\b[^.;]*?\b(?:dr(?:y|ied)|settled)\b)",
        _sentence,
    ),
    (
        "reentry_note",
        r"(?P<words>\b(?:people|persons|children|pets|animals)\b[^.;]*?\bmay\b[^.;]*?\b(?:after|once|when)\b[^.;]*?\bdr(?:y|ied)\b)",
        _sentence,
    ),
    ("rain_after", rf"\brain-?fast\b[^.;]*?{_TIME}", _quantity),
    (
        "rain_after",
        rf"\b(?:rain|rainfall|irrigat\w*|water)\b[^.;]*?\b(?:expected|forecast|predicted|likely|anticipated|for|within)\b[^.;]*?"
        rf"(?:within|for|in the next|next)?\s*(?:the next\s*)?(?:at least\s*)?{_TIME}",
        _quantity,
    ),
    (
        "water_in_depth",
        rf"\b(?:water(?:ed|ing)?(?:[ -]it)?[ -]in|irrigat\w+|apply)\b[^.;]*?{_DEPTH}\s*(?:of\s+)?(?:irrigation|water|rain)?",
        _quantity,
    ),
    ("water_in_depth", rf"{_DEPTH}\s*(?:of\s+)?(?:irrigation|water)\b", _quantity),
    ("water_in_delay", rf"\b(?:water(?:ed|ing)?(?: it)? in|irrigat\w+)\b[^.;]*?\bwithin\s+(?:the first\s+)?{_TIME}", _quantity),
    ("mow_before", rf"\bmow\w*\b[^.;]*?{_TIME}\s*(?:before|prior to)\b(?! mow)", _quantity),
    ("mow_after", rf"\bmow\w*\b[^.;]*?{_TIME}\s*(?:after|following)\b", _quantity),
    (
        "mow_after",
        rf"\b(?:do not mow|delay mowing|avoid mowing)\s+(?:for\s+|within\s+)?(?:at least\s+)?{_TIME}(?!\s*(?:before|prior))",
        _quantity,
    ),
    ("mow_after", rf"\bwait\b[^.;]*?{_TIME}\s*(?:before|to)\s+mow", _quantity),
    (
        "wind_high",
        rf"\bwind\b[^.;]*?\b(?:exceed\w*|above|over|greater than|more than|below|under|less than|up to)\b\s*{_SPEED}",
        _quantity,
    ),
    (
        "temperature_high",
        rf"\b(?:temperatures?)\b[^.;]*?\b(?:exceed\w*|above|over|greater than|more than|higher than)\b\s*{_DEGREES}",
        _quantity,
    ),
    ("temperature_low", rf"\b(?:temperatures?)\b[^.;]*?\b(?:below|under|less than|lower than)\b\s*{_DEGREES}", _quantity),
    (
        "seed_before",
        rf"\b(?:re-?seed\w*|over-?seed\w*|seed(?:ing)?)\b[^.;]*?\b(?:within|for|until|wait)\b[^.;]*?{_TIME}"
        r"[^.;]*?\b(?:after|of|following)\b",
        _quantity,
    ),
    (
        "seed_after",
        r"\b(?:newly seeded|new(?:ly)? (?:turf|lawns?|seed\w*)|seedling\w*|emergence)\b[^.;]*?\b(?:until|for|within|wait)\b"
        rf"[^.;]*?{_TIME}",
        _quantity,
    ),
    ("buffer", rf"\bwithin\s+{_FAR}[^.;]*?\b(?:water|lakes?|ponds?|streams?|wells?|reservoirs?|rivers?|estuar\w+)\b", _quantity),
    ("buffer", rf"\bbuffer\b[^.;]*?{_FAR}", _quantity),
    (
        "applications_per_season",
        rf"\b(?:no|not)(?: \w+)? more than\s+{_N}\s*(?:total |foliar |spray )?applications?\b"
        r"[^.;]*?\b(?:per|each|in any|a)\s+(?:calendar |growing )?(?:year|season|12)",
        _count,
    ),
    (
        "applications_per_season",
        rf"\bmaximum (?:number )?(?:of )?(?:applications?[^.;\d]*?)?{_N}\s*(?:applications? )?per (?:year|season)",
        _count,
    ),
    ("consecutive", rf"\b(?:no|not)(?: \w+)? more than\s+{_N}\s*(?:\w+ )?(?:consecutive|sequential)\b", _count),
    ("mixed_life", rf"\buse\b[^.;]*?\b(?:mix\w*|solution|suspension)\b[^.;]*?\bwithin\s+{_TIME}", _quantity),
)
_RULES = tuple((key, re.compile(pattern, re.IGNORECASE), build) for key, pattern, build in _PATTERNS)
_SEASON = re.compile(
    r"^[^.;]{0,25}?\b(?:per|a|each|in any|in a|during any)\s*(?:one\s*)?(?:calendar |growing )?(?:year|season|12)"
    r"|^[^.;]{0,12}?\bannual",
    re.IGNORECASE,
)
_ANNUAL = re.compile(r"\b(?:annual|yearly|season(?:al)?)\b[^.;]{0,40}$", re.IGNORECASE)
_ON_FOOD = re.compile(r"\bclippings\b", re.IGNORECASE)


def rules(said: Sequence[Statement]) -> Iterator[Found]:
    """The rules, each under its key in the card's rules; of several that say the same, the first."""
    met: set[str] = set()
    for s in said:
        for key, value in (*_caps(s), *_ruled(s)):
            if key not in met:
                met.add(key)
                yield s.found(f"rules.{key}", value)


_WATERED = re.compile(r"\bwater(?:ed|ing)?(?: it)?[ -]in\b|\birrigate\b", re.IGNORECASE)
_NO_WATER = re.compile(r"\b(?:do not|don't|avoid|delay|no|withhold)\b[^.;]{0,20}\b(?:irrigat\w*|water\w*)", re.IGNORECASE)
_REFUSED = re.compile(r"\b(?:do not|don't|not|avoid|never|unless)\b", re.IGNORECASE)
_AT_LEAST = re.compile(r"\b(?:less|fewer) than\b[^.;]{0,20}$", re.IGNORECASE)


def _ruled(s: Statement) -> Iterator[tuple[str, object]]:
    text = s.spelt
    dry = _NO_WATER.search(text)
    watered = not dry and _WATERED.search(text)
    refused = _REFUSED.search(text)
    for key, pattern, build in _RULES:
        if (key == "rain_after" and watered) or (key.startswith("water_in") and dry):
            continue
        if key.startswith("temperature") and not refused:  # “apply when it is above 50 °F” is a lower end
            key = {"temperature_low": "temperature_high", "temperature_high": "temperature_low"}[key]
        if match := pattern.search(text):
            value = build(match)
            if not (isinstance(value, dict) and key == "reentry" and value["unit"] == "day" and _ON_FOOD.search(text)):
                yield key, value


def _caps(s: Statement) -> Iterator[tuple[str, object]]:
    """The most at once and the most in a season, in the label's words."""
    text = s.spelt
    for p in printed(text):
        before, after = text[: p.at], text[p.end :]
        if p.label is None or not p.label.unit.per_area or not CAPPED.search(before):
            continue
        if _AT_LEAST.search(before):
            continue
        of_active = p.label.unit.basis is Basis.ACTIVE
        if _SEASON.search(after) or _ANNUAL.search(before):
            yield ("active_per_season" if of_active else "most_per_season"), p.phrase
        elif not of_active:
            yield "most_per_application", p.phrase


_WORN = re.compile(
    r"\b(?:must wear|wear the following|personal protective equipment|PPE|wear)\b\s*:?\s*(?P<rest>.*)", re.IGNORECASE
)
_THING = re.compile(
    r"\b(long[- ]sleeved? shirt(?: and long (?:pants|trousers))?|long (?:pants|trousers)"
    r"|(?:chemical[- ]resistant|waterproof|nitrile|protective)?\s*gloves|shoes (?:plus|and) socks"
    r"|(?:protective )?eye ?wear|(?:safety )?goggles|safety glasses|face ?shield"
    r"|respirator|dust mask|(?:chemical[- ]resistant )?(?:apron|footwear|boots|headgear)|coveralls?)\b",
    re.IGNORECASE,
)


_STAINS = re.compile(r"\b(?:may |can |will )?(?:permanently )?(?:stains?|discolou?rs?)\b", re.IGNORECASE)


def stains(said: Sequence[Statement]) -> Iterator[Found]:
    """Whether it stains."""
    s = next((s for s in said if _STAINS.search(s.text) and not re.search(r"\bnot stain", s.text, re.IGNORECASE)), None)
    if s:
        yield s.found("stains", True)


def worn(said: Sequence[Statement]) -> Iterator[Found]:
    """What is worn for mixing and for applying: what a label lists after “must wear”."""
    things: dict[str, Statement] = {}
    inside = False
    for s in said:
        match = _WORN.search(s.text)
        text = match["rest"] if match else s.text if inside else ""
        here = [" ".join(found.split()) for found in _THING.findall(text)] if text else []
        for thing in here:
            things.setdefault(thing[0].upper() + thing[1:].lower(), s)
        inside = bool(match and s.text.rstrip().endswith(":")) or (bool(here) if text else False)
    if things:
        first = next(iter(things.values()))
        lines = "\n".join(things)
        yield first.found("ppe_mixing", lines)
        yield first.found("ppe_applying", lines)
