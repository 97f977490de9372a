"""Areas in and out as GeoJSON (RFC 7946): geometry where an area was measured by positions, facts as properties."""

from typing import Any

from django.db import transaction

from core.areas.measure import in_trade
from core.areas.rings import by_rings, read_geometry, to_geometry
from core.errors import InputError, NotUnderstood
from core.grasses import GRASSES, MIXED
from greenmeasure.accounts.models import Account, Site, User, sites_of
from greenmeasure.common.bounds import read_json, shaped
from greenmeasure.common.bringing import ImportOut, LineChangeOut, brought_in
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Faulty
from greenmeasure.ground.actions import add_measurement, save_area, use_measurement
from greenmeasure.ground.measuring import sketch_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn, MeasureIn, MeasurementIn

MOST_FEATURES = 500


def export(account: Account) -> dict[str, Any]:
    """All areas as a FeatureCollection. An area that was not measured by positions has a null geometry."""
    areas = Area.objects.of(account).kept().select_related("parent", "site").prefetch_related("measurements")
    return {"type": "FeatureCollection", "features": [_feature(a) for a in areas]}


def _feature(area: Area) -> dict[str, Any]:
    taken = next((m for m in area.measurements.all() if m.in_use and m.given["method"] == "ring"), None)
    rings = sketch_in(MeasureIn(**taken.given)).rings if taken else None
    return {
        "type": "Feature",
        "geometry": to_geometry(rings) if rings else None,
        "properties": {
            "name": area.name,
            "size": area.size_value,
            "size_unit": area.size_unit,
            "grass": area.grass,
            "blend": area.blend,
            "height": area.height_value,
            "height_unit": area.height_unit,
            "use": area.use,
            "cultivar": area.cultivar,
            "part_of": area.parent.name if area.parent else None,
            "site": area.site.name,
            "note": area.note,
        },
    }


def features(text: str) -> list[dict[str, Any]]:
    """The features of a GeoJSON text.

    Raises:
        InputError: it is no GeoJSON, or holds too much.
    """
    given = read_json(text)
    kind = given.get("type") if isinstance(given, dict) else None
    if kind == "FeatureCollection":
        found = given.get("features")
    elif kind == "Feature":
        found = [given]
    else:
        found = [{"type": "Feature", "geometry": given, "properties": {}}] if kind in ("Polygon", "MultiPolygon") else None
    if not isinstance(found, list) or not all(isinstance(f, dict) for f in found):
        raise NotUnderstood("text", str(kind), "It is no GeoJSON of ground.", "It needs features with polygons.")
    if len(found) > MOST_FEATURES:
        raise InputError("text", len(found), f"{len(found)} features are too many at once.", f"Bring in {MOST_FEATURES} at most.")
    return found


def read(account: Account, text: str, by: User, keep: bool) -> ImportOut:
    """What a GeoJSON text would do, line by line; with `keep`, do it where nothing is refused.

    Raises:
        InputError: the text as a whole is at fault.
    """
    lines = []
    with transaction.atomic():
        for i, feature in enumerate(features(text), start=1):
            with transaction.atomic():
                lines.append(_line(account, i, feature, by))
        refused = sum(line.act == "refused" for line in lines)
        if not keep or refused:
            transaction.set_rollback(True)
    return ImportOut(lines=lines, refused=refused, sentence=brought_in(lines, keep))


def _line(account: Account, number: int, feature: dict[str, Any], by: User) -> LineChangeOut:
    given, geometry = feature.get("properties") or {}, feature.get("geometry")
    name = f"Area {number}"
    try:
        for part, value in (("properties", given), ("geometry", geometry)):
            if value is not None and not isinstance(value, dict):
                raise NotUnderstood(part, str(value)[:40], f"The {part} of the feature are no object.", "Save the file anew.")
        name = str(given.get("name") or name).strip()[:80]
        return _take(account, number, name, given, geometry, by)
    except (InputError, Faulty) as fault:
        faults = fault.faults if isinstance(fault, Faulty) else [fault]
        return LineChangeOut(line=number, name=name, act="refused", changes=[], problems=[f.sentence for f in faults])


def _take(
    account: Account, number: int, name: str, given: dict[str, Any], geometry: dict[str, Any] | None, by: User
) -> LineChangeOut:
    site = _site(account, str(given.get("site") or ""))
    area = Area.objects.of(account).kept().filter(site=site, name__iexact=name).first()
    measure = None
    if geometry:
        by_rings(read_geometry(geometry))
        measure = MeasureIn(method="ring", unit="m", geometry=geometry)
    if area is None:
        save_area(account, _area_in(name, site, given, measure), by=by)
        return LineChangeOut(line=number, name=name, act="add", changes=[], problems=[])
    if measure is None:
        return LineChangeOut(line=number, name=name, act="same", changes=[], problems=[])
    was = area.size
    made = add_measurement(area, MeasurementIn(**measure.dict(), taken_on=today(area)), by)
    use_measurement(area, made)
    now = in_trade(made.size_m2, account.us)
    if abs(now.base / was.base - 1) < 1e-6:
        made.delete()
        return LineChangeOut(line=number, name=name, act="same", changes=[], problems=[])
    return LineChangeOut(line=number, name=name, act="change", changes=[f"size: {was} → {now}"], problems=[])


def _site(account: Account, name: str) -> Site:
    """The site of this name; the first one where none is named, or there is but one."""
    every = list(sites_of(account).values())
    if not name or len(every) == 1:
        return every[0]
    found = next((s for s in every if s.name.casefold() == name.strip().casefold()), None)
    if found is None:
        raise InputError("site", name, f"There is no site “{name}”.", f"Use one of: {', '.join(s.name for s in every)}.")
    return found


def _area_in(name: str, site: Site, given: dict[str, Any], measure: MeasureIn | None) -> AreaIn:
    grass = str(given.get("grass") or MIXED)
    size, height = given.get("size"), given.get("height")
    found = {
        "name": name,
        "site_id": site.pk,
        "grass": grass if grass in GRASSES else MIXED,
        "blend": given.get("blend") or [],
        "size": None if measure or size is None else {"value": size, "unit": str(given.get("size_unit") or "m2")},
        "height": None if height is None else {"value": height, "unit": str(given.get("height_unit") or "mm")},
        "use": str(given.get("use") or ""),
        "cultivar": str(given.get("cultivar") or "")[:80],
        "note": str(given.get("note") or "")[:4000],
    }
    return shaped(AreaIn, found).model_copy(update={"measure": measure})
