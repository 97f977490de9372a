"""What the season API takes and gives: what is due, which products may go down against it, and when."""

from datetime import date, datetime
from typing import Literal

from greenmeasure.common.bounds import In
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import Out
from greenmeasure.reckon.schemas import SaidIn
from greenmeasure.sky.schemas import FreshOut, VerdictName

StateName = Literal["late", "due", "coming"]


class DueWindowOut(Out):
    """The next hours fit for it; `text` says why where there are none."""

    verdict: VerdictName
    begin: datetime | None
    end: datetime | None
    text: str
    good: bool


class PlannedOut(Out):
    """A window that somebody picked; `missed` where it has passed with nothing put down, and what that cost."""

    id: int
    text: str
    product: str
    by: str
    missed: bool
    cost: str


class DueLineOut(Out):
    """One thing that is due on an area: against a disease, a regulator again, or a step of the programme.

    `product` is the first that may go down, empty where none may; `zones` what differs within the area.
    """

    key: str
    kind: Literal["disease", "regulator", "step"]
    area_id: int
    area: str
    site: str
    disease: str
    title: str
    state: StateName
    state_text: str
    by: date | None
    by_text: str
    why: str
    delay: str
    curative: bool
    product_id: int | None
    product: str
    rate: str
    amount: str
    cost: str
    zones: list[str]
    window: DueWindowOut | None
    planned: PlannedOut | None
    round_id: int | None


class DueOut(Out):
    """What is due, the gravest first; `without` are diseases in season that nothing on the shelf lists."""

    sentence: str
    fresh: FreshOut
    lines: list[DueLineOut]
    more: int
    without: list[str]
    unknown: list[str]


class DueChoiceOut(Out):
    """A product against the disease here: why it may go down, what warns, and the rules that refuse it."""

    product_id: int
    product: str
    codes: str
    row_id: int
    use: str
    intent: str
    rate: str
    amount: str
    cost: str
    allowed: bool
    why: list[str]
    warns: list[FindingOut]
    refused: list[FindingOut]
    window: DueWindowOut | None


class MachinePickOut(Out):
    """A machine that can put it down."""

    id: int
    name: str
    suggested: bool


class DueWholeOut(Out):
    """One due thing whole: its line, every product that lists it, the machines to pick from, and what covers it."""

    fresh: FreshOut
    line: DueLineOut
    covers: list[str]
    choices: list[DueChoiceOut]
    machines: list[MachinePickOut]


class PlanDueIn(In):
    """A window picked for a product against a disease on an area."""

    area_id: int
    disease: str
    product_id: int
    begin: datetime
    end: datetime


class StartDueIn(In):
    """A proposal made a round."""

    area_id: int
    disease: str
    product_id: int
    machine_id: int
    passes: int = 1
    said: SaidIn | None = None
