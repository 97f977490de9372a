"""A programme's steps: when each is to be done on a ground, by the calendar, by an event, by warmth or by the soil.

A step gives turns; a turn has a first and a last day, or says what it waits for. Feeding on dates and pre-emergents by the soil
are common practice, no source; degree days are those of `core.weather.degree_days`, the soil that of `core.weather.soil`. Where
weather is not known a turn has no day, and says until when it could count.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta
from enum import StrEnum
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from core.days import day, so_many
from core.disease.model import rolling_mean
from core.errors import InputError
from core.season.expected import Spell
from core.weather.words import degree_day_sum, warmth

Floats = NDArray[np.float64]
GRACE = 7
"""Days within which a dated turn is not late yet, unless told (ours)."""
MOST_TURNS = 60
SOIL_DAYS = 5
"""Days of which the soil's mean is taken, as for the diseases told by it."""
COLD_DAYS = 10
"""Days of which the air's mean is taken as it turns cold, as before snow (common practice, no source)."""
COLD_EARLY = 28
"""Days before its day of the calendar from which on the cold may bring a step (ours)."""
USUAL_HOLES = 0.1
"""How much of the days since the beginning may be unknown before a sum is none [share] (ours)."""


class Timing(StrEnum):
    """What a step goes by."""

    DATED = "dated"
    EVERY = "every"
    MONTHLY = "monthly"
    WINDOW = "window"
    WARMTH = "warmth"
    SOIL = "soil"
    COLD = "cold"
    THRESHOLD = "threshold"
    EVENT = "event"

    @property
    def by_weather(self) -> bool:
        """Whether weather moves it."""
        return self in (Timing.WARMTH, Timing.SOIL, Timing.COLD, Timing.THRESHOLD)

    @property
    def text(self) -> str:
        return {
            "dated": "On a day",
            "every": "Every so many days",
            "monthly": "On days of each month",
            "window": "Between two days",
            "warmth": "By degree days",
            "soil": "By soil temperature",
            "cold": "As it turns cold",
            "threshold": "At a disease's threshold",
            "event": "Before or after something",
        }[self.value]


@dataclass(frozen=True)
class When:
    """When a step is to be done.

    `begin` and `end` bound it: all its turns begin between them, and one that waits for warmth or for the soil is counted from
    `begin` on. `every` is in days, `monthly` are days of the month, `sum` degree days over `base` [°C·d, °C], `soil` the
    temperature [°C] that it passes upwards or downwards, `cold` what the air falls under [°C], `disease` whose threshold is
    passed, `anchor` what it goes by, `offset` the days after it, below 0 before; `grace` the days that a turn has.
    """

    timing: Timing
    begin: date
    end: date
    every: int = 0
    monthly: tuple[int, ...] = ()
    sum: float = 0.0
    base: float = 0.0
    soil: float = 0.0
    rising: bool = True
    anchor: str = ""
    offset: int = 0
    grace: int = GRACE
    cold: float = 0.0
    disease: str = ""

    def __post_init__(self) -> None:
        if self.end < self.begin:
            raise InputError("end", str(self.end), "The last day is before the first.", "Give the later day as the last.")
        if (self.end - self.begin).days > 731:
            raise InputError("end", str(self.end), "A step runs over two years at the most.", "End it sooner; copy it next year.")
        for name, value, low, high, remedy in (
            ("every", self.every, 1, 366, "Write 14 for a fortnight."),
            ("grace", self.grace, 0, 120, "Write the days that a turn may wait."),
        ):
            if (name != "every" or self.timing in (Timing.EVERY, Timing.THRESHOLD)) and not low <= value <= high:
                raise InputError(name, value, f"{value} is no number of days for it: {low} to {high}.", remedy)
        if self.timing is Timing.EVERY and (self.end - self.begin).days // self.every >= MOST_TURNS:
            raise InputError("every", self.every, f"More than {MOST_TURNS} turns.", "Take longer steps or an earlier end.")
        if self.timing is Timing.MONTHLY and not (self.monthly and all(1 <= d <= 31 for d in self.monthly)):
            raise InputError("monthly", str(self.monthly), "Those are no days of a month.", "Write 1, 15 for two a month.")
        if self.timing is Timing.WARMTH and not 1 <= self.sum <= 5000:
            raise InputError("sum", self.sum, "That is no sum of degree days to wait for.", "Give °C·d between 1 and 5000.")
        if self.timing is Timing.WARMTH and not -5 <= self.base <= 20:
            raise InputError("base", self.base, "That is no base of degree days.", "0, 5 and 10 °C are usual.")
        if self.timing is Timing.SOIL and not -5 <= self.soil <= 40:
            raise InputError("soil", self.soil, "No soil is as cold or warm as that.", "Give a temperature at 2 in (5 cm).")
        if self.timing is Timing.COLD and not -10 <= self.cold <= 25:
            raise InputError("cold", self.cold, "No autumn is told by that.", "6 °C (43 °F) is usual before lasting snow.")
        if self.timing is Timing.THRESHOLD and not self.disease:
            raise InputError("disease", "", "Whose threshold?", "Pick a disease.")
        if self.timing is Timing.EVENT and not self.anchor:
            raise InputError("anchor", "", "What does it go by?", "Pick an event or another step.")
        if not -366 <= self.offset <= 366:
            raise InputError("offset", self.offset, "That is more than a year off.", "Give the days before or after it.")


