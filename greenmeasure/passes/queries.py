"""Walking plans and what lands where, for a club's ground and machines."""

import base64
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from core.areas.plan import Outline, Plan
from core.errors import InputError
from core.machines.sprayer import check_pace
from core.machines.working import length_text, pace_text, time_text
from core.passes.geo import Anchor, check_anchor, positions
from core.passes.landing import Hand, Landed, Profile, coarse, dark_stripes, even_profile, land, profile_of
from core.passes.near import outline_of, shape_of, sides_of
from core.passes.plan import KeepOff, PassKind, Refill, Walk, refills, walk
from core.rates.dose import dose
from core.readable import readable
from core.units import LENGTH, SPEED, UNITS, Quantity, positive, show_number, show_percent
from greenmeasure.accounts.models import Club
from greenmeasure.common.schemas import FactOut, filled, number_in, quantity_in, rate_in
from greenmeasure.ground.actions import lies_at
from greenmeasure.ground.measuring import sketch_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of, plan_of
from greenmeasure.ground.schemas import MeasureIn, OutlineOut, PointOut
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machine_of
from greenmeasure.passes.schemas import (
    ComparedPlansOut,
    ExportIn,
    LandedOut,
    LandIn,
    MarkedOut,
    PassesOut,
    PassOut,
    PlanIn,
    SecondName,
    VariantOut,
    WalkedIn,
    ZoneOut,
)
from greenmeasure.shelf.queries import card_of, row_of

STROLL = 1.2
"""A walking pace [m/s] taken where the machine's was never measured (common practice, no source)."""
MOST_BLOCKS = 300
"""Blocks along the longer side of a landing map as it is sent; it is reckoned finer."""
LINE = 0.15
"""Half the width that a thing along a side is drawn with [m]."""
SOME = 0.02
"""A share of the area that is worth a word."""
FINEST, MOST_CELLS = 0.1, 1_200_000
SECONDS: dict[SecondName, str] = {
    "none": "One round", "right_angles": "Two at right angles", "diagonal": "Two, the second on the diagonal",
    "offset": "Two, the second between the first",
}  # fmt: skip


@dataclass(frozen=True)
class Laid:
    """A plan with all that it rests on, in metres."""

    area: Area
    machine: Machine | None
    plan: Plan
    has_plan: bool
    outline: BaseGeometry
    keep_off: tuple[tuple[str, KeepOff], ...]
    walks: tuple[Walk, ...]
    spacing: float
    pace: float
    pace_known: bool
    refills: tuple[Refill, ...]
    rate: float | None
    rate_unit: str
    label: tuple[float, float] | None


def laid(club: Club, data: PlanIn) -> Laid:
    """Lay a plan.

    Raises:
        InputError: no spacing, ground too narrow for it, or a figure at fault, named by its field.
        Missing: an area, machine or product that the club does not have.
    """
    area = area_of(club, data.area_id)
    machine = machine_of(club, data.machine_id) if data.machine_id else None
    found = plan_of(area)
    plan = found or _typed_plan(area, data)
    outline = outline_of(plan)
    spacing = _spacing(data, machine)
    kept = tuple(_keep_off(area, outline, data)) if data.keep_off else ()
    walks = _walks(outline, spacing, data, [k for _, k in kept])
    pace, known = _pace(data, machine)
    rate, unit, label = _rate(club, data, area)
    return Laid(
        area, machine, plan, found is not None, outline, kept, walks, spacing, pace, known,
        tuple(_refills(walks, machine, rate)), rate, unit, label,
    )  # fmt: skip


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
    whose = f"The swath of {machine.name} is not known." if machine else "No machine is picked."
    raise InputError("spacing", None, whose, "Type how far apart the passes are, or calibrate the machine.")


def _keep_off(area: Area, outline: BaseGeometry, data: PlanIn) -> Sequence[tuple[str, KeepOff]]:
    ground, found = area.ground, []
    for i, (typed, hazard) in enumerate(zip(area.hazards, ground.hazards, strict=True)):
        if typed.get("lies"):
            shape = shape_of(lies_at(typed["lies"], f"places.{i}"), outline)
            name = f"{hazard.kind.text}, {hazard.name}" if hazard.name else hazard.kind.text
            found.append((name, KeepOff(shape, hazard.buffer)))
    return found


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
        outline, spacing, first.direction + turned, edges=data.edges, edges_last=data.edges_last, keep_off=kept,
        shift=0.5 if data.second == "offset" else 0.0,
    )  # fmt: skip


