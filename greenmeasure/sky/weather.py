"""The hours of a station as the core sees them: what was measured and read by hand, then what is foretold.

What is asked at every visit takes the last months; years of hours are read only where a view asks for years.
"""

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Any

import numpy as np
from django.db.models import CharField
from django.db.models.functions import Cast, Left

from core.disease.model import Weather
from core.weather.days import clock, days_of
from core.weather.hand import with_gauge, with_offset, with_spots
from core.weather.hours import FIELDS, HOUR, Hours, Part, filled, laid_out, moment
from core.weather.wetness import Wetness, wet_hours
from greenmeasure.accounts.models import Account, Site
from greenmeasure.common.kept import kept
from greenmeasure.sky.models import HandReading, Station

STALE_HOURS, STALE_FORECAST = 4.0, 12.0
"""Hours after which the latest measured hour, and a forecast, are called stale (ours)."""
RECENT = 120
"""Days that the models of every day look back."""
REACH = timedelta(hours=96)
"""No label asks for more dry hours than this before or after (ours)."""
BEFORE = timedelta(days=3)
"""What is read beyond those, so that gaps at their ends are filled as within; no gap that is filled is as long."""


@dataclass(frozen=True)
class Known:
    """What is known of a station's weather.

    `issued` is when the forecast in it was made, `filled` how many hours of short gaps were read between their neighbours.
    """

    station: Station
    weather: Weather
    issued: datetime | None
    filled: int
    last: datetime | None

    @property
    def hours(self) -> Hours:
        return self.weather.hours

    def now_at(self, at: datetime) -> int:
        """The place of the hour that is now, within the table."""
        return min(max(0, self.hours.place(at)), len(self.hours) - 1)

    def reaches(self, at: datetime) -> bool:
        """Whether the table still has the hour that is now."""
        return self.hours.place(at) < len(self.hours)

    def day_at(self, on: date) -> int:
        """The place of a local day; below 0 or past the end where the table does not reach it."""
        return (on - self.weather.days.first).days

    def forecast_age(self, at: datetime) -> float | None:
        """How old the forecast is [h]; None where there is none."""
        return None if self.issued is None else (at - self.issued) / timedelta(hours=1)

    def age(self, at: datetime) -> float | None:
        """How long ago the latest measured hour ended [h]."""
        return None if self.last is None else max(0.0, (at - self.last) / timedelta(hours=1) - 1)


def station_of(site: Site) -> Station | None:
    """A site's station, the first one where it has several."""
    found = Station.objects.filter(site=site, archived_at=None).order_by("pk").first()
    if found:
        found.site, found.account = site, site.account
    return found


@kept("sky")
def stations_of(account: Account) -> dict[int, Station]:
    """The first station of each site, by the site's id; for reading only."""
    found: dict[int, Station] = {}
    for station in Station.objects.filter(account=account, archived_at=None).select_related("site").order_by("pk"):
        station.account = account
        found.setdefault(station.site_id, station)
    return found


def known_at(site: Site) -> Known | None:
    """What is known of a site's last months of weather; None where there is no station, or nothing is."""
    station = station_of(site)
    return recent(station) if station else None


def known_of(account: Account, site_id: int) -> Known | None:
    """The same of one of many sites, all of whose stations are read at once."""
    station = stations_of(account).get(site_id)
    return recent(station) if station else None


@kept()
def whole(station: Station) -> Known | None:
    """All that is known of a station; None where nothing is."""
    return _read(station, None)


@kept()
def recent(station: Station) -> Known | None:
    """What is known of the last months and the days to come, by whole days; None where nothing is."""
    last = station.readings.order_by("-at").values_list("at", flat=True).first()
    if last is None:
        return whole(station)
    day = (last - timedelta(days=RECENT)).astimezone(station.zone).date()
    begin = datetime(day.year, day.month, day.day, tzinfo=station.zone)
    known = _read(station, begin - BEFORE)
    return known and _from_day(known, day)


def _from_day(known: Known, day: date) -> Known:
    """What is known from a local day on; all of it where it begins later."""
    first = known.day_at(day)
    if first <= 0:
        return known
    number, days = known.weather.number, known.weather.days
    begin = int(np.searchsorted(number, first))
    cut = replace(days, first=day, **{name: getattr(days, name)[first:] for name in vars(days) if name != "first"})
    hours = known.hours.between(begin, len(known.hours))
    return replace(known, weather=Weather(hours, cut, number[begin:] - first, known.weather.clock[begin:]))


@kept()
def near(station: Station, hour: datetime) -> Known | None:
    """What is known of the days around an hour, as `recent` has it, in a fraction of its rows; None where nothing is."""
    return _read(station, hour - REACH - BEFORE, hour + REACH + BEFORE)


def _read(station: Station, since: datetime | None, until: datetime | None = None) -> Known | None:
    """What is known from a time to another, or of all times, with what was read by hand set into it."""
    later = ({"at__gte": since} if since else {}) | ({"at__lt": until} if until else {})
    measured, foretold = (_part(rows.filter(**later)) for rows in (station.readings, station.foretold))
    if until and station.readings.filter(at__gte=until).exists():
        foretold = _part(station.foretold.none())  # all of it has been: what was not measured then is a hole
    times = np.concatenate([p[0] for p in (measured, foretold)])
    if not len(times):
        return None
    start = times.min()
    raw = laid_out(start, times.max() + HOUR, [measured], [foretold])
    found, count = (
        filled(with_offset(raw, station.offset), station.fill) if station.fill else (with_offset(raw, station.offset), 0)
    )
    found = _by_hand(station, found, station.by_hand.filter(**later))
    number, local, first = clock(found, station.zone)
    days = days_of(found, station.zone, number, first, wet_hours(found, Wetness(station.wetness)))
    issued = station.foretold.values_list("issued", flat=True).first()
    last = moment(measured[0].max()) if len(measured[0]) else None
    return Known(station, Weather(found, days, number, local), issued, count, last)


HOUR_OF = Left(Cast("at", CharField()), len("2026-08-05 10"))
"""An hour as the database writes it, in UTC: numpy reads thousands of them at once, rather than made datetimes one by one."""


def _part(rows: Any) -> Part:
    """Rows as times and columns."""
    found = list(rows.order_by("at").values_list(HOUR_OF, *FIELDS))
    times = np.array([r[0] for r in found], dtype="datetime64[h]")
    table = np.array([r[1:] for r in found], dtype=float).reshape(len(found), len(FIELDS))
    return times, {name: table[:, i] for i, name in enumerate(FIELDS)}


def _by_hand(station: Station, found: Hours, rows: Any) -> Hours:
    """The hours with what was read by hand set into them; of two readings the later one counts."""
    readings = list(rows.order_by("at", "pk"))
    if not readings:
        return found
    number, _, first = clock(found, station.zone)
    kinds = HandReading.Kind
    gauge = {(r.at.astimezone(station.zone).date() - first).days: r.value for r in readings if r.kind == kinds.RAIN}
    spots = {r.at: (str(r.kind), r.value) for r in readings if r.kind != kinds.RAIN}
    return with_spots(with_gauge(found, number, gauge), spots)
