"""One job, reckoned whole: label rate + area + machine → dose, loads, vessels, cost, verdict and working."""

import math
from dataclasses import dataclass
from enum import StrEnum

from core.errors import InputError
from core.rates.cost import Cost, cost
from core.rates.dose import Dose, dose
from core.rates.limits import Judgement, Stand, judge
from core.rates.product import Product
from core.rates.rate import LabelRate, Rate, RateUnit
from core.rates.working import Step, Term, divided_by, line, times
from core.tank.fill_order import Act, fill_hopper, fill_tank
from core.tank.loads import Load, hopper_loads, tank_loads
from core.tank.vessels import Measure, measure
from core.units import AREA, MASS, UNITS, VOLUME, Quantity, show_number, show_percent


class MachineKind(StrEnum):
    """What a machine puts down: a liquid by the tank, or granules by the hopper."""

    SPRAYER = "sprayer"
    SPREADER = "spreader"


@dataclass(frozen=True)
class Machine:
    """A sprayer (tank and output per area of one pass) or a spreader (hopper)."""

    name: str
    kind: MachineKind
    capacity: Quantity
    output: Rate | None = None

    @property
    def output_base(self) -> float:
        """Output [L/m²].

        Raises:
            InputError: a sprayer whose output is not known.
        """
        if self.output is None:
            raise InputError(
                "machine", self.name, f"The output of {self.name} is not known.", "Enter what it puts down per area."
            )
        return self.output.base


def check_machine(machine: Machine) -> None:
    """Refuse a machine that cannot be.

    Raises:
        InputError: a tank not in volume, a hopper not in weight, or an output that is not volume per area.
    """
    wanted = VOLUME if machine.kind is MachineKind.SPRAYER else MASS
    if machine.capacity.unit.dimension != wanted:
        holds = "tank holds a volume" if wanted == VOLUME else "hopper holds a weight"
        raise InputError("capacity", str(machine.capacity), f"A {machine.kind}'s {holds}.", "Pick another unit.")
    if machine.kind is MachineKind.SPREADER:
        return
    output = machine.output
    if output is None or output.unit.amount.dimension != VOLUME or not output.unit.per_area:
        raise InputError("output", output and str(output), "A sprayer's output is a volume per area.",
                         "Enter it as gal/1000 ft², gal/acre, L/100 m² or L/ha.")  # fmt: skip
    if not 1e-4 <= machine.output_base <= 10:
        raise InputError(
            "output", str(output), f"{output} is {show_number(machine.output_base * 1e4)} L/ha, which no sprayer puts down.",
            "Check the number and its unit; walking sprayers put down about 0.5 to 4 gal/1000 ft² (200 to 1600 L/ha).",
        )  # fmt: skip


@dataclass(frozen=True)
class Ground:
    """The ground of a job."""

    name: str
    size: Quantity


@dataclass(frozen=True)
class LoadPlan:
    """One load with how its product is measured and how it is filled."""

    load: Load
    product: Quantity
    measure: Measure
    acts: tuple[Act, ...]


@dataclass(frozen=True)
class Job:
    """Everything about one job.

    `whole` measures the dose at once, `loads` a load at a time. `measured` is what the marks of the vessels come to over
    all loads (the whole, where there is no machine), `measured_rate` the rate that really makes.
    """

    product: Product
    ground: Ground
    machine: Machine | None
    rate: Rate
    label: LabelRate
    passes: int
    us: bool
    dose: Dose
    judgement: Judgement
    spray: Quantity | None
    loads: tuple[LoadPlan, ...]
    whole: Measure
    measured: Quantity
    rounding: float
    measured_rate: Rate
    measured_judgement: Judgement
    cost: Cost | None
    warnings: tuple[str, ...]
    working: tuple[Step, ...]

    @property
    def foot(self) -> Quantity:
        return foot_of(self.us)


def foot_of(us: bool) -> Quantity:
    """The area that costs and contents are told per: 1000 ft² or 100 m²."""
    return Quantity(1.0, UNITS["kft2"] if us else UNITS["m2_100"])


SAID_IN = {
    (VOLUME, True): (("fl_oz", 128.0), ("gal", math.inf)),
    (VOLUME, False): (("ml", 1000.0), ("l", math.inf)),
    (MASS, True): (("oz_wt", 16.0), ("lb", math.inf)),
    (MASS, False): (("g", 1000.0), ("kg", math.inf)),
    (AREA, True): (("ft2", 435600.0), ("acre", math.inf)),
    (AREA, False): (("m2", 100000.0), ("ha", math.inf)),
}
"""For a dimension and a system (US or not): the units people say it in, each up to a size."""


