"""The day at the ground."""

from datetime import date, datetime
from zoneinfo import ZoneInfo

from django.utils import timezone

from greenmeasure.accounts.models import Club


def local_day(club: Club, at: datetime) -> date:
    """The calendar day at the ground."""
    return at.astimezone(ZoneInfo(club.time_zone)).date()


def today(club: Club) -> date:
    """Today's calendar day at the ground."""
    return local_day(club, timezone.now())
