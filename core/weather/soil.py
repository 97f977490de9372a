"""Soil temperature: estimated from the air, and set right by what was measured.

The estimate is a running mean of the day's air, from the idea of Zheng D, Hunt ER, Running SW (1993) Climate Research
2:183-191; the rate is a rule of thumb (low). It is 2 to 3 °C out under snow, shade or dense turf, so that a measured
reading always goes before it.
"""

from collections.abc import Mapping
from itertools import accumulate

import numpy as np
from numpy.typing import ArrayLike, NDArray

from core.weather.days import Days

Floats = NDArray[np.float64]
RATE = 0.25
FORGET = 14
"""Days over which a correction by a reading fades (ours)."""


def estimated(air: ArrayLike, rate: float = RATE) -> Floats:
    """Daily soil temperature at 5 to 10 cm [°C] from daily mean air [°C].

    It begins with the first known day; over a day that is not known it stands still, and that day has no value.

    Args:
        air: temperature by day [°C].
        rate: of following the air [1/d].
    """
    values = np.asarray(air, dtype=float)
    found, known = np.full(len(values), np.nan), ~np.isnan(values)
    if known.any():
        found[known] = list(accumulate(values[known].tolist(), lambda held, value: held + rate * (value - held)))
    return found


def corrected(estimate: ArrayLike, readings: Mapping[int, float]) -> Floats:
    """An estimate drawn to readings, by their day's number: exact on the day, fading over a fortnight on both sides.

    Between two readings the correction goes straight from one to the other.

    Args:
        estimate: to be corrected [°C].
        readings: by day [°C].
    """
    found = np.asarray(estimate, dtype=float).copy()
    days = sorted(d for d in readings if 0 <= d < len(found) and not np.isnan(found[d]))
    if not days:
        return found
    offs = [readings[d] - found[d] for d in days]
    at = [days[0] - FORGET, *days, days[-1] + FORGET]
    found += np.interp(np.arange(len(found)), at, [0.0, *offs, 0.0])
    return found


def of_days(days: Days) -> Floats:
    """Daily soil temperature [°C]: estimated from the air, drawn to what was measured; exact on a measured day."""
    measured = {int(d): float(days.soil[d]) for d in np.flatnonzero(~np.isnan(days.soil))}
    return corrected(estimated(days.air), measured)
