"""What bears on a ground: the book, rounds under way, and what is planned."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Any

from core.label.product import Kind, Product
from core.label.targets import find_target, includes
from core.ledger.history import Applied, Place, Standing, applied, holds_of
from core.ledger.ledger import Here, Ledger, ledger_of
from core.units import Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.book import facts
from greenmeasure.common import clock
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.ground.queries import area_of, areas
from greenmeasure.ledger.booked import booked, place_of
from greenmeasure.ledger.grounds import grounds_of
from greenmeasure.ledger.meant import every_meant
from greenmeasure.ledger.taken_up import every_taken_up, mine_of
from greenmeasure.shelf.queries import cards

FAR_DAYS = 2 * 366
"""What lies further away than two years bears on no plan: seasons are a year, intervals and waits less (ours)."""


def past(account: Account, area_ids: Iterable[int]) -> dict[int, list[Applied]]:
    """Everything on each of some areas, in no order."""
    found = {pk: list(mine) for pk, mine in booked(account, set(area_ids)).items()}
    for a in (*every_under_way(account), *every_to_come(account)):
        if a.place and a.place.area in found:
            found[a.place.area].append(a)
    return found


def every_to_come(account: Account) -> Iterable[Applied]:
    """What is planned on the season's board, by the programme and in outings, each once."""
    yield from (*every_planned(account), *every_meant(account), *every_taken_up(account))


def planned_near(account: Account, area_id: int) -> frozenset[str]:
    """How the ledger names all that is planned on an area, on what it is part of and on its parts."""
    named = _names(account)
    return frozenset().union(*(named.get(pk, ()) for pk in grounds_of(account).kin(area_id)))


@kept("rounds", "outings", "season", "programme", "book", "shelf", "ground")
def _names(account: Account) -> dict[int, set[str]]:
    found: dict[int, set[str]] = {}
    for a in every_to_come(account):
        if a.place:
            found.setdefault(a.place.area, set()).add(a.application)
    return found


def near(account: Account, area_ids: Iterable[int], on: date) -> list[Applied]:
    """Everything on some areas that can bear on a plan for a day: of its season and the ones beside it."""
    return [a for every in past(account, area_ids).values() for a in every if abs((a.on - on).days) <= FAR_DAYS]


@kept("rounds", "book", "shelf", "ground")
def every_under_way(account: Account) -> tuple[Applied, ...]:
    """What rounds under way still put down."""
    found = []
    open_rounds = account.rounds.filter(status="under_way")
    for one in open_rounds.prefetch_related("parts__area__site", "parts__round", "parts__doses__component", "applications"):
        left = one.share_left
        for part in one.parts.all() if left else ():
            for dose in part.doses.all():
                made = of_dose(cards(account)[dose.component.product_id].core, part, dose, one.at, left)
                found.append(replace(made, application=f"round-{one.pk}", standing=Standing.UNDER_WAY))
    return tuple(found)


def of_dose(product: Product, part: Any, dose: Any, at: datetime, left: float = 1.0) -> Applied:
    """A component of a round on one of its grounds as it would go down at a time, or what is `left` of it, as a share."""
    amount, treated = (Quantity(q.value * left, q.unit) for q in (dose.amount, part.treated))
    made = applied(product, amount, treated, local_day(part.area, at), dose.row)
    return replace(made, place=place_of(part.area, treated.base, part.zone, part.round.spots), at=at)


@kept("season", "shelf", "ground")
def every_planned(account: Account) -> tuple[Applied, ...]:
    """What is planned on areas that are seen."""
    return tuple(_read_planned(account))


def _read_planned(account: Account) -> Iterable[Applied]:
    for p in account.planned.filter(area_id__in=areas(account), dropped_at=None).select_related("area__site", "product"):
        made = facts.read(p.facts, local_day(p.area, p.begin), p.product.name, Kind(p.product.kind), p.product_id)
        core = cards(account)[p.product_id].core
        yield replace(
            made,
            codes=made.codes or core.codes,
            application=f"planned-{p.pk}",
            standing=Standing.PLANNED,
            place=Place(p.area_id),
            at=p.end,
            target=p.disease,
            holds=holds_of(core.rules),
            apart=core.rules.incompatible,
        )


@dataclass(frozen=True)
class Asked:
    """A plan's ground, time, product and target as a door asks for its ledger.

    `besides` are applications that the plan itself is, or takes the place of; `own` is the planned one that it is, where that is
    known; `more` would go down beside it, and is kept nowhere yet.
    """

    place: Place
    at: datetime
    product_id: int | None = None
    target: str = ""
    job: tuple[Applied, ...] = ()
    besides: frozenset[str] = frozenset()
    own: str = ""
    more: tuple[Applied, ...] = ()


def ledger(account: Account, asked: Asked) -> Ledger:
    """The ledger of a plan: what bears on its ground, less what was planned of the plan itself."""
    area, grounds = area_of(account, asked.place.area), grounds_of(account)
    kin = grounds.kin(area.pk)
    every = [*near(account, kin, local_day(area, asked.at)), *(a for a in asked.more if a.place and a.place.area in kin)]
    every = [a for a in every if a.application not in asked.besides and not _missed(a)]
    done = {a.application for a in _fulfilled(every, asked)}
    every = [a for a in every if a.application not in done]
    return ledger_of(grounds, asked.place, every, asked.job, Here(area.site.house_rules, area.site.zone))


def of_outing(account: Account, outing_id: int) -> frozenset[str]:
    """How the ledger names all that an outing is to put down, and what was planned of it: none of it stands against another job
    of the same outing, which its order put before it or after it. Nothing of an outing that is over, or of another account's.
    """
    found = set[str]()
    for mine in mine_of(account).get(outing_id, ()):
        found |= {mine.name, *next_planned(account, mine.area_id, mine.product_ids, mine.at)}
    return frozenset(found)


def next_planned(account: Account, area_id: int, product_ids: Iterable[int], at: datetime) -> Iterable[str]:
    """How the ledger names the next window that was planned on an area for each of some products, from a time on."""
    ahead = [a for a in every_planned(account) if a.place and a.place.area == area_id and a.at and at <= a.at]
    for product_id in product_ids:
        if same := [a for a in ahead if a.product_id == product_id]:
            yield min(same, key=lambda a: a.at or at).application


def _missed(a: Applied) -> bool:
    """Whether it was planned and its window has passed: nothing was put down, and it does not count."""
    return a.planned and a.at is not None and a.at <= clock.now()


def _fulfilled(every: list[Applied], asked: Asked) -> list[Applied]:
    """The planned windows that a plan is, or takes the place of: those against its target, and the next one of its product."""
    if asked.own:
        return [a for a in every if a.application == asked.own]
    wanted = find_target(asked.target)
    ahead = [a for a in every if a.planned and a.at and asked.at <= a.at]
    same = [a for a in ahead if a.product_id == asked.product_id]
    against = [a for a in ahead if wanted and includes(wanted.key, a.target)]
    return [*against, *sorted(same, key=lambda a: a.at or asked.at)[:1]]
