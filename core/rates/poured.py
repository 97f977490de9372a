"""What was really measured of a product for one load: the rate that it makes, before anything is topped up.

The load's ground takes its product in proportion: what was measured over what was meant is what the rate becomes over what it was
planned to be. A slip that would explain a miss is asked, never assumed.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from core.errors import DENSITY, InputError, Mend
from core.label.product import Product
from core.label.rate import LabelRate, Rate
from core.rates.limits import Judgement, Stand, judge
from core.units import MASS, UNITS, VOLUME, Quantity, show_percent

NEAR = 0.03
"""Two amounts within this share of each other are one, as hands measure (ours)."""
TOLD = 0.05
"""A miss smaller than this is the vessel's, and is not spoken of (common practice, no source)."""


@dataclass(frozen=True)
class Meant:
    """What one load was to get of a component: its amount, the whole job's, and what the other loads get."""

    amount: Quantity
    whole: Quantity
    others: tuple[Quantity, ...] = ()


@dataclass(frozen=True)
class Poured:
    """What was measured makes `rate`, `factor` times the plan; `slip` is the question that would explain a miss."""

    rate: Rate
    factor: float
    judgement: Judgement
    slip: str

    @property
    def off(self) -> bool:
        """Whether it is further from the plan than a vessel reads."""
        return abs(self.factor - 1) > TOLD

    @property
    def stops(self) -> bool:
        """Whether it is above the label of a product whose label binds."""
        return self.judgement.stand is Stand.ABOVE and self.judgement.refused

    @property
    def sentence(self) -> str:
        """How it stands to the plan, in words."""
        if not self.off:
            return f"That makes {self.rate}, as planned."
        return f"That makes {self.rate}, {show_percent(self.factor - 1, 3, sign=True)} against the plan."


def check_poured(product: Product, planned: Rate, label: LabelRate, meant: Meant, measured: Quantity) -> Poured:
    """The rate that what was measured makes, held against the label.

    Args:
        product: what was measured.
        planned: its rate as planned, in the label's kind of unit.
        label: the row that it is judged by.
        meant: what the load was to get.
        measured: what was really measured for it.

    Raises:
        InputError: weight for volume where the density is not known.
    """
    here = _like(product, measured, meant.amount)
    factor = here / meant.amount.base
    rate = Rate(planned.value * factor, planned.unit)
    judged = judge(rate, label, product.label_binds)
    slip = slip_of(here, meant, measured) if abs(factor - 1) > TOLD else ""
    return Poured(rate, factor, judged, slip)


def _like(product: Product, measured: Quantity, meant: Quantity) -> float:
    """What was measured in the dimension of what was meant [L or g]."""
    if measured.unit.dimension == meant.unit.dimension:
        return measured.base
    density = product.density_g_per_l
    if density is None or {measured.unit.dimension, meant.unit.dimension} != {MASS, VOLUME}:
        raise InputError(
            "amount",
            str(measured),
            f"{product.name} is measured in {meant.unit.symbol}; its density is not known.",
            "Enter it in that, or add the density to its card.",
            mend=Mend(DENSITY, product.id),
        )
    return measured.base / density if meant.unit.dimension == VOLUME else measured.base * density


_KIN: dict[str, Sequence[str]] = {
    VOLUME: ("ml", "fl_oz", "tsp", "tbsp", "cup", "pt", "qt", "gal", "l"),
    MASS: ("g", "oz_wt", "lb", "kg"),
}


def slip_of(here: float, meant: Meant, measured: Quantity) -> str:
    """The question that would explain a miss; empty where none would.

    Args:
        here: what was measured, in the dimension of what was meant [L or g].
        meant: what the load was to get.
        measured: as it was read off the vessel.
    """
    plan = meant.amount
    if _near(here, meant.whole.base) and not _near(plan.base, meant.whole.base):
        return f"Is that the dose of the whole job, {meant.whole}? This load takes {plan}."
    if other := next((o for o in meant.others if _near(here, o.base) and not _near(o.base, plan.base)), None):
        return f"Is that the dose of another load, {other}? This one takes {plan}."
    if _near(here, 2 * plan.base):
        return "Is that the dose for twice as much spray?"
    if _near(2 * here, plan.base):
        return "Is that the dose for half as much spray, or is one of two measures still to go in?"
    wrong = next((k for k in _KIN[plan.unit.dimension] if k != measured.unit.key and _near(_as(measured, k), plan.base)), "")
    if wrong and measured.unit.dimension == plan.unit.dimension:
        return f"Was it read in {UNITS[wrong].symbol}, not in {measured.unit.symbol}? The number is right for that."
    if _near(here, 10 * plan.base) or _near(10 * here, plan.base):
        return "Has the decimal point slipped?"
    return ""


def _as(measured: Quantity, key: str) -> float:
    """The number that was read, had it been in another unit [L or g]."""
    return measured.value * UNITS[key].size


def _near(a: float, b: float) -> bool:
    """Whether two amounts are one, as hands measure.

    Args:
        a: one of them [any one unit].
        b: the other [the same unit].
    """
    return abs(a - b) <= NEAR * max(abs(a), abs(b))