def readable(quantity: Quantity, us: bool) -> Quantity:
    """The same quantity in the unit a person of that system would say it in."""
    for key, most in SAID_IN.get((quantity.unit.dimension, us), ()):
        turned = quantity.to(key)
        if turned.value < most * (1 - 1e-9):
            return turned
    return quantity


def reckon(
    product: Product,
    label: LabelRate,
    rate: Rate,
    ground: Ground,
    machine: Machine | None,
    *,
    passes: int = 1,
    even: bool = False,
    us: bool = True,
) -> Job:
    """Reckon the whole job.

    Args:
        product: what goes down.
        label: the label's rate, which the verdict quotes.
        rate: the rate that was chosen; a rate above the label is reckoned and judged, not hidden.
        ground: where it goes.
        machine: what it goes down with; without one there is a dose and no loads.
        passes: how many times the ground is covered.
        even: all loads alike, in place of full ones and an odd last one.
        us: whether the club works in US units.

    Raises:
        InputError: anything missing or absurd, named by its field.
    """
    if rate.unit.kind != label.unit.kind:
        raise InputError(
            "rate", str(rate), f"{rate.unit.symbol} does not measure what the label's {label.unit.symbol} does.",
            "Enter the rate in the label's kind of unit.",
        )  # fmt: skip
    if machine:
        _check_match(product, machine)
    spray = _spray(ground, machine, passes)
    found = dose(product, rate, ground.size, spray.base if spray else None)
    judgement = judge(rate, label, product.kind)
    never_over = judgement.stand is not Stand.ABOVE and product.kind.label_binds
    tight = never_over and rate.base > 0.9 * label.highest.base
    plans = _plans(product, found, _loads(product, found, ground, machine, passes, even), us, tight)
    whole = measure(found.amount, us, tight)
    measured = (
        Quantity(sum(p.measure.measured.base for p in plans) / found.amount.unit.size, found.amount.unit)
        if plans else whole.measured.to(found.amount.unit)
    )  # fmt: skip
    rounding = measured.base / found.base - 1
    measured_rate = Rate(rate.value * (1 + rounding), rate.unit)
    price = cost(product, found.amount, ground.size, foot_of(us))
    return Job(
        product=product,
        ground=ground,
        machine=machine,
        rate=rate,
        label=label,
        passes=passes,
        us=us,
        dose=found,
        judgement=judgement,
        spray=spray,
        loads=plans,
        whole=whole,
        measured=measured,
        rounding=rounding,
        measured_rate=measured_rate,
        measured_judgement=judge(measured_rate, label, product.kind),
        cost=price,
        warnings=_warnings(ground, us, plans, label, spray),
        working=_working(found, spray, ground, machine, passes, plans, price),
    )


def _check_match(product: Product, machine: Machine) -> None:
    check_machine(machine)
    if product.formulation.sprayed and machine.kind is MachineKind.SPREADER:
        raise InputError(
            "machine", machine.name, f"{product.name} is sprayed, and {machine.name} is a spreader.", "Pick a sprayer."
        )
    if not product.formulation.sprayed and machine.kind is MachineKind.SPRAYER:
        raise InputError(
            "machine",
            machine.name,
            f"{product.name} is spread dry, and {machine.name} is a sprayer.",
            "Pick a spreader.",
        )


def _spray(ground: Ground, machine: Machine | None, passes: int) -> Quantity | None:
    if machine is None or machine.kind is MachineKind.SPREADER:
        return None
    return Quantity(machine.output_base * ground.size.base * passes, UNITS["l"])


def _loads(product: Product, found: Dose, ground: Ground, machine: Machine | None, passes: int, even: bool) -> tuple[Load, ...]:
    if machine is None:
        return ()
    if machine.kind is MachineKind.SPREADER:
        return hopper_loads(dose=found.base, area=ground.size.base, hopper=machine.capacity.base, passes=passes, even=even)
    return tank_loads(
        dose=found.base, liquid=product.liquid, area=ground.size.base, output=machine.output_base,
        tank=machine.capacity.base, passes=passes, even=even,
    )  # fmt: skip


def _plans(product: Product, found: Dose, loads: tuple[Load, ...], us: bool, tight: bool) -> tuple[LoadPlan, ...]:
    """Each load with its measure and its acts, worked out once for loads that are alike.

    `tight` takes every mark from below: near the label's highest rate a rounding up could pass it.
    """
    known: dict[tuple[float, float], tuple[Quantity, Measure, tuple[Act, ...]]] = {}
    plans = []
    for load in loads:
        alike = (load.amount, load.volume)
        if alike not in known:
            amount = Quantity(load.amount / found.amount.unit.size, found.amount.unit)
            by = measure(amount, us, tight)
            known[alike] = (amount, by, _acts(product, load, by, us))
        plans.append(LoadPlan(load, *known[alike]))
    return tuple(plans)


