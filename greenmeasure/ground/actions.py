"""What changes ground."""

from core.errors import InputError
from core.grasses import GRASSES
from core.units import AREA, LENGTH, Quantity
from greenmeasure.accounts.models import Club
from greenmeasure.common.errors import Faults
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import quantity_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn

TALLEST_CUT = 0.3
"""Turf is not mown above 30 cm (common practice, no source)."""


def save_area(club: Club, data: AreaIn, area: Area | None = None) -> Area:
    """Add an area, or change one.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults = Faults()
    area = area or Area(club=club)
    name = faults.of(free_name, Area, club, data.name, area.pk)
    size = faults.of(quantity_in, "size", data.size, AREA)
    grass = faults.of(_grass, data.grass)
    height = faults.of(_height, data) if data.height else None
    faults.raise_any()
    assert name and size and grass
    area.name, area.grass, area.note = name, grass, data.note
    area.size_value, area.size_unit = size.value, size.unit.key
    area.height_value = height.value if height else None
    area.height_unit = height.unit.key if height else ""
    area.save()
    return area


def _grass(key: str) -> str:
    if key not in GRASSES:
        raise InputError("grass", key, "No grass is chosen." if not key else f"“{key}” is not a grass known here.",
                         "Pick the one that covers most of the area.")  # fmt: skip
    return key


def _height(data: AreaIn) -> Quantity:
    assert data.height
    height = quantity_in("height", data.height, LENGTH)
    if height.base > TALLEST_CUT:
        raise InputError("height", str(height), f"{height} is no height of cut.", "Check the number and its unit.")
    return height
