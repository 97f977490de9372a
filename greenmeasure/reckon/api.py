"""Reckoning. Nothing here changes anything."""

from django.http import HttpRequest
from ninja import Router

from greenmeasure.common.auth import VIEWER, club_of
from greenmeasure.reckon import queries
from greenmeasure.reckon.schemas import JobIn, JobOut, LineIn, LineOut

router = Router(tags=["reckon"])


@router.post("/job", response=JobOut, auth=VIEWER)
def reckon_job(request: HttpRequest, club: str, data: JobIn) -> JobOut:
    """Reckon one job: amount, loads, vessels, cost, verdict, working."""
    return queries.job_out(queries.job_of(club_of(request), data))


@router.post("/line", response=LineOut, auth=VIEWER)
def reckon_line(request: HttpRequest, club: str, data: LineIn) -> LineOut:
    """Answer the reckon line."""
    return queries.answer_line(club_of(request), data.line)
