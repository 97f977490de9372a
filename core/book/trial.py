"""A trial on ground: strips across its true outline, treatments drawn by lot within blocks, and how little it could show.

Randomised complete blocks: each block holds every treatment once, side by side, so that what the ground does by itself is
shared within it (Fisher, The Design of Experiments, 1935, from memory). The difference it could show is by the noncentral t.
"""

import math
from dataclasses import dataclass
from functools import cache, lru_cache
from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.affinity import rotate
from shapely.geometry import Polygon, box
from shapely.geometry.base import BaseGeometry

from core.errors import InputError
from core.units import show_number

Floats = NDArray[np.float64]

MOST_TREATMENTS, MOST_BLOCKS, MOST_PLOTS = 6, 12, 48
"""Beyond these nobody scores them all in one light (ours)."""
RISK, POWER = 0.05, 0.8
"""How often chance alone may be taken for a difference, and how often one that is there is to be found (by convention)."""
SCATTER = 0.5
"""By how much plots treated alike are scored apart on a scale of 1 to 9 (a standard deviation; common practice, no source)."""
LEAST_WIDTH = 1.0
"""A strip narrower than this [m] is all edge (common practice, no source)."""
NEAR = 1e-4
"""How much narrower than asked a strip may come out, as a share (ours)."""
NODES = 200
"""Of the integral over the spread, by Gauss and Legendre (ours)."""
TABLE, HALVINGS = 129, 16
"""Places at which the ground left of them is read, and how often the step between two is halved: to 1e-7 of the length (ours)."""


@dataclass(frozen=True)
class Plot:
    """A strip of ground: its number along the cut and its block, both from 1, which treatment it drew, and its shape [m]."""

    number: int
    block: int
    treatment: int
    shape: BaseGeometry

    @property
    def middle(self) -> tuple[float, float]:
        """A place well inside it [m]: its centroid, unless that lies off it."""
        point = self.shape.centroid
        found = point if self.shape.contains(point) else self.shape.representative_point()
        return found.x, found.y

    @property
    def rings(self) -> tuple[tuple[tuple[float, float], ...], ...]:
        """Its outer rings [m], to the centimetre, the first point not repeated."""
        parts = getattr(self.shape, "geoms", [self.shape])
        return tuple(
            tuple((round(float(x), 2), round(float(y), 2)) for x, y in p.exterior.coords[:-1])
            for p in parts
            if isinstance(p, Polygon)
        )


@dataclass(frozen=True)
class Layout:
    """Plots of one size each, cut square to `direction` [degrees from the x axis];
    `width` is that of the narrowest and `widest` that of the widest [m]; `fit` is how many blocks would fit.
    """

    plots: tuple[Plot, ...]
    blocks: int
    direction: float
    width: float
    widest: float
    fit: int


def long_way(ground: BaseGeometry) -> float:
    """The direction in which ground is longest [degrees from the x axis, 0 to 180): cut square to it, most strips fit."""
    ring = list(shapely.minimum_rotated_rectangle(ground).exterior.coords)
    a, b = max(((ring[i], ring[i + 1]) for i in range(2)), key=lambda side: round(math.dist(*side), 6))
    return math.degrees(math.atan2(b[1] - a[1], b[0] - a[0])) % 180


def strips(ground: BaseGeometry, count: int, direction: float) -> tuple[list[BaseGeometry], list[float]]:
    """Ground cut into strips of one size, in their order along `direction` [degrees], and how wide each is [m]."""
    turned = rotate(ground, -direction, origin=(0, 0))
    left, low, right, high = turned.bounds
    at = [left, *_cuts(turned, count), right]
    cut = [turned.intersection(box(a, low - 1, b, high + 1)) for a, b in pairwise(at)]
    return [rotate(s, direction, origin=(0, 0)) for s in cut], [b - a for a, b in pairwise(at)]


def _cuts(turned: BaseGeometry, count: int) -> list[float]:
    """Where to cut across x, so that every strip holds the same ground: from a table of shares, put right by halving."""
    left, low, right, high = turned.bounds
    shapely.prepare(turned)

    def share(x: Floats) -> Floats:
        found: Floats = shapely.area(shapely.intersection(turned, shapely.box(left, low - 1, x, high + 1)))
        return np.asarray(found / turned.area)

    table = np.linspace(left, right, TABLE)
    wanted = np.arange(1, count) / count
    at = np.clip(np.searchsorted(share(table), wanted), 1, TABLE - 1)
    below, above = table[at - 1], table[at]
    for _ in range(HALVINGS):
        middle = (below + above) / 2
        short = share(middle) < wanted
        below, above = np.where(short, middle, below), np.where(short, above, middle)
    return [float(x) for x in (below + above) / 2]


