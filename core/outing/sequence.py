"""The order of an outing: as much of it as can be done, within every rule, with the earliest end; and why the rest cannot.

Solved by constraint programming, CP-SAT of OR-Tools (Perron L, Didier F (2023) CP-SAT, Google), a worker alone and from a fixed
seed, so that the same outing has the same order. Of orders that end alike it is one that begins everything early.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from importlib import import_module
from itertools import combinations, pairwise
from typing import Any

from core.outing.between import Apart, Asked, asked
from core.outing.jobs import Job, Leg, Span, meet

SECONDS = 4.0
"""How long one order may be looked for [s] (ours)."""
EARLY, TIDY = 2, 0.02
"""The turn in which everything is begun as early as it can be, and how long that is tried, in the solver's own time (ours)."""
EXACT = 1000
"""A weight is told apart to this share (ours)."""


@dataclass(frozen=True)
class Morning:
    """What is to be put in order: jobs from one minute on and until another, by so many people.

    The legs of each job are in driving order; `travel` is how long it takes from one site to another [min]; `apart` what may not
    go down together on one day.
    """

    jobs: tuple[Job, ...]
    begin: int
    end: int
    travel: Mapping[tuple[str, str], int]
    people: int = 1
    apart: tuple[Apart, ...] = ()

    def without(self, *keys: str) -> "Morning":
        """The morning without some jobs, and without the water of theirs that then serves none."""
        kept = [j for j in self.jobs if j.key not in keys]
        there = {j.key for j in kept}
        watered = [replace(j, serves=tuple(s for s in j.serves if s in there)) for j in kept]
        jobs = tuple(j for j, old in zip(watered, kept, strict=True) if j.serves or not old.serves)
        return replace(self, jobs=jobs, apart=tuple(a for a in self.apart if {a.one, a.other} <= {j.key for j in jobs}))


@dataclass(frozen=True)
class Timed:
    """A leg of a job with its time; on its job's first leg `ready` is when measuring for it begins, on the last `cleaned` when
    the machine is clean again.
    """

    job: str
    leg: int
    begin: int
    end: int
    ready: int | None = None
    cleaned: int | None = None


@dataclass(frozen=True)
class Left:
    """A job that cannot be done that day: for want of fit `hours`, its mix being too old before its last leg (`life`), `against`
    another by a rule, or for want of time with all.
    """

    job: str
    against: str = ""
    rule: Asked | None = None
    hours: bool = False
    life: bool = False


@dataclass(frozen=True)
class Order:
    """Legs in the order of their begin, what is left for another day, when all of it is over, and whether none ends earlier.

    `gave` is the common practice that gave way.
    """

    legs: tuple[Timed, ...]
    left: tuple[Left, ...]
    end: int
    proven: bool
    gave: tuple[Asked, ...] = ()

    def at(self, job: str) -> tuple[Timed, ...]:
        return tuple(t for t in self.legs if t.job == job)


def sequence(morning: Morning, seconds: float = SECONDS) -> Order:
    """The order of a morning.

    Args:
        morning: what is to be done.
        seconds: how long it may be looked for [s].

    Returns:
        Every job is among its legs or among what is left.
    """
    rules = asked(morning.jobs, morning.apart)
    found = _Model(morning, rules).solved(seconds)
    done = {t.job for t in found.legs}
    left = [j for j in morning.jobs if j.key not in done and not j.serves]
    told = tuple(_why(morning, rules, j, [k for k in morning.jobs if k.key in done], seconds) for j in left)
    return replace(found, left=told)


def _why(morning: Morning, rules: Sequence[Asked], job: Job, others: Sequence[Job], seconds: float) -> Left:
    """Why a job cannot be done: alone, or with one other, or with all of them."""
    alone = _only(morning, job.key)
    if not _can(alone, rules, seconds):
        fresh = replace(alone, jobs=tuple(replace(j, life=None) for j in alone.jobs))
        return Left(job.key, hours=True, life=job.life is not None and _can(fresh, rules, seconds))
    for other in others:
        if other.serves or _can(_only(morning, job.key, other.key), rules, seconds):
            continue
        pair = _only(morning, job.key, other.key)
        keys = {j.key for j in pair.jobs}
        between = [r for r in rules if r.first in keys and r.second in keys and not r.practice]
        broken = next((r for r in between if _can(pair, [x for x in rules if x.text != r.text], seconds)), None)
        return Left(job.key, other.key, broken)
    return Left(job.key)


def _only(morning: Morning, *keys: str) -> Morning:
    """A morning of some jobs alone, with the water that serves them."""
    return morning.without(*(j.key for j in morning.jobs if j.key not in keys and not set(j.serves) & set(keys)))


def _can(morning: Morning, rules: Sequence[Asked], seconds: float) -> bool:
    """Whether all of a morning can be done."""
    keys = {j.key for j in morning.jobs}
    mine = [r for r in rules if r.first in keys and r.second in keys]
    return {t.job for t in _Model(morning, mine).solved(seconds, first_only=True).legs} == keys


