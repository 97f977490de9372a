"""Weather in numbers to draw and in words, in the units of an account: °F, mph and inches, or °C, m/s and mm."""

import numpy as np

from core.units import show_number

MPH, INCH = 0.44704, 25.4


UNITS = {
    True: {"air": "°F", "soil": "°F", "rain": "in", "wind": "mph", "humidity": "%", "wet": "h", "et": "in", "snow": "in"},
    False: {"air": "°C", "soil": "°C", "rain": "mm", "wind": "m/s", "humidity": "%", "wet": "h", "et": "mm", "snow": "cm"},
}
"""The units weather is drawn in, US or not."""

PLACES = {"air": 1, "soil": 1, "rain": 2, "wind": 1, "humidity": 0, "wet": 1, "et": 2, "snow": 1}


def in_units(name: str, value: float, us: bool) -> float | None:
    """A value of a field in the unit of US accounts or of others, rounded for drawing; None where it is not known.

    Args:
        name: of the field.
        value: of a field [the unit of `Hours`].
        us: whether to say it in US units.
    """
    if np.isnan(value):
        return None
    if us:
        value = {
            "air": value * 1.8 + 32,
            "soil": value * 1.8 + 32,
            "rain": value / INCH,
            "et": value / INCH,
            "wind": value / MPH,
            "snow": value / 2.54,
        }.get(name, value)
    return round(float(value), PLACES[name])


def told(name: str, value: float, us: bool) -> str:
    """A value of a field in words.

    Args:
        name: of the field.
        value: of a field [the unit of `Hours`].
        us: whether to say it in US units.
    """
    found = in_units(name, value, us)
    return "—" if found is None else f"{show_number(found)} {UNITS[us][name]}"


def warmth(celsius: float, us: bool) -> str:
    """A temperature [°C] in words.

    Args:
        celsius: a temperature [°C].
        us: whether to say it in US units.
    """
    return f"{show_number(round(celsius * 1.8 + 32))} °F" if us else f"{show_number(round(celsius, 1))} °C"


def warmer(kelvin: float, us: bool) -> str:
    """A difference of temperatures [K] in words.

    Args:
        kelvin: a difference of temperatures [K].
        us: whether to say it in US units.
    """
    return f"{show_number(round(kelvin * 1.8, 1))} °F" if us else f"{show_number(round(kelvin, 1))} °C"


def breeze(speed: float, us: bool) -> str:
    """A wind [m/s] in words.

    Args:
        speed: of the wind [m/s].
        us: whether to say it in US units.
    """
    return f"{show_number(round(speed / MPH))} mph" if us else f"{show_number(round(speed, 1))} m/s"


def rainfall(depth: float, us: bool) -> str:
    """A depth of rain [mm] in words."""
    return f"{show_number(round(depth / INCH, 2))} in" if us else f"{show_number(round(depth, 1))} mm"


def degree_day_sum(total: float, us: bool) -> str:
    """A sum of degree days in the trade's unit, °C·d, with °F·d beside it for US accounts; no 32 in it, for it is a difference.

    Args:
        total: of degree days [°C d].
        us: whether to say it in °F·d, too.
    """
    return f"{show_number(round(total))} °C·d" + (f" ({show_number(round(total * 1.8))} °F·d)" if us else "")


def degree_day_part(total: float, goal: float, us: bool) -> str:
    """A sum of degree days of the one that is waited for.

    Args:
        total: of degree days so far [°C d].
        goal: the sum that is waited for [°C d].
        us: whether to say it in °F·d, too.
    """
    beside = f" ({show_number(round(total * 1.8))} of {show_number(round(goal * 1.8))} °F·d)" if us else ""
    return f"{show_number(round(total))} of {show_number(round(goal))} °C·d{beside}"


def degree_day_base(celsius: float, us: bool) -> str:
    """The base of degree days in the trade's unit.

    Args:
        celsius: the base [°C].
        us: whether to say it in °F, too.
    """
    return f"base {show_number(round(celsius, 1))} °C" + (f" ({show_number(round(celsius * 1.8 + 32))} °F)" if us else "")
