"""The degree-day clock of a growth regulator: how far its hold has run since the last application, and when it ends.

Degree days are counted from the day after the application, by the simple average; it is put down again on the first day the
sum reaches the target. Past about one and a half times the target growth is above that of turf that had none (the
rebound). Kreuser WC, Soldat DJ (2011) Crop Sci 51:2228-2236 for trinexapac-ethyl on bentgrass greens, base 0 °C; the other
targets are from extension tables or memory, and say so. The curve is a shape, never a foretold yield.
"""

from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from core.days import day
from core.errors import InputError
from core.weather.degree_days import Base, degree_days
from core.weather.words import degree_day_base, degree_day_part

Floats = NDArray[np.float64]
REBOUND, OVER = 1.5, 3.0
"""The hold ends at 1.5 times the target, the rebound at about 3 times (published for one active, taken for the others)."""
SPREAD = 1.5
"""How far a forecast of the days' mean may be off [°C], for the earliest and the latest date (ours)."""


class Trust(StrEnum):
    """How well a target is founded."""

    HIGH = "high"
    MEDIUM = "medium"
    LOW = "low"
    OWN = "own"

    @property
    def text(self) -> str:
        return {"high": "published", "medium": "from extension tables", "low": "a rule of thumb", "own": "your own"}[self.value]


@dataclass(frozen=True)
class Target:
    """Degree days to the next application, with the base they are counted on, and how well that is founded."""

    active: str
    turf: str
    sum: float
    base: Base
    trust: Trust


WARM_BASE = Base(10.0)
TARGETS = (
    Target("trinexapac-ethyl", "green", 200.0, Base(), Trust.HIGH),
    Target("trinexapac-ethyl", "lawn", 350.0, Base(), Trust.LOW),
    Target("trinexapac-ethyl", "lawn", 400.0, Base(), Trust.LOW),
    Target("trinexapac-ethyl", "warm", 200.0, WARM_BASE, Trust.MEDIUM),
    Target("paclobutrazol", "green", 295.0, Base(), Trust.MEDIUM),
    Target("prohexadione-calcium", "green", 280.0, Base(), Trust.MEDIUM),
    Target("prohexadione-calcium", "warm", 135.0, WARM_BASE, Trust.LOW),
    Target("flurprimidol", "green", 240.0, Base(), Trust.LOW),
)
"""By active and turf: greens of cool grass, taller cuts of it (a range: its lower end counts), and warm-season turf."""
LEAST_SUM, MOST_SUM = 20.0, 2000.0
"""The targets that anybody may set [°C·d] (ours)."""


def target_of(active: str, turf: str) -> Target | None:
    """The target of an active on a turf; None where none is known, and the calendar must do."""
    return next((t for t in TARGETS if t.active == active.lower() and t.turf == turf), None)


TURFS = {"green": "greens of cool grass", "lawn": "taller cuts of cool grass", "warm": "warm-season turf"}


def offered(active: str) -> list[Target]:
    """The targets that are known of an active, on any turf."""
    return [t for t in TARGETS if t.active == active.lower()]


def own_target(active: str, total: float, base: float) -> Target:
    """A target that somebody set for an active on a ground.

    Args:
        active: by its common name.
        total: degree days to the next application [°C d].
        base: they are counted over [°C].

    Raises:
        InputError: no sum or base to count by.
    """
    if not LEAST_SUM <= total <= MOST_SUM:
        raise InputError("own", total, "That is no sum to wait for.", f"Give °C·d between {LEAST_SUM:.0f} and {MOST_SUM:.0f}.")
    if not -5 <= base <= 20:
        raise InputError("base", base, "That is no base of degree days.", "0 °C is usual; 10 °C on warm-season turf.")
    return Target(active.lower(), "own", total, Base(base), Trust.OWN)


class Stage(StrEnum):
    """Where the clock stands."""

    HOLDS = "holds"
    DUE = "due"
    ENDED = "ended"
    REBOUND = "rebound"
    GONE = "gone"


@dataclass(frozen=True)
class Clock:
    """The sum [°C·d] since the application up to a day, with the days it could not count; and when the target is reached.

    `due` is the first day on which it is, `earliest` and `latest` with the forecast off by its spread; None where the known
    days do not reach so far.
    """

    since: date
    upto: date
    target: Target
    sum: float
    missing: int
    stage: Stage
    due: date | None
    earliest: date | None
    latest: date | None

    @property
    def share(self) -> float:
        return self.sum / self.target.sum

    def told(self, us: bool) -> str:
        """The sum with its base and where it stands, in the units of US accounts or of others."""
        sums = degree_day_part(self.sum, self.target.sum, us)
        words = {
            Stage.HOLDS: "it holds",
            Stage.DUE: "it is due",
            Stage.ENDED: "its hold has ended",
            Stage.REBOUND: "growth is above what it would have been without it",
            Stage.GONE: "it is over",
        }[self.stage]
        days = "day" if self.missing == 1 else "days"
        holes = f" {self.missing} {days} could not be counted." if self.missing else ""
        return f"{sums}, {degree_day_base(self.target.base.celsius, us)}, since {day(self.since)}: {words}.{holes}"


def run(
    first: date, high: Floats, low: Floats, since: date, upto: date, target: Target, *, foretold: Floats | None = None
) -> Clock:
    """Run the clock.

    Args:
        first: the day of the first value.
        high: the days' highs, measured and foretold [°C].
        low: their lows [°C].
        since: the day of the application; counting begins on the day after.
        upto: the last day that counts, today as a rule.
        target: the sum and its base.
        foretold: by day the share of it that is forecast; the spread goes on those days.

    Raises:
        InputError: an application after `upto`, or before the first day of weather.
    """
    begin, here = (since - first).days + 1, (upto - first).days
    if since > upto:
        raise InputError("since", str(since), "The application lies ahead.", "Count from one that was made.")
    if begin < 0 or here >= len(high):
        raise InputError("since", str(since), "There is no weather for the days since then.", "Bring in older weather.")
    days = degree_days(high, low, target.base)
    share = np.zeros(len(days)) if foretold is None else np.nan_to_num(foretold)
    counted = days[begin : here + 1]
    total = float(np.nansum(counted))
    dates = [
        _reached(first, begin, degree_days(high + off * share, low + off * share, target.base), target.sum)
        for off in (0.0, SPREAD, -SPREAD)
    ]
    return Clock(since, upto, target, total, int(np.isnan(counted).sum()), _stage(total, target.sum), *dates)


def _reached(first: date, begin: int, days: Floats, goal: float) -> date | None:
    sums = np.cumsum(np.nan_to_num(days[begin:]))
    hit = np.flatnonzero(sums >= goal - 1e-9)
    return first + timedelta(days=begin + int(hit[0])) if len(hit) else None


def _stage(total: float, goal: float) -> Stage:
    share = total / goal
    if share < 0.9:
        return Stage.HOLDS
    if share <= 1.15:
        return Stage.DUE
    if share < REBOUND:
        return Stage.ENDED
    return Stage.REBOUND if share < OVER else Stage.GONE


def growth_shape(share: Floats, depth: float = 0.3) -> Floats:
    """Growth over that of untreated turf by the share of the target that has run: a shape to draw, not a yield.

    Args:
        share: of the target's sum [1].
        depth: how far growth is held at the most, before it fades [share].
    """
    part = np.asarray(share, dtype=float) / REBOUND
    shape = 1 - depth * np.exp(-part * 0.75) * np.sin(np.pi * part)
    return np.where((part < 0) | (part > 2), 1.0, shape)
