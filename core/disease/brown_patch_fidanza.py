"""Brown patch of perennial ryegrass by the night's low and the day's humidity.

Fidanza MA, Dernoeden PH, Grybauskas AP (1996) Phytopathology 86:385-390; the rounded coefficients belong to the threshold of
6. Very warm nights lower the index: the quadratic peaks at 21.2 °C.
"""

import numpy as np
from numpy.typing import ArrayLike

from core.disease.model import Floats, Model, Series, Tier, Weather, percent

INTERCEPT, PER_PERCENT, PER_DEGREE, PER_SQUARE = -21.5, 0.15, 1.4, -0.033
COOLEST, WARMEST = 10.0, 30.0
"""Lows [°C] between which the index is told (ours; the data were a Maryland summer's)."""
THRESHOLD = 6.0


def index(low: ArrayLike, humidity: ArrayLike) -> Floats:
    """The index E of a day.

    Args:
        low: lowest air temperature [°C].
        humidity: mean relative humidity [%].

    Raises:
        InputError: the humidity is a fraction.
    """
    t, rh = np.asarray(low, dtype=float), percent(humidity)
    return np.asarray(INTERCEPT + PER_PERCENT * rh + PER_DEGREE * t + PER_SQUARE * t**2)


def series(weather: Weather) -> Series:
    """The index of each day."""
    low = weather.days.low
    with np.errstate(invalid="ignore"):
        outside = (low < COOLEST) | (low > WARMEST)
    return Series(np.where(outside, np.nan, index(low, weather.days.humidity)), outside)


MODEL = Model(
    "fidanza",
    "brown_patch",
    "Fidanza, Dernoeden and Grybauskas",
    THRESHOLD,
    "index E",
    Tier.PUBLISHED,
    "Fidanza et al. 1996, Phytopathology 86:385-390",
    "nights of 10 to 30 °C; made for perennial ryegrass",
    1,
    series,
    digits=1,
)
