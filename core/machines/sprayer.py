"""What a sprayer puts down: five ways to find it, and the pace that it asks for.

Inside: output L/m², flow L/s, pace m/s, width m. A flow is never an output: only a pace and a width make it one. With
flow in gal/min, pace in mph and width in inches the output in gal/acre is 5940 × flow ÷ (pace × width), since
43,560 × 60 × 12 ÷ 5,280 is 5,940 exactly; with L/min, km/h and metres it is 600 × flow ÷ (pace × width) L/ha.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from core.errors import InputError
from core.machines.runs import Runs, summarise
from core.units import UNITS, positive, show_number

SLOWEST, FASTEST = 0.2, 7.0
"""Paces that are believed [m/s]: from a slow walk with a wand to a fast ride."""
WIDEST = 40.0
FATIGUE = 0.05
"""A drift of pace from the first mark to the last that is worth a word (common practice, no source)."""


@dataclass(frozen=True)
class Course:
    """A small area to catch one nozzle's spray over, chosen so that what is caught reads as an output.

    `area` is its size [m²]; one `catch_unit` caught on it is one `output_unit`.
    """

    key: str
    name: str
    area: float
    catch_unit: str
    output_unit: str

    def distance(self, width: float) -> float:
        """How far to walk [m] with one nozzle's `width` [m]."""
        return self.area / positive("width", width, most=WIDEST)


COURSES = {
    c.key: c
    for c in (
        Course("acre_128", "1/128 acre", UNITS["acre"].size / 128, "fl_oz", "gal/acre"),
        Course("kft2_128", "1/128 of 1,000 ft²", UNITS["kft2"].size / 128, "fl_oz", "gal/kft2"),
        Course("ten_m2", "10 m²", 10.0, "ml", "l/ha"),
        Course("one_m2", "1 m²", 1.0, "ml", "ml/m2"),
    )
}
"""A gallon is 128 fl oz, so 1/128 of the area makes ounces read as gallons; a litre on a hectare is a millilitre on 10 m²."""


@dataclass(frozen=True)
class Calibrated:
    """An output [L/m²] with the runs it comes from, and the flow [L/s] where one was measured."""

    output: float
    runs: Runs
    flow: float | None = None


def by_strip(area: float, litres: Sequence[float]) -> Calibrated:
    """Water used over a walked strip, run by run.

    Args:
        litres: used on the strip by each run [L].
        area: of the strip, length × swath [m²].

    Raises:
        InputError: a strip without size, or a run that used nothing.
    """
    positive("area", area)
    runs = summarise([positive(f"runs.{i}", v) / area for i, v in enumerate(litres)])
    return Calibrated(runs.mean, runs)


def by_flow(litres: Sequence[float], seconds: Sequence[float], pace: float | None, width: float | None) -> Calibrated:
    """Flow caught in a timed vessel, made an output by a measured pace and swath.

    Args:
        litres: caught in each run, of all the nozzles that make up `width`.
        seconds: how long each run was caught for.
        pace: walked or driven [m/s].
        width: of the swath [m].

    Raises:
        InputError: no pace or no width (a flow alone says nothing of ground), or runs that do not match.
    """
    for name, value, asks in (("pace", pace, "Time a measured distance."), ("width", width, "Measure the wetted swath.")):
        if value is None:
            raise InputError(name, None, "A bucket and a clock give a flow, and a flow is no rate on ground.", asks)
    speed, swath = check_pace(pace or 0.0), positive("width", width or 0.0, most=WIDEST)
    if len(litres) != len(seconds):
        raise InputError("seconds", len(seconds), f"{len(litres)} catches and {len(seconds)} times.", "Give each catch its time.")
    runs = summarise(
        [
            positive(f"runs.{i}", v) / positive(f"seconds.{i}", s, most=3600)
            for i, (v, s) in enumerate(zip(litres, seconds, strict=True))
        ]
    )
    return Calibrated(runs.mean / (speed * swath), runs, runs.mean)


