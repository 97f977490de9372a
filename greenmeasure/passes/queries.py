"""Walking plans, and what lands where, in the API's words."""

import base64
import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from core.machines.working import length_text, pace_text, time_text
from core.passes.landing import Hand, Landed, Profile, coarse, dark_stripes, even_profile, land, profile_of
from core.passes.near import sides_of
from core.passes.plan import PassKind
from core.readable import readable
from core.units import LENGTH, UNITS, Quantity, positive, show_number, show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import FactOut, filled, number_in, quantity_in
from greenmeasure.ground.schemas import OutlineOut, PointOut
from greenmeasure.passes.laying import Laid, laid, zones
from greenmeasure.passes.schemas import (
    ComparedPlansOut,
    LandedOut,
    LandIn,
    MarkedOut,
    PassesOut,
    PassOut,
    PlanIn,
    SecondName,
    VariantOut,
    WalkedIn,
)

MOST_BLOCKS = 300
"""Blocks along the longer side of a landing map as it is sent; it is reckoned finer."""
SOME = 0.02
"""A share of the area that is worth a word."""
FINEST, MOST_CELLS = 0.1, 1_200_000
SECONDS: dict[SecondName, str] = {
    "none": "One round",
    "right_angles": "Two at right angles",
    "diagonal": "Two, the second on the diagonal",
    "offset": "Two, the second between the first",
}


def plan_out(account: Account, data: PlanIn) -> PassesOut:
    """A plan to draw and to walk by. Raises as `laid`."""
    return passes_out(laid(account, data), account.us)


def passes_out(found: Laid, us: bool) -> PassesOut:
    """A walking plan to draw and to read."""
    left, bottom, right, top = found.plan.box
    stripes = sum(p.kind is PassKind.STRIPE for w in found.walks for p in w.passes)
    rings = sum(p.kind is PassKind.EDGE for w in found.walks for p in w.passes)
    return PassesOut(
        sentence=_sentence(found, stripes, rings, us),
        left=left,
        bottom=bottom,
        right=right,
        top=top,
        north=found.plan.north,
        outlines=[OutlineOut(ring=[PointOut(x=x, y=y) for x, y in o.ring], hole=o.hole) for o in found.plan.outlines],
        zones=zones(found),
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
        direction=found.walks[0].direction,
        facts=_facts(found, stripes, rings, us),
        steps=_steps(found, us),
        notes=_notes(found, us),
        has_plan=found.has_plan,
        has_positions=found.plan.north,
    )


def _sentence(found: Laid, stripes: int, rings: int, us: bool) -> str:
    edge = f"{rings} ring{'s' if rings > 1 else ''} along the edge and " if rings else ""
    on = sum(w.on for w in found.walks)
    return (
        f"{found.area.name}: {edge}{stripes} stripe{'s' if stripes != 1 else ''}, {length_text(found.spacing, us)} apart; "
        f"{_far(on, us)} to walk in {time_text(_seconds(found))}."
    )


def _far(metres: float, us: bool) -> str:
    """A distance walked: ft or miles, m or km."""
    if us:
        return f"{show_number(metres / 0.3048, 3)} ft" if metres < 1609.344 else f"{show_number(metres / 1609.344, 3)} miles"
    return f"{show_number(metres, 3)} m" if metres < 1000 else f"{show_number(metres / 1000, 3)} km"


def _seconds(found: Laid) -> float:
    return sum(w.seconds(found.pace) for w in found.walks)


