"""Growth potential by temperature, and nitrogen shared out by it.

Gelernter W, Stowell L (2005) Improved overseeding programs 1: the role of weather. Golf Course Management 73(3):108-113, in its
metric form (optimum 20 °C and 31 °C, spread 5.5 and 7 °C). It knows no water, light, wear or dormancy.
"""

import numpy as np
from numpy.typing import ArrayLike, NDArray

from core.grasses import GRASSES, Sward

Floats = NDArray[np.float64]
OPTIMUM, SPREAD = {True: 20.0, False: 31.0}, {True: 5.5, False: 7.0}
"""By season of the grass (cool or warm) [°C]."""
ASLEEP = 0.05
"""A potential below which nothing grows worth feeding (ours)."""


def potential(air: ArrayLike, cool: bool, swing: float = 0.0) -> Floats:
    """How well a grass can grow at a mean air temperature, 0 to 1.

    Args:
        air: mean temperature [°C].
        cool: whether the grass is of the cool season.
        swing: standard deviation of the days about that mean [°C]; the mean of the potential over normal days is exact.

    Returns:
        [1]; NaN where the temperature is not known.
    """
    spread = SPREAD[cool]
    wide = spread**2 + swing**2
    off = np.asarray(air, dtype=float) - OPTIMUM[cool]
    return np.asarray(spread / np.sqrt(wide) * np.exp(-0.5 * off**2 / wide))


def of_sward(air: ArrayLike, sward: Sward) -> Floats:
    """How well a sward can grow: the potential of its grasses by their shares.

    Args:
        air: mean temperature [°C].
        sward: what grows there.

    Returns:
        [1]; NaN where the temperature is not known, or what grows there is no turf or not said.
    """
    parts = sward.parts or (((sward.grass, 1.0),) if sward.unsaid else ())
    if not parts or not sward.turf:
        return np.full(np.shape(air), np.nan)
    return np.asarray(sum(potential(air, GRASSES[key].cool) * share for key, share in parts))


def shares(months: ArrayLike, cool: bool) -> Floats | None:
    """Of a season's nitrogen what falls to each month by its growth; None where nothing grows in any of them.

    Args:
        months: mean temperature of each [°C].
        cool: whether the grass is of the cool season.
    """
    found = np.nan_to_num(potential(months, cool))
    return None if found.max(initial=0.0) < ASLEEP else found / found.sum()
