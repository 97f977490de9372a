"""How each turn of a programme's steps stands: done, skipped, missed, late, due, coming, later, or waiting for its day."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum

from core.days import day
from core.season.steps import GRACE, Turn

SOON = 14
"""Days before its first day from which a turn is told as coming (ours)."""
LATE = 28
"""Days after its last day from which a turn is no longer late but missed (ours)."""
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
    MISSED = "missed"

    @property
    def acts(self) -> bool:
        """Whether it asks for something now or soon."""
        return self in (Stand.LATE, Stand.DUE, Stand.COMING)

    @property
    def open(self) -> bool:
        """Whether it is still to be done."""
        return self not in (Stand.DONE, Stand.SKIPPED, Stand.MISSED)


@dataclass(frozen=True)
class Kept:
    """What somebody set for a turn: another first day, or that it is skipped, and why."""

    on: date | None = None
    skipped: bool = False
    why: str = ""


UNTOUCHED = Kept()


@dataclass(frozen=True)
class Line:
    """A turn of a step on a ground: of which step, what was set for it, and which products do it, by their ids."""

    step: int
    turn: Turn
    products: frozenset[int]
    kept: Kept = UNTOUCHED

    @property
    def moved(self) -> "Line":
        """The turn as it was set: from another first day on, with the days that it had."""
        t = self.turn
        if self.kept.on is None:
            return self
        long = t.end - t.begin if t.begin and t.end else timedelta(days=GRACE)
        was = f" It was due from {day(t.begin)}." if t.begin else ""
        why = f": {self.kept.why.rstrip('.')}" if self.kept.why else ""
        told = f"Moved to {day(self.kept.on)}{why}.{was}"
        return replace(self, turn=replace(t, begin=self.kept.on, end=self.kept.on + long, why=told))


@dataclass(frozen=True)
class Standing:
    """A turn with how it stands; `done` is the day it was done on."""

    line: Line
    stand: Stand
    done: date | None = None

    @property
    def turn(self) -> Turn:
        return self.line.turn


@dataclass(frozen=True)
class Down:
    """What went down on the ground: the day, and the product's id."""

    on: date
    product: int | None


def standings(lines: Sequence[Line], down: Sequence[Down], today: date) -> list[Standing]:
    """How the turns of all steps on a ground stand.

    Each application counts for one turn that its product does: for an open one whose days it falls in, else for the last that
    it is late for, else for the next, where it is near.

    Args:
        lines: every step's turns on the ground, as they were set.
        down: what went down there.
        today: on the ground.
    """
    done = matched(lines, down)
    begun: dict[int, date] = {}
    for line in lines:
        if line.turn.begin and line.turn.begin <= today:
            begun[line.step] = max(line.turn.begin, begun.get(line.step, date.min))
    return [_standing(line, done.get((line.step, line.turn.number)), today, begun.get(line.step)) for line in lines]


def _standing(line: Line, done: date | None, today: date, newest: date | None) -> Standing:
    """How one turn stands; `newest` is the first day of its step's last turn that has begun, which takes an older one's place."""
    if done is not None:
        return Standing(line, Stand.DONE, done)
    if line.kept.skipped:
        return Standing(line, Stand.SKIPPED)
    begin, end = line.turn.begin, line.turn.end
    if begin is None or end is None:
        return Standing(line, Stand.WAITING)
    if today > end:
        gone = (newest is not None and newest > begin) or (today - end).days > LATE
        return Standing(line, Stand.MISSED if gone else Stand.LATE)
    if today >= begin:
        return Standing(line, Stand.DUE)
    return Standing(line, Stand.COMING if (begin - today).days <= SOON else Stand.LATER)


def matched(lines: Sequence[Line], down: Sequence[Down]) -> dict[tuple[int, int], date]:
    """The day each turn was done on, by its step and its number.

    Args:
        lines: as they were set.
        down: what went down.
    """
    fixed = sorted((x for x in lines if x.turn.begin and not x.kept.skipped), key=lambda x: (x.turn.begin or date.min, x.step))
    found: dict[tuple[int, int], date] = {}
    for on, product in sorted({(d.on, d.product) for d in down if d.product is not None}):
        open_ = [x for x in fixed if product in x.products and (x.step, x.turn.number) not in found]
        within = [x for x in open_ if x.turn.begin and x.turn.end and x.turn.begin <= on <= x.turn.end]
        late = [x for x in open_ if x.turn.end and x.turn.end < on]
        early = [x for x in open_ if x.turn.begin and x.turn.begin - timedelta(days=_early(fixed, x)) <= on < x.turn.begin]
        if best := within[:1] or late[-1:] or early[:1]:
            found[best[0].step, best[0].turn.number] = on
    return found


def _early(fixed: Sequence[Line], line: Line) -> int:
    """How many days before it something counts as a turn: never nearer to its step's turn before than to it."""
    begin = line.turn.begin
    before = [x.turn.begin for x in fixed if x.step == line.step and x.turn.begin and begin and x.turn.begin < begin]
    return min(EARLY, (begin - before[-1]).days // 2) if begin and before else EARLY
