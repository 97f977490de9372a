"""Two measurements of one area, and what their difference says."""

from dataclasses import dataclass
from enum import StrEnum

from core.units import positive, show_percent

AGREE, MIND = 0.02, 0.05
"""Up to 2 % two tapings agree; above 5 % one of them is wrong (common practice, no source)."""


class Agreement(StrEnum):
    """How far two measurements of one area agree; the upper ends belong to the better class."""

    AGREE = "agree"
    MIND = "mind"
    DIFFER = "differ"


@dataclass(frozen=True)
class Difference:
    """`relative` is how much larger the second is than the first, as a share of the first."""

    relative: float
    agreement: Agreement
    sentence: str


def difference(first: float, second: float) -> Difference:
    """What two sizes of the same ground differ by, both [m²].

    Args:
        first: a size [m²].
        second: another [m²].

    Raises:
        InputError: one of them is not positive.
    """
    positive("size", first)
    positive("size", second)
    relative = second / first - 1
    size = abs(relative)
    if size <= AGREE * (1 + 1e-9):
        return Difference(relative, Agreement.AGREE, f"They agree within {show_percent(size) if size > 5e-4 else '0.1 %'}.")
    off = show_percent(relative, sign=True)
    if size <= MIND * (1 + 1e-9):
        return Difference(relative, Agreement.MIND, f"{off} apart: a dose on one is {show_percent(size)} out on the other.")
    return Difference(relative, Agreement.DIFFER, f"{off} apart: one of them is wrong. Measure a third time before dosing by it.")
