"""What else there is to say of a job: doses too small to measure, spray volumes that no label asks for, an odd last load."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from core.job.mix import DosePlan, LoadPlan, PartPlan, Pour
from core.label.rate import Rate, RateUnit
from core.readable import foot_of
from core.tank.vessels import GOOD_READING
from core.units import UNITS, show_number, show_percent


def warnings(parts: Sequence[PartPlan], us: bool, plans: Sequence[LoadPlan]) -> tuple[str, ...]:
    """What no vessel measures well, spray volumes that are not the labels', and labels whose volumes no one volume is."""
    words = []
    for coarse in _coarse(plans):
        assert coarse.measure
        words.append(
            f"{coarse.amount} is little for a {coarse.measure.vessel.name}: reading it alone can be out by "
            f"{show_percent(coarse.measure.reading)}. {coarse.measure.note}"
        )
    for p in parts:
        for d in p.measured:
            if p.spray:
                words += _other_water(p, d, p.spray, us)
        words += _apart(p)
    return tuple(dict.fromkeys(words))


@dataclass(frozen=True)
class _Water:
    """The spray volume that a label asks for [L/m²], and as it says it."""

    product: str
    low: float
    high: float
    text: str


def _water_asked(d: DosePlan) -> _Water | None:
    """The spray volume that a label asks for, per area; None where it asks for none."""
    asked = d.label.scaled()
    if asked.carrier is None or asked.unit.per is None or not asked.unit.per_area:
        return None
    low, high, unit = asked.carrier
    span = show_number(low) if low == high else f"{show_number(low)} to {show_number(high)}"
    size = RateUnit(unit, asked.unit.per).size
    return _Water(d.product.name, low * size, high * size, f"{span} {unit.symbol} of water per {asked.unit.per.symbol}")


def _apart(planned: PartPlan) -> list[str]:
    """A warning where two labels of a mix ask for spray volumes that no one volume is."""
    asked = [w for d in planned.measured if (w := _water_asked(d))]
    most, least = max(asked, key=lambda w: w.low, default=None), min(asked, key=lambda w: w.high, default=None)
    if most is None or least is None or most.low <= least.high * (1 + 1e-6):
        return []
    return [
        f"{most.product} asks for {most.text}, {least.product} for {least.text}: no spray volume suits both. Put them down apart."
    ]


def _coarse(plans: Sequence[LoadPlan]) -> list[Pour]:
    """The first load's pour of each component that no vessel measures well."""
    found: dict[int, Pour] = {}
    for pour in (x for p in plans for x in p.pours):
        if pour.measure and pour.measure.coarse:
            found.setdefault(pour.place, pour)
    return list(found.values())


def _other_water(planned: PartPlan, d: DosePlan, spray: float, us: bool) -> list[str]:
    """A warning where the spray volume is not the one the label asks for."""
    asked = _water_asked(d)
    here = spray / planned.part.area.base
    if asked is None or asked.low * (1 - 1e-6) <= here <= asked.high * (1 + 1e-6):
        return []
    unit = RateUnit(UNITS["gal"] if us else UNITS["l"], foot_of(us).unit)
    return [f"The spray volume comes to {Rate(here / unit.size, unit)}; the label asks for {asked.text}."]


@dataclass(frozen=True)
class Odd:
    """An odd last load of a filling, and the pour that its vessel measures worst."""

    plan: LoadPlan
    pour: Pour


def odd_load(plans: Sequence[LoadPlan]) -> Odd | None:
    """A load that is not full, after full ones of the same filling, that no vessel measures well; all alike would do better."""
    for before, last in pairwise(plans):
        if last.load.odd and not before.load.odd and last.parts == before.parts:
            worst = max((p for p in last.pours if p.measure), key=_out, default=None)
            if worst and _out(worst) > GOOD_READING:
                return Odd(last, worst)
    return None


def _out(pour: Pour) -> float:
    """By how much a pour can miss its amount, by its mark or by reading it, as a share."""
    return max(abs(pour.measure.rounding), pour.measure.reading) if pour.measure else 0.0
