"""An application of the book once more, for now: on the same ground, by the same label rows, at the rates it was planned at."""

from typing import cast

from core.label.match import fits
from core.ledger.places import NEAR
from core.units import exact_number, show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Application
from greenmeasure.book.queries import application_of, applications
from greenmeasure.common.errors import Conflict
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machines
from greenmeasure.reckon.schemas import AgainOut, ComponentIn, CrossingName, DoseIn, JobIn, PartIn
from greenmeasure.reckon.words import left_out, row_changed
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, cards

Mix = dict[int, Card]
"""The components that are still on the shelf, by their place in the mix as it was."""


def again(account: Account, application_id: int) -> AgainOut:
    """The job of an application as it would be planned now, and what of it is not as it was.

    Raises:
        Missing: no such application.
        Conflict: none of its products, or of its ground, is there any more.
    """
    asked = application_of(account, application_id)
    mix, notes = _mix(account, asked)
    machine = kept_machine(account, asked.machine_id)
    spots = asked.spots and machine is not None
    parts = []
    for found in _of_its_round(account, asked):
        area = areas(account).get(found.area_id or 0)
        if area is None or area.archived_at:
            notes.append(left_out(found.area_name))
            continue
        part, changed = _part(found, area, mix, spots)
        parts.append(part)
        notes += changed
    if not parts:
        raise Conflict(f"{asked.area_name} is no longer among the areas.")
    if machine is None:
        notes.append(left_out(asked.machine_name))
    targets = {e.position: e.target for e in asked.entries.all()}
    dial = asked.round.dial if asked.round else None
    job = JobIn(
        dial=QuantityIn(value=exact_number(dial.value), unit=dial.unit.key) if dial and machine and machine.draws else None,
        undiluted=bool(asked.round and asked.round.undiluted and machine),
        mix=[ComponentIn(product_id=card.product.pk, target=targets[place]) for place, card in mix.items()],
        machine_id=machine.pk if machine else None,
        parts=parts,
        passes=asked.passes,
        crossing=cast(CrossingName, asked.round.crossing if asked.round else ""),
        spots=spots,
    )
    return AgainOut(job=job, notes=list(dict.fromkeys(notes)))


def _of_its_round(account: Account, asked: Application) -> list[Application]:
    """The applications of the same round, in its order; the one alone where it was of none, or one outing to spots."""
    if asked.round_id is None or asked.spots:
        return [asked]
    return list(applications(account).filter(round_id=asked.round_id).order_by("position").prefetch_related("entries"))


def _mix(account: Account, asked: Application) -> tuple[Mix, list[str]]:
    """What of a mix is still on the shelf, and what is left out. Raises Conflict where nothing is."""
    mix: Mix = {}
    notes = []
    for entry in asked.entries.order_by("position"):
        card = cards(account).get(entry.product_id or 0)
        if card is None or card.product.archived_at or (entry.phrase and not card.rows):
            notes.append(left_out(entry.product_name))
        else:
            mix[entry.position] = card
    if not mix:
        raise Conflict(f"{asked.entries.all()[0].product_name} is no longer on the shelf.")
    return mix, notes


def _part(found: Application, area: Area, mix: Mix, spots: bool) -> tuple[PartIn, list[str]]:
    """One ground with its rates, and which label rows have changed; of `spots` by the spray that went out."""
    held = {e.position: e for e in found.entries.all()}
    doses, notes = [], []
    for place, card in mix.items():
        entry = held.get(place)
        if entry is None or entry.planned is None:
            doses.append(DoseIn())
            continue
        row, as_it_was = row_again(card, area, entry.phrase, entry.use, entry.target)
        if not as_it_was:
            notes.append(row_changed(found.area_name, row))
        rate = QuantityIn(value=exact_number(entry.planned.value), unit=entry.rate_unit)
        doses.append(DoseIn(row_id=row.pk, rate=rate))
    if spots and found.spray:
        spray = QuantityIn(value=exact_number(found.spray.value), unit=found.spray.unit.key)
        return PartIn(area_id=area.pk, doses=doses, spray=spray), notes
    share = found.treated.base / area.size.base
    treated = "" if share > 1 / NEAR else show_percent(share, 12)
    return PartIn(area_id=area.pk, doses=doses, share=treated, zone=found.zone), notes


def row_again(card: Card, area: Area, phrase: str, use: str, target: str) -> tuple[RateRow, bool]:
    """The label row that was gone by, and whether the card still has it as it was; else the one that the area now means."""
    rows = list(card.rows.values())
    same = [r for r in rows if r.phrase == phrase]
    named = [r for r in same if r.use == use] or same
    if named:
        return named[0], True
    return rows[fits(card.label_rows, area.ground, target)[0].index], False


def kept_machine(account: Account, pk: int | None) -> Machine | None:
    """A machine that is still in the kit."""
    found = machines(account).get(pk or 0)
    return None if found is None or found.archived_at else found
