"""Days of the ground: what the hours of a local calendar day come to.

A day is the ground's own, so that it has 23 or 25 hours when the clocks change. A daily mean is the mean of its hours; a day
with too few of them has no value.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from core.weather.hours import DRIEST, Hours, moment
from core.weather.wetness import frost, leaf, liquid

Floats = NDArray[np.float64]
ENOUGH = 0.8
"""The share of a day's hours that must be known for it to have a value (ours)."""
WEEK = 7 * 24


@dataclass(frozen=True)
class Days:
    """Local days from `first` on: means, extremes and sums of their hours, NaN where too few are known.

    `air` mean, `high` and `low` [°C]; `humidity` mean and `humidity_high` [%]; `rain` [mm]; `wind` mean [m/s]; `wet` leaf
    wetness and `frost` on the leaf [h]; `soil` mean [°C] and `snow` the most that lay [cm], as measured;
    `known` hours with air and humidity of `length`; `forecast` the share that has not been.
    """

    first: date
    air: Floats
    high: Floats
    low: Floats
    humidity: Floats
    humidity_high: Floats
    rain: Floats
    wind: Floats
    wet: Floats
    frost: Floats
    soil: Floats
    snow: Floats
    known: NDArray[np.int64]
    length: NDArray[np.int64]
    forecast: Floats

    def __len__(self) -> int:
        return len(self.air)

    def day(self, i: int) -> date:
        return self.first + timedelta(days=i)


def days_of(found: Hours, zone: ZoneInfo, number: NDArray[np.int64], first: date, wet: Floats | None = None) -> Days:
    """The days of a table of hours whose clock has been read.

    Args:
        found: the hours.
        zone: of the ground.
        number: the day of each hour, from 0.
        first: the first day.
        wet: leaf wetness by the hour [share of it], estimated; what was measured goes before it.
    """
    count = int(number[-1]) + 1
    length = np.bincount(number, minlength=count).astype(np.int64)
    for i in {0, count - 1}:  # the table may begin and end within a day
        length[i] = _length(first + timedelta(days=i), zone)
    starts = np.searchsorted(number, np.arange(count))
    moist = np.where(found.humidity < DRIEST, np.nan, found.humidity)
    both = ~np.isnan(found.air) & ~np.isnan(moist)
    known = np.bincount(number, weights=both, minlength=count).astype(np.int64)
    wetness = found.wet if wet is None else leaf(found, wet)

    def mean(values: Floats) -> Floats:
        held = ~np.isnan(values)
        n = np.bincount(number, weights=held, minlength=count)
        total = np.bincount(number, weights=np.where(held, values, 0.0), minlength=count)
        with np.errstate(invalid="ignore", divide="ignore"):
            return np.where(n >= ENOUGH * length, total / n, np.nan)

    def total(values: Floats) -> Floats:
        held = ~np.isnan(values)
        n = np.bincount(number, weights=held, minlength=count)
        return np.where(n >= ENOUGH * length, np.bincount(number, weights=np.where(held, values, 0.0), minlength=count), np.nan)

    def of_any(values: Floats, how: Callable[[NDArray[np.int64], Floats], Floats]) -> Floats:
        """What is read once or twice a day: whatever is known of the day counts."""
        held = ~np.isnan(values)
        return how(number[held], values[held]) if held.any() else np.full(count, np.nan)

    def middle(at: NDArray[np.int64], values: Floats) -> Floats:
        n = np.bincount(at, minlength=count)
        return np.where(n > 0, np.bincount(at, weights=values, minlength=count) / np.maximum(1, n), np.nan)

    def most_of(at: NDArray[np.int64], values: Floats) -> Floats:
        found_most = np.full(count, -np.inf)
        np.maximum.at(found_most, at, values)
        return np.where(np.isinf(found_most), np.nan, found_most)

    def extreme(values: Floats, sign: float) -> Floats:
        most = np.maximum.reduceat(np.where(np.isnan(values), -np.inf, sign * values), starts)
        n = np.bincount(number, weights=~np.isnan(values), minlength=count)
        return np.where(n >= ENOUGH * length, sign * most, np.nan)

    return Days(
        first,
        mean(found.air),
        extreme(found.air, 1),
        extreme(found.air, -1),
        mean(moist),
        extreme(moist, 1),
        total(found.rain),
        mean(found.wind),
        mean(liquid(found, wetness)) * length,
        mean(frost(found, wetness)) * length,
        of_any(found.soil, middle),
        of_any(found.snow, most_of),
        known,
        length,
        np.bincount(number, weights=found.forecast, minlength=count) / np.maximum(1, np.bincount(number, minlength=count)),
    )


def clock(found: Hours, zone: ZoneInfo) -> tuple[NDArray[np.int64], NDArray[np.int64], date]:
    """For each hour the number of its local day, from 0, and its hour on the local clock; and the first day's date.

    The zone is asked twice a week, and in weeks when its offset changes the hour of the change is searched for.
    """
    start = moment(found.start)

    def offset(i: int) -> float:
        return _offset(start + timedelta(hours=i), zone)

    hours = np.arange(len(found))
    offsets = np.empty(len(found))
    for a in range(0, len(found), WEEK):
        b = min(a + WEEK, len(found)) - 1
        one, other = offset(a), offset(b)
        change = b + 1 if one == other else _change(offset, a, b)
        offsets[a:change], offsets[change : b + 1] = one, other
    local = start.hour + hours + offsets
    number = np.floor(local / 24).astype(np.int64)
    return number - number[0], (local % 24).astype(np.int64), start.date() + timedelta(days=int(number[0]))


def _change(offset: Callable[[int], float], a: int, b: int) -> int:
    """The first hour after `a` whose offset is that of `b`; the offset changes once between them."""
    while b - a > 1:
        middle = (a + b) // 2
        a, b = (middle, b) if offset(middle) == offset(a) else (a, middle)
    return b


def _offset(at: datetime, zone: ZoneInfo) -> float:
    """How far the zone's clock is ahead of UTC [h]."""
    ahead = at.astimezone(zone).utcoffset()
    return ahead.total_seconds() / 3600 if ahead else 0.0


def _length(on: date, zone: ZoneInfo) -> int:
    """How many hours a local day has."""
    begin = datetime(on.year, on.month, on.day, tzinfo=zone)
    after = on + timedelta(days=1)
    end = datetime(after.year, after.month, after.day, tzinfo=zone)
    return round((end.astimezone(UTC) - begin.astimezone(UTC)).total_seconds() / 3600)
