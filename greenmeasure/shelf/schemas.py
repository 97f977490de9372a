"""What the shelf API takes and gives."""

from typing import Annotated

from ninja import Schema
from pydantic import Field

from greenmeasure.common.schemas import Line, Name, Out, QuantityIn, QuantityOut, RateOut, RuleOut, Text


class ContentIn(Schema):
    """`unit` is `%` by weight, `g/l` or `lb/gal`; `basis` is `active` or a nutrient as the label states it."""

    name: Name
    basis: str
    amount: float | str
    unit: str


class RateRowIn(Schema):
    """`id` keeps a row what it was when a product is changed."""

    id: int | None = None
    use: Name = ""
    phrase: Line


class ProductIn(Schema):
    name: Name
    kind: str
    formulation: str
    density: QuantityIn | None = None
    group_code: Annotated[str, Field(max_length=20)] = ""
    contents: Annotated[list[ContentIn], Field(max_length=30)] = []
    rates: Annotated[list[RateRowIn], Field(max_length=60)]
    package: QuantityIn | None = None
    price: str = ""
    stains: bool = False
    ppe_mixing: Text = ""
    ppe_applying: Text = ""
    note: Text = ""


class ContentOut(Out):
    name: str
    basis: str
    basis_text: str
    amount: str
    unit: str
    text: str


class DensityOut(Out):
    value: str
    unit: str
    text: str


class OptionOut(Out):
    key: str
    text: str


class RateRowOut(Out):
    """A rate as printed and as understood. `rule` opens at the label's lowest rate; `units` are those it can be typed in."""

    id: int
    use: str
    phrase: str
    understood: str
    low: RateOut | None
    high: RateOut
    start: RateOut
    rule: RuleOut
    units: list[OptionOut]


class ProductOut(Out):
    id: int
    name: str
    kind: str
    kind_text: str
    label_binds: bool
    formulation: str
    formulation_text: str
    liquid: bool
    sprayed: bool
    density: DensityOut | None
    group_code: str
    contents: list[ContentOut]
    rates: list[RateRowOut]
    package: QuantityOut | None
    price: str
    currency: str
    stains: bool
    ppe_mixing: str
    ppe_applying: str
    note: str
    warnings: list[str]
    archived: bool


class FormulationOut(Out):
    key: str
    text: str
    liquid: bool
    sprayed: bool


class ShelfOptionsOut(Out):
    """What a product's form offers to pick from."""

    kinds: list[OptionOut]
    formulations: list[FormulationOut]
    bases: list[OptionOut]


class PhraseIn(Schema):
    phrase: Line


class PhraseOut(Out):
    """A label phrase as understood: in one spelling, as a range, and in the trade's other units."""

    understood: str
    low: RateOut | None
    high: RateOut
    also: list[str]
