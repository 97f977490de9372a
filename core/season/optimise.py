"""The plan of a season that costs least within every rule, by mixed-integer programming, with a greedy one beside it.

The model: binary choices; cover as shares; intervals as cliques; what is kept apart by pairs; packages as whole numbers; an
outing for each machine on each day that it is gone out with; a group's run as a count that another group ends. Days that
the same choices reach are one. Solved by HiGHS (Huangfu Q, Hall JAJ (2018) Math Prog Comp 10:119-142) through its own binding,
which tells how far it is and can be stopped. Costs are summed anew from what was chosen.
"""

import math
from collections.abc import Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from operator import mul
from time import monotonic

from core.errors import InputError
from core.season.greedy import greedy
from core.season.problem import Choice, Optimum, Option, Problem, broken, tally
from core.season.program import UNKNOWN, Limits, Program, Progress, Watch

SECONDS = 10.0
"""How long is looked for a better plan [s] (ours)."""


def optimise(problem: Problem, seconds: float = SECONDS, watch: Watch | None = None) -> Optimum:
    """The cheapest plan within every rule that has in it what is fixed.

    Args:
        problem: what is to be planned.
        seconds: how long to look for a better plan [s].
        watch: told how far it is, and asked whether to go on.

    Raises:
        InputError: no plan keeps every rule, or none was found in time.
    """
    if len(problem.areas) < 2 or sum(len(o.all_days(problem.days)) for o in problem.options) <= WHOLE:
        return _solved(problem, seconds, watch, 0.0)
    with ThreadPoolExecutor(1) as beside:  # on a core of its own: the least that any plan costs
        least = beside.submit(_relaxed, problem, seconds, watch)
        chosen = tuple(sorted(_by_areas(problem, seconds, watch), key=_in_order))
        told, bound = tally(problem, chosen), least.result()
    return Optimum(chosen, told, math.inf if bound is None else max(0.0, told.total - bound))


WHOLE = 1500
"""Choices up to which a year is solved whole; more of them are solved an area at a time (ours)."""
NEAR = 0.005
"""How near its best an area is planned at a time: the next turn may change it [share] (ours)."""
TURNS = 4
"""How often each area is planned anew with what the others do, at the most (ours)."""


def _relaxed(problem: Problem, seconds: float, watch: Watch | None) -> float | None:
    """The least that any plan costs, by letting choices be made in part; None where that is not known in time."""
    model, worth = Program(), _worth(problem)
    _program(model, problem)
    model.whole = [0] * len(model.whole)
    solved = model.solve(Limits(seconds, 0.0), watch and (lambda _: watch(UNKNOWN)), worth)
    return None if solved.values is None or not solved.done else worth + math.fsum(map(mul, model.costs, solved.values))


def _worth(problem: Problem) -> float:
    """What all days come to without any cover [money]."""
    return float(sum((w * problem.needed(*key)).sum() for key, w in problem.worth.items()))


def _program(model: Program, problem: Problem) -> dict[Choice, int]:
    """The whole program, and the number of each choice in it."""
    fixed = set(problem.fixed)
    x = {
        (i, day): model.column(o.cost, low=float((i, day) in fixed))
        for i, o in enumerate(problem.options)
        for day in o.all_days(problem.days)
    }
    _cover(model, problem, x)
    _rules(model, problem, x)
    _runs(model, problem, x)
    _packages(model, problem, x)
    _outings(model, problem, x)
    return x


def _solved(problem: Problem, seconds: float, watch: Watch | None, gap: float) -> Optimum:
    """The cheapest plan, or one that is dearer by a share of `gap` at the most."""
    model = Program()
    x = _program(model, problem)
    if not x:
        return Optimum((), tally(problem, ()), 0.0)
    worth = _worth(problem)
    solved = model.solve(Limits(seconds, gap), watch, worth)
    if solved.values is None:
        why = "No plan keeps every rule." if solved.never else "No plan was found in time."
        raise InputError("plan", None, why, "Leave out an area, or give it more time.")
    chosen = tuple(sorted((key for key, c in x.items() if solved.values[c] > 0.5), key=_in_order))
    told = tally(problem, chosen)
    least = -math.inf if solved.least is None else solved.least + worth
    return Optimum(chosen, told, 0.0 if solved.done else max(0.0, told.total - least))


def _in_order(choice: Choice) -> tuple[int, int]:
    return choice[1], choice[0]


def _by_areas(problem: Problem, seconds: float, watch: Watch | None) -> list[Choice]:
    """A good plan of many areas: begun greedily, then each area in turn, going out where the others do.

    Args:
        problem: what is to be planned.
        seconds: how long it may take [s].
        watch: asked whether to go on.
    """
    until, first = monotonic() + seconds, greedy(problem)
    best, total = list(first.chosen), first.tally.total
    for turn in range(TURNS):
        before = total
        for area in problem.areas:
            left = until - monotonic()
            if left <= 0 or (watch and not watch(Progress(total, None))):
                return best
            others = [c for c in best if problem.options[c[0]].area != area]
            share = problem.outing / len(problem.areas) if not turn else problem.outing
            try:
                found = [*others, *_alone(problem, area, others, share, left, watch)]
            except InputError:
                continue
            if not broken(problem, found) and (cost := tally(problem, found).total) < total:
                best, total = found, cost
        if turn and before - total <= NEAR * total:
            break
    return best


