"""The sum backwards: from what was used, or what is left, or what a package holds, to the rate and the ground."""

import math
from dataclasses import dataclass

from core.errors import InputError
from core.label.product import Product
from core.label.rate import LabelRate, Rate
from core.rates.actual import actual_rate
from core.rates.limits import Judgement, judge
from core.units import UNITS, Quantity, show_number
from core.working import Step, Term, divided_by, line, minus


@dataclass(frozen=True)
class Backwards:
    """The rate that an amount on a ground comes to, judged by the label, with the sum and what to say of it."""

    used: Quantity
    rate: Rate
    judgement: Judgement
    sentence: str
    working: tuple[Step, ...]


def rate_of(product: Product, label: LabelRate, used: Quantity, ground: Quantity, spray: Quantity | None = None) -> Backwards:
    """The rate that `used` on `ground` really is; the check at the pour.

    Raises:
        InputError: a density, a composition or the spray volume is missing.
    """
    rate = actual_rate(product, label, used, ground, spray)
    judgement = judge(rate, label, product.label_binds)
    return Backwards(used, rate, judgement, f"{used} on {ground} is {rate}. {judgement.sentence}", _steps(used, ground, rate))


def _steps(used: Quantity, ground: Quantity, rate: Rate) -> tuple[Step, ...]:
    per = rate.unit.per
    if per is None or not rate.unit.per_area:
        return ()
    feet = ground.to(per).value
    counted = rate.value * feet
    symbol = rate.unit.amount.symbol
    first = Term(used.value, used.unit.symbol)
    steps = []
    if used.unit is not rate.unit.amount or abs(counted - used.value) > 1e-9 * used.value:
        what = "product" if rate.unit.basis.value == "product" else rate.unit.basis.text
        steps.append(Step(f"What the label counts in it: {what}", (first,), Term(counted, symbol)))
    steps.append(
        line("Used ÷ ground", Term(counted, symbol), divided_by(feet, per.symbol), result=Term(rate.value, symbol, per.symbol))
    )
    return tuple(steps)


def rate_from_left(product: Product, label: LabelRate, had: Quantity, left: Quantity, ground: Quantity) -> Backwards:
    """The rate that was put down, from what there was and what is left.

    Raises:
        InputError: more is left than there was, or as much.
    """
    if had.unit.dimension != left.unit.dimension:
        raise InputError("left", str(left), "What there was and what is left are not measured alike.", "Use one kind of unit.")
    used = Quantity((had.base - left.base) / had.unit.size, had.unit)
    if used.value <= 0:
        raise InputError("left", str(left), f"{left} is left of {had}: nothing was used.", "Check the two amounts.")
    found = rate_of(product, label, used, ground)
    step = line(
        "Used",
        Term(had.value, had.unit.symbol),
        minus(left.to(had.unit).value, had.unit.symbol),
        result=Term(used.value, used.unit.symbol),
    )
    return Backwards(used, found.rate, found.judgement, found.sentence, (step, *found.working))


@dataclass(frozen=True)
class Whole:
    """A whole package on a ground against the rate that is meant.

    `meant` is the product that the meant rate needs, `packages` how many that is, `leftover` what remains of them.
    """

    backwards: Backwards
    meant: Quantity
    packages: int
    leftover: Quantity
    sentence: str


def whole_package(product: Product, label: LabelRate, rate: Rate, package: Quantity, ground: Quantity) -> Whole:
    """What rate the whole package would make, and how many packages the meant rate needs.

    Raises:
        InputError: the package does not measure what the product is measured in, or data is missing for the rate.
    """
    if package.unit.dimension != product.measured_in:
        raise InputError(
            "package", str(package), f"{product.name} is not measured in {package.unit.symbol}.", "Check the package."
        )
    found = rate_of(product, label, package, ground)
    share = rate.to(found.rate.unit).value / found.rate.value
    meant = Quantity(package.value * share, package.unit)
    count = math.ceil(share * (1 - 1e-9))
    leftover = Quantity(count * package.value - meant.value, package.unit)
    if share <= 1 + 1e-9:
        words = f"{rate} needs {meant}: {show_number(100 * share, 3)} % of one package."
    else:
        words = f"{rate} needs {meant}: {show_number(share, 3)} packages, so {count}, with {leftover} left."
    return Whole(found, meant, count, leftover, f"The whole {package} on {ground} would be {found.rate}. {words}")


def reach(product: Product, label: LabelRate, rate: Rate, amount: Quantity) -> Quantity:
    """How much ground an amount of product covers at a rate [m²].

    Raises:
        InputError: the rate is not per area, or data is missing.
    """
    if not rate.unit.per_area:
        raise InputError("rate", str(rate), f"{rate.unit.symbol} says nothing of ground.", "Give a rate per area.")
    one = Quantity(1.0, UNITS["m2"])
    on_one = actual_rate(product, label, amount, one, None)
    return Quantity(on_one.base / rate.to(on_one.unit).base, UNITS["m2"])
