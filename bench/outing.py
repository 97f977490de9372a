"""The order of an outing, and gathering what is due: how they grow."""

from functools import partial

import numpy as np

from bench.timing import best
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rules import Rules
from core.outing.gather import Want, gathered
from core.outing.jobs import Doing, Job, Leg, Stop
from core.outing.order import Morning
from core.outing.sequence import sequence

LONG = 60.0
"""Time enough to end by itself [s]."""


def morning(jobs: int, sites: int) -> Morning:
    """A made-up morning: so many jobs with locks of their own, each at every site, from three machines."""
    dice = np.random.default_rng(3)
    names = [f"yard {n}" for n in range(sites)]
    ways = {(a, b): int(dice.integers(5, 25)) for a in names for b in names if a != b}
    made = []
    for n in range(jobs):
        rules = Rules(rain_after=float(dice.integers(1, 4)), reentry=float(dice.integers(0, 2)) / 2 or None)
        product = Product(f"P{n}", Kind.IRON, FORMULATIONS["SL"], rules=rules)
        legs = tuple(Leg(s, (Stop(f"{s} {n % 3}", int(dice.integers(5, 20))),)) for s in names)
        made.append(Job(f"{n}", Doing.SPRAY, legs, (product,), f"machine {n % 3}", ready=10, clean=10, weight=1 + n % 3))
    return Morning(tuple(made), 300, 1440, ways).driven()


def wants(count: int) -> list[Want]:
    """So many due lines of twenty mixes."""
    dice = np.random.default_rng(4)
    return [
        Want(f"{n}", f"{n % 60}", f"site {n % 6}", (f"P{dice.integers(20)}",), Doing.SPRAY, "boom", rate=float(dice.random()))
        for n in range(count)
    ]


def run() -> None:
    """Print the ratios."""
    few, many = (best(partial(sequence, morning(jobs, 1), LONG), 1) for jobs in (6, 12))
    print(f"outing: 12 jobs to 6, one site: {many / few:.1f} times")
    drive = best(partial(sequence, morning(3, 6), LONG), 1)
    print(f"outing: 3 jobs over six yards, to 12 jobs on one site: {drive / many:.1f} times")
    one, ten = (best(partial(gathered, wants(count))) for count in (20, 200))
    print(f"outing: gathering 200 due lines, to 20: {ten / one:.1f} times")
