"""Gray snow mould: the cold spell before the first lasting snow, when it is sprayed; and days of snow cover, how bad it gets.

Typhula incarnata wants about 60 days under snow, T. ishikariensis about 90 (common practice, no source; medium). What helps
goes down before the first lasting snow, so that the value tells how bad it can be, not when to spray. A day on which nobody
measured snow is not known, unless it was too warm for snow to lie.
"""

import numpy as np

from core.disease.model import Model, Series, Tier, Weather, earlier, plain, rolling_mean

COLD, COLDEST = 6.0, -1.0
MEAN_OF = 10
DAYS = 60.0
TOO_WARM = 8.0
"""A daily mean [°C] above which no snow is taken to lie where none was measured (ours)."""
THAWED = 30
"""Bare days in a row that end a winter's count (ours)."""


def cold_series(weather: Weather) -> Series:
    """1 on days whose ten-day mean air has fallen to between 6 and −1 °C with no snow lying, the time to spray; else 0."""
    days = weather.days
    mean = rolling_mean(days.air, MEAN_OF)
    before = earlier(mean, MEAN_OF)
    with np.errstate(invalid="ignore"):
        open_now = (mean <= COLD) & (mean >= COLDEST) & (before > mean) & ~(days.snow > 0)
    return plain(np.where(np.isnan(mean) | np.isnan(before), np.nan, open_now.astype(float)))


COLD_MODEL = Model(
    "cold_before_snow",
    "gray_snow_mould",
    "Cold before snow",
    1.0,
    "the time to spray",
    Tier.THUMB,
    "common practice, no source",
    "ten-day mean air falling between 6 and −1 °C, no snow lying yet",
    2 * MEAN_OF,
    cold_series,
    yes_or_no=True,
)


def series(weather: Weather) -> Series:
    """Days under snow so far in the winter; unknown days are not counted, and once snow has lain they leave no value."""
    days = weather.days
    with np.errstate(invalid="ignore"):
        lies = np.where(np.isnan(days.snow), np.where(days.air > TOO_WARM, 0.0, np.nan), (days.snow > 0).astype(float))
    found, known = np.full(len(days), np.nan), np.flatnonzero(~np.isnan(lies))
    snow, place = lies[known] > 0, np.arange(len(known))
    bare = place - np.maximum.accumulate(np.where(snow, place, -1))
    so_far = np.cumsum(snow)
    found[known] = so_far - np.maximum.accumulate(np.where(bare >= THAWED, so_far, 0))
    return plain(found)


MODEL = Model(
    "snow_cover",
    "gray_snow_mould",
    "Days under snow",
    DAYS,
    "days under snow",
    Tier.THUMB,
    "common practice, no source",
    "turf at about 0 °C under snow; 90 days for the hardier species",
    1,
    series,
)
