"""Repeats of one measurement: their mean, their spread, and whether they can be trusted.

The limits are common practice, no source: runs within 5 % of their mean agree, beyond 10 % they do not.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from statistics import fmean, median, stdev

from core.errors import InputError
from core.units import positive, show_number, show_percent

AGREES, DIFFERS = 0.05, 0.10
"""How far a run may be from the mean: within the first they agree, beyond the second they do not."""
TWICE = 1.8
"""From this ratio on, one run looks like two of another."""
MOST_RUNS = 50


class Trust(StrEnum):
    """What the runs are worth together."""

    ONE = "one"
    AGREE = "agree"
    MIND = "mind"
    DIFFER = "differ"


@dataclass(frozen=True)
class Runs:
    """Runs of one measurement in one unit.

    `spread` is the farthest run's distance from the mean as a share of it; `cv` the sample's coefficient of variation
    (n - 1), None for one run; `odd` the place of the one run that disagrees with all the others, if there is one.
    """

    values: tuple[float, ...]
    mean: float
    spread: float
    cv: float | None
    trust: Trust
    odd: int | None
    sentence: str


def summarise(values: Sequence[float], field: str = "runs") -> Runs:
    """What repeats come to.

    Args:
        values: of the runs [any one unit].
        field: whose fault it would be.

    Raises:
        InputError: none, too many, or one that is not positive; named by its place.
    """
    if not 1 <= len(values) <= MOST_RUNS:
        raise InputError(field, len(values), f"{len(values)} runs were given.", f"Take 3, at most {MOST_RUNS}.")
    for i, value in enumerate(values):
        positive(f"{field}.{i}", value)
    mean = fmean(values)
    if len(values) == 1:
        said = "One run only: a second, and better a third, tells whether it can be trusted."
        return Runs(tuple(values), mean, 0.0, None, Trust.ONE, None, said)
    spread = max(abs(v / mean - 1) for v in values)
    trust = Trust.AGREE if spread <= AGREES else Trust.MIND if spread <= DIFFERS else Trust.DIFFER
    odd = None if trust is Trust.AGREE else odd_one(values)
    return Runs(tuple(values), mean, spread, stdev(values) / mean, trust, odd, _sentence(values, spread, trust, odd))


def odd_one(values: Sequence[float]) -> int | None:
    """The place of the one run without which the others agree; None where there is none, or fewer than three.

    Args:
        values: of the runs [any one unit].
    """
    if len(values) < 3:
        return None
    middle = median(values)
    far = max(range(len(values)), key=lambda i: abs(values[i] - middle))
    others = [v for i, v in enumerate(values) if i != far]
    mean = fmean(others)
    return far if all(abs(v / mean - 1) <= AGREES for v in others) else None


def _sentence(values: Sequence[float], spread: float, trust: Trust, odd: int | None) -> str:
    if trust is Trust.AGREE:
        return f"The {len(values)} runs agree within {show_percent(spread)}."
    ratio = max(values) / min(values)
    high, low = values.index(max(values)) + 1, values.index(min(values)) + 1
    if ratio >= TWICE:
        said = f"Run {high} is {show_number(ratio, 2)} times run {low}: one was misread, or took in more than one pass."
    else:
        said = f"The runs lie up to {show_percent(spread)} from their mean."
    if odd is not None:
        return f"{said} Run {odd + 1} stands alone: measure it again, or leave it out."
    return f"{said} {'Run it again before you rely on it.' if trust is Trust.DIFFER else 'A further run would tell.'}"
