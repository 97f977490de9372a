"""What takes a plan: its choices become steps of the programme, in the place of those that a plan made before."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from django.db import transaction

from core.errors import InputError
from core.ledger.history import Applied
from core.season.offers import Offer, offers
from core.season.steps import Timing, When
from greenmeasure.accounts.models import Account, User
from greenmeasure.common.errors import Faults
from greenmeasure.ground.models import Area
from greenmeasure.ledger.meant import named
from greenmeasure.planner.facts import Ask, ask_in, bears, meant_of, refused, shelf_of, standing
from greenmeasure.planner.schemas import PlanChoiceIn, PlanTakeIn
from greenmeasure.planner.words import gone, made_why, step_name
from greenmeasure.programme.actions import stored
from greenmeasure.programme.models import Step, StepArea, StepProduct
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.watching import all_watched

GRACE = 3
"""Days that a made step may wait before it is late (ours)."""


@dataclass(frozen=True)
class _Taken:
    """A choice with the ground and the offer it is of."""

    area: Area
    offer: Offer
    on: date


def take(account: Account, user: User, data: PlanTakeIn) -> None:
    """Keep a plan as steps, each product of each outing once for all its areas; what a plan made before and was not held goes.

    Raises:
        Faulty: a choice is of no ground or product here, or the gate refuses it now; nothing is kept.
    """
    ask, faults = ask_in(account, data.ask), Faults()
    _, old = standing(account, ask)
    besides = frozenset(named(p.step, p.area, p.standing.turn.number) for p in old)
    every = [t for i, c in enumerate(data.choices) if (t := faults.of(_taken, account, ask, c, i))]
    faults.raise_any()
    down = [meant_of(t.area, t.offer, t.on) for t in every]
    for i, t in enumerate(every):
        faults.of(_allowed, account, t, i, besides, tuple(a for j, a in enumerate(down) if j != i))
    faults.raise_any()
    with transaction.atomic():
        for p in old:
            p.step.areas.filter(area=p.area).delete()
        Step.objects.filter(pk__in={p.step.pk for p in old}, areas=None).delete()
        for mine in _together(every).values():
            _step(account, user, ask.year, mine)
        account.touch("programme")


def _taken(account: Account, ask: Ask, c: PlanChoiceIn, i: int) -> _Taken:
    area = next((a for a in ask.ground if a.pk == c.area_id), None)
    card = cards(account).get(c.product_id)
    if area is None or card is None or c.row_id not in card.rows:
        raise InputError(f"choices.{i}", str(c.on), "Its ground or its product is gone.", "Make the plan again.")
    if not ask.first <= c.on <= ask.last:
        raise InputError(f"choices.{i}", str(c.on), "That day is not in the time that is planned.", "Make the plan again.")
    diseases = [w.disease for w in all_watched(account).get(area.pk, [])]
    index = list(card.rows).index(c.row_id)
    shelf = [s for s in shelf_of(account) if s.product.id == c.product_id]
    found = next((o for o in offers(area.ground, shelf, diseases, True, area.site.house_rules) if o.index == index), None)
    if found is None:
        raise InputError(f"choices.{i}", card.product.name, "It does nothing there that is planned.", "Make the plan again.")
    return _Taken(area, found, c.on)


def _allowed(account: Account, t: _Taken, i: int, besides: frozenset[str], more: tuple[Applied, ...]) -> None:
    said = refused(account, t.area, t.offer, t.on, bears(account, t.area, t.on, besides, more))
    if said:
        raise InputError(f"choices.{i}", t.offer.product.name, f"{gone(t.offer.product.name, t.on)} {said[0].sentence}", "")


def _together(every: Sequence[_Taken]) -> dict[tuple[object, ...], list[_Taken]]:
    """What is one step: one product by one row on one day, on all its areas."""
    found: dict[tuple[object, ...], list[_Taken]] = {}
    for t in every:
        found.setdefault((t.on, t.offer.product.id, t.offer.index), []).append(t)
    return found


def _step(account: Account, user: User, year: int, mine: Sequence[_Taken]) -> None:
    t = mine[0]
    covers = sorted(set().union(*(x.offer.covers for x in mine)))
    card = cards(account)[t.offer.product.id or 0]
    when = When(Timing.DATED, t.on, t.on, grace=GRACE)
    step = Step.objects.create(
        account=account, name=step_name(covers)[:80], year=year, when=stored(when), why=made_why(covers), by=str(user), made=True
    )
    StepArea.objects.bulk_create(StepArea(step=step, area=x.area) for x in mine)
    StepProduct.objects.create(
        step=step,
        position=0,
        product=card.product,
        target=(t.offer.row.target or t.offer.row.use)[:80],
        rate_value=t.offer.rate.value,
        rate_unit=t.offer.rate.unit.key,
    )
