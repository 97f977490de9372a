"""Reckoning for a club: its products, ground and machines into the core, the core's job out."""

from dataclasses import replace
from functools import lru_cache

from core.cautions import LABEL_FIRST, cautions, worn_for_applying, worn_for_mixing
from core.errors import InputError
from core.job import Ground, Job, LoadPlan, MachineKind, readable, reckon
from core.rates.dose import Dose
from core.rates.limits import Judgement, Stand
from core.rates.product import FORMULATIONS, Product
from core.rates.rate import LabelRate, show_label_rate
from core.reckon.answer import convert_line, one_rate, reach, unnamed
from core.reckon.grammar import ConversionAsked, DoseAsked, Names, ReachAsked, read_line
from core.tank.vessels import Measure, Vessel, marks_of
from core.units import UNITS, VOLUME, Quantity, show_percent
from greenmeasure.accounts.models import Club
from greenmeasure.common.schemas import QuantityIn, quantity_out, rate_in, rate_out, rule_out, working_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of, areas
from greenmeasure.kit.models import Machine as MachineRow
from greenmeasure.kit.queries import machine_of, machines
from greenmeasure.reckon.schemas import (
    ActOut,
    CautionOut,
    CostOut,
    DeliveredOut,
    JobIn,
    JobOut,
    JudgementOut,
    LineOut,
    LoadOut,
    MeasureOut,
    VesselOut,
    WearOut,
)
from greenmeasure.shelf.models import Product as ProductRow
from greenmeasure.shelf.queries import card_of, cards, row_of


def job_of(club: Club, data: JobIn) -> Job:
    """Reckon a job of the club's.

    Raises:
        InputError: anything missing or absurd, named by its field.
        Missing: a product, area or machine that the club does not have.
    """
    row = row_of(club, data.product_id, data.row_id)
    area = area_of(club, data.area_id)
    machine = machine_of(club, data.machine_id).core() if data.machine_id else None
    return reckon(
        card_of(club, data.product_id).core, row.label(), rate_in("rate", data.rate), area.ground, machine,
        passes=data.passes, even=data.even, us=club.us,
    )  # fmt: skip


def job_out(job: Job) -> JobOut:
    us = job.us
    foot = f"{job.foot.unit.symbol}"
    return JobOut(
        headline=headline(job),
        product=job.product.name,
        product_kind=job.product.kind.text,
        area=job.ground.name,
        area_size=str(job.ground.size),
        machine=job.machine.name if job.machine else "",
        passes=job.passes,
        rate=rate_out(job.rate),
        label=show_label_rate(job.label),
        rule=rule_out(job.label, job.rate.to(job.label.highest.unit).value, job.product.kind.label_binds),
        judgement=judgement_out(job.judgement),
        amount=quantity_out(job.dose.amount),
        also=also(job.dose, us),
        spray=str(readable(job.spray, us)) if job.spray else "",
        capacity=str(job.machine.capacity) if job.machine else "",
        loads=[load_out(p, job) for p in job.loads],
        whole=measure_out(job.whole, job.dose.amount),
        rounding=show_percent(job.rounding, sign=True),
        measured_rate=str(job.measured_rate),
        delivered=[
            DeliveredOut(
                name=d.content.name,
                total=str(readable(Quantity(d.grams, UNITS["g"]), us)),
                per_foot=f"{_per_foot(d.g_per_m2, us)}/{foot}",
            )
            for d in job.dose.delivered
        ],
        cost=cost_out(job),
        cost_why_not=cost_why_not(job.product),
        warnings=list(job.warnings),
        label_first=LABEL_FIRST,
        cautions=[CautionOut(key=c.key, text=c.text) for c in cautions(job.product)],
        wear=[
            *(WearOut(key=f"mixing-{i}", when="mixing", text=t) for i, t in enumerate(worn_for_mixing(job.product))),
            *(WearOut(key=f"applying-{i}", when="applying", text=t) for i, t in enumerate(worn_for_applying(job.product))),
        ],
        working=working_out(job.working),
    )


