"""The plan of a season that costs least within every rule, by mixed-integer programming, with a greedy one beside it.

Small years are solved whole; of several plans that cost the same it is the one that changes least. Larger ones are solved a part
at a time, with the least that any plan costs beside, so that the gap is true. Solved by HiGHS (Huangfu Q, Hall JAJ (2018) Math
Prog Comp 10:119-142) through its own binding, which tells how far it is and can be stopped. Costs are summed anew from what was
chosen.
"""

import math
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from time import monotonic

from core.errors import InputError
from core.season.greedy import greedy
from core.season.model import bare_worth, by_area, modelled
from core.season.problem import EXACT, Choice, Optimum, Option, Problem, broken, tally
from core.season.program import UNKNOWN, Limits, Program, Progress, Watch

SECONDS = 10.0
"""How long is looked for a better plan [s] (ours)."""


def optimise(problem: Problem, seconds: float = SECONDS, watch: Watch | None = None, first: Optimum | None = None) -> Optimum:
    """The cheapest plan within every rule that has in it what is fixed.

    Args:
        problem: what is to be planned.
        seconds: how long to look for a better plan [s].
        watch: told how far it is, and asked whether to go on.
        first: the greedy plan, where it is known already.

    Raises:
        InputError: no plan keeps every rule, or none was found in time.
    """
    if len(problem.areas) < 2 or sum(len(o.all_days(problem.days)) for o in problem.options) <= WHOLE:
        return _nearest(problem, seconds, watch)
    with ThreadPoolExecutor(1) as beside:  # on a core of its own: the least that any plan costs
        least = beside.submit(_relaxed, problem, seconds, watch)
        chosen = tuple(sorted(_by_parts(problem, seconds, watch, first or greedy(problem)), key=_in_order))
        told, bound = tally(problem, chosen), least.result()
    return Optimum(chosen, told, math.inf if bound is None else max(0.0, told.total - bound))


WHOLE = 1500
"""Choices up to which a year is solved whole; more of them are solved a part at a time (ours)."""
NEAR = 0.005
"""How near its best an area is planned at a time: the next turn may change it [share] (ours)."""
TURNS = 5
"""How often each part is planned anew with what the others do, at the most (ours)."""


def _relaxed(problem: Problem, seconds: float, watch: Watch | None) -> float | None:
    """The least that any plan costs, by letting choices be made in part; somewhat less where time is short."""
    until, model, worth = monotonic() + seconds, Program(), bare_worth(problem)
    modelled(model, problem)
    model.whole = [0] * len(model.whole)
    solved = model.solve(Limits(max(0.0, until - monotonic()), 0.0), watch and (lambda _: watch(UNKNOWN)), worth)
    return None if solved.least is None else worth + solved.least


def _solved(problem: Problem, seconds: float, watch: Watch | None, gap: float) -> Optimum:
    """The cheapest plan, or one that is dearer by a share of `gap` at the most."""
    model = Program()
    x = modelled(model, problem)
    if not x:
        return Optimum((), tally(problem, ()), 0.0)
    worth = bare_worth(problem)
    solved = model.solve(Limits(seconds, gap), watch, worth)
    if solved.values is None:
        why = "No plan keeps every rule." if solved.never else "No plan was found in time."
        raise InputError("plan", None, why, "Leave out an area, or give it more time.")
    chosen = _chosen(x, solved.values)
    told = tally(problem, chosen)
    least = -math.inf if solved.least is None else solved.least + worth
    return Optimum(chosen, told, 0.0 if solved.done else max(0.0, told.total - least))


def _nearest(problem: Problem, seconds: float, watch: Watch | None) -> Optimum:
    """The cheapest plan; of several the one that changes least of the plan of before, by a second search among them."""
    until = monotonic() + seconds
    best = _solved(problem, seconds, watch, 0.0)
    if not problem.before or not best.proven or problem.before <= set(best.chosen):
        return best
    model = Program()
    x = modelled(model, problem)
    most = best.tally.total - bare_worth(problem)
    every = range(len(model.costs))
    model.at_most(list(every), [model.costs[c] for c in every], most + EXACT * max(1.0, abs(most)))
    changed = {column: -1.0 if choice in problem.before else 1.0 for choice, column in x.items()}
    model.costs = [changed.get(c, 0.0) for c in every]
    solved = model.solve(Limits(max(0.1, until - monotonic()), 0.0), watch and (lambda _: watch(UNKNOWN)), 0.0)
    chosen = _chosen(x, solved.values) if solved.values else best.chosen
    told = tally(problem, chosen)
    kept = told.total <= best.tally.total + EXACT * max(1.0, best.tally.total) and not broken(problem, chosen)
    return replace(best, chosen=chosen, tally=told) if kept else best


