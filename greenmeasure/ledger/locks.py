"""The locks that lie on an account's ground at a time: what must not happen there, until when, and by whose label."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from core.ledger.history import Applied, Place
from core.ledger.locks import Forbidden, Lock, locks_of
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of, areas
from greenmeasure.ledger.grounds import grounds_of
from greenmeasure.ledger.past import past

FAR = timedelta(days=180)
"""No label keeps anything off ground for longer than this (ours)."""


@dataclass(frozen=True)
class Locked:
    """A lock on an area, or on a zone of it."""

    area: Area
    zone: str
    lock: Lock

    @property
    def where(self) -> str:
        return f"{self.area.called}, {self.zone}" if self.zone else self.area.called


def _zone(place: Place | None) -> str:
    return "" if place is None else "spots" if place.spots else place.zone


def _on_spots(a: Applied) -> bool:
    return a.place is not None and a.place.spots


def _lately(account: Account) -> dict[int, list[Applied]]:
    """What went down lately or is going down, by area; years of the book lock nothing any more."""
    since = (clock.now() - FAR).date()
    every = past(account, (pk for pk, a in areas(account).items() if a.archived_at is None))
    return {pk: [a for a in mine if a.on >= since] for pk, mine in every.items()}


def in_force(account: Account, at: datetime, area_id: int | None = None) -> list[Locked]:
    """The locks in force at a time, those that end first first: of every area on its own, or all that lie on one area.

    Of what an area is kept from by several, the one that holds longest. Raises Missing for an area that is not there.
    """
    lately = _lately(account)
    if area_id is None:
        found = [
            Locked(areas(account)[pk], _zone(a.place), lock)
            for pk, every in lately.items()
            for a in every
            for lock in locks_of([a], areas(account)[pk].site.zone)
        ]
    else:
        area, grounds = area_of(account, area_id), grounds_of(account)
        every = [a for pk in grounds.kin(area_id) for a in lately.get(pk, ())]
        pieces = grounds.pieces(Place(area_id), every)
        found = [
            Locked(area, "spots" if piece.spots else "", lock)
            for piece in pieces
            for lock in locks_of([a for a in piece.past if bool(piece.spots) == _on_spots(a)], area.site.zone)
        ]
    longest: dict[tuple[int, str, Forbidden], Locked] = {}
    for x in found:
        key = (x.area.pk, x.zone, x.lock.what)
        now = x.lock.begin <= at < x.lock.end and not x.lock.by.planned
        if now and (key not in longest or longest[key].lock.end < x.lock.end):
            longest[key] = x
    return sorted(longest.values(), key=lambda x: (x.lock.end, x.where, x.lock.what))
