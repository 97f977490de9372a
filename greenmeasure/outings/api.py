"""Outings."""

from collections.abc import Sequence
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, membership_of, user_of
from greenmeasure.accounts.models import Account
from greenmeasure.accounts.once import key_of
from greenmeasure.common import clock
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.outings import actions, queries, reminders
from greenmeasure.outings.models import Outing
from greenmeasure.outings.schemas import (
    ClosingIn,
    FollowedOut,
    JobPlace,
    OutingAskIn,
    OutingLineOut,
    ProposedOut,
    RemindersIn,
    RemindersOut,
    SkipIn,
    StartJobIn,
    TakeOutingIn,
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


@router.post("/reminders", response=RemindersOut, auth=VIEWER)
def choose_reminders(request: HttpRequest, account: Path[str], data: RemindersIn) -> RemindersOut:
    """Choose what one's own calendar holds."""
    reminders.choose(membership_of(request), data)
    return reminders.reminders_of(request, membership_of(request))


@router.post("/reminders/address", response=RemindersOut, auth=VIEWER)
def give_calendar_address(request: HttpRequest, account: Path[str]) -> RemindersOut:
    """Give one's own calendar a private address; one of before leads nowhere from then on."""
    reminders.new_address(membership_of(request))
    return reminders.reminders_of(request, membership_of(request))


@router.delete("/reminders/address", response=RemindersOut, auth=VIEWER)
def revoke_calendar_address(request: HttpRequest, account: Path[str]) -> RemindersOut:
    """Revoke the private address of one's own calendar."""
    reminders.revoke(membership_of(request))
    return reminders.reminders_of(request, membership_of(request))


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
def order_outing_again(request: HttpRequest, account: Path[str], outing_id: Id) -> FollowedOut:
    """Put what is left of an outing in order anew, from now on."""
    actions.again(Outing.objects.one(account_of(request), outing_id))
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
