"""Weather out of files: tables as CSV, typical years as EPW or TMY3 (read by `pvlib`); first what it would come to, then kept."""

import tempfile
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from core.days import clock as hour_text
from core.errors import InputError, Refused
from core.weather.hours import FIELDS, Hour
from core.weather.intake import SHOWN, UNITS, Column, Fault, Mapped, Taken, guess, rows_of, take
from greenmeasure.accounts.models import Site
from greenmeasure.common import clock
from greenmeasure.sky.actions import station_in
from greenmeasure.sky.keeping import keep_hours
from greenmeasure.sky.station_schemas import FaultOut, FieldUnitsOut, KeptOut, MappedColumnIn, MappingIn, TakenOut
from greenmeasure.sky.words import NO_RAIN_IN_EPW, NO_RAIN_IN_TMY3, hours_in, not_yet, taken_sentence

MOST_BYTES = 40_000_000
NAMES = {
    "air": "Air",
    "humidity": "Humidity",
    "rain": "Rain",
    "wind": "Wind",
    "wet": "Leaf wetness",
    "soil": "Soil",
    "snow": "Snow",
    "dew": "Dew point",
}


@dataclass(frozen=True)
class Read:
    """A file as read: its heading, how it was mapped, and what it came to."""

    kind: str
    heading: list[str]
    mapped: Mapped
    taken: Taken
    note: str = ""


def read_file(site: Site, name: str, data: bytes, mapping: MappingIn | None, year: int | None) -> Read:
    """Read a file.

    Raises:
        InputError: too large, no text, no table, or a mapping that does not fit it.
    """
    if len(data) > MOST_BYTES:
        raise InputError("file", name, f"{name} is too large.", f"{MOST_BYTES // 1_000_000} MB at the most; split it.")
    if name.lower().endswith(".epw") or _is_tmy3(data):
        return _typical(site, name, data, year)
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise InputError("file", name, f"{name} is no text in UTF-8.", "Save it as CSV (UTF-8) and bring it again.") from None
    heading, rows, _ = rows_of(text)
    mapped = _mapped(mapping) if mapping else guess(heading, site.time_zone)
    taken = take(text, mapped) if mapped.columns else Taken(lines=len(rows))
    return Read("table", heading, mapped, taken)


def _mapped(given: MappingIn) -> Mapped:
    columns = {f: Column(c.name, c.unit) for f, c in given.columns.items() if f in FIELDS and c.name}
    if not -12 <= given.shift <= 12:
        raise InputError("shift", given.shift, f"Times are not moved by {given.shift} h.", "Between −12 and 12 h.")
    return Mapped(given.time, given.zone, columns, given.day_first, given.shift)


def _is_tmy3(data: bytes) -> bool:
    """Whether a file begins as a TMY3 file does: a station's line, then a heading with its radiation columns."""
    return b"ETR (W/m^2)" in data[:4000]


@dataclass(frozen=True)
class Typical:
    """A kind of typical year: its columns by field, and what stands in them for nothing measured.

    `ends` says that the reader leaves a stamp at the end of its hour, as both files write it.
    """

    columns: dict[str, str]
    missing: dict[str, tuple[float, ...]]
    ends: bool


EPW = Typical(
    {
        "air": "temp_air",
        "humidity": "relative_humidity",
        "dew": "temp_dew",
        "wind": "wind_speed",
        "snow": "snow_depth",
        "rain": "liquid_precipitation_depth",
    },
    {"air": (99.9,), "humidity": (999,), "dew": (99.9,), "wind": (999,), "snow": (999,), "rain": (999,)},
    ends=False,
)
"""EnergyPlus Weather, after its Auxiliary Programs (weather data dictionary); pvlib turns hours 1 to 24 to their beginnings."""
TMY3 = Typical(
    {"air": "temp_air", "humidity": "relative_humidity", "dew": "temp_dew", "wind": "wind_speed"},
    {"air": (-9900,), "humidity": (-9900,), "dew": (-9900,), "wind": (-9900,)},
    ends=True,
)
"""TMY3, after NREL/TP-581-43156, whose section on its precipitation says that it is not to be used."""
WETTEST, DRIEST = 12_000.0, 20.0
"""Rain of a year [mm] outside which a column is no rain gauge's: all noughts, or a fill value (ours)."""


