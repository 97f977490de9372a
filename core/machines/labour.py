"""How long a job takes on the ground: walking or driving it, turning, filling, getting out and cleaning up.

A pace of 1.1 m/s behind a machine is common practice, no source; the shares and hours around it are ours.
"""

import math

PACE = 1.1
"""Walking behind a machine [m/s] where nobody timed it (common practice, no source)."""
TURNING = 1.5
"""How much longer turning makes it (ours)."""
AROUND = 0.25
"""Hours for getting out and cleaning up an area (ours)."""
FILLING = 0.2
"""Hours for measuring out and filling a tank or hopper once more (ours)."""
BY_HAND = 1000.0
"""What is put down in an hour where no machine or no swath is known [m²] (ours)."""
EXACT = 1e-9


def hours_of(size: float, swath: float | None = None, pace: float | None = None, fills: int = 1) -> float:
    """How long an area takes, out and back [h].

    Args:
        size: of the area [m²].
        swath: how far apart passes are walked [m], None where it is not known.
        pace: as it was timed [m/s], None where nobody did.
        fills: how often the tank or hopper is filled.
    """
    return AROUND + on_ground(size, swath, pace) + FILLING * (fills - 1)


def on_ground(size: float, swath: float | None = None, pace: float | None = None) -> float:
    """How long an area is walked or driven over [h].

    Args:
        size: of the area [m²].
        swath: how far apart passes are walked [m], None where it is not known.
        pace: as it was timed [m/s], None where nobody did.
    """
    return size * TURNING / (swath * (pace or PACE) * 3600) if swath else size / BY_HAND


def fills_of(size: float, output: float, capacity: float) -> int:
    """How often a tank is filled for an area, once at the least.

    Args:
        size: of the area [m²].
        output: what one pass puts down [L/m²].
        capacity: of the tank [L].
    """
    return max(1, math.ceil(size * output / capacity - EXACT)) if capacity > 0 else 1
