"""What a product is, as far as the sums need it: its kind, its formulation, what is in it and how heavy it is."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum
from functools import cached_property

from core.errors import InputError
from core.label.groups import CLASS, FRAC, HRAC, IRAC, group_of
from core.label.rate import Basis
from core.label.rules import NONE, Rules
from core.units import MASS, VOLUME, Quantity, positive, show_number

WATER_G_PER_L = 998.2
"""Density of water at 20 °C (CRC Handbook of Chemistry and Physics, from memory); 8.33 lb/gal."""


class Kind(StrEnum):
    """What a product is for. Pesticides and growth regulators are bound by their label."""

    FUNGICIDE = "fungicide"
    HERBICIDE = "herbicide"
    INSECTICIDE = "insecticide"
    GROWTH_REGULATOR = "growth_regulator"
    FERTILISER = "fertiliser"
    IRON = "iron"
    AMENDMENT = "amendment"
    ADJUVANT = "adjuvant"
    COLOURANT = "colourant"
    CONDITIONER = "conditioner"
    BIOSTIMULANT = "biostimulant"

    @property
    def text(self) -> str:
        return {"growth_regulator": "growth regulator", "iron": "iron or micronutrient", "conditioner": "water conditioner"}.get(
            self.value, self.value
        )

    @property
    def label_binds(self) -> bool:
        """Whether going above the label is refused (pesticides, growth regulators) or only warned of."""
        return self in (Kind.FUNGICIDE, Kind.HERBICIDE, Kind.INSECTICIDE, Kind.GROWTH_REGULATOR)

    @property
    def scheme(self) -> str:
        """The scheme that a group code without one is of."""
        return {"herbicide": HRAC, "insecticide": IRAC, "growth_regulator": CLASS}.get(self.value, FRAC)


def leading(kinds: Sequence[Kind]) -> Kind:
    """Of all that a product is, what its label is law for, where it is for any of it; else what it is first."""
    return next((k for k in kinds if k.label_binds), kinds[0])


@dataclass(frozen=True)
class Formulation:
    """How a product is made up. `slot` is its turn in the tank; `slurry` asks for wetting in a jug first."""

    code: str
    name: str
    liquid: bool
    sprayed: bool
    slot: int
    slurry: bool = False


FORMULATIONS = {
    f.code: f
    for f in (
        Formulation("WP", "wettable powder", False, True, 1, slurry=True),
        Formulation("WG", "water-dispersible granule", False, True, 1, slurry=True),
        Formulation("SC", "suspension concentrate", True, True, 2),
        Formulation("SE", "suspo-emulsion", True, True, 2),
        Formulation("EC", "emulsifiable concentrate", True, True, 3),
        Formulation("EW", "emulsion in water", True, True, 3),
        Formulation("ME", "micro-emulsion", True, True, 3),
        Formulation("SL", "soluble liquid", True, True, 4),
        Formulation("SP", "soluble powder", False, True, 4, slurry=True),
        Formulation("SG", "soluble granule", False, True, 4, slurry=True),
        Formulation("GR", "granule, spread dry", False, False, 0),
    )
}
"""Two-letter codes after the CropLife International catalogue of formulation types (Technical Monograph No. 2).

