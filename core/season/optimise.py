"""The plan of a season that costs least within every rule, by mixed-integer programming, with a greedy one beside it.

The model: binary choices; cover as shares; intervals as cliques; what is kept apart by pairs; packages as whole numbers; an
outing each day that is gone out on; a group's run as a count that another group ends. Solved by HiGHS (Huangfu Q, Hall JAJ
(2018) Math Prog Comp 10:119-142) through scipy. Costs are summed anew from what was chosen.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array

from core.errors import InputError
from core.season.problem import Choice, Problem, Tally, broken, tally

SECONDS = 10.0
"""How long is looked for a better plan [s] (ours)."""
OPTIMAL, OUT_OF_TIME, INFEASIBLE = 0, 1, 2


@dataclass(frozen=True)
class Optimum:
    """What is to be done, in order, what it comes to, and by how much a better plan could be cheaper: 0 where none is [money]."""

    chosen: tuple[Choice, ...]
    tally: Tally
    gap: float

    @property
    def proven(self) -> bool:
        """Whether no plan is cheaper."""
        return self.gap <= 1e-6 * max(1.0, self.tally.total)


class _Model:
    """The rows and columns of the program as they are built."""

    def __init__(self) -> None:
        self.costs: list[float] = []
        self.high: list[float] = []
        self.whole: list[int] = []
        self.rows: list[tuple[list[int], list[float], float]] = []

    def column(self, cost: float, high: float = 1.0, whole: bool = True) -> int:
        """A quantity to be chosen between 0 and `high`, and its number.

        Args:
            cost: of one of it [money].
            high: its most [1].
            whole: whether it is counted in wholes.
        """
        self.costs.append(cost)
        self.high.append(high)
        self.whole.append(int(whole))
        return len(self.costs) - 1

    def at_most(self, columns: Sequence[int], shares: Sequence[float], most: float) -> None:
        """A sum of quantities that may not pass a bound.

        Args:
            columns: the quantities, by number.
            shares: how much of each counts [1].
            most: the bound [1].
        """
        self.rows.append((list(columns), list(shares), most))

    def solve(self, seconds: float) -> object:
        """What HiGHS finds, as scipy tells it.

        Args:
            seconds: how long it may look [s].
        """
        at = [(r, c, v) for r, (columns, shares, _) in enumerate(self.rows) for c, v in zip(columns, shares, strict=True)]
        rows, columns, values = (np.array(x) for x in zip(*at, strict=True)) if at else (np.zeros(0, int),) * 3
        matrix = coo_array((values, (rows, columns)), shape=(len(self.rows), len(self.costs))).tocsr()
        return milp(
            np.array(self.costs),
            integrality=np.array(self.whole),
            bounds=Bounds(0, np.array(self.high)),
            constraints=LinearConstraint(matrix, ub=np.array([most for _, _, most in self.rows])) if self.rows else (),
            options={"time_limit": seconds, "mip_rel_gap": 0.0},
        )


def optimise(problem: Problem, seconds: float = SECONDS) -> Optimum:
    """The cheapest plan within every rule.

    Args:
        problem: what is to be planned.
        seconds: how long to look for a better plan [s].

    Raises:
        InputError: no plan keeps every rule, or none was found in time.
    """
    model = _Model()
    x = {(i, day): model.column(o.cost) for i, o in enumerate(problem.options) for day in range(problem.days) if o.may(day)}
    if not x:
        return Optimum((), tally(problem, ()), 0.0)
    _cover(model, problem, x)
    _rules(model, problem, x)
    _runs(model, problem, x)
    _packages(model, problem, x)
    if problem.outing:
        outs = [model.column(problem.outing) for _ in range(problem.days)]
        for (_, day), c in x.items():
            model.at_most([c, outs[day]], [1, -1], 0)
    found = model.solve(seconds)
    values = getattr(found, "x", None)
    if values is None:
        why = "No plan keeps every rule." if getattr(found, "status", 0) == INFEASIBLE else "No plan was found in time."
        raise InputError("plan", None, why, "Leave out an area, or give it more time.")
    chosen = tuple(sorted((key for key, c in x.items() if values[c] > 0.5), key=lambda c: (c[1], c[0])))
    told = tally(problem, chosen)
    worth = float(sum(w.sum() for w in problem.worth.values()))
    bound = getattr(found, "mip_dual_bound", None)
    gap = 0.0 if getattr(found, "status", 1) == OPTIMAL or bound is None else max(0.0, told.total - float(bound) - worth)
    return Optimum(chosen, told, gap)


def _cover(model: _Model, problem: Problem, x: dict[Choice, int]) -> None:
    """A day's cover is no more than what reaches it, nor than all of it; what it is worth is earned."""
    for (area, target), worth in problem.worth.items():
        here = [(i, o, o.covers[target]) for i, o in enumerate(problem.options) if o.area == area and target in o.covers]
        for day in range(problem.days):
            if worth[day] <= 0:
                continue
            reach = [
                (x[i, on], share)
                for i, o, share in here
                for on in range(max(0, day - o.lasts + 1), day - o.lag + 1)
                if (i, on) in x
            ]
            if reach:
                z = model.column(-float(worth[day]), whole=False)
                model.at_most([z, *(c for c, _ in reach)], [1.0, *(-share for _, share in reach)], 0.0)


