"""What is done on an outing: jobs at one site or several, each with its stops, how long they take and when they may be.

Times are minutes from the midnight with which the outing's day begins on the ground.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from core.label.product import Product
from core.spans import spans

Span = tuple[int, int]
"""From one minute to another, the second not in it."""


class Doing(StrEnum):
    """What is done on a ground."""

    SPREAD = "spread"
    SPRAY = "spray"
    WATER = "water"
    MOW = "mow"


@dataclass(frozen=True)
class Stop:
    """One ground: how many minutes are spent on it, and the spans in which all of them must lie, None where any hour will do."""

    ground: str
    minutes: int
    fit: tuple[Span, ...] | None = None


@dataclass(frozen=True)
class Leg:
    """A job's stops at one site, one after the other; `weight` what leaving them counts, a share of the job's where None."""

    site: str
    stops: tuple[Stop, ...]
    weight: float | None = None

    @property
    def minutes(self) -> int:
        return sum(s.minutes for s in self.stops)

    def at(self, ground: str) -> Span | None:
        """When a ground is worked on, from the leg's beginning; None where it is not among its stops."""
        begin = 0
        for s in self.stops:
            if s.ground == ground:
                return begin, begin + s.minutes
            begin += s.minutes
        return None

    def begins(self, until: int) -> tuple[Span, ...]:
        """When it may begin, so that every stop lies in hours that are fit for it and all of it ends by a minute."""
        found: list[Span] = [(0, until - self.minutes + 1)]
        begin = 0
        for s in self.stops:
            if s.fit is not None:
                found = meet(found, [(a - begin, b - begin - s.minutes + 1) for a, b in s.fit])
            begin += s.minutes
        return tuple((a, b) for a, b in found if a < b)


@dataclass(frozen=True)
class Job:
    """One thing that is done, with a mix or without; its legs in the order that ends earliest, each or some of them.

    `ready` is what measuring and filling take before the first leg, `clean` what cleaning the machine takes after the last [min];
    `life` how long its mix may stand [min]; `hands` whether somebody stays with it; `serves` the jobs that it waters in;
    `weight` what leaving it for another day counts against the others.
    """

    key: str
    doing: Doing
    legs: tuple[Leg, ...]
    products: tuple[Product, ...] = ()
    machine: str = ""
    ready: int = 0
    clean: int = 0
    life: int | None = None
    hands: bool = True
    serves: tuple[str, ...] = ()
    weight: float = 1.0

    @property
    def grounds(self) -> tuple[str, ...]:
        return tuple(s.ground for leg in self.legs for s in leg.stops)


def apart(leg: Leg, until: int) -> tuple[Leg, ...]:
    """A leg as the fewest legs in its order whose stops have hours in common; a stop without any stands alone."""
    found: list[Leg] = []
    for stop in leg.stops:
        if found and (both := replace(found[-1], stops=(*found[-1].stops, stop))).begins(until):
            found[-1] = both
        else:
            found.append(replace(leg, stops=(stop,)))
    return tuple(found)


def meet(one: Sequence[Span], other: Sequence[Span]) -> list[Span]:
    """What lies in spans of both, in order."""
    found = ((max(a, c), min(b, d)) for a, b in one for c, d in other)
    return sorted((a, b) for a, b in found if a < b)


def spans_of(fit: Iterable[bool], begin: int, step: int = 60) -> tuple[Span, ...]:
    """The spans of hours that are fit, of hours that begin at a minute and follow each other."""
    return tuple((begin + a * step, begin + b * step) for a, b in spans(list(fit)))


def minutes(hours: float) -> int:
    """Hours in whole minutes, up.

    Args:
        hours: how long [h].
    """
    return math.ceil(hours * 60 - 1e-9)
