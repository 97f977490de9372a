"""The making of a plan: how it grows with areas and with days to go out on, and anew after one change against from nothing."""

from dataclasses import replace
from functools import partial

import numpy as np

from bench.timing import best
from core.season.optimise import optimise
from core.season.problem import Option, Problem

DAYS = 365
SEASON = range(80, 320)
LONG = 60.0
"""Time enough to end by itself [s]."""


def year(areas: int, step: int) -> Problem:
    """A made-up year: four products of their own groups on so many areas, gone out with every so many days."""
    dice = np.random.default_rng(5)
    risk = np.clip(np.sin((np.arange(DAYS) - 100) / 200 * np.pi), 0, 1) * (dice.random(DAYS) > 0.55) * 9
    out = frozenset(d for d in SEASON if d % step == 0)
    shelf = (("P", 30, 14, 14, "FRAC 11"), ("Q", 42, 21, 14, "FRAC 3"), ("R", 26, 10, 7, "FRAC M05"), ("S", 50, 28, 21, "FRAC 7"))
    options = tuple(
        Option(f"{n}", name, cost * (1 + 0.1 * n), lasts, least, {"spot": 1.0}, (code,), most=6, days=out, machine="boom")
        for n in range(areas)
        for name, cost, lasts, least, code in shelf
    )
    worth = {(f"{n}", "spot"): risk * (0.7 + 0.06 * n) for n in range(areas)}
    return Problem(DAYS, options, worth, outing=25.0, in_a_row={"FRAC 11": 2, "FRAC 3": 2, "FRAC 7": 2})


def run() -> None:
    """Print the ratios."""
    few, many, often = (best(partial(optimise, year(areas, step)), 1) for areas, step in ((2, 7), (8, 7), (2, 3)))
    print(f"plan: 8 areas to 2, by the week: {many / few:.1f} times")
    print(f"plan: every third day to every seventh, 2 areas: {often / few:.1f} times")
    large = year(10, 5)
    plan = optimise(large, LONG)
    rain = {c for c in plan.chosen if 200 <= c[1] < 214}
    out = tuple(replace(o, days=o.days and o.days - set(range(200, 214))) for o in large.options)
    changed = replace(large, options=out, before=frozenset(plan.chosen) - rain)
    fresh = best(partial(optimise, replace(changed, before=frozenset()), LONG), 1)
    print(f"plan: anew after two weeks of rain, to from nothing: {best(partial(optimise, changed, LONG), 1) / fresh:.2f} times")
