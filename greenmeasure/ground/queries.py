"""What is read of ground."""

from collections import Counter

from core.areas.compare import difference
from core.areas.measure import METHODS, in_trade, parts_left
from core.days import dated
from core.errors import InputError
from core.grasses import GRASSES
from core.ground import HazardKind, Stress
from core.label.rules import Use
from core.readable import readable
from core.soil.ph import PhPlan, PhReading, plan_ph, spread_text
from core.soil.ph_tables import TABLE_DEPTH_SULFUR, TEXTURES
from core.soil.samples import KINDS, How
from core.units import LENGTH, UNITS, Quantity, exact_number, positive, show_number
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import OptionOut, filled, number_in, quantity_in, quantity_out, working_out
from greenmeasure.ground.measuring import measured, measured_out, methods_out, plan_of, plan_out
from greenmeasure.ground.models import Area, Measurement
from greenmeasure.ground.schemas import (
    AreaOut,
    AreaWholeOut,
    BlendOut,
    DatedStepOut,
    GrassOut,
    GroundOptionsOut,
    GroundOut,
    HazardOut,
    HeightOut,
    LiesOut,
    MeasuredOut,
    MeasureIn,
    MeasurementOut,
    PhPlanIn,
    PhPlanOut,
    PlanOut,
    SoilKindOut,
)
from greenmeasure.ground.soil import readings_out


def area_out(area: Area) -> AreaOut:
    """An area in words and numbers."""
    other = readable(area.size, us=area.size_unit in ("m2", "ha", "m2_100"))
    ground = area.ground
    latest = area.latest_ph
    return AreaOut(
        id=area.pk,
        version=area.version,
        name=area.name,
        site_id=area.site_id,
        site=area.site.name,
        size=quantity_out(area.size),
        m2=area.size.base,
        also=str(other),
        parent_id=area.parent_id,
        grass=area.grass,
        grass_name=area.sward.name,
        turf=area.sward.turf,
        blend=[BlendOut(grass=key, share=exact_number(share * 100)) for key, share in area.sward.blend],
        cultivar=area.cultivar,
        use=area.use,
        height=quantity_out(area.height) if area.height else None,
        texture=area.texture,
        texture_name=TEXTURES[area.texture].name if area.texture else "",
        shade=area.shade,
        slope="" if area.slope is None else exact_number(area.slope),
        zone=area.zone,
        sown_on=area.sown_on,
        overseed_on=area.overseed_on,
        stress=area.stress,
        stress_text=ground.stress.text,
        tested_p=area.tested_p,
        hazards=[
            HazardOut(
                kind=h["kind"],
                kind_text=HazardKind(h["kind"]).text,
                name=h["name"],
                buffer=quantity_out(Quantity(h["value"], UNITS[h["unit"]])) if h["value"] else None,
                lies=LiesOut(**h["lies"]) if h.get("lies") else None,
            )
            for h in area.hazards
        ],
        ph=f"pH {show_number(latest, 3)}" if latest is not None else "",
        note=area.note,
    )


def ground(account: Account) -> GroundOut:
    """The areas, site by site, parts after their parents, and the sum of those that are no part of another."""
    found = Area.objects.of(account).kept().select_related("site").prefetch_related("soil")
    every = sorted(found, key=lambda a: a.site_id)
    here = {a.pk for a in every}
    ordered: list[Area] = []

    def add(parent: int | None) -> None:
        for a in every:
            if (a.parent_id if a.parent_id in here else None) == parent:
                ordered.append(a)
                add(a.pk)

    add(None)
    total = Quantity(sum(a.size.base for a in every if a.parent_id not in here), UNITS["m2"])
    return GroundOut(areas=[area_out(a) for a in ordered], total=str(readable(total, account.us)) if every else "")


def whole(account: Account, area_id: int) -> AreaWholeOut:
    """One area with everything that was found out about it."""
    area = Area.objects.one(account, area_id)
    parts = list(area.parts.filter(archived_at=None))
    taken = list(area.measurements.all())
    rest = parts_left(area.size, [p.size for p in parts])[1] if parts else ""
    return AreaWholeOut(
        area=area_out(area),
        parent=area.parent.name if area.parent else "",
        plan=plan_in_use(area),
        parts=[area_out(p) for p in parts],
        rest=rest,
        measurements=[measurement_out(m, area) for m in taken],
        heights=[HeightOut(on=h.on, text=str(Quantity(h.value, UNITS[h.unit]))) for h in area.heights.all()],
        soil=readings_out(area),
    )


def plan_in_use(area: Area) -> PlanOut | None:
    """The plan of the measurement in use, to draw."""
    plan = plan_of(area)
    return plan_out(plan) if plan else None


def measurement_out(taken: Measurement, area: Area) -> MeasurementOut:
    """A kept measurement beside the size in use."""
    versus = difference(area.size.base, taken.size_m2)
    return MeasurementOut(
        id=taken.pk,
        taken_on=taken.taken_on,
        by=taken.by,
        method=METHODS[taken.given["method"]].name,
        size=str(in_trade(taken.size_m2, area.account.us)),
        in_use=taken.in_use,
        versus="" if taken.in_use else versus.sentence,
        agreement="" if taken.in_use else versus.agreement.value,
    )


