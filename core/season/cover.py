"""How long an application protects: its label interval, shortened towards the label's least as disease pressure rises.

Never outside the label: never longer than its longest interval, never taken for over before its least. That pressure shortens
cover is common practice; by how much is ours.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from core.days import day
from core.label.match import lists
from core.label.rate import Basis
from core.label.rules import Row
from core.ledger.history import Applied
from core.units import VOLUME

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]

CALM, FULL = 0.5, 1.5
"""Shares of the threshold at which pressure begins to shorten cover, and from which it shortens it to the label's least."""


@dataclass(frozen=True)
class Cover:
    """An application's cover from the day after it to `until`, with the label's least and longest end."""

    product: str
    codes: tuple[str, ...]
    on: date
    least: date
    until: date
    most: date

    @property
    def sentence(self) -> str:
        if self.until == self.most:
            return f"{self.product} of {day(self.on)} covers to {day(self.until)}."
        lost = (self.most - self.until).days
        took = f"weather took {lost} {'day' if lost == 1 else 'days'}"
        return f"{self.product} of {day(self.on)} covers to {day(self.until)}; {took}."


def pressures(values: Floats, threshold: float) -> Floats:
    """Pressure by day, 0 to 1, from a model's values and its threshold in one unit; what is not known presses not.

    Args:
        values: of a model by day [its own unit].
        threshold: of the same model [its own unit].
    """
    with np.errstate(invalid="ignore"):
        share = (values / threshold - CALM) / (FULL - CALM)
    return np.clip(np.nan_to_num(share), 0.0, 1.0)


def at_risk(values: Floats, threshold: float) -> Flags:
    """Days on which a model's value is at or over its threshold, in one unit; what is not known is no risk.

    Args:
        values: of a model by day [its own unit].
        threshold: of the same model [its own unit].
    """
    return np.asarray(np.nan_to_num(values, nan=-np.inf) >= threshold * (1 - 1e-9))


USUAL_INTERVAL = 14
"""Days of cover where a label gives no interval (common practice, no source)."""


def middle(interval: tuple[int | None, int | None]) -> int:
    """The middle of a label's interval [d], a fortnight where it gives none."""
    low, high = interval
    return round(((low or high or USUAL_INTERVAL) + (high or low or USUAL_INTERVAL)) / 2)


def reaches(applied: Applied, day: date) -> bool:
    """Whether an application may cover a day or one after it, by the longest interval of its label."""
    return applied.on + timedelta(days=max(applied.interval[0] or 0, applied.interval[1] or 0)) >= day


def cover_of(applied: Applied, first: date, pressure: Floats) -> Cover | None:
    """The cover of an application; None where its label gives no interval.

    Args:
        pressure: by day, 0 to 1 [1].
        applied: the application with its label interval.
        first: the day of the first pressure.
    """
    low, high = applied.interval
    least, most = low or high, high or low
    if not least or not most:
        return None
    begin, total, days = (applied.on - first).days + 1, 0.0, 0
    for days in range(1, most + 1):
        at = begin + days - 1
        total += float(pressure[at]) if 0 <= at < len(pressure) else 0.0
        if days >= least and days >= most - (most - least) * total / days:
            break
    ends = [applied.on + timedelta(days=n) for n in (least, days, most)]
    return Cover(applied.product, applied.codes, applied.on, *ends)


SHORT = 0.05
"""How far below a row's lowest rate an application may have been and still count (ours)."""


def protects(applied: Applied, rows: Sequence[Row], disease: str) -> bool:
    """Whether an application counts against a disease: its label lists it, at a rate that was put down."""
    return any(lists(row, disease) and _reached(applied, row) for row in rows)


def _reached(applied: Applied, row: Row) -> bool:
    low = row.label.lowest
    if not low.value or not low.unit.per_area or low.unit.basis is not Basis.PRODUCT:
        return True
    here = applied.litres if low.unit.amount.dimension == VOLUME else applied.grams
    return here is None or here >= low.base * (1 - SHORT)


def covered_days(covers: Sequence[Cover], first: date, count: int) -> Flags:
    """Which days from `first` on are covered: from the day of an application to its end."""
    found = np.zeros(count, dtype=bool)
    for cover in covers:
        a, b = (cover.on - first).days, (cover.until - first).days + 1
        found[max(0, a) : max(0, b)] = True
    return found
