"""What a reckon line can ask."""

from dataclasses import dataclass

from core.label.product import Kind
from core.label.rate import Basis, LabelRate, RateUnit
from core.reckon.days import Said
from core.units import Quantity, Unit


@dataclass(frozen=True)
class GroundAsked:
    """A name or a size, and how much of it, as a fraction."""

    area: str | Quantity
    share: float = 1.0


@dataclass(frozen=True)
class MixedAsked:
    """One more product in the tank: RATE [of] PRODUCT; without a rate it goes in to taste."""

    rate: LabelRate | None
    product: str
    said_product: bool = False


@dataclass(frozen=True)
class DoseAsked:
    """RATE [of PRODUCT] {+ RATE [of] PRODUCT} on GROUNDS [with MACHINE].

    Without ground it is for so much `spray` of the machine, or for a full tank of it. `said_product` tells a rate that says it
    counts product; `others` are what else is in the tank; `packages` asks how many of them it takes.
    """

    rate: LabelRate | None
    product: str | None
    grounds: tuple[GroundAsked, ...]
    machine: str | None
    passes: int | None
    said_product: bool = False
    others: tuple[MixedAsked, ...] = ()
    spray: Quantity | None = None
    packages: bool = False


@dataclass(frozen=True)
class MixAsked:
    """A kept mix, on its own ground and with its own machine where none are named."""

    mix: str
    grounds: tuple[GroundAsked, ...] = ()
    machine: str | None = None
    passes: int | None = None


@dataclass(frozen=True)
class EarlierAsked:
    """What went down on a day, once more; on one area, where it is named."""

    day: Said
    area: str | None = None


@dataclass(frozen=True)
class ReachAsked:
    """How far does AMOUNT go at RATE."""

    amount: Quantity
    product: str | None
    rate: LabelRate


@dataclass(frozen=True)
class ConversionAsked:
    """A rate or an amount in another unit, and the rate to compare it with where the line gave one."""

    source: LabelRate | Quantity
    target: RateUnit | Unit
    against: float | None = None


@dataclass(frozen=True)
class BackwardsAsked:
    """What rate is AMOUNT, or what AMOUNT less AMOUNT left, of PRODUCT on GROUNDS."""

    had: Quantity
    left: Quantity | None
    product: str
    grounds: tuple[GroundAsked, ...]


@dataclass(frozen=True)
class BringsAsked:
    """What does RATE of PRODUCT bring."""

    rate: LabelRate
    product: str


@dataclass(frozen=True)
class BringsOnAsked:
    """What AMOUNT of PRODUCT on GROUNDS brings."""

    product: str
    amount: Quantity
    grounds: tuple[GroundAsked, ...]


@dataclass(frozen=True)
class CompareAsked:
    """Compare PRODUCTS on GROUND for TARGET."""

    products: tuple[str, ...]
    ground: GroundAsked
    target: str


@dataclass(frozen=True)
class MeasureAsked:
    """Measure AMOUNT of PRODUCT."""

    amount: Quantity
    product: str | None


@dataclass(frozen=True)
class CupAsked:
    """A cup whose MARK holds water of WEIGHT at so many degrees [°C]."""

    mark: Quantity
    weight: Quantity
    celsius: float


@dataclass(frozen=True)
class SpanAsked:
    """PRODUCT at the ends of a range on GROUNDS, and in its middle where that was asked; the label's range without a rate."""

    product: str | None
    rate: LabelRate | None
    grounds: tuple[GroundAsked, ...]
    middle: bool = False


@dataclass(frozen=True)
class SprayAsked:
    """PRODUCT in so much finished spray, at a rate per volume of it; at the label's own for spots without one."""

    product: str | None
    rate: LabelRate | None
    spray: Quantity


@dataclass(frozen=True)
class HistoryAsked:
    """What went down last, on AREA, of PRODUCT, or of a kind of product."""

    area: str | None
    product: str | None
    kind: Kind | None = None


@dataclass(frozen=True)
class BroughtAsked:
    """How much of a nutrient AREA has had this season."""

    area: str
    basis: Basis


@dataclass(frozen=True)
class SizeAsked:
    """How big GROUNDS are."""

    grounds: tuple[GroundAsked, ...]


@dataclass(frozen=True)
class CardAsked:
    """The rates on PRODUCT's card."""

    product: str


@dataclass(frozen=True)
class MayAsked:
    """Can PRODUCT go on AREA, on a day; today without one."""

    product: str
    area: str
    day: Said | None


