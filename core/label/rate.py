"""What a label rate is: an amount of something per area, per volume of spray, or as a share of the spray."""

import math
from dataclasses import dataclass
from enum import StrEnum

from core.errors import InputError
from core.units import AREA, MASS, RATIO, UNITS, VOLUME, Unit, exact_number, positive, show_number


class Basis(StrEnum):
    """What the amount of a rate counts. Labels state P₂O₅ and K₂O, not P and K."""

    PRODUCT = "product"
    ACTIVE = "active"
    N = "N"
    P2O5 = "P2O5"
    K2O = "K2O"
    P = "P"
    K = "K"
    CA = "Ca"
    MG = "Mg"
    S = "S"
    FE = "Fe"
    MN = "Mn"
    B = "B"
    ZN = "Zn"
    CU = "Cu"
    MO = "Mo"

    @property
    def text(self) -> str:
        return BASIS_TEXTS.get(self, self.value)


BASIS_TEXTS = {Basis.ACTIVE: "ai", Basis.P2O5: "P₂O₅", Basis.K2O: "K₂O"}
"""How a basis is written where that is not its key."""
NUTRIENTS = tuple(b for b in Basis if b not in (Basis.PRODUCT, Basis.ACTIVE))

P_IN_P2O5 = 0.43643
"""Mass share of P in P₂O₅, from atomic masses P 30.974, O 15.999 (AAPFCO labelling convention)."""
K_IN_K2O = 0.83015
"""Mass share of K in K₂O, from atomic masses K 39.098, O 15.999 (AAPFCO labelling convention)."""


@dataclass(frozen=True)
class RateUnit:
    """The unit of a rate: `amount` per one `per` of what `basis` counts; a bare share of the spray has no `per`."""

    amount: Unit
    per: Unit | None
    basis: Basis = Basis.PRODUCT

    @property
    def key(self) -> str:
        """The unit as the API writes it: `fl_oz/kft2`, `lb/kft2:N`, `pct_vv`."""
        plain = f"{self.amount.key}/{self.per.key}" if self.per else self.amount.key
        return plain if self.basis is Basis.PRODUCT else f"{plain}:{self.basis.value}"

    @property
    def symbol(self) -> str:
        """The unit as people read it: `fl oz/1000 ft²`, `lb N/acre`, `% v/v`."""
        counted = "" if self.basis is Basis.PRODUCT else f" {self.basis.text}"
        return f"{self.amount.symbol}{counted}/{self.per.symbol}" if self.per else self.amount.symbol

    @property
    def size(self) -> float:
        """Base units (g or L, per m² or per L) in one of this unit."""
        return self.amount.size / (self.per.size if self.per else 1.0)

    @property
    def kind(self) -> tuple[str, str, Basis]:
        """What may be converted into what: amount dimension, foot dimension, basis."""
        return self.amount.dimension, self.per.dimension if self.per else VOLUME, self.basis

    @property
    def per_area(self) -> bool:
        return self.per is not None and self.per.dimension == AREA

    @classmethod
    def from_key(cls, key: str, field: str = "rate.unit") -> "RateUnit":
        """The rate unit written as `key`.

        Raises:
            InputError: an unknown unit, basis or combination.
        """
        plain, _, basis = key.partition(":")
        amount, slash, per = plain.partition("/")
        try:
            unit = cls(UNITS[amount], UNITS[per] if slash else None, Basis(basis) if basis else Basis.PRODUCT)
        except (KeyError, ValueError):
            raise InputError(field, key, f"“{key}” is not a rate unit.", "Write it like fl_oz/kft2 or lb/acre.") from None
        check_rate_unit(unit, field)
        return unit


def check_rate_unit(unit: RateUnit, field: str = "rate") -> None:
    """Refuse combinations that measure nothing, such as an area per area.

    Raises:
        InputError: names the unit and what would do.
    """
    good = (
        unit.amount.dimension == RATIO
        if unit.per is None
        else unit.amount.dimension in (MASS, VOLUME) and unit.per.dimension in (AREA, VOLUME)
    )
    if not good:
        raise InputError(
            field, unit.symbol, f"{unit.symbol} is not a rate.", "A rate is a weight or a volume per area or per volume of spray."
        )
    if unit.basis is not Basis.PRODUCT and unit.amount.dimension != MASS:
        raise InputError(
            field,
            unit.symbol,
            f"{unit.basis.text} is counted by weight, not in {unit.amount.symbol}.",
            f"Give {unit.basis.text} in lb, oz wt, g or kg, or give the rate of product.",
        )


