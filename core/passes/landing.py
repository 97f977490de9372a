"""The landing map: what each cell of the ground and around it receives from a walk.

Every pass lays its pattern along its line. Stripes are laid in a frame turned with them, where each is a product of a
profile across and an opening along, both integrated over the cells exactly; the map then reads the frame. Edge rings are
laid step by step. Nothing is lost on the way: inside and outside make what was applied.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry.base import BaseGeometry

from core.errors import InputError
from core.machines.pattern import Pattern
from core.passes.plan import Pass, PassKind, Point, Walk
from core.spans import spans
from core.units import positive, show_number

Floats = NDArray[np.float64]
MOST_CELLS = 16_000_000
UNDER, OVER = 0.8, 1.2
"""Cells under or over these shares of the intended rate count as such (common practice, no source)."""
WANDER_LENGTH = 6.0
"""How far one walks before the line strays to the other side [m]."""


@dataclass(frozen=True)
class Profile:
    """What falls at each place across the path, as a share of all, by the places' edges [m, right is positive].

    `whole` is the running sum of shares at the edges, from 0 to 1.
    """

    edges: Floats
    whole: Floats

    @property
    def reach(self) -> tuple[float, float]:
        return float(self.edges[0]), float(self.edges[-1])

    def up_to(self, places: Floats) -> Floats:
        """The share that falls left of each place.

        Args:
            places: across the swath [m].
        """
        return np.interp(places, self.edges, self.whole)

    def mirrored(self) -> "Profile":
        return Profile(-self.edges[::-1], 1.0 - self.whole[::-1])


def profile_of(found: Pattern) -> Profile:
    """A spreader's profile from its pans: each pan stands for the strip around it."""
    edges = (np.arange(len(found.catches) + 1) - found.track - 0.5) * found.apart
    whole = np.concatenate([[0.0], np.cumsum(found.array)]) / found.array.sum()
    return Profile(np.asarray(edges, dtype=np.float64), np.asarray(whole, dtype=np.float64))


def even_profile(width: float) -> Profile:
    """A boom or a drop spreader: as much everywhere over its width [m]."""
    half = positive("width", width, most=40) / 2
    return Profile(np.array([-half, half]), np.array([0.0, 1.0]))


@dataclass(frozen=True)
class Hand:
    """How the stripes are walked, besides the plan; rings along the edge are walked with care, as planned.

    `line` and `pace` are the spread of the wander, sideways [m] and as a share of the pace; `late` how far after its mark
    the gate opens and closes [m]; `slow_over` the last stretch at each end [m] that is walked at the share `slow` of the
    pace; `seed` makes the wander the same each time.
    """

    line: float = 0.0
    pace: float = 0.0
    late: float = 0.0
    slow_over: float = 0.0
    slow: float = 1.0
    seed: int = 1


STEADY = Hand()


@dataclass(frozen=True)
class Landed:
    """What landed: `cells` [g/m²] by row (y) and column (x) from `origin`, `size` [m] each; `inside` is the area.

    `applied` [g] is what left the machine, reckoned from the passes alone; `on_hazards` [g] what fell where nothing may.
    """

    cells: Floats
    inside: NDArray[np.bool_]
    origin: Point
    size: float
    rate: float
    applied: float
    on_hazards: float = 0.0

    @cached_property
    def mass_outside(self) -> float:
        """What fell beside the area [g]."""
        return float(self.cells[~self.inside].sum()) * self.size**2

    @property
    def outside(self) -> float:
        """What fell beside the area, as a share of what was applied."""
        return self.mass_outside / self.applied

    @cached_property
    def shares(self) -> Floats:
        """Each inside cell's share of the intended rate; cells that the edge cuts through are left out of it."""
        from scipy.ndimage import binary_erosion  # slow to load, and few look at a map

        whole = binary_erosion(self.inside)
        found = self.cells[whole if whole.any() else self.inside]
        found /= self.rate
        return found

    @property
    def cv(self) -> float:
        """The coefficient of variation inside, by n, as a share."""
        shares = self.shares
        return float(shares.std() / shares.mean())

    @property
    def under(self) -> float:
        """The share of the area that gets clearly less than intended."""
        return float((self.shares < UNDER).mean())

    @property
    def over(self) -> float:
        """The share of the area that gets clearly more than intended."""
        return float((self.shares > OVER).mean())

    def histogram(self, bins: int = 20, most: float = 2.0) -> Floats:
        """The share of the area by share of the rate, in `bins` up to `most`; the last holds all beyond.

        Args:
            bins: how many.
            most: the end of its scale [share of the rate].
        """
        counts, _ = np.histogram(np.minimum(self.shares, most * (1 - 1e-12)), bins=bins, range=(0, most))
        return counts / max(1, self.shares.size)


