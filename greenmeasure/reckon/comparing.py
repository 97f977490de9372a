"""Products for one purpose side by side: each at a rate that is like the others', what it brings and costs, what to buy."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from core.errors import InputError
from core.label.match import fits
from core.label.product import Product
from core.label.rate import NUTRIENTS, Basis, LabelRate, Rate, RateUnit
from core.label.targets import find_target
from core.rates.compare import Compared, Offer, compare, equal
from core.readable import foot_of, joined
from core.units import UNITS, Quantity, show_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import OptionOut, rate_in, rate_out
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.queries import machine_of
from greenmeasure.ledger.booked import history
from greenmeasure.reckon.outs import per_foot
from greenmeasure.reckon.queries import by_house, opening
from greenmeasure.reckon.reading import ground_share
from greenmeasure.reckon.schemas import ComparedOut, CompareIn, CompareOut
from greenmeasure.reckon.words import bought_out, compared_sentence, stock_enough
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, card_of, cards, stocks


@dataclass(frozen=True)
class _Line:
    """One product of the comparison, by the row that its label means for the ground."""

    card: Card
    row: RateRow
    fits: bool
    misses: tuple[str, ...]
    found: Compared

    @property
    def offer(self) -> Offer:
        return self.found.candidate


def compared(account: Account, data: CompareIn) -> CompareOut:
    """Products for one purpose on one area.

    Raises:
        InputError: nothing to compare, a rate that needs a sprayer, or one that cannot be read.
    """
    ground = area_of(account, data.area_id).ground
    size = ground_share(data.share, ground) or ground.size
    machine = machine_of(account, data.machine_id).core() if data.machine_id else None
    spray = machine.output_base * size.base if machine and machine.sprays else None
    chosen = _chosen(account, data)
    if not chosen:
        what = data.target or data.kind or "that"
        raise InputError("target", what, f"Nothing on the shelf is for {what}.", "Pick another purpose, or pick products.")
    basis, nutrient = _basis("equal_in", data.equal_in), _basis("nutrient", data.nutrient)
    lines, problems = [], []
    for card in chosen:
        best = fits(card.label_rows, ground, data.target, house=by_house(account, card.core))[0]
        row = list(card.rows.values())[best.index]
        rate = _rate(account, card, row, data)
        try:
            (one,) = compare([Offer(card.core, row.label(), rate, stocks(account).get(card.product.pk))], size, spray)
        except InputError as fault:
            problems.append(_unreckoned(card, row, rate, fault.sentence))
            continue
        lines.append(_Line(card, row, best.fits, tuple(best.misses), one))
    if data.equal_to is not None:
        lines = _matched(data.equal_to, lines, size, spray, basis)
    return _out(account, lines, problems, nutrient)


def _basis(field: str, key: str) -> Basis:
    """What is counted. Raises InputError by its field."""
    found = next((b for b in (Basis.ACTIVE, *NUTRIENTS) if b.value == key), None)
    if found is None:
        raise InputError(field, key, f"“{key}” is not counted here.", "Pick one of the list.")
    return found


def _chosen(account: Account, data: CompareIn) -> list[Card]:
    here = [c for c in cards(account).values() if c.product.archived_at is None and c.rows]
    if data.product_ids:
        return [card_of(account, pk) for pk in data.product_ids]
    wanted = find_target(data.target)
    if wanted:
        return [c for c in here if any((t := find_target(r.target or r.use)) and t.key == wanted.key for r in c.rows.values())]
    return [c for c in here if data.kind and data.kind in (k.value for k in c.core.kinds)]


def _rate(account: Account, card: Card, row: RateRow, data: CompareIn) -> Rate:
    """The rate of a product: as it was chosen, at one place of every label's range, or as the house opens."""
    for i, given in enumerate(data.rates):
        if given.product_id == card.product.pk:
            return rate_in(f"rates.{i}.rate", given.rate)
    label: LabelRate = row.label()
    if not data.at:
        return opening(account, card.core, row.core(), history(account, data.area_id))[0]
    low, high = label.lowest, label.highest
    value = {"low": low.value or high.value, "middle": (low.value + high.value) / 2, "high": high.value}[data.at]
    return Rate(value, high.unit)


def _matched(product_id: int, lines: Sequence[_Line], size: Quantity, spray: float | None, basis: Basis) -> list[_Line]:
    """The lines at the rates that bring as much of something as one of them."""
    reference = next((x for x in lines if x.card.product.pk == product_id), None)
    if reference is None:
        raise InputError("equal_to", product_id, "The product to match is not among them.", "Pick one of the list.")
    found = {o.product.id: o for o in equal(reference.found, [x.offer for x in lines], size, basis)}
    return [
        _Line(x.card, x.row, x.fits, x.misses, compare([found[x.card.core.id]], size, spray)[0])
        for x in lines
        if x.card.core.id in found
    ]


