"""What a line asks of money and of stock."""

from collections.abc import Sequence

from core.errors import InputError
from core.label.rate import Basis
from core.rates.compare import price_per_base
from core.rates.cost import cost
from core.rates.dose import dose
from core.readable import foot_of, handy, joined
from core.reckon.answer import one_rate
from core.reckon.asked import AmountCostAsked, AreaCostAsked, CompareDosesAsked, CostAsked, PriceAsked, StockAsked
from core.units import MASS, UNITS, VOLUME, Quantity, Unit
from greenmeasure.common.schemas import working_out
from greenmeasure.reckon.line.doses import product_or_nutrient, reckoned_dose
from greenmeasure.reckon.line.here import Here
from greenmeasure.reckon.line.words import alike, amount_costs, cheaper, costs, costs_per, costs_per_area, enough
from greenmeasure.reckon.schemas import LineOut
from greenmeasure.reckon.words import cost_why_not
from greenmeasure.shelf.queries import Card, stocks


def cost_line(here: Here, asked: CostAsked, text: str) -> LineOut:
    """What a dose costs. Raises InputError for a product without a price, and as the dose does."""
    found = reckoned_dose(here, asked.dose, text)
    job = found.job
    if job.cost is None:
        unpriced = next(c.product for c in job.mix if c.amount and c.cost is None)
        raise InputError(
            "product", unpriced.name, cost_why_not(unpriced) or f"{unpriced.name} has no price.", "Add it on the Shelf."
        )
    amounts = joined([f"{handy(c.amount)} of {c.product.name}" for c in job.mix if c.amount])
    each = f"{_money(float(job.cost.per_foot), job.cost.currency)} per {job.cost.foot}"
    sentence = costs(amounts, job.where, _money(float(job.cost.total), job.cost.currency), each)
    return LineOut(
        kind="cost",
        sentence=sentence,
        refused=found.refused,
        details=list(found.said),
        working=working_out(job.cost.working),
        job=found.data,
    )


def price_line(here: Here, asked: PriceAsked) -> LineOut:
    """What each product costs per unit of itself, or of what it holds; several are put side by side, the cheapest first."""
    told = []
    for name in asked.products:
        card = here.shelf[name]
        unit = asked.unit or _unit(card, asked.basis, here.account.us)
        per = unit.symbol if asked.basis is Basis.PRODUCT else f"{unit.symbol} {asked.basis.text}"
        told.append((_price(card, asked.basis, unit), name, _currency(card), per))
    told.sort(key=lambda x: x[0])
    first, *others = told
    if not others:
        return _plain(costs_per(first[1], _money(first[0], first[2]), first[3]))
    if len({(currency, per) for _, _, currency, per in told}) > 1:
        return _compared(alike([costs_per(n, _money(p, c), per).rstrip(".") for p, n, c, per in told]))
    rest = [f"{name} costs {_money(price, currency)} per {per}" for price, name, currency, per in others]
    return _compared(cheaper(first[1], f"{_money(first[0], first[2])} per {first[3]}", rest))


def amount_cost_line(here: Here, asked: AmountCostAsked) -> LineOut:
    """What an amount of a product costs. Raises InputError for a product without a price, or one that is not measured so."""
    card = here.shelf[asked.product]
    cost_of = _price(card, Basis.PRODUCT, asked.amount.unit) * asked.amount.value
    return _plain(amount_costs(str(asked.amount), asked.product, _money(cost_of, _currency(card))))


def area_cost_line(here: Here, asked: AreaCostAsked) -> LineOut:
    """What a rate of a product costs per area. Raises InputError for a product without a price."""
    card, rate = here.shelf[asked.product], one_rate(asked.rate)
    per = asked.per or rate.unit.per
    if per is None or not rate.unit.per_area:
        raise InputError("line", str(rate), "That rate is not per area.", "Give a rate per area, or an area.")
    foot = Quantity(1.0, per)
    found = dose(card.core, rate, foot)
    money = cost(card.core, found.amount, foot, foot_of(here.account.us))
    if money is None:
        raise InputError("product", asked.product, _why_not(card), "Add it on the Shelf.")
    sentence = costs_per_area(str(rate), asked.product, _money(float(money.total), money.currency), per.symbol)
    return LineOut(kind="cost", sentence=sentence, details=[], working=working_out((*found.working, *money.working)), job=None)


