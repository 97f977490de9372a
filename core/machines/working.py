"""The working of a calibration, line by line, in the units of one system."""

from collections.abc import Sequence
from statistics import fmean

from core.label.rate import Rate, RateUnit
from core.machines.sprayer import Course
from core.readable import foot_of
from core.units import UNITS, Unit, show_number
from core.working import Step, Term, divided_by, line, plus, times


def output_unit(us: bool) -> RateUnit:
    """The unit that outputs are told in: gal/1000 ft² or L/100 m²."""
    return RateUnit(UNITS["gal" if us else "l"], foot_of(us).unit)


def spread_unit(us: bool) -> RateUnit:
    """The unit that granules are told in: lb/1000 ft² or kg/100 m²."""
    return RateUnit(UNITS["lb" if us else "kg"], foot_of(us).unit)


def rate_of(base: float, unit: RateUnit) -> Rate:
    """A rate [L/m² or g/m²] in a unit.

    Args:
        base: of the rate's own base [L/m² or g/m²].
        unit: that both are in.
    """
    return Rate(base / unit.size, unit)


def _mean(title: str, values: Sequence[float], symbol: str) -> list[Step]:
    if len(values) == 1:
        return []
    first, *rest = values
    terms = (Term(first, symbol), *(plus(v, symbol) for v in rest))
    return [line(f"{title}: the mean of {len(values)} runs", *terms, divided_by(len(values)), result=Term(fmean(values), symbol))]


def strip(area: float, used: Sequence[float], us: bool, unit: RateUnit) -> tuple[Step, ...]:
    """Used on a strip: amount ÷ ground.

    Args:
        area: of the strip [m²].
        used: run by run [L or g].
        us: whether in US units.
        unit: that the answer is told in.
    """
    amount, foot = unit.amount, foot_of(us).unit
    ground = UNITS["ft2" if us else "m2"]
    values = [v / amount.size for v in used]
    mean, covered = fmean(values), area / foot.size
    return (
        *_mean("Used", values, amount.symbol),
        line(
            f"Ground in {foot.symbol}",
            Term(area / ground.size, ground.symbol),
            divided_by(foot.size / ground.size, ground.symbol, foot.symbol),
            result=Term(covered, foot.symbol),
        ),
        line(
            "Put down: used ÷ ground",
            Term(mean, amount.symbol),
            divided_by(covered, foot.symbol),
            result=Term(mean / covered, amount.symbol, foot.symbol),
        ),
    )


def flow(flows: Sequence[float], pace: float, width: float, us: bool) -> tuple[Step, ...]:
    """Flow made an output by pace and swath.

    Args:
        flows: run by run [L/s].
        pace: [m/s].
        width: of the swath [m].
        us: whether in US units.
    """
    unit = output_unit(us)
    amount, foot, length = unit.amount, foot_of(us).unit, UNITS["ft" if us else "m"]
    a_minute = [f * 60 / amount.size for f in flows]
    mean = fmean(a_minute)
    speed, swath = pace * 60 / length.size, width / length.size
    square = UNITS["ft2" if us else "m2"]
    ground = speed * swath / (foot.size / square.size)
    return (
        *_mean("Flow", a_minute, f"{amount.symbol}/min"),
        line(
            "Ground in a minute: pace × swath",
            Term(speed, f"{length.symbol}/min"),
            times(swath, length.symbol),
            result=Term(speed * swath, f"{square.symbol}/min"),
        ),
        line(
            "Put down: flow ÷ ground",
            Term(mean, f"{amount.symbol}/min"),
            divided_by(ground, f"{foot.symbol}/min"),
            result=Term(mean / ground, amount.symbol, foot.symbol),
            note=_short(mean, pace, width, us),
        ),
    )


def _short(a_minute: float, pace: float, width: float, us: bool) -> str:
    """The trade's one-line form of the same sum, with its constant."""
    if us:
        mph, inches = pace / UNITS["mph"].size, width / UNITS["in"].size
        said = f"5,940 × {show_number(a_minute)} gal/min ÷ ({show_number(mph, 3)} mph × {show_number(inches)} in)"
        return f"The same in one line: {said} = {show_number(5940 * a_minute / (mph * inches))} gal/acre."
    kmh = pace / UNITS["kmh"].size
    said = f"600 × {show_number(a_minute)} L/min ÷ ({show_number(kmh, 3)} km/h × {show_number(width)} m)"
    return f"The same in one line: {said} = {show_number(600 * a_minute / (kmh * width))} L/ha."


