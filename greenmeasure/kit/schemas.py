"""What the kit API takes and gives."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import Field

from core.tank.vessels import Shape
from greenmeasure.common.bounds import In
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import FactOut, Line, Name, OptionOut, Out, QuantityIn, QuantityOut, RateOut, StepOut, Text
from greenmeasure.kit.bench_schemas import BenchIn, Number, Numbers, PatternOut, TrustName

MachineKindName = Literal["sprayer", "spreader"]


class MachineIn(In):
    """`mark` is what lies between two marks of a tank; `output_assumed` where nobody knows it yet; `droplets` the place of the
    class in the list, as the nozzle's maker gives it for this pressure. `dials` are the positions of a hose-end's dial as
    printed on it (`2, 4, 8`) in `dial_unit`, a volume per volume of spray; `setting_step` is what lies between two clicks of a
    spreader's dial.
    """

    version: int | None = None
    name: Name
    kind: MachineKindName
    form: str = ""
    capacity: QuantityIn
    mark: QuantityIn | None = None
    output: QuantityIn | None = None
    output_assumed: bool = False
    width: QuantityIn | None = None
    nozzle_size: str = ""
    nozzle_count: Number | None = None
    nozzle_spacing: QuantityIn | None = None
    pressure: QuantityIn | None = None
    droplets: int | None = None
    dials: Line = ""
    dial_unit: str = ""
    setting_step: Number | None = None
    note: Text = ""


class MachineOut(Out):
    """`reach` says how much ground one filling covers, for a sprayer; `state` how its output is known; `tank` what is in it.

    `positions` are those of a hose-end's dial, `dials` the same as they were typed.

    `findings` is what is said when it is used today, whatever goes in it; `takes`
    the products, by their ids, that it can put down.
    """

    id: int
    version: int
    takes: list[int]
    name: str
    kind: MachineKindName
    form: str
    form_text: str
    capacity: QuantityOut
    mark: QuantityOut | None
    output: RateOut | None
    typed_output: RateOut | None
    output_assumed: bool
    width: QuantityOut | None
    swath: str
    nozzle: str
    nozzle_size: str
    nozzle_count: int | None
    nozzle_spacing: QuantityOut | None
    pressure: QuantityOut | None
    droplets: int | None
    dials: str
    dial_unit: str
    positions: list[RateOut]
    setting_step: float | None
    reach: str
    state: str
    tank: str
    findings: list[FindingOut]
    note: str


# --- calibrations -----------------------------------------------------------------------------------------------


class CalibrationIn(In):
    """A bench's figures, kept. `product_id` says what a sprayer was filled with; none is water."""

    figures: BenchIn
    taken_on: date
    expires_on: date | None = None
    product_id: int | None = None
    weather: Line = ""
    note: Line = ""


class CalibrationOut(Out):
    """One calibration; `rate_value` is `rate` as a number, in the unit that outputs are told in here."""

    id: int
    method: str
    method_text: str
    taken_on: date
    expires_on: date | None
    old: bool
    with_what: str
    setting: str
    rate: str
    rate_value: float | None
    sentence: str
    trust: TrustName
    nozzle: str
    weather: str
    by: str
    note: str
    in_use: bool
    in_force: bool
    versus: str


class CurvePointOut(Out):
    """A setting with its rate."""

    setting: float
    rate: float
    text: str


class CurveOut(Out):
    """A spreader's tested settings for one product, to draw; `problem` where the tests contradict one another."""

    product_id: int
    product: str
    symbol: str
    points: list[CurvePointOut]
    tested: list[CurvePointOut]
    problem: str


class CleanStepOut(Out):
    """One step of cleaning, in its turn."""

    key: str
    text: str
    done: bool


class TankOut(Out):
    """What was last in a machine and how it is to be cleaned."""

    product: str
    kind: str
    on: date | None
    steps: list[CleanStepOut]
    clean: bool
    sentence: str


class CleaningOut(Out):
    """A cleaning that was noted."""

    id: int
    at: datetime
    by: str
    steps: str
    note: str


class CleaningIn(In):
    """Steps done, each as often as it was done."""

    steps: Annotated[list[str], Field(min_length=1, max_length=20)]
    note: Line = ""


