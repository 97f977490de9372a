"""Passes over an area: rings along its edge, stripes across what is left, in the order they are walked.

Everything is in metres on a plane. A pass is the line the machine's middle follows; neighbours are one spacing apart, so
that length × spacing is the ground covered. What must be kept off is cut out with its buffer before anything is laid.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from core.errors import InputError
from core.units import positive, show_number

Point = tuple[float, float]
Floats = NDArray[np.float64]

MOST_PASSES = 2000
SHORTEST = 0.5
"""Stripes shorter than this share of the spacing are left to their neighbours and the edge."""
NUDGE = 1e-7
"""So far aside [m] a stripe is cut, so that one which runs right along an edge is off the ground however the ground lies."""
TURN = 1.0
"""How tightly a corner is walked [m]."""
STEP = 5
"""Degrees between the directions that are tried for the best one."""


class PassKind(StrEnum):
    """A ring along the edge, or a stripe across."""

    EDGE = "edge"
    STRIPE = "stripe"


@dataclass(frozen=True)
class Pass:
    """One pass: its line in the order walked, and whether it is a mower's guide stripe to follow."""

    kind: PassKind
    line: tuple[Point, ...]
    guide: bool = False

    @property
    def length(self) -> float:
        return math.fsum(math.dist(a, b) for a, b in pairwise(self.line))


@dataclass(frozen=True)
class KeepOff:
    """Ground that nothing may land on, and how far to stay away from it [m]."""

    shape: BaseGeometry
    buffer: float = 0.0


@dataclass(frozen=True)
class Walk:
    """The passes in order, in `direction` [degrees from the x axis], `spacing` apart [m]."""

    passes: tuple[Pass, ...]
    direction: float
    spacing: float
    ground: BaseGeometry

    @property
    def on(self) -> float:
        """How far is walked while putting down [m]."""
        return math.fsum(p.length for p in self.passes)

    @property
    def between(self) -> float:
        """How far is walked from the end of each pass to the start of the next, straight [m]."""
        return math.fsum(math.dist(a.line[-1], b.line[0]) for a, b in pairwise(self.passes))

    @property
    def covered(self) -> float:
        """Length × spacing [m²]."""
        return self.on * self.spacing

    def seconds(self, pace: float, turn: float = 4.0) -> float:
        """How long it takes at a pace [m/s], with so long for each turn [s], fillings not counted."""
        return (self.on + self.between) / positive("pace", pace, most=10) + turn * max(0, len(self.passes) - 1)


@dataclass(frozen=True)
class Refill:
    """Where a load runs out: on which pass, how far along it [m], and the place."""

    load: int
    number: int
    along: float
    at: Point


def walk(
    outline: BaseGeometry,
    spacing: float,
    direction: float | None = None,
    *,
    edges: int = 0,
    edges_last: bool = False,
    keep_off: Sequence[KeepOff] = (),
    shift: float = 0.0,
    guides: int = 0,
) -> Walk:
    """Lay the passes.

    Args:
        shift: of the stripes across [m].
        outline: of the area, holes cut out [m].
        spacing: between passes, by the measured swath [m].
        direction: of the stripes [degrees]; the one with the fewest passes where it is None.
        edges: how many rings to walk along the edge.
        edges_last: whether to walk them after the stripes.
        keep_off: what nothing may land on, with its buffer.
        guides: every so many-th stripe is a guide to follow; 0 for none.

    Raises:
        InputError: an outline that crosses itself, ground narrower than one swath, or more passes than can be walked.
    """
    positive("spacing", spacing, most=100)
    if not outline.is_valid or outline.is_empty:
        raise InputError("outline", None, "The outline crosses itself.", "Give its corners in the order one walks around.")
    ground: BaseGeometry = outline
    for off in keep_off:
        ground = ground.difference(off.shape.buffer(positive("buffer", off.buffer, zero=True)))
    if ground.is_empty or ground.buffer(-spacing / 2 * (1 - 1e-3)).is_empty:
        raise InputError(
            "spacing",
            spacing,
            f"The ground is narrower than a swath of {show_number(spacing)} m.",
            "Take a narrower machine, or do it by hand.",
        )
    rings = [Pass(PassKind.EDGE, line) for k in range(edges) for line in _rings(ground, (k + 0.5) * spacing)]
    inner = ground.buffer(-edges * spacing) if edges else ground
    angle = best_direction(inner, spacing) if direction is None else direction % 180
    stripes = [
        Pass(PassKind.STRIPE, line, bool(guides) and n % guides == 0)
        for n, line in enumerate(_stripes(inner, spacing, angle, shift), start=1)
    ]
    every = [*stripes, *rings] if edges_last else [*rings, *stripes]
    if not every or len(every) > MOST_PASSES:
        raise InputError("spacing", spacing, f"{len(every)} passes cannot be walked.", f"Take 1 to {MOST_PASSES}.")
    return Walk(tuple(every), angle, spacing, ground)


def best_direction(ground: BaseGeometry, spacing: float) -> float:
    """The direction [degrees] with the fewest stripes, and among those the least to walk; the edges' own are tried too.

    Args:
        ground: to be walked.
        spacing: between passes [m].
    """
    tried = {float(a) for a in range(0, 180, STEP)} | {round(a, 6) for a in _edge_angles(ground)}
    sides = _sides(ground)

    def worth(angle: float) -> tuple[int, float]:
        found = _cuts(sides, spacing, angle, 0.0)
        return len(found), found.between

    return min(sorted(tried), key=worth, default=0.0)


