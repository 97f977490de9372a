"""What the kit API takes and gives."""

from datetime import date, datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import FactOut, Line, Name, OptionOut, Out, QuantityIn, QuantityOut, RateOut, StepOut, Text

MachineKindName = Literal["sprayer", "spreader"]
Number = float | str
Numbers = Annotated[list[Number], Field(max_length=100)]
TrustName = Literal["one", "agree", "mind", "differ"]


class MachineIn(Schema):
    """`droplets` is the place of the class in the list, as the nozzle's maker gives it for this pressure."""

    name: Name
    kind: MachineKindName
    form: str = ""
    capacity: QuantityIn
    output: QuantityIn | None = None
    width: QuantityIn | None = None
    nozzle_size: str = ""
    nozzle_count: Number | None = None
    nozzle_spacing: QuantityIn | None = None
    pressure: QuantityIn | None = None
    droplets: int | None = None
    note: Text = ""


class MachineOut(Out):
    """`reach` says how much ground one filling covers, for a sprayer; `state` how its output is known; `tank` what is in it.

    `findings` is what is said when it is used today, whatever goes in it.
    """

    id: int
    name: str
    kind: MachineKindName
    form: str
    form_text: str
    capacity: QuantityOut
    output: RateOut | None
    typed_output: RateOut | None
    width: QuantityOut | None
    swath: str
    swath_m: float | None
    nozzle: str
    nozzle_size: str
    nozzle_count: int | None
    nozzle_spacing: QuantityOut | None
    pressure: QuantityOut | None
    droplets: int | None
    reach: str
    state: str
    tank: str
    findings: list[FindingOut]
    note: str
    archived: bool


# --- benches ----------------------------------------------------------------------------------------------------


class Timed(Schema):
    """A pace: a measured distance and how long it took."""

    distance: QuantityIn | None = None
    pace_seconds: Number = ""
    width: QuantityIn | None = None


class StripIn(Schema):
    """Water used on a walked strip; with a time for each run its pace and flow are known too."""

    method: Literal["strip"]
    length: QuantityIn
    width: QuantityIn
    runs: Numbers
    unit: str
    seconds: Numbers = []


class FlowIn(Timed):
    """All the nozzles of the width caught for a time, and a pace."""

    method: Literal["flow"]
    runs: Numbers
    unit: str
    seconds: Numbers


class CatchIn(Schema):
    """One nozzle caught while a course is walked in `walk_seconds`; `nozzle_width` is the ground that one nozzle covers."""

    method: Literal["catch"]
    course: str
    nozzle_width: QuantityIn
    walk_seconds: Number = ""
    runs: Numbers
    unit: str


class EmptyingIn(Timed):
    """A known volume sprayed out while walking."""

    method: Literal["emptying"]
    volume: QuantityIn
    seconds: Numbers


class DialIn(Schema):
    """A hose-end: `dial` of product in `dial_per` of spray, a timed bucket, and the time that an area took."""

    method: Literal["dial"]
    dial: QuantityIn
    dial_per: QuantityIn
    bucket: QuantityIn
    bucket_seconds: Number
    seconds: Number
    area: QuantityIn


class TipsIn(Schema):
    """Every tip of a boom caught for the same time; against new ones where the size and pressure are given."""

    method: Literal["tips"]
    runs: Numbers
    unit: str
    seconds: Number
    pressure: QuantityIn | None = None
    nozzle_size: str = ""


class Granules(Schema):
    """Granules put down over a length and a width, at one setting; run by run."""

    product_id: int | None = None
    setting: Number
    length: QuantityIn
    width: QuantityIn
    runs: Numbers
    unit: str


class WeightIn(Granules):
    """Weighed in and out over a known area."""

    method: Literal["weight"]


class TrayIn(Granules):
    """Caught in a tray under a drop spreader of that width."""

    method: Literal["tray"]


