"""Walking plans, and what lands where, to draw and to read; `words` says them."""

import base64
import math

import numpy as np

from core.machines.working import time_text
from core.passes.landing import Hand, Landed, Profile, coarse, dark_stripes, even_profile, land, profile_of
from core.passes.near import sides_of
from core.passes.plan import PassKind
from core.units import LENGTH, positive, show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import filled, number_in, quantity_in
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
from greenmeasure.passes.words import (
    compared_sentence,
    far,
    landed_facts,
    landed_notes,
    landed_sentence,
    plan_facts,
    plan_notes,
    plan_sentence,
    seconds,
    steps,
)

MOST_BLOCKS = 300
"""Blocks along the longer side of a landing map as it is sent; it is reckoned finer."""
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
        sentence=plan_sentence(found, stripes, rings, us),
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
        facts=plan_facts(found, stripes, rings, us),
        steps=steps(found, us),
        notes=plan_notes(found, us),
        has_plan=found.has_plan,
        has_positions=found.plan.north,
    )


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
    dark = dark_stripes(map_, found.walks[0].direction, found.spacing / 10)
    label = found.label
    return LandedOut(
        sentence=landed_sentence(map_, dark),
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
        facts=landed_facts(found, map_, us),
        notes=landed_notes(found, dark),
    )


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
            outside=show_percent(m.outside),
            distance=far(sum(w.on for w in found.walks), account.us),
            time=time_text(seconds(found)),
            best=m.cv == least,
            landed=landed_out(found, m, account.us),
        )
        for second, name, found, m in rows
    ]
    best = next(v for v in variants if v.best)
    return ComparedPlansOut(sentence=compared_sentence(best.name, best.cv_text), variants=variants)
