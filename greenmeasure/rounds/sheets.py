"""Mix sheets: made of a reckoned job at the start of a round, and shown as the screens and the paper have them."""

from core.cautions import LABEL_FIRST
from core.findings import Finding
from core.job.sheet import Amount, Sheet, SheetAct, SheetLoad, SheetMeasure, SheetPart, SheetText
from core.readable import handy, readable
from core.units import Quantity
from greenmeasure.reckon.outs import Reckoned, headline, in_tank, job_out
from greenmeasure.reckon.schemas import ActOut, CautionOut, JobOut, LoadOut, MeasureOut, RuleTextOut, VesselOut, WearOut
from greenmeasure.rounds.schemas import SheetFindingOut, SheetOut


def sheet_of(found: Reckoned) -> Sheet:
    """The sheet of a job that is about to begin."""
    shown, job = job_out(found), found.job
    return Sheet(
        headline=headline(job),
        product=shown.product,
        where=shown.where,
        target=shown.target,
        machine=shown.machine,
        passes=job.passes,
        capacity=shown.capacity,
        amount=_amount(handy(job.amount)),
        spray=_amount(readable(job.spray, job.us) if job.spray else None),
        cost=shown.cost.total if shown.cost else "",
        parts=tuple(
            SheetPart(p.name, _amount(planned.part.area), p.rate.text, p.label, p.setting)
            for p, planned in zip(shown.parts, job.parts, strict=True)
        ),
        loads=tuple(_load(x, found, i) for i, x in enumerate(shown.loads)),
        wear=tuple(SheetText(w.key, w.text, w.when) for w in shown.wear),
        cautions=tuple(SheetText(c.key, c.text) for c in shown.cautions),
        rules=tuple(SheetText(r.key, r.text) for r in shown.label_rules),
        findings=_findings(found, shown),
        label_first=LABEL_FIRST,
    )


def _amount(given: Quantity | None) -> Amount:
    return Amount() if given is None else Amount(given.value, given.unit.key)


def _load(shown: LoadOut, found: Reckoned, i: int) -> SheetLoad:
    plan, machine = found.job.loads[i], found.job.machine
    assert machine
    return SheetLoad(
        number=shown.number,
        name=shown.name,
        pass_number=shown.pass_number,
        odd=shown.odd,
        where=shown.where,
        product=_amount(plan.product),
        volume=_amount(in_tank(plan.load.volume, machine)),
        water=_amount(in_tank(plan.load.water, machine)),
        covers=shown.covers,
        share=shown.share,
        measure=SheetMeasure(**shown.measure.model_dump()),
        acts=tuple(SheetAct(a.key, a.text, a.pours, a.level) for a in shown.acts),
    )


def _findings(found: Reckoned, shown: JobOut) -> tuple[SheetText, ...]:
    def said(f: Finding, part: str) -> SheetText:
        return SheetText(f.key, f.sentence, act=f.act.text, part=part)

    parts = zip(shown.parts, found.checks, strict=True)
    return (*(said(f, "") for f in found.machine_says), *(said(f, p.name) for p, checked in parts for f in checked.findings))


# --- shown ------------------------------------------------------------------------------------------------------


def sheet_out(sheet: Sheet) -> SheetOut:
    """A sheet as it is shown."""
    several = len(sheet.parts) > 1
    return SheetOut(
        headline=sheet.headline or f"{sheet.product or 'A round'} {f'for {sheet.where}' if sheet.where else ''}".strip(),
        product=sheet.product,
        where=sheet.where,
        target=sheet.target,
        machine=sheet.machine,
        passes=sheet.passes,
        capacity=sheet.capacity,
        amount=str(sheet.amount),
        spray=str(sheet.spray),
        cost=sheet.cost,
        loads=[_load_out(x) for x in sheet.loads],
        wear=[WearOut(key=w.key, when="mixing" if w.when == "mixing" else "applying", text=w.text) for w in sheet.wear],
        cautions=[CautionOut(key=c.key, text=c.text) for c in sheet.cautions],
        label_rules=[RuleTextOut(key=r.key, text=r.text) for r in sheet.rules],
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
        product=str(x.product),
        volume=str(x.volume),
        water=str(x.water),
        covers=x.covers,
        share=x.share,
        measure=_measure_out(x.measure),
        acts=[ActOut(key=a.key, text=a.text, pours=a.pours, level=a.level) for a in x.acts],
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
