"""A person's own doors: the password, forgotten and set anew, what is known of them, and where they are signed in."""

from collections.abc import Callable
from datetime import timedelta
from threading import Thread
from typing import Any

from django.conf import settings
from django.contrib.auth import update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.signals import user_logged_in
from django.contrib.auth.tokens import default_token_generator
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.core.mail import send_mail
from django.core.validators import validate_email
from django.db import transaction
from django.dispatch import receiver
from django.http import HttpRequest
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode

from core.errors import InputError
from greenmeasure.accounts.models import Coming, Membership, Role, User
from greenmeasure.accounts.throttle import address_of
from greenmeasure.accounts.words import SUBJECT, letter
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict, Missing

SEEN_AGAIN = timedelta(minutes=10)
"""How exactly it is kept when a session was last used."""


# --- passwords --------------------------------------------------------------------------------------------------


def strong(field: str, password: str, user: User) -> str:
    """A password that may be taken. Raises InputError."""
    try:
        validate_password(password, user)
    except ValidationError as weak:
        raise InputError(field, None, " ".join(weak.messages), "Three unrelated words make a good one.") from None
    return password


def change_password(request: HttpRequest, user: User, old: str, new: str) -> None:
    """Change one's own password; every other session of theirs ends.

    Raises:
        InputError: the old one is not it, or the new one is weak.
    """
    if not user.check_password(old):
        raise InputError("old", None, "That is not your password.", "Enter the one you sign in with now.")
    user.set_password(strong("new", new, user))
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)
    end_others(request, user)
    _note(request, user)


def reset_path(user: User) -> str:
    """Where a person sets a new password, once, within a day."""
    return f"/reset/{urlsafe_base64_encode(force_bytes(user.pk))}/{default_token_generator.make_token(user)}"


def reset_link(by: Membership, of: Membership) -> str:
    """A link with which a member sets a new password, for a manager to hand over.

    Raises:
        Conflict: the person also belongs to an account that this manager does not oversee, into which the link would lead.
    """
    overseen = Membership.objects.filter(user=by.user, role=Role.MANAGER, sites=None).values("account")
    if Membership.objects.filter(user=of.user).exclude(account__in=overseen).exists():
        raise Conflict(
            f"{of.user} also belongs to another account, which you do not manage. They change their password themselves, "
            "or have a link sent to their e-mail address."
        )
    return reset_path(of.user)


def forgotten(request: HttpRequest, username: str) -> None:
    """Send a link to whoever has that name and an e-mail address. Whether anybody has is told to nobody."""
    user = User.objects.filter(username__iexact=username.strip(), is_active=True).exclude(email="").first()
    if user and can_mail():
        where = request.build_absolute_uri(reset_path(user))
        _apart(lambda: send_mail(SUBJECT, letter(str(user), where), None, [user.email], fail_silently=True))


def can_mail() -> bool:
    """Whether letters can be sent from here."""
    return bool(settings.EMAIL_HOST)


def _apart(work: Callable[[], Any]) -> None:
    """Do it beside the answer, which comes as fast for a name that nobody has."""
    Thread(target=work, daemon=True).start()


def reset(uid: str, token: str, password: str) -> User:
    """Set a new password by a link; all sessions of theirs end.

    Raises:
        InputError: the link is over, or was used, or the password is weak.
    """
    try:
        user = User.objects.filter(pk=int(urlsafe_base64_decode(uid)), is_active=True).first()
    except (ValueError, OverflowError):
        user = None
    if user is None or user.visits or not default_token_generator.check_token(user, token):
        raise InputError("link", None, "This link is over, or was used before.", "Ask for a new one.")
    user.set_password(strong("password", password, user))
    user.save(update_fields=["password"])
    end_all(user)
    return user


def change_me(user: User, full_name: str, email: str) -> None:
    """Change one's name and e-mail address. Raises InputError."""
    if not full_name.strip():
        raise InputError("full_name", full_name, "The name is empty.", "Enter the name that records will carry.")
    if email.strip():
        try:
            validate_email(email.strip())
        except ValidationError:
            raise InputError("email", email, f"“{email}” is no e-mail address.", "Write it like name@example.org.") from None
    user.full_name, user.email = full_name.strip(), email.strip()
    user.save(update_fields=["full_name", "email"])


# --- sessions ---------------------------------------------------------------------------------------------------


@receiver(user_logged_in)
def _came_in(sender: Any, request: HttpRequest, user: User, **more: Any) -> None:
    _note(request, user)


def _note(request: HttpRequest, user: User) -> None:
    """Keep where and when a session began."""
    now, agent = clock.now(), request.headers.get("User-Agent", "")[:200]
    Coming.objects.update_or_create(
        session=request.session.session_key or "",
        defaults={"user": user, "at": now, "last_at": now, "agent": agent, "address": address_of(request)},
    )


def seen_again(request: HttpRequest) -> None:
    """Keep that a session is still in use."""
    now = clock.now()
    Coming.objects.filter(session=request.session.session_key, last_at__lt=now - SEEN_AGAIN).update(last_at=now)


def sessions_of(user: User) -> list[Coming]:
    """Where somebody is signed in, the last used first."""
    alive = Session.objects.filter(expire_date__gt=clock.now()).values("session_key")
    return list(user.comings.filter(session__in=alive).order_by("-last_at"))


def end_session(user: User, pk: int) -> None:
    """End one of somebody's sessions. Raises Missing."""
    found = user.comings.filter(pk=pk).first()
    if found is None:
        raise Missing("session")
    _end([found.session])


def end_others(request: HttpRequest, user: User) -> None:
    """End all of somebody's sessions but this one."""
    _end(list(user.comings.exclude(session=request.session.session_key).values_list("session", flat=True)))


def end_all(user: User) -> None:
    """End all of somebody's sessions."""
    _end(list(user.comings.values_list("session", flat=True)))


@transaction.atomic
def _end(keys: list[str]) -> None:
    Session.objects.filter(session_key__in=keys).delete()
    Coming.objects.filter(session__in=keys).delete()


def let_go(user: User) -> None:
    """Somebody who belongs to no account any more: their sessions end and their sign-in name is free. What they did stays."""
    if user.memberships.exists():
        return
    end_all(user)
    user.username, user.email, user.is_active = f"gone-{user.pk}", "", False
    user.set_unusable_password()
    user.save(update_fields=["username", "email", "is_active", "password"])
