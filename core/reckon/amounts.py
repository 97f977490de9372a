"""What a line asks of amounts: what they bring, how far they go, what rate they were, of sizes, of water, and of outputs."""

import re

from core.errors import InputError, NotUnderstood
from core.label.rate import Basis
from core.reckon.asked import (
    Asked,
    BackwardsAsked,
    BoomAsked,
    BringsAsked,
    BringsOnAsked,
    CardAsked,
    CoversAsked,
    CupAsked,
    FlowAsked,
    MeasureAsked,
    OutputAsked,
    RateOfAsked,
    ReachAsked,
    SizeAsked,
    SpeedAsked,
    WaterAsked,
)
from core.reckon.dosing import PACKAGES, WORDS, carded, grounds_of, one_ground
from core.reckon.names import What, vocabulary
from core.reckon.pieces import Degrees, Is, Line
from core.units import AREA, LENGTH, MASS, NUMBER_WORDS, SPEED, TIME, UNITS, VOLUME, Quantity, celsius

_WATER = re.compile(r"\bwater(?:ed|ing)?\b|\bhow long\b|\birrigat|\brun\b")
_WATER_WORDS = vocabulary(
    "water watered watering in long irrigate irrigation run depth of litres liters gallons volume as many to"
)
_BRINGS = re.compile(
    r"\bbrings?\b|\bsupply\b|\bsupplies\b"
    r"|\bhow much (?:n|p2o5|k2o|fe|iron|nitrogen|p|k)$|\bhow much (?:n|nitrogen|iron|fe) "
)
_NUTRIENT_WORDS = vocabulary("n p k p2o5 k2o fe iron nitrogen phosphate potash")
_BACK = re.compile(r"\b(?:what|which) rate\b|^is\b.*\b(?:ok|okay|right|fine|enough|too)\b|\bstarted with\b|\bleft\b")
_BACK_WORDS = vocabulary(
    "rate which was were are does make is ok okay right fine too much started with left less minus used ended ending"
)
_REACH = re.compile(
    r"\bhow far\b|\bhow much (?:area|ground)\b|\bhow many (?:sq|square|acres?|ft2|m2|ha\b|hectares)"
    r"|\bcovers?\b|\btreats?\b|\blasts?\b"
)
_REACH_WORDS = vocabulary(
    "far area ground does do will go goes cover covers treat treats reach at bag bags bottle jug pack one full tank "
    "can sprayed done left many sq square ft feet ft2 m2 metres acre acres ha hectares"
)
_CUP = re.compile(r"^(?:a )?cup\b")
_OUTPUT_WORDS = vocabulary(
    "caught covered cover one nozzle nozzles tip my output speed mph km/h kph m/s water sprayed spread used walked "
    "drove fill full catch each was collected what"
)


def water(line: Line) -> Asked | None:
    """Minutes for a depth on an area, or how much water it is."""
    depths = line.amounts(LENGTH)
    asked = bool(_WATER.search(line.text))
    times, product = line.amounts(TIME), line.called(What.PRODUCT)
    if line.rates() or line.amounts(VOLUME, MASS) or line.numbers():
        return None
    if not depths and not (asked and line.placed and (product or times)):
        return None
    if depths and not asked and (product or not line.called(What.AREA)):
        return None
    line.only(_WATER_WORDS)
    if not line.placed:
        raise NotUnderstood("line", line.typed, "The line does not say on what ground.", "Go on with “on” and an area.")
    volume = (
        bool(re.search(r"\b(?:litres?|liters?|gallons?|l|gal|volume|how much)\b", line.text.split(" in ", 1)[-1]))
        and "how long" not in line.text
    )
    area = one_ground(line)
    if depths:
        return WaterAsked(area.area, depths[0].quantity, volume)
    if times:
        return WaterAsked(area.area, None, time=times[0].quantity)
    return WaterAsked(area.area, None, product=line.product())


