"""What the water API takes and gives."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import Line, Out, QuantityIn, StepOut
from greenmeasure.ground.schemas import PlanOut

Number = float | str


class CanIn(In):
    """What one can caught, and its place from the plan's lower left corner, where it was noted."""

    caught: Number
    x: Number = ""
    y: Number = ""


class AuditAskIn(In):
    """Cans out for so many minutes: read as depths in `unit`, or as volumes in a can with a round mouth `mouth` wide.

    `wanted` is the depth that minutes are asked for; places are in `place_unit`.
    """

    cans: Annotated[list[CanIn], Field(max_length=400)]
    unit: str
    mouth: QuantityIn | None = None
    minutes: Number
    heads: Literal["rotor", "spray"] = "rotor"
    wind: QuantityIn | None = None
    place_unit: str = "ft"
    wanted: QuantityIn | None = None


class AuditIn(AuditAskIn):
    """An audit to keep."""

    taken_on: date
    note: Line = ""


class CanOut(Out):
    """One can: its depth in words, its share of the mean, and its place on the plan [m]."""

    number: int
    text: str
    share: float
    state: Literal["dry", "even", "wet"]
    x: float | None
    y: float | None


class RunTimeOut(Out):
    """Minutes for a depth: by the mean, as advised, and until the driest quarter has it; `soak` how to split it."""

    depth: str
    by_mean: str
    advised: str
    by_quarter: str
    soak: str
    parts: int


class AuditOut(Out):
    """What an audit found. `low_quarter` and `christiansen` are in words; `share` draws the first against `reachable`."""

    sentence: str
    rate: str
    low_quarter: str
    christiansen: str
    share: float
    reachable: float
    cans: list[CanOut]
    notes: list[str]
    run: RunTimeOut | None
    working: list[StepOut]


class TaskOut(Out):
    """A task with its area."""

    id: int
    area_id: int
    area: str
    text: str
    made_at: datetime
    done_at: datetime | None
    done_by: str


class AuditKeptOut(Out):
    """A kept audit."""

    id: int
    taken_on: date
    by: str
    note: str
    rate: str
    low_quarter: str
    cans: int
    minutes: str
    in_force: bool
    in_use: bool


class WaterOut(Out):
    """An area's water: the audit in force, the ones before, its open and done tasks, its plan, and how its soil drinks."""

    area: str
    zone: str
    plan: PlanOut | None
    current: AuditOut | None
    of: str
    audits: list[AuditKeptOut]
    tasks: list[TaskOut]
    soil: str


class TaskIn(In):
    """What is to be seen to, a sentence each."""

    texts: Annotated[list[Line], Field(min_length=1, max_length=40)]
