"""Who may come in: every door of an account asks for membership and a role; all of them check the CSRF token."""

from typing import Any

from django.http import HttpRequest
from ninja.errors import HttpError
from ninja.security import APIKeyCookie

from greenmeasure.accounts.models import Account, Membership, Role, User
from greenmeasure.common.doorway import begin_changes


class _Door(APIKeyCookie):
    """A door opened by the session cookie; changing requests carry the CSRF token as well."""

    param_name = "sessionid"

    def __init__(self) -> None:
        super().__init__(csrf=True)


class Anyone(_Door):
    """For signing in and opening an account: no session needed, the CSRF token is."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return request.user if request.user.is_authenticated else "anyone"


class SignedIn(_Door):
    """For whoever is signed in, whatever the account."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return request.user if request.user.is_authenticated else None


class Own(SignedIn):
    """For what is a person's own: whoever is signed in, but for those who only look round."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        _no_visitor(request.user)
        return super().authenticate(request, key)


def _no_visitor(user: Any) -> None:
    if user.is_authenticated and user.visits:
        raise HttpError(403, "You are looking round in the sample account. Start your own: that takes a minute.")


class Member(_Door):
    """For members of the account in the address, with at least `role`; `whole` asks for one who sees all of its sites, `own`
    is for what is a member's own. Answers with the membership.

    Another account's member gets the same answer as for an account that does not exist.
    """

    def __init__(self, role: str, whole: bool = False, own: bool = False) -> None:
        super().__init__()
        self.role, self.whole, self.own = role, whole, own

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        if not request.user.is_authenticated:
            return None
        match = request.resolver_match
        slug = match.kwargs.get("account", "") if match else ""
        try:
            membership = Membership.objects.whole().get(account__slug=slug, user=request.user)
        except Membership.DoesNotExist:
            raise HttpError(404, "There is no such account, or you are not a member of it.") from None
        if not membership.may(self.role):
            raise HttpError(403, f"That is for a {self.role}; you are a {membership.role} here. Ask a manager.")
        if membership.limited().seen is not None and self.whole:
            raise HttpError(403, f"That is for a {self.role} of all sites; you are limited to some. Ask one.")
        if self.own:
            _no_visitor(request.user)
        if self.role != Role.VIEWER:
            begin_changes(request)
        return membership


ANYONE = Anyone()
SIGNED_IN = SignedIn()
OWN = Own()
VIEWER = Member(Role.VIEWER)
ONESELF = Member(Role.VIEWER, own=True)
APPLICATOR = Member(Role.APPLICATOR)
MANAGER = Member(Role.MANAGER)
OVERSEER = Member(Role.MANAGER, whole=True)
"""For what concerns the account as a whole: members, sites, house rules."""


def membership_of(request: HttpRequest) -> Membership:
    """The membership that opened the door of this request."""
    found = request.auth  # type: ignore[attr-defined]
    assert isinstance(found, Membership)
    return found


def account_of(request: HttpRequest) -> Account:
    """The account of this request, limited to the sites that its member sees."""
    return membership_of(request).account


def user_of(request: HttpRequest) -> User:
    """Who sent this request."""
    assert isinstance(request.user, User)
    return request.user