def _chosen(x: dict[Choice, int], values: Sequence[float]) -> tuple[Choice, ...]:
    return tuple(sorted((key for key, c in x.items() if values[c] > 0.5), key=_in_order))


def _in_order(choice: Choice) -> tuple[int, int]:
    return choice[1], choice[0]


def _by_parts(problem: Problem, seconds: float, watch: Watch | None, first: Optimum) -> list[Choice]:
    """A good plan of many areas: begun greedily or as before, then each part of it in turn, going out where the others do.

    Feeding and protection of an area are parts of their own until that gains little; then whole areas, while there is time.

    Args:
        problem: what is to be planned.
        seconds: how long it may take [s].
        watch: asked whether to go on.
        first: the greedy plan.
    """
    until = monotonic() + seconds
    old = _as_before(problem) if problem.before else first
    begun = old.tally.total <= first.tally.total and old is not first
    best, total = list((old if begun else first).chosen), min(old.tally.total, first.tally.total)
    parts, split = _parts(problem), True
    for turn in range(int(begun), TURNS):
        before = total
        for area, part in parts:
            left = until - monotonic()
            if left <= 0 or (watch and not watch(Progress(total, None))):
                return best
            share = problem.outing / len(problem.areas) if not turn else problem.outing
            others = [c for c in best if c[0] not in part]
            try:
                found = [*others, *_alone(problem, part, others, share, left, watch)]
            except InputError:
                continue
            if not broken(problem, found, area) and (cost := tally(problem, found).total) < total:
                best, total = found, cost
        if turn and before - total <= NEAR * total:
            if begun or not split:
                break
            parts, split = [(area, frozenset(mine)) for area, mine in by_area(problem).items()], False
    return best


def _parts(problem: Problem) -> list[tuple[str, frozenset[int]]]:
    """The options of each area in parts that bear on each other by target, product, group or cap: feeding beside protection."""
    found: list[tuple[str, frozenset[int]]] = []
    for area, mine in by_area(problem).items():
        by: dict[tuple[str, str], set[int]] = {}
        for i in mine:
            o = problem.options[i]
            capped = [("cap", a) for a in o.actives if (area, a) in problem.caps]
            for key in (("product", o.product), *(("target", t) for t in o.covers), *(("group", g) for g in o.groups), *capped):
                by.setdefault(key, set()).add(i)
        parts: list[set[int]] = []
        for linked in by.values():
            near = [p for p in parts if p & linked]
            parts = [p for p in parts if not p & linked] + [linked.union(*near)]
        found += [(area, frozenset(p)) for p in parts]
    return found


def _as_before(problem: Problem) -> Optimum:
    """The plan of before as far as it may still be, with whatever else pays."""
    kept = list(problem.fixed)
    for choice in sorted(problem.before, key=_in_order):
        if choice not in kept and not broken(problem, [*kept, choice], problem.options[choice[0]].area):
            kept.append(choice)
    return greedy(replace(problem, fixed=tuple(kept)))


def _alone(
    problem: Problem, part: frozenset[int], others: Sequence[Choice], outing: float, seconds: float, watch: Watch | None
) -> list[Choice]:
    """The best plan of a part of an area with what the others do."""
    own = sorted(part)
    area, targets = problem.options[own[0]].area, {t for i in own for t in problem.options[i].covers}
    options, fixed = [problem.options[i] for i in own], [(own.index(i), d) for i, d in problem.fixed if i in part]
    for n, (i, day) in enumerate(others):
        o = problem.options[i]
        where = area if o.area == area else f"beside-{n}"
        fixed.append((len(options), day))
        options.append(Option(where, o.product, 0.0, 1, amount=o.amount, days=frozenset({day}), machine=o.machine, hours=o.hours))
    alone = replace(
        problem,
        options=tuple(options),
        worth={key: w for key, w in problem.worth.items() if key[0] == area and key[1] in targets},
        caps={key: cap for key, cap in problem.caps.items() if key[0] == area},
        outing=outing,
        fixed=tuple(fixed),
    )
    asks = watch and (lambda _: watch(UNKNOWN))
    return [(own[i], d) for i, d in _solved(alone, seconds, asks, NEAR).chosen if i < len(own)]
