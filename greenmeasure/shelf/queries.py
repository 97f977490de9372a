"""What is read of the shelf."""

from collections.abc import Sequence
from dataclasses import dataclass

from django.db.models import QuerySet

from core.errors import InputError
from core.grasses import GRASSES
from core.label import product as core
from core.label.contents import grade_in, opens
from core.label.groups import GROUPS
from core.label.phrase import read_phrase, weighed
from core.label.rate import Basis, LabelRate, RateUnit, show_label_rate
from core.label.rules import Intent, Row, Use
from core.label.targets import TARGETS, find_target
from core.readable import is_us, joined
from core.units import UNITS, Quantity, exact_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import OptionOut, quantity_out, rate_out, rule_out
from greenmeasure.shelf.models import Content, Lot, Product, RateRow
from greenmeasure.shelf.rules import RuleSaidOut, rule_fields, rules_said, typed_rules
from greenmeasure.shelf.schemas import (
    ContentOut,
    DensityOut,
    FormulationOut,
    GradeOut,
    KindOut,
    LabelFileOut,
    LotOut,
    PackageOut,
    PhraseOut,
    PrintedIn,
    ProductOut,
    RateRowOut,
    ShelfOptionsOut,
    TargetOut,
)
from greenmeasure.shelf.words import content_text, ground_of, show_in, stock_text, strength


def whole_products(account: Account) -> QuerySet[Product]:
    """Products with all that the sums need of them."""
    found = Product.objects.of(account).select_related("account")
    return found.prefetch_related("contents", "rates", "packages")


def shelf(account: Account) -> list[ProductOut]:
    """The products that are kept."""
    every = whole_products(account).filter(archived_at=None).prefetch_related("lots", "labels")
    return [product_out(p) for p in every]


def product_out(product: Product) -> ProductOut:
    """A card in words and numbers."""
    found = product.core()
    density = product.density_value is not None and DensityOut(
        value=exact_number(product.density_value),
        unit=product.density_unit,
        text=strength(product.density_value, product.density_unit),
    )
    return ProductOut(
        id=product.pk,
        version=product.version,
        name=product.name,
        kind=found.kind.value,
        kind_text=joined([k.text for k in found.kinds]),
        also=[k.value for k in found.also],
        printed=[PrintedIn(**p) for p in product.printed],
        formulation=found.formulation.code,
        formulation_text=found.formulation.name,
        liquid=found.liquid,
        sprayed=found.formulation.sprayed,
        density=density or None,
        group_code=product.group_code,
        registration=product.registration,
        looks=product.looks,
        expect=product.expect,
        codes=list(found.codes),
        contents=[content_out(c) for c in product.contents.all()],
        rates=[rate_row_out(r, found.label_binds) for r in product.rates.all()],
        packages=[
            PackageOut(value=exact_number(p.value), unit=p.unit, text=str(p.size), price="" if p.price is None else str(p.price))
            for p in product.packages.all()
        ],
        currency=product.account.currency,
        rules=typed_rules(product.rules),
        rules_said=rules_said(product.rules),
        stains=product.stains,
        ppe_mixing=product.ppe_mixing,
        ppe_applying=product.ppe_applying,
        note=product.note,
        warnings=core.check_product(found),
        stock=stock_text(in_stock(list(product.lots.all())), product.account.us),
        lots=[lot_out(x) for x in product.lots.all()],
        labels=[LabelFileOut(id=f.pk, name=f.name, kind=f.kind) for f in product.labels.all()],
        targets=list(dict.fromkeys(t.key for r in product.rates.all() if (t := find_target(r.target or r.use)))),
    )


def grade_out(name: str) -> GradeOut:
    """What a product's name says that it holds."""
    found = [content_out(Content(name=c.name, basis=c.basis.value, amount=c.percent or 0.0, unit="%")) for c in grade_in(name)]
    return GradeOut(text=joined([c.text for c in found]), contents=found)


def in_stock(lots: Sequence[Lot]) -> Quantity | None:
    """What is left over all lots of a product, in the first one's unit; None where no lot is kept."""
    if not lots:
        return None
    unit = lots[0].left.unit
    alike = [x.left for x in lots if x.left.unit.dimension == unit.dimension]
    return Quantity(sum(x.base for x in alike) / unit.size, unit)


