"""What lies ahead as a calendar (iCalendar, RFC 5545): outings, windows, locks, follow-ups; a file, or at a private address."""

from collections.abc import Callable, Iterable, Iterator
from datetime import date, datetime

from icalendar import Calendar, Event

from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.models import seen_by
from greenmeasure.ledger.locks import in_force
from greenmeasure.ledger.words import lock_sentence
from greenmeasure.outings.asked import open_outings
from greenmeasure.outings.lines import kept_lines, last_minute
from greenmeasure.outings.queries import outing_out
from greenmeasure.outings.words import CALENDAR, act_text, outing_title, unlocked_title
from greenmeasure.scouting.followups import due_followups
from greenmeasure.season.models import Planned
from greenmeasure.season.queries import due_list
from greenmeasure.season.words import due_text, planned_text


def ics(account: Account, holds: Iterable[str] = tuple(CALENDAR)) -> bytes:
    """What lies ahead, as a calendar file.

    Args:
        account: whose, as far as its member sees it.
        holds: what is in it, by the keys of `CALENDAR`.
    """
    made = Calendar()
    made.add("prodid", "-//Green Measure//Ahead//EN")
    made.add("version", "2.0")
    made.add("x-wr-calname", account.name)
    wanted = set(holds)
    for key, read in READERS.items():
        for event in read(account) if key in wanted else ():
            made.add_component(event)
    return bytes(made.to_ical())


def _outings(account: Account) -> Iterator[Event]:
    """Outings that were taken up and are not over, with their acts."""
    for o in open_outings(account):
        lines = kept_lines(account, o)
        end = last_minute(lines)
        if end is None:
            continue
        told = outing_out(account, o)
        yield _event(
            uid=f"outing-{o.pk}@{account.slug}",
            summary=outing_title([j.title for j in told.jobs]),
            dtstart=lines[0].begin,
            dtend=end,
            status="CONFIRMED",
            description="\n".join(act_text(a) for a in told.acts),
        )


def _windows(account: Account) -> Iterator[Event]:
    """Planned windows as events, the hours of what is due as tentative ones."""
    now, fixed = clock.now(), set()
    for p in Planned.objects.filter(
        seen_by(account, "area__site"), account=account, dropped_at=None, end__gte=now
    ).select_related("area", "product"):
        fixed.add((p.area_id, p.disease))
        yield _event(
            uid=f"planned-{p.pk}@{account.slug}",
            summary=f"{p.product.name} on {p.area.called}",
            dtstart=p.begin,
            dtend=p.end,
            status="CONFIRMED",
            description=planned_text(p.disease, p.by),
        )
    for line in due_list(account).lines:
        if (line.area_id, line.disease) in fixed or line.window is None or not line.window.begin or not line.window.end:
            continue
        yield _event(
            uid=f"due-{line.key}@{account.slug}",
            summary=f"{line.product} on {line.area}" if line.product else line.title,
            dtstart=line.window.begin,
            dtend=line.window.end,
            status="TENTATIVE",
            description=due_text(line),
        )


def _locks(account: Account) -> Iterator[Event]:
    """What must not happen on a ground, until when; where people may come back has an event of its own at its end."""
    now = clock.now()
    for x in in_force(account, now):
        uid = f"{x.lock.what.value}-{x.area.pk}-{x.lock.begin:%Y%m%dT%H%M}@{account.slug}"
        said = lock_sentence(x, x.area.site.zone)
        yield _event(uid=f"lock-{uid}", summary=said, dtstart=x.lock.begin, dtend=x.lock.end, transp="TRANSPARENT")
        yield _event(uid=f"free-{uid}", summary=unlocked_title(x), dtstart=x.lock.end, dtend=x.lock.end, description=said)


def _looks(account: Account) -> Iterator[Event]:
    """Applications whose day to look has come, on that day."""
    for f in due_followups(account, clock.today(account)):
        uid = f"look-{f.application_id}@{account.slug}"
        yield _event(uid=uid, summary=f"{f.area}: {f.since}", dtstart=f.on, description=" ".join(f.signs))


READERS: dict[str, Callable[[Account], Iterable[Event]]] = {
    "outings": _outings,
    "windows": _windows,
    "locks": _locks,
    "looks": _looks,
}


def _event(**properties: str | datetime | date) -> Event:
    """An event that is written now, by its properties of RFC 5545."""
    event = Event()
    event.add("dtstamp", clock.now())
    for name, value in properties.items():
        event.add(name, value)
    return event
