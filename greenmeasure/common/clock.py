"""The time, and the day at the ground.

`GREENMEASURE_CLOCK` sets the clock for demonstrations and pictures: it begins at that time when the process starts, and
runs on from there.
"""

from datetime import UTC, date, datetime, time, timedelta
from typing import Protocol
from zoneinfo import ZoneInfo

from django.conf import settings
from django.utils import timezone

from core.errors import InputError


class Placed(Protocol):
    """What lies somewhere: a site, an area, a station; an account goes by the first of its sites."""

    @property
    def time_zone(self) -> str:
        """The name of its time zone."""


_shift = timedelta()
if settings.CLOCK:
    _set = datetime.fromisoformat(settings.CLOCK)
    _shift = (_set if _set.tzinfo else _set.replace(tzinfo=UTC)) - timezone.now()


def now() -> datetime:
    """The time (UTC)."""
    return timezone.now() + _shift


def local_day(where: Placed, at: datetime) -> date:
    """The calendar day there."""
    return at.astimezone(ZoneInfo(where.time_zone)).date()


EARLY = time(8)
"""The hour of a job on another day, where none is said."""
PAST, AHEAD = timedelta(days=30 * 366), timedelta(days=3 * 366)
"""How far a job may lie back, and ahead."""


def moment_at(where: Placed, on: date | None, hour: str = "") -> datetime:
    """The time (UTC) of a job at a place: its day there and its hour (`07:30`); now, unless either is said.

    Raises:
        InputError: an hour that is none, or a day that no job is on.
    """
    found, zone = now(), ZoneInfo(where.time_zone)
    here = found.astimezone(zone)
    if on is None and not hour.strip():
        return found
    if on is not None and not (here - PAST).date() <= on <= (here + AHEAD).date():
        raise InputError("on", str(on), f"{on} is no day for a job.", "Pick a day of these years.")
    if not hour.strip():
        return found if on == here.date() else datetime.combine(on or here.date(), EARLY, zone).astimezone(UTC)
    try:
        clock = time.fromisoformat(hour.strip())
    except ValueError:
        raise InputError("clock", hour, f"“{hour}” is no time of day.", "Write it like 07:30.") from None
    return datetime.combine(on or here.date(), clock.replace(tzinfo=None), zone).astimezone(UTC)


def today(where: Placed) -> date:
    """Today's calendar day there."""
    return local_day(where, now())
