"""The order of an outing: as much of it as can be done, within every rule, with the earliest end; and why the rest cannot.

Solved by constraint programming, CP-SAT of OR-Tools (Perron L, Didier F (2023) CP-SAT, Google), a worker alone and from a fixed
seed, so that the same outing has the same order. Of orders that end alike it is one that begins everything early.
"""

from collections.abc import Sequence, Set
from dataclasses import replace

from core.outing.between import Asked, asked
from core.outing.jobs import Job
from core.outing.order import Left, Morning, Order
from core.outing.program import Model

SECONDS = 4.0
"""How long one order may be looked for [s] (ours)."""


def sequence(morning: Morning, seconds: float = SECONDS) -> Order:
    """The order of a morning: as many legs of its jobs as can be done.

    Args:
        morning: what is to be done.
        seconds: how long it may be looked for [s].

    Returns:
        Every leg of every job is among its legs or among what is left.
    """
    rules = asked(morning.jobs, morning.apart)
    found = Model(morning, rules).solved(seconds)
    done = {t.job for t in found.legs}
    left = [j for j in morning.jobs if j.key not in done and not j.serves]
    told = [_why(morning, rules, j, [k for k in morning.jobs if k.key in done], seconds) for j in left]
    legs = {(t.job, t.leg) for t in found.legs}
    for j in morning.jobs:
        missing = [n for n in range(len(j.legs)) if (j.key, n) not in legs] if j.key in done else []
        told += [_why_leg(morning, rules, j, {k for key, k in legs if key == j.key}, n, seconds) for n in missing]
    return replace(found, left=tuple(told))


def _why_leg(morning: Morning, rules: Sequence[Asked], job: Job, done: Set[int], n: int, seconds: float) -> Left:
    """Why a leg cannot be done, where others of its job are: alone, within the life of the mix, or for want of time."""

    def cut(legs: Set[int], life: int | None) -> Morning:
        mine = replace(job, legs=tuple(job.legs[k] for k in sorted(legs)), life=life)
        return _only(replace(morning, jobs=tuple(mine if j.key == job.key else j for j in morning.jobs)), job.key)

    if not _can(cut({n}, job.life), rules, seconds):
        return Left(job.key, hours=True, leg=n)
    old = job.life is not None and not _can(cut({*done, n}, job.life), rules, seconds)
    return Left(job.key, life=old and _can(cut({*done, n}, None), rules, seconds), leg=n)


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
        placed = bool(pair.order) and _can(replace(pair, order=()), rules, seconds)
        return Left(job.key, other.key, broken, placed=placed)
    return Left(job.key)


def _only(morning: Morning, *keys: str) -> Morning:
    """A morning of some jobs alone, with the water that serves them."""
    return morning.without(*(j.key for j in morning.jobs if j.key not in keys and not set(j.serves) & set(keys)))


def _can(morning: Morning, rules: Sequence[Asked], seconds: float) -> bool:
    """Whether all of a morning can be done."""
    keys = {j.key for j in morning.jobs}
    mine = [r for r in rules if r.first in keys and r.second in keys]
    return len(Model(morning, mine).solved(seconds, first_only=True).legs) == sum(len(j.legs) for j in morning.jobs)
