"""What the sky API takes and gives of where weather comes from, and of how areas are watched."""

from datetime import date, datetime, time
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import FactOut, Line, Name, Out, QuantityIn
from greenmeasure.sky.schemas import FreshOut, Number

LevelName = Literal["low", "usual", "high"]


class StationIn(In):
    """A station as it is set up; `offset` is added to its humidity [%], `fill` the longest gap in hours that is read across."""

    version: int | None = None
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
    """An estimator of wet leaves, and what it found lately."""

    key: str
    text: str
    wet: str


class FetchOut(Out):
    """One asking of a station's service."""

    at: datetime
    ok: bool
    text: str


class AskingOut(Out):
    """A station that is to be asked, or is being asked: since when, and `stuck` where nobody takes it up."""

    since: datetime
    sentence: str
    stuck: bool


class AsideOut(Out):
    """A value that was set aside."""

    at: datetime
    field: str
    value: str
    problem: str
    source: str


class GapOut(Out):
    """A hole in what was measured."""

    begin: datetime
    hours: int
    text: str


class HandOut(Out):
    """A reading by hand."""

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
    version: int
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
    asking: AskingOut | None
    fetches: list[FetchOut]
    gaps: list[GapOut]
    aside: list[AsideOut]
    by_hand: list[HandOut]


class StationsOut(Out):
    """A site's station, None where it has none yet, and what can be picked."""

    site_id: int
    site: str
    station: StationOut | None
    wetness: list[FactOut]
    hand_units: dict[str, list[FactOut]]


class HandIn(In):
    """A reading by hand: `value` with its unit, on a day at a time of the ground's clock; a gauge's is for the whole day."""

    kind: Literal["rain", "soil", "wet", "snow"]
    value: QuantityIn
    on: date
    clock: time | None = None
    area_id: int | None = None
    site_id: int | None = None


class MappedColumnIn(Schema):
    """A column of a file and its unit."""

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
    """A fault of a file, by its line."""

    line: int
    column: str
    value: str
    problem: str


class FieldUnitsOut(Out):
    """A field of weather and its units."""

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


class KeptOut(Out):
    """What of a file was kept."""

    sentence: str
    hours: int
    new: int
    aside: int


class RhythmIn(In):
    """What comes back every week; `days` are weekdays from 0, Monday. Hours kept free have no area."""

    kind: Literal["mow", "water", "quiet"]
    area_id: int | None = None
    site_id: int | None = None
    days: Annotated[list[int], Field(max_length=7)]
    begin: time
    end: time
    why: Name = ""


class RhythmOut(Out):
    """What comes back every week."""

    id: int
    kind: str
    kind_text: str
    area_id: int | None
    area: str
    text: str
    why: str


class WatchIn(In):
    """How an area is watched for a disease; `own` is a threshold in the model's unit, in % for a probability.

    `version` 0 is of a way to watch that nobody has changed yet.
    """

    version: int | None = None
    on: bool = True
    model: str = ""
    susceptible: LevelName = "usual"
    bears: LevelName = "usual"
    history: bool = False
    own: Number = ""


class ModelOut(Out):
    """A disease model to pick."""

    key: str
    name: str
    tier: str
    source: str
    valid: str


class WatchOut(Out):
    """A disease and how an area is watched for it."""

    version: int
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
    """How an area is watched, disease by disease."""

    area_id: int
    site_id: int
    area: str
    grass: str
    watches: list[WatchOut]
    rhythms: list[RhythmOut]
