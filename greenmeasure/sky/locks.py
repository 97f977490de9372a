"""Locks with what would break them every week: the watering and the mowing that fall into them."""

from datetime import datetime, timedelta

from core.days import clock as told
from core.ledger.locks import Forbidden
from greenmeasure.accounts.models import Account
from greenmeasure.ledger.locks import Locked, in_force
from greenmeasure.ledger.words import lock_sentence
from greenmeasure.sky.models import Rhythm
from greenmeasure.sky.routine import every_rhythm
from greenmeasure.sky.schemas import LockOut
from greenmeasure.sky.words import breaks_lock

BREAKS = {Forbidden.WATER: Rhythm.Kind.WATER, Forbidden.MOW: Rhythm.Kind.MOW}
HOUR = timedelta(hours=1)


def locks(account: Account, at: datetime, area_id: int | None = None) -> list[LockOut]:
    """The locks in force at a time, each with what of the week would break it. Raises Missing."""
    return [_out(account, x, at) for x in in_force(account, at, area_id)]


def _out(account: Account, x: Locked, at: datetime) -> LockOut:
    zone = x.area.site.zone
    broken = broken_at(account, x, at)
    said = lock_sentence(x, zone)
    return LockOut(
        area_id=x.area.pk,
        where=x.where,
        what=x.lock.what.value,
        until=x.lock.end,
        until_text=x.lock.until(zone),
        left=round((x.lock.end - at).total_seconds()),
        product=x.lock.by.product,
        binds=x.lock.binds,
        broken_at=broken,
        sentence=f"{said} {breaks_lock(x.lock.what, told(broken, zone))}" if broken else said,
    )


def broken_at(account: Account, x: Locked, at: datetime) -> datetime | None:
    """The first hour in which what comes back every week would break a lock; None where nothing would."""
    kind = BREAKS.get(x.lock.what)
    rhythms = [
        r
        for r in every_rhythm(account)
        if r.kind == kind and r.site_id == x.area.site_id and r.area_id in (None, x.area.pk, x.area.parent_id)
    ]
    hour = at.replace(minute=0, second=0, microsecond=0)
    while rhythms and hour < x.lock.end:
        local = hour.astimezone(x.area.site.zone)
        if any(r.touches(local) for r in rhythms):
            return hour
        hour += HOUR
    return None
