"""What must not follow what: intervals, one group in a row, actives that must keep apart.

Two in a row of one single-site code is FRAC general guidance (from memory); a label's own limit binds. Multi-site codes
do not count; a premix counts for every code in it. Runs go by the day: what went down on one ground on one day, in one tank or
apart, is one step of a run. What is only planned makes a run longer and never breaks it; but for what is itself only planned,
which is asked again on its day.
"""

from collections.abc import Sequence
from datetime import date, timedelta

from core.days import day, so_many
from core.findings import Finding, Weight
from core.label.groups import multi_site
from core.label.product import Kind, Product
from core.label.rules import Incompatible
from core.ledger.history import Applied, Standing, turn
from core.schools import PLAIN, House

IN_A_ROW = 2
"""How often a single-site group may follow itself where its label does not say (FRAC general guidance, from memory)."""
HELPERS = (Kind.ADJUVANT, Kind.COLOURANT, Kind.CONDITIONER)
"""What helps the spray is no partner of what it carries."""


def in_a_row(plan: Applied, past: Sequence[Applied]) -> dict[str, int]:
    """For each single-site code of a plan, how many days in a row would have it, the plan's own among them.

    Days before the plan and after it both count: a code that was put down last week and is booked for next week makes three.
    """
    days: dict[date, list[Applied]] = {}
    for a in past:
        if a.codes and set(a.kinds) & set(plan.kinds):
            days.setdefault(a.on, []).append(a)
    runs = {}
    before = sorted((d for d in days if d < plan.on), reverse=True)
    after = sorted(d for d in days if d > plan.on)
    for code in plan.codes:
        if not multi_site(code):
            runs[code] = 1 + sum(_run(code, order, days, plan.planned) for order in (before, after))
    return runs


def _run(code: str, order: Sequence[date], days: dict[date, list[Applied]], planned: bool) -> int:
    """How many days in order have a code; `planned` lets what is only planned end it."""
    run = 0
    for on in order:
        if any(code in a.codes for a in days[on]):
            run += 1
        elif planned or not all(a.planned for a in days[on]):
            break
    return run


def rotation(product: Product, plan: Applied, past: Sequence[Applied], house: House = PLAIN) -> list[Finding]:
    """Groups repeated, against the label's limit, which refuses, and the house's, which warns."""
    if not product.is_a(Kind.FUNGICIDE):
        return []
    by_house = 1 if plan.curative and house.of("next_curative") == "change_always" else IN_A_ROW
    label = product.rules.consecutive
    found = []
    for code, run in in_a_row(plan, past).items():
        said = f"{code} would go down {run} times in a row{_counted(code, plan, past)}"
        if label is not None and run > label:
            found.append(Finding("in-a-row-label", Weight.REFUSE, f"{said}; the label allows {label}. Take another group."))
        elif run > by_house:
            found.append(Finding("in-a-row", Weight.WARN, f"{said}. Change the group: resistance breeds."))
    return found


def _counted(code: str, plan: Applied, past: Sequence[Applied]) -> str:
    """What of a run is not in the book yet, in brackets."""
    open_ = [a for a in past if code in a.codes and a.on != plan.on and a.standing in (Standing.UNDER_WAY, Standing.PLANNED)]
    return f" ({'; '.join(f'{a.product} {a.told}' for a in sorted(open_, key=turn))})" if open_ else ""


def interval(product: Product, plan: Applied, past: Sequence[Applied]) -> list[Finding]:
    """Too soon after the last application of the same product, or too soon before the next one."""
    others = [a for a in past if a.is_of(product) and not a.goes_with(plan)]
    before = max((a for a in others if a.on <= plan.on), key=turn, default=None)
    after = min((a for a in others if a.on > plan.on), key=turn, default=None)
    least = plan.interval[0]
    act, found = binding(product), []
    if before and least is not None and (days := (plan.on - before.on).days) < least:
        first = before.on + timedelta(days=least)
        said = (
            f"{so_many(days)} since {product.name} went down here on {day(before.on)}"
            if before.standing is Standing.BOOKED
            else f"{product.name} is {before.told} here, {so_many(days)} before"
        )
        found.append(Finding("too-soon", act, f"{said}; the label's least interval is {least}. From {day(first)}."))
    if after and (gap := least if least is not None else after.interval[0]) and (days := (after.on - plan.on).days) < gap:
        verb = "went down here" if after.standing is Standing.BOOKED else "is"
        last = after.on - timedelta(days=gap)
        said = f"{product.name} {verb} {after.told}, {so_many(days)} after; the label's least interval is {gap}"
        found.append(Finding("too-soon-before", act, f"{said}. By {day(last)}."))
    return found


def binding(product: Product) -> Weight:
    """What follows where a rule of a product's label is broken: for one whose label binds a plan is refused."""
    return Weight.REFUSE if product.label_binds else Weight.WARN


def next_dates(on: date, span: tuple[int | None, int | None]) -> tuple[date | None, date | None]:
    """The first and the last day for the next application by the label's interval."""
    low, high = span
    return (on + timedelta(days=low) if low else None), (on + timedelta(days=high) if high else None)


