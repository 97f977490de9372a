"""What people read by hand: a rain gauge, a soil thermometer, a leaf that is wet or dry; set into the hours of a station.

A gauge's total stands for the whole of its local day: the station's own rain of that day is scaled to it, and where the
station had none, all of it falls in the day's last hour, for nobody knows when it fell.
"""

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime

import numpy as np
from numpy.typing import NDArray

from core.weather.hours import Hours


def with_gauge(found: Hours, number: NDArray[np.int64], totals: Mapping[int, float]) -> Hours:
    """Hours whose rain is that of the gauge on the days it was read.

    Args:
        found: the hours.
        number: the day of each, from 0.
        totals: rain by the day's number [mm].
    """
    rain = found.rain.copy()
    for day, total in totals.items():
        at = np.flatnonzero(number == day)
        if not len(at):
            continue
        here = np.nan_to_num(rain[at])
        if here.sum() > 0:
            rain[at] = here * (total / here.sum())
        else:
            rain[at] = 0.0
            rain[at[-1]] = total
    return replace(found, rain=rain)


def with_spots(found: Hours, readings: Mapping[datetime, tuple[str, float]]) -> Hours:
    """Hours with spot readings set in: `soil` [°C], `wet` [share] or `snow` [cm] of the hour that holds a time."""
    columns = {name: getattr(found, name).copy() for name in ("soil", "wet", "snow")}
    for at, (name, value) in readings.items():
        i = found.place(at)
        if 0 <= i < len(found):
            columns[name][i] = value
    return replace(found, **columns)


def with_offset(found: Hours, offset: float) -> Hours:
    """Hours whose humidity [%] is raised by a stated offset, as for a canopy that is moister than an airport.

    The dew point that was measured is that of the station: where it is corrected, the humidity gives it.

    Args:
        found: what it is taken from.
        offset: added to the humidity [%].
    """
    if not offset:
        return found
    return replace(found, humidity=np.clip(found.humidity + offset, 0.0, 100.0), dew=np.full(len(found), np.nan))
