"""Products for one purpose side by side: amounts, costs, what they bring, and what to buy.

Costs are told three ways: per area, per pound (or kilogram) of nitrogen, per unit of active; the dearer bag may be the
cheaper feed. What to buy is the cheapest set of packages that holds the need (integer programme, scipy's HiGHS).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, milp

from core.errors import InputError
from core.label.product import Package, Product
from core.label.rate import Basis, LabelRate, Rate
from core.rates.dose import Dose, dose
from core.units import Quantity


@dataclass(frozen=True)
class Offer:
    """A product with the row of its label and the rate that is meant."""

    product: Product
    label: LabelRate
    rate: Rate


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

    `cost` is of the dose [money], `per_area` per m², `per_nitrogen` per g N, `per_active` per g of all actives; None
    where no price is known or the product holds none. `active` and `nitrogen` are [g/m²]. `purchase` is what to buy.
    """

    candidate: Offer
    dose: Dose
    cost: float | None
    per_area: float | None
    per_nitrogen: float | None
    per_active: float | None
    active: float | None
    nitrogen: float | None
    purchase: Purchase | None


def compare(candidates: Sequence[Offer], ground: Quantity, spray: float | None = None) -> list[Compared]:
    """Each candidate on `ground`; `spray` [L] is needed by rates per volume of spray.

    Raises:
        InputError: a candidate that cannot be dosed; names it.
    """
    return [_one(c, ground, spray) for c in candidates]


def _one(candidate: Offer, ground: Quantity, spray: float | None) -> Compared:
    product = candidate.product
    found = dose(product, candidate.rate, ground, spray)
    active = _sum(found, Basis.ACTIVE)
    nitrogen = _sum(found, Basis.N)
    price = price_per_base(product)
    money = None if price is None else price * found.base

    def per(grams: float | None) -> float | None:
        return None if money is None or not grams else money / (grams * ground.base)

    return Compared(
        candidate,
        found,
        money,
        None if money is None else money / ground.base,
        per(nitrogen),
        per(active),
        active,
        nitrogen,
        buy(product.packages, found.amount),
    )


def _sum(found: Dose, basis: Basis) -> float | None:
    """What the dose brings of a basis [g/m²], None where it brings none."""
    grams = [d.g_per_m2 for d in found.delivered if d.content.basis is basis]
    return sum(grams) if grams else None


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
    most = np.ceil(need / sizes)
    cost = prices + 1e-6 * prices.mean() * sizes / sizes.max()
    held = LinearConstraint(sizes[np.newaxis, :] / need, lb=1 - 1e-9)
    found = milp(cost, constraints=held, integrality=np.ones(len(sizes)), bounds=Bounds(0, most))
    return [round(x) for x in found.x]


def equal_active(reference: Compared, candidates: Sequence[Offer], ground: Quantity) -> list[Offer]:
    """The candidates at the rates that bring as much active as the reference does: weak granules, strong concentrate.

    Only candidates with one and the same active are matched; others are left out.

    Raises:
        InputError: the reference brings no single active.
    """
    actives = [c for c in reference.candidate.product.contents if c.basis is Basis.ACTIVE]
    if len(actives) != 1 or reference.active is None:
        raise InputError(
            "reference",
            reference.candidate.product.name,
            "Doses are matched by one active, and it holds another number.",
            "Pick a product with one active and a density.",
        )
    name = actives[0].name.lower()
    matched = []
    for c in candidates:
        here = [x for x in c.product.contents if x.basis is Basis.ACTIVE]
        if len(here) != 1 or here[0].name.lower() != name:
            continue
        found = _one(c, ground, None)
        if found.active:
            matched.append(Offer(c.product, c.label, Rate(c.rate.value * reference.active / found.active, c.rate.unit)))
    return matched
