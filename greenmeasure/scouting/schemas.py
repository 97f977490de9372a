"""What the API of scouting takes and gives."""

from datetime import date
from typing import Annotated

from pydantic import Field

from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.schemas import FactOut, Line, Name, OptionOut, Out, QuantityIn

Number = float | str


class ScoutIn(In):
    """What a scout found; `x` and `y` are its place on the area's plan [m], `across` how far it reaches.

    `severity` is how much of the turf shows it [%], `what` a target's key or words, as its kind has it.
    """

    area_id: Id
    on: date
    kind: Word = "disease"
    what: Name = ""
    seen: bool = True
    severity: Number = ""
    score: Number = ""
    sure: Word = "sure"
    named_by: Word = "eye"
    spot_id: Id | None = None
    x: float | None = None
    y: float | None = None
    across: QuantityIn | None = None
    where: Name = ""
    note: Line = ""


class SpotIn(In):
    """A fixed spot; `x` and `y` are its place on the area's plan [m]. `version` is the one the form was filled from."""

    name: Name
    x: float | None = None
    y: float | None = None
    version: int | None = None


class PhotoIn(In):
    """What is noted of a photograph. `on` and `clock` say when it was taken, as it was unless they are told."""

    spot_id: Id | None = None
    report_id: Id | None = None
    light: Word = ""
    mown: Word = ""
    note: Line = ""
    on: date | None = None
    clock: Word = ""
    version: int | None = None


class WhyIn(In):
    """Why a report is struck."""

    why: Line


class FollowUpIn(In):
    """How it is after an application; today, unless a day is said."""

    application_id: Id
    how: Word
    on: date | None = None
    note: Line = ""


class ShotOut(Out):
    """A photograph in a row of them; `text` says when it was taken."""

    id: int
    text: str


class SpotSinceOut(Out):
    """A fixed spot's last photograph of before an application, and its latest since."""

    spot_id: int
    name: str
    before: ShotOut | None
    since: ShotOut | None


class FollowDueOut(Out):
    """An application whose day to look has come: `since` when and what, `signs` what to expect now, `answers` how it may be."""

    application_id: int
    area_id: int
    area: str
    on: date
    since: str
    signs: list[str]
    answers: list[OptionOut]
    spots: list[SpotSinceOut]


class FollowUpOut(Out):
    """What was said of an application afterwards."""

    id: int
    application_id: int
    on: date
    day: str
    how: str
    text: str
    note: str
    by: str
    struck: str


class AfterOut(Out):
    """What to expect after an application and when to look, what was seen then; what several without effect call for."""

    signs: list[FactOut]
    looks: str
    answers: list[OptionOut]
    spots: list[SpotSinceOut]
    found: list[FollowUpOut]
    without: str
    what_else: list[str]


class ScaleOut(Out):
    """A scale: from `least` to `most`, `text` what its marks mean, `per` what is counted on."""

    name: str
    least: float
    most: float
    text: str
    per: str


class TargetLookOut(Out):
    """Something of a kind, and what it is taken for: how to tell them apart."""

    key: str
    text: str
    unlike: list[FactOut]


class LookOut(Out):
    """A kind of thing to look for; without `targets` it is told in words."""

    key: str
    name: str
    targets: list[TargetLookOut]
    scale: ScaleOut | None
    share: bool


class LooksOut(Out):
    """Everything that can be looked for, how sure one can be, who can have named it; light and mowing of pictures."""

    looks: list[LookOut]
    sure: list[OptionOut]
    named_by: list[OptionOut]
    light: list[OptionOut]
    mown: list[OptionOut]


class ScoutOut(Out):
    """A scout report, in words too."""

    id: int
    area_id: int
    area: str
    on: date
    day: str
    kind: str
    what: str
    name: str
    seen: bool
    severity: str
    score: str
    named: str
    spot: str
    x: float | None
    y: float | None
    across: float | None
    where: str
    note: str
    by: str
    text: str
    struck: str
    photos: list[int]


class SpotOut(Out):
    """A fixed spot, and its latest photograph."""

    id: int
    name: str
    x: float | None
    y: float | None
    photos: int
    last: int | None
    version: int


class PhotoOut(Out):
    """A photograph: `taken` in words; `text` what is noted of it."""

    id: int
    area_id: int
    area: str
    spot_id: int | None
    spot: str
    report_id: int | None
    width: int
    height: int
    on: date
    day: str
    clock: str
    taken: str
    light: str
    mown: str
    text: str
    note: str
    by: str
    version: int


class EyesOut(Out):
    """What was seen on an area: its spots, its photographs and its reports, the newest first."""

    area_id: int
    area: str
    sentence: str
    spots: list[SpotOut]
    photos: list[PhotoOut]
    reports: list[ScoutOut]
    more: bool


class PairOut(Out):
    """Two photographs beside each other, the older one first: how far apart, and what makes them hard to compare."""

    then: PhotoOut
    now: PhotoOut
    apart: str
    doubts: list[str]


class ColourOut(Out):
    """What a photograph says of its colour: numbers with their sources, and doubts; never a verdict."""

    facts: list[FactOut]
    doubts: list[str]
    sources: Annotated[list[str], Field(min_length=1)]
