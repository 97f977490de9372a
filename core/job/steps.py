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
    if job.spray and job.machine and job.machine.draws:
        steps += _hose(job, job.machine)
    elif job.spray and job.machine and job.machine.output:
        steps += _spray(job.spray, job.area, job.machine, job.passes)
    if job.loads:
        for pour in job.loads[0].pours:
            if pour.amount:
                steps += _named([*_first_load(job, pour), mark_step(pour)], pour.product.name, len(job.mix) > 1)
        if (len(job.mix) > 1 or job.loads[0].draw) and job.loads[0].load.volume and not job.undiluted:
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
    if job.machine and job.machine.draws:
        if len(job.loads) == 1:
            return []
        part = Term(total.value, unit.symbol), times(first.load.share)
        return [line("Product in the first bottle: its share", *part, result=result)]
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
    return [line(f"Water in the first {job.machine.vessel}", *terms, result=Term(water.value, gallon.symbol))] if liquids else []


def _hose(job: Job, machine: Machine) -> list[Step]:
    """The spray, what of it the dial draws from the bottle, the bottles, and how long the hose runs, for the first ground."""
    bottle = machine.capacity.unit
    gallon, foot = UNITS["gal" if job.us else "l"], job.foot.unit
    first = next(p for p in job.parts if p.draw)
    assert first.draw
    draw, area = first.draw, first.part.area.to(foot).value
    spray = draw.spray / gallon.size
    dial = draw.dial.base * gallon.size / bottle.size
    content = Term(draw.content / bottle.size, bottle.symbol)
    steps = []
    if job.undiluted:
        terms = content, divided_by(dial, bottle.symbol, gallon.symbol)
        steps.append(line("Spray: product ÷ dial", *terms, result=Term(spray, gallon.symbol)))
    elif machine.output:
        output = machine.output.base * foot.size / gallon.size
        terms = Term(output, gallon.symbol, foot.symbol), times(area, foot.symbol)
        more = (times(job.passes, "passes"),) if job.passes > 1 else ()
        steps.append(line("Spray: output × area", *terms, *more, result=Term(spray, gallon.symbol)))
        terms = Term(spray, gallon.symbol), times(dial, bottle.symbol, gallon.symbol)
        steps.append(line("From the bottle: spray × dial", *terms, result=content))
    count = Term(content.value / machine.capacity.value, "bottles")
    steps.append(line("Bottles", content, divided_by(machine.capacity.value, bottle.symbol, "bottle"), result=count))
    if draw.seconds is not None and machine.flow:
        flow = machine.flow * 60 / gallon.size
        terms = Term(spray, gallon.symbol), divided_by(flow, gallon.symbol, "min")
        steps.append(line("Time: spray ÷ flow", *terms, result=Term(draw.seconds / 60, "min")))
    return steps


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
