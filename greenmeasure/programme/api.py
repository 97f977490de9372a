"""The season's programme."""

from django.http import HttpRequest
from ninja import Path, Query, Router

from greenmeasure.accounts.auth import APPLICATOR, MANAGER, VIEWER, account_of, user_of
from greenmeasure.common.bounds import Id
from greenmeasure.common.versions import against
from greenmeasure.programme import actions, job, money, queries
from greenmeasure.programme.models import Step
from greenmeasure.programme.schemas import (
    CopyIn,
    MeantStepOut,
    MoneyIn,
    ProgrammeAsked,
    ProgrammeOut,
    SeasonOutlineIn,
    SoilStepsIn,
    StepEventIn,
    StepIn,
    StepOptionsOut,
    TurnAskIn,
    TurnIn,
    TurnNumber,
    TurnOut,
)
from greenmeasure.reckon.schemas import AgainOut

router = Router(tags=["programme"])


@router.get("", response=ProgrammeOut, auth=VIEWER)
def read_programme(request: HttpRequest, account: Path[str], asked: Query[ProgrammeAsked]) -> ProgrammeOut:
    """The programme of a year: what is due of it, each area's year, its steps and events."""
    return queries.programme(account_of(request), asked.year)


@router.get("/options", response=StepOptionsOut, auth=VIEWER)
def read_step_options(request: HttpRequest, account: Path[str]) -> StepOptionsOut:
    """What a step's form offers, and the outlines to start from."""
    return queries.options(account_of(request))


@router.post("/steps", response={201: MeantStepOut}, auth=MANAGER)
def add_step(request: HttpRequest, account: Path[str], data: StepIn) -> tuple[int, MeantStepOut]:
    """Add a step."""
    found = account_of(request)
    made = actions.save_step(found, user_of(request), data)
    return 201, queries.step_of(found, made.pk)


@router.put("/steps/{step_id}", response=MeantStepOut, auth=MANAGER)
def change_step(request: HttpRequest, account: Path[str], step_id: Id, data: StepIn) -> MeantStepOut:
    """Change a step."""
    found = account_of(request)
    with against(data, lambda: queries.step_of(found, step_id)):
        actions.save_step(found, user_of(request), data, Step.objects.one(found, step_id))
        return queries.step_of(found, step_id)


@router.delete("/steps/{step_id}", response={204: None}, auth=MANAGER)
def put_step_away(request: HttpRequest, account: Path[str], step_id: Id) -> tuple[int, None]:
    """Put a step away."""
    found = account_of(request)
    actions.put_away(Step.objects.one(found, step_id))
    return 204, None


@router.post("/steps/{step_id}/back", response=MeantStepOut, auth=MANAGER)
def put_step_back(request: HttpRequest, account: Path[str], step_id: Id) -> MeantStepOut:
    """Take a step back that was put away."""
    found = account_of(request)
    actions.put_back(Step.objects.one(found, step_id))
    return queries.step_of(found, step_id)


@router.get("/steps/{step_id}/job", response=AgainOut, auth=VIEWER)
def read_turn_as_job(
    request: HttpRequest, account: Path[str], step_id: Id, area_id: Query[Id], number: Query[TurnNumber]
) -> AgainOut:
    """A turn as a job to reckon: its mix on every area of its site on which it is open and may go down today."""
    return job.job_of(account_of(request), step_id, number, area_id)


@router.post("/events", response={201: ProgrammeOut}, auth=MANAGER)
def add_event(request: HttpRequest, account: Path[str], data: StepEventIn) -> tuple[int, ProgrammeOut]:
    """Keep an event that steps go by."""
    found = account_of(request)
    actions.add_event(found, data)
    return 201, queries.programme(found, data.on.year)


@router.delete("/events/{event_id}", response={204: None}, auth=MANAGER)
def remove_event(request: HttpRequest, account: Path[str], event_id: Id) -> tuple[int, None]:
    """Take an event out."""
    actions.remove_event(account_of(request), event_id)
    return 204, None


@router.post("/money", response=ProgrammeOut, auth=MANAGER)
def set_money(request: HttpRequest, account: Path[str], data: MoneyIn) -> ProgrammeOut:
    """Say what may be spent in a year, or take that back."""
    found = account_of(request)
    money.set_money(found, user_of(request), data)
    return queries.programme(found, data.year)


@router.post("/turns/look", response=TurnOut, auth=VIEWER)
def look_at_turn(request: HttpRequest, account: Path[str], data: TurnAskIn) -> TurnOut:
    """What the gate would say of a turn on another day; nothing is kept."""
    return queries.looked_at(account_of(request), data)


@router.post("/turns", response=ProgrammeOut, auth=APPLICATOR)
def set_turn(request: HttpRequest, account: Path[str], data: TurnIn) -> ProgrammeOut:
    """Move or skip a turn, or take back what was set for it."""
    found = account_of(request)
    year = actions.set_turn(found, user_of(request), data)
    return queries.programme(found, year)


@router.post("/outlines", response={201: ProgrammeOut}, auth=MANAGER)
def adopt_outline(request: HttpRequest, account: Path[str], data: SeasonOutlineIn) -> tuple[int, ProgrammeOut]:
    """Begin a year's programme from an outline."""
    found = account_of(request)
    actions.adopt(found, user_of(request), data)
    return 201, queries.programme(found, data.year)


@router.post("/soil", response={201: ProgrammeOut}, auth=MANAGER)
def adopt_soil_plan(request: HttpRequest, account: Path[str], data: SoilStepsIn) -> tuple[int, ProgrammeOut]:
    """Put the steps of a pH plan into the programme."""
    found = account_of(request)
    return 201, queries.programme(found, actions.adopt_soil(found, user_of(request), data))


@router.post("/copies", response={201: ProgrammeOut}, auth=MANAGER)
def copy_programme(request: HttpRequest, account: Path[str], data: CopyIn) -> tuple[int, ProgrammeOut]:
    """Copy a year's steps into another."""
    found = account_of(request)
    actions.copy_year(found, user_of(request), data)
    return 201, queries.programme(found, data.year)
