"""What outings that were taken up are still to put down: each open stop of a job that has no round yet."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from core.errors import InputError
from core.label.rate import Rate, RateUnit
from core.ledger.history import Applied, Place, Standing, applied
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import number_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.meant import STEP, amount_on
from greenmeasure.shelf.queries import Card, cards


def event_of(job_id: int, area_id: int) -> str:
    """How the ledger names what a job of an outing would put down on an area."""
    return f"taken-{job_id}-{area_id}"


@dataclass(frozen=True)
class Mine:
    """What a job of an outing puts down on a ground: how the ledger names it, the area and its products, and when it is done."""

    name: str
    area_id: int
    product_ids: tuple[int, ...]
    at: datetime


@kept("outings")
def mine_of(account: Account) -> dict[int, tuple[Mine, ...]]:
    """What each outing that is not over puts down, begun or not, less what was skipped."""
    found: dict[int, tuple[Mine, ...]] = {}
    for outing in _open(account):
        found[outing.pk] = tuple(
            Mine(_name(job, stop), stop.area_id, tuple(c["product_id"] for c in job.job["mix"]), stop.end)
            for job in outing.jobs.all()
            if job.job
            for stop in job.stops.all()
            if stop.state != "skipped"
        )
    return found


def _open(account: Account) -> Any:
    return account.outings.filter(status__in=("planned", "under_way")).prefetch_related("jobs__stops", "jobs__round")


def _name(job: Any, stop: Any) -> str:
    return stop.want if stop.want.startswith(STEP) else event_of(job.pk, stop.area_id)


@kept("outings", "rounds", "season", "shelf", "ground")
def every_taken_up(account: Account) -> tuple[Applied, ...]:
    """What outings are still to put down, besides what is counted as a turn of the programme or as planned."""
    planned = set(account.planned.filter(dropped_at=None).values_list("area_id", "product_id"))
    return tuple(a for a in _read(account) if a.place and (a.place.area, a.product_id) not in planned)


def _read(account: Account) -> Iterator[Applied]:
    for outing in _open(account):
        for job in outing.jobs.all():
            if job.job and not (job.round and job.round.status != "given_up"):
                for stop in job.stops.all():
                    if stop.state == "open" and not stop.want.startswith(STEP) and (area := areas(account).get(stop.area_id)):
                        yield from _on(account, job, stop, area)


def _on(account: Account, job: Any, stop: Any, area: Area) -> Iterator[Applied]:
    part = next((p for p in job.job["parts"] if p["area_id"] == area.pk), None)
    for component, given in zip(job.job["mix"], part["doses"] if part else (), strict=False):
        card = cards(account).get(component["product_id"])
        made = _meant(card, given, area, stop) if card else None
        if made:
            event = event_of(job.pk, area.pk)
            yield replace(made, application=event, place=Place(area.pk), at=stop.end, target=component.get("target", ""))


def _meant(card: Card, given: Any, area: Area, stop: Any) -> Applied | None:
    """One product of a mix; None for what goes in to taste, and where no amount is known."""
    rows = dict(zip(card.rows, card.label_rows, strict=True))
    row, rate = rows.get(given.get("row_id") or 0), given.get("rate")
    if rate is None:
        return None
    try:
        told = Rate(number_in("rate", rate["value"]), RateUnit.from_key(rate["unit"]))
    except InputError:
        return None
    amount = amount_on(card, told, area)
    if amount is None:
        return None
    made = applied(card.core, amount, area.size, local_day(area, stop.end), row)
    return replace(made, standing=Standing.PLANNED)
