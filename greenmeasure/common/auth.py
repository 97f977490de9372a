"""Who may come in: every door of a club asks for membership and a role; all of them check the CSRF token."""

from typing import Any

from django.http import HttpRequest
from ninja.errors import HttpError
from ninja.security import APIKeyCookie

from greenmeasure.accounts.models import Club, Membership, Role, User


class _Door(APIKeyCookie):
    """A door opened by the session cookie; changing requests carry the CSRF token as well."""

    param_name = "sessionid"

    def __init__(self) -> None:
        super().__init__(csrf=True)


class Anyone(_Door):
    """For signing in and founding a club: no session needed, the CSRF token is."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return request.user if request.user.is_authenticated else "anyone"


class SignedIn(_Door):
    """For whoever is signed in, whatever the club."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return request.user if request.user.is_authenticated else None


class Member(_Door):
    """For members of the club in the address, with at least `role`. Answers with the membership.

    Another club's member gets the same answer as for a club that does not exist.
    """

    def __init__(self, role: str) -> None:
        super().__init__()
        self.role = role

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        if not request.user.is_authenticated:
            return None
        match = request.resolver_match
        slug = match.kwargs.get("club", "") if match else ""
        try:
            membership = Membership.objects.select_related("club").get(club__slug=slug, user=request.user)
        except Membership.DoesNotExist:
            raise HttpError(404, "There is no such club, or you are not a member of it.") from None
        if not membership.may(self.role):
            raise HttpError(403, f"That is for a {self.role}; you are a {membership.role} here. Ask a manager.")
        return membership


ANYONE = Anyone()
SIGNED_IN = SignedIn()
VIEWER = Member(Role.VIEWER)
APPLICATOR = Member(Role.APPLICATOR)
MANAGER = Member(Role.MANAGER)


def membership_of(request: HttpRequest) -> Membership:
    """The membership that opened the door of this request."""
    found = request.auth  # type: ignore[attr-defined]
    assert isinstance(found, Membership)
    return found


def club_of(request: HttpRequest) -> Club:
    return membership_of(request).club


def user_of(request: HttpRequest) -> User:
    assert isinstance(request.user, User)
    return request.user
