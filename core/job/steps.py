"""The working of a job: from the rate of each part to the mark on the vessel and the cost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from core.job.machine import Machine
from core.units import UNITS, Quantity, show_number, show_percent
from core.working import Step, Term, divided_by, line, minus, plus, times

if TYPE_CHECKING:
    from core.job.mix import PartPlan, Pour
    from core.job.reckon import Job


def working(job: Job) -> tuple[Step, ...]:
    """All lines of a job, in the order in which one would write them down."""
    steps: list[Step] = []
    for c, component in enumerate(job.mix):
        if component.amount:
            steps += _named(_doses(job.parts, c, component.amount), component.product.name, len(job.mix) > 1)
    if job.spray and job.machine and job.machine.output:
        steps += _spray(job.spray, job.area, job.machine, job.passes)
    if job.loads:
        for pour in job.loads[0].pours:
            if pour.amount:
                steps += _named([*_first_load(job, pour), mark_step(pour)], pour.product.name, len(job.mix) > 1)
        if len(job.mix) > 1 and job.loads[0].load.volume:
            steps += _water(job)
    several = len(job.mix) > 1
    for each in job.mix:
        if each.cost:
            steps += _named(each.cost.working, each.product.name, several)
    if several and job.cost:
        steps.append(job.cost.working[-1])
    return tuple(steps)


def _named(steps: Sequence[Step], name: str, several: bool) -> list[Step]:
    """The steps of one component, named by it where there are several."""
    return [replace(s, title=f"{name}: {_lower(s.title)}") for s in steps] if several else list(steps)


def _doses(parts: Sequence[PartPlan], c: int, amount: Quantity) -> list[Step]:
    held = [(p.part, d.dose) for p in parts if (d := p.doses[c])]
    if len(held) == 1:
        return [*held[0][1].working, *held[0][1].brings]
    steps = [replace(s, title=f"{part.name}: {_lower(s.title)}") for part, dose in held for s in dose.working]
    symbol = amount.unit.symbol
    each = [dose.amount.to(amount.unit).value for _, dose in held]
    total = line("Together", Term(each[0], symbol), *(plus(x, symbol) for x in each[1:]), result=Term(amount.value, symbol))
    return [*steps, total]


def _lower(title: str) -> str:
    return title[0].lower() + title[1:]


def _first_load(job: Job, pour: Pour) -> list[Step]:
    """What of a component goes into the first load."""
    first = job.loads[0]
    held = [d.dose for p in job.parts if p.part in first.parts and (d := p.doses[pour.place])]
    assert pour.amount
    unit = held[0].amount.unit
    total = Quantity(sum(d.base for d in held) / unit.size, unit)
    result = Term(pour.amount.value, pour.amount.unit.symbol)
    if job.spray and job.machine:
        gallon = job.machine.capacity.unit
        share = sum(p.area.base for p in first.parts) / job.area.base
        mixed, load = job.spray.to(gallon).value * share, Quantity(first.load.volume, UNITS["l"]).to(gallon).value
        terms = Term(total.value, unit.symbol), times(load, gallon.symbol), divided_by(mixed, gallon.symbol)
        return [line("Product in the first tank", *terms, result=result)]
    if job.passes > 1:
        result = Term(total.value / job.passes, unit.symbol)
        return [line("Product for one pass", Term(total.value, unit.symbol), divided_by(job.passes), result=result)]
    return []


def _water(job: Job) -> list[Step]:
    """What of the first tank is water: its volume less the liquids."""
    assert job.machine
    gallon, first = job.machine.capacity.unit, job.loads[0]
    volume, water = (Quantity(v, UNITS["l"]).to(gallon) for v in (first.load.volume, first.water))
    liquids = [p.amount.to(gallon).value for p in first.pours if p.amount and p.product.liquid]
    terms = (Term(volume.value, gallon.symbol), *(minus(x, gallon.symbol) for x in liquids))
    return [line("Water in the first tank", *terms, result=Term(water.value, gallon.symbol))] if liquids else []


def _spray(spray: Quantity, ground: Quantity, machine: Machine, passes: int) -> list[Step]:
    output = machine.output
    if output is None or output.unit.per is None:
        return []
    per, unit = output.unit.per, output.unit.amount
    area = ground.to(per).value
    terms = [Term(output.value, unit.symbol, per.symbol), times(area, per.symbol)]
    if passes > 1:
        terms.append(times(passes, "passes"))
    total = spray.to(unit)
    tank = machine.capacity.to(unit)
    return [
        line("Spray volume: output × area", *terms, result=Term(total.value, unit.symbol)),
        line(
            "Tanks",
            Term(total.value, unit.symbol),
            divided_by(tank.value, unit.symbol, "tank"),
            result=Term(total.value / tank.value, "tanks"),
        ),
    ]


def mark_step(pour: Pour) -> Step:
    """How an amount becomes a mark on its vessel."""
    by = pour.measure
    assert by and pour.amount
    unit, graduation = by.vessel.unit.symbol, by.vessel.graduation
    exact = pour.amount.to(by.vessel.unit)
    off = show_percent(by.rounding, sign=True)
    note = f"Read to the nearest {show_number(graduation)} {unit}: {by.instruction}, "
    note += "off by less than 0.05 %." if abs(by.rounding) < 0.0005 else f"{off}."
    start = Term(pour.amount.value, pour.amount.unit.symbol)
    if by.vessel.unit is pour.amount.unit:
        return line(
            f"In the {by.vessel.name}",
            start,
            divided_by(graduation, unit, "mark"),
            result=Term(exact.value / graduation, "marks"),
            note=note,
        )
    factor = pour.amount.unit.size / by.vessel.unit.size
    turn = times(factor, unit, pour.amount.unit.symbol)
    return line(f"In the {by.vessel.name}", start, turn, result=Term(exact.value, unit), note=note)
