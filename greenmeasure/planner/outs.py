"""A made plan as it is shown: its outings, each application with its reasons, the plans beside it, and what stays bare."""

from collections.abc import Mapping, Sequence

from core.findings import Weight
from core.season.offers import NITROGEN
from core.season.problem import Choice, Optimum, broken, covered, hours, tally, used
from core.season.reasons import Other, reasons
from core.units import Quantity
from greenmeasure.common.findings import finding_out
from greenmeasure.planner.facts import Floats, Key, Year, bears, checked, refused
from greenmeasure.planner.schemas import (
    BareOut,
    MadePlanOut,
    OtherChoiceOut,
    PlanChoiceIn,
    PlannedChoiceOut,
    PlannedOutingOut,
    RivalOut,
)
from greenmeasure.planner.words import (
    NAMES,
    NO_DAY,
    added_text,
    bare_text,
    breaks,
    buys,
    change_text,
    contradiction,
    dropped_text,
    gives,
    money,
    moved_text,
    no_offer,
    not_worth,
    on_day,
    other_text,
    outing_text,
    proof_text,
    sentence,
    stays_bare,
    target_text,
    why_text,
)
from greenmeasure.programme.queries import turn_out
from greenmeasure.shelf.queries import cards, stocks

MOST_OTHERS = 4
"""Other choices that are told beside one (ours)."""
BARE = 1.0
"""Risk days from which on a bare spell is told (ours)."""


def plan_out(year: Year, best: Optimum, rivals: Mapping[str, Sequence[Choice]], notes: list[str]) -> MadePlanOut:
    """A plan with everything beside it."""
    problem, currency, by_cost = year.problem, year.account.currency, year.ask.by_cost
    old = _old(year)
    plans = {"plan": best.chosen, **({"standing": old} if old else {}), **rivals}
    bare, risk = _bare(year, best.chosen), float(sum(r.sum() for r in year.risk.values()))
    told = tally(problem, best.chosen)
    anew = [c for c in best.chosen if c not in problem.fixed]
    outings = _outings(year, best.chosen, anew)
    change, changes = _change(year, best.chosen, anew, old)
    return MadePlanOut(
        sentence=sentence(len(anew), len(outings), bare, risk, money(told.product, currency, by_cost)),
        proof=proof_text(best.proven, best.gap, told, currency, by_cost),
        proven=best.proven,
        first=year.ask.first,
        last=year.ask.last,
        outings=outings,
        rivals=[_rival(year, key, chosen, risk) for key, chosen in plans.items()],
        bare=_stays(year, best.chosen),
        change=change,
        changes=changes,
        contradictions=_contradictions(year),
        notes=[*year.notes, *notes, *_to_buy(year, best.chosen)],
        choices=[_choice(year, c) for c in anew],
    )


def _choice(year: Year, c: Choice) -> PlanChoiceIn:
    offer = year.of(c[0])
    row = list(cards(year.account)[offer.product.id or 0].rows)[offer.index]
    return PlanChoiceIn(
        area_id=int(year.problem.options[c[0]].area), product_id=offer.product.id or 0, row_id=row, on=year.on(c[1])
    )


def _bare(year: Year, chosen: Sequence[Choice]) -> float:
    return sum(float((r * (1 - covered(year.problem, chosen, *key))).sum()) for key, r in year.risk.items())


def _outings(year: Year, chosen: Sequence[Choice], anew: Sequence[Choice]) -> list[PlannedOutingOut]:
    found: dict[tuple[int, str], list[Choice]] = {}
    for c in anew:
        found.setdefault((c[1], year.problem.options[c[0]].machine), []).append(c)
    made = []

    def by_area(c: Choice) -> str:
        return year.areas[year.problem.options[c[0]].area].name

    for (day, machine), mine in sorted(found.items()):
        on, named = year.on(day), year.machines.get(machine)
        where = {year.problem.options[i].area for i, _ in mine}
        made.append(
            PlannedOutingOut(
                on=on,
                day=f"{on:%a} {on.day} {on:%b}",
                machine=named.name if named else "",
                text=outing_text(sum(hours(year.problem, mine).values()), len(where)),
                position=day / year.ask.days,
                choices=[_planned(year, chosen, c) for c in sorted(mine, key=by_area)],
            )
        )
    return made


