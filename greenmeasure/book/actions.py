"""What changes the book later: an application corrected or struck, with a reason; what it said before stays readable."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import Any

from django.db import transaction

from core.days import clock as at_clock
from core.errors import InputError
from core.label.product import Kind
from core.rates.cost import CENT
from core.rates.limits import judge
from core.units import MASS, VOLUME, Quantity
from greenmeasure.accounts.models import User, licence_of
from greenmeasure.book import facts
from greenmeasure.book.models import Application, Entry, Former
from greenmeasure.book.schemas import CorrectIn
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict, Faults
from greenmeasure.common.schemas import filled, quantity_in
from greenmeasure.common.struck import reason
from greenmeasure.shelf.actions import take_from_lot
from greenmeasure.shelf.models import Lot


@dataclass(frozen=True)
class Change:
    """One thing of an application that is put right: what it is called, what it said and what it says."""

    what: str
    was: str
    now: str


def correct(found: Application, user: User, data: CorrectIn, at: datetime | None = None) -> Application:
    """Put an application right. Rules, budgets and clocks follow; what it said before is kept with who changed it and why.

    `at` is when, for records brought in later; now, unless given.

    Raises:
        Faulty: every field at fault; nothing is saved.
        Conflict: it is struck, or was corrected since the form was filled.
    """
    with transaction.atomic():
        row = _held(found, data.version)
        faults = Faults()
        why = faults.of(reason, data.why)
        when = faults.of(_when, row, data)
        used = [u for u in (faults.of(_used, row, i, u.position, u.amount) for i, u in enumerate(data.used)) if u]
        faults.raise_any()
        assert when and why
        changes = [*_retold(row, when, data), *(c for entry, amount in used for c in _reused(entry, amount))]
        if not changes:
            raise InputError(
                "why", data.why, "Nothing is different from what the book says.", "Change what was wrong, or leave it."
            )
        Former.objects.create(application=row, at=at or clock.now(), by=str(user), why=why, told=[vars(c) for c in changes])
        row.save()
        row.account.touch("book", "stock", "rounds")
    return row


def strike(found: Application, user: User, why: str, version: int, at: datetime | None = None) -> Application:
    """Strike an application: it stays readable and counts for nothing. What it took from lots is put back.

    Raises:
        InputError: no reason.
        Conflict: it is struck already, or was corrected since.
    """
    with transaction.atomic():
        row = _held(found, version)
        row.struck_at, row.struck_by, row.struck_why = at or clock.now(), str(user), reason(why)
        row.save(update_fields=["struck_at", "struck_by", "struck_why"])
        for entry in row.entries.all():
            if entry.used:
                _take(entry, Quantity(-entry.used.value, entry.used.unit))
        row.account.touch("book", "stock", "rounds")
    return row


def _held(found: Application, version: int) -> Application:
    """The application held for this transaction, as the form was filled from it. Raises Conflict where it is another by now."""
    row = Application.objects.select_for_update(of=("self",)).select_related("account", "area__site").get(pk=found.pk)
    if row.struck_at:
        raise Conflict(f"It is struck already. {row.struck}")
    if row.formers.count() != version:
        raise Conflict("It was corrected meanwhile. Open it again, and see whether it is still wrong.")
    return row


def _when(row: Application, data: CorrectIn) -> datetime:
    """The time as it is put right; as it was where nothing is said."""
    if data.on is None and not data.clock.strip():
        return row.finished_at
    where = row.area or row.account
    day = data.on or row.applied_on
    was = f"{row.finished_at.astimezone(row.zone_there):%H:%M}"
    hour = data.clock.strip() or was
    at = clock.moment_at(where, day, hour)
    if at > clock.now():
        raise InputError("on", str(day), "That is still to come.", "Give the day on which it was done.")
    return row.finished_at if (hour, day) == (was, row.applied_on) else at


def _retold(row: Application, at: datetime, data: CorrectIn) -> list[Change]:
    """Change day and words of an application; gives what is different."""
    changes = []
    if at != row.finished_at:
        was = at_clock(row.finished_at, row.zone_there)
        row.finished_at, row.applied_on = at, clock.local_day(row.area or row.account, at)
        changes.append(Change("Day", was, at_clock(at, row.zone_there)))
    words = (("wind", "Wind", data.wind), ("air", "Air", data.air), ("note", "Note", data.note), ("by_name", "By", data.by))
    for field, name, given in words:
        was = getattr(row, field)
        if given is not None and given.strip() != was and (given.strip() or field != "by_name"):
            setattr(row, field, given.strip())
            changes.append(Change(name, was or "—", given.strip() or "—"))
            if field == "by_name":
                row.licence = licence_of(row.account, row.by, row.by_name)
    return changes


def _used(row: Application, i: int, position: int, given: Any) -> tuple[Entry, Quantity] | None:
    """An amount as it is put right; None where nothing is said of it.

    Raises:
        InputError: the application has no such product, it went in to taste, or the amount cannot be.
    """
    entry = next((e for e in row.entries.all() if e.position == position), None)
    if entry is None:
        raise InputError(f"used.{i}.position", position, "The application has no such product.", "Open it again.")
    typed = filled(given)
    if typed is None:
        return None
    if entry.used is None:
        raise InputError(f"used.{i}.amount", typed.value, "It went in to taste: there is no amount of it.", "Leave it empty.")
    amount = quantity_in(f"used.{i}.amount", typed, MASS if entry.used.unit.dimension == MASS else VOLUME)
    return entry, amount


def _reused(entry: Entry, amount: Quantity) -> Sequence[Change]:
    """Change an amount, with the rate, the verdict, the cost and the facts that follow from it; gives what is different."""
    was = entry.used
    assert was
    factor = amount.base / was.base
    if abs(factor - 1) < 1e-9:
        return ()
    _take(entry, Quantity((amount.base - was.base) / was.unit.size, was.unit))
    rate, label = str(entry.actual), entry.label
    entry.used_value, entry.used_unit = amount.value, amount.unit.key
    entry.actual_value = (entry.actual_value or 0.0) * factor
    entry.facts = facts.times(entry.facts, factor)
    if entry.cost is not None:
        entry.cost = (entry.cost * Decimal(factor)).quantize(CENT)
    if label and entry.actual:
        binds = facts.read(entry.facts, entry.application.applied_on, entry.product_name, Kind(entry.kind), entry.product_id)
        entry.stand = judge(entry.actual, label, binds.label_binds).stand.value
    entry.save()
    name = entry.product_name
    return (Change(f"{name} used", str(was), str(amount)), Change(f"{name}, rate", rate, str(entry.actual)))


def _take(entry: Entry, amount: Quantity) -> None:
    """Take an amount from the lot that an entry was from, or put it back where it is below nothing."""
    if not entry.lot or entry.product_id is None:
        return
    lot = Lot.objects.filter(product_id=entry.product_id, number=entry.lot).first()
    if lot:
        take_from_lot(lot, amount)