def _alone(
    problem: Problem, area: str, others: Sequence[Choice], outing: float, seconds: float, watch: Watch | None
) -> list[Choice]:
    """The best plan of one area with what the others do."""
    own = [i for i, o in enumerate(problem.options) if o.area == area]
    options, fixed = [problem.options[i] for i in own], [(own.index(i), d) for i, d in problem.fixed if i in own]
    for n, (i, day) in enumerate(others):
        o = problem.options[i]
        beside = Option(
            f"beside-{n}", o.product, 0.0, 1, amount=o.amount, days=frozenset({day}), machine=o.machine, hours=o.hours
        )
        fixed.append((len(options), day))
        options.append(beside)
    part = replace(
        problem,
        options=tuple(options),
        worth={key: w for key, w in problem.worth.items() if key[0] == area},
        caps={key: cap for key, cap in problem.caps.items() if key[0] == area},
        outing=outing,
        fixed=tuple(fixed),
    )
    asks = watch and (lambda _: watch(UNKNOWN))
    return [(own[i], d) for i, d in _solved(part, seconds, asks, NEAR).chosen if i < len(own)]


def _cover(model: Program, problem: Problem, x: dict[Choice, int]) -> None:
    """A day's cover is no more than what reaches it, nor than its need; what it is worth is earned.

    Days of one need that the same choices reach have one cover, worth what all of them are.
    """
    for (area, target), worth in problem.worth.items():
        reach: dict[int, list[tuple[int, float]]] = {}
        for (i, on), column in x.items():
            o = problem.options[i]
            if o.area == area and (share := o.covers.get(target)):
                for day in range(on + o.lag, min(problem.days, on + o.lasts)):
                    reach.setdefault(day, []).append((column, share))
        needed, alike = problem.needed(area, target), dict[tuple[float, tuple[tuple[int, float], ...]], float]()
        for day, mine in reach.items():
            if worth[day] > 0 and needed[day] > 0:
                key = (float(needed[day]), tuple(mine))
                alike[key] = alike.get(key, 0.0) + float(worth[day])
        for (need, columns), earned in alike.items():
            z = model.column(-earned, high=need, whole=False)
            model.at_most([z, *(c for c, _ in columns)], [1.0, *(-share for _, share in columns)], 0.0)


def _rules(model: Program, problem: Problem, x: dict[Choice, int]) -> None:
    for mine in _by_product(problem).values():
        _intervals(model, problem, x, mine)
        most = problem.options[mine[0]].most
        if most is not None:
            every = [x[i, d] for i in mine for d in problem.options[i].all_days(problem.days)]
            model.at_most(every, [1] * len(every), most)
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


def _intervals(model: Program, problem: Problem, x: dict[Choice, int], mine: Sequence[int]) -> None:
    """One application of a product within the interval of each, by whichever rows of its label: the longer one counts."""
    least = {i: max(problem.options[i].interval, 1) for i in mine}
    days = {i: problem.options[i].all_days(problem.days) for i in mine}
    for long in sorted(set(least.values())):
        same = sorted((d, x[i, d]) for i in mine if least[i] == long for d in days[i])
        last: set[int] = set()
        for day in sorted({d for d, _ in same}):
            clique = {c for d, c in same if day <= d < day + long}
            if len(clique) > 1 and not clique <= last:
                model.at_most(list(clique), [1] * len(clique), 1)
                last = clique
        for i in mine:
            for day in days[i] if least[i] < long else ():
                for near in ([c for d, c in same if day <= d < day + long], [c for d, c in same if day - long < d < day]):
                    if near:
                        model.at_most([x[i, day], *near], [1] * (len(near) + 1), 1)


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
            others = problem.options[j].all_days(problem.days)
            for a in problem.options[i].all_days(problem.days):
                yield from ((x[i, a], x[j, b]) for b in others if abs(b - a) < gap)


def _runs(model: Program, problem: Problem, x: dict[Choice, int]) -> None:
    """How often a group has followed itself: counted up by each day with it, ended by a day with another and not with it."""
    of = _of_areas(problem)
    for area in problem.areas:
        covering = [i for i in of[area] if problem.options[i].covers and problem.options[i].codes]
        for code, most in problem.in_a_row.items():
            if not any(code in problem.options[i].groups for i in covering):
                continue
            before: int | None = None
            start = problem.runs.get((area, code), 0)
            for day in sorted({d for i in covering for d in problem.options[i].all_days(problem.days)}):
                here = [(x[i, day], problem.options[i]) for i in covering if (i, day) in x]
                own = [c for c, o in here if code in o.groups]
                other = [c for c, o in here if code not in o.groups]
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


def _packages(model: Program, problem: Problem, x: dict[Choice, int]) -> None:
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


def _outings(model: Program, problem: Problem, x: dict[Choice, int]) -> None:
    """A machine goes out on a day, at its cost, where anything goes down with it; and people are out no longer than they can."""
    outs: dict[tuple[int, str], int] = {}
    for (i, day), c in x.items():
        if problem.outing:
            key = (day, problem.options[i].machine)
            if key not in outs:
                outs[key] = model.column(problem.outing)
            model.at_most([c, outs[key]], [1, -1], 0)
    if problem.hours is not None:
        for day in sorted({d for _, d in x}):
            out = [(c, problem.options[i].hours) for (i, d), c in x.items() if d == day]
            model.at_most([c for c, _ in out], [h for _, h in out], problem.hours)
