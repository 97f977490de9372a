"""What changes rounds: start, tick, finish into the book, give up."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from django.db import IntegrityError, transaction

from core.errors import InputError, Refused
from core.findings import Act
from core.job import MachineKind
from core.machines.spreader import Curve, rate_at
from core.machines.working import output_unit, spread_unit
from core.machines.working import rate_of as rate_in_unit
from core.rates.actual import actual_rate
from core.rates.limits import Judgement, judge, refuse_above_label
from core.rates.rate import Rate
from core.units import AREA, MASS, VOLUME, Quantity, positive, show_number, show_percent
from greenmeasure.accounts.models import Account, User
from greenmeasure.book.actions import record
from greenmeasure.book.models import Entry
from greenmeasure.common import clock
from greenmeasure.common.clock import local_day, today
from greenmeasure.common.errors import Conflict, Faults
from greenmeasure.common.models import Belonging
from greenmeasure.common.schemas import filled, number_in, quantity_in
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.actions import learn
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machine_of, setting_of
from greenmeasure.reckon.outs import Reckoned
from greenmeasure.reckon.queries import reckoned
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.rounds.models import Round, RoundPart, Tick
from greenmeasure.rounds.schemas import FinishIn, TickIn
from greenmeasure.rounds.sheets import sheet_of
from greenmeasure.shelf.actions import lot_of, take_from_lot
from greenmeasure.shelf.models import Lot
from greenmeasure.shelf.queries import card_of


def start_round(account: Account, user: User, data: JobIn, key: UUID, at: datetime | None = None) -> Round:
    """Begin a round: the mix sheet is made and kept. The same key again gives the round it began.

    `at` is when, for records brought in later; now, unless given.

    Raises:
        Refused: the plan is against the label of a product whose label binds, or against a closed season.
        InputError: anything missing or absurd.
    """
    if begun := Round.objects.filter(account=account, key=key).first():
        return Round.objects.one(account, begun.pk)
    if data.machine_id is None:
        raise InputError("machine_id", None, "The round has no machine.", "Pick what it goes down with.")
    _refuse_put_away(account, data)
    when = at or clock.now()
    found = reckoned(account, data, on=local_day(area_of(account, data.parts[0].area_id), when))
    for i, part in enumerate(found.job.parts):
        refuse_above_label(part.part.rate, part.part.label, found.job.product.kind, f"parts.{i}.rate")
        if at is None:
            _refuse(found, i)
    if at is None and (rule := next((f for f in found.machine_says if f.act is Act.REFUSE), None)):
        raise Refused("machine_id", found.job.machine and found.job.machine.name, rule.sentence, "")
    try:
        with transaction.atomic():
            made = Round.objects.create(
                account=account,
                key=key,
                product_id=data.product_id,
                machine_id=data.machine_id,
                target=data.target,
                passes=data.passes,
                amount_value=found.job.amount.value,
                amount_unit=found.job.amount.unit.key,
                spray_litres=found.job.spray.base if found.job.spray else None,
                sheet=sheet_of(found).document(),
                started_by=user,
                started_at=when,
            )
            _save_parts(made, found)
    except IntegrityError:
        made = Round.objects.get(account=account, key=key)
    return Round.objects.one(account, made.pk)


def _refuse_put_away(account: Account, data: JobIn) -> None:
    """Stop a round with a thing that was put away since it was picked, as in another window."""
    picked: list[tuple[str, Belonging]] = [
        ("product_id", card_of(account, data.product_id).product),
        *([("machine_id", machine_of(account, data.machine_id))] if data.machine_id else []),
        *((f"parts.{i}.area_id", area_of(account, p.area_id)) for i, p in enumerate(data.parts)),
    ]
    for field, thing in picked:
        if thing.archived_at:
            raise InputError(field, thing.name, f"{thing.name} has been put away.", "Pick another, or put it back first.")


def _refuse(found: Reckoned, i: int) -> None:
    """Stop a plan that a rule forbids, with the rule quoted."""
    rule = next((f for f in found.checks[i].findings if f.act.text == "refuse"), None)
    if rule:
        where = found.job.parts[i].part.name
        raise Refused(f"parts.{i}", where, f"{where}: {rule.sentence}", "Change the plan; a rule of the label or of law binds.")


def _save_parts(made: Round, found: Reckoned) -> None:
    for i, (planned, row, area_id) in enumerate(zip(found.job.parts, found.rows, found.area_ids, strict=True)):
        part = planned.part
        RoundPart.objects.create(
            round=made,
            position=i,
            area_id=area_id,
            zone=part.zone,
            use=row.use,
            phrase=row.phrase,
            intent=row.intent,
            interval_low=row.interval_low,
            interval_high=row.interval_high,
            rate_value=part.rate.value,
            rate_unit=part.rate.unit.key,
            treated_value=part.area.value,
            treated_unit=part.area.unit.key,
            dose=planned.dose.base,
        )


def tick(found: Round, user: User, data: TickIn) -> None:
    """Tick an act, or take the tick back. What is worn for mixing is ticked before anything is poured.

    Raises:
        Conflict: the round is over, or the gear is not on yet.
        InputError: the sheet has no such act.
    """
    _known_act(found, data)
    with transaction.atomic():
        _hold(found)
        _still_open(found)
        if not data.done:
            found.ticks.filter(load=data.load, act=data.act).delete()
            return
        if data.load and not found.read_sheet().worn(ticked(found)):
            raise Conflict("First put on what the sheet lists for mixing, and tick it.")
        Tick.objects.get_or_create(round=found, load=data.load, act=data.act, defaults={"by": user, "at": clock.now()})
        if data.load:
            found.account.touch()


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


@dataclass(frozen=True)
class ActualPart:
    """What really went down on one part, judged by its label row."""

    part: RoundPart
    used: Quantity
    treated: Quantity
    rate: Rate
    judgement: Judgement


@dataclass(frozen=True)
class Taught:
    """What a round tells of its machine: what one pass really put down [L/m² or g/m²], at a spreader's `setting`.

    `off` is its distance from the output or the tested curve that stood, as a share, where one did.
    """

    rate: float
    setting: float | None
    off: float | None
    sentence: str


@dataclass(frozen=True)
class Actual:
    """What really went down, read from the form and judged part by part."""

    used: Quantity
    spray: Quantity | None
    parts: tuple[ActualPart, ...]
    lot: Lot | None
    taught: Taught | None = None


def read_actual(found: Round, data: FinishIn) -> Actual:
    """What the form says really went down. Above the label is marked, never refused: it has happened.

    What was used is shared out over the parts by their planned doses and the ground really treated.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    parts = list(found.parts.all())
    used = faults.of(quantity_in, "used", data.used, MASS, VOLUME)
    if len(data.treated) not in (0, len(parts)):
        faults.add("treated", len(data.treated), f"The round has {len(parts)} areas.", "Enter the ground treated of each.")
    given = data.treated if len(data.treated) == len(parts) else [None] * len(parts)
    treated = [
        p.treated if g is None else faults.of(quantity_in, f"treated.{i}", g, AREA)
        for i, (p, g) in enumerate(zip(parts, given, strict=True))
    ]
    spray = faults.of(quantity_in, "spray", sprayed, VOLUME) if (sprayed := filled(data.spray)) else found.spray
    lot = faults.of(lot_of, found.product, data.lot_id) if data.lot_id else None
    faults.raise_any()
    assert used
    sizes = [t for t in treated if t]
    weights = [p.dose * t.base / p.treated.base for p, t in zip(parts, sizes, strict=True)]
    whole = sum(weights)
    judged = []
    for part, size, weight in zip(parts, sizes, weights, strict=True):
        share = Quantity(used.value * weight / whole, used.unit)
        wet = Quantity(spray.value * size.base / sum(s.base for s in sizes), spray.unit) if spray else None
        product = found.product.core()
        rate = actual_rate(product, part.label, share, size, wet)
        judged.append(ActualPart(part, share, size, rate, judge(rate, part.label, product.kind)))
    return Actual(used, spray, tuple(judged), lot, _taught(found, data, used, sum(s.base for s in sizes)))