def brings(line: Line) -> Asked | None:
    """What a rate of a product brings."""
    if not _BRINGS.search(line.text):
        return None
    product, rates, amounts = line.product(), line.rates(), line.amounts(VOLUME, MASS)
    if not product and not line.has("bring", "brings", "supply", "supplies"):
        return None
    line.only({"bring", "brings", "supply", "supplies", "does", *WORDS, *_NUTRIENT_WORDS})
    if product and amounts and not rates and line.placed:
        return BringsOnAsked(product, amounts[0].quantity, grounds_of(line))
    if not product or not rates:
        raise NotUnderstood("line", line.typed, "The line does not say what rate of what.", "Ask “what does 3 lb/M of … bring”.")
    return BringsAsked(rates[0], product)


def cup(line: Line) -> Asked | None:
    """A cup checked by the weight of water in it."""
    volumes, weights = line.amounts(VOLUME), line.amounts(MASS)
    if not _CUP.search(line.text) or not volumes or not weights:
        return None
    line.only({"cup", "weighs", "holds", "water", "deg", "degrees"})
    warm = next((p.read for p in line.of(Is.WARM) if isinstance(p.read, Degrees)), Degrees(20.0, False))
    at = celsius("line", warm.value, "degF" if warm.fahrenheit else "degC")
    return CupAsked(volumes[0].quantity, weights[0].quantity, at)


def measure(line: Line) -> Asked | None:
    """How to measure an amount."""
    if not re.match(r"measure\b", line.text):
        return None
    line.only({"measure"})
    amounts = line.amounts(VOLUME, MASS)
    if not amounts:
        raise NotUnderstood("line", line.typed, "The line gives no amount.", "Ask “measure 0.38 fl oz of …”.")
    return MeasureAsked(amounts[0].quantity, line.product())


def backwards(line: Line) -> Asked | None:
    """The rate that an amount, or what was used of one, is on its ground."""
    amounts = [a.quantity for a in line.amounts(VOLUME, MASS)]
    if line.has(*PACKAGES) and not amounts and (packed := _packages(line)):
        line.only({*_BACK_WORDS, *PACKAGES})
        product = line.product()
        assert product
        return BackwardsAsked(packed, None, product, grounds_of(line))
    if not amounts or not line.placed or line.rates():
        return None
    asked = bool(_BACK.search(line.text))
    if not asked and not (re.search(r"\b(?:on|over)\b", line.text) and not line.called(What.PRODUCT) and not line.of(Is.NUMBER)):
        return None
    if any(a.basis is not Basis.PRODUCT for a in line.amounts(VOLUME, MASS)):
        return None
    line.only(_BACK_WORDS)
    product = line.product()
    if product is None:
        return RateOfAsked(_used(amounts), grounds_of(line))
    left = amounts[1] if len(amounts) > 1 else None
    if left is None and line.has("left") and (bare := line.numbers()):
        left = Quantity(bare[0], amounts[0].unit)
    return BackwardsAsked(amounts[0], left, product, grounds_of(line))


_COUNTED = re.compile(rf"(?:\d|\b(?:{'|'.join(NUMBER_WORDS)}))\s+(?:{'|'.join(sorted(PACKAGES))})\b")


def _packages(line: Line) -> Quantity | None:
    """So many packages of the line's product, on its ground; None where it gives no number of them.

    Raises:
        InputError: the product's card has no package.
    """
    product = line.product() if line.called(What.PRODUCT) and line.called(What.AREA) else None
    if product is None or line.rates() or not (len(line.numbers()) == 1 and _COUNTED.search(line.text)):
        return None
    package = line.names.good(product).package
    if package is None:
        raise InputError("product", product, f"{product} has no package on its card.", "Give the amount with its unit.")
    return Quantity(line.numbers()[0] * package.value, package.unit)


def _used(amounts: list[Quantity]) -> Quantity:
    had, *rest = amounts
    if not rest:
        return had
    return Quantity(had.value - rest[0].to(had.unit).value, had.unit)


