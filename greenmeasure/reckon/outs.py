"""The core's job in the API's words: numbers that people read as text, numbers that are drawn as numbers."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache

from core.cautions import LABEL_FIRST, cautions, worn_for_applying, worn_for_mixing
from core.days import day
from core.findings import Finding, Weight, by_weight
from core.job import Job, LoadPlan, Machine, MachineKind, PartPlan
from core.label.product import Product
from core.label.rate import Rate, RateUnit, show_label_rate
from core.label.targets import TARGETS
from core.ledger.budget import Line
from core.ledger.gate import Checked
from core.ledger.rotation import next_dates
from core.rates.compare import Purchase, buy
from core.readable import foot_of, handy, listed, readable
from core.tank.measuring import stock_dilution, ways
from core.tank.vessels import Measure, Vessel, marks_of
from core.units import UNITS, VOLUME, Quantity, show_number, show_percent
from greenmeasure.common.findings import finding_out
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import quantity_out, rate_out, rule_out, working_out
from greenmeasure.reckon.schemas import (
    ActOut,
    BoughtOut,
    BudgetLineOut,
    CautionOut,
    CostOut,
    DeliveredOut,
    JobOut,
    LoadOut,
    MeasureOut,
    PartOut,
    RuleTextOut,
    VesselOut,
    WayOut,
    WearOut,
)
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card


@dataclass(frozen=True)
class Reckoned:
    """A job of an account with the rows and areas it is from, and what the rules say of each part."""

    job: Job
    at: datetime
    looked: str
    card: Card
    rows: tuple[RateRow, ...]
    area_ids: tuple[int, ...]
    checks: tuple[Checked, ...]
    target: str
    machine_says: tuple[Finding, ...] = ()
    settings: tuple[str, ...] = ()
    watered_in: tuple[str, ...] = ()

    @property
    def refused(self) -> bool:
        refused = any(f.act is Weight.REFUSE for f in self.machine_says)
        return refused or self.job.judgement.refused or any(c.refused for c in self.checks)


def job_out(found: Reckoned) -> JobOut:
    """A job as it is shown."""
    job = found.job
    us = job.us
    density = job.product.density_g_per_l
    dilution = stock_dilution(job.loads[0].product if job.loads else job.amount, us)
    return JobOut(
        headline=headline(job, found.refused),
        product=job.product.name,
        product_kind=job.product.kind.text,
        where=job.where,
        area=str(readable(job.area, us)) if len(job.parts) > 1 else str(job.area),
        target=TARGETS[found.target].name if found.target in TARGETS else found.target,
        machine=job.machine.name if job.machine else "",
        passes=job.passes,
        machine_findings=[finding_out(f) for f in found.machine_says],
        refused=found.refused,
        judgement=judgement_out(job.judgement),
        parts=[part_out(found, i) for i in range(len(job.parts))],
        amount=quantity_out(handy(job.amount)),
        also=also(job),
        ways=[WayOut(unit=w.unit, text=w.text) for w in ways(job.loads[0].product if job.loads else job.amount, density)],
        spray=str(readable(job.spray, us)) if job.spray else "",
        spray_rate=_spray_rate(job),
        capacity=str(job.machine.capacity) if job.machine else "",
        loads=[load_out(p, job) for p in job.loads],
        whole=measure_out(job.whole, job.amount),
        stock_dilution=dilution.sentence if dilution else "",
        rounding=show_percent(job.rounding, sign=True),
        delivered=[
            DeliveredOut(
                name=d.content.name,
                total=str(readable(Quantity(d.grams, UNITS["g"]), us)),
                per_foot=f"{per_foot(d.g_per_m2, us)}/{job.foot.unit.symbol}",
            )
            for d in job.delivered
        ],
        cost=cost_out(job),
        cost_why_not=cost_why_not(job.product),
        purchase=purchase_out(job.product, job.amount, found.card.stock, us),
        warnings=list(job.warnings),
        label_first=LABEL_FIRST,
        label_rules=[
            *(RuleTextOut(key=r.key, text=r.text) for r in found.card.said),
            *(RuleTextOut(key="watered_in", text=text) for text in found.watered_in if text),
        ],
        cautions=[CautionOut(key=c.key, text=c.text) for c in cautions(job.product)],
        wear=[
            *(WearOut(key=f"mixing-{i}", when="mixing", text=t) for i, t in enumerate(worn_for_mixing(job.product))),
            *(WearOut(key=f"applying-{i}", when="applying", text=t) for i, t in enumerate(worn_for_applying(job.product))),
        ],
        working=working_out(job.working),
    )


def _spray_rate(job: Job) -> str:
    """The spray over all passes, per area: what goes on the leaf."""
    if job.spray is None:
        return ""
    unit = RateUnit(UNITS["gal" if job.us else "l"], foot_of(job.us).unit)
    return str(Rate(job.spray.base / job.area.base / unit.size, unit))


def part_out(found: Reckoned, i: int) -> PartOut:
    """One area of a job."""
    planned, checked, row = found.job.parts[i], found.checks[i], found.rows[i]
    part = planned.part
    times = checked.budget.times
    most = checked.budget.most_times
    binds = found.job.product.label_binds
    return PartOut(
        area_id=found.area_ids[i],
        row_id=row.pk,
        name=part.name,
        size=str(part.ground.size),
        treated=quantity_out(part.area),
        rate=rate_out(part.rate),
        label=show_label_rate(part.label),
        rule=rule_out(part.label, planned.judged.value, binds),
        judgement=judgement_out(planned.judgement),
        amount=str(handy(planned.dose.amount)),
        measured_rate=str(planned.measured_rate),
        findings=[finding_out(f) for f in checked.findings],
        budget=[budget_line_out(line) for line in checked.budget.lines],
        times=f"Application {times + 1} of {most} this season." if most else "",
        setting=found.settings[i] if found.settings else "",
        again=_again(planned, found, i),
        refused=planned.judgement.refused or checked.refused,
    )


def _again(planned: PartPlan, found: Reckoned, i: int) -> str:
    row = found.rows[i]
    first, last = next_dates(found.checks[i].on, (row.interval_low, row.interval_high))
    if not first and not last:
        return ""
    span = " to ".join(day(d) for d in (first, last) if d)
    return f"The next by the label: {span}."


def budget_line_out(line: Line) -> BudgetLineOut:
    """A line of the season's budget to draw."""
    symbol = line.unit.symbol
    scale = max(line.total, line.cap or 0.0) * 1.15 or 1.0
    return BudgetLineOut(
        key=line.key,
        what=line.what,
        symbol=symbol,
        used=line.used,
        plan=line.plan,
        cap=line.cap,
        low=line.low,
        scale=scale,
        used_text=show_number(line.used),
        plan_text=show_number(line.plan),
        total_text=f"{show_number(line.total)} {symbol}",
        cap_text=show_number(line.cap) if line.cap is not None else "",
        whose=line.whose,
        binds=line.binds,
        over=line.over,
    )