def blocks_that_fit(ground: BaseGeometry, treatments: int, direction: float, least: float) -> int:
    """How many times every treatment fits on the ground in strips no narrower than `least` [m]; 0 where not even once.

    Args:
        ground: its outline [m].
        treatments: how many.
        direction: that the strips are cut square to [degrees].
        least: how wide a strip must be [m].
    """
    left, _, right, _ = rotate(ground, -direction, origin=(0, 0)).bounds
    most = min(MOST_BLOCKS, MOST_PLOTS // treatments, int((right - left) / (least * treatments) + 1e-9))
    return next((b for b in range(most, 0, -1) if min(strips(ground, b * treatments, direction)[1]) >= least * (1 - NEAR)), 0)


def lots(treatments: int, blocks: int, seed: int) -> list[list[int]]:
    """Which treatment each plot of each block draws, shape (blocks, treatments); the same seed draws the same."""
    draw = np.random.Generator(np.random.PCG64(seed))
    return [[int(t) for t in draw.permutation(treatments)] for _ in range(blocks)]


def lay_out(
    ground: BaseGeometry, treatments: int, seed: int, *, least: float, blocks: int | None = None, direction: float | None = None
) -> Layout:
    """Cut ground into plots and draw lots.

    Args:
        ground: its outline [m], holes cut out.
        treatments: how many, the untreated one counted.
        seed: of the lots.
        least: how wide a strip must be [m]: a swath of what goes over it.
        blocks: how many times each treatment stands; as many as fit where it is None.
        direction: to cut square to [degrees]; the long way where it is None.

    Raises:
        InputError: too few or too many treatments, ground too narrow for one of each, or more blocks than fit.
    """
    if not 2 <= treatments <= MOST_TREATMENTS:
        raise InputError(
            "treatments",
            treatments,
            f"{treatments} treatments make no trial here.",
            f"Give 2 to {MOST_TREATMENTS}, one untreated.",
        )
    way = long_way(ground) if direction is None else direction % 180
    fit = blocks_that_fit(ground, treatments, way, least)
    if not fit:
        raise InputError(
            "least",
            show_number(least),
            f"{treatments} strips of {show_number(least, 3)} m do not fit on it this way.",
            "Cut it the other way, take a narrower machine, or try fewer treatments.",
        )
    if blocks is not None and not 1 <= blocks <= fit:
        raise InputError(
            "blocks", blocks, f"{blocks} repeats do not fit: {fit} {'does' if fit == 1 else 'do'}.", f"Give 1 to {fit}, or none."
        )
    count = blocks or fit
    shapes, widths = strips(ground, count * treatments, way)
    drawn = [t for block in lots(treatments, count, seed) for t in block]
    plots = tuple(Plot(i + 1, i // treatments + 1, drawn[i], shape) for i, shape in enumerate(shapes))
    return Layout(plots, count, way, min(widths), max(widths), fit)


@lru_cache(256)
def detectable(blocks: int, treatments: int = 2) -> float | None:
    """The least difference of two treatments that would be found with `POWER` at `RISK`, two-sided.

    Returns:
        It, in standard deviations of the difference between two plots of a block; None where nothing can be told.
    """
    from scipy.optimize import brentq
    from scipy.stats import t

    df = (blocks - 1) * (treatments - 1)
    if df < 1:
        return None
    bar = float(t.ppf(1 - RISK / 2, df))
    size = 1.0
    while _power(size * math.sqrt(blocks), bar, df) < POWER:
        size *= 2
    return float(brentq(lambda d: _power(d * math.sqrt(blocks), bar, df) - POWER, 0, size, xtol=1e-6))


def _power(off: float, bar: float, df: int) -> float:
    """How often |t| is beyond `bar`, by the noncentral t at `off`, as an integral over the spread that was found.

    scipy's own gives no number where the degrees of freedom are few.
    """
    from scipy.special import gammaln, ndtr

    root = math.sqrt(df)
    nodes, weights = _nodes()
    half = (1 + 12 / root) / 2  # beyond it the spread of a normal sample is never found
    spread = half * (nodes + 1)
    of_spread = np.exp((df - 1) * np.log(spread * root) - (spread * root) ** 2 / 2 + (1 - df / 2) * math.log(2) - gammaln(df / 2))
    beyond = ndtr(off - bar * spread) + ndtr(-bar * spread - off)
    return float((weights * beyond * of_spread).sum() * root * half)


@cache
def _nodes() -> tuple[Floats, Floats]:
    nodes, weights = np.polynomial.legendre.leggauss(NODES)
    return nodes, weights


def could_show(blocks: int, treatments: int, scatter: float) -> float | None:
    """The least difference that would be found, where plots treated alike scatter by `scatter` (a standard deviation).

    Args:
        blocks: how many times each treatment stands.
        treatments: how many, the untreated one counted.
        scatter: of plots of one block, treated alike [marks].
    """
    found = detectable(blocks, treatments)
    return None if found is None else found * scatter * math.sqrt(2)