def _taught(found: Round, data: FinishIn, used: Quantity, ground: float) -> Taught | None:
    """What the round tells of its machine, where what tells it was measured: the spray, or a spreader's setting."""
    machine = machine_of(found.account, found.machine_id)
    if machine.kind == MachineKind.SPRAYER:
        sprayed = filled(data.spray)
        if sprayed is None or machine.output is None:
            return None
        rate = quantity_in("spray", sprayed, VOLUME).base / ground / found.passes
        return _told(found, machine, rate, None, rate / machine.output.base - 1)
    if not str(data.setting).strip():
        return None
    setting = positive("setting", number_in("setting", data.setting), zero=True, most=1000)
    rate = used.base / ground / found.passes
    tested = setting_of(machine, found.product.core(), rate, today(found.account)).curve
    return _told(found, machine, rate, setting, _against(tested, setting, rate))


def _told(found: Round, machine: Machine, rate: float, setting: float | None, off: float | None) -> Taught:
    us = found.account.us
    unit = output_unit(us) if setting is None else spread_unit(us)
    at = "" if setting is None else f"Setting {show_number(setting)}: "
    against = ""
    if off is not None:
        same = abs(off) < 0.0005
        against = ", as it was known" if same else f", {show_percent(off, sign=True)} against what was known"
    return Taught(rate, setting, off, f"{at}{machine.name} put down {rate_in_unit(rate, unit)} in a pass{against}.")


