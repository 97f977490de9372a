"""Which answer a line gets: each kind of question has its one function."""

from collections.abc import Callable
from typing import Any

from core.errors import InputError, NotUnderstood
from core.label.product import Product
from core.label.rate import Rate, RateUnit
from core.rates.dose import Dose, dose
from core.rates.reverse import rate_from_left, rate_of
from core.rates.reverse import reach as ground_of
from core.readable import foot_of, joined, readable
from core.reckon import asked as a
from core.reckon.answer import (
    Answer,
    boom,
    convert_line,
    date_answer,
    degrees_of_day,
    flow,
    one_rate,
    reach,
    speed,
    spread_over,
    sum_answer,
    warmth,
)
from core.reckon.grammar import read_line
from core.tank.measuring import check_cup, ways
from core.tank.vessels import measure
from core.units import UNITS, VOLUME, Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.schemas import working_out
from greenmeasure.kit.vessels import cabinet
from greenmeasure.reckon.comparing import compared
from greenmeasure.reckon.earlier import earlier_job, kept_job
from greenmeasure.reckon.line.costs import amount_cost_line, area_cost_line, compare_doses_line, cost_line, price_line, stock_line
from greenmeasure.reckon.line.doses import best_row, checked, dose_line, reckoned_dose, span_line, spray_line
from greenmeasure.reckon.line.here import Here
from greenmeasure.reckon.line.past import brought_line, degree_days_line, history_line, may_line
from greenmeasure.reckon.line.words import (
    brings_on,
    card_rates,
    card_says,
    no_water_asked,
    puts_down_in,
    sizes,
    tank_covers,
    water_run,
    water_volume,
)
from greenmeasure.reckon.outs import per_foot
from greenmeasure.reckon.schemas import CompareIn, LineOut
from greenmeasure.reckon.words import brings_sentence, goes_as_far
from greenmeasure.water.queries import audit_for, run_out
from greenmeasure.water.words import depth_text, not_audited

MOST_RATES = 6
"""Rates of a card that are told in one sentence (ours)."""


def answer_line(account: Account, text: str) -> LineOut:
    """The answer to a reckon line.

    Raises:
        NotUnderstood, Ambiguous, InputError: as the grammar and the sums do.
    """
    here = Here(account)
    asked = read_line(text, here.names)
    return _ANSWERS[type(asked)](here, asked, text)


# --- doses ------------------------------------------------------------------------------------------------------


def _dose(here: Here, asked: a.DoseAsked, text: str) -> LineOut:
    return dose_line(here.account, reckoned_dose(here, asked, text), asked.packages)


def _kept(here: Here, asked: a.MixAsked, text: str) -> LineOut:
    found = kept_job(here.account, here.mixes[asked.mix], asked, here.ground, here.kit)
    return dose_line(here.account, checked(here, found.job, found.notes))


def _earlier(here: Here, asked: a.EarlierAsked, text: str) -> LineOut:
    found = earlier_job(here.account, asked, here.ground)
    return dose_line(here.account, checked(here, found.job, found.notes))


# --- the sum backwards ------------------------------------------------------------------------------------------


def _backwards(here: Here, asked: a.BackwardsAsked, text: str) -> LineOut:
    card, ground = here.shelf[asked.product], here.sizes(asked.grounds)
    first = asked.grounds[0].area
    placed = here.ground[first].ground if isinstance(first, str) else None
    label = card.rows[best_row(card, placed)].label()
    found = (
        rate_from_left(card.core, label, asked.had, asked.left, ground)
        if asked.left
        else rate_of(card.core, label, asked.had, ground)
    )
    return _out("backwards", Answer(found.sentence, found.working))


def _rate_of(here: Here, asked: a.RateOfAsked, text: str) -> LineOut:
    return _out("backwards", spread_over(asked.amount, [here.size(g) for g in asked.grounds])[0])


def _reach(here: Here, asked: a.ReachAsked, text: str) -> LineOut:
    if asked.product is None:
        return _out("reach", reach(asked.amount, asked.rate))
    card, rate = here.shelf[asked.product], one_rate(asked.rate)
    far = readable(ground_of(card.core, asked.rate, rate, asked.amount), here.account.us)
    steps = dose(card.core, rate, foot_of(here.account.us)).working
    return _out("reach", Answer(goes_as_far(asked.amount, far, rate), steps))


