"""Why a choice of a plan: what each other would have cost in its place, or which rule it would have broken."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from core.season.problem import Choice, Problem, bought, broken, tally, ways


@dataclass(frozen=True)
class Other:
    """Another choice in the place of one: by how much the whole plan would be dearer [money], or the rules it would break.

    `choice` is None for leaving it out. A day on which it may not go down at all breaks "day".
    """

    choice: Choice | None
    more: float
    broken: tuple[str, ...] = ()


@dataclass(frozen=True)
class Reasons:
    """Why this choice: what leaving it out costs; the other options on its day; its own days before and after."""

    without: Other
    instead: tuple[Other, ...]
    before: Other | None
    after: Other | None


def reasons(problem: Problem, chosen: Sequence[Choice], one: Choice) -> Reasons:
    """Why a choice is in a plan.

    Args:
        problem: what was planned.
        chosen: the plan.
        one: the choice of it that is asked about.
    """
    option, day = problem.options[one[0]], one[1]
    rest = [c for c in chosen if c != one]
    here = [c for c in rest if problem.options[c[0]].area == option.area]
    fixed = {i for i, _ in problem.fixed}
    earlier, later = [d for d in problem.going if d < day], [d for d in problem.going if d > day]
    days = {day, *earlier[-1:], *later[:1]}
    near = [c for c in rest if c[1] in days]
    part = replace(problem, worth={key: w for key, w in problem.worth.items() if key[0] == option.area})

    def costs(*choice: Choice) -> float:
        """All of the plan's total that differs where only this area's choices of these days do [money]."""
        own = tally(part, [*here, *choice])
        packages = math.fsum(bought(problem, [*rest, *choice], product) for product in problem.packages)
        return own.applications + own.exposed + ways(problem, [*near, *choice]) + packages

    now = costs(one)

    def other(choice: Choice) -> Other:
        if choice in rest:
            return Other(choice, 0.0, ("twice",))
        rules = tuple(broken(problem, [*rest, choice], option.area))
        return Other(choice, 0.0 if rules else costs(choice) - now, rules)

    alike = [
        i
        for i, o in enumerate(problem.options)
        if i != one[0] and o.area == option.area and set(o.covers) & set(option.covers) and i not in fixed
    ]
    return Reasons(
        Other(None, costs() - now),
        tuple(sorted((other((i, day)) for i in alike), key=lambda o: (bool(o.broken), o.more))),
        other((one[0], earlier[-1])) if earlier else None,
        other((one[0], later[0])) if later else None,
    )
