"""Mix sheets: made of a reckoned job at the start of a round, and shown as the screens and the paper have them."""

from core.cautions import LABEL_FIRST
from core.findings import Finding
from core.job import Pour
from core.job.sheet import (
    Amount,
    Sheet,
    SheetAct,
    SheetComponent,
    SheetDose,
    SheetLoad,
    SheetMeasure,
    SheetPart,
    SheetPour,
    SheetText,
)
from core.readable import handy, readable
from core.units import Quantity
from greenmeasure.common.schemas import FactOut
from greenmeasure.reckon.outs import Reckoned, in_tank, job_out
from greenmeasure.reckon.schemas import (
    ActOut,
    CautionOut,
    DoseOut,
    JobOut,
    LoadOut,
    MeasureOut,
    PourOut,
    RuleTextOut,
    VesselOut,
    WearOut,
)
from greenmeasure.reckon.words import headline
from greenmeasure.rounds.schemas import SheetComponentOut, SheetFindingOut, SheetOut


def sheet_of(found: Reckoned) -> Sheet:
    """The sheet of a job that is about to begin."""
    shown, job = job_out(found), found.job
    return Sheet(
        headline=headline(job, spots=found.spots),
        mix=tuple(
            SheetComponent(
                x.product, x.role, x.target, _amount(plan.amount and handy(plan.amount)), x.cost.total if x.cost else ""
            )
            for x, plan in zip(shown.mix, job.mix, strict=True)
        ),
        where=shown.where,
        machine=shown.machine,
        passes=job.passes,
        capacity=shown.capacity,
        spray=_amount(readable(job.spray, job.us) if job.spray else None),
        cost=shown.cost.total if shown.cost else "",
        parts=tuple(
            SheetPart(p.name, _amount(planned.part.area), tuple(_dose(d) for d in p.doses), p.setting)
            for p, planned in zip(shown.parts, job.parts, strict=True)
        ),
        vessel=shown.vessel,
        setup=tuple(SheetText(f.name, f.text) for f in shown.setup),
        loads=tuple(_load(x, found, i) for i, x in enumerate(shown.loads)),
        wear=tuple(SheetText(w.key, w.text, w.when) for w in shown.wear),
        cautions=tuple(SheetText(c.key, c.text) for c in shown.cautions),
        rules=tuple(SheetText(r.key, r.text, part=r.product) for r in shown.label_rules),
        findings=_findings(found, shown),
        label_first=LABEL_FIRST,
    )


def _amount(given: Quantity | None) -> Amount:
    return Amount() if given is None else Amount(given.value, given.unit.key)


def _dose(shown: DoseOut | None) -> SheetDose:
    return SheetDose(shown.rate.text, shown.label) if shown else SheetDose()


def _load(shown: LoadOut, found: Reckoned, i: int) -> SheetLoad:
    plan, machine = found.job.loads[i], found.job.machine
    assert machine
    return SheetLoad(
        number=shown.number,
        name=shown.name,
        pass_number=shown.pass_number,
        odd=shown.odd,
        where=shown.where,
        parts=tuple(j for j, p in enumerate(found.job.parts) if p.part in plan.parts),
        pours=tuple(_pour(x, p) for x, p in zip(shown.pours, plan.pours, strict=True)),
        volume=_amount(in_tank(plan.load.volume, machine)),
        water=_amount(in_tank(plan.water, machine)),
        covers=shown.covers,
        dial=shown.dial,
        spray=shown.spray,
        time=shown.time,
        share=shown.share,
        acts=tuple(SheetAct(a.key, a.text, a.pours, a.level) for a in shown.acts),
    )


def _pour(shown: PourOut, pour: Pour) -> SheetPour:
    measure = SheetMeasure(**shown.measure.model_dump()) if shown.measure else SheetMeasure()
    return SheetPour(shown.product, _amount(pour.amount), measure)


def _findings(found: Reckoned, shown: JobOut) -> tuple[SheetText, ...]:
    def said(f: Finding, part: str) -> SheetText:
        return SheetText(f.key, f.sentence, act=f.act.text, part=part)

    parts = zip(shown.parts, found.checks, strict=True)
    of_parts = (said(f, p.name) for p, every in parts for checked in every if checked for f in checked.findings)
    return tuple(dict.fromkeys((*(said(f, "") for f in found.machine_says), *of_parts)))


# --- shown ------------------------------------------------------------------------------------------------------


def sheet_out(sheet: Sheet) -> SheetOut:
    """A sheet as it is shown."""
    several = len(sheet.parts) > 1
    return SheetOut(
        headline=sheet.headline or f"{sheet.product or 'A round'} {f'for {sheet.where}' if sheet.where else ''}".strip(),
        product=sheet.product,
        mix=[
            SheetComponentOut(product=c.product, role=c.role, target=c.target, amount=str(c.amount), cost=c.cost)
            for c in sheet.mix
        ],
        where=sheet.where,
        machine=sheet.machine,
        passes=sheet.passes,
        capacity=sheet.capacity,
        spray=str(sheet.spray),
        vessel=sheet.vessel or ("tank" if sheet.spray.quantity else ""),
        setup=[FactOut(name=s.key, text=s.text) for s in sheet.setup],
        cost=sheet.cost,
        loads=[_load_out(x) for x in sheet.loads],
        wear=[WearOut(key=w.key, when="mixing" if w.when == "mixing" else "applying", text=w.text) for w in sheet.wear],
        cautions=[CautionOut(key=c.key, text=c.text) for c in sheet.cautions],
        label_rules=[RuleTextOut(key=r.key, text=r.text, product=r.part) for r in sheet.rules],
        findings=[
            SheetFindingOut(key=f.key, act=f.act, sentence=f"{f.part}: {f.text}" if several and f.part else f.text)
            for f in sheet.findings
        ],
        label_first=sheet.label_first or LABEL_FIRST,
        problem=sheet.problem,
    )


def _load_out(x: SheetLoad) -> LoadOut:
    return LoadOut(
        number=x.number,
        name=x.name or f"Load {x.number}",
        pass_number=x.pass_number,
        odd=x.odd,
        where=x.where,
        pours=[_pour_out(p) for p in x.pours],
        volume=str(x.volume),
        water=str(x.water),
        covers=x.covers,
        dial=x.dial,
        spray=x.spray,
        time=x.time,
        share=x.share,
        acts=[ActOut(key=a.key, text=a.text, pours=a.pours, level=a.level) for a in x.acts],
    )


def _pour_out(p: SheetPour) -> PourOut:
    """What goes into a load of a sheet; to taste where it has no amount."""
    return PourOut(
        product=p.product, amount=str(p.amount) or "to taste", measure=_measure_out(p.measure) if p.measure.instruction else None
    )


NO_VESSEL = VesselOut(key="", name="", shape="jug", unit="", capacity=1.0, graduation=1.0, marks=[])


def _measure_out(m: SheetMeasure) -> MeasureOut:
    known = {"key", "name", "shape", "unit", "capacity", "graduation", "marks"}
    vessel = VesselOut(**m.vessel) if m.vessel and known <= set(m.vessel) else NO_VESSEL
    return MeasureOut(
        vessel=vessel,
        fills=m.fills,
        mark=m.mark,
        mark_text=m.mark_text,
        instruction=m.instruction,
        exact=m.exact,
        rounding=m.rounding,
        reading=m.reading,
        coarse=m.coarse,
        note=m.note,
    )
