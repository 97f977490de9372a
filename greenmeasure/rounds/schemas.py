"""What the rounds API takes and gives."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema

from greenmeasure.common.schemas import Line, Out, QuantityIn, QuantityOut, RuleOut
from greenmeasure.reckon.schemas import JobIn, JobOut, JudgementOut

StatusName = Literal["under_way", "done", "given_up"]


class StartIn(JobIn):
    """`key` is made by the sender; the same key twice starts one round."""

    key: UUID


class TickIn(Schema):
    """`load` 0 is for what is worn."""

    load: int
    act: Line
    done: bool


class TickOut(Out):
    load: int
    act: str
    by: str
    at: datetime


class RoundOut(Out):
    """A round. `next` says what to do now; `loads_done` counts loads whose every act is ticked."""

    id: int
    status: StatusName
    use: str
    sheet: JobOut
    ticks: list[TickOut]
    loads_done: int
    worn: bool
    next: str
    planned: QuantityOut
    planned_area: QuantityOut
    planned_spray: QuantityOut | None
    started_by: str
    started_at: datetime
    entry_id: int | None


class RoundLineOut(Out):
    id: int
    status: StatusName
    title: str
    headline: str
    loads: int
    loads_done: int
    started_by: str
    started_at: datetime


class FinishIn(Schema):
    """What was really used, and the weather it went out in. `wind` and `air` are as typed, with their unit."""

    used: QuantityIn
    treated: QuantityIn
    spray: QuantityIn | None = None
    wind: Line = ""
    air: Line = ""
    note: Line = ""


class ActualOut(Out):
    """What really went down, against the label's range and the plan."""

    rate: str
    judgement: JudgementOut
    rule: RuleOut
    against_plan: str
