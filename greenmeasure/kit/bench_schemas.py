"""What the benches take and give."""

from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import FactOut, Out, QuantityIn, StepOut

Number = float | str
Numbers = Annotated[list[Number], Field(max_length=100)]
TrustName = Literal["one", "agree", "mind", "differ"]


class Timed(In):
    """A pace: a measured distance and how long it took."""

    distance: QuantityIn | None = None
    pace_seconds: Number = ""
    width: QuantityIn | None = None


class StripIn(In):
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


class CatchIn(In):
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


class DialIn(In):
    """A hose-end: `dial` of product in `dial_per` of spray, a timed bucket, and the time that an area took."""

    method: Literal["dial"]
    dial: QuantityIn
    dial_per: QuantityIn
    bucket: QuantityIn
    bucket_seconds: Number
    seconds: Number
    area: QuantityIn


class TipsIn(In):
    """Every tip of a boom caught for the same time; against new ones where the size and pressure are given."""

    method: Literal["tips"]
    runs: Numbers
    unit: str
    seconds: Number
    pressure: QuantityIn | None = None
    nozzle_size: str = ""


class Granules(In):
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


class PansIn(In):
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


class BenchAskIn(In):
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
