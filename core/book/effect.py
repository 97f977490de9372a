"""What came of applications: days protected and their cost, what was seen under cover, and what became of plans."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from enum import StrEnum

from core.book.after import How
from core.book.skill import Share
from core.disease.model import Risk

LATE = timedelta(days=14)
"""What goes down within two weeks after its window was late; after that the window was skipped (ours)."""
FEW = 5
"""Fewer applications than this are told and not judged (ours)."""


@dataclass(frozen=True)
class Use:
    """One application of a product against one thing on one ground.

    `treated` is how much of it [m²]; `until` the last day of its cover, None where it has none; `pressure` how the model stood on
    its day; `looks` whether it was seen on each look within its cover, or within `after.WINDOW` where it has none; `answers`
    how it was said to be.
    """

    ground: int
    on: date
    treated: float
    until: date | None = None
    pressure: Risk | None = None
    cost: Decimal | None = None
    looks: tuple[bool, ...] = ()
    answers: tuple[How, ...] = ()


@dataclass(frozen=True)
class Effect:
    """What came of a product against one thing: `clear` are the looks that did not find it, of all looks.

    `looked` is how many applications somebody looked after, `ground_days` each protected day times its ground [m² d].
    """

    times: int
    looked: int
    protected: int
    ground_days: float
    cost: Decimal | None
    clear: Share
    pressure: Counter[Risk]
    answers: Counter[How]

    @property
    def per_day(self) -> Decimal | None:
        """Cost of a protected day; None where the cost of one application is not known, or it protects none."""
        return self.cost / self.protected if self.cost is not None and self.protected else None

    def per_day_on(self, ground: float) -> Decimal | None:
        """Cost of a protected day on so much ground; None as `per_day`.

        Args:
            ground: how much [m²].
        """
        if self.cost is None or not self.ground_days:
            return None
        return self.cost / Decimal(self.ground_days) * Decimal(ground)

    @property
    def lapses(self) -> int:
        """Looks that found it."""
        return self.clear.of - self.clear.part

    @property
    def enough(self) -> bool:
        return self.looked >= FEW


def effect_of(uses: Sequence[Use]) -> Effect:
    """What came of some applications of one product against one thing; a day that two of them cover on a ground counts once."""
    days: dict[tuple[int, date], float] = {}
    for u in uses:
        for n in range(1, (u.until - u.on).days + 1) if u.until else ():
            day = (u.ground, u.on + timedelta(days=n))
            days[day] = max(days.get(day, 0.0), u.treated)
    looks = [seen for u in uses for seen in u.looks]
    costs = [u.cost for u in uses if u.cost is not None]
    return Effect(
        len(uses),
        sum(bool(u.looks or u.answers) for u in uses),
        len(days),
        sum(days.values()),
        sum(costs, Decimal()) if uses and len(costs) == len(uses) else None,
        Share(looks.count(False), len(looks)),
        Counter(u.pressure for u in uses if u.pressure is not None),
        Counter(a for u in uses for a in u.answers),
    )


class Became(StrEnum):
    """What became of a planned window."""

    DONE = "done"
    LATE = "late"
    SKIPPED = "skipped"
    DROPPED = "dropped"
    AHEAD = "ahead"

    @property
    def text(self) -> str:
        return {
            "done": "Done in its window",
            "late": "Late",
            "skipped": "Skipped",
            "dropped": "Taken back",
            "ahead": "Still ahead",
        }[self.value]


def became(begin: date, end: date, done: Iterable[date], today: date, dropped: date | None = None) -> tuple[Became, date | None]:
    """What became of a planned window, and the day on which it was done if it was.

    Args:
        begin: its first day.
        end: its last day.
        done: the days on which its product went down on its ground.
        today: the day it is asked.
        dropped: the day on which it was taken back.
    """
    day = min((d for d in done if begin <= d <= end + LATE), default=None)
    if day is not None:
        return (Became.DONE if day <= end else Became.LATE), day
    if dropped is not None and dropped <= end:
        return Became.DROPPED, None
    return (Became.AHEAD if today <= end else Became.SKIPPED), None
