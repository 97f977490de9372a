"""The book."""

from django.http import HttpRequest, StreamingHttpResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of, user_of
from greenmeasure.book import actions, queries
from greenmeasure.book.schemas import ApplicationOut, BookOut, CorrectIn, StrikeEntryIn
from greenmeasure.common import clock
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id, Word

router = Router(tags=["book"])


@router.get("", response=BookOut, auth=VIEWER)
def read_book(request: HttpRequest, account: Path[str], words: Word = "", page: Id = 1) -> BookOut:
    """A page of the book, newest first, narrowed by words."""
    return queries.book(account_of(request), words[:200], page)


@router.get("/book.csv", auth=VIEWER, openapi_extra=sends("text/csv"))
def export_csv(request: HttpRequest, account: Path[str], words: Word = "") -> StreamingHttpResponse:
    """The book as CSV, oldest first, narrowed by words."""
    found = account_of(request)
    answer = StreamingHttpResponse(queries.csv_lines(found, words[:200]), content_type="text/csv; charset=utf-8")
    name = f"{found.slug}-book-{clock.now():%Y-%m-%d}.csv"
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


@router.post("/{application_id}/correct", response=ApplicationOut, auth=APPLICATOR)
def correct_application(request: HttpRequest, account: Path[str], application_id: Id, data: CorrectIn) -> ApplicationOut:
    """Put an application right, with the reason; what it said before stays readable."""
    found = queries.application_of(account_of(request), application_id)
    return queries.application_out(actions.correct(found, user_of(request), data))


@router.post("/{application_id}/strike", response=ApplicationOut, auth=APPLICATOR)
def strike_application(request: HttpRequest, account: Path[str], application_id: Id, data: StrikeEntryIn) -> ApplicationOut:
    """Strike an application, with the reason; it stays readable and counts for nothing."""
    found = queries.application_of(account_of(request), application_id)
    return queries.application_out(actions.strike(found, user_of(request), data.why, data.version))


@router.get("/{application_id}", response=ApplicationOut, auth=VIEWER)
def get_application(request: HttpRequest, account: Path[str], application_id: Id) -> ApplicationOut:
    """One application with its entries."""
    return queries.application_out(queries.application_of(account_of(request), application_id))
