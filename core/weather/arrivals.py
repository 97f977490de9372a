"""What arrives from a service, held against the clock and against what was known before.

A service whose clock is off would move every night and every wet leaf. It is found out in two ways: hours that have not been
yet, and hours that agree with those known before only when they are moved.
"""

from collections.abc import Sequence
from datetime import datetime, timedelta

import numpy as np

from core.weather.hours import Hour

EARLY = timedelta(hours=1, minutes=15)
"""How far ahead of now a measured hour may begin before the service's clock is doubted (ours)."""
MOST_SHIFT = 12
ENOUGH = 24
SAME, UNLIKE = 0.05, 0.5
"""Mean difference in air [°C] under which hours are the same, and over which they are not (ours)."""


def from_the_future(hours: Sequence[Hour], now: datetime) -> int:
    """By how many hours the latest measured hour is ahead of what can have been; 0 where it is not."""
    ahead = max((h.at for h in hours if not h.forecast), default=now) - now
    return int(np.ceil(ahead / timedelta(hours=1))) if ahead > EARLY else 0


def shifted(hours: Sequence[Hour], known: dict[datetime, float], name: str = "air") -> int:
    """By how many hours the times of a service have moved against what was known before; 0 where they have not.

    `known` is the air or, by `name`, the soil of hours known before [°C].

    It is told only where a day and more agree after the move, and plainly disagree without it.
    """
    told = {h.at: value for h in hours if (value := getattr(h, name)) is not None}

    def off(shift: int) -> float:
        pairs = [
            abs(value - known[at - timedelta(hours=shift)]) for at, value in told.items() if at - timedelta(hours=shift) in known
        ]
        return float(np.mean(pairs)) if len(pairs) >= ENOUGH else np.inf

    plain = off(0)
    if not UNLIKE < plain < np.inf:
        return 0
    best = min((s for s in range(-MOST_SHIFT, MOST_SHIFT + 1) if s), key=off)
    return best if off(best) < SAME else 0
