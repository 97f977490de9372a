"""A season's problem of choice as the rows and columns of a mixed-integer program.

Binary choices; cover as shares; intervals as cliques; what is kept apart by pairs; packages as whole numbers; an outing for each
machine on each day that it is gone out with, dearer by each further product; a group's run as a count that another group ends.
Days that the same choices reach are one.
"""

import math
from collections.abc import Iterator, Sequence

from core.season.problem import Choice, Problem, Way, gone_out, ways
from core.season.program import Program


def bare_worth(problem: Problem) -> float:
    """What all days come to without any cover, and going out with what is fixed [money]."""
    return float(sum((w * problem.needed(*key)).sum() for key, w in problem.worth.items())) + ways(problem, problem.fixed)


def modelled(model: Program, problem: Problem) -> dict[Choice, int]:
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
    by_product = _by_product(problem)
    for mine in by_product.values():
        _intervals(model, problem, x, mine)
        most = problem.options[mine[0]].most
        if most is not None:
            every = [x[i, d] for i in mine for d in problem.options[i].all_days(problem.days)]
            model.at_most(every, [1] * len(every), most)
    of = by_area(problem)
    for area in problem.areas:
        if problem.one_a_day:
            for day in range(problem.days):
                here = [x[i, day] for i in of[area] if (i, day) in x]
                model.at_most(here, [1] * len(here), 1)
        for (p, q), gap in problem.apart.items() if len(of[area]) > 1 else ():
            for one, other in _pairs(problem, x, by_product.get((area, p), ()), by_product.get((area, q), ()), gap):
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


def by_area(problem: Problem) -> dict[str, list[int]]:
    """The options of each area, by their places."""
    found: dict[str, list[int]] = {}
    for i, o in enumerate(problem.options):
        found.setdefault(o.area, []).append(i)
    return found


def _by_product(problem: Problem) -> dict[tuple[str, str], list[int]]:
    found: dict[tuple[str, str], list[int]] = {}
    for i, o in enumerate(problem.options):
        found.setdefault((o.area, o.product), []).append(i)
    return found


def _pairs(problem: Problem, x: dict[Choice, int], p: Sequence[int], q: Sequence[int], gap: int) -> Iterator[tuple[int, int]]:
    for i in p:
        for j in q:
            others = problem.options[j].all_days(problem.days)
            for a in problem.options[i].all_days(problem.days):
                yield from ((x[i, a], x[j, b]) for b in others if abs(b - a) < gap)


def _runs(model: Program, problem: Problem, x: dict[Choice, int]) -> None:
    """How often a group has followed itself: counted up by each day with it, ended by a day with another and not with it."""
    of = by_area(problem)
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
                ends, has, high = model.column(0.0), model.column(0.0), max(most, start)
                run = model.column(0.0, high=high, whole=False)
                model.at_most([run, has], [1, high - most], high)  # a run that was too long before may stand, not go on
                model.at_most([ends, *other], [1, *([-1] * len(other))], 0)
                for c in own:
                    model.at_most([ends, c], [1, 1], 1)
                    model.at_most([c, has], [1, -1], 0)
                # run >= before + has - most * ends
                columns, shares = [has, ends, run], [1.0, -float(high), -1.0]
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
    """A machine goes out on a day, at its cost, where anything goes down with it; and people are out no longer than they can.

    Where it goes out anyway, with what is fixed, only a product of which it has none costs a change.
    """
    goes: dict[Way, dict[str, list[int]]] = {}
    for (i, day), c in x.items():
        o = problem.options[i]
        if (i, day) not in problem.fixed:
            goes.setdefault((day, o.machine), {}).setdefault(o.product, []).append(c)
    out = gone_out(problem, problem.fixed)
    for way, by_product in goes.items() if problem.outing or problem.change else ():
        if there := out.get(way):
            for product in by_product.keys() - there:
                _any_of(model, by_product[product], problem.change)
        elif problem.change and len(by_product) > 1:
            each = [_any_of(model, mine, problem.change) for mine in by_product.values()]
            goes_out = _any_of(model, [c for mine in by_product.values() for c in mine], problem.outing - problem.change)
            model.at_most([goes_out, *each], [1.0, *([-1.0] * len(each))], 0.0)
        else:
            _any_of(model, [c for mine in by_product.values() for c in mine], problem.outing)
    if problem.hours is not None:
        for day in sorted({d for _, d in x}):
            on = [(c, problem.options[i].hours) for (i, d), c in x.items() if d == day]
            model.at_most([c for c, _ in on], [h for _, h in on], problem.hours)


def _any_of(model: Program, columns: Sequence[int], cost: float) -> int:
    """The number of what is 1 where any of some choices is made, at its cost."""
    if len(columns) == 1:
        model.costs[columns[0]] += cost
        return columns[0]
    found = model.column(cost, whole=False)
    for c in columns:
        model.at_most([c, found], [1, -1], 0)
    return found
