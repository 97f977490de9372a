"""Areas."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.common.auth import MANAGER, VIEWER, club_of
from greenmeasure.common.names import put_back
from greenmeasure.ground import actions, queries
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn, AreaOut, GrassOut, GroundOut

router = Router(tags=["ground"])


@router.get("", response=GroundOut, auth=VIEWER)
def list_areas(request: HttpRequest, club: Path[str]) -> GroundOut:
    """The club's areas and their sum."""
    return queries.ground(club_of(request))


@router.get("/grasses", response=list[GrassOut], auth=VIEWER)
def list_grasses(request: HttpRequest, club: Path[str]) -> list[GrassOut]:
    """The grasses to pick from."""
    return queries.grasses()


@router.post("", response={201: AreaOut}, auth=MANAGER)
def add_area(request: HttpRequest, club: Path[str], data: AreaIn) -> tuple[int, AreaOut]:
    """Add an area."""
    return 201, queries.area_out(actions.save_area(club_of(request), data))


@router.put("/{area_id}", response=AreaOut, auth=MANAGER)
def change_area(request: HttpRequest, club: Path[str], area_id: int, data: AreaIn) -> AreaOut:
    """Change an area."""
    found = club_of(request)
    return queries.area_out(actions.save_area(found, data, Area.objects.one(found, area_id)))


@router.delete("/{area_id}", response=AreaOut, auth=MANAGER)
def remove_area(request: HttpRequest, club: Path[str], area_id: int) -> AreaOut:
    """Put an area away; the book keeps it, and it can be put back."""
    area = Area.objects.one(club_of(request), area_id)
    area.archive()
    return queries.area_out(area)


@router.post("/{area_id}/put-back", response=AreaOut, auth=MANAGER)
def put_back_area(request: HttpRequest, club: Path[str], area_id: int) -> AreaOut:
    """Undo a removal."""
    return queries.area_out(put_back(Area.objects.one(club_of(request), area_id)))
