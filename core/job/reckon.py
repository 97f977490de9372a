"""One job on one or many areas, each with its own rate of every component: doses, loads, vessels, cost, verdict, working.

The spray volume comes from the machine first, then each dose: per area by the ground, per gallon, per 100 gal or as a share
by the finished spray. Areas of the same rates share their tanks; other rates are another filling and have tanks of their own.
Granules are weighed out an area at a time.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TypeVar

from core.errors import InputError
from core.job.heed import warnings
from core.job.hose_end import Draw, check_bottle, check_dial, draw_diluted, draw_undiluted
from core.job.machine import Machine, check_machine, check_match, check_one_way
from core.job.mix import DosePlan, LoadPlan, Part, PartPlan, Pour, Role, gravest, role_of
from core.job.steps import working
from core.label.product import Product
from core.label.rate import Rate
from core.rates.cost import Cost, cost, together
from core.rates.dose import Delivered, dose
from core.rates.kinds import in_kind
from core.rates.limits import Judgement
from core.readable import foot_of, joined, listed
from core.schools import PLAIN, House
from core.tank.fill_order import Act, Hose, Into, Marks, fill_bottle, fill_hopper, fill_tank
from core.tank.loads import Load, hopper_loads, tank_loads
from core.tank.marks import fill_to
from core.tank.vessels import Cabinet, Measure, Vessel, measure
from core.units import UNITS, Quantity, Unit
from core.working import Step

T = TypeVar("T")
MOST_PARTS = 60
MOST_MIXED = 12


@dataclass(frozen=True)
class Manner:
    """How a job is done: with which machine, how many times over, with all loads alike or not, filled for each pass or not, and
    by whose vessels and rules; of a hose-end where its `dial` stands and whether the product goes in `undiluted`.
    """

    machine: Machine
    passes: int
    even: bool
    by_pass: bool
    cabinet: Cabinet
    house: House
    dial: Rate | None = None
    undiluted: bool = False


@dataclass(frozen=True)
class ComponentPlan:
    """One component over the whole job.

    `amount` is what of it goes down, None to taste; `whole` measures that at once. `measured` is what the marks of the vessels
    come to over all loads (the whole, where there is no machine), `rounding` by how much they miss the amount.
    """

    product: Product
    amount: Quantity | None = None
    grams: float | None = None
    delivered: tuple[Delivered, ...] = ()
    whole: Measure | None = None
    measured: Quantity | None = None
    rounding: float = 0.0
    cost: Cost | None = None


@dataclass(frozen=True)
class Job:
    """Everything about one job: a mix, on its ground, with a machine."""

    mix: tuple[ComponentPlan, ...]
    parts: tuple[PartPlan, ...]
    machine: Machine | None
    passes: int
    us: bool
    area: Quantity
    spray: Quantity | None
    loads: tuple[LoadPlan, ...]
    warnings: tuple[str, ...]
    undiluted: bool = False

    @cached_property
    def working(self) -> tuple[Step, ...]:
        """All lines, in the order in which one would write them down."""
        return working(self)

    @property
    def main(self) -> ComponentPlan:
        """What the job is named by: its first component."""
        return self.mix[0]

    @property
    def products(self) -> tuple[Product, ...]:
        return tuple(c.product for c in self.mix)

    @property
    def name(self) -> str:
        return joined([c.product.name for c in self.mix])

    @property
    def foot(self) -> Quantity:
        return foot_of(self.us)

    @property
    def where(self) -> str:
        return listed([p.part.ground.name for p in self.parts])

    @cached_property
    def cost(self) -> Cost | None:
        """What the whole mix costs; None where a component that has an amount has no price."""
        return together([c.cost for c in self.mix if c.amount])

    @cached_property
    def delivered(self) -> tuple[Delivered, ...]:
        """What all components bring of each content, over all the ground."""
        found: dict[tuple[str, str], Delivered] = {}
        for d in (d for c in self.mix for d in c.delivered):
            key = (d.content.name, d.content.basis.value)
            held = found.get(key)
            found[key] = replace(held, grams=held.grams + d.grams, g_per_m2=held.g_per_m2 + d.g_per_m2) if held else d
        return tuple(found.values())

    @property
    def judgement(self) -> Judgement:
        """The gravest of the verdicts."""
        return gravest([d.judgement for p in self.parts for d in p.measured])


def reckon(
    mix: Sequence[Product],
    parts: Sequence[Part],
    machine: Machine | None,
    *,
    passes: int = 1,
    even: bool = False,
    by_pass: bool = False,
    us: bool = True,
    vessels: Sequence[Vessel] = (),
    house: House = PLAIN,
    dial: Rate | None = None,
    undiluted: bool = False,
) -> Job:
    """Reckon the whole job.

    Args:
        mix: what goes down together.
        parts: where, each with the rate of every component and the label it is judged by; a rate above the label is
            reckoned and judged, not hidden.
        machine: what it goes down with; without one there are doses and no loads.
        passes: how many times the ground is covered.
        even: all loads alike, in place of full ones and an odd last one.
        by_pass: each pass filled for itself.
        us: whether the account works in US units.
        vessels: its own; where it keeps none, the plain bench stands in.
        house: the account's rules; they tell the order of filling.
        dial: where a hose-end's dial stands; by its positions and the rates, unless given.
        undiluted: of a hose-end, the product goes into the bottle as it is.

    Raises:
        InputError: anything missing or absurd, named by its field.
    """
    _check(mix, parts)
    check_one_way(mix)
    if machine:
        check_machine(machine)
        for i, product in enumerate(mix):
            _on(f"mix.{i}" if len(mix) > 1 else "machine", check_match, product, machine)
    if machine and machine.draws:
        if dial:
            check_dial(dial)
        if undiluted:
            check_bottle([p.name for p in mix if not p.liquid])
    cabinet = Cabinet(us, tuple(vessels))
    manner = Manner(machine, passes, even, by_pass, cabinet, house, dial, undiluted) if machine else None
    planned = [_planned(mix, i, part, manner) for i, part in enumerate(parts)]
    plans = _plans(mix, planned, manner) if manner else ()
    area = _sum([p.area.base for p in parts], parts[0].area.unit)
    components = tuple(_component(product, c, planned, plans, area, cabinet) for c, product in enumerate(mix))
    sprays = [p.spray for p in planned if p.spray is not None]
    return Job(
        mix=components,
        parts=tuple(_measured(p, components, plans) for p in planned),
        machine=machine,
        passes=passes,
        us=us,
        area=area,
        spray=Quantity(sum(sprays), UNITS["l"]) if sprays else None,
        loads=plans,
        warnings=warnings(planned, us, plans),
        undiluted=bool(machine and machine.draws and undiluted),
    )


def _sum(bases: Sequence[float], unit: Unit) -> Quantity:
    return Quantity(sum(bases) / unit.size, unit)


def _on(field: str, check: Callable[..., T], *given: object) -> T:
    """What a check of one component gives, its faults on the component's own field."""
    try:
        return check(*given)
    except InputError as fault:
        raise fault.on(field) from None


