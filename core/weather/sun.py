"""Daylight and the sun's strength above the air.

Rising and setting by `astral`. Radiation outside the atmosphere by FAO-56 (Allen RG et al. 1998, Irrigation and Drainage
Paper 56), equations 21 to 25.
"""

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
from astral import Observer
from astral.sun import sunrise, sunset
from numpy.typing import ArrayLike, NDArray

from core.errors import InputError
from core.weather.hours import Hours, moment

Floats = NDArray[np.float64]
SOLAR = 0.0820
"""The solar constant [MJ/m²/min]."""


def place_of(latitude: float, longitude: float) -> Observer:
    """A place on the earth [° north], [° east]. Raises InputError for one that is not on it.

    Args:
        latitude: north [°].
        longitude: east [°].
    """
    for name, value, most in (("latitude", latitude, 90), ("longitude", longitude, 180)):
        if not -most <= value <= most:
            raise InputError(name, value, f"{value:g}° is no {name}.", f"Give degrees between -{most} and {most}.")
    return Observer(latitude, longitude)


def sun_of(on: date, here: Observer, zone: ZoneInfo) -> tuple[datetime, datetime] | None:
    """Sunrise and sunset of a local day (UTC); None where the sun does not rise or does not set."""
    try:
        rise, fall = sunrise(here, on, tzinfo=zone), sunset(here, on, tzinfo=zone)
    except ValueError:
        return None
    return rise.astimezone(UTC), fall.astimezone(UTC)


def light_hours(found: Hours, here: Observer, zone: ZoneInfo) -> NDArray[np.bool_]:
    """Which hours are light for the whole of them; where the sun never sets or never rises, all of them are."""
    start = moment(found.start)
    first, last = (at.astimezone(zone).date() for at in (start, start + timedelta(hours=len(found))))
    light = np.zeros(len(found), dtype=bool)
    for n in range((last - first).days + 1):
        sun = sun_of(first + timedelta(days=n), here, zone)
        if sun is None:
            a, b = 24 * n, 24 * (n + 1)
        else:
            a, b = (int(np.ceil((sun[0] - start) / timedelta(hours=1))), int((sun[1] - start) // timedelta(hours=1)))
        light[max(0, a) : max(0, b)] = True
    return light


def above_the_air(day_of_year: ArrayLike, latitude: float) -> Floats:
    """Radiation outside the atmosphere [MJ/m²/d] on a day of the year, at a latitude [° north]."""
    j, phi = np.asarray(day_of_year, dtype=float), np.radians(latitude)
    distance = 1 + 0.033 * np.cos(2 * np.pi * j / 365)
    tilt = 0.409 * np.sin(2 * np.pi * j / 365 - 1.39)
    angle = np.arccos(np.clip(-np.tan(phi) * np.tan(tilt), -1, 1))
    lit = angle * np.sin(phi) * np.sin(tilt) + np.cos(phi) * np.cos(tilt) * np.sin(angle)
    return np.asarray(24 * 60 / np.pi * SOLAR * distance * lit)
