"""What is read of other work."""

from collections.abc import Sequence
from datetime import datetime

from core.days import dated
from core.ledger.work import DOINGS, Ask, Doing
from core.units import UNITS, exact_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import OptionOut
from greenmeasure.ground.models import Area
from greenmeasure.ledger.locks import in_force
from greenmeasure.ledger.words import lock_sentence
from greenmeasure.work.models import Work
from greenmeasure.work.schemas import DoingOut, WorkAskOut, WorkOut, WorkToldOut
from greenmeasure.work.words import inside, work_text

MOST = 500
"""Works that one answer tells (ours)."""


@kept("work", "ground")
def works(account: Account) -> list[Work]:
    """Every work on the areas that are seen, the latest first, the struck ones among them."""
    found = Work.objects.filter(seen_by(account, "area__site"), account=account)
    return list(found.select_related("area__site"))


def work_of(account: Account, pk: int) -> Work:
    """A work that is seen. Raises Missing."""
    found = Work.objects.filter(seen_by(account, "area__site"), account=account, pk=pk).select_related("area__site").first()
    if found is None:
        raise Missing("work")
    return found


def against(account: Account, doing: Doing, area: Area, at: datetime) -> list[str]:
    """The locks that a kind of work at a time would fall inside of, a sentence each."""
    if doing.breaks is None:
        return []
    held = [x for x in in_force(account, at, area.pk) if x.lock.what is doing.breaks]
    return [inside(doing.name, lock_sentence(x, area.site.zone)) for x in held]


def doings(account: Account) -> list[DoingOut]:
    """Every kind of work, with what may be told of it in the account's units."""
    return [DoingOut(key=d.key, name=d.name, asks=[_ask(a, account.us) for a in d.asks]) for d in DOINGS.values()]


def _ask(ask: Ask, us: bool) -> WorkAskOut:
    units = (ask.units if us else ask.units[::-1]) if ask.dimension else ()
    return WorkAskOut(
        key=ask.key,
        name=ask.name,
        units=[OptionOut(key=u, text=UNITS[u].symbol) for u in units],
        choices=[OptionOut(key=k, text=t) for k, t in ask.choices],
    )


def listed(account: Account, area_id: int | None) -> list[WorkOut]:
    """The latest works, of one area or of all."""
    return [work_out(w) for w in works(account) if area_id in (None, w.area_id)][:MOST]


def works_out(found: Sequence[Work]) -> list[WorkOut]:
    """Works in words."""
    return [work_out(w) for w in found]


def work_out(found: Work) -> WorkOut:
    """A work in words, and as a form takes it back."""
    zone = found.area.site.zone
    return WorkOut(
        id=found.pk,
        area_id=found.area_id,
        area=found.area.name,
        kind=found.kind,
        name=found.doing.name,
        text=work_text(found),
        on=found.done_on,
        day=dated(found.done_on),
        clock=f"{found.at.astimezone(zone):%H:%M}" if found.at else "",
        done=found.done,
        told=[_told(a, found) for a in found.doing.asks if found.of(a.key)],
        against=found.against.splitlines(),
        note=found.note,
        by=found.by,
        noted_at=found.noted_at,
        struck=found.struck,
    )


def _told(ask: Ask, found: Work) -> WorkToldOut:
    given = found.of(ask.key)
    if ask.dimension:
        return WorkToldOut(key=ask.key, value=exact_number(given["value"]), unit=given["unit"], word="")
    return WorkToldOut(key=ask.key, value="", unit="", word=given)