def _check(mix: Sequence[Product], parts: Sequence[Part]) -> None:
    if not 1 <= len(mix) <= MOST_MIXED:
        raise InputError("mix", len(mix), f"{len(mix)} products make no mix.", f"Pick 1 to {MOST_MIXED}.")
    twice = next((p for i, p in enumerate(mix) if any(_same(p, q) for q in mix[:i])), None)
    if twice:
        raise InputError("mix", twice.name, f"{twice.name} is in the mix twice.", "Put both rates together in one.")
    if not 1 <= len(parts) <= MOST_PARTS:
        raise InputError("parts", len(parts), f"{len(parts)} areas make no job.", f"Pick 1 to {MOST_PARTS}.")
    for i, part in enumerate(parts):
        for c, (product, d) in enumerate(zip(mix, part.doses, strict=True)):
            if d.rate is None and role_of(product) is not Role.COLOURANT:
                no_rate = f"{product.name} has no rate on {part.name}."
                raise InputError(f"parts.{i}.doses.{c}.rate", None, no_rate, "Set its rate; only a dye goes in to taste.")
        if not any(d.rate for d in part.doses):
            raise InputError(f"parts.{i}.doses.0.rate", None, f"Nothing has a rate on {part.name}.", "Set a rate.")
        together = sum(p.area.base for p in parts if p.ground.is_same(part.ground))
        if together > part.ground.size.base * (1 + 1e-6):
            said = Quantity(together / part.ground.size.unit.size, part.ground.size.unit)
            raise InputError(
                f"parts.{i}.treated",
                str(said),
                f"{said} of {part.ground.name} is more than its {part.ground.size}.",
                "Check the treated size, or the area's.",
            )


def _same(a: Product, b: Product) -> bool:
    return a.id == b.id if a.id is not None and b.id is not None else a is b


