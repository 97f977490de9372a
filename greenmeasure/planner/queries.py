"""What the form of a plan begins with."""

from collections import Counter

from greenmeasure.accounts.models import Account
from greenmeasure.book.queries import applications
from greenmeasure.common import clock
from greenmeasure.ledger.meant import steps
from greenmeasure.planner.schemas import PlanOptionsOut

TUESDAY = 1
"""The day to go out on where the book knows none: away from weekends and what they leave behind (ours)."""


def options(account: Account) -> PlanOptionsOut:
    """The years that can be planned, the weekday most applications were on, and how many steps a plan made."""
    today = clock.today(account)
    days = Counter(on.weekday() for on in applications(account).values_list("applied_on", flat=True)[:400])
    return PlanOptionsOut(
        years=[today.year, today.year + 1],
        weekday=days.most_common(1)[0][0] if days else TUESDAY,
        currency=account.currency,
        made=sum(s.made for s in steps(account) if s.year >= today.year),
    )
