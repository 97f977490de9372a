"""Signing in and out, opening an account, its members, its sites and its house rules."""

from datetime import timedelta
from typing import cast

from django.conf import settings
from django.contrib.auth import logout
from django.db import transaction
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Path, Router

from greenmeasure.accounts import actions, once, people, throttle
from greenmeasure.accounts import house as house_actions
from greenmeasure.accounts import sites as site_actions
from greenmeasure.accounts.auth import ANYONE, OVERSEER, OWN, SIGNED_IN, VIEWER, account_of, membership_of, user_of
from greenmeasure.accounts.house import house_out
from greenmeasure.accounts.models import Coming, Membership, sites_of
from greenmeasure.accounts.schemas import (
    AccountOut,
    ForgottenIn,
    HouseIn,
    HouseOut,
    KeepsName,
    LinkOut,
    MeIn,
    MemberIn,
    MemberOut,
    OpenAccountIn,
    OpenOut,
    PasswordIn,
    ResetIn,
    RoleIn,
    RoleName,
    SessionOut,
    SignInIn,
    SiteIn,
    SiteLineOut,
    SiteOut,
    ToldOut,
    UnitsName,
)
from greenmeasure.accounts.sites import fresh_site, site_out
from greenmeasure.accounts.words import device_text, forgotten_text
from greenmeasure.common import clock
from greenmeasure.common.bounds import Id
from greenmeasure.common.versions import against

session = Router(tags=["session"])
members = Router(tags=["members"])
sites = Router(tags=["sites"])
house = Router(tags=["house"])


def session_out(request: HttpRequest) -> SessionOut:
    """Who is signed in, with the accounts they belong to."""
    if not request.user.is_authenticated:
        return SessionOut(user="", username="", email="", visits=False, accounts=[], csrf=get_token(request), **open_here())
    user = user_of(request)
    found = Membership.objects.filter(user=user).select_related("account").prefetch_related("sites").order_by("account__name")
    accounts = [account_out(m) for m in found]
    return SessionOut(
        user=str(user),
        username=user.username,
        email=user.email,
        visits=user.visits,
        accounts=accounts,
        csrf=get_token(request),
        **open_here(),
    )


def open_out(c: Coming, request: HttpRequest) -> OpenOut:
    """A session at the border."""
    this = c.session == request.session.session_key
    return OpenOut(id=c.pk, at=c.at, last_at=c.last_at, address=c.address, device=device_text(c.agent), this=this)


def open_here() -> dict[str, bool]:
    """What is open to strangers here."""
    return {"founding": settings.FOUNDING, "mail": people.can_mail(), "sample": actions.sample() is not None}


def account_out(m: Membership) -> AccountOut:
    """An account as one of its members sees it."""
    account = m.limited()
    return AccountOut(
        slug=account.slug,
        name=account.name,
        keeps=cast(KeepsName, account.keeps),
        units=cast(UnitsName, account.units),
        time_zone=account.time_zone,
        currency=account.currency,
        role=cast(RoleName, m.role),
        whole=account.seen is None,
        sites=[SiteLineOut(id=s.pk, name=s.name, time_zone=s.time_zone) for s in sites_of(account).values()],
    )


@session.get("/session", response=SessionOut, auth=ANYONE)
def get_session(request: HttpRequest) -> SessionOut:
    """Who is signed in, and the accounts they belong to."""
    if request.user.is_authenticated:
        people.seen_again(request)
    return session_out(request)


@session.post("/session", response=SessionOut, auth=ANYONE)
def sign_in(request: HttpRequest, data: SignInIn) -> SessionOut:
    """Sign in. Five failures lock the name out for a quarter of an hour, forty all names from that address."""
    throttle.check(request, throttle.SIGN_IN)
    actions.sign_in(request, data.username, data.password)
    return session_out(request)


@session.post("/session/sample", response=SessionOut, auth=ANYONE)
def look_round(request: HttpRequest) -> SessionOut:
    """Come into the sample account, to look round in: nothing can be changed there."""
    throttle.knock(request, throttle.LOOK_ROUND)
    actions.look_round(request)
    return session_out(request)


@session.delete("/session", response=SessionOut, auth=SIGNED_IN)
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    logout(request)
    return session_out(request)


@session.put("/session/password", response=SessionOut, auth=OWN)
def change_password(request: HttpRequest, data: PasswordIn) -> SessionOut:
    """Change one's own password; all other sessions end."""
    people.change_password(request, user_of(request), data.old, data.new)
    return session_out(request)


@session.put("/session/me", response=SessionOut, auth=OWN)
def change_me(request: HttpRequest, data: MeIn) -> SessionOut:
    """Change one's name and e-mail address."""
    people.change_me(user_of(request), data.full_name, data.email)
    return session_out(request)


@session.get("/session/open", response=list[OpenOut], auth=OWN)
def list_sessions(request: HttpRequest) -> list[OpenOut]:
    """Where one is signed in."""
    return [open_out(c, request) for c in people.sessions_of(user_of(request))]


@session.delete("/session/open", response=list[OpenOut], auth=OWN)
def end_other_sessions(request: HttpRequest) -> list[OpenOut]:
    """End all of one's sessions but this one."""
    people.end_others(request, user_of(request))
    return list_sessions(request)


@session.delete("/session/open/{session_id}", response=list[OpenOut], auth=OWN)
def end_session(request: HttpRequest, session_id: Id) -> list[OpenOut]:
    """End one of one's sessions."""
    people.end_session(user_of(request), session_id)
    return list_sessions(request)