@dataclass(frozen=True)
class DateAsked:
    """The day so long after another (before it, below zero), or the days from one to another."""

    start: Said
    days: int = 0
    months: int = 0
    to: Said | None = None


@dataclass(frozen=True)
class DegreeDaysAsked:
    """Degree days since a day, or since PRODUCT went on AREA; the day on which they reach `total` [°C·d], where it is given.

    `base` is in °C; `fahrenheit` tells that the answer is wanted in °F·d.
    """

    base: float | None
    fahrenheit: bool
    since: Said | None = None
    product: str | None = None
    area: str | None = None
    total: float | None = None


@dataclass(frozen=True)
class DayOfDegreesAsked:
    """The degree days of one day of these extremes, over a base [°C]."""

    high: float
    low: float
    base: float
    fahrenheit: bool


@dataclass(frozen=True)
class WaterAsked:
    """How long to water in on AREA: a depth, or what PRODUCT's label asks; how much water it is, where `volume`.

    With `time` in place of a depth, what that much watering puts down.
    """

    area: str | Quantity
    depth: Quantity | None
    volume: bool = False
    product: str | None = None
    time: Quantity | None = None


@dataclass(frozen=True)
class CostAsked:
    """What a dose costs."""

    dose: DoseAsked


@dataclass(frozen=True)
class PriceAsked:
    """What each product costs per unit of what it holds: of itself, without a basis."""

    products: tuple[str, ...]
    unit: Unit | None
    basis: Basis


@dataclass(frozen=True)
class AreaCostAsked:
    """What PRODUCT at a rate costs per area: that of the rate, unless another was asked."""

    product: str
    rate: LabelRate
    per: Unit | None = None


@dataclass(frozen=True)
class AmountCostAsked:
    """What AMOUNT of PRODUCT costs."""

    product: str
    amount: Quantity


@dataclass(frozen=True)
class StockAsked:
    """Is there enough of PRODUCT for so many applications at a rate."""

    product: str
    rate: LabelRate
    grounds: tuple[GroundAsked, ...]
    times: int


@dataclass(frozen=True)
class CompareDosesAsked:
    """Products, each at its own rate, on one ground."""

    doses: tuple[MixedAsked, ...]
    ground: GroundAsked


@dataclass(frozen=True)
class RateOfAsked:
    """What rate AMOUNT on a size of ground is, of no product."""

    amount: Quantity
    grounds: tuple[GroundAsked, ...]


@dataclass(frozen=True)
class CoversAsked:
    """How much ground a volume of spray covers, by the output of MACHINE; its tank without an amount."""

    machine: str
    spray: Quantity | None


@dataclass(frozen=True)
class OutputAsked:
    """The output of MACHINE from a volume or a weight and the ground that it covered."""

    used: Quantity
    ground: Quantity
    machine: str | None


@dataclass(frozen=True)
class BoomAsked:
    """The output of nozzles from the flow of one, the speed and what lies between two."""

    volume: Quantity
    time: Quantity
    speed: Quantity
    spacing: Quantity


@dataclass(frozen=True)
class FlowAsked:
    """A volume in a time."""

    volume: Quantity
    time: Quantity


@dataclass(frozen=True)
class SpeedAsked:
    """A length in a time."""

    length: Quantity
    time: Quantity


@dataclass(frozen=True)
class SumAsked:
    """Plain arithmetic of numbers and quantities."""

    text: str


@dataclass(frozen=True)
class WarmthAsked:
    """A temperature in the other unit."""

    value: float
    fahrenheit: bool


Asked = (
    MixAsked
    | EarlierAsked
    | DoseAsked
    | SpanAsked
    | SprayAsked
    | ReachAsked
    | CoversAsked
    | ConversionAsked
    | WarmthAsked
    | SumAsked
    | BackwardsAsked
    | RateOfAsked
    | BringsAsked
    | BringsOnAsked
    | CompareAsked
    | CompareDosesAsked
    | PriceAsked
    | CostAsked
    | AreaCostAsked
    | AmountCostAsked
    | StockAsked
    | HistoryAsked
    | BroughtAsked
    | SizeAsked
    | CardAsked
    | MayAsked
    | DateAsked
    | DegreeDaysAsked
    | DayOfDegreesAsked
    | WaterAsked
    | OutputAsked
    | FlowAsked
    | BoomAsked
    | SpeedAsked
    | MeasureAsked
    | CupAsked
)
