"""Soil samples: kept, taken out, and held against the last of their spot."""

from core.days import dated
from core.errors import InputError
from core.soil.ph import check_ph
from core.soil.samples import Figure, How, changes, doubts, figure, last_before
from core.units import LENGTH, exact_number, show_number
from greenmeasure.accounts.models import User
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.schemas import filled, number_in, quantity_in
from greenmeasure.ground.actions import not_ahead
from greenmeasure.ground.models import Area, SoilReading
from greenmeasure.ground.schemas import SoilFigureIn, SoilFigureOut, SoilReadingIn, SoilReadingOut

DEEPEST = 1.0
"""A sample's depth [m] (ours): turf roots no deeper."""


def add_reading(area: Area, data: SoilReadingIn, by: User | None = None) -> SoilReading:
    """Keep a soil sample.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    faults.of(not_ahead, area, data.taken_on)
    fixed = area.spots.filter(pk=data.spot_id, archived_at=None).first() if data.spot_id else None
    if data.spot_id and fixed is None:
        faults.add("spot_id", data.spot_id, "There is no such spot on this area.", "Pick one of the list.")
    elif not fixed and not data.spot.strip():
        faults.add("spot", data.spot, "The spot has no name.", "Name it, so that the next sample is taken there too.")
    ph = faults.of(lambda: check_ph(number_in("ph", data.ph)))
    depth = faults.of(quantity_in, "depth", given, LENGTH) if (given := filled(data.depth)) else None
    if depth and depth.base > DEEPEST:
        faults.add("depth", str(depth), f"{depth} is deeper than turf roots.", "Check the number and its unit.")
    how = faults.of(_how, data.how)
    told = [f for i, given in enumerate(data.figures) if (f := faults.of(_figure, i, given))]
    twice = next((f for i, f in enumerate(told) if f.kind in [x.kind for x in told[:i]]), None)
    if twice:
        faults.add("figures", twice.kind.name, f"{twice.kind.name} stands there twice.", "Leave one of them out.")
    faults.raise_any()
    assert ph is not None
    made = area.soil.create(
        taken_on=data.taken_on,
        spot=fixed.name if fixed else data.spot,
        fixed=fixed,
        ph=ph,
        depth_value=depth.value if depth else None,
        depth_unit=depth.unit.key if depth else "",
        how=how or "",
        lab=data.lab,
        number=data.number,
        figures=[{"kind": f.kind.key, "value": f.value, "unit": f.unit, "method": f.method} for f in told],
        values=data.values,
        by=str(by or ""),
    )
    area.account.touch("ground")
    return made


def _how(given: str) -> str:
    if not given:
        return ""
    try:
        return How(given).value
    except ValueError:
        raise InputError("how", given, f"“{given}” is no way to read a sample.", f"Use one of: {', '.join(How)}.") from None


def _figure(place: int, given: SoilFigureIn) -> Figure:
    at = f"figures.{place}"
    return figure(given.kind, number_in(f"{at}.value", given.value), given.unit, given.method, at)


def remove_reading(area: Area, pk: int) -> None:
    """Take a sample out.

    Raises:
        Missing: there is no such one.
    """
    found = area.soil.filter(pk=pk).first()
    if found is None:
        raise Missing("sample")
    found.delete()
    area.account.touch("ground")


def readings_out(area: Area) -> list[SoilReadingOut]:
    """An area's samples, the latest first, each beside the last of its spot."""
    every = list(area.soil.all())
    return [_reading_out(r, [o for o in every if _one_spot(r, o)]) for r in every]


def _one_spot(a: SoilReading, b: SoilReading) -> bool:
    """Whether two samples are of one spot: the same fixed one, or one of the same name."""
    if a.fixed_id and b.fixed_id:
        return a.fixed_id == b.fixed_id
    return a.spot.casefold() == b.spot.casefold()


def _reading_out(r: SoilReading, of_its_spot: list[SoilReading]) -> SoilReadingOut:
    now = r.sample
    before = last_before(now, [o.sample for o in of_its_spot])
    deep = r.depth
    return SoilReadingOut(
        id=r.pk,
        taken_on=r.taken_on,
        day=dated(r.taken_on),
        spot=r.spot,
        spot_id=r.fixed_id,
        ph=show_number(r.ph, 3),
        depth=str(deep or ""),
        how=r.how,
        lab=r.lab,
        number=r.number,
        figures=[
            SoilFigureOut(kind=f.kind.key, value=exact_number(f.value), unit=f.unit, method=f.method, text=str(f)) for f in r.told
        ],
        values=r.values,
        from_text=_from(r),
        since=f"{'; '.join(c.text for c in changes(now, before))} since {dated(before.on)}" if before else "",
        doubts=doubts(now, before) if before else [],
    )


def _from(r: SoilReading) -> str:
    """Where a sample's numbers are from."""
    lab = f"{r.lab}, no. {r.number}" if r.lab and r.number else r.lab or (f"no. {r.number}" if r.number else "")
    how = r.way.text.capitalize() if r.way and not (r.lab and r.way is How.LAB) else ""
    return ", ".join(x for x in (how, lab) if x)
