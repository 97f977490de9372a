"""What is read of water: audits, minutes for a depth, tasks."""

import math

from django.db.models import Q, QuerySet

from core.days import dated
from core.errors import InputError
from core.units import LENGTH, SPEED, VOLUME, positive, show_percent, unit
from core.water.cans import DRY, WET, Audit, Can, Heads, audit, depth_of, run_for, soak
from core.water.intake import intake_of, pond_of
from greenmeasure.accounts.models import Account
from greenmeasure.common.kept import kept
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import QuantityIn, filled, number_in, quantity_in, working_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of, areas, plan_in_use
from greenmeasure.water.models import Task, WaterAudit
from greenmeasure.water.schemas import AuditAskIn, AuditKeptOut, AuditOut, CanIn, CanOut, RunTimeOut, TaskOut, WaterOut
from greenmeasure.water.words import (
    audit_sentence,
    audit_steps,
    depth_text,
    minutes_text,
    not_audited,
    puts_down,
    rate_text,
    soil_text,
    takes,
)

# --- an audit as it is typed ------------------------------------------------------------------------------------


def cans_in(data: AuditAskIn) -> list[Can]:
    """The cans, depths in mm and places in m. Cans without a reading are passed over.

    Raises:
        InputError: a reading or a place that is no number, or volumes without the can's mouth.
    """
    found = unit(data.unit, "unit")
    mouth = None
    if found.dimension == VOLUME:
        given = filled(data.mouth)
        if given is None:
            raise InputError("mouth", None, "Volumes need the can's mouth.", "Measure across it, inside.")
        across = quantity_in("mouth", given, LENGTH).base
        mouth = math.pi / 4 * (across * 100) ** 2
    elif found.dimension != LENGTH:
        raise InputError("unit", data.unit, f"{found.symbol} measures no rain.", "Read depths in in or mm, volumes in mL.")
    place = unit(data.place_unit, "place_unit")
    return [_can(i, c, found.size, mouth, place.size) for i, c in enumerate(data.cans) if str(c.caught).strip()]


def _can(i: int, c: CanIn, size: float, mouth: float | None, place: float) -> Can:
    value = positive(f"cans.{i}", number_in(f"cans.{i}", c.caught), zero=True)
    depth = depth_of(value * size * 1000, mouth) if mouth else value * size * 1000
    if not str(c.x).strip() or not str(c.y).strip():
        return Can(depth)
    return Can(depth, (number_in(f"cans.{i}.x", c.x) * place, number_in(f"cans.{i}.y", c.y) * place))


def asked(account: Account, area_id: int, data: AuditAskIn) -> AuditOut:
    """What an audit comes to as it is typed. Raises InputError by field."""
    area = area_of(account, area_id)
    found = audit(cans_in(data), number_in("minutes", data.minutes), Heads(data.heads), wind_in(data))
    wanted = quantity_in("wanted", w, LENGTH).base * 1000 if (w := filled(data.wanted)) else None
    return audit_out(found, area, account.us, Heads(data.heads), wanted)


def wind_in(data: AuditAskIn) -> float | None:
    """The wind of an audit [m/s], None where it was not noted. Raises InputError."""
    return quantity_in("wind", w, SPEED).base if (w := filled(data.wind)) else None


def audit_out(found: Audit, area: Area, us: bool, heads: Heads, wanted: float | None = None) -> AuditOut:
    """An audit in words and numbers."""
    mean = found.rate * found.minutes / 60
    return AuditOut(
        sentence=audit_sentence(found, area.name, us),
        rate=rate_text(found.rate, us),
        low_quarter=show_percent(found.low_quarter),
        christiansen=show_percent(found.christiansen),
        share=found.low_quarter,
        reachable=heads.reachable,
        cans=[
            CanOut(
                number=i + 1,
                text=depth_text(c.depth, us),
                share=c.depth / mean,
                state="dry" if c.depth < DRY * mean else "wet" if c.depth > WET * mean else "even",
                x=c.at[0] if c.at else None,
                y=c.at[1] if c.at else None,
            )
            for i, c in enumerate(found.cans)
        ],
        notes=list(found.notes),
        run=run_out(found, area, wanted, us) if wanted else None,
        working=working_out(tuple(audit_steps(found, us))),
    )


