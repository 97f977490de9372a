"""What bears on a ground: the book, rounds under way, and what is planned."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from datetime import date, datetime
from typing import Any

from core.label.product import Kind, Product
from core.label.targets import find_target, includes
from core.ledger.history import Applied, Place, Standing, applied, holds_of
from core.ledger.ledger import Here, Ledger, ledger_of
from core.ledger.places import NEAR
from core.units import Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.book import facts
from greenmeasure.book.models import Entry
from greenmeasure.common import clock
from greenmeasure.common.clock import local_day
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.ledger.grounds import grounds_of
from greenmeasure.shelf.queries import cards

FAR_DAYS = 2 * 366
"""What lies further away than two years bears on no plan: seasons are a year, intervals and waits less (ours)."""


@dataclass
class Past:
    """The applications of an account, read a ground at a time as grounds are asked for; of the book, those `since` a day."""

    account: Account
    since: date | None = None
    by_area: dict[int, list[Applied]] = field(default_factory=dict)

    def of(self, area_ids: Iterable[int]) -> list[Applied]:
        """Everything on some areas, in no order."""
        wanted = set(area_ids)
        if missing := wanted - set(self.by_area):
            self._read(missing)
        return [a for pk in wanted for a in self.by_area[pk]]

    def near(self, area_ids: Iterable[int], on: date) -> list[Applied]:
        """Everything on some areas that can bear on a plan for a day: of its season and the ones beside it."""
        return [a for a in self.of(area_ids) if abs((a.on - on).days) <= FAR_DAYS]

    def _read(self, area_ids: set[int]) -> None:
        found: dict[int, list[Applied]] = {pk: [] for pk in area_ids}
        for a in (
            *_booked(self.account, area_ids, self.since),
            *_under_way(self.account, area_ids),
            *_planned(self.account, area_ids),
        ):
            if a.place:
                found[a.place.area].append(a)
        self.by_area |= found


@kept
def past_of(account: Account) -> Past:
    """The applications of an account."""
    return Past(account)


def place_of(area: Area, treated: float, zone: str = "", spots: bool = False) -> Place:
    """A ground of a job: all of an area, a named zone of it, spots all over it, or some of it.

    Args:
        area: that it is of.
        treated: how much of it [m²].
        zone: its name, where it has one.
        spots: whether it is spots.
    """
    if spots:
        return Place(area.pk, "", some=True, treated=treated, spots=True)
    part = treated < area.size.base / NEAR
    return Place(area.pk, zone if part else "", part and not zone, treated if part else 0.0)


def _booked(account: Account, area_ids: set[int], since: date | None) -> Iterable[Applied]:
    every = Entry.objects.filter(application__account=account, application__area_id__in=area_ids)
    if since:
        every = every.filter(application__applied_on__gte=since)
    for entry in every.select_related("application__area").defer("contents", "application__note"):
        found = entry.application
        assert found.area
        yield _by_its_card(
            account,
            entry.facts,
            replace(
                entry.applied(),
                application=f"round-{found.round_id}" if found.round_id and not found.spots else f"application-{found.pk}",
                place=place_of(found.area, found.treated.base, found.zone, found.spots),
                at=found.finished_at,
            ),
        )


def _by_its_card(account: Account, kept_facts: dict[str, Any], a: Applied) -> Applied:
    """An application of an early record, which kept no holds, with those of its card."""
    card = cards(account).get(a.product_id or 0)
    if "holds" in kept_facts or card is None:
        return a
    return replace(a, holds=holds_of(card.core.rules), apart=card.core.rules.incompatible)


def _under_way(account: Account, area_ids: set[int]) -> Iterable[Applied]:
    open_rounds = account.rounds.filter(status="under_way", parts__area__in=area_ids).distinct()
    for found in open_rounds.prefetch_related("parts__area", "parts__round", "parts__doses__component", "applications"):
        left = found.share_left
        for part in found.parts.all():
            if not left or part.area_id not in area_ids:
                continue
            for dose in part.doses.all():
                made = of_dose(cards(account)[dose.component.product_id].core, part, dose, found.at, left)
                yield replace(made, application=f"round-{found.pk}", standing=Standing.UNDER_WAY)


def of_dose(product: Product, part: Any, dose: Any, at: datetime, left: float = 1.0) -> Applied:
    """A component of a round on one of its grounds as it would go down at a time, or what is `left` of it, as a share."""
    amount, treated = (Quantity(q.value * left, q.unit) for q in (dose.amount, part.treated))
    made = applied(product, amount, treated, local_day(part.area, at), dose.row)
    return replace(made, place=place_of(part.area, treated.base, part.zone, part.round.spots), at=at)


def _planned(account: Account, area_ids: set[int]) -> Iterable[Applied]:
    for p in account.planned.filter(area_id__in=area_ids, dropped_at=None).select_related("area", "product"):
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

    `besides` are applications that the plan itself is.
    """

    place: Place
    at: datetime
    product_id: int | None = None
    target: str = ""
    job: tuple[Applied, ...] = ()
    besides: frozenset[str] = frozenset()


def ledger(account: Account, asked: Asked) -> Ledger:
    """The ledger of a plan: what bears on its ground, less what was planned of the plan itself."""
    area, grounds = area_of(account, asked.place.area), grounds_of(account)
    near = past_of(account).near(grounds.kin(area.pk), local_day(area, asked.at))
    every = [a for a in near if a.application not in asked.besides and not _missed(a)]
    done = {a.application for a in _fulfilled(every, asked)}
    every = [a for a in every if a.application not in done]
    return ledger_of(grounds, asked.place, every, asked.job, Here(area.site.house_rules, area.site.zone))


def _missed(a: Applied) -> bool:
    """Whether it was planned and its window has passed: nothing was put down, and it does not count."""
    return a.planned and a.at is not None and a.at <= clock.now()


def _fulfilled(every: list[Applied], asked: Asked) -> list[Applied]:
    """The planned windows that a plan is, or takes the place of: those against its target, and the next one of its product."""
    wanted = find_target(asked.target)
    ahead = [a for a in every if a.planned and a.at and asked.at <= a.at]
    same = [a for a in ahead if a.product_id == asked.product_id]
    against = [a for a in ahead if wanted and includes(wanted.key, a.target)]
    return [*against, *sorted(same, key=lambda a: a.at or asked.at)[:1]]
