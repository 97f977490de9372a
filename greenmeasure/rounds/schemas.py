"""What the rounds API takes and gives."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import Field

from core.job.reckon import MOST_MIXED
from core.tank.loads import MOST_PASSES
from greenmeasure.common.bounds import In
from greenmeasure.common.judgements import JudgementOut
from greenmeasure.common.schemas import FactOut, Line, Name, Out, QuantityIn, QuantityOut, RuleOut
from greenmeasure.reckon.schemas import CautionOut, JobIn, LoadOut, RuleTextOut, WearOut

StatusName = Literal["under_way", "done", "given_up"]


class TickIn(In):
    """`load` 0 is for what is worn."""

    load: int
    act: Line
    done: bool


class PouredIn(In):
    """What was really measured for load `load` of the product at `place` of the mix; none takes it back."""

    load: int
    place: int
    amount: QuantityIn | None = None


class PouredOut(Out):
    """What a measured amount makes of the rate: where it stands, and the slip that would explain a miss.

    `off` tells one that is further from the plan than a vessel reads, `stops` one that the label forbids.
    """

    rate: str
    judgement: JudgementOut
    rule: RuleOut
    sentence: str
    slip: str
    off: bool
    stops: bool


class KeptPourOut(Out):
    """What was measured for a load, and what it makes of the rate, None where its sheet no longer tells."""

    load: int
    place: int
    amount: QuantityOut
    by: str
    at: datetime
    found: PouredOut | None


class TickOut(Out):
    """An act that was done, by whom and when."""

    load: int
    act: str
    by: str
    at: datetime


class RoundDoseOut(Out):
    """One component on one ground of a round as it was planned."""

    product: str
    use: str
    rate: str
    label: str


class RoundPartOut(Out):
    """One ground of a round as it was planned; `setting` is what its sheet sets a spreader to, `skipped` why its outing left it
    out since; empty where it did not.
    """

    name: str
    skipped: str
    treated: QuantityOut
    doses: list[RoundDoseOut]
    setting: str


class RoundComponentOut(Out):
    """One product of a round's mix, what of it was planned, None to taste, and what was measured, once it was for every load."""

    product_id: int
    product: str
    target: str
    planned: QuantityOut | None
    poured: QuantityOut | None


class SheetFindingOut(Out):
    """What a rule said when the round began."""

    key: str
    act: str
    sentence: str


class SheetComponentOut(Out):
    """One product of a sheet's mix, with its amount in words, empty to taste."""

    product: str
    role: str
    target: str
    amount: str
    cost: str


class SheetOut(Out):
    """The mix sheet as it was when the round began. `problem` says what of it cannot be read."""

    headline: str
    product: str
    mix: list[SheetComponentOut]
    where: str
    machine: str
    passes: int
    capacity: str
    spray: str
    vessel: str
    setup: list[FactOut]
    cost: str
    loads: list[LoadOut]
    wear: list[WearOut]
    cautions: list[CautionOut]
    label_rules: list[RuleTextOut]
    findings: list[SheetFindingOut]
    label_first: str
    problem: str


class OutingIn(In):
    """One outing to the spots of a round: how much of its mix went out, the ground that it went on, or both, and on which of the
    round's areas. What is not given follows from the sprayer's output. `on` and `clock` are when; now, unless either is said.

    `lots` are what the mix was taken from, one a component in its order, none where nobody said. `reason` is why it was done,
    where a rule stands against it.
    """

    place: int = 0
    spray: QuantityIn | None = None
    treated: QuantityIn | None = None
    lots: Annotated[list[int | None], Field(max_length=MOST_MIXED)] = []
    reason: Line = ""
    by: Name = ""
    wind: Line = ""
    air: Line = ""
    note: Line = ""
    on: date | None = None
    clock: Annotated[str, Field(max_length=8)] = ""


class EmptiedIn(In):
    """What became of the last of a mix."""

    how: Literal["sprayed", "disposed"]


