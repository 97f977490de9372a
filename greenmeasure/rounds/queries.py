"""What is read of rounds."""

from collections.abc import Sequence
from typing import cast

from core.days import clock as at_clock
from core.errors import InputError
from core.job.sheet import Sheet, SheetPart
from core.label.rate import show_label_rate
from core.machines.standing import DRIFTED
from core.readable import handy, joined, readable
from greenmeasure.accounts.models import Account
from greenmeasure.book.words import target_name
from greenmeasure.common import clock
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import quantity_out, rule_out
from greenmeasure.ground.queries import areas
from greenmeasure.rounds.actions import ticked
from greenmeasure.rounds.actual import Actual, ActualDose, Partly
from greenmeasure.rounds.falls import falls_of, left_out
from greenmeasure.rounds.left import left_of
from greenmeasure.rounds.models import Poured, Round, RoundComponent, RoundPart
from greenmeasure.rounds.pouring import Held, judged, poured_in_all
from greenmeasure.rounds.schemas import (
    ActualDoseOut,
    ActualOut,
    ActualPartOut,
    KeptPourOut,
    OutingOut,
    PartlyOut,
    PouredOut,
    RoundComponentOut,
    RoundDoseOut,
    RoundLineOut,
    RoundOut,
    RoundPartOut,
    SpotsOut,
    StatusName,
    TaughtOut,
    TickOut,
)
from greenmeasure.rounds.sheets import sheet_out
from greenmeasure.rounds.words import against_plan, left_sentence, left_text, life_sentence, next_act, partly_sentence


def round_out(found: Round) -> RoundOut:
    """A round with its sheet and its ticks."""
    jobs = list(found.in_outings.prefetch_related("stops"))
    gone = left_out(jobs)
    ticks, sheet = list(found.ticks.select_related("by")), found.read_sheet()
    done = {(t.load, t.act) for t in ticks}
    poured = list(found.poured.select_related("by", "component__product"))
    spray = readable(found.spray, found.account.us) if found.spray else None
    return RoundOut(
        id=found.pk,
        status=cast(StatusName, found.status),
        site_id=found.parts.all()[0].area.site_id,
        mix=[_component_out(c, poured, len(sheet.loads)) for c in found.mix.all()],
        sheet=sheet_out(sheet),
        ticks=[TickOut(load=t.load, act=t.act, by=str(t.by), at=t.at) for t in ticks],
        poured=[_kept_pour(found, sheet, p) for p in poured],
        falls=falls_of(found, sheet, done, gone) if found.status == "under_way" else [],
        loads_done=sheet.loads_done(done),
        worn=sheet.worn(done),
        next=next_act(found, sheet, done, left_of(found) if found.spots else None, clock.now()),
        parts=[part_out(p, sheet, gone.get(p.area_id, "")) for p in found.parts.all()],
        planned_spray=quantity_out(spray) if spray else None,
        started_by=str(found.started_by),
        started_at=found.started_at,
        at=found.at,
        at_text=at_clock(found.at, found.parts.all()[0].area.site.zone),
        looked=found.looked,
        spots=_spots_out(found) if found.spots else None,
        application_ids=list(found.applications.order_by("pk").values_list("pk", flat=True)),
        outing_id=jobs[0].outing_id if jobs else None,
    )


def _spots_out(found: Round) -> SpotsOut:
    """The outings of a round to spots, the first first, and what is left of its mix."""
    left, zone = left_of(found), found.parts.all()[0].area.site.zone
    done = list(found.applications.filter(struck_at=None).order_by("finished_at", "pk"))
    return SpotsOut(
        outings=[
            OutingOut(
                application_id=a.pk,
                at_text=at_clock(a.finished_at, zone),
                area=a.area_name,
                treated=str(a.treated),
                spray=str(a.spray or ""),
                by=a.by_name,
            )
            for a in done
        ],
        left=quantity_out(left.amount),
        used_up=left.used_up,
        sentence=left_sentence(left, found.get_emptied_display() if found.emptied else ""),
        life="" if found.emptied or left.used_up else life_sentence(left, zone, clock.now()),
        stale=not found.emptied and left.stale(clock.now()),
        emptied=found.emptied,
    )


