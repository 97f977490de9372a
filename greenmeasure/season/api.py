"""Season: what is due, which products may go down against it, and when."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, user_of
from greenmeasure.accounts.once import key_of
from greenmeasure.common.bounds import Id, Word
from greenmeasure.rounds import queries as rounds
from greenmeasure.rounds.schemas import RoundOut
from greenmeasure.season import actions, queries
from greenmeasure.season.schemas import DueOut, DueWholeOut, PlanDueIn, StartDueIn

router = Router(tags=["season"])


@router.get("/due", response=DueOut, auth=VIEWER)
def get_due(request: HttpRequest, account: Path[str]) -> DueOut:
    """What is due, the gravest first, with its product and its next hours."""
    return queries.due_list(account_of(request), whole=60)


@router.get("/due/{area_id}/{disease}", response=DueWholeOut, auth=VIEWER)
def get_due_whole(request: HttpRequest, account: Path[str], area_id: Id, disease: Word) -> DueWholeOut:
    """One due thing with every product that lists it: each choice with its reason, each refusal with its rule."""
    return queries.due_whole(account_of(request), area_id, disease)


@router.post("/planned", response={201: DueWholeOut}, auth=APPLICATOR)
def plan_due(request: HttpRequest, account: Path[str], data: PlanDueIn) -> tuple[int, DueWholeOut]:
    """Pick a window for an application that is due."""
    found = account_of(request)
    actions.plan(found, user_of(request), data)
    return 201, queries.due_whole(found, data.area_id, data.disease)


@router.delete("/planned/{planned_id}", response={204: None}, auth=APPLICATOR)
def drop_planned(request: HttpRequest, account: Path[str], planned_id: Id) -> tuple[int, None]:
    """Take a planned window back."""
    actions.drop(account_of(request), planned_id)
    return 204, None


@router.post("/start", response={201: RoundOut}, auth=APPLICATOR)
def start_due(request: HttpRequest, account: Path[str], data: StartDueIn) -> tuple[int, RoundOut]:
    """Make a proposal a round."""
    return 201, rounds.round_out(actions.start_due(account_of(request), user_of(request), data, key_of(request)))
