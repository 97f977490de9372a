"""Reference evapotranspiration: what a well-watered short grass would drink in a day.

Sources
-------
Hargreaves GH, Samani ZA (1985) Appl Eng Agric 1:96-99. Penman-Monteith by FAO-56 (Allen RG et al. 1998), equation 6, with
what is not measured estimated as it says there: radiation from the day's range of temperature (equation 50, 0.16 inland,
0.19 at a coast), pressure from the height above the sea (7), wind from its mean at 2 m.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from core.weather.days import Days
from core.weather.sun import above_the_air

Floats = NDArray[np.float64]
INLAND, COAST = 0.16, 0.19
TURF = {True: (0.80, 0.95), False: (0.60, 0.80)}
"""What turf drinks of it, cool-season and warm-season (common practice, no source)."""


def hargreaves(high: ArrayLike, low: ArrayLike, above: ArrayLike) -> Floats:
    """Reference evapotranspiration [mm/d] from a day's extremes [°C] and the radiation above the air [MJ/m²/d]."""
    top, bottom = np.asarray(high, dtype=float), np.asarray(low, dtype=float)
    with np.errstate(invalid="ignore"):
        reach = np.sqrt(np.where(top >= bottom, top - bottom, np.nan))
    return np.asarray(0.0023 * ((top + bottom) / 2 + 17.8) * reach * 0.408 * np.asarray(above))


@dataclass(frozen=True)
class Air:
    """A day's air: extremes [°C], mean humidity [%], wind at 2 m [m/s]."""

    high: Floats
    low: Floats
    humidity: Floats
    wind: Floats


def penman_monteith(air: Air, above: ArrayLike, height: float = 0.0, coast: bool = False) -> Floats:
    """Reference evapotranspiration [mm/d] by FAO-56, radiation estimated.

    Args:
        air: the day's air.
        above: radiation above the air [MJ/m²/d].
        height: above the sea [m].
        coast: whether a large water is near.
    """
    above = np.asarray(above, dtype=float)
    mean = (air.high + air.low) / 2
    clear = (0.75 + 2e-5 * height) * above
    with np.errstate(invalid="ignore"):
        sun = np.minimum((COAST if coast else INLAND) * np.sqrt(np.maximum(0, air.high - air.low)) * above, clear)
    full = (_saturation(air.high) + _saturation(air.low)) / 2
    held = air.humidity / 100 * full
    slope = 4098 * _saturation(mean) / (mean + 237.3) ** 2
    gamma = 0.665e-3 * 101.3 * ((293 - 0.0065 * height) / 293) ** 5.26
    net = 0.77 * sun - _lost(air, held, sun / np.where(clear > 0, clear, np.nan))
    dry = gamma * 900 / (mean + 273) * air.wind * (full - held)
    return np.asarray(np.maximum(0.0, (0.408 * slope * net + dry) / (slope + gamma * (1 + 0.34 * air.wind))))


def of_days(days: Days, latitude: float, height: float = 0.0, coast: bool = False) -> Floats:
    """Reference evapotranspiration of days [mm/d]: Penman-Monteith, and Hargreaves where humidity or wind is not known.

    Args:
        days: with their highs, lows, humidity and wind.
        latitude: of the place [°].
        height: above the sea [m].
        coast: whether the place lies by the sea.
    """
    numbers = np.array([days.day(i).timetuple().tm_yday for i in range(len(days))], dtype=float)
    above = above_the_air(numbers, latitude)
    whole = penman_monteith(Air(days.high, days.low, days.humidity, days.wind), above, height, coast)
    return np.where(np.isnan(whole), hargreaves(days.high, days.low, above), whole)


def _saturation(air: Floats) -> Floats:
    """Vapour pressure of saturated air [kPa], equation 11."""
    return np.asarray(0.6108 * np.exp(17.27 * air / (air + 237.3)))


def _lost(air: Air, held: Floats, clear: Floats) -> Floats:
    """Net long-wave radiation [MJ/m²/d], equation 39."""
    warmth = 4.903e-9 * ((air.high + 273.16) ** 4 + (air.low + 273.16) ** 4) / 2
    return np.asarray(warmth * (0.34 - 0.14 * np.sqrt(held)) * (1.35 * clear - 0.35))
