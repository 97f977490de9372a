"""Answers to the reckon line that need no more than the line itself: reach, conversions, sums, outputs, days."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from core.days import dated, so_many
from core.errors import InputError
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rate import Basis, LabelRate, Rate, RateUnit
from core.machines.sprayer import by_flow
from core.machines.working import rate_of
from core.readable import is_us
from core.reckon.asked import (
    BoomAsked,
    ConversionAsked,
    DateAsked,
    DayOfDegreesAsked,
    FlowAsked,
    SpeedAsked,
    SumAsked,
    WarmthAsked,
)
from core.reckon.days import later
from core.reckon.sums import find_sum
from core.units import AREA, MASS, UNITS, VOLUME, Quantity, Unit, convert, show_number
from core.weather.degree_days import Base, degree_days
from core.weather.words import degree_day_base
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


def sum_answer(asked: SumAsked) -> Answer:
    """What a plain sum comes to; an area in acres or hectares too.

    Raises:
        InputError: a division by zero, or unlike things added.
    """
    found = find_sum(asked.text)
    assert found is not None
    result = found.result
    also = ""
    if result.unit and result.unit.dimension == AREA:
        size = Quantity(result.number, result.unit)
        other = size.to("acre" if is_us(result.unit) else "ha")
        also = f" ({other})" if other.unit is not result.unit else ""
    return Answer(f"{found.text} = {result}{also}.", ())


def warmth(asked: WarmthAsked) -> Answer:
    """A temperature in the other unit: °C = (°F − 32) ÷ 1.8 (NIST SP 811)."""
    value = (asked.value - 32) / 1.8 if asked.fahrenheit else asked.value * 1.8 + 32
    own, other = ("°F", "°C") if asked.fahrenheit else ("°C", "°F")
    return Answer(f"{show_number(asked.value)} {own} is {show_number(value, 4)} {other}.", ())


def flow(asked: FlowAsked, us: bool) -> Answer:
    """A volume in a time, in gal/min or L/min, and in fl oz/min or mL/min; a weight in lb/min or kg/min."""
    minutes = asked.time.base / UNITS["min"].size
    if asked.volume.unit.dimension == VOLUME:
        units = ("gal", "fl_oz") if us else ("l", "ml")
    else:
        units = ("lb", "oz_wt") if us else ("kg", "g")
    main, small = (Quantity(asked.volume.to(u).value / minutes, UNITS[u]) for u in units)
    step = line(
        "Amount ÷ time",
        Term(asked.volume.to(units[0]).value, main.unit.symbol),
        divided_by(minutes, "min"),
        result=Term(main.value, f"{main.unit.symbol}/min"),
    )
    return Answer(f"{asked.volume} in {asked.time} is {main}/min ({small}/min).", (step,))


def boom(asked: BoomAsked, us: bool) -> Answer:
    """The output of nozzles by the flow of one, as a bench finds it, in gal/acre and gal/1000 ft² or L/ha and L/100 m².

    Raises:
        InputError: a pace or a spacing that no sprayer has.
    """
    found = by_flow([asked.volume.base], [asked.time.base], asked.speed.base, asked.spacing.base)
    volume, feet = (UNITS["gal"], ("acre", "kft2")) if us else (UNITS["l"], ("ha", "m2_100"))
    wide, narrow = (rate_of(found.output, RateUnit(volume, UNITS[u])) for u in feet)
    return Answer(f"{asked.volume}/{asked.time.unit.symbol} at {asked.speed}, {asked.spacing} apart, is {wide} ({narrow}).", ())


def speed(asked: SpeedAsked, us: bool) -> Answer:
    """A length in a time, in mph or km/h."""
    found = Quantity(asked.length.base / asked.time.base, UNITS["mps"])
    first, second = (found.to(unit) for unit in (("mph", "kmh") if us else ("kmh", "mph")))
    step = line(
        "Length ÷ time",
        Term(asked.length.value, asked.length.unit.symbol),
        divided_by(asked.time.value, asked.time.unit.symbol),
        result=Term(asked.length.value / asked.time.value, asked.length.unit.symbol, asked.time.unit.symbol),
    )
    return Answer(f"{asked.length} in {asked.time} is {first} ({second}).", (step,))


def spread_over(used: Quantity, grounds: Sequence[Quantity]) -> tuple[Answer, Rate]:
    """The rate that an amount on its ground is, per foot and per acre or hectare, and that rate per foot."""
    base, us = sum(g.base for g in grounds), is_us(grounds[0].unit)
    foot, wide = (UNITS["kft2"], UNITS["acre"]) if us else (UNITS["m2_100"], UNITS["ha"])
    per_foot, per_wide = (Rate(used.value * u.size / base, RateUnit(used.unit, u)) for u in (foot, wide))
    ground = Quantity(base / grounds[0].unit.size, grounds[0].unit)
    step = line(
        "Amount ÷ ground",
        Term(used.value, used.unit.symbol),
        divided_by(base / foot.size, foot.symbol),
        result=Term(per_foot.value, used.unit.symbol, foot.symbol),
    )
    return Answer(f"{used} on {ground} is {per_foot} ({per_wide}).", (step,)), per_foot


def date_answer(asked: DateAsked, today: date) -> Answer:
    """The day so long after another, or the days from one to another, both told from today."""
    start = asked.start.nearest(today)
    if asked.to is not None:
        end = asked.to.nearest(today)
        return Answer(f"From {dated(start)} to {dated(end)}: {so_many(abs((end - start).days))}.", ())
    found = later(start, asked.days, asked.months)
    away = (found - today).days
    told = "today" if away == 0 else f"{so_many(away)} from today" if away > 0 else f"{so_many(-away)} ago"
    return Answer(f"{dated(found)}: {told}.", ())


def degrees_of_day(asked: DayOfDegreesAsked) -> Answer:
    """The degree days of one day by the mean of its extremes. Raises InputError for a base that is none."""
    if asked.low > asked.high:
        raise InputError("line", asked.low, "The low is above the high.", "Check the two.")
    found = float(degree_days(asked.high, asked.low, Base(asked.base)))
    told, base = degree_day_exact(found, asked.fahrenheit), degree_day_base(asked.base, asked.fahrenheit)
    return Answer(f"{told}, by the mean of the extremes, {base}.", ())


def degree_day_exact(total: float, fahrenheit: bool) -> str:
    """The degree days of one day, unrounded, in the unit that was asked, and in the other.

    Args:
        total: the sum [°C·d].
        fahrenheit: whether it was asked in °F·d.
    """
    in_c, in_f = f"{show_number(total)} °C·d", f"{show_number(total * 1.8)} °F·d"
    return f"{in_f} ({in_c})" if fahrenheit else f"{in_c} ({in_f})"