def poured_out(held: Held) -> PouredOut:
    """What a measured amount makes of the rate, in words."""
    here, label = held.poured, held.dose.label
    binds = held.dose.component.product.core().label_binds
    return PouredOut(
        rate=str(here.rate),
        judgement=judgement_out(here.judgement),
        rule=rule_out(label, here.rate.to(label.highest.unit).value, binds),
        sentence=here.sentence,
        slip=here.slip,
        off=here.off,
        stops=here.stops,
    )


def _kept_pour(found: Round, sheet: Sheet, kept: Poured) -> KeptPourOut:
    try:
        told = poured_out(judged(found, sheet, kept.load, kept.component, kept.amount))
    except InputError:
        told = None
    return KeptPourOut(
        load=kept.load, place=kept.component.position, amount=quantity_out(kept.amount), by=str(kept.by), at=kept.at, found=told
    )


def _component_out(c: RoundComponent, poured: Sequence[Poured], loads: int) -> RoundComponentOut:
    whole = poured_in_all(c, poured, loads)
    return RoundComponentOut(
        product_id=c.product_id,
        product=c.product.name,
        target=target_name(c.target),
        planned=quantity_out(handy(c.amount)) if c.amount else None,
        poured=quantity_out(whole) if whole else None,
    )


def part_out(part: RoundPart, sheet: Sheet, skipped: str = "") -> RoundPartOut:
    """One ground of a round as it was planned; a sheet that lacks it sets no spreader."""
    shown = sheet.parts[part.position] if part.position < len(sheet.parts) else SheetPart()
    area = areas(part.round.account).get(part.area_id, part.area)
    return RoundPartOut(
        name=f"{area.called}, {part.zone}" if part.zone else area.called,
        skipped=skipped,
        treated=quantity_out(part.treated),
        doses=[
            RoundDoseOut(product=str(d.component), use=d.use, rate=str(d.rate), label=show_label_rate(d.label))
            for d in part.doses.all()
        ],
        setting=shown.setting,
    )


def rounds(account: Account, status: str | None = None) -> list[RoundLineOut]:
    """The latest rounds, of one status or all."""
    found = Round.objects.of(account).select_related("started_by").prefetch_related("ticks", "mix__product")
    if status:
        found = found.filter(status=status)
    return [_line_out(r) for r in found[:50]]


def _line_out(found: Round) -> RoundLineOut:
    sheet = found.read_sheet()
    product, where = sheet.product or joined([str(c) for c in found.mix.all()]), sheet.where
    return RoundLineOut(
        id=found.pk,
        status=cast(StatusName, found.status),
        title=f"{product} on {where}" if where else product,
        headline=sheet.problem or sheet.headline,
        loads=len(sheet.loads),
        loads_done=sheet.loads_done(ticked(found)),
        left=_left_out(found),
        started_by=str(found.started_by),
        started_at=found.started_at,
    )


def _left_out(found: Round) -> str:
    """What is left of a mix for spots that is under way; nothing of any other round."""
    if not found.spots or found.status != Round.Status.UNDER_WAY:
        return ""
    return left_text(left_of(found), clock.now())


def actual_out(found: Round, actual: Actual) -> ActualOut:
    """What really went down, judged, and what it tells of the machine."""
    told = actual.taught
    taught = None
    if told:
        far = told.off is not None and abs(told.off) > DRIFTED
        taught = TaughtOut(sentence=told.sentence, sprayer=told.setting is None, far=far)
    return ActualOut(
        parts=[ActualPartOut(name=str(p.part), doses=[_actual_dose(d) for d in p.doses]) for p in actual.parts],
        taught=taught,
        partly=_partly_out(found, actual.partly) if actual.partly else None,
    )


def _partly_out(found: Round, partly: Partly) -> PartlyOut:
    down = [q and handy(q) for q in partly.went_down]
    us = found.account.us
    said = partly_sentence(readable(partly.sprayed, us), readable(partly.planned, us), [str(q) for q in down if q])
    return PartlyOut(sentence=said, used=[quantity_out(q) if q else None for q in down])


def _actual_dose(actual: ActualDose) -> ActualDoseOut:
    dose, product = actual.dose, actual.dose.component.product
    here = actual.rate.to(dose.label.highest.unit).value
    return ActualDoseOut(
        product=product.name,
        used=str(actual.used),
        rate=str(actual.rate),
        judgement=judgement_out(actual.judgement),
        against_plan=against_plan(actual.rate, dose.rate),
        rule=rule_out(dose.label, here, product.core().label_binds),
    )
