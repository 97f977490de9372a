"""What the door of the plan takes and gives."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import Id, In
from greenmeasure.common.errors import ErrorOut
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import Out

Number = float | str
Wish = Literal["cost", "product"]


class OffIn(In):
    """Days on which nobody goes out, the first and the last among them."""

    begin: date
    end: date


class PlanAskIn(In):
    """What is to be planned, and how.

    `risk_days` is how many risk days an application must protect to be worth it; `weekdays` those on which people go out, Monday
    0; `hours` how long they are out on such a day, open where empty; `outing` what going out with a machine costs, `labour` an
    hour of work; `buy` whether more than the shelf holds may be bought; `release` plans anew what was moved by hand, too.
    """

    year: Annotated[int, Field(ge=2000, le=2100)]
    area_ids: Annotated[list[Id], Field(max_length=400)] = []
    wish: Wish = "cost"
    protect: bool = True
    feed: bool = True
    risk_days: Number = 3
    weekdays: Annotated[list[Annotated[int, Field(ge=0, le=6)]], Field(max_length=7)] = [1]
    off: Annotated[list[OffIn], Field(max_length=20)] = []
    hours: Number = ""
    outing: Number = 20
    labour: Number = 25
    buy: bool = True
    release: bool = False


class PlanChoiceIn(In):
    """One application of a plan: a product by a row of its label, on an area, on a day."""

    area_id: Id
    product_id: Id
    row_id: Id
    on: date


class PlanTakeIn(In):
    """A plan that is taken: what was asked, and what of it is to become steps of the programme."""

    ask: PlanAskIn
    choices: Annotated[list[PlanChoiceIn], Field(max_length=2000)]


class PlanProgressOut(Out):
    """How far the making of a plan is: `share` of it that is done, 0 to 1, and that in words."""

    share: float
    text: str


class OtherChoiceOut(Out):
    """Another choice in the place of one, and why it was not taken."""

    name: str
    text: str


class PlannedChoiceOut(Out):
    """One application of a plan: what, how much, why, and what else could have been."""

    area_id: int
    area: str
    product_id: int
    row_id: int
    product: str
    against: str
    rate: str
    amount: str
    cost: str
    why: str
    others: list[OtherChoiceOut]
    warns: list[FindingOut]


class PlannedOutingOut(Out):
    """What goes out with one machine on one day; `position` in the planned time, 0 to 1."""

    on: date
    day: str
    machine: str
    text: str
    position: float
    choices: list[PlannedChoiceOut]


class RivalOut(Out):
    """A plan beside others: how often something goes down, outings, cost, product and risk days without cover, in words.

    `bare_share` is for drawing, of the risk days there are.
    """

    key: str
    name: str
    told: str
    applications: int
    outings: int
    cost: str
    product: str
    bare: str
    bare_share: float


class BareOut(Out):
    """Risk that stays uncovered on an area, and what would have to give."""

    what: str
    text: str
    why: str


class ExamRowOut(Out):
    """How a school would have fared over ten made-up years: the middle year, and the least and the most."""

    key: str
    name: str
    applications: str
    cost: str
    bare: str
    low: float
    middle: float
    high: float


class MadePlanOut(Out):
    """A plan that was made; nothing is kept until it is taken."""

    sentence: str
    proof: str
    proven: bool
    first: date
    last: date
    outings: list[PlannedOutingOut]
    rivals: list[RivalOut]
    bare: list[BareOut]
    change: str
    changes: list[str]
    contradictions: list[str]
    notes: list[str]
    choices: list[PlanChoiceIn]


class PlanEventOut(Out):
    """A line of the answer: how far it is, the plan, how it would have fared, or what went wrong."""

    progress: PlanProgressOut | None = None
    plan: MadePlanOut | None = None
    exam: list[ExamRowOut] | None = None
    error: ErrorOut | None = None


class PlanOptionsOut(Out):
    """What the form of a plan begins with: the years that can be planned, and the weekday most outings were on."""

    years: list[int]
    weekday: int
    currency: str
    made: int
