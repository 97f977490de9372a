"""What is read of the shelf."""

from dataclasses import dataclass

from django.db.models import QuerySet

from core.errors import InputError
from core.rates import product as core
from core.rates.dose import is_us
from core.rates.phrase import read_label_rate
from core.rates.rate import Basis, LabelRate, RateUnit, show_label_rate
from core.units import UNITS, exact_number
from greenmeasure.accounts.models import Club
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import quantity_out, rate_out, rule_out
from greenmeasure.shelf.models import Content, Product, RateRow
from greenmeasure.shelf.schemas import (
    ContentOut,
    DensityOut,
    FormulationOut,
    OptionOut,
    PhraseOut,
    ProductOut,
    RateRowOut,
    ShelfOptionsOut,
)

UNIT_TEXT = {"lb/gal": "lb/gal", "kg/l": "kg/L", "g/ml": "g/mL", "g/l": "g/L", "%": "%"}


def whole_products(club: Club) -> QuerySet[Product]:
    """Products with all that belongs to them."""
    return Product.objects.of(club).select_related("club").prefetch_related("contents", "rates")


def shelf(club: Club) -> list[ProductOut]:
    return [product_out(p) for p in whole_products(club).filter(archived_at=None)]


def product_out(product: Product) -> ProductOut:
    found = product.core()
    density = product.density_value is not None and DensityOut(
        value=exact_number(product.density_value), unit=product.density_unit,
        text=f"{exact_number(product.density_value)} {UNIT_TEXT[product.density_unit]}",
    )  # fmt: skip
    return ProductOut(
        id=product.pk, name=product.name, kind=found.kind.value, kind_text=found.kind.text,
        label_binds=found.kind.label_binds, formulation=found.formulation.code,
        formulation_text=found.formulation.name, liquid=found.liquid, sprayed=found.formulation.sprayed,
        density=density or None, group_code=product.group_code, contents=[content_out(c) for c in product.contents.all()],
        rates=[rate_row_out(r, found.kind.label_binds) for r in product.rates.all()],
        package=quantity_out(product.package) if product.package else None,
        price=str(product.price) if product.price is not None else "", currency=product.club.currency,
        stains=product.stains, ppe_mixing=product.ppe_mixing, ppe_applying=product.ppe_applying, note=product.note,
        warnings=core.check_product(found), archived=product.archived_at is not None,
    )  # fmt: skip


def content_out(content: Content) -> ContentOut:
    amount = exact_number(content.amount)
    basis = Basis(content.basis)
    return ContentOut(
        name=content.name, basis=basis.value, basis_text=basis.text, amount=amount, unit=content.unit,
        text=f"{amount} {UNIT_TEXT[content.unit]} {content.name}",
    )  # fmt: skip


def rate_row_out(row: RateRow, binds: bool) -> RateRowOut:
    label = row.label()
    low, high = label.lowest, label.highest
    return RateRowOut(
        id=row.pk, use=row.use, phrase=row.phrase, understood=show_label_rate(label.scaled()),
        low=rate_out(low) if low.value else None, high=rate_out(high), start=rate_out(low if low.value else high),
        rule=rule_out(label, low.value or high.value, binds),
        units=[OptionOut(key=u.key, text=u.symbol) for u in (high.unit, *_others(label))],
    )  # fmt: skip


def options() -> ShelfOptionsOut:
    return ShelfOptionsOut(
        kinds=[OptionOut(key=k.value, text=k.text.capitalize()) for k in core.Kind],
        formulations=[
            FormulationOut(key=f.code, text=f"{f.code} · {f.name}", liquid=f.liquid, sprayed=f.sprayed)
            for f in core.FORMULATIONS.values()
        ],
        bases=[OptionOut(key="active", text="Active ingredient")]
        + [OptionOut(key=b.value, text=b.text) for b in Basis if b not in (Basis.ACTIVE, Basis.PRODUCT)],
    )


def phrase_out(phrase: str) -> PhraseOut:
    """A label phrase as understood. Raises as `core.rates.phrase.read_label_rate`."""
    label = read_label_rate(phrase, "phrase")
    low, high = label.lowest, label.highest
    return PhraseOut(
        understood=show_label_rate(label), low=rate_out(low) if low.value else None, high=rate_out(high),
        also=[show_in(label, unit) for unit in _others(label)],
    )  # fmt: skip


def show_in(label: LabelRate, unit: RateUnit) -> str:
    """The range in another unit, on one line."""
    low, high = label.lowest, label.highest.to(unit)
    if low.value in (0, label.highest.value):
        return str(high)
    return f"{str(low.to(unit)).split(' ')[0]} to {high}"


def _others(label: LabelRate) -> list[RateUnit]:
    """The same rate as people check it: per acre and per 100 m²."""
    unit = label.scaled().unit
    if not unit.per_area:
        return []
    volume = unit.amount.dimension == "volume"
    pairs = [
        ("fl_oz" if volume else "lb", "acre"),
        ("ml" if volume else "g", "m2_100"),
        ("fl_oz" if volume else "lb", "kft2"),
    ]
    if not is_us(unit.amount):
        pairs.insert(0, ("l" if volume else "kg", "ha"))
    found = [RateUnit(UNITS[a], UNITS[p], unit.basis) for a, p in pairs]
    return [u for u in found if u != unit][:3]


@dataclass(frozen=True)
class Card:
    """A product with its rate rows by their ids, and as the core sees it."""

    product: Product
    core: core.Product
    rows: dict[int, RateRow]


@kept
def cards(club: Club) -> dict[int, Card]:
    """All cards of the club by their ids, those put away too."""
    return {p.pk: Card(p, p.core(), {r.pk: r for r in p.rates.all()}) for p in whole_products(club)}


def card_of(club: Club, product_id: int) -> Card:
    """A product of this club.

    Raises:
        Missing: no such product.
    """
    try:
        return cards(club)[product_id]
    except KeyError:
        raise Missing("product") from None


def row_of(club: Club, product_id: int, row_id: int) -> RateRow:
    """A rate row of a product of this club.

    Raises:
        InputError: the product has no such row (it may have been changed meanwhile).
        Missing: no such product.
    """
    card = card_of(club, product_id)
    try:
        return card.rows[row_id]
    except KeyError:
        name = card.product.name
        raise InputError("row_id", row_id, f"{name} has no such rate any more.", "Pick a rate of its label again.") from None