def lot_out(lot: Lot) -> LotOut:
    """A lot as it is shown and typed."""
    return LotOut(
        id=lot.pk,
        version=lot.version,
        number=lot.number,
        left=quantity_out(lot.left),
        received_on=lot.received_on,
        expires_on=lot.expires_on,
        expired=lot.expires_on is not None and lot.expires_on < today(lot.product.account),
        note=lot.note,
    )


def content_out(content: Content) -> ContentOut:
    """A content in words."""
    amount = exact_number(content.amount)
    basis = Basis(content.basis)
    slow = "" if content.slow is None else exact_number(content.slow)
    return ContentOut(
        name=content.name, basis=basis.value, amount=amount, unit=content.unit, slow=slow, text=content_text(content)
    )


def rate_row_out(row: RateRow, binds: bool) -> RateRowOut:
    """A rate row as printed and as understood."""
    label = row.label()
    low, high = label.lowest, label.highest

    def typed(value: float | None) -> str:
        return "" if value is None else exact_number(value)

    return RateRowOut(
        id=row.pk,
        use=row.use,
        phrase=row.phrase,
        understood=show_label_rate(label.scaled()),
        target=row.target,
        grasses=row.grasses,
        uses=row.uses,
        height_low=typed(row.height_low),
        height_high=typed(row.height_high),
        height_unit=row.height_unit or "in",
        intent=row.intent,
        interval_low=typed(row.interval_low),
        interval_high=typed(row.interval_high),
        ground=ground_of(row),
        per_area=label.unit.per_area,
        low=rate_out(low) if low.value else None,
        high=rate_out(high),
        start=rate_out(low if low.value else high),
        rule=rule_out(label, low.value or high.value, binds),
        units=[OptionOut(key=u.key, text=u.symbol) for u in dict.fromkeys((high.unit, *_typed_in(label)))],
    )


def options(us: bool) -> ShelfOptionsOut:
    """What a product's form offers to pick from."""
    return ShelfOptionsOut(
        rules=rule_fields(us),
        kinds=[KindOut(key=k.value, text=k.text.capitalize(), opens=[b.value for b in opens(k)]) for k in core.Kind],
        formulations=[
            FormulationOut(key=f.code, text=f"{f.code} · {f.name}", liquid=f.liquid, sprayed=f.sprayed)
            for f in core.FORMULATIONS.values()
        ],
        bases=[OptionOut(key="active", text="Active ingredient")]
        + [OptionOut(key=b.value, text=b.text) for b in Basis if b not in (Basis.ACTIVE, Basis.PRODUCT)],
        targets=[TargetOut(key=t.key, text=t.name, kind=t.kind) for t in TARGETS.values()],
        intents=[OptionOut(key=i.value, text=i.text.capitalize()) for i in Intent],
        uses=[OptionOut(key=u.value, text=u.value.capitalize()) for u in Use],
        grasses=[OptionOut(key=g.key, text=g.name) for g in GRASSES.values() if g.key != "mixed"],
        groups=[OptionOut(key=g.text, text=f"{g.text}: {g.name}") for g in GROUPS.values()],
    )


def phrase_out(phrase: str, formulation: str = "") -> PhraseOut:
    """A label phrase as understood. Raises as `core.label.phrase.read_phrase`."""
    dry = formulation in core.FORMULATIONS and not core.FORMULATIONS[formulation].liquid
    found = read_phrase(weighed(phrase) if dry else phrase, "phrase")
    label = found.rate
    low, high = label.lowest, label.highest
    return PhraseOut(
        understood=show_label_rate(label),
        low=rate_out(low) if low.value else None,
        high=rate_out(high),
        also=[*(show_label_rate(s) for s in found.same_as), *(show_in(label, unit) for unit in _others(label))],
        told=list(found.told),
    )


