"""What must not follow what: intervals, one group in a row, actives that must keep apart.

Two in a row of one single-site code is FRAC general guidance (from memory); a label's own limit binds. Multi-site codes
do not count; a premix counts for every code in it.
"""

from collections.abc import Sequence
from datetime import date, timedelta

from core.days import day
from core.findings import Finding, Weight
from core.label.groups import multi_site
from core.label.product import Kind, Product
from core.ledger.history import Applied, last_of
from core.schools import PLAIN, House


def in_a_row(history: Sequence[Applied], codes: Sequence[str], kind: Kind = Kind.FUNGICIDE) -> dict[str, int]:
    """For each single-site code, how many applications in a row would have held it, the planned one with them."""
    runs = {}
    ordered = sorted((a for a in history if a.kind is kind and a.codes), key=lambda a: a.on, reverse=True)
    for code in codes:
        if multi_site(code):
            continue
        run = 1
        for applied in ordered:
            if code not in applied.codes:
                break
            run += 1
        runs[code] = run
    return runs


def rotation(product: Product, plan: Applied, history: Sequence[Applied], house: House = PLAIN) -> list[Finding]:
    """Groups repeated, against the label's limit, which refuses, and the house's, which warns."""
    if product.kind is not Kind.FUNGICIDE:
        return []
    by_house = 1 if plan.curative and house.of("next_curative") == "change_always" else 2
    label = product.rules.consecutive
    found = []
    for code, run in in_a_row(history, plan.codes).items():
        if label is not None and run > label:
            found.append(
                Finding("in-a-row-label", Weight.REFUSE, f"{code} would go down {run} times in a row; the label allows {label}.")
            )
        elif run > by_house:
            found.append(
                Finding(
                    "in-a-row", Weight.WARN, f"{code} would go down {run} times in a row. Change the group: resistance breeds."
                )
            )
    return found


def interval(product: Product, plan: Applied, history: Sequence[Applied]) -> list[Finding]:
    """Too soon after the last application of the same product."""
    last = last_of([a for a in history if a.on <= plan.on], product)
    least = plan.interval[0]
    if last is None or least is None:
        return []
    days = (plan.on - last.on).days
    if days >= least:
        return []
    act = Weight.REFUSE if product.kind.label_binds else Weight.WARN
    first = last.on + timedelta(days=least)
    return [
        Finding(
            "too-soon",
            act,
            f"{days} days since {product.name} went down here on {day(last.on)}; the label's least "
            f"interval is {least}. From {day(first)}.",
        )
    ]


def next_dates(on: date, span: tuple[int | None, int | None]) -> tuple[date | None, date | None]:
    """The first and the last day for the next application by the label's interval."""
    low, high = span
    return (on + timedelta(days=low) if low else None), (on + timedelta(days=high) if high else None)


def apart(product: Product, plan: Applied, history: Sequence[Applied]) -> list[Finding]:
    """What the label keeps apart from this product by so many days, and what is too near."""
    found = []
    for rule in product.rules.incompatible:
        wanted = rule.what.strip().lower()
        for applied in history:
            days = abs((plan.on - applied.on).days)
            names = {applied.product.lower(), *(c.lower() for c in applied.codes), *(n.lower() for n in applied.actives)}
            meant = wanted in names or (rule.product_id is not None and rule.product_id == applied.product_id)
            if days < max(rule.days, 1) and meant:
                act = Weight.REFUSE if product.kind.label_binds else Weight.WARN
                gap = f"{rule.days} days" if rule.days else "the same day"
                note = f" {rule.note}" if rule.note else ""
                found.append(
                    Finding(
                        "kept-apart",
                        act,
                        f"The label keeps {rule.what} away from it by {gap}; {applied.product} is {days} days away.{note}",
                    )
                )
    return found


def company(product: Product, plan: Applied, history: Sequence[Applied], house: House = PLAIN) -> list[Finding]:
    """What the house says of what goes down on one ground together, or while something else still works."""
    today = [a for a in history if a.on == plan.on and not a.is_of(product)]
    return [*_three_and_eleven(plan, history, house), *_partners(product, today, house), *_two_classes(plan, history, house)]


def _three_and_eleven(plan: Applied, history: Sequence[Applied], house: House) -> list[Finding]:
    rule = house.of("two_groups")
    days = {"together": 0, "never_same_day": 1, "month_apart": 30}[rule]
    other = {"FRAC 3": "FRAC 11", "FRAC 11": "FRAC 3"}
    for code in plan.codes:
        near = next((a for a in history if other.get(code) in a.codes and abs((plan.on - a.on).days) < days), None)
        if near and len(plan.codes) == 1:
            gap = "on one day" if days == 1 else "within a month"
            return [
                Finding(
                    "three-and-eleven",
                    Weight.WARN,
                    f"The house does not put groups 3 and 11 down {gap}; {near.product} was on {day(near.on)}.",
                )
            ]
    return []


def _partners(product: Product, today: Sequence[Applied], house: House) -> list[Finding]:
    rule = house.of("partners")
    if rule == "few" and len(today) >= 2:
        names = ", ".join(a.product for a in today)
        return [
            Finding(
                "partners", Weight.WARN, f"The house puts two products at the most on one ground in a day; {names} are there."
            )
        ]
    if rule == "by_uptake":
        leaf, soil = product.rules.stays_on_leaf, product.rules.watered_in
        clash = next((a for a in today if (soil and a.stays_on_leaf) or (leaf and a.watered_in)), None)
        if clash:
            how = "Leaf products first; let them dry for hours before what is watered in."
            return [Finding("partners-uptake", Weight.WARN, f"{clash.product} and this one are taken up differently. {how}")]
    clash = next((a for a in today if (product.rules.watered_in and a.stays_on_leaf)), None)
    if clash:
        return [
            Finding(
                "washes-off",
                Weight.WARN,
                f"{clash.product} must stay on the leaf today, and this one is watered in: the water would take it off.",
            )
        ]
    return []


def _two_classes(plan: Applied, history: Sequence[Applied], house: House) -> list[Finding]:
    if plan.kind is not Kind.GROWTH_REGULATOR or house.of("two_regulators") == "stack":
        return []
    for applied in history:
        longest = timedelta(days=applied.interval[1] or applied.interval[0] or 28)
        if applied.kind is not Kind.GROWTH_REGULATOR or not timedelta() <= plan.on - applied.on < longest:
            continue
        until = day(applied.on + longest)
        if not (applied.codes and plan.codes):
            if _same(applied, plan):
                continue
            which = applied.product if plan.codes else plan.product
            said = f"{applied.product} still works until {until}. Is it of the same class as {plan.product}?"
            return [
                Finding("class-unknown", Weight.ASK, f"{said} The card of {which} names none: look on its label, and note it.")
            ]
        if not set(applied.codes) & set(plan.codes):
            said = f"{applied.product}, of another class, still works until {until}. Two suppress more than one."
            return [Finding("two-regulators", Weight.WARN, said)]
    return []


def _same(a: Applied, b: Applied) -> bool:
    if a.product_id is not None and b.product_id is not None:
        return a.product_id == b.product_id
    return a.product == b.product