def stock_line(here: Here, asked: StockAsked) -> LineOut:
    """Whether there is enough of a product for so many applications. Raises as the dose does."""
    card, rate = here.shelf[asked.product], one_rate(asked.rate)
    found = dose(card.core, rate, here.sizes(asked.grounds))
    need = handy(Quantity(found.amount.value * asked.times, found.amount.unit))
    have = stocks(here.account).get(card.product.pk)
    have = have if have and have.unit.dimension == need.unit.dimension else None
    return LineOut(
        kind="stock",
        sentence=enough(asked.product, asked.times, need, have),
        details=[],
        working=working_out(found.working),
        job=None,
    )


def compare_doses_line(here: Here, asked: CompareDosesAsked, text: str) -> LineOut:
    """Products, each at its own rate, on one ground, by what they cost. Raises as the doses do."""
    ground, found = here.size(asked.ground), []
    foot = foot_of(here.account.us)
    for m in asked.doses:
        card = here.shelf[m.product]
        assert m.rate is not None
        rate = one_rate(m.rate)
        product_or_nutrient(card.core, m, text, rate)
        amount = dose(card.core, rate, ground).amount
        found.append((cost(card.core, amount, ground, foot), m.product, str(handy(amount)), rate))
    details = [f"{name} at {rate}: {amount}" for _, name, amount, rate in found]
    priced = sorted([(float(c.total), name, c.currency) for c, name, _, _ in found if c])
    if len(priced) < len(found) or len({currency for _, _, currency in priced}) > 1:
        return _compared(alike(details), [_why_not(here.shelf[name]) for c, name, _, _ in found if c is None])
    (least, name, currency), *others = priced
    return _compared(cheaper(name, _money(least, currency), [f"{n} costs {_money(price, c)}" for price, n, c in others]), details)


def _plain(sentence: str) -> LineOut:
    return LineOut(kind="cost", sentence=sentence, details=[], working=[], job=None)


def _compared(sentence: str, details: Sequence[str] = ()) -> LineOut:
    return LineOut(kind="compare", sentence=sentence, details=list(details), working=[], job=None)


SMALL_MONEY = 0.1
"""Less money than this is told to a hundredth of a cent (ours)."""


def _money(value: float, currency: str) -> str:
    """An amount of money; what is less than a tenth of one more exactly.

    Args:
        value: how much [the currency].
        currency: of it.
    """
    return f"{value:,.{2 if value >= SMALL_MONEY else 4}f} {currency}"


def _currency(card: Card) -> str:
    package = card.core.package
    return package.currency if package else ""


def _why_not(card: Card) -> str:
    return f"{card.product.name}: {cost_why_not(card.core) or 'its package is not measured as its doses are.'}"


def _price(card: Card, basis: Basis, unit: Unit) -> float:
    """Money per unit of a product, or of what it holds. Raises InputError where that is not known."""
    core, name = card.core, card.product.name
    price = price_per_base(core)
    if price is None:
        raise InputError("product", name, _why_not(card), "Add it on the Shelf.")
    if basis is Basis.PRODUCT:
        if unit.dimension != core.measured_in:
            raise InputError("product", name, f"{name} is not measured in {unit.symbol}.", "Ask in a unit of its package.")
        return price * unit.size
    content = core.content(basis)
    grams = None if content is None else core.g_per_l(content) if core.measured_in == VOLUME else core.share(content)
    if not grams or unit.dimension != MASS:
        raise InputError(
            "product", name, f"How much {basis.text} {name} holds is not known.", "Add its contents, and its density."
        )
    return price / grams * unit.size


def _unit(card: Card, basis: Basis, us: bool) -> Unit:
    if basis is not Basis.PRODUCT or card.core.measured_in == MASS:
        return UNITS["lb" if us else "kg"]
    return UNITS["fl_oz" if us else "l"]
