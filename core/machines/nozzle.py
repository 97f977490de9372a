"""Nozzles: the flow of the international sizes, pressure and density, worn tips, droplets for a purpose.

ISO 10625 gives each size its flow at 300 kPa (3 bar) and its colour; sizes 10, 15 and 20 are from memory, medium.
Droplet classes are those of ISO 25358; which one a purpose asks for is common practice, and the label decides.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from statistics import fmean

from core.errors import InputError
from core.label.rules import DROPLETS
from core.units import positive, show_percent

REFERENCE = 300.0
"""The pressure of the size series [kPa]."""
FROM_MEAN, WORN = 0.05, 0.10
"""A tip that differs more than this from the boom's mean, and more than this above a new one, is changed (common practice)."""


@dataclass(frozen=True)
class Size:
    """A nozzle size: its number, colour, and flow at 300 kPa [L/s]."""

    key: str
    colour: str
    flow: float


SIZES = {
    key: Size(key, colour, litres / 60)
    for key, colour, litres in (
        ("01", "orange", 0.4),
        ("015", "green", 0.6),
        ("02", "yellow", 0.8),
        ("025", "violet", 1.0),
        ("03", "blue", 1.2),
        ("04", "red", 1.6),
        ("05", "brown", 2.0),
        ("06", "grey", 2.4),
        ("08", "white", 3.2),
        ("10", "light blue", 4.0),
        ("15", "light green", 6.0),
        ("20", "black", 8.0),
    )
}


def flow_at(flow: float, pressure: float, wanted: float) -> float:
    """The flow at another pressure, by the square root of their ratio: twice the flow takes four times the pressure.

    Args:
        flow: known [any unit], at `pressure`.
        pressure: where it was measured [kPa].
        wanted: the pressure asked about [kPa].

    Raises:
        InputError: a flow or pressure that is not positive, or pressures too far apart for the law to hold.
    """
    ratio = positive("wanted", wanted, most=3000, symbol="kPa") / positive("pressure", pressure, most=3000, symbol="kPa")
    if not 1 / 16 <= ratio <= 16:
        raise InputError(
            "wanted",
            wanted,
            "The two pressures are too far apart to reckon from one to the other.",
            "Measure the flow near the pressure that is used.",
        )
    return positive("flow", flow) * math.sqrt(ratio)


def pressure_for(flow: float, pressure: float, wanted: float) -> float:
    """The pressure [kPa] at which a nozzle gives the wanted flow; the inverse of `flow_at`.

    Args:
        flow: known at `pressure` [L/s].
        pressure: at which `flow` is known [kPa].
        wanted: flow [L/s].
    """
    return pressure * (positive("wanted", wanted) / positive("flow", flow)) ** 2


def of_solution(water: float, gravity: float) -> float:
    """The flow of a solution through a nozzle that passes so much water; `gravity` is its density over water's.

    Args:
        water: its flow [L/s].
        gravity: of the spray against water's [1].
    """
    return positive("flow", water) / math.sqrt(_gravity(gravity))


def water_for(solution: float, gravity: float) -> float:
    """The water flow to choose a nozzle by, for a wanted flow of solution.

    Args:
        solution: its flow [L/s].
        gravity: of the spray against water's [1].
    """
    return positive("flow", solution) * math.sqrt(_gravity(gravity))


def _gravity(value: float) -> float:
    if not 0.7 <= value <= 2.0:
        raise InputError("gravity", value, f"{value:g} is no density of a spray over water's.", "Water is 1, UAN 1.28 to 1.33.")
    return value


def nearest_size(flow: float, pressure: float) -> Size:
    """The size whose flow at a pressure [kPa] is nearest to a wanted water flow [L/s], by ratio."""
    wanted = positive("flow", flow)
    return min(SIZES.values(), key=lambda s: abs(math.log(flow_at(s.flow, REFERENCE, pressure) / wanted)))


# --- a boom's tips ----------------------------------------------------------------------------------------------


class TipState(StrEnum):
    """What to do about a tip: keep it, clean it (it gives too little), or change it."""

    GOOD = "good"
    CLEAN = "clean"
    CHANGE = "change"


@dataclass(frozen=True)
class Tip:
    """One tip's catch with its distance from the boom's mean, and from a new tip where its flow is known, as shares."""

    number: int
    catch: float
    from_mean: float
    from_new: float | None
    state: TipState
    sentence: str


@dataclass(frozen=True)
class Boom:
    """Every tip of a boom: the mean catch, and the verdict on each."""

    mean: float
    tips: tuple[Tip, ...]

    @property
    def bad(self) -> tuple[Tip, ...]:
        return tuple(t for t in self.tips if t.state is not TipState.GOOD)


def check_tips(catches: Sequence[float], new: float | None = None) -> Boom:
    """Each tip's catch over one time and pressure against the boom's mean, and against a new tip's.

    The mean is taken without tips that are blocked or worn through, so that one bad tip does not accuse the others.

    Args:
        catches: by tip from the left [one unit of volume, in one time].
        new: what a new tip of the size gives in that time [the same unit].

    Raises:
        InputError: fewer than two tips, or a catch that is negative.
    """
    if len(catches) < 2:
        raise InputError("tips", len(catches), "One tip has no others to be compared with.", "Catch every tip of the boom.")
    for i, catch in enumerate(catches):
        positive(f"tips.{i}", catch, zero=True)
    middle = sorted(catches)[len(catches) // 2]
    sound = [c for c in catches if abs(c - middle) <= 2 * WORN * middle]
    mean = fmean(sound)
    positive("tips", mean)
    if new is not None:
        positive("new", new)
    return Boom(mean, tuple(_tip(i, catch, mean, new) for i, catch in enumerate(catches)))


def _tip(i: int, catch: float, mean: float, new: float | None) -> Tip:
    off = catch / mean - 1
    wear = None if new is None else catch / new - 1
    slack = 1e-9
    if wear is not None and wear > WORN + slack:
        state, said = TipState.CHANGE, f"Worn: {show_percent(wear)} above a new tip."
    elif off > FROM_MEAN + slack:
        state, said = TipState.CHANGE, f"{show_percent(off)} above the boom’s mean: worn, or of another size."
    elif off < -FROM_MEAN - slack:
        state, said = (TipState.CLEAN, f"{show_percent(-off)} under the mean: clean it with a soft brush, catch again.")
    else:
        state, said = TipState.GOOD, f"{show_percent(off, sign=True)} from the mean."
    return Tip(i + 1, catch, off, wear, state, said)


# --- droplets ---------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Droplets:
    """The span of classes for a purpose, by their places in `DROPLETS`, and why."""

    finest: int
    coarsest: int
    why: str

    @property
    def text(self) -> str:
        low, high = DROPLETS[self.finest], DROPLETS[self.coarsest]
        return low if low == high else f"{low} to {high}"


def droplets_for(*, on_leaf: bool, systemic: bool, drift: bool) -> Droplets:
    """Which droplets a purpose asks for.

    Args:
        on_leaf: whether it works on the leaf; else in the soil.
        systemic: whether the plant carries it.
        drift: whether water, neighbours or wind are near.
    """
    if not on_leaf:
        found = Droplets(4, 6, "It is washed down: large drops, little drift.")
    elif systemic:
        found = Droplets(3, 4, "The plant carries it: cover is not everything.")
    else:
        found = Droplets(3, 3, "It works where it lands: cover every blade without making mist.")
    if drift and found.finest < 4:
        return Droplets(4, max(4, found.coarsest), "Drift could do harm here: coarse at the least, with more water for cover.")
    return found
