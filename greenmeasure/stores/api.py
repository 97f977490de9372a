"""Stores."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import VIEWER, account_of
from greenmeasure.stores import queries
from greenmeasure.stores.schemas import StoresOut

router = Router(tags=["shelf"])


@router.get("", response=StoresOut, auth=VIEWER)
def read_stores(request: HttpRequest, account: Path[str]) -> StoresOut:
    """The shelf against the season: how old it is, what planned jobs need, what to buy."""
    return queries.stores(account_of(request))
