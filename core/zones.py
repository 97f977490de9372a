"""Time zones by their names (IANA time zone database)."""

from functools import cache
from zoneinfo import ZoneInfo, available_timezones

from core.errors import InputError


@cache
def _zones() -> frozenset[str]:
    return frozenset(available_timezones())


def zone(name: str, field: str = "time_zone") -> ZoneInfo:
    """The time zone of this name.

    Raises:
        InputError: there is none.
    """
    if name not in _zones():
        raise InputError(field, name, f"“{name}” is not a time zone.", "Use UTC, or a name such as America/New_York.")
    return ZoneInfo(name)