def run_out(found: Audit, area: Area, wanted: float, us: bool) -> RunTimeOut:
    """Minutes for a depth [mm] on an area, split so that its soil can drink it."""
    run = run_for(found, wanted)
    split = soak(run.advised, found.rate, intake_of(area.texture), pond_of(None if area.slope is None else area.slope / 100))
    return RunTimeOut(
        depth=depth_text(wanted, us),
        by_mean=minutes_text(run.by_mean),
        advised=minutes_text(run.advised),
        by_quarter=minutes_text(run.by_quarter),
        soak=split.sentence,
        parts=split.parts,
    )


# --- what is kept -----------------------------------------------------------------------------------------------


@kept("water", "ground")
def audits(account: Account) -> dict[int, WaterAudit]:
    """The latest audit of each area, by the area's id."""
    found: dict[int, WaterAudit] = {}
    for a in (
        WaterAudit.objects.filter(seen_by(account, "area__site"), area__account=account, in_use=True)
        .select_related("area")
        .order_by("taken_on", "pk")
    ):
        found[a.area_id] = a
    return found


def audit_for(account: Account, area_id: int) -> WaterAudit | None:
    """The audit that an area is watered by: its own, its whole's, or that of an area of its zone."""
    every, ground = audits(account), areas(account)
    here: Area | None = area_of(account, area_id)
    while here:
        if here.pk in every:
            return every[here.pk]
        here = ground.get(here.parent_id) if here.parent_id else None
    area = area_of(account, area_id)
    zone = area.zone.strip().lower()
    return next(
        (a for a in every.values() if zone and a.area.site_id == area.site_id and a.area.zone.strip().lower() == zone), None
    )


def water(account: Account, area_id: int, wanted: QuantityIn | None = None) -> WaterOut:
    """An area's water, with the audit in force, and minutes for a wanted depth.

    Raises:
        InputError: a depth that is none.
    """
    depth = quantity_in("wanted", w, LENGTH).base * 1000 if (w := filled(wanted)) else None
    area = area_of(account, area_id)
    used = audit_for(account, area_id)
    own = WaterAudit.objects.filter(area=area)
    return WaterOut(
        area=area.name,
        zone=area.zone,
        plan=plan_in_use(area),
        current=audit_out(used.core(), used.area, account.us, Heads(used.heads), depth) if used else None,
        of=f"{used.area.name}, {dated(used.taken_on)}" if used else "",
        audits=[
            AuditKeptOut(
                id=a.pk,
                taken_on=a.taken_on,
                by=a.by,
                note=a.note,
                rate=rate_text(a.core().rate, account.us),
                low_quarter=show_percent(a.core().low_quarter),
                cans=len(a.cans),
                minutes=minutes_text(a.minutes),
                in_force=used is not None and used.pk == a.pk,
                in_use=a.in_use,
            )
            for a in own
        ],
        tasks=[task_out(t) for t in live_tasks().filter(area=area)],
        soil=soil_text(area.texture, account.us),
    )


def water_in_text(account: Account, area_id: int, depth: float | None, minutes: float | None) -> str:
    """What a label's watering-in comes to here: minutes for its depth [mm], or the depth of its minutes; empty if unknown."""
    if depth is None and minutes is None:
        return ""
    area, used = area_of(account, area_id), audit_for(account, area_id)
    if used is None:
        return not_audited(area.name)
    found = used.core()
    if depth is None:
        assert minutes is not None
        return puts_down(area.name, minutes, found.rate * minutes / 60, used.taken_on, account.us)
    return takes(area.name, run_out(found, area, depth, account.us), used.taken_on)


def live_tasks() -> QuerySet[Task]:
    """Tasks, less those of audits that were left out."""
    return Task.objects.filter(Q(audit=None) | Q(audit__in_use=True)).select_related("area")


def task_out(t: Task) -> TaskOut:
    """A task."""
    return TaskOut(
        id=t.pk, area_id=t.area_id, area=t.area.name, text=t.text, made_at=t.made_at, done_at=t.done_at, done_by=t.done_by
    )


def open_tasks(account: Account) -> list[TaskOut]:
    """What is still to be seen to, the oldest first."""
    return [
        task_out(t)
        for t in live_tasks().filter(seen_by(account, "area__site"), account=account, done_at=None, area__archived_at=None)
    ]
