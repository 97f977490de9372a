"""Weather out of a table of text: which column is what, in which unit, and line by line what is wrong with it.

Nothing is taken from a table with a fault that speaks of the whole of it: a humidity that is a fraction, Fahrenheit in a
column said to be Celsius, days and months swapped, an end that was cut off. A single line that cannot be read, or a single
value that cannot be, is listed and left out where the reader agrees.
"""

import csv
import io
import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

from core.errors import InputError
from core.weather.hours import FIELDS, Hour, believable
from core.zones import zone as zone_named

MOST_LINES = 400_000
SHOWN = 200
"""How many faults are told; the rest are counted."""

UNITS: Mapping[str, Mapping[str, Callable[[float], float]]] = {
    "air": {"degC": lambda v: v, "degF": lambda v: (v - 32) / 1.8, "K": lambda v: v - 273.15},
    "soil": {"degC": lambda v: v, "degF": lambda v: (v - 32) / 1.8, "K": lambda v: v - 273.15},
    "humidity": {"%": lambda v: v, "fraction": lambda v: v * 100},
    "rain": {"mm": lambda v: v, "in": lambda v: v * 25.4, "cm": lambda v: v * 10},
    "wind": {"m/s": lambda v: v, "mph": lambda v: v * 0.44704, "km/h": lambda v: v / 3.6, "kt": lambda v: v * 1852 / 3600},
    "wet": {"share": lambda v: v, "min": lambda v: v / 60, "%": lambda v: v / 100},
    "dew": {"degC": lambda v: v, "degF": lambda v: (v - 32) / 1.8, "K": lambda v: v - 273.15},
    "snow": {"cm": lambda v: v, "in": lambda v: v * 2.54, "mm": lambda v: v / 10, "m": lambda v: v * 100},
}
"""The units a column may be in, each turned into the table's own."""

NAMES: Mapping[str, tuple[str, ...]] = {
    "time": ("time", "date", "datetime", "timestamp", "valid", "hour"),
    "air": ("air", "temp", "temperature", "tair", "t2m", "dry bulb", "tmpc", "tmpf"),
    "humidity": ("humidity", "rh", "relh", "humid"),
    "rain": ("rain", "precip", "precipitation", "rainfall", "p01m"),
    "wind": ("wind", "wind speed", "windspeed", "wind_speed", "sknt"),
    "wet": ("wet", "leaf wetness", "wetness", "leafwet"),
    "soil": ("soil", "soil temperature", "tsoil", "soil_temp"),
    "snow": ("snow", "snow depth", "snowdepth"),
    "dew": ("dew", "dew point", "dewpoint", "dewp", "dwpc", "dwpf"),
}
"""What columns are called, the likeliest first."""

UNIT_MARKS: Mapping[str, tuple[str, ...]] = {
    "degF": ("degf", "_f", "(f)", "fahrenheit", "tmpf", "dwpf"),
    "degC": ("degc", "_c", "(c)", "celsius", "tmpc", "dwpc"),
    "K": ("kelvin", "_k"),
    "mph": ("mph",),
    "km/h": ("km/h", "kmh", "kph"),
    "kt": ("kt", "knot"),
    "m/s": ("m/s", "ms"),
    "in": ("inch", "(in)", "_in"),
    "mm": ("mm",),
    "cm": ("cm",),
    "m": ("(m)",),
    "%": ("%", "percent", "pct"),
    "fraction": ("fraction",),
    "min": ("min",),
    "share": ("share",),
}
"""What a heading shows its unit by."""

MISSING = frozenset({"", "na", "nan", "null", "none", "m", "-", "--", "9999", "-9999", "-999", "-99"})


@dataclass(frozen=True)
class Column:
    """Which column of the table holds a field, and in which unit."""

    name: str
    unit: str


@dataclass(frozen=True)
class Mapped:
    """How a table is read.

    `columns` by field; `time` the column of the time and `zone` the clock it keeps where it names none; `day_first` whether
    12/06 is a day in June; `shift` hours from a time to the beginning of its hour, −1 where the end is written.
    """

    time: str
    zone: str
    columns: Mapping[str, Column]
    day_first: bool = False
    shift: int = 0


@dataclass(frozen=True)
class Fault:
    """What is wrong in a line (1 is the first line of the file, 0 the whole), in which column, with what value."""

    line: int
    column: str
    value: str
    problem: str


@dataclass
class Taken:
    """What a table came to: hours that can be kept, faults of lines, and what speaks against the whole of it."""

    hours: list[Hour] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    against: list[Fault] = field(default_factory=list)
    lines: int = 0

    @property
    def refused(self) -> bool:
        return bool(self.against) or not self.hours