def _planned(mix: Sequence[Product], i: int, part: Part, manner: Manner | None) -> PartPlan:
    """A part with its doses, by the spray that the machine puts on it."""
    spray = _spray(part, manner) if manner else None
    doses: list[DosePlan | None] = []
    for c, (product, given) in enumerate(zip(mix, part.doses, strict=True)):
        if given.rate is None or given.label is None:
            doses.append(None)
            continue
        field = f"parts.{i}.doses.{c}.rate"
        _on(field, in_kind, product, given.rate, given.label.highest.unit)
        try:
            made = dose(product, given.rate, part.area, spray)
        except InputError as fault:
            raise (fault.on(field) if fault.field == "rate" else fault) from None
        doses.append(DosePlan(product, given.rate, given.label, made))
    draw = _draw(doses, spray, manner) if manner and manner.machine.draws else None
    return PartPlan(part, tuple(doses), draw.spray if draw else spray, draw)


def _spray(part: Part, manner: Manner) -> float | None:
    """The spray on a part over all passes [L], by the machine's output; None for granules, and for an undiluted bottle without
    one.
    """
    machine = manner.machine
    if not machine.sprays or (machine.draws and manner.undiluted and machine.output is None):
        return None
    return machine.output_base * part.area.base * manner.passes


def _draw(doses: Sequence[DosePlan | None], spray: float | None, manner: Manner) -> Draw:
    """How a hose-end is set for a part."""
    liquids = sum(d.dose.base for d in doses if d and d.product.liquid)
    if manner.undiluted:
        return draw_undiluted(manner.machine, manner.dial, liquids, spray)
    assert spray is not None
    return draw_diluted(manner.machine, manner.dial, liquids, spray)


def _component(
    product: Product, c: int, parts: Sequence[PartPlan], plans: Sequence[LoadPlan], area: Quantity, cabinet: Cabinet
) -> ComponentPlan:
    held = [d for p in parts if (d := p.doses[c])]
    if not held:
        return ComponentPlan(product)
    unit = held[0].dose.amount.unit
    amount = _sum([d.dose.base for d in held], unit)
    whole = measure(amount, cabinet, any(d.tight for d in held))
    by = [p.pours[c].measure for p in plans]
    measured = _sum([m.measured.base for m in by if m], unit) if plans else whole.measured.to(unit)
    grams = [d.dose.grams for d in held if d.dose.grams is not None]
    return ComponentPlan(
        product=product,
        amount=amount,
        grams=sum(grams) if len(grams) == len(held) else None,
        delivered=_together([d.dose.delivered for d in held], area),
        whole=whole,
        measured=measured,
        rounding=measured.base / amount.base - 1,
        cost=cost(product, amount, area, foot_of(cabinet.us)),
    )


def _together(every: Sequence[tuple[Delivered, ...]], area: Quantity) -> tuple[Delivered, ...]:
    """What all doses of a component bring of each content, over all the ground."""
    found = []
    for i, first in enumerate(every[0]):
        grams = sum(d[i].grams for d in every)
        found.append(Delivered(first.content, grams, grams / area.base))
    return tuple(found)


def _measured(planned: PartPlan, components: Sequence[ComponentPlan], plans: Sequence[LoadPlan]) -> PartPlan:
    """A part whose doses know by how much the marks of its loads miss them."""
    mine = [p for p in plans if planned.part in p.parts]

    def rounding(c: int) -> float:
        poured = [x for p in mine if (x := p.pours[c]).measure]
        if not poured:
            return components[c].rounding
        return sum(x.measure.measured.base for x in poured if x.measure) / sum(x.amount.base for x in poured if x.amount) - 1

    return replace(planned, doses=tuple(d and replace(d, rounding=rounding(c)) for c, d in enumerate(planned.doses)))


# --- loads ------------------------------------------------------------------------------------------------------


def _fillings(parts: Sequence[PartPlan], machine: Machine) -> list[list[PartPlan]]:
    """Which parts share their loads: in a sprayer those of the same rates, in a spreader none."""
    if not machine.sprays:
        return [[p] for p in parts]
    groups: dict[str, list[PartPlan]] = {}
    for p in parts:
        key = " ".join(f"{d.rate.base:.10g} {d.rate.unit.kind}" if d else "-" for d in p.doses)
        groups.setdefault(key, []).append(p)
    return list(groups.values())


def _plans(mix: Sequence[Product], parts: Sequence[PartPlan], manner: Manner) -> tuple[LoadPlan, ...]:
    """All loads, a filling after the other."""
    plans: list[LoadPlan] = []
    for group in _fillings(parts, manner.machine):
        plans += _filled(mix, group, manner, len(plans))
    return tuple(plans)


