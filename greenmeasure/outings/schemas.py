"""What the outings API takes and gives: the week, an outing as it is proposed, and one that was taken up."""

from datetime import date, datetime
from typing import Annotated, Literal

from ninja import Path
from pydantic import Field, StringConstraints

from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.schemas import Line, OptionOut, Out
from greenmeasure.reckon.schemas import JobIn, SaidIn
from greenmeasure.sky.schemas import LockOut

MOST_PEOPLE = 6
MOST_WAY = 600
"""Minutes between two sites."""
Weekday = Annotated[int, Field(ge=0, le=6)]
Crew = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)]
JobKey = Annotated[str, Field(max_length=400)]
JobPlace = Annotated[int, Path(ge=0, le=400)]
ActName = Literal["ready", "spread", "spray", "water", "mow", "clean", "drive"]
StopState = Literal["open", "done", "skipped"]
OutingStatus = Literal["planned", "under_way", "done", "given_up"]


class RouteIn(In):
    """Sites that are driven to together, and on which weekdays, from 0, Monday; any where none is named."""

    version: int | None = None
    name: Word
    days: Annotated[list[Weekday], Field(max_length=7)] = []
    site_ids: Annotated[list[Id], Field(max_length=200)]


class RouteLegOut(Out):
    """The way from one site of a route to the next; `said` where somebody said how long it takes."""

    one_id: int
    other_id: int
    text: str
    minutes: int
    said: bool


class RouteOut(Out):
    """A route with its sites in driving order."""

    id: int
    version: int
    name: str
    days: list[int]
    site_ids: list[int]
    sites: list[str]
    text: str
    legs: list[RouteLegOut]


class RoutesOut(Out):
    """The routes, and the sites that are on none."""

    routes: list[RouteOut]
    loose: list[OptionOut]


class WayIn(In):
    """How long it takes between two sites [min], either way; None takes it back."""

    one_id: Id
    other_id: Id
    minutes: Annotated[int, Field(ge=0, le=MOST_WAY)] | None


class SwapIn(In):
    """Another product for what is due, by its key."""

    key: Word
    product_id: Id


class OutingAskIn(In):
    """What is asked of an outing: its day, the next that is fit where None; what is left out of it, by the keys of what is due;
    at which sites, all where none is named; from when on (`07:30`); and how many people go out.

    `swaps` are other products for what is due; `order` jobs put after each other by hand, by their keys; `like` the outing that
    it does again, in place of what is due.
    """

    on: date | None = None
    leave: Annotated[list[Word], Field(max_length=200)] = []
    site_ids: Annotated[list[Id], Field(max_length=200)] = []
    clock: Annotated[str, Field(max_length=8)] = ""
    people: Annotated[int, Field(ge=1, le=MOST_PEOPLE)] = 1
    swaps: Annotated[list[SwapIn], Field(max_length=200)] = []
    order: Annotated[list[JobKey], Field(max_length=200)] = []
    like: Id | None = None


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
    """One thing to do, with its time: a line of an outing. `job` is the place of the job that it belongs to, None for a drive;
    `who` of the people does it, counted from 0.
    """

    kind: ActName
    begin: datetime
    end: datetime
    time: str
    title: str
    where: str
    note: str
    job: int | None
    who: int | None
    stops: list[OutingStopOut]


class OutingSiteOut(Out):
    """What to know of a site before one goes there."""

    id: int
    name: str
    address: str
    contact: str
    gate: str
    agreed: str
    tell: str
    water: str


class OutingDueOut(Out):
    """Something that is due, with the product that is meant for it and what else lists it."""

    key: str
    text: str
    product_id: int
    product: str
    others: list[OptionOut]


class PlannedJobOut(Out):
    """A job of an outing that is proposed, by the key that an order by hand names it by."""

    key: str
    position: int
    title: str


class OutingLeftOut(Out):
    """What is due and does not go with this outing: why, its next hours, and what waiting costs."""

    key: str
    title: str
    why: str
    next: str
    cost: str


