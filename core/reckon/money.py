"""What a line asks of money and of stock: costs, prices, products beside one another, whether there is enough."""

import re

from core.errors import InputError, NotUnderstood
from core.label.rate import Basis
from core.label.wording import WHAT, WHAT_MEANS
from core.reckon.asked import (
    AmountCostAsked,
    AreaCostAsked,
    Asked,
    CompareAsked,
    CompareDosesAsked,
    CostAsked,
    DoseAsked,
    PriceAsked,
    StockAsked,
)
from core.reckon.dosing import WORDS, dose, doses_of, mixed_alike, one_ground
from core.reckon.names import HIDDEN, What, vocabulary
from core.reckon.pieces import Line
from core.units import AREA, MASS, NUMBER_WORDS, VOLUME, Unit, read_unit_at

_COST = re.compile(r"\bcosts?\b|\bprice\b|[$€£]|\bhow much money\b|\bcheap")
_COST_WORDS = vocabulary("cost costs price cheaper cheapest of does per what each the $/m $/ $ €/ha")
_COST_ASKED = re.compile(
    r"\b(?:costs?|price)\b(?:\s+of\b)?|[$€£](?:\s*(?:/|per)\s*[A-Za-z0-9²]+)?|\bwhat (?:does|would|is)\b", re.IGNORECASE
)
_PER_HELD = re.compile(
    rf"\bper\s+(?:(?P<unit>[a-z ]+?)\s+)?(?P<basis>{WHAT.pattern.replace('(?P<what>', '(?:')})\s*$", re.IGNORECASE
)
_PER_UNIT = re.compile(
    rf"\b(?:per|an?|for an?)\s+(?P<unit>(?:fl oz|oz wt|[a-z]+))\s*(?:$|(?:of\s+)?(?:the\s+)?(?={HIDDEN}))", re.IGNORECASE
)
_PER_FOOT = re.compile(r"(?:[$€£]\s*(?:/|per)|\bper)\s*(?P<foot>(?:1,?000 (?:sq )?ft2?|100 m2|[A-Za-z²2]+))(?=\s|$)")
_VERSUS = re.compile(r"\b(?:vs|versus|against|or)\b|^compare\b|\bcompared\b|\bcheaper\b")
_VERSUS_WORDS = vocabulary(
    "vs versus compare compared with against or cost costs price cheaper cheapest which between is per than"
)
_ENOUGH = re.compile(r"\benough\b|\bin stock\b")
_ENOUGH_WORDS = vocabulary("have enough got sprays spray applications application times rounds of more stock in there")
_TIMES = re.compile(
    rf"\b(\d{{1,3}}|{'|'.join(NUMBER_WORDS)})\s+(?:more\s+)?(?:sprays?|applications?|times|rounds?)\b(?:\s+of\b)?", re.I
)
_ENOUGH_ASKED = re.compile(r"\b(?:do|have|i|we|got|there|is|enough|in stock)\b", re.IGNORECASE)


def stock(line: Line) -> Asked | None:
    """Whether there is enough for so many applications."""
    if not _ENOUGH.search(line.text) or line.amounts(VOLUME, MASS):
        return None
    line.only({*WORDS, *_ENOUGH_WORDS})
    asked = dose(line.without(_TIMES).without(_ENOUGH_ASKED))
    if not isinstance(asked, DoseAsked) or not asked.product or asked.rate is None:
        raise NotUnderstood(
            "line", line.typed, "The line does not say of what, or how much.", "Ask “enough … for 3 sprays of … at 0.5”."
        )
    return StockAsked(asked.product, asked.rate, asked.grounds, _times(line))


def _times(line: Line) -> int:
    """For how many applications; for one, unless the line says."""
    match = _TIMES.search(line.masked.text)
    said = match[1].lower() if match else "one"
    return NUMBER_WORDS.get(said) or max(1, int(said))


