"""Vessels: which one can measure a dose, to which mark, and what its graduation does to the rate.

An account's own vessels go first; where it keeps none for weight, or none for volume, the bench set below stands in, a plain one
that any supplier of laboratory or kitchen ware sells (common practice, no source). A vessel is read to its nearest graduation;
half a graduation is the most that reading alone can be out.
"""

import math
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from core.units import MASS, UNITS, VOLUME, Quantity, Unit, exact_number, show_number, show_percent

TOO_COARSE = 0.10
"""A reading that can be out by more than this share of the dose is called too coarse."""


GOOD_READING = 0.05
"""A reading that can be out by no more than this share is a good one (common practice, no source)."""
TRUE = 0.01
"""A mark that is out by no more than this share is true (ours)."""
MOST_FILLS = 5
"""More fillings of one vessel than these are miscounted (common practice, no source)."""


Shape = Literal["syringe", "cup", "jug", "spoon", "scale"]


@dataclass(frozen=True)
class Vessel:
    """`capacity` and `graduation` are in `unit`, as its marks tell them; `shape` is how it is drawn.

    `off` is how far its marks are out by a check with water, as a share: what a mark says holds so much more.
    """

    key: str
    name: str
    shape: Shape
    unit: Unit
    capacity: float
    graduation: float
    off: float = 0.0

    @property
    def holds(self) -> float:
        """What it really holds [L or g]."""
        return self.capacity * self.unit.size * (1 + self.off)

    @property
    def us(self) -> bool:
        return self.unit.key in ("fl_oz", "oz_wt", "lb", "gal")


def _vessel(key: str, name: str, shape: Shape, unit: str, capacity: float, graduation: float) -> Vessel:
    return Vessel(key, name, shape, UNITS[unit], capacity, graduation)


BENCH = (
    _vessel("syringe-5", "5 mL syringe", "syringe", "ml", 5, 0.1),
    _vessel("syringe-20", "20 mL syringe", "syringe", "ml", 20, 0.5),
    _vessel("syringe-60", "60 mL syringe", "syringe", "ml", 60, 1),
    _vessel("cup-250", "250 mL graduated cup", "cup", "ml", 250, 5),
    _vessel("jug-1000", "1 L graduated jug", "jug", "ml", 1000, 20),
    _vessel("jug-5000", "5 L graduated jug", "jug", "ml", 5000, 100),
    _vessel("cup-4floz", "4 fl oz graduated cup", "cup", "fl_oz", 4, 0.125),
    _vessel("cup-8floz", "8 fl oz graduated cup", "cup", "fl_oz", 8, 0.25),
    _vessel("jug-32floz", "32 fl oz graduated jug", "jug", "fl_oz", 32, 1),
    _vessel("jug-128floz", "1 gal graduated jug", "jug", "fl_oz", 128, 4),
    _vessel("scale-200g", "pocket scale", "scale", "g", 200, 0.1),
    _vessel("scale-5kg", "bench scale", "scale", "g", 5000, 1),
    _vessel("scale-60kg", "platform scale", "scale", "kg", 60, 0.02),
    _vessel("scale-7oz", "pocket scale", "scale", "oz_wt", 7, 0.005),
    _vessel("scale-12lb", "bench scale", "scale", "lb", 12, 0.005),
    _vessel("scale-120lb", "platform scale", "scale", "lb", 120, 0.05),
)


@dataclass(frozen=True)
class Measure:
    """How to measure one dose.

    `fills` full vessels, then one to `mark`; `measured` is what that comes to, `rounding` its relative difference
    from the dose, `reading` the most that half a graduation can add or take, relative to the dose.
    """

    vessel: Vessel
    fills: int
    mark: float
    measured: Quantity
    rounding: float
    reading: float
    note: str = ""

    @property
    def coarse(self) -> bool:
        return self.reading > TOO_COARSE

    @property
    def instruction(self) -> str:
        """What the hand does: `14.2 mL`, or `2 × 500 mL, then 300 mL`; whose marks are out is named with them."""
        unit = self.vessel.unit.symbol
        full = f"{self.fills} × {show_number(self.vessel.capacity)} {unit}"
        rest = f"{self.mark_text} {unit}"
        told = rest if not self.fills else f"{full}, then {rest}" if self.mark else full
        return told if abs(self.vessel.off) <= TRUE else f"{told} by the marks of {self.vessel.name}"

    @property
    def mark_text(self) -> str:
        """The mark as the vessel prints it: cups in fluid ounces in halves, quarters and eighths."""
        parts = Fraction(self.mark)
        if self.vessel.unit.key != "fl_oz" or parts.denominator not in (2, 4, 8):
            return exact_number(self.mark)
        whole, rest = divmod(parts.numerator, parts.denominator)
        return f"{whole} {rest}/{parts.denominator}" if whole else f"{rest}/{parts.denominator}"