def _pace(data: PlanIn, machine: Machine | None) -> tuple[float, bool]:
    if given := filled(data.pace):
        return check_pace(quantity_in("pace", given, SPEED).base), True
    force = machine.in_force if machine else None
    return (force.pace, True) if force and force.pace else (STROLL, False)


def _rate(club: Club, data: PlanIn, area: Area) -> tuple[float | None, str, tuple[float, float] | None]:
    """The intended rate of product in all [g/m² or L/m²], its unit, and the label's ends as shares of it."""
    if not (data.product_id and data.row_id and (given := filled(data.rate))):
        return None, "", None
    product = card_of(club, data.product_id).core
    rate = rate_in("rate", given)
    label = row_of(club, data.product_id, data.row_id, "row_id").label()
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


# --- out --------------------------------------------------------------------------------------------------------


def plan_out(club: Club, data: PlanIn) -> PassesOut:
    """A plan to draw and to walk by. Raises as `laid`."""
    return passes_out(laid(club, data), club.us)


def passes_out(found: Laid, us: bool) -> PassesOut:
    left, bottom, right, top = found.plan.box
    stripes = sum(p.kind is PassKind.STRIPE for w in found.walks for p in w.passes)
    rings = sum(p.kind is PassKind.EDGE for w in found.walks for p in w.passes)
    return PassesOut(
        sentence=_sentence(found, stripes, rings, us), left=left, bottom=bottom, right=right, top=top, north=found.plan.north,
        outlines=[OutlineOut(ring=[PointOut(x=x, y=y) for x, y in o.ring], hole=o.hole) for o in found.plan.outlines],
        zones=_zones(found),
        sides=[
            MarkedOut(x=(a[0] + b[0]) / 2, y=(a[1] + b[1]) / 2, text=str(i))
            for i, (a, b) in enumerate(sides_of(found.outline), start=1)
        ],
        passes=[
            PassOut(kind=p.kind.value, round=n, guide=p.guide, line=[PointOut(x=x, y=y) for x, y in p.line])
            for n, w in enumerate(found.walks, start=1)
            for p in w.passes
        ],
        refills=[MarkedOut(x=r.at[0], y=r.at[1], text=str(r.load)) for r in found.refills],
        direction=found.walks[0].direction, facts=_facts(found, stripes, rings, us), steps=_steps(found, us),
        notes=_notes(found, us), has_plan=found.has_plan, has_positions=found.plan.north,
    )  # fmt: skip


def _sentence(found: Laid, stripes: int, rings: int, us: bool) -> str:
    edge = f"{rings} ring{'s' if rings > 1 else ''} along the edge and " if rings else ""
    on = sum(w.on for w in found.walks)
    return (f"{found.area.name}: {edge}{stripes} stripe{'s' if stripes != 1 else ''}, {length_text(found.spacing, us)} apart; "
            f"{_far(on, us)} to walk in {time_text(_seconds(found))}.")  # fmt: skip


def _far(metres: float, us: bool) -> str:
    """A distance walked: ft or miles, m or km."""
    if us:
        return f"{show_number(metres / 0.3048, 3)} ft" if metres < 1609.344 else f"{show_number(metres / 1609.344, 3)} miles"
    return f"{show_number(metres, 3)} m" if metres < 1000 else f"{show_number(metres / 1000, 3)} km"


def _seconds(found: Laid) -> float:
    return sum(w.seconds(found.pace) for w in found.walks)


def _zones(found: Laid) -> list[ZoneOut]:
    zones = []
    for name, off in found.keep_off:
        shown = off.shape if off.shape.area else off.shape.buffer(LINE)
        for buffer, shape in ((True, off.shape.buffer(off.buffer)), (False, shown)):
            for part in getattr(shape, "geoms", [shape]):
                if isinstance(part, Polygon) and not part.is_empty:
                    ring = [PointOut(x=x, y=y) for x, y in part.exterior.coords]
                    zones.append(ZoneOut(name=name, buffer=buffer, ring=ring))
    return zones


