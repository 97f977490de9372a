"""Ground from positions on the earth: a ring of latitudes and longitudes, or a GeoJSON polygon.

Areas are geodesic on the WGS84 ellipsoid (Karney CFF 2013, J Geodesy 87:43-55, as pyproj computes them); neither a
sphere nor web-map metres, which overstate by 1/cos² of the latitude. GeoJSON is RFC 7946: longitude first.
"""

import math
import re
from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import TYPE_CHECKING, Any

from shapely.geometry import Polygon
from shapely.validation import explain_validity

from core.areas.plan import Measured, Outline, Plan
from core.errors import InputError, NotUnderstood
from core.units import LARGEST, show_number
from core.working import Step, Term

if TYPE_CHECKING:
    from pyproj import Geod, Transformer

Position = tuple[float, float]
"""Latitude and longitude [degrees], north and east positive."""

MOST_POSITIONS = 5000

_DEGREES = r"[-+]?\d+(?:\.\d+)?\s*(?:°\s*(?:\d+(?:\.\d+)?\s*[′'](?:\s*\d+(?:\.\d+)?\s*[″\"])?)?)?\s*"
_POSITION = re.compile(rf"\s*([NSEWnsew])?\s*({_DEGREES})([NSEWnsew])?\s*[,;\s]\s*([NSEWnsew])?\s*({_DEGREES})([NSEWnsew])?\s*")


def read_ring(text: str, field: str = "ring") -> list[Position]:
    """Positions as typed, one a line: `41.20518, -71.60321`, `41°12'18.6"N 71°36'11.6"W`; latitude first.

    Raises:
        NotUnderstood: a line that is no position; says which.
        InputError: fewer than three, or one that is not on the earth.
    """
    lines = [(i, said.strip()) for i, said in enumerate(text.splitlines(), start=1) if said.strip()]
    return checked([_position(said, i, field) for i, said in lines], field)


def _position(said: str, number: int, field: str) -> Position:
    match = _POSITION.fullmatch(said.replace("’", "'").replace("”", '"').replace("−", "-"))
    if not match:
        raise NotUnderstood(
            field, said, f"Line {number}, “{said}”, is no position.", "Write latitude, then longitude: 41.20518, -71.60321."
        )
    first = (_degrees(match[2]), (match[1] or match[3] or "").upper())
    second = (_degrees(match[5]), (match[4] or match[6] or "").upper())
    if first[1] in ("E", "W") or second[1] in ("N", "S"):
        first, second = second, first
    lat = -abs(first[0]) if first[1] == "S" else first[0]
    lon = -abs(second[0]) if second[1] == "W" else second[0]
    return lat, lon


def _degrees(text: str) -> float:
    sign = -1.0 if text.strip().startswith("-") else 1.0
    parts = [float(x) for x in re.findall(r"\d+(?:\.\d+)?", text)]
    return sign * math.fsum(p / 60.0**i for i, p in enumerate(parts))


def checked(ring: Sequence[Position], field: str = "ring") -> list[Position]:
    """A ring without its repeated last position.

    Raises:
        InputError: fewer than three positions, too many, or one that is not on the earth.
    """
    found = list(ring[:-1]) if len(ring) > 1 and ring[0] == ring[-1] else list(ring)
    for lat, lon in found:
        if not (math.isfinite(lat) and math.isfinite(lon)) or abs(lat) > 90 or abs(lon) > 180:
            raise InputError(
                field,
                f"{lat}, {lon}",
                f"{show_number(lat, 8)}, {show_number(lon, 8)} is not on the earth.",
                "Latitude is -90 to 90 and comes first here; longitude is -180 to 180. Have they changed places?",
            )
    if len(set(found)) < 3:
        raise InputError(field, len(found), f"{len(found)} positions enclose nothing.", "Walk at least three corners.")
    if len(found) > MOST_POSITIONS:
        raise InputError(field, len(found), f"{len(found)} positions are too many.", f"Thin them to {MOST_POSITIONS}.")
    return found


def read_geometry(geometry: Mapping[str, Any], field: str = "geometry") -> list[list[list[Position]]]:
    """Polygons of a GeoJSON Polygon or MultiPolygon (RFC 7946): each its outer ring, then its holes.

    Raises:
        InputError: another kind of geometry, or rings that are none.
    """
    kind, given = geometry.get("type"), geometry.get("coordinates")
    if kind not in ("Polygon", "MultiPolygon") or not isinstance(given, list) or not given:
        raise InputError(field, str(kind), f"“{kind}” encloses no ground.", "Use a Polygon or a MultiPolygon.")
    polygons = [given] if kind == "Polygon" else given
    try:
        return [[checked([(float(p[1]), float(p[0])) for p in ring], field) for ring in polygon] for polygon in polygons]
    except (TypeError, ValueError, IndexError, KeyError) as wrong:
        if isinstance(wrong, InputError):
            raise
        raise InputError(field, "coordinates", "The coordinates are not lists of longitude and latitude.") from None


