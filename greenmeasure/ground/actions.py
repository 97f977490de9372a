"""What changes ground."""

import re
from collections.abc import Mapping, Sequence
from datetime import date
from enum import StrEnum
from typing import Any

from django.db import transaction

from core.errors import InputError
from core.grasses import GRASSES, MIXED, blend_of
from core.ground import HazardKind, Stress
from core.label.rules import Use
from core.passes.near import How, Place, outline_of, shape_of
from core.soil.ph_tables import TEXTURES
from core.units import AREA, LENGTH, Quantity, positive, quantity, read_number
from greenmeasure.accounts.models import Account, Site, User
from greenmeasure.accounts.sites import site_of
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import filled, number_in, quantity_in
from greenmeasure.common.versions import claim
from greenmeasure.ground.measuring import in_account_units, measured, plan_of
from greenmeasure.ground.models import Area, Measurement
from greenmeasure.ground.schemas import AreaIn, BlendIn, HazardIn, LiesIn, MeasurementIn

TALLEST_CUT = 0.3
"""Turf is not mown above 30 cm (common practice, no source)."""
SHADES = ("none", "part", "full")


def save_area(account: Account, data: AreaIn, area: Area | None = None, by: User | None = None) -> Area:
    """Add an area, or change one. A height that differs is entered among its heights.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    before, area = area, area or Area(account=account)
    parent = faults.of(_parent, account, data.parent_id, area.pk) if data.parent_id else None
    site = faults.of(_site, account, data.site_id, parent, before)
    name = faults.of(free_name, Area, site, data.name, area.pk) if site else None
    found = faults.of(measured, data.measure) if data.measure else None
    size = faults.of(_size, data, parent, in_account_units(found.size, account.us) if found else None)
    if parent and size and size.base > parent.size.base * (1 + 1e-6):
        faults.add("size", str(size), f"A part of {parent.name} cannot be larger than its {parent.size}.", "Check both sizes.")
    grass = faults.of(_grass, data.grass)
    blend = faults.of(_blend, data.blend) if grass == MIXED else []
    height = faults.of(_height, data) if data.height else None
    slope = faults.of(_slope, data.slope) if data.slope not in (None, "") else None
    stress = faults.of(_one_of, "stress", data.stress, Stress)
    use = faults.of(_one_of, "use", data.use, Use) if data.use else ""
    hazards = [faults.of(_hazard, i, h, before) for i, h in enumerate(data.hazards)]
    if data.texture and data.texture not in TEXTURES:
        faults.add("texture", data.texture, f"“{data.texture}” is not a texture known here.", "Pick one of the list.")
    if data.shade and data.shade not in SHADES:
        faults.add("shade", data.shade, f"“{data.shade}” is no shade.", f"Use one of: {', '.join(SHADES)}.")
    faults.raise_any()
    assert name and site and size and grass and stress
    was = (area.height_value, area.height_unit)
    area.blend = blend or []
    area.name, area.site, area.grass, area.note, area.parent = name, site, grass, data.note, parent
    area.size_value, area.size_unit = size.value, size.unit.key
    area.height_value = height.value if height else None
    area.height_unit = height.unit.key if height else ""
    area.cultivar, area.zone, area.use, area.stress = data.cultivar, data.zone, use or "", stress
    area.texture, area.shade, area.slope = data.texture, data.shade, slope
    area.sown_on, area.overseed_on, area.tested_p = data.sown_on, data.overseed_on, data.tested_p
    area.hazards = hazards
    with claim(before, data.version):
        area.save()
        if before:
            _move_parts(area)
        if height and (height.value, height.unit.key) != was:
            area.heights.create(on=data.height_on or today(area), value=height.value, unit=height.unit.key)
        if data.measure and found:
            area.measurements.update(in_use=False)
            area.measurements.create(
                taken_on=today(area), given=data.measure.dict(), size_m2=found.size, in_use=True, by=str(by or "")
            )
    return area


def _parent(account: Account, parent_id: int, own: int | None) -> Area:
    try:
        parent = Area.objects.one(account, parent_id)
    except Missing:
        raise InputError("parent_id", parent_id, "That area is not there.", "Pick another, or none.") from None
    above: Area | None = parent
    while above:
        if above.pk == own:
            raise InputError("parent_id", parent.name, "An area is no part of itself.", "Pick another, or none.")
        above = above.parent
    return parent


def _site(account: Account, site_id: int | None, parent: Area | None, before: Area | None) -> Site:
    if parent:
        return parent.site
    if before and site_id is None:
        return before.site
    try:
        return site_of(account, site_id)
    except Missing:
        raise InputError("site_id", site_id, "That site is not there.", "Pick another.") from None


def _move_parts(area: Area) -> None:
    """Let an area's parts lie where it lies."""
    for part in area.parts.exclude(site=area.site):
        part.site = area.site
        part.save(update_fields=["site"])
        _move_parts(part)