def _acts(product: Product, load: Load, by: Measure, us: bool) -> tuple[Act, ...]:
    if not load.volume:
        return fill_hopper(product, by.instruction)
    full, half = (readable(Quantity(v, UNITS["l"]), us) for v in (load.volume, load.volume / 2))
    return fill_tank([(product, by.instruction)], load.volume, str(full), str(half))


def _warnings(ground: Ground, us: bool, plans: tuple[LoadPlan, ...], label: LabelRate, spray: Quantity | None) -> tuple[str, ...]:
    words = []
    coarse = next((p for p in plans if p.measure.coarse), None)
    if coarse:
        words.append(
            f"{coarse.product} is little for a {coarse.measure.vessel.name}: reading it alone can be out by "
            f"{show_percent(coarse.measure.reading)}. {coarse.measure.note}"
        )
    if spray and label.carrier and label.unit.per_area:
        words += _other_water(ground, us, label, spray)
    return tuple(words)


def _other_water(ground: Ground, us: bool, label: LabelRate, spray: Quantity) -> list[str]:
    """A warning where the spray volume is not the one the label asks for."""
    asked = label.scaled()
    if asked.carrier is None or asked.unit.per is None:
        return []
    low, high, unit = asked.carrier
    foot = asked.unit.per
    wanted = [RateUnit(unit, foot), RateUnit(UNITS["gal"] if us else UNITS["l"], foot_of(us).unit)]
    here = Rate(spray.base / ground.size.base / wanted[0].size, wanted[0])
    if low * (1 - 1e-6) <= here.value <= high * (1 + 1e-6):
        return []
    span = show_number(low) if low == high else f"{show_number(low)} to {show_number(high)}"
    return [
        f"The spray volume comes to {here.to(wanted[1])}; the label asks for {span} {unit.symbol} of water per {foot.symbol}."
    ]


def _working(
    found: Dose, spray: Quantity | None, ground: Ground, machine: Machine | None, passes: int,
    plans: tuple[LoadPlan, ...], price: Cost | None,
) -> tuple[Step, ...]:  # fmt: skip
    steps = list(found.working)
    if spray and machine and machine.output:
        steps += _spray_steps(spray, ground, machine, passes)
    if plans and machine:
        first = plans[0]
        if spray:
            unit = machine.capacity.unit
            total, share = spray.to(unit).value, Quantity(first.load.volume, UNITS["l"]).to(unit).value
            steps.append(
                line(
                    "Product in the first tank", Term(found.amount.value, found.amount.unit.symbol),
                    times(share, unit.symbol), divided_by(total, unit.symbol),
                    result=Term(first.product.value, first.product.unit.symbol),
                )
            )  # fmt: skip
        elif passes > 1:
            steps.append(
                line(
                    "Product for one pass", Term(found.amount.value, found.amount.unit.symbol), divided_by(passes),
                    result=Term(found.amount.value / passes, found.amount.unit.symbol),
                )
            )  # fmt: skip
        steps.append(_mark_step(first))
    if price:
        steps += price.working
    return tuple(steps)


def _spray_steps(spray: Quantity, ground: Ground, machine: Machine, passes: int) -> list[Step]:
    output = machine.output
    if output is None or output.unit.per is None:
        return []
    per, unit = output.unit.per, output.unit.amount
    area = ground.size.to(per).value
    terms = [Term(output.value, unit.symbol, per.symbol), times(area, per.symbol)]
    if passes > 1:
        terms.append(times(passes, "passes"))
    total = spray.to(unit)
    tank = machine.capacity.to(unit)
    return [
        line("Spray volume: output × area", *terms, result=Term(total.value, unit.symbol)),
        line(
            "Tanks", Term(total.value, unit.symbol), divided_by(tank.value, unit.symbol, "tank"),
            result=Term(total.value / tank.value, "tanks"),
        ),
    ]  # fmt: skip


def _mark_step(plan: LoadPlan) -> Step:
    by = plan.measure
    unit, graduation = by.vessel.unit.symbol, by.vessel.graduation
    exact = plan.product.to(by.vessel.unit)
    off = show_percent(by.rounding, sign=True)
    note = f"Read to the nearest {show_number(graduation)} {unit}: {by.instruction}, "
    note += "off by less than 0.05 %." if abs(by.rounding) < 0.0005 else f"{off}."
    start = Term(plan.product.value, plan.product.unit.symbol)
    if by.vessel.unit is plan.product.unit:
        return line(
            f"In the {by.vessel.name}", start, divided_by(graduation, unit, "mark"),
            result=Term(exact.value / graduation, "marks"), note=note,
        )  # fmt: skip
    factor = plan.product.unit.size / by.vessel.unit.size
    turn = times(factor, unit, plan.product.unit.symbol)
    return line(f"In the {by.vessel.name}", start, turn, result=Term(exact.value, unit), note=note)
