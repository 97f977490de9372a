"""An application of the book once more, for now: on the same ground, by the same label rows, at the rates it was planned at."""

from core.label.match import fits
from core.ledger.places import NEAR
from core.units import exact_number, show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Entry
from greenmeasure.book.queries import entries, entry_of
from greenmeasure.common.errors import Conflict
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.queries import areas
from greenmeasure.kit.queries import machines
from greenmeasure.reckon.outs import left_out, row_changed
from greenmeasure.reckon.schemas import AgainOut, JobIn, PartIn
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, cards


def again(account: Account, entry_id: int) -> AgainOut:
    """The job of an entry's application as it would be planned now, and what of it is not as it was.

    Raises:
        Missing: no such entry.
        Conflict: its product, or all of its ground, is no longer there.
    """
    entry = entry_of(account, entry_id)
    card = cards(account).get(entry.product_id or 0)
    if card is None or card.product.archived_at or not card.rows:
        raise Conflict(f"{entry.product_name} is no longer on the shelf.")
    parts, notes = [], []
    for e in _of_its_application(account, entry):
        area = areas(account).get(e.area_id or 0)
        if area is None or area.archived_at:
            notes.append(left_out(e.area_name))
            continue
        row, as_it_was = _row(card, e)
        if not as_it_was:
            notes.append(row_changed(e.area_name, row))
        share = e.treated.base / area.size.base
        rate = QuantityIn(value=exact_number(e.planned_value), unit=e.rate_unit)
        treated = "" if share > 1 / NEAR else show_percent(share, 12)
        parts.append(PartIn(area_id=area.pk, row_id=row.pk, rate=rate, share=treated, zone=e.zone))
    if not parts:
        raise Conflict(f"{entry.area_name} is no longer among the areas.")
    machine = machines(account).get(entry.machine_id or 0)
    if machine is None or machine.archived_at:
        notes.append(left_out(entry.machine_name))
        machine = None
    job = JobIn(
        product_id=card.product.pk,
        machine_id=machine.pk if machine else None,
        parts=parts,
        passes=entry.passes,
        target=entry.target,
    )
    return AgainOut(job=job, notes=notes)


def _of_its_application(account: Account, entry: Entry) -> list[Entry]:
    """The entries that went down in the same round, in its order; the entry alone where it was of none."""
    if entry.round_id is None:
        return [entry]
    return list(entries(account).filter(round_id=entry.round_id).order_by("position"))


def _row(card: Card, entry: Entry) -> tuple[RateRow, bool]:
    """The label row that an entry went by, and whether the card still has it as it was."""
    rows = list(card.rows.values())
    same = [r for r in rows if r.phrase == entry.phrase]
    named = [r for r in same if r.use == entry.use] or same
    if named:
        return named[0], True
    assert entry.area
    return rows[fits(card.label_rows, entry.area.ground, entry.target)[0].index], False