@dataclass
class Grid:
    """A map that is being laid: `mass` [g] by row (y) and column (x) from `origin`, cells of `size` [m]."""

    mass: Floats
    origin: Point
    size: float

    @property
    def xs(self) -> Floats:
        """The middles of the columns [m]."""
        return np.asarray(self.origin[0] + (np.arange(self.mass.shape[1]) + 0.5) * self.size)

    @property
    def ys(self) -> Floats:
        """The middles of the rows [m]."""
        return np.asarray(self.origin[1] + (np.arange(self.mass.shape[0]) + 0.5) * self.size)

    def take(self, frame: "Grid", turn: float) -> None:
        """Read a frame that is turned against this grid at its cells, straight between its own, and add what was read.

        Reading keeps even ground even, which dropping lumps would not. What was read is scaled to the frame's mass; the
        scale is 1 but for what falls between the cells.

        Args:
            frame: with an origin along and across its own direction, and cells as large as these.
            turn: of its direction against the x axis [radians].
        """
        from scipy.ndimage import map_coordinates  # as above

        c, s = math.cos(turn), math.sin(turn)
        read = np.empty_like(self.mass)
        for rows in tiles(self.mass):
            x, y = self.xs[None, :], self.ys[rows, None]
            along, across = x * c + y * s, y * c - x * s
            places = np.stack([(across - frame.origin[1]) / self.size - 0.5, (along - frame.origin[0]) / self.size - 0.5])
            map_coordinates(frame.mass, places, output=read[rows], order=1, mode="constant", cval=0.0)
        total = float(read.sum())
        if total > 0:
            read *= float(frame.mass.sum()) / total
            np.add(self.mass, read, out=self.mass)

    def drop(self, x: Floats, y: Floats, grams: Floats) -> None:
        """Drop small lumps, each on the four cells nearest to it, the more the nearer.

        Args:
            x: where, to the right [m].
            y: where, upwards [m].
            grams: of each [g].
        """
        rows, columns = self.mass.shape
        fx, fy = (x.ravel() - self.origin[0]) / self.size - 0.5, (y.ravel() - self.origin[1]) / self.size - 0.5
        i, j = np.clip(np.floor(fx), 0, columns - 2).astype(np.int64), np.clip(np.floor(fy), 0, rows - 2).astype(np.int64)
        wx, wy, g = np.clip(fx - i, 0, 1), np.clip(fy - j, 0, 1), grams.ravel()
        flat, at = self.mass.ravel(), j * columns + i
        for step, part in ((0, (1 - wx) * (1 - wy)), (1, wx * (1 - wy)), (columns, (1 - wx) * wy), (columns + 1, wx * wy)):
            flat += np.bincount(at + step, weights=g * part, minlength=flat.size)


TILE = 250_000
"""Cells of a map that are worked on at once: what is worked out beside the map itself stays small."""


