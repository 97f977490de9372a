"""How much gypsum trades the sodium out of a sodic soil, and what salt in the water comes to in it.

USDA Handbook 60 (Richards, 1954): the exchangeable share from the sodium adsorption ratio, and gypsum by the equivalents of
sodium to be traded. Gypsum does not lower pH. It needs water to dissolve and a soil that drains; the label and the soil
laboratory come first.
"""

import math
from dataclasses import dataclass

from core.errors import InputError
from core.rates.nutrients import LB_PER_1000
from core.soil.ph import WILL_NOT, spread_term, spread_text
from core.units import positive, show_number
from core.working import Step, Term, divided_by, line, times

EQUIVALENT = 0.86085
"""Gypsum (CaSO₄·2H₂O, 172.17 g/mol) in a milliequivalent of sodium per 100 g of a kilogram of soil [g/kg per meq/100 g]."""
INTERCEPT, PER_RATIO = -0.0126, 0.01475
MOST_AT_ONCE, MOST_ON_GREEN = 50 * LB_PER_1000, 10 * LB_PER_1000
"""Gypsum at once on turf and on a green [g/m²] (common practice, no source, low; for greens 10 to 20 are named: the less)."""
SODIUM = 22.99
"""A mole of sodium, which is an equivalent of it [g/mol]."""
SODIC = 15.0
"""Exchangeable sodium from which Handbook 60 calls a soil sodic [%]."""
DISSOLVES = 2.5
"""Gypsum that a litre of water takes up [g/L] (from memory)."""


def sodium_ratio(sodium: float, calcium: float, magnesium: float) -> float:
    """The sodium adsorption ratio of water, or of a saturation extract [(meq/L)^½].

    Args:
        sodium: dissolved [meq/L].
        calcium: dissolved [meq/L].
        magnesium: dissolved [meq/L].

    Raises:
        InputError: below zero, or neither calcium nor magnesium.
    """
    for name, value in (("sodium", sodium), ("calcium", calcium), ("magnesium", magnesium)):
        positive(name, value, zero=True, most=1e4, symbol="meq/L")
    if calcium + magnesium == 0:
        raise InputError("calcium", calcium, "Without calcium and magnesium there is no ratio.", "Copy both from the report.")
    return sodium / math.sqrt((calcium + magnesium) / 2)


def exchangeable_sodium(ratio: float) -> float:
    """The exchangeable sodium that a soil comes to under water of a sodium adsorption ratio [%].

    Args:
        ratio: sodium adsorption ratio [(meq/L)^½].
    """
    share = INTERCEPT + PER_RATIO * positive("ratio", ratio, zero=True, most=200)
    return max(0.0, 100 * share / (1 + share))


def sodium_share(sodium: float, exchange: float) -> float:
    """The exchangeable sodium of a soil by its laboratory's figures [%].

    Args:
        sodium: exchangeable, less what is dissolved [ppm].
        exchange: cation exchange capacity [meq/100 g].

    Raises:
        InputError: more sodium than the soil can hold.
    """
    positive("exchange", exchange, most=200.0, symbol="meq/100 g")
    share = 100 * sodium / (SODIUM * 10) / exchange
    if share > 100:
        raise InputError("sodium", sodium, "That is more sodium than the soil can hold.", "Check both figures and their units.")
    return share


@dataclass(frozen=True)
class GypsumNeed:
    """What a soil needs [g/m²]: pure, and as bought; in how many times; and the water that dissolves it [mm]."""

    pure: float
    bought: float
    times: int
    water: float
    working: tuple[Step, ...]


def gypsum_need(
    sodium: float,
    target: float,
    exchange: float,
    density: float,
    depth: float,
    *,
    purity: float = 100.0,
    efficiency: float = 80.0,
    green: bool = False,
    us: bool = False,
) -> GypsumNeed:
    """The gypsum that takes exchangeable sodium down to a target.

    Args:
        sodium: exchangeable now [% of the exchange capacity].
        target: exchangeable wanted [% of the exchange capacity].
        exchange: cation exchange capacity [meq/100 g].
        density: of the soil [kg/m³].
        depth: that is treated [m].
        purity: of the gypsum [%].
        efficiency: how much of it trades [%]; 75 to 80 is common practice, no source.
        green: whether the ground is one, which stands less at once.
        us: whether the working ends in US units.

    Raises:
        InputError: a number that cannot be, or a target that is no lower.
    """
    positive("sodium", sodium, most=100.0, symbol="%")
    positive("target", target, zero=True, most=100.0, symbol="%")
    positive("exchange", exchange, most=100.0, symbol="meq/100 g")
    positive("density", density, least=300.0, most=2200.0, symbol="kg/m³")
    positive("depth", depth, least=0.01, most=1.0, symbol="m")
    positive("purity", purity, most=100.0, symbol="%")
    positive("efficiency", efficiency, most=100.0, symbol="%")
    if target >= sodium:
        raise InputError("target", target, f"The soil holds {show_number(sodium)} % already.", "Aim lower, or leave it.")
    traded = (sodium - target) / 100 * exchange
    pure = EQUIVALENT * traded * density * depth
    bought = pure / (purity / 100) / (efficiency / 100)
    spread = spread_term(bought, us)
    steps = (
        line(
            "Sodium to be traded",
            Term(sodium - target, "%"),
            divided_by(100.0, "%"),
            times(exchange, "meq/100 g"),
            result=Term(traded, "meq/100 g"),
        ),
        line(
            "Pure gypsum",
            Term(EQUIVALENT, "g/kg", "meq/100 g"),
            times(traded, "meq/100 g"),
            times(density * depth, "kg", "m²"),
            result=Term(pure, "g", "m²"),
        ),
        line(
            "As bought",
            Term(pure, "g", "m²"),
            divided_by(purity / 100),
            divided_by(efficiency / 100),
            divided_by(bought / spread.value, "g/m²", f"{spread.over}/{spread.under}"),
            result=spread,
        ),
    )
    once = MOST_ON_GREEN if green else MOST_AT_ONCE
    return GypsumNeed(pure, bought, math.ceil(bought / once * (1 - 1e-9)), pure / DISSOLVES, steps)


def about(sodium: float, green: bool, us: bool) -> list[str]:
    """What to know before gypsum goes down, the weightiest first.

    Args:
        sodium: exchangeable [%].
        green: whether the ground is one.
        us: whether to speak in US units.
    """
    once = spread_text(MOST_ON_GREEN if green else MOST_AT_ONCE, us)
    low = f"Below {SODIC:g} % a soil is not sodic. Where it is not, gypsum is calcium and a salt, no more."
    return [
        *([low] if sodium < SODIC else []),
        "The soil must drain: what is traded has to be washed below the roots, or the sodium stays.",
        f"At most {once} at once{' on a green' if green else ''}, watered in, not in heat, some weeks apart.",
        WILL_NOT[0],
        "The soil laboratory’s advice and the label come first. Water that brings sodium brings it back: test it too.",
    ]
