"""Passes: walking plans, landing maps, and where things lie on the plan."""

from django.http import HttpRequest, JsonResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import MANAGER, VIEWER, account_of
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.common.versions import against
from greenmeasure.ground.actions import place_hazards
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_out
from greenmeasure.ground.schemas import AreaOut, LiesIn
from greenmeasure.passes import geojson, queries
from greenmeasure.passes.schemas import ComparedPlansOut, ExportIn, LandedOut, LandIn, PassesOut, PlacesIn, PlanIn

router = Router(tags=["passes"])


@router.post("/plan", response=PassesOut, auth=VIEWER)
def plan_passes(request: HttpRequest, account: Path[str], data: PlanIn) -> PassesOut:
    """A walking plan for an area."""
    return queries.plan_out(account_of(request), data)


@router.post("/landing", response=LandedOut, auth=VIEWER)
def land_passes(request: HttpRequest, account: Path[str], data: LandIn) -> LandedOut:
    """What lands where, walked so."""
    return queries.landed(account_of(request), data)


@router.post("/compare", response=ComparedPlansOut, auth=VIEWER)
def compare_passes(request: HttpRequest, account: Path[str], data: LandIn) -> ComparedPlansOut:
    """One round and two half rounds of each kind, side by side."""
    return queries.compared(account_of(request), data)


@router.post("/geojson", auth=VIEWER, openapi_extra=sends("application/geo+json"))
def export_passes(request: HttpRequest, account: Path[str], data: ExportIn) -> JsonResponse:
    """The plan as GeoJSON."""
    made = geojson.export(account_of(request), data)
    return JsonResponse(made, content_type="application/geo+json", json_dumps_params={"indent": 1})


@router.put("/areas/{area_id}/places", response=AreaOut, auth=MANAGER)
def place_near(request: HttpRequest, account: Path[str], area_id: Id, data: PlacesIn) -> AreaOut:
    """Put what lies near an area on its plan."""
    found = account_of(request)

    def stands() -> PlacesIn:
        area = Area.objects.one(found, area_id)
        return PlacesIn(version=area.version, places=[h["lies"] and LiesIn(**h["lies"]) for h in area.hazards])

    area = Area.objects.one(found, area_id)
    with against(data, stands):
        place_hazards(area, data.places, data.version)
    return area_out(area)
