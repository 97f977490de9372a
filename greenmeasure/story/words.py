"""The story as one says it: fed 12 days ago, 0.24 lb N; season 1.9 of 2 to 4 lb."""

from datetime import date

from core.days import day, so_many
from core.disease.model import Risk
from core.label.rate import Basis
from core.ledger.budget import counted_in
from core.ledger.history import Applied
from core.ledger.lasts import Last
from core.units import show_number

FAR = 60
"""Days after which one asks for the day, and no longer how long ago it was (ours)."""


def ago(on: date, today: date) -> str:
    """How long ago, in words; the day itself where it is long ago."""
    days = (today - on).days
    if days > FAR:
        return f"on {day(on)}" if on.year == today.year else f"on {day(on)} {on.year}"
    return "today" if days == 0 else "yesterday" if days == 1 else f"{so_many(days)} ago"


def last_text(x: Last, today: date, us: bool) -> str:
    """When it was, with what; the nitrogen of a feed."""
    n = x.applied.nutrients.get(Basis.N, 0.0)
    brought = f", {n_text(n, us)}" if n > 0 else ""
    return f"{ago(x.applied.on, today)}, {x.applied.product}{brought}"


def n_text(grams: float, us: bool) -> str:
    """Nitrogen per area in words.

    Args:
        grams: of N [g/m²].
        us: whether to say it in US units.
    """
    unit = counted_in(us, "kft2", Basis.N)
    return f"{show_number(grams / unit.size, 2)} {unit.symbol}"


def season_text(used: float, span: tuple[float, float] | None, us: bool) -> str:
    """The season's nitrogen, against what its grass usually takes.

    Args:
        used: this season [g/m²].
        span: usual, least and most [g/m²].
        us: whether to say it in US units.
    """
    if span is None:
        return n_text(used, us)
    low, high = (show_number(x / counted_in(us, "kft2", Basis.N).size, 2) for x in span)
    return f"{n_text(used, us)} of the usual {low} to {high}"


def again_text(a: Applied, first: date | None, last: date | None) -> str:
    """When the label lets it go down again."""
    if first and last:
        return f"{a.product} again between {day(first)} and {day(last)}"
    return f"{a.product} again from {day(first)}" if first else f"{a.product} again by {day(last)}" if last else ""


def planned_text(a: Applied) -> str:
    """What is planned."""
    return f"{a.product}, {a.told}"


def photographs_text(count: int, spots: str) -> str:
    """How many photographs were taken, and of which spots."""
    several = "A photograph" if count == 1 else f"{count} photographs"
    return f"{several} of {spots}" if spots else several


def soil_text(readings: list[float]) -> str:
    """PH readings of one day.

    Args:
        readings: of one day [pH].
    """
    mean = show_number(sum(readings) / len(readings), 2)
    return f"pH {mean}" if len(readings) == 1 else f"pH {mean}, the mean of {len(readings)} readings"


def by_rhythm(why: str) -> str:
    """What is said of what comes back every week."""
    return f"By the week’s rhythm{f', {why}' if why else ''}"


def rain_text(on: date, amount: str) -> str:
    """Rain of a day."""
    return f"{day(on)}: {amount} of rain"


def span_text(begin: date, end: date) -> str:
    """A stretch of days."""
    return day(begin) if begin == end else f"{day(begin)} to {day(end)}"


def risk_text(name: str, over: bool, begin: date, end: date) -> str:
    """What was at its threshold, or near it, and when."""
    return f"{span_text(begin, end)}: {name.lower()} {Risk.HIGH.text if over else Risk.RISING.text}"


def locked_text(what: str, product: str, begin: date, until: str) -> str:
    """What was locked by which product, and until when."""
    return f"{what.capitalize()} from {day(begin)} until {until}: {product}"