def measure_out(account: Account, data: MeasureIn, area_id: int | None) -> MeasuredOut:
    """What a measurement comes to, and how it stands to the size in use. Raises as the core does."""
    found = measured(data)
    if not area_id:
        return measured_out(found, account.us)
    versus = difference(area_of(account, area_id).size.base, found.size)
    return measured_out(found, account.us, versus.sentence, versus.agreement.value)


@kept("ground")
def areas(account: Account) -> dict[int, Area]:
    """All areas of the account by their ids, those put away too."""
    found = list(Area.objects.of(account).select_related("site__account", "account").prefetch_related("soil"))
    names = Counter(a.name.casefold() for a in found if a.archived_at is None)
    for a in found:
        a.shares_name = names[a.name.casefold()] > 1
    return {a.pk: a for a in found}


def area_of(account: Account, area_id: int) -> Area:
    """An area of this account.

    Raises:
        Missing: no such area.
    """
    try:
        return areas(account)[area_id]
    except KeyError:
        raise Missing("area") from None


def site_name(account: Account, area: Area) -> str:
    """The name of an area's site, where there is more than one to tell apart; else empty."""
    return area.site.name if len(sites_of(account)) > 1 else ""


def wholes(account: Account, area_id: int) -> set[int]:
    """An area with all that it is part of: what goes down on them goes down on all of it."""
    every, found, above = areas(account), {area_id}, areas(account)[area_id].parent_id
    while above and above in every:
        found.add(above)
        above = every[above].parent_id
    return found


def kin(account: Account, area_id: int) -> set[int]:
    """An area with all that it is part of and all its parts: what goes down on one is on the ground of the others."""
    found = wholes(account, area_id)
    parts, grew = _parts(account), [area_id]
    while grew:
        grew = [child for pk in grew for child in parts.get(pk, ())]
        found.update(grew)
    return found


@kept("ground")
def _parts(account: Account) -> dict[int, list[int]]:
    """The parts of each area that has any."""
    found: dict[int, list[int]] = {}
    for a in areas(account).values():
        if a.parent_id:
            found.setdefault(a.parent_id, []).append(a.pk)
    return found


def options() -> GroundOptionsOut:
    """What an area's form offers to pick from."""
    return GroundOptionsOut(
        grasses=[GrassOut(key=g.key, name=g.name, botanical=g.botanical, turf=g.turf) for g in GRASSES.values()],
        uses=[OptionOut(key=u.value, text=u.value.capitalize()) for u in Use],
        textures=[OptionOut(key=t.key, text=t.name) for t in TEXTURES.values()],
        shades=[OptionOut(key=k, text=t) for k, t in (("none", "In the open"), ("part", "Part of the day"), ("full", "Shade"))],
        stresses=[OptionOut(key=s.value, text=s.text.capitalize()) for s in Stress],
        hazards=[OptionOut(key=h.value, text=h.text.capitalize()) for h in HazardKind],
        methods=methods_out(),
        soil_hows=[OptionOut(key=h.value, text=h.text.capitalize()) for h in How],
        soil_kinds=[SoilKindOut(key=k.key, text=k.name, units=list(k.units), extracted=k.extracted) for k in KINDS.values()],
    )


# --- pH ---------------------------------------------------------------------------------------------------------


def ph_plan(account: Account, area_id: int, data: PhPlanIn) -> PhPlanOut:
    """The pH plan of an area from its readings, in words. Raises as `core.soil.ph.plan_ph`."""
    return plan_ph_out(planned_ph(account, area_id, data), account.us)


def planned_ph(account: Account, area_id: int, data: PhPlanIn) -> PhPlan:
    """The pH plan of an area from its readings. Raises as `core.soil.ph.plan_ph`."""
    area = Area.objects.one(account, area_id)
    readings = [PhReading(r.spot, r.taken_on, r.ph) for r in area.soil.all()]
    depth = quantity_in("depth", given, LENGTH).base if (given := filled(data.depth)) else TABLE_DEPTH_SULFUR
    target = number_in("target", data.target) if data.target not in (None, "") else None
    return plan_ph(
        readings,
        texture=data.texture or area.texture,
        sward=area.sward,
        ground=area.size,
        green=area.use == "green",
        start=data.start,
        depth=depth,
        purity=_percent("purity", data.purity),
        lime_value=_percent("lime_value", data.lime_value),
        free_lime=data.free_lime,
        target=target,
        house=area.site.house_rules,
    )


def _percent(field: str, given: float | str) -> float:
    value = positive(field, number_in(field, given), most=110, symbol="%")
    if value < 1:
        raise InputError(field, given, f"{given} % would be next to nothing.", "Write 90 for ninety percent.")
    return value / 100


def plan_ph_out(found: PhPlan, us: bool) -> PhPlanOut:
    """A pH plan in words and numbers."""
    return PhPlanOut(
        sentence=found.sentence,
        verdict=found.verdict,
        ph=found.ph,
        low=found.wanted[0],
        high=found.wanted[1],
        target=found.target,
        spread=show_number(found.spread, 2),
        material=found.material,
        need=spread_text(found.need, us) if found.need else "",
        once=spread_text(found.caps.once, us) if found.caps else "",
        a_year=spread_text(found.caps.year, us) if found.caps else "",
        steps=[
            DatedStepOut(
                on=s.on,
                day=dated(s.on),
                year=s.year,
                per_area=spread_text(s.per_m2, us),
                amount=str(s.amount),
                share=s.per_m2 / found.need,
            )
            for s in found.steps
        ],
        notes=list(found.notes),
        working=working_out(found.working),
    )
