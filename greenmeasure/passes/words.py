"""A walking plan and what lands of it, as one says them."""

from collections.abc import Sequence

from core.machines.working import length_text, pace_text, time_text
from core.passes.landing import Landed, Stripe
from core.passes.plan import PassKind
from core.readable import readable
from core.units import UNITS, Quantity, show_number, show_percent
from greenmeasure.common.schemas import FactOut
from greenmeasure.passes.laying import Laid

SOME = 0.02
"""A share of the area that is worth a word."""


def plan_sentence(found: Laid, stripes: int, rings: int, us: bool) -> str:
    """A walking plan in a sentence: rings, stripes, how far and how long."""
    edge = f"{rings} ring{'s' if rings > 1 else ''} along the edge and " if rings else ""
    on = sum(w.on for w in found.walks)
    return (
        f"{found.area.name}: {edge}{stripes} stripe{'s' if stripes != 1 else ''}, {length_text(found.spacing, us)} apart; "
        f"{far(on, us)} to walk in {time_text(seconds(found))}."
    )


def far(metres: float, us: bool) -> str:
    """A distance walked: ft or miles, m or km."""
    if us:
        return f"{show_number(metres / 0.3048, 3)} ft" if metres < 1609.344 else f"{show_number(metres / 1609.344, 3)} miles"
    return f"{show_number(metres, 3)} m" if metres < 1000 else f"{show_number(metres / 1000, 3)} km"


def seconds(found: Laid) -> float:
    """How long the walk takes [s], fillings not counted."""
    return sum(w.seconds(found.pace) for w in found.walks)


def plan_facts(found: Laid, stripes: int, rings: int, us: bool) -> list[FactOut]:
    """What one asks of a walking plan, by its names."""
    on, between = sum(w.on for w in found.walks), sum(w.between for w in found.walks)
    covered = sum(w.covered for w in found.walks)
    per = covered / len(found.walks)
    known = "" if found.pace_known else ", taken as a stroll"
    facts = [
        ("Spacing", length_text(found.spacing, us)),
        ("Passes", f"{rings} along the edge, {stripes} across" if rings else f"{stripes} across"),
        ("Direction", f"{show_number(round(found.walks[0].direction, 1))}° from the plan’s left to right"),
        ("Walked putting down", far(on, us)),
        ("Walked between", far(between, us)),
        ("Pace", f"{pace_text(found.pace, us)}{known}"),
        ("Time", f"{time_text(seconds(found))}, fillings not counted"),
        ("Ground covered", f"{readable(Quantity(per, UNITS['m2']), us)} a round, of {found.area.size}"),
        ("Refills", str(len(found.refills) or "none") if found.machine else ""),
    ]
    return [FactOut(name=n, text=t) for n, t in facts if t]


def steps(found: Laid, us: bool) -> list[str]:
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


def plan_notes(found: Laid, us: bool) -> list[str]:
    """What of a plan is assumed, left out or not placed yet."""
    notes = []
    if not found.has_plan:
        notes.append(f"{found.area.name} was never measured: the plan takes a rectangle of {found.area.size}.")
    off = sum(w.covered for w in found.walks) / len(found.walks) / found.outline.area - 1
    if found.keep_off:
        notes.append("Ground within a buffer is left out of the walk.")
    elif off > 0.08:
        notes.append(f"The passes cover {show_percent(off)} more than the ground: rings and the last stripe overlap.")
    if found.unplaced:
        notes.append(f"Not on the plan yet: {', '.join(found.unplaced)}. Keep off all the same, or give each its place.")
    return notes


def landed_facts(found: Laid, map_: Landed, us: bool) -> list[FactOut]:
    """What one asks of a landing map, by its names."""
    facts = [
        ("CV", show_percent(map_.cv)),
        ("Under 80 % of the rate", f"{show_percent(map_.under)} of the area"),
        ("Over 120 %", f"{show_percent(map_.over)} of the area"),
        *_against_label(map_, found.label),
        ("Beside the area", _outside(found, map_, us)),
        ("Where nothing should fall", _mass(found, map_.on_hazards, map_, us) if map_.on_hazards > 1e-9 * map_.applied else ""),
    ]
    return [FactOut(name=n, text=t) for n, t in facts if t]


def _against_label(map_: Landed, label: tuple[float, float] | None) -> list[tuple[str, str]]:
    if label is None:
        return []
    shares = map_.shares
    return [
        ("Under the label’s lowest", f"{show_percent(float((shares < label[0] * (1 - 1e-9)).mean()))} of the area"),
        ("Over the label’s highest", f"{show_percent(float((shares > label[1] * (1 + 1e-9)).mean()))} of the area"),
    ]


def _outside(found: Laid, map_: Landed, us: bool) -> str:
    mass = _mass(found, map_.mass_outside, map_, us)
    return f"{mass}, {show_percent(map_.outside)} of all" if found.rate else mass


def _mass(found: Laid, mass: float, map_: Landed, us: bool) -> str:
    if not found.rate:
        return f"{show_percent(mass / map_.applied)} of all"
    return str(readable(Quantity(mass, UNITS[found.rate_unit]), us))


def landed_sentence(map_: Landed, dark: Sequence[Stripe]) -> str:
    """What lands, in a sentence: how even it is, and what will show."""
    said = f"The ground gets its rate within a CV of {show_percent(map_.cv)}"
    if dark:
        most = max(d.share for d in dark) - 1
        said += f"; {len(dark)} dark stripe{'s' if len(dark) > 1 else ''} will show, up to {show_percent(most, sign=True)}"
    elif map_.over > SOME:
        said += f"; {show_percent(map_.over)} of the area gets over 120 %, where passes meet"
    else:
        said += "; nothing will show dark"
    return f"{said}; {show_percent(map_.outside)} falls beside it."


def landed_notes(found: Laid, dark: Sequence[Stripe]) -> list[str]:
    """What a landing map rests on, and what to do about dark stripes."""
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


def compared_sentence(best: str, cv: str) -> str:
    """Which of several ways to spread is the most even."""
    return f"{best} is the most even: a CV of {cv}."
