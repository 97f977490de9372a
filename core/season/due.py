"""When a preventive application is due: the model passes its threshold, or its forecast does, and cover lapses.

The days are the ground's. Risk that is not known makes nothing due; it is said instead. A forecast never changes what has
been.
"""

from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from core.days import day, so_many
from core.season.cover import Cover, at_risk, covered_days, pressures

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
MOST_WAITED = 7
LOOK_BACK = 14
"""Days over which unprotected risk and outbreaks are looked back for (ours)."""


class State(StrEnum):
    """Where a disease stands on an area."""

    LATE = "late"
    DUE = "due"
    COMING = "coming"
    COVERED = "covered"
    QUIET = "quiet"
    UNKNOWN = "unknown"

    @property
    def acts(self) -> bool:
        """Whether an application is proposed."""
        return self in (State.LATE, State.DUE, State.COMING)


@dataclass(frozen=True)
class Outlook:
    """A disease on an area: its daily values from `first` on with the forecast in them, its threshold, today's place.

    `outside` marks days whose weather is beyond the model's range.
    """

    first: date
    values: Floats
    threshold: float
    today: int
    outside: Flags

    @cached_property
    def pressure(self) -> Floats:
        """How hard each day presses on a cover, 0 to 1."""
        return pressures(self.values, self.threshold)

    def day(self, i: int) -> date:
        return self.first + timedelta(days=i)

    @cached_property
    def risky(self) -> Flags:
        """Days at or over the threshold."""
        return at_risk(self.values, self.threshold)


@dataclass(frozen=True)
class Due:
    """What is due: by which day, and why.

    `exposed` are unprotected risk days of the last fortnight, today not among them; `ahead` for each day of waiting from none
    on how many risk days of the forecast go unprotected; `curative` whether the disease has been seen; `cover` the last one.
    """

    state: State
    by: date | None
    why: str
    exposed: int
    ahead: tuple[int, ...]
    curative: bool
    cover: Cover | None

    @property
    def delay(self) -> str:
        """What waiting costs, in a sentence; empty where nothing is due."""
        if not self.state.acts or len(self.ahead) < 2 or not self.ahead[-1]:
            return ""
        first = next(i for i, n in enumerate(self.ahead) if n)
        span = "a week" if len(self.ahead) - 1 == MOST_WAITED else so_many(len(self.ahead) - 1)
        begins = "" if first == 1 else f", from day {first} on"
        left = self.ahead[-1]
        return f"Waiting {span} leaves {left} risk {'day' if left == 1 else 'days'} unprotected{begins}."


def due(outlook: Outlook, covers: list[Cover], seen: date | None = None) -> Due:
    """Where a disease stands on an area.

    Args:
        outlook: the model's values, threshold and today.
        covers: of the applications against it.
        seen: when a scout last saw it, None where none did of late.
    """
    o, today, count = outlook, outlook.today, len(outlook.values)
    covered = covered_days(covers, o.first, count)
    bare = o.risky & ~covered
    exposed = int(bare[max(0, today - LOOK_BACK) : today].sum())
    ahead = (0, *np.cumsum(bare[today : today + MOST_WAITED]).tolist())
    last = max(covers, key=lambda c: c.until, default=None)
    curative = seen is not None and (o.day(today) - seen).days <= LOOK_BACK and not (last and last.on >= seen)

    def found(state: State, by: date | None, why: str) -> Due:
        return Due(state, by, why, exposed, ahead, curative, last)

    if curative and not covered[today]:
        assert seen
        return found(State.LATE, o.day(today), f"It was seen on {day(seen)}, and nothing has gone down against it since.")
    if o.outside[today : today + 3].all():
        return found(State.QUIET, None, "The weather is outside the range in which the model holds.")
    if np.isnan(o.values[today : today + 3]).all():
        return found(State.UNKNOWN, None, "The model has no value for these days.")
    if not bare[today:].any():
        if o.risky[today:].any() and last:
            return found(State.COVERED, None, last.sentence)
        return found(State.QUIET, None, "The risk stays under its threshold.")
    when = today + int(np.flatnonzero(bare[today:])[0])
    lapses = f" {last.product} of {day(last.on)} covered to {day(last.until)}." if last and last.until >= o.day(0) else ""
    if when > today:
        return found(
            State.COMING,
            o.day(when) - timedelta(days=1),
            f"The forecast passes the threshold on {_weekday(o.day(when))}, unprotected.{lapses}",
        )
    if exposed:
        days = "day" if exposed == 1 else "days"
        return found(State.LATE, o.day(today), f"{exposed} risk {days} went unprotected already.{lapses}")
    return found(State.DUE, o.day(today), f"The risk is at its threshold today, unprotected.{lapses}")


def _weekday(on: date) -> str:
    return f"{on:%A} {day(on)}"