The slots follow the usual order: dry dispersible products, agitation, liquid suspensions, emulsifiable
concentrates, solutions (common practice, no source); a label's own order prevails.
"""


def formulation(code: str, field: str = "formulation") -> Formulation:
    """The formulation with this code.

    Raises:
        InputError: no such code.
    """
    try:
        return FORMULATIONS[code]
    except KeyError:
        known = ", ".join(FORMULATIONS)
        raise InputError(field, code, f"“{code}” is not a formulation known here.", f"Use one of: {known}.") from None


@dataclass(frozen=True)
class Content:
    """One active or nutrient in a product: its share by mass [%], or for a liquid its mass per volume [g/L].

    `slow_percent` is how much of the product [%] is this nutrient in slow-release form, as bags state it.
    """

    name: str
    basis: Basis
    percent: float | None = None
    g_per_l: float | None = None
    slow_percent: float | None = None

    @property
    def slow_share(self) -> float:
        """What share of the nutrient is slow to act, 0 to 1."""
        return self.slow_percent / self.percent if self.slow_percent and self.percent else 0.0


@dataclass(frozen=True)
class Package:
    """A size and what it costs."""

    size: Quantity
    price: Decimal | None
    currency: str = "USD"


@dataclass(frozen=True)
class Printed:
    """A setting that the bag prints for a kind of spreader, as it prints it: a start, and no test of any one machine."""

    form: str
    setting: str


@dataclass(frozen=True)
class Product:
    """A product as the sums see it. `density_g_per_l` is needed to go between weight and volume.

    `id` is the card's, by which it is known whatever it is called; None for a product without a card. `also` is what it is
    besides its kind.
    """

    name: str
    kind: Kind
    formulation: Formulation
    contents: tuple[Content, ...] = ()
    density_g_per_l: float | None = None
    packages: tuple[Package, ...] = ()
    stains: bool = False
    ppe_mixing: tuple[str, ...] = ()
    ppe_applying: tuple[str, ...] = ()
    codes: tuple[str, ...] = ()
    rules: Rules = NONE
    id: int | None = None
    also: tuple[Kind, ...] = ()
    printed: tuple[Printed, ...] = ()

    @property
    def kinds(self) -> tuple[Kind, ...]:
        """Everything that it is, what it is first before all."""
        return (self.kind, *self.also)

    @property
    def leading(self) -> Kind:
        """What its label is law for, else what it is first."""
        return leading(self.kinds)

    def is_a(self, *kinds: Kind) -> bool:
        """Whether it is any of some kinds: a weed-and-feed is a fertiliser and a herbicide."""
        return any(k in kinds for k in self.kinds)

    @property
    def package(self) -> Package | None:
        """The package that costs least for what it holds, or the first where none is priced."""
        priced = [p for p in self.packages if p.price is not None and p.size.unit.dimension == self.measured_in]
        return min(priced, key=lambda p: float(p.price or 0) / p.size.base) if priced else next(iter(self.packages), None)

    @property
    def liquid(self) -> bool:
        return self.formulation.liquid

    @property
    def measured_in(self) -> str:
        """How the bench measures it: liquids by volume, dry products by weight."""
        return VOLUME if self.liquid else MASS

    @cached_property
    def label_binds(self) -> bool:
        """Whether its label is law: a pesticide's, a regulator's, and that of a fertiliser with a pesticide in it."""
        return self.leading.label_binds or (self.is_a(Kind.FERTILISER) and self.content(Basis.ACTIVE) is not None)

    def content(self, basis: Basis) -> Content | None:
        return next((c for c in self.contents if c.basis is basis), None)

    def share(self, content: Content) -> float | None:
        """Mass fraction of `content` [0..1], from its percentage or from its g/L and the product's density."""
        if content.percent is not None:
            return content.percent / 100
        if content.g_per_l is not None and self.density_g_per_l:
            return content.g_per_l / self.density_g_per_l
        return None

    def g_per_l(self, content: Content) -> float | None:
        """Mass of `content` in a litre of product [g/L], where it can be known."""
        if content.g_per_l is not None:
            return content.g_per_l
        if content.percent is not None and self.density_g_per_l:
            return content.percent / 100 * self.density_g_per_l
        return None


LIGHTEST, HEAVIEST = 600.0, 2500.0
"""Liquids outside 0.6-2.5 kg/L (5-21 lb/gal) are taken for a slip (common practice, no source)."""


def check_product(product: Product) -> list[str]:
    """Warnings about a product that can be true but seldom is.

    Raises:
        InputError: percentages outside 0-100 or adding up to more than 100, or a density no liquid has.
    """
    check_contents(product.contents)
    if product.density_g_per_l is not None:
        positive("density", product.density_g_per_l)
        if product.liquid and not LIGHTEST <= product.density_g_per_l <= HEAVIEST:
            kg = show_number(product.density_g_per_l / 1000)
            raise InputError(
                "density",
                product.density_g_per_l,
                f"A density of {kg} kg/L is not a spray product's.",
                "Labels say 8.5 to 13 lb/gal, or 1.0 to 1.6 kg/L; check the number and its unit.",
            )
    for content in product.contents:
        share = product.share(content)
        if share is not None and share > 1:
            raise InputError(
                "contents",
                content.name,
                f"{content.name} would weigh more than the product it is in.",
                "Check its g/L against the density.",
            )
    return _odd(product)


