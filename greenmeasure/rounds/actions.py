"""What changes rounds: start, tick, finish into the book, give up."""

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date, datetime, timedelta
from uuid import UUID

from django.db import IntegrityError, transaction

from core.errors import InputError, Refused
from core.findings import Weight
from core.job import DosePlan
from core.ledger.gate import Checked
from core.rates.limits import refuse_above_label
from greenmeasure.accounts.models import Account, User
from greenmeasure.book.models import Application
from greenmeasure.common import clock
from greenmeasure.common.clock import local_day, moment_at
from greenmeasure.common.errors import Conflict
from greenmeasure.common.models import Belonging
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.actions import learn
from greenmeasure.kit.queries import machine_of
from greenmeasure.reckon.outs import Reckoned
from greenmeasure.reckon.queries import reckoned
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.rounds.actual import Taught, read_actual
from greenmeasure.rounds.models import Round, RoundComponent, RoundDose, RoundPart, Tick
from greenmeasure.rounds.recording import Finished, Marked, Marks, record, take_from_lots
from greenmeasure.rounds.schemas import DoneIn, FinishIn, TickIn
from greenmeasure.rounds.sheets import sheet_of
from greenmeasure.rounds.standing import stands_against
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import card_of

HOUR = "hour-"
"""What the hour of a plan says, by the beginning of its key."""
SOON = timedelta(minutes=5)
"""Clocks of two devices differ by as much."""


def start_round(account: Account, user: User, data: JobIn, key: UUID, at: datetime | None = None) -> Round:
    """Begin a round: the mix sheet is made and kept. The same key again gives the round it began.

    `at` is when it was, for what has happened already, which nothing refuses; as `data` says, unless given.

    Raises:
        Refused: the plan is against the label of a product whose label binds, or against a closed season.
        InputError: anything missing or absurd.
    """
    if begun := Round.objects.filter(account=account, key=key).first():
        return Round.objects.one(account, begun.pk)
    found = reckoned(account, data, at)
    if at is None:
        _refuse_put_away(account, data)
        _allow(found)
    return _begin(account, user, data, key, found, at)


def _begin(account: Account, user: User, data: JobIn, key: UUID, found: Reckoned, at: datetime | None) -> Round:
    """Make the round and its sheet; `at` is when it began, now unless given. Raises InputError where it has no machine."""
    if data.machine_id is None:
        raise InputError("machine_id", None, "The round has no machine.", "Pick what it goes down with.")
    try:
        with transaction.atomic():
            made = Round.objects.create(
                account=account,
                key=key,
                machine_id=data.machine_id,
                passes=data.passes,
                spray_litres=found.job.spray.base if found.job.spray else None,
                dial_value=found.dial.value if found.dial else None,
                dial_unit=found.dial.unit.key if found.dial else "",
                undiluted=found.job.undiluted,
                spots=found.spots,
                crossing=found.crossing,
                sheet=sheet_of(found).document(),
                started_by=user,
                started_at=at or clock.now(),
                at=found.at,
                looked=found.looked,
            )
            _save_mix(made, data, found)
            account.touch("rounds")
    except IntegrityError:
        made = Round.objects.get(account=account, key=key)
    return Round.objects.one(account, made.pk)


def _allow(found: Reckoned) -> None:
    """Let a plan through, or stop it with the rule quoted, or with what is still to be looked at."""
    for i, part in enumerate(found.job.parts):
        for c, dose in enumerate(part.doses):
            if dose:
                refuse_above_label(dose.judged, dose.label, dose.product, f"parts.{i}.doses.{c}.rate")
        for checked in found.checks[i]:
            if checked:
                _refuse(checked, part.part.name, f"parts.{i}")
                _ask(checked)
    if rule := next((f for f in found.machine_says if f.act is Weight.REFUSE), None):
        raise Refused("machine_id", found.job.machine and found.job.machine.name, rule.sentence, "")


def _refuse_put_away(account: Account, data: JobIn) -> None:
    """Stop a round with a thing that was put away since it was picked, as in another window."""
    picked: list[tuple[str, Belonging]] = [
        *((f"mix.{c}.product_id", card_of(account, x.product_id).product) for c, x in enumerate(data.mix)),
        *([("machine_id", machine_of(account, data.machine_id))] if data.machine_id else []),
        *((f"parts.{i}.area_id", area_of(account, p.area_id)) for i, p in enumerate(data.parts)),
    ]
    for field, thing in picked:
        if thing.archived_at:
            raise InputError(field, thing.name, f"{thing.name} has been put away.", "Pick another, or put it back first.")


def _refuse(checked: Checked, where: str, field: str) -> None:
    """Stop a plan that a rule forbids, with the rule quoted."""
    rule = next((f for f in checked.findings if f.act is Weight.REFUSE), None)
    if rule:
        raise Refused(field, where, f"{where}: {rule.sentence}", "Change the plan; a rule of the label or of law binds.")


