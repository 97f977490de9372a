"""Two schools over a season that has been: by the calendar, and by the model's threshold.

Both start from bare turf and know only the weather up to their day. The calendar sprays at the label's interval from its
first to its last day; the threshold sprays on the first risk day without cover, and its cover shortens with pressure.
"""

from dataclasses import dataclass, replace
from datetime import date, timedelta
from decimal import Decimal
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from core.ledger.history import Applied
from core.season.cover import at_risk, cover_of, covered_days, middle, pressures

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]


@dataclass(frozen=True)
class School:
    """What one school would have done: its days, what they cost, and the risk days that had no cover of `risk_days`."""

    days: tuple[date, ...]
    cost: Decimal | None
    unprotected: int
    risk_days: int


@dataclass(frozen=True)
class Season:
    """A season to replay: a model's daily values from `first`, its threshold, and the two ends of the calendar's spraying."""

    first: date
    values: Floats
    threshold: float
    begin: date
    end: date

    @cached_property
    def risky(self) -> Flags:
        """Days at or over the threshold."""
        return at_risk(self.values, self.threshold)

    @cached_property
    def pressure(self) -> Floats:
        """How hard each day presses on a cover, 0 to 1."""
        return pressures(self.values, self.threshold)


def by_calendar(season: Season, spray: Applied, price: Decimal | None) -> School:
    """Every label interval from the season's begin to its end, whatever the weather; the middle of the interval's range."""
    step = timedelta(days=middle(spray.interval))
    days, on = [], season.begin
    while on <= season.end:
        days.append(on)
        on += step
    return _school(season, spray, days, price)


def by_threshold(season: Season, spray: Applied, price: Decimal | None) -> School:
    """A spray on each risk day without cover, the season over."""
    days: list[date] = []
    until = date.min
    for i in np.flatnonzero(season.risky):
        on = season.first + timedelta(days=int(i))
        if season.begin <= on <= season.end and on > until:
            days.append(on)
            cover = cover_of(replace(spray, on=on), season.first, season.pressure)
            until = cover.until if cover else on
    return _school(season, spray, days, price)


def _school(season: Season, spray: Applied, days: list[date], price: Decimal | None) -> School:
    covers = [c for on in days if (c := cover_of(replace(spray, on=on), season.first, season.pressure))]
    bare = season.risky & ~covered_days(covers, season.first, len(season.values))
    cost = None if price is None else price * len(days)
    return School(tuple(days), cost, int(bare.sum()), int(season.risky.sum()))
