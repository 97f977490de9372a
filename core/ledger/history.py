"""What has gone down on a ground, as the rules of a season look at it."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date

from core.label.product import Content, Kind, Product
from core.label.rate import Basis
from core.label.rules import Intent, Row
from core.rates.nutrients import brought
from core.units import VOLUME, Quantity


@dataclass(frozen=True)
class Applied:
    """One application to one ground.

    `grams` and `litres` are product per area [g/m², L/m²], None where a density is missing; `actives` [g/m²] are by
    common name, `nutrients` [g/m²] by what labels count. `stays_on_leaf` and `watered_in` tell how it is taken up.
    `product` is the name it went down by; `product_id` the card it was of, None where that is no longer known.
    """

    on: date
    product: str
    kind: Kind
    codes: tuple[str, ...] = ()
    grams: float | None = None
    litres: float | None = None
    actives: Mapping[str, float] = field(default_factory=dict)
    nutrients: Mapping[Basis, float] = field(default_factory=dict)
    interval: tuple[int | None, int | None] = (None, None)
    curative: bool = False
    stays_on_leaf: bool = False
    watered_in: bool = False
    product_id: int | None = None

    def is_of(self, product: Product) -> bool:
        """Whether it was an application of a product: of its card, or, where its card is not known, of its actives or name."""
        if self.product_id is not None and product.id is not None:
            return self.product_id == product.id
        return self.product == product.name or self.by_actives(product)

    def by_actives(self, product: Product) -> bool:
        """Whether an application without a card holds what a product of a card holds, active by active."""
        if product.id is None or self.product_id is not None or not self.actives:
            return False
        return set(self.actives) == {c.name for c in product.contents if c.basis is Basis.ACTIVE}


def applied(product: Product, amount: Quantity, area: Quantity, on: date, row: Row | None = None) -> Applied:
    """What an amount of a product on an area is to the rules of a season; `row` is the label row that was meant."""
    litres = amount.base if amount.unit.dimension == VOLUME else None
    grams = None if litres is not None else amount.base
    if product.density_g_per_l:
        grams = litres * product.density_g_per_l if litres is not None else grams
        litres = grams / product.density_g_per_l if grams is not None and litres is None and product.liquid else litres
    actives: dict[str, float] = {}
    nutrients: dict[Basis, float] = {}
    for content in product.contents:
        held = _held(product, grams, litres, content)
        if held is None:
            continue
        if content.basis is Basis.ACTIVE:
            actives[content.name] = actives.get(content.name, 0.0) + held / area.base
        else:
            nutrients[content.basis] = nutrients.get(content.basis, 0.0) + held / area.base
    return Applied(
        on,
        product.name,
        product.kind,
        product.codes,
        None if grams is None else grams / area.base,
        None if litres is None else litres / area.base,
        actives,
        brought(product, nutrients),
        row.interval if row else (None, None),
        bool(row and row.intent is Intent.CURATIVE),
        product.rules.stays_on_leaf,
        product.rules.watered_in,
        product.id,
    )


def _held(product: Product, grams: float | None, litres: float | None, content: Content) -> float | None:
    """How much of a content an amount of product holds [g]; None where a density is missing."""
    if content.percent is not None:
        return None if grams is None else grams * content.percent / 100
    if content.g_per_l is None:
        return None
    if litres is not None:
        return litres * content.g_per_l
    share = product.share(content)
    return None if grams is None or share is None else grams * share


def in_season(history: Iterable[Applied], start: date, on: date) -> list[Applied]:
    """Applications from `start` to `on`, both in it, oldest first."""
    return sorted((a for a in history if start <= a.on <= on), key=lambda a: a.on)


def last_of(history: Sequence[Applied], product: Product) -> Applied | None:
    """The latest application of a product."""
    found = [a for a in history if a.is_of(product)]
    return max(found, key=lambda a: a.on) if found else None
