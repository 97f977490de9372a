"""Days in words."""

from datetime import date


def day(on: date) -> str:
    """A day as one says it: 9 June."""
    return f"{on.day} {on:%B}"