def _planned(year: Year, chosen: Sequence[Choice], c: Choice) -> PlannedChoiceOut:
    option, offer, area = year.problem.options[c[0]], year.of(c[0]), year.areas[year.problem.options[c[0]].area]
    currency, by_cost, on = year.account.currency, year.ask.by_cost, year.on(c[1])
    r = reasons(year.problem, chosen, c)
    own = [t for t in option.covers if t == NITROGEN or _earns(year, (option.area, t), c)]
    days = sum(float(year.risk[option.area, t][c[1] : c[1] + option.lasts].sum()) for t in own if (option.area, t) in year.risk)
    row = _choice(year, c)
    led = bears(year.account, area, on, year.besides)
    return PlannedChoiceOut(
        area_id=area.pk,
        area=area.name,
        product_id=row.product_id,
        row_id=row.row_id,
        product=offer.product.name,
        against=target_text(own[0]) if own else "",
        rate=str(offer.rate),
        amount=str(offer.amount),
        cost=money(option.cost, currency, by_cost),
        why=why_text(own or list(option.covers), days, r, currency, by_cost),
        others=[_other(year, o, currency, by_cost) for o in (*r.instead[:MOST_OTHERS], r.before, r.after) if o],
        warns=[finding_out(f) for f in checked(year.account, area, offer, on, led).findings if f.act is Weight.WARN],
    )


def _earns(year: Year, key: Key, c: Choice) -> bool:
    lasts = year.problem.options[c[0]].lasts
    return key in year.risk and bool(year.risk[key][c[1] : c[1] + lasts].sum() > 0.05)


def _other(year: Year, o: Other, currency: str, by_cost: bool) -> OtherChoiceOut:
    assert o.choice
    offer = year.of(o.choice[0])
    return OtherChoiceOut(
        name=on_day(offer.product.name, str(offer.rate), year.on(o.choice[1])), text=other_text(o, currency, by_cost)
    )


def _rival(year: Year, key: str, chosen: Sequence[Choice], risk: float) -> RivalOut:
    problem = year.problem
    told, bare = tally(problem, chosen), _bare(year, chosen)
    anew = [c for c in chosen if c not in problem.fixed]
    active = sum(year.of(i).active * year.areas[problem.options[i].area].size.base for i, _ in anew) / 1000
    return RivalOut(
        key=key,
        name=NAMES[key][0],
        told=NAMES[key][1],
        applications=len(anew),
        outings=len({(d, problem.options[i].machine) for i, d in anew}),
        cost=money(told.product, year.account.currency, year.ask.by_cost),
        product=money(active, "", False),
        bare=bare_text(bare, risk),
        bare_share=bare / risk if risk else 0.0,
    )


def _stays(year: Year, chosen: Sequence[Choice]) -> list[BareOut]:
    """The risk that stays uncovered, the most first, with what would have to give; at the end what nothing is listed against."""
    found, without = [], dict[str, list[str]]()
    for key, risk in year.risk.items():
        left = risk * (1 - covered(year.problem, chosen, *key))
        if not any(o.area == key[0] and key[1] in o.covers for o in year.problem.options):
            without.setdefault(key[1], []).append(year.areas[key[0]].name)
        elif left.sum() >= BARE:
            found.append((float(left.sum()), key, left, float(risk.sum())))
    told = [_stay(year, chosen, key, left, risk) for _, key, left, risk in sorted(found, key=lambda f: (-f[0], f[1]))]
    return [*told, *(BareOut(what=target_text(t).capitalize(), text=no_offer(names), why="") for t, names in without.items())]


