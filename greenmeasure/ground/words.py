"""Ground as one says it: what a soil's sodium is known from, and what gypsum it takes."""

from datetime import date

from core.days import dated
from core.soil.gypsum import GypsumNeed
from core.soil.ph import spread_text
from core.units import show_number

TYPED = "As typed"
BY_WATER = "What the soil comes to under that water, in time"


def by_sample(spot: str, on: date) -> str:
    """Where sodium is known from, if from a sample."""
    return f"The sample of {spot}, {dated(on)}"


def gypsum_sentence(area: str, share: float, target: float, need: GypsumNeed, us: bool) -> str:
    """How much gypsum takes an area's exchangeable sodium [%] down to a target, and in how many times."""
    told = f"{area}: {show_number(share, 3)} % exchangeable sodium down to {show_number(target, 3)} % takes"
    amount = f"{spread_text(need.bought, us)} of gypsum"
    return f"{told} {amount}{f', split into {need.times} applications' if need.times > 1 else ', at once'}."


def no_need(area: str, share: float, target: float) -> str:
    """A soil that holds no more sodium than is aimed at."""
    return f"{area} holds {show_number(share, 3)} % exchangeable sodium, no more than the {show_number(target, 3)} % aimed at."