def _out(account: Account, lines: Sequence[_Line], problems: Sequence[ComparedOut], nutrient: Basis) -> CompareOut:
    us = account.us
    forgiving = account.house_rules.of("concentrates") == "forgiving"

    def first(x: _Line) -> tuple[bool, float]:
        dear = x.found.cost if x.found.cost is not None else float("inf")
        return not x.fits, _strength(x.card.core) if forgiving else dear

    best = _best(lines, nutrient)
    top = (max((x.found.active or 0.0 for x in lines), default=0.0), max((x.found.cost or 0.0 for x in lines), default=0.0))
    outs = [_compared_out(account, x, top, best, nutrient) for x in sorted(lines, key=first)]
    cheapest = next((o for o in outs if "cost" in o.best), None) if len(outs) > 1 else None
    held = [b for b in NUTRIENTS if any(x.found.brings.get(b) for x in lines)]
    return CompareOut(
        sentence=compared_sentence(
            len(outs) + len(problems), cheapest.product if cheapest else "", cheapest.cost if cheapest else ""
        ),
        foot=foot_of(us).unit.symbol,
        nutrient=nutrient.text,
        nutrients=[OptionOut(key=b.value, text=b.text) for b in held],
        rows=[*outs, *problems],
    )


def _strength(product: Product) -> float:
    return max((product.share(c) or 0.0 for c in product.contents), default=0.0)


def _best(lines: Sequence[_Line], nutrient: Basis) -> dict[str, int]:
    """Which product is least in each kind of cost, where two or more can be compared."""
    found = {}
    costs: dict[str, Callable[[Compared], float | None]] = {
        "cost": lambda x: x.cost,
        "per_nutrient": lambda x: x.per_gram(nutrient),
        "per_active": lambda x: x.per_gram(Basis.ACTIVE),
    }
    for name, cost in costs.items():
        priced = sorted((value, x.card.product.pk) for x in lines if (value := cost(x.found)) is not None)
        if len(priced) > 1 and priced[0][0] < priced[1][0] * (1 - 1e-9):
            found[name] = priced[0][1]
    return found


def _money(value: float | None, account: Account) -> str:
    return "" if value is None else f"{value:,.2f} {account.currency}"


def _compared_out(account: Account, x: _Line, top: tuple[float, float], best: dict[str, int], nutrient: Basis) -> ComparedOut:
    found, us, core = x.found, account.us, x.card.core
    foot = foot_of(us)
    acre = RateUnit(UNITS["lb" if us else "g"], UNITS["acre" if us else "ha"])
    bought = bought_out(found.purchase, "", "", us) if found.purchase else None
    enough = stock_enough(found.dose.amount, stocks(account).get(x.card.product.pk))
    brought = found.brings.get(nutrient)

    def per(basis: Basis, unit: str) -> str:
        cost = found.per_gram(basis)
        return _money(None if cost is None else cost * UNITS[unit].size, account)

    return ComparedOut(
        product_id=x.card.product.pk,
        row_id=x.row.pk,
        product=x.card.product.name,
        kind=joined([k.text for k in core.kinds]),
        codes=", ".join(core.codes),
        use=x.row.use or x.row.target,
        fits=x.fits,
        misses=list(x.misses),
        rate=rate_out(found.candidate.rate),
        amount=str(found.dose.amount),
        cost=_money(found.cost, account),
        per_foot=_money(None if found.per_area is None else found.per_area * foot.base, account),
        per_nutrient=per(nutrient, "lb" if us else "kg"),
        per_active=per(Basis.ACTIVE, "oz_wt" if us else "g"),
        active=f"{show_number(found.active / acre.size, 3)} {acre.symbol}" if found.active else "",
        brought=f"{per_foot(brought, us)}/{foot.unit.symbol}" if brought else "",
        active_share=(found.active or 0.0) / top[0] if top[0] else 0.0,
        cost_share=(found.cost or 0.0) / top[1] if top[1] else 0.0,
        best=[name for name, pk in best.items() if pk == x.card.product.pk],
        packages=_packages(core),
        stock=enough,
        purchase=" and ".join(bought.packages) + (f", {bought.cost}" if bought.cost else "") if bought else "",
        leftover=bought.leftover if bought else "",
        problem="",
    )


def _packages(product: Product) -> str:
    """The sizes that it is sold in, and their prices."""
    return "; ".join(f"{p.size}, {p.price:,} {p.currency}" if p.price is not None else str(p.size) for p in product.packages)


def _unreckoned(card: Card, row: RateRow, rate: Rate, problem: str) -> ComparedOut:
    return ComparedOut(
        product_id=card.product.pk,
        row_id=row.pk,
        product=card.product.name,
        kind=joined([k.text for k in card.core.kinds]),
        codes=", ".join(card.core.codes),
        use=row.use or row.target,
        fits=False,
        misses=[],
        rate=rate_out(rate),
        amount="",
        cost="",
        per_foot="",
        per_nutrient="",
        per_active="",
        active="",
        brought="",
        active_share=0.0,
        cost_share=0.0,
        best=[],
        packages=_packages(card.core),
        stock="",
        purchase="",
        leftover="",
        problem=problem,
    )
