"""How each turn of a programme's steps stands: done, skipped, late, due, coming, later, or waiting for its day."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum

from core.days import day
from core.season.steps import Turn

SOON = 14
"""Days before its first day from which a turn is told as coming (ours)."""
EARLY = 10
"""Days before its first day within which what goes down counts as a turn (ours)."""


class Stand(StrEnum):
    """How a turn stands."""

    LATE = "late"
    DUE = "due"
    COMING = "coming"
    LATER = "later"
    WAITING = "waiting"
    DONE = "done"
    SKIPPED = "skipped"

    @property
    def acts(self) -> bool:
        """Whether it asks for something now or soon."""
        return self in (Stand.LATE, Stand.DUE, Stand.COMING)


@dataclass(frozen=True)
class Kept:
    """What somebody set for a turn: another first day, or that it is skipped, and why."""

    on: date | None = None
    skipped: bool = False
    why: str = ""


@dataclass(frozen=True)
class Standing:
    """A turn with how it stands; `done` is the day it was done on."""

    turn: Turn
    stand: Stand
    done: date | None = None
    kept: Kept | None = None


def moved(turn: Turn, kept: Kept | None) -> Turn:
    """A turn as somebody set it: to another first day, with the days that it had."""
    if kept is None or kept.on is None:
        return turn
    long = turn.end - turn.begin if turn.begin and turn.end else timedelta(days=7)
    was = f" It was due from {day(turn.begin)}." if turn.begin else ""
    return replace(turn, begin=kept.on, end=kept.on + long, why=f"Moved to {day(kept.on)}.{was}")


def standings(turns: Sequence[Turn], kept: Mapping[int, Kept], done: Collection[date], today: date) -> list[Standing]:
    """How a step's turns on a ground stand.

    Each application counts for one turn: for an open one whose days it falls in, else for the last that it is late for, else
    for the next, where it is near.

    Args:
        turns: in order.
        kept: what was set, by a turn's number.
        done: days on which what the step means went down.
        today: on the ground.
    """
    set_ = [moved(t, kept.get(t.number)) for t in turns]
    by_turn = _matched([t for t in set_ if not (k := kept.get(t.number)) or not k.skipped], sorted(set(done)))
    found = []
    for t in set_:
        k = kept.get(t.number)
        on = by_turn.get(t.number)
        if on is not None:
            found.append(Standing(t, Stand.DONE, on, k))
        elif k is not None and k.skipped:
            found.append(Standing(t, Stand.SKIPPED, None, k))
        else:
            found.append(Standing(t, _stand(t, today), None, k))
    return found


def _stand(t: Turn, today: date) -> Stand:
    if t.begin is None or t.end is None:
        return Stand.WAITING
    if today > t.end:
        return Stand.LATE
    if today >= t.begin:
        return Stand.DUE
    return Stand.COMING if (t.begin - today).days <= SOON else Stand.LATER


def _matched(turns: Sequence[Turn], days: Sequence[date]) -> dict[int, date]:
    """The day each turn was done on, by its number."""
    fixed = sorted((t for t in turns if t.begin is not None), key=lambda t: t.begin or date.min)
    found: dict[int, date] = {}
    for on in days:
        open_ = [t for t in fixed if t.number not in found and t.begin and t.end]
        within = [t for t in open_ if t.begin and t.end and t.begin <= on <= t.end]
        late = [t for t in open_ if t.end and t.end < on]
        early = [t for t in open_ if t.begin and t.begin - timedelta(days=_early(fixed, t)) <= on < t.begin]
        if best := within[:1] or late[-1:] or early[:1]:
            found[best[0].number] = on
    return found


def _early(fixed: Sequence[Turn], turn: Turn) -> int:
    """How many days before it something counts as a turn: never nearer to the one before than to it."""
    before = [t for t in fixed if t.begin and turn.begin and t.begin < turn.begin]
    if not before or turn.begin is None or before[-1].begin is None:
        return EARLY
    return min(EARLY, (turn.begin - before[-1].begin).days // 2)
