"""Water: catch-can audits and tasks."""

from typing import Literal

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, user_of
from greenmeasure.common.bounds import Id, Word
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.models import Area
from greenmeasure.water import actions, queries
from greenmeasure.water.schemas import AuditAskIn, AuditIn, AuditOut, TaskIn, TaskOut, WaterOut

router = Router(tags=["water"])


@router.get("/areas/{area_id}/water", response=WaterOut, auth=VIEWER)
def get_water(request: HttpRequest, account: Path[str], area_id: Id, wanted: Word = "", unit: Word = "mm") -> WaterOut:
    """An area's water: the audit in force, those before it, tasks, and minutes for a wanted depth."""
    return queries.water(account_of(request), area_id, QuantityIn(value=wanted, unit=unit))


@router.post("/areas/{area_id}/water/audit", response=AuditOut, auth=VIEWER)
def ask_audit(request: HttpRequest, account: Path[str], area_id: Id, data: AuditAskIn) -> AuditOut:
    """What an audit comes to as it is typed; nothing is kept."""
    return queries.asked(account_of(request), area_id, data)


@router.post("/areas/{area_id}/water", response={201: WaterOut}, auth=APPLICATOR)
def keep_audit(request: HttpRequest, account: Path[str], area_id: Id, data: AuditIn, tasks: bool = False) -> tuple[int, WaterOut]:
    """Keep an audit; with `tasks`, each dry spot becomes a task."""
    found = account_of(request)
    actions.keep_audit(Area.objects.one(found, area_id), user_of(request), data, tasks)
    found.refresh_from_db()
    return 201, queries.water(found, area_id)


@router.post("/areas/{area_id}/water/{audit_id}/{act}", response=WaterOut, auth=APPLICATOR)
def use_audit(request: HttpRequest, account: Path[str], area_id: Id, audit_id: Id, act: Literal["use", "leave"]) -> WaterOut:
    """Count an audit (`use`) or leave it out with its tasks (`leave`)."""
    found = account_of(request)
    actions.use_audit(Area.objects.one(found, area_id), audit_id, act == "use")
    found.refresh_from_db()
    return queries.water(found, area_id)


@router.post("/areas/{area_id}/tasks", response={201: list[TaskOut]}, auth=APPLICATOR)
def add_tasks(request: HttpRequest, account: Path[str], area_id: Id, data: TaskIn) -> tuple[int, list[TaskOut]]:
    """Make tasks for an area."""
    made = actions.add_tasks(Area.objects.one(account_of(request), area_id), data)
    return 201, [queries.task_out(t) for t in made]


@router.get("/tasks", response=list[TaskOut], auth=VIEWER)
def list_tasks(request: HttpRequest, account: Path[str]) -> list[TaskOut]:
    """What is still to be seen to."""
    return queries.open_tasks(account_of(request))


@router.post("/tasks/{task_id}/{act}", response=TaskOut, auth=APPLICATOR)
def set_task(request: HttpRequest, account: Path[str], task_id: Id, act: Literal["done", "open"]) -> TaskOut:
    """Mark a task as seen to (`done`), or take that back (`open`)."""
    task = actions.task_of(account_of(request), task_id)
    actions.set_done(task, user_of(request), act == "done")
    return queries.task_out(task)