def reach(line: Line) -> Asked | None:
    """How much ground an amount covers at a rate, or a machine with its tank."""
    if not _REACH.search(line.text):
        return None
    amounts, machine = [a.quantity for a in line.amounts(VOLUME, MASS)], line.machine()
    line.only({*_REACH_WORDS, *WORDS})
    if machine and not line.rates() and not line.numbers():
        return CoversAsked(machine, amounts[0] if amounts else None) if not line.amounts(AREA) else None
    if not amounts:
        raise NotUnderstood("line", line.typed, "The line gives no amount.", "Ask “how far does 30 lb go at 4 lb/acre”.")
    rates, product = line.rates(), line.product()
    if not rates and line.numbers() and (rate := carded(line, product, line.numbers()[0])):
        rates = [rate]
    if not rates:
        raise NotUnderstood("line", line.typed, "The line gives no rate.", "Ask “how far does 30 lb go at 4 lb/acre”.")
    return ReachAsked(amounts[0], product, rates[0])


_SIZE = re.compile(r"\bhow (?:big|large)\b|\b(?:size|area) of\b")


def size(line: Line) -> Asked | None:
    """How big some ground is; ground alone asks the same, and a product alone what its card rates it at."""
    alone = len(line.pieces) == len(line.of(Is.NAME)) + len(line.of(Is.BREAK))
    if line.called(What.AREA) and not line.called(What.PRODUCT) and (_SIZE.search(line.text) or alone):
        line.only({"big", "large", "size", "area", "are", "together"})
        return SizeAsked(grounds_of(line))
    if alone and len(line.pieces) == 1 and line.called(What.PRODUCT):
        return CardAsked(line.products()[0])
    if alone and len(line.pieces) == 1 and (machine := line.machine()):
        return CoversAsked(machine, None)
    return None


_BOOM_WORDS = vocabulary("gpm lpm /min /minute min minute per spacing spaced apart gal acre l ha")
_FLOW = re.compile(r"\b(gpm|lpm)\b|/\s*min(?:ute)?\b|\bper min(?:ute)?\b", re.IGNORECASE)


def boom(line: Line) -> Asked | None:
    """The output of nozzles from the flow of one, the speed and their spacing."""
    speeds, lengths = line.amounts(SPEED), line.amounts(LENGTH)
    match = _FLOW.search(line.masked.text)
    if not match or len(speeds) != 1 or len(lengths) != 1:
        return None
    volumes = [a.quantity for a in line.amounts(VOLUME)]
    if match[1] and line.numbers():
        volumes = [Quantity(line.numbers()[0], UNITS["gal" if match[1].lower() == "gpm" else "l"])]
    if len(volumes) != 1:
        return None
    line.only({*_OUTPUT_WORDS, *_BOOM_WORDS})
    return BoomAsked(volumes[0], Quantity(1.0, UNITS["min"]), speeds[0].quantity, lengths[0].quantity)


def output(line: Line) -> Asked | None:
    """An output from an amount and its ground, a flow from an amount and its time, a speed from a length and its time."""
    spent, grounds = [a.quantity for a in line.amounts(VOLUME, MASS)], [a.quantity for a in line.amounts(AREA)]
    times, lengths = [a.quantity for a in line.amounts(TIME)], [a.quantity for a in line.amounts(LENGTH)]
    if line.rates() or line.called(What.PRODUCT) or line.called(What.AREA):
        return None
    if len(lengths) == len(times) == 1 and not spent:
        line.only(_OUTPUT_WORDS)
        return SpeedAsked(lengths[0], times[0])
    if len(spent) == len(times) == 1 and not grounds and not lengths:
        line.only(_OUTPUT_WORDS)
        return FlowAsked(spent[0], times[0])
    if len(spent) == len(grounds) == 1 and not times:
        line.only(_OUTPUT_WORDS)
        return OutputAsked(spent[0], grounds[0], line.machine())
    return None
