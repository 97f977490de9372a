"""Signing in and out, founding a club, and its members."""

from typing import cast

from django.contrib.auth import logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Path, Router

from greenmeasure.accounts import actions
from greenmeasure.accounts import house as house_actions
from greenmeasure.accounts.house import house_out
from greenmeasure.accounts.models import Membership
from greenmeasure.accounts.schemas import (
    ClubOut,
    FoundIn,
    HouseIn,
    HouseOut,
    MemberIn,
    MemberOut,
    RoleIn,
    RoleName,
    SessionOut,
    SignInIn,
    UnitsName,
)
from greenmeasure.common.auth import ANYONE, MANAGER, SIGNED_IN, VIEWER, club_of, user_of

session = Router(tags=["session"])
members = Router(tags=["members"])
house = Router(tags=["house"])


def session_out(request: HttpRequest) -> SessionOut:
    if not request.user.is_authenticated:
        return SessionOut(user="", username="", clubs=[], csrf=get_token(request))
    user = user_of(request)
    found = Membership.objects.filter(user=user).select_related("club").order_by("club__name")
    clubs = [
        ClubOut(
            slug=m.club.slug,
            name=m.club.name,
            units=cast(UnitsName, m.club.units),
            time_zone=m.club.time_zone,
            currency=m.club.currency,
            role=cast(RoleName, m.role),
        )
        for m in found
    ]
    return SessionOut(user=str(user), username=user.username, clubs=clubs, csrf=get_token(request))


@session.get("/session", response=SessionOut, auth=ANYONE)
def get_session(request: HttpRequest) -> SessionOut:
    """Who is signed in, and the clubs they belong to."""
    return session_out(request)


@session.post("/session", response=SessionOut, auth=ANYONE)
def sign_in(request: HttpRequest, data: SignInIn) -> SessionOut:
    """Sign in. Five failures lock the name out for a quarter of an hour."""
    actions.sign_in(request, data.username, data.password)
    return session_out(request)


@session.delete("/session", response=SessionOut, auth=SIGNED_IN)
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    logout(request)
    return session_out(request)


@session.post("/clubs", response={201: SessionOut}, auth=ANYONE)
def found_club(request: HttpRequest, data: FoundIn) -> tuple[int, SessionOut]:
    """Found an empty club and its first manager."""
    actions.found_club(request, **data.dict())
    return 201, session_out(request)


def member_out(found: Membership, request: HttpRequest) -> MemberOut:
    return MemberOut(
        id=found.pk,
        username=found.user.username,
        full_name=found.user.full_name,
        role=cast(RoleName, found.role),
        you=found.user_id == request.user.pk,
    )


@members.get("", response=list[MemberOut], auth=VIEWER)
def list_members(request: HttpRequest, club: Path[str]) -> list[MemberOut]:
    """The club's members."""
    found = Membership.objects.filter(club=club_of(request)).select_related("user")
    return [member_out(m, request) for m in found]


@members.post("", response={201: MemberOut}, auth=MANAGER)
def add_member(request: HttpRequest, club: Path[str], data: MemberIn) -> tuple[int, MemberOut]:
    """Add a person."""
    return 201, member_out(actions.add_member(club_of(request), **data.dict()), request)


@members.put("/{member_id}", response=MemberOut, auth=MANAGER)
def change_role(request: HttpRequest, club: Path[str], member_id: int, data: RoleIn) -> MemberOut:
    """Change what a member may do."""
    return member_out(actions.change_role(actions.member(club_of(request), member_id), data.role), request)


@members.delete("/{member_id}", response={204: None}, auth=MANAGER)
def remove_member(request: HttpRequest, club: Path[str], member_id: int) -> tuple[int, None]:
    """Take a person out of the club."""
    actions.remove_member(actions.member(club_of(request), member_id))
    return 204, None


@house.get("", response=HouseOut, auth=VIEWER)
def get_house(request: HttpRequest, club: Path[str]) -> HouseOut:
    """The club's house rules, with each side's reason."""
    return house_out(club_of(request))


@house.put("", response=HouseOut, auth=MANAGER)
def change_house(request: HttpRequest, club: Path[str], data: HouseIn) -> HouseOut:
    """Change the house rules."""
    return house_out(house_actions.change_house(club_of(request), data))