def headline(job: Job, refused: bool = False) -> str:
    """The job in one sentence, the way one would say it at the bench; "do not" where a rule stands against it."""
    act = "Pour" if job.product.liquid else "Weigh out"
    if refused:
        return f"Do not {act.lower()} {handy(job.amount)} of {job.product.name} for {job.where}."
    amount = f"{act} {handy(job.amount)} of {job.product.name} for {job.where}"
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


def also(job: Job) -> list[str]:
    """The dose as others would say it: in the other system, and liquids by weight where the density is known."""
    amount, us = handy(job.amount), job.us
    found = [readable(amount, us), readable(amount, not us)]
    if job.grams is not None and amount.unit.dimension == VOLUME:
        found.append(readable(Quantity(job.grams, UNITS["g"]), us))
    texts = [str(q) for q in found if q.unit is not amount.unit]
    return list(dict.fromkeys(texts))


def per_foot(g_per_m2: float, us: bool) -> Quantity:
    """A mass per area [g/m²] as the mass on 1000 ft² or 100 m²."""
    if us:
        return Quantity(g_per_m2 * UNITS["kft2"].size / UNITS["lb"].size, UNITS["lb"])
    return Quantity(g_per_m2 * UNITS["m2_100"].size, UNITS["g"])


@lru_cache(maxsize=64)
def vessel_out(v: Vessel) -> VesselOut:
    """A vessel to draw."""
    return VesselOut(
        key=v.key, name=v.name, shape=v.shape, unit=v.unit.symbol, capacity=v.capacity, graduation=v.graduation, marks=marks_of(v)
    )


def measure_out(by: Measure, amount: Quantity) -> MeasureOut:
    """How to measure a dose."""
    v = by.vessel
    return MeasureOut(
        vessel=vessel_out(v),
        fills=by.fills,
        mark=by.mark,
        mark_text=by.mark_text,
        instruction=by.instruction,
        exact=str(amount.to(v.unit)),
        rounding=show_percent(by.rounding, sign=True),
        reading=f"± {show_percent(by.reading)}",
        coarse=by.coarse,
        note=by.note,
    )


def in_tank(litres: float, machine: Machine) -> Quantity | None:
    """A volume [L] in the unit that the tank is marked in; None for a hopper."""
    return Quantity(litres, UNITS["l"]).to(machine.capacity.unit) if litres else None


def load_name(plan: LoadPlan, sprayer: bool) -> str:
    """What a load is called."""
    name = f"{'Tank' if sprayer else 'Hopper'} {plan.load.number}"
    return f"{name}, pass {plan.load.pass_number}" if plan.load.pass_number else name