@dataclass(frozen=True)
class Warm:
    """A site's days from `first` on: the mean air, and the soil [°C], and the snow that lay [cm], NaN where unknown; `today` the
    first that is not over.
    """

    first: date
    air: Floats
    soil: Floats
    today: date
    snow: Floats = field(default_factory=lambda: np.empty(0))

    def from_day(self, values: Floats, on: date) -> tuple[date, Floats]:
        """Values of the days [°C] from a day on, or from the first known day where that is later.

        Args:
            values: by day [°C].
            on: the day.
        """
        skip = max(0, (on - self.first).days)
        return self.first + timedelta(days=skip), values[skip:]


@dataclass(frozen=True)
class Turn:
    """One turn of a step: its place in order, its first and last day where they are known, and what it goes by in words.

    `about` is the day it is looked for by the years before, where weather alone will tell.
    """

    number: int
    begin: date | None
    end: date | None
    why: str
    about: date | None = None


@dataclass(frozen=True)
class Around:
    """What a step's turns hang on besides its own words: the weather, days by anchor, and the weather of years before.

    `risky` has the risk days of each disease that the ground is watched for; `anchors` holds for each anchor its days on this
    ground; one that is known but has no day yet has none.
    """

    warm: Warm | None = None
    anchors: Mapping[str, Sequence[date]] = field(default_factory=dict)
    usual: Sequence[Warm] = ()
    us: bool = True
    risky: Mapping[str, Spell] = field(default_factory=dict)


NOTHING = Around()
NO_WEATHER = " No weather is known for it: add a station to the site."
Look = Callable[[Warm, date, When], date | None]
"""Finds the day that a step waits for in some days of weather, counted from a day on."""


def turns(when: When, around: Around = NOTHING) -> list[Turn]:
    """The turns of a step on a ground, in order.

    Args:
        when: of the step.
        around: what it hangs on.
    """
    return _BY[when.timing](when, around)


def _turn(n: int, on: date, grace: int, why: str) -> Turn:
    return Turn(n, on, on + timedelta(days=grace), why)


def _dated(when: When, _: Around) -> list[Turn]:
    return [_turn(0, when.begin, when.grace, f"On {day(when.begin)}.")]


def _window(when: When, _: Around) -> list[Turn]:
    return [Turn(0, when.begin, when.end, f"Between {day(when.begin)} and {day(when.end)}.")]


def _every(when: When, _: Around) -> list[Turn]:
    count = (when.end - when.begin).days // when.every + 1
    grace = min(when.grace, when.every - 1)
    why = f"Every {so_many(when.every)}." if when.every > 1 else "Every day."
    return [_turn(n, when.begin + timedelta(days=n * when.every), grace, why) for n in range(count)]


def _monthly(when: When, _: Around) -> list[Turn]:
    days = sorted(
        on
        for i in range((when.end.year - when.begin.year) * 12 + when.end.month - when.begin.month + 1)
        for on in _days_of(when.begin.year * 12 + when.begin.month - 1 + i, when.monthly)
        if when.begin <= on <= when.end
    )[:MOST_TURNS]
    gaps = [(b - a).days for a, b in pairwise(days)]
    grace = min([when.grace, *(g - 1 for g in gaps)])
    return [_turn(n, on, grace, f"On day {on.day} of the month.") for n, on in enumerate(days)]