class PansIn(Schema):
    """Pans across the swath, from the left as one walks away; `track` is the number of the pan on the track.

    `pan_area` and `passes` make the catch a rate; `spacing` picks the width to walk, the widest even one unless given.
    """

    method: Literal["pans"]
    product_id: int | None = None
    setting: Number = ""
    runs: Numbers
    unit: str = "g"
    apart: QuantityIn
    track: Number = ""
    passes: Number = 1.0
    pan_area: QuantityIn | None = None
    way: Literal["back_and_forth", "round"] = "back_and_forth"
    spacing: Number | None = None


BenchIn = Annotated[
    StripIn | FlowIn | CatchIn | EmptyingIn | DialIn | TipsIn | WeightIn | TrayIn | PansIn, Field(discriminator="method")
]


class BenchAskIn(Schema):
    """A bench as far as its figures are typed."""

    figures: BenchIn


class RunOut(Out):
    """One run: what it came to in words, and its distance from the mean as a share."""

    text: str
    off: float
    odd: bool


class TipOut(Out):
    """One tip with its verdict; `from_mean` as a share, for drawing."""

    number: int
    caught: str
    from_mean: float
    from_new: float | None
    state: Literal["good", "clean", "change"]
    sentence: str


class SpacingOut(Out):
    """One spacing of passes: `cv` by n − 1 and `cv_n` by n as shares, in words too."""

    pans: int
    width: str
    metres: float
    cv: float
    cv_text: str
    cv_n_text: str
    verdict: str
    chosen: bool


class PatternOut(Out):
    """A pan test to draw: the catch by pan [share of the fullest], the overlapped swath at the chosen spacing, its mean."""

    catches: list[float]
    track: int
    apart_m: float
    middle_m: float
    skewed: bool
    swath: list[float]
    mean: float
    spacings: list[SpacingOut]


class BenchOut(Out):
    """What a bench came to. `answer` is the number to read, `verdict` what the runs are worth."""

    method: str
    sentence: str
    answer: str
    also: list[str]
    trust: TrustName
    verdict: str
    runs: list[RunOut]
    facts: list[FactOut]
    notes: list[str]
    tips: list[TipOut]
    pattern: PatternOut | None
    working: list[StepOut]


class CalibrationIn(Schema):
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


class UseOut(Out):
    """What a round really put down, against the calibration that then stood."""

    on: date
    text: str
    off: float | None
    product: str


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
    id: int
    at: datetime
    by: str
    steps: str
    note: str


class CleaningIn(Schema):
    """Steps done, each as often as it was done."""

    steps: Annotated[list[str], Field(min_length=1, max_length=20)]
    note: Line = ""


class MachineWholeOut(Out):
    machine: MachineOut
    calibrations: list[CalibrationOut]
    curves: list[CurveOut]
    uses: list[UseOut]
    pattern: PatternOut | None
    tank: TankOut
    cleanings: list[CleaningOut]


class CourseOut(Out):
    key: str
    text: str
    catch_unit: str


class SizeOut(Out):
    key: str
    text: str
    flow: str


class KitOptionsOut(Out):
    """What the kit's forms offer to pick from."""

    forms: list[OptionOut]
    sizes: list[SizeOut]
    droplets: list[OptionOut]
    courses: list[CourseOut]


# --- nozzle, pace, setting, half way ----------------------------------------------------------------------------


class NozzleIn(Schema):
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


class PaceIn(Schema):
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
    beat_text: str
    facts: list[FactOut]
    walked: str
    drift: str
    tired: bool
    working: list[StepOut]


class SettingIn(Schema):
    """The setting for a rate of product."""

    product_id: int
    rate: QuantityIn
    passes: int = 1


class SettingOut(Out):
    sentence: str
    setting: str
    findings: list[FindingOut]


class MidwayIn(Schema):
    """A look into the hopper or tank when a part is done; `done` as `1/2` or `50 %`."""

    loaded: QuantityIn
    left: QuantityIn
    done: str = "1/2"
    reserve: QuantityIn | None = None


class MidwayOut(Out):
    sentence: str
    expected: str
    ends_with: str
    factor: str
    good: bool
