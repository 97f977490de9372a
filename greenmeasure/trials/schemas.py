"""What the API of trials takes and gives."""

from datetime import date
from typing import Annotated

from pydantic import Field

from core.book.trial import MOST_PLOTS, MOST_TREATMENTS
from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import FactOut, Line, Name, Out, QuantityIn
from greenmeasure.ground.schemas import PlanOut, PointOut

Number = float | str


class TreatmentIn(In):
    """One of the things tried: a product of the shelf or none, and in words how it is put down."""

    name: Name
    product_id: Id | None = None
    told: Line = ""


class LayoutIn(In):
    """How the ground is cut. Empty `blocks` is as many as fit; empty `turn` cuts square to the long way, `across` the other.

    `machine_id` is what goes over it: a strip is as wide as its swath at least, or as `least`. `scatter` is by how many marks
    plots treated alike are scored apart.
    """

    area_id: Id
    treatments: Annotated[list[TreatmentIn], Field(max_length=MOST_TREATMENTS)] = []
    machine_id: Id | None = None
    least: QuantityIn | None = None
    blocks: Number = ""
    turn: Word = ""
    seed: Annotated[int, Field(ge=0, le=2**31 - 1)] = 0
    kind: Word = "quality"
    what: Name = ""
    scatter: Number = ""


class TrialIn(LayoutIn):
    """A trial to begin: the layout, its name, and the days after `began_on` on which it is looked at (`0, 7, 14`)."""

    name: Name
    began_on: date | None = None
    days: Line = ""
    note: Line = ""


class TrialChangeIn(In):
    """What may be changed of a trial that has begun."""

    name: Name
    days: Line = ""
    note: Line = ""
    version: int | None = None


class ScoreIn(In):
    """What one plot was scored; empty where it was not."""

    plot_id: Id
    score: Number = ""


class ScoresIn(In):
    """Scores of one day; today, unless a day is said."""

    on: date | None = None
    scores: Annotated[list[ScoreIn], Field(max_length=MOST_PLOTS)] = []


class PlotShapeOut(Out):
    """A plot to draw: its number, its block, the place of its treatment, its rings [m], and where its number stands."""

    number: int
    block: int
    treatment: int
    rings: list[list[PointOut]]
    x: float
    y: float


class LayoutOut(Out):
    """A layout to look at before anything is kept: `shows` says how small a difference it could show."""

    sentence: str
    shows: str
    facts: list[FactOut]
    findings: list[FindingOut]
    plan: PlanOut
    plots: list[PlotShapeOut]
    blocks: int
    most: int
    seed: int
    names: list[str]


class PlotOut(PlotShapeOut):
    """A plot of a trial: its size in words, its spot and its last photograph."""

    id: int
    size: str
    spot_id: int | None
    area_id: int | None
    photo_id: int | None


class TreatmentOut(Out):
    """One of the things tried: how much ground it has, and what went down on that since."""

    id: int
    name: str
    untreated: bool
    area_id: int | None
    product_id: int | None
    product: str
    told: str
    size: str
    plots: str
    past: list[str]


class DifferenceOut(Out):
    """A treatment held against the first, in marks; `text` says it with its interval."""

    treatment: int
    mean: float
    low: float | None
    high: float | None
    shown: bool
    text: str


class ReadingDayOut(Out):
    """What was scored on one day: `means` by treatment, `text` what it shows, `facts` the numbers behind it."""

    on: date
    day: str
    means: list[float | None]
    marks: list[str]
    scores: list[str]
    differences: list[DifferenceOut]
    text: str
    facts: list[FactOut]
    by: str


class TrialLineOut(Out):
    """A trial in a list."""

    id: int
    name: str
    area: str
    area_id: int
    sentence: str
    since: str
    ended: bool


class TrialsOut(Out):
    """The trials, those under way first."""

    sentence: str
    trials: list[TrialLineOut]


class TrialDueOut(Out):
    """A trial whose day to look has come."""

    id: int
    name: str
    area: str
    text: str


class TrialOut(Out):
    """A trial whole. `due` says that its day to look has come, `next` when the next one is."""

    id: int
    version: int
    name: str
    area: str
    area_id: int
    sentence: str
    due: str
    next: str
    began_on: date
    ended: bool
    days: str
    note: str
    by: str
    kind: str
    what: str
    scored: str
    scale: str
    least: float
    most: float
    per: str
    facts: list[FactOut]
    findings: list[FindingOut]
    plan: PlanOut | None
    plots: list[PlotOut]
    treatments: list[TreatmentOut]
    readings: list[ReadingDayOut]


class TrialMapOut(Out):
    """Where the plots of one treatment lie, for a mix sheet: `own` are the places of the treatments that the round is of."""

    trial_id: int
    name: str
    treatment: str
    text: str
    plan: PlanOut
    plots: list[PlotShapeOut]
    names: list[str]
    own: list[int]
