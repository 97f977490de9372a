"""Rules of thumb for diseases without a model to ship: a condition that must hold for some days in a row.

Common practice, no source; the temperatures are widely taught (medium), the hours and days are loosely so (low). Gray leaf
spot follows the shape of Uddin W, Serlemitsos K, Viji G (2003) Phytopathology 93:336-343 without its coefficients: wet hours
held against the hours needed at that temperature, fewest at 28 °C.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from core.disease.model import Flags, Floats, Model, Tier, Weather, flagged, plain
from core.weather.days import Days

NO_SOURCE = "common practice, no source"
BACK = 7
"""How many days a row is followed back; a longer one is told as this many."""


@dataclass(frozen=True)
class Habit:
    """What a disease likes: the day's mean air [°C] between two ends, hours of wet leaf or a humidity [%], for `days` in a row.

    Rain makes a day humid too.
    """

    disease: str
    air: tuple[float, float]
    wet: float | None
    humid: float | None
    days: int
    note: str


HABITS = (
    Habit("microdochium_patch", (0.0, 15.0), 10.0, None, 3, "It needs no snow; most at 0 to 8 °C."),
    Habit("red_thread", (10.0, 24.0), None, 85.0, 2, "Turf low in nitrogen; feed before spraying."),
    Habit("rust", (20.0, 30.0), 8.0, None, 2, "Slow growth late in summer; feed and mow."),
    Habit("leaf_spot", (13.0, 18.0), 10.0, None, 2, "Long wetness in spring; its crown phase comes later, in heat."),
    Habit("powdery_mildew", (15.0, 22.0), None, 85.0, 3, "Shade and still air; leaves need not be wet."),
    Habit("yellow_patch", (7.0, 18.0), 10.0, None, 3, "Cool and wet; it looks worse than it is."),
)


def in_a_row(condition: Flags, *known: Floats) -> Floats:
    """For each day how many days in a row up to it a condition has held, `BACK` at the most.

    A day that is not known has no value and ends the row.
    """
    flags = flagged(condition, *known)
    number = np.arange(len(flags))
    last_off = np.maximum.accumulate(np.where(flags == 1, -1, number))
    return np.where(np.isnan(flags), np.nan, np.minimum(number - last_off, BACK).astype(float))


def _series(habit: Habit) -> Callable[[Weather], Floats]:
    def run(weather: Weather) -> Floats:
        days = weather.days
        second = days.wet if habit.wet is not None else days.humidity
        with np.errstate(invalid="ignore"):
            mild = (days.air >= habit.air[0]) & (days.air <= habit.air[1])
            moist = _moist(habit, days)
        return in_a_row(mild & moist, days.air, second)

    return run


def _moist(habit: Habit, days: Days) -> Flags:
    if habit.wet is not None:
        return days.wet >= habit.wet
    humid = habit.humid if habit.humid is not None else 0.0
    return (days.humidity >= humid) | (np.nan_to_num(days.rain) >= 1.0)


def _model(habit: Habit) -> Model:
    low, high = habit.air
    what = f"{habit.wet:g} h of wet leaf" if habit.wet is not None else f"{habit.humid:g} % humidity or drizzle"
    run = _series(habit)
    return Model(
        f"thumb_{habit.disease}",
        habit.disease,
        "Rule of thumb",
        float(habit.days),
        "days in a row",
        Tier.THUMB,
        NO_SOURCE,
        f"days of {low:g} to {high:g} °C with {what}. {habit.note}",
        BACK,
        lambda w: plain(run(w)),
    )


# --- gray leaf spot ---------------------------------------------------------------------------------------------

BEST, FEWEST, COOL, MOST = 28.0, 9.0, 20.0, 20.0
"""Wet hours needed: 9 at 28 °C, 20 at 20 °C, straight between; none below 20 and above 32 °C (low)."""


def wet_hours_needed(air: Floats) -> Floats:
    """Hours of wet leaf that gray leaf spot needs at a temperature [°C]; infinite where it does not grow.

    Args:
        air: temperature [°C].
    """
    values = np.asarray(air, dtype=float)
    needed = FEWEST + np.maximum(0.0, BEST - values) * (MOST - FEWEST) / (BEST - COOL)
    return np.where((values < COOL) | (values > 32.0), np.inf, needed)


def gray_leaf_spot(weather: Weather) -> Floats:
    """Each day's wet hours as a share of those needed at the temperature while it was wet [1]."""
    hours, count = weather.hours, len(weather.days)
    wet = ~np.isnan(hours.air) & (hours.humidity >= 90)
    n = np.bincount(weather.number, weights=wet, minlength=count)
    total = np.bincount(weather.number, weights=np.where(wet, np.nan_to_num(hours.air), 0.0), minlength=count)
    while_wet = np.where(n > 0, total / np.maximum(1, n), weather.days.air)
    return np.where(np.isnan(weather.days.wet), np.nan, weather.days.wet / wet_hours_needed(while_wet))


GRAY_LEAF_SPOT = Model(
    "thumb_gray_leaf_spot",
    "gray_leaf_spot",
    "Wet hours against those needed",
    1.0,
    "of the hours needed",
    Tier.THUMB,
    "after the shape of Uddin et al. 2003, Phytopathology 93:336-343, without its numbers",
    "20 to 32 °C while wet; late summer, on perennial ryegrass and St Augustinegrass",
    1,
    lambda w: plain(gray_leaf_spot(w)),
    digits=1,
)

MODELS = (*(_model(h) for h in HABITS), GRAY_LEAF_SPOT)
