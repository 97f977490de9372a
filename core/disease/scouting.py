"""How a model did on an account's own ground: scout reports held against what it warned of before them.

A disease that was seen counts as a hit where the model passed its threshold in the fortnight before (ours), as a miss where
it did not. Turf found clean under a fungicide's cover says nothing against a warning.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from core.disease.model import Flags, Floats

BEFORE = 14
"""Days before a report in which a warning counts (ours)."""


@dataclass(frozen=True)
class Report:
    """What a scout found on a day: whether the disease was seen, and on how much of the turf [%] where that was noted."""

    on: date
    seen: bool
    severity: float | None = None


@dataclass(frozen=True)
class Score:
    """Reports counted: disease seen after a warning or without one, clean turf after a warning, without, and under cover.

    `unknown` reports had too little weather before them.
    """

    hits: int = 0
    misses: int = 0
    false: int = 0
    clean: int = 0
    covered: int = 0
    unknown: int = 0

    @property
    def judged(self) -> int:
        return self.hits + self.misses + self.false + self.clean

    @property
    def sentence(self) -> str:
        if not self.judged:
            return "No scout report here can be held against it yet."
        parts = [f"{self.hits} of {self.hits + self.misses} outbreaks were warned of"] if self.hits + self.misses else []
        if self.false + self.clean:
            parts.append(f"{self.false} of {self.false + self.clean} clean reports had a warning before them")
        aside = f"; {self.covered} more were clean under cover" if self.covered else ""
        few = " Too few to judge a model by." if self.judged < 10 else ""
        return f"{', '.join(parts)}{aside}.{few}"


def score(first: date, values: Floats, threshold: float, reports: Sequence[Report], covered: Flags | None = None) -> Score:
    """Hold reports against a model's daily values.

    Args:
        values: of a model by day [its own unit].
        threshold: of the same model [its own unit].
        first: the day of the first value.
        reports: what scouts found.
        covered: days under the cover of an application.
    """
    count = dict.fromkeys(("hits", "misses", "false", "clean", "covered", "unknown"), 0)
    for report in reports:
        count[_kind(report, (report.on - first).days, values, threshold, covered)] += 1
    return Score(**count)


def _kind(report: Report, day: int, values: Floats, threshold: float, covered: Flags | None) -> str:
    before = values[max(0, day - BEFORE) : day + 1] if 0 <= day < len(values) else np.array([])
    warned = bool((np.nan_to_num(before, nan=-1.0) >= threshold).any())
    if not warned and (not len(before) or np.isnan(before).mean() > 0.5):
        return "unknown"
    if report.seen:
        return "hits" if warned else "misses"
    if covered is not None and covered[day]:
        return "covered"
    return "false" if warned else "clean"