def _covers(here: Here, asked: a.CoversAsked, text: str) -> LineOut:
    machine = here.kit[asked.machine].core()
    if not machine.sprays or machine.draws:
        raise InputError("machine", machine.name, f"{machine.name} has no tank.", "Name a sprayer, or give a rate.")
    spray, us = asked.spray or machine.capacity, here.account.us
    ground = spray.to("l").value / machine.output_base
    units = ("ft2", "acre") if us else ("m2", "ha")
    own, other = (Quantity(ground / UNITS[u].size, UNITS[u]) for u in units)
    assert machine.output is not None
    return _out("reach", Answer(tank_covers(machine.name, str(spray), str(own), str(other), machine.output), ()))


def _output(here: Here, asked: a.OutputAsked, text: str) -> LineOut:
    answer, found = spread_over(asked.used, [asked.ground])
    details = []
    known = here.kit[asked.machine].core().output if asked.machine else None
    if asked.machine and known and asked.used.unit.dimension == VOLUME:
        details.append(card_says(asked.machine, known.to(found.unit), found.base / known.base - 1))
    return _out("output", answer, details)


# --- contents, products, measures -------------------------------------------------------------------------------


def _brings(here: Here, asked: a.BringsAsked, text: str) -> LineOut:
    product, foot, rate = here.shelf[asked.product].core, foot_of(here.account.us), one_rate(asked.rate)
    found = dose(product, rate, foot)
    sentence = brings_sentence(rate, product.name, _brought(here, product, found), foot)
    return _out("brings", Answer(sentence, (*found.working, *found.brings)))


def _brings_on(here: Here, asked: a.BringsOnAsked, text: str) -> LineOut:
    product, ground = here.shelf[asked.product].core, here.sizes(asked.grounds)
    if asked.amount.unit.dimension != product.measured_in:
        raise InputError("line", str(asked.amount), f"{product.name} is not measured so.", "Give it as its package is measured.")
    found = dose(product, Rate(asked.amount.value / ground.base, RateUnit(asked.amount.unit, UNITS["m2"])), ground)
    where, foot = joined(here.where(asked.grounds)), foot_of(here.account.us).unit.symbol
    brings = brings_on(str(asked.amount), product.name, where, _brought(here, product, found), foot)
    return _out("brings", Answer(brings, found.brings))


def _brought(here: Here, product: Product, found: Dose) -> list[str]:
    """What a dose brings of each thing that is counted, per foot. Raises InputError where nothing is."""
    brings = [f"{per_foot(d.g_per_m2, here.account.us)} {d.content.name}" for d in found.delivered]
    if not brings:
        raise InputError(
            "product",
            product.name,
            f"{product.name} lists nothing that can be counted.",
            "Add its contents to the card, and its density if it is a liquid.",
        )
    return brings


def _size(here: Here, asked: a.SizeAsked, text: str) -> LineOut:
    total, us = here.sizes(asked.grounds), here.account.us
    others = [str(Quantity(total.base / UNITS[u].size, UNITS[u])) for u in (("ft2", "acre", "m2") if us else ("m2", "ha", "ft2"))]
    first, *rest = dict.fromkeys([str(total), *others])
    where = joined(here.where(asked.grounds))
    return _out("size", Answer(sizes(f"{where}: {first}", joined(rest)), ()))


def _card(here: Here, asked: a.CardAsked, text: str) -> LineOut:
    rows = here.shelf[asked.product].label_rows
    told = [f"{r.label}{f' ({r.use})' if r.use else ''}" for r in rows[:MOST_RATES]]
    if not told:
        raise InputError("product", asked.product, f"{asked.product} has no rate on its card.", "Add it on the Shelf.")
    return _out("card", Answer(card_rates(asked.product, told), ()))


def _compare(here: Here, asked: a.CompareAsked, text: str) -> LineOut:
    if not isinstance(asked.ground.area, str):
        raise InputError("line", str(asked.ground.area), "Compare on an area of the account.", "Name one of your areas.")
    share = "" if asked.ground.share == 1 else f"{asked.ground.share * 100:g} %"
    data = CompareIn(
        area_id=here.ground[asked.ground.area].pk,
        share=share,
        target=asked.target,
        product_ids=[here.shelf[p].product.pk for p in asked.products],
    )
    found = compared(here.account, data)
    details = [
        f"{r.product}: {', '.join(x for x in (r.rate.text, r.amount, r.cost, r.active, r.problem) if x)}" for r in found.rows
    ]
    return LineOut(kind="compare", sentence=found.sentence, details=details, working=[], job=None)


def _measure(here: Here, asked: a.MeasureAsked, text: str) -> LineOut:
    product = here.shelf[asked.product].core if asked.product else None
    by = measure(asked.amount, cabinet(here.account))
    others = [w.text for w in ways(asked.amount, product.density_g_per_l if product else None) if w.text != str(asked.amount)]
    sentence = f"{asked.amount}: {by.instruction} in the {by.vessel.name}."
    return _out("measure", Answer(sentence, ()), [*others, *([by.note] if by.note else [])])