@session.post("/session/forgotten", response=ToldOut, auth=ANYONE)
def forget_password(request: HttpRequest, data: ForgottenIn) -> ToldOut:
    """Ask for a link by e-mail; the answer is the same whether or not anybody has that name."""
    throttle.knock(request, throttle.FORGOTTEN)
    people.forgotten(request, data.username)
    return ToldOut(sentence=forgotten_text(people.can_mail()))


@session.post("/session/reset", response=SessionOut, auth=ANYONE)
def reset_password(request: HttpRequest, data: ResetIn) -> SessionOut:
    """Set a new password by a link, and come in."""
    throttle.knock(request, throttle.RESET)
    actions.admit(request, people.reset(data.uid, data.token, data.password))
    return session_out(request)


@session.post("/accounts", response={201: SessionOut}, auth=ANYONE)
def open_account(request: HttpRequest, data: OpenAccountIn) -> tuple[int, SessionOut]:
    """Open an empty account with its first manager."""
    if before := once.founded(request, data.username):
        actions.admit(request, before)
        return 201, session_out(request)
    throttle.knock_to_found(request)
    with transaction.atomic():
        actions.open_account(request, data)
        said = session_out(request)
        once.remember(request, user_of(request), said.model_dump_json())
    return 201, said


# --- members ----------------------------------------------------------------------------------------------------


def member_out(found: Membership, request: HttpRequest) -> MemberOut:
    """A member; `you` where it is who asks."""
    return MemberOut(
        id=found.pk,
        version=found.version,
        username=found.user.username,
        full_name=found.user.full_name,
        role=cast(RoleName, found.role),
        site_ids=sorted(s.pk for s in found.sites.all()),
        licence=found.licence,
        you=found.user_id == request.user.pk,
    )


@members.get("", response=list[MemberOut], auth=VIEWER)
def list_members(request: HttpRequest, account: Path[str]) -> list[MemberOut]:
    """The account's members."""
    found = Membership.objects.filter(account=account_of(request)).select_related("user").prefetch_related("sites")
    return [member_out(m, request) for m in found]


@members.post("", response={201: MemberOut}, auth=OVERSEER)
def add_member(request: HttpRequest, account: Path[str], data: MemberIn) -> tuple[int, MemberOut]:
    """Add a person."""
    return 201, member_out(actions.add_member(account_of(request), data), request)


@members.put("/{member_id}", response=MemberOut, auth=OVERSEER)
def change_member(request: HttpRequest, account: Path[str], member_id: Id, data: RoleIn) -> MemberOut:
    """Change what a member may do, on which sites, and under which licence."""

    def found() -> Membership:
        return actions.member(account_of(request), member_id)

    with against(data, lambda: member_out(found(), request)):
        return member_out(actions.change_member(found(), data), request)


@members.delete("/{member_id}", response={204: None}, auth=OVERSEER)
def remove_member(request: HttpRequest, account: Path[str], member_id: Id) -> tuple[int, None]:
    """Take a person out of the account."""
    actions.remove_member(actions.member(account_of(request), member_id))
    return 204, None


@members.post("/{member_id}/reset", response={201: LinkOut}, auth=OVERSEER)
def make_reset_link(request: HttpRequest, account: Path[str], member_id: Id) -> tuple[int, LinkOut]:
    """A link with which a member sets a new password, once, within a day; for the manager to hand over."""
    path = people.reset_link(membership_of(request), actions.member(account_of(request), member_id))
    return 201, LinkOut(path=path, until=clock.now() + timedelta(seconds=settings.PASSWORD_RESET_TIMEOUT))


# --- sites ------------------------------------------------------------------------------------------------------


@sites.get("", response=list[SiteOut], auth=VIEWER)
def list_sites(request: HttpRequest, account: Path[str]) -> list[SiteOut]:
    """The sites that this member sees."""
    return [site_out(s) for s in sites_of(account_of(request)).values()]


@sites.post("", response={201: SiteOut}, auth=OVERSEER)
def add_site(request: HttpRequest, account: Path[str], data: SiteIn) -> tuple[int, SiteOut]:
    """Add a site."""
    return 201, site_out(site_actions.save_site(account_of(request), data))


@sites.put("/{site_id}", response=SiteOut, auth=OVERSEER)
def change_site(request: HttpRequest, account: Path[str], site_id: Id, data: SiteIn) -> SiteOut:
    """Change a site."""
    found = account_of(request)
    with against(data, lambda: site_out(fresh_site(found, site_id))):
        return site_out(site_actions.save_site(found, data, fresh_site(found, site_id)))


@sites.delete("/{site_id}", response={204: None}, auth=OVERSEER)
def remove_site(request: HttpRequest, account: Path[str], site_id: Id) -> tuple[int, None]:
    """Put a site away that no area lies on any more."""
    site_actions.put_site_away(fresh_site(account_of(request), site_id))
    return 204, None


# --- house rules ------------------------------------------------------------------------------------------------


@house.get("", response=HouseOut, auth=VIEWER)
def get_house(request: HttpRequest, account: Path[str]) -> HouseOut:
    """The account's house rules, with each side's reason."""
    return house_out(account_of(request))


@house.put("", response=HouseOut, auth=OVERSEER)
def change_house(request: HttpRequest, account: Path[str], data: HouseIn) -> HouseOut:
    """Change the house rules."""
    found = account_of(request)

    def stands() -> HouseOut:
        found.refresh_from_db()
        return house_out(found)

    with against(data, stands):
        return house_out(house_actions.change_house(found, data))
