"""Outcomes."""

from typing import Annotated

from django.http import HttpRequest
from ninja import Path, Router
from pydantic import Field

from greenmeasure.accounts.auth import VIEWER, account_of
from greenmeasure.common.bounds import Id
from greenmeasure.outcomes import queries
from greenmeasure.outcomes.schemas import OutcomesOut

router = Router(tags=["outcomes"])

Year = Annotated[int, Field(ge=1900, le=2999)]


@router.get("", response=OutcomesOut, auth=VIEWER)
def read_outcomes(request: HttpRequest, account: Path[str], year: Year | None = None, area_id: Id | None = None) -> OutcomesOut:
    """Did it work: what came of applications, how the forecasts did, what became of plans."""
    return queries.outcomes(account_of(request), year, area_id)
