"""Today."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import VIEWER, account_of
from greenmeasure.today import queries
from greenmeasure.today.schemas import TodayOut

router = Router(tags=["today"])


@router.get("", response=TodayOut, auth=VIEWER)
def read_today(request: HttpRequest, account: Path[str]) -> TodayOut:
    """The state of the account and the next thing to do."""
    return queries.today(account_of(request))
