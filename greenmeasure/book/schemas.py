"""What the book API gives."""

from datetime import date, datetime

from greenmeasure.common.judgements import JudgementOut
from greenmeasure.common.schemas import Out, RuleOut


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
    use: str
    target: str
    lot: str
    again: str
    label: str
    planned: str
    actual: str
    judgement: JudgementOut | None
    rule: RuleOut | None
    used: str
    cost: str
    against: list[str]
    reason: str


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


class BookOut(Out):
    """A page of the book, newest first."""

    applications: list[ApplicationOut]
    count: int
    page: int
    pages: int
    sentence: str
