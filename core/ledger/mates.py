"""What a label says of what else is in the tank: an adjuvant, the most when mixed, what must never all be there."""

from collections.abc import Sequence

from core.findings import Finding, Weight
from core.label.product import Kind, Product
from core.label.rate import Rate, show_label_rate
from core.label.rules import Helper, Row
from core.ledger.history import Applied
from core.ledger.rotation import HELPERS, binding
from core.rates.limits import Stand, stand_of
from core.readable import joined


def mates_of(plan: Applied, past: Sequence[Applied]) -> list[Applied]:
    """What goes down on the same ground in the same tank."""
    return [a for a in past if plan.goes_with(a) and a.product != plan.product]


def mixed(product: Product, row: Row, rate: Rate, mates: Sequence[Applied]) -> list[Finding]:
    """What a product's label says of its tank.

    Args:
        product: whose label it is.
        row: its label row.
        rate: as it is planned, in the row's kind of unit.
        mates: what else is in the tank on this ground; what goes in to taste is not among them.
    """
    if not product.formulation.sprayed:
        return []
    return [*_adjuvant(product, mates), *_most(product, rate, mates), *_all(product, mates)]


def _adjuvant(product: Product, mates: Sequence[Applied]) -> list[Finding]:
    there = [a for a in mates if a.kind is Kind.ADJUVANT]
    if product.rules.adjuvant is Helper.NEEDED and not there:
        said = f"The label of {product.name} asks for an adjuvant, and none is in the tank. Add it to the tank."
        return [Finding("adjuvant-needed", Weight.WARN, said)]
    if product.rules.adjuvant is Helper.FORBIDDEN and there:
        said = f"The label of {product.name} forbids adjuvants, and {there[0].product} is in the tank. Take it out."
        return [Finding("adjuvant-forbidden", binding(product), said)]
    return []


def _most(product: Product, rate: Rate, mates: Sequence[Applied]) -> list[Finding]:
    most = product.rules.most_mixed
    partners = [a.product for a in mates if a.kind not in HELPERS]
    if most is None or not partners or most.highest.unit.kind != rate.unit.kind:
        return []
    if stand_of(rate.to(most.highest.unit).value, 0.0, most.highest.value) is not Stand.ABOVE:
        return []
    said = f"{rate} of {product.name} is above the most where it is mixed ({joined(partners)}): {show_label_rate(most)}."
    return [Finding("most-mixed", binding(product), said)]


def _all(product: Product, mates: Sequence[Applied]) -> list[Finding]:
    wanted = product.rules.never_all
    if not wanted or not all(any(_is(name, a) for a in mates) for name in wanted):
        return []
    said = f"The label of {product.name} never allows {joined(list(wanted))} all in one tank with it. Take one of them out."
    return [Finding("never-all", binding(product), said)]


def _is(name: str, a: Applied) -> bool:
    return name.casefold() in {a.product.casefold(), *(c.casefold() for c in a.codes), *(n.casefold() for n in a.actives)}
