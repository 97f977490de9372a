"""The story of an area, of a site, of the account."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import VIEWER, account_of
from greenmeasure.common.bounds import Id
from greenmeasure.story import queries
from greenmeasure.story.schemas import EventsOut, StoryOut

router = Router(tags=["ground"])


@router.get("/areas/{area_id}/story", response=StoryOut, auth=VIEWER)
def get_story(request: HttpRequest, account: Path[str], area_id: Id, whole: bool = False) -> StoryOut:
    """What went down, was done and was seen on an area, its whole and its parts; the last year, or all of it."""
    return queries.story(account_of(request), area_id, whole)


@router.get("/story", response=EventsOut, auth=VIEWER)
def get_whole_story(request: HttpRequest, account: Path[str], site_id: Id | None = None, whole: bool = False) -> EventsOut:
    """What happened on every area of a site, or of the account; the last year, or all of it."""
    return queries.of_all(account_of(request), site_id, whole)
