"""The pH planner: from readings to dated steps over years, with what they will not do.

Most sulfur in one application 5 lb/1000 ft², in a year 10 (greens 1 and 5); most limestone at once 50 lb/1000 ft²
(greens 25): common practice, no source. Sulfur is turned over by soil life, which sleeps below about 55 °F (13 °C).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from statistics import fmean

from core.errors import InputError
from core.grasses import Sward
from core.rates.nutrients import LB_PER_1000
from core.readable import is_us
from core.schools import PLAIN, House
from core.soil.ph_tables import (
    HIGHEST_LIME,
    HIGHEST_SULFUR,
    LB_ACRE,
    LOWEST_LIME,
    STANDS,
    TABLE_DEPTH_LIME,
    TABLE_DEPTH_SULFUR,
    TEXTURES,
    likes,
    lime_need,
    sulfur_need,
)
from core.units import UNITS, Quantity, show_number
from core.working import Step, Term, divided_by, line, times

SPREAD_OF_READINGS = 0.5
"""Spots that differ by more than this many units are not one soil (common practice, no source)."""
LEAST_GAP = 28
"""Days between two steps of one season."""


@dataclass(frozen=True)
class Caps:
    """The most of a material at once and in a year [g/m²]."""

    once: float
    year: float


SULFUR = Caps(5 * LB_PER_1000, 10 * LB_PER_1000)
SULFUR_GREEN = Caps(1 * LB_PER_1000, 5 * LB_PER_1000)
LIME = Caps(50 * LB_PER_1000, 100 * LB_PER_1000)
LIME_GREEN = Caps(25 * LB_PER_1000, 50 * LB_PER_1000)

WINDOWS = {"sulfur": ((4, 1), (5, 31), (9, 1), (10, 15)), "lime": ((3, 15), (5, 15), (9, 15), (11, 15))}
"""Two windows a year (first and last day of each), out of heat and while soil is awake or cool (common practice)."""

STEPS_A_WINDOW = 2
YEARS_AHEAD = 3
"""Calendar years whose steps are planned: what is left then waits for a new reading (ours)."""


@dataclass(frozen=True)
class PhReading:
    """One pH reading at one spot."""

    spot: str
    on: date
    ph: float


@dataclass(frozen=True)
class DatedStep:
    """One step: when, how much material per area [g/m²] and on all the ground."""

    on: date
    year: int
    per_m2: float
    amount: Quantity


@dataclass(frozen=True)
class PhPlan:
    """The plan. `verdict` is leave, lower or raise; `need` is material in all [g/m²]."""

    ph: float
    spread: float
    wanted: tuple[float, float]
    target: float
    verdict: str
    material: str
    need: float
    caps: Caps | None
    steps: tuple[DatedStep, ...]
    sentence: str
    notes: tuple[str, ...]
    working: tuple[Step, ...]


def check_ph(ph: float, field: str = "ph") -> float:
    """A pH that a soil can have.

    Args:
        ph: as read [pH].
        field: whose fault it would be.

    Raises:
        InputError: outside 3 to 10.5.
    """
    if not math.isfinite(ph) or not 3 <= ph <= 10.5:
        raise InputError(field, ph, f"pH {ph:g} is no soil's.", "Readings lie between 3 and 10.5; check the meter.")
    return ph


def latest(readings: Sequence[PhReading]) -> list[PhReading]:
    """The latest reading of each spot."""
    newest: dict[str, PhReading] = {}
    for r in sorted(readings, key=lambda r: r.on):
        newest[r.spot.strip().lower()] = r
    return list(newest.values())


def plan_ph(
    readings: Sequence[PhReading],
    *,
    texture: str,
    sward: Sward,
    ground: Quantity,
    green: bool,
    start: date,
    depth: float = TABLE_DEPTH_SULFUR,
    purity: float = 0.9,
    lime_value: float = 0.9,
    free_lime: bool = False,
    target: float | None = None,
    house: House = PLAIN,
) -> PhPlan:
    """Plan the way from the readings to what the grass likes.

    Args:
        purity: of the material [1].
        lime_value: neutralising value against pure lime [1].
        target: aimed at [pH].
        readings: by spot and date; the latest of each spot counts.
        texture: a key of `TEXTURES`.
        sward: what grows there, for the pH that it likes.
        ground: the ground's size.
        green: whether the lower caps of greens hold.
        start: the first day on which work can be done.
        depth: to which the soil is to change [m].
        free_lime: whether the soil fizzes with acid; then sulfur is used up by the lime.
        house: the account's rules.

    Raises:
        InputError: no reading, an impossible one, an unknown texture, or a pH outside the tables.
    """
    if texture not in TEXTURES:
        raise InputError(
            "texture", texture, "The soil's texture is not known.", "Roll a ball of it, and pick what it feels like."
        )
    if not readings:
        raise InputError("readings", None, "There is no pH reading.", "Take one at three spots at least.")
    for name, value, least in (("purity", purity, 0.05), ("lime_value", lime_value, 0.05)):
        if not least <= value <= 1.1:
            raise InputError(name, value, f"{show_number(value * 100)} % is not to be believed.", "Take it from the bag.")
    if not 0.02 <= depth <= 0.5:
        raise InputError("depth", depth, f"{show_number(depth / 0.0254)} in is no depth to treat.", "Use 3 to 8 in (8 to 20 cm).")
    now = latest(readings)
    values = [check_ph(r.ph, "readings") for r in now]
    ph, spread = fmean(values), max(values) - min(values)
    wanted = likes(sward) or ((target, target) if target is not None else None)
    if wanted is None:
        raise InputError("target", None, "What pH they like depends on the shrub or flower.", "Give the pH that is aimed at.")
    low, high = wanted
    notes = _about_readings(now, spread)
    aim = target if target is not None else _aim(ph, low, high, house)
    if aim is None:
        said = f"pH {show_number(ph, 3)} needs nothing: the grass likes {low:g} to {high:g} and does well a unit beyond."
        return PhPlan(ph, spread, (low, high), ph, "leave", "", 0.0, None, (), said, (*notes, *WILL_NOT), ())
    check_ph(aim, "target")
    if abs(aim - ph) < 0.05:
        said = f"pH {show_number(ph, 3)} is where it should be."
        return PhPlan(ph, spread, (low, high), aim, "leave", "", 0.0, None, (), said, (*notes, *WILL_NOT), ())
    lower = aim < ph
    us = is_us(ground.unit)
    table = _sulfur(ph, aim, texture, depth, purity) if lower else _lime(ph, aim, texture, depth, lime_value)
    need = table.need
    caps = (SULFUR_GREEN if green else SULFUR) if lower else (LIME_GREEN if green else LIME)
    caps_of_product = Caps(caps.once / purity, caps.year / purity) if lower else caps
    of_sulfur = "elemental sulfur" if purity >= 1 else f"a product of {show_number(purity * 100)} % sulfur"
    material = of_sulfur if lower else "ground limestone"
    beyond = lower and ph > HIGHEST_SULFUR + 1e-9
    every = _steps(need, caps_of_product, ground, start, "sulfur" if lower else "lime")
    steps = tuple(s for s in every if s.year < start.year + YEARS_AHEAD)
    years = len({s.year for s in steps})
    amount = f"{'at least ' if beyond else ''}{spread_text(need, us)} of {material}"
    said = _said_of_steps(f"pH {show_number(ph, 3)} to {aim:g}", need, steps, amount, us)
    return PhPlan(
        ph,
        spread,
        (low, high),
        aim,
        "lower" if lower else "raise",
        material,
        need,
        caps_of_product,
        steps,
        said,
        (*(BEYOND if beyond else ()), *notes, *_about_sulfur(lower, free_lime, years), *WILL_NOT),
        (table.working(us),),
    )


BEYOND = (
    f"Above pH {HIGHEST_SULFUR} no table tells how much: the amount is that from {HIGHEST_SULFUR} down, the least it can be.",
    "Such soil holds free lime or sodium. Have it tested for both first; free lime holds the pH until it is gone.",
)


def _said_of_steps(what: str, need: float, steps: Sequence[DatedStep], all_of_it: str, us: bool) -> str:
    years = len({s.year for s in steps})
    span = f"{years} {'year' if years == 1 else 'years'}"
    planned = sum(s.per_m2 for s in steps)
    if planned >= need * (1 - 1e-6):
        return f"{what}: {all_of_it} in all, {len(steps)} steps over {span}."
    first = f"the first {span} bring {spread_text(planned, us)} in {len(steps)} steps"
    return f"{what}: {all_of_it} in all; {first}, and the rest waits for a new reading."


WILL_NOT = (
    "Gypsum does not lower pH: it is a neutral salt. It trades sodium for calcium, and loosens only sodic clay.",
    "Watering in moves the material; it does not make it react. What reacts is soil life, in warm moist soil, over months.",
)


def _aim(ph: float, low: float, high: float, house: House) -> float | None:
    """The pH aimed at by the house's rule; None where nothing is to be done."""
    if house.of("ph") == "to_ideal":
        return round((low + high) / 2, 2)
    if ph > high + STANDS:
        return high
    return low if ph < low - STANDS / 2 else None


