"""Water as one says it: depths, rates and minutes, an audit in a sentence, its sums, its dry spots."""

import math
from collections.abc import Sequence
from datetime import date

from core.days import day
from core.soil.ph_tables import TEXTURES
from core.units import UNITS, show_number, show_percent
from core.water.cans import Audit, Can
from core.water.intake import intake_of
from core.working import Step, Term, divided_by, line, plus, times
from greenmeasure.water.schemas import RunTimeOut


def depth_text(mm: float, us: bool) -> str:
    """A depth of water as a gauge shows it: in or mm."""
    found = UNITS["in" if us else "mm"]
    return f"{show_number(mm / 1000 / found.size, 3)} {found.symbol}"


def rate_text(mm_h: float, us: bool) -> str:
    """A rate of water [mm/h] in words."""
    return f"{depth_text(mm_h, us)}/h"


def minutes_text(minutes: float) -> str:
    """Minutes as a controller is set: 31 min, 1 h 20 min; never less than a minute."""
    if not math.isfinite(minutes):
        return "never"
    whole = max(1, math.ceil(minutes - 1e-6))
    return f"{whole} min" if whole < 90 else f"{whole // 60} h {whole % 60} min"


def audit_steps(found: Audit, us: bool) -> list[Step]:
    """The sums of an audit, a step a line."""
    u = UNITS["in" if us else "mm"]
    depths = [c.depth / 1000 / u.size for c in found.cans]
    mean, hours = sum(depths) / len(depths), found.minutes / 60
    low = sorted(depths)[: found.counted]
    quarter = sum(low) / len(low)
    return [
        line(f"Mean of {len(depths)} cans", Term(sum(depths), u.symbol), divided_by(len(depths)), result=Term(mean, u.symbol)),
        line("Rate", Term(mean, u.symbol), divided_by(hours, "h"), result=Term(mean / hours, f"{u.symbol}/h")),
        line(
            f"Mean of the lowest {found.counted}",
            Term(low[0], u.symbol),
            *(plus(x, u.symbol) for x in low[1:]),
            divided_by(len(low)),
            result=Term(quarter, u.symbol),
        ),
        line(
            "Low quarter ÷ mean",
            Term(quarter, u.symbol),
            divided_by(mean, u.symbol),
            times(100),
            result=Term(100 * quarter / mean, "%"),
        ),
    ]


def audit_sentence(found: Audit, area: str, us: bool) -> str:
    """How much an area gets, how evenly, and how many dry spots there are to see to."""
    dry = len(found.dry)
    said = f"{area} gets {rate_text(found.rate, us)}; its driest quarter gets {show_percent(found.low_quarter)} of the mean."
    return f"{said} {dry} dry spot{'s' if dry > 1 else ''} to see to." if dry else said


def soil_text(texture: str, us: bool) -> str:
    """How fast a soil drinks, by its texture's key; an unknown one is said so."""
    name = TEXTURES[texture].name if texture in TEXTURES else "soil not noted"
    return f"{name}: drinks about {rate_text(intake_of(texture), us)}."


def not_audited(area: str) -> str:
    """Why it cannot be said how long a depth of water takes."""
    return f"How long that is on {area} is not known: audit its water with catch cans."


def puts_down(area: str, minutes: float, depth: float, on: date, us: bool) -> str:
    """What minutes of water [min] come to on an area: a depth [mm], by the audit of a day."""
    return f"On {area} {minutes_text(minutes)} puts down {depth_text(depth, us)}, by the audit of {day(on)}."


def takes(area: str, run: RunTimeOut, on: date) -> str:
    """How long a depth of water takes on an area, by the audit of a day, and how it is split."""
    said = f"On {area} {run.depth} takes {run.advised}, by the audit of {day(on)}."
    return said if run.parts == 1 else f"{said} {run.soak}"


def dry_spots(found: Audit, us: bool) -> Sequence[str]:
    """A sentence for each dry spot: which can, where, and how much it got."""
    mean = found.rate * found.minutes / 60
    return [_dry_spot(i, found.cans[i], mean, us) for i in found.dry]


def _dry_spot(i: int, can: Can, mean: float, us: bool) -> str:
    where = ""
    if can.at:
        u = UNITS["ft" if us else "m"]
        x, y = (show_number(round(v / u.size, 1)) for v in can.at)
        where = f", {x} {u.symbol} across and {y} {u.symbol} up the plan"
    return (
        f"Dry spot, can {i + 1}{where}: {show_percent(can.depth / mean)} of the mean. Look at heads, nozzles, tilt and pressure."
    )
