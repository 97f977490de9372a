"""What the reckon API takes and gives: one job whole, the sum backwards, products compared, measuring, and the reckon line."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from core.job.reckon import MOST_MIXED
from core.tank.vessels import Shape
from greenmeasure.common.bounds import In
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.judgements import JudgementOut
from greenmeasure.common.schemas import FactOut, Line, Name, OptionOut, Out, QuantityIn, QuantityOut, RateOut, RuleOut, StepOut


class DoseIn(In):
    """The rate of one component on one ground, by a row of its label; a dye without either goes in to taste."""

    row_id: int | None = None
    rate: QuantityIn | None = None


class ComponentIn(In):
    """One product of a mix; `target` is what it is for."""

    product_id: int
    target: Name = ""


class PartIn(In):
    """One area of a job with the rate of each component, in the mix's order. Rates are in the unit of their row or one like it.

    `share` (`1/2`, `20 %`) or `treated` narrows it to a part of the area, or `spray` to what that much of it reaches; `zone` is
    the part's name.
    """

    area_id: int
    doses: Annotated[list[DoseIn], Field(min_length=1, max_length=MOST_MIXED)]
    treated: QuantityIn | None = None
    share: str = ""
    spray: QuantityIn | None = None
    zone: Name = ""


class SaidIn(In):
    """What somebody looked at: the leaf, the air, the wind, the soil, and whether rain fell before or is coming after."""

    leaf: Literal["", "dry", "wet"] = ""
    air: QuantityIn | None = None
    wind: QuantityIn | None = None
    soil: QuantityIn | None = None
    dry_before: bool = False
    dry_after: bool = False


CrossingName = Literal["", "crosswise", "diagonal", "offset"]


class JobIn(In):
    """One job: a mix on one or many areas. One product is a mix of one.

    `on` is its day and `clock` its hour there (`07:30`); it is now, unless either is said. `said` is what
    somebody looked at, and goes before what the weather tells. With `by_pass` each pass is filled for itself;
    `crossing` is how a further pass lies to the one before.
    Of a hose-end `dial` is where it stands, a volume per volume of spray, and `undiluted` puts the product in as it is.
    With `spots` it treats spots all over its areas. `outing_id` is the outing that it is a job of: what else that puts down
    is not held against it.
    """

    mix: Annotated[list[ComponentIn], Field(min_length=1, max_length=MOST_MIXED)]
    parts: Annotated[list[PartIn], Field(min_length=1, max_length=60)]
    machine_id: int | None = None
    passes: int = 1
    even: bool = False
    by_pass: bool = False
    crossing: CrossingName = ""
    dial: QuantityIn | None = None
    undiluted: bool = False
    spots: bool = False
    on: date | None = None
    clock: Annotated[str, Field(max_length=8)] = ""
    said: SaidIn | None = None
    outing_id: int | None = None


class AgainOut(Out):
    """An application as it would be planned now, and what of it is not as it was."""

    job: JobIn
    notes: list[str]


class KeptMixIn(In):
    """A job to keep under a name."""

    name: Name
    job: JobIn


class KeptMixOut(Out):
    """A kept mix: what is in it, where it goes and with what, in words."""

    id: int
    version: int
    name: str
    products: str
    where: str
    machine: str


class VesselOut(Out):
    """A vessel to draw: `marks` are its numbered graduations."""

    key: str
    name: str
    shape: Shape
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


class PourOut(Out):
    """What of one component goes into a load, and how it is measured; neither to taste."""

    product: str
    amount: str
    measure: MeasureOut | None


class LoadOut(Out):
    """One load. `where` names the areas it is for, where the job has several.

    Of a hose-end `dial` is where it stands, `spray` what a bottle becomes, `time` how long it lasts, empty where nobody timed it.
    """

    number: int
    name: str
    pass_number: int
    odd: bool
    where: str
    pours: list[PourOut]
    volume: str
    water: str
    covers: str
    dial: str = ""
    spray: str = ""
    time: str = ""
    share: float
    acts: list[ActOut]


class BudgetLineOut(Out):
    """One line of a season's budget, to draw: `used` and `plan` up to `scale`, `cap` where there is one."""

    key: str
    what: str
    symbol: str
    used: float
    plan: float
    cap: float | None
    low: float
    scale: float
    used_text: str
    plan_text: str
    total_text: str
    cap_text: str
    whose: str
    binds: bool
    over: bool


class DeliveredOut(Out):
    """What a job brings of one content."""

    name: str
    total: str
    per_foot: str


class DoseOut(Out):
    """One component on one area: its rate on the label's range, what the rules say of it, and the season's budget."""

    product: str
    row_id: int
    rate: RateOut
    label: str
    rule: RuleOut
    judgement: JudgementOut
    amount: str
    measured_rate: str
    findings: list[FindingOut]
    budget: list[BudgetLineOut]
    times: str
    again: str
    refused: bool


class PartOut(Out):
    """One area of a job with each component on it, None for one to taste, and a spreader's setting."""

    area_id: int
    name: str
    size: str
    treated: QuantityOut
    doses: list[DoseOut | None]
    setting: str = ""
    refused: bool


class CostOut(Out):
    """What a job costs, in all and per 1000 ft² or 100 m²."""

    total: str
    per_foot: str
    foot: str


class BoughtOut(Out):
    """What to buy: packages with counts, what it costs, and what is left over."""

    stock: str
    short: str
    packages: list[str]
    cost: str
    leftover: str
    sentence: str


class CautionOut(Out):
    """A caution of the mix sheet."""

    key: str
    text: str