def load_out(plan: LoadPlan, job: Job) -> LoadOut:
    """One load with its acts."""
    load, machine = plan.load, job.machine
    assert machine
    us = job.us
    capacity = machine.capacity.base
    share = (load.volume if machine.sprays else load.amount) / capacity
    return LoadOut(
        number=load.number,
        name=load_name(plan, machine.sprays),
        pass_number=load.pass_number,
        odd=load.odd,
        where=listed([p.name for p in plan.parts]) if len(job.parts) > 1 else "",
        product=str(plan.product),
        volume=str(in_tank(load.volume, machine) or ""),
        water=str(in_tank(load.water, machine) or ""),
        covers=str(readable(Quantity(load.area, UNITS["m2"]), us)),
        share=share,
        measure=measure_out(plan.measure, plan.product),
        acts=[ActOut(key=a.key, text=a.text, pours=a.pours, level=a.volume / capacity) for a in plan.acts],
    )


def cost_out(job: Job) -> CostOut | None:
    """What a job costs; None where no price is known."""
    if job.cost is None:
        return None
    c = job.cost
    return CostOut(total=f"{c.cents(c.total):,} {c.currency}", per_foot=f"{c.cents(c.per_foot):,} {c.currency}", foot=c.foot)


def cost_why_not(product: Product) -> str:
    """Why there is no cost, said in place of one."""
    if product.package is None:
        return "No package on the card."
    return "" if product.package.price is not None else "No price on the card."


def purchase_out(product: Product, need: Quantity, stock: Quantity | None, us: bool) -> BoughtOut | None:
    """What to buy for a need beyond what is in stock; None where neither stock nor a package is known."""
    left = stock.base if stock and stock.unit.dimension == need.unit.dimension else 0.0
    short = Quantity(max(0.0, need.base - left) / need.unit.size, need.unit)
    said = str(readable(stock, us)) if stock else ""
    if stock and short.value <= 1e-9 * need.value:
        after = readable(Quantity((left - need.base) / need.unit.size, need.unit), us)
        return BoughtOut(
            stock=said,
            short="",
            packages=[],
            cost="",
            leftover=str(after),
            sentence=f"{said} in stock is enough; {after} will be left.",
        )
    found = buy(product.packages, short)
    if found is None:
        if not stock:
            return None
        return BoughtOut(
            stock=said,
            short=str(readable(short, us)),
            packages=[],
            cost="",
            leftover="",
            sentence=f"{said} in stock; {readable(short, us)} is missing; the card has no package.",
        )
    return bought_out(found, said, str(readable(short, us)), us)


def bought_out(found: Purchase, stock: str, short: str, us: bool) -> BoughtOut:
    """What to buy, in words."""
    packages = [f"{b.count} × {b.package.size}" for b in found.packages]
    currency = found.packages[0].package.currency
    cost = f"{found.cost:,} {currency}" if found.cost is not None else ""
    leftover = str(readable(found.leftover, us)) if found.leftover.value > 1e-9 else "nothing"
    have = f"{stock} in stock, {short} short. " if stock else ""
    price = f" for {cost}" if cost else ""
    sentence = f"{have}Buy {' and '.join(packages)}{price}; {leftover} is left over."
    return BoughtOut(stock=stock, short=short, packages=packages, cost=cost, leftover=leftover, sentence=sentence)


def goes_as_far(amount: Quantity, far: Quantity, rate: Rate) -> str:
    """How far an amount goes at a rate."""
    return f"{amount} goes as far as {far} at {rate}."


def compared_sentence(count: int, cheapest: str, cost: str) -> str:
    """How many products stand side by side, or which of them costs least."""
    if cheapest:
        return f"{cheapest} costs least here: {cost}."
    return f"{count} product{'s' if count != 1 else ''} side by side."


def said_of(found: Reckoned) -> list[str]:
    """What stands against a job, and what is to be thought of, the gravest first, each once."""
    every = [f for checked in found.checks for f in checked.findings] + list(found.machine_says)
    return list(dict.fromkeys(f.sentence for f in by_weight(every) if f.act is not Weight.NOTE))


def brings_sentence(rate: Rate, product: str, brings: Sequence[str], foot: Quantity) -> str:
    """What a rate of a product brings of its contents per foot of the account."""
    return f"{rate} of {product} brings {', '.join(brings)} per {foot.unit.symbol}."


def left_out(name: str) -> str:
    """That a thing of an earlier job is left out of it now."""
    return f"{name} has been put away and is left out."


def row_changed(area: str, row: RateRow) -> str:
    """That the card no longer has the row that an earlier job went by."""
    return f"{area}: the label row has changed; this is {row.use or row.phrase}."
