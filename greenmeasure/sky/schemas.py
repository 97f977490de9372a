"""What the sky API takes and gives. Weather goes out in the club's units, with the words beside the numbers that are drawn."""

from datetime import date, datetime, time
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from greenmeasure.common.schemas import FactOut, Line, Name, Out, QuantityIn

RiskName = Literal["low", "rising", "high", "outside", "too_few"]
FitName = Literal["go", "mind", "unknown", "no"]
VerdictName = Literal["go", "mind", "wait", "no"]
LevelName = Literal["low", "usual", "high"]
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
    """A local day: numbers in the club's units to draw, None where not known; `forecast` the share not yet been."""

    on: date
    label: str
    high: float | None
    low: float | None
    rain: float | None
    wet: float | None
    humidity: float | None
    wind: float | None
    soil: float | None
    et: float | None
    snow: float | None
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
    texts: list[str]
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


class ScoutOut(Out):
    id: int
    area_id: int
    area: str
    on: date
    disease: str
    name: str
    seen: bool
    severity: str
    where: str
    note: str
    by: str


class ClockOut(Out):
    """A regulator on an area: `share` of its target that has run, and where that ends; None where no target is known.

    `track` is the share by day from `since` on; `shape` growth over that of untreated turf at shares from 0 in steps of 0.05.
    """

    area_id: int
    area: str
    product: str
    since: date
    stage: str
    stage_text: str
    share: float | None
    sentence: str
    due: date | None
    earliest: date | None
    latest: date | None
    calendar_first: date | None
    calendar_last: date | None
    school: str
    cautions: list[str]
    track: list[float]
    shape: list[float]


class JobOnStripOut(Out):
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


class FitIn(Schema):
    """What is to go down where; `hours` is how long the job takes."""

    area_id: int
    product_ids: Annotated[list[int], Field(min_length=1, max_length=8)]
    hours: Number = 1


class ReasonOut(Out):
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


class StationIn(Schema):
    """A station as it is set up; `offset` is added to its humidity [%], `fill` the longest gap in hours that is read across."""

    name: Name
    url: Line = ""
    probe_url: Line = ""
    latitude: Number = ""
    longitude: Number = ""
    off_site: bool = False
    offset: Number = 0
    wetness: str = "humidity"
    fill: int = 3


class EstimatorOut(Out):
    key: str
    text: str
    wet: str


class FetchOut(Out):
    at: datetime
    ok: bool
    text: str


class AsideOut(Out):
    at: datetime
    field: str
    value: str
    problem: str
    source: str


class GapOut(Out):
    begin: datetime
    hours: int
    text: str


class HandOut(Out):
    id: int
    at: datetime
    kind: str
    kind_text: str
    text: str
    area: str
    by: str


class StationOut(Out):
    """A station with what came of it: askings, gaps, values set aside, readings by hand."""

    id: int
    name: str
    url: str
    probe_url: str
    latitude: str
    longitude: str
    off_site: bool
    offset: str
    wetness: str
    fill: int
    fresh: FreshOut
    span: str
    estimators: list[EstimatorOut]
    fetches: list[FetchOut]
    gaps: list[GapOut]
    aside: list[AsideOut]
    by_hand: list[HandOut]


class StationsOut(Out):
    """The club's station, None where it has none yet, and what can be picked."""

    station: StationOut | None
    wetness: list[FactOut]
    hand_units: dict[str, list[FactOut]]


class HandIn(Schema):
    """A reading by hand: `value` with its unit, on a day at a time of the ground's clock; a gauge's is for the whole day."""

    kind: Literal["rain", "soil", "wet", "snow"]
    value: QuantityIn
    on: date
    clock: time | None = None
    area_id: int | None = None


class MappedColumnIn(Schema):
    name: str
    unit: str


class MappingIn(Schema):
    """How a table is read; `columns` by field."""

    time: str
    zone: str
    columns: dict[str, MappedColumnIn]
    day_first: bool = False
    shift: int = 0


class FaultOut(Out):
    line: int
    column: str
    value: str
    problem: str


class FieldUnitsOut(Out):
    field: str
    name: str
    units: list[str]


class TakenOut(Out):
    """What a file comes to before it is kept: `against` speaks of the whole of it and keeps it out."""

    kind: Literal["table", "typical"]
    heading: list[str]
    mapping: MappingIn
    fields: list[FieldUnitsOut]
    lines: int
    hours: int
    first: str
    last: str
    faults: list[FaultOut]
    more_faults: int
    against: list[FaultOut]
    refused: bool
    known_already: int
    sentence: str
    sample: list[list[str]]


class KeptOut(Out):
    sentence: str
    hours: int
    new: int
    aside: int


class RhythmIn(Schema):
    """What comes back every week; `days` are weekdays from 0, Monday. Hours kept free have no area."""

    kind: Literal["mow", "water", "quiet"]
    area_id: int | None = None
    days: Annotated[list[int], Field(max_length=7)]
    begin: time
    end: time
    why: Name = ""


class RhythmOut(Out):
    id: int
    kind: str
    kind_text: str
    area_id: int | None
    area: str
    text: str
    why: str


class WatchIn(Schema):
    """How an area is watched for a disease; `own` is a threshold in the model's unit, in % for a probability."""

    on: bool = True
    model: str = ""
    susceptible: LevelName = "usual"
    bears: LevelName = "usual"
    history: bool = False
    own: Number = ""


class ModelOut(Out):
    key: str
    name: str
    tier: str
    source: str
    valid: str


class WatchOut(Out):
    """A disease and how an area is watched for it."""

    disease: str
    name: str
    on: bool
    usual: bool
    model: str
    models: list[ModelOut]
    susceptible: LevelName
    bears: LevelName
    history: bool
    own: str
    threshold: str
    why: str


class WatchesOut(Out):
    area_id: int
    area: str
    grass: str
    watches: list[WatchOut]
    rhythms: list[RhythmOut]


class ScoutIn(Schema):
    """What a scout found; `severity` is how much of the turf shows it [%]."""

    area_id: int
    on: date
    disease: str
    seen: bool
    severity: Number = ""
    where: Name = ""
    note: Line = ""
