"""What changes rounds: start, tick, finish into the book, give up."""

from dataclasses import dataclass
from datetime import datetime

from django.db import IntegrityError, transaction
from django.utils import timezone

from core.errors import InputError
from core.rates.actual import actual_rate
from core.rates.limits import Judgement, judge, refuse_above_label
from core.rates.rate import Rate
from core.units import AREA, MASS, VOLUME, Quantity
from greenmeasure.accounts.models import Club, User
from greenmeasure.book.actions import record
from greenmeasure.book.models import Entry
from greenmeasure.common.errors import Conflict, Faults
from greenmeasure.common.schemas import quantity_in
from greenmeasure.reckon.queries import job_of, job_out
from greenmeasure.rounds.models import Round, Tick
from greenmeasure.rounds.schemas import FinishIn, StartIn, TickIn
from greenmeasure.shelf.queries import row_of


def start_round(club: Club, user: User, data: StartIn, at: datetime | None = None) -> Round:
    """Begin a round: the mix sheet is made and kept. The same key again gives the round it began.

    `at` is when, for records brought in later; now, unless given.

    Raises:
        Refused: the plan is above the label of a product whose label binds.
        InputError: anything missing or absurd.
    """
    if begun := Round.objects.filter(club=club, key=data.key).first():
        return Round.objects.one(club, begun.pk)
    if data.machine_id is None:
        raise InputError("machine_id", None, "The round has no machine.", "Pick what it goes down with.")
    row = row_of(club, data.product_id, data.row_id)
    job = job_of(club, data)
    refuse_above_label(job.rate, job.label, job.product.kind)
    try:
        with transaction.atomic():
            made = Round.objects.create(
                club=club, key=data.key, product_id=data.product_id, area_id=data.area_id, machine_id=data.machine_id,
                use=row.use, phrase=row.phrase, rate_value=job.rate.value, rate_unit=job.rate.unit.key,
                passes=data.passes, amount_value=job.dose.amount.value, amount_unit=job.dose.amount.unit.key,
                spray_litres=job.spray.base if job.spray else None, sheet=job_out(job).model_dump(mode="json"),
                started_by=user, started_at=at or timezone.now(),
            )  # fmt: skip
    except IntegrityError:
        made = Round.objects.get(club=club, key=data.key)
    return Round.objects.one(club, made.pk)


def tick(found: Round, user: User, data: TickIn) -> None:
    """Tick an act, or take the tick back. What is worn for mixing is ticked before anything is poured.

    Raises:
        Conflict: the round is over, or the gear is not on yet.
        InputError: the sheet has no such act.
    """
    _still_open(found)
    _known_act(found, data)
    if not data.done:
        found.ticks.filter(load=data.load, act=data.act).delete()
        return
    if data.load and not worn(found):
        raise Conflict("First put on what the sheet lists for mixing, and tick it.")
    Tick.objects.get_or_create(round=found, load=data.load, act=data.act, defaults={"by": user, "at": timezone.now()})


def _known_act(found: Round, data: TickIn) -> None:
    if data.load == 0:
        known = {w["key"] for w in found.sheet["wear"]}
    else:
        load = next((x for x in found.sheet["loads"] if x["number"] == data.load), None)
        known = {a["key"] for a in load["acts"]} if load else set()
    if data.act not in known:
        raise InputError("act", f"{data.load}/{data.act}", "The sheet has no such act.", "Open the sheet again.")


def worn(found: Round) -> bool:
    """Whether everything worn for mixing is ticked."""
    needed = {w["key"] for w in found.sheet["wear"] if w["when"] == "mixing"}
    return needed <= {t.act for t in found.ticks.all() if t.load == 0}


def _still_open(found: Round) -> None:
    if found.status != Round.Status.UNDER_WAY:
        raise Conflict(f"This round is {found.get_status_display()}; it cannot be changed any more.")


@dataclass(frozen=True)
class Actual:
    """What really went down, read from the form and judged."""

    used: Quantity
    treated: Quantity
    spray: Quantity | None
    rate: Rate
    judgement: Judgement


def read_actual(found: Round, data: FinishIn) -> Actual:
    """What the form says really went down. Above the label is marked, never refused: it has happened.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    used = faults.of(quantity_in, "used", data.used, MASS, VOLUME)
    treated = faults.of(quantity_in, "treated", data.treated, AREA)
    spray = faults.of(quantity_in, "spray", data.spray, VOLUME) if data.spray else found.spray
    faults.raise_any()
    assert used and treated
    product = found.product.core()
    rate = actual_rate(product, found.label, used, treated, spray)
    return Actual(used, treated, spray, rate, judge(rate, found.label, product.kind))


def finish_round(found: Round, user: User, data: FinishIn, at: datetime | None = None) -> Entry:
    """Put the round in the book. Finishing twice gives the entry of the first time.

    `at` is when, for records brought in later; now, unless given.

    Raises:
        Faulty: every field at fault; nothing is saved.
        Conflict: the round was given up.
    """
    if found.status == Round.Status.DONE:
        return Entry.objects.get(round=found)
    _still_open(found)
    actual = read_actual(found, data)
    with transaction.atomic():
        now = at or timezone.now()
        entry = record(found, user, now, actual.used, actual.treated, actual.spray, actual.rate, actual.judgement,
                       wind=data.wind, air=data.air, note=data.note)  # fmt: skip
        found.status, found.ended_at = Round.Status.DONE, now
        found.save(update_fields=["status", "ended_at"])
    return entry


def give_up(found: Round) -> None:
    """End a round without an entry: nothing was put down.

    Raises:
        Conflict: the round is over already.
    """
    _still_open(found)
    found.status, found.ended_at = Round.Status.GIVEN_UP, timezone.now()
    found.save(update_fields=["status", "ended_at"])


def take_up_again(found: Round) -> None:
    """Undo giving up.

    Raises:
        Conflict: the round was not given up.
    """
    if found.status != Round.Status.GIVEN_UP:
        raise Conflict("Only a round that was given up can be taken up again.")
    found.status, found.ended_at = Round.Status.UNDER_WAY, None
    found.save(update_fields=["status", "ended_at"])
