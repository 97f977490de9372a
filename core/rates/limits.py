"""Where a rate stands against the label's range, and what follows.

For pesticides and growth regulators a plan above the label's highest rate is refused, with the rule quoted. For
fertilisers and the rest it warns. What really happened is always recordable, and is marked.
"""

from dataclasses import dataclass
from enum import StrEnum

from core.errors import Refused
from core.label.product import Kind
from core.label.rate import LabelRate, Rate, show_label_rate
from core.units import show_number, show_percent

SLACK = 1e-9
"""Relative difference below which two rates are the same: the noise of binary arithmetic, not a tolerance."""


class Stand(StrEnum):
    """Where a rate stands against the label's range; both ends belong to the range."""

    WITHIN = "within"
    BELOW = "below"
    ABOVE = "above"


@dataclass(frozen=True)
class Judgement:
    """`factor` is the rate over the label's highest (above) or lowest (below); 1 within. `refused` binds a plan."""

    stand: Stand
    refused: bool
    factor: float
    sentence: str


def stand_of(value: float, low: float, high: float) -> Stand:
    """Where `value` stands in the closed range from `low` to `high`, all in one unit.

    Args:
        value: a rate [any one unit].
        low: the label's [the same unit].
        high: the label's [the same unit].
    """
    if value > high * (1 + SLACK):
        return Stand.ABOVE
    if value < low * (1 - SLACK):
        return Stand.BELOW
    return Stand.WITHIN


def judge(rate: Rate, label: LabelRate, kind: Kind, given: Rate | None = None) -> Judgement:
    """Judge a planned or an actual rate against the label; `given` is the rate as it was typed, where in another kind of unit.

    Raises:
        InputError: the two rates do not measure the same thing.
    """
    low, high = label.lowest, label.highest
    here = rate.to(high.unit).value
    stand = stand_of(here, low.value, high.value)
    quoted = f"The label says {show_label_rate(label)}."
    typed = str(rate) if given is None or given.unit.kind == rate.unit.kind else f"{given}, which is {rate},"
    if stand is Stand.ABOVE:
        factor = here / high.value
        over = f"{show_number(factor, 3)} times" if factor >= 2 else f"{show_percent(factor - 1)} over"
        words = f"{typed} is {over} the label's highest rate. {quoted}"
        return Judgement(stand, kind.label_binds, factor, words)
    if stand is Stand.BELOW:
        factor = here / low.value
        words = f"{typed} is {show_percent(1 - factor)} under the label's lowest rate, which may not work. {quoted}"
        return Judgement(stand, False, factor, words)
    return Judgement(stand, False, 1.0, f"{typed} is within the label. {quoted}")


def refuse_above_label(rate: Rate, label: LabelRate, kind: Kind, field: str = "rate") -> Judgement:
    """The judgement of a plan, where the label allows it.

    Raises:
        Refused: the plan is above the label's highest rate of a product whose label binds.
    """
    judgement = judge(rate, label, kind)
    if judgement.refused:
        raise Refused(
            field,
            str(rate),
            judgement.sentence,
            f"Lower the rate to {label.highest} or less. The label is the law for a {kind.text}.",
        )
    return judgement
