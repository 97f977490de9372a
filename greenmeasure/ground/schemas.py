"""What the ground API takes and gives."""

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import Field

from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.schemas import Line, Name, OptionOut, Out, QuantityIn, QuantityOut, StepOut, Text

Number = float | str


class PartShapeIn(In):
    """A shape of several: `sign` 1 adds it, -1 cuts it out."""

    sign: int = 1
    shape: str
    values: dict[str, Number] = {}


class MeasureIn(In):
    """A measurement as taken: figures in `unit`, by the names that the method gives them."""

    method: str
    unit: str = "ft"
    values: dict[str, Number] = {}
    series: dict[str, Annotated[list[Number], Field(max_length=400)]] = {}
    parts: Annotated[list[PartShapeIn], Field(max_length=30)] = []
    ring: Annotated[str, Field(max_length=200_000)] = ""
    geometry: dict[str, Any] | None = None
    rule: str = ""


class PointOut(Out):
    """A point of a drawing [m]."""

    x: float
    y: float


class OutlineOut(Out):
    """A ring of a drawing; a hole is cut out."""

    ring: list[PointOut]
    hole: bool


class MarkOut(Out):
    """A measured line of a drawing with its length."""

    start: PointOut
    end: PointOut
    text: str


class PlanOut(Out):
    """A drawing to scale [m]: its box, its outlines, and its measured lines."""

    left: float
    bottom: float
    right: float
    top: float
    north: bool
    outlines: list[OutlineOut]
    marks: list[MarkOut]


class MeasuredOut(Out):
    """What a measurement came to. `versus` compares it with the size in use, where there is one."""

    size: QuantityOut
    also: str
    plan: PlanOut
    notes: list[str]
    working: list[StepOut]
    versus: str
    agreement: str


class MeasurementOut(Out):
    """A kept measurement."""

    id: int
    taken_on: date
    by: str
    method: str
    size: str
    in_use: bool
    versus: str
    agreement: str


class MeasurementIn(MeasureIn):
    """`use` makes its size the area's."""

    taken_on: date
    use: bool = False


class FieldOptionOut(Out):
    """A figure that a method asks for."""

    key: str
    text: str


class MethodOut(Out):
    """A way to measure, with the words for what it asks."""

    key: str
    name: str
    about: str
    fields: list[FieldOptionOut]
    series: list[FieldOptionOut]
    rules: list[FieldOptionOut]


class LiesIn(In):
    """Where a thing lies on the area's plan, in `unit` from its lower left corner: a spot, a box, or along a numbered side."""

    how: Literal["spot", "box", "side"]
    unit: str = "ft"
    x: Number = ""
    y: Number = ""
    across: Number = ""
    along: Number = ""
    side: int = 0


class LiesOut(Out):
    """Where a thing lies, as typed."""

    how: Literal["spot", "box", "side"]
    unit: str
    x: Number
    y: Number
    across: Number
    along: Number
    side: int


class HazardIn(In):
    """Something to keep off: what, where, how far, and where on the plan."""

    kind: str
    name: Name = ""
    buffer: QuantityIn | None = None
    lies: LiesIn | None = None


class HazardOut(Out):
    """Something to keep off."""

    kind: str
    kind_text: str
    name: str
    buffer: QuantityOut | None
    lies: LiesOut | None


class BlendIn(In):
    """A grass of a mixed sward, with its share in percent; an empty share is the rest of it."""

    grass: Word
    share: Number | None = None


class BlendOut(Out):
    """A grass of a mixed sward, with its share in percent."""

    grass: str
    share: str


class AreaIn(In):
    """`share` of the parent may stand in place of a size: `1/2`, `30 %`. `measure` is how the size was found, if it was.

    No `site_id` means the site of the parent, or where it lies already, or the first one.
    """

    version: int | None = None
    name: Name
    site_id: int | None = None
    size: QuantityIn | None = None
    share: str = ""
    measure: MeasureIn | None = None
    parent_id: int | None = None
    grass: str
    blend: Annotated[list[BlendIn], Field(max_length=8)] = []
    cultivar: Name = ""
    use: str = ""
    height: QuantityIn | None = None
    height_on: date | None = None
    texture: str = ""
    shade: str = ""
    slope: Number | None = None
    zone: Name = ""
    sown_on: date | None = None
    overseed_on: date | None = None
    stress: str = "none"
    tested_p: bool = False
    hazards: Annotated[list[HazardIn], Field(max_length=20)] = []
    note: Text = ""