class OutingOut(Out):
    """An outing that is in the book."""

    application_id: int
    at_text: str
    area: str
    treated: str
    spray: str
    by: str


class SpotsOut(Out):
    """The outings of a round to spots, what is left of its mix and how old it is; `stale` where its label's time is over."""

    outings: list[OutingOut]
    left: QuantityOut
    used_up: bool
    sentence: str
    life: str
    stale: bool
    emptied: str


class RoundOut(Out):
    """A round, for the time `at`. `next` says what to do now; `loads_done` counts loads whose every act is ticked, `falls` tells
    of each load where it runs out; `outing_id` is the outing that it is part of.
    """

    id: int
    status: StatusName
    site_id: int
    mix: list[RoundComponentOut]
    sheet: SheetOut
    ticks: list[TickOut]
    poured: list[KeptPourOut]
    falls: list[str]
    loads_done: int
    worn: bool
    next: str
    parts: list[RoundPartOut]
    planned_spray: QuantityOut | None
    started_by: str
    started_at: datetime
    at: datetime
    at_text: str
    looked: str
    spots: SpotsOut | None
    application_ids: list[int]
    outing_id: int | None


class RoundLineOut(Out):
    """A round in a list; `left` is what is left of a mix for spots."""

    id: int
    status: StatusName
    title: str
    headline: str
    loads: int
    loads_done: int
    left: str
    started_by: str
    started_at: datetime


class UsedIn(In):
    """What was really used of one component: nothing where it went in to taste and nobody measured.

    `lot_id` is the lot it was taken from, `lot` the number of one whose stock is left alone.
    """

    amount: QuantityIn | None = None
    lot_id: int | None = None
    lot: Annotated[str, Field(max_length=40)] = ""


class FinishIn(In):
    """What was really used, and the weather it went out in. `wind` and `air` are as typed, with their unit.

    `used` is one a component, in the mix's order. `treated` is the ground really treated, one an area in the round's order, 0 for
    one that was left out; none means as planned. `on` and `clock` are when it was done; now, unless either is said. `by` is who
    put it down, unless who enters it did. `spray` is what was measured of it, none means as planned; `setting` what a spreader
    stood at. Either tells of the machine: with `teach` a sprayer's output is what this round put down, from then on, and a
    spreader's setting a test. `walked` is how often the ground was really covered, what was left from a pass walked out included;
    none means as planned.
    """

    used: Annotated[list[UsedIn], Field(min_length=1, max_length=MOST_MIXED)]
    treated: list[QuantityIn] = []
    spray: QuantityIn | None = None
    setting: float | str = ""
    teach: bool = False
    walked: Annotated[int, Field(ge=1, le=MOST_PASSES)] | None = None
    by: Name = ""
    wind: Line = ""
    air: Line = ""
    note: Line = ""
    on: date | None = None
    clock: Annotated[str, Field(max_length=8)] = ""


class DoneIn(In):
    """A job that is done already: the job with its day and hour, what was really used, and why, where the label forbids it."""

    job: JobIn
    finish: FinishIn
    reason: Line = ""


class TaughtOut(Out):
    """What a round tells of its machine; `far` where it is worth taking over."""

    sentence: str
    sprayer: bool
    far: bool


class ActualDoseOut(Out):
    """What really went down of one component on one area, against the label's range and the plan."""

    product: str
    used: str
    rate: str
    judgement: JudgementOut
    rule: RuleOut
    against_plan: str


class ActualPartOut(Out):
    """What really went down on one area, component by component."""

    name: str
    doses: list[ActualDoseOut]


class PartlyOut(Out):
    """A tank of which only part was sprayed, and what of each product then went down, None to taste."""

    sentence: str
    used: list[QuantityOut | None]


class ActualOut(Out):
    """What really went down, part by part, what it tells of the machine, and whether part of the tank is left."""

    parts: list[ActualPartOut]
    taught: TaughtOut | None
    partly: PartlyOut | None
