"""A walking plan laid for an account's ground and machine, with all that it rests on."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from core.areas.plan import Outline, Plan
from core.errors import InputError
from core.machines.sprayer import check_pace
from core.passes.near import outline_of, shape_of
from core.passes.plan import KeepOff, Refill, Walk, refills, walk
from core.rates.dose import dose
from core.units import LENGTH, SPEED, UNITS, Quantity, positive, show_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import filled, number_in, quantity_in, rate_in
from greenmeasure.ground.actions import lies_at
from greenmeasure.ground.measuring import plan_of
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.ground.schemas import PointOut
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machine_of
from greenmeasure.passes.schemas import PlanIn, ZoneOut
from greenmeasure.shelf.queries import card_of, row_of

STROLL = 1.2
"""A walking pace [m/s] taken where the machine's was never measured (common practice, no source)."""
LINE = 0.15
"""Half the width that a thing along a side is drawn with [m]."""


@dataclass(frozen=True)
class Laid:
    """A plan with all that it rests on, in metres."""

    area: Area
    machine: Machine | None
    plan: Plan
    has_plan: bool
    outline: BaseGeometry
    keep_off: tuple[tuple[str, KeepOff], ...]
    unplaced: tuple[str, ...]
    walks: tuple[Walk, ...]
    spacing: float
    pace: float
    pace_known: bool
    refills: tuple[Refill, ...]
    rate: float | None
    rate_unit: str
    label: tuple[float, float] | None


def laid(account: Account, data: PlanIn) -> Laid:
    """Lay a plan.

    Raises:
        InputError: no spacing, ground too narrow for it, or a figure at fault, named by its field.
        Missing: an area, machine or product that the account does not have.
    """
    area = area_of(account, data.area_id)
    machine = machine_of(account, data.machine_id) if data.machine_id else None
    found = plan_of(area)
    plan = found or _typed_plan(area, data)
    outline = outline_of(plan)
    spacing = _spacing(data, machine)
    kept, unplaced = _keep_off(account, area, outline, data)
    walks = _walks(outline, spacing, data, [k for _, k in kept])
    pace, known = _pace(data, machine)
    rate, unit, label = _rate(account, data, area)
    return Laid(
        area,
        machine,
        plan,
        found is not None,
        outline,
        kept,
        unplaced,
        walks,
        spacing,
        pace,
        known,
        tuple(_refills(walks, machine, rate)),
        rate,
        unit,
        label,
    )


def _typed_plan(area: Area, data: PlanIn) -> Plan:
    """A rectangle of the area's size, for ground that was never measured."""
    size = area.size.base
    long = quantity_in("length", given, LENGTH).base if (given := filled(data.length)) else math.sqrt(size)
    if not 0.02 * long <= size / long <= 50 * long:
        raise InputError("length", show_number(long), "The ground would be a mere line.", "Check the length and its unit.")
    wide = size / long
    return Plan((Outline(((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide))),))


def _spacing(data: PlanIn, machine: Machine | None) -> float:
    if given := filled(data.spacing):
        return quantity_in("spacing", given, LENGTH).base
    if machine and machine.swath:
        return machine.swath
    raise InputError(
        "spacing",
        None,
        f"The swath of {machine.name} is not known." if machine else "No machine is picked.",
        "Type how far apart the passes are, or calibrate the machine.",
    )


def _keep_off(
    account: Account, area: Area, outline: BaseGeometry, data: PlanIn
) -> tuple[tuple[tuple[str, KeepOff], ...], tuple[str, ...]]:
    """What lies on the plan with its buffer: the ground's own, or the label's where that is wider and it is water; and by name
    what has no place on it, or one that its outline does not have any more.
    """
    label = (card_of(account, data.product_id).core.rules.buffer or 0.0) if data.product_id else 0.0
    found, unplaced = [], []
    for typed, hazard in zip(area.hazards, area.ground.hazards, strict=True):
        try:
            shape = shape_of(lies_at(typed["lies"]), outline) if typed.get("lies") else None
        except InputError:
            shape = None
        if shape is None:
            unplaced.append(hazard.name or hazard.kind.text)
        elif data.keep_off:
            name = f"{hazard.kind.text}, {hazard.name}" if hazard.name else hazard.kind.text
            found.append((name, KeepOff(shape, max(hazard.buffer, label if hazard.kind.wet else 0.0))))
    return tuple(found), tuple(unplaced)


def _walks(outline: BaseGeometry, spacing: float, data: PlanIn, kept: Sequence[KeepOff]) -> tuple[Walk, ...]:
    direction = None
    if str(data.direction).strip():
        direction = positive("direction", number_in("direction", data.direction), most=360, zero=True)
    if not 0 <= data.edges <= 10:
        raise InputError("edges", data.edges, f"{data.edges} rings along the edge are too many.", "Walk 0 to 10.")
    first = walk(
        outline, spacing, direction, edges=data.edges, edges_last=data.edges_last, keep_off=kept, guides=max(0, data.guides)
    )
    if data.second == "none":
        return (first,)
    turned = {"right_angles": 90.0, "diagonal": 45.0, "offset": 0.0}[data.second]
    return first, walk(
        outline,
        spacing,
        first.direction + turned,
        edges=data.edges,
        edges_last=data.edges_last,
        keep_off=kept,
        shift=0.5 if data.second == "offset" else 0.0,
    )


def _pace(data: PlanIn, machine: Machine | None) -> tuple[float, bool]:
    if given := filled(data.pace):
        return check_pace(quantity_in("pace", given, SPEED).base), True
    force = machine.in_force if machine else None
    return (force.pace, True) if force and force.pace else (STROLL, False)


def _rate(account: Account, data: PlanIn, area: Area) -> tuple[float | None, str, tuple[float, float] | None]:
    """The intended rate of product in all [g/m² or L/m²], its unit, and the label's ends as shares of it."""
    if not (data.product_id and data.row_id and (given := filled(data.rate))):
        return None, "", None
    product = card_of(account, data.product_id).core
    rate = rate_in("rate", given)
    label = row_of(account, data.product_id, data.row_id, "row_id").label()
    size = Quantity(area.size.base, UNITS["m2"])
    amount = dose(product, rate, size).amount
    low, high = (end.to(rate.unit).value / rate.value for end in (label.lowest, label.highest))
    return amount.base / size.base, "g" if amount.unit.dimension == "mass" else "l", (low, high)


def _refills(walks: Sequence[Walk], machine: Machine | None, rate: float | None) -> list[Refill]:
    """Where a tank or a hopper runs out, over both rounds."""
    if machine is None:
        return []
    each = machine.output.base if machine.output else (rate / len(walks) if rate and machine.kind == "spreader" else None)
    if not each:
        return []
    reach = machine.capacity.base / each
    count = math.ceil(sum(w.covered for w in walks) / reach * (1 - 1e-9))
    if count > 200:
        return []
    joined = replace(walks[0], passes=tuple(p for w in walks for p in w.passes))
    return refills(joined, [reach] * count)


def zones(found: Laid) -> list[ZoneOut]:
    """What is kept off, to draw: each thing as it lies, and the distance kept from it."""
    drawn = []
    for name, off in found.keep_off:
        shown = off.shape if off.shape.area else off.shape.buffer(LINE)
        for buffer, shape in ((True, off.shape.buffer(off.buffer)), (False, shown)):
            for part in getattr(shape, "geoms", [shape]):
                if isinstance(part, Polygon) and not part.is_empty:
                    ring = [PointOut(x=x, y=y) for x, y in part.exterior.coords]
                    drawn.append(ZoneOut(name=name, buffer=buffer, ring=ring))
    return drawn
