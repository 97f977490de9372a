"""Weather by the hour: a table without holes in its hours, where what is not known is NaN.

Times are UTC. What no air or ground can be is set aside and listed, never mended; of two readings for one hour the later
one counts. Short gaps are filled only when `filled` is asked to.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime

import numpy as np
from numpy.typing import NDArray

from core.errors import InputError
from core.spans import spans
from core.weather.moisture import humidity_of

Floats = NDArray[np.float64]
HOUR = np.timedelta64(1, "h")
MOST_HOURS = 60 * 366 * 24
FIELDS = ("air", "humidity", "rain", "wind", "wet", "soil", "snow", "dew")

ABOVE_AIR = 1.0
"""How far above the air a dew point may be read [K], for two sensors do not agree (ours)."""
DRIEST = 1.0
"""Humidity of air [%] below which days take an hour for not known: it is a fraction, or no reading (ours)."""
LIMITS: Mapping[str, tuple[float, float]] = {
    "air": (-60.0, 60.0),
    "humidity": (0.0, 100.0),
    "rain": (0.0, 305.0),
    "wind": (0.0, 60.0),
    "wet": (0.0, 1.0),
    "soil": (-30.0, 60.0),
    "snow": (0.0, 600.0),
    "dew": (-60.0, 40.0),
}
"""What is believed of an hour: air and soil [°C], humidity [%], rain [mm], wind [m/s], wet [share], snow lying [cm],
dew point [°C]."""


@dataclass(frozen=True)
class Hour:
    """One reading: the hour it begins (UTC, aware) and what was measured, None where nothing was."""

    at: datetime
    air: float | None = None
    humidity: float | None = None
    rain: float | None = None
    wind: float | None = None
    wet: float | None = None
    soil: float | None = None
    snow: float | None = None
    dew: float | None = None
    forecast: bool = False


@dataclass(frozen=True)
class SetAside:
    """A value that cannot be, and where it stood."""

    at: datetime
    field: str
    value: float
    problem: str


@dataclass(frozen=True)
class Hours:
    """Hours one after the other from `start` (datetime64[h], UTC).

    `air` and `soil` [°C], `humidity` [%], `rain` [mm], `wind` [m/s], `wet` [share of the hour, measured], `snow` lying [cm],
    `dew` point [°C], measured: it gives the humidity where none was; `forecast` marks hours that have not been. NaN is not known.
    """

    start: np.datetime64
    air: Floats
    humidity: Floats
    rain: Floats
    wind: Floats
    wet: Floats
    soil: Floats
    snow: Floats
    dew: Floats
    forecast: NDArray[np.bool_]
    aside: tuple[SetAside, ...] = field(default=())

    def __len__(self) -> int:
        return len(self.air)

    @property
    def times(self) -> NDArray[np.datetime64]:
        """The beginning of each hour."""
        return self.start + np.arange(len(self)) * HOUR

    @property
    def gaps(self) -> list[tuple[np.datetime64, int]]:
        """Runs of hours without air or humidity: where each begins and how long it is [h]."""
        missing = np.isnan(self.air) | np.isnan(self.humidity)
        return [(self.start + a * HOUR, b - a) for a, b in spans(missing)]

    def upto(self, count: int) -> "Hours":
        """The first `count` hours."""
        return self.between(0, count)

    def between(self, a: int, b: int) -> "Hours":
        """The hours from place `a` up to `b`, which is not among them."""
        cut = {name: getattr(self, name)[a:b] for name in (*FIELDS, "forecast")}
        return replace(self, start=self.start + a * HOUR, **cut)

    def place(self, at: datetime) -> int:
        """The place of the hour that holds a time; below 0 or past the end where the table does not reach it."""
        when = np.datetime64(at.astimezone(UTC).replace(tzinfo=None), "h")
        return int((when - self.start) / HOUR)


def unknown(start: np.datetime64, count: int) -> Hours:
    """Hours of which nothing is known.

    Args:
        start: of the first [UTC].
        count: how many [h].
    """
    return Hours(start, **{name: np.full(count, np.nan) for name in FIELDS}, forecast=np.zeros(count, dtype=bool), aside=())


def table(readings: Iterable[Hour]) -> Hours:
    """Readings in any order as a table of hours.

    Raises:
        InputError: no readings, a time without its zone, or a span too long to be weather.
    """
    by_hour: dict[datetime, Hour] = {}
    aside: list[SetAside] = []
    for reading in readings:
        if reading.at.tzinfo is None:
            raise InputError("at", reading.at.isoformat(), "The time has no zone.", "Say UTC, or the zone it was read in.")
        hour = reading.at.astimezone(UTC).replace(minute=0, second=0, microsecond=0)
        held = by_hour.get(hour)
        if held and not held.forecast and reading.forecast:
            continue  # what was measured is not overwritten by what was foretold
        by_hour[hour] = reading
    if not by_hour:
        raise InputError("hours", 0, "There is no weather yet.", "Fetch it, bring it in, or enter readings by hand.")
    first, last = min(by_hour), max(by_hour)
    count = int((last - first).total_seconds() // 3600) + 1
    if count > MOST_HOURS:
        raise InputError("hours", count, f"{count:,} hours are too many.", "Check the years of the times.")
    columns = {name: np.full(count, np.nan) for name in FIELDS}
    forecast = np.zeros(count, dtype=bool)
    for hour, reading in by_hour.items():
        i = int((hour - first).total_seconds() // 3600)
        forecast[i] = reading.forecast
        for name in FIELDS:
            columns[name][i] = _believed(hour, name, getattr(reading, name), aside)
    _moisten(columns)
    return Hours(np.datetime64(first.replace(tzinfo=None), "h"), **columns, forecast=forecast, aside=tuple(aside))


def moment(at: np.datetime64) -> datetime:
    """A time of a table as a datetime (UTC, aware)."""
    found: datetime = at.astype("datetime64[s]").astype(datetime)
    return found.replace(tzinfo=UTC)


Part = tuple[NDArray[np.datetime64], Mapping[str, Floats]]


def laid_out(start: np.datetime64, end: np.datetime64, measured: Iterable[Part], foretold: Iterable[Part] = ()) -> Hours:
    """A table from columns that have been checked already.

    Args:
        start: the first hour (datetime64[h], UTC).
        end: the hour after the last.
        measured: hours and their columns as in `Hours`; a later part's known values go before an earlier one's.
        foretold: the same of forecasts; they count only after the last measured hour, so that a hole stays a hole.
    """
    count = int((end - start) / HOUR)
    columns = {name: np.full(count, np.nan) for name in FIELDS}
    last = 0
    for times, given in measured:
        last = max(last, _lay(columns, times, given, start, 0, count))
    for times, given in foretold:
        _lay(columns, times, given, start, last, count)
    _moisten(columns)
    return Hours(start, **columns, forecast=np.arange(count) >= last, aside=())


def _moisten(columns: dict[str, Floats]) -> None:
    """The humidity by the dew point, where a station gives that alone; a dew point well above the air is not believed."""
    dew = columns["dew"]
    dew[dew > columns["air"] + ABOVE_AIR] = np.nan
    missing = np.isnan(columns["humidity"]) & ~np.isnan(dew)
    columns["humidity"][missing] = humidity_of(columns["air"][missing], dew[missing])


def _lay(
    columns: dict[str, Floats], times: NDArray[np.datetime64], given: Mapping[str, Floats], start: np.datetime64, a: int, b: int
) -> int:
    """Write a part's known values into places `a` to `b`; gives the place after its last hour there."""
    at = ((times - start) / HOUR).astype(np.int64)
    inside = (at >= a) & (at < b)
    for name, values in given.items():
        known = inside & ~np.isnan(values)
        columns[name][at[known]] = values[known]
    return int(at[inside].max()) + 1 if inside.any() else a


