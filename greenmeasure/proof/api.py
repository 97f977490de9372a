"""Proof on paper. What makes PDF loads with its first use, not with the server."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Query, Router

from greenmeasure.accounts.auth import VIEWER, account_of
from greenmeasure.book.queries import application_of
from greenmeasure.common import clock
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.outings.models import Outing
from greenmeasure.outings.queries import put_down_on
from greenmeasure.proof import records as told
from greenmeasure.proof.schemas import RecordsAsked, RecordsOut
from greenmeasure.rounds.models import Round

router = Router(tags=["proof"])
PDF = "application/pdf"


def _file(data: bytes, name: str) -> HttpResponse:
    answer = HttpResponse(data, content_type=PDF)
    answer["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return answer


@router.get("/records", response=RecordsOut, auth=VIEWER)
def list_records(request: HttpRequest, account: Path[str], asked: Query[RecordsAsked]) -> RecordsOut:
    """Applications as records, the oldest first, by days, ground and product."""
    return told.records(account_of(request), asked)


@router.get("/records.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_records(request: HttpRequest, account: Path[str], asked: Query[RecordsAsked]) -> HttpResponse:
    """The same on paper."""
    from greenmeasure.proof import documents

    found = account_of(request)
    today = clock.today(found)
    return _file(documents.records_pdf(found, asked, today), f"{found.slug}-records-{today}")


@router.get("/records.csv", auth=VIEWER, openapi_extra=sends("text/csv"))
def export_records(request: HttpRequest, account: Path[str], asked: Query[RecordsAsked]) -> HttpResponse:
    """The same as CSV, a line a product."""
    found = account_of(request)
    answer = HttpResponse("".join(told.csv_lines(found, asked)), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{found.slug}-records-{clock.today(found)}.csv"'
    return answer


@router.get("/binder.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_binder(request: HttpRequest, account: Path[str], product_id: Id | None = None) -> HttpResponse:
    """The label binder: the cards of the shelf, or one of them, each with its labels after it."""
    from greenmeasure.proof.binder import binder_pdf

    found = account_of(request)
    return _file(binder_pdf(found, product_id), f"{found.slug}-labels-{clock.today(found)}")


@router.get("/{application_id}/gate.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_gate_notice(request: HttpRequest, account: Path[str], application_id: Id) -> HttpResponse:
    """The notice for the gate after an application."""
    from greenmeasure.proof import documents

    found = account_of(request)
    return _file(documents.gate_pdf(found, [application_of(found, application_id)]), f"notice-{application_id}")


@router.get("/{application_id}/note.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_note(request: HttpRequest, account: Path[str], application_id: Id) -> HttpResponse:
    """The customer's note after an application."""
    from greenmeasure.proof import documents

    found = account_of(request)
    return _file(documents.note_pdf(found, [application_of(found, application_id)]), f"note-{application_id}")


@router.get("/outings/{outing_id}/sheet.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_outing(request: HttpRequest, account: Path[str], outing_id: Id) -> HttpResponse:
    """An outing for whoever goes."""
    from greenmeasure.proof import documents

    found = account_of(request)
    return _file(documents.outing_pdf(found, Outing.objects.one(found, outing_id)), f"outing-{outing_id}")


@router.get("/outings/{outing_id}/gate.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_outing_notices(request: HttpRequest, account: Path[str], outing_id: Id) -> HttpResponse:
    """The notices for the gates of everything that an outing put down."""
    from greenmeasure.proof import documents

    found = account_of(request)
    return _file(documents.gate_pdf(found, put_down_on(found, outing_id)), f"notices-outing-{outing_id}")


@router.get("/outings/{outing_id}/notes.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_outing_notes(request: HttpRequest, account: Path[str], outing_id: Id) -> HttpResponse:
    """The customers' notes of everything that an outing put down."""
    from greenmeasure.proof import documents

    found = account_of(request)
    return _file(documents.note_pdf(found, put_down_on(found, outing_id)), f"notes-outing-{outing_id}")


@router.get("/rounds/{round_id}/measuring.pdf", auth=VIEWER, openapi_extra=sends(PDF))
def print_measuring_list(request: HttpRequest, account: Path[str], round_id: Id) -> HttpResponse:
    """The measuring list of a round, for the bench."""
    from greenmeasure.proof import documents

    found = account_of(request)
    return _file(documents.measuring_pdf(found, Round.objects.one(found, round_id)), f"measuring-{round_id}")