def _rules(model: _Model, problem: Problem, x: dict[Choice, int]) -> None:
    by = _by_product(problem)
    for mine in by.values():
        option = problem.options[mine[0]]
        for day in range(problem.days):
            clique = [x[i, d] for i in mine for d in range(day, min(problem.days, day + max(option.interval, 1))) if (i, d) in x]
            if len(clique) > 1:
                model.at_most(clique, [1] * len(clique), 1)
        if option.most is not None:
            every = [x[i, d] for i in mine for d in range(problem.days) if (i, d) in x]
            model.at_most(every, [1] * len(every), option.most)
    of = _of_areas(problem)
    for area in problem.areas:
        if problem.one_a_day:
            for day in range(problem.days):
                here = [x[i, day] for i in of[area] if (i, day) in x]
                model.at_most(here, [1] * len(here), 1)
        for (p, q), gap in problem.apart.items():
            for one, other in _pairs(problem, x, (area, p), (area, q), gap):
                model.at_most([one, other], [1, 1], 1)
    for (area, active), cap in problem.caps.items():
        held = [(c, a) for (i, _), c in x.items() if (o := problem.options[i]).area == area and (a := o.actives.get(active, 0.0))]
        model.at_most([c for c, _ in held], [a for _, a in held], cap)


def _of_areas(problem: Problem) -> dict[str, list[int]]:
    found: dict[str, list[int]] = {}
    for i, o in enumerate(problem.options):
        found.setdefault(o.area, []).append(i)
    return found


def _by_product(problem: Problem) -> dict[tuple[str, str], list[int]]:
    found: dict[tuple[str, str], list[int]] = {}
    for i, o in enumerate(problem.options):
        found.setdefault((o.area, o.product), []).append(i)
    return found


def _pairs(problem: Problem, x: dict[Choice, int], p: tuple[str, str], q: tuple[str, str], gap: int) -> Iterator[tuple[int, int]]:
    by = _by_product(problem)
    for i in by.get(p, ()):
        for j in by.get(q, ()):
            for a in range(problem.days):
                for b in range(max(0, a - gap + 1), min(problem.days, a + gap)):
                    if (i, a) in x and (j, b) in x:
                        yield x[i, a], x[j, b]


def _runs(model: _Model, problem: Problem, x: dict[Choice, int]) -> None:
    """How often a group has followed itself: counted up by each day with it, ended by a day with another and not with it."""
    of = _of_areas(problem)
    for area in problem.areas:
        for code, most in problem.in_a_row.items():
            before: int | None = None
            start = problem.runs.get((area, code), 0)
            for day in range(problem.days):
                here = [(x[i, day], problem.options[i]) for i in of[area] if (i, day) in x]
                own = [c for c, o in here if code in o.groups and o.covers]
                other = [c for c, o in here if code not in o.groups and o.covers]
                ends, has = model.column(0.0), model.column(0.0)
                run = model.column(0.0, high=most, whole=False)
                model.at_most([ends, *other], [1, *([-1] * len(other))], 0)
                for c in own:
                    model.at_most([ends, c], [1, 1], 1)
                    model.at_most([c, has], [1, -1], 0)
                # run >= before + has - most * ends
                columns, shares = [has, ends, run], [1.0, -float(max(most, start)), -1.0]
                if before is None:
                    model.at_most(columns, shares, -start)
                else:
                    model.at_most([*columns, before], [*shares, 1.0], 0)
                before = run


def _packages(model: _Model, problem: Problem, x: dict[Choice, int]) -> None:
    """What is used of a product is there, or bought in whole packages."""
    for product in {*problem.stock, *problem.packages}:
        used = [(c, problem.options[i].amount) for (i, _), c in x.items() if problem.options[i].product == product]
        if not used:
            continue
        columns, shares = [c for c, _ in used], [a for _, a in used]
        if package := problem.packages.get(product):
            most = math.ceil(sum(shares) / package.size)
            columns.append(model.column(package.price, high=most))
            shares.append(-package.size)
        model.at_most(columns, shares, problem.stock.get(product, 0.0))


def greedy(problem: Problem) -> Optimum:
    """The plan of somebody who takes, as long as it pays, whatever pays most next and breaks no rule."""
    chosen: list[Choice] = []
    every = [(i, d) for i, o in enumerate(problem.options) for d in range(problem.days) if o.may(d)]
    now = tally(problem, chosen).total
    while True:
        best = min(
            ((tally(problem, [*chosen, c]).total, c) for c in every if c not in chosen and not broken(problem, [*chosen, c])),
            default=None,
        )
        if best is None or best[0] >= now - 1e-9:
            break
        now = best[0]
        chosen.append(best[1])
    ordered = tuple(sorted(chosen, key=lambda c: (c[1], c[0])))
    return Optimum(ordered, tally(problem, ordered), math.inf)
