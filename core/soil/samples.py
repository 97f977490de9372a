"""Soil samples: what a laboratory finds, in which unit, and how one compares with the last of its spot.

ppm is mg/kg. A pound an acre is half a ppm: the 6 2/3 in of an acre weigh about two million pounds (Havlin, Tisdale, Nelson &
Beaton, Soil Fertility and Fertilizers, 8th ed. 2014; from memory). That extractions do not compare, nor depths, nor seasons:
common practice, no source.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from enum import StrEnum

from core.days import so_many
from core.errors import InputError
from core.readable import joined
from core.units import show_number

PPM, LB_ACRE, PERCENT, MEQ, DS_M, NONE = "ppm", "lb/acre", "%", "meq/100 g", "dS/m", ""
PPM_OF_LB_ACRE = 0.5
SAME_DEPTH = 0.02
"""Depths within this [m] are one (ours)."""
SEASONS_APART = 60
"""Days of the year between two samples from which their seasons differ (ours)."""
YEAR = 365
LEAST = {"lab": 0.1, "meter": 0.2, "strip": 0.5}
"""pH below which a difference is none, by how it was read (ours: two readings of one spot differ by as much)."""


class How(StrEnum):
    """How a sample was read."""

    LAB = "lab"
    METER = "meter"
    STRIP = "strip"

    @property
    def text(self) -> str:
        return {"lab": "laboratory", "meter": "own meter", "strip": "strip or colour kit"}[self.value]


@dataclass(frozen=True)
class Kind:
    """Something a laboratory tells: its name, its units, the first being its own, and the most that is believed in that."""

    key: str
    name: str
    units: tuple[str, ...]
    most: float
    extracted: bool = False


KINDS = {
    k.key: k
    for k in (
        Kind("buffer_ph", "Buffer pH", (NONE,), 10),
        Kind("organic", "Organic matter", (PERCENT,), 100),
        Kind("cec", "Cation exchange capacity", (MEQ,), 200),
        Kind("salts", "Soluble salts", (DS_M,), 100),
        Kind("n", "Nitrate N", (PPM, LB_ACRE), 2_000, True),
        Kind("p", "Phosphorus", (PPM, LB_ACRE), 5_000, True),
        Kind("k", "Potassium", (PPM, LB_ACRE), 10_000, True),
        Kind("ca", "Calcium", (PPM, LB_ACRE), 100_000, True),
        Kind("mg", "Magnesium", (PPM, LB_ACRE), 20_000, True),
        Kind("s", "Sulfur", (PPM, LB_ACRE), 10_000, True),
        Kind("fe", "Iron", (PPM, LB_ACRE), 10_000, True),
        Kind("mn", "Manganese", (PPM, LB_ACRE), 5_000, True),
        Kind("zn", "Zinc", (PPM, LB_ACRE), 2_000, True),
        Kind("cu", "Copper", (PPM, LB_ACRE), 2_000, True),
        Kind("b", "Boron", (PPM, LB_ACRE), 500, True),
        Kind("na", "Sodium", (PPM, LB_ACRE), 50_000, True),
    )
}


@dataclass(frozen=True)
class Figure:
    """What was found of a kind, in the unit it was told in, and by which extraction where that was told."""

    kind: Kind
    value: float
    unit: str
    method: str = ""

    @property
    def own(self) -> float:
        """In the first of the kind's units."""
        return self.value * PPM_OF_LB_ACRE if self.unit == LB_ACRE else self.value

    def __str__(self) -> str:
        return f"{self.kind.name} {with_unit(self.value, self.unit)}" + (f" ({self.method})" if self.method else "")


@dataclass(frozen=True)
class Sample:
    """A sample of one spot: its day, its pH, what else was found, how deep [m] and how it was taken."""

    on: date
    ph: float
    figures: Mapping[str, Figure] = field(default_factory=dict)
    depth: float | None = None
    how: How = How.METER
    lab: str = ""


