"""Dollar spot by rain days: two in a row at a mean of 22 °C, or three at 15 °C.

Hall R (1984) Can J Plant Sci 64:167-174. How much rain makes a rain day is from memory, and can be set.
"""

import numpy as np

from core.disease.model import Floats, Model, Series, Tier, Weather, plain, rolling_count, rolling_mean

RAIN_DAY = 0.25
"""Least rain of a rain day [mm]; 0.01 in (from memory, low)."""
TWO, THREE = 22.0, 15.0


def infection(rain: Floats, air: Floats, least: float = RAIN_DAY) -> Floats:
    """Days on which an infection period ends: 1 or 0.

    Args:
        rain: by day [mm].
        air: daily mean [°C].
        least: of a rain day [mm].
    """
    wet = np.where(np.isnan(rain), np.nan, (rain >= least).astype(float))
    with np.errstate(invalid="ignore"):
        two = (rolling_count(wet, 2) > 1.5) & (rolling_mean(air, 2) >= TWO)
        three = (rolling_count(wet, 3) > 2.5) & (rolling_mean(air, 3) >= THREE)
    unknown = np.isnan(rolling_count(wet, 3)) | np.isnan(rolling_mean(air, 3))
    return np.where(two | three, 1.0, np.where(unknown, np.nan, 0.0))


def series(weather: Weather) -> Series:
    """Whether an infection period ended on each day."""
    return plain(infection(weather.days.rain, weather.days.air))


MODEL = Model(
    "hall",
    "dollar_spot",
    "Hall",
    1.0,
    "infection period",
    Tier.MEMORY,
    "Hall 1984, Can J Plant Sci 64:167-174",
    "any",
    3,
    series,
    yes_or_no=True,
)
