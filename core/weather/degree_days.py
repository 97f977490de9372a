"""Growing degree days of a day by three ways; a sum carries its base, its unit and its way.

Sources
-------
Average and modified: McMaster GS, Wilhelm WW (1997) Agric For Meteorol 87:291-300; the two readings of the formula differ.
Sine: Baskerville GL, Emin P (1969) Ecology 50:514-517.
"""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import ArrayLike, NDArray

from core.errors import InputError

Floats = NDArray[np.float64]


class Way(StrEnum):
    """How a day's degree days are reckoned from its extremes."""

    AVERAGE = "average"
    MODIFIED = "modified"
    SINE = "sine"

    @property
    def text(self) -> str:
        return {
            "average": "mean of the extremes",
            "modified": "extremes held between base and top",
            "sine": "a sine through them",
        }[self.value]


@dataclass(frozen=True)
class Base:
    """What a sum of degree days hangs on: its base [°C], its way, and for the modified way the top [°C]."""

    celsius: float = 0.0
    way: Way = Way.AVERAGE
    top: float = 30.0

    def __post_init__(self) -> None:
        if not -10 <= self.celsius <= 30:
            raise InputError("base", self.celsius, f"{self.celsius:g} °C is no base of degree days.", "Take 0, 5 or 10 °C.")
        if self.way is Way.MODIFIED and self.top <= self.celsius:
            raise InputError("top", self.top, "The top is not above the base.", "30 °C (86 °F) is usual.")


def degree_days(high: ArrayLike, low: ArrayLike, base: Base = Base()) -> Floats:
    """The degree days of each day [°C·d].

    Args:
        high: the day's highest temperature [°C].
        low: its lowest [°C].
        base: the base and the way.

    Returns:
        [°C·d]; NaN where an extreme is not known or the lowest is above the highest.
    """
    top, bottom = np.broadcast_arrays(np.asarray(high, dtype=float), np.asarray(low, dtype=float))
    found = _WAYS[base.way](top, bottom, base)
    with np.errstate(invalid="ignore"):
        return np.where(np.isnan(top) | np.isnan(bottom) | (bottom > top), np.nan, found)


def _average(high: Floats, low: Floats, base: Base) -> Floats:
    return np.maximum(0.0, (high + low) / 2 - base.celsius)


def _modified(high: Floats, low: Floats, base: Base) -> Floats:
    return (np.clip(high, base.celsius, base.top) + np.clip(low, base.celsius, base.top)) / 2 - base.celsius


def _sine(high: Floats, low: Floats, base: Base) -> Floats:
    middle, reach, b = (high + low) / 2, (high - low) / 2, base.celsius
    with np.errstate(divide="ignore", invalid="ignore"):
        theta = np.arcsin(np.clip((b - middle) / reach, -1, 1))
        part = ((middle - b) * (np.pi / 2 - theta) + reach * np.cos(theta)) / np.pi
    return np.where(low >= b, middle - b, np.where(high <= b, 0.0, part))


_WAYS = {Way.AVERAGE: _average, Way.MODIFIED: _modified, Way.SINE: _sine}
