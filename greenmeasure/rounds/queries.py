"""What is read of rounds."""

from typing import cast

from core.days import clock
from core.job.sheet import Sheet, SheetPart
from core.label.rate import show_label_rate
from core.machines.standing import DRIFTED
from core.readable import handy, joined, readable
from greenmeasure.accounts.models import Account
from greenmeasure.book.words import target_name
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import quantity_out, rule_out
from greenmeasure.rounds.actions import ticked
from greenmeasure.rounds.actual import Actual, ActualDose
from greenmeasure.rounds.models import Round, RoundComponent, RoundPart
from greenmeasure.rounds.schemas import (
    ActualDoseOut,
    ActualOut,
    ActualPartOut,
    RoundComponentOut,
    RoundDoseOut,
    RoundLineOut,
    RoundOut,
    RoundPartOut,
    StatusName,
    TaughtOut,
    TickOut,
)
from greenmeasure.rounds.sheets import sheet_out
from greenmeasure.rounds.words import against_plan, next_act


def round_out(found: Round) -> RoundOut:
    """A round with its sheet and its ticks."""
    ticks, sheet = list(found.ticks.select_related("by")), found.read_sheet()
    done = {(t.load, t.act) for t in ticks}
    spray = readable(found.spray, found.account.us) if found.spray else None
    return RoundOut(
        id=found.pk,
        status=cast(StatusName, found.status),
        site_id=found.parts.all()[0].area.site_id,
        mix=[_component_out(c) for c in found.mix.all()],
        sheet=sheet_out(sheet),
        ticks=[TickOut(load=t.load, act=t.act, by=str(t.by), at=t.at) for t in ticks],
        loads_done=sheet.loads_done(done),
        worn=sheet.worn(done),
        next=next_act(found, sheet, done),
        parts=[part_out(p, sheet) for p in found.parts.all()],
        planned_spray=quantity_out(spray) if spray else None,
        started_by=str(found.started_by),
        started_at=found.started_at,
        at=found.at,
        at_text=clock(found.at, found.parts.all()[0].area.site.zone),
        looked=found.looked,
        application_ids=list(found.applications.order_by("pk").values_list("pk", flat=True)),
    )


def _component_out(c: RoundComponent) -> RoundComponentOut:
    return RoundComponentOut(
        product_id=c.product_id,
        product=c.product.name,
        target=target_name(c.target),
        planned=quantity_out(handy(c.amount)) if c.amount else None,
    )


def part_out(part: RoundPart, sheet: Sheet) -> RoundPartOut:
    """One ground of a round as it was planned; a sheet that lacks it sets no spreader."""
    shown = sheet.parts[part.position] if part.position < len(sheet.parts) else SheetPart()
    return RoundPartOut(
        name=str(part),
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
        started_by=str(found.started_by),
        started_at=found.started_at,
    )


def actual_out(found: Round, actual: Actual) -> ActualOut:
    """What really went down, judged, and what it tells of the machine."""
    told = actual.taught
    taught = None
    if told:
        far = told.off is not None and abs(told.off) > DRIFTED
        taught = TaughtOut(sentence=told.sentence, sprayer=told.setting is None, far=far)
    return ActualOut(
        parts=[ActualPartOut(name=str(p.part), doses=[_actual_dose(d) for d in p.doses]) for p in actual.parts], taught=taught
    )


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
