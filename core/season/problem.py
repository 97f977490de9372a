"""A season to be planned as a problem of choice: what may go down where on which day, what that protects, what it costs.

Days are numbered from 0. A choice is an option on a day; whether choices keep every rule, and what they come to, is told here
without any solver, so that plans made by whatever means are held against one measure. The rules are those of the gate in the
form that a year's plan takes: `core.ledger.gate` has the last word on each application.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from core.label.groups import multi_site

Floats = NDArray[np.float64]
Choice = tuple[int, int]
"""An option's place and a day."""
EXACT = 1e-9


@dataclass(frozen=True)
class Option:
    """A product, or a mix, on an area.

    `cost` of one application without what packages cost; `lasts` the days that it covers, its own first, `lag` days late;
    `interval` the least days from one to the next; `covers` for each target how well, 0 to 1; `codes` its groups; `actives` what
    of each goes down [g/m²]; `amount` of product it takes; `most` how often this season yet; `days` those on which it may go
    down, all where none are told.
    """

    area: str
    product: str
    cost: float
    lasts: int
    interval: int = 1
    covers: Mapping[str, float] = field(default_factory=dict)
    codes: tuple[str, ...] = ()
    actives: Mapping[str, float] = field(default_factory=dict)
    amount: float = 0.0
    most: int | None = None
    days: frozenset[int] | None = None
    lag: int = 0

    def may(self, day: int) -> bool:
        """Whether it may go down on a day."""
        return self.days is None or day in self.days

    @property
    def groups(self) -> tuple[str, ...]:
        """Its groups of which so many in a row count: multi-site ones do not."""
        return tuple(c for c in self.codes if not multi_site(c))


@dataclass(frozen=True)
class Package:
    """What is bought of a product at once: how much, and for how much money."""

    size: float
    price: float


@dataclass(frozen=True)
class Problem:
    """What is to be planned over `days`.

    `worth` is what an unprotected day costs, by area and target; `outing` what going out costs on a day; `apart` keeps the second
    product so many days away from the first, before and after it; `in_a_row` how often a group may follow itself, `runs` how
    often it has on an area before the first day; `caps` what of an active an area may still get [g/m²]; `stock` what is there of
    a product, `packages` what more is bought in; `one_a_day` whether an area takes one option a day.
    """

    days: int
    options: tuple[Option, ...]
    worth: Mapping[tuple[str, str], Floats]
    outing: float = 0.0
    apart: Mapping[tuple[str, str], int] = field(default_factory=dict)
    in_a_row: Mapping[str, int] = field(default_factory=dict)
    runs: Mapping[tuple[str, str], int] = field(default_factory=dict)
    caps: Mapping[tuple[str, str], float] = field(default_factory=dict)
    stock: Mapping[str, float] = field(default_factory=dict)
    packages: Mapping[str, Package] = field(default_factory=dict)
    one_a_day: bool = False

    @property
    def areas(self) -> tuple[str, ...]:
        return tuple(dict.fromkeys(o.area for o in self.options))


@dataclass(frozen=True)
class Tally:
    """What choices come to: applications, product bought and outings [money], and the worth of days left unprotected."""

    applications: float
    packages: float
    outings: float
    exposed: float

    @property
    def total(self) -> float:
        return self.applications + self.packages + self.outings + self.exposed


def tally(problem: Problem, chosen: Sequence[Choice]) -> Tally:
    """What choices come to, summed exactly."""
    need: dict[str, float] = {}
    for i, _ in chosen:
        need[problem.options[i].product] = need.get(problem.options[i].product, 0.0) + problem.options[i].amount
    packages = 0.0
    for product, amount in need.items():
        if product in problem.packages and amount > problem.stock.get(product, 0.0) + EXACT:
            short = amount - problem.stock.get(product, 0.0)
            packages += math.ceil(short / problem.packages[product].size - EXACT) * problem.packages[product].price
    exposed = 0.0
    for (area, target), worth in problem.worth.items():
        exposed += float((worth * (1 - covered(problem, chosen, area, target))).sum())
    return Tally(
        math.fsum(problem.options[i].cost for i, _ in chosen), packages, problem.outing * len({day for _, day in chosen}), exposed
    )


def covered(problem: Problem, chosen: Sequence[Choice], area: str, target: str) -> Floats:
    """How far each day of an area is covered against a target, 0 to 1."""
    found = np.zeros(problem.days)
    for i, day in chosen:
        option = problem.options[i]
        if option.area == area and (share := option.covers.get(target)):
            found[day + option.lag : day + option.lasts] += share
    return np.minimum(found, 1.0)


def broken(problem: Problem, chosen: Sequence[Choice]) -> list[str]:
    """The rules that choices break, by their names; none where they keep all of them."""
    found = []
    if any(not problem.options[i].may(day) or not 0 <= day < problem.days for i, day in chosen):
        found.append("day")
    if len(set(chosen)) < len(chosen):
        found.append("twice")
    for area in problem.areas:
        here = sorted(((day, problem.options[i]) for i, day in chosen if problem.options[i].area == area), key=lambda x: x[0])
        found += _on_area(problem, area, here)
    need: dict[str, float] = {}
    for i, _ in chosen:
        need[problem.options[i].product] = need.get(problem.options[i].product, 0.0) + problem.options[i].amount
    if any(p not in problem.packages and a > problem.stock[p] + EXACT for p, a in need.items() if p in problem.stock):
        found.append("stock")
    return found


def _on_area(problem: Problem, area: str, here: Sequence[tuple[int, Option]]) -> list[str]:
    found = []
    by_product: dict[str, list[tuple[int, Option]]] = {}
    for day, option in here:
        by_product.setdefault(option.product, []).append((day, option))
    for mine in by_product.values():
        if any(b - a < max(o.interval, 1) for (a, o), (b, _) in pairwise(mine)):
            found.append("interval")
        most = mine[0][1].most
        if most is not None and len(mine) > most:
            found.append("most")
    if problem.one_a_day and len({d for d, _ in here}) < len(here):
        found.append("one a day")
    for (p, q), gap in problem.apart.items():
        if any(abs(b - a) < gap for a, _ in by_product.get(p, ()) for b, _ in by_product.get(q, ())):
            found.append("apart")
    for (where, active), cap in problem.caps.items():
        if where == area and sum(o.actives.get(active, 0.0) for _, o in here) > cap + EXACT:
            found.append("cap")
    return [*found, *_runs(problem, area, here)]


def _runs(problem: Problem, area: str, here: Sequence[tuple[int, Option]]) -> list[str]:
    """Groups that follow themselves more often than they may: days with anything else that covers end a run."""
    by_day: dict[int, list[Option]] = {}
    for day, option in here:
        if option.covers:
            by_day.setdefault(day, []).append(option)
    for code, most in problem.in_a_row.items():
        run = problem.runs.get((area, code), 0)
        for day in sorted(by_day):
            run = run + 1 if any(code in o.groups for o in by_day[day]) else 0
            if run > most:
                return ["in a row"]
    return []