def to_geometry(polygons: Sequence[Sequence[Sequence[Position]]]) -> dict[str, Any]:
    """A GeoJSON geometry of polygons as `read_geometry` gives them: closed rings, outer ones anticlockwise."""

    def closed(ring: Sequence[Position], outer: bool) -> list[list[float]]:
        turned = _measured(ring)[0] > 0
        run = list(ring) if turned == outer else list(reversed(ring))
        return [[lon, lat] for lat, lon in [*run, run[0]]]

    made = [[closed(ring, i == 0) for i, ring in enumerate(polygon)] for polygon in polygons]
    return {"type": "Polygon", "coordinates": made[0]} if len(made) == 1 else {"type": "MultiPolygon", "coordinates": made}


def geodesic_area(ring: Sequence[Position]) -> float:
    """Area inside a ring on the ellipsoid [m²], whichever way it runs."""
    return abs(_measured(ring)[0])


def by_rings(polygons: Sequence[Sequence[Sequence[Position]]], field: str = "ring") -> Measured:
    """Ground inside rings of positions, less their holes.

    Raises:
        InputError: a ring that crosses itself, a hole outside its ring, or ground larger than taken seriously here.
    """
    centre = polygons[0][0][0]
    size, steps, outlines = 0.0, [], []
    for n, polygon in enumerate(polygons, start=1):
        flat = [_flat(ring, centre) for ring in polygon]
        _sound(Polygon(flat[0], flat[1:]), polygon, field)
        areas = [geodesic_area(ring) for ring in polygon]
        size += areas[0] - math.fsum(areas[1:])
        name = f"Ring {n}" if len(polygons) > 1 else "Ring"
        steps.append(Step(f"{name}: geodesic area on WGS84", (Term(areas[0], "m²"),), Term(areas[0], "m²")))
        steps += [Step("Less a hole", (Term(a, "m²", op="−"),), Term(a, "m²")) for a in areas[1:]]
        outlines += [Outline(tuple(ring), hole=i > 0) for i, ring in enumerate(flat)]
    if size > LARGEST["area"]:
        raise InputError(field, size, f"{show_number(size / 1e4)} ha is larger than ground kept here.", "Check the positions.")
    around = math.fsum(_around(polygon[0]) for polygon in polygons)
    notes = (
        f"{sum(len(r) for p in polygons for r in p)} positions, {show_number(around)} m around. A hand-held "
        "receiver is 3 to 5 m out at each corner; on small ground a tape is better.",
    )
    return Measured(size, Plan(tuple(outlines), north=True), tuple(steps), notes)


def _around(ring: Sequence[Position]) -> float:
    """The way around a ring [m]."""
    return _measured(ring)[1]


def _measured(ring: Sequence[Position]) -> tuple[float, float]:
    """The signed area [m²] of a ring, positive where it runs anticlockwise, and the way around it [m]."""
    area, around = _wgs84().polygon_area_perimeter([p[1] for p in ring], [p[0] for p in ring])
    return float(area), float(around)


@lru_cache(maxsize=1)
def _wgs84() -> "Geod":
    from pyproj import Geod  # loaded with the first ring, not with the program: PROJ takes its time

    return Geod(ellps="WGS84")


@lru_cache(maxsize=32)
def to_plane(lat: float, lon: float) -> "Transformer":
    """From longitude and latitude to metres on a plane that touches the earth there (azimuthal equidistant).

    Args:
        lat: latitudes [°].
        lon: longitudes [°].
    """
    from pyproj import Transformer

    return Transformer.from_crs("EPSG:4326", f"+proj=aeqd +lat_0={lat} +lon_0={lon} +datum=WGS84 +units=m", always_xy=True)


def _flat(ring: Sequence[Position], centre: Position) -> list[tuple[float, float]]:
    """The ring on a local plane [m], for drawing and for finding crossings; never for its size."""
    xs, ys = to_plane(*centre).transform([p[1] for p in ring], [p[0] for p in ring])
    return [(float(x), float(y)) for x, y in zip(xs, ys, strict=True)]


def _sound(polygon: Polygon, rings: Sequence[Sequence[Position]], field: str) -> None:
    if polygon.is_valid and polygon.area > 0:
        return
    why = explain_validity(polygon)
    crossed = "Self-intersection" in why
    said = "The outline crosses itself" if crossed else f"The rings are no ground ({why.split('[')[0].lower()})"
    raise InputError(field, len(rings[0]), f"{said}.", "Give the corners in the order one walks around them.")
