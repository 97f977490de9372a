"""A rate in another kind of unit: product, nutrient or active, weight or volume, by what the product holds and weighs."""

from core.errors import InputError
from core.label.product import Product
from core.label.rate import Rate, RateUnit
from core.rates.dose import dose
from core.units import UNITS, Quantity

FOOT = Quantity(1.0, UNITS["m2"])


def in_kind(product: Product, rate: Rate, unit: RateUnit) -> Rate:
    """The rate of the same amount of product in `unit`: 3 lb of a 20-0-10 are 0.6 lb N.

    Raises:
        InputError: one is per area and the other per volume of spray, or the card lacks what it takes to tell.
    """
    if rate.unit.kind == unit.kind:
        return rate.to(unit)
    if rate.unit.per_area != unit.per_area:
        raise InputError(
            "rate",
            str(rate),
            f"{rate.unit.symbol} does not measure what the label's {unit.symbol} does.",
            "Enter the rate per area where the label is per area, and of the spray where it is of the spray.",
        )
    one = dose(product, Rate(1.0, unit), FOOT, 1.0).base
    return Rate(dose(product, rate, FOOT, 1.0).base / one, unit)
