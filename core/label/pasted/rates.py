"""The rates that stand in a label's text, with what each is for and how often; caps are rules, and stand in `ruled`."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from core.errors import Ambiguous, Choice, InputError
from core.label.groups import common_name
from core.label.pasted.pieces import Found, Statement
from core.label.phrase import poured, rate_at, weighed
from core.label.rate import LabelRate
from core.label.rules import Intent, Use
from core.label.targets import Target, find_target
from core.units import MASS, NUMBER, NUMBER_WORDS, exact_number, read_number

_STARTS = re.compile(
    rf"(?<![\d.,/-])(?:(?:up to|coverage:?|covers|treats)\s+)?{NUMBER}|\b(?:one|two|three|four|five|six|half)\b(?=\s+[a-z])",
    re.IGNORECASE,
)
CAPPED = re.compile(
    r"\b(?:do not (?:apply|use|exceed)(?: more than)?|not (?:to )?exceed|(?:no|not) more than|limit of|at most"
    r"|maximum(?: of| rate| annual rate| total)?(?: is)?:?)\b[^.;]{0,60}$",
    re.IGNORECASE,
)
"""What stands before a limit."""
_BESIDE = re.compile(
    r"\b(?:supplies|provides|delivers|equals|equivalent to|supplying|providing|volumes? (?:of|:)|water|carrier|irrigat\w+)\b"
    r"[^.;]{0,30}$",
    re.IGNORECASE,
)
"""What stands before an amount that is no rate of the product: what it brings, what it is sprayed in."""
_OF_WATER = re.compile(r"\s*(?:of )?(?:water|spray|solution|carrier)\b", re.IGNORECASE)
_WATER_PER = re.compile(
    rf"^{NUMBER}(?:\s*(?:to|-)\s*{NUMBER})?\s*(?:gal(?:lons?)?|l|lit(?:re|er)s?)\s+(?:of\s+)?"
    r"(?:water|spray|solution|carrier)\s*(?:volume\s*)?(?:per|/)",
    re.IGNORECASE,
)
_COUNTED = r"\d{1,3}|one|two|three|four|five|six|eight"
_DAYS = rf"(?P<low>{_COUNTED})\s*(?:(?:-|to|through)\s*(?P<high>{_COUNTED}))?"
_UNIT = r"[\s-]*(?P<unit>day|week|month)s?\b"
_INTERVAL = tuple(
    re.compile(p, re.IGNORECASE)
    for p in (
        rf"\b(?:every|each|intervals? of|interval\s*:?"
        rf"|re-?appl(?:y|ication)s?(?: interval)?\s*:?(?: at| every| after| in| if needed in)?"
        rf"|repeat(?: applications?)?(?: at| every| after| in)?)\s+(?:an? )?{_DAYS}{_UNIT}",
        rf"\b{_DAYS}{_UNIT}[\s-]*(?:spray |application |treatment )?intervals?\b",
        rf"(?:^|[\s(|]){_DAYS}\s*(?P<unit>days?)\b\s*[)|]?\s*$",
    )
)
_BARE_SPAN = re.compile(r"(?:^|\s)(?P<low>\d{1,2})\s*-\s*(?P<high>\d{1,2})\s*$")
_TIMES = {"day": 1, "week": 7, "month": 30}
_INTENTS = (("curative", r"\bcurative(?:ly)?\b"), ("preventive", r"\bprevent(?:at)?ive(?:ly)?\b"))


_MEASURED = re.compile(
    r"[%#]|(?<![A-Za-z])(?:oz|ounces?|fl|fluid|lbs?|pounds?|k?g|kilo\w*|grams?|gal\w*|q(?:uar)?ts?|pi?n?ts?|m?l|(?:milli)?lit\w+"
    r"|t(?:ea|able)?sp\w*|tbs\w*|cups?|tons?|tonnes?|mg)(?![A-Za-z])",
    re.IGNORECASE,
)
A_RATE = 140
"""Characters that a rate is looked for in (ours)."""


@dataclass(frozen=True)
class Printed:
    """A rate as it stands in a statement, from `at` to `end`: what it was understood as, or the readings to pick from."""

    phrase: str
    at: int
    end: int
    label: LabelRate | None
    choices: tuple[Choice, ...] = ()


@lru_cache(maxsize=1_000)
def printed(text: str) -> tuple[Printed, ...]:
    """Every amount per area or per volume, and every share of the spray, in a statement made `spelt`; kept, for rates and caps
    both ask.
    """
    return tuple(_printed(text))


def _printed(text: str) -> Iterator[Printed]:
    done = 0
    for match in _STARTS.finditer(text):
        if match.start() < done or not _MEASURED.search(text, match.start(), match.start() + A_RATE // 2):
            continue
        try:
            label, end = rate_at(text[match.start() : match.start() + A_RATE], 0)
            done = match.start() + end
        except Ambiguous:
            readings = _readings(text[match.start() :])
            if readings:
                done = match.start() + len(readings[0].text)
                yield Printed(readings[0].text.replace("fl oz", "oz"), match.start(), done, None, readings)
            continue
        except InputError:
            continue
        if label.highest.base > 0:
            yield Printed(_in_figures(text[match.start() : done].strip()), match.start(), done, label)


def _in_figures(phrase: str) -> str:
    """A rate whose number is a word, as a card takes it: “one L/ha” is 1 L/ha."""
    first, _, rest = phrase.partition(" ")
    return f"{exact_number(read_number(first))} {rest}" if first.lower() in NUMBER_WORDS else phrase


def _readings(text: str) -> tuple[Choice, ...]:
    """The two rates that a bare ounce can be; nothing where something else is asked, as of an amount per nothing."""
    found = []
    for settled, meaning in ((poured, "it is poured"), (weighed, "it is weighed")):
        said = settled(text[:A_RATE])
        try:
            _, end = rate_at(said, 0)
        except InputError:
            return ()
        found.append(Choice(said[:end].strip(), meaning))
    return tuple(found) if found[0].text != found[1].text else ()


def rates(said: Sequence[Statement], package: str) -> Iterator[Found]:
    """The rate rows as a card takes them; what a bag covers where the label states nothing else.

    Args:
        said: the text, without what it says of contents and weight.
        package: what it is sold in, such as `16 lb`; empty where that is not said.
    """
    found = list(_rows(said))
    yield from found or _covered(said, package)


def _rows(said: Sequence[Statement]) -> Iterator[Found]:
    heading: Statement | None = None
    in_days = False
    met: set[tuple[str, str, str]] = set()
    for s in said:
        text = s.spelt
        in_days = in_days or bool(re.search(r"\binterval\b.*\bdays?\b|\bdays\b.*\binterval", text, re.IGNORECASE))
        here = [p for p in printed(text) if _is_rate(text, p)]
        if not here:
            heading = s if find_target(s.text) and len(s.text) < 80 else heading
            continue
        target = find_target(s.text) or (find_target(heading.text) if heading and s.line - heading.line <= 4 else None)
        for i, p in enumerate(here):
            part = text[: p.at] if i == 0 else text[here[i - 1].at : p.at]
            after = text[p.end : here[i + 1].at if i + 1 < len(here) else None]
            intent = _intent(part if len(here) > 1 else text)
            row = _row(p.phrase, target, intent, interval(text, in_days), _uses(part, after))
            key = (p.phrase, row["target"], intent)
            if key not in met:
                met.add(key)
                yield Found("rates", row, s.text, s.line, p.choices)


def _is_rate(text: str, p: Printed) -> bool:
    before = text[: p.at]
    if CAPPED.search(before) or _BESIDE.search(before) or _WATER_PER.search(p.phrase) or _OF_WATER.match(text[p.end :]):
        return False
    return p.label is None or not _is_strength(p.label, before)


def _is_strength(label: LabelRate, before: str) -> bool:
    """Whether a weight in a litre or gallon is what the product holds of an active that is named before it."""
    per = label.unit.per
    if label.unit.amount.dimension != MASS or per is None or per.key not in ("l", "gal"):
        return False
    return any(common_name(word) for word in re.findall(r"[\w-]+(?:, ?\d-D)?", before))


def _intent(text: str) -> str:
    return next((key for key, pattern in _INTENTS if re.search(pattern, text, re.IGNORECASE)), Intent.ANY.value)


def _row(
    phrase: str,
    target: Target | None = None,
    intent: str = Intent.ANY.value,
    days: tuple[str, str] = ("", ""),
    uses: Sequence[str] = (),
) -> dict[str, Any]:
    """A rate as a card's row of it is typed."""
    name = target.name if target else ""
    return {
        "phrase": phrase,
        "target": name,
        "intent": intent,
        "interval_low": days[0],
        "interval_high": days[1],
        "uses": list(uses),
    }