def _facts(found: Laid, stripes: int, rings: int, us: bool) -> list[FactOut]:
    on, between = sum(w.on for w in found.walks), sum(w.between for w in found.walks)
    covered = sum(w.covered for w in found.walks)
    per = covered / len(found.walks)
    known = "" if found.pace_known else ", taken as a stroll"
    facts = [
        ("Spacing", length_text(found.spacing, us)),
        ("Passes", f"{rings} along the edge, {stripes} across" if rings else f"{stripes} across"),
        ("Direction", f"{show_number(round(found.walks[0].direction, 1))}° from the plan’s left to right"),
        ("Walked putting down", _far(on, us)), ("Walked between", _far(between, us)),
        ("Pace", f"{pace_text(found.pace, us)}{known}"), ("Time", f"{time_text(_seconds(found))}, fillings not counted"),
        ("Ground covered", f"{readable(Quantity(per, UNITS['m2']), us)} a round, of {found.area.size}"),
        ("Refills", str(len(found.refills) or "none") if found.machine else ""),
    ]  # fmt: skip
    return [FactOut(name=n, text=t) for n, t in facts if t]


def _steps(found: Laid, us: bool) -> list[str]:
    """The plan as one walks it, for the card."""
    said = []
    for n, w in enumerate(found.walks, start=1):
        rings = sum(p.kind is PassKind.EDGE for p in w.passes)
        stripes = len(w.passes) - rings
        first, apart = length_text(found.spacing / 2, us), length_text(found.spacing, us)
        edge = f"{rings} ring{'s' if rings != 1 else ''} along the edge, the first {first} in" if rings else ""
        across = f"{stripes} stripe{'s' if stripes != 1 else ''} across, {apart} from track to track"
        order = [edge, across] if w.passes and w.passes[0].kind is PassKind.EDGE else [across, edge]
        head = f"Round {n}, half the rate: " if len(found.walks) > 1 else ""
        said.append(head + "; then ".join(x for x in order if x) + ".")
    guides = [i for i, p in enumerate([p for p in found.walks[0].passes if p.kind is PassKind.STRIPE], start=1) if p.guide]
    if guides:
        said.append(f"Stripes {', '.join(map(str, guides))} lie on a mower’s guide.")
    for r in found.refills:
        said.append(f"Filling {r.load} runs out on pass {r.number + 1}, {length_text(r.along, us)} along it: mark the place.")
    said += [f"Keep {length_text(k.buffer, us)} off {name}." for name, k in found.keep_off if k.buffer]
    return said


def _notes(found: Laid, us: bool) -> list[str]:
    notes = []
    if not found.has_plan:
        notes.append(f"{found.area.name} was never measured: the plan takes a rectangle of {found.area.size}.")
    off = sum(w.covered for w in found.walks) / len(found.walks) / found.outline.area - 1
    if found.keep_off:
        notes.append("Ground within a buffer is left out of the walk.")
    elif off > 0.08:
        notes.append(f"The passes cover {show_percent(off)} more than the ground: rings and the last stripe overlap.")
    unplaced = [h["name"] or h["kind"] for h in found.area.hazards if not h.get("lies")]
    if unplaced:
        notes.append(f"Not on the plan yet: {', '.join(unplaced)}. Keep off all the same, or give each its place.")
    return notes


# --- landing ----------------------------------------------------------------------------------------------------


def landed(club: Club, data: LandIn) -> LandedOut:
    """What lands where. Raises as `laid`."""
    found = laid(club, data.plan)
    return landed_out(found, _land(found, _hand(data.walked or WalkedIn())), club.us)


def _hand(w: WalkedIn) -> Hand:
    def metres(name: str, most: float) -> float:
        given = filled(getattr(w, name))
        if given is None or number_in(name, given.value) == 0:
            return 0.0
        found = quantity_in(name, given, LENGTH)
        return positive(name, found.base, most=most, symbol="m")

    pace = positive("pace", number_in("pace", w.pace), most=50, zero=True, symbol="%") if str(w.pace).strip() else 0.0
    slow = positive("slow", number_in("slow", w.slow), most=200, least=20, symbol="%") if str(w.slow).strip() else 100.0
    return Hand(metres("line", 3), pace / 100, metres("late", 5), metres("slow_over", 20), slow / 100)


