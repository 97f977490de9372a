"""A mix: what is in one tank or hopper, and the ground that it is for. One product is a mix of one."""

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

from core.ground import Ground
from core.job.hose_end import Draw
from core.label.product import Kind, Product
from core.label.rate import LabelRate, Rate
from core.rates.dose import Dose
from core.rates.kinds import in_kind
from core.rates.limits import Judgement, Stand, judge
from core.tank.fill_order import Act
from core.tank.loads import Load
from core.tank.vessels import Measure
from core.units import Quantity


class Role(StrEnum):
    """What a product does in a mix."""

    MAIN = "main"
    CONDITIONER = "conditioner"
    ADJUVANT = "adjuvant"
    COLOURANT = "colourant"

    @property
    def text(self) -> str:
        return {"conditioner": "water conditioner"}.get(self.value, self.value)


_ROLES = {Kind.ADJUVANT: Role.ADJUVANT, Kind.COLOURANT: Role.COLOURANT, Kind.CONDITIONER: Role.CONDITIONER}


def role_of(product: Product) -> Role:
    """What a product does in a mix, by its kind: what helps the water, the leaf or the eye is no partner of the rest."""
    return _ROLES.get(product.kind, Role.MAIN)


@dataclass(frozen=True)
class Dosing:
    """A component's rate on a ground and the label row that it is judged by; a dye without a rate goes in to taste."""

    rate: Rate | None = None
    label: LabelRate | None = None


@dataclass(frozen=True)
class Part:
    """Ground of a job with the rate of each component, in the mix's order. `treated` is how much of it, all where None."""

    ground: Ground
    doses: tuple[Dosing, ...]
    treated: Quantity | None = None
    zone: str = ""

    @property
    def area(self) -> Quantity:
        return self.treated or self.ground.size

    @property
    def name(self) -> str:
        return f"{self.ground.name}, {self.zone}" if self.zone else self.ground.name


def one(ground: Ground, rate: Rate, label: LabelRate, treated: Quantity | None = None, zone: str = "") -> Part:
    """Ground of a job with one product."""
    return Part(ground, (Dosing(rate, label),), treated, zone)


@dataclass(frozen=True)
class DosePlan:
    """One component on one ground: its dose, and by how much the marks of its vessels miss it (`rounding`)."""

    product: Product
    rate: Rate
    label: LabelRate
    dose: Dose
    rounding: float = 0.0

    @cached_property
    def judged(self) -> Rate:
        """The rate in the label's own kind of unit, whichever it was given in."""
        return in_kind(self.product, self.rate, self.label.highest.unit)

    @cached_property
    def judgement(self) -> Judgement:
        return judge(self.judged, self.label, self.product.label_binds, self.rate)

    @property
    def measured_rate(self) -> Rate:
        """What the marks of the vessels make of the rate."""
        return Rate(self.rate.value * (1 + self.rounding), self.rate.unit)

    @property
    def measured_judgement(self) -> Judgement:
        made = Rate(self.judged.value * (1 + self.rounding), self.judged.unit)
        return judge(made, self.label, self.product.label_binds, self.measured_rate)

    @property
    def tight(self) -> bool:
        """Whether rounding up could pass the label's highest rate, so that every mark is taken from below."""
        high = self.label.highest.base
        return self.product.label_binds and 0.9 * high < self.judged.base <= high * (1 + 1e-9)


@dataclass(frozen=True)
class PartPlan:
    """A part with the dose of each component, None for one to taste, the spray it takes [L], and how a hose-end is set for it."""

    part: Part
    doses: tuple[DosePlan | None, ...]
    spray: float | None
    draw: Draw | None = None

    @property
    def measured(self) -> tuple[DosePlan, ...]:
        """The components that have an amount."""
        return tuple(d for d in self.doses if d)


@dataclass(frozen=True)
class Pour:
    """What goes into one load of one component, by its place in the mix, and how it is measured; neither to taste."""

    place: int
    product: Product
    amount: Quantity | None = None
    measure: Measure | None = None


@dataclass(frozen=True)
class LoadPlan:
    """One load: what is poured, in the mix's order, what of it is water [L], its acts, and the parts that it is for.

    `draw` is how a hose-end is set for it.
    """

    load: Load
    pours: tuple[Pour, ...]
    water: float
    acts: tuple[Act, ...]
    parts: tuple[Part, ...]
    draw: Draw | None = None


def gravest(found: list[Judgement]) -> Judgement:
    """The gravest of several verdicts."""
    order = {Stand.ABOVE: 0, Stand.BELOW: 1, Stand.WITHIN: 2}
    return min(found, key=lambda j: (not j.refused, order[j.stand]))
