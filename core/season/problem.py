"""A season to be planned as a problem of choice: what may go down where on which day, what that protects, what it costs.

Days are numbered from 0. A choice is an option on a day; whether choices keep every rule, and what they come to, is told here
without any solver, so that plans made by whatever means are held against one measure. The rules are those of the gate in the
form that a year's plan takes: `core.ledger.gate` has the last word on each application.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from core.label.groups import multi_site

T = TypeVar("T")
Floats = NDArray[np.float64]
Choice = tuple[int, int]
"""An option's place and a day."""
Way = tuple[int, str]
"""A day and the machine that goes out on it."""
EXACT = 1e-9


@dataclass(frozen=True)
class Option:
    """A product, or a mix, on an area.

    `cost` of one application without what packages cost; `lasts` the days that it covers, its own first, `lag` days late;
    `interval` the least days from one of its product to the next, of two the longer; `covers` for each target how much of a day's
    need; `codes` its groups; `actives` what of each goes down [g/m²]; `amount` of product it takes; `most` how often this season
    yet; `days` those on which it may go down, all where none are told; `machine` what it goes out with, and for how many `hours`.
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
    machine: str = ""
    hours: float = 0.0

    def may(self, day: int) -> bool:
        """Whether it may go down on a day."""
        return self.days is None or day in self.days

    def all_days(self, count: int) -> list[int]:
        """The days of `count` on which it may go down, in order."""
        return list(range(count)) if self.days is None else sorted(d for d in self.days if 0 <= d < count)

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

    `worth` is what an unprotected day costs, by area and target, for each part of its need, which is 1 unless `need` tells it;
    `outing` what going out with a machine costs on a day, `change` what each further product does that goes out with it, for
    measuring and cleaning between; `apart` keeps the second product so many days away from the first,
    before and after it; `in_a_row` how often a group may follow itself, `runs` how often it has on an area before the first day;
    `caps` what of an active an area may still get [g/m²]; `stock` what is there of a product, `packages` what more is bought in;
    `one_a_day` whether an area takes one option a day; `hours` how long people are out on a day at the most; `fixed` what is
    chosen already; `before` the plan of before, from which no more is changed than pays.
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
    need: Mapping[tuple[str, str], Floats] = field(default_factory=dict)
    hours: float | None = None
    fixed: tuple[Choice, ...] = ()
    change: float = 0.0
    before: frozenset[Choice] = frozenset()

    def needed(self, area: str, target: str) -> Floats:
        """How much of a target each day of an area needs."""
        return self.need[area, target] if (area, target) in self.need else np.ones(self.days)

    @cached_property
    def areas(self) -> tuple[str, ...]:
        return tuple(dict.fromkeys(o.area for o in self.options))

    @cached_property
    def apart_of(self) -> dict[str, list[tuple[str, int]]]:
        """What is kept apart from each product, and by how many days; each pair once."""
        return _grouped((p, (q, gap)) for (p, q), gap in self.apart.items())

    @cached_property
    def caps_of(self) -> dict[str, list[tuple[str, float]]]:
        """The caps of each area by active [g/m²]."""
        return _grouped((area, (active, cap)) for (area, active), cap in self.caps.items())

    @cached_property
    def going(self) -> tuple[int, ...]:
        """The days on which anything may go down anew."""
        fixed = {i for i, _ in self.fixed}
        return tuple(sorted({d for i, o in enumerate(self.options) if i not in fixed for d in o.all_days(self.days)}))


def _grouped(pairs: Iterable[tuple[str, T]]) -> dict[str, list[T]]:
    found: dict[str, list[T]] = {}
    for key, value in pairs:
        found.setdefault(key, []).append(value)
    return found


@dataclass(frozen=True)
class Tally:
    """What choices come to: applications, product bought and outings [money], and the worth of days left unprotected."""

    applications: float
    packages: float
    outings: float
    exposed: float

    @property
    def product(self) -> float:
        """What goes down costs, and what is bought for it."""
        return self.applications + self.packages

    @property
    def total(self) -> float:
        return self.applications + self.packages + self.outings + self.exposed


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


def tally(problem: Problem, chosen: Sequence[Choice]) -> Tally:
    """What choices come to, summed exactly."""
    packages = math.fsum(bought(problem, chosen, product) for product in problem.packages)
    exposed = 0.0
    for (area, target), worth in problem.worth.items():
        exposed += float((worth * (problem.needed(area, target) - covered(problem, chosen, area, target))).sum())
    return Tally(math.fsum(problem.options[i].cost for i, _ in chosen), packages, ways(problem, chosen), exposed)


def ways(problem: Problem, chosen: Sequence[Choice]) -> float:
    """What going out costs: each machine on each day, and each product more than one that goes out with it [money]."""
    out = gone_out(problem, chosen)
    return problem.outing * len(out) + problem.change * sum(len(products) - 1 for products in out.values())


def gone_out(problem: Problem, chosen: Sequence[Choice]) -> dict[Way, set[str]]:
    """The products that go out with each machine on each day."""
    out: dict[Way, set[str]] = {}
    for i, day in chosen:
        option = problem.options[i]
        out.setdefault((day, option.machine), set()).add(option.product)
    return out


def used(problem: Problem, chosen: Sequence[Choice], product: str) -> float:
    """How much of a product choices take."""
    return sum(problem.options[i].amount for i, _ in chosen if problem.options[i].product == product)


def bought(problem: Problem, chosen: Sequence[Choice], product: str) -> float:
    """What the packages of a product cost that have to be bought for choices [money]."""
    package, short = problem.packages[product], used(problem, chosen, product) - problem.stock.get(product, 0.0)
    return math.ceil(short / package.size - EXACT) * package.price if short > EXACT else 0.0


def covered(problem: Problem, chosen: Sequence[Choice], area: str, target: str) -> Floats:
    """How much of each day's need of a target is met on an area: never more than it."""
    found = np.zeros(problem.days)
    for i, day in chosen:
        option = problem.options[i]
        if option.area == area and (share := option.covers.get(target)):
            found[day + option.lag : day + option.lasts] += share
    return np.minimum(found, problem.needed(area, target))


