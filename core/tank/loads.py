"""Loads: how a job divides into tanks or hoppers, the odd last one its own.

A sprayer's mix is the same in every tank, so its loads run on through the passes. A spreader's product is weighed out a
pass at a time: half the dose one way, half across it (common practice, no source).
"""

import math
from dataclasses import dataclass

from core.errors import InputError
from core.units import positive

CRUMB = 1e-9
"""A last load smaller than this share of a full one is the noise of binary arithmetic, not a load."""

MOST_LOADS = 200
"""More loads than this for one job are taken for a slip in tank, output or area."""

MOST_PASSES = 8


@dataclass(frozen=True)
class Load:
    """One tank or hopper.

    `share` is how much of everything that is mixed it holds, 0 to 1, `volume` its finished spray [L], 0 for granules. `area` is
    the ground that one pass of it covers [m²], `pass_number` the pass it belongs to, or 0 where loads run on through the passes.
    `odd` marks one that is not full; `passes` are the first and the last pass that it goes into.
    """

    number: int
    pass_number: int
    share: float
    volume: float
    area: float
    odd: bool
    passes: tuple[int, int] = (1, 1)


def check_passes(passes: int, field: str = "passes") -> int:
    """`passes` if it is a sensible number of times to cover the ground.

    Raises:
        InputError: below 1 or above `MOST_PASSES`.
    """
    if not 1 <= passes <= MOST_PASSES:
        raise InputError(field, passes, f"{passes} passes make no job.", f"Enter 1 to {MOST_PASSES}.")
    return passes


def _parts(total: float, capacity: float, even: bool, field: str) -> list[float]:
    """`total` in parts of at most `capacity`: full ones and an odd last one, or all alike."""
    ratio = total / capacity
    count = max(1, math.ceil(ratio - CRUMB))
    if count > MOST_LOADS:
        raise InputError(
            field, count, f"That would take {count:,} loads.", "Check the area, the output and the size of the machine."
        )
    if even or count == 1:
        return [total / count] * count
    return [capacity] * (count - 1) + [total - capacity * (count - 1)]


def tank_loads(
    *, area: float, output: float, tank: float, passes: int = 1, even: bool = False, by_pass: bool = False
) -> tuple[Load, ...]:
    """The tanks of a spray job.

    Args:
        area: ground to treat [m²].
        output: what the sprayer puts down in one pass [L/m²].
        tank: what the tank holds [L].
        passes: how many times the ground is covered; everything mixed is divided by them.
        even: all tanks alike, in place of full tanks and an odd last one.
        by_pass: each pass is filled for itself, in place of tanks that run on through the passes.

    Raises:
        InputError: not positive, or too many loads or passes.
    """
    for name, value in (("area", area), ("output", output), ("tank", tank)):
        positive(name, value)
    check_passes(passes)
    once = output * area
    turns = range(1, passes + 1) if by_pass and passes > 1 else [0]
    whole = once if by_pass else once * passes
    loads: list[Load] = []
    for pass_number in turns:
        for volume in _parts(whole, tank, even, "tank"):
            share = volume / (once * passes)
            odd = volume < tank * (1 - CRUMB)
            passed = _passed(sum(x.volume for x in loads), volume, once)
            loads.append(Load(len(loads) + 1, pass_number, share, volume, volume / output, odd, passed))
    return tuple(loads)


def _passed(before: float, volume: float, once: float) -> tuple[int, int]:
    """The first and the last pass that a tank goes into, of which each takes `once` [L], `before` it so much having gone out."""
    return math.floor(before / once + CRUMB) + 1, math.ceil((before + volume) / once - CRUMB)


def hopper_loads(*, dose: float, area: float, hopper: float, passes: int = 1, even: bool = False) -> tuple[Load, ...]:
    """The hopper fills of a granular job, a pass at a time.

    Args:
        dose: everything that goes down, for the whole job [g].
        area: ground to treat [m²].
        hopper: what the hopper holds [g].
        passes: how many times the ground is covered; each pass gets its share of the dose.
        even: all fills of a pass alike, in place of full ones and an odd last one.

    Raises:
        InputError: not positive, or too many loads or passes.
    """
    for name, value in (("dose", dose), ("area", area), ("hopper", hopper)):
        positive(name, value)
    check_passes(passes)
    share = dose / passes
    loads: list[Load] = []
    for pass_number in range(1, passes + 1):
        for amount in _parts(share, hopper, even, "hopper"):
            loads.append(
                Load(
                    len(loads) + 1,
                    pass_number if passes > 1 else 0,
                    amount / dose,
                    0.0,
                    area * (amount / share),
                    amount < hopper * (1 - CRUMB),
                    (pass_number, pass_number),
                )
            )
    return tuple(loads)