def _against(tested: Curve | None, setting: float, rate: float) -> float | None:
    """How far a rate lies from the tested curve at its setting; None where the curve does not reach."""
    try:
        return rate / rate_at(tested, setting) - 1 if tested else None
    except InputError:
        return None


def finish_round(found: Round, user: User, data: FinishIn, at: datetime | None = None) -> list[Entry]:
    """Put the round in the book, an entry an area. Finishing twice gives the entries of the first time.

    `at` is when, for records brought in later; now, unless given.

    Raises:
        Faulty: every field at fault; nothing is saved.
        Conflict: the round was given up.
    """
    if found.status == Round.Status.DONE:
        return list(found.entries.order_by("pk"))
    _still_open(found)
    actual = read_actual(found, data)
    now = at or clock.now()
    with transaction.atomic():
        if not _move(found, Round.Status.UNDER_WAY, Round.Status.DONE, now):
            if found.status != Round.Status.DONE:
                _still_open(found)
            return list(found.entries.order_by("pk"))
        entries = [record(found, user, now, actual, part, data) for part in actual.parts]
        if actual.lot:
            take_from_lot(actual.lot, actual.used)
        if actual.taught:
            _teach(found, user, data, actual.taught, now)
        found.account.touch()
    return entries


def _teach(found: Round, user: User, data: FinishIn, told: Taught, now: datetime) -> None:
    spreader = told.setting is not None
    learn(
        found.machine,
        str(user),
        local_day(found.parts.all()[0].area, now),
        told.rate,
        round_id=found.pk,
        setting=told.setting,
        product=found.product if spreader else None,
        in_use=spreader or data.teach,
        sentence=told.sentence,
    )


def give_up(found: Round) -> None:
    """End a round without an entry: nothing was put down.

    Raises:
        Conflict: the round is over already.
    """
    if not _move(found, Round.Status.UNDER_WAY, Round.Status.GIVEN_UP, clock.now()):
        _still_open(found)
    found.account.touch()


def take_up_again(found: Round) -> None:
    """Undo giving up.

    Raises:
        Conflict: the round was not given up.
    """
    if not _move(found, Round.Status.GIVEN_UP, Round.Status.UNDER_WAY, None):
        raise Conflict("Only a round that was given up can be taken up again.")
    found.account.touch()
