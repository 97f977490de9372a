"""What the API of stores gives."""

from typing import Literal

from greenmeasure.common.schemas import Out

KeepsName = Literal["good", "soon", "past", "old", "undated"]


class JugOut(Out):
    """A lot on the shelf: what is left of it, since when, until when, and what is asked of it."""

    id: int
    number: str
    left: str
    since: str
    keeps: KeepsName
    text: str


class StockLineOut(Out):
    """A product: what is left, what planned jobs need, what the rest of last season took, what falls short, what to buy."""

    product_id: int
    product: str
    kind: str
    left: str
    planned: str
    as_last: str
    short: str
    buy: str
    note: str
    jugs: list[JugOut]


class StoresOut(Out):
    """The shelf against the season, the products that have a lot or a need; `cost` is of all that is to be bought."""

    sentence: str
    lines: list[StockLineOut]
    cost: str
    until: str
