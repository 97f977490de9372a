"""A rounded area from radii taken at even angles around a pin.

The area inside r(θ) is the integral of ½ r² dθ; at even angles that is π times the mean of the squared radii. The
trade squares the mean radius instead, which is never higher; chords from end to end cut off what bulges between them.
"""

import math
from collections.abc import Sequence
from typing import Literal

from core.areas.plan import Mark, Measured, Outline, Plan
from core.errors import InputError
from core.units import Unit, positive, show_number, show_percent
from core.working import Step, Term, line, times

Rule = Literal["mean_square", "mean_radius", "chords"]
FEWEST, MOST = 3, 72
WORDS: dict[str, str] = {"mean_square": "mean of the squares", "mean_radius": "mean radius, squared", "chords": "chords"}


def mean_square(radii: Sequence[float]) -> float:
    """π × mean(r²): the integral by even angles; in the square of the radii's unit.

    Args:
        radii: at even angles [m].
    """
    return math.pi * math.fsum(r * r for r in radii) / len(radii)


def mean_radius(radii: Sequence[float]) -> float:
    """π × mean(r)²: as the trade does it; in the square of the radii's unit.

    Args:
        radii: at even angles [m].
    """
    return math.pi * (math.fsum(radii) / len(radii)) ** 2


def chords(radii: Sequence[float]) -> float:
    """The polygon through the ends of the radii; in the square of the radii's unit.

    Args:
        radii: at even angles [m].
    """
    following = [*radii[1:], radii[0]]
    return 0.5 * math.sin(2 * math.pi / len(radii)) * math.fsum(a * b for a, b in zip(radii, following, strict=True))


def by_radii(radii: Sequence[float], unit: Unit, rule: Rule = "mean_square") -> Measured:
    """The ground around a pin from which `radii` were taped at even angles.

    Args:
        radii: at even angles [m].
        unit: a unit of length.
        rule: `mean_square`, `mean_radius` or `chords`; all three are told.

    Raises:
        InputError: too few or too many radii, or one that is not positive.
    """
    if not FEWEST <= len(radii) <= MOST:
        raise InputError("radii", len(radii), f"{len(radii)} radii make no area.", f"Tape {FEWEST} to {MOST} at even angles.")
    for i, r in enumerate(radii):
        positive(f"radii.{i}", r, most=1e5 / unit.size, symbol=unit.symbol)
    every = {"mean_square": mean_square(radii), "mean_radius": mean_radius(radii), "chords": chords(radii)}
    size, symbol = every[rule], unit.symbol
    told = ", ".join(f"{WORDS[k]} {show_number(v, 5)} {symbol}²" for k, v in every.items())
    notes = [f"By {told}. Taken: {WORDS[rule]}."]
    if len(radii) < 8:
        notes.append("Fewer than eight radii miss what the edge does between them.")
    if max(radii) > 2 * min(radii):
        notes.append(
            f"The longest radius is {show_number(max(radii) / min(radii), 2)} times the shortest "
            f"({show_percent(every['mean_radius'] / every['mean_square'] - 1, sign=True)} between the rules): "
            "offsets along a baseline suit a long shape better."
        )
    angle = 2 * math.pi / len(radii)
    ring = tuple((r * unit.size * math.sin(i * angle), r * unit.size * math.cos(i * angle)) for i, r in enumerate(radii))
    marks = tuple(Mark((0.0, 0.0), p, f"{show_number(r)} {symbol}") for p, r in zip(ring, radii, strict=True))
    return Measured(size * unit.size**2, Plan((Outline(ring),), marks), (_step(radii, symbol, rule, size),), tuple(notes))


def _step(radii: Sequence[float], symbol: str, rule: Rule, size: float) -> Step:
    result = Term(size, f"{symbol}²")
    if rule == "mean_radius":
        mean = math.fsum(radii) / len(radii)
        return line("π × mean radius squared", Term(math.pi), times(mean, symbol), times(mean, symbol), result=result)
    if rule == "chords":
        half = 0.5 * math.sin(2 * math.pi / len(radii))
        terms = (Term(half), times(size / half, f"{symbol}²"))
        return line("Half the sine of the angle × sum of neighbours' products", *terms, result=result)
    return line("π × mean of the squared radii", Term(math.pi), times(size / math.pi, f"{symbol}²"), result=result)