def aim_of(ph: float, sward: Sward, house: House) -> float | None:
    """The pH that the house would aim at on a ground; None where nothing is to be done.

    Args:
        ph: of the ground [pH].
        sward: what grows there.
        house: whose school is kept.
    """
    wanted = likes(sward)
    return _aim(ph, *wanted, house) if wanted else None


def _about_readings(now: Sequence[PhReading], spread: float) -> list[str]:
    notes = []
    if len(now) < 3:
        notes.append(f"{len(now)} spot{'s' if len(now) > 1 else ''} only: take three at least, from the same places each time.")
    if spread > SPREAD_OF_READINGS:
        notes.append(f"The spots differ by {show_number(spread, 2)}: they may be two soils, to be treated apart.")
    return notes


def _about_sulfur(lower: bool, free_lime: bool, years: int) -> list[str]:
    notes = []
    if lower and free_lime:
        notes.append("Free lime uses the sulfur up before pH moves: 1 % of it takes ten times this. Live with the pH.")
    if lower:
        notes.append("Only with soil at 55 °F (13 °C) and over, and not in heat. Expect the change late in the summer after.")
    if years > 1:
        notes.append("Read the pH again before each year's first step, and plan anew from it.")
    return notes


@dataclass(frozen=True)
class _Table:
    """What a table says [lb/acre over its own depth], and what becomes of it by the depth's and the product's share."""

    title: str
    pounds: float
    depth: float
    strength: float
    note: str

    @property
    def need(self) -> float:
        """Of the product [g/m²]."""
        return self.pounds * LB_ACRE * self.depth / self.strength

    def working(self, us: bool) -> Step:
        feet = (
            (divided_by(43.56, "1000 ft²", "acre"),)
            if us
            else (
                times(UNITS["lb"].size / UNITS["kg"].size, "kg", "lb"),
                divided_by(UNITS["acre"].size / UNITS["m2_100"].size, "100 m²", "acre"),
            )
        )
        return line(
            self.title,
            Term(self.pounds, "lb", "acre"),
            *feet,
            times(self.depth),
            divided_by(self.strength),
            result=spread_term(self.need, us),
            note=self.note,
        )


