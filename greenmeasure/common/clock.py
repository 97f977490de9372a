"""The time, and the day at the ground.

`GREENMEASURE_CLOCK` sets the clock for demonstrations and pictures: it begins at that time when the process starts, and
runs on from there.
"""

from datetime import UTC, date, datetime, timedelta
from typing import Protocol
from zoneinfo import ZoneInfo

from django.conf import settings
from django.utils import timezone


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


def today(where: Placed) -> date:
    """Today's calendar day there."""
    return local_day(where, now())