def _size(data: AreaIn, parent: Area | None, found: Quantity | None) -> Quantity:
    if found:
        return found
    if data.share.strip():
        if parent is None:
            raise InputError("share", data.share, "A share needs the area that it is a part of.", "Pick it, or type a size.")
        return Quantity(parent.size.value * share_in(data.share), parent.size.unit)
    if data.size is None:
        raise InputError("size", None, "The size is missing.", "Type it, or measure it.")
    return quantity_in("size", data.size, AREA)


def share_in(text: str, field: str = "share") -> float:
    """A share as typed, `1/2`, `30 %`, `0.3`, as a fraction.

    Raises:
        InputError: not between nothing and the whole.
    """
    match = re.fullmatch(r"\s*(.+?)\s*(%?)\s*", text)
    value = read_number(match[1] if match else text, field) / (100 if match and match[2] else 1)
    if not 0 < value <= 1:
        raise InputError(field, text, f"{text} is no share of it.", "Write it like 1/2 or 30 %.")
    return value


def _grass(key: str) -> str:
    if key not in GRASSES:
        raise InputError(
            "grass",
            key,
            "No grass is chosen." if not key else f"“{key}” is not a grass known here.",
            "Pick the one that covers most of the area.",
        )
    return key


def _blend(given: Sequence[BlendIn]) -> list[dict[str, Any]]:
    """The grasses of a mixed sward as they are kept; one share that is left empty is the rest of it. Raises InputError."""
    shares = [number_in(f"blend.{i}.share", b.share) if b.share not in (None, "") else None for i, b in enumerate(given)]
    rest = 100 - sum(s for s in shares if s is not None)
    if shares.count(None) > 1:
        raise InputError("blend", None, "More than one share is missing.", "Leave one empty at the most: it is the rest.")
    told = [(b.grass, rest if s is None else s) for b, s in zip(given, shares, strict=True)]
    blend_of(told)
    return [{"grass": key, "share": share} for key, share in told]


def _height(data: AreaIn) -> Quantity:
    assert data.height
    height = quantity_in("height", data.height, LENGTH)
    if height.base > TALLEST_CUT:
        raise InputError("height", str(height), f"{height} is no height of cut.", "Check the number and its unit.")
    return height


def _slope(given: Any) -> float:
    return positive("slope", number_in("slope", given), most=100, symbol="%", zero=True)


def _one_of(field: str, key: str, kinds: type[StrEnum]) -> str:
    try:
        return kinds(key).value
    except ValueError:
        known = ", ".join(k.value for k in kinds)
        raise InputError(field, key, f"“{key}” is not known here.", f"Use one of: {known}.") from None


