"""The working of a job: from the rate of each part to the mark on the vessel and the cost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from core.job.machine import Machine
from core.rates.cost import Cost
from core.rates.dose import Dose
from core.units import UNITS, Quantity, show_number, show_percent
from core.working import Step, Term, divided_by, line, plus, times

if TYPE_CHECKING:
    from core.job.reckon import LoadPlan, Part


def working(
    parts: Sequence[Part],
    doses: Sequence[Dose],
    amount: Quantity,
    spray: Quantity | None,
    area: Quantity,
    machine: Machine | None,
    passes: int,
    plans: Sequence[LoadPlan],
    price: Cost | None,
) -> tuple[Step, ...]:
    """All lines, in the order in which one would write them down."""
    steps = _doses(parts, doses, amount)
    if spray and machine and machine.output:
        steps += _spray(spray, area, machine, passes)
    if plans:
        first = plans[0]
        steps += _first_load(first, doses, parts, spray, machine, passes, area)
        steps.append(mark_step(first))
    if price:
        steps += price.working
    return tuple(steps)


def _doses(parts: Sequence[Part], doses: Sequence[Dose], amount: Quantity) -> list[Step]:
    if len(parts) == 1:
        return [*doses[0].working, *doses[0].brings]
    steps = [replace(s, title=f"{p.name}: {_lower(s.title)}") for p, d in zip(parts, doses, strict=True) for s in d.working]
    symbol = amount.unit.symbol
    each = [d.amount.to(amount.unit).value for d in doses]
    total = line("Together", Term(each[0], symbol), *(plus(x, symbol) for x in each[1:]), result=Term(amount.value, symbol))
    return [*steps, total]


def _lower(title: str) -> str:
    return title[0].lower() + title[1:]


def _first_load(
    first: LoadPlan,
    doses: Sequence[Dose],
    parts: Sequence[Part],
    spray: Quantity | None,
    machine: Machine | None,
    passes: int,
    area: Quantity,
) -> list[Step]:
    held = [d for d, p in zip(doses, parts, strict=True) if p in first.parts]
    unit = held[0].amount.unit
    total = Quantity(sum(d.base for d in held) / unit.size, unit)
    if spray and machine:
        gallon = machine.capacity.unit
        share = sum(p.area.base for p in first.parts) / area.base
        mixed, load = spray.to(gallon).value * share, Quantity(first.load.volume, UNITS["l"]).to(gallon).value
        return [
            line(
                "Product in the first tank",
                Term(total.value, unit.symbol),
                times(load, gallon.symbol),
                divided_by(mixed, gallon.symbol),
                result=Term(first.product.value, first.product.unit.symbol),
            )
        ]
    if passes > 1:
        result = Term(total.value / passes, unit.symbol)
        return [line("Product for one pass", Term(total.value, unit.symbol), divided_by(passes), result=result)]
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
