"""What the ground API takes and gives."""

from ninja import Schema

from greenmeasure.common.schemas import Name, Out, QuantityIn, QuantityOut, Text


class AreaIn(Schema):
    name: Name
    size: QuantityIn
    grass: str
    height: QuantityIn | None = None
    note: Text = ""


class AreaOut(Out):
    """`also` is the size in the other system's units, for a check against a plan or a lease."""

    id: int
    name: str
    size: QuantityOut
    also: str
    grass: str
    grass_name: str
    height: QuantityOut | None
    note: str
    archived: bool


class GroundOut(Out):
    """The areas and their sum, in the club's units."""

    areas: list[AreaOut]
    total: str


class GrassOut(Out):
    key: str
    name: str
    botanical: str
    cool: bool