def _ask(checked: Checked) -> None:
    """Stop a plan until what a rule of its label needs to know of the hour has been looked at."""
    asked = next((f for f in checked.findings if f.act is Weight.ASK and f.key.startswith(HOUR)), None)
    if asked:
        name = asked.key.removeprefix(HOUR)
        raise InputError(f"said.{name}", None, asked.sentence, "Answer it in Reckon, then start.")


def _refuse_again(found: Round) -> None:
    """Hold a round that was given up against its ledger as it is now."""
    for against in stands_against(found, max(found.at, clock.now())):
        where, rule = str(against.part), against.rule.sentence
        raise Refused("round", where, f"{where}: {rule}", "Start another round when it may go down.")


def _save_mix(made: Round, data: JobIn, found: Reckoned) -> None:
    """Keep the mix, its grounds, and the dose of each on each."""
    mix = [
        RoundComponent.objects.create(
            round=made,
            position=c,
            product_id=x.product_id,
            target=x.target,
            amount_value=plan.amount.value if plan.amount else None,
            amount_unit=plan.amount.unit.key if plan.amount else "",
        )
        for c, (x, plan) in enumerate(zip(data.mix, found.job.mix, strict=True))
    ]
    for i, (planned, area_id) in enumerate(zip(found.job.parts, found.area_ids, strict=True)):
        treated = planned.part.area
        part = RoundPart.objects.create(
            round=made,
            position=i,
            area_id=area_id,
            zone=planned.part.zone,
            treated_value=treated.value,
            treated_unit=treated.unit.key,
        )
        for component, dose, row in zip(mix, planned.doses, found.rows[i], strict=True):
            if dose and row:
                _save_dose(part, component, dose, row)


def _save_dose(part: RoundPart, component: RoundComponent, dose: DosePlan, row: RateRow) -> None:
    rate = dose.rate if dose.rate.unit.kind == dose.judged.unit.kind else dose.judged
    RoundDose.objects.create(
        part=part,
        component=component,
        use=row.use,
        phrase=row.phrase,
        intent=row.intent,
        interval_low=row.interval_low,
        interval_high=row.interval_high,
        rate_value=rate.value,
        rate_unit=rate.unit.key,
        dose=dose.dose.base,
    )


def tick(found: Round, user: User, data: TickIn) -> None:
    """Tick an act, or take the tick back. What is worn for mixing is ticked before anything is poured.

    Raises:
        Conflict: the round is over, or the gear is not on yet.
        InputError: the sheet has no such act.
    """
    _known_act(found, data)
    with open_round(found, "ticks"):
        if not data.done:
            found.ticks.filter(load=data.load, act=data.act).delete()
            return
        if data.load and not found.read_sheet().worn(ticked(found)):
            raise Conflict("First put on what the sheet lists for mixing, and tick it.")
        Tick.objects.get_or_create(round=found, load=data.load, act=data.act, defaults={"by": user, "at": clock.now()})


@contextmanager
def open_round(found: Round, part: str = "rounds") -> Iterator[None]:
    """Hold a round that is under way while something of a part changes. Raises Conflict where it is over."""
    with transaction.atomic():
        _hold(found)
        _still_open(found)
        yield
        found.account.touch(part)


def _hold(found: Round) -> None:
    """Hold a round's row for this transaction, and read its state from it."""
    found.status = Round.objects.select_for_update().values_list("status", flat=True).get(pk=found.pk)


def _move(found: Round, before: Round.Status, after: Round.Status, at: datetime | None) -> bool:
    """Take a round from one state to another, decided on its row; whether it was in the first."""
    rows = Round.objects.filter(pk=found.pk, status=before)
    if not rows.update(status=after, ended_at=at):
        found.refresh_from_db(fields=["status", "ended_at"])
        return False
    found.status, found.ended_at = after, at
    return True


def _known_act(found: Round, data: TickIn) -> None:
    if not found.read_sheet().holds(data.load, data.act):
        raise InputError("act", f"{data.load}/{data.act}", "The sheet has no such act.", "Open the sheet again.")


def ticked(found: Round) -> set[tuple[int, str]]:
    """What has been ticked of a round, load and act."""
    return {(t.load, t.act) for t in found.ticks.all()}


def _still_open(found: Round) -> None:
    if found.status != Round.Status.UNDER_WAY:
        raise Conflict(f"This round is {found.get_status_display()}; it cannot be changed any more.")


