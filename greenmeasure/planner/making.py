"""The making of a plan, told as it goes: gathered, chosen by the solver, asked of the gate again, and put beside other schools.

The solver runs beside, so that its progress can be told; whoever listens no longer ends it.
"""

from collections.abc import Collection, Generator, Iterator, Sequence
from dataclasses import replace
from queue import Empty, Queue
from threading import Event, Thread
from time import monotonic

from core.errors import InputError
from core.season.greedy import greedy
from core.season.optimise import optimise
from core.season.problem import Choice, Optimum, Problem
from core.season.program import Progress
from core.season.rivals import by_calendar, by_threshold
from greenmeasure.accounts.models import Account
from greenmeasure.common.errors import told
from greenmeasure.planner.exam import exam
from greenmeasure.planner.facts import Ask, Year, bears, gathered, meant_of, refused
from greenmeasure.planner.outs import plan_out
from greenmeasure.planner.schemas import PlanEventOut, PlanProgressOut
from greenmeasure.planner.words import ASKING, BESIDE, LOOKING, READING, left_out, searching_text

SECONDS, LEAST = 5.0, 2.0
"""How long gathering and choosing may take together, and the least that the solver gets [s] (ours)."""
AGAIN = 3
"""How often the plan is made anew where the gate refuses some of it (ours)."""
GATHERED, CHOSEN, FARED = 0.35, 0.85, 0.95
"""Shares of the whole at which the gathering, the choosing and the telling end (ours)."""


def made(account: Account, ask: Ask) -> Generator[PlanEventOut, None, None]:
    """A plan, after lines of how far it is; a fault ends it in a line of its own."""
    try:
        yield from _made(account, ask)
    except InputError as fault:
        yield PlanEventOut(error=told(fault))


def _made(account: Account, ask: Ask) -> Iterator[PlanEventOut]:
    began = monotonic()
    yield _far(0.0, READING)
    year: Year | None = None
    for step in gathered(account, ask):
        if isinstance(step, Year):
            year = step
        else:
            yield _far(0.05 + step * (GATHERED - 0.05), ASKING)
    assert year
    best: Optimum | None = None
    first = greedy(year.problem)
    for heard in chosen(year.problem, first, max(LEAST, SECONDS - (monotonic() - began))):
        if isinstance(heard, Optimum):
            best = heard
        else:
            yield _far(*heard)
    assert best
    notes: list[str] = []
    out: set[Choice] = set()
    against = kept_out(year, best.chosen)
    for _ in range(AGAIN):
        if not against:
            break
        out |= against.keys()
        best = mended(without(year.problem, out), best, against)
        against = kept_out(year, best.chosen)
    if against:
        notes = [
            left_out(year.of(i).product.name, year.areas[year.problem.options[i].area].name, year.on(day), why)
            for (i, day), why in against.items()
        ]
        best = replace(best, chosen=tuple(c for c in best.chosen if c not in against))
    yield _far(CHOSEN, BESIDE)
    rivals = {
        "greedy": first.chosen,
        "calendar": by_calendar(year.problem, year.risk),
        "threshold": by_threshold(year.problem, year.risk),
        "none": year.problem.fixed,
    }
    yield PlanEventOut(plan=plan_out(year, best, rivals, notes))
    yield _far(FARED, LOOKING)
    fared = {"plan": best.chosen, "calendar": rivals["calendar"], "none": rivals["none"]}
    yield PlanEventOut(exam=exam(year, fared, account.currency))


def _far(share: float, text: str) -> PlanEventOut:
    return PlanEventOut(progress=PlanProgressOut(share=share, text=text))


def chosen(problem: Problem, first: Optimum, seconds: float) -> Iterator[tuple[float, str] | Optimum]:
    """What the solver chooses, after how far it is; it stops where nobody asks for more."""
    heard: Queue[Progress] = Queue()
    stopped, found = Event(), list[Optimum | Exception]()

    def watch(progress: Progress) -> bool:
        heard.put(progress)
        return not stopped.is_set()

    def work() -> None:
        try:
            found.append(optimise(problem, seconds, watch, first))
        except Exception as fault:  # told where it is asked for
            found.append(fault)

    last: Progress | None = None
    worker, began = Thread(target=work, name="plan", daemon=True), monotonic()
    worker.start()
    try:
        while worker.is_alive():
            worker.join(0.2)
            last = _last(heard) or last
            part = min(1.0, (monotonic() - began) / seconds)
            yield GATHERED + part * (CHOSEN - GATHERED), searching_text(*((last.best, last.least) if last else (None, None)))
    finally:
        stopped.set()
        worker.join()
    result = found[0]
    if isinstance(result, Exception):
        raise result
    yield result


def _last(heard: "Queue[Progress]") -> Progress | None:
    last = None
    while True:
        try:
            last = heard.get_nowait()
        except Empty:
            return last


def kept_out(year: Year, plan: Sequence[Choice]) -> dict[Choice, str]:
    """What of a plan the gate refuses with the rest of it in the ledger, and why; of two that clash the first."""
    anew = [c for c in plan if c not in year.problem.fixed]
    down = {c: meant_of(year.areas[year.problem.options[c[0]].area], year.of(c[0]), year.on(c[1])) for c in anew}
    found: dict[Choice, str] = {}
    for c in anew:
        area, on = year.areas[year.problem.options[c[0]].area], year.on(c[1])
        more = tuple(a for other, a in down.items() if other != c and other not in found)
        said = refused(year.account, area, year.of(c[0]), on, bears(year.account, area, on, year.besides, more))
        if said:
            found[c] = said[0].sentence
    return found


def mended(problem: Problem, best: Optimum, against: Collection[Choice]) -> Optimum:
    """A plan without what the gate refused, with whatever else pays in its place; what is known of the best holds still."""
    rest = tuple(c for c in best.chosen if c not in against)
    found = greedy(replace(problem, fixed=rest))
    least = best.tally.total - best.gap
    return Optimum(found.chosen, found.tally, max(0.0, found.tally.total - least))


def without(problem: Problem, against: Collection[Choice]) -> Problem:
    """A problem in which what the gate refused may not be chosen."""
    options = list(problem.options)
    for i, day in against:
        options[i] = replace(options[i], days=(options[i].days or frozenset()) - {day})
    return replace(problem, options=tuple(options))
