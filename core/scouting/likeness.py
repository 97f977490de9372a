"""What makes two photographs of a spot hard to compare: light, mowing and the hour outweigh a treatment.

Common practice, no source; that light outweighs treatments is shown by the index itself (see `colour`).
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from core.days import so_many

HOURS_APART = 2.0
"""Hours between times of day from which the sun stands otherwise (ours)."""


class Light(StrEnum):
    """The light that a picture was taken in."""

    SUN = "sun"
    CLOUD = "cloud"
    SHADE = "shade"

    @property
    def text(self) -> str:
        return {"sun": "Sun", "cloud": "Cloud", "shade": "Shade"}[self.value]


class Mown(StrEnum):
    """How the grass stood when a picture was taken."""

    FRESH = "fresh"
    GROWN = "grown"

    @property
    def text(self) -> str:
        return {"fresh": "Just mown", "grown": "Not mown for a day or more"}[self.value]


@dataclass(frozen=True)
class Shot:
    """How a picture was taken: when, on the ground's own clock; light and mowing where they were noted."""

    taken: datetime
    spot: int | None = None
    light: Light | None = None
    mown: Mown | None = None


def between(a: Shot, b: Shot) -> str:
    """How far apart two pictures were taken."""
    return so_many(abs((b.taken.date() - a.taken.date()).days))


def doubts(a: Shot, b: Shot) -> list[str]:
    """What makes two pictures hard to compare, a sentence each."""
    found = []
    if a.spot is None or a.spot != b.spot:
        found.append("They are not of one fixed spot.")
    if a.light and b.light and a.light is not b.light:
        found.append(f"{a.light.text} then, {b.light.text.lower()} now: colours do not compare.")
    elif not (a.light and b.light):
        found.append("The light of one of them was not noted.")
    if a.mown and b.mown and a.mown is not b.mown:
        found.append("Mown short in one and grown in the other: cut grass looks paler and thinner.")
    elif not (a.mown and b.mown):
        found.append("Whether it was just mown was not noted for one of them.")
    if _apart(a.taken, b.taken) > timedelta(hours=HOURS_APART):
        found.append(f"Taken at {a.taken:%H:%M} and at {b.taken:%H:%M}: the sun stood otherwise.")
    return found


def _apart(a: datetime, b: datetime) -> timedelta:
    """How far two times of day lie apart."""
    gap = abs(timedelta(hours=a.hour, minutes=a.minute) - timedelta(hours=b.hour, minutes=b.minute))
    return min(gap, timedelta(hours=24) - gap)