@dataclass(frozen=True)
class Change:
    """What became of one figure since the sample before, in its own unit; `text` says it."""

    key: str
    by: float
    text: str


def with_unit(value: float, unit: str) -> str:
    """A figure as it is read.

    Args:
        value: in that unit [`unit`].
        unit: of `Kind.units`.
    """
    shown = show_number(value, 3)
    return shown if not unit else f"{shown} {unit}"


def figure(key: str, value: float, unit: str, method: str = "", at: str = "figures") -> Figure:
    """A figure as it was told.

    Args:
        key: of its kind.
        value: as told [`unit`].
        unit: one of its kind's; empty for the first.
        method: the extraction, in words.
        at: the field that it is told in.

    Raises:
        InputError: no such kind or unit, or no soil has as much.
    """
    if key not in KINDS:
        raise InputError(f"{at}.kind", key, f"“{key}” is nothing a laboratory tells.", f"Use one of: {', '.join(KINDS)}.")
    kind = KINDS[key]
    unit = unit or kind.units[0]
    if unit not in kind.units:
        told = " or ".join(kind.units).strip() or "no unit"
        raise InputError(f"{at}.unit", unit, f"{kind.name} is not told in {unit}.", f"Use {told}.")
    found = Figure(kind, value, unit, method.strip())
    if not 0 <= found.own <= kind.most:
        raise InputError(
            f"{at}.value",
            value,
            f"{kind.name} of {with_unit(value, unit)} is in no soil.",
            f"It lies between 0 and {with_unit(kind.most, kind.units[0])}. Check the number and its unit.",
        )
    return found


def changes(now: Sample, before: Sample) -> list[Change]:
    """What became of each figure that both samples have, the pH first."""
    least = max(LEAST[now.how], LEAST[before.how])
    by = now.ph - before.ph
    found = [Change("ph", by, _said("pH", by, NONE, abs(by) < least - 1e-9))]
    for key, new in now.figures.items():
        old = before.figures.get(key)
        if old is not None and _one_extraction(new, old):
            by = new.own - old.own
            found.append(Change(key, by, _said(new.kind.name, by, new.kind.units[0], by == 0)))
    return found


def doubts(now: Sample, before: Sample) -> list[str]:
    """What makes two samples hard to compare, a sentence each."""
    found = []
    if now.how is not before.how:
        found.append(f"By {before.how.text} then, by {now.how.text} now.")
    elif now.how is How.LAB and now.lab.casefold() != before.lab.casefold() and now.lab and before.lab:
        found.append(f"{before.lab} then, {now.lab} now: laboratories differ.")
    if now.depth and before.depth and abs(now.depth - before.depth) > SAME_DEPTH:
        found.append("Not of one depth.")
    if (apart := _seasons(now.on, before.on)) > SEASONS_APART:
        found.append(f"Taken {so_many(apart)} apart in the year: pH and nutrients swing with the season.")
    other = [
        new.kind.name
        for key, new in now.figures.items()
        if (old := before.figures.get(key)) is not None and not _one_extraction(new, old)
    ]
    if other:
        found.append(f"{joined(other)} by another extraction: the numbers do not compare.")
    return found


def last_before(sample: Sample, others: Sequence[Sample]) -> Sample | None:
    """The latest of other samples of the spot that was taken before a sample."""
    return max((s for s in others if s.on < sample.on), key=lambda s: s.on, default=None)


def _one_extraction(new: Figure, old: Figure) -> bool:
    return not new.kind.extracted or new.method.casefold() == old.method.casefold()


def _seasons(a: date, b: date) -> int:
    """Days between two days of the year, the shorter way round."""
    apart = abs(a.timetuple().tm_yday - b.timetuple().tm_yday)
    return min(apart, YEAR - apart)


def _said(name: str, by: float, unit: str, same: bool) -> str:
    if same:
        return f"{name} as before"
    return f"{name} {with_unit(abs(by), unit)} {'higher' if by > 0 else 'lower'}"
