"""The landing map against a plain loop over cells and against adding bands to a map; its growth; the search for a direction."""

from collections.abc import Callable

import numpy as np
from shapely.geometry import Point, box

from bench.timing import best
from core.machines.pattern import pattern
from core.passes.landing import Landed, Profile, land, profile_of
from core.passes.plan import Walk, walk

RATE, CELL = 20.0, 0.1
PROFILE = profile_of(pattern([2, 6, 10, 12, 12, 13, 12, 12, 10, 6, 2], 0.2))


def laid(side: float, spacing: float) -> tuple[Walk, Callable[[], Landed]]:
    field = box(0, 0, side, side)
    plan = walk(field, spacing, 0)
    return plan, lambda: land([plan], field, PROFILE, RATE, CELL)


def looped(plan: Walk, like: Landed, profile: Profile) -> np.ndarray:
    """The same map, each cell and pass in turn."""
    rows, columns = like.cells.shape
    cells = np.zeros((rows, columns))
    for one in plan.passes:
        (x0, v), (x1, _) = one.line[0], one.line[-1]
        side = profile.mirrored() if x1 > x0 else profile
        for j in range(rows):
            y = like.origin[1] + j * CELL
            low, high = side.up_to(np.array([y - v, y + CELL - v]))
            if high <= low:
                continue
            for i in range(columns):
                x = like.origin[0] + i * CELL
                along = min(x + CELL, max(x0, x1)) - max(x, min(x0, x1))
                if along > 0:
                    cells[j, i] += (high - low) * along * RATE * plan.spacing / CELL**2
    return cells


def bands(found: Landed, plan: Walk) -> np.ndarray:
    """The least that any landing map does: to add to the map, for each pass, the band that it covers."""
    cells = np.zeros_like(found.cells)
    low, high = PROFILE.reach
    for one in plan.passes:
        (_, y), _ = one.line
        a, b = (int((y + edge - found.origin[1]) / CELL) for edge in (low, high))
        cells[a:b] += RATE
    return cells


def run() -> None:
    """Print the ratios."""
    plan, lay = laid(20, 1)
    found = lay()
    loop = best(lambda: looped(plan, found, PROFILE), 1)
    off = abs(looped(plan, found, PROFILE).sum() / found.cells.sum() - 1)
    print(f"landing map, 20 m square / a plain loop over cells   {best(lay) / loop:.3f}x  (they agree to {off:.0e})")
    plan, lay = laid(100, 1)
    found = lay()
    hectare = best(lay)
    floor = best(lambda: bands(found, plan))
    print(f"landing map, a hectare in {len(plan.passes)} passes / adding their bands to it  {hectare / floor:.1f}x")
    _, four = laid(200, 2)
    print(f"four hectares in as many passes / one               {best(four) / hectare:.1f}x  (linear is 4x)")
    _, twice = laid(100, 0.5)
    print(f"twice the passes / as many                          {best(twice) / hectare:.1f}x  (linear is 2x)")
    field = Point(0, 0).buffer(56)
    laying, search = best(lambda: walk(field, 2, 30)), best(lambda: walk(field, 2))
    print(f"a hectare planned in the best direction / in a given one {search / laying:.1f}x  (36 and more are tried)")