def rows_of(text: str) -> tuple[list[str], list[list[str]], bool]:
    """A table's heading, its lines, and whether the last line ends as it should.

    Raises:
        InputError: no table, no heading, no lines, or too many.
    """
    sample = text[:4000]
    try:
        dialect: type[csv.Dialect] | csv.Dialect = csv.Sniffer().sniff(sample, delimiters=",;\t")
    except csv.Error:
        dialect = csv.excel
    lines = csv.reader(io.StringIO(text.lstrip("\ufeff"), newline=None), dialect)
    try:
        found = [row for row in lines if row]
    except csv.Error as wrong:
        raise InputError("file", "", f"Line {lines.line_num} is no line of a table: {wrong}.", "Pick a .csv file.") from None
    if len(found) < 2:
        raise InputError("file", len(found), "The file has no lines below its heading.", "A heading and a line for each hour.")
    if len(found) > MOST_LINES:
        raise InputError("file", len(found), f"{len(found):,} lines are too many.", f"{MOST_LINES:,} at the most; split it.")
    return [h.strip() for h in found[0]], found[1:], text.endswith(("\n", "\r"))


def guess(heading: Sequence[str], zone: str) -> Mapped:
    """How a table may be read, by its heading; to be looked over by a person."""
    columns: dict[str, Column] = {}
    for name in FIELDS:
        hit = _find(heading, NAMES[name], taken={c.name for c in columns.values()})
        if hit:
            columns[name] = Column(hit, _unit_in(hit, name))
    time = _find(heading, NAMES["time"], taken=set()) or heading[0]
    ends_in_z = bool(re.search(r"utc|gmt|\bz\b", time, re.IGNORECASE))
    return Mapped(time, "UTC" if ends_in_z else zone, columns)


def _find(heading: Sequence[str], names: Sequence[str], taken: set[str]) -> str:
    def plain(text: str) -> str:
        return re.sub(r"[^a-z0-9]+", " ", text.lower()).strip()

    for name in names:
        for column in heading:
            if column not in taken and plain(column) == plain(name):
                return column
    for name in names:
        for column in heading:
            if column not in taken and plain(column).startswith(plain(name)):
                return column
    return ""


def _unit_in(column: str, name: str) -> str:
    """The unit that a heading names in it, or the first one."""
    text = column.lower().replace("°", "deg")
    for unit in UNITS[name]:
        if any(mark in text for mark in UNIT_MARKS[unit]):
            return unit
    return next(iter(UNITS[name]))


def take(text: str, mapped: Mapped) -> Taken:
    """Read a table.

    Raises:
        InputError: a column that the table has not, a unit that is none of the field's, or a zone that is none.
    """
    heading, rows, whole = rows_of(text)
    places = _places(heading, mapped)
    zone, taken = zone_named(mapped.zone, "zone"), Taken(lines=len(rows))
    width = len(heading)
    seen: dict[datetime, int] = {}
    for n, row in enumerate(rows, start=2):
        if len(row) != width:
            last = n == len(rows) + 1
            fault = Fault(n, "", ",".join(row)[:60], f"{len(row)} columns where the heading has {width}")
            (taken.against if last and not whole else taken.faults).append(fault)
            continue
        at = _time(row[places["time"]], mapped, zone)
        if at in seen:  # the hour that is passed twice when clocks go back
            at = _time(row[places["time"]], mapped, zone, fold=1)
        if at is None:
            taken.faults.append(Fault(n, mapped.time, row[places["time"]], "this is no time that can be read"))
            continue
        if at in seen:
            taken.faults.append(Fault(n, mapped.time, row[places["time"]], f"the same hour stands in line {seen[at]}"))
            continue
        seen[at] = n
        taken.hours.append(_hour(n, at, row, places, mapped, taken))
    if not whole and not taken.against:
        taken.against.append(
            Fault(len(rows) + 1, "", ",".join(rows[-1])[:60], "the last line has no end: the file may have been cut off")
        )
    taken.against += _of_the_whole(taken, mapped)
    return taken


def _places(heading: Sequence[str], mapped: Mapped) -> dict[str, int]:
    where = {"time": mapped.time, **{name: c.name for name, c in mapped.columns.items()}}
    if len(where) == 1:
        raise InputError("columns", "", "No column but the time is read.", "Say which column holds the air's temperature.")
    for name, column in where.items():
        if column not in heading:
            raise InputError(f"columns.{name}", column, f"The file has no column “{column}”.", f"It has {', '.join(heading)}.")
    for name, c in mapped.columns.items():
        if c.unit not in UNITS[name]:
            known = ", ".join(UNITS[name])
            raise InputError(f"columns.{name}.unit", c.unit, f"“{c.unit}” is no unit of {name}.", f"Use one of {known}.")
    return {name: heading.index(column) for name, column in where.items()}


FIRST_YEAR, LAST_YEAR = 1850, 2100
"""Of hours that are taken for weather."""
_FORMS = ("%Y-%m-%d %H:%M:%S", "%Y-%m-%d %H:%M", "%Y-%m-%dT%H:%M:%S", "%Y-%m-%dT%H:%M", "%Y-%m-%d %H")
_DAY_FIRST = ("%d/%m/%Y %H:%M", "%d.%m.%Y %H:%M", "%d/%m/%Y %H:%M:%S", "%d-%m-%Y %H:%M")
_MONTH_FIRST = ("%m/%d/%Y %H:%M", "%m/%d/%Y %H:%M:%S", "%m-%d-%Y %H:%M", "%m/%d/%Y %I:%M %p")


