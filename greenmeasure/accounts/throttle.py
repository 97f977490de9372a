"""How often an address may knock at the doors that are open to strangers. Counted in the database, so that it holds for
several processes and over a restart.
"""

from dataclasses import dataclass
from datetime import timedelta

from django.conf import settings
from django.http import HttpRequest
from ninja.errors import HttpError

from greenmeasure.accounts.models import Tried
from greenmeasure.common import clock


@dataclass(frozen=True)
class Limit:
    """So many tries of a kind from one address within a time."""

    what: str
    most: int
    within: timedelta


FOUNDING = Limit("found", 5, timedelta(hours=1))
SIGN_IN = Limit("sign_in", 40, timedelta(minutes=15))
"""Failures only, and many: a club's people come from one address."""
FORGOTTEN = Limit("forgotten", 6, timedelta(hours=1))
LOOK_ROUND = Limit("look_round", 60, timedelta(hours=1))
RESET = Limit("reset", 20, timedelta(hours=1))


def check(request: HttpRequest, limit: Limit) -> None:
    """Let a request through that its address may still make.

    Raises:
        HttpError: 429, with how long to wait.
    """
    since = clock.now() - limit.within
    if Tried.objects.filter(what=limit.what, address=address_of(request), at__gt=since).count() >= limit.most:
        minutes = round(limit.within.total_seconds() / 60)
        raise HttpError(429, f"That was tried too often from where you are. Wait {minutes} minutes; nothing is lost.")


def knock(request: HttpRequest, limit: Limit) -> None:
    """Let a request through that its address may still make, and note it. Raises HttpError as `check`."""
    check(request, limit)
    note(request, limit)


def knock_to_found(request: HttpRequest) -> None:
    """Let a request through that opens an account.

    Raises:
        HttpError: 403 where nobody opens one here, 429 as `check`.
    """
    if not settings.FOUNDING:
        raise HttpError(403, "Accounts are not opened here by everybody: ask whoever runs this server.")
    knock(request, FOUNDING)


def note(request: HttpRequest, limit: Limit) -> None:
    """Note one try, and forget those that count no more."""
    now = clock.now()
    Tried.objects.filter(at__lt=now - timedelta(days=1)).delete()
    Tried.objects.create(what=limit.what, address=address_of(request), at=now)


def address_of(request: HttpRequest) -> str:
    """Where a request comes from; behind a proxy that is trusted, what the proxy says (see docs/operations.md)."""
    return str(request.META.get("REMOTE_ADDR", ""))[:45]
