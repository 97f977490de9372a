"""Outings."""

from collections.abc import Sequence
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, ONESELF, OVERSEER, VIEWER, account_of, membership_of, user_of
from greenmeasure.accounts.models import Account
from greenmeasure.accounts.once import key_of
from greenmeasure.common import clock
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.common.versions import against
from greenmeasure.outings import actions, queries, reminders, routes, sites
from greenmeasure.outings.models import Outing
from greenmeasure.outings.schemas import (
    AgainIn,
    ClosingIn,
    FollowedOut,
    JobMachineIn,
    JobPlace,
    OutingAskIn,
    OutingLineOut,
    PauseIn,
    ProposedOut,
    RemindersIn,
    RemindersOut,
    RouteIn,
    RouteOut,
    RoutesOut,
    SitePageOut,
    SitesYearOut,
    SkipIn,
    StartJobIn,
    TakeOutingIn,
    WayIn,
    WeekOut,
)
from greenmeasure.outings.week import week
from greenmeasure.outings.words import CALENDAR
from greenmeasure.rounds.queries import round_out
from greenmeasure.rounds.schemas import RoundOut

router = Router(tags=["outings"])
public = Router(tags=["outings"])
"""Outside of accounts: whoever has the address may read."""


@public.get("/calendar/{token}", auth=None, openapi_extra=sends("text/calendar"))
def read_calendar(request: HttpRequest, token: Annotated[str, Path(max_length=160)]) -> HttpResponse:
    """A member's calendar at its private address."""
    account, holds = reminders.calendar_of(token)
    return _calendar(account, holds)


@router.get("/week", response=WeekOut, auth=VIEWER)
def read_week(request: HttpRequest, account: Path[str]) -> WeekOut:
    """The next seven days: what is due with the hours fit for it, what is locked, the outings; and the outing that comes next."""
    return week(account_of(request))


@router.get("/ahead.ics", auth=VIEWER, openapi_extra=sends("text/calendar"))
def export_ahead(request: HttpRequest, account: Path[str]) -> HttpResponse:
    """What lies ahead, as a calendar file."""
    found = account_of(request)
    return _calendar(found, tuple(CALENDAR))


