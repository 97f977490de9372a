"""A catch-can audit: the rate of a zone, how even it is, where it is dry, and how long to run it for a depth.

Low-quarter uniformity is the mean of the lowest quarter of the cans over the mean of all; with n cans the lowest quarter
is the n ÷ 4 lowest, rounded down. Christiansen's coefficient is 1 less the mean distance from the mean over the mean
(J. E. Christiansen, 1942, Irrigation by Sprinkling, California Agricultural Experiment Station Bulletin 670). The run
time multiplier 1 ÷ (0.4 + 0.6 × uniformity) is a convention of the trade, from memory.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from core.errors import InputError
from core.units import positive, show_number, show_percent

FEWEST, ENOUGH, MOST = 4, 16, 400
"""Below the first there is no quarter to take; below the second the answer is told as rough (common practice)."""
DRY, WET = 0.75, 1.25
"""A can under or over this share of the mean is a dry or a wet spot (common practice)."""
CALM = 2.2
"""Wind [m/s] from which an audit tells of the wind (about 5 mph; common practice)."""


class Heads(StrEnum):
    """What throws the water; each can be expected to reach a uniformity."""

    ROTOR = "rotor"
    SPRAY = "spray"

    @property
    def reachable(self) -> float:
        """The low-quarter uniformity that is good for it (common practice, no source)."""
        return 0.70 if self is Heads.ROTOR else 0.60


@dataclass(frozen=True)
class Can:
    """A can's depth [mm], and where it stood [m east, m north] if that was noted."""

    depth: float
    at: tuple[float, float] | None = None


@dataclass(frozen=True)
class Audit:
    """What an audit found.

    `rate` is the mean [mm/h], `low_quarter` and `christiansen` shares, `dry` and `wet` the places of the cans that stand
    out, driest and wettest first, `counted` how many cans made up the lowest quarter.
    """

    cans: tuple[Can, ...]
    minutes: float
    rate: float
    low_quarter: float
    christiansen: float
    counted: int
    dry: tuple[int, ...]
    wet: tuple[int, ...]
    notes: tuple[str, ...]


def depth_of(millilitres: float, mouth: float) -> float:
    """The depth [mm] of what was caught [mL] through a mouth of so much area [cm²]: 1 mL on 10 cm² is 1 mm.

    Args:
        millilitres: caught [mL].
        mouth: of the can [m²].
    """
    return 10 * positive("caught", millilitres, zero=True) / positive("mouth", mouth, most=5000, symbol="cm²")


def audit(cans: Sequence[Can], minutes: float, heads: Heads = Heads.ROTOR, wind: float | None = None) -> Audit:
    """Audit a zone.

    Args:
        cans: spread evenly over the zone, all out for the whole time.
        minutes: that it ran.
        heads: what throws the water.
        wind: during the run [m/s], if it was noted.

    Raises:
        InputError: too few cans, no time, a depth below nothing, or nothing caught.
    """
    if not FEWEST <= len(cans) <= MOST:
        raise InputError(
            "cans",
            len(cans),
            f"{len(cans)} cans make no audit.",
            f"Set out {ENOUGH} or more, {FEWEST} at the very least, evenly over the zone.",
        )
    positive("minutes", minutes, most=1440)
    depths = np.array([positive(f"cans.{i}", c.depth, zero=True, most=1000, symbol="mm") for i, c in enumerate(cans)])
    mean = float(depths.mean())
    if mean <= 0:
        raise InputError("cans", 0, "Every can is empty.", "Check that the zone ran.")
    count = len(cans) // 4
    quarter = float(np.sort(depths)[:count].mean()) / mean
    even = 1 - float(np.abs(depths - mean).mean()) / mean
    order = np.argsort(depths, kind="stable")
    dry = tuple(int(i) for i in order if depths[i] < DRY * mean)
    wet = tuple(int(i) for i in order[::-1] if depths[i] > WET * mean)
    return Audit(
        tuple(cans),
        minutes,
        mean / minutes * 60,
        quarter,
        even,
        count,
        dry,
        wet,
        tuple(_notes(len(cans), count, quarter, heads, wind)),
    )


def _notes(cans: int, count: int, quarter: float, heads: Heads, wind: float | None) -> list[str]:
    notes = [f"The lowest quarter is {count} of {cans} cans{', rounded down' if cans % 4 else ''}."]
    if cans < ENOUGH:
        notes.append(f"{cans} cans are few: take the numbers as rough until {ENOUGH} or more are set out.")
    if quarter < heads.reachable:
        notes.append(
            f"{show_percent(quarter)} is under the {show_percent(heads.reachable)} that {heads}s can reach: look at nozzles, "
            "pressure, tilt and spacing before running longer."
        )
    if wind is None:
        notes.append("The wind was not noted; what is true in a calm may not be in a breeze.")
    elif wind >= CALM:
        notes.append("It was windy: this is how it waters in such wind. Run it again in a calm.")
    return notes


# --- how long ---------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Run:
    """Minutes to run for a depth: on the mean, and so that the driest quarter gets enough; `advised` lies between."""

    depth: float
    by_mean: float
    advised: float
    by_quarter: float


def run_for(found: Audit, depth: float) -> Run:
    """How long to run a zone for a depth [mm]. Raises InputError where the depth is nothing or a flood."""
    by_mean = positive("depth", depth, most=150, symbol="mm") / found.rate * 60
    low = found.low_quarter
    by_quarter = by_mean / low if low > 0 else math.inf
    return Run(depth, by_mean, by_mean / (0.4 + 0.6 * low), by_quarter)


@dataclass(frozen=True)
class Soak:
    """A run in parts with rests between, so that it soaks in: `parts` of `minutes`, `rest` minutes apart."""

    parts: int
    minutes: float
    rest: float
    sentence: str

    @property
    def whole(self) -> float:
        """From the first start to the last stop [min]."""
        return self.parts * self.minutes + (self.parts - 1) * self.rest


def soak(minutes: float, rate: float, intake: float, pond: float = 3.0, rest: float = 30.0) -> Soak:
    """Split a run so that no water runs off.

    What falls faster than the soil drinks stands on it; when so much stands that it would run off, the run must rest.

    Args:
        minutes: to run in all.
        rate: of the zone [mm/h].
        intake: of the soil [mm/h].
        pond: how much water may stand [mm]; slopes hold less.
        rest: between parts [min], at the least.

    Raises:
        InputError: anything that is nothing.
    """
    positive("minutes", minutes, most=1440)
    over = positive("rate", rate) - positive("intake", intake)
    positive("pond", pond, most=20)
    if over <= 0:
        return Soak(1, minutes, 0.0, "The soil drinks as fast as it falls: run it at once.")
    longest = pond / over * 60
    parts = math.ceil(minutes / longest * (1 - 1e-9))
    if parts == 1:
        return Soak(1, minutes, 0.0, f"It can run {show_number(longest, 2)} min before water runs off: run it at once.")
    each = minutes / parts
    pause = max(rest, each * over / intake)
    return Soak(parts, each, pause, f"{parts} times {show_number(each, 3)} min, {show_number(pause, 2)} min apart.")