class MachineWholeOut(Out):
    """A machine with its calibrations, curves, pattern, tank and cleanings."""

    machine: MachineOut
    calibrations: list[CalibrationOut]
    curves: list[CurveOut]
    pattern: PatternOut | None
    tank: TankOut
    cleanings: list[CleaningOut]


class CourseOut(Out):
    """A course for the catch test."""

    key: str
    text: str


class SizeOut(Out):
    """A nozzle size of the series."""

    key: str
    text: str
    flow: str


class FormOut(OptionOut):
    """What a machine can be built as, its kind, what one of them usually holds, and the products (ids) that it can put down."""

    kind: MachineKindName
    capacity: QuantityOut
    takes: list[int]


class KitOptionsOut(Out):
    """What the kit's forms offer to pick from; `assumed_output` is taken for that of a sprayer of which nobody knows it."""

    forms: list[FormOut]
    assumed_output: RateOut
    sizes: list[SizeOut]
    droplets: list[OptionOut]
    courses: list[CourseOut]


# --- nozzle, pace, setting, half way ----------------------------------------------------------------------------


class NozzleIn(In):
    """A nozzle card: what is fitted, what is wanted, and what for."""

    size: str = ""
    count: Number = 1.0
    spacing: QuantityIn | None = None
    pressure: QuantityIn | None = None
    pace: QuantityIn | None = None
    wanted: QuantityIn | None = None
    gravity: Number = 1.0
    product_id: int | None = None
    area_id: int | None = None
    works_on: Literal["leaf", "soil", ""] = ""
    systemic: bool = False


class NozzleOut(Out):
    """`droplets` is the class that the purpose asks for; `finest` and `coarsest` its places on the scale."""

    sentence: str
    answer: str
    facts: list[FactOut]
    droplets: str
    finest: int
    coarsest: int
    why: str
    scale: list[str]
    notes: list[str]
    working: list[StepOut]


class PaceIn(In):
    """The pace that an output asks for, beaten from mark to mark; `splits` are the times between marks as walked."""

    output: QuantityIn | None = None
    flow: QuantityIn | None = None
    width: QuantityIn | None = None
    area: QuantityIn | None = None
    marks: QuantityIn
    splits: Numbers = []


class PaceOut(Out):
    """`beat` [s] from mark to mark."""

    sentence: str
    answer: str
    beat: float
    facts: list[FactOut]
    walked: str
    drift: str
    tired: bool
    working: list[StepOut]


class SettingIn(In):
    """The setting for a rate of product."""

    product_id: int
    rate: QuantityIn
    passes: int = 1


class SettingOut(Out):
    """A spreader's setting for a rate, and what is said of it."""

    sentence: str
    setting: str
    findings: list[FindingOut]


class MidwayIn(In):
    """A look into the hopper or tank when a part is done; `done` as `1/2` or `50 %`."""

    loaded: QuantityIn
    left: QuantityIn
    done: str = "1/2"
    reserve: QuantityIn | None = None


class MidwayOut(Out):
    """What a look half way tells."""

    sentence: str
    expected: str
    ends_with: str
    factor: str
    good: bool


class OwnVesselIn(In):
    """A vessel of the account's own. `graduation` is what lies between two of its marks; the whole vessel where there are none,
    as a spoon has none.
    """

    version: int | None = None
    name: Name
    shape: str
    capacity: QuantityIn
    graduation: QuantityIn | None = None


class OwnVesselOut(Out):
    """A vessel of the account's own; `weighs` is a scale, `state` what is known of its marks, `marks` those that are numbered."""

    id: int
    version: int
    name: str
    shape: Shape
    capacity: QuantityOut
    graduation: QuantityOut
    weighs: bool
    marks: list[float]
    retired: bool
    state: str


class CupIn(In):
    """A cup's mark, what its water weighs, and how warm it is, in degF or degC."""

    mark: QuantityIn
    weight: QuantityIn
    temperature: QuantityIn | None = None


class VesselCheckOut(Out):
    """What a check with water found, and the vessel as it is kept."""

    sentence: str
    vessel: OwnVesselOut