def _calendar(account: Account, holds: Sequence[str]) -> HttpResponse:
    from greenmeasure.outings.calendar import ics  # the package for calendars is loaded with the first of them

    answer = HttpResponse(ics(account, holds), content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{account.slug}-ahead-{clock.today(account):%Y-%m-%d}.ics"'
    return answer


@router.get("/reminders", response=RemindersOut, auth=VIEWER)
def read_reminders(request: HttpRequest, account: Path[str]) -> RemindersOut:
    """What one's own calendar holds, and its private address."""
    return reminders.reminders_of(request, membership_of(request))


@router.post("/reminders", response=RemindersOut, auth=ONESELF)
def choose_reminders(request: HttpRequest, account: Path[str], data: RemindersIn) -> RemindersOut:
    """Choose what one's own calendar holds."""
    reminders.choose(membership_of(request), data)
    return reminders.reminders_of(request, membership_of(request))


@router.post("/reminders/address", response=RemindersOut, auth=ONESELF)
def give_calendar_address(request: HttpRequest, account: Path[str]) -> RemindersOut:
    """Give one's own calendar a private address; one of before leads nowhere from then on."""
    reminders.new_address(membership_of(request))
    return reminders.reminders_of(request, membership_of(request))


@router.delete("/reminders/address", response=RemindersOut, auth=ONESELF)
def revoke_calendar_address(request: HttpRequest, account: Path[str]) -> RemindersOut:
    """Revoke the private address of one's own calendar."""
    reminders.revoke(membership_of(request))
    return reminders.reminders_of(request, membership_of(request))


@router.get("/routes", response=RoutesOut, auth=VIEWER)
def list_routes(request: HttpRequest, account: Path[str]) -> RoutesOut:
    """The routes, each in driving order, and the sites that are on none."""
    return routes.routes_out(account_of(request))


@router.post("/routes", response={201: RouteOut}, auth=OVERSEER)
def add_route(request: HttpRequest, account: Path[str], data: RouteIn) -> tuple[int, RouteOut]:
    """Add a route."""
    found = account_of(request)
    return 201, routes.route_out(found, routes.save_route(found, data))


@router.put("/routes/{route_id}", response=RouteOut, auth=OVERSEER)
def change_route(request: HttpRequest, account: Path[str], route_id: Id, data: RouteIn) -> RouteOut:
    """Change a route."""
    found = account_of(request)
    with against(data, lambda: routes.route_out(found, routes.fresh_route(found, route_id))):
        return routes.route_out(found, routes.save_route(found, data, routes.fresh_route(found, route_id)))


@router.delete("/routes/{route_id}", response={204: None}, auth=OVERSEER)
def remove_route(request: HttpRequest, account: Path[str], route_id: Id) -> tuple[int, None]:
    """Put a route away; its sites are free for another."""
    routes.put_route_away(routes.fresh_route(account_of(request), route_id))
    return 204, None


@router.post("/ways", response=RoutesOut, auth=OVERSEER)
def say_way(request: HttpRequest, account: Path[str], data: WayIn) -> RoutesOut:
    """Say how long it takes between two sites, or take it back."""
    found = account_of(request)
    routes.say_way(found, data)
    return routes.routes_out(found)


@router.get("/sites", response=SitesYearOut, auth=VIEWER)
def read_sites_year(request: HttpRequest, account: Path[str]) -> SitesYearOut:
    """The year of all sites on one page."""
    return sites.sites_year(account_of(request))


@router.get("/sites/{site_id}", response=SitePageOut, auth=VIEWER)
def read_site(request: HttpRequest, account: Path[str], site_id: Id) -> SitePageOut:
    """A site on a page."""
    return sites.site_page(account_of(request), site_id)


@router.post("/propose", response=ProposedOut, auth=VIEWER)
def propose_outing(request: HttpRequest, account: Path[str], data: OutingAskIn) -> ProposedOut:
    """What is due on a day as one outing, in order; changes nothing."""
    return queries.proposed(account_of(request), data)


@router.get("", response=list[OutingLineOut], auth=VIEWER)
def list_outings(request: HttpRequest, account: Path[str]) -> list[OutingLineOut]:
    """The latest outings."""
    return queries.outings(account_of(request))


@router.post("", response={201: FollowedOut}, auth=APPLICATOR)
def take_outing(request: HttpRequest, account: Path[str], data: TakeOutingIn) -> tuple[int, FollowedOut]:
    """Take up an outing as it is proposed."""
    found = account_of(request)
    return 201, queries.outing_out(found, actions.take(found, user_of(request), data, key_of(request)))


@router.get("/{outing_id}", response=FollowedOut, auth=VIEWER)
def get_outing(request: HttpRequest, account: Path[str], outing_id: Id) -> FollowedOut:
    """One outing, as far as it has come."""
    return _out(request, outing_id)


def _out(request: HttpRequest, outing_id: int) -> FollowedOut:
    found = account_of(request)
    return queries.outing_out(found, Outing.objects.one(found, outing_id))


@router.post("/{outing_id}/go", response=FollowedOut, auth=APPLICATOR)
def go_outing(request: HttpRequest, account: Path[str], outing_id: Id) -> FollowedOut:
    """Begin an outing."""
    actions.go(Outing.objects.one(account_of(request), outing_id))
    return _out(request, outing_id)


@router.post("/{outing_id}/again", response=FollowedOut, auth=APPLICATOR)
def order_outing_again(request: HttpRequest, account: Path[str], outing_id: Id, data: AgainIn) -> FollowedOut:
    """Put what is left of an outing in order anew, from now on."""
    actions.again(Outing.objects.one(account_of(request), outing_id), data)
    return _out(request, outing_id)


@router.post("/{outing_id}/pause", response=FollowedOut, auth=APPLICATOR)
def pause_outing(request: HttpRequest, account: Path[str], outing_id: Id, data: PauseIn) -> FollowedOut:
    """Let an outing stand still, and say why."""
    actions.pause(Outing.objects.one(account_of(request), outing_id), data)
    return _out(request, outing_id)


@router.post("/{outing_id}/go-on", response=FollowedOut, auth=APPLICATOR)
def go_on_with_outing(request: HttpRequest, account: Path[str], outing_id: Id) -> FollowedOut:
    """Let an outing that stands still go on, in order anew."""
    actions.go_on(Outing.objects.one(account_of(request), outing_id))
    return _out(request, outing_id)


@router.post("/{outing_id}/jobs/{position}/machine", response=FollowedOut, auth=APPLICATOR)
def change_job_machine(
    request: HttpRequest, account: Path[str], outing_id: Id, position: JobPlace, data: JobMachineIn
) -> FollowedOut:
    """Let another machine do a job that has not begun."""
    actions.change_machine(Outing.objects.one(account_of(request), outing_id), position, data)
    return _out(request, outing_id)


@router.post("/{outing_id}/jobs/{position}/start", response={201: RoundOut}, auth=APPLICATOR)
def start_outing_job(
    request: HttpRequest, account: Path[str], outing_id: Id, position: JobPlace, data: StartJobIn
) -> tuple[int, RoundOut]:
    """Make a job of an outing a round with its mix sheet."""
    found = Outing.objects.one(account_of(request), outing_id)
    return 201, round_out(actions.start_job(found, user_of(request), position, data, key_of(request)))


@router.post("/{outing_id}/jobs/{position}/done", response=FollowedOut, auth=APPLICATOR)
def note_outing_job(request: HttpRequest, account: Path[str], outing_id: Id, position: JobPlace) -> FollowedOut:
    """Note water or mowing of an outing as done."""
    actions.done_job(Outing.objects.one(account_of(request), outing_id), user_of(request), position)
    return _out(request, outing_id)


@router.post("/{outing_id}/jobs/{position}/skip", response=FollowedOut, auth=APPLICATOR)
def skip_outing_job(request: HttpRequest, account: Path[str], outing_id: Id, position: JobPlace, data: SkipIn) -> FollowedOut:
    """Skip what is left of a job with a reason, or take that back."""
    actions.skip_job(Outing.objects.one(account_of(request), outing_id), position, data)
    return _out(request, outing_id)


@router.post("/{outing_id}/stops/{stop_id}/skip", response=FollowedOut, auth=APPLICATOR)
def skip_outing_stop(request: HttpRequest, account: Path[str], outing_id: Id, stop_id: Id, data: SkipIn) -> FollowedOut:
    """Skip a stop with a reason, or take that back."""
    actions.skip(Outing.objects.one(account_of(request), outing_id), stop_id, data)
    return _out(request, outing_id)


@router.post("/{outing_id}/closing", response=FollowedOut, auth=APPLICATOR)
def close_outing_act(request: HttpRequest, account: Path[str], outing_id: Id, data: ClosingIn) -> FollowedOut:
    """Note an act at the end of an outing, or take it back."""
    actions.close(Outing.objects.one(account_of(request), outing_id), user_of(request), data)
    return _out(request, outing_id)


@router.post("/{outing_id}/finish", response=FollowedOut, auth=APPLICATOR)
def finish_outing(request: HttpRequest, account: Path[str], outing_id: Id) -> FollowedOut:
    """End an outing that is done."""
    actions.finish(Outing.objects.one(account_of(request), outing_id))
    return _out(request, outing_id)


@router.post("/{outing_id}/give-up", response=FollowedOut, auth=APPLICATOR)
def give_up_outing(request: HttpRequest, account: Path[str], outing_id: Id) -> FollowedOut:
    """End an outing of which the rest is not done."""
    actions.give_up(Outing.objects.one(account_of(request), outing_id))
    return _out(request, outing_id)
