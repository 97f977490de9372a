"""What runs out during an outing: how long a mix keeps, and by when water has to follow what went down."""

from collections.abc import Iterator
from datetime import datetime, timedelta

from core.days import clock as at_clock
from core.ledger.history import holds_of
from core.outing.jobs import Doing
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.ground.queries import areas
from greenmeasure.outings.models import Outing, OutingStop
from greenmeasure.outings.schemas import OutingClockOut
from greenmeasure.outings.words import keeps_text, water_by_text
from greenmeasure.rounds.left import keeps
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.queries import cards


def clocks_of(account: Account, outing: Outing) -> list[OutingClockOut]:
    """The clocks that run in an outing, the first to run out first."""
    found = [*_mixes(account, outing), *_waters(account, outing)]
    return sorted(found, key=lambda c: (c.until, c.text))


def _mixes(account: Account, outing: Outing) -> Iterator[OutingClockOut]:
    for j in outing.jobs.all():
        if j.round and j.round.status == Round.Status.UNDER_WAY:
            poured, until = keeps(j.round)
            if poured and until:
                yield _clock(account, keeps_text([c.product.name for c in j.round.mix.all()]), until)


def _waters(account: Account, outing: Outing) -> Iterator[OutingClockOut]:
    """One clock for each ground that still waits for its water: the first of what went down there."""
    for j in outing.jobs.all():
        for s in j.stops.all() if j.doing == Doing.WATER else ():
            due = water_due(account, outing, s.area_id) if s.state == OutingStop.State.OPEN else []
            if due and (area := areas(account).get(s.area_id)):
                until, product = min(due)
                yield _clock(account, water_by_text(product, area.called), until)


def _clock(account: Account, text: str, until: datetime) -> OutingClockOut:
    left = round((until - clock.now()).total_seconds())
    return OutingClockOut(text=text, until=until, until_text=at_clock(until, account.home.zone), left=left)


def water_due(account: Account, outing: Outing, area_id: int) -> list[tuple[datetime, str]]:
    """By when the labels want water on an area, and of which product, of what the outing put down on it."""
    found = []
    for j in outing.jobs.all():
        there = j.round and j.round.ended_at and any(a.area_id == area_id for a in j.round.applications.all())
        for c in j.job["mix"] if there else ():
            card = cards(account).get(c["product_id"])
            if card and j.round and j.round.ended_at and (hours := holds_of(card.core.rules).water) is not None:
                found.append((j.round.ended_at + timedelta(hours=hours), card.product.name))
    return found