class AreaOut(Out):
    """`also` is the size in the other system's units, for a check against a plan or a lease; `m2` the size to order by [m²]."""

    id: int
    version: int
    name: str
    site_id: int
    site: str
    size: QuantityOut
    also: str
    m2: float
    parent_id: int | None
    grass: str
    grass_name: str
    turf: bool
    blend: list[BlendOut]
    cultivar: str
    use: str
    height: QuantityOut | None
    texture: str
    texture_name: str
    shade: str
    slope: str
    zone: str
    sown_on: date | None
    overseed_on: date | None
    stress: str
    stress_text: str
    tested_p: bool
    hazards: list[HazardOut]
    ph: str
    note: str


class HeightOut(Out):
    """A height of cut from a day on."""

    on: date
    text: str


class SoilFigureIn(In):
    """A figure of a laboratory's card, as told there: `kind` of the options, `method` the extraction."""

    kind: Word
    value: Number
    unit: Word = ""
    method: Name = ""


class SoilReadingIn(In):
    """A soil sample of a spot: of a fixed one by its id, or of one by its name. `number` is the laboratory's."""

    taken_on: date
    spot: Name = ""
    spot_id: Id | None = None
    ph: Number
    depth: QuantityIn | None = None
    how: Word = ""
    lab: Name = ""
    number: Name = ""
    figures: Annotated[list[SoilFigureIn], Field(max_length=20)] = []
    values: Line = ""


class SoilFigureOut(Out):
    """A figure of a laboratory's card; `text` says it whole."""

    kind: str
    value: str
    unit: str
    method: str
    text: str


class SoilReadingOut(Out):
    """A kept soil sample: `from_text` where it is from; `since` what became of it since the last of its spot, and `doubts`
    what makes the two hard to compare.
    """

    id: int
    taken_on: date
    day: str
    spot: str
    spot_id: int | None
    ph: str
    depth: str
    how: str
    lab: str
    number: str
    figures: list[SoilFigureOut]
    values: str
    from_text: str
    since: str
    doubts: list[str]


class AreaWholeOut(Out):
    """An area with its plan, its parts and what was measured, mown and sampled there."""

    area: AreaOut
    parent: str
    plan: PlanOut | None
    parts: list[AreaOut]
    rest: str
    measurements: list[MeasurementOut]
    heights: list[HeightOut]
    soil: list[SoilReadingOut]


class GroundOut(Out):
    """The areas and their sum, in the account's units; parts are in their parents and counted once."""

    areas: list[AreaOut]
    total: str


class GrassOut(Out):
    """A grass to pick, or what is no turf."""

    key: str
    name: str
    botanical: str
    turf: bool


class SoilKindOut(Out):
    """Something a laboratory tells, its units, and whether it goes by an extraction."""

    key: str
    text: str
    units: list[str]
    extracted: bool


class GroundOptionsOut(Out):
    """What an area's form offers to pick from."""

    grasses: list[GrassOut]
    uses: list[OptionOut]
    textures: list[OptionOut]
    shades: list[OptionOut]
    stresses: list[OptionOut]
    hazards: list[OptionOut]
    methods: list[MethodOut]
    soil_hows: list[OptionOut]
    soil_kinds: list[SoilKindOut]


class GeoJsonIn(In):
    """A GeoJSON text: a Feature, a FeatureCollection or a bare geometry."""

    text: Annotated[str, Field(max_length=5_000_000)]


class PhPlanIn(In):
    """What the pH planner asks beside the readings; percentages as typed."""

    texture: str = ""
    depth: QuantityIn | None = None
    purity: Number = 90
    lime_value: Number = 90
    free_lime: bool = False
    target: Number | None = None
    start: date


class DatedStepOut(Out):
    """One application of a pH plan."""

    on: date
    day: str
    year: int
    per_area: str
    amount: str
    share: float


class PhPlanOut(Out):
    """The plan. `low` and `high` are what the grass likes; the scale runs from 4 to 9."""

    sentence: str
    verdict: str
    ph: float
    low: float
    high: float
    target: float
    spread: str
    material: str
    need: str
    once: str
    a_year: str
    steps: list[DatedStepOut]
    notes: list[str]
    working: list[StepOut]


class SodiumIn(In):
    """What the gypsum planner asks: exchangeable sodium [%], or that of the water [meq/L], or none where a sample has it."""

    sodium: Number = ""
    water_sodium: Number = ""
    water_calcium: Number = ""
    water_magnesium: Number = ""
    target: Number = 5
    exchange: Number = ""
    density: Number = 1400
    depth: QuantityIn | None = None
    purity: Number = 92
    efficiency: Number = 80


class SodiumOut(Out):
    """What sodium a soil holds and what gypsum it takes; `share` and `target` in per cent for the drawing."""

    sentence: str
    share: float
    target: float
    sodic: float
    from_text: str
    per_area: str = ""
    amount: str = ""
    each: str = ""
    times: int = 0
    water: str = ""
    notes: list[str]
    working: list[StepOut] = []
