"""One job on one or many areas, each with its own rate: dose, loads, vessels, cost, verdict and working.

Areas of one rate share their tanks; another rate is another mix and has tanks of its own. Granules are weighed out an
area at a time.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from core.errors import InputError
from core.ground import Ground
from core.job.machine import Machine, check_match
from core.job.steps import working
from core.label.product import Product
from core.label.rate import LabelRate, Rate, RateUnit
from core.rates.cost import Cost, cost
from core.rates.dose import Delivered, Dose, dose
from core.rates.kinds import in_kind
from core.rates.limits import Judgement, Stand, judge
from core.readable import foot_of, listed
from core.schools import PLAIN, House
from core.tank.fill_order import Act, fill_hopper, fill_tank
from core.tank.loads import Load, hopper_loads, tank_loads
from core.tank.vessels import Measure, measure
from core.units import UNITS, Quantity, Unit, show_number, show_percent
from core.working import Step

MOST_PARTS = 60


@dataclass(frozen=True)
class Part:
    """Ground of a job with its rate and the label row it is judged by. `treated` is how much of it, all where None."""

    ground: Ground
    rate: Rate
    label: LabelRate
    treated: Quantity | None = None
    zone: str = ""

    @property
    def area(self) -> Quantity:
        return self.treated or self.ground.size

    @property
    def name(self) -> str:
        return f"{self.ground.name}, {self.zone}" if self.zone else self.ground.name


@dataclass(frozen=True)
class PartPlan:
    """A part with its dose and the spray it takes [L]; `rounding` is by how much the marks of its vessels miss the dose."""

    product: Product
    part: Part
    dose: Dose
    spray: float | None
    rounding: float = 0.0

    @cached_property
    def judged(self) -> Rate:
        """The rate in the label's own kind of unit, whichever it was given in."""
        return in_kind(self.product, self.part.rate, self.part.label.highest.unit)

    @cached_property
    def judgement(self) -> Judgement:
        return judge(self.judged, self.part.label, self.product.label_binds, self.part.rate)

    @property
    def measured_rate(self) -> Rate:
        """What the marks of the vessels make of the rate."""
        return Rate(self.part.rate.value * (1 + self.rounding), self.part.rate.unit)

    @property
    def measured_judgement(self) -> Judgement:
        made = Rate(self.judged.value * (1 + self.rounding), self.judged.unit)
        return judge(made, self.part.label, self.product.label_binds, self.measured_rate)

    @property
    def tight(self) -> bool:
        """Whether rounding up could pass the label's highest rate, so that every mark is taken from below."""
        high = self.part.label.highest.base
        return self.product.label_binds and 0.9 * high < self.judged.base <= high * (1 + 1e-9)


@dataclass(frozen=True)
class Manner:
    """How a job is done: with which machine, how many times over, with all loads alike or not, and by whose units and rules."""

    machine: Machine
    passes: int
    even: bool
    us: bool
    house: House


@dataclass(frozen=True)
class LoadPlan:
    """One load with how its product is measured, how it is filled, and the parts it is for."""

    load: Load
    product: Quantity
    measure: Measure
    acts: tuple[Act, ...]
    parts: tuple[Part, ...]


@dataclass(frozen=True)
class Job:
    """Everything about one job.

    `amount` is the product in all; `whole` measures it at once, `loads` a load at a time. `measured` is what the marks
    of the vessels come to over all loads (the whole, where there is no machine).
    """

    product: Product
    parts: tuple[PartPlan, ...]
    machine: Machine | None
    passes: int
    us: bool
    amount: Quantity
    grams: float | None
    area: Quantity
    delivered: tuple[Delivered, ...]
    spray: Quantity | None
    loads: tuple[LoadPlan, ...]
    whole: Measure
    measured: Quantity
    rounding: float
    cost: Cost | None
    warnings: tuple[str, ...]

    @cached_property
    def working(self) -> tuple[Step, ...]:
        """All lines, in the order in which one would write them down."""
        return working(self)

    @property
    def foot(self) -> Quantity:
        return foot_of(self.us)

    @property
    def where(self) -> str:
        return listed([p.part.ground.name for p in self.parts])

    @property
    def judgement(self) -> Judgement:
        """The gravest of the parts' verdicts."""
        order = {Stand.ABOVE: 0, Stand.BELOW: 1, Stand.WITHIN: 2}
        return min((p.judgement for p in self.parts), key=lambda j: (not j.refused, order[j.stand]))


