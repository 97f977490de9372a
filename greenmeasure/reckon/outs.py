"""The core's job in the API's words: numbers that people read as text, numbers that are drawn as numbers."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache

from core.cautions import LABEL_FIRST, cautions, worn_for_applying, worn_for_mixing
from core.days import day
from core.findings import Finding, Weight, by_weight
from core.job import Job, LoadPlan, Machine, Pour, role_of
from core.job.heed import odd_load
from core.label.product import Product
from core.label.rate import Rate, RateUnit, show_label_rate
from core.label.table import BY_KEY, strictest
from core.label.targets import TARGETS
from core.ledger.budget import Line
from core.ledger.gate import Checked
from core.ledger.rotation import next_dates
from core.rates.compare import buy, short_of
from core.rates.cost import Cost
from core.readable import foot_of, handy, listed, readable
from core.tank.measuring import stock_dilution, ways
from core.tank.vessels import Cabinet, Measure, Vessel, marks_of
from core.units import UNITS, Quantity, show_number, show_percent
from greenmeasure.common.findings import finding_out
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import FactOut, quantity_out, rate_out, rule_out, working_out
from greenmeasure.reckon.schemas import (
    ActOut,
    BoughtOut,
    BudgetLineOut,
    CautionOut,
    ComponentOut,
    CostOut,
    DeliveredOut,
    DoseOut,
    JobOut,
    LoadOut,
    MeasureOut,
    PartOut,
    PourOut,
    RuleTextOut,
    VesselOut,
    WayOut,
    WearOut,
)
from greenmeasure.reckon.words import also, bought_out, cost_why_not, headline, load_name, pass_text, vessel_of
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card


@dataclass(frozen=True)
class Reckoned:
    """A job of an account with the cards, rows and areas it is from, and what the rules say of each component on each part.

    `rows` and `checks` are a part each, a component each in it, None for one to taste; `targets`, `cards` and `stocks` are a
    component each.
    """

    job: Job
    at: datetime
    looked: str
    cards: tuple[Card, ...]
    stocks: tuple[Quantity | None, ...]
    rows: tuple[tuple[RateRow | None, ...], ...]
    area_ids: tuple[int, ...]
    checks: tuple[tuple[Checked | None, ...], ...]
    targets: tuple[str, ...]
    cabinet: Cabinet
    machine_says: tuple[Finding, ...] = ()
    settings: tuple[str, ...] = ()
    setup: tuple[tuple[str, str], ...] = ()
    dial: Rate | None = None
    spots: bool = False
    crossing: str = ""
    watered_in: tuple[str, ...] = ()

    @property
    def refused(self) -> bool:
        refused = any(f.act is Weight.REFUSE for f in self.machine_says)
        checked = any(c is not None and c.refused for part in self.checks for c in part)
        return refused or checked or self.job.judgement.refused

    @property
    def several(self) -> bool:
        """Whether it is more than one product."""
        return len(self.job.mix) > 1


def job_out(found: Reckoned) -> JobOut:
    """A job as it is shown."""
    job = found.job
    us = job.us
    products = job.products
    return JobOut(
        headline=headline(job, found.refused, found.spots),
        name=job.name,
        mix=[component_out(found, c) for c in range(len(job.mix))],
        where=job.where,
        area=str(readable(job.area, us)) if len(job.parts) > 1 else str(job.area),
        machine=job.machine.name if job.machine else "",
        passes=job.passes,
        machine_findings=[finding_out(f) for f in found.machine_says],
        refused=found.refused,
        judgement=judgement_out(job.judgement),
        parts=[part_out(found, i) for i in range(len(job.parts))],
        spray=str(readable(job.spray, us)) if job.spray else "",
        spray_rate=_spray_rate(job),
        capacity=str(job.machine.capacity) if job.machine else "",
        vessel=vessel_of(job),
        setup=[FactOut(name=name, text=text) for name, text in found.setup],
        loads=[load_out(p, job) for p in job.loads],
        delivered=[
            DeliveredOut(
                name=d.content.name,
                total=str(readable(Quantity(d.grams, UNITS["g"]), us)),
                per_foot=f"{per_foot(d.g_per_m2, us)}/{job.foot.unit.symbol}",
            )
            for d in job.delivered
        ],
        cost=cost_out(job.cost),
        warnings=list(job.warnings),
        share_out=_share_out(job),
        label_first=LABEL_FIRST,
        label_rules=_label_rules(found),
        cautions=[CautionOut(key=c.key, text=c.text) for c in cautions(products, bool(job.machine and job.machine.draws))],
        wear=[
            *(WearOut(key=f"mixing-{i}", when="mixing", text=t) for i, t in enumerate(worn_for_mixing(products))),
            *(WearOut(key=f"applying-{i}", when="applying", text=t) for i, t in enumerate(worn_for_applying(products))),
        ],
        working=working_out(job.working),
    )


def _label_rules(found: Reckoned) -> list[RuleTextOut]:
    """What the labels say; of a mix first the strictest of what several say, then each product's own."""
    several = found.several
    return [
        *(_strictest(found) if several else ()),
        *(
            RuleTextOut(key=r.key, text=r.text, product=card.product.name if several else "")
            for card in found.cards
            for r in card.said
        ),
        *(RuleTextOut(key="watered_in", text=text) for text in found.watered_in if text),
    ]


