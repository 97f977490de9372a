"""Other work on the ground."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, user_of
from greenmeasure.common.bounds import Id
from greenmeasure.work import actions, queries
from greenmeasure.work.schemas import DoingOut, StrikeIn, WorkIn, WorkOut

router = Router(tags=["work"])


@router.get("/kinds", response=list[DoingOut], auth=VIEWER)
def list_doings(request: HttpRequest, account: Path[str]) -> list[DoingOut]:
    """Every kind of work, with what may be told of it."""
    return queries.doings(account_of(request))


@router.get("", response=list[WorkOut], auth=VIEWER)
def list_works(request: HttpRequest, account: Path[str], area_id: Id | None = None) -> list[WorkOut]:
    """The latest works, of one area or of all."""
    return queries.listed(account_of(request), area_id)


@router.post("/check", response=list[str], auth=VIEWER)
def check_work(request: HttpRequest, account: Path[str], data: WorkIn) -> list[str]:
    """What stands against work as it is typed; keeps nothing."""
    return list(actions.warned(account_of(request), data))


@router.post("", response={201: list[WorkOut]}, auth=APPLICATOR)
def note_work(request: HttpRequest, account: Path[str], data: WorkIn) -> tuple[int, list[WorkOut]]:
    """Note work on areas, today and now unless a day is said."""
    return 201, queries.works_out(actions.note_work(account_of(request), user_of(request), data))


@router.post("/{work_id}/strike", response=WorkOut, auth=APPLICATOR)
def strike_work(request: HttpRequest, account: Path[str], work_id: Id, data: StrikeIn) -> WorkOut:
    """Strike a work with a reason; it stays readable."""
    found = queries.work_of(account_of(request), work_id)
    actions.strike_work(found, user_of(request), data.why)
    return queries.work_out(found)
