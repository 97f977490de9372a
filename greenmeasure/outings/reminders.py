"""What each member wants to be reminded of, and the private address of their calendar.

The address is signed, and holds a number that is made anew when it is revoked: nothing that is kept opens it without the server's
secret key.
"""

from uuid import UUID, uuid4

from django.core.signing import BadSignature, Signer
from django.http import HttpRequest

from core.errors import InputError
from greenmeasure.accounts.models import Account, Membership, Reminders
from greenmeasure.accounts.people import can_mail
from greenmeasure.common.errors import Missing
from greenmeasure.common.schemas import OptionOut
from greenmeasure.outings.schemas import RemindersIn, RemindersOut
from greenmeasure.outings.words import CALENDAR, NO_ADDRESS, NO_SERVER

SIGNER = Signer(salt="calendar")


def reminders_of(request: HttpRequest, membership: Membership) -> RemindersOut:
    """What a member is reminded of, with the address of their calendar where they have one."""
    found = Reminders.objects.filter(membership=membership).first()
    holds = list(CALENDAR) if found is None else [k for k in CALENDAR if k in found.holds]
    address = request.build_absolute_uri(f"/api/calendar/{token_of(found)}") if found and found.nonce else ""
    return RemindersOut(
        holds=holds,
        choices=[OptionOut(key=k, text=text) for k, text in CALENDAR.items()],
        address=address,
        mail=bool(found and found.mail),
        no_mail=NO_SERVER if not can_mail() else "" if membership.user.email else NO_ADDRESS,
    )


def choose(membership: Membership, data: RemindersIn) -> None:
    """Keep what a member wants in their calendar. Raises InputError where there is no such thing."""
    for i, key in enumerate(data.holds):
        if key not in CALENDAR:
            raise InputError(f"holds.{i}", key, "A calendar holds no such thing.", f"Pick of: {', '.join(CALENDAR)}.")
    Reminders.objects.update_or_create(
        membership=membership, defaults={"holds": list(dict.fromkeys(data.holds)), "mail": data.mail}
    )


def new_address(membership: Membership) -> None:
    """Give a member's calendar an address; one of before leads nowhere from then on."""
    Reminders.objects.update_or_create(
        membership=membership, defaults={"nonce": uuid4()}, create_defaults={"nonce": uuid4(), "holds": list(CALENDAR)}
    )


def revoke(membership: Membership) -> None:
    """Take a member's calendar off the net."""
    Reminders.objects.filter(membership=membership).update(nonce=None)


def token_of(found: Reminders) -> str:
    """The secret part of an address."""
    return SIGNER.sign(f"{found.pk}.{found.nonce}")


def calendar_of(token: str) -> tuple[Account, list[str]]:
    """The account that an address is of, as its member sees it, and what it holds. Raises Missing where it leads nowhere."""
    try:
        pk, _, nonce = SIGNER.unsign(token).partition(".")
        wanted = Reminders.objects.select_related("membership__account", "membership__user")
        found = wanted.prefetch_related("membership__sites").get(pk=int(pk), nonce=UUID(nonce))
    except (BadSignature, ValueError, Reminders.DoesNotExist):
        raise Missing("calendar") from None
    if not found.membership.user.is_active:
        raise Missing("calendar")
    return found.membership.limited(), found.holds
