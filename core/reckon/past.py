"""What a line asks of before and of days: kept mixes, what went down, when it may again, dates, and degree days."""

import re

from core.errors import NotUnderstood
from core.label.rate import Basis
from core.label.wording import WHAT, WHAT_MEANS
from core.reckon.asked import (
    Asked,
    BroughtAsked,
    DateAsked,
    DayOfDegreesAsked,
    DegreeDaysAsked,
    EarlierAsked,
    HistoryAsked,
    MayAsked,
    MixAsked,
)
from core.reckon.days import Near
from core.reckon.dosing import KIND_WORDS, grounds_of, passes_of
from core.reckon.names import What, vocabulary
from core.reckon.pieces import Degrees, Is, Line
from core.units import TIME, UNITS, celsius

TODAY = Near(0)
MOST_OF_A_DATE = 8
"""A line of more pieces than this is no sum of days (ours)."""
_AS_ON = re.compile(r"\bas on\b")
_LAST = re.compile(
    r"\bwhat (?:went|was|did|has|have)\b.*\blast\b|\bwhen (?:did|was|were|have|has)\b"
    r"|^last\b|^what (?:went|was put|was sprayed)\b|\b(?:days|long|weeks)\b.*\bsince\b"
)
_CAN = re.compile(r"^(?:when )?(?:can|could|may)\b")
_DATES = vocabulary("after before from later since between days day weeks until till to and on date when")
_GDD = re.compile(r"\bgdd\b|\bdegree[ -]days?\b|\bgrowing degree")


def kept(line: Line) -> Asked | None:
    """A kept mix by its name."""
    if not (mixes := line.called(What.MIX)) or line.rates():
        return None
    line.only({"mix"})
    return MixAsked(line.name(mixes[0], What.MIX), grounds_of(line), line.machine(), passes_of(line))


def earlier(line: Line) -> Asked | None:
    """What went down on a day, once more."""
    if not _AS_ON.search(line.text):
        return None
    line.only({"same", "as"})
    if not (days := line.days()):
        raise NotUnderstood("line", line.typed, "The line says no day.", "Say it like “as on 4 Aug” or “as on 2026-08-04”.")
    areas = line.areas()
    return EarlierAsked(days[0], areas[0] if areas else None)


_HISTORY = vocabulary(
    "last when did was were went has have had what got get put sprayed spray applied spread treated fed used use "
    "been go going time application"
)


def history(line: Line) -> Asked | None:
    """What went down last."""
    if not _LAST.search(line.text) or _GDD.search(line.text) or line.rates() or line.amounts():
        return None
    if line.days():
        return None
    line.only({*_HISTORY, *KIND_WORDS, "days", "weeks", "long", "since"})
    areas, product = line.areas(), line.product()
    kind = next((KIND_WORDS[w] for p in line.words() if (w := str(p.read).lower()) in KIND_WORDS), None)
    if not areas and not product and not kind:
        raise NotUnderstood("line", line.typed, "The line names no area and no product.", "Ask “what went on …” an area “last”.")
    return HistoryAsked(areas[0] if areas else None, product, None if product else kind)


_THIS_YEAR = re.compile(r"\b(?:this|the) (?:year|season)\b|\bso far\b|\bhas\b.*\bhad\b|\bbudget\b")
_NUTRIENT = re.compile(rf"\b{WHAT.pattern.lstrip(chr(92) + 's*')}", re.IGNORECASE)


def brought(line: Line) -> Asked | None:
    """How much of a nutrient an area has had this season."""
    if not _THIS_YEAR.search(line.text) or not line.called(What.AREA) or line.rates() or line.called(What.PRODUCT):
        return None
    match = _NUTRIENT.search(line.masked.text)
    basis = WHAT_MEANS.get(match["what"].lower()) if match else None
    if not match or basis in (None, Basis.PRODUCT, Basis.ACTIVE):
        return None
    line.only({*_HISTORY, "this", "year", "season", "so", "far", "budget", match["what"].lower(), "actual", "had"})
    assert basis
    return BroughtAsked(line.areas()[0], basis)


