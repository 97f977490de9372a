"""Reckoning. Nothing here changes anything."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import VIEWER, account_of
from greenmeasure.common.answers import ready
from greenmeasure.reckon import queries
from greenmeasure.reckon.again import again
from greenmeasure.reckon.line import answer_line
from greenmeasure.reckon.outs import job_out
from greenmeasure.reckon.schemas import (
    AgainOut,
    BackIn,
    BackOut,
    CompareIn,
    CompareOut,
    CupIn,
    CupOut,
    DoseMeasureIn,
    JobIn,
    JobOut,
    LineIn,
    LineOut,
    MeasuringOut,
    Nothing,
    RowFitOut,
    RowsIn,
)

router = Router(tags=["reckon"])


@router.post("/job", response=JobOut, auth=VIEWER)
def reckon_job(request: HttpRequest, account: Path[str], data: JobIn) -> HttpResponse:
    """Reckon one job: amount, loads, vessels, cost, verdict, rules, budget, working."""
    return ready(job_out(queries.reckoned(account_of(request), data)))


@router.post("/empty", response=Nothing, auth=VIEWER)
def reckon_nothing(request: HttpRequest, account: Path[str], data: JobIn) -> HttpResponse:
    """Through the same door with the same question, answering nothing: what `make bench` measures against."""
    return ready(Nothing())


@router.get("/again/{application_id}", response=AgainOut, auth=VIEWER)
def reckon_again(request: HttpRequest, account: Path[str], application_id: int) -> AgainOut:
    """An application of the book as it would be planned now."""
    return again(account_of(request), application_id)


@router.post("/rows", response=list[RowFitOut], auth=VIEWER)
def fitting_rows(request: HttpRequest, account: Path[str], data: RowsIn) -> list[RowFitOut]:
    """How the rows of a label fit an area, the one to open with first."""
    return queries.row_fits(account_of(request), data)


@router.post("/backwards", response=BackOut, auth=VIEWER)
def reckon_backwards(request: HttpRequest, account: Path[str], data: BackIn) -> HttpResponse:
    """From an amount to the rate it makes."""
    return ready(queries.backwards(account_of(request), data))


@router.post("/compare", response=CompareOut, auth=VIEWER)
def compare_products(request: HttpRequest, account: Path[str], data: CompareIn) -> HttpResponse:
    """Products for one purpose side by side."""
    return ready(queries.compared(account_of(request), data))


@router.post("/measure", response=MeasuringOut, auth=VIEWER)
def measure_dose(request: HttpRequest, account: Path[str], data: DoseMeasureIn) -> HttpResponse:
    """How to measure a dose."""
    return ready(queries.measuring(account_of(request), data))


@router.post("/cup", response=CupOut, auth=VIEWER)
def check_cup(request: HttpRequest, account: Path[str], data: CupIn) -> HttpResponse:
    """Whether a cup's mark is true, by the water it holds."""
    return ready(queries.cup(data))


@router.post("/line", response=LineOut, auth=VIEWER)
def reckon_line(request: HttpRequest, account: Path[str], data: LineIn) -> HttpResponse:
    """Answer the reckon line."""
    return ready(answer_line(account_of(request), data.line))
