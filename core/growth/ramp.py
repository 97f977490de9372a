"""The first growth-regulator doses of a season: half, three quarters, full (common practice, no source).

A dose below the label's lowest rate is the house's choice and is said; the label's highest is never passed.
"""

from dataclasses import dataclass

from core.label.rate import LabelRate, Rate
from core.schools import PLAIN, House

STEPS = (0.5, 0.75, 1.0)


@dataclass(frozen=True)
class Start:
    """The rate to open with, and why."""

    rate: Rate
    why: str


def regulator_start(label: LabelRate, earlier: int, house: House = PLAIN) -> Start:
    """The rate that the house opens with after `earlier` applications of the class on this ground this season."""
    rule = house.of("first_regulator")
    low, high = label.lowest, label.highest
    lowest = low if low.value else high
    if rule == "lowest":
        return Start(lowest, "The house begins at the label's lowest rate.")
    if rule == "full" or earlier >= len(STEPS) - 1:
        return Start(high, "The house gives the full rate." if rule == "full" else "The ramp is over: the full rate.")
    share = STEPS[earlier]
    words = {0.5: "half", 0.75: "three quarters of"}[share]
    rate = Rate(high.value * share, high.unit)
    under = " It is under the label's lowest rate, by the house's choice." if rate.base < lowest.base * (1 - 1e-9) else ""
    order = ("first", "second")[earlier]
    return Start(rate, f"The {order} dose of the season: {words} the full rate, to ease the turf in.{under}")


def start_in_range(label: LabelRate, house: House = PLAIN) -> Start:
    """Where in a label's range the house starts."""
    rule = house.of("start_rate")
    low, high = label.lowest, label.highest
    if rule == "top" or not low.value:
        return Start(high, "The house starts at the label's highest rate." if rule == "top" else "The label gives one end.")
    if rule == "middle":
        return Start(Rate((low.value + high.value) / 2, high.unit), "The house starts in the middle of the range.")
    return Start(low, "House rule: start at the label’s low rate; what is short can be added.")
