"""Weather in words, in the units of a club: °F, mph and inches, or °C, m/s and mm."""

from core.units import show_number

MPH, INCH = 0.44704, 25.4


def warmth(celsius: float, us: bool) -> str:
    """A temperature [°C] in words."""
    return f"{show_number(round(celsius * 1.8 + 32))} °F" if us else f"{show_number(round(celsius, 1))} °C"


def warmer(kelvin: float, us: bool) -> str:
    """A difference of temperatures [K] in words."""
    return f"{show_number(round(kelvin * 1.8, 1))} °F" if us else f"{show_number(round(kelvin, 1))} °C"


def breeze(speed: float, us: bool) -> str:
    """A wind [m/s] in words."""
    return f"{show_number(round(speed / MPH))} mph" if us else f"{show_number(round(speed, 1))} m/s"


def rainfall(depth: float, us: bool) -> str:
    """A depth of rain [mm] in words."""
    return f"{show_number(round(depth / INCH, 2))} in" if us else f"{show_number(round(depth, 1))} mm"


def degree_day_sum(total: float, us: bool) -> str:
    """A sum of degree days [°C·d] in words; no 32 in it, for it is a difference."""
    return f"{show_number(round(total * 1.8))} °F·d" if us else f"{show_number(round(total))} °C·d"
