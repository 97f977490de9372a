"""The due list as a calendar (iCalendar, RFC 5545): planned windows as events, proposed ones as tentative ones."""

from datetime import datetime

from icalendar import Calendar, Event

from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.models import seen_by
from greenmeasure.season.models import Planned
from greenmeasure.season.queries import due_list
from greenmeasure.season.words import due_text, planned_text


def ics(account: Account) -> bytes:
    """What is due, as a calendar file."""
    made = Calendar()
    made.add("prodid", "-//Green Measure//Due list//EN")
    made.add("version", "2.0")
    made.add("x-wr-calname", f"{account.name}: due")
    now = clock.now()
    fixed = set()
    for p in Planned.objects.filter(
        seen_by(account, "area__site"), account=account, dropped_at=None, end__gte=now
    ).select_related("area", "product"):
        fixed.add((p.area_id, p.disease))
        made.add_component(
            _event(
                now,
                uid=f"planned-{p.pk}@{account.slug}",
                summary=f"{p.product.name} on {p.area.name}",
                dtstart=p.begin,
                dtend=p.end,
                status="CONFIRMED",
                description=planned_text(p.disease, p.by),
            )
        )
    for line in due_list(account).lines:
        if (line.area_id, line.disease) in fixed or line.window is None or not line.window.begin or not line.window.end:
            continue
        what = f"{line.product} on {line.area}" if line.product else line.title
        said = due_text(line)
        made.add_component(
            _event(
                now,
                uid=f"due-{line.key}@{account.slug}",
                summary=what,
                dtstart=line.window.begin,
                dtend=line.window.end,
                status="TENTATIVE",
                description=said,
            )
        )
    return bytes(made.to_ical())


def _event(at: datetime, **properties: str | datetime) -> Event:
    """An event that was written `at`, by its properties of RFC 5545."""
    event = Event()
    event.add("dtstamp", at)
    for name, value in properties.items():
        event.add(name, value)
    return event
