"""The letter of the day: what is due, what is locked until when, what runs out, to each member who asked for it, once a day."""

from collections.abc import Iterator
from datetime import date, datetime, time

from django.core.mail import send_mail
from django.db.models import Q

from greenmeasure.accounts.models import Account, Reminders
from greenmeasure.accounts.people import can_mail
from greenmeasure.common import clock
from greenmeasure.kit.queries import asking
from greenmeasure.outings.week import week
from greenmeasure.outings.words import act_text, letter_of, letter_subject
from greenmeasure.season.queries import due_list
from greenmeasure.sky.clocks import all_clocks
from greenmeasure.sky.locks import locks
from greenmeasure.stores.queries import stores

FROM = time(5)
"""The hour at the ground from which on the letter of the day goes out (ours)."""
NEAR = 0.8
"""The share of its degree days from which on a regulator is told of (ours)."""


def waiting(now: datetime) -> Iterator[Reminders]:
    """Whose letter of the day has not gone out yet, and may by now."""
    every = Reminders.objects.filter(mail=True, membership__user__is_active=True).exclude(membership__user__email="")
    wanted = every.select_related("membership__account", "membership__user").prefetch_related("membership__sites")
    for r in wanted:
        here = now.astimezone(r.membership.limited().home.zone)
        if here.time() >= FROM and r.sent_on != here.date():
            yield r


def send(r: Reminders) -> bool:
    """Send a member's letter of the day, once: whether it went out. What cannot be sent is tried again."""
    account = r.membership.limited()
    today = clock.today(account)
    letter = written(account, str(r.membership.user), today)
    mine = Reminders.objects.filter(pk=r.pk).filter(Q(sent_on=None) | ~Q(sent_on=today))
    if not can_mail() or not mine.update(sent_on=today):
        return False
    try:
        send_mail(*letter, None, [r.membership.user.email])
    except OSError:
        Reminders.objects.filter(pk=r.pk).update(sent_on=r.sent_on)
        raise
    return True


def written(account: Account, name: str, today: date) -> tuple[str, str]:
    """A letter of the day: its subject and its text."""
    due, seen = due_list(account), week(account)
    lines = [x.title for x in due.lines if x.state in ("late", "due")]
    acts = [act_text(a) for a in seen.next.acts] if seen.next else []
    parts = {
        "outing": [*(o.text for o in seen.open), *([seen.next.sentence, *acts] if seen.next else [])],
        "due": lines,
        "locked": [x.sentence for x in locks(account, clock.now())],
        "growth": [c.sentence for c in all_clocks(account) if (c.share or 0.0) >= NEAR],
        "kit": [f.sentence for f in asking(account)],
        "stock": [said] if (said := stores(account).sentence) else [],
    }
    return letter_subject(account.name, today, due.sentence), letter_of(name, due.sentence, parts)
