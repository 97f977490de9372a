"""Where a regulator stands on an area, by the clock and by the calendar, and what to mind: height, ramp, stress, yellowing.

The cautions are common practice, no source. Yellowing is expected from about day 3 to day 10 after a regulator, sooner and
deeper in heat and after a first full dose (rule of thumb, low).
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from core.days import day
from core.ground import Ground, Stress
from core.growth.clock import Target, Trust, target_of

NONE: Mapping[str, Target] = {}

GREEN_HEIGHT = 0.0125
"""Height of cut [m] up to which the targets of greens are taken to hold (ours; about half an inch)."""
YELLOW = (3, 10)
COMMON = 20.0
"""A day's mean [°C] by which targets over unlike bases are compared (ours)."""


def turfs_of(ground: Ground) -> tuple[str, ...]:
    """Which targets a ground goes by, `warm`, `green` or `lawn`: two where it has grasses of both seasons, none of no turf."""
    seasons = ground.sward.seasons or {True}
    cool = "green" if ground.height is not None and ground.height.base <= GREEN_HEIGHT else "lawn"
    return () if not ground.sward.turf else tuple(cool if season else "warm" for season in sorted(seasons, reverse=True))


def target_for(actives: Sequence[str], ground: Ground, own: Mapping[str, Target] = NONE) -> Target | None:
    """The target of the first active that has one on this turf; one that was set for the ground comes before a known one.

    Where grasses of both seasons stand in it, that of the one which is held the shorter, by its days at 20 °C.
    """
    return next((t for a in actives if (t := own.get(a.lower()) or _known(a, turfs_of(ground)))), None)


def _known(active: str, turfs: Sequence[str]) -> Target | None:
    found = [t for turf in turfs if (t := target_of(active, turf))]
    return min(found, key=lambda t: t.sum / (COMMON - t.base.celsius), default=None)


@dataclass(frozen=True)
class Calendar:
    """The calendar school beside the clock: the first and last day of the label's interval."""

    first: date | None
    last: date | None


def calendar(on: date, interval: tuple[int | None, int | None]) -> Calendar:
    """The days of a label's interval after an application."""
    low, high = interval
    return Calendar(on + timedelta(days=low) if low else None, on + timedelta(days=high) if high else None)


def cautions(ground: Ground, target: Target | None, on: date, today: date, earlier: int) -> list[str]:
    """What to mind of a regulator on a ground.

    Args:
        ground: where it is.
        target: the clock's, None where no degree-day target is known for it.
        on: the day of the last application.
        today: the day it is asked.
        earlier: applications of the class this season, the last one with them.
    """
    said = []
    if target is None:
        said.append("No degree-day target is known for this active on this turf: the label's days must do.")
    elif target.trust in (Trust.MEDIUM, Trust.LOW):
        said.append(f"The target is {target.trust.text}; keep your own notes of when growth comes back.")
    if "lawn" in turfs_of(ground) and target is not None:
        said.append("At lawn height clippings come back more slowly than on a green, and how much more is little studied.")
    if earlier == 1:
        said.append("It was the first of the season: its hold is weaker and shorter than that of later ones.")
    pale = [on + timedelta(days=n) for n in YELLOW]
    if pale[0] <= today <= pale[1]:
        said.append(f"A pale tinge is usual now; it grows out by about {day(pale[1])}.")
    elif today < pale[0]:
        said.append(f"A pale tinge may show from {day(pale[0])} to {day(pale[1])}.")
    if ground.stress is not Stress.NONE:
        said.append(f"{ground.name} suffers from {ground.stress.text}: leave the next one until it grows well again.")
    return said
