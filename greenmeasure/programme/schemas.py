"""What the API of the programme takes and gives."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from core.season.steps import Timing
from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import FactOut, Line, Name, OptionOut, Out, QuantityIn, QuantityOut, RateOut
from greenmeasure.ground.schemas import PhPlanIn

Number = float | str
TurnNumber = Annotated[int, Field(ge=0, le=100)]
StandName = Literal["late", "due", "coming", "later", "waiting", "done", "skipped", "missed"]


class WhenIn(In):
    """When a step is to be done; which fields count depends on `timing`.

    `begin` and `end` bound it; `every` in days; `monthly` days of the month (`1, 15`); `sum` of degree days over `base`; `soil`
    the temperature that is passed upwards (`rising`) or downwards; `cold` what the air falls under; `disease` whose threshold is
    passed, `every` days apart at the least; `offset` days after what it goes by, below 0 before; `grace` the days a turn has.
    """

    timing: Timing
    begin: date
    end: date | None = None
    every: Number = ""
    monthly: Line = ""
    sum: Number = ""
    base: Number = 0
    soil: QuantityIn | None = None
    rising: bool = True
    cold: QuantityIn | None = None
    disease: Word = ""
    offset: Number = 0
    grace: Number = 7


class StepProductIn(In):
    """A product of a step's mix, or one that may stand in for its first; without a rate by the house's rule."""

    product_id: Id
    target: Name = ""
    rate: QuantityIn | None = None
    instead: bool = False


class StepIn(In):
    """A step: what is put down, when, on which ground, and why.

    Without areas it is for all the ground of a site, a use and a grass, each of which may be left open. It goes by a day of the
    ground (`overseed`), an event or another step where its timing says so.
    """

    version: int | None = None
    name: Name
    when: WhenIn
    products: Annotated[list[StepProductIn], Field(max_length=12)] = []
    area_ids: Annotated[list[Id], Field(max_length=400)] = []
    site_id: Id | None = None
    use: Word = ""
    grass: Word = ""
    anchor: Literal["", "overseed"] = ""
    event_id: Id | None = None
    after_id: Id | None = None
    water: QuantityIn | None = None
    why: Line = ""


class GivenOut(Out):
    """A number with its unit, as a form holds it."""

    value: str
    unit: str


class WhenOut(Out):
    """When a step is to be done, as a form holds it."""

    timing: Timing
    begin: date
    end: date
    every: int
    monthly: str
    sum: float
    base: float
    soil: GivenOut | None
    rising: bool
    cold: GivenOut | None
    disease: str
    offset: int
    grace: int


class StepProductOut(Out):
    """A product of a step's mix."""

    product_id: int
    product: str
    target: str
    rate: RateOut | None
    instead: bool


class MeantStepOut(Out):
    """A step, as a form holds it and in words."""

    id: int
    version: int
    year: int
    name: str
    when: WhenOut | None
    when_text: str
    products: list[StepProductOut]
    mix: str
    area_ids: list[int]
    where: str
    site_id: int | None
    use: str
    grass: str
    anchor: str
    event_id: int | None
    after_id: int | None
    water: QuantityOut | None
    why: str
    differs: str


class TurnOut(Out):
    """A turn of a step on an area: how it stands, its days, and what the gate says of it on its first day.

    `position` and `long` place it in the year, 0 to 1.
    """

    step_id: int
    number: int
    name: str
    area_id: int
    area: str
    stand: StandName
    stand_text: str
    begin: date | None
    end: date | None
    day: str
    why: str
    mix: str
    position: float | None
    long: float
    refused: list[FindingOut]
    warns: list[FindingOut]
    moved: bool
    water: str


class TotalOut(Out):
    """What the year brings to an area of something: done, still meant and what is usual in `text`; shares for the drawing."""

    name: str
    text: str
    share_done: float
    share_meant: float
    low: float
    high: float


class MoneyOut(Out):
    """The money of a year: what is allowed, as typed, and what is spent and to come of it, where there is any."""

    allowed: str
    currency: str
    total: TotalOut | None


class AreaYearOut(Out):
    """The year of one area: its turns, what they bring, what they cost; `growth` by month, 0 to 1."""

    area_id: int
    area: str
    site: str
    grass: str
    turns: list[TurnOut]
    totals: list[TotalOut]
    outings: str
    cost: str
    growth: list[float]


class StepEventOut(Out):
    """A day that steps go by."""

    id: int
    name: str
    on: date
    day: str


class ProgrammeOut(Out):
    """The programme of a year: the state in a sentence, what asks for something, each area's year, its steps and events."""

    year: int
    years: list[int]
    sentence: str
    today: float | None
    acts: list[TurnOut]
    areas: list[AreaYearOut]
    steps: list[MeantStepOut]
    events: list[StepEventOut]
    before: int
    cost: str
    money: MoneyOut


class MoneyIn(In):
    """What may be spent in a year; empty takes it back."""

    year: Annotated[int, Field(ge=2000, le=2100)]
    amount: Word = ""


class StepEventIn(In):
    """An event to keep."""

    name: Name
    on: date


class TurnIn(In):
    """What is set for a turn: another first day, that it is skipped, or neither, which takes back what was set."""

    step_id: Id
    area_id: Id
    number: TurnNumber
    on: date | None = None
    skipped: bool = False
    why: Line = ""


class TurnAskIn(In):
    """Which turn, and the day it would be moved to."""

    step_id: Id
    area_id: Id
    number: TurnNumber
    on: date


class SeasonOutlineOut(Out):
    """An outline to start from: for which turf and wish, where it is from, and its steps in words."""

    key: str
    name: str
    told: str
    source: str
    fits: bool
    steps: list[FactOut]


class SeasonOutlineIn(In):
    """Begin a year's programme from an outline, on some areas."""

    key: Word
    year: Annotated[int, Field(ge=2000, le=2100)]
    area_ids: Annotated[list[Id], Field(max_length=400)] = []


class SoilStepsIn(In):
    """A pH plan of an area, as the soil's page asks for it, whose steps are to stand in the programme."""

    area_id: Id
    plan: PhPlanIn


class CopyIn(In):
    """Copy a year's steps into another."""

    from_year: Annotated[int, Field(ge=2000, le=2100)]
    year: Annotated[int, Field(ge=2000, le=2100)]


class StepOptionsOut(Out):
    """What a step's form offers."""

    timings: list[OptionOut]
    diseases: list[OptionOut]
    outlines: list[SeasonOutlineOut]


class ProgrammeAsked(In):
    """Which year; this one where none is named."""

    year: Annotated[int, Field(ge=2000, le=2100)] | None = None
