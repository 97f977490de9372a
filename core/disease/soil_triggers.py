"""Diseases whose preventive time is told by the soil: a mean of some days that passes a temperature, rising or falling.

Common practice, no source; widely taught. Soil at 5 cm (2 in), measured before estimated.
"""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from core.disease.model import Floats, Model, Tier, earlier, plain, rolling_mean
from core.weather.soil import of_days

MEMORY = 30
"""Days that an estimated soil remembers, to a thousandth."""


class Turn(StrEnum):
    """Which way the soil passes the temperature."""

    RISING = "rising"
    FALLING = "falling"


@dataclass(frozen=True)
class Trigger:
    """A disease's trigger: `celsius` passed by the mean of `days` days, and how far the window reaches [°C]."""

    disease: str
    celsius: float
    turn: Turn
    until: float
    days: int
    note: str


TRIGGERS = (
    Trigger("summer_patch", 18.3, Turn.RISING, 24.0, 5, "Late spring; again after 28 days, watered in."),
    Trigger("necrotic_ring_spot", 18.3, Turn.RISING, 24.0, 5, "Spring and autumn."),
    Trigger("spring_dead_spot", 21.1, Turn.FALLING, 12.8, 5, "Autumn, twice about four weeks apart."),
    Trigger("large_patch", 21.1, Turn.FALLING, 12.8, 5, "Autumn; again in spring above 16 °C."),
    Trigger("take_all_patch", 15.6, Turn.FALLING, 4.4, 5, "Autumn and spring, at 4 to 16 °C."),
    Trigger("fairy_ring", 12.8, Turn.RISING, 15.6, 5, "Spring, twice 28 days apart."),
)


def open_days(trigger: Trigger, soil: Floats) -> Floats:
    """Days in the trigger's window: 1 or 0, NaN where too few days of soil are known.

    Args:
        trigger: the disease's.
        soil: daily soil temperature [°C].
    """
    mean = rolling_mean(soil, trigger.days)
    before = earlier(mean, trigger.days)
    slack = 1e-9
    with np.errstate(invalid="ignore"):
        if trigger.turn is Turn.RISING:
            inside = (mean >= trigger.celsius) & (mean <= trigger.until) & (before <= mean + slack)
        else:
            inside = (mean <= trigger.celsius) & (mean >= trigger.until) & (before >= mean - slack)
    return np.where(np.isnan(mean) | np.isnan(before), np.nan, inside.astype(float))


def _model(trigger: Trigger) -> Model:
    return Model(
        f"soil_{trigger.disease}",
        trigger.disease,
        "Soil temperature",
        1.0,
        "the soil's window",
        Tier.THUMB,
        "common practice, no source",
        f"{trigger.days}-day mean of the soil at 5 cm, {trigger.turn.value}, between "
        f"{min(trigger.celsius, trigger.until):g} and {max(trigger.celsius, trigger.until):g} °C. {trigger.note}",
        MEMORY,
        lambda weather: plain(open_days(trigger, of_days(weather.days))),
        yes_or_no=True,
    )


MODELS = tuple(_model(t) for t in TRIGGERS)
