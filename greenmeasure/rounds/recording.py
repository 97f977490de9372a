"""What a finished round writes into the book."""

from dataclasses import dataclass
from datetime import date, datetime

from core.ledger.history import applied
from core.rates.cost import CENT, cost
from core.readable import foot_of, readable
from core.units import Quantity
from greenmeasure.accounts.models import User, licence_of
from greenmeasure.book import facts
from greenmeasure.book.models import Application, Entry
from greenmeasure.common.clock import local_day
from greenmeasure.rounds.actual import Actual, ActualDose, ActualPart, Used
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import FinishIn
from greenmeasure.shelf.actions import take_from_lot


@dataclass(frozen=True)
class Finished:
    """A round that is finished: by whom, when, with what, and what the form said beside it."""

    round: Round
    by: User
    at: datetime
    actual: Actual
    form: FinishIn


@dataclass(frozen=True)
class Marks:
    """The rules that stood against a component on a part that was put down all the same, and why it was."""

    against: tuple[str, ...] = ()
    reason: str = ""


Marked = dict[tuple[int, int], Marks]
"""Marks by the place of the part and of the component."""


def record(made_of: Finished, here: ActualPart, marked: Marked) -> Application:
    """Write one area of a round into the book with what was really used; nothing is refused here, only marked.

    An outing to spots stands after those of its round before it.
    """
    done, at, actual, form = made_of.round, made_of.at, made_of.actual, made_of.form
    account, part = done.account, here.part
    share = here.treated.base / sum(p.treated.base for p in actual.parts)
    spray = readable(Quantity(actual.spray.value * share, actual.spray.unit), account.us) if actual.spray else None
    by = form.by.strip() or str(made_of.by)
    made = Application.objects.create(
        account=account,
        round=done,
        position=done.applications.count() if done.spots else part.position,
        area=part.area,
        machine=done.machine,
        applied_on=local_day(part.area, at),
        finished_at=at,
        area_name=part.area.name,
        zone=part.zone,
        spots=done.spots,
        treated_value=here.treated.value,
        treated_unit=here.treated.unit.key,
        spray_value=spray.value if spray else None,
        spray_unit=spray.unit.key if spray else "",
        machine_name=done.machine.name,
        passes=form.walked or done.passes,
        loads=len(done.read_sheet().loads),
        wind=form.wind,
        air=form.air,
        looked=done.looked,
        note=form.note,
        by=made_of.by,
        by_name=by,
        licence=licence_of(account, made_of.by, by),
    )
    doses = {d.dose.component_id: d for d in here.doses}
    for used in actual.used:
        place = used.component.position
        _entry(made, here, used, doses.get(used.component.pk), marked.get((part.position, place), Marks()))
    return made


def take_from_lots(actual: Actual) -> None:
    """Take what was used from the lots that it was from."""
    for used in actual.used:
        if used.lot and used.amount:
            take_from_lot(used.lot, used.amount)


def _entry(of: Application, here: ActualPart, used: Used, dose: ActualDose | None, marks: Marks) -> Entry:
    """One component of an application; without a dose it went in to taste."""
    component = used.component
    product = component.product
    entry = Entry(
        application=of,
        position=component.position,
        product=product,
        product_name=product.name,
        kind=product.kind,
        contents="; ".join(f"{c.amount:g} {c.unit} {c.name}" for c in product.contents.all()),
        group_code=product.group_code,
        registration=product.registration,
        target=component.target,
        lot=used.lot_number,
        against="\n".join(marks.against),
        reason=marks.reason,
    )
    if dose:
        _amounts(entry, here, dose, of.applied_on)
    entry.save()
    return entry


def _amounts(entry: Entry, here: ActualPart, actual: ActualDose, on: date) -> None:
    """What an entry says of the amount: rates, verdict, cost, and what the rules of a season ask for."""
    dose, account = actual.dose, entry.application.account
    core = dose.component.product.core()
    unit = dose.label.highest.unit
    price = cost(core, actual.used, here.treated, foot_of(account.us))
    entry.use, entry.phrase = dose.use, dose.phrase
    entry.planned_value, entry.actual_value = dose.rate.to(unit).value, actual.rate.to(unit).value
    entry.rate_unit, entry.stand = unit.key, actual.judgement.stand.value
    entry.used_value, entry.used_unit = actual.used.value, actual.used.unit.key
    entry.facts = facts.stored(applied(core, actual.used, here.treated, on, dose.row))
    if price:
        entry.cost, entry.currency = price.total.quantize(CENT), account.currency
