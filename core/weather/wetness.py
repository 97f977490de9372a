"""Leaf wetness by the hour, by three estimators that differ two- to threefold: the user sees which one speaks.

Mown turf is also wet by guttation, so that all of them run low. Hours with rain are wet by each. Below freezing what would
wet a leaf is ice on it: such hours are frost, told apart, and no hours of wetness to a disease; a person who waits for a dry
leaf waits for them too.

Sources
-------
Humidity: Sentelhas PC et al. (2008) Agric For Meteorol 148:392-400; the threshold is site-dependent, 90 % here.
Dew-point depression: Gillespie TJ, Srivastava B, Pitblado RE (1993) J Appl Meteorol 32:567-573; on below 2.0 °C, off from
3.8 °C (from memory, medium).
Tree: Gleason ML et al. (1994) Plant Dis 78:1011-1016, coefficients as in Kim KS et al. (2002) Plant Dis 86:179-185 (from
memory, medium).
Frost: water on a leaf freezes below 0 °C of the air (ours; a leaf under a clear sky is colder still, so that hours are few).
Calm: under half a metre a second, a knot, the wind of WMO-No. 306 code 00 (from memory); cups stand still.
"""

from collections.abc import Callable
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from core.weather.hours import Hours
from core.weather.moisture import dew_point

Floats = NDArray[np.float64]

HUMID = 90.0
ON_BELOW, OFF_FROM = 2.0, 3.8
FREEZING, CALM = 0.0, 0.5
"""Air below which a wet leaf is a frosted one [°C]; wind below which an hour is calm [m/s]."""
TREE_DRY, TREE_WIND, TREE_HUMID = 3.7, 2.5, 87.8


class Wetness(StrEnum):
    """An estimator of leaf wetness."""

    HUMIDITY = "humidity"
    DEPRESSION = "depression"
    TREE = "tree"

    @property
    def text(self) -> str:
        return {
            "humidity": "hours at 90 % humidity and more",
            "depression": "dew-point depression with a memory",
            "tree": "classification tree of temperature, humidity and wind",
        }[self.value]

    @property
    def short(self) -> str:
        return {"humidity": "by humidity", "depression": "by dew point", "tree": "by the tree"}[self.value]


def wet_hours(found: Hours, by: Wetness = Wetness.HUMIDITY) -> Floats:
    """Which hours are wet: 1 or 0, NaN where it cannot be told."""
    wet = _ESTIMATORS[by](found)
    return np.where(np.nan_to_num(found.rain) > 0, 1.0, wet)


def leaf(found: Hours, estimate: Floats) -> Floats:
    """Wetness by the hour [share]: as measured, and where nothing was, as estimated.

    Args:
        found: what it is taken from.
        estimate: of wet share by hour [1].
    """
    return np.where(np.isnan(found.wet), estimate, found.wet)


def dew_of(found: Hours) -> Floats:
    """The dew point by the hour [°C]: as measured where the station gives it, else by humidity."""
    return np.where(np.isnan(found.dew), dew_point(found.air, found.humidity), found.dew)


def depression(found: Hours) -> Floats:
    """How far the air is above its dew point [K]."""
    return np.maximum(0.0, found.air - dew_of(found))


def frost(found: Hours, wet: Floats) -> Floats:
    """Which hours have ice on the leaf: 1 or 0, NaN where it cannot be told. Below freezing, and wet but for that.

    Args:
        found: the hours.
        wet: leaf wetness by the hour [share]; where it cannot be told, the dew-point depression tells.
    """
    near = depression(found)
    iced = np.where(np.isnan(wet), np.where(np.isnan(near), np.nan, (near < ON_BELOW).astype(float)), (wet >= 0.5).astype(float))
    return np.where(np.isnan(found.air), np.nan, np.where(found.air < FREEZING, iced, 0.0))


def liquid(found: Hours, wet: Floats) -> Floats:
    """Leaf wetness by the hour without frost [share]: below freezing a leaf is not wet.

    Args:
        found: the hours.
        wet: leaf wetness by the hour [share].
    """
    return np.where(found.air < FREEZING, 0.0, wet)


def by_humidity(found: Hours) -> Floats:
    """Wet at 90 % humidity and more."""
    return np.where(np.isnan(found.humidity), np.nan, (found.humidity >= HUMID).astype(float))


def by_depression(found: Hours) -> Floats:
    """Wet from a depression below 2.0 °C until it reaches 3.8 °C; between the two it stays as it was."""
    near = depression(found)
    decided = np.where(near < ON_BELOW, 1.0, np.where(near >= OFF_FROM, 0.0, np.nan))
    known = ~np.isnan(decided)
    last = np.maximum.accumulate(np.where(known, np.arange(len(decided)), -1))
    held = np.where(last >= 0, decided[np.maximum(last, 0)], 0.0)
    return np.where(np.isnan(near), np.nan, held)


def by_tree(found: Hours) -> Floats:
    """The tree asks for wind; without it nothing is told. Below freezing its roots of temperature do not hold."""
    t, rh, wind = found.air, found.humidity, found.wind
    near = depression(found)
    with np.errstate(invalid="ignore"):
        root = np.sqrt(np.where(t >= 0, t, np.nan))
        calm = 1.6064 * root + 0.0036 * t**2 + 0.1531 * rh - 0.4599 * wind * near - 0.0035 * t * rh > 14.4674
        windy = 0.7921 * root + 0.0046 * rh**2 - 2.3889 * wind - 0.0390 * t * wind + 1.0613 * wind * near > 37.0
        wet = np.where(wind < TREE_WIND, calm, (rh >= TREE_HUMID) & windy)
        dry = near >= TREE_DRY
    found_wet = np.where(dry, 0.0, wet.astype(float))
    unknown = np.isnan(near) | np.isnan(wind) | (np.isnan(root) & ~dry)
    return np.where(unknown, np.nan, found_wet)


_ESTIMATORS: dict[Wetness, Callable[[Hours], Floats]] = {
    Wetness.HUMIDITY: by_humidity,
    Wetness.DEPRESSION: by_depression,
    Wetness.TREE: by_tree,
}