def _profile(found: Laid) -> Profile:
    pans = found.machine.pans if found.machine else None
    pattern = pans.pattern if pans else None
    width = found.machine.swath if found.machine else None
    return profile_of(pattern) if pattern else even_profile(width or found.spacing)


def _land(found: Laid, hand: Hand) -> Landed:
    left, bottom, right, top = found.outline.bounds
    reach = max(abs(r) for r in _profile(found).reach)
    size = max(FINEST, math.sqrt((right - left + 2 * reach) * (top - bottom + 2 * reach) / MOST_CELLS))
    shapes = [k.shape.buffer(k.buffer) for _, k in found.keep_off if k.buffer or k.shape.area]
    return land(found.walks, found.walks[0].ground, _profile(found), found.rate or 1.0, size, hand, shapes)


def landed_out(found: Laid, map_: Landed, us: bool) -> LandedOut:
    blocks, step = coarse(map_.cells / map_.rate, MOST_BLOCKS)
    shares = np.clip(np.rint(blocks * 100), 0, 250).astype(np.uint8)
    outside = map_.mass_outside / map_.applied
    dark = dark_stripes(map_, found.walks[0].direction, found.spacing / 10)
    label = found.label
    under, over = map_.under, map_.over
    facts = [
        ("CV", show_percent(map_.cv)),
        ("Under 80 % of the rate", f"{show_percent(under)} of the area"), ("Over 120 %", f"{show_percent(over)} of the area"),
        *_against_label(map_, label), ("Beside the area", _outside(found, map_, us, outside)),
        ("Where nothing should fall", _mass(found, map_.on_hazards, map_, us) if map_.on_hazards > 1e-9 * map_.applied else ""),
    ]  # fmt: skip
    return LandedOut(
        sentence=_landed_sentence(map_, dark, outside), columns=shares.shape[1], rows=shares.shape[0], left=map_.origin[0],
        bottom=map_.origin[1], block=map_.size * step, cells=base64.b64encode(shares[::-1].tobytes()).decode(),
        histogram=[float(x) for x in map_.histogram(20)], label_low=label[0] if label else None,
        label_high=label[1] if label else None, cv=show_percent(map_.cv),
        facts=[FactOut(name=n, text=t) for n, t in facts if t], notes=_landed_notes(found, dark),
    )  # fmt: skip


def _against_label(map_: Landed, label: tuple[float, float] | None) -> list[tuple[str, str]]:
    if label is None:
        return []
    shares = map_.shares
    return [
        ("Under the label’s lowest", f"{show_percent(float((shares < label[0] * (1 - 1e-9)).mean()))} of the area"),
        ("Over the label’s highest", f"{show_percent(float((shares > label[1] * (1 + 1e-9)).mean()))} of the area"),
    ]


def _outside(found: Laid, map_: Landed, us: bool, share: float) -> str:
    mass = _mass(found, map_.mass_outside, map_, us)
    return f"{mass}, {show_percent(share)} of all" if found.rate else mass


def _mass(found: Laid, mass: float, map_: Landed, us: bool) -> str:
    if not found.rate:
        return f"{show_percent(mass / map_.applied)} of all"
    return str(readable(Quantity(mass, UNITS[found.rate_unit]), us))


def _landed_sentence(map_: Landed, dark: Sequence[Any], outside: float) -> str:
    said = f"The ground gets its rate within a CV of {show_percent(map_.cv)}"
    if dark:
        most = max(d.share for d in dark) - 1
        said += f"; {len(dark)} dark stripe{'s' if len(dark) > 1 else ''} will show, up to {show_percent(most, sign=True)}"
    elif map_.over > SOME:
        said += f"; {show_percent(map_.over)} of the area gets over 120 %, where passes meet"
    else:
        said += "; nothing will show dark"
    return f"{said}; {show_percent(outside)} falls beside it."


