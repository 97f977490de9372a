"""A programme as one says it: how a turn stands, when a step is due, where, and the state of the year in a sentence."""

from collections.abc import Sequence
from datetime import date
from decimal import Decimal

from core.days import dated, day, so_many
from core.grasses import GRASSES
from core.label.targets import TARGETS
from core.rates.nutrients import LB_PER_1000
from core.readable import joined
from core.season.standing import Stand
from core.season.steps import COLD_DAYS, Timing, When
from core.units import show_number
from core.weather.words import degree_day_sum, warmth
from greenmeasure.programme.schemas import TurnOut

STANDS = {
    Stand.LATE: "late",
    Stand.DUE: "due",
    Stand.COMING: "coming",
    Stand.LATER: "later",
    Stand.WAITING: "waits",
    Stand.DONE: "done",
    Stand.SKIPPED: "skipped",
    Stand.MISSED: "missed",
}
NOT_READ = "When it is due cannot be read: set it anew."
NO_PRODUCT = "No product yet"
OVERSEEDING = "overseeding"
SOIL_USUAL, COLD_USUAL = "55 °F (12.8 °C) is usual for crabgrass.", "43 °F (6 °C) is usual before lasting snow."


def when_text(when: When | None, goes_by: str, us: bool) -> str:
    """When a step is due, in words."""
    if when is None:
        return NOT_READ
    span = f"from {day(when.begin)} to {day(when.end)}"
    match when.timing:
        case Timing.DATED:
            return f"On {dated(when.begin)}"
        case Timing.WINDOW:
            return f"Between {day(when.begin)} and {day(when.end)}"
        case Timing.EVERY:
            return f"Every {so_many(when.every)} {span}"
        case Timing.MONTHLY:
            return f"On day {joined([str(d) for d in when.monthly])} of each month {span}"
        case Timing.WARMTH:
            return f"At {degree_day_sum(when.sum, us)} over {warmth(when.base, us)}, counted {span}"
        case Timing.SOIL:
            return f"When the soil is {'over' if when.rising else 'under'} {warmth(when.soil, us)}, {span}"
        case Timing.COLD:
            under = f"the mean of {so_many(COLD_DAYS)} falls under {warmth(when.cold, us)}"
            return f"When {under}; without weather on {day(when.begin)}"
        case Timing.THRESHOLD:
            whose = TARGETS[when.disease].name.lower() if when.disease in TARGETS else when.disease
            return f"When {whose} passes its threshold, {so_many(when.every)} apart at the least, {span}"
        case Timing.EVENT:
            how = (
                "On the day of" if not when.offset else f"{so_many(abs(when.offset))} {'after' if when.offset > 0 else 'before'}"
            )
            return f"{how} {goes_by or 'what is gone'}"


def where_text(names: Sequence[str], site: str, use: str, grass: str) -> str:
    """On which ground a step is."""
    if names:
        return joined(list(names)) if len(names) < 4 else f"{len(names)} areas"
    kind = f"{use}s" if use else "all the ground"
    of = f" of {GRASSES[grass].name.lower()}" if grass in GRASSES else ""
    return f"{kind.capitalize()}{of}{f' at {site}' if site else ''}"


def sentence(year: int, steps: int, areas: int, acts: Sequence[TurnOut]) -> str:
    """The state of a year's programme."""
    if not steps:
        return f"No programme for {year} yet. Start from an outline, copy another year, or add a step."
    said = f"{year}: {many(steps, 'step')} on {many(areas, 'area')}"
    late, due = (sum(a.stand == s for a in acts) for s in ("late", "due"))
    if not late and not due:
        coming = next((a for a in acts if a.begin), None)
        return f"{said}; nothing is due. {f'{coming.name} on {coming.area} is next, {coming.day}.' if coming else ''}".strip()
    told = [f"{n} {word}" for n, word in ((late, "late"), (due, "due")) if n]
    first = acts[0]
    return f"{said}; {joined(told)}. {first.name} on {first.area} comes first."


def many(n: int, what: str) -> str:
    """A number of things."""
    return f"{n} {what}{'' if n == 1 else 's'}"


def day_text(begin: date | None, end: date | None, about: date | None, done: date | None, stand: Stand) -> str:
    """A turn's days in words: done on, due until, from, about."""
    if done:
        return f"on {day(done)}"
    if begin is None or end is None:
        return f"about {day(about)}" if about else "no day yet"
    if stand in (Stand.DUE, Stand.LATE, Stand.MISSED):
        return f"by {day(end)}"
    return f"from {day(begin)}"


def differs_text(now: str, before: str) -> str:
    """How a step differs from the one it was copied from; empty where it does not."""
    return "" if now == before else f"Was: {before[0].lower()}{before[1:]}"


def total_text(done: float, meant: float, usual: tuple[float, float] | None, us: bool) -> str:
    """What a year brings of a nutrient [g/m²]: done, to come, and what is usual, in one unit."""
    per = LB_PER_1000 if us else 0.01
    unit = "lb/1000 ft²" if us else "g/100 m²"
    been, ahead = (show_number(g / per, 3) for g in (done, meant))
    between = f"; usual {show_number(usual[0] / per, 3)} to {show_number(usual[1] / per, 3)}" if usual else ""
    return f"{been} done, {ahead} {unit} to come{between}"


def outings_text(done: int, ahead: int) -> str:
    """On how many days somebody is out on an area in a year; empty where on none."""
    told = [f"{many(n, 'day')} {word}" for n, word in ((done, "out so far"), (ahead, "to come")) if n]
    return joined(told)


MONEY = "Money"
NOTHING_TO_MIX = "The step has no product that is on the shelf with a rate. Give it one first."


def waits(area: str, why: str) -> str:
    """That an area is left out of a job, and why."""
    return f"{area} is left out: {why}"


def money_text(spent: Decimal, coming: Decimal, allowed: Decimal | None, currency: str) -> str:
    """What a year's money went to and will: spent, to come, and what is left of what is allowed."""
    said = f"{spent:,.2f} {currency} spent, {coming:,.2f} to come"
    if allowed is None:
        return said
    left = allowed - spent - coming
    rest = f"{left:,.2f} left" if left >= 0 else f"{-left:,.2f} more than allowed"
    return f"{said}; {allowed:,.2f} allowed, {rest}"


def uses_text(done: int, meant: int, most: int) -> str:
    """How often a product goes down in a year, of how often its label allows."""
    over = "; that is more than its label allows" if done + meant > most else ""
    return f"{done} done, {meant} to come; {most} a season allowed{over}"


def no_such_rate(product: str) -> str:
    """A rate that a product's label does not give in its kind of unit."""
    return f"The label of {product} gives no rate of that kind."
