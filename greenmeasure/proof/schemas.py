"""What the API of proof takes and gives."""

from datetime import date

from greenmeasure.common.bounds import Id, In
from greenmeasure.common.schemas import FactOut, Out


class RecordsAsked(In):
    """Which records: of days, a site, an area with its parts, a product; all where nothing is said."""

    begin: date | None = None
    end: date | None = None
    site_id: Id | None = None
    area_id: Id | None = None
    product_id: Id | None = None


class RecordProductOut(Out):
    """A product of a record."""

    product: str
    registration: str
    contents: str
    rate: str
    label: str
    amount: str
    target: str
    lot: str
    against: list[str]


class RecordOut(Out):
    """An application as a record: when, where, what, by whom, in which weather, and when people might walk there again."""

    application_id: int
    day: str
    begun: str
    ended: str
    site: str
    area: str
    treated: str
    products: list[RecordProductOut]
    spray: str
    machine: str
    wind: str
    air: str
    looked: str
    reentry: str
    applicator: str
    licence: str
    note: str


class RecordsOut(Out):
    """Records, the oldest first; `lacks` is what authorities ask for and some of them do not hold."""

    sentence: str
    records: list[RecordOut]
    lacks: list[FactOut]