def _strictest(found: Reckoned) -> Iterator[RuleTextOut]:
    for key, place in strictest([c.core.rules for c in found.cards]).items():
        card = found.cards[place]
        said = next((r.text for r in card.said if r.key in (key, BY_KEY[key].stands)), "")
        if said:
            yield RuleTextOut(key=f"strictest-{key}", text=f"{said.rstrip('.')} ({card.product.name}).")


def component_out(found: Reckoned, c: int) -> ComponentOut:
    """One product of the mix over the whole job."""
    job, card = found.job, found.cards[c]
    plan, us, target = job.mix[c], job.us, found.targets[c]
    product, amount = plan.product, plan.amount
    first = next((x.amount for load in job.loads if (x := load.pours[c]).amount), amount)
    dilution = stock_dilution(first, found.cabinet, product.formulation.sprayed) if first else None
    return ComponentOut(
        product_id=card.product.pk,
        product=product.name,
        kind=product.kind.text,
        role=role_of(product).text,
        target=TARGETS[target].name if target in TARGETS else target,
        amount=quantity_out(handy(amount)) if amount else None,
        also=also(plan, us),
        ways=[WayOut(unit=w.unit, text=w.text) for w in ways(first, product.density_g_per_l)] if first else [],
        whole=measure_out(plan.whole, amount) if plan.whole and amount else None,
        stock_dilution=dilution.sentence if dilution else "",
        rounding=show_percent(plan.rounding, sign=True),
        per_volume=_per_volume(job, amount),
        cost=cost_out(plan.cost),
        cost_why_not=cost_why_not(product) if amount else "",
        purchase=purchase_out(product, amount, found.stocks[c], us) if amount else None,
    )


def _per_volume(job: Job, amount: Quantity | None) -> str:
    """What of a component is in a gallon of the spray, or in a litre; empty for granules."""
    if amount is None or job.spray is None:
        return ""
    unit = UNITS["gal" if job.us else "l"]
    each = readable(Quantity(amount.value * unit.size / job.spray.base, amount.unit), job.us)
    return f"{each}/{unit.symbol}"


def _spray_rate(job: Job) -> str:
    """The spray over all passes, per area: what goes on the leaf."""
    if job.spray is None:
        return ""
    unit = RateUnit(UNITS["gal" if job.us else "l"], foot_of(job.us).unit)
    return str(Rate(job.spray.base / job.area.base / unit.size, unit))


def part_out(found: Reckoned, i: int) -> PartOut:
    """One area of a job."""
    planned = found.job.parts[i]
    doses = [dose_out(found, i, c) for c in range(len(found.job.mix))]
    return PartOut(
        area_id=found.area_ids[i],
        name=planned.part.name,
        size=str(planned.part.ground.size),
        treated=quantity_out(planned.part.area),
        doses=doses,
        setting=found.settings[i] if found.settings else "",
        refused=any(d is not None and d.refused for d in doses),
    )


