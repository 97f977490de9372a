"""To which mark of its tank a load is filled, and what that does to the spray.

A tank is read to its nearest mark. Where half a mark is more than a tenth of the load the water is measured in a jug instead.
"""

from dataclasses import dataclass

from core.tank.vessels import TOO_COARSE, Cabinet, measure
from core.units import Quantity, show_number, show_percent

UNSEEN = 0.005
"""A mark that misses by less than this share is the load's (ours)."""


@dataclass(frozen=True)
class Fill:
    """Where to fill to, in words, and by how much that misses the volume, as a share."""

    text: str
    off: float = 0.0
    measured: bool = False

    @property
    def note(self) -> str:
        """What the mark does to the spray; empty where it is as good as exact."""
        if abs(self.off) < UNSEEN:
            return ""
        how = "weaker" if self.off > 0 else "stronger"
        return f"the spray is {show_percent(abs(self.off) / (1 + self.off))} {how} for it"


def fill_to(volume: Quantity, mark: Quantity | None, cabinet: Cabinet) -> Fill:
    """Where a load is filled to.

    Args:
        volume: of finished spray, in the tank's unit.
        mark: what lies between two of the tank's marks; without it the volume itself is told.
        cabinet: to measure with what the marks are too coarse for.
    """
    if mark is None:
        return Fill(f"{show_number(volume.value, 3)} {volume.unit.symbol}")
    count = round(volume.base / mark.base)
    if not count or mark.base / 2 / volume.base > TOO_COARSE:
        by = measure(volume.to("fl_oz" if cabinet.us else "ml"), cabinet)
        return Fill(f"{by.instruction}, measured in the {by.vessel.name}", by.rounding, True)
    at = Quantity(count * mark.base / volume.unit.size, volume.unit)
    return Fill(f"the {show_number(at.value)} {at.unit.symbol} mark", at.base / volume.base - 1)
