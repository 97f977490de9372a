"""What lies near on the plan of an area: spots, boxes and sides, as shapes to keep off."""

from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

from shapely.geometry import LineString, Point, Polygon, box
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from core.areas.plan import Plan
from core.errors import InputError
from core.units import positive


class How(StrEnum):
    """How a thing lies: a round spot, a box, or along a side of the area."""

    SPOT = "spot"
    BOX = "box"
    SIDE = "side"


@dataclass(frozen=True)
class Place:
    """Where a thing lies on the plan [m from its lower left corner].

    A spot has its middle at x, y and is `across` wide; a box has its lower left corner there, `across` wide and `along`
    high; a side is the number of one of the outline's sides, from 1.
    """

    how: How
    x: float = 0.0
    y: float = 0.0
    across: float = 0.0
    along: float = 0.0
    side: int = 0


def outline_of(plan: Plan) -> BaseGeometry:
    """The ground of a plan: its outlines together, less its holes."""
    whole = unary_union([Polygon(o.ring).buffer(0) for o in plan.outlines if not o.hole])
    holes = [Polygon(o.ring).buffer(0) for o in plan.outlines if o.hole]
    return whole.difference(unary_union(holes)) if holes else whole


def sides_of(ground: BaseGeometry) -> list[tuple[tuple[float, float], tuple[float, float]]]:
    """The outer sides of the ground, each from corner to corner, in their order."""
    found = []
    for polygon in getattr(ground, "geoms", [ground]):
        ring = list(polygon.exterior.coords)
        found += list(pairwise(ring))
    return found


def shape_of(place: Place, ground: BaseGeometry) -> BaseGeometry:
    """The shape of what lies at a place.

    Raises:
        InputError: a thing without size, or a side that the outline does not have.
    """
    if place.how is How.SPOT:
        return Point(place.x, place.y).buffer(positive("across", place.across) / 2)
    if place.how is How.BOX:
        wide, high = positive("across", place.across), positive("along", place.along)
        return box(place.x, place.y, place.x + wide, place.y + high)
    sides = sides_of(ground)
    if not 1 <= place.side <= len(sides):
        raise InputError("side", place.side, f"The outline has sides 1 to {len(sides)}.", "Pick one that the plan numbers.")
    return LineString(sides[place.side - 1])