def finish_round(
    found: Round, user: User, data: FinishIn, at: datetime | None = None, marked: Marked | None = None
) -> list[Application]:
    """Put the round in the book, an application an area. Finishing twice gives those of the first time.

    `at` is when, for records brought in later; as `data` says, unless given. `marked` is what stood against it.

    Raises:
        Faulty: every field at fault; nothing is saved.
        Conflict: the round was given up.
    """
    if found.status == Round.Status.DONE:
        return list(found.applications.order_by("pk"))
    _still_open(found)
    if found.spots and found.applications.exists():
        raise Conflict("Some of this mix is in the book by its outings: note the next one, or empty the tank.")
    actual = read_actual(found, data)
    now = at or when_done(found, data.on, data.clock)
    with transaction.atomic():
        if not _move(found, Round.Status.UNDER_WAY, Round.Status.DONE, now):
            if found.status != Round.Status.DONE:
                _still_open(found)
            return list(found.applications.order_by("pk"))
        made = Finished(found, user, now, actual, data)
        applications = [record(made, part, marked or {}) for part in actual.parts]
        take_from_lots(actual)
        if actual.taught:
            _teach(found, user, data, actual.taught, now)
        found.account.touch("rounds", "book", "stock", *(["kit"] if actual.taught else []))
    return applications


def when_done(found: Round, on: date | None, hour: str) -> datetime:
    """When a round was really done: now, unless a day or an hour is said.

    Raises:
        InputError: a time that has not been yet.
    """
    at, now = moment_at(found.parts.all()[0].area, on, hour), clock.now()
    if at > now + SOON:
        field = "clock" if hour.strip() else "on"
        raise InputError(field, str(on or hour), "That has not been yet.", "Enter when it was done.")
    return min(at, now)


def record_done(account: Account, user: User, data: DoneIn, key: UUID, at: datetime | None = None) -> list[Application]:
    """Put a job that is done already in the book, with its day and hour. What the label refuses is recorded all the same, with
    the rules that stood against it and a reason. `at` is when it was; as the job says, unless given.

    Raises:
        InputError: anything missing or absurd; a time that has not been yet; no reason where a rule is against it.
        Faulty: what was used cannot be read.
    """
    if begun := Round.objects.filter(account=account, key=key).first():
        return finish_round(Round.objects.one(account, begun.pk), user, data.finish)
    at = at or moment_at(area_of(account, data.job.parts[0].area_id), data.job.on, data.job.clock)
    if at > clock.now() + SOON:
        raise InputError("on", str(data.job.on or data.job.clock), "That has not been yet.", "Start a round for it.")
    found = reckoned(account, data.job, at)
    stood = {
        (i, c): against for i, part in enumerate(found.checks) for c in range(len(part)) if (against := against_of(found, i, c))
    }
    reason = data.reason.strip()
    if stood and not reason:
        raise InputError("reason", "", next(iter(stood.values()))[0], "It is recorded all the same: say why it was done.")
    marked = {place: Marks(against, reason) for place, against in stood.items()}
    with transaction.atomic():
        made = _begin(account, user, data.job, key, found, at)
        return finish_round(made, user, data.finish, at, marked)


def against_of(found: Reckoned, i: int, c: int) -> tuple[str, ...]:
    """The rules that stand against a component on a part of a job; those of the machine stand against what is named first."""
    dose, checked = found.job.parts[i].doses[c], found.checks[i][c]
    said = [dose.judgement.sentence] if dose and dose.judgement.refused else []
    findings = [*(checked.findings if checked else ()), *(found.machine_says if c == 0 else ())]
    said += [f.sentence for f in findings if f.act is Weight.REFUSE]
    return tuple(said)


def _teach(found: Round, user: User, data: FinishIn, told: Taught, now: datetime) -> None:
    spreader = told.setting is not None
    learn(
        found.machine,
        str(user),
        local_day(found.parts.all()[0].area, now),
        told.rate,
        round_id=found.pk,
        setting=told.setting,
        product=found.mix.all()[0].product if spreader else None,
        in_use=data.teach,
        sentence=told.sentence,
    )


def give_up(found: Round) -> None:
    """End a round without an entry: nothing was put down.

    Raises:
        Conflict: the round is over already.
    """
    if found.applications.exists():
        raise Conflict("Some of this mix is in the book: empty the tank instead.")
    end(found, Round.Status.GIVEN_UP, clock.now())
    found.account.touch("rounds")


def end(found: Round, status: Round.Status, at: datetime) -> None:
    """Take a round that is under way to its end. Raises Conflict where it is over already."""
    if not _move(found, Round.Status.UNDER_WAY, status, at):
        _still_open(found)


def take_up_again(found: Round) -> None:
    """Undo giving up. What has gone down or was planned since bears on it, as on any other plan.

    Raises:
        Conflict: the round was not given up, or its mix was disposed of.
        Refused: it may not go down any more, with the rule quoted.
    """
    if found.emptied:
        raise Conflict("Its mix was disposed of: there is nothing left to take up. Start another round.")
    if found.status == Round.Status.GIVEN_UP:
        _refuse_again(found)
    if not _move(found, Round.Status.GIVEN_UP, Round.Status.UNDER_WAY, None):
        raise Conflict("Only a round that was given up can be taken up again.")
    found.account.touch("rounds")
