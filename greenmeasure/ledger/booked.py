"""What the book has of a ground."""

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from core.ledger.history import Applied, Place, holds_of
from core.ledger.places import NEAR
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Entry
from greenmeasure.common.kept import kept_each
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas, kin
from greenmeasure.shelf.queries import cards


def whole_book(account: Account) -> None:
    """Read the book of every area at once, for who goes through all of them: one by one they would be asked for one by one."""
    booked(account, set(areas(account)))


def history(account: Account, area_id: int) -> list[Applied]:
    """What has gone down on an area, on what it is part of, and on its parts, the newest of each first."""
    return [a for every in booked(account, set(kin(account, area_id))).values() for a in every]


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


@kept_each("book", "shelf", "ground")
def booked(account: Account, area_ids: set[int]) -> dict[int, list[Applied]]:
    """What the book has of each area."""
    found: dict[int, list[Applied]] = {pk: [] for pk in area_ids}
    for a in _read_booked(account, area_ids):
        assert a.place
        found[a.place.area].append(a)
    return found


def _read_booked(account: Account, area_ids: set[int]) -> Iterable[Applied]:
    every = Entry.objects.filter(application__account=account, application__struck_at=None, application__area_id__in=area_ids)
    for entry in every.select_related("application__area__site").defer("contents", "application__note"):
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