_USES = "|".join(u.value for u in Use)
_ON = re.compile(rf"^\s*(?:on|to|for)\s+((?:(?:{_USES})s?(?:,\s*|\s+and\s+|\s+or\s+)?)+)", re.IGNORECASE)
_HEADED = re.compile(rf"\b((?:(?:{_USES})s?(?:,\s*|\s+and\s+)?)+)\s*:\s*(?:apply\s+)?$", re.IGNORECASE)


def _uses(before: str, after: str) -> list[str]:
    """The turf that a rate names beside it: `0.4 L/ha on greens` · `Greens: 0.125 fl oz/M`."""
    named = _ON.search(after) or _HEADED.search(before)
    words = named[1].lower() if named else ""
    return [u.value for u in Use if re.search(rf"\b{u.value}s?\b", words)]


def interval(text: str, bare: bool = False) -> tuple[str, str]:
    """How often, in days, as typed; empty where it is not said. With `bare`, two numbers at the end of a table's row are days."""
    for pattern in _INTERVAL:
        if match := pattern.search(text):
            times = _TIMES[match["unit"].lower().removesuffix("s")]
            low, high = (round(read_number(match[end] or match["low"])) * times for end in ("low", "high"))
            return str(low), str(high)
    match = _BARE_SPAN.search(text) if bare else None
    return (match["low"], match["high"]) if match else ("", "")


_NOT_OF_RATES = re.compile(r"\b(?:entry|REI|seed\w*|mow\w*|enter|harvest|graz\w+|clippings)\b", re.IGNORECASE)


def not_of_rates(text: str) -> bool:
    """Whether the days of a statement are of something else than applications."""
    return bool(_NOT_OF_RATES.search(text))


_COVERS = re.compile(
    rf"\b(?:covers|treats|coverage:?)\s+(?:up to )?(?P<area>{NUMBER}\s*"
    r"(?:sq\b[ .]*(?:ft|feet|m)\b|square (?:feet|met(?:re|er)s)\b|ft2|m2|acres?\b))",
    re.IGNORECASE,
)


def _covered(said: Sequence[Statement], package: str) -> Iterator[Found]:
    if not package:
        return
    for s in said:
        if match := _COVERS.search(s.spelt):
            yield s.found("rates", _row(f"{package} covers {match['area']}"))
            return
