"""Ten made-up years that plans are held against: the seeded weather that ships as a stand-in for a weather service.

They are the same for everybody and no weather of the account: they show how schools fare in wet and dry years, not what its
ground will get.
"""

from functools import lru_cache
from statistics import median
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from core.disease.model import Weather
from core.disease.registry import MODELS
from core.season.cover import at_risk
from core.season.rivals import Fared, Key, by_threshold, fared
from core.weather.days import clock, days_of
from core.weather.hours import HOUR, Hours
from core.weather.wetness import Wetness, wet_hours
from greenmeasure.planner.facts import Year
from greenmeasure.planner.schemas import ExamRowOut
from greenmeasure.planner.words import NAMES, money, range_text
from greenmeasure.sky.watching import all_watched
from sims.climate import Place, weather

Floats = NDArray[np.float64]
SEEDS = tuple(range(101, 111))
RUN_UP = 60
"""Days before a year that its models look back on."""


@lru_cache(maxsize=4)
def made_up(seed: int, year: int, zone: str) -> Weather:
    """A made-up year with the days before it, by the clock of a place."""
    start = np.datetime64(f"{year}-01-01T00", "h") - RUN_UP * 24 * HOUR
    times = np.arange(start, np.datetime64(f"{year + 1}-01-02T00", "h"))
    told, unknown = weather(times, Place(seed=seed)), np.full(len(times), np.nan)
    named = {name: told[name] for name in ("air", "humidity", "rain", "wind", "soil", "snow", "dew")}
    hours = Hours(start, **named, wet=unknown, forecast=np.zeros(len(times), dtype=bool), aside=())
    number, at, first = clock(hours, ZoneInfo(zone))
    days = days_of(hours, ZoneInfo(zone), number, first, wet_hours(hours, Wetness.HUMIDITY))
    return Weather(hours, days, number, at)


@lru_cache(maxsize=400)
def _risky(seed: int, year: int, zone: str, model: str, threshold: float) -> tuple[int, Floats]:
    """A model's risk days in a made-up year, 1 and 0, and the ordinal of their first day."""
    found = made_up(seed, year, zone)
    return found.days.first.toordinal(), at_risk(MODELS[model].run(found).values, threshold).astype(float)


def years(year: Year) -> list[dict[Key, Floats]]:
    """The risk days of each made-up year on every area that is planned, by the models and thresholds it is watched by."""
    found: list[dict[Key, Floats]] = []
    for seed in SEEDS:
        risk: dict[Key, Floats] = {}
        for name, area in year.areas.items():
            zone = str(area.site.zone)
            for w in all_watched(year.account).get(area.pk, []):
                if (name, w.disease) in year.risk:
                    first, values = _risky(seed, year.ask.year, zone, w.model.key, w.threshold.value)
                    at = year.ask.first.toordinal() - first
                    risk[name, w.disease] = values[at : at + year.ask.days]
        found.append(risk)
    return found


def exam(year: Year, plans: dict[str, tuple[tuple[int, int], ...]], currency: str) -> list[ExamRowOut]:
    """How plans fare in each made-up year; the threshold goes by each year's own risk."""
    every = years(year)
    if not every or not every[0]:
        return []
    rows = {key: [fared(year.problem, chosen, risk) for risk in every] for key, chosen in plans.items()}
    rows["threshold"] = [fared(year.problem, by_threshold(year.problem, risk), risk) for risk in every]
    return [_row(key, found, currency, year.ask.by_cost) for key, found in rows.items()]


def _row(key: str, found: list[Fared], currency: str, by_cost: bool) -> ExamRowOut:
    bare = sorted(f.bare for f in found)
    cost, times = sorted(f.cost for f in found), sorted(f.applications for f in found)
    low, middle, high = bare[0], median(bare), bare[-1]
    return ExamRowOut(
        key=key,
        name=NAMES[key][0],
        applications=range_text(times[0], median(times), times[-1]) if times[0] != times[-1] else f"{times[0]}",
        cost=money(cost[0], currency, by_cost)
        if cost[0] == cost[-1]
        else f"{range_text(cost[0], median(cost), cost[-1])} {currency if by_cost else 'kg'}",
        bare=range_text(low, middle, high),
        low=low,
        middle=middle,
        high=high,
    )