def _odd(product: Product) -> list[str]:
    warnings = [*_misnamed(product), *_other_group(product)]
    if product.liquid and product.density_g_per_l and product.density_g_per_l < 0.9999 * WATER_G_PER_L:
        lb = show_number(product.density_g_per_l / 119.826427, 3)
        warnings.append(
            f"{lb} lb/gal is lighter than water (8.33 lb/gal). Few spray products are: is the density from the label?"
        )
    counted = list(dict.fromkeys(c.basis.text if c.basis is not Basis.ACTIVE else c.name for c in product.contents if c.percent))
    if product.liquid and product.density_g_per_l is None and counted:
        warnings.append(
            f"Without its density it cannot be told how much {', '.join(counted)} an amount of it brings, nor what it weighs. "
            "The label, or its safety data sheet, says it in lb/gal or kg/L."
        )
    for content in product.contents:
        if content.basis is Basis.N and content.percent is not None and content.percent < 1:
            warnings.append(
                f"{show_number(content.percent)} % N is a hundredth of what fertilisers carry: a fraction typed as %?"
            )
    return warnings


def _other_group(product: Product) -> list[str]:
    """Actives whose group is known, where the card names others: what rotates by its codes would rotate wrongly."""
    if not product.codes:
        return []
    known = {c.name: found for c in product.contents if c.basis is Basis.ACTIVE and (found := group_of(c.name))}
    return [
        f"{name} is of {group.text} ({group.name}); the card says {' + '.join(product.codes)}."
        for name, group in known.items()
        if group.text not in product.codes
    ]


KNOWN_NITROGEN = {
    "urea": 46.0,
    "ammonium sulfate": 21.0,
    "ammonium sulphate": 21.0,
    "ammonium nitrate": 34.0,
    "potassium nitrate": 13.0,
    "calcium nitrate": 15.5,
}
"""% N of plain fertilisers (AAPFCO official terms, from memory)."""


def _misnamed(product: Product) -> list[str]:
    """A plain fertiliser whose N is not what that salt holds, such as urea at 0.46 %."""
    found = []
    for salt, percent in KNOWN_NITROGEN.items():
        if salt not in product.name.lower():
            continue
        for content in product.contents:
            if content.basis is Basis.N and content.percent and abs(content.percent / percent - 1) > 0.15:
                times = show_number(percent / content.percent, 3)
                found.append(
                    f"{salt.capitalize()} holds {show_number(percent)} % N; the card says {show_number(content.percent)} %, "
                    f"and doses by N would come out {times} times too large."
                )
    return found


def check_contents(contents: Iterable[Content]) -> None:
    """Refuse composition that cannot be.

    Raises:
        InputError: names the line at fault.
    """
    total = 0.0
    for i, content in enumerate(contents):
        field = f"contents.{i}"
        if not content.name.strip():
            raise InputError(f"{field}.name", content.name, "This line has no name.", "Name the active or nutrient.")
        if (content.percent is None) == (content.g_per_l is None):
            raise InputError(
                f"{field}.amount", content.name, f"{content.name} needs one amount.", "Give its %, or its g/L or lb/gal."
            )
        if content.percent is not None:
            positive(f"{field}.amount", content.percent, most=100.0, symbol="%")
            total += content.percent
        if content.slow_percent is not None:
            positive(f"{field}.slow", content.slow_percent, zero=True)
            if content.percent is None or content.slow_percent > content.percent:
                raise InputError(
                    f"{field}.slow",
                    content.slow_percent,
                    f"More {content.name} is slow than there is {content.name}.",
                    "Bags state the slow part as a percentage of the product, not of the nutrient.",
                )
        if content.g_per_l is not None:
            positive(f"{field}.amount", content.g_per_l, most=HEAVIEST, symbol="g/L")
    if total > 100:
        raise InputError(
            "contents", total, f"The contents add up to {show_number(total)} %.", "No product holds more than 100 %."
        )
