"""What the shelf API takes and gives."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import Line, Name, OptionOut, Out, QuantityIn, QuantityOut, RateOut, RuleOut, Text
from greenmeasure.shelf.rules import RuleFieldOut, RuleSaidOut, RulesIn

Number = float | str


class ContentIn(In):
    """`unit` is `%` by weight, `g/l` or `lb/gal`; `basis` is `active` or a nutrient as the label states it."""

    name: Name
    basis: str
    amount: Number
    unit: str
    slow: Number | None = None


class RateRowIn(In):
    """`id` keeps a row what it was when a product is changed. Heights are in `height_unit`, intervals in days."""

    id: int | None = None
    use: Name = ""
    phrase: Line
    target: Name = ""
    grasses: list[str] = []
    uses: list[str] = []
    height_low: Number | None = None
    height_high: Number | None = None
    height_unit: str = "in"
    intent: str = "any"
    interval_low: Number | None = None
    interval_high: Number | None = None


class PackageIn(In):
    """A size it is sold in; the price is as typed."""

    value: Number
    unit: str
    price: str = ""


class PrintedIn(In):
    """A setting that the bag prints for a kind of spreader, as it prints it."""

    form: Literal["broadcast", "drop", "hand_held"]
    setting: Annotated[str, Field(max_length=20)]


class ProductIn(In):
    """A card as it is typed."""

    version: int | None = None
    name: Name
    kind: str
    also: Annotated[list[str], Field(max_length=4)] = []
    formulation: str
    density: QuantityIn | None = None
    group_code: Annotated[str, Field(max_length=40)] = ""
    registration: Annotated[str, Field(max_length=40)] = ""
    looks: Annotated[str, Field(max_length=60)] = ""
    expect: Line = ""
    contents: Annotated[list[ContentIn], Field(max_length=30)] = []
    rates: Annotated[list[RateRowIn], Field(max_length=60)]
    packages: Annotated[list[PackageIn], Field(max_length=12)] = []
    printed: Annotated[list[PrintedIn], Field(max_length=6)] = []
    rules: RulesIn = RulesIn()
    stains: bool = False
    ppe_mixing: Text = ""
    ppe_applying: Text = ""
    note: Text = ""


class ContentOut(Out):
    """An active or nutrient of a card."""

    name: str
    basis: str
    amount: str
    unit: str
    slow: str
    text: str


class DensityOut(Out):
    """A density as it was typed."""

    value: str
    unit: str
    text: str


class RateRowOut(Out):
    """A rate as printed and as understood. `rule` opens at the label's lowest rate; `units` are those it can be typed in."""

    id: int
    use: str
    phrase: str
    understood: str
    target: str
    grasses: list[str]
    uses: list[str]
    height_low: str
    height_high: str
    height_unit: str
    intent: str
    interval_low: str
    interval_high: str
    ground: str
    per_area: bool
    low: RateOut | None
    high: RateOut
    start: RateOut
    rule: RuleOut
    units: list[OptionOut]


class PackageOut(Out):
    """A package as it was typed."""

    value: str
    unit: str
    text: str
    price: str


class LotIn(In):
    """A lot, and what is left of it."""

    version: int | None = None
    number: Name
    left: QuantityIn
    received_on: date | None = None
    expires_on: date | None = None
    note: Line = ""


class LotOut(Out):
    """A lot as it is shown and typed."""

    id: int
    version: int
    number: str
    left: QuantityOut
    received_on: date | None
    expires_on: date | None
    expired: bool
    note: str


class LabelFileOut(Out):
    """A picture of the label."""

    id: int
    name: str
    kind: str


class ProductOut(Out):
    """A card with its stock, its rules in words, and what seems wrong with it."""

    id: int
    version: int
    name: str
    kind: str
    kind_text: str
    also: list[str]
    printed: list[PrintedIn]
    formulation: str
    formulation_text: str
    liquid: bool
    sprayed: bool
    density: DensityOut | None
    group_code: str
    registration: str
    looks: str
    expect: str
    codes: list[str]
    contents: list[ContentOut]
    rates: list[RateRowOut]
    packages: list[PackageOut]
    currency: str
    rules: RulesIn
    rules_said: list[RuleSaidOut]
    stains: bool
    ppe_mixing: str
    ppe_applying: str
    note: str
    warnings: list[str]
    stock: str
    lots: list[LotOut]
    labels: list[LabelFileOut]
    targets: list[str]


class FormulationOut(Out):
    """A formulation to pick."""

    key: str
    text: str
    liquid: bool
    sprayed: bool


class TargetOut(Out):
    """A target to pick, with what it is mistaken for."""

    key: str
    text: str
    kind: str


class KindOut(OptionOut):
    """A type of product; `opens` is what of its contents is filled in first."""

    opens: list[str]


class NameIn(In):
    """A product's name as it is typed."""

    name: Line


class GradeOut(Out):
    """The contents that a name states, in words and as a form takes them; none where it states none."""

    text: str
    contents: list[ContentOut]


class ShelfOptionsOut(Out):
    """What a product's form offers to pick from, and the fields of its rules."""

    rules: list[RuleFieldOut]
    kinds: list[KindOut]
    formulations: list[FormulationOut]
    bases: list[OptionOut]
    targets: list[TargetOut]
    intents: list[OptionOut]
    uses: list[OptionOut]
    grasses: list[OptionOut]
    groups: list[OptionOut]


class PhraseIn(In):
    """A label phrase to read; a product's `formulation`, where it is known, settles a bare ounce of a dry one."""

    phrase: Line
    formulation: str = ""


class PhraseOut(Out):
    """A label phrase as understood: in one spelling, as a range, in the trade's other units, and what else it tells."""

    understood: str
    low: RateOut | None
    high: RateOut
    also: list[str]
    told: list[str]


class LabelTextIn(In):
    """A label's text; `without` are the findings, by their places, that are not to go into the card."""

    text: Annotated[str, Field(max_length=200_000)]
    without: Annotated[list[int], Field(max_length=200)] = []


class ReadOut(Out):
    """One thing that a label's text says: the card's field, its value in words, the words it was taken from and their line.

    `asks` where it can be read in two ways; the card then asks at its field.
    """

    field: str
    name: str
    text: str
    source: str
    line: int
    asks: bool
    taken: bool


class PastedOut(Out):
    """What was read in a label's text, the card that it makes, and the lines that nothing was taken from."""

    card: ProductIn
    found: list[ReadOut]
    left: list[str]
    cut: bool


class ShelfTextIn(In):
    """A file's text: JSON or CSV, as `form` says."""

    form: str
    text: Annotated[str, Field(max_length=5_000_000)]