@dataclass(frozen=True)
class Cabinet:
    """What there is to measure with: an account's own vessels, and the bench in its units where it keeps none."""

    us: bool
    own: tuple[Vessel, ...] = ()

    def of(self, dimension: str) -> tuple[Vessel, ...]:
        """The vessels that measure a volume, or a weight; the smallest first."""
        return _of(self, dimension)

    def pick(self, dose: Quantity) -> Vessel:
        """The one with the finest marks of those that hold a dose; the largest, where none does."""
        fitting = self.of(dose.unit.dimension)
        amount = dose.base * (1 - 1e-9)
        holding = [v for v in fitting if v.holds >= amount]
        return min(holding, key=lambda v: (v.graduation * v.unit.size, v.holds)) if holding else fitting[-1]


@lru_cache(maxsize=256)
def _of(cabinet: Cabinet, dimension: str) -> tuple[Vessel, ...]:
    own = [v for v in cabinet.own if v.unit.dimension == dimension]
    fitting = own or [v for v in BENCH if v.unit.dimension == dimension and _suits(v, cabinet.us)]
    return tuple(sorted(fitting, key=lambda v: v.holds))


def _suits(vessel: Vessel, us: bool) -> bool:
    if vessel.unit.dimension == MASS:
        return vessel.us == us
    return vessel.shape == "syringe" or vessel.us == us


def measure(dose: Quantity, cabinet: Cabinet, never_over: bool = False) -> Measure:
    """How to measure a dose with what is at hand, and the error that comes with it.

    Args:
        dose: a volume or a weight.
        cabinet: the vessels to pick from.
        never_over: round down, where rounding up would pass the label's highest rate.
    """
    found = _by(cabinet.pick(dose), dose, never_over)
    return replace(found, note=_note(found, dose, cabinet)) if found.coarse or found.fills > MOST_FILLS else found


def _by(vessel: Vessel, dose: Quantity, never_over: bool) -> Measure:
    """A dose by one vessel: full ones, then one to a mark; by marks that are out, to the mark that holds it."""
    amount = dose.to(vessel.unit).value / (1 + vessel.off)
    fills = math.floor(amount / vessel.capacity) if amount > vessel.capacity else 0
    marks = (amount - fills * vessel.capacity) / vessel.graduation
    count = math.floor(marks + 1e-9) if never_over else math.floor(marks + 0.5)
    if not fills and count == 0:
        count = 1
    mark = round(count * vessel.graduation, 6)
    if fills and mark >= vessel.capacity:
        fills, mark = fills + 1, 0.0
    measured = fills * vessel.capacity + mark
    held = Quantity(measured * (1 + vessel.off), vessel.unit)
    return Measure(vessel, fills, mark, held, measured / amount - 1, vessel.graduation / 2 / amount)


def _note(found: Measure, dose: Quantity, cabinet: Cabinet) -> str:
    """What can be done where no vessel at hand measures a dose well: one that would, or another way."""
    bench = _by(Cabinet(cabinet.us).pick(dose), dose, False)
    if cabinet.own and bench.reading <= GOOD_READING and bench.fills <= MOST_FILLS:
        return f"A {bench.vessel.name} would be out by {show_percent(bench.reading)} at the most: one is worth buying."
    if not found.coarse:
        return ""
    return (
        "Too little to measure well. Measure for several tanks at once, or make a stock dilution: "
        "ten times the dose in a known volume of water, and a tenth of that in the tank."
        if dose.unit.dimension == VOLUME
        else "Too little to weigh well. Weigh for several tanks at once and divide it in solution."
    )


@lru_cache(maxsize=64)
def marks_of(vessel: Vessel) -> list[float]:
    """The numbered graduations to draw, from 0 to the capacity, at a step that stays readable."""
    for step in (1, 2, 4, 5, 8, 10, 16, 20, 25, 50, 100, 200, 250, 500, 1000, 2000):
        for scale in (0.01, 0.1, 1):
            pace = step * scale
            if 4 <= vessel.capacity / pace <= 8 and abs(vessel.capacity / pace % 1) < 1e-9:
                return [round(i * pace, 6) for i in range(round(vessel.capacity / pace) + 1)]
    return [0.0, vessel.capacity]