def reckon(
    product: Product,
    parts: Sequence[Part],
    machine: Machine | None,
    *,
    passes: int = 1,
    even: bool = False,
    us: bool = True,
    house: House = PLAIN,
) -> Job:
    """Reckon the whole job.

    Args:
        product: what goes down.
        parts: where, each with its rate and the label it is judged by; a rate above the label is reckoned and judged,
            not hidden.
        machine: what it goes down with; without one there is a dose and no loads.
        passes: how many times the ground is covered.
        even: all loads alike, in place of full ones and an odd last one.
        us: whether the account works in US units.
        house: the account's rules; they tell the order of filling.

    Raises:
        InputError: anything missing or absurd, named by its field.
    """
    _check(product, parts)
    if machine:
        check_match(product, machine)
    planned = [_planned(product, part, machine, passes) for part in parts]
    unit = planned[0].dose.amount.unit
    amount = _sum([p.dose.base for p in planned], unit)
    plans, roundings = _plans(planned, Manner(machine, passes, even, us, house)) if machine else ((), {})
    whole = measure(amount, us, any(p.tight for p in planned))
    measured = _sum([p.measure.measured.base for p in plans], unit) if plans else whole.measured.to(unit)
    rounding = measured.base / amount.base - 1
    area = _sum([p.area.base for p in parts], parts[0].area.unit)
    sprays = [p.spray for p in planned if p.spray is not None]
    grams = [p.dose.grams for p in planned if p.dose.grams is not None]
    return Job(
        product=product,
        parts=tuple(replace(p, rounding=roundings.get(i, rounding)) for i, p in enumerate(planned)),
        machine=machine,
        passes=passes,
        us=us,
        amount=amount,
        grams=sum(grams) if len(grams) == len(planned) else None,
        area=area,
        delivered=_together([p.dose for p in planned], area),
        spray=Quantity(sum(sprays), UNITS["l"]) if sprays else None,
        loads=plans,
        whole=whole,
        measured=measured,
        rounding=rounding,
        cost=cost(product, amount, area, foot_of(us)),
        warnings=_warnings(planned, us, plans),
    )


def _sum(bases: Sequence[float], unit: Unit) -> Quantity:
    return Quantity(sum(bases) / unit.size, unit)


def _check(product: Product, parts: Sequence[Part]) -> None:
    if not 1 <= len(parts) <= MOST_PARTS:
        raise InputError("parts", len(parts), f"{len(parts)} areas make no job.", f"Pick 1 to {MOST_PARTS}.")
    for i, part in enumerate(parts):
        try:
            in_kind(product, part.rate, part.label.highest.unit)
        except InputError as fault:
            raise fault.on(f"parts.{i}.rate") from None
        together = sum(p.area.base for p in parts if p.ground.name == part.ground.name)
        if together > part.ground.size.base * (1 + 1e-6):
            said = Quantity(together / part.ground.size.unit.size, part.ground.size.unit)
            raise InputError(
                f"parts.{i}.treated",
                str(said),
                f"{said} of {part.ground.name} is more than its {part.ground.size}.",
                "Check the treated size, or the area's.",
            )


def _planned(product: Product, part: Part, machine: Machine | None, passes: int) -> PartPlan:
    spray = machine.output_base * part.area.base * passes if machine and machine.sprays else None
    return PartPlan(product, part, dose(product, part.rate, part.area, spray), spray)


def _together(doses: Sequence[Dose], area: Quantity) -> tuple[Delivered, ...]:
    """What all doses bring of each content, over all the ground."""
    if len(doses) == 1:
        return doses[0].delivered
    found = []
    for i, first in enumerate(doses[0].delivered):
        grams = sum(d.delivered[i].grams for d in doses)
        found.append(Delivered(first.content, grams, grams / area.base))
    return tuple(found)


def _mixes(parts: Sequence[PartPlan], machine: Machine) -> list[list[int]]:
    """Which parts, by their places, share their loads: in a sprayer those of one rate, in a spreader none."""
    if not machine.sprays:
        return [[i] for i in range(len(parts))]
    groups: dict[str, list[int]] = {}
    for i, p in enumerate(parts):
        groups.setdefault(f"{p.part.rate.base:.10g} {p.part.rate.unit.kind}", []).append(i)
    return list(groups.values())


