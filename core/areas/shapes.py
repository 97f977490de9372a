"""Simple shapes from their taped dimensions, and sums and differences of them.

Areas are plane geometry; a triangle from its three sides is by Heron's formula.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from core.areas.plan import Mark, Measured, Outline, Plan, Point
from core.errors import InputError
from core.units import Unit, positive, show_number
from core.working import Step, Term, divided_by, line, minus, plus, times

SMOOTH = 72
"""Points that draw a round shape; only the drawing is a polygon, the size is not."""

MOST_PARTS = 20


@dataclass(frozen=True)
class Drawn:
    """A shape in the tape's own unit: its area, the sum, its ring and its taped lines."""

    area: float
    terms: tuple[Term, ...]
    ring: tuple[Point, ...]
    marks: tuple[tuple[Point, Point, float], ...]


@dataclass(frozen=True)
class Shape:
    """A simple shape. `fields` names what is taped, in order, with the words for it."""

    key: str
    name: str
    fields: tuple[tuple[str, str], ...]
    draw: Callable[..., Drawn]


def _rectangle(symbol: str, length: float, width: float) -> Drawn:
    ring = ((0.0, 0.0), (length, 0.0), (length, width), (0.0, width))
    return Drawn(
        length * width,
        (Term(length, symbol), times(width, symbol)),
        ring,
        ((ring[0], ring[1], length), (ring[1], ring[2], width)),
    )


def _triangle(symbol: str, a: float, b: float, c: float) -> Drawn:
    apex = third_corner(a, b, c, "values")
    half = (a + b + c) / 2
    area = math.sqrt(half * (half - a) * (half - b) * (half - c))
    ring = ((0.0, 0.0), (a, 0.0), apex)
    terms = (Term(half, symbol), times(half - a, symbol), times(half - b, symbol), times(half - c, symbol))
    return Drawn(area, terms, ring, ((ring[0], ring[1], a), (ring[1], apex, b), (apex, ring[0], c)))


def _triangle_by_height(symbol: str, base: float, height: float) -> Drawn:
    apex = (base / 3, height)
    ring = ((0.0, 0.0), (base, 0.0), apex)
    foot = (apex[0], 0.0)
    terms = (Term(base, symbol), times(height, symbol), divided_by(2))
    return Drawn(base * height / 2, terms, ring, ((ring[0], ring[1], base), (foot, apex, height)))


def _ellipse(symbol: str, length: float, width: float) -> Drawn:
    a, b = length / 2, width / 2
    ring = tuple((a * math.cos(t), b * math.sin(t)) for t in (2 * math.pi * i / SMOOTH for i in range(SMOOTH)))
    terms = (Term(math.pi), divided_by(4), times(length, symbol), times(width, symbol))
    return Drawn(math.pi * a * b, terms, ring, (((-a, 0.0), (a, 0.0), length), ((0.0, -b), (0.0, b), width)))


def _circle(symbol: str, radius: float) -> Drawn:
    ring = _ellipse(symbol, 2 * radius, 2 * radius).ring
    terms = (Term(math.pi), times(radius, symbol), times(radius, symbol))
    return Drawn(math.pi * radius**2, terms, ring, (((0.0, 0.0), (radius, 0.0), radius),))


def _trapezoid(symbol: str, side: float, opposite: float, across: float) -> Drawn:
    shift = (side - opposite) / 2
    ring = ((0.0, 0.0), (side, 0.0), (side - shift, across), (shift, across))
    middle = side / 2
    terms = (Term((side + opposite) / 2, symbol), times(across, symbol))
    return Drawn(
        (side + opposite) / 2 * across,
        terms,
        ring,
        ((ring[0], ring[1], side), (ring[3], ring[2], opposite), ((middle, 0.0), (middle, across), across)),
    )


_BASE_AND_HEIGHT = (("base", "Base"), ("height", "Height on it"))

SHAPES = {
    s.key: s
    for s in (
        Shape("rectangle", "Rectangle", (("length", "Length"), ("width", "Width")), _rectangle),
        Shape("triangle", "Triangle, three sides", (("a", "Side a"), ("b", "Side b"), ("c", "Side c")), _triangle),
        Shape("triangle_height", "Triangle, base and height", _BASE_AND_HEIGHT, _triangle_by_height),
        Shape("circle", "Circle", (("radius", "Radius"),), _circle),
        Shape("ellipse", "Ellipse", (("length", "Longest across"), ("width", "Shortest across")), _ellipse),
        Shape(
            "trapezoid",
            "Trapezoid",
            (("side", "Side"), ("opposite", "Side parallel to it"), ("across", "Distance between them")),
            _trapezoid,
        ),
    )
}


