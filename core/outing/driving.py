"""The way over several sites: how long it takes from one to the next, and in which order it is shortest."""

import math
from collections.abc import Mapping, Sequence
from importlib import import_module
from typing import Any

from pyproj import Geod

KMH = 35.0
"""How fast one drives between sites, stops at lights in it [km/h] (ours)."""
DETOUR = 1.3
"""How much longer a road is than the straight line (ours; roads of cities lie between 1.2 and 1.5 of it)."""
LOADING = 4
"""Minutes for loading up and getting out again (ours)."""
SECONDS = 1.0
"""How long the shortest way may be looked for [s] (ours)."""

Place = tuple[float, float]
"""Latitude and longitude [deg]."""


def minutes_between(one: Place, other: Place) -> int:
    """How long it takes from one place to another, told by their distance alone [min].

    Args:
        one: where it begins, latitude and longitude [deg].
        other: where it ends [deg].
    """
    metres = float(Geod(ellps="WGS84").inv(one[1], one[0], other[1], other[0])[2])
    return LOADING + math.ceil(metres / 1000 * DETOUR / KMH * 60)


def shortest(sites: Sequence[str], travel: Mapping[tuple[str, str], int]) -> list[str]:
    """Sites in the order that takes the least driving, from whichever it begins to whichever it ends.

    Solved as a circuit through one place more, which lies next to all of them, by CP-SAT of OR-Tools.

    Args:
        sites: each once.
        travel: how long it takes from one site to another [min]; none where it is not named.
    """
    if len(sites) < 3:
        return list(sites)
    cp: Any = import_module("ortools.sat.python.cp_model")
    m: Any = cp.CpModel()
    arcs, costs = [], []
    for a in range(len(sites) + 1):
        for b in range(len(sites) + 1):
            if a != b:
                taken = m.new_bool_var("goes")
                arcs.append((a, b, taken))
                if a and b:
                    costs.append(travel.get((sites[a - 1], sites[b - 1]), 0) * taken)
    m.add_circuit(arcs)
    m.minimize(sum(costs))
    solver: Any = cp.CpSolver()
    solver.parameters.num_workers, solver.parameters.random_seed = 1, 1
    solver.parameters.max_time_in_seconds = SECONDS
    if solver.solve(m) not in (cp.OPTIMAL, cp.FEASIBLE):
        return list(sites)
    after = {a: b for a, b, taken in arcs if solver.boolean_value(taken)}
    found, here = [], after[0]
    while here:
        found.append(sites[here - 1])
        here = after[here]
    return found
