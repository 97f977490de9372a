"""A rate off the label that a known slip would explain: another area, another unit, another thing counted, a decimal.

A slip is only offered where undoing it lands inside the label's range; it is asked, never assumed.
"""

from dataclasses import dataclass

from core.errors import Choice
from core.findings import Finding, Weight
from core.label.product import Product
from core.label.rate import K_IN_K2O, P_IN_P2O5, Basis, LabelRate, Rate
from core.rates.limits import Stand, stand_of
from core.units import UNITS, VOLUME, show_number

MOST_OFFERED = 2


@dataclass(frozen=True)
class Slip:
    """`factor` is how many times too large (or, below 1, too small) the slip makes a rate; `ask` is the question."""

    key: str
    factor: float
    ask: str


def _sized(key: str) -> float:
    return UNITS[key].size


def _of_area(per: str) -> list[Slip]:
    acre, hectare = _sized("acre") / _sized("kft2"), _sized("ha") / _sized("m2_100")
    return {
        "kft2": [
            Slip("per-acre", acre, "Is it per acre?"),
            Slip("per-square-foot", 1000, "Is it per 1,000 ft², not per ft²?"),
            Slip("per-100-m2", _sized("m2_100") / _sized("kft2"), "Is it per 100 m²?"),
        ],
        "acre": [
            Slip("per-1000", 1 / acre, "Is it per 1,000 ft²?"),
            Slip("per-hectare", _sized("ha") / _sized("acre"), "Is it per hectare?"),
        ],
        "m2_100": [Slip("per-hectare", hectare, "Is it per hectare?"), Slip("per-square-metre", 0.01, "Is it per m²?")],
        "ha": [
            Slip("per-100-m2", 1 / hectare, "Is it per 100 m²?"),
            Slip("per-acre", _sized("acre") / _sized("ha"), "Is it per acre?"),
        ],
        "gal": [Slip("per-100-gal", 100, "Is it per 100 gal?")],
        "gal_100": [Slip("per-100-gal", 100, "Is it per 100 gal, not per gallon?"), Slip("per-gal", 0.01, "Is it per gallon?")],
    }.get(per, [])


_KIN = {
    "fl_oz": ("ml", "pt", "qt", "gal", "tsp", "tbsp"),
    "ml": ("fl_oz", "l"),
    "l": ("ml", "gal"),
    "gal": ("fl_oz", "l"),
    "pt": ("fl_oz", "qt"),
    "qt": ("fl_oz", "pt"),
    "oz_wt": ("g", "lb"),
    "lb": ("oz_wt", "kg"),
    "g": ("oz_wt", "kg"),
    "kg": ("lb", "g"),
}


def _of_unit(unit: str) -> list[Slip]:
    """Units that are taken for one another: a figure meant in another unit makes the rate this many times too large."""
    return [
        Slip(f"in-{UNITS[k].symbol.replace(' ', '-')}", _sized(unit) / _sized(k), f"Is it in {UNITS[k].symbol}?")
        for k in _KIN.get(unit, ())
    ]


def _of_what(product: Product, basis: Basis) -> list[Slip]:
    found = []
    for content in product.contents:
        share = product.share(content)
        if content.basis is Basis.ACTIVE or share is None or not 0 < share < 1:
            continue
        if basis is Basis.PRODUCT:
            ask = f"Is it {content.basis.text}, not product?"
            found.append(Slip(f"{content.basis.value}-for-product", share, ask))
        elif basis is content.basis:
            found.append(Slip("product-for-nutrient", 1 / share, f"Is it product, not {content.basis.text}?"))
    oxide = {Basis.P: P_IN_P2O5, Basis.P2O5: 1 / P_IN_P2O5, Basis.K: K_IN_K2O, Basis.K2O: 1 / K_IN_K2O}
    if basis in oxide:
        found.append(Slip("oxide", oxide[basis], "Is it the element or the oxide?"))
    return found


def _of_weight(product: Product, unit: str) -> list[Slip]:
    """Ounces by weight poured as fluid ounces; only where the density tells them apart."""
    if unit != "fl_oz" or not product.density_g_per_l:
        return []
    heavy = product.density_g_per_l * _sized("fl_oz") / _sized("oz_wt")
    return [Slip("ounce-by-weight", heavy, "Is it ounces by weight?")] if abs(heavy - 1) > 0.02 else []


_OF_HAND = (
    Slip("decimal", 10, "Has the decimal point slipped?"),
    Slip("decimal", 0.1, "Has the decimal point slipped?"),
    Slip("double", 2, "Is it the dose for twice the ground, or for each of two passes?"),
    Slip("thousand", 1000, "Is it a thousandth of that?"),
)


def misread(rate: Rate, label: LabelRate, product: Product) -> Finding | None:
    """The slips that would explain a rate off the label's range, with what each would make of it; None where it is in it.

    Raises:
        InputError: the two rates do not measure the same thing.
    """
    low, high = label.lowest.value, label.highest.value
    here = rate.to(label.highest.unit).value
    stand = stand_of(here, low, high)
    if stand is Stand.WITHIN:
        return None
    unit = label.highest.unit
    slips = [
        *_of_area(unit.per.key if unit.per else ""),
        *_of_what(product, unit.basis),
        *_of_unit(unit.amount.key),
        *(_of_weight(product, unit.amount.key) if unit.amount.dimension == VOLUME else ()),
        *_OF_HAND,
    ]
    least = low or high / 10
    hits = [s for s in slips if stand_of(here / s.factor, least, high) is Stand.WITHIN]
    if not hits:
        return None
    hits = list({s.ask: s for s in reversed(hits)}.values())[::-1][:MOST_OFFERED]
    said = " ".join(f"{s.ask} Then it would be {Rate(here / s.factor, unit)}, {_times(s.factor)}." for s in hits)
    readings = tuple(Choice(show_number(here / s.factor, 5).replace(",", ""), f"{Rate(here / s.factor, unit)}") for s in hits)
    return Finding(f"misread-{hits[0].key}", Weight.ASK, f"{rate} is off the label. {said}", readings)


def _times(factor: float) -> str:
    return f"{show_number(factor, 4)} times less" if factor > 1 else f"{show_number(1 / factor, 4)} times more"
