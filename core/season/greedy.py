"""The plan of somebody who always takes what pays most next: what the optimum is begun from, and held against."""

import math
from collections.abc import Sequence
from heapq import heapify, heappop, heappush
from typing import Any

import numpy as np

from core.season.problem import EXACT, Choice, Optimum, Problem, bought, broken, covered, tally


def greedy(problem: Problem) -> Optimum:
    """The plan of somebody who takes, as long as it pays, whatever pays most next and breaks no rule."""
    chosen = list(problem.fixed)
    bare = {key: problem.needed(*key) - covered(problem, chosen, *key) for key in problem.worth}
    every = [
        (i, d)
        for i in range(len(problem.options))
        for d in problem.options[i].all_days(problem.days)
        if (i, d) not in problem.fixed
    ]
    paid = {p: bought(problem, chosen, p) for p in problem.packages}
    heap = [(-_gain(problem, c, chosen, bare, paid), c) for c in every]
    heapify(heap)
    out, fresh = {(d, problem.options[i].machine) for i, d in chosen}, dict[Choice, int]()
    while heap and -heap[0][0] > EXACT:
        _, best = heappop(heap)
        if fresh.get(best) != len(chosen):  # what was chosen since may have taken from what it gains
            fresh[best] = len(chosen)
            heappush(heap, (-_gain(problem, best, chosen, bare, paid), best))
            continue
        option = problem.options[best[0]]
        if broken(problem, [*chosen, best], option.area):
            continue
        chosen.append(best)
        for target in option.covers:
            if (option.area, target) in bare:
                bare[option.area, target] = problem.needed(option.area, target) - covered(problem, chosen, option.area, target)
        if option.product in paid:
            paid[option.product] = bought(problem, chosen, option.product)
        if (best[1], option.machine) not in out:  # the way is paid: what else goes out that day gains by it
            out.add(way := (best[1], option.machine))
            heap = [(g - problem.outing * ((c[1], problem.options[c[0]].machine) == way), c) for g, c in heap]
            heapify(heap)
    ordered = tuple(sorted(chosen, key=lambda c: (c[1], c[0])))
    return Optimum(ordered, tally(problem, ordered), math.inf)


def _gain(problem: Problem, choice: Choice, chosen: Sequence[Choice], bare: Any, paid: dict[str, float]) -> float:
    """By how much a choice more makes a plan cheaper."""
    i, day = choice
    option = problem.options[i]
    gain = -option.cost
    if problem.outing or problem.change:
        there = {problem.options[j].product for j, d in chosen if d == day and problem.options[j].machine == option.machine}
        gain -= problem.outing * (not there) + problem.change * bool(there - {option.product} and option.product not in there)
    if option.product in paid:
        gain -= bought(problem, [*chosen, choice], option.product) - paid[option.product]
    for target, share in option.covers.items():
        if (option.area, target) in bare:
            a, b = day + option.lag, day + option.lasts
            gain += float((problem.worth[option.area, target][a:b] * np.minimum(share, bare[option.area, target][a:b])).sum())
    return gain
