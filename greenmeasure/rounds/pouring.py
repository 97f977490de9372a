"""The pour check: what was really measured of each product for a load, before the tank is topped up."""

from collections.abc import Sequence
from dataclasses import dataclass

from core.errors import InputError
from core.job.sheet import Sheet, SheetLoad
from core.rates.poured import Meant, Poured, check_poured
from core.units import MASS, VOLUME, Quantity
from greenmeasure.accounts.models import User
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict
from greenmeasure.common.schemas import filled, quantity_in
from greenmeasure.rounds import models
from greenmeasure.rounds.actions import open_round, ticked
from greenmeasure.rounds.models import Round, RoundComponent, RoundDose
from greenmeasure.rounds.schemas import PouredIn


@dataclass(frozen=True)
class Held:
    """What was measured held against the dose that it is of."""

    poured: Poured
    dose: RoundDose


def check(found: Round, data: PouredIn) -> Held:
    """What a measured amount makes of the rate; keeps nothing.

    Raises:
        InputError: the sheet has no such load or product, it goes in to taste, or the amount cannot be.
    """
    return judged(found, found.read_sheet(), data.load, *_measured(found, data))


def keep(found: Round, user: User, data: PouredIn) -> None:
    """Keep what was measured for a load, or, without an amount, take it back.

    Raises:
        Conflict: the round is over, or the gear is not on yet.
        InputError: as `check`.
    """
    component = _component(found, data.place)
    with open_round(found):
        if not filled(data.amount):
            found.poured.filter(load=data.load, component=component).delete()
            return
        if not found.read_sheet().worn(ticked(found)):
            raise Conflict("First put on what the sheet lists for mixing, and tick it.")
        check(found, data)
        _, amount = _measured(found, data)
        told = {"value": amount.value, "unit": amount.unit.key, "by": user, "at": clock.now()}
        models.Poured.objects.update_or_create(round=found, load=data.load, component=component, defaults=told)


def judged(found: Round, sheet: Sheet, load: int, component: RoundComponent, amount: Quantity) -> Held:
    """What an amount makes of the rate, by the sheet of its round. Raises InputError where the sheet does not tell."""
    here = next((x for x in sheet.loads if x.number == load), None)
    meant = _meant(sheet, here, component.position) if here else None
    dose = _dose(found, here, component) if here else None
    if meant is None or dose is None:
        raise InputError("load", load, "The sheet does not say how much of it this load takes.", "Open the sheet again.")
    return Held(check_poured(component.product.core(), dose.rate, dose.label, meant, amount), dose)


def poured_in_all(component: RoundComponent, poured: Sequence[models.Poured], loads: int) -> Quantity | None:
    """What was measured of a component for all loads together; None until it was for each.

    Args:
        component: one product of the mix.
        poured: everything that was measured in its round.
        loads: how many its sheet has.
    """
    mine = [p.amount for p in poured if p.component_id == component.pk]
    if not mine or len(mine) != loads or len({a.unit.dimension for a in mine}) > 1:
        return None
    return Quantity(sum(a.base for a in mine) / mine[0].unit.size, mine[0].unit)


def _measured(found: Round, data: PouredIn) -> tuple[RoundComponent, Quantity]:
    component = _component(found, data.place)
    typed = filled(data.amount)
    if typed is None:
        raise InputError("amount", "", "Nothing was measured.", "Enter what the vessel shows.")
    return component, quantity_in("amount", typed, MASS, VOLUME)


def _component(found: Round, place: int) -> RoundComponent:
    component = next((c for c in found.mix.all() if c.position == place), None)
    if component is None:
        raise InputError("place", place, "The mix has no such product.", "Open the sheet again.")
    return component


def _meant(sheet: Sheet, load: SheetLoad, place: int) -> Meant | None:
    """What a load was to get of a component, and what the others get; None to taste."""
    amounts = [x.pours[place].amount.quantity if place < len(x.pours) else None for x in sheet.loads]
    mine = next((a for x, a in zip(sheet.loads, amounts, strict=True) if x is load), None)
    if mine is None:
        return None
    known = [a for a in amounts if a is not None]
    whole = Quantity(sum(a.base for a in known) / mine.unit.size, mine.unit)
    return Meant(mine, whole, tuple(a for a in known if a is not mine))


def _dose(found: Round, load: SheetLoad, component: RoundComponent) -> RoundDose | None:
    """The dose by which a load's component is judged: all grounds of one load have the same."""
    parts = [p for p in found.parts.all() if not load.parts or p.position in load.parts]
    return next((d for p in parts for d in p.doses.all() if d.component_id == component.pk), None)
