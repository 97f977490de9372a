"""The plans of other schools for the same year, under the same rules: by the calendar, and by a threshold.

Both go out on the same days and take what costs least of what breaks no rule. The calendar keeps cover over the whole time in
which a disease is usual; the threshold waits until it is there. Both are held against ten made-up years beside the plan.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from core.season.problem import Choice, Problem, broken, covered, tally

Floats = NDArray[np.float64]
Key = tuple[str, str]
USUAL = 0.2
"""The share of years from which on a disease is usual on a day (ours)."""
LIKELY = 0.5
"""The share of years, or of a day's need that is met, from which on a day counts as at risk, or as covered (ours)."""


def by_calendar(problem: Problem, risk: Mapping[Key, Floats]) -> tuple[Choice, ...]:
    """The plan that keeps cover from the first usual day of each target to its last.

    Args:
        problem: what is to be planned.
        risk: by area and target, how likely it is on each day [1].
    """
    spans: dict[Key, tuple[int, int]] = {}
    for key, values in risk.items():
        at = np.flatnonzero(values >= USUAL)
        if len(at):
            spans[key] = (int(at[0]), int(at[-1]))
    return _going(problem, lambda key, since, day: key in spans and spans[key][0] <= day <= spans[key][1])


def by_threshold(problem: Problem, risk: Mapping[Key, Floats]) -> tuple[Choice, ...]:
    """The plan that goes out once a target has been at risk since the last outing, and nothing covers it.

    Args:
        problem: what is to be planned.
        risk: by area and target, how likely it is on each day, or 1 and 0 for a year that has been [1].
    """
    return _going(problem, lambda key, since, day: key in risk and bool((risk[key][since + 1 : day + 1] >= LIKELY).any()))


def _going(problem: Problem, goes: Callable[[Key, int, int], bool]) -> tuple[Choice, ...]:
    """Out on each day on which anything may go down, for what calls and is not covered."""
    chosen: list[Choice] = list(problem.fixed)
    fixed = {i for i, _ in problem.fixed}
    by_key: dict[Key, list[int]] = {}
    for i in sorted(range(len(problem.options)), key=lambda i: (problem.options[i].cost, i)):
        for target in problem.options[i].covers:
            if i not in fixed:
                by_key.setdefault((problem.options[i].area, target), []).append(i)
    cover = {key: covered(problem, chosen, *key) for key in problem.worth}
    need = {key: problem.needed(*key) for key in problem.worth}
    since = -1
    for day in problem.going:
        for key in problem.worth:
            if not goes(key, since, day) or cover[key][day] >= LIKELY * need[key][day]:
                continue
            for i in by_key.get(key, ()):
                if problem.options[i].may(day) and not broken(problem, [*chosen, (i, day)], key[0]):
                    chosen.append((i, day))
                    for other in problem.options[i].covers:
                        if (key[0], other) in cover:
                            cover[key[0], other] = covered(problem, chosen, key[0], other)
                    break
        since = day
    return tuple(sorted(chosen, key=lambda c: (c[1], c[0])))


@dataclass(frozen=True)
class Fared:
    """How a plan fared in one year: how often something went down anew, risk days without cover, and what went down [money]."""

    applications: int
    bare: float
    cost: float


def fared(problem: Problem, chosen: Sequence[Choice], risk: Mapping[Key, Floats]) -> Fared:
    """How a plan would have fared in a year.

    Args:
        problem: what was planned.
        chosen: the plan.
        risk: the year's risk days by area and target, 1 and 0; or how likely each is [1].
    """
    bare = sum(float((values * (1 - covered(problem, chosen, *key))).sum()) for key, values in risk.items())
    return Fared(len(set(chosen) - set(problem.fixed)), bare, tally(problem, chosen).product)