def spread_term(g_per_m2: float, us: bool) -> Term:
    """What is spread per area, as people say it: in lb/1000 ft² or kg/100 m².

    Args:
        g_per_m2: of material [g/m²].
        us: whether to say it in US units.
    """
    return Term(g_per_m2 / LB_PER_1000, "lb", "1000 ft²") if us else Term(g_per_m2 / 10, "kg", "100 m²")


def spread_text(g_per_m2: float, us: bool) -> str:
    """The same in words, to three figures.

    Args:
        g_per_m2: of material [g/m²].
        us: whether to say it in US units.
    """
    term = spread_term(g_per_m2, us)
    return f"{show_number(term.value, 3)} {term.over}/{term.under}"


def _sulfur(ph: float, aim: float, texture: str, depth: float, purity: float) -> _Table:
    if aim < 6.5 - 1e-9 and ph <= 6.5:
        raise InputError("target", aim, "The sulfur table does not go below pH 6.5.", "Ask a soil laboratory.")
    column = TEXTURES[texture].sulfur
    floor = max(aim, 6.5)
    top = min(ph, HIGHEST_SULFUR)
    pounds = sulfur_need(column, top) - sulfur_need(column, floor)
    note = "Table to pH 6.5 over 7 in (18 cm), straight between its rows."
    if floor > aim:
        note += " It does not go lower; see what 6.5 does first."
    return _Table(f"Sulfur from pH {show_number(top, 3)} to {floor:g}", pounds, depth / TABLE_DEPTH_SULFUR, purity, note)


def _lime(ph: float, aim: float, texture: str, depth: float, value: float) -> _Table:
    if ph < LOWEST_LIME - 1e-9 or aim > HIGHEST_LIME + 1e-9:
        raise InputError(
            "target",
            aim,
            f"The lime table goes from pH {LOWEST_LIME} to {HIGHEST_LIME}.",
            "Ask a soil laboratory for a buffer pH.",
        )
    tons = lime_need(TEXTURES[texture].lime, ph, aim)
    note = "Table over 7 in (18 cm); a laboratory's buffer pH overrides it."
    return _Table(f"Limestone from pH {show_number(ph, 3)} to {aim:g}", tons * 2000, depth / TABLE_DEPTH_LIME, value, note)


def _steps(need: float, caps: Caps, ground: Quantity, start: date, kind: str) -> list[DatedStep]:
    """As few years as the caps allow, and equal steps in them, in the windows of each year from `start` on."""
    years = max(1, math.ceil(need / min(caps.year, caps.once * STEPS_A_WINDOW * 2) * (1 - 1e-9)))
    a_year = need / years
    steps: list[DatedStep] = []
    left = need
    for n in range(years * 3):
        if left <= 1e-9 * need:
            break
        days = _days(start, start.year + n, kind)
        this_year = min(left, a_year)
        count = min(len(days), math.ceil(this_year / caps.once * (1 - 1e-9)))
        if not count:
            continue
        each = min(this_year / count, caps.once)
        for day in days[:count]:
            steps.append(DatedStep(day, day.year, each, _amount(each, ground)))
            left -= each
    return steps


def _days(start: date, year: int, kind: str) -> list[date]:
    """The days of a year on which a step can be taken: two in each window, weeks apart, none before `start`."""
    first, last, second, end = (date(year, *d) for d in WINDOWS[kind])
    days = []
    for opens, closes in ((first, last), (second, end)):
        day = max(opens, start)
        for _ in range(STEPS_A_WINDOW):
            if day <= closes:
                days.append(day)
            day += timedelta(days=LEAST_GAP)
    return days


def _amount(per_m2: float, ground: Quantity) -> Quantity:
    unit = UNITS["lb" if is_us(ground.unit) else "kg"]
    return Quantity(per_m2 * ground.base / unit.size, unit)
