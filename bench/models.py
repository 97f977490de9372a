"""All disease models over thirty years of hours against pandas' rolling means and against one pass of daily means."""

from zoneinfo import ZoneInfo

import numpy as np
import pandas as pd

from bench.timing import best
from core.disease.model import Weather
from core.disease.registry import MODELS
from core.tests.weather import weather_of
from core.weather.hours import FIELDS, Hours

ZONE = ZoneInfo("America/New_York")
START = np.datetime64("2001-01-01T05", "h")


def years(count: int) -> Hours:
    """So many years of made-up weather with seasons, days and some rain."""
    hours = np.arange(count * 8766)
    random = np.random.default_rng(7)
    season = np.sin(2 * np.pi * (hours / 8766 - 0.3))
    daily = np.sin(2 * np.pi * (hours / 24 - 0.4))
    air = 12 + 12 * season + 5 * daily + random.normal(0, 2, len(hours))
    humidity = np.clip(75 - 12 * daily + random.normal(0, 8, len(hours)), 5, 100)
    rain = np.where(random.random(len(hours)) < 0.05, random.exponential(2, len(hours)), 0.0)
    unknown = np.full(len(hours), np.nan)
    known = {"air": air, "humidity": humidity, "rain": rain, "wind": np.full(len(hours), 2.0)}
    return Hours(START, **{name: known.get(name, unknown) for name in FIELDS}, forecast=np.zeros(len(hours), dtype=bool))


def run_all(weather: Weather) -> list[object]:
    """Every model over a weather."""
    return [m.run(weather) for m in MODELS.values()]


def by_pandas(found: Hours) -> pd.Series:
    """One of the models, the logistic one, as one would write it with pandas."""
    index = pd.DatetimeIndex(found.times).tz_localize("UTC").tz_convert(ZONE)
    frame = pd.DataFrame({"air": found.air, "humidity": found.humidity}, index=index)
    daily = frame.resample("D").mean()
    five = daily.rolling(5, min_periods=5).mean()
    logit = -11.4041 + 0.1932 * five.air + 0.0894 * five.humidity
    return 1 / (1 + np.exp(-logit))


def run() -> None:
    """Print the ratios."""
    thirty = years(30)
    weather = weather_of(thirty, ZONE)
    whole = best(lambda: weather_of(thirty, ZONE))
    models = best(lambda: run_all(weather))
    one = best(lambda: MODELS["smith_kerns"].run(weather))
    pandas = best(lambda: by_pandas(thirty))
    pass_ = best(lambda: thirty.air[: len(thirty) // 24 * 24].reshape(-1, 24).mean(axis=1))
    found = MODELS["smith_kerns"].run(weather).values
    theirs = by_pandas(thirty).to_numpy()[: len(found)]
    both = ~np.isnan(found) & ~np.isnan(theirs[: len(found)])
    off = float(np.abs(found[both] - theirs[: len(found)][both]).max())
    print(f"{len(MODELS)} models over 30 years of hours / one by pandas        {models / pandas:.2f}x  (they agree to {off:.0e})")
    print(f"days and wetness of 30 years / one model by pandas       {whole / pandas:.2f}x")
    print(f"one model over its days / one pass of daily means        {one / pass_:.1f}x")
    ten = weather_of(years(10), ZONE)
    print(f"30 years / 10 years                                      {models / best(lambda: run_all(ten)):.1f}x  (linear is 3x)")
