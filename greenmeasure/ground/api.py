"""Areas."""

from django.http import HttpRequest, JsonResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import MANAGER, VIEWER, account_of, user_of
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.common.bringing import ImportOut
from greenmeasure.common.names import put_back
from greenmeasure.common.versions import against
from greenmeasure.ground import actions, geojson, queries, sodium, soil
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import (
    AreaIn,
    AreaOut,
    AreaWholeOut,
    GeoJsonIn,
    GroundOptionsOut,
    GroundOut,
    MeasuredOut,
    MeasureIn,
    MeasurementIn,
    PhPlanIn,
    PhPlanOut,
    SodiumIn,
    SodiumOut,
    SoilReadingIn,
)

router = Router(tags=["ground"])


@router.get("", response=GroundOut, auth=VIEWER)
def list_areas(request: HttpRequest, account: Path[str]) -> GroundOut:
    """The account's areas and their sum."""
    return queries.ground(account_of(request))


@router.get("/options", response=GroundOptionsOut, auth=VIEWER)
def ground_options(request: HttpRequest, account: Path[str]) -> GroundOptionsOut:
    """What an area's form offers to pick from."""
    return queries.options()


@router.post("/measure", response=MeasuredOut, auth=VIEWER)
def measure_area(request: HttpRequest, account: Path[str], data: MeasureIn, area_id: Id | None = None) -> MeasuredOut:
    """What a measurement comes to, with its plan; changes nothing."""
    return queries.measure_out(account_of(request), data, area_id)


@router.get("/areas.geojson", auth=VIEWER, openapi_extra=sends("application/geo+json"))
def export_geojson(request: HttpRequest, account: Path[str]) -> JsonResponse:
    """All areas as GeoJSON."""
    found = account_of(request)
    answer = JsonResponse(geojson.export(found), content_type="application/geo+json", json_dumps_params={"indent": 1})
    answer["Content-Disposition"] = f'attachment; filename="{found.slug}-ground.geojson"'
    return answer


@router.post("/geojson/preview", response=ImportOut, auth=MANAGER)
def preview_geojson(request: HttpRequest, account: Path[str], data: GeoJsonIn) -> ImportOut:
    """What a GeoJSON text would do, line by line; changes nothing."""
    return geojson.read(account_of(request), data.text, user_of(request), keep=False)


@router.post("/geojson", response=ImportOut, auth=MANAGER)
def import_geojson(request: HttpRequest, account: Path[str], data: GeoJsonIn) -> ImportOut:
    """Bring areas in from GeoJSON; all of them, or none where a line is at fault."""
    return geojson.read(account_of(request), data.text, user_of(request), keep=True)


@router.post("", response={201: AreaOut}, auth=MANAGER)
def add_area(request: HttpRequest, account: Path[str], data: AreaIn) -> tuple[int, AreaOut]:
    """Add an area."""
    return 201, queries.area_out(actions.save_area(account_of(request), data, by=user_of(request)))


@router.get("/{area_id}", response=AreaWholeOut, auth=VIEWER)
def get_area(request: HttpRequest, account: Path[str], area_id: Id) -> AreaWholeOut:
    """One area with its plan, parts, measurements, heights and soil readings."""
    return queries.whole(account_of(request), area_id)


@router.put("/{area_id}", response=AreaOut, auth=MANAGER)
def change_area(request: HttpRequest, account: Path[str], area_id: Id, data: AreaIn) -> AreaOut:
    """Change an area."""
    found = account_of(request)

    def area() -> Area:
        return Area.objects.one(found, area_id)

    data.site_id = data.site_id or area().site_id
    with against(data, lambda: queries.area_out(area())):
        return queries.area_out(actions.save_area(found, data, area(), user_of(request)))


@router.delete("/{area_id}", response=AreaOut, auth=MANAGER)
def remove_area(request: HttpRequest, account: Path[str], area_id: Id) -> AreaOut:
    """Put an area away; the book keeps it, and it can be put back."""
    area = Area.objects.one(account_of(request), area_id)
    area.archive()
    return queries.area_out(area)


@router.post("/{area_id}/put-back", response=AreaOut, auth=MANAGER)
def put_back_area(request: HttpRequest, account: Path[str], area_id: Id) -> AreaOut:
    """Undo a removal."""
    return queries.area_out(put_back(Area.objects.one(account_of(request), area_id)))


@router.post("/{area_id}/measurements", response={201: AreaWholeOut}, auth=MANAGER)
def add_measurement(request: HttpRequest, account: Path[str], area_id: Id, data: MeasurementIn) -> tuple[int, AreaWholeOut]:
    """Keep a measurement of an area."""
    found = account_of(request)
    actions.add_measurement(Area.objects.one(found, area_id), data, user_of(request))
    return 201, queries.whole(found, area_id)


@router.post("/{area_id}/measurements/{measurement_id}/use", response=AreaWholeOut, auth=MANAGER)
def use_measurement(request: HttpRequest, account: Path[str], area_id: Id, measurement_id: Id) -> AreaWholeOut:
    """Make a measurement's size the area's."""
    found = account_of(request)
    area = Area.objects.one(found, area_id)
    actions.use_measurement(area, actions.measurement_of(area, measurement_id))
    return queries.whole(found, area_id)


@router.post("/{area_id}/soil", response={201: AreaWholeOut}, auth=MANAGER)
def add_soil_reading(request: HttpRequest, account: Path[str], area_id: Id, data: SoilReadingIn) -> tuple[int, AreaWholeOut]:
    """Keep a soil sample of a spot."""
    found = account_of(request)
    soil.add_reading(Area.objects.one(found, area_id), data, user_of(request))
    return 201, queries.whole(found, area_id)


@router.delete("/{area_id}/soil/{reading_id}", response=AreaWholeOut, auth=MANAGER)
def remove_soil_reading(request: HttpRequest, account: Path[str], area_id: Id, reading_id: Id) -> AreaWholeOut:
    """Take a soil sample out."""
    found = account_of(request)
    soil.remove_reading(Area.objects.one(found, area_id), reading_id)
    return queries.whole(found, area_id)


@router.post("/{area_id}/sodium", response=SodiumOut, auth=VIEWER)
def plan_sodium(request: HttpRequest, account: Path[str], area_id: Id, data: SodiumIn) -> SodiumOut:
    """The gypsum that an area's sodium asks for; nothing is kept."""
    return sodium.sodium(account_of(request), area_id, data)


@router.post("/{area_id}/ph", response=PhPlanOut, auth=VIEWER)
def plan_ph(request: HttpRequest, account: Path[str], area_id: Id, data: PhPlanIn) -> PhPlanOut:
    """The pH plan from the area's readings; changes nothing."""
    return queries.ph_plan(account_of(request), area_id, data)