def _days_of(month: int, wanted: Sequence[int]) -> set[date]:
    """The wanted days of a month counted from year 0; one that it does not have is its last."""
    first = date(month // 12, month % 12 + 1, 1)
    last = (date((month + 1) // 12, (month + 1) % 12 + 1, 1) - timedelta(days=1)).day
    return {first.replace(day=min(d, last)) for d in wanted}


def _event(when: When, around: Around) -> list[Turn]:
    days = around.anchors.get(when.anchor)
    if not days:
        return [Turn(0, None, None, "It waits for a day of what it goes by.")]
    how = "On its day" if not when.offset else f"{so_many(abs(when.offset))} {'after' if when.offset > 0 else 'before'}"
    found = []
    for n, on in enumerate(sorted(days)[:MOST_TURNS]):
        found.append(_turn(n, on + timedelta(days=when.offset), when.grace, f"{how} {day(on)}."))
    return found


def _warmth(when: When, around: Around) -> list[Turn]:
    goal = f"{degree_day_sum(when.sum, around.us)} over {warmth(when.base, around.us)} from {day(when.begin)}"
    hit, said = _sum_reached(around.warm, when, around.us) if around.warm else (None, NO_WEATHER)
    return [_of_weather(when, around, hit, f"At {goal}.{said}", _sum_day)]


def _soil(when: When, around: Around) -> list[Turn]:
    way = "over" if when.rising else "under"
    goal = f"The soil {way} {warmth(when.soil, around.us)} for {so_many(SOIL_DAYS)} from {day(when.begin)} on"
    hit, said = _soil_reached(around.warm, when, around.us) if around.warm else (None, NO_WEATHER)
    return [_of_weather(when, around, hit, f"{goal}.{said}", _soil_day)]


def _of_weather(when: When, around: Around, hit: date | None, why: str, look: Look) -> Turn:
    """A turn that weather tells: on its day, or not yet, with the day by the years before; over where its last day has passed."""
    if hit is not None and hit <= when.end:
        return Turn(0, hit, hit + timedelta(days=when.grace), why)
    years = [on for w in around.usual if (on := _moved(look(w, same_day(when.begin, w.first.year), when), when))]
    about = years[len(years) // 2] if (years := sorted(years)) else None
    if about is None:
        return Turn(0, None, None, why)
    span = f", between {day(years[0])} and {day(years[-1])}" if years[0] != years[-1] else ""
    of = f"{len(years)} {'year' if len(years) == 1 else 'years'}"
    return Turn(0, None, None, f"{why} About {day(about)} by {of} before{span}.", about)


def same_day(on: date, year: int) -> date:
    """The same day in another year; 28 February for the 29th."""
    return on.replace(year=year, day=28) if (on.month, on.day) == (2, 29) else on.replace(year=year)


def _moved(on: date | None, when: When) -> date | None:
    """A day of another year, in the step's year."""
    if on is None:
        return None
    found = same_day(on, when.begin.year)
    found = found if found >= when.begin else same_day(on, when.begin.year + 1)
    return found if found <= when.end else None


def _sum_day(warm: Warm, begin: date, when: When) -> date | None:
    """The day on which a sum of degree days from `begin` on is reached; None where it is not, or too many days are unknown."""
    first, air = warm.from_day(warm.air, begin)
    if first != begin:
        return None
    sums = np.cumsum(np.nan_to_num(np.maximum(0.0, air - when.base)))
    hit = np.flatnonzero(sums >= when.sum - 1e-9)
    if not len(hit) or np.isnan(air[: hit[0] + 1]).mean() > USUAL_HOLES:
        return None
    return first + timedelta(days=int(hit[0]))


def _sum_reached(warm: Warm, when: When, us: bool) -> tuple[date | None, str]:
    first, air = warm.from_day(warm.air, when.begin)
    if first > when.begin:
        return None, f" The weather is known from {day(first)} on: the days before cannot be counted."
    if not len(air):
        return None, ""
    holes = int(np.isnan(air[: max(0, (warm.today - first).days)]).sum())
    hit = _sum_day(warm, when.begin, when)
    counted = max(0, min(len(air), (warm.today - first).days + 1))
    so_far = float(np.nansum(np.maximum(0.0, air[:counted] - when.base)))
    said = f" {degree_day_sum(so_far, us)} so far" if counted else ""
    missing = f"; {so_many(holes)} could not be counted" if holes else ""
    return hit, f"{said}{missing}." if said else ""


def _soil_day(warm: Warm, begin: date, when: When) -> date | None:
    """The first day from `begin` on of which the mean of the last days has passed the temperature."""
    skip = (begin - warm.first).days
    if skip < 0:
        return None
    means = rolling_mean(warm.soil, SOIL_DAYS)
    with np.errstate(invalid="ignore"):
        passed = means >= when.soil if when.rising else means <= when.soil
    hit = np.flatnonzero(passed[skip:])
    return begin + timedelta(days=int(hit[0])) if len(hit) else None


def _soil_reached(warm: Warm, when: When, us: bool) -> tuple[date | None, str]:
    if warm.first > when.begin:
        return None, f" The weather is known from {day(warm.first)} on."
    means = rolling_mean(warm.soil, SOIL_DAYS)
    at = (warm.today - warm.first).days
    now = means[at] if 0 <= at < len(means) else np.nan
    return _soil_day(warm, when.begin, when), "" if np.isnan(now) else f" It is at {warmth(float(now), us)} now."


def _cold(when: When, around: Around) -> list[Turn]:
    """By the calendar without a station; with one on the day it turns cold, the day before snow at the latest."""
    warm, under = around.warm, warmth(when.cold, around.us)
    if warm is None or warm.first > when.begin - timedelta(days=COLD_EARLY + COLD_DAYS):
        why = f"On {day(when.begin)} by the calendar: no weather is known that would tell when it turns cold."
        return [_turn(0, when.begin, when.grace, why)]
    hit, snow = _cold_day(warm, when.begin, when), _snow_day(warm)
    if hit:
        on, why = hit, f"The mean of {so_many(COLD_DAYS)} is under {under} on {day(hit)}."
    else:
        found = [_cold_day(w, same_day(when.begin, w.first.year), when) for w in around.usual]
        years = sorted(same_day(x, when.begin.year) for x in found if x)
        about = years[len(years) // 2] if years else when.begin
        on = min(max(about, warm.first + timedelta(days=len(warm.air))), when.end)
        before = f", about {day(about)} by the years before" if years else ""
        why = f"When the mean of {so_many(COLD_DAYS)} falls under {under}{before}; on {day(when.end)} at the latest."
    if snow and warm.today < snow <= on + timedelta(days=when.grace):
        last = snow - timedelta(days=1)
        return [Turn(0, min(on, last), last, f"{why} Snow is forecast for {day(snow)}: it goes on bare turf before.")]
    lies = " Snow lies: it goes on bare turf." if snow == warm.today else ""
    return [_turn(0, on, when.grace, f"{why} By the calendar it would be {day(when.begin)}.{lies}")]


def _threshold(when: When, around: Around) -> list[Turn]:
    """On the first day at risk, and again on the first one so many days after; the next one waits."""
    spell = around.risky.get(when.disease)
    if spell is None:
        return [Turn(0, None, None, "It waits for a threshold: the ground is not watched for that, or no weather is known.")]
    found: list[Turn] = []
    for i in np.flatnonzero(np.nan_to_num(spell.risky) > 0):
        on = spell.first + timedelta(days=int(i))
        free = found[-1].begin + timedelta(days=when.every) if found and found[-1].begin else when.begin
        if free <= on <= when.end and len(found) < MOST_TURNS:
            found.append(_turn(len(found), on, when.grace, f"Over its threshold on {day(on)}."))
    waits = f"It waits until the threshold is passed, {so_many(when.every)} after the one before at the soonest."
    return [*found, Turn(len(found), None, None, waits)]


def _cold_day(warm: Warm, begin: date, when: When) -> date | None:
    """The first day near a day of the calendar on which the mean of the last days is under the temperature."""
    first = (begin - warm.first).days - COLD_EARLY
    last = first + COLD_EARLY + (when.end - when.begin).days
    if first < 0:
        return None
    with np.errstate(invalid="ignore"):
        hit = np.flatnonzero(rolling_mean(warm.air, COLD_DAYS)[first : last + 1] <= when.cold)
    return warm.first + timedelta(days=first + int(hit[0])) if len(hit) else None


def _snow_day(warm: Warm) -> date | None:
    """The first day from today on on which snow lies or is forecast to; None where none is."""
    first = max(0, (warm.today - warm.first).days)
    with np.errstate(invalid="ignore"):
        hit = np.flatnonzero(warm.snow[first:] > 0)
    return warm.first + timedelta(days=first + int(hit[0])) if len(hit) else None


_BY = {
    Timing.DATED: _dated,
    Timing.EVERY: _every,
    Timing.MONTHLY: _monthly,
    Timing.WINDOW: _window,
    Timing.WARMTH: _warmth,
    Timing.SOIL: _soil,
    Timing.COLD: _cold,
    Timing.THRESHOLD: _threshold,
    Timing.EVENT: _event,
}
