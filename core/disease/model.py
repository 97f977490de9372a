"""What all disease models have in common: the weather they read, the series they give, and how far it is to be trusted."""

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike, NDArray

from core.errors import InputError
from core.units import show_number
from core.weather.days import Days
from core.weather.hours import Hours
from core.weather.soil import of_days

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]


class Tier(StrEnum):
    """What a model rests on."""

    PUBLISHED = "published"
    MEMORY = "memory"
    THUMB = "thumb"

    @property
    def text(self) -> str:
        return {
            "published": "a published model",
            "memory": "a published model, its numbers from memory",
            "thumb": "a rule of thumb, no single source",
        }[self.value]


@dataclass(frozen=True)
class Weather:
    """Hours and the local days they make; `number` is the day of each hour, `clock` its hour on the local clock."""

    hours: Hours
    days: Days
    number: NDArray[np.int64]
    clock: NDArray[np.int64]

    @cached_property
    def soil(self) -> Floats:
        """Soil by day [°C], measured before estimated."""
        return of_days(self.days)


@dataclass(frozen=True)
class Series:
    """A model's value for each day, NaN where it has none; `outside` where the weather is beyond its range."""

    values: Floats
    outside: Flags


@dataclass(frozen=True)
class Model:
    """A model: what it foretells, its threshold and unit, what it rests on, and how it is run.

    `share` says that values run from 0 to 1; `rests_on` is how many days, the day itself included, a value is made of;
    `moves` how far its threshold may be moved for an area, None where it stays; `digits` how finely its values are told;
    `yes_or_no` that they are 1 or 0.
    """

    key: str
    disease: str
    name: str
    threshold: float
    unit: str
    tier: Tier
    source: str
    valid: str
    rests_on: int
    run: Callable[[Weather], Series]
    share: bool = False
    moves: tuple[float, float] | None = None
    digits: int = 0
    yes_or_no: bool = False


class Risk(StrEnum):
    """What a value comes to against its threshold, or why there is none."""

    LOW = "low"
    RISING = "rising"
    HIGH = "high"
    OUTSIDE = "outside"
    TOO_FEW = "too_few"

    @property
    def text(self) -> str:
        return {
            "low": "low",
            "rising": "rising",
            "high": "at its threshold",
            "outside": "outside the model's range",
            "too_few": "not enough hours",
        }[self.value]


RISING_FROM = 0.6
"""The share of its threshold from which a value is called rising (ours)."""


def risk_of(value: float, outside: bool, threshold: float) -> Risk:
    """The class of a model's value (in the model's own unit) against a threshold.

    Args:
        value: of a model [its own unit].
        outside: whether the weather is beyond the model's range.
        threshold: of the same model [its own unit].
    """
    if np.isnan(value):
        return Risk.OUTSIDE if outside else Risk.TOO_FEW
    if value >= threshold * (1 - 1e-9):
        return Risk.HIGH
    return Risk.RISING if value >= RISING_FROM * threshold else Risk.LOW


def percent(humidity: ArrayLike) -> Floats:
    """Relative humidity as a model takes it [%].

    Args:
        humidity: one or many [%].

    Raises:
        InputError: all of it is 1 or less, as a fraction is; no air is that dry.
    """
    found = np.asarray(humidity, dtype=float)
    known = found[~np.isnan(found)]
    if known.size and known.max() <= 1.0:
        said = f"A humidity of {show_number(float(known.max()))} % is a fraction: the models take per cent."
        raise InputError("humidity", float(known.max()), said, "Multiply it by 100.")
    return found


def rolling_mean(values: Floats, days: int, least: int | None = None) -> Floats:
    """The mean of each day with the days before it, `days` in all; NaN where fewer than `least` are known, all unless told.

    Args:
        values: by hour or day [any one unit].
        days: how many days or hours back.
        least: how many of them must be known.
    """
    known, end = ~np.isnan(values), np.arange(1, len(values) + 1)
    begin = np.maximum(0, end - days)
    total = np.concatenate([[0.0], np.cumsum(np.where(known, values, 0.0))])
    held = np.concatenate([[0], np.cumsum(known)])
    count = held[end] - held[begin]
    return np.where(count >= (least or days), (total[end] - total[begin]) / np.maximum(1, count), np.nan)


def earlier(values: Floats, days: int) -> Floats:
    """Each day's value so many days before it; NaN on the first of them.

    Args:
        values: by hour or day [any one unit].
        days: how many days or hours back.
    """
    return np.concatenate([np.full(min(days, len(values)), np.nan), values[:-days]])


def rolling_count(flags: Floats, days: int) -> Floats:
    """How many of the last `days` days are flagged (1 or 0); NaN where one of them is not known.

    Args:
        flags: by hour or day [1 or 0].
        days: how many days or hours back.
    """
    return rolling_mean(flags, days) * days


def flagged(condition: Flags, *known: Floats) -> Floats:
    """A condition as 1 or 0, NaN where what it asks of is not known."""
    missing = np.logical_or.reduce([np.isnan(k) for k in known])
    return np.where(missing, np.nan, condition.astype(float))


def plain(values: Floats) -> Series:
    """A series of a model that has no range of its own.

    Args:
        values: of a series [its own unit].
    """
    return Series(values, np.zeros(len(values), dtype=bool))
