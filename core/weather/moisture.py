"""Moisture of the air: dew point, wet bulb, Delta-T, vapour pressure deficit.

Sources
-------
Dew point: Alduchov OA, Eskridge RE (1996) J Appl Meteorol 35:601-609, over water, -40 to 50 °C.
Wet bulb: Stull R (2011) J Appl Meteorol Climatol 50:2267-2269, eq. 1; 5 to 99 %, -20 to 50 °C, at 1013 hPa; off by -1 to
+0.65 °C, by our own comparison up to +0.83 °C at 40 °C. Its published example: 20 °C and 50 % are 13.7 °C.
Vapour pressure deficit: Allen RG et al. (1998) FAO Irrigation and Drainage Paper 56, eq. 11.
Delta-T classes: Australian spray guidance, common practice, no source.

Every function takes numbers or arrays; what lies outside its range is NaN, never a plausible number.
"""

import numpy as np
from numpy.typing import ArrayLike, NDArray

Floats = NDArray[np.float64]

MAGNUS_A, MAGNUS_B = 17.625, 243.04
DEW_RANGE = (-40.0, 50.0)
STULL_TEMPERATURE, STULL_HUMIDITY = (-20.0, 50.0), (5.0, 99.0)


def dew_point(air: ArrayLike, humidity: ArrayLike) -> Floats:
    """The temperature at which the air is full [°C].

    Args:
        air: temperature [°C].
        humidity: relative [%].

    Returns:
        [°C]; NaN outside -40 to 50 °C or above 0 to 100 %.
    """
    t, rh = _arrays(air, humidity)
    good = _within(t, DEW_RANGE) & (rh > 0) & (rh <= 100)
    with np.errstate(divide="ignore", invalid="ignore"):
        gamma = np.log(rh / 100) + MAGNUS_A * t / (MAGNUS_B + t)
        return np.where(good, MAGNUS_B * gamma / (MAGNUS_A - gamma), np.nan)


def humidity_of(air: ArrayLike, dew: ArrayLike) -> Floats:
    """The relative humidity of air by its dew point [%]; 100 where the two are as good as one.

    Args:
        air: temperature [°C].
        dew: point [°C].

    Returns:
        [%]; NaN outside -40 to 50 °C of the air.
    """
    t, td = _arrays(air, dew)
    good = _within(t, DEW_RANGE) & _within(td, (-80.0, DEW_RANGE[1]))
    with np.errstate(invalid="ignore"):
        share = np.exp(MAGNUS_A * td / (MAGNUS_B + td) - MAGNUS_A * t / (MAGNUS_B + t))
        return np.where(good, 100 * np.minimum(1.0, share), np.nan)


def wet_bulb(air: ArrayLike, humidity: ArrayLike) -> Floats:
    """The wet-bulb temperature near sea level [°C]; NaN outside the formula's range.

    Args:
        air: temperature [°C].
        humidity: relative [%].
    """
    t, rh = _arrays(air, humidity)
    good = _within(t, STULL_TEMPERATURE) & _within(rh, STULL_HUMIDITY)
    with np.errstate(invalid="ignore"):
        found = (
            t * np.arctan(0.151977 * np.sqrt(rh + 8.313659))
            + np.arctan(t + rh)
            - np.arctan(rh - 1.676331)
            + 0.00391838 * rh**1.5 * np.arctan(0.023101 * rh)
            - 4.686035
        )
    return np.where(good, found, np.nan)


def delta_t(air: ArrayLike, humidity: ArrayLike) -> Floats:
    """Dry bulb less wet bulb [°C]: how fast a droplet dries."""
    return np.asarray(air, dtype=float) - wet_bulb(air, humidity)


def deficit(air: ArrayLike, humidity: ArrayLike) -> Floats:
    """The vapour pressure deficit [kPa]; NaN outside -40 to 50 °C or 0 to 100 %."""
    t, rh = _arrays(air, humidity)
    good = _within(t, DEW_RANGE) & _within(rh, (0.0, 100.0))
    with np.errstate(over="ignore", invalid="ignore"):
        full = 0.6108 * np.exp(17.27 * t / (t + 237.3))
    return np.where(good, full * (1 - rh / 100), np.nan)


def _arrays(one: ArrayLike, other: ArrayLike) -> tuple[Floats, Floats]:
    a, b = np.broadcast_arrays(np.asarray(one, dtype=float), np.asarray(other, dtype=float))
    return a, b


def _within(values: Floats, span: tuple[float, float]) -> NDArray[np.bool_]:
    return (values >= span[0]) & (values <= span[1])