@dataclass(frozen=True)
class Rate:
    """One rate: a value and its unit."""

    value: float
    unit: RateUnit

    @property
    def base(self) -> float:
        """The rate in g or L, per m² or per L of spray."""
        return self.value * self.unit.size

    def to(self, unit: RateUnit) -> "Rate":
        """The same rate in another unit.

        Raises:
            InputError: the two do not measure the same thing.
        """
        if unit.kind != self.unit.kind:
            raise InputError(
                "unit",
                unit.symbol,
                f"{self.unit.symbol} cannot be written in {unit.symbol}: they do not measure the same thing.",
                "Keep weight, volume and what is counted alike on both sides.",
            )
        return self if unit == self.unit else Rate(self.base / unit.size, unit)

    def __str__(self) -> str:
        return f"{show_number(self.value)} {self.unit.symbol}"


@dataclass(frozen=True)
class LabelRate:
    """A rate as a label prints it: a range over a foot that need not be one (`16 lb per 5,000 sq ft`).

    `low` is 0 where the label says "up to". `carrier` is the spray volume the label asks for, per the same foot,
    as (low, high, unit).
    """

    low: float
    high: float
    unit: RateUnit
    foot: float = 1.0
    carrier: tuple[float, float, Unit] | None = None

    def __post_init__(self) -> None:
        for value in (self.low, self.high, self.foot):
            positive("rate", value, zero=value is self.low and self.low == 0)
        if self.low > self.high:
            raise InputError(
                "rate",
                f"{exact_number(self.low)} to {exact_number(self.high)}",
                f"The range runs down, from {exact_number(self.low)} to {exact_number(self.high)}.",
                "Put the lower rate first.",
            )
        check_rate_unit(self.unit)

    @property
    def basis(self) -> Basis:
        return self.unit.basis

    def scaled(self) -> "LabelRate":
        """The same label over a foot of one: per 1000 ft² or 100 m² where the foot counts ft² or m²; a bare m² stays one."""
        if self.unit.per is None or (self.foot == 1.0 and self.unit.per.key == "m2"):
            return self
        per = {"ft2": UNITS["kft2"], "yd2": UNITS["kft2"], "m2": UNITS["m2_100"]}.get(self.unit.per.key, self.unit.per)
        factor = per.size / self.unit.per.size / self.foot
        if factor == 1.0 and self.foot == 1.0 and per is self.unit.per:
            return self
        unit = RateUnit(self.unit.amount, per, self.basis)
        carrier = self.carrier and (self.carrier[0] * factor, self.carrier[1] * factor, self.carrier[2])
        return LabelRate(self.low * factor, self.high * factor, unit, 1.0, carrier)

    @property
    def lowest(self) -> Rate:
        one = self.scaled()
        return Rate(one.low, one.unit)

    @property
    def highest(self) -> Rate:
        one = self.scaled()
        return Rate(one.high, one.unit)

    def __str__(self) -> str:
        return show_label_rate(self)


def nice_step(low: float, high: float) -> float:
    """A step of 1, 2 or 5 times a power of ten that walks the label's range in about twenty.

    Args:
        low: end of a range [any one unit].
        high: end of it [the same unit].
    """
    raw = (high - low or high) / 20
    power = 10 ** math.floor(math.log10(raw))
    digit = next(d for d in (1, 2, 5, 10) if d * power >= raw * (1 - 1e-9))
    return float(f"{digit * power:.3g}")


def show_label_rate(rate: LabelRate) -> str:
    """The label's phrase in one spelling, which `core.label.phrase.read_label_rate` reads back to the same rate."""
    if rate.low == rate.high:
        span = exact_number(rate.high)
    elif rate.low == 0:
        span = f"up to {exact_number(rate.high)}"
    else:
        span = f"{exact_number(rate.low)} to {exact_number(rate.high)}"
    amount = rate.unit.amount
    if rate.unit.per is None:
        return f"{span} {amount.symbol}"
    counted = "" if rate.basis is Basis.PRODUCT else f" {rate.basis.value if rate.basis is not Basis.ACTIVE else 'ai'}"
    carrier = ""
    if rate.carrier:
        low, high, unit = rate.carrier
        volume = exact_number(low) if low == high else f"{exact_number(low)} to {exact_number(high)}"
        carrier = f" in {volume} {unit.symbol} of water"
    foot = f"{exact_number(rate.foot)} " if rate.foot != 1.0 else ""
    return f"{span} {amount.symbol}{counted}{carrier} per {foot}{rate.unit.per.symbol}"