def believable(name: str, value: float) -> str:
    """What is wrong with a value of a field; empty where it can be.

    Args:
        name: of the field.
        value: of a field [the unit of `Hours`].
    """
    low, high = LIMITS[name]
    return "" if low <= value <= high else f"{name} of {value:g} is not between {low:g} and {high:g}"


def _believed(at: datetime, name: str, value: float | None, aside: list[SetAside]) -> float:
    if value is None or np.isnan(value):
        return np.nan
    problem = believable(name, value)
    if not problem:
        return value
    aside.append(SetAside(at, name, value, problem))
    return np.nan


def filled(found: Hours, most: int = 3) -> tuple[Hours, int]:
    """The table with gaps of up to `most` hours in air, humidity, wind and soil read straight between their neighbours.

    Rain and wetness are never filled. Gives how many hours were filled, so that it can be said.
    """
    changed, touched = {}, np.zeros(len(found), dtype=bool)
    for name in ("air", "humidity", "wind", "soil"):
        column = getattr(found, name).copy()
        for a, b in spans(np.isnan(column)):
            if a > 0 and b < len(column) and b - a <= most:
                column[a:b] = np.interp(np.arange(a, b), [a - 1, b], [column[a - 1], column[b]])
                touched[a:b] = True
        changed[name] = column
    return replace(found, **changed), int(touched.sum())