def dose_out(found: Reckoned, i: int, c: int) -> DoseOut | None:
    """One component on one area; None to taste."""
    planned, checked, row = found.job.parts[i].doses[c], found.checks[i][c], found.rows[i][c]
    if planned is None or checked is None or row is None:
        return None
    most = checked.budget.most_times
    return DoseOut(
        product=planned.product.name,
        row_id=row.pk,
        rate=rate_out(planned.rate),
        label=show_label_rate(planned.label),
        rule=rule_out(planned.label, planned.judged.value, planned.product.label_binds),
        judgement=judgement_out(planned.judgement),
        amount=str(handy(planned.dose.amount)),
        measured_rate=str(planned.measured_rate),
        findings=[finding_out(f) for f in checked.findings],
        budget=[budget_line_out(line) for line in checked.budget.lines],
        times=f"Application {checked.budget.times + 1} of {most} this season." if most else "",
        again=_again(checked, row),
        refused=planned.judgement.refused or checked.refused,
    )


def _again(checked: Checked, row: RateRow) -> str:
    first, last = next_dates(checked.on, (row.interval_low, row.interval_high))
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


def _share_out(job: Job) -> str:
    """That an odd last load is better shared out; empty where it is not."""
    odd = odd_load(job.loads)
    if odd is None or odd.pour.measure is None:
        return ""
    by, vessel = odd.pour.measure, vessel_of(job)
    off = show_percent(max(abs(by.rounding), by.reading))
    holds = readable(Quantity(odd.plan.load.volume, UNITS["l"]), job.us) if odd.plan.load.volume else odd.pour.amount
    return (
        f"{load_name(odd.plan, vessel)} holds but {holds}, and {odd.pour.amount} of {odd.pour.product.name} in the "
        f"{by.vessel.name} can be {off} off. Share it out: all {vessel}s alike are measured better."
    )


def load_out(plan: LoadPlan, job: Job) -> LoadOut:
    """One load with its pours and its acts."""
    load, machine = plan.load, job.machine
    assert machine
    us, capacity = job.us, machine.capacity.base
    filled = load.volume if machine.sprays else sum(p.amount.base for p in plan.pours if p.amount)
    return LoadOut(
        number=load.number,
        name=load_name(plan, machine.vessel),
        pass_number=load.pass_number,
        odd=load.odd,
        where=_load_where(plan, job),
        pours=[pour_out(p) for p in plan.pours],
        volume=str(in_tank(load.volume, machine) or ""),
        water=str(in_tank(plan.water, machine) or ""),
        covers=str(readable(Quantity(load.area, UNITS["m2"]), us)),
        dial=str(plan.draw.dial) if plan.draw else "",
        spray=str(readable(Quantity(plan.draw.spray, UNITS["l"]), us)) if plan.draw else "",
        time=plan.draw.time if plan.draw else "",
        share=filled / capacity,
        acts=[ActOut(key=a.key, text=a.text, pours=a.pours, level=a.volume / capacity) for a in plan.acts],
    )


def _load_where(plan: LoadPlan, job: Job) -> str:
    """Where a load goes: the areas of several, and the pass where the load's name does not say it."""
    areas = listed([p.name for p in plan.parts]) if len(job.parts) > 1 else ""
    return "; ".join(x for x in (areas, "" if plan.load.pass_number else pass_text(plan, job.passes)) if x)


def pour_out(pour: Pour) -> PourOut:
    """What of one component goes into a load."""
    return PourOut(
        product=pour.product.name,
        amount=str(pour.amount) if pour.amount else "to taste",
        measure=measure_out(pour.measure, pour.amount) if pour.measure and pour.amount else None,
    )


def cost_out(c: Cost | None) -> CostOut | None:
    """What something costs; None where no price is known."""
    if c is None:
        return None
    return CostOut(total=f"{c.cents(c.total):,} {c.currency}", per_foot=f"{c.cents(c.per_foot):,} {c.currency}", foot=c.foot)


def purchase_out(product: Product, need: Quantity, stock: Quantity | None, us: bool) -> BoughtOut | None:
    """What to buy for a need beyond what is in stock; None where neither stock nor a package is known."""
    short = short_of(need, stock)
    said = str(readable(stock, us)) if stock else ""
    if stock and short.value <= 1e-9 * need.value:
        after = readable(Quantity((stock.base - need.base) / need.unit.size, need.unit), us)
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


def said_of(found: Reckoned) -> list[str]:
    """What stands against a job, and what is to be thought of, the gravest first, each once."""
    every = [f for part in found.checks for checked in part if checked for f in checked.findings] + list(found.machine_says)
    return list(dict.fromkeys(f.sentence for f in by_weight(every) if f.act is not Weight.NOTE))
