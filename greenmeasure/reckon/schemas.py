"""What the reckon API takes and gives: one job whole, and the reckon line."""

from typing import Literal

from ninja import Schema

from greenmeasure.common.schemas import Line, Out, QuantityIn, QuantityOut, RateOut, RuleOut, StepOut

StandName = Literal["within", "below", "above"]


class JobIn(Schema):
    """One job. `rate` is what was chosen, in the unit of the product's rate row or one like it."""

    product_id: int
    row_id: int
    rate: QuantityIn
    area_id: int
    machine_id: int | None = None
    passes: int = 1
    even: bool = False


class VesselOut(Out):
    """A vessel to draw: `marks` are its numbered graduations."""

    key: str
    name: str
    shape: Literal["syringe", "cup", "jug", "scale"]
    unit: str
    capacity: float
    graduation: float
    marks: list[float]


class MeasureOut(Out):
    """`instruction` is what the hand does; `rounding` and `reading` are its two errors, as text."""

    vessel: VesselOut
    fills: int
    mark: float
    mark_text: str
    instruction: str
    exact: str
    rounding: str
    reading: str
    coarse: bool
    note: str


class ActOut(Out):
    """One act of filling; `level` is the share of the machine's capacity that the tank holds after it."""

    key: str
    text: str
    pours: str
    level: float


class LoadOut(Out):
    number: int
    name: str
    pass_number: int
    odd: bool
    product: str
    volume: str
    water: str
    covers: str
    share: float
    measure: MeasureOut
    acts: list[ActOut]


class JudgementOut(Out):
    stand: StandName
    refused: bool
    word: str
    sentence: str


class DeliveredOut(Out):
    name: str
    total: str
    per_foot: str


class CostOut(Out):
    total: str
    per_foot: str
    foot: str


class CautionOut(Out):
    key: str
    text: str


class WearOut(Out):
    key: str
    when: Literal["mixing", "applying"]
    text: str


class JobOut(Out):
    """One job, reckoned. `headline` says it in a sentence; `amount` is the whole dose."""

    headline: str
    product: str
    product_kind: str
    area: str
    area_size: str
    machine: str
    passes: int
    rate: RateOut
    label: str
    rule: RuleOut
    judgement: JudgementOut
    amount: QuantityOut
    also: list[str]
    spray: str
    capacity: str
    loads: list[LoadOut]
    whole: MeasureOut
    rounding: str
    measured_rate: str
    delivered: list[DeliveredOut]
    cost: CostOut | None
    cost_why_not: str
    warnings: list[str]
    label_first: str
    cautions: list[CautionOut]
    wear: list[WearOut]
    working: list[StepOut]


class Nothing(Out):
    """No answer at all."""


class LineIn(Schema):
    line: Line


class LineOut(Out):
    """The answer to a reckon line. `job` is there when the line names all that a round needs."""

    kind: Literal["dose", "reach", "conversion"]
    sentence: str
    details: list[str]
    working: list[StepOut]
    job: JobIn | None
