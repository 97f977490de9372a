"""The core's sums against a plain loop with pint, as a spreadsheet would do them; and how side by side grows."""

import random
from collections.abc import Callable
from decimal import Decimal
from typing import Any

import pint

from bench.timing import best
from core.ground import Ground
from core.job import Dosing, Job, Machine, MachineKind, Part, reckon
from core.label.product import FORMULATIONS, Content, Kind, Package, Product
from core.label.rate import Basis, LabelRate, Rate, RateUnit
from core.rates.compare import Offer, compare
from core.rates.dose import dose
from core.units import UNITS, Quantity

PINT = {
    "fl_oz": "fluid_ounce",
    "ml": "milliliter",
    "lb": "pound",
    "oz_wt": "ounce",
    "g": "gram",
    "kg": "kilogram",
    "kft2": "kilosquarefoot",
    "acre": "international_acre",
    "m2_100": "are",
    "ha": "hectare",
    "ft2": "foot ** 2",
    "m2": "meter ** 2",
}
DENSITY = 1120.0


def _jobs(count: int) -> list[tuple[Product, Rate, Quantity]]:
    """Mixed doses: liquids and granules, product, nitrogen and active, US and metric."""
    dice = random.Random(11)
    liquid = Product("l", Kind.FUNGICIDE, FORMULATIONS["SC"], (Content("a", Basis.ACTIVE, percent=21.0),), DENSITY)
    dry = Product("d", Kind.FERTILISER, FORMULATIONS["GR"], (Content("N", Basis.N, percent=22.0),))
    kinds = [
        (liquid, "fl_oz", "kft2", Basis.PRODUCT),
        (liquid, "ml", "m2_100", Basis.PRODUCT),
        (liquid, "lb", "acre", Basis.ACTIVE),
        (dry, "lb", "kft2", Basis.N),
        (dry, "kg", "ha", Basis.PRODUCT),
        (dry, "oz_wt", "kft2", Basis.PRODUCT),
    ]
    made = []
    for _ in range(count):
        product, amount, per, basis = dice.choice(kinds)
        area = Quantity(dice.uniform(500, 40_000), UNITS[dice.choice(["ft2", "m2"])])
        made.append((product, Rate(dice.uniform(0.1, 9), RateUnit(UNITS[amount], UNITS[per], basis)), area))
    return made


def _by_core(jobs: list[tuple[Product, Rate, Quantity]]) -> list[float]:
    return [dose(product, rate, area).base for product, rate, area in jobs]


def _registry() -> Any:
    made: Any = pint.UnitRegistry()
    made.define("kilosquarefoot = 1000 * foot ** 2")
    made.define("international_acre = 4046.8564224 * meter ** 2")
    return made


REGISTRY = _registry()
"""Built once, and not timed: pint builds it once in a program too."""


def _by_pint(jobs: list[tuple[Product, Rate, Quantity]], registry: Any = REGISTRY) -> list[float]:
    found = []
    for product, rate, area in jobs:
        per = rate.unit.per
        assert per
        wanted = registry.Quantity(rate.value, f"{PINT[rate.unit.amount.key]} / ({PINT[per.key]})")
        amount = wanted * registry.Quantity(area.value, PINT[area.unit.key])
        if rate.unit.basis is not Basis.PRODUCT:
            amount = amount / ((product.contents[0].percent or 0) / 100)
        if product.liquid and rate.unit.amount.dimension == "mass":
            amount = amount / registry.Quantity(DENSITY, "gram / liter")
        found.append(float(amount.to("liter" if product.liquid else "gram").magnitude))
    return found


def _took(work: Callable[[], Any], rounds: int = 3) -> tuple[float, Any]:
    """The quickest of some rounds [s], and what came of it."""
    made: list[Any] = []
    return best(lambda: made.append(work()), rounds), made[-1]


def doses(count: int = 10_000) -> None:
    """Print how long the core's doses take, working and all, against pint's bare amounts; the two must agree."""
    jobs = _jobs(count)
    _by_pint(jobs[:20]), _by_core(jobs[:20])
    ours, mine = _took(lambda: _by_core(jobs))
    theirs, plain = _took(lambda: _by_pint(jobs))
    read, _ = _took(lambda: [(d := dose(*job)).working + d.brings for job in jobs])
    worst = max(abs(a / b - 1) for a, b in zip(mine, plain, strict=True))
    assert worst < 1e-9, worst
    print(f"{count:,} doses / a loop with pint, amounts alone        {ours / theirs:6.3f}x  aim 0.1  (they agree to {worst:.0e})")
    print(f"{count:,} doses, every line of working read / the same loop    {read / theirs:6.3f}x")


def _candidates(count: int) -> list[Offer]:
    dice = random.Random(7)
    made = []
    for i in range(count):
        product = Product(
            f"p{i}",
            Kind.FUNGICIDE,
            FORMULATIONS["SC"],
            (Content("a", Basis.ACTIVE, percent=dice.uniform(5, 40)),),
            1100.0,
            (Package(Quantity(1.0, UNITS["gal"]), Decimal(dice.randint(40, 300))),),
        )
        unit = RateUnit(UNITS["fl_oz"], UNITS["kft2"])
        label = LabelRate(0.2, 2.0, unit)
        made.append(Offer(product, label, Rate(dice.uniform(0.2, 2), unit)))
    return made


def side_by_side(products: int = 200, areas: int = 50) -> None:
    """Print how side by side grows from one area to many: linear would be the number of areas."""
    candidates = _candidates(products)
    grounds = [Quantity(1000.0 + 97 * i, UNITS["ft2"]) for i in range(areas)]
    compare(candidates[:20], grounds[0])
    one, _ = _took(lambda: compare(candidates, grounds[0]))
    many, _ = _took(lambda: [compare(candidates, g) for g in grounds])
    jobs = [(c.product, c.rate, grounds[0]) for c in candidates]
    _by_pint(jobs)
    bare, _ = _took(lambda: _by_pint(jobs))
    print(f"side by side, {products} products, {areas} areas / one area            {many / one:5.1f}x  (linear is {areas}x)")
    print(f"side by side, {products} products, costs and buying / pint, amounts    {one / bare:5.2f}x")


def mixes(products: int = 6, areas: int = 20) -> None:
    """Print what a mix of several products on many areas costs against as many jobs of one product each."""
    label = LabelRate(0.2, 2.0, RateUnit(UNITS["fl_oz"], UNITS["kft2"]))
    mix = [Product(f"p{i}", Kind.IRON, FORMULATIONS["SL"], (), DENSITY) for i in range(products)]
    output = Rate(2.0, RateUnit(UNITS["gal"], UNITS["kft2"]))
    boom = Machine("boom", MachineKind.SPRAYER, Quantity(50.0, UNITS["gal"]), output)
    grounds = [Ground(f"g{i}", Quantity(1000.0 + 97 * i, UNITS["ft2"])) for i in range(areas)]
    dosing = Dosing(Rate(1.0, label.unit), label)

    def together() -> Job:
        return reckon(mix, [Part(g, (dosing,) * products) for g in grounds], boom)

    def apart() -> list[Job]:
        return [reckon([p], [Part(g, (dosing,)) for g in grounds], boom) for p in mix]

    together(), apart()
    one, _ = _took(lambda: [together().working for _ in range(20)])
    many, _ = _took(lambda: [[j.working for j in apart()] for _ in range(20)])
    print(f"a mix of {products} on {areas} areas / {products} jobs of one                      {one / many:5.2f}x")


def run() -> None:
    doses()
    side_by_side()
    mixes()
