"""Outings."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, user_of
from greenmeasure.accounts.once import key_of
from greenmeasure.common.bounds import Id
from greenmeasure.outings import actions, queries
from greenmeasure.outings.models import Outing
from greenmeasure.outings.schemas import (
    ClosingIn,
    FollowedOut,
    JobPlace,
    OutingAskIn,
    OutingLineOut,
    ProposedOut,
    SkipIn,
    StartJobIn,
    TakeOutingIn,
    WeekOut,
)
from greenmeasure.outings.week import week
from greenmeasure.rounds.queries import round_out
from greenmeasure.rounds.schemas import RoundOut

router = Router(tags=["outings"])


@router.get("/week", response=WeekOut, auth=VIEWER)
def read_week(request: HttpRequest, account: Path[str]) -> WeekOut:
    """The next seven days: what is due with the hours fit for it, what is locked, the outings; and the outing that comes next."""
    return week(account_of(request))


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
