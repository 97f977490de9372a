"""What a measurement comes to: the size, the plan to draw, and the working."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from core.working import Step

Point = tuple[float, float]
"""A place on the plan: x and y [m], y upward, and northward where the plan has a north."""


@dataclass(frozen=True)
class Outline:
    """A closed line of the plan, first point not repeated. A `hole` is ground that does not count."""

    ring: tuple[Point, ...]
    hole: bool = False


@dataclass(frozen=True)
class Mark:
    """A measured line of the plan, with its length as taped."""

    start: Point
    end: Point
    text: str


@dataclass(frozen=True)
class Plan:
    """A drawing to scale. `north` says whether y is north."""

    outlines: tuple[Outline, ...]
    marks: tuple[Mark, ...] = ()
    north: bool = False

    @property
    def box(self) -> tuple[float, float, float, float]:
        """The least x, least y, greatest x and greatest y [m]."""
        points = [p for o in self.outlines for p in o.ring] + [p for m in self.marks for p in (m.start, m.end)]
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        return min(xs), min(ys), max(xs), max(ys)

    def moved(self, dx: float, dy: float) -> "Plan":
        """The same plan, `dx` and `dy` further, both in one unit [m]."""

        def to(p: Point) -> Point:
            return p[0] + dx, p[1] + dy

        return Plan(
            tuple(Outline(tuple(map(to, o.ring)), o.hole) for o in self.outlines),
            tuple(Mark(to(m.start), to(m.end), m.text) for m in self.marks),
            self.north,
        )


@dataclass(frozen=True)
class Measured:
    """The size [m²] that a measurement came to, with its plan, its working, and what should be known about it."""

    size: float
    plan: Plan
    working: tuple[Step, ...]
    notes: tuple[str, ...] = ()


def shoelace(ring: Sequence[Point]) -> float:
    """Area inside a ring of points, whichever way it runs, open or closed (in the square of the points' unit)."""
    following = [*ring[1:], ring[0]]
    return abs(math.fsum(x * y1 - x1 * y for (x, y), (x1, y1) in zip(ring, following, strict=True))) / 2