def _time(text: str, mapped: Mapped, zone: ZoneInfo, fold: int = 0) -> datetime | None:
    """The beginning of the hour a line is of, in UTC."""
    text = text.strip()
    try:
        at = datetime.fromisoformat(text)
    except ValueError:
        forms = (*_FORMS, *(_DAY_FIRST if mapped.day_first else _MONTH_FIRST))
        at = next((t for form in forms if (t := _by_form(text, form))), None)  # type: ignore[assignment]
        if at is None:
            return None
    if not FIRST_YEAR <= at.year <= LAST_YEAR:
        return None
    aware = at if at.tzinfo else at.replace(tzinfo=zone, fold=fold)
    begin = aware.astimezone(UTC) + timedelta(hours=mapped.shift)
    return begin.replace(minute=0, second=0, microsecond=0)


def _by_form(text: str, form: str) -> datetime | None:
    try:
        return datetime.strptime(text, form)
    except ValueError:
        return None


def _hour(n: int, at: datetime, row: Sequence[str], places: Mapping[str, int], mapped: Mapped, taken: Taken) -> Hour:
    values: dict[str, float] = {}
    for name, column in mapped.columns.items():
        text = row[places[name]].strip()
        if text.lower() in MISSING:
            continue
        if name == "rain" and text.upper() == "T":  # a trace
            values[name] = 0.0
            continue
        try:
            given = float(text)
        except ValueError:
            taken.faults.append(Fault(n, column.name, text, "this is no number"))
            continue
        value = UNITS[name][column.unit](given)
        problem = believable(name, value)
        if problem:
            taken.faults.append(Fault(n, column.name, text, problem))
        else:
            values[name] = value
    return replace(Hour(at), **values)  # type: ignore[arg-type]


# --- what speaks against the whole ------------------------------------------------------------------------------


def _of_the_whole(taken: Taken, mapped: Mapped) -> list[Fault]:
    found = [f for f in (_fraction(taken, mapped), _fahrenheit(taken, mapped), _swapped(taken, mapped)) if f]
    if taken.lines and len(taken.hours) < taken.lines / 2:
        found.append(Fault(0, "", f"{taken.lines - len(taken.hours)} of {taken.lines} lines", "most lines cannot be read"))
    return found


def _fraction(taken: Taken, mapped: Mapped) -> Fault | None:
    """A humidity that never gets above a few per cent is a fraction."""
    values = [h.humidity for h in taken.hours if h.humidity is not None]
    if len(values) < 3 or max(values) > 1.5:
        return None
    return Fault(
        2,
        mapped.columns["humidity"].name,
        f"{max(values):g} at the most",
        "a humidity that stays under 2 % is a fraction: choose fraction as its unit",
    )


def _fahrenheit(taken: Taken, mapped: Mapped) -> Fault | None:
    """Air that is warmer than any summer for much of the time is in Fahrenheit; colder than any winter, in Celsius."""
    column = mapped.columns.get("air")
    values = sorted(h.air for h in taken.hours if h.air is not None)
    set_aside = sum(f.column == (column.name if column else None) and "is not between" in f.problem for f in taken.faults)
    if column is None or len(values) + set_aside < 6:
        return None
    high = sum(v > 45 for v in values) + set_aside
    if column.unit == "degC" and high > 0.1 * (len(values) + set_aside):
        worst = next((f.value for f in taken.faults if f.column == column.name), None) or f"{values[-1]:g}"
        return Fault(_line_of(taken, column), column.name, worst, "the air is too hot for °C: choose °F as its unit")
    middle = values[len(values) // 2] if values else 0.0
    if column.unit == "degF" and middle < -5 and values[-1] < 8 and all(v * 1.8 + 32 < 46 for v in values):
        told = f"{values[-1] * 1.8 + 32:g} at the most"
        return Fault(2, column.name, told, "the air is too cold for °F all along: is it °C?")
    return None


def _line_of(taken: Taken, column: Column) -> int:
    return next((f.line for f in taken.faults if f.column == column.name), 2)


def _swapped(taken: Taken, mapped: Mapped) -> Fault | None:
    """Times that jump from month to month where hours should follow each other; or lines whose day cannot be a month."""
    unread = [f for f in taken.faults if f.column == mapped.time and re.match(r"\d{1,2}[/.-]\d{1,2}[/.-]\d{4}", f.value)]
    if unread:
        return Fault(unread[0].line, mapped.time, unread[0].value, "day and month are swapped: change which comes first")
    times = [h.at for h in taken.hours]
    steps = [(b - a).total_seconds() / 3600 for a, b in pairwise(times)]
    jumps = sum(s > 27 * 24 for s in steps)
    if len(steps) >= 20 and jumps >= 2 and jumps >= len(steps) / 24 * 0.4:
        at = next(i for i, s in enumerate(steps) if s > 27 * 24)
        told = "days run through the months: day and month are swapped"
        return Fault(at + 3, mapped.time, times[at + 1].isoformat()[:10], told)
    return None
