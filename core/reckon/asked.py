"""What a reckon line can ask, and the names that it may use."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from core.label.rate import LabelRate, RateUnit
from core.reckon.earlier import Day
from core.units import Quantity, Unit


@dataclass(frozen=True)
class Names:
    """The names that a line may use."""

    areas: Sequence[str] = field(default=())
    products: Sequence[str] = field(default=())
    machines: Sequence[str] = field(default=())
    mixes: Sequence[str] = field(default=())


@dataclass(frozen=True)
class GroundAsked:
    """A name or a size, and how much of it, as a fraction."""

    area: str | Quantity
    share: float = 1.0


@dataclass(frozen=True)
class MixedAsked:
    """One more product in the tank: RATE [of] PRODUCT."""

    rate: LabelRate
    product: str
    said_product: bool = False


@dataclass(frozen=True)
class DoseAsked:
    """RATE [of PRODUCT] {+ RATE [of] PRODUCT} on GROUNDS [with MACHINE].

    `said_product` tells a rate that says it counts product; `others` are what else is in the tank.
    """

    rate: LabelRate
    product: str | None
    grounds: tuple[GroundAsked, ...]
    machine: str | None
    passes: int | None
    said_product: bool = False
    others: tuple[MixedAsked, ...] = ()


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

    day: Day
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


Asked = (
    MixAsked
    | EarlierAsked
    | DoseAsked
    | ReachAsked
    | ConversionAsked
    | BackwardsAsked
    | BringsAsked
    | CompareAsked
    | MeasureAsked
    | CupAsked
)