def may(line: Line) -> Asked | None:
    """Whether a product can go on an area."""
    if not _CAN.search(line.text) or not line.called(What.PRODUCT) or not line.called(What.AREA):
        return None
    line.only({"can", "could", "may", "go", "be", "again", "when", "next", "used", "applied", "sprayed", "put", "use"})
    product = line.product()
    days = line.days()
    assert product
    return MayAsked(product, line.areas()[0], days[0] if days else None)


def date_of(line: Line) -> Asked | None:
    """A sum of days."""
    days, spans = line.days(), [a.quantity for a in line.amounts(TIME)]
    months = [p.read for p in line.of(Is.MONTHS) if isinstance(p.read, int)]
    if not days or line.called(What.AREA) or line.called(What.PRODUCT) or len(line.pieces) > MOST_OF_A_DATE:
        return None
    line.only(_DATES)
    if len(days) == 2 and not spans and not months:
        return DateAsked(days[0], to=days[1])
    whole = sum(round(q.base / UNITS["day"].size) for q in spans)
    sign = -1 if line.has("before") else 1
    if line.has("since", "until", "till") or (line.has("days") and not whole):
        return DateAsked(days[0], to=TODAY)
    return DateAsked(days[0], sign * whole, sign * sum(months))


# --- degree days ------------------------------------------------------------------------------------------------

_DEGREE_WORDS = vocabulary(
    "gdd degree degrees day days growing base since when does did will reach reaches get gets how many high low sum max min it"
)
_BASE = re.compile(r"\bbase\s+(?:of\s+)?$")
_HIGH, _LOW = re.compile(r"\b(?:high|max)\s+$"), re.compile(r"\b(?:low|min)\s+$")
LEAST_F = 32.0
"""A base from here on is in °F where no unit is said: no base in °C is so high, none in °F is lower (ours)."""


def degree_days(line: Line) -> Asked | None:
    """Degree days since a day or an application, of one day, or the day on which they reach a sum."""
    if not _GDD.search(line.text):
        return None
    line.only(_DEGREE_WORDS)
    base, high, low, total = (_number_after(line, p) for p in (_BASE, _HIGH, _LOW, None))
    fahrenheit = base.fahrenheit if base else False
    celsius_base = celsius("base", base.value, "degF" if fahrenheit else "degC") if base else None
    if high and low:
        f = fahrenheit if base else high.fahrenheit
        ends = [celsius("line", d.value, "degF" if f else "degC") for d in (high, low)]
        return DayOfDegreesAsked(ends[0], ends[1], celsius_base if celsius_base is not None else 0.0, f)
    days, product, areas = line.days(), line.product(), line.areas()
    if not days and not product:
        said = "The line does not say since when."
        raise NotUnderstood("line", line.typed, said, "Go on with “since” and a day, or a regulator and its area.")
    wanted = total.value if total and line.has("reach", "reaches", "get", "gets") else None
    return DegreeDaysAsked(
        celsius_base,
        fahrenheit,
        since=days[0] if days else None,
        product=product,
        area=areas[0] if areas else None,
        total=wanted / 1.8 if wanted and fahrenheit else wanted,
    )


def _number_after(line: Line, before: re.Pattern[str] | None) -> Degrees | None:
    """The number that stands after a word, in °F where it says so or is that high; without a word, the one after none of them."""
    for p in line.pieces:
        if p.what not in (Is.NUMBER, Is.WARM):
            continue
        lead = line.text[: p.start]
        here = next((w for w in (_BASE, _HIGH, _LOW) if w.search(lead)), None)
        if here is not before:
            continue
        if isinstance(p.read, Degrees):
            return p.read
        assert isinstance(p.read, float)
        return Degrees(p.read, p.read >= LEAST_F)
    return None
