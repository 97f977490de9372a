"""Where a rate stands against the label's range, and what follows.

For pesticides and growth regulators a plan above the label's highest rate is refused, with the rule quoted. For
fertilisers and the rest it warns. What really happened is always recordable, and is marked.
"""

from dataclasses import dataclass
from enum import StrEnum

from core.errors import Refused
from core.label.product import Product
from core.label.rate import LabelRate, Rate, show_label_rate
from core.units import show_number, show_percent

SLACK = 1e-9
"""Relative difference below which two rates are the same: the noise of binary arithmetic, not a tolerance."""
ROUNDED = 0.001
"""A rate over the label's highest by no more than this share is that rate rounded, as when a label per acre is typed per
1,000 ft²: no vessel tells the two apart, and it is told as rounding (ours)."""


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
    """Where `value` stands in the closed range from `low` to `high`, all in one unit; a hair over `high` is `high`, rounded.

    Args:
        value: a rate [any one unit].
        low: the label's [the same unit].
        high: the label's [the same unit].
    """
    if value > high * (1 + ROUNDED) * (1 + SLACK):
        return Stand.ABOVE
    if value < low * (1 - ROUNDED) * (1 - SLACK):
        return Stand.BELOW
    return Stand.WITHIN


def judge(rate: Rate, label: LabelRate, binds: bool, given: Rate | None = None) -> Judgement:
    """Judge a planned or an actual rate against the label; `binds` whether the label is law for it, `given` the rate as it was
    typed, where in another kind of unit.

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
        return Judgement(stand, binds, factor, words)
    if stand is Stand.BELOW:
        factor = here / low.value
        words = f"{typed} is {show_percent(1 - factor)} under the label's lowest rate, which may not work. {quoted}"
        return Judgement(stand, False, factor, words)
    excess = here / high.value - 1
    if excess > SLACK:
        said = f"{typed} is the label's highest rate, rounded: {show_percent(excess, 2)} over. {quoted}"
        return Judgement(stand, False, 1.0, said)
    return Judgement(stand, False, 1.0, f"{typed} is within the label. {quoted}")


def refuse_above_label(rate: Rate, label: LabelRate, product: Product, field: str = "rate") -> Judgement:
    """The judgement of a plan, where the label allows it.

    Raises:
        Refused: the plan is above the label's highest rate of a product whose label binds.
    """
    judgement = judge(rate, label, product.label_binds)
    if judgement.refused:
        raise Refused(
            field,
            str(rate),
            judgement.sentence,
            f"Lower the rate to {label.highest} or less. The label is the law for a {product.leading.text}.",
        )
    return judgement
