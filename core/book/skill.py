"""How well a forecast of yes or no did: hits, misses, false alarms, with intervals, and what another threshold would have given.

Measures by the names of forecast verification (Wilks, Statistical Methods in the Atmospheric Sciences, from memory); shares
with Wilson's interval (Wilson 1927, JASA 22:209-212). Looks on days that follow each other are alike, so that the true
interval is wider than the one that is told.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import timedelta

from core.disease.model import Model

Z = 1.959964
"""Of the two-sided 95 % of the normal distribution."""
ENOUGH = 10
"""So many looks with it, and so many without it, before a forecast is judged: the interval is then ±26 % at most (Wilson)."""
LAG = timedelta(days=7)
"""A look is held against the forecast of its day and of the week before: spots follow infection by days (ours)."""
STEPS = (0.5, 0.75, 1.0, 1.25, 1.5)
"""The thresholds that are tried, as multiples of the one in use (ours)."""


@dataclass(frozen=True)
class Share:
    """A share of a whole number of cases, with Wilson's 95 % interval; no value where there is no case."""

    part: int
    of: int

    @property
    def value(self) -> float | None:
        return self.part / self.of if self.of else None

    @property
    def interval(self) -> tuple[float, float]:
        """The ends of the 95 % interval; all from 0 to 1 where there is no case."""
        if not self.of:
            return 0.0, 1.0
        p, n, z2 = self.part / self.of, self.of, Z * Z
        middle, width = p + z2 / (2 * n), Z * math.sqrt(p * (1 - p) / n + z2 / (4 * n * n))
        return max(0.0, (middle - width) / (1 + z2 / n)), min(1.0, (middle + width) / (1 + z2 / n))


@dataclass(frozen=True)
class Looks:
    """What was foretold against what was seen: foretold and seen, foretold alone, seen alone, neither."""

    hits: int
    false_alarms: int
    misses: int
    quiet: int

    @property
    def seen(self) -> int:
        return self.hits + self.misses

    @property
    def unseen(self) -> int:
        return self.false_alarms + self.quiet

    @property
    def found(self) -> Share:
        """Of what was seen, how much was foretold."""
        return Share(self.hits, self.seen)

    @property
    def false_share(self) -> Share:
        """Of what was foretold, how much was not seen."""
        return Share(self.false_alarms, self.hits + self.false_alarms)

    @property
    def false_rate(self) -> Share:
        """Of the looks that found nothing, how many had been foretold."""
        return Share(self.false_alarms, self.unseen)

    @property
    def skill(self) -> float | None:
        """What was found less the rate of false alarms: 1 is perfect, 0 is what a coin or always saying yes would do."""
        found, false = self.found.value, self.false_rate.value
        return None if found is None or false is None else found - false

    @property
    def skill_interval(self) -> tuple[float, float] | None:
        """The 95 % interval of the skill, by the variances of its two shares."""
        skill = self.skill
        if skill is None:
            return None
        both = (self.found, self.false_rate)
        width = Z * math.sqrt(sum((s.value or 0) * (1 - (s.value or 0)) / s.of for s in both))
        return max(-1.0, skill - width), min(1.0, skill + width)

    @property
    def bias(self) -> float | None:
        """How often it was foretold for each time that it was seen."""
        return (self.hits + self.false_alarms) / self.seen if self.seen else None

    @property
    def lacking(self) -> tuple[int, int]:
        """How many more looks with it, and without it, it would take before a judgement."""
        return max(0, ENOUGH - self.seen), max(0, ENOUGH - self.unseen)

    @property
    def enough(self) -> bool:
        return self.lacking == (0, 0)


@dataclass(frozen=True)
class Case:
    """One look: the highest value that was foretold for it, in the model's unit, and whether it was seen."""

    value: float
    seen: bool


def looks_at(cases: Iterable[Case], threshold: float) -> Looks:
    """The looks at a threshold.

    Args:
        cases: that were looked at.
        threshold: at or over which it is foretold [the model's own unit].
    """
    counts = {(foretold, seen): 0 for foretold in (True, False) for seen in (True, False)}
    for case in cases:
        counts[case.value >= threshold * (1 - 1e-9), case.seen] += 1
    return Looks(counts[True, True], counts[True, False], counts[False, True], counts[False, False])


def thresholds_of(model: Model, own: float) -> list[float]:
    """The thresholds that are tried of a model, the one in use among them, within what it may be moved to.

    Args:
        model: whose.
        own: the threshold in use [the model's own unit].
    """
    if model.yes_or_no:
        return [own]
    low, high = model.moves or (0.0, math.inf)
    return sorted({own, *(own * s for s in STEPS if low <= own * s <= high)})


def best_of(tried: Sequence[tuple[float, Looks]]) -> float | None:
    """The threshold with the highest skill, where there is enough to say; the lowest of several.

    Args:
        tried: thresholds [the model's own unit] with their looks.
    """
    told = [(looks.skill or 0.0, -threshold) for threshold, looks in tried if looks.enough]
    return -max(told)[1] if told else None
