"""Answers to the reckon line that need no more than the line itself: reach and conversion, and a product unnamed."""

from dataclasses import dataclass

from core.errors import InputError
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rate import Basis, LabelRate, Rate, RateUnit
from core.readable import is_us
from core.reckon.asked import ConversionAsked
from core.units import AREA, MASS, UNITS, Quantity, Unit, convert, show_number
from core.working import Step, Term, divided_by, line, times


@dataclass(frozen=True)
class Answer:
    """One sentence and its working."""

    sentence: str
    working: tuple[Step, ...]


def unnamed(rate: LabelRate) -> Product:
    """The product of a line that names none: a solution or soluble granule, with nothing known of it.

    Raises:
        InputError: the rate counts a nutrient or an active, which only a named product can hold.
    """
    if rate.basis is not Basis.PRODUCT:
        raise InputError(
            "line",
            str(rate),
            f"A rate of {rate.basis.text} needs the product that holds it.",
            "Say which: “… from the” and a product's name.",
        )
    dry = rate.unit.amount.dimension == MASS
    return Product("product", Kind.ADJUVANT, FORMULATIONS["SG" if dry else "SL"])


def one_rate(label: LabelRate) -> Rate:
    """The single rate of a line.

    Raises:
        InputError: the line gave a range.
    """
    if label.low != label.high:
        raise InputError("line", str(label), "That is a range, not one rate.", "Give one rate to reckon with.")
    return label.highest


def reach(amount: Quantity, label: LabelRate) -> Answer:
    """How much ground `amount` covers at the rate.

    Raises:
        InputError: a range, or a rate per volume of spray, which says nothing of ground.
    """
    rate = one_rate(label)
    per = rate.unit.per
    if per is None or per.dimension != AREA:
        raise InputError("line", str(label), "That rate is not per area.", "Give a rate per area, such as lb/M or kg/ha.")
    in_rate = amount.to(rate.unit.amount)
    ground = Quantity(in_rate.value / rate.value * per.size, UNITS["m2"])
    shown = ground.to("ft2" if is_us(per) else "m2")
    other = ground.to("acre" if is_us(per) else "ha")
    terms = [Term(amount.value, amount.unit.symbol)]
    if amount.unit is not rate.unit.amount:
        terms.append(times(amount.unit.size / rate.unit.amount.size, rate.unit.amount.symbol, amount.unit.symbol))
    terms.append(divided_by(rate.value, rate.unit.amount.symbol, per.symbol))
    if per is not shown.unit:
        terms.append(times(per.size / shown.unit.size, shown.unit.symbol, per.symbol))
    step = line("Amount ÷ rate", *terms, result=Term(shown.value, shown.unit.symbol))
    return Answer(f"{amount} goes as far as {shown} ({other}) at {rate}.", (step,))


def convert_line(asked: ConversionAsked) -> Answer:
    """The source of a conversion in its target unit.

    Raises:
        InputError: the two measure different things.
    """
    if isinstance(asked.source, Quantity) and isinstance(asked.target, Unit):
        source, target = asked.source, asked.target
        value = convert(source.value, source.unit, target)
        step = line(
            "Conversion",
            Term(source.value, source.unit.symbol),
            times(source.unit.size / target.size, target.symbol, source.unit.symbol),
            result=Term(value, target.symbol),
        )
        return Answer(f"{source} is {show_number(value, 5)} {target.symbol}.", (step,))
    if isinstance(asked.source, LabelRate) and isinstance(asked.target, RateUnit):
        return _convert_rate(asked.source, asked.target, asked.against)
    raise InputError("line", str(asked.source), "A rate turns into a rate, an amount into an amount.", "Give both alike.")


def _convert_rate(label: LabelRate, target: RateUnit, against: float | None) -> Answer:
    low, high = label.lowest, label.highest
    turned_low, turned = (Rate(low.value, low.unit).to(target) if low.value else None), high.to(target)
    amount, per, goal = high.unit.amount, high.unit.per, target.per
    terms = [Term(high.value, amount.symbol, per.symbol if per else "")]
    if amount is not target.amount:
        terms.append(times(amount.size / target.amount.size, target.amount.symbol, amount.symbol))
    if per and goal and per is not goal:
        terms.append(divided_by(per.size / goal.size, goal.symbol, per.symbol))
    step = line("Conversion", *terms, result=Term(turned.value, target.amount.symbol, goal.symbol if goal else ""))
    span = show_number(turned.value, 5)
    if label.low != label.high and turned_low:
        span = f"{show_number(turned_low.value, 5)} to {span}"
    sentence = f"{label} is {span} {target.symbol}."
    if against is not None:
        times_over = show_number(against / turned.value, 3)
        sentence += f" {show_number(against)} {target.symbol} is {times_over} times that."
    return Answer(sentence, (step,))