def by_catch(course: str, litres: Sequence[float]) -> Calibrated:
    """One nozzle caught for the time it takes to walk the course's distance.

    Args:
        course: walked in the catch.
        litres: caught by each run [L].

    Raises:
        InputError: no such course, or an empty catch.
    """
    if course not in COURSES:
        raise InputError("course", course, f"“{course}” is no course known here.", f"Use one of: {', '.join(COURSES)}.")
    return by_strip(COURSES[course].area, litres)


def by_emptying(litres: float, seconds: Sequence[float], pace: float, width: float) -> Calibrated:
    """A known volume sprayed out while walking, timed.

    Args:
        litres: put in the tank and sprayed out.
        seconds: how long each run took.
        pace: walked [m/s].
        width: of the swath [m].

    Raises:
        InputError: zero time, pace, width or volume.
    """
    positive("litres", litres)
    covered = check_pace(pace) * positive("width", width, most=WIDEST)
    runs = summarise([litres / positive(f"seconds.{i}", s, most=36000) for i, s in enumerate(seconds)])
    return Calibrated(runs.mean / covered, runs, runs.mean)


def by_dial(concentration: float, flow: float, seconds: float, area: float) -> float:
    """What a hose-end sprayer puts down of its product [L/m²].

    Args:
        concentration: product in the spray, as the dial sets it (1 oz per gal is 1/128).
        flow: of the whole spray [L/s], by a timed bucket at this tap and pressure.
        seconds: sprayed.
        area: covered evenly in that time [m²].

    Raises:
        InputError: anything that is zero, or a concentration of 1 and more.
    """
    if not 0 < concentration < 1:
        raise InputError("dial", concentration, "A dial sets less product than spray.", "Write 1 oz per gal as 1/128.")
    return concentration * positive("flow", flow) * positive("seconds", seconds) / positive("area", area)


# --- pace -------------------------------------------------------------------------------------------------------


def check_pace(pace: float, field: str = "pace") -> float:
    """A pace [m/s] that somebody walks or drives. Raises InputError with the field."""
    if not SLOWEST <= pace <= FASTEST:
        mph, kmh = pace / UNITS["mph"].size, pace / UNITS["kmh"].size
        said = f"{show_number(mph, 3)} mph ({show_number(kmh, 3)} km/h)"
        raise InputError(field, pace, f"{said} is no pace to spray at.", "Time 100 ft (30 m) again: walking takes 20 to 35 s.")
    return pace


def pace_for(output: float, flow: float, width: float) -> float:
    """The pace [m/s] at which a flow [L/s] over a width [m] puts down an output [L/m²]. Raises as `check_pace`."""
    return check_pace(positive("flow", flow) / (positive("output", output) * positive("width", width, most=WIDEST)))


def time_for(area: float, pace: float, width: float) -> float:
    """How long the spray is on for an area [s], turns not counted.

    Args:
        area: to be covered [m²].
        pace: walked [m/s].
        width: of the swath [m].
    """
    return positive("area", area) / (check_pace(pace) * positive("width", width, most=WIDEST))


def beat(pace: float, marks: float) -> float:
    """Seconds from mark to mark [m apart] at a pace [m/s].

    Args:
        pace: walked [m/s].
        marks: from mark to mark [m].
    """
    return positive("marks", marks, most=1000) / check_pace(pace)


def drift(seconds: Sequence[float]) -> float:
    """How much slower the last stretch was than the first, as a share, by a straight line through all of them.

    Args:
        seconds: between marks, in order [s].

    Raises:
        InputError: too few stretches, or one that took no time.
    """
    if len(seconds) < 3:
        raise InputError("marks", len(seconds), "Two stretches show no drift.", "Time three stretches or more.")
    times = np.array([positive(f"marks.{i}", s) for i, s in enumerate(seconds)])
    slope, start = np.polyfit(np.arange(len(times)), times, 1)
    return float(slope * (len(times) - 1) / start)
