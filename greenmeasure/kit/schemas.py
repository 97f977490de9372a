"""What the kit API takes and gives."""

from typing import Literal

from ninja import Schema

from greenmeasure.common.schemas import Name, Out, QuantityIn, QuantityOut, RateOut, Text

MachineKindName = Literal["sprayer", "spreader"]


class MachineIn(Schema):
    name: Name
    kind: MachineKindName
    capacity: QuantityIn
    output: QuantityIn | None = None
    note: Text = ""


class MachineOut(Out):
    """`reach` says how much ground one filling covers, for a sprayer."""

    id: int
    name: str
    kind: MachineKindName
    capacity: QuantityOut
    output: RateOut | None
    reach: str
    note: str
    archived: bool