class WearOut(Out):
    """Something to wear, for mixing or for applying."""

    key: str
    when: Literal["mixing", "applying"]
    text: str


class RuleTextOut(Out):
    """A rule of a label in a sentence; of a mix, whose it is, empty for what holds for all of it."""

    key: str
    text: str
    product: str = ""


class WayOut(Out):
    """A dose by another measure."""

    unit: str
    text: str


class ComponentOut(Out):
    """One product of the mix over the whole job: its amount, None to taste, how it is measured, and what it costs."""

    product_id: int
    product: str
    kind: str
    role: str
    target: str
    amount: QuantityOut | None
    also: list[str]
    ways: list[WayOut]
    whole: MeasureOut | None
    stock_dilution: str
    rounding: str
    per_volume: str
    cost: CostOut | None
    cost_why_not: str
    purchase: BoughtOut | None


class JobOut(Out):
    """One job, reckoned. Numbers that people read come as text; those that are drawn come as numbers too.

    `share_out` says of an odd last load that all alike are measured better.
    """

    headline: str
    name: str
    mix: list[ComponentOut]
    where: str
    area: str
    machine: str
    passes: int
    machine_findings: list[FindingOut] = []
    refused: bool
    judgement: JudgementOut
    parts: list[PartOut]
    spray: str
    spray_rate: str
    capacity: str
    vessel: Literal["tank", "hopper", "bottle", ""]
    setup: list[FactOut]
    loads: list[LoadOut]
    delivered: list[DeliveredOut]
    cost: CostOut | None
    warnings: list[str]
    share_out: str
    label_first: str
    label_rules: list[RuleTextOut]
    cautions: list[CautionOut]
    wear: list[WearOut]
    working: list[StepOut]


class Nothing(Out):
    """An answer that holds nothing, to measure others against."""


class RowsIn(In):
    """Which rows of a label are meant for an area, a target and an intent."""

    product_id: int
    area_id: int
    target: Name = ""


class RowFitOut(Out):
    """A label row for an area: whether it fits, why not, and the rate to open with and why."""

    row_id: int
    fits: bool
    misses: list[str]
    start: RateOut
    why: str


class BackIn(In):
    """The sum backwards. `mode`: `used` (this much went down), `left` (of so much, so much is left), `whole` (a package)."""

    mode: Literal["used", "left", "whole"]
    product_id: int
    row_id: int
    area_id: int
    share: str = ""
    treated: QuantityIn | None = None
    amount: QuantityIn
    left: QuantityIn | None = None
    spray: QuantityIn | None = None
    rate: QuantityIn | None = None


class BackOut(Out):
    """What a sum backwards came to."""

    sentence: str
    used: str
    rate: RateOut
    rule: RuleOut
    judgement: JudgementOut
    reach: str
    meant: str
    packages: int
    leftover: str
    misread: FindingOut | None
    working: list[StepOut]


class ChosenRateIn(In):
    """The rate that was chosen for a product."""

    product_id: int
    rate: QuantityIn


class CompareIn(In):
    """Products for one purpose on one area. No products means all that are for the target, or of the kind.

    Each goes at its rate of `rates`, else at one place of its label's range (`at`), else as the house opens; with `equal_to` all
    at what brings as much of `equal_in` as that product. `nutrient` is what a pound's cost is told of.
    """

    area_id: int
    share: str = ""
    target: Name = ""
    kind: str = ""
    product_ids: Annotated[list[int], Field(max_length=200)] = []
    machine_id: int | None = None
    at: Literal["", "low", "middle", "high"] = ""
    rates: Annotated[list[ChosenRateIn], Field(max_length=200)] = []
    equal_to: int | None = None
    equal_in: str = "active"
    nutrient: str = "N"


class ComparedOut(Out):
    """One product of a comparison. `shares` are of the greatest in their column, for drawing; `stock` says where it is enough."""

    product_id: int
    row_id: int
    product: str
    kind: str
    codes: str
    use: str
    fits: bool
    misses: list[str]
    rate: RateOut
    amount: str
    cost: str
    per_foot: str
    per_nutrient: str
    per_active: str
    active: str
    brought: str
    active_share: float
    cost_share: float
    best: list[str]
    packages: str
    stock: str
    purchase: str
    leftover: str
    problem: str


class CompareOut(Out):
    """Products side by side, the first to take first; `nutrients` are those that any of them brings."""

    sentence: str
    foot: str
    nutrient: str
    nutrients: list[OptionOut]
    rows: list[ComparedOut]


class DoseMeasureIn(In):
    """A dose to measure; a product tells its density."""

    amount: QuantityIn
    product_id: int | None = None


class LeastOut(Out):
    """The least that a vessel measures well, and at all."""

    vessel: str
    well: str
    at_all: str


class MeasuringOut(Out):
    """How to measure a dose, by every vessel and way."""

    measure: MeasureOut
    ways: list[WayOut]
    dilution: str
    leasts: list[LeastOut]


class CupOut(Out):
    """Whether a cup's mark is true."""

    sentence: str
    holds: str
    off: str
    good: bool
    working: list[StepOut]


class LineIn(In):
    """A reckon line."""

    line: Line


class ExampleOut(Out):
    """A line that can be asked of the account, and what it is answered with."""

    line: str
    what: str


class LineOut(Out):
    """The answer to a reckon line: a sentence, details, the working, and the job it can become; `refused` where a rule is
    against it.
    """

    kind: str
    sentence: str
    refused: bool = False
    details: list[str]
    working: list[StepOut]
    job: JobIn | None
