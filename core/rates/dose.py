"""Dose = rate × area: the amount of product, whatever the label counts, with the working.

Rates count product, a nutrient or an active; weight or volume; per area, per volume of spray or as a share of it. The
answer is the amount of product in the measure that the bench uses: liquids by volume, dry products by weight.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import cached_property, partial

from core.errors import DENSITY, InputError, Mend
from core.label.product import Content, Product
from core.label.rate import K_IN_K2O, P_IN_P2O5, Basis, Rate
from core.readable import is_us
from core.units import AREA, MASS, UNITS, VOLUME, Quantity, convert
from core.working import Later, Step, Term, divided_by, line, times, written


@dataclass(frozen=True)
class Delivered:
    """How much of one active or nutrient a dose brings: its mass over the job [g] and per area [g/m²]."""

    content: Content
    grams: float
    g_per_m2: float


@dataclass(frozen=True)
class Dose:
    """The product for one job.

    `amount` is in the label's own unit where that is how the bench measures it. `grams` and `litres` are the same
    amount in base units; the one that would need an unknown density is None. `working` leads to the amount, `brings`
    from it to what it brings of each content; both are written when they are read.
    """

    amount: Quantity
    grams: float | None
    litres: float | None
    delivered: tuple[Delivered, ...]
    to_amount: tuple[Later, ...] = field(default=(), compare=False, repr=False)
    from_amount: tuple[Later, ...] = field(default=(), compare=False, repr=False)

    @cached_property
    def working(self) -> tuple[Step, ...]:
        """The lines that lead to the amount."""
        return written(self.to_amount)

    @cached_property
    def brings(self) -> tuple[Step, ...]:
        """The lines from the amount to what it brings."""
        return written(self.from_amount)

    @property
    def base(self) -> float:
        """The amount in g (dry) or L (liquid)."""
        return self.amount.base


def dose(product: Product, rate: Rate, area: Quantity, spray_litres: float | None = None) -> Dose:
    """The product that `rate` asks for on `area`; `spray_litres` [L] is needed by rates per volume of spray.

    Raises:
        InputError: a density, a composition or a spray volume is needed and missing, or the rate weighs a liquid by
            a measure it does not have.
    """
    wanted, steps = _wanted(rate, area, spray_litres)
    if rate.unit.basis is Basis.PRODUCT:
        amount, more = _as_measured(product, wanted)
    else:
        amount, more = _from_content(product, rate.unit.basis, wanted)
    grams, litres = _both(product, amount)
    delivered, last = _delivered(product, amount, grams, litres, area, is_us(rate.unit.amount))
    return Dose(amount, grams, litres, delivered, (*steps, *more), tuple(last))


# --- how much of what the label counts --------------------------------------------------------------------------


def _wanted(rate: Rate, area: Quantity, spray_litres: float | None) -> tuple[Quantity, list[Later]]:
    per = rate.unit.per
    if per is None or per.dimension != AREA:
        return _of_spray(rate, spray_litres, is_us(area.unit))
    steps: list[Later] = []
    feet = area.value
    if area.unit is not per:
        feet = convert(area.value, area.unit, per)
        steps.append(
            lambda: line(
                "The area in the rate's measure",
                Term(area.value, area.unit.symbol),
                divided_by(per.size / area.unit.size, area.unit.symbol, per.symbol),
                result=Term(feet, per.symbol),
            )
        )
    wanted = Quantity(rate.value * feet, rate.unit.amount)
    steps.append(
        lambda: line(
            f"Rate × area: {rate.unit.basis.text}",
            Term(rate.value, rate.unit.amount.symbol + _counted(rate), per.symbol),
            times(feet, per.symbol),
            result=Term(wanted.value, wanted.unit.symbol + _counted(rate)),
        )
    )
    return wanted, steps


def _counted(rate: Rate) -> str:
    """What a rate counts, after its unit; nothing where that is the product."""
    return "" if rate.unit.basis is Basis.PRODUCT else f" {rate.unit.basis.text}"


def _of_spray(rate: Rate, spray_litres: float | None, us: bool) -> tuple[Quantity, list[Later]]:
    if spray_litres is None:
        raise InputError(
            "machine",
            None,
            f"A rate in {rate.unit.symbol} is a share of the spray, so the spray volume is needed.",
            "Pick a sprayer whose output is known.",
        )
    if rate.unit.per is None:
        spray = Quantity(spray_litres, UNITS["l"]).to("fl_oz" if us else "ml")
        shown = Quantity(spray.value * rate.base, spray.unit)
        return shown, [
            lambda: line(
                "Share of the spray",
                Term(spray.value, spray.unit.symbol),
                times(rate.base),
                result=Term(shown.value, shown.unit.symbol),
                note=f"{rate.value:g} % is {rate.base:g} of the finished spray.",
            )
        ]
    feet = spray_litres / rate.unit.per.size
    wanted = Quantity(rate.value * feet, rate.unit.amount)
    per = rate.unit.per.symbol
    return wanted, [
        lambda: line(
            "Rate × spray volume",
            Term(rate.value, rate.unit.amount.symbol + _counted(rate), per),
            times(feet, per),
            result=Term(wanted.value, wanted.unit.symbol + _counted(rate)),
        )
    ]


# --- from what is counted to product ----------------------------------------------------------------------------


def _from_content(product: Product, basis: Basis, wanted: Quantity) -> tuple[Quantity, list[Later]]:
    content, factor = counted_content(product, basis)
    unit = wanted.unit
    steps: list[Later] = []
    if factor != 1.0:
        asked = wanted.value
        wanted = Quantity(asked / factor, unit)
        steps.append(
            lambda: line(
                f"{basis.text} as the label states it, {content.basis.text}",
                Term(asked, f"{unit.symbol} {basis.text}"),
                divided_by(factor),
                result=Term(wanted.value, f"{unit.symbol} {content.basis.text}"),
                note=f"{content.basis.text} is {100 * factor:.2f} % {basis.text}.",
            )
        )
    if product.liquid and (held := content.g_per_l) is not None:
        grams = wanted.base
        volume = Quantity(grams / held, UNITS["l"])
        steps.append(
            lambda: line(
                f"Product that holds that {content.basis.text}",
                Term(grams, "g"),
                divided_by(held, "g", "L"),
                result=Term(volume.value, "L"),
            )
        )
        target = UNITS["fl_oz"] if is_us(unit) else UNITS["ml"]
        return volume.to(target), steps
    share = content.percent or 0.0
    mass = Quantity(wanted.value / (share / 100), unit)
    steps.append(
        lambda: line(
            f"Product that holds that {content.basis.text}",
            Term(wanted.value, f"{unit.symbol} {content.basis.text}"),
            divided_by(share / 100),
            result=Term(mass.value, f"{unit.symbol} product"),
            note=f"The label states {share:g} % {content.basis.text}.",
        )
    )
    amount, more = _as_measured(product, mass)
    return amount, [*steps, *more]


OXIDES = {Basis.P: (Basis.P2O5, P_IN_P2O5), Basis.K: (Basis.K2O, K_IN_K2O)}
"""The oxides as which labels state them, and how much of each is the nutrient by weight."""


def counted_content(product: Product, basis: Basis) -> tuple[Content, float]:
    """What in the product a rate of `basis` counts, and how much of it by weight is `basis`.

    The share is 1 except where the rate counts P or K and the label states P₂O₅ or K₂O.

    Raises:
        InputError: the product holds none of it, or several actives where the rate does not say which.
    """
    content, share = product.content(basis), 1.0
    if content is None and (oxide := OXIDES.get(basis)):
        content, share = product.content(oxide[0]), oxide[1]
    if content is None:
        what = "an active ingredient" if basis is Basis.ACTIVE else basis.text
        raise InputError(
            "product.contents",
            basis.value,
            f"The rate counts {what}, and {product.name} lists none.",
            "Add it to the product's composition, or give the rate of product.",
        )
    if basis is not Basis.ACTIVE:
        return content, share
    actives = [c for c in product.contents if c.basis is Basis.ACTIVE]
    if len(actives) > 1:
        raise InputError(
            "rate",
            basis.value,
            f"{product.name} holds {len(actives)} actives; a rate of active does not say which.",
            "Give the rate of product.",
        )
    return content, share


# --- weight, volume and the bench -------------------------------------------------------------------------------


def _as_measured(product: Product, amount: Quantity) -> tuple[Quantity, list[Later]]:
    """`amount` in the dimension the bench measures the product in."""
    if amount.unit.dimension == product.measured_in:
        return amount, []
    if product.measured_in == MASS:
        raise InputError(
            "rate",
            str(amount),
            f"{product.name} is dry, and the rate measures it in {amount.unit.symbol}.",
            "Dry products are weighed: give the rate in oz wt, lb, g or kg.",
        )
    density = _density(product)
    grams = amount.base
    litres = grams / density
    target = UNITS["fl_oz"] if is_us(amount.unit) else UNITS["ml"]
    volume = Quantity(litres, UNITS["l"]).to(target)
    return volume, [
        lambda: line(
            "From weight to volume, by the density",
            Term(grams, "g"),
            divided_by(density, "g", "L"),
            times(UNITS["l"].size / target.size, target.symbol, "L"),
            result=Term(volume.value, target.symbol),
        )
    ]


def _density(product: Product) -> float:
    if product.density_g_per_l is None:
        raise InputError(
            "product.density",
            None,
            f"The rate weighs {product.name}, a liquid; its density is needed to pour it.",
            "Find the weight per gallon (or kg/L) on the label and add it to the product.",
            mend=Mend(DENSITY, product.id),
        )
    return product.density_g_per_l


def _both(product: Product, amount: Quantity) -> tuple[float | None, float | None]:
    density = product.density_g_per_l
    if amount.unit.dimension == VOLUME:
        return (amount.base * density if density else None), amount.base
    return amount.base, None


def _delivered(
    product: Product, amount: Quantity, grams: float | None, litres: float | None, area: Quantity, us: bool
) -> tuple[tuple[Delivered, ...], list[Later]]:
    """What the dose brings of each content, per 1000 ft² (US rates) or per 100 m² in the working."""
    found: list[Delivered] = []
    steps: list[Later] = []
    unit, foot = (UNITS["lb"], UNITS["kft2"]) if us else (UNITS["g"], UNITS["m2_100"])
    feet = area.base / foot.size
    if not product.contents:
        return (), []
    if litres is not None and grams is not None and any(c.percent is not None for c in product.contents):
        heavy = grams / litres * amount.unit.size / unit.size
        steps.append(
            lambda: line(
                "Weight of that product, by the density",
                Term(amount.value, amount.unit.symbol),
                times(heavy, unit.symbol, amount.unit.symbol),
                result=Term(grams / unit.size, unit.symbol),
            )
        )
    for content in product.contents:
        share = product.share(content)
        if content.percent is not None and grams is not None and share is not None:
            mass = grams * share
            terms = [partial(Term, grams / unit.size, unit.symbol), partial(times, share)]
        elif content.g_per_l is not None and litres is not None:
            mass = litres * content.g_per_l
            heavy = content.g_per_l * amount.unit.size / unit.size
            terms = [partial(Term, amount.value, amount.unit.symbol), partial(times, heavy, unit.symbol, amount.unit.symbol)]
        else:
            continue
        found.append(Delivered(content, mass, mass / area.base))
        steps.append(partial(_brought, content.name, terms, mass / unit.size, feet, unit.symbol, foot.symbol))
    return tuple(found), steps


def _brought(name: str, terms: Sequence[Callable[[], Term]], mass: float, feet: float, unit: str, foot: str) -> Step:
    """The line of one content: its mass [unit] over so many feet.

    Args:
        name: of the content.
        terms: that come to its mass.
        mass: that the product holds of it [unit].
        feet: that it goes down on [foot].
        unit: of the mass.
        foot: of the area.
    """
    result = Term(mass / feet, unit, foot)
    return line(f"{name} that it brings", *(t() for t in terms), divided_by(feet, foot), result=result)