def _typical(site: Site, name: str, data: bytes, year: int | None) -> Read:
    """A typical year, laid on a year that has been."""
    kind = EPW if name.lower().endswith(".epw") else TMY3
    frame = _read_typical(kind, name, data, year or clock.today(site).year - 1)
    if len(frame) < 8760:
        raise InputError("file", name, f"{name} has {len(frame):,} hours; a typical year has 8,760.", "It may have been cut off.")
    values = {f: frame[c].mask(frame[c].isin(kind.missing[f])) for f, c in kind.columns.items()}
    note = "" if "rain" in values else NO_RAIN_IN_TMY3
    if "rain" in values and not DRIEST <= values["rain"].sum() <= WETTEST:
        del values["rain"]
        note = NO_RAIN_IN_EPW
    values = {f: v for f, v in values.items() if v.notna().any()}
    times = frame.index.tz_convert("UTC").to_pydatetime()
    back = timedelta(hours=1 if kind.ends else 0)
    rows = zip(*(v.tolist() for v in values.values()), strict=True)
    hours = [
        Hour((at - back).replace(minute=0), **{f: v for f, v in zip(values, row, strict=True) if v == v})
        for at, row in zip(times, rows, strict=True)
    ]
    mapped = Mapped("", "UTC", {f: Column(kind.columns[f], TYPICAL_UNITS[f]) for f in values})
    return Read("typical", list(frame.columns), mapped, Taken(hours=hours, lines=len(frame)), note)


TYPICAL_UNITS = {"air": "degC", "humidity": "%", "dew": "degC", "wind": "m/s", "rain": "mm", "snow": "cm"}


def _read_typical(kind: Typical, name: str, data: bytes, year: int) -> Any:
    """The table of a typical year by pvlib, its times laid on a year. Raises InputError where it is none, or cut off."""
    import pandas as pd
    from pvlib import iotools

    with tempfile.NamedTemporaryFile(suffix=".csv") as held:
        held.write(data)
        held.flush()
        try:
            if kind is EPW:
                frame, _ = iotools.read_epw(held.name, coerce_year=year)
            else:
                frame, _ = iotools.read_tmy3(held.name, coerce_year=year, map_variables=True)
        except (ValueError, KeyError, IndexError, pd.errors.ParserError, UnicodeDecodeError):
            raise InputError("file", name, f"{name} cannot be read as a typical year.", "It may have been cut off.") from None
    absent = [c for c in kind.columns.values() if c not in frame]
    if absent:
        raise InputError("file", name, f"{name} has no column {absent[0]}.", "Take the file as it came from its maker.")
    return frame


# --- what it would come to, and keeping it ----------------------------------------------------------------------


def taken_out(site: Site, found: Read) -> TakenOut:
    """What a file comes to, before anything is kept."""
    taken, zone = found.taken, site.zone
    ahead = [h for h in taken.hours if h.at > clock.now()]
    against = [*taken.against, *_ahead(ahead, zone)]
    times = sorted(h.at for h in taken.hours)
    return TakenOut(
        kind="table" if found.kind == "table" else "typical",
        heading=found.heading,
        mapping=_mapping_out(found.mapped),
        fields=[FieldUnitsOut(field=f, name=NAMES[f], units=list(UNITS[f])) for f in FIELDS],
        lines=taken.lines,
        hours=len(taken.hours),
        first=hour_text(times[0], zone) if times else "",
        last=hour_text(times[-1], zone) if times else "",
        faults=[_fault_out(f) for f in taken.faults[:SHOWN]],
        more_faults=max(0, len(taken.faults) - SHOWN),
        against=[_fault_out(f) for f in against],
        refused=taken.refused or bool(ahead),
        known_already=_known(site, times),
        sentence=taken_sentence(found.taken, bool(found.mapped.columns), bool(against), found.note),
    )


def _fault_out(f: Fault) -> FaultOut:
    return FaultOut(line=f.line, column=f.column, value=f.value, problem=f.problem)


def _ahead(ahead: list[Hour], zone: ZoneInfo) -> list[Fault]:
    if not ahead:
        return []
    return [Fault(0, "", hour_text(ahead[-1].at, zone), not_yet(len(ahead)))]


def _known(site: Site, times: list[datetime]) -> int:
    if not times:
        return 0
    held = set(station_in(site).readings.filter(at__range=(times[0], times[-1])).values_list("at", flat=True))
    return sum(t in held for t in times)


def _mapping_out(m: Mapped) -> MappingIn:
    columns = {f: MappedColumnIn(name=c.name, unit=c.unit) for f, c in m.columns.items()}
    return MappingIn(time=m.time, zone=m.zone, columns=columns, day_first=m.day_first, shift=m.shift)


def keep_file(site: Site, found: Read) -> KeptOut:
    """Keep the hours of a file: all that can be, at once.

    Raises:
        Refused: something stands against the whole of it; nothing is kept.
    """
    preview = taken_out(site, found)
    if preview.refused:
        why = preview.against[0] if preview.against else None
        said = f"Line {why.line}: {why.problem}." if why and why.line else f"{why.problem}." if why else preview.sentence
        raise Refused("file", why.value if why else "", said, "Nothing was kept.")
    kept = keep_hours(station_in(site), found.taken.hours, "csv" if found.kind == "table" else "typical")
    return KeptOut(sentence=hours_in(kept.hours, kept.new), hours=kept.hours, new=kept.new, aside=kept.aside)
