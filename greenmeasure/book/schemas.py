"""What the book API gives."""

from datetime import date, datetime

from greenmeasure.common.judgements import JudgementOut
from greenmeasure.common.schemas import Out, RuleOut


class EntryOut(Out):
    """An entry: names as they were; the ids are of what they name, None where that is no longer known.

    `against` are the rules that stood against it, and `reason` why it was put down all the same.
    """

    id: int
    area_id: int | None
    product_id: int | None
    machine_id: int | None
    applied_on: date
    day: str
    finished_at: datetime
    area: str
    treated: str
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
    judgement: JudgementOut
    rule: RuleOut
    used: str
    spray: str
    machine: str
    passes: int
    loads: int
    cost: str
    wind: str
    air: str
    looked: str
    note: str
    by: str
    against: list[str]
    reason: str


class BookOut(Out):
    """A page of the book, newest first."""

    entries: list[EntryOut]
    count: int
    page: int
    pages: int
    sentence: str
