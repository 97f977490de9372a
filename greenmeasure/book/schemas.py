"""What the book API gives."""

from datetime import date, datetime

from ninja import Schema

from greenmeasure.reckon.schemas import JudgementOut, RuleOut


class EntryOut(Schema):
    id: int
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
    note: str
    by: str


class BookOut(Schema):
    """A page of the book, newest first."""

    entries: list[EntryOut]
    count: int
    page: int
    pages: int
    sentence: str