def headline(job: Job) -> str:
    """The job in one sentence, the way one would say it at the bench."""
    act = "Pour" if job.product.liquid else "Weigh out"
    amount = f"{act} {job.dose.amount} of {job.product.name} for {job.ground.name}"
    count = len(job.loads)
    if not job.machine:
        return f"{amount}."
    if job.machine.kind is MachineKind.SPREADER:
        fills = "one hopper fill" if count == 1 else f"{count} hopper fills"
        passes = f", {job.passes} passes" if job.passes > 1 else ""
        return f"{amount}: {fills}{passes}."
    spray = readable(job.spray, job.us) if job.spray else ""
    tanks = f"one tank of {spray}" if count == 1 else f"{count} tanks, {spray} in all"
    return f"{amount}: {tanks}."


def also(dose: Dose, us: bool) -> list[str]:
    """The dose as others would say it: in the other system, and liquids by weight where the density is known."""
    amount = dose.amount
    found = [readable(amount, us), readable(amount, not us)]
    if dose.grams is not None and amount.unit.dimension == VOLUME:
        found.append(readable(Quantity(dose.grams, UNITS["g"]), us))
    texts = [str(q) for q in found if q.unit is not amount.unit]
    return list(dict.fromkeys(texts))


def _per_foot(g_per_m2: float, us: bool) -> Quantity:
    if us:
        return Quantity(g_per_m2 * UNITS["kft2"].size / UNITS["lb"].size, UNITS["lb"])
    return Quantity(g_per_m2 * UNITS["m2_100"].size, UNITS["g"])


def judgement_out(judgement: Judgement) -> JudgementOut:
    word = {Stand.WITHIN: "Within the label", Stand.BELOW: "Below the label", Stand.ABOVE: "Above the label"}
    return JudgementOut(
        stand=judgement.stand.value, refused=judgement.refused, word=word[judgement.stand], sentence=judgement.sentence
    )


@lru_cache(maxsize=64)
def vessel_out(v: Vessel) -> VesselOut:
    return VesselOut(
        key=v.key, name=v.name, shape=v.shape, unit=v.unit.symbol, capacity=v.capacity, graduation=v.graduation,
        marks=marks_of(v),
    )  # fmt: skip


def measure_out(by: Measure, amount: Quantity) -> MeasureOut:
    v = by.vessel
    return MeasureOut(
        vessel=vessel_out(v),
        fills=by.fills, mark=by.mark, mark_text=by.mark_text, instruction=by.instruction, exact=str(amount.to(v.unit)),
        rounding=show_percent(by.rounding, sign=True), reading=f"± {show_percent(by.reading)}", coarse=by.coarse,
        note=by.note,
    )  # fmt: skip


def _spray_text(litres: float, us: bool) -> str:
    return str(readable(Quantity(litres, UNITS["l"]), us)) if litres else ""


def load_name(plan: LoadPlan, sprayer: bool) -> str:
    name = f"{'Tank' if sprayer else 'Hopper'} {plan.load.number}"
    return f"{name}, pass {plan.load.pass_number}" if plan.load.pass_number else name


def load_out(plan: LoadPlan, job: Job) -> LoadOut:
    load, machine = plan.load, job.machine
    assert machine
    us = job.us
    sprayer = machine.kind is MachineKind.SPRAYER
    capacity = machine.capacity.base
    share = (load.volume if sprayer else load.amount) / capacity
    return LoadOut(
        number=load.number,
        name=load_name(plan, sprayer),
        pass_number=load.pass_number,
        odd=load.odd,
        product=str(plan.product),
        volume=_spray_text(load.volume, us),
        water=_spray_text(load.water, us),
        covers=str(readable(Quantity(load.area, UNITS["m2"]), us)),
        share=share,
        measure=measure_out(plan.measure, plan.product),
        acts=[ActOut(key=a.key, text=a.text, pours=a.pours, level=a.volume / capacity) for a in plan.acts],
    )


def cost_out(job: Job) -> CostOut | None:
    if job.cost is None:
        return None
    c = job.cost
    return CostOut(total=f"{c.cents(c.total):,} {c.currency}", per_foot=f"{c.cents(c.per_foot):,} {c.currency}", foot=c.foot)


def cost_why_not(product: Product) -> str:
    """Why there is no cost, said in place of one."""
    if product.package is None:
        return "No package on the card."
    return "" if product.package.price is not None else "No price on the card."


