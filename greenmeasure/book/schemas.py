"""What the book API gives."""

from datetime import date, datetime
from typing import Annotated

from pydantic import Field

from greenmeasure.common.bounds import In, Word
from greenmeasure.common.judgements import JudgementOut
from greenmeasure.common.schemas import Line, Name, Out, QuantityIn, RuleOut, Text


class EntryOut(Out):
    """One product of an application: names as they were; `product_id` is None where its card is no longer known.

    What went in to taste has no rate, no rule and no verdict. `against` are the rules that stood against it, and `reason` why it
    was put down all the same.
    """

    id: int
    product_id: int | None
    product: str
    kind: str
    contents: str
    group_code: str
    registration: str
    use: str
    target: str
    lot: str
    again: str
    label: str
    planned: str
    actual: str
    used_value: str
    used_unit: str
    judgement: JudgementOut | None
    rule: RuleOut | None
    used: str
    cost: str
    against: list[str]
    reason: str


class ChangeOut(Out):
    """One thing that was put right."""

    what: str
    was: str
    now: str


class FormerOut(Out):
    """A correction: when, by whom and why, and what the book said before."""

    day: str
    by: str
    why: str
    changes: list[ChangeOut]


class ApplicationOut(Out):
    """What went down on one ground by one mix; the ids are of what the names stand for, None where that is no longer known."""

    id: int
    area_id: int | None
    machine_id: int | None
    applied_on: date
    day: str
    finished_at: datetime
    area: str
    treated: str
    name: str
    rates: str
    entries: list[EntryOut]
    spray: str
    machine: str
    passes: int
    loads: int
    wind: str
    air: str
    looked: str
    note: str
    by: str
    licence: str
    clock: str
    struck: str
    formers: list[FormerOut]


class UsedCorrectIn(In):
    """What was really used of the product in a place of the mix; empty leaves it as it is."""

    position: Annotated[int, Field(ge=0, le=50)]
    amount: QuantityIn | None = None


class CorrectIn(In):
    """An application put right: what is not said stays as it is. `version` is how often it was corrected before."""

    version: Annotated[int, Field(ge=0, le=1_000_000)]
    why: Line
    on: date | None = None
    clock: Word = ""
    wind: Annotated[str, Field(max_length=120)] | None = None
    air: Annotated[str, Field(max_length=120)] | None = None
    note: Text | None = None
    by: Name | None = None
    used: Annotated[list[UsedCorrectIn], Field(max_length=12)] = []


class StrikeEntryIn(In):
    """Why an application is struck."""

    version: Annotated[int, Field(ge=0, le=1_000_000)]
    why: Line


class BookOut(Out):
    """A page of the book, newest first."""

    applications: list[ApplicationOut]
    count: int
    page: int
    pages: int
    sentence: str