def compare(line: Line) -> Asked | None:
    """Products beside one another: by the rules of the house, at rates that the line gives, or per unit of what they hold."""
    if not _VERSUS.search(line.text) or not line.called(What.PRODUCT):
        return None
    products = tuple(dict.fromkeys(line.products()))
    if len(products) < 2:
        said = f"Compare {products[0]} with what?"
        raise NotUnderstood("line", line.typed, said, "Name two products or more: “compare A and B on …”.")
    if held := _held(line):
        return PriceAsked(products, *held)
    target = _target(line)
    if line.rates() or line.numbers():
        found = mixed_alike(line)
        line.only({*WORDS, *_VERSUS_WORDS})
        if any(m.rate is None for m in found) or len({m.product for m in found}) < 2:
            raise NotUnderstood(
                "line", line.typed, "The line does not give each product its rate.", "Give each its rate, or none."
            )
        return CompareDosesAsked(found, one_ground(line))
    if not line.called(What.AREA):
        unit, basis = None, Basis.PRODUCT
        if _COST.search(line.text):
            return PriceAsked(products, unit, basis)
        raise NotUnderstood("line", line.typed, "The line does not say on what ground.", "Go on with “on” and an area.")
    if not target:
        line.only(_VERSUS_WORDS)
    return CompareAsked(products, one_ground(line), target)


def _target(line: Line) -> str:
    match = re.search(r"\b(?:for|against)\s+([^\uE000-\uF8FF]+)$", line.masked.text)
    return match[1].strip() if match and not _COST.search(match[1].lower()) else ""


def _held(line: Line) -> tuple[Unit | None, Basis] | None:
    """Per what of its contents or of itself a price is asked."""
    if match := _PER_HELD.search(line.masked.text):
        unit = read_unit_at(match["unit"], 0, "line")[0] if match["unit"] else None
        said = re.sub(r"^(?:of |actual )+", "", match["basis"].strip().lower())
        return unit, WHAT_MEANS[said.split()[-1] if said not in WHAT_MEANS else said]
    if match := _PER_UNIT.search(line.masked.text):
        try:
            unit = read_unit_at(match["unit"], 0, "line", MASS, VOLUME)[0]
        except InputError:
            return None
        return (unit, Basis.PRODUCT) if unit.dimension in (MASS, VOLUME) else None
    return None


def cost(line: Line) -> Asked | None:
    """What a dose costs, or a product per unit of what it holds or per area."""
    if not _COST.search(line.text) or not line.called(What.PRODUCT):
        return None
    if held := _held(line):
        line.only({*_COST_WORDS, *WORDS, *_held_words(line)})
        product = line.product()
        assert product
        return PriceAsked((product,), *held)
    parts = doses_of(line)
    amounts = line.amounts(VOLUME, MASS)
    if len(amounts) == 1 and not line.rates() and not line.numbers() and not line.placed:
        line.only({*_COST_WORDS, *WORDS})
        product = line.product()
        assert product
        return AmountCostAsked(product, amounts[0].quantity)
    if not line.placed:
        if not any(p.rate for p in parts):
            product = line.product()
            assert product
            return PriceAsked((product,), None, Basis.PRODUCT)
        (first, *others) = mixed_alike(line.without(_COST_ASKED))
        if others or first.rate is None:
            raise NotUnderstood("line", line.typed, "The line does not say on what ground.", "Go on with “on” and an area.")
        return AreaCostAsked(first.product, first.rate, _foot(line))
    found = dose(line.without(_COST_ASKED))
    if not isinstance(found, DoseAsked) or not found.product:
        raise NotUnderstood(
            "line", line.typed, "The line does not give one rate.", "Give a rate and an area: “cost of 0.4 fl oz/M …”."
        )
    return CostAsked(found)


def _foot(line: Line) -> Unit | None:
    """The area that a cost is asked per."""
    match = _PER_FOOT.search(line.masked.text)
    try:
        return read_unit_at(match["foot"].replace(",", ""), 0, "line", AREA)[0] if match else None
    except InputError:
        return None


def _held_words(line: Line) -> set[str]:
    return {str(p.read).lower() for p in line.words() if p.start > line.masked.text.lower().rfind("per")}