def apart(product: Product, plan: Applied, past: Sequence[Applied]) -> list[Finding]:
    """What a label keeps apart by so many days: this product's from what is there, and what is there from this product.

    Whose label it is decides what follows: that of a pesticide or a regulator refuses.
    """
    found = []
    for a in past:
        days = abs((plan.on - a.on).days)
        for rule in product.rules.incompatible:
            if _meant(rule, a) and days < max(rule.days, 1):
                found.append(_kept(binding(product), product.name, rule, a, plan))
        for rule in a.apart:
            if _meant(rule, plan) and days < max(rule.days, 1):
                found.append(_kept(Weight.REFUSE if a.label_binds else Weight.WARN, a.product, rule, a, plan))
    return found


def apart_days(a: Applied, b: Applied) -> int:
    """By how many days the labels of two things keep them from one ground, whichever comes first; 0 where neither does."""
    every = [max(r.days, 1) for one, other in ((a, b), (b, a)) for r in one.apart if _meant(r, other)]
    return max(every, default=0)


def _meant(rule: Incompatible, a: Applied) -> bool:
    """Whether an application is of what a rule names: a product, an active, a group code."""
    names = {a.product.casefold(), *(c.casefold() for c in a.codes), *(n.casefold() for n in a.actives)}
    return rule.what.strip().casefold() in names or (rule.product_id is not None and rule.product_id == a.product_id)


def _kept(act: Weight, whose: str, rule: Incompatible, a: Applied, plan: Applied) -> Finding:
    gap = f"{rule.days} days" if rule.days else "the same day"
    note = f" {rule.note}" if rule.note else ""
    where = "goes into the same job" if a.goes_with(plan) else f"is {so_many(abs((plan.on - a.on).days))} away ({a.told})"
    free = ""
    if rule.days and a.on <= plan.on and not a.goes_with(plan):
        free = f" From {day(a.on + timedelta(days=rule.days))}."
    return Finding(
        "kept-apart", act, f"The label of {whose} keeps {rule.what} away from it by {gap}; {a.product} {where}.{note}{free}"
    )


def company(product: Product, plan: Applied, past: Sequence[Applied], house: House = PLAIN) -> list[Finding]:
    """What the house says of what goes down on one ground together, or while something else still works."""
    today = [a for a in past if a.on == plan.on and not a.is_of(product)]
    return [*_three_and_eleven(plan, past, house), *_partners(product, today, house), *_two_classes(plan, past, house)]


def _three_and_eleven(plan: Applied, past: Sequence[Applied], house: House) -> list[Finding]:
    rule = house.of("two_groups")
    days = {"together": 0, "never_same_day": 1, "month_apart": 30}[rule]
    other = {"FRAC 3": "FRAC 11", "FRAC 11": "FRAC 3"}
    for code in plan.codes:
        near = next((a for a in past if other.get(code) in a.codes and abs((plan.on - a.on).days) < days), None)
        if near and len(plan.codes) == 1:
            gap = "on one day" if days == 1 else "within a month"
            said = f"The house does not put groups 3 and 11 down {gap}; {near.product} was on {day(near.on)}."
            return [Finding("three-and-eleven", Weight.WARN, said)]
    return []


def _partners(product: Product, today: Sequence[Applied], house: House) -> list[Finding]:
    rule = house.of("partners")
    others = {a.product_id or a.product: a.product for a in today if a.kind not in HELPERS} if product.kind not in HELPERS else {}
    if rule == "few" and len(others) >= 2:
        names = ", ".join(others.values())
        said = f"The house puts two products at the most on one ground in a day; {names} are there."
        return [Finding("partners", Weight.WARN, said)]
    if rule == "by_uptake":
        leaf, soil = product.rules.stays_on_leaf, product.rules.watered_in
        clash = next((a for a in today if (soil and a.stays_on_leaf) or (leaf and a.watered_in)), None)
        if clash:
            how = "Leaf products first; let them dry for hours before what is watered in."
            return [Finding("partners-uptake", Weight.WARN, f"{clash.product} and this one are taken up differently. {how}")]
    return []


def _two_classes(plan: Applied, past: Sequence[Applied], house: House) -> list[Finding]:
    if not plan.is_a(Kind.GROWTH_REGULATOR) or house.of("two_regulators") == "stack":
        return []
    found = []
    for applied in past:
        longest = timedelta(days=applied.interval[1] or applied.interval[0] or 28)
        if not applied.is_a(Kind.GROWTH_REGULATOR) or not timedelta() <= plan.on - applied.on < longest:
            continue
        until = day(applied.on + longest)
        if not (applied.codes and plan.codes):
            if _same(applied, plan):
                continue
            which = applied.product if plan.codes else plan.product
            said = f"{applied.product} still works until {until}. Is it of the same class as {plan.product}?"
            found.append(
                Finding("class-unknown", Weight.ASK, f"{said} The card of {which} names none: look on its label, and note it.")
            )
        elif not set(applied.codes) & set(plan.codes):
            said = f"{applied.product}, of another class, still works until {until}. Two suppress more than one."
            found.append(Finding("two-regulators", Weight.WARN, said))
    return found[:1] if len({f.key for f in found}) == 1 else found


def _same(a: Applied, b: Applied) -> bool:
    if a.product_id is not None and b.product_id is not None:
        return a.product_id == b.product_id
    return a.product == b.product
