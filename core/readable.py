"""The same quantity in the unit a person would say it in."""

import math

from core.units import AREA, MASS, UNITS, VOLUME, Quantity, Unit

SAID_IN = {
    (VOLUME, True): (("fl_oz", 128.0), ("gal", math.inf)),
    (VOLUME, False): (("ml", 1000.0), ("l", math.inf)),
    (MASS, True): (("oz_wt", 16.0), ("lb", math.inf)),
    (MASS, False): (("g", 1000.0), ("kg", math.inf)),
    (AREA, True): (("ft2", 435600.0), ("acre", math.inf)),
    (AREA, False): (("m2", 100000.0), ("ha", math.inf)),
}
"""For a dimension and a system (US or not): the units people say it in, each up to a size."""


US_UNITS = frozenset(
    {
        "oz_wt",
        "lb",
        "short_ton",
        "tsp",
        "tbsp",
        "fl_oz",
        "cup",
        "pt",
        "qt",
        "gal",
        "gal_100",
        "ft2",
        "yd2",
        "kft2",
        "acre",
        "in",
        "ft",
        "yd",
    }
)


def is_us(unit: Unit) -> bool:
    """Whether a unit is one of those that US accounts use."""
    return unit.key in US_UNITS


def readable(quantity: Quantity, us: bool) -> Quantity:
    """The same quantity in the unit a person of that system would say it in."""
    for key, most in SAID_IN.get((quantity.unit.dimension, us), ()):
        turned = quantity.to(key)
        if turned.value < most * (1 - 1e-9):
            return turned
    return quantity


def handy(quantity: Quantity) -> Quantity:
    """The same quantity; less than one of its unit is told in the smaller unit of its own system, 0.2 L as 200 mL."""
    return readable(quantity, is_us(quantity.unit)) if 0 < quantity.value < 1 else quantity


def foot_of(us: bool) -> Quantity:
    """The area that costs and contents are told per: 1000 ft² or 100 m²."""
    return Quantity(1.0, UNITS["kft2"] if us else UNITS["m2_100"])


def listed(names: list[str]) -> str:
    """Areas as one says them: a, b and c; four and more are counted."""
    unlike = list(dict.fromkeys(names))
    return f"{len(unlike)} areas" if len(unlike) > 3 else joined(unlike)


def joined(names: list[str]) -> str:
    """All names as one says them: a, b, c and d; nothing for none."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}" if names else ""
