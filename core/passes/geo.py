"""A plan in metres put on the earth: its points as positions, for GeoJSON."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from core.areas.rings import to_plane
from core.errors import InputError

Point = tuple[float, float]


@dataclass(frozen=True)
class Anchor:
    """The position [degrees] of the plan's point `at` [m], and the bearing of the plan's y axis [degrees from north]."""

    latitude: float
    longitude: float
    at: Point = (0.0, 0.0)
    bearing: float = 0.0


def check_anchor(anchor: Anchor) -> Anchor:
    """The anchor, if it is on the earth. Raises InputError."""
    if not (abs(anchor.latitude) <= 89 and abs(anchor.longitude) <= 180):
        raise InputError(
            "latitude",
            f"{anchor.latitude}, {anchor.longitude}",
            "That is no position of turf.",
            "Latitude comes first, -89 to 89, then longitude, -180 to 180.",
        )
    return anchor


def positions(points: Sequence[Point], anchor: Anchor) -> list[list[float]]:
    """Points of the plan as longitude and latitude [degrees], as GeoJSON has them, to a hundredth of a metre.

    They are turned by the bearing and unrolled from a plane that touches the earth at the anchor.
    """
    turn = math.radians(anchor.bearing)
    c, s = math.cos(turn), math.sin(turn)
    flat = [(x - anchor.at[0], y - anchor.at[1]) for x, y in points]
    east, north = [x * c + y * s for x, y in flat], [y * c - x * s for x, y in flat]
    lon, lat = to_plane(anchor.latitude, anchor.longitude).transform(east, north, direction="INVERSE")
    return [[round(float(a), 7), round(float(b), 7)] for a, b in zip(lon, lat, strict=True)]