def _others(label: LabelRate) -> list[RateUnit]:
    """The same rate as people check it: per acre and per 100 m²; a rate per gallon also per 100 gal and as % v/v."""
    unit = label.scaled().unit
    if not unit.per_area:
        return _of_spray(unit)
    volume = unit.amount.dimension == "volume"
    pairs = [("fl_oz" if volume else "lb", "acre"), ("ml" if volume else "g", "m2_100"), ("fl_oz" if volume else "lb", "kft2")]
    if not is_us(unit.amount):
        pairs.insert(0, ("l" if volume else "kg", "ha"))
    found = [RateUnit(UNITS[a], UNITS[p], unit.basis) for a, p in pairs]
    return [u for u in found if u != unit][:3]


_LIQUID = {"kft2": ("fl_oz", "ml", "tsp", "tbsp"), "acre": ("fl_oz", "pt"), "m2_100": ("ml",), "ha": ("l", "ml")}
_DRY = {"kft2": ("lb", "oz_wt", "g"), "acre": ("lb", "oz_wt"), "m2_100": ("g", "kg"), "ha": ("kg", "g")}
_IN_SPRAY = {"gal": ("fl_oz", "ml", "tsp", "tbsp"), "gal_100": ("fl_oz", "pt"), "l": ("ml",), "l_100": ("ml", "l")}
"""What a rate can be typed in, by what it is per: mL and g by US feet too, as syringes and scales tell them."""


def _typed_in(label: LabelRate) -> list[RateUnit]:
    """Every unit that a rate of a label can be typed in."""
    unit = label.scaled().unit
    wet = unit.amount.dimension == "volume"
    if not unit.per_area:
        return [RateUnit(UNITS[a], UNITS[p]) for p, amounts in _IN_SPRAY.items() for a in amounts] if _of_spray(unit) else []
    pairs = _LIQUID if wet else _DRY
    return [RateUnit(UNITS[a], UNITS[p], unit.basis) for p, amounts in pairs.items() for a in amounts]


def _of_spray(unit: RateUnit) -> list[RateUnit]:
    if unit.per is None or unit.amount.dimension != "volume" or unit.basis is not Basis.PRODUCT:
        return []
    pairs = [("fl_oz", "gal_100"), ("ml", "l"), ("fl_oz", "gal")]
    found = [RateUnit(UNITS[a], UNITS[p]) for a, p in pairs]
    return [u for u in found if u != unit][:2]


# --- for the sums -----------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Card:
    """A product as the sums and the sheets need it: as the core sees it, its rate rows by their ids, its rules in words."""

    product: Product
    core: core.Product
    rows: dict[int, RateRow]
    label_rows: tuple[Row, ...]
    said: tuple[RuleSaidOut, ...]

    def key_of(self, row: Row) -> int:
        """The id of a row that is one of `label_rows`."""
        return next(pk for pk, mine in zip(self.rows, self.label_rows, strict=True) if mine is row)


@kept("shelf")
def cards(account: Account) -> dict[int, Card]:
    """All cards of the account by their ids, those put away too."""
    return {p.pk: _card(p) for p in whole_products(account)}


@kept("shelf", "stock")
def stocks(account: Account) -> dict[int, Quantity]:
    """What is left of each product of which lots are kept, by its id."""
    lots: dict[int, list[Lot]] = {}
    for lot in Lot.objects.filter(product__account=account):
        lots.setdefault(lot.product_id, []).append(lot)
    return {pk: left for pk, every in lots.items() if (left := in_stock(every))}


def _card(product: Product) -> Card:
    rows = {r.pk: r for r in product.rates.all()}
    label_rows = tuple(r.core() for r in rows.values())
    return Card(product, product.core(), rows, label_rows, tuple(rules_said(product.rules)))


def card_of(account: Account, product_id: int) -> Card:
    """A product of this account.

    Raises:
        Missing: no such product.
    """
    try:
        return cards(account)[product_id]
    except KeyError:
        raise Missing("product") from None


def row_of(account: Account, product_id: int, row_id: int, field: str = "row_id") -> RateRow:
    """A rate row of a product of this account.

    Raises:
        InputError: the product has no such row (it may have been changed meanwhile).
        Missing: no such product.
    """
    card = card_of(account, product_id)
    try:
        return card.rows[row_id]
    except KeyError:
        name = card.product.name
        raise InputError(field, row_id, f"{name} has no such rate any more.", "Pick a rate of its label again.") from None