def emptying(litres: float, seconds: Sequence[float], pace: float, width: float, us: bool) -> tuple[Step, ...]:
    """A known volume [L] sprayed out in so many seconds, run by run; then as `flow`.

    Args:
        litres: put out [L].
        seconds: it took [s].
        pace: walked [m/s].
        width: of the swath [m].
        us: whether to say it in US units.
    """
    amount = UNITS["gal" if us else "l"]
    volume, minutes = litres / amount.size, fmean(seconds) / 60
    flows = [litres / s for s in seconds]
    first = line(
        "Flow: volume ÷ time",
        Term(volume, amount.symbol),
        divided_by(minutes, "min"),
        result=Term(volume / minutes, f"{amount.symbol}/min"),
    )
    if len(seconds) > 1:
        return flow(flows, pace, width, us)
    return (first, *flow(flows, pace, width, us))


def catch(course: Course, caught: Sequence[float]) -> tuple[Step, ...]:
    """One nozzle's catch [L] on a course: what is caught reads as the output.

    Args:
        course: walked in the catch.
        caught: by one nozzle [L].
    """
    unit, out = UNITS[course.catch_unit], RateUnit.from_key(course.output_unit)
    values = [v / unit.size for v in caught]
    mean = fmean(values)
    note = f"On {course.name}, 1 {unit.symbol} caught is 1 {out.symbol}."
    foot = out.per.symbol if out.per else ""
    return (
        *_mean("Caught", values, unit.symbol),
        line("Read as an output", Term(mean, unit.symbol), result=Term(mean, out.amount.symbol, foot), note=note),
    )


def dial(concentration: float, flow_rate: float, seconds: float, area: float, us: bool) -> tuple[Step, ...]:
    """A hose-end's product: dial × flow [L/s] × time [s] ÷ ground [m²].

    Args:
        concentration: of product in the bottle [L/L].
        flow_rate: of water through it [L/s].
        seconds: over the ground [s].
        area: covered [m²].
        us: whether to say it in US units.
    """
    amount, small, foot = UNITS["gal" if us else "l"], UNITS["fl_oz" if us else "ml"], foot_of(us).unit
    a_minute, minutes, covered = flow_rate * 60 / amount.size, seconds / 60, area / foot.size
    spray = a_minute * minutes
    product = concentration * spray * amount.size / small.size
    return (
        line("Spray", Term(a_minute, amount.symbol, "min"), times(minutes, "min"), result=Term(spray, amount.symbol)),
        line(
            "Product in it",
            Term(concentration * amount.size / small.size, small.symbol, amount.symbol),
            times(spray, amount.symbol),
            result=Term(product, small.symbol),
        ),
        line(
            "Put down: product ÷ ground",
            Term(product, small.symbol),
            divided_by(covered, foot.symbol),
            result=Term(product / covered, small.symbol, foot.symbol),
        ),
    )


def length_text(metres: float, us: bool) -> str:
    """A length as one paces it: in ft or m.

    Args:
        metres: a length [m].
        us: whether to say it in US units.
    """
    unit: Unit = UNITS["ft" if us else "m"]
    return f"{show_number(metres / unit.size, 3)} {unit.symbol}"


def pace_text(pace: float, us: bool) -> str:
    """A pace [m/s] as one drives it and as one walks it: mph and ft a second, or km/h and m a second."""
    speed, step = UNITS["mph" if us else "kmh"], UNITS["ft" if us else "m"]
    return f"{show_number(pace / speed.size, 3)} {speed.symbol}, {show_number(pace / step.size, 3)} {step.symbol}/s"


def time_text(seconds: float) -> str:
    """A time as a watch shows it: 42.5 s, 2 min 10 s, 1 h 5 min.

    Args:
        seconds: a time [s].
    """
    if seconds < 60:
        return f"{show_number(round(seconds, 1))} s"
    whole = round(seconds)
    if whole < 3600:
        return f"{whole // 60} min {whole % 60} s" if whole % 60 else f"{whole // 60} min"
    minutes = round(seconds / 60)
    return f"{minutes // 60} h {minutes % 60} min" if minutes % 60 else f"{minutes // 60} h"
