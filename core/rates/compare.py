"""Products for one purpose side by side: amounts, costs, what they bring, and what to buy.

Costs are told per area and per unit of whatever is counted, nitrogen, iron or an active; the dearer bag may be the cheaper feed.
What to buy is the cheapest set of packages that holds what the stock does not (integer programme, scipy's HiGHS), and what a
dose costs is its share of those packages.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

import numpy as np
from numpy.typing import NDArray

from core.errors import InputError
from core.label.product import Package, Product
from core.label.rate import Basis, LabelRate, Rate
from core.rates.dose import Dose, dose
from core.units import Quantity


@dataclass(frozen=True)
class Offer:
    """A product with the row of its label, the rate that is meant, and what of it is in stock."""

    product: Product
    label: LabelRate
    rate: Rate
    stock: Quantity | None = None


@dataclass(frozen=True)
class Bought:
    """`count` packages of one size, with what they cost; None where a price is missing."""

    package: Package
    count: int
    cost: Decimal | None


@dataclass(frozen=True)
class Purchase:
    """The packages to buy, what remains of them after the job, and what they cost together."""

    packages: tuple[Bought, ...]
    leftover: Quantity
    cost: Decimal | None


@dataclass(frozen=True)
class Compared:
    """One candidate on the ground.

    `cost` is of the dose [money], `per_area` per m²; None where no price is known. `brings` is what goes down of each thing that
    is counted [g/m²], all actives together. `purchase` is what to buy beside the stock, None where that is enough.
    """

    candidate: Offer
    dose: Dose
    cost: float | None
    per_area: float | None
    brings: Mapping[Basis, float]
    purchase: Purchase | None

    @property
    def active(self) -> float | None:
        """All actives together [g/m²]."""
        return self.brings.get(Basis.ACTIVE)

    def per_gram(self, basis: Basis) -> float | None:
        """What a gram of something counted costs [money]; None without a price, or where it brings none."""
        grams = self.brings.get(basis)
        return self.per_area / grams if self.per_area is not None and grams else None


def compare(candidates: Sequence[Offer], ground: Quantity, spray: float | None = None) -> list[Compared]:
    """Each candidate on `ground`; `spray` [L] is needed by rates per volume of spray.

    Raises:
        InputError: a candidate that cannot be dosed; names it.
    """
    return [_one(c, ground, spray) for c in candidates]


def _one(candidate: Offer, ground: Quantity, spray: float | None) -> Compared:
    product = candidate.product
    found = dose(product, candidate.rate, ground, spray)
    whole, short = buy(product.packages, found.amount), short_of(found.amount, candidate.stock)
    price = _price(product, whole)
    money = None if price is None else price * found.base
    brings: dict[Basis, float] = {}
    for d in found.delivered:
        brings[d.content.basis] = brings.get(d.content.basis, 0.0) + d.g_per_m2
    return Compared(
        candidate,
        found,
        money,
        None if money is None else money / ground.base,
        brings,
        whole if short == found.amount else buy(product.packages, short),
    )


def short_of(need: Quantity, stock: Quantity | None) -> Quantity:
    """What of a need the stock does not hold."""
    if stock is None or stock.unit.dimension != need.unit.dimension:
        return need
    return Quantity(max(0.0, need.base - stock.base) / need.unit.size, need.unit)


def _price(product: Product, bought: Purchase | None) -> float | None:
    """Money per g or L of product by the packages that would be bought; its cheapest package where one of them is not priced."""
    if bought is None or bought.cost is None:
        return price_per_base(product)
    return float(bought.cost) / sum(b.package.size.base * b.count for b in bought.packages)


def price_per_base(product: Product) -> float | None:
    """Money per g or L of product, by its cheapest package; None where none is priced."""
    package = product.package
    if package is None or package.price is None or package.size.unit.dimension != product.measured_in:
        return None
    return float(package.price) / package.size.base


def buy(packages: Sequence[Package], need: Quantity) -> Purchase | None:
    """The cheapest set of packages that holds `need`; the smallest set where prices are missing; None where none fits.

    Among sets of one price the one with the least left over is taken.
    """
    fitting = [p for p in packages if p.size.unit.dimension == need.unit.dimension]
    if not fitting or need.base <= 0:
        return None
    priced = all(p.price is not None for p in fitting)
    sizes = np.array([p.size.base for p in fitting])
    prices = np.array([float(p.price or 0) for p in fitting]) if priced else sizes
    counts = _fewest(sizes, prices, need.base)
    bought = tuple(Bought(p, n, p.price * n if p.price is not None else None) for p, n in zip(fitting, counts, strict=True) if n)
    held = sum(b.package.size.base * b.count for b in bought)
    costs = [b.cost for b in bought]
    total = sum((c for c in costs if c is not None), Decimal(0)) if all(c is not None for c in costs) else None
    return Purchase(bought, Quantity((held - need.base) / need.unit.size, need.unit), total)


def _fewest(sizes: NDArray[np.float64], prices: NDArray[np.float64], need: float) -> list[int]:
    if len(sizes) == 1:
        return [math.ceil(need / sizes[0] * (1 - 1e-9))]
    from scipy.optimize import Bounds, LinearConstraint, milp  # slow to load, and for products of several packages alone

    most = np.ceil(need / sizes)
    cost = prices + 1e-6 * prices.mean() * sizes / sizes.max()
    held = LinearConstraint(sizes[np.newaxis, :] / need, lb=1 - 1e-9)
    found = milp(cost, constraints=held, integrality=np.ones(len(sizes)), bounds=Bounds(0, most))
    return [round(x) for x in found.x]


def equal(reference: Compared, candidates: Sequence[Offer], ground: Quantity, basis: Basis = Basis.ACTIVE) -> list[Offer]:
    """The candidates at the rates that bring as much of something as the reference does: weak granules, strong concentrate.

    Actives are matched where each holds one and the same; what brings none of it is left out.

    Raises:
        InputError: the reference brings none of it, or several actives.
    """
    wanted = reference.brings.get(basis)
    actives = _actives(reference.candidate.product)
    if not wanted or (basis is Basis.ACTIVE and len(actives) != 1):
        counted = "one active" if basis is Basis.ACTIVE else basis.text
        raise InputError(
            "equal_to",
            reference.candidate.product.name,
            f"Doses are matched by {counted}, and of that it brings none that is known.",
            "Pick another product, or give it contents and a density.",
        )
    matched = []
    for c in candidates:
        if basis is Basis.ACTIVE and _actives(c.product) != actives:
            continue
        if here := _one(c, ground, None).brings.get(basis):
            matched.append(replace(c, rate=Rate(c.rate.value * wanted / here, c.rate.unit)))
    return matched


def _actives(product: Product) -> list[str]:
    return [c.name.lower() for c in product.contents if c.basis is Basis.ACTIVE]