# --- the reckon line --------------------------------------------------------------------------------------------


def answer_line(club: Club, text: str) -> LineOut:
    """The answer to a reckon line.

    Raises:
        NotUnderstood, Ambiguous, InputError: as the grammar and the sums do.
    """
    ground = {a.name: a for a in areas(club).values() if not a.archived_at}
    kit = {m.name: m for m in machines(club).values() if not m.archived_at}
    shelf = {c.product.name: c.product for c in cards(club).values() if not c.product.archived_at}
    asked = read_line(text, Names(list(ground), list(shelf), list(kit)))
    if isinstance(asked, ConversionAsked):
        found = convert_line(asked)
        return LineOut(kind="conversion", sentence=found.sentence, details=[], working=working_out(found.working), job=None)
    if isinstance(asked, ReachAsked):
        found = reach(asked.amount, asked.rate)
        return LineOut(kind="reach", sentence=found.sentence, details=[], working=working_out(found.working), job=None)
    return _dose_line(club, asked, ground, kit, shelf)


def _dose_line(
    club: Club,
    asked: DoseAsked,
    ground: dict[str, Area],
    kit: dict[str, MachineRow],
    shelf: dict[str, ProductRow],
) -> LineOut:
    row = shelf[asked.product] if asked.product else None
    area = ground[asked.area] if isinstance(asked.area, str) else None
    machine = kit[asked.machine] if asked.machine else None
    rate = one_rate(asked.rate)
    product = row.core() if row else unnamed(asked.rate)
    fitting = _label_for(row, asked) if row else None
    label = fitting[1] if fitting else asked.rate
    where = area.ground if area else Ground("that area", asked.area)  # type: ignore[arg-type]
    mover = machine.core() if machine else None
    if mover and not row and mover.kind is MachineKind.SPREADER:
        product = _spread(product)
    job = reckon(product, label, rate, where, mover, passes=asked.passes or 1, us=club.us)
    details = []
    if fitting:
        details.append(judgement_out(job.judgement).sentence)
    elif row:
        details.append(f"{row.name} has no rate on its card in that kind of unit, so the label was not checked.")
    details += [
        f"{load_name(p, job.spray is not None)}: {p.measure.instruction} in the {p.measure.vessel.name}" for p in job.loads[:6]
    ]
    if len(job.loads) > 6:
        details.append(f"and {len(job.loads) - 6} more loads")
    details += [f"{d.content.name}: {_per_foot(d.g_per_m2, club.us)}/{job.foot.unit.symbol}" for d in job.dose.delivered]
    return LineOut(
        kind="dose", sentence=headline(job), details=details + list(job.warnings), working=working_out(job.working),
        job=_job_in(row, fitting, area, machine, rate.value, rate.unit.key, asked.passes or 1),
    )  # fmt: skip


def _spread(product: Product) -> Product:
    if product.liquid:
        raise InputError("machine", None, "A spreader spreads by weight, and the rate is a volume.", "Pick a sprayer.")
    return replace(product, formulation=FORMULATIONS["GR"])


def _label_for(row: ProductRow, asked: DoseAsked) -> tuple[int, LabelRate] | None:
    """The product's rate row that the asked rate is to be judged by: the first in the same kind of unit it is within."""
    rate = one_rate(asked.rate)
    alike = [(r.pk, r.label()) for r in row.rates.all() if r.label().highest.unit.kind == rate.unit.kind]
    within = [(pk, la) for pk, la in alike if la.lowest.base * (1 - 1e-9) <= rate.base <= la.highest.base * (1 + 1e-9)]
    fitting = within or alike
    return fitting[0] if fitting else None


def _job_in(
    row: ProductRow | None, fitting: tuple[int, LabelRate] | None, area: Area | None, machine: MachineRow | None,
    value: float, unit: str, passes: int,
) -> JobIn | None:  # fmt: skip
    if not (row and fitting and area):
        return None
    return JobIn(
        product_id=row.pk, row_id=fitting[0], rate=QuantityIn(value=value, unit=unit), area_id=area.pk,
        machine_id=machine.pk if machine else None, passes=passes,
    )  # fmt: skip
