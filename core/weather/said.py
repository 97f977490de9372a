"""What somebody looked at and said of the hour at hand: it goes before what a station tells."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from core.weather.hours import Hours
from core.weather.words import breeze, warmth


@dataclass(frozen=True)
class Cut:
    """The hours around one, of which it is at place `now`; `wet` is how wet the leaf is [share]."""

    hours: Hours
    wet: NDArray[np.float64]
    now: int


@dataclass(frozen=True)
class Said:
    """What was looked at: the leaf (`dry`, `wet`), air and soil [°C], wind [m/s], and whether rain fell before or comes after."""

    leaf: str = ""
    air: float | None = None
    wind: float | None = None
    soil: float | None = None
    dry_before: bool = False
    dry_after: bool = False

    def seen(self, cut: Cut) -> Cut:
        """Hours with what was said of the one at hand; what was measured by somebody has no error of a forecast."""
        if self == UNSAID:
            return cut
        now, hours, wet = cut.now, cut.hours, cut.wet.copy()
        found = {name: getattr(hours, name).copy() for name in ("air", "wind", "soil", "rain", "forecast")}
        for name in ("air", "wind", "soil"):
            if (value := getattr(self, name)) is not None:
                found[name][now] = value
                found["forecast"][now] = False
        if self.leaf:
            wet[now] = 1.0 if self.leaf == "wet" else 0.0
        if self.dry_before:
            found["rain"][: now + 1] = 0.0
        if self.dry_after:
            found["rain"][now:] = 0.0
        return Cut(replace(hours, **found), wet, now)

    def text(self, us: bool) -> str:
        """What was looked at, in words; empty where nothing was."""
        parts = [
            f"leaf {self.leaf}" if self.leaf else "",
            f"air {warmth(self.air, us)}" if self.air is not None else "",
            f"wind {breeze(self.wind, us)}" if self.wind is not None else "",
            f"soil {warmth(self.soil, us)}" if self.soil is not None else "",
            "no rain before" if self.dry_before else "",
            "no rain coming" if self.dry_after else "",
        ]
        return ", ".join(p for p in parts if p)


UNSAID = Said()
