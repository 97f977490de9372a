"""What is read of ground."""

from core.grasses import GRASSES
from core.job import readable
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Club
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import quantity_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaOut, GrassOut, GroundOut


def area_out(area: Area) -> AreaOut:
    other = readable(area.size, us=area.size_unit in ("m2", "ha", "m2_100"))
    return AreaOut(
        id=area.pk, name=area.name, size=quantity_out(area.size), also=str(other), grass=area.grass,
        grass_name=GRASSES[area.grass].name, height=quantity_out(area.height) if area.height else None, note=area.note,
        archived=area.archived_at is not None,
    )  # fmt: skip


def ground(club: Club) -> GroundOut:
    areas = list(Area.objects.of(club).kept())
    total = Quantity(sum(a.size.base for a in areas), UNITS["m2"])
    return GroundOut(areas=[area_out(a) for a in areas], total=str(readable(total, club.us)) if areas else "")


@kept
def areas(club: Club) -> dict[int, Area]:
    """All areas of the club by their ids, those put away too."""
    return {a.pk: a for a in Area.objects.of(club)}


def area_of(club: Club, area_id: int) -> Area:
    """An area of this club.

    Raises:
        Missing: no such area.
    """
    try:
        return areas(club)[area_id]
    except KeyError:
        raise Missing("area") from None


def grasses() -> list[GrassOut]:
    return [GrassOut(key=g.key, name=g.name, botanical=g.botanical, cool=g.cool) for g in GRASSES.values()]
