"""Rounds."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, MANAGER, VIEWER, account_of, user_of
from greenmeasure.accounts.once import key_of
from greenmeasure.book.queries import application_out
from greenmeasure.book.schemas import ApplicationOut
from greenmeasure.common.bounds import Id
from greenmeasure.common.bringing import ImportOut, TextIn
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.rounds import actions, bringing, pouring, queries, spots
from greenmeasure.rounds.actual import read_actual
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.schemas import (
    ActualOut,
    DoneIn,
    EmptiedIn,
    FinishIn,
    OutingIn,
    PouredIn,
    PouredOut,
    RoundLineOut,
    RoundOut,
    StatusName,
    TickIn,
)

router = Router(tags=["rounds"])


@router.get("", response=list[RoundLineOut], auth=VIEWER)
def list_rounds(request: HttpRequest, account: Path[str], status: StatusName | None = None) -> list[RoundLineOut]:
    """The latest rounds, of one status or all."""
    return queries.rounds(account_of(request), status)


@router.post("", response={201: RoundOut}, auth=APPLICATOR)
def start_round(request: HttpRequest, account: Path[str], data: JobIn) -> tuple[int, RoundOut]:
    """Begin a round with a mix sheet."""
    return 201, queries.round_out(actions.start_round(account_of(request), user_of(request), data, key_of(request)))


@router.post("/done", response={201: list[ApplicationOut]}, auth=APPLICATOR)
def record_done(request: HttpRequest, account: Path[str], data: DoneIn) -> tuple[int, list[ApplicationOut]]:
    """Put a job that is done already in the book, an application an area."""
    applications = actions.record_done(account_of(request), user_of(request), data, key_of(request))
    return 201, [application_out(a) for a in applications]


@router.post("/import/preview", response=ImportOut, auth=MANAGER)
def preview_past(request: HttpRequest, account: Path[str], data: TextIn) -> ImportOut:
    """What a CSV of past applications would put in the book, line by line; changes nothing."""
    return bringing.read(account_of(request), user_of(request), data.text, keep=False)


@router.post("/import", response=ImportOut, auth=MANAGER)
def import_past(request: HttpRequest, account: Path[str], data: TextIn) -> ImportOut:
    """Bring past applications in from a CSV; all of them, or none where a line is at fault."""
    return bringing.read(account_of(request), user_of(request), data.text, keep=True)


@router.get("/{round_id}", response=RoundOut, auth=VIEWER)
def get_round(request: HttpRequest, account: Path[str], round_id: Id) -> RoundOut:
    """One round with its mix sheet."""
    return queries.round_out(Round.objects.one(account_of(request), round_id))


@router.post("/{round_id}/ticks", response=RoundOut, auth=APPLICATOR)
def tick(request: HttpRequest, account: Path[str], round_id: Id, data: TickIn) -> RoundOut:
    """Tick an act, or take the tick back."""
    found = Round.objects.one(account_of(request), round_id)
    actions.tick(found, user_of(request), data)
    return queries.round_out(found)


@router.post("/{round_id}/poured/check", response=PouredOut, auth=VIEWER)
def check_poured(request: HttpRequest, account: Path[str], round_id: Id, data: PouredIn) -> PouredOut:
    """What a measured amount makes of the rate, before it goes into the tank; changes nothing."""
    return queries.poured_out(pouring.check(Round.objects.one(account_of(request), round_id), data))


@router.post("/{round_id}/poured", response=RoundOut, auth=APPLICATOR)
def keep_poured(request: HttpRequest, account: Path[str], round_id: Id, data: PouredIn) -> RoundOut:
    """Keep what was measured for a load, or take it back."""
    found = Round.objects.one(account_of(request), round_id)
    pouring.keep(found, user_of(request), data)
    return queries.round_out(found)


@router.post("/{round_id}/actual", response=ActualOut, auth=VIEWER)
def check_actual(request: HttpRequest, account: Path[str], round_id: Id, data: FinishIn) -> ActualOut:
    """Judge what was really used, before it goes in the book; changes nothing."""
    found = Round.objects.one(account_of(request), round_id)
    return queries.actual_out(found, read_actual(found, data))


@router.post("/{round_id}/finish", response=list[ApplicationOut], auth=APPLICATOR)
def finish_round(request: HttpRequest, account: Path[str], round_id: Id, data: FinishIn) -> list[ApplicationOut]:
    """Put the round in the book, an application an area."""
    found = Round.objects.one(account_of(request), round_id)
    return [application_out(a) for a in actions.finish_round(found, user_of(request), data)]


@router.post("/{round_id}/outings", response={201: RoundOut}, auth=APPLICATOR)
def go_out(request: HttpRequest, account: Path[str], round_id: Id, data: OutingIn) -> tuple[int, RoundOut]:
    """Put one outing to the spots of a round in the book."""
    found = Round.objects.one(account_of(request), round_id)
    spots.go_out(found, user_of(request), data)
    return 201, queries.round_out(Round.objects.one(account_of(request), round_id))


@router.post("/{round_id}/empty", response=RoundOut, auth=APPLICATOR)
def empty_round(request: HttpRequest, account: Path[str], round_id: Id, data: EmptiedIn) -> RoundOut:
    """End a round to spots: its mix is sprayed out, or disposed of."""
    found = Round.objects.one(account_of(request), round_id)
    spots.empty(found, data)
    return queries.round_out(found)


@router.post("/{round_id}/give-up", response=RoundOut, auth=APPLICATOR)
def give_up_round(request: HttpRequest, account: Path[str], round_id: Id) -> RoundOut:
    """End the round without an entry."""
    found = Round.objects.one(account_of(request), round_id)
    actions.give_up(found)
    return queries.round_out(found)


@router.post("/{round_id}/take-up", response=RoundOut, auth=APPLICATOR)
def take_up_round(request: HttpRequest, account: Path[str], round_id: Id) -> RoundOut:
    """Undo giving a round up."""
    found = Round.objects.one(account_of(request), round_id)
    actions.take_up_again(found)
    return queries.round_out(found)
