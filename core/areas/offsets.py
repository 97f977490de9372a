"""An outline from offsets along a baseline: the trapezoid rule and Simpson's rule, and what they differ by.

`sum × spacing`, as it is often done, is the trapezoid rule only where the first and last offset are zero.
"""

import math
from collections.abc import Sequence
from typing import Literal

from core.areas.plan import Mark, Measured, Outline, Plan
from core.errors import InputError
from core.units import Unit, positive, show_number, show_percent
from core.working import Term, divided_by, line, times

Rule = Literal["trapezoid", "simpson"]
MOST_OFFSETS = 200


def trapezoid(offsets: Sequence[float], spacing: float) -> float:
    """Area by the trapezoid rule; offsets and spacing in one unit.

    Args:
        offsets: across the ground [m].
        spacing: between them [m].
    """
    return spacing * (math.fsum(offsets) - (offsets[0] + offsets[-1]) / 2)


def simpson(offsets: Sequence[float], spacing: float) -> float:
    """Area by Simpson's rule; offsets and spacing in one unit.

    Args:
        offsets: across the ground [m].
        spacing: between them [m].

    Raises:
        InputError: an odd number of intervals.
    """
    if len(offsets) < 3 or len(offsets) % 2 == 0:
        raise InputError(
            "offsets",
            len(offsets),
            f"Simpson's rule needs an even number of intervals; {len(offsets)} offsets make {len(offsets) - 1}.",
            "Take one offset more or fewer, or use the trapezoid rule.",
        )
    return spacing / 3 * (offsets[0] + offsets[-1] + 4 * math.fsum(offsets[1:-1:2]) + 2 * math.fsum(offsets[2:-1:2]))


def by_offsets(offsets: Sequence[float], spacing: float, unit: Unit, rule: Rule = "trapezoid") -> Measured:
    """The ground between a baseline and the edge that the offsets reach, taken at even `spacing` along it.

    Args:
        offsets: across the ground [m].
        spacing: between them [m].
        unit: a unit of length.
        rule: `trapezoid` (straight edge between offsets) or `simpson` (curved edge; an even number of intervals).

    Raises:
        InputError: too few or too many offsets, a negative one, all zero, or an odd number of intervals for Simpson.
    """
    if not 2 <= len(offsets) <= MOST_OFFSETS:
        raise InputError("offsets", len(offsets), f"{len(offsets)} offsets make no area.", f"Give 2 to {MOST_OFFSETS}.")
    positive("spacing", spacing, most=1e5 / unit.size, symbol=unit.symbol)
    for i, offset in enumerate(offsets):
        positive(f"offsets.{i}", offset, most=1e5 / unit.size, symbol=unit.symbol, zero=True)
    if not any(offsets):
        raise InputError("offsets", 0, "All offsets are zero.", "Measure from the baseline to the edge.")
    straight = trapezoid(offsets, spacing)
    curved = simpson(offsets, spacing) if len(offsets) >= 3 and len(offsets) % 2 else None
    size = straight if rule == "trapezoid" else simpson(offsets, spacing)
    symbol = unit.symbol
    if rule == "trapezoid":
        step = line(
            "Trapezoid rule: spacing × (sum less half the ends)",
            Term(spacing, symbol),
            times(straight / spacing, symbol),
            result=Term(straight, f"{symbol}²"),
        )
    else:
        step = line(
            "Simpson's rule: spacing ÷ 3 × (ends + 4 × odd + 2 × even)",
            Term(spacing, symbol),
            divided_by(3),
            times(3 * size / spacing, symbol),
            result=Term(size, f"{symbol}²"),
        )
    notes = []
    if curved is not None:
        notes.append(
            f"Trapezoid rule {show_number(straight, 6)} {symbol}², Simpson's {show_number(curved, 6)} {symbol}²: "
            f"{show_percent(curved / straight - 1, sign=True)}. Taken: {'trapezoid' if rule == 'trapezoid' else 'Simpson'}."
        )
    return Measured(size * unit.size**2, _plan(offsets, spacing, unit), (step,), tuple(notes))


def _plan(offsets: Sequence[float], spacing: float, unit: Unit) -> Plan:
    def to(x: float, y: float) -> tuple[float, float]:
        return x * unit.size, y * unit.size

    long = spacing * (len(offsets) - 1)
    edge = [to(spacing * i, y) for i, y in enumerate(offsets)]
    ring = [to(0, 0), to(long, 0), *reversed(edge)]
    kept = tuple(p for i, p in enumerate(ring) if p != ring[i - 1])
    marks = [Mark(to(0, 0), to(long, 0), f"{show_number(long)} {unit.symbol}")]
    marks += [Mark((p[0], 0.0), p, show_number(y)) for p, y in zip(edge, offsets, strict=True) if y]
    return Plan((Outline(kept),), tuple(marks))
