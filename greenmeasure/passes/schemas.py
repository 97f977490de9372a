"""What the passes API takes and gives."""

from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import FactOut, Out, QuantityIn
from greenmeasure.ground.schemas import LiesIn, OutlineOut, PointOut

Number = float | str
SecondName = Literal["none", "right_angles", "diagonal", "offset"]


class PlanIn(In):
    """A walking plan. Empty fields are taken from the machine and the ground.

    `direction` in degrees from the plan's x axis, the best one where empty; `second` is a second round at half the rate;
    `length` the long side of an area that has no plan; `rate` of a label row in all passes together, for grams.
    """

    area_id: int
    machine_id: int | None = None
    spacing: QuantityIn | None = None
    direction: Number = ""
    edges: int = 1
    edges_last: bool = False
    guides: int = 0
    second: SecondName = "none"
    keep_off: bool = True
    pace: QuantityIn | None = None
    length: QuantityIn | None = None
    product_id: int | None = None
    row_id: int | None = None
    rate: QuantityIn | None = None


class WalkedIn(In):
    """How it is walked: wander of the line, of the pace [%], the gate's delay, and the slow last stretch."""

    line: QuantityIn | None = None
    pace: Number = ""
    late: QuantityIn | None = None
    slow_over: QuantityIn | None = None
    slow: Number = ""


class LandIn(In):
    """A plan as it is really walked."""

    plan: PlanIn
    walked: WalkedIn | None = None


class ExportIn(In):
    """`latitude` and `longitude` of the plan's lower left corner, `bearing` of its up; not needed where it has positions."""

    plan: PlanIn
    latitude: Number = ""
    longitude: Number = ""
    bearing: Number = ""


class PlacesIn(In):
    """Where each thing to keep off lies, in the area's order; none takes it off the plan."""

    version: int | None = None
    places: Annotated[list[LiesIn | None], Field(max_length=20)]


class PassOut(Out):
    """One pass: its line [m], which round it belongs to (1 or 2), and whether it is a guide."""

    kind: Literal["edge", "stripe"]
    round: int
    guide: bool
    line: list[PointOut]


class MarkedOut(Out):
    """A place on the plan with its words."""

    x: float
    y: float
    text: str


class ZoneOut(Out):
    """Ground kept off: what it is, and its rings [m]; `buffer` where the ring is the distance kept from it."""

    name: str
    buffer: bool
    ring: list[PointOut]


class PassesOut(Out):
    """A plan to draw and to walk by."""

    sentence: str
    left: float
    bottom: float
    right: float
    top: float
    north: bool
    outlines: list[OutlineOut]
    zones: list[ZoneOut]
    sides: list[MarkedOut]
    passes: list[PassOut]
    refills: list[MarkedOut]
    direction: float
    facts: list[FactOut]
    steps: list[str]
    notes: list[str]
    has_plan: bool
    has_positions: bool


class LandedOut(Out):
    """What lands where. `cells` is base64 of a byte a block, by rows from the top: hundredths of the rate, 250 at most.

    `histogram` is the share of the area by twentieths of the rate's double.
    """

    sentence: str
    columns: int
    rows: int
    left: float
    bottom: float
    block: float
    cells: str
    histogram: list[float]
    label_low: float | None
    label_high: float | None
    cv: str
    facts: list[FactOut]
    notes: list[str]


class VariantOut(Out):
    """One way to walk it, for comparing."""

    second: SecondName
    name: str
    cv: float
    cv_text: str
    under: str
    over: str
    outside: str
    distance: str
    time: str
    best: bool
    landed: LandedOut


class ComparedPlansOut(Out):
    """Ways to walk the same ground, side by side."""

    sentence: str
    variants: list[VariantOut]
