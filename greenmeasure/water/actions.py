"""What changes water: audits kept, tasks made and done."""

from django.db import transaction

from core.errors import InputError
from core.water.cans import Heads, audit
from greenmeasure.accounts.models import Account, User
from greenmeasure.common import clock
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Missing
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import number_in
from greenmeasure.ground.models import Area
from greenmeasure.water.models import Task, WaterAudit
from greenmeasure.water.queries import cans_in, wind_in
from greenmeasure.water.schemas import AuditIn, TaskIn
from greenmeasure.water.words import dry_spots


def keep_audit(area: Area, user: User, data: AuditIn, tasks: bool = False) -> WaterAudit:
    """Keep an audit; with `tasks`, each dry spot becomes a task.

    Raises:
        InputError: a day to come, too few cans, or a reading that cannot be.
    """
    if data.taken_on > today(area):
        raise InputError("taken_on", str(data.taken_on), "That day is still to come.", "Give the day it was run.")
    cans, minutes = cans_in(data), number_in("minutes", data.minutes)
    wind = wind_in(data)
    found = audit(cans, minutes, Heads(data.heads), wind)
    rows = [{"depth": c.depth, "x": c.at[0] if c.at else None, "y": c.at[1] if c.at else None} for c in cans]
    with transaction.atomic():
        made = WaterAudit.objects.create(
            area=area,
            taken_on=data.taken_on,
            minutes=minutes,
            heads=data.heads,
            wind=wind,
            cans=rows,
            by=str(user),
            note=data.note,
        )
        if tasks:
            for text in dry_spots(found, area.account.us):
                Task.objects.create(account=area.account, area=area, audit=made, text=text)
        area.account.touch("water")
    return made


def use_audit(area: Area, audit_id: int, use: bool) -> None:
    """Count an audit, or leave it out with its tasks; it stays in the list either way. Raises Missing."""
    found = area.water.filter(pk=audit_id).first()
    if found is None:
        raise Missing("audit")
    found.in_use = use
    found.save(update_fields=["in_use"])
    area.account.touch("water")


def add_tasks(area: Area, data: TaskIn) -> list[Task]:
    """Make tasks for an area. Raises InputError for an empty one."""
    for i, text in enumerate(data.texts):
        if not text.strip():
            raise InputError(f"texts.{i}", text, "The task says nothing.", "Say what is to be seen to.")
    made = [Task.objects.create(account=area.account, area=area, text=text) for text in data.texts]
    area.account.touch("water")
    return made


def task_of(account: Account, task_id: int) -> Task:
    """A task of this account. Raises Missing."""
    found = Task.objects.filter(seen_by(account, "area__site"), account=account, pk=task_id).select_related("area").first()
    if found is None:
        raise Missing("task")
    return found


def set_done(task: Task, user: User, done: bool) -> None:
    """Mark a task as seen to, or take that back."""
    task.done_at, task.done_by = (clock.now(), str(user)) if done else (None, "")
    task.save(update_fields=["done_at", "done_by"])
    task.account.touch("water")