def _plans(parts: Sequence[PartPlan], manner: Manner) -> tuple[tuple[LoadPlan, ...], dict[int, float]]:
    """All loads, a mix after the other, and by how much the marks of each part's mix miss its dose."""
    plans: list[LoadPlan] = []
    roundings: dict[int, float] = {}
    for places in _mixes(parts, manner.machine):
        mix = [parts[i] for i in places]
        made = _filled(mix, manner, len(plans))
        rounding = sum(p.measure.measured.base for p in made) / sum(p.dose.base for p in mix) - 1
        roundings |= dict.fromkeys(places, rounding)
        plans += made
    return tuple(plans), roundings


def _loads(mix: Sequence[PartPlan], manner: Manner) -> tuple[Load, ...]:
    machine = manner.machine
    base, area = sum(p.dose.base for p in mix), sum(p.part.area.base for p in mix)
    if not machine.sprays:
        return hopper_loads(dose=base, area=area, hopper=machine.capacity.base, passes=manner.passes, even=manner.even)
    return tank_loads(
        dose=base,
        liquid=mix[0].product.liquid,
        area=area,
        output=machine.output_base,
        tank=machine.capacity.base,
        passes=manner.passes,
        even=manner.even,
    )


def _filled(mix: Sequence[PartPlan], manner: Manner, before: int) -> list[LoadPlan]:
    """Each load of a mix with its measure and its acts, worked out once for loads that are alike.

    Their numbers go on from `before`.
    """
    known: dict[tuple[float, float], tuple[Quantity, Measure, tuple[Act, ...]]] = {}
    product, unit, tight = mix[0].product, mix[0].dose.amount.unit, any(p.tight for p in mix)
    parts = tuple(p.part for p in mix)
    plans = []
    for load in _loads(mix, manner):
        alike = (load.amount, load.volume)
        if alike not in known:
            amount = Quantity(load.amount / unit.size, unit)
            by = measure(amount, manner.us, tight)
            known[alike] = (amount, by, _acts(product, load, by, manner))
        plans.append(LoadPlan(replace(load, number=before + load.number), *known[alike], parts))
    return plans


def _acts(product: Product, load: Load, by: Measure, manner: Manner) -> tuple[Act, ...]:
    if not load.volume:
        return fill_hopper(product, by.instruction)
    full, half = (Quantity(v, UNITS["l"]).to(manner.machine.capacity.unit) for v in (load.volume, load.volume / 2))
    return fill_tank([(product, by.instruction)], load.volume, str(full), str(half), manner.house.of("fill_order"))


def _warnings(parts: Sequence[PartPlan], us: bool, plans: Sequence[LoadPlan]) -> tuple[str, ...]:
    words = []
    coarse = next((p for p in plans if p.measure.coarse), None)
    if coarse:
        words.append(
            f"{coarse.product} is little for a {coarse.measure.vessel.name}: reading it alone can be out by "
            f"{show_percent(coarse.measure.reading)}. {coarse.measure.note}"
        )
    for p in parts:
        if p.spray and p.part.label.carrier and p.part.label.unit.per_area:
            words += _other_water(p.part, p.spray, us)
    return tuple(dict.fromkeys(words))


def _other_water(part: Part, spray: float, us: bool) -> list[str]:
    """A warning where the spray volume is not the one the label asks for."""
    asked = part.label.scaled()
    if asked.carrier is None or asked.unit.per is None:
        return []
    low, high, unit = asked.carrier
    foot = asked.unit.per
    wanted = [RateUnit(unit, foot), RateUnit(UNITS["gal"] if us else UNITS["l"], foot_of(us).unit)]
    here = Rate(spray / part.area.base / wanted[0].size, wanted[0])
    if low * (1 - 1e-6) <= here.value <= high * (1 + 1e-6):
        return []
    span = show_number(low) if low == high else f"{show_number(low)} to {show_number(high)}"
    return [
        f"The spray volume comes to {here.to(wanted[1])}; the label asks for {span} {unit.symbol} of water per {foot.symbol}."
    ]
