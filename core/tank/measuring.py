"""The same dose by every measure at hand, a cup checked by weighing water, and the least that a vessel can measure."""

from dataclasses import dataclass

from core.errors import InputError
from core.tank.vessels import GOOD_READING, TOO_COARSE, TRUE, Cabinet, Vessel, measure
from core.units import MASS, UNITS, VOLUME, Quantity, positive, show_number, show_percent
from core.working import Step, Term, divided_by, line, times


@dataclass(frozen=True)
class Way:
    """The dose in one unit: as it is exactly, and in words a hand can follow."""

    unit: str
    text: str


def ways(dose: Quantity, density: float | None = None) -> tuple[Way, ...]:
    """The dose in mL, teaspoons and fluid ounces, and in grams and ounces by weight; weight and volume only meet by density.

    Args:
        dose: a volume or a weight.
        density: of the product [g/L], where it is known.
    """
    litres = dose.base if dose.unit.dimension == VOLUME else (dose.base / density if density else None)
    grams = dose.base if dose.unit.dimension == MASS else (dose.base * density if density else None)
    found = []
    for key, base in (("ml", litres), ("tsp", litres), ("tbsp", litres), ("fl_oz", litres), ("g", grams), ("oz_wt", grams)):
        if base is not None:
            value = Quantity(base / UNITS[key].size, UNITS[key])
            found.append(Way(UNITS[key].symbol, str(value)))
    return tuple(found)


def water_density(celsius: float) -> float:
    """Density of air-free water at one atmosphere [g/L], for 0 to 40 °C.

    Source: Tanaka M, Girard G, Davis R, Peuto A, Bignell N (2001) Metrologia 38:301-309, equation 1 (a1 to a5).

    Args:
        celsius: temperature of the water [°C].

    Raises:
        InputError: outside 0 to 40 °C.
    """
    if not 0 <= celsius <= 40:
        raise InputError("temperature", celsius, f"{show_number(celsius)} °C is outside 0 to 40 °C.", "Use water near 20 °C.")
    a1, a2, a3, a4, a5 = -3.983035, 301.797, 522528.9, 69.34881, 999.974950
    return a5 * (1 - (celsius + a1) ** 2 * (celsius + a2) / (a3 * (celsius + a4)))


@dataclass(frozen=True)
class CupCheck:
    """What a cup's mark really holds [L], how far off the mark is as a share of it, and the sum."""

    holds: Quantity
    off: float
    sentence: str
    working: tuple[Step, ...]


def check_cup(mark: Quantity, weight: Quantity, celsius: float = 20.0) -> CupCheck:
    """What a mark really holds, from the weight of the water that fills it.

    Args:
        mark: what the cup says.
        weight: of the water up to the mark, the cup tared off.
        celsius: the water's temperature [°C].

    Raises:
        InputError: a mark that is no volume, a weight that is none, or water too hot or cold.
    """
    if mark.unit.dimension != VOLUME or weight.unit.dimension != MASS:
        raise InputError("mark", str(mark), "A cup's mark is a volume and its water has a weight.", "Check the units.")
    density = water_density(celsius)
    litres = weight.base / density
    holds = Quantity(litres / mark.unit.size, mark.unit)
    off = litres / mark.base - 1
    if abs(off) > 0.5:
        raise InputError(
            "weight",
            str(weight),
            f"That is {show_percent(off, sign=True)} from the mark; no cup is so wrong.",
            "Was the cup tared, and is the weight in the unit that was picked?",
        )
    steps = [
        line(
            "Volume of that water",
            Term(weight.base, "g"),
            divided_by(density, "g", "L"),
            result=Term(litres, "L"),
            note=f"Water weighs {show_number(density, 5)} g/L at {show_number(celsius)} °C.",
        )
    ]
    if weight.unit.key != "g":
        terms = (Term(weight.value, weight.unit.symbol), times(weight.unit.size, "g", weight.unit.symbol))
        steps.insert(0, line("Weight in grams", *terms, result=Term(weight.base, "g")))
    if abs(off) <= TRUE:
        said = f"The mark is good: it holds {holds}, within {show_percent(max(abs(off), 0.001))}."
    else:
        said = f"The mark says {mark} and holds {holds}: every dose by it is {show_percent(off, sign=True)} out."
    return CupCheck(holds, off, said, tuple(steps))


@dataclass(frozen=True)
class Least:
    """The least dose that a vessel measures well (5 % out at the most) and at all (10 %)."""

    vessel: Vessel
    well: Quantity
    at_all: Quantity


def least_of(vessel: Vessel) -> Least:
    """What a vessel's graduation allows: half of it is the most that a reading is out."""
    half = vessel.graduation * (1 + vessel.off) / 2
    return Least(vessel, Quantity(half / GOOD_READING, vessel.unit), Quantity(half / TOO_COARSE, vessel.unit))


def leasts(cabinet: Cabinet, dimension: str) -> tuple[Least, ...]:
    """The least that each vessel at hand measures of a volume, or of a weight."""
    return tuple(least_of(v) for v in cabinet.of(dimension))


@dataclass(frozen=True)
class Stock:
    """A stock dilution for a dose too small to measure: `take` product to `water`, and `use` of that mix for the dose."""

    take: Quantity
    total: Quantity
    use: Quantity
    sentence: str


def stock_dilution(dose: Quantity, cabinet: Cabinet, in_water: bool = True) -> Stock | None:
    """A dilution that makes a small dose measurable; None where the dose is measurable as it is, or goes into no water.

    Ten times the dose (or twenty, fifty, a hundred) is made up to a litre (a quart), and a tenth of that is one dose.

    Args:
        dose: a volume, or the weight of what is mixed with water.
        cabinet: the vessels to measure with.
        in_water: whether it is mixed with water at all; granules are not.
    """
    positive("dose", dose.base)
    if not in_water or measure(dose, cabinet).reading <= GOOD_READING:
        return None
    total = Quantity(32.0, UNITS["fl_oz"]) if cabinet.us else Quantity(1000.0, UNITS["ml"])
    wet = dose.unit.dimension == VOLUME
    unit = UNITS["ml" if wet else "g"]
    fine = Cabinet(False, cabinet.own)
    for times_over in (10, 20, 50, 100, 200, 500):
        take = Quantity(dose.base * times_over / unit.size, unit)
        if measure(take, fine).reading <= GOOD_READING:
            use = Quantity(total.value / times_over, total.unit)
            made = (
                f"Make {take} of product up to {total} with water" if wet else f"Stir {take} of product into water, up to {total}"
            )
            shake = "" if wet else " Shake it before every draw."
            said = f"{made}; {use} of that holds one dose.{shake} Use it up the same day."
            return Stock(take, total, use, said)
    return None
