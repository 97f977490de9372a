"""Reckoning. Nothing here changes anything."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from greenmeasure.common.answers import ready
from greenmeasure.common.auth import VIEWER, club_of
from greenmeasure.reckon import queries
from greenmeasure.reckon.schemas import JobIn, JobOut, LineIn, LineOut, Nothing

router = Router(tags=["reckon"])


@router.post("/job", response=JobOut, auth=VIEWER)
def reckon_job(request: HttpRequest, club: Path[str], data: JobIn) -> HttpResponse:
    """Reckon one job: amount, loads, vessels, cost, verdict, working."""
    return ready(queries.job_out(queries.job_of(club_of(request), data)))


@router.post("/empty", response=Nothing, auth=VIEWER)
def reckon_nothing(request: HttpRequest, club: Path[str], data: JobIn) -> HttpResponse:
    """Through the same door with the same question, answering nothing: what `make bench` measures against."""
    return ready(Nothing())


@router.post("/line", response=LineOut, auth=VIEWER)
def reckon_line(request: HttpRequest, club: Path[str], data: LineIn) -> HttpResponse:
    """Answer the reckon line."""
    return ready(queries.answer_line(club_of(request), data.line))
