"""Measurements at the border: figures as typed into the core's sketch, and what it comes to out again."""

from core.areas.measure import METHODS, Sketch, in_trade, measure
from core.areas.plan import Measured, Plan
from core.areas.rings import read_geometry, read_ring
from core.errors import InputError
from core.readable import readable
from core.units import UNITS, Quantity, unit
from greenmeasure.common.schemas import number_in, quantity_out, working_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import FieldOptionOut, MarkOut, MeasuredOut, MeasureIn, MethodOut, OutlineOut, PlanOut, PointOut


def sketch_in(data: MeasureIn) -> Sketch:
    """The core's sketch. Empty fields are left out; faults are named after `measure.…`.

    Raises:
        InputError: a figure that is no number, or positions that are none.
    """
    rings = []
    if data.geometry:
        rings = read_geometry(data.geometry, "geometry")
    elif data.method == "ring" and data.ring.strip():
        rings = [[read_ring(data.ring)]]
    return Sketch(
        data.method,
        unit(data.unit, "unit"),
        {k: number_in(f"values.{k}", v) for k, v in data.values.items() if str(v).strip()},
        {k: [number_in(f"series.{k}.{i}", x) for i, x in enumerate(v) if str(x).strip()] for k, v in data.series.items()},
        [
            (
                1 if p.sign >= 0 else -1,
                p.shape,
                {k: number_in(f"parts.{i}.{k}", x) for k, x in p.values.items() if str(x).strip()},
            )
            for i, p in enumerate(data.parts)
        ],
        rings,
        data.rule,
    )


def measured(data: MeasureIn) -> Measured:
    """What a measurement comes to.

    Raises:
        InputError: named after `measure` and the figure at fault.
    """
    try:
        return measure(sketch_in(data))
    except InputError as fault:
        raise fault.on(f"measure.{fault.field}") from None


def measured_out(found: Measured, us: bool, versus: str = "", agreement: str = "") -> MeasuredOut:
    """What a measurement came to, beside the size in use where there is one."""
    size = in_trade(found.size, us)
    return MeasuredOut(
        size=quantity_out(size),
        also=str(readable(size, not us)),
        plan=plan_out(found.plan),
        notes=list(found.notes),
        working=working_out(found.working),
        versus=versus,
        agreement=agreement,
    )


def plan_out(plan: Plan) -> PlanOut:
    """A plan to draw."""
    left, bottom, right, top = plan.box
    return PlanOut(
        left=left,
        bottom=bottom,
        right=right,
        top=top,
        north=plan.north,
        outlines=[OutlineOut(ring=[PointOut(x=x, y=y) for x, y in o.ring], hole=o.hole) for o in plan.outlines],
        marks=[
            MarkOut(start=PointOut(x=m.start[0], y=m.start[1]), end=PointOut(x=m.end[0], y=m.end[1]), text=m.text)
            for m in plan.marks
        ],
    )


def methods_out() -> list[MethodOut]:
    """The ways to measure, with the words for what each asks."""
    return [
        MethodOut(
            key=m.key,
            name=m.name,
            about=m.about,
            fields=[FieldOptionOut(key=k, text=t) for k, t in m.fields],
            series=[FieldOptionOut(key=k, text=t) for k, t in m.series],
            rules=[FieldOptionOut(key=r.key, text=r.text) for r in m.rules],
        )
        for m in METHODS.values()
    ]


def in_account_units(size: float, us: bool) -> Quantity:
    """A measured size [m²] to be kept: in ft² or m², to a hundredth."""
    u = UNITS["ft2" if us else "m2"]
    return Quantity(round(size / u.size, 2), u)


def plan_of(area: Area) -> Plan | None:
    """The plan of the measurement in use [m], its lower left corner at 0, 0; None where the size was only typed."""
    used = next((m for m in area.measurements.all() if m.in_use), None)
    if used is None:
        return None
    plan = measured(MeasureIn(**used.given)).plan
    left, bottom, _, _ = plan.box
    return plan.moved(-left, -bottom)
