"""The areas of an account as the ledger knows them: parts by the tree, and areas that overlap by their outlines."""

from collections.abc import Sequence
from dataclasses import replace

from shapely import STRtree
from shapely.errors import GEOSException
from shapely.geometry import Polygon
from shapely.ops import unary_union

from core.areas.rings import Position
from core.errors import InputError
from core.ledger.places import Grounds, Tract
from greenmeasure.accounts.models import Account
from greenmeasure.common.kept import kept
from greenmeasure.ground.measuring import sketch_in
from greenmeasure.ground.models import Area, Measurement
from greenmeasure.ground.queries import areas
from greenmeasure.ground.schemas import MeasureIn

TOUCHING = 0.01
"""Outlines that share less than this of the smaller one are neighbours whose edges were walked a little off (ours)."""


@kept("ground")
def grounds_of(account: Account) -> Grounds:
    """The areas that are seen. A part that was put away still lies where it lay: its past stays, its facts are its whole's."""
    every = areas(account)
    by_tree = {pk: _tract(every, a) for pk, a in every.items()}
    overlaps = _overlaps(every, Grounds(by_tree))
    return Grounds({pk: replace(t, overlaps=overlaps.get(pk, frozenset())) for pk, t in by_tree.items()})


def _tract(every: dict[int, Area], area: Area) -> Tract:
    ground, whole = area.ground, every.get(area.parent_id or 0)
    if area.archived_at is not None and whole is not None:
        ground = replace(whole.ground, size=area.size)
    return Tract(area.pk, ground, area.parent_id, gone=area.archived_at is not None)


def _overlaps(every: dict[int, Area], tree: Grounds) -> dict[int, frozenset[int]]:
    """Which areas of no kin lie on one another, where both were measured by positions."""
    found = {pk: o for pk, o in _outlines(every).items() if every[pk].archived_at is None}
    if len(found) < 2:
        return {}
    keys = list(found)
    index = STRtree([found[pk] for pk in keys])
    pairs: dict[int, set[int]] = {}
    for i, j in zip(*index.query([found[pk] for pk in keys], predicate="intersects"), strict=True):
        a, b = keys[i], keys[j]
        shared = found[a].intersection(found[b]).area
        if a != b and shared > TOUCHING * min(found[a].area, found[b].area) and a not in tree.above(b) and b not in tree.above(a):
            pairs.setdefault(a, set()).add(b)
    return {pk: frozenset(others) for pk, others in pairs.items()}


def _outlines(every: dict[int, Area]) -> dict[int, Polygon]:
    """The outlines of the areas that were measured by positions, in degrees: fine to tell what lies on what."""
    taken = Measurement.objects.filter(area__in=every, in_use=True, given__method="ring")
    found = {}
    for m in taken:
        try:
            rings = sketch_in(MeasureIn(**m.given)).rings
            found[m.area_id] = unary_union([_polygon(r) for r in rings])
        except (InputError, ValueError, GEOSException):
            continue  # an outline that can no longer be read tells nothing: the tree does
    return found


def _polygon(rings: Sequence[Sequence[Position]]) -> Polygon:
    flat = [[(lon, lat) for lat, lon in ring] for ring in rings]
    return Polygon(flat[0], flat[1:])
