"""How long work takes."""

import time
from collections.abc import Callable


def best(work: Callable[[], object], rounds: int = 3) -> float:
    """The quickest of some rounds [s]."""
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return min(times)
