"""Keeping hours: what comes in is checked, what cannot be is set aside by its hour, and the rest is written all or not at all."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime

from django.db import transaction

from core.weather.hours import FIELDS, Hour, believable
from greenmeasure.sky.models import Aside, Foretold, Quality, Reading, Station

BATCH = 2000


@dataclass(frozen=True)
class Kept:
    """How many hours came, how many of them were new, and how many values were set aside."""

    hours: int
    new: int
    aside: int


def keep_hours(station: Station, hours: Iterable[Hour], source: str) -> Kept:
    """Keep measured hours. An hour told again overwrites what it tells, and leaves what it does not.

    Running it twice changes nothing the second time.
    """
    by_hour: dict[datetime, Hour] = {}
    for hour in hours:
        by_hour[hour.at.replace(minute=0, second=0, microsecond=0)] = hour
    if not by_hour:
        return Kept(0, 0, 0)
    aside: list[Aside] = []
    clean = {at: _clean(station, at, hour, source, aside) for at, hour in by_hour.items()}
    with transaction.atomic():
        span = (min(clean), max(clean))
        held = {r.at: r for r in station.readings.filter(at__range=span)}
        new = [
            Reading(station=station, at=at, source=source, quality=quality, **values)
            for at, (values, quality) in clean.items()
            if at not in held
        ]
        changed = [r for at, r in held.items() if at in clean and _overwrite(r, *clean[at], source)]
        Reading.objects.bulk_create(new, BATCH)
        for row in changed:
            row.pk = None  # written over the one of its hour, which is many times faster than a bulk update
        Reading.objects.bulk_create(
            changed, BATCH, update_conflicts=True, unique_fields=["station", "at"], update_fields=[*FIELDS, "source", "quality"]
        )
        Aside.objects.bulk_create(aside, BATCH, ignore_conflicts=True)
        if new or changed or aside:
            station.renew()
    return Kept(len(by_hour), len(new), len(aside))


def keep_forecast(station: Station, issued: datetime, hours: Sequence[Hour]) -> int:
    """Put a forecast in the place of the one before; what was measured is not touched. Gives its hours.

    One without hours is no forecast: the one before stays.
    """
    if not hours:
        return 0
    by_hour: dict[datetime, Foretold] = {}
    for hour in hours:
        at = hour.at.replace(minute=0, second=0, microsecond=0)
        values = {n: v for n in FIELDS if (v := getattr(hour, n)) is not None and not believable(n, v)}
        by_hour[at] = Foretold(station=station, at=at, issued=issued, **values)
    with transaction.atomic():
        station.foretold.all().delete()
        Foretold.objects.bulk_create(by_hour.values(), BATCH)
        station.renew()
    return len(by_hour)


def _clean(station: Station, at: datetime, hour: Hour, source: str, aside: list[Aside]) -> tuple[dict[str, float], str]:
    values: dict[str, float] = {}
    quality = Quality.WHOLE
    for name in FIELDS:
        value = getattr(hour, name)
        if value is None:
            continue
        if problem := believable(name, value):
            aside.append(Aside(station=station, at=at, field=name, value=f"{value:g}", problem=problem, source=source))
            quality = Quality.PARTLY
        else:
            values[name] = value
    return values, quality


def _overwrite(held: Reading, values: dict[str, float], quality: str, source: str) -> bool:
    """Write what an hour tells into the one held; gives whether anything changed."""
    fresh = {n: v for n, v in values.items() if getattr(held, n) != v}
    if not fresh:
        return False
    for name, value in fresh.items():
        setattr(held, name, value)
    held.source, held.quality = source, quality
    return True