def refills(found: Walk, areas: Sequence[float]) -> list[Refill]:
    """Where each load but the last runs out, from the ground that each covers [m²].

    Args:
        found: what it is taken from.
        areas: covered by each filling [m²].
    """
    places, left = [], [positive(f"loads.{i}", a) / found.spacing for i, a in enumerate(areas)]
    load, to_go = 0, left[0] if left else math.inf
    for number, one in enumerate(found.passes):
        start = 0.0
        while load < len(left) - 1 and to_go <= one.length - start + 1e-9:
            start += to_go
            at = LineString(one.line).interpolate(start)
            places.append(Refill(load + 1, number, start, (at.x, at.y)))
            load += 1
            to_go = left[load]
        to_go -= one.length - start
    return places


# --- laying ------------------------------------------------------------------------------------------------------


def _rings(ground: BaseGeometry, inwards: float) -> list[tuple[Point, ...]]:
    """The edges of the ground, so far inwards, corners rounded as they are walked; those of holes too."""
    turn = min(TURN, inwards)
    shrunk = ground.buffer(-inwards - turn, join_style="mitre").buffer(turn)
    if shrunk.is_empty:
        shrunk = ground.buffer(-inwards, join_style="mitre")
    return [
        tuple((x, y) for x, y in ring.coords) for polygon in _polygons(shrunk) for ring in (polygon.exterior, *polygon.interiors)
    ]


@dataclass(frozen=True)
class Cuts:
    """Stripes in the order they are walked, in a frame turned with them: at `v` across, from `begin` to `end` along [m]."""

    v: Floats
    begin: Floats
    end: Floats

    def __len__(self) -> int:
        return len(self.v)

    @property
    def between(self) -> float:
        """How far is walked from the end of each to the start of the next, straight [m]."""
        return float(np.hypot(self.begin[1:] - self.end[:-1], np.diff(self.v)).sum())


def _sides(ground: BaseGeometry) -> Floats:
    """The sides of a ground, those of its holes too: x and y of one end and of the other, a row each [m]."""
    rings = shapely.get_rings(shapely.get_parts(ground))
    at, ring = shapely.get_coordinates(rings, return_index=True)
    on = ring[1:] == ring[:-1]
    return np.hstack([at[:-1][on], at[1:][on]])


def _cuts(sides: Floats, spacing: float, angle: float, shift: float) -> Cuts:
    """Stripes that turn at each end. The last one stays half a spacing inside, over its neighbour if it must.

    Args:
        sides: of the ground, as `_sides` gives them [m].
        spacing: between stripes [m].
        angle: of the stripes [degrees].
        shift: of all of them across [spacings].
    """
    if not len(sides):
        return Cuts(*(np.zeros(0) for _ in range(3)))
    c, s = _turn(angle)
    x0, y0, x1, y1 = sides.T
    u0, v0, u1, v1 = x0 * c + y0 * s, y0 * c - x0 * s, x1 * c + y1 * s, y1 * c - x1 * s
    bottom, top = float(v0.min()), float(v0.max())
    count = max(1, math.ceil((top - bottom) / spacing - shift % 1 - 1e-9))
    first = bottom + (0.5 + shift % 1) * spacing
    v = np.minimum(first + np.arange(count) * spacing, max(first, top - spacing / 2))
    cut = v[:, None] + NUDGE
    row, side = np.nonzero((v0 <= cut) != (v1 <= cut))
    u = u0[side] + (v[row] + NUDGE - v0[side]) * (u1[side] - u0[side]) / (v1[side] - v0[side])
    order = np.lexsort((u, row))  # in each row the ground begins and ends in turn
    row, low, high = row[order][::2], u[order][::2], u[order][1::2]
    long = high - low >= SHORTEST * spacing
    row, low, high = row[long], low[long], high[long]
    walked = np.concatenate([[0], np.cumsum(np.diff(row) != 0)]) if len(row) else row
    forth = walked % 2 == 0
    order = np.lexsort((np.where(forth, low, -low), row))
    row, low, high, forth = row[order], low[order], high[order], forth[order]
    return Cuts(v[row], np.where(forth, low, high), np.where(forth, high, low))


def _turn(angle: float) -> tuple[float, float]:
    """The cosine and the sine of an angle [degrees], exact for right ones."""
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    return (0.0 if abs(c) < 1e-15 else c), (0.0 if abs(s) < 1e-15 else s)


def _stripes(ground: BaseGeometry, spacing: float, angle: float, shift: float) -> Iterator[tuple[Point, ...]]:
    """Stripes in the order they are walked."""
    found, (c, s) = _cuts(_sides(ground), spacing, angle, shift), _turn(angle)
    for v, begin, end in zip(found.v.tolist(), found.begin.tolist(), found.end.tolist(), strict=True):
        yield (begin * c - v * s, begin * s + v * c), (end * c - v * s, end * s + v * c)


def _polygons(shape: BaseGeometry) -> list[Polygon]:
    return [g for g in getattr(shape, "geoms", [shape]) if isinstance(g, Polygon) and not g.is_empty]


def _edge_angles(ground: BaseGeometry) -> Iterator[float]:
    for polygon in _polygons(ground):
        ring = [(x, y) for x, y in polygon.minimum_rotated_rectangle.exterior.coords]
        for (ax, ay), (bx, by) in pairwise(ring):
            yield math.degrees(math.atan2(by - ay, bx - ax)) % 180
