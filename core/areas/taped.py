"""A polygon from its taped sides and the diagonals from its first corner, triangle by triangle (Heron)."""

import math
from collections.abc import Sequence

from core.areas.plan import Mark, Measured, Outline, Plan, Point, shoelace
from core.areas.shapes import third_corner
from core.errors import InputError
from core.units import Unit, positive, show_number, show_percent
from core.working import Step, Term, line, plus

MOST_SIDES = 40
GOOD_CHECK = 0.01
"""A check tape that differs by more than this share says that something was misread (common practice, no source)."""


def taped(sides: Sequence[float], diagonals: Sequence[float], unit: Unit, check: float | None = None) -> Measured:
    """A polygon of n sides taped in order around it, cut into triangles by the n - 3 diagonals from its first corner.

    Args:
        sides: in order [m].
        diagonals: from the first corner [m].
        check: a diagonal that was taped beside [m].
        unit: a unit of length.

    Raises:
        InputError: too few or too many figures, or a triangle that does not close; names the figure.
    """
    n = len(sides)
    if not 3 <= n <= MOST_SIDES:
        raise InputError("sides", n, f"{n} sides make no area.", f"Tape 3 to {MOST_SIDES} sides around it.")
    if len(diagonals) != n - 3:
        raise InputError(
            "diagonals",
            len(diagonals),
            f"{n} sides need {n - 3} diagonals; there are {len(diagonals)}.",
            "Tape from the first corner to each corner that is not its neighbour.",
        )
    for name, values in (("sides", sides), ("diagonals", diagonals)):
        for i, value in enumerate(values):
            positive(f"{name}.{i}", value, most=1e5 / unit.size, symbol=unit.symbol)
    corners, areas = _triangles(sides, diagonals)
    total = math.fsum(areas)
    steps = _steps(areas, unit.symbol, total)
    ring = tuple((x * unit.size, y * unit.size) for x, y in corners)
    letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz"
    marks = [Mark(ring[i], ring[(i + 1) % n], f"{show_number(s)} {unit.symbol}") for i, s in enumerate(sides)]
    marks += [Mark(ring[0], ring[i + 2], f"{show_number(d)} {unit.symbol}") for i, d in enumerate(diagonals)]
    notes = [f"Corners in order: {', '.join(letters[:n])}; every diagonal starts at A."]
    if abs(shoelace(corners) / total - 1) > 1e-6:
        notes.append("The triangles overlap: from the first corner not every corner can be seen. Begin at another corner.")
    if check is not None:
        notes.append(_checked(corners, check, unit))
    return Measured(total * unit.size**2, Plan((Outline(ring),), tuple(marks)), tuple(steps), tuple(notes))


def _triangles(sides: Sequence[float], diagonals: Sequence[float]) -> tuple[list[Point], list[float]]:
    """The corners, A at the origin and B along x, and the areas of the triangles from A; all in the tape's unit."""
    spokes = [sides[0], *diagonals, sides[-1]]
    corners: list[Point] = [(0.0, 0.0), (sides[0], 0.0)]
    areas, turned = [], 0.0
    for i, rim in enumerate(sides[1:-1]):
        a, c = spokes[i], spokes[i + 1]
        x, y = third_corner(a, rim, c, f"sides.{i + 1}")
        areas.append(a * y / 2)
        turned += math.atan2(y, x)
        corners.append((c * math.cos(turned), c * math.sin(turned)))
    return corners, areas


def _steps(areas: Sequence[float], symbol: str, total: float) -> list[Step]:
    square = f"{symbol}²"
    names = [f"A{chr(66 + i)}{chr(67 + i)}" for i in range(len(areas))]
    steps = [
        Step(f"Triangle {name}, by its three sides (Heron)", (Term(a, square),), Term(a, square))
        for name, a in zip(names, areas, strict=True)
    ]
    if len(areas) > 1:
        steps.append(line("Together", Term(areas[0], square), *(plus(a, square) for a in areas[1:]), result=Term(total, square)))
    return steps


def _checked(corners: Sequence[Point], check: float, unit: Unit) -> str:
    if len(corners) < 4:
        raise InputError("check", check, "A triangle has no diagonal to check by.", "Leave the check tape empty.")
    positive("check", check, most=1e5 / unit.size, symbol=unit.symbol)
    true = math.dist(corners[1], corners[3])
    off = check / true - 1
    words = f"From B to D the figures give {show_number(true)} {unit.symbol}; the check tape says {show_number(check)}"
    if abs(off) <= GOOD_CHECK:
        return f"{words}: they agree within {show_percent(abs(off))}."
    return f"{words}, {show_percent(off, sign=True)}: one of the tapes is misread."