def _hazard(i: int, given: HazardIn, area: Area | None) -> dict[str, Any]:
    kind = _one_of(f"hazards.{i}.kind", given.kind, HazardKind)
    buffer = None
    if typed := filled(given.buffer):
        buffer = quantity_in(f"hazards.{i}.buffer", typed, LENGTH)
        if buffer.base > 500:
            raise InputError(f"hazards.{i}.buffer", str(buffer), f"{buffer} is no buffer.", "Check the number and its unit.")
    return {
        "kind": kind,
        "name": given.name,
        "value": buffer.value if buffer else None,
        "unit": buffer.unit.key if buffer else "",
        "lies": _lies(f"hazards.{i}.lies", given.lies, area) if given.lies else None,
    }


def _lies(field: str, given: LiesIn, area: Area | None) -> dict[str, Any]:
    """Where a thing lies, checked, as typed. Raises InputError."""
    place = lies_at(given.dict(), field)
    if place.how is How.SIDE and area and (plan := plan_of(area)):
        try:
            shape_of(place, outline_of(plan))
        except InputError as fault:
            raise fault.on(f"{field}.side") from None
    return given.dict()


def lies_at(given: Mapping[str, Any], field: str = "lies") -> Place:
    """Where a thing lies on the plan [m], and how large it is.

    Raises:
        InputError: a figure that is none, or a spot or a box without its size.
    """
    how = How(given["how"])
    if how is How.SIDE:
        return Place(how, side=given["side"])

    def metres(name: str, needed: bool = False) -> float:
        where = f"{field}.{name}"
        typed = given[name] if str(given[name]).strip() or needed else 0.0
        found = number_in(where, typed)
        return quantity(where, found, given["unit"], LENGTH).base if found or needed else 0.0

    return Place(how, metres("x"), metres("y"), metres("across", needed=True), metres("along", needed=how is How.BOX))


def place_hazards(area: Area, places: Sequence[LiesIn | None], version: int | None) -> None:
    """Put what lies near an area where it lies on its plan, one a hazard; None takes it off the plan.

    Raises:
        InputError: not as many places as hazards, or a place that is none.
    """
    if len(places) != len(area.hazards):
        raise InputError("places", len(places), f"{len(area.hazards)} things lie near.", "Give each its place, or none.")
    with claim(area, version):
        area.hazards = _placed(area, places)
        area.save()


def _placed(area: Area, places: Sequence[LiesIn | None]) -> list[dict[str, Any]]:
    return [
        h | {"lies": _lies(f"places.{i}", p, area) if p else None}
        for i, (h, p) in enumerate(zip(area.hazards, places, strict=True))
    ]


# --- measurements -----------------------------------------------------------------------------------------------


def add_measurement(area: Area, data: MeasurementIn, by: User) -> Measurement:
    """Keep a measurement of an area; with `use`, its size becomes the area's.

    Raises:
        InputError: the measurement is none, or lies ahead.
    """
    not_ahead(area, data.taken_on)
    found = measured(data)
    given = data.dict(exclude={"taken_on", "use"})
    with transaction.atomic():
        made = area.measurements.create(taken_on=data.taken_on, given=given, size_m2=found.size, by=str(by))
        if data.use:
            use_measurement(area, made)
        area.account.touch("ground")
    return made


def use_measurement(area: Area, chosen: Measurement) -> None:
    """Make a measurement's size the area's."""
    size = in_account_units(chosen.size_m2, area.account.us)
    with transaction.atomic():
        area.measurements.update(in_use=False)
        area.measurements.filter(pk=chosen.pk).update(in_use=True)
        area.size_value, area.size_unit = size.value, size.unit.key
        area.next_version()
        area.save()


def measurement_of(area: Area, pk: int) -> Measurement:
    """A measurement of an area. Raises Missing."""
    found = area.measurements.filter(pk=pk).first()
    if found is None:
        raise Missing("measurement")
    return found


def not_ahead(area: Area, on: date) -> None:
    """Raises InputError where a day has not come yet on an area's clock."""
    if on > today(area):
        raise InputError("taken_on", on, f"{on} has not come yet.", "Enter the day it was taken.")
