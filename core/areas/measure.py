"""One door to every way of measuring ground."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import cast

from core.areas import offsets, radii
from core.areas.plan import Measured
from core.areas.rings import Position, by_rings
from core.areas.shapes import SHAPES, composed, shape
from core.areas.taped import taped
from core.errors import InputError
from core.units import LARGEST, LENGTH, SMALLEST, UNITS, Quantity, Unit, positive, show_number


@dataclass(frozen=True)
class Rule:
    """One of the rules that a method can be worked by."""

    key: str
    text: str


@dataclass(frozen=True)
class Method:
    """A way to measure. `fields` are single figures, `series` lists of them, each with the words for it."""

    key: str
    name: str
    about: str
    fields: tuple[tuple[str, str], ...] = ()
    series: tuple[tuple[str, str], ...] = ()
    rules: tuple[Rule, ...] = ()


METHODS = {
    m.key: m
    for m in (
        *(Method(s.key, s.name, "One shape, by its tape.", fields=s.fields) for s in SHAPES.values()),
        Method("composed", "Shapes together", "Shapes that add up, and shapes cut out: beds, bunkers, paths."),
        Method(
            "taped",
            "Taped sides and diagonals",
            "Any straight-sided ground. Tape every side in order, and from the first corner to each corner that is not its "
            "neighbour.",
            fields=(("check", "From B to D, as a check"),),
            series=(("sides", "Sides, in order"), ("diagonals", "Diagonals from A")),
        ),
        Method(
            "offsets",
            "Offsets along a baseline",
            "Long curved ground. Lay a line along it, and at even steps measure to the edge.",
            fields=(("spacing", "Step between offsets"),),
            series=(("offsets", "Offsets, from end to end"),),
            rules=(Rule("trapezoid", "Trapezoid rule"), Rule("simpson", "Simpson's rule")),
        ),
        Method(
            "radii",
            "Radii around a pin",
            "Rounded ground such as a green. From one pin, tape to the edge at even angles: 12 make 30° steps.",
            series=(("radii", "Radii, in order"),),
            rules=(
                Rule("mean_square", "Mean of the squared radii"),
                Rule("mean_radius", "Mean radius, squared"),
                Rule("chords", "Chords from end to end"),
            ),
        ),
        Method("ring", "Positions", "Latitude and longitude of each corner, in the order one walks around."),
    )
}
"""All methods by their keys, in the order they are offered."""


@dataclass(frozen=True)
class Sketch:
    """A measurement as taken. Which parts are used depends on `method`."""

    method: str
    unit: Unit
    values: Mapping[str, float] = field(default_factory=dict)
    series: Mapping[str, Sequence[float]] = field(default_factory=dict)
    parts: Sequence[tuple[int, str, Mapping[str, float]]] = ()
    rings: Sequence[Sequence[Sequence[Position]]] = ()
    rule: str = ""


def measure(sketch: Sketch) -> Measured:
    """What a sketch comes to.

    Raises:
        InputError: no such method or rule, a figure that is missing, or ground too small or too large to be true.
    """
    if sketch.method not in METHODS:
        raise InputError("method", sketch.method, f"“{sketch.method}” is no way to measure.", "Pick one of the list.")
    if sketch.unit.dimension != LENGTH:
        raise InputError("unit", sketch.unit.symbol, f"{sketch.unit.symbol} is not a length.", "Use ft, yd, m, in or cm.")
    found = _measured(sketch)
    positive("size", found.size, most=LARGEST["area"], least=SMALLEST["area"], symbol="m²")
    return found


def _measured(sketch: Sketch) -> Measured:
    series, values = sketch.series, sketch.values
    if sketch.method == "composed":
        return composed(sketch.parts, sketch.unit)
    if sketch.method == "taped":
        return taped(series.get("sides", ()), series.get("diagonals", ()), sketch.unit, values.get("check"))
    if sketch.method == "offsets":
        spacing = values.get("spacing", 0.0)
        rule = cast(offsets.Rule, _rule(sketch))
        return offsets.by_offsets(series.get("offsets", ()), spacing, sketch.unit, rule)
    if sketch.method == "radii":
        return radii.by_radii(series.get("radii", ()), sketch.unit, cast(radii.Rule, _rule(sketch)))
    if sketch.method == "ring":
        if not sketch.rings:
            raise InputError("ring", None, "There are no positions.", "Write one a line: latitude, longitude.")
        return by_rings(sketch.rings)
    return shape(sketch.method, values, sketch.unit)


def _rule(sketch: Sketch) -> str:
    rules = [r.key for r in METHODS[sketch.method].rules]
    rule = sketch.rule or rules[0]
    if rule not in rules:
        raise InputError("rule", rule, f"“{rule}” is not a rule for this.", f"Use one of: {', '.join(rules)}.")
    return rule


def parts_left(whole: Quantity, parts: Sequence[Quantity]) -> tuple[Quantity, str]:
    """What of an area its parts leave over, in its own unit, and what to say of it.

    The rest is never negative; parts that come to more than the whole are said.
    """
    together = sum(p.base for p in parts)
    rest = (whole.base - together) / whole.unit.size
    if rest < -1e-9 * whole.value:
        over = show_number(-rest)
        return Quantity(0.0, whole.unit), f"The parts come to {over} {whole.unit.symbol} more than the whole: measure again."
    if rest < 1e-6 * whole.value:
        return Quantity(0.0, whole.unit), "The parts add up to the whole."
    return Quantity(rest, whole.unit), f"{show_number(rest)} {whole.unit.symbol} is in no part."


def in_trade(size: float, us: bool) -> Quantity:
    """A measured size [m²] as people write it: ft² or acre, m² or ha."""
    small, large, border = ("ft2", "acre", 435600 * UNITS["ft2"].size) if us else ("m2", "ha", 100_000.0)
    unit = UNITS[small if size < border else large]
    return Quantity(size / unit.size, unit)