def _stay(year: Year, chosen: Sequence[Choice], key: Key, left: Floats, risk: float) -> BareOut:
    area = year.areas[key[0]]
    what = f"{area.name}: {target_text(key[1])}"
    text, best = stays_bare(float(left.sum()), risk), (0.0, (-1, -1))
    for i, o in enumerate(year.problem.options):
        if o.area == key[0] and key[1] in o.covers and year.offers[i]:
            for day in year.ask.out:
                best = max(best, (float(left[day : day + o.lasts].sum()), (i, day)))
    gain, (i, day) = best
    if gain < BARE / 2:
        return BareOut(what=what, text=text, why=NO_DAY)
    offer, on = year.of(i), year.on(day)
    if not year.problem.options[i].may(day):
        said = refused(year.account, area, offer, on, bears(year.account, area, on, year.besides))
        why = said[0].sentence if said else breaks(["day"])
    else:
        rules = broken(year.problem, [*chosen, (i, day)], key[0])
        why = breaks(list(dict.fromkeys(rules))) if rules else not_worth(gain)
    return BareOut(what=what, text=text, why=gives(offer.product.name, on, why))


def _old(year: Year) -> list[Choice]:
    """The plan that a new one takes the place of, as choices of the same problem; what it cannot tell is left out."""
    at = {(o.area, o.product): i for i, o in reversed(list(enumerate(year.problem.options))) if year.offers[i]}
    found: list[Choice] = list(year.problem.fixed) if year.old else []
    for p in year.old:
        begin = p.standing.turn.begin
        for part in p.step.products.all():
            i = at.get((str(p.area.pk), str(part.product_id)))
            if i is not None and begin and 0 <= (day := (begin - year.ask.first).days) < year.ask.days:
                found.append((i, day))
    return found


def _change(year: Year, chosen: Sequence[Choice], anew: Sequence[Choice], old: Sequence[Choice]) -> tuple[str, list[str]]:
    """How a plan differs from the one it takes the place of."""
    if not year.old:
        return "", []
    problem, moved, dropped, added = year.problem, list[str](), list[str](), list[str]()
    names: dict[tuple[str, str], tuple[list[int], list[int]]] = {}
    for mine, place in ((old, 0), (anew, 1)):
        for i, day in mine:
            if year.offers[i]:
                names.setdefault((problem.options[i].area, problem.options[i].product), ([], []))[place].append(day)
    for (where, product), (was, now) in names.items():
        area, name = year.areas[where].name, cards(year.account)[int(product)].product.name
        stay = set(was) & set(now)
        was, now = sorted(set(was) - stay), sorted(set(now) - stay)
        for a, b in zip(was, now, strict=False):
            moved.append(moved_text(name, area, year.on(a), year.on(b)))
        dropped += [dropped_text(name, area, year.on(a)) for a in was[len(now) :]]
        added += [added_text(name, area, year.on(b)) for b in now[len(was) :]]
    before, after = tally(problem, old), tally(problem, chosen)
    cost = after.product - before.product
    price = money(abs(cost), year.account.currency, year.ask.by_cost)
    said = change_text(len(moved), len(dropped), len(added), price, cost, _bare(year, chosen) - _bare(year, old))
    return said, [*moved, *dropped, *added]


def _contradictions(year: Year) -> list[str]:
    """The kept steps that the gate refuses, each with what it is against."""
    found = []
    for p in year.fixed:
        begin = p.standing.turn.begin
        if begin:
            found += [contradiction(p.step.name, p.area.name, begin, f.sentence) for f in turn_out(year.account, p).refused[:1]]
    return found


def _to_buy(year: Year, chosen: Sequence[Choice]) -> list[str]:
    """What a plan needs beyond what is on the shelf, by product."""
    left, found = stocks(year.account), []
    for product in dict.fromkeys(year.problem.options[i].product for i, _ in chosen if year.offers[i]):
        have = left.get(int(product))
        need = used(year.problem, chosen, product)
        if have is not None and need > have.base * (1 + 1e-9):
            short = Quantity((need - have.base) / have.unit.size, have.unit)
            found.append(buys(cards(year.account)[int(product)].product.name, str(short)))
    return found
