"""A walking plan as GeoJSON (RFC 7946)."""

from collections.abc import Sequence
from typing import Any

from core.errors import InputError
from core.passes.geo import Anchor, check_anchor, positions
from core.units import positive
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import number_in
from greenmeasure.ground.measuring import sketch_in
from greenmeasure.ground.schemas import MeasureIn
from greenmeasure.passes.laying import Laid, laid, zones
from greenmeasure.passes.schemas import ExportIn


def export(account: Account, data: ExportIn) -> dict[str, Any]:
    """The plan as a GeoJSON FeatureCollection (RFC 7946). Raises InputError where the plan has no position."""
    found = laid(account, data.plan)
    anchor = _anchor(found, data)

    def feature(kind: str, points: Sequence[tuple[float, float]], **properties: Any) -> dict[str, Any]:
        places = positions(points, anchor)
        shaped: dict[str, Any] = {"Point": places[0], "LineString": places, "Polygon": [places]}
        return {"type": "Feature", "geometry": {"type": kind, "coordinates": shaped[kind]}, "properties": properties}

    made = [
        feature("Polygon", [*o.ring, o.ring[0]], what="hole" if o.hole else "area", name=found.area.name)
        for o in found.plan.outlines
    ]
    number = 0
    for n, w in enumerate(found.walks, start=1):
        for p in w.passes:
            number += 1
            made.append(
                feature(
                    "LineString", p.line, what=p.kind.value, number=number, round=n, guide=p.guide, length_m=round(p.length, 2)
                )
            )
    made += [feature("Point", [r.at], what="refill", load=r.load) for r in found.refills]
    for zone in zones(found):
        made.append(
            feature("Polygon", [(p.x, p.y) for p in zone.ring], what="buffer" if zone.buffer else "keep off", name=zone.name)
        )
    return {"type": "FeatureCollection", "features": made}


def _anchor(found: Laid, data: ExportIn) -> Anchor:
    taken = next((m for m in found.area.measurements.all() if m.in_use), None)
    if taken and found.plan.north:
        rings = sketch_in(MeasureIn(**taken.given)).rings
        first = rings[0][0][0]
        # the ring's own plane touches the earth at its first position, and the plan was moved from it to its corner
        corner = found.plan.outlines[0].ring[0]
        return Anchor(first[0], first[1], corner)
    if not str(data.latitude).strip() or not str(data.longitude).strip():
        raise InputError(
            "latitude",
            None,
            f"{found.area.name} was not measured by positions.",
            "Give the position of the plan’s lower left corner, and the bearing of its up.",
        )
    return check_anchor(
        Anchor(
            _degrees("latitude", data.latitude),
            _degrees("longitude", data.longitude),
            (0.0, 0.0),
            positive("bearing", number_in("bearing", data.bearing), most=360, zero=True) if str(data.bearing).strip() else 0.0,
        )
    )


def _degrees(field: str, given: float | str) -> float:
    text = str(given).strip().replace("−", "-")
    return -number_in(field, text[1:]) if text.startswith("-") else number_in(field, text)