def tiles(cells: NDArray[Any]) -> Iterator[slice]:
    """The rows of a map in runs of about `TILE` cells.

    Args:
        cells: of a map [any one unit].
    """
    step = max(1, TILE // max(1, cells.shape[1]))
    for first in range(0, cells.shape[0], step):
        yield slice(first, first + step)


def land(
    walks: Sequence[Walk],
    outline: BaseGeometry,
    profile: Profile,
    rate: float,
    size: float = 0.1,
    hand: Hand = STEADY,
    *,
    hazards: Sequence[BaseGeometry] = (),
) -> Landed:
    """Lay one or several walks.

    Args:
        walks: each puts down an even share of the rate.
        outline: of the area [m].
        profile: across the path.
        rate: intended in all [g/m²].
        size: of a cell [m].
        hand: how it is walked.
        hazards: places where nothing should fall; what did is told.

    Raises:
        InputError: no walk, no rate, or a map of more cells than can be reckoned.
    """
    if not walks:
        raise InputError("walks", 0, "There is no pass to lay.", "Plan the passes first.")
    positive("rate", rate)
    positive("size", size, most=10)
    reach = max(abs(r) for r in profile.reach) + 4 * hand.line + hand.late + 2 * size
    left, bottom, right, top = shapely.total_bounds([outline, *(one.ground for one in walks)])
    columns, rows = (math.ceil((b - a + 2 * reach) / size) + 1 for a, b in ((left, right), (bottom, top)))
    if columns * rows > MOST_CELLS:
        raise InputError(
            "size",
            size,
            f"{columns * rows:,} cells are too many.",
            f"Take cells of {show_number(size * math.sqrt(columns * rows / MOST_CELLS), 2)} m or more.",
        )
    grid = Grid(np.zeros((rows, columns)), (left - reach, bottom - reach), size)
    applied = 0.0
    random = np.random.default_rng(hand.seed)
    for one in walks:
        per_metre = rate / len(walks) * one.spacing
        applied += per_metre * _lay_stripes(grid, one, profile, per_metre, hand, random)
        for ring in (p for p in one.passes if p.kind is PassKind.EDGE):
            applied += per_metre * _lay_ring(grid, ring, profile, per_metre)
    xs, ys = grid.xs, grid.ys
    hit = sum(float(grid.mass[_within(h, xs, ys)].sum()) for h in hazards)
    grid.mass /= size**2
    return Landed(grid.mass, _within(outline, xs, ys), grid.origin, size, rate, applied, hit)


@dataclass(frozen=True)
class Stripe:
    """A dark stripe: how far across the stripes' direction its middle lies [m], and the share of the rate it gets."""

    across: float
    share: float


def dark_stripes(found: Landed, direction: float, width: float) -> list[Stripe]:
    """Bands along a direction that get clearly more than intended, and will show darker.

    Args:
        found: what landed.
        direction: of the stripes [degrees from the x axis].
        width: of the bands that are looked at [m]; about a tenth of the spacing.
    """
    rows, columns = np.nonzero(found.inside)
    shares = found.cells[found.inside] / found.rate
    turn = math.radians(direction)
    x, y = found.origin[0] + (columns + 0.5) * found.size, found.origin[1] + (rows + 0.5) * found.size
    across = -x * math.sin(turn) + y * math.cos(turn)
    first = across.min()
    band = ((across - first) / max(width, found.size)).astype(np.int64)
    counts = np.bincount(band)
    mean = np.bincount(band, weights=shares) / np.maximum(counts, 1)
    dark = (mean > OVER) & (counts >= 0.2 * np.median(counts[counts > 0]))
    return [Stripe(float(first + (a + b) / 2 * max(width, found.size)), float(mean[a:b].max())) for a, b in spans(dark)]


def coarse(cells: Floats, most: int) -> tuple[Floats, int]:
    """The cells averaged in blocks so that neither side has more than `most`, and how many cells make a block's side.

    Blocks that run over the edge are filled with nothing.

    Args:
        cells: of a map [g/m² or L/m²].
        most: blocks a side.
    """
    step = max(1, math.ceil(max(cells.shape) / most))
    if step == 1:
        return cells, 1
    rows, columns = (math.ceil(n / step) * step for n in cells.shape)
    padded = np.zeros((rows, columns))
    padded[: cells.shape[0], : cells.shape[1]] = cells
    return padded.reshape(rows // step, step, columns // step, step).mean(axis=(1, 3)), step


def _within(shape: BaseGeometry, xs: Floats, ys: Floats) -> NDArray[np.bool_]:
    shapely.prepare(shape)
    found = np.zeros((len(ys), len(xs)), dtype=bool)
    for rows in tiles(found):
        found[rows] = shapely.contains_xy(shape, *np.meshgrid(xs, ys[rows]))
    return found


def _lay_stripes(grid: Grid, walked: Walk, profile: Profile, per_metre: float, hand: Hand, random: np.random.Generator) -> float:
    """Lay a walk's parallel stripes; gives the metres walked, each counted by how slowly it was walked."""
    stripes = [p for p in walked.passes if p.kind is PassKind.STRIPE]
    if not stripes:
        return 0.0
    size = grid.size
    turn = math.radians(walked.direction)
    c, s = math.cos(turn), math.sin(turn)
    ends = np.array([[p.line[0], p.line[-1]] for p in stripes])
    us, vs = ends[..., 0] * c + ends[..., 1] * s, -ends[..., 0] * s + ends[..., 1] * c
    reach = max(abs(r) for r in profile.reach) + 4 * hand.line
    first_u, first_v = us.min() - hand.late - 2 * size, vs.min() - reach - 2 * size
    columns = math.ceil((us.max() + hand.late - first_u) / size) + 2
    rows = math.ceil((vs.max() + reach - first_v) / size) + 2
    frame = np.zeros((rows, columns))
    edges_u = first_u + np.arange(columns + 1) * size
    edges_v = first_v + np.arange(rows + 1) * size
    metres = 0.0
    for (u0, u1), (v0, _) in zip(us, vs, strict=True):
        forth = u1 >= u0
        heading = 1.0 if forth else -1.0
        low, high = min(u0, u1) + heading * hand.late, max(u0, u1) + heading * hand.late
        i0, i1 = int((low - first_u) / size), int((high - first_u) / size) + 1
        along = np.minimum(edges_u[i0 + 1 : i1 + 1], high) - np.maximum(edges_u[i0:i1], low)
        along = np.maximum(along, 0.0) * _slowness(edges_u[i0:i1] + size / 2, min(u0, u1), max(u0, u1), hand, random)
        across = profile.mirrored() if forth else profile
        stray = _stray(len(along), size, hand, random)
        j0 = max(0, int((v0 - reach - first_v) / size))
        j1 = min(rows, int((v0 + reach - first_v) / size) + 2)
        if stray is None:
            frame[j0:j1, i0:i1] += np.diff(across.up_to(edges_v[j0 : j1 + 1] - v0))[:, None] * along[None, :]
        else:
            places = edges_v[j0 : j1 + 1, None] - v0 - stray[None, :]
            frame[j0:j1, i0:i1] += np.diff(across.up_to(places), axis=0) * along[None, :]
        metres += float(along.sum())
    frame *= per_metre
    grid.take(Grid(frame, (first_u, first_v), size), turn)
    return metres


def _slowness(places: Floats, low: float, high: float, hand: Hand, random: np.random.Generator) -> Floats:
    """By how much more falls than at an even pace: walked at half the pace, twice as much."""
    pace = np.ones(len(places))
    if hand.pace:
        pace *= np.clip(1 + hand.pace * _smooth(len(places), places[1] - places[0] if len(places) > 1 else 1.0, random), 0.3, 3)
    if hand.slow_over:
        pace[(places < low + hand.slow_over) | (places > high - hand.slow_over)] *= hand.slow
    return np.asarray(1 / pace)


def _stray(count: int, size: float, hand: Hand, random: np.random.Generator) -> Floats | None:
    return np.clip(hand.line * _smooth(count, size, random), -4 * hand.line, 4 * hand.line) if hand.line else None


def _smooth(count: int, size: float, random: np.random.Generator) -> Floats:
    """Noise of spread 1 that changes over `WANDER_LENGTH`; straight lines between knots keep two thirds of their variance."""
    knots = max(4, math.ceil(count * size / WANDER_LENGTH) + 3)
    return np.interp(np.linspace(0, knots - 1, count), np.arange(knots), random.standard_normal(knots) * math.sqrt(1.5))


def _lay_ring(grid: Grid, ring: Pass, profile: Profile, per_metre: float) -> float:
    """Lay a pass of many bends, step by step; gives the metres walked."""
    size = grid.size
    low, high = profile.reach
    count = max(1, math.ceil(2 * (high - low) / size))
    edges = np.linspace(low, high, count + 1)
    shares = np.diff(profile.up_to(edges))
    middles = (edges[1:] + edges[:-1]) / 2
    corners = np.array(ring.line)
    legs = np.diff(corners, axis=0)
    lengths = np.hypot(legs[:, 0], legs[:, 1])
    keep = lengths > 0
    legs, lengths, starts = legs[keep], lengths[keep], corners[:-1][keep]
    steps = np.maximum(1, np.ceil(2 * lengths / size)).astype(np.int64)
    leg = np.repeat(np.arange(len(legs)), steps)
    along = (np.arange(len(leg)) - np.repeat(np.cumsum(steps) - steps, steps) + 0.5) / steps[leg]
    ahead = (legs / lengths[:, None])[leg]
    middle = starts[leg] + legs[leg] * along[:, None]
    x = middle[:, :1] + middles[None, :] * ahead[:, 1:]
    y = middle[:, 1:] - middles[None, :] * ahead[:, :1]
    each = per_metre * (lengths / steps)[leg]
    grid.drop(x, y, each[:, None] * shares[None, :])
    return ring.length
