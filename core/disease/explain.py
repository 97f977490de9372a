"""How a model came to a day's value: what it was made of, a line each, from the weather to the number.

Models with a formula tell the formula with its numbers in it; the others tell the days they counted.
"""

from collections.abc import Callable

import numpy as np

from core.disease import anthracnose_danneberger, brown_patch_fidanza, dollar_spot_smith_kerns
from core.disease.model import Model, Weather, rolling_mean
from core.disease.pythium_blight_nutter import humid_hours
from core.disease.rules_of_thumb import BACK
from core.disease.soil_triggers import SEASON, season_mean
from core.units import show_number
from core.weather.words import rainfall, warmth

Line = tuple[str, str]


def explain(model: Model, weather: Weather, day: int, us: bool) -> list[Line]:
    """What a day's value is made of, as names and what they are.

    Args:
        model: whose value.
        weather: what it was run over.
        day: the day's number.
        us: whether to speak in US units.
    """
    known = _hours_line(model, weather, day)
    how = _HOW.get(model.key)
    return [*(how(weather, day, us) if how else _days(model, weather, day, us)), known]


def _hours_line(model: Model, weather: Weather, day: int) -> Line:
    days = weather.days
    back = min(model.rests_on, 10)
    first = max(0, day - back + 1)
    known, length = int(days.known[first : day + 1].sum()), int(days.length[first : day + 1].sum())
    foretold = float(np.mean(days.forecast[first : day + 1]))
    said = f"{known} of {length} hours known"
    return ("Rests on", f"{said}, {round(foretold * 100)} % of them forecast" if foretold else said)


def _pick(value: float, digits: int = 1) -> str:
    return "not known" if np.isnan(value) else show_number(round(float(value), digits), 5)


def _sign(value: float) -> str:
    return str(value).replace("-", "−")


def _smith_kerns(weather: Weather, day: int, us: bool) -> list[Line]:
    air = float(rolling_mean(weather.days.air, 5)[day])
    humidity = float(rolling_mean(weather.days.humidity, 5)[day])
    k = dollar_spot_smith_kerns
    logit = k.INTERCEPT + k.PER_DEGREE * air + k.PER_PERCENT * humidity
    p = float(k.probability(air, humidity))
    terms = f"{k.PER_DEGREE} × {_pick(air, 2)} + {k.PER_PERCENT} × {_pick(humidity, 2)}"
    return [
        ("Mean air of five days", "not known" if np.isnan(air) else _both(air, us)),
        ("Mean humidity of five days", f"{_pick(humidity)} %"),
        ("Sum", f"{_sign(k.INTERCEPT)} + {terms} = {_pick(logit, 3)}"),
        ("Probability", f"1 ÷ (1 + e^−({_pick(logit, 3)})) = {_pick(p * 100)} %"),
    ]


def _both(celsius: float, us: bool) -> str:
    return f"{_pick(celsius, 2)} °C ({warmth(celsius, True)})" if us else f"{_pick(celsius, 2)} °C"


def _fidanza(weather: Weather, day: int, us: bool) -> list[Line]:
    low, humidity = float(weather.days.low[day]), float(weather.days.humidity[day])
    k = brown_patch_fidanza
    index = float(k.index(low, humidity))
    return [
        ("Lowest air of the day", "not known" if np.isnan(low) else _both(low, us)),
        ("Mean humidity of the day", f"{_pick(humidity)} %"),
        (
            "Index",
            f"{_sign(k.INTERCEPT)} + {k.PER_PERCENT} × {_pick(humidity)} + {k.PER_DEGREE} × {_pick(low)} "
            f"− {-k.PER_SQUARE} × {_pick(low)}² = {_pick(index, 2)}",
        ),
    ]


def _danneberger(weather: Weather, day: int, us: bool) -> list[Line]:
    wet = float(rolling_mean(weather.days.wet, 3)[day])
    air = float(rolling_mean(weather.days.air, 3)[day])
    index = float(anthracnose_danneberger.severity(wet, air))
    return [
        ("Wet leaf, mean of three days", f"{_pick(wet)} h a day"),
        ("Mean air of three days", "not known" if np.isnan(air) else _both(air, us)),
        ("Index", f"of {_pick(wet)} h and {_pick(air)} °C = {_pick(index, 2)}"),
    ]


def _nutter(weather: Weather, day: int, us: bool) -> list[Line]:
    humid, low = humid_hours(weather)
    before = day - 1
    if before < 0:
        return []
    high = weather.days.high[before]
    return [
        ("High of the day before", _held(high, us, f"above {warmth(30.0, us)} counts")),
        ("Low from its noon to noon", _held(low[before], us, f"{warmth(20.0, us)} and more counts")),
        ("Hours above 90 % humidity in it", _pick(humid[before])),
    ]


def _held(celsius: float, us: bool, rule: str) -> str:
    return "not known" if np.isnan(celsius) else f"{warmth(float(celsius), us)}; {rule}"


def _soil(weather: Weather, day: int, us: bool) -> list[Line]:
    here = weather.soil
    season = float(season_mean(here)[day])
    mean = float(rolling_mean(here, 5)[day])
    measured = int((~np.isnan(weather.days.soil[max(0, day - 4) : day + 1])).sum())
    how = "measured" if measured == 5 else "estimated from the air" if not measured else f"measured on {measured} of them"
    known = int((~np.isnan(here[max(0, day - SEASON + 1) : day + 1])).sum())
    few = f"{known} days of soil are known; a month of them tells the season"
    trend = "rising" if mean > season else "falling" if mean < season else "neither rising nor falling"
    return [
        ("Mean soil of five days", "not known" if np.isnan(mean) else f"{warmth(mean, us)}, {how}"),
        ("Mean soil of two months", few if np.isnan(season) else f"{warmth(season, us)}: the season is {trend}"),
    ]


def _days(model: Model, weather: Weather, day: int, us: bool) -> list[Line]:
    """The days that a counting model looks at, the latest first."""
    days, lines = weather.days, []
    for i in range(day, max(-1, day - min(model.rests_on, BACK)), -1):
        if np.isnan(days.air[i]):
            lines.append((f"{days.day(i):%a %d}", "not known"))
            continue
        span = f"{warmth(float(days.low[i]), us)} to {warmth(float(days.high[i]), us)}"
        parts = [span, f"{_pick(days.humidity[i], 0)} % humidity", f"{_pick(days.wet[i], 0)} h wet"]
        if days.rain[i] > 0:
            parts.append(f"{rainfall(float(days.rain[i]), us)} of rain")
        lines.append((f"{days.day(i):%a %d}", ", ".join(parts)))
    return lines


_HOW: dict[str, Callable[[Weather, int, bool], list[Line]]] = {
    "smith_kerns": _smith_kerns,
    "fidanza": _fidanza,
    "danneberger": _danneberger,
    "nutter": _nutter,
    **dict.fromkeys(
        (
            "soil_summer_patch",
            "soil_necrotic_ring_spot",
            "soil_spring_dead_spot",
            "soil_large_patch",
            "soil_take_all_patch",
            "soil_fairy_ring",
        ),
        _soil,
    ),
}