def _facts(found: Laid, stripes: int, rings: int, us: bool) -> list[FactOut]:
    on, between = sum(w.on for w in found.walks), sum(w.between for w in found.walks)
    covered = sum(w.covered for w in found.walks)
    per = covered / len(found.walks)
    known = "" if found.pace_known else ", taken as a stroll"
    facts = [
        ("Spacing", length_text(found.spacing, us)),
        ("Passes", f"{rings} along the edge, {stripes} across" if rings else f"{stripes} across"),
        ("Direction", f"{show_number(round(found.walks[0].direction, 1))}° from the plan’s left to right"),
        ("Walked putting down", _far(on, us)),
        ("Walked between", _far(between, us)),
        ("Pace", f"{pace_text(found.pace, us)}{known}"),
        ("Time", f"{time_text(_seconds(found))}, fillings not counted"),
        ("Ground covered", f"{readable(Quantity(per, UNITS['m2']), us)} a round, of {found.area.size}"),
        ("Refills", str(len(found.refills) or "none") if found.machine else ""),
    ]
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


def landed(account: Account, data: LandIn) -> LandedOut:
    """What lands where. Raises as `laid`."""
    found = laid(account, data.plan)
    return landed_out(found, _land(found, _hand(data.walked or WalkedIn())), account.us)


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
    return land(found.walks, found.walks[0].ground, _profile(found), found.rate or 1.0, size, hand, hazards=shapes)


def landed_out(found: Laid, map_: Landed, us: bool) -> LandedOut:
    """What really lands where, in words and numbers."""
    blocks, step = coarse(map_.cells / map_.rate, MOST_BLOCKS)
    shares = np.clip(np.rint(blocks * 100), 0, 250).astype(np.uint8)
    outside = map_.mass_outside / map_.applied
    dark = dark_stripes(map_, found.walks[0].direction, found.spacing / 10)
    label = found.label
    under, over = map_.under, map_.over
    facts = [
        ("CV", show_percent(map_.cv)),
        ("Under 80 % of the rate", f"{show_percent(under)} of the area"),
        ("Over 120 %", f"{show_percent(over)} of the area"),
        *_against_label(map_, label),
        ("Beside the area", _outside(found, map_, us, outside)),
        ("Where nothing should fall", _mass(found, map_.on_hazards, map_, us) if map_.on_hazards > 1e-9 * map_.applied else ""),
    ]
    return LandedOut(
        sentence=_landed_sentence(map_, dark, outside),
        columns=shares.shape[1],
        rows=shares.shape[0],
        left=map_.origin[0],
        bottom=map_.origin[1],
        block=map_.size * step,
        cells=base64.b64encode(shares[::-1].tobytes()).decode(),
        histogram=[float(x) for x in map_.histogram(20)],
        label_low=label[0] if label else None,
        label_high=label[1] if label else None,
        cv=show_percent(map_.cv),
        facts=[FactOut(name=n, text=t) for n, t in facts if t],
        notes=_landed_notes(found, dark),
    )


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
    notes = [
        f"Thrown as the pan test of {pans.taken_on.day} {pans.taken_on:%B} found."
        if pans
        else "Taken as even over the swath: no pan test of this machine is kept."
    ]
    if dark:
        notes.append("Dark stripes lie where passes overlap or meet the edge: change the spacing, or take two half rounds.")
    notes.append("A drawing of what would land, not of what did; wind is not in it.")
    return notes


def compared(account: Account, data: LandIn) -> ComparedPlansOut:
    """The same plan walked once and in two half rounds of each kind, the most even first. Raises as `laid`."""
    hand, rows = _hand(data.walked or WalkedIn()), []
    for second, name in SECONDS.items():
        found = laid(account, data.plan.copy(update={"second": second}))
        rows.append((second, name, found, _land(found, hand)))
    least = min(m.cv for *_, m in rows)
    variants = [
        VariantOut(
            second=second,
            name=name,
            cv=m.cv,
            cv_text=show_percent(m.cv),
            under=show_percent(m.under),
            over=show_percent(m.over),
            outside=show_percent(m.mass_outside / m.applied),
            distance=_far(sum(w.on for w in found.walks), account.us),
            time=time_text(_seconds(found)),
            best=m.cv == least,
            landed=landed_out(found, m, account.us),
        )
        for second, name, found, m in rows
    ]
    best = next(v for v in variants if v.best)
    return ComparedPlansOut(sentence=f"{best.name} is the most even: a CV of {best.cv_text}.", variants=variants)
