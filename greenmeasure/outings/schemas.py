"""What the outings API takes and gives: the week, an outing as it is proposed, and one that was taken up."""

from datetime import date, datetime
from typing import Annotated, Literal

from ninja import Path
from pydantic import Field

from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.schemas import Line, OptionOut, Out
from greenmeasure.reckon.schemas import JobIn, SaidIn
from greenmeasure.sky.schemas import LockOut

MOST_PEOPLE = 6
JobPlace = Annotated[int, Path(ge=0, le=400)]
ActName = Literal["ready", "spread", "spray", "water", "mow", "clean", "drive"]
StopState = Literal["open", "done", "skipped"]
OutingStatus = Literal["planned", "under_way", "done", "given_up"]


class OutingAskIn(In):
    """What is asked of an outing: its day, the next that is fit where None; what is left out of it, by the keys of what is due;
    at which sites, all where none is named; from when on (`07:30`); and how many people go out.
    """

    on: date | None = None
    leave: Annotated[list[Word], Field(max_length=200)] = []
    site_ids: Annotated[list[Id], Field(max_length=200)] = []
    clock: Annotated[str, Field(max_length=8)] = ""
    people: Annotated[int, Field(ge=1, le=MOST_PEOPLE)] = 1


class OutingStopOut(Out):
    """A ground of an act: what it is for there, what went down on it last, and what to know before one goes there."""

    id: int | None
    area_id: int
    area: str
    time: str
    what: str
    rate: str
    last: str
    note: str
    state: StopState
    why: str


class OutingActOut(Out):
    """One thing to do, with its time: a line of an outing. `job` is the place of the job that it belongs to, None for a drive."""

    kind: ActName
    begin: datetime
    end: datetime
    time: str
    title: str
    where: str
    note: str
    job: int | None
    stops: list[OutingStopOut]


class OutingSiteOut(Out):
    """What to know of a site before one goes there."""

    id: int
    name: str
    address: str
    contact: str
    gate: str


class OutingLeftOut(Out):
    """What is due and does not go with this outing: why, its next hours, and what waiting costs."""

    key: str
    title: str
    why: str
    next: str
    cost: str


class ProposedOut(Out):
    """An outing as it is proposed: nothing is kept. `dues` is what it does, by keys that can be left out; `out` what was."""

    on: date
    day: str
    sentence: str
    begin: datetime | None
    end: datetime | None
    acts: list[OutingActOut]
    left: list[OutingLeftOut]
    notes: list[str]
    dues: list[OptionOut]
    out: list[OptionOut]
    sites: list[OutingSiteOut]
    people: int
    proven: bool


class TakeOutingIn(OutingAskIn):
    """A proposed outing taken up as it is asked for; with `go` it begins at once."""

    go: bool = False


class OutingJobOut(Out):
    """A job of an outing that was taken up: how far it is, its mix sheet once it has one, and while it is open the job as it is
    reckoned, less what was skipped.
    """

    position: int
    kind: ActName
    title: str
    state: Literal["open", "under_way", "done", "skipped"]
    round_id: int | None
    machine: str
    asked: JobIn | None


class ClosingOut(Out):
    """An act at the end of an outing."""

    key: str
    text: str
    done: bool
    by: str


class FollowedOut(Out):
    """An outing that was taken up. `next` is the place of the job to do now, None where none is left; `locks` what must not
    happen on its ground and until when; `over` what was done, told once it is over.
    """

    id: int
    status: OutingStatus
    on: date
    day: str
    sentence: str
    people: int
    jobs: list[OutingJobOut]
    acts: list[OutingActOut]
    next: int | None
    locks: list[LockOut]
    closing: list[ClosingOut]
    sites: list[OutingSiteOut]
    over: list[str]


class OutingLineOut(Out):
    """An outing in a list."""

    id: int
    status: OutingStatus
    status_text: str
    day: str
    text: str


class WeekSpanOut(Out):
    """A stretch of the week: from one share of it to another, and what it is."""

    begin: float
    end: float
    text: str


class WeekRowOut(Out):
    """One thing that is due at a site: the hours fit for it, in words too, and by when, as a share of the week."""

    key: str
    title: str
    state: str
    fit: list[WeekSpanOut]
    said: str
    by: float | None


class WeekSiteOut(Out):
    """A site's week: what is due, what is locked, the outings on it, the dark hours."""

    id: int
    name: str
    rows: list[WeekRowOut]
    more: int
    locks: list[WeekSpanOut]
    dark: list[WeekSpanOut]
    outings: list[WeekSpanOut]


class WeekDayOut(Out):
    """A day of the week, from its share of it on."""

    on: date
    text: str
    begin: float


class WeekOut(Out):
    """The next seven days in a picture, and the outing that comes next: one that was taken up, or one that is proposed."""

    days: list[WeekDayOut]
    now: float
    sites: list[WeekSiteOut]
    open: list[OutingLineOut]
    next: ProposedOut | None


class RemindersIn(In):
    """What a member wants in their calendar, by keys, and whether they want the letter of the day."""

    holds: Annotated[list[Word], Field(max_length=12)]
    mail: bool = False


class RemindersOut(Out):
    """What a member's calendar holds, what it can hold, and its private address, empty where it has none; whether they want the
    letter of the day, and why none comes, where none can.
    """

    holds: list[str]
    choices: list[OptionOut]
    address: str
    mail: bool
    no_mail: str


class SkipIn(In):
    """Why a stop is skipped; empty takes it back."""

    why: Line = ""
    skip: bool = True


class StartJobIn(In):
    """What somebody looked at before a job of an outing begins."""

    said: SaidIn | None = None


class ClosingIn(In):
    """An act at the end, done or not."""

    key: Word
    done: bool
