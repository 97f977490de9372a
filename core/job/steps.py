"""The working of a job: from the rate of each part to the mark on the vessel and the cost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from core.job.machine import Machine
from core.units import UNITS, Quantity, show_number, show_percent
from core.working import Step, Term, divided_by, line, plus, times

if TYPE_CHECKING:
    from core.job.reckon import Job, LoadPlan, PartPlan


def working(job: Job) -> tuple[Step, ...]:
    """All lines of a job, in the order in which one would write them down."""
    steps = _doses(job.parts, job.amount)
    if job.spray and job.machine and job.machine.output:
        steps += _spray(job.spray, job.area, job.machine, job.passes)
    if job.loads:
        steps += _first_load(job)
        steps.append(mark_step(job.loads[0]))
    if job.cost:
        steps += job.cost.working
    return tuple(steps)


def _doses(parts: Sequence[PartPlan], amount: Quantity) -> list[Step]:
    if len(parts) == 1:
        return [*parts[0].dose.working, *parts[0].dose.brings]
    steps = [replace(s, title=f"{p.part.name}: {_lower(s.title)}") for p in parts for s in p.dose.working]
    symbol = amount.unit.symbol
    each = [p.dose.amount.to(amount.unit).value for p in parts]
    total = line("Together", Term(each[0], symbol), *(plus(x, symbol) for x in each[1:]), result=Term(amount.value, symbol))
    return [*steps, total]


def _lower(title: str) -> str:
    return title[0].lower() + title[1:]


def _first_load(job: Job) -> list[Step]:
    first = job.loads[0]
    held = [p.dose for p in job.parts if p.part in first.parts]
    unit = held[0].amount.unit
    total = Quantity(sum(d.base for d in held) / unit.size, unit)
    if job.spray and job.machine:
        gallon = job.machine.capacity.unit
        share = sum(p.area.base for p in first.parts) / job.area.base
        mixed, load = job.spray.to(gallon).value * share, Quantity(first.load.volume, UNITS["l"]).to(gallon).value
        return [
            line(
                "Product in the first tank",
                Term(total.value, unit.symbol),
                times(load, gallon.symbol),
                divided_by(mixed, gallon.symbol),
                result=Term(first.product.value, first.product.unit.symbol),
            )
        ]
    if job.passes > 1:
        result = Term(total.value / job.passes, unit.symbol)
        return [line("Product for one pass", Term(total.value, unit.symbol), divided_by(job.passes), result=result)]
    return []


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


def mark_step(plan: LoadPlan) -> Step:
    """How a load's amount becomes a mark on its vessel."""
    by = plan.measure
    unit, graduation = by.vessel.unit.symbol, by.vessel.graduation
    exact = plan.product.to(by.vessel.unit)
    off = show_percent(by.rounding, sign=True)
    note = f"Read to the nearest {show_number(graduation)} {unit}: {by.instruction}, "
    note += "off by less than 0.05 %." if abs(by.rounding) < 0.0005 else f"{off}."
    start = Term(plan.product.value, plan.product.unit.symbol)
    if by.vessel.unit is plan.product.unit:
        return line(
            f"In the {by.vessel.name}",
            start,
            divided_by(graduation, unit, "mark"),
            result=Term(exact.value / graduation, "marks"),
            note=note,
        )
    factor = plan.product.unit.size / by.vessel.unit.size
    turn = times(factor, unit, plan.product.unit.symbol)
    return line(f"In the {by.vessel.name}", start, turn, result=Term(exact.value, unit), note=note)
