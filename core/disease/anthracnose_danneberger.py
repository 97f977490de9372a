"""Anthracnose on leaves of annual bluegrass by wetness and temperature of three days.

Danneberger TK, Vargas JM, Jones AL (1984) Phytopathology 74:448-451. The quadratic grows without sense outside its data: at
0 °C without wetness it is above its own threshold. It is told between 15 and 33 °C and where leaves were wet (guard is
ours). It does not speak of basal rot.
"""

import numpy as np
from numpy.typing import ArrayLike

from core.disease.model import Floats, Model, Series, Tier, Weather, rolling_mean

INTERCEPT, WET, DEGREE, WET_SQUARE, DEGREE_SQUARE, BOTH = 4.0233, -0.2283, -0.5308, -0.0013, 0.0197, 0.0155
COOLEST, WARMEST = 15.0, 33.0
DAYS = 3
THRESHOLD = 2.0


def severity(wet: ArrayLike, air: ArrayLike) -> Floats:
    """The severity index from means over three days.

    Args:
        wet: leaf wetness [h a day].
        air: temperature [°C].
    """
    w, t = np.asarray(wet, dtype=float), np.asarray(air, dtype=float)
    return np.asarray(INTERCEPT + WET * w + DEGREE * t + WET_SQUARE * w**2 + DEGREE_SQUARE * t**2 + BOTH * w * t)


def series(weather: Weather) -> Series:
    """The index of each day from its last three."""
    wet, air = rolling_mean(weather.days.wet, DAYS), rolling_mean(weather.days.air, DAYS)
    with np.errstate(invalid="ignore"):
        outside = (air < COOLEST) | (air > WARMEST) | (wet <= 0)
    return Series(np.where(outside, np.nan, severity(wet, air)), outside)


MODEL = Model(
    "danneberger",
    "anthracnose",
    "Danneberger, Vargas and Jones",
    THRESHOLD,
    "severity index",
    Tier.PUBLISHED,
    "Danneberger et al. 1984, Phytopathology 74:448-451",
    "three-day mean of 15 to 33 °C with wet leaves",
    DAYS,
    series,
    digits=1,
)