def _loads(group: Sequence[PartPlan], manner: Manner) -> tuple[Load, ...]:
    machine, area = manner.machine, sum(p.part.area.base for p in group)
    if not machine.sprays:
        weighed = sum(d.dose.base for p in group for d in p.measured)
        return hopper_loads(dose=weighed, area=area, hopper=machine.capacity.base, passes=manner.passes, even=manner.even)
    return tank_loads(
        area=area,
        output=_content(group) / area / manner.passes if machine.draws else machine.output_base,
        tank=machine.capacity.base,
        passes=manner.passes,
        even=manner.even,
        by_pass=manner.by_pass,
    )


def _content(group: Sequence[PartPlan]) -> float:
    """What a filling of a hose-end draws from its bottles in all [L]."""
    return sum(p.draw.content for p in group if p.draw)


def _filled(mix: Sequence[Product], group: Sequence[PartPlan], manner: Manner, before: int) -> list[LoadPlan]:
    """Each load of a filling with its pours and its acts, worked out once for loads that are alike.

    Their numbers go on from `before`.
    """
    known: dict[tuple[float, float], tuple[tuple[Pour, ...], float, tuple[Act, ...]]] = {}
    parts = tuple(p.part for p in group)
    plans = []
    for load in _loads(group, manner):
        alike = (load.share, load.volume)
        if alike not in known:
            pours = tuple(_pour(product, c, group, load, manner.cabinet) for c, product in enumerate(mix))
            water = _water(pours, load) if load.volume and not manner.undiluted else 0.0
            known[alike] = (pours, water, _acts(pours, load, manner, _drawn(group, load)))
        plans.append(LoadPlan(replace(load, number=before + load.number), *known[alike], parts, _drawn(group, load)))
    return plans


def _drawn(group: Sequence[PartPlan], load: Load) -> Draw | None:
    """How a hose-end is set for one of a filling's bottles, and for how long."""
    every = [p.draw for p in group if p.draw]
    if not every:
        return None
    timed = [d.seconds for d in every if d.seconds is not None]
    return Draw(
        every[0].dial,
        sum(d.spray for d in every) * load.share,
        load.volume,
        sum(timed) * load.share if len(timed) == len(every) else None,
    )


def _pour(product: Product, c: int, group: Sequence[PartPlan], load: Load, cabinet: Cabinet) -> Pour:
    held = [d for p in group if (d := p.doses[c])]
    if not held:
        return Pour(c, product)
    unit = held[0].dose.amount.unit
    amount = Quantity(sum(d.dose.base for d in held) * load.share / unit.size, unit)
    return Pour(c, product, amount, measure(amount, cabinet, any(d.tight for d in held)))


def _water(pours: Sequence[Pour], load: Load) -> float:
    """What of a load is water [L]; dry products take up none. Raises InputError where nothing is left for it."""
    liquids = [p for p in pours if p.amount and p.product.liquid]
    water = load.volume - sum(p.amount.base for p in liquids if p.amount)
    if water <= 0:
        said = joined([f"{p.amount} of {p.product.name}" for p in liquids])
        raise InputError(
            "output",
            said,
            f"{said} leave no room for water in {Quantity(load.volume, UNITS['l'])}.",
            "Check the sprayer's output and the rates.",
        )
    return water


def _acts(pours: Sequence[Pour], load: Load, manner: Manner, draw: Draw | None) -> tuple[Act, ...]:
    into = [_into(p) for p in pours]
    if not load.volume:
        return fill_hopper(into)
    unit, mark = manner.machine.capacity.unit, manner.machine.mark
    full, near, half = (
        fill_to(Quantity(load.volume * share, UNITS["l"]).to(unit), mark, manner.cabinet) for share in (1.0, 0.9, 0.5)
    )
    exact = Quantity(load.volume, UNITS["l"]).to(unit)
    marks = Marks(full.text, near.text, half.text, f"{exact} exactly: {full.note}" if full.note else "")
    if draw:
        return fill_bottle(into, load.volume, marks, Hose(str(draw.dial), draw.time, manner.undiluted))
    return fill_tank(into, load.volume, marks, manner.house.of("fill_order"))


def _into(pour: Pour) -> Into:
    """A pour as the order of filling takes it."""
    amount = pour.amount.base if pour.amount else 0.0
    grams, litres = (0.0, amount) if pour.product.liquid else (amount, 0.0)
    return Into(pour.product, pour.measure.instruction if pour.measure else "", grams, litres)
