"""Diseases whose preventive time is told by the soil: a mean of some days that lies between two temperatures in its season.

Whether it is spring or autumn is told by the season's trend: the soil of these days is warmer than the mean of the last two
months, or colder. A cold week in May is no autumn. The temperatures are common practice, no source; widely taught. Soil at
5 cm (2 in), measured before estimated.
"""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from core.disease.model import Floats, Model, Tier, plain, rolling_mean

DAYS = 5
"""Days of which the mean is taken."""
SEASON, LEAST = 60, 30
"""Days whose mean tells where the season came from, and how many of them must be known (ours)."""
FORGETS = 30
"""Days that an estimated soil remembers, to a thousandth."""


class Turn(StrEnum):
    """Which way the season goes."""

    RISING = "rising"
    FALLING = "falling"


@dataclass(frozen=True)
class Window:
    """A time to act: the soil passes `begin` as it warms or cools; once it has passed `end` it is over [°C]."""

    turn: Turn
    begin: float
    end: float

    def __str__(self) -> str:
        return f"{self.turn.value}, between {min(self.begin, self.end):g} and {max(self.begin, self.end):g} °C"


@dataclass(frozen=True)
class Trigger:
    """A disease's times of the year."""

    disease: str
    windows: tuple[Window, ...]
    note: str


UP, DOWN = Turn.RISING, Turn.FALLING
TRIGGERS = (
    Trigger("summer_patch", (Window(UP, 18.3, 24.0),), "Late spring; again after 28 days, watered in."),
    Trigger("necrotic_ring_spot", (Window(UP, 18.3, 24.0), Window(DOWN, 18.3, 12.8)), "Spring and autumn."),
    Trigger("spring_dead_spot", (Window(DOWN, 21.1, 12.8),), "Autumn, twice about four weeks apart."),
    Trigger("large_patch", (Window(DOWN, 21.1, 12.8), Window(UP, 15.6, 21.1)), "Autumn; again in spring."),
    Trigger("take_all_patch", (Window(DOWN, 15.6, 4.4), Window(UP, 4.4, 15.6)), "Autumn and spring."),
    Trigger("fairy_ring", (Window(UP, 12.8, 15.6),), "Spring, twice 28 days apart."),
)
"""Where the trade gives one end of a time alone, the other is ours: 24 °C, and the ends of the second windows."""


def open_days(trigger: Trigger, soil: Floats) -> Floats:
    """Days in one of the trigger's windows: 1 or 0, NaN where too few days of soil are known.

    Args:
        trigger: the disease's.
        soil: daily soil temperature [°C].
    """
    mean, season = rolling_mean(soil, DAYS), season_mean(soil)
    inside = np.zeros(len(soil), dtype=bool)
    with np.errstate(invalid="ignore"):
        for window in trigger.windows:
            up = window.turn is Turn.RISING
            turned = mean > season if up else mean < season
            over = lately(mean > window.end if up else mean < window.end)
            inside |= turned & (mean >= window.begin if up else mean <= window.begin) & ~over
    return np.where(np.isnan(mean) | np.isnan(season), np.nan, inside.astype(float))


def lately(flags: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Whether each day, or one of the two months before it, is flagged."""
    total = np.concatenate([[0], np.cumsum(flags)])
    end = np.arange(1, len(flags) + 1)
    return np.asarray(total[end] > total[np.maximum(0, end - SEASON)])


def season_mean(soil: Floats) -> Floats:
    """The mean of each day with those of the two months before it [°C]; NaN where too few of them are known.

    Args:
        soil: daily soil temperature [°C].
    """
    return rolling_mean(soil, SEASON, LEAST)


def _model(trigger: Trigger) -> Model:
    return Model(
        f"soil_{trigger.disease}",
        trigger.disease,
        "Soil temperature",
        1.0,
        "the soil's window",
        Tier.THUMB,
        "common practice, no source",
        f"{DAYS}-day mean of the soil at 5 cm, {'; or '.join(str(w) for w in trigger.windows)}. {trigger.note}",
        FORGETS + 2 * SEASON,
        lambda weather: plain(open_days(trigger, weather.soil)),
        yes_or_no=True,
    )


MODELS = tuple(_model(t) for t in TRIGGERS)
