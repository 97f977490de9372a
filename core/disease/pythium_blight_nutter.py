"""Pythium blight: a hot day, then a warm night with many humid hours.

Nutter FW, Cole H, Schein RD (1983) Plant Disease 67:1126-1128: a high above 30 °C, then 14 hours above 90 % humidity with a low
of 20 °C. Which hours are counted is from memory: from noon to noon after the hot afternoon, not necessarily in a row.
"""

import numpy as np
from numpy.typing import NDArray

from core.disease.model import Floats, Model, Series, Tier, Weather, plain

HOT, WARM, HUMID = 30.0, 20.0, 90.0
HOURS = 14.0
NOON = 12


def humid_hours(weather: Weather) -> tuple[Floats, Floats]:
    """By day: humid hours from its noon to the next, and the lowest temperature in them [°C]; NaN where hours are missing."""
    hours, count = weather.hours, len(weather.days)
    night: NDArray[np.int64] = np.where(weather.clock >= NOON, weather.number, weather.number - 1)
    known = ~np.isnan(hours.humidity) & ~np.isnan(hours.air) & (night >= 0)
    humid = np.bincount(night[known], weights=hours.humidity[known] > HUMID, minlength=count).astype(float)
    held = np.bincount(night[known], minlength=count)
    low = np.full(count, np.inf)
    np.minimum.at(low, night[known], hours.air[known])
    missing = held < 20
    return np.where(missing, np.nan, humid), np.where(missing, np.nan, low)


def series(weather: Weather) -> Series:
    """Humid hours of the night that ended on a day; none where the afternoon before was not hot or the night not warm."""
    humid, low = humid_hours(weather)
    high = weather.days.high
    with np.errstate(invalid="ignore"):
        danger = (high > HOT) & (low >= WARM)
    found = np.where(np.isnan(humid) | np.isnan(high), np.nan, np.where(danger, humid, 0.0))
    return plain(np.concatenate([[np.nan], found[:-1]]))


MODEL = Model(
    "nutter",
    "pythium_blight",
    "Nutter, Cole and Schein",
    HOURS,
    "humid hours after a hot day",
    Tier.MEMORY,
    "Nutter et al. 1983, Plant Disease 67:1126-1128",
    "any",
    2,
    series,
)
