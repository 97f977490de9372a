"""What changes the season: a window planned or dropped, and a proposal made a round."""

from datetime import date
from typing import Any
from uuid import UUID

from django.db import transaction

from core.errors import InputError, Refused
from core.ledger.history import applied
from core.season.choose import Pick
from core.units import Quantity
from greenmeasure.accounts.models import Account, User
from greenmeasure.book import facts
from greenmeasure.common import clock
from greenmeasure.common.errors import Missing
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.reckon.schemas import ComponentIn, DoseIn, JobIn, PartIn
from greenmeasure.rounds.actions import start_round
from greenmeasure.rounds.models import Round
from greenmeasure.season.due import Proposal, choice_at, choices_of, proposal_of, zone_choice
from greenmeasure.season.models import Planned
from greenmeasure.season.schemas import PlanDueIn, StartDueIn
from greenmeasure.season.words import name_of
from greenmeasure.shelf.queries import Card, card_of


def plan(account: Account, user: User, data: PlanDueIn) -> Planned:
    """Pick a window for a product; it takes the place of one picked before.

    Raises:
        InputError: a window that is over, or that ends before it begins; a product whose label does not list the disease.
        Refused: the product may not go down then, with the rule quoted.
        Missing: no such area or product.
    """
    area, product = area_of(account, data.area_id), card_of(account, data.product_id)
    now = clock.now()
    if data.end <= data.begin:
        raise InputError("end", str(data.end), "The window ends before it begins.", "Pick one of the list.")
    if data.end <= now:
        raise InputError("begin", str(data.begin), "The window is over.", "Pick one that lies ahead.")
    choice = _allowed(choice_at(account, area, data.disease, product, max(data.begin, now)), product)
    with transaction.atomic():
        Planned.objects.filter(area=area, disease=data.disease, dropped_at=None).update(dropped_at=now)
        made = Planned.objects.create(
            account=account,
            area=area,
            disease=data.disease,
            product=product.product,
            begin=data.begin,
            end=data.end,
            facts=_facts(choice, area, clock.local_day(area, data.begin)),
            by=str(user),
            made_at=now,
        )
        account.touch("season")
    return made


def _allowed(choice: Pick | None, card: Card) -> Pick:
    """A choice that may go down.

    Raises:
        InputError: the label does not list the disease.
        Refused: a rule is against it.
    """
    name = card.product.name
    if choice is None:
        raise InputError("product_id", name, f"The label of {name} does not list it.", "Pick another.")
    if not choice.allowed:
        raise Refused("product_id", name, choice.refused[0].sentence, "Pick another product, or another day.")
    return choice


def _facts(choice: Pick, area: Area, on: date) -> dict[str, Any]:
    """What a choice would bring to an area, as an entry keeps it."""
    made = choice.candidate.product
    return {} if choice.amount is None else facts.stored(applied(made, choice.amount, area.ground.size, on, choice.row))


def drop(account: Account, planned_id: int) -> None:
    """Take a planned window back. Raises Missing."""
    found = Planned.objects.filter(seen_by(account, "area__site"), account=account, pk=planned_id, dropped_at=None).first()
    if found is None:
        raise Missing("planned window")
    found.dropped_at = clock.now()
    found.save(update_fields=["dropped_at"])
    account.touch("season")


def start_due(account: Account, user: User, data: StartDueIn, key: UUID) -> Round:
    """Make a proposal a round, in one step: its rate, its zones, its target.

    Raises:
        InputError: nothing is due there, or the label does not list it.
        Refused: the product may not go down, the rule is quoted; and as `start_round`.
    """
    found = proposal_of(account, data.area_id, data.disease)
    if found is None or not found.due.state.acts:
        raise InputError("disease", data.disease, f"Nothing is due against {name_of(data.disease).lower()} there.", "Look again.")
    p = found
    card = card_of(account, data.product_id)
    choice = next((c for c in choices_of(account, p, clock.today(p.area)) if c.candidate.product.id == card.product.pk), None)
    choice = _allowed(choice, card)
    return start_round(
        account,
        user,
        JobIn(
            mix=[ComponentIn(product_id=data.product_id, target=choice.row.target or choice.row.use)],
            machine_id=data.machine_id,
            passes=data.passes,
            parts=_parts(account, p, choice, data.product_id),
            said=data.said,
        ),
        key,
    )


def _parts(account: Account, p: Proposal, choice: Pick, product_id: int) -> list[PartIn]:
    """The area at its rate; where parts of it have the disease, those at theirs and the rest of it at the area's."""
    rows = list(card_of(account, product_id).rows)
    zones = [(z, c) for z in p.zones if (c := zone_choice(account, p, z, product_id, clock.today(p.area)))]
    parts = [_part(z, c, rows) for z, c in zones]
    if not zones:
        return [_part(p.area, choice, rows)]
    left = p.area.size.base - sum(z.size.base for z, _ in zones)
    if left <= 0:
        return parts
    unit = p.area.size.unit
    rest = Quantity(left / unit.size, unit)
    whole = _part(p.area, choice, rows)
    return [*parts, whole.model_copy(update={"treated": QuantityIn(value=rest.value, unit=unit.key), "zone": "the rest"})]


def _part(area: Area, c: Pick, rows: list[int]) -> PartIn:
    dose = DoseIn(row_id=rows[c.index], rate=QuantityIn(value=c.rate.value, unit=c.rate.unit.key))
    return PartIn(area_id=area.pk, doses=[dose])
