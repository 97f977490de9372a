"""A turn of a step as a job to reckon and to start: its mix on every area where it is open, with a machine that takes it all."""

from collections.abc import Sequence

from core.findings import Weight
from core.units import exact_number
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.kit.queries import largest_for
from greenmeasure.ledger.meant import Brought, mixed
from greenmeasure.programme.queries import Placed, findings, turn_with_others
from greenmeasure.programme.words import NOTHING_TO_MIX, waits
from greenmeasure.reckon.schemas import AgainOut, ComponentIn, DoseIn, JobIn, PartIn


def job_of(account: Account, step_id: int, number: int, area_id: int) -> AgainOut:
    """The job of a turn, on the area that is asked for and on every other that has the same turn open and may have it today.

    Raises:
        InputError: there is no such turn.
        Conflict: its step names no product that is on the shelf and of which a rate is known.
    """
    asked, *others = turn_with_others(account, step_id, area_id, number)
    others = [p for p in others if p.stand.open and p.area.site_id == asked.area.site_id]
    products, notes = mixed(account, asked.step, asked.area), []
    if not products:
        raise Conflict(NOTHING_TO_MIX)
    parts = [_part(asked, products)]
    for p in others:
        brought = mixed(account, p.step, p.area)
        if against := _against(account, p):
            notes.append(waits(p.area.called, against))
        elif [b.part.pk for b in brought] == [b.part.pk for b in products]:
            parts.append(_part(p, brought))
    machine = largest_for(account, [b.card.product.pk for b in products], products[0].card.core.formulation.sprayed)
    mix = [ComponentIn(product_id=b.card.product.pk, target=b.part.target) for b in products]
    return AgainOut(job=JobIn(mix=mix, parts=parts, machine_id=machine.pk if machine else None), notes=notes)


def _against(account: Account, p: Placed) -> str:
    """What keeps a turn off its area today; empty where nothing does."""
    said = findings(account, p.step, p.area, clock.today(p.area), p.standing.turn.number)
    return next((f.sentence for f in said if f.act is Weight.REFUSE), "")


def _part(p: Placed, brought: Sequence[Brought]) -> PartIn:
    return PartIn(area_id=p.area.pk, doses=[_dose(b) for b in brought])


def _dose(b: Brought) -> DoseIn:
    if b.row is None:
        return DoseIn()
    return DoseIn(row_id=b.card.key_of(b.row), rate=QuantityIn(value=exact_number(b.rate.value), unit=b.rate.unit.key))