def third_corner(a: float, b: float, c: float, field: str) -> Point:
    """Where two tapes meet: the corner that lies `b` from (a, 0) and `c` from (0, 0), above the line; all in one unit.

    Args:
        a: a side [m].
        b: a side [m].
        c: a side [m].
        field: whose fault it would be.

    Raises:
        InputError: the three lengths close no triangle.
    """
    longest = max(a, b, c)
    if longest >= (a + b + c - longest) * (1 - 1e-12):
        said = ", ".join(show_number(x) for x in (a, b, c))
        raise InputError(
            field,
            said,
            f"Sides of {said} close no triangle: the longest is not shorter than the other two together.",
            "Tape them again, or look for two figures that changed places.",
        )
    x = (a * a + c * c - b * b) / (2 * a)
    return x, math.sqrt(max(0.0, c * c - x * x))


def shape(key: str, values: Mapping[str, float], unit: Unit, field: str = "values") -> Measured:
    """One simple shape.

    Args:
        values: its measures by name [m].
        key: of `SHAPES`.
        unit: a unit of length.
        field: what faults are named after.

    Raises:
        InputError: no such shape, a dimension that is missing or not positive, or sides that close no triangle.
    """
    found = _shape(key, field)
    drawn = _draw(found, values, unit, field)
    return Measured(drawn.area * unit.size**2, _plan(drawn, unit), (_step(found, drawn, unit),))


def composed(parts: Sequence[tuple[int, str, Mapping[str, float]]], unit: Unit, field: str = "parts") -> Measured:
    """Shapes that add up, and shapes cut out of them; drawn side by side, since the tape does not say where they meet.

    Args:
        parts: shapes with their measures [m].
        unit: a unit of length.
        field: what faults are named after.

    Raises:
        InputError: no part, too many, or more cut out than there is.
    """
    if not 1 <= len(parts) <= MOST_PARTS:
        raise InputError(field, len(parts), f"{len(parts)} parts make no area.", f"Give 1 to {MOST_PARTS} shapes.")
    total, steps, terms, plan, x = 0.0, [], [], Plan(()), 0.0
    square = f"{unit.symbol}²"
    for i, (sign, key, values) in enumerate(parts):
        here = f"{field}.{i}"
        found = _shape(key, here)
        drawn = _draw(found, values, unit, here)
        steps.append(_step(found, drawn, unit))
        terms.append((plus if sign > 0 else minus)(drawn.area, square))
        total += sign * drawn.area
        own = _plan(drawn, unit, hole=sign < 0)
        left, low, right, _ = own.box
        moved = own.moved(x - left, -low)
        plan = Plan(plan.outlines + moved.outlines, plan.marks + moved.marks)
        x += (right - left) * 1.0 + 0.12 * max(right - left, 1.0)
    if total <= 0:
        raise InputError(
            field, show_number(total), "More is cut out than there is.", "Check which parts are taken away, and their sizes."
        )
    if len(parts) > 1:
        first = Term(terms[0].value, square) if parts[0][0] > 0 else terms[0]
        steps.append(line("Together", first, *terms[1:], result=Term(total, square)))
    notes = ("The parts are drawn side by side; how they meet was not taped.",) if len(parts) > 1 else ()
    return Measured(total * unit.size**2, plan, tuple(steps), notes)


def _shape(key: str, field: str) -> Shape:
    if key not in SHAPES:
        raise InputError(field, key, f"“{key}” is not a shape known here.", f"Use one of: {', '.join(SHAPES)}.")
    return SHAPES[key]


def _draw(found: Shape, values: Mapping[str, float], unit: Unit, field: str) -> Drawn:
    for name, words in found.fields:
        if name not in values:
            raise InputError(f"{field}.{name}", None, f"{words} is missing.", "Tape it and enter it.")
        positive(f"{field}.{name}", values[name], most=1e5 / unit.size, symbol=unit.symbol)
    try:
        return found.draw(unit.symbol, *(values[name] for name, _ in found.fields))
    except InputError as fault:
        raise fault.on(f"{field}.{found.fields[-1][0]}") from None


def _plan(drawn: Drawn, unit: Unit, hole: bool = False) -> Plan:
    def to(p: Point) -> Point:
        return p[0] * unit.size, p[1] * unit.size

    marks = tuple(Mark(to(a), to(b), f"{show_number(value)} {unit.symbol}") for a, b, value in drawn.marks)
    return Plan((Outline(tuple(map(to, drawn.ring)), hole),), marks)


def _step(found: Shape, drawn: Drawn, unit: Unit) -> Step:
    if found.key == "triangle":
        note = "Heron: the root of half the girth times what each side leaves of it."
        return Step(found.name, drawn.terms, Term(drawn.area, f"{unit.symbol}²"), note)
    return line(found.name, *drawn.terms, result=Term(drawn.area, f"{unit.symbol}²"))