def _cup(here: Here, asked: a.CupAsked, text: str) -> LineOut:
    cup = check_cup(asked.mark, asked.weight, asked.celsius)
    return _out("cup", Answer(cup.sentence, cup.working))


def _water(here: Here, asked: a.WaterAsked, text: str) -> LineOut:
    us = here.account.us
    mm = asked.depth.base * 1000 if asked.depth else None
    if asked.volume and mm is not None and asked.depth:
        size = here.ground[asked.area].size if isinstance(asked.area, str) else asked.area
        litres = mm * size.base
        own, other = (Quantity(litres / UNITS[u].size, UNITS[u]) for u in (("gal", "l") if us else ("l", "gal")))
        return _out("water", Answer(water_volume(str(asked.depth), str(asked.area), str(own), str(other)), ()))
    if not isinstance(asked.area, str):
        raise NotUnderstood("line", text, "How long that takes is known of an area alone.", "Name one of your areas.")
    area = here.ground[asked.area]
    used = audit_for(here.account, area.pk)
    if used is None:
        raise InputError(
            "area", asked.area, not_audited(asked.area), "How much does it put down an hour? Set out cans in Ground, Water."
        )
    if asked.time:
        depth = used.core().rate * asked.time.base / UNITS["h"].size
        return _out("water", Answer(puts_down_in(str(asked.time), asked.area, depth_text(depth, us)), ()))
    if asked.product:
        rules = here.shelf[asked.product].core.rules
        mm, minutes = rules.water_in_depth, rules.water_in_minutes
        if mm is None and minutes is None:
            raise InputError("product", asked.product, no_water_asked(asked.product), "Give the depth, or add it to the card.")
        mm = mm if mm is not None else used.core().rate * (minutes or 0) / 60
    assert mm is not None
    run = run_out(used.core(), area, mm, us)
    return _out(
        "water", Answer(water_run(depth_text(mm, us), asked.area, run.by_mean, run.advised), ()), [run.soak] if run.soak else []
    )


def _out(kind: str, answer: Answer, details: list[str] | None = None) -> LineOut:
    return LineOut(kind=kind, sentence=answer.sentence, details=details or [], working=working_out(answer.working), job=None)


_ANSWERS: dict[type, Callable[[Here, Any, str], LineOut]] = {
    a.DoseAsked: _dose,
    a.SpanAsked: span_line,
    a.SprayAsked: lambda here, asked, _: spray_line(here, asked),
    a.MixAsked: _kept,
    a.EarlierAsked: _earlier,
    a.ReachAsked: _reach,
    a.CoversAsked: _covers,
    a.BackwardsAsked: _backwards,
    a.RateOfAsked: _rate_of,
    a.BringsAsked: _brings,
    a.BringsOnAsked: _brings_on,
    a.SizeAsked: _size,
    a.CardAsked: _card,
    a.BroughtAsked: lambda here, asked, _: brought_line(here, asked),
    a.AmountCostAsked: lambda here, asked, _: amount_cost_line(here, asked),
    a.BoomAsked: lambda here, asked, _: _out("output", boom(asked, here.account.us)),
    a.CompareAsked: _compare,
    a.CompareDosesAsked: compare_doses_line,
    a.PriceAsked: lambda here, asked, _: price_line(here, asked),
    a.CostAsked: cost_line,
    a.AreaCostAsked: lambda here, asked, _: area_cost_line(here, asked),
    a.StockAsked: lambda here, asked, _: stock_line(here, asked),
    a.HistoryAsked: lambda here, asked, _: history_line(here, asked),
    a.MayAsked: lambda here, asked, _: may_line(here, asked),
    a.DateAsked: lambda here, asked, _: _out("date", date_answer(asked, today(here.account))),
    a.DegreeDaysAsked: lambda here, asked, _: degree_days_line(here, asked),
    a.DayOfDegreesAsked: lambda here, asked, _: _out("degree_days", degrees_of_day(asked)),
    a.WaterAsked: _water,
    a.OutputAsked: _output,
    a.FlowAsked: lambda here, asked, _: _out("output", flow(asked, here.account.us)),
    a.SpeedAsked: lambda here, asked, _: _out("output", speed(asked, here.account.us)),
    a.MeasureAsked: _measure,
    a.CupAsked: _cup,
    a.ConversionAsked: lambda here, asked, _: _out("conversion", convert_line(asked)),
    a.WarmthAsked: lambda here, asked, _: _out("conversion", warmth(asked)),
    a.SumAsked: lambda here, asked, _: _out("sum", sum_answer(asked)),
}
