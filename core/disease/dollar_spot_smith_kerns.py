"""Dollar spot by a logistic model of five days' mean temperature and humidity.

Smith DL, Kerns JP, Walker NR, Payne AF, Horvath B, Inguagiato JC, Kaminski JE, Tomaso-Peterson M, Koch PL (2018) PLoS ONE
13(3):e0194216. Where it holds, 10 to 35 °C, is from extension use (medium). A day is the local calendar day and its mean
that of its hours: pooled hours or another day's border shift the answer.
"""

import numpy as np
from numpy.typing import ArrayLike

from core.disease.model import Floats, Model, Series, Tier, Weather, percent, rolling_mean

INTERCEPT, PER_DEGREE, PER_PERCENT = -11.4041, 0.1932, 0.0894
COOLEST, WARMEST = 10.0, 35.0
DAYS = 5
THRESHOLD = 0.20
"""Action threshold of the authors."""
MOVES = (0.15, 0.40)
"""How far accounts move it with the grass and what they bear (extension use, medium)."""


def probability(air: ArrayLike, humidity: ArrayLike) -> Floats:
    """The probability of an epidemic [0 to 1] from five-day means.

    Args:
        air: mean of five daily mean temperatures [°C].
        humidity: mean of five daily mean relative humidities [%].

    Raises:
        InputError: the humidity is a fraction.
    """
    logit = INTERCEPT + PER_DEGREE * np.asarray(air, dtype=float) + PER_PERCENT * percent(humidity)
    return np.asarray(1 / (1 + np.exp(-logit)))


def series(weather: Weather) -> Series:
    """The probability of each day from its last five."""
    air, humidity = rolling_mean(weather.days.air, DAYS), rolling_mean(weather.days.humidity, DAYS)
    with np.errstate(invalid="ignore"):
        outside = (air < COOLEST) | (air > WARMEST)
    return Series(np.where(outside, np.nan, probability(air, humidity)), outside)


MODEL = Model(
    "smith_kerns",
    "dollar_spot",
    "Smith and Kerns",
    THRESHOLD,
    "probability",
    Tier.PUBLISHED,
    "Smith et al. 2018, PLoS ONE 13(3):e0194216",
    "five-day mean of 10 to 35 °C",
    DAYS,
    series,
    share=True,
    moves=MOVES,
)