def _landed_notes(found: Laid, dark: Sequence[Any]) -> list[str]:
    pans = found.machine.pans if found.machine else None
    notes = [f"Thrown as the pan test of {pans.taken_on.day} {pans.taken_on:%B} found." if pans
             else "Taken as even over the swath: no pan test of this machine is kept."]  # fmt: skip
    if dark:
        notes.append("Dark stripes lie where passes overlap or meet the edge: change the spacing, or take two half rounds.")
    notes.append("A drawing of what would land, not of what did; wind is not in it.")
    return notes


def compared(club: Club, data: LandIn) -> ComparedPlansOut:
    """The same plan walked once and in two half rounds of each kind, the most even first. Raises as `laid`."""
    hand, rows = _hand(data.walked or WalkedIn()), []
    for second, name in SECONDS.items():
        found = laid(club, data.plan.copy(update={"second": second}))
        rows.append((second, name, found, _land(found, hand)))
    least = min(m.cv for *_, m in rows)
    variants = [
        VariantOut(
            second=second, name=name, cv=m.cv, cv_text=show_percent(m.cv), under=show_percent(m.under), over=show_percent(m.over),
            outside=show_percent(m.mass_outside / m.applied), distance=_far(sum(w.on for w in found.walks), club.us),
            time=time_text(_seconds(found)), best=m.cv == least, landed=landed_out(found, m, club.us),
        )
        for second, name, found, m in rows
    ]  # fmt: skip
    best = next(v for v in variants if v.best)
    return ComparedPlansOut(sentence=f"{best.name} is the most even: a CV of {best.cv_text}.", variants=variants)


# --- GeoJSON ----------------------------------------------------------------------------------------------------


def geojson(club: Club, data: ExportIn) -> dict[str, Any]:
    """The plan as a GeoJSON FeatureCollection (RFC 7946). Raises InputError where the plan has no position."""
    found = laid(club, data.plan)
    anchor = _anchor(found, data)

    def feature(kind: str, points: Sequence[tuple[float, float]], **properties: Any) -> dict[str, Any]:
        places = positions(points, anchor)
        shaped: dict[str, Any] = {"Point": places[0], "LineString": places, "Polygon": [places]}
        return {"type": "Feature", "geometry": {"type": kind, "coordinates": shaped[kind]}, "properties": properties}

    made = [
        feature("Polygon", [*o.ring, o.ring[0]], what="hole" if o.hole else "area", name=found.area.name)
        for o in found.plan.outlines
    ]
    number = 0
    for n, w in enumerate(found.walks, start=1):
        for p in w.passes:
            number += 1
            made.append(feature("LineString", p.line, what=p.kind.value, number=number, round=n, guide=p.guide,
                                length_m=round(p.length, 2)))  # fmt: skip
    made += [feature("Point", [r.at], what="refill", load=r.load) for r in found.refills]
    for zone in _zones(found):
        made.append(
            feature("Polygon", [(p.x, p.y) for p in zone.ring], what="buffer" if zone.buffer else "keep off", name=zone.name)
        )
    return {"type": "FeatureCollection", "features": made}


def _anchor(found: Laid, data: ExportIn) -> Anchor:
    taken = next((m for m in found.area.measurements.all() if m.in_use), None)
    if taken and found.plan.north:
        rings = sketch_in(MeasureIn(**taken.given)).rings
        first = rings[0][0][0]
        # the ring's own plane touches the earth at its first position, and the plan was moved from it to its corner
        corner = found.plan.outlines[0].ring[0]
        return Anchor(first[0], first[1], corner)
    if not str(data.latitude).strip() or not str(data.longitude).strip():
        raise InputError("latitude", None, f"{found.area.name} was not measured by positions.",
                         "Give the position of the plan’s lower left corner, and the bearing of its up.")  # fmt: skip
    return check_anchor(Anchor(
        _degrees("latitude", data.latitude), _degrees("longitude", data.longitude), (0.0, 0.0),
        positive("bearing", number_in("bearing", data.bearing), most=360, zero=True) if str(data.bearing).strip() else 0.0,
    ))  # fmt: skip


def _degrees(field: str, given: float | str) -> float:
    text = str(given).strip().replace("−", "-")
    return -number_in(field, text[1:]) if text.startswith("-") else number_in(field, text)
