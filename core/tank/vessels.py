"""Vessels: which one can measure a dose, to which mark, and what its graduation does to the rate.

The bench set below is a plain one that any supplier of laboratory or kitchen ware sells (common practice, no source).
A vessel is read to its nearest graduation; half a graduation is the most that reading alone can be out.
"""

import math
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from core.units import MASS, UNITS, VOLUME, Quantity, Unit, exact_number, show_number

TOO_COARSE = 0.10
"""A reading that can be out by more than this share of the dose is called too coarse."""


Shape = Literal["syringe", "cup", "jug", "scale"]


@dataclass(frozen=True)
class Vessel:
    """`capacity` and `graduation` are in `unit`; `shape` is how it is drawn: syringe, cup, jug or scale."""

    key: str
    name: str
    shape: Shape
    unit: Unit
    capacity: float
    graduation: float

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
        """What the hand does: `14.2 mL`, or `2 full, then 300 mL`."""
        unit = self.vessel.unit.symbol
        full = f"{self.fills} × {show_number(self.vessel.capacity)} {unit}"
        if not self.fills:
            return f"{self.mark_text} {unit}"
        return f"{full}, then {self.mark_text} {unit}" if self.mark else full

    @property
    def mark_text(self) -> str:
        """The mark as the vessel prints it: cups in fluid ounces in halves, quarters and eighths."""
        parts = Fraction(self.mark)
        if self.vessel.unit.key != "fl_oz" or parts.denominator not in (2, 4, 8):
            return exact_number(self.mark)
        whole, rest = divmod(parts.numerator, parts.denominator)
        return f"{whole} {rest}/{parts.denominator}" if whole else f"{rest}/{parts.denominator}"


def measure(dose: Quantity, us: bool, never_over: bool = False, bench: tuple[Vessel, ...] = BENCH) -> Measure:
    """The smallest vessel of the bench that holds `dose`, its mark, and the error that comes with it.

    Args:
        dose: a volume or a weight.
        us: whether the job is worked in US units; syringes are read in mL all the same.
        never_over: round down, where rounding up would pass the label's highest rate.
        bench: the vessels to pick from.
    """
    vessel = _pick(dose, us, bench)
    amount = dose.to(vessel.unit).value
    fills = math.floor(amount / vessel.capacity) if amount > vessel.capacity else 0
    rest = amount - fills * vessel.capacity
    marks = rest / vessel.graduation
    count = math.floor(marks + 1e-9) if never_over else math.floor(marks + 0.5)
    if not fills and count == 0:
        count = 1
    mark = round(count * vessel.graduation, 6)
    measured = fills * vessel.capacity + mark
    reading = vessel.graduation / 2 / amount
    note = ""
    if reading > TOO_COARSE:
        note = (
            "Too little to measure well. Measure for several tanks at once, or make a stock dilution: "
            "ten times the dose in a known volume of water, and a tenth of that in the tank."
            if dose.unit.dimension == VOLUME
            else "Too little to weigh well. Weigh for several tanks at once and divide it in solution."
        )
    return Measure(vessel, fills, mark, Quantity(measured, vessel.unit), measured / amount - 1, reading, note)


def _pick(dose: Quantity, us: bool, bench: tuple[Vessel, ...]) -> Vessel:
    fitting = _fitting(bench, dose.unit.dimension, us)
    amount = dose.base * (1 - 1e-9)
    return next((v for v in fitting if v.capacity * v.unit.size >= amount), fitting[-1])


@lru_cache(maxsize=32)
def _fitting(bench: tuple[Vessel, ...], dimension: str, us: bool) -> list[Vessel]:
    """The vessels that could measure it, the smallest first."""
    fitting = [v for v in bench if v.unit.dimension == dimension and _suits(v, us)]
    return sorted(fitting, key=lambda v: v.capacity * v.unit.size)


def _suits(vessel: Vessel, us: bool) -> bool:
    if vessel.unit.dimension == MASS:
        return vessel.us == us
    return vessel.shape == "syringe" or vessel.us == us


@lru_cache(maxsize=64)
def marks_of(vessel: Vessel) -> list[float]:
    """The numbered graduations to draw, from 0 to the capacity, at a step that stays readable."""
    for step in (1, 2, 4, 5, 8, 10, 16, 20, 25, 50, 100, 200, 250, 500, 1000, 2000):
        for scale in (0.01, 0.1, 1):
            pace = step * scale
            if 4 <= vessel.capacity / pace <= 8 and abs(vessel.capacity / pace % 1) < 1e-9:
                return [round(i * pace, 6) for i in range(round(vessel.capacity / pace) + 1)]
    return [0.0, vessel.capacity]
