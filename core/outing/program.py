"""The order of an outing as a program of CP-SAT: which legs go, when each begins, who does it."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from importlib import import_module
from itertools import combinations
from time import monotonic
from typing import Any

from core.outing.between import Asked
from core.outing.jobs import Job, Leg, Span, meet
from core.outing.order import Morning, Order, Timed

TIDY = 0.02
"""How long everything is moved to begin as early as it can, in the solver's own time (ours)."""
EXACT = 1000
"""A weight is told apart to this share (ours)."""


@dataclass(frozen=True)
class _Stage:
    """What is aimed at after what came before; `turned` is whether legs may come in another order than they were given in, `tidy`
    whether it only makes the order neater.
    """

    aim: Any
    turned: bool = True
    tidy: bool = False


@dataclass(frozen=True)
class _Busy:
    """A leg with what is done by hand for it: measuring before the first of its job and cleaning after the last are in it."""

    job: str
    site: str
    goes: Any
    begin: Any
    end: Any
    minutes: Any


class Model:
    """A morning as a program of CP-SAT."""

    def __init__(self, morning: Morning, rules: Sequence[Asked]) -> None:
        self.cp: Any = import_module("ortools.sat.python.cp_model")  # slow to load, and for outings alone
        self.m: Any = self.cp.CpModel()
        self.morning, self.rules = morning, rules
        self.jobs = {j.key: j for j in morning.jobs}
        self.there: dict[str, Any] = {}
        self.legs: dict[tuple[str, int], Any] = {}
        self.start: dict[tuple[str, int], Any] = {}
        self.begin: dict[str, Any] = {}
        self.over: dict[str, Any] = {}
        self.busy: list[_Busy] = []
        self.turned = self.m.new_bool_var("legs in another order than given")
        self.gave: list[tuple[Any, Asked]] = []
        self.who: dict[str, Any] = {}
        self.before: dict[tuple[tuple[str, int], tuple[str, int]], Any] = {}
        for job in morning.jobs:
            self._job(job)
        self._watered()
        self._people()
        self._machines()
        self._placed()
        self._grounds()

    def _job(self, job: Job) -> None:
        m, begin, end = self.m, self.morning.begin, self.morning.end
        self.there[job.key] = here = m.new_bool_var(f"does {job.key}")
        for n, leg in enumerate(job.legs):
            allowed = meet(leg.begins(end), [(begin, end)])
            self.legs[job.key, n] = goes = here if len(job.legs) == 1 else m.new_bool_var(f"does {job.key} {n}")
            if not allowed:
                m.add(goes == 0)
            start = m.new_int_var_from_domain(self._domain(allowed or [(begin, begin + 1)]), f"{job.key} {n}")
            self.start[job.key, n] = start
        self.begin[job.key] = first = m.new_int_var(begin, end, f"begin {job.key}")
        self.over[job.key] = last = m.new_int_var(begin, end, f"over {job.key}")
        opens, closes = [], []
        for n, leg in enumerate(job.legs):
            start, goes = self.start[job.key, n], self.legs[job.key, n]
            opening, closing = m.new_bool_var("first leg"), m.new_bool_var("last leg")
            opens.append(opening)
            closes.append(closing)
            m.add_implication(opening, goes)
            m.add_implication(closing, goes)
            m.add(start >= first + job.ready).only_enforce_if(goes)
            m.add(last >= start + leg.minutes + job.clean).only_enforce_if(goes)
            m.add(start == first + job.ready).only_enforce_if(opening)
            m.add(last == start + leg.minutes + job.clean).only_enforce_if(closing)
            if job.hands:
                self.busy.append(self._busy(job, n, start, opening, closing))
        m.add(sum(opens) == here)
        m.add(sum(closes) == here)
        if len(job.legs) > 1:
            m.add_max_equality(here, [self.legs[job.key, n] for n in range(len(job.legs))])
        for a, b in combinations(range(len(job.legs)), 2):
            both = [self.legs[job.key, a], self.legs[job.key, b], self.turned.negated()]
            m.add(self.start[job.key, b] >= self.start[job.key, a]).only_enforce_if(both)
        if job.life is not None:
            m.add(last - job.clean - first - job.ready <= job.life).only_enforce_if(here)

    def _busy(self, job: Job, n: int, start: Any, opening: Any, closing: Any) -> "_Busy":
        """What is done by hand for a leg, from when to when."""
        m, begin, end = self.m, self.morning.begin, self.morning.end
        leg, goes = job.legs[n], self.legs[job.key, n]
        if len(job.legs) == 1:
            long = job.ready + leg.minutes + job.clean
            return _Busy(job.key, leg.site, goes, start - job.ready, start + leg.minutes + job.clean, long)
        a, b = m.new_int_var(begin - job.ready, end, "busy from"), m.new_int_var(begin, end + job.clean + leg.minutes, "busy to")
        long = m.new_int_var(leg.minutes, leg.minutes + job.ready + job.clean, "busy for")
        m.add(a == start - job.ready * opening)
        m.add(b == start + leg.minutes + job.clean * closing)
        m.add(long == leg.minutes + job.ready * opening + job.clean * closing)
        return _Busy(job.key, leg.site, goes, a, b, long)

    def _domain(self, spans: Sequence[Span]) -> Any:
        return self.cp.Domain.from_intervals([[a, b - 1] for a, b in spans])

    def _watered(self) -> None:
        """Water comes where anything that it serves is done, and nothing that is watered in goes without."""
        for w in self.morning.jobs:
            if w.serves:
                ground = set(w.grounds)
                served = [
                    self.legs[s, n]
                    for s in w.serves
                    for n, leg in enumerate(self.jobs[s].legs)
                    if ground & {stop.ground for stop in leg.stops}
                ]
                self.m.add_max_equality(self.there[w.key], served)

    def _people(self) -> None:
        """Nobody is at two things at once, nor at two places without the way between."""
        if self.morning.people > 1:
            for n, job in enumerate(j for j in self.morning.jobs if j.hands):
                self.who[job.key] = self.m.new_int_var(0, min(n, self.morning.people - 1), f"who {job.key}")  # one of the same
        for one, other in combinations(self.busy, 2):
            there = [one.goes, other.goes]
            if one.job != other.job and self.who:
                there = [*there, self._same(one.job, other.job)]
            first = self.m.new_bool_var("first")
            self.m.add(other.begin >= one.end + self._way(one.site, other.site)).only_enforce_if([*there, first])
            self.m.add(one.begin >= other.end + self._way(other.site, one.site)).only_enforce_if([*there, first.negated()])
        if self.morning.people == 1:
            self._one_by_one()

    def _one_by_one(self) -> None:
        """What the pairs say already, as one rule, which shortens the search."""
        span = self.m.new_optional_interval_var
        self.m.add_no_overlap([span(x.begin, x.minutes, x.end, x.goes, "busy") for x in self.busy])

    def _same(self, a: str, b: str) -> Any:
        same = self.m.new_bool_var("one person")
        self.m.add(self.who[a] == self.who[b]).only_enforce_if(same)
        self.m.add(self.who[a] != self.who[b]).only_enforce_if(same.negated())
        return same

    def _way(self, here: str, away: str) -> int:
        return self.morning.travel.get((here, away), 0) if here != away else 0

    def _together(self, a: str, b: str) -> list[Any]:
        return [self.there[a], self.there[b]]

    def _machines(self) -> None:
        """A machine holds one mix at a time, from its filling until it is clean."""
        for a, b in combinations([j for j in self.morning.jobs if j.machine], 2):
            if a.machine != b.machine:
                continue
            first, there = self.m.new_bool_var("first"), self._together(a.key, b.key)
            for one, other, when in ((a, b, first), (b, a, first.negated())):
                self.m.add(self.begin[other.key] >= self.over[one.key]).only_enforce_if([*there, when])

    def _placed(self) -> None:
        """What was put after each other by hand follows each other so."""
        placed = [self.jobs[key] for key in self.morning.order if key in self.jobs]
        for one, other in combinations(placed, 2):
            at = self.begin[other.key] + other.ready
            self.m.add(at >= self.over[one.key] - one.clean).only_enforce_if(self._together(one.key, other.key))

    def _grounds(self) -> None:
        """On one ground things follow each other as rules and practice ask."""
        for a, b in combinations(self.morning.jobs, 2):
            for n, one in enumerate(a.legs):
                for k, other in enumerate(b.legs):
                    if {s.ground for s in one.stops} & {s.ground for s in other.stops}:
                        self._meeting((a.key, n, one), (b.key, k, other))

    def _meeting(self, a: tuple[str, int, Leg], b: tuple[str, int, Leg]) -> None:
        first, there = self.m.new_bool_var("first"), [self.legs[a[:2]], self.legs[b[:2]]]
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
            m.add(end >= self.over[job.key]).only_enforce_if(self.there[job.key])
        worth = [
            (round((j.weight / len(j.legs) if leg.weight is None else leg.weight) * EXACT), self.legs[j.key, n])
            for j in self.morning.jobs
            if not j.serves
            for n, leg in enumerate(j.legs)
        ]
        several = any(len(j.legs) > 1 for j in self.morning.jobs)
        soon = sum(x for x, _ in self.gave) * (self.morning.end + 1) + end
        most = sum(-w * x for w, x in worth)
        stages = [*([_Stage(most, turned=False)] if several else []), _Stage(most)]
        if not first_only:
            early = sum([*self.start.values(), *self.begin.values(), *self.over.values()])
            stages += [_Stage(soon, turned=False)] if several else []
            stages += [_Stage(soon), _Stage(early, tidy=True)]
        proven, held, over = True, None, monotonic() + seconds
        for n, stage in enumerate(stages):
            m.minimize(stage.aim)
            m.proto.variables[self.turned.index].domain[1] = int(stage.turned)
            solver = self.cp.CpSolver()
            solver.parameters.num_workers, solver.parameters.random_seed = 1, 1
            solver.parameters.max_time_in_seconds = max(0.0, over - monotonic()) / (len(stages) - n)
            if stage.tidy:
                solver.parameters.max_deterministic_time = TIDY
            status = solver.solve(m)
            if status not in (self.cp.OPTIMAL, self.cp.FEASIBLE):
                proven = proven and stage.tidy
                if stage.turned:
                    break
                continue
            proven, held = proven and (stage.tidy or not stage.turned or status == self.cp.OPTIMAL), solver
            m.add(stage.aim <= round(solver.objective_value))
            m.clear_hints()
            for place, value in enumerate(solver.response_proto.solution):
                m.proto.solution_hint.vars.append(place)
                m.proto.solution_hint.values.append(value)
        return Order((), (), self.morning.begin, False) if held is None else self._read(held, end, proven)

    def _read(self, solver: Any, end: Any, proven: bool) -> Order:
        legs = []
        for job in self.morning.jobs:
            if not solver.boolean_value(self.there[job.key]):
                continue
            mine = []
            for n, leg in enumerate(job.legs):
                if solver.boolean_value(self.legs[job.key, n]):
                    begin = solver.value(self.start[job.key, n])
                    mine.append(Timed(job.key, n, begin, begin + leg.minutes))
            mine.sort(key=lambda t: (t.begin, t.leg))
            if job.ready:
                mine[0] = replace(mine[0], ready=mine[0].begin - job.ready)
            if job.clean:
                mine[-1] = replace(mine[-1], cleaned=mine[-1].end + job.clean)
            who = solver.value(self.who[job.key]) if self.who and job.hands else 0 if job.hands else None
            legs += [replace(t, who=who) for t in mine]
        gave = {r.text: r for x, r in self.gave if solver.boolean_value(x)}
        legs.sort(key=lambda t: (t.begin if t.ready is None else t.ready, t.begin, t.job))
        return Order(tuple(legs), (), solver.value(end), proven, tuple(gave.values()))
