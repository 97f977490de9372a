"""Days in words."""

from datetime import date, datetime, tzinfo


def day(on: date) -> str:
    """A day as one says it: 9 June."""
    return f"{on.day} {on:%B}"


def so_many(days: int) -> str:
    """A number of days as one says it: 1 day, 14 days."""
    return f"{days} day" if days == 1 else f"{days} days"


def dated(on: date) -> str:
    """A day with its weekday and year, as a record has it: Tue 4 Aug 2026."""
    return f"{on:%a} {on.day} {on:%b %Y}"


def clock(at: datetime, zone: tzinfo) -> str:
    """A time at the ground, to the minute: Tue 4 Aug, 14:30."""
    local = at.astimezone(zone)
    return f"{local:%a} {local.day} {local:%b}, {local:%H:%M}"