class ProposedOut(Out):
    """An outing as it is proposed: nothing is kept. `dues` is what it does, by keys that can be left out; `out` what was; `jobs`
    are its mixes in order.
    """

    on: date
    day: str
    sentence: str
    begin: datetime | None
    end: datetime | None
    acts: list[OutingActOut]
    left: list[OutingLeftOut]
    notes: list[str]
    jobs: list[PlannedJobOut]
    dues: list[OutingDueOut]
    out: list[OutingDueOut]
    sites: list[OutingSiteOut]
    people: int
    proven: bool


class TakeOutingIn(OutingAskIn):
    """A proposed outing taken up as it is asked for; with `go` it begins at once. `crew` is who goes, in words."""

    go: bool = False
    crew: Crew = ""


class OutingJobOut(Out):
    """A job of an outing that was taken up: how far it is, its mix sheet once it has one, and while it is open the job as it is
    reckoned, less what was skipped, and the machines that could do it. `falls` tells where its loads run out,
    and what of them is left over where ground was skipped since they were made.
    """

    position: int
    kind: ActName
    title: str
    state: Literal["open", "under_way", "done", "skipped"]
    round_id: int | None
    machine_id: int | None
    machine: str
    machines: list[OptionOut]
    falls: list[str]
    asked: JobIn | None


class ClosingOut(Out):
    """An act at the end of an outing. `asks` is what is to be said with it, empty where nothing is; `machine_id` the machine
    whose cleaning it is.
    """

    key: str
    text: str
    done: bool
    by: str
    asks: str
    note: str
    machine_id: int | None


class OutingClockOut(Out):
    """Something that runs out at a time, on the account's clock too; `left` is how long that is from now [s]."""

    text: str
    until: datetime
    until_text: str
    left: int


class FollowedOut(Out):
    """An outing that was taken up. `next` is the place of the job to do now, None where none is left; `locks` what must not
    happen on its ground and until when, `clocks` what runs out while it goes on; `paused` why it stands still and since when;
    `over` what was done, told once it is over, `applications` the entries of the book that it made.
    """

    id: int
    status: OutingStatus
    on: date
    day: str
    sentence: str
    people: int
    crew: str
    paused: str
    jobs: list[OutingJobOut]
    acts: list[OutingActOut]
    next: int | None
    locks: list[LockOut]
    clocks: list[OutingClockOut]
    closing: list[ClosingOut]
    sites: list[OutingSiteOut]
    over: list[str]
    applications: list[int]


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
    """The next seven days in a picture, and the outing that comes next: one that was taken up, or one that is proposed; `more`
    sites have no room in the picture.
    """

    days: list[WeekDayOut]
    now: float
    sites: list[WeekSiteOut]
    more: int
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
    """An act at the end, done or not, with what is to be said of it."""

    key: Word
    done: bool
    note: Line = ""


class PauseIn(In):
    """Why an outing stands still: a breakdown, wind, rain."""

    why: Line


class AgainIn(In):
    """Who goes on: how many people, as before where None."""

    people: Annotated[int, Field(ge=1, le=MOST_PEOPLE)] | None = None


class JobMachineIn(In):
    """Another machine for a job of an outing."""

    machine_id: Id


class SiteYearOut(Out):
    """A site's year: its route, what went down last, what comes next, and how its turns stand."""

    id: int
    name: str
    route: str
    areas: int
    last: str
    next: str
    late: int
    due: int
    coming: int
    done: int
    skipped: int
    missed: int
    turns: int


class SitesYearOut(Out):
    """The year of all sites, those with something late first."""

    year: int
    sentence: str
    sites: list[SiteYearOut]


class SitePastOut(Out):
    """Something that happened at a site, or did not, on a day."""

    on: date
    text: str
    skipped: bool


class SitePageOut(Out):
    """A site on a page: what to know before one goes there, its year, what is due there, and what happened or was skipped."""

    about: OutingSiteOut
    year: SiteYearOut
    due: list[str]
    past: list[SitePastOut]
    outings: list[OutingLineOut]
