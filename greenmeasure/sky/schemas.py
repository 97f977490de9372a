"""What the sky API takes and gives. Weather goes out in the account's units, with the words beside the numbers that are drawn."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import FactOut, OptionOut, Out
from greenmeasure.scouting.schemas import ScoutOut

RiskName = Literal["low", "rising", "high", "outside", "too_few"]
FitName = Literal["go", "mind", "unknown", "no"]
VerdictName = Literal["go", "mind", "wait", "no"]
Number = float | str


class FreshOut(Out):
    """How fresh the weather is. `state` none where nothing is known; `problem` is why the last asking failed, if it did.

    `air` and `wind` are those of this hour in words, empty where they are not known or the weather is old.
    """

    state: Literal["fresh", "stale", "none"]
    sentence: str
    station: str
    last: datetime | None
    issued: datetime | None
    problem: str
    air: str = ""
    wind: str = ""


class DayOfWeatherOut(Out):
    """A local day: numbers in the account's units to draw, None where not known; `forecast` the share not yet been."""

    on: date
    label: str
    high: float | None
    low: float | None
    rain: float | None
    wet: float | None
    humidity: float | None
    wind: float | None
    soil: float | None
    forecast: float
    said: str


class RiskOut(Out):
    """A disease on an area today, and the worst of the week to come. `share` and `peak_share` are of the threshold."""

    area_id: int
    area: str
    disease: str
    name: str
    model: str
    tier: str
    now: RiskName
    now_text: str
    share: float | None
    peak: RiskName
    peak_text: str
    peak_share: float | None
    peak_day: str
    threshold: str
    covered_until: date | None
    sentence: str


class SkyOut(Out):
    """The sky as a whole: the state in a sentence, the days to come, and every watched disease, the gravest first."""

    sentence: str
    fresh: FreshOut
    units: dict[str, str]
    week: list[DayOfWeatherOut]
    risks: list[RiskOut]
    quiet: int
    aside: int
    gaps: int
    filled: int


class StripRiskOut(Out):
    """A disease over the days of the strip: values as shares of the threshold, None where the model has none, and why."""

    disease: str
    name: str
    model: str
    model_name: str
    tier: str
    source: str
    valid: str
    threshold: str
    why: str
    shares: list[float | None]
    states: list[RiskName]
    score: str
    others: list[str]


class CoverOut(Out):
    """An application's cover against the diseases it lists."""

    product: str
    codes: str
    on: date
    least: date
    until: date
    most: date
    against: list[str]
    sentence: str


class ClockOut(Out):
    """A regulator on an area: `share` of its target that has run, and where that ends; None where no target is known.

    `upto` is the last day that could be counted, before today where the weather ends earlier; `lacks` says why nothing is told
    of the target. `own` is a target that was set here [°C·d] over a `base` [°C], for an `active`; `offered` the known ones as
    sum and base; `season` the season's running total and what it was on the day it went down; `together` what is to be minded
    where several classes are at work. `track` is the share by day from `since` on; `shape` growth over that of untreated turf at
    shares from 0 in steps of 0.05.
    """

    product_id: int | None
    area_id: int
    area: str
    product: str
    since: date
    stage: str
    share: float | None
    sentence: str
    due: date | None
    earliest: date | None
    latest: date | None
    calendar_first: date | None
    calendar_last: date | None
    school: str
    cautions: list[str]
    upto: date | None
    lacks: str
    track: list[float]
    shape: list[float]
    active: str
    version: int
    own: str
    base: str
    offered: list[OptionOut]
    season: str
    together: str


class HoldIn(In):
    """A target of one's own for an active on an area [°C·d] over a base [°C]; empty for the known one again."""

    version: int | None = None
    own: float | str = ""
    base: float | str = "0"


class JobOnStripOut(Out):
    """A planned window on the strip."""

    on: date
    text: str
    state: str


class StripOut(Out):
    """One time axis for an area: days with their weather, risks against thresholds, covers, scout reports, clocks, jobs."""

    area_id: int
    area: str
    fresh: FreshOut
    units: dict[str, str]
    today: int
    days: list[DayOfWeatherOut]
    risks: list[StripRiskOut]
    covers: list[CoverOut]
    scouts: list[ScoutOut]
    clocks: list[ClockOut]
    jobs: list[JobOnStripOut]


class SkyHourOut(Out):
    """An hour of a day, in words."""

    at: datetime
    label: str
    air: str
    humidity: str
    dew: str
    wet_bulb: str
    delta: str
    deficit: str
    rain: str
    wind: str
    wet: str
    soil: str
    forecast: bool


class ExplainOut(Out):
    """How a model came to the day's value."""

    disease: str
    name: str
    model: str
    value: str
    state: RiskName
    state_text: str
    lines: list[FactOut]


class SkyDayOut(Out):
    """A day unfolded: its hours, its sums, leaf wetness by each estimator, and how each model came to its value."""

    on: date
    label: str
    facts: list[FactOut]
    hours: list[SkyHourOut]
    models: list[ExplainOut]


class LongOut(Out):
    """One field hour by hour, from `start` on; None where not known. `foretold` is the place where the forecast begins."""

    field: str
    name: str
    unit: str
    start: datetime
    foretold: int
    values: list[float | None]


class FitIn(In):
    """What is to go down where; `hours` is how long the job takes."""

    area_id: int
    product_ids: Annotated[list[int], Field(min_length=1, max_length=12)]
    hours: Number = 1


class ReasonOut(Out):
    """What an hour has for or against it."""

    key: str
    fit: FitName
    text: str


class FitHourOut(Out):
    """One hour: how fit it is and why, with what it is drawn by."""

    at: datetime
    day: str
    hour: int
    fit: FitName
    reasons: list[ReasonOut]
    air: str
    wind: str
    rain: str


class WindowOut(Out):
    """A run of fit hours: `begin` to `end`, in words, and what is to be minded in it."""

    begin: datetime
    end: datetime
    text: str
    hours: int
    good: bool
    minds: list[str]


class FitOut(Out):
    """Hours fit to work over the days to come, the windows ranked."""

    verdict: VerdictName
    sentence: str
    asks: list[FactOut]
    contradictions: list[str]
    windows: list[WindowOut]
    hours: list[FitHourOut]
    change: str
    water_in: list[str]
    doubt: str
    fresh: FreshOut


class SchoolReplayOut(Out):
    """What one school would have done over the season."""

    days: list[date]
    sprays: int
    cost: str
    unprotected: int


class SchoolsOut(Out):
    """Two schools over a season that has been; `first` and `shares` draw its risk."""

    sentence: str
    season: str
    area: str
    disease: str
    product: str
    first: date
    shares: list[float | None]
    risk_days: int
    unknown_days: int
    calendar: SchoolReplayOut
    threshold: SchoolReplayOut
    notes: list[str]


LockName = Literal["water", "mow", "walk", "seed"]


class LockOut(Out):
    """Something that must not happen on a ground until a time: `water`, `mow`, `walk` or `seed`.

    `left` is how long that is from the time that was asked for [s]; `binds` where breaking it is refused; `broken_at` is the
    first hour in which what comes back every week would break it.
    """

    area_id: int
    where: str
    what: LockName
    until: datetime
    until_text: str
    left: int
    product: str
    binds: bool
    broken_at: datetime | None
    sentence: str
