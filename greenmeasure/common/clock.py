"""The time, and the day at the ground.

`GREENMEASURE_CLOCK` sets the clock for demonstrations and pictures: it begins at that time when the process starts, and
runs on from there.
"""

from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

from django.conf import settings
from django.utils import timezone

from greenmeasure.accounts.models import Club

_shift = timedelta()
if settings.CLOCK:
    _set = datetime.fromisoformat(settings.CLOCK)
    _shift = (_set if _set.tzinfo else _set.replace(tzinfo=UTC)) - timezone.now()


def now() -> datetime:
    """The time (UTC)."""
    return timezone.now() + _shift


def local_day(club: Club, at: datetime) -> date:
    """The calendar day at the ground."""
    return at.astimezone(ZoneInfo(club.time_zone)).date()


def today(club: Club) -> date:
    """Today's calendar day at the ground."""
    return local_day(club, now())