def broken(problem: Problem, chosen: Sequence[Choice], only: str = "") -> list[str]:
    """The rules that choices break, by their names; none where they keep all of them.

    Args:
        problem: what is planned.
        chosen: the choices.
        only: the one area that is asked about, of which the others are known to keep every rule; all where it is empty.
    """
    found, every = [], chosen if not only else [c for c in chosen if problem.options[c[0]].area == only]
    if any(not problem.options[i].may(day) or not 0 <= day < problem.days for i, day in every):
        found.append("day")
    if len(set(every)) < len(every):
        found.append("twice")
    if problem.hours is not None and any(h > problem.hours + EXACT for h in hours(problem, chosen).values()):
        found.append("hours")
    for area in (only,) if only else problem.areas:
        here = sorted(((day, problem.options[i]) for i, day in every if problem.options[i].area == area), key=lambda x: x[0])
        found += _on_area(problem, area, here)
    if any(p not in problem.packages and used(problem, chosen, p) > left + EXACT for p, left in problem.stock.items()):
        found.append("stock")
    return found


def hours(problem: Problem, chosen: Sequence[Choice]) -> dict[int, float]:
    """How many hours people are out, by the days on which anything goes down."""
    found: dict[int, float] = {}
    for i, day in chosen:
        found[day] = found.get(day, 0.0) + problem.options[i].hours
    return found


def _on_area(problem: Problem, area: str, here: Sequence[tuple[int, Option]]) -> list[str]:
    found = []
    by_product: dict[str, list[tuple[int, Option]]] = {}
    for day, option in here:
        by_product.setdefault(option.product, []).append((day, option))
    for mine in by_product.values():
        if any(b - a < max(o.interval, p.interval, 1) for (a, o), (b, p) in pairwise(mine)):
            found.append("interval")
        most = mine[0][1].most
        if most is not None and len(mine) > most:
            found.append("most")
    if problem.one_a_day and len({d for d, _ in here}) < len(here):
        found.append("one a day")
    for p, mine in by_product.items():
        for q, gap in problem.apart_of.get(p, ()):
            if q in by_product and any(abs(b - a) < gap for a, _ in mine for b, _ in by_product[q]):
                found.append("apart")
    for active, cap in problem.caps_of.get(area, ()):
        if sum(o.actives.get(active, 0.0) for _, o in here) > cap + EXACT:
            found.append("cap")
    return [*found, *_runs(problem, area, here)]


def _runs(problem: Problem, area: str, here: Sequence[tuple[int, Option]]) -> list[str]:
    """Groups that follow themselves more often than they may: days with anything else that covers end a run."""
    by_day: dict[int, list[Option]] = {}
    for day, option in here:
        if option.covers and option.codes:
            by_day.setdefault(day, []).append(option)
    for code, most in problem.in_a_row.items():
        run = problem.runs.get((area, code), 0)
        for day in sorted(by_day):
            run = run + 1 if any(code in o.groups for o in by_day[day]) else 0
            if run > most:
                return ["in a row"]
    return []