class _Model:
    """A morning as a program of CP-SAT."""

    def __init__(self, morning: Morning, rules: Sequence[Asked]) -> None:
        self.cp: Any = import_module("ortools.sat.python.cp_model")  # slow to load, and for outings alone
        self.m: Any = self.cp.CpModel()
        self.morning, self.rules = morning, rules
        self.jobs = {j.key: j for j in morning.jobs}
        self.there: dict[str, Any] = {}
        self.start: dict[tuple[str, int], Any] = {}
        self.ready: dict[str, Any] = {}
        self.clean: dict[str, Any] = {}
        self.hands: list[tuple[str, Any, int, str]] = []
        self.gave: list[tuple[Any, Asked]] = []
        self.who: dict[str, Any] = {}
        self.before: dict[tuple[tuple[str, int], tuple[str, int]], Any] = {}
        for job in morning.jobs:
            self._job(job)
        self._watered()
        self._people()
        self._machines()
        self._grounds()

    def _job(self, job: Job) -> None:
        m, begin, end = self.m, self.morning.begin, self.morning.end
        self.there[job.key] = here = m.new_bool_var(f"does {job.key}")
        for n, leg in enumerate(job.legs):
            allowed = meet(leg.begins(end), [(begin, end)])
            if not allowed:
                m.add(here == 0)
            start = m.new_int_var_from_domain(self._domain(allowed or [(begin, begin + 1)]), f"{job.key} {n}")
            self.start[job.key, n] = start
            if job.hands:
                self.hands.append((job.key, start, leg.minutes, leg.site))
        legs = [(self.start[job.key, n], leg) for n, leg in enumerate(job.legs)]
        if job.ready:
            self.ready[job.key] = at = m.new_int_var(begin, end, f"ready {job.key}")
            self.hands.append((job.key, at, job.ready, job.legs[0].site))
            m.add(legs[0][0] >= at + job.ready).only_enforce_if(here)
        if job.clean:
            self.clean[job.key] = at = m.new_int_var(begin, max(begin, end - job.clean), f"clean {job.key}")
            self.hands.append((job.key, at, job.clean, job.legs[-1].site))
            m.add(at >= legs[-1][0] + job.legs[-1].minutes).only_enforce_if(here)
        for (one, leg), (other, then) in pairwise(legs):
            m.add(other >= one + leg.minutes + (self._way(leg.site, then.site) if job.hands else 0)).only_enforce_if(here)
        if job.life is not None:
            made = self.ready[job.key] + job.ready if job.ready else legs[0][0]
            m.add(legs[-1][0] + job.legs[-1].minutes - made <= job.life).only_enforce_if(here)

    def _domain(self, spans: Sequence[Span]) -> Any:
        return self.cp.Domain.from_intervals([[a, b - 1] for a, b in spans])

    def _watered(self) -> None:
        """Water comes where anything that it serves is done, and nothing that is watered in goes without."""
        for w in self.morning.jobs:
            if w.serves:
                self.m.add_max_equality(self.there[w.key], [self.there[s] for s in w.serves])

    def _people(self) -> None:
        """Nobody is at two things at once, nor at two places without the way between."""
        if self.morning.people > 1:
            for job in self.morning.jobs:
                self.who[job.key] = self.m.new_int_var(0, self.morning.people - 1, f"who {job.key}")
        for (a, one, long, here), (b, other, wide, away) in combinations(self.hands, 2):
            there, way, back = self._together(a, b), self._way(here, away), self._way(away, here)
            if a != b and self.who:
                there = [*there, self._same(a, b)]
            first = self.m.new_bool_var("first")
            self.m.add(other >= one + long + way).only_enforce_if([*there, first])
            self.m.add(one >= other + wide + back).only_enforce_if([*there, first.negated()])
        if self.morning.people == 1:
            self._one_by_one()

    def _one_by_one(self) -> None:
        """What the pairs say already, as one rule, which shortens the search."""
        span = self.m.new_optional_fixed_size_interval_var
        self.m.add_no_overlap([span(at, long, self.there[key], "busy") for key, at, long, _ in self.hands])

    def _same(self, a: str, b: str) -> Any:
        same = self.m.new_bool_var("one person")
        self.m.add(self.who[a] == self.who[b]).only_enforce_if(same)
        self.m.add(self.who[a] != self.who[b]).only_enforce_if(same.negated())
        return same

    def _way(self, here: str, away: str) -> int:
        return self.morning.travel.get((here, away), 0) if here != away else 0

    def _together(self, a: str, b: str) -> list[Any]:
        return [self.there[a]] if a == b else [self.there[a], self.there[b]]

    def _machines(self) -> None:
        """A machine holds one mix at a time, from its filling until it is clean."""
        for a, b in combinations([j for j in self.morning.jobs if j.machine], 2):
            if a.machine != b.machine:
                continue
            first, there = self.m.new_bool_var("first"), self._together(a.key, b.key)
            for one, other, when in ((a, b, first), (b, a, first.negated())):
                self.m.add(self._begin(other) >= self._end(one)).only_enforce_if([*there, when])

    def _end(self, job: Job) -> Any:
        last = len(job.legs) - 1
        return self.clean[job.key] + job.clean if job.clean else self.start[job.key, last] + job.legs[last].minutes

    def _begin(self, job: Job) -> Any:
        return self.ready[job.key] if job.ready else self.start[job.key, 0]

    def _grounds(self) -> None:
        """On one ground things follow each other as rules and practice ask."""
        for a, b in combinations(self.morning.jobs, 2):
            for n, one in enumerate(a.legs):
                for k, other in enumerate(b.legs):
                    if {s.ground for s in one.stops} & {s.ground for s in other.stops}:
                        self._meeting((a.key, n, one), (b.key, k, other))

    def _meeting(self, a: tuple[str, int, Leg], b: tuple[str, int, Leg]) -> None:
        first, there = self.m.new_bool_var("first"), self._together(a[0], b[0])
        for one, other, when in ((a, b, first), (b, a, first.negated())):
            said = [r for r in self.rules if (r.first, r.second) == (one[0], other[0])]
            if any(r.never and not r.practice for r in said):
                self.m.add_bool_or([when.negated(), *(t.negated() for t in there)])
            for r in said:
                if r.practice:
                    gave = self.m.new_bool_var("gives way")
                    self.m.add_bool_or([gave, when.negated(), *(t.negated() for t in there)])
                    self.gave.append((gave, r))
            least = max((r.least for r in said), default=0)
            most = min((r.most for r in said if r.most is not None), default=None)
            for stop in one[2].stops:
                at, then = one[2].at(stop.ground), other[2].at(stop.ground)
                if at is None or then is None:
                    continue
                end, begin = self.start[one[:2]] + at[1], self.start[other[:2]] + then[0]
                self.m.add(begin >= end + least).only_enforce_if([*there, when])
                if most is not None:
                    self.m.add(begin + then[1] - then[0] <= end + most).only_enforce_if([*there, when])

    def solved(self, seconds: float, first_only: bool = False) -> Order:
        """The order: as much as can be done, the least practice that gives way, the earliest end, everything begun early.

        Args:
            seconds: how long it may be looked for [s].
            first_only: whether only what can be done is asked.
        """
        m, end = self.m, self.m.new_int_var(self.morning.begin, self.morning.end, "end")
        for job in self.morning.jobs:
            m.add(end >= self._end(job)).only_enforce_if(self.there[job.key])
        worth = [(round(j.weight * EXACT), self.there[j.key]) for j in self.morning.jobs if not j.serves]
        stages = [
            sum(-w * x for w, x in worth),
            sum(x for x, _ in self.gave) * (self.morning.end + 1) + end,
            sum([*self.start.values(), *self.ready.values(), *self.clean.values()]),
        ]
        proven, held = True, None
        for n, aim in enumerate(stages[: 1 if first_only else None]):
            m.minimize(aim)
            solver = self.cp.CpSolver()
            solver.parameters.num_workers, solver.parameters.random_seed = 1, 1
            solver.parameters.max_time_in_seconds = seconds / len(stages)
            if n == EARLY:
                solver.parameters.max_deterministic_time = TIDY
            status = solver.solve(m)
            if status not in (self.cp.OPTIMAL, self.cp.FEASIBLE):
                proven = proven and n == EARLY
                break
            proven, held = proven and (n == EARLY or status == self.cp.OPTIMAL), solver
            m.add(aim <= round(solver.objective_value))
            m.clear_hints()
            for n in range(len(m.proto.variables)):
                m.proto.solution_hint.vars.append(n)
                m.proto.solution_hint.values.append(solver.response_proto.solution[n])
        return Order((), (), self.morning.begin, False) if held is None else self._read(held, end, proven)

    def _read(self, solver: Any, end: Any, proven: bool) -> Order:
        legs = []
        for job in self.morning.jobs:
            if not solver.boolean_value(self.there[job.key]):
                continue
            mine = []
            for n, leg in enumerate(job.legs):
                begin = solver.value(self.start[job.key, n])
                mine.append(Timed(job.key, n, begin, begin + leg.minutes))
            if job.ready:
                mine[0] = replace(mine[0], ready=solver.value(self.ready[job.key]))
            if job.clean:
                mine[-1] = replace(mine[-1], cleaned=solver.value(self.clean[job.key]) + job.clean)
            legs += mine
        gave = {r.text: r for x, r in self.gave if solver.boolean_value(x)}
        legs.sort(key=lambda t: (t.begin if t.ready is None else t.ready, t.begin, t.job))
        return Order(tuple(legs), (), solver.value(end), proven, tuple(gave.values()))
