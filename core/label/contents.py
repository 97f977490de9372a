"""What a product holds as far as its name and its type tell: a grade in the name, nutrients typed as actives, what to fill in."""

import re
from dataclasses import dataclass

from core.label.product import Content, Kind
from core.label.rate import Basis
from core.units import show_number

_GRADE = re.compile(r"(?<![\d.-])(\d{1,2}(?:\.\d+)?)-(\d{1,2}(?:\.\d+)?)-(\d{1,2}(?:\.\d+)?)(?![\d-]|\.\d)")
_OF_A_GRADE = (Basis.N, Basis.P2O5, Basis.K2O)
"""A grade states total N, available phosphate and soluble potash, in this order (AAPFCO labelling convention)."""

OPENS: dict[Kind, tuple[Basis, ...]] = {
    Kind.FERTILISER: _OF_A_GRADE,
    Kind.IRON: (Basis.FE, Basis.N),
    Kind.AMENDMENT: (Basis.CA, Basis.S),
    Kind.BIOSTIMULANT: (Basis.N, Basis.K2O, Basis.FE),
    Kind.ADJUVANT: (),
    Kind.COLOURANT: (),
    Kind.CONDITIONER: (),
}
"""What a type is usually filled in with (ours); an active, where it is not here."""

UREA_N = 46.0
"""% N of urea (AAPFCO official terms, from memory)."""
_NUTRIENTS = {
    Basis.N: ("n", "nitrogen", "total nitrogen", "nitrate", "ammonium", "urea nitrogen"),
    Basis.P2O5: ("p2o5", "p₂o₅", "phosphate", "available phosphate"),
    Basis.K2O: ("k2o", "k₂o", "potash", "soluble potash"),
    Basis.P: ("phosphorus",),
    Basis.K: ("potassium",),
    Basis.CA: ("ca", "calcium"),
    Basis.MG: ("mg", "magnesium"),
    Basis.S: ("s", "sulfur", "sulphur"),
    Basis.FE: ("fe", "iron", "chelated iron"),
    Basis.MN: ("mn", "manganese"),
    Basis.B: ("b", "boron"),
    Basis.ZN: ("zn", "zinc"),
    Basis.CU: ("cu", "copper"),
    Basis.MO: ("mo", "molybdenum"),
}


def opens(kind: Kind) -> tuple[Basis, ...]:
    """What a product of a type is filled in with first."""
    return OPENS.get(kind, (Basis.ACTIVE,))


def grade_in(name: str) -> tuple[Content, ...]:
    """The contents [% by weight] that a grade in a name states, such as 24-0-6; nothing where there is none."""
    match = _GRADE.search(name)
    if not match:
        return ()
    found = [Content(b.text, b, percent=float(p)) for b, p in zip(_OF_A_GRADE, match.groups(), strict=True) if float(p)]
    total = sum(c.percent or 0.0 for c in found)
    return tuple(found) if found and total <= 100 else ()


@dataclass(frozen=True)
class Nutrient:
    """What a content that was typed as an active is, and what to do instead."""

    basis: Basis
    remedy: str


def as_nutrient(name: str, percent: float | None) -> Nutrient | None:
    """The nutrient that a name of an active is, such as iron; None for one that is none. Urea is asked for as its nitrogen.

    Args:
        name: as it was typed.
        percent: of the product by weight [%], where it is told so.
    """
    clean = " ".join(name.casefold().split())
    if clean == "urea":
        holds = f": {show_number(percent)} % urea is {show_number(percent * UREA_N / 100)} % N" if percent else ""
        return Nutrient(Basis.N, f"Count it as N{holds}.")
    basis = next((b for b, names in _NUTRIENTS.items() if clean in names), None)
    return Nutrient(basis, f"Pick {basis.text} under “Kind of content”.") if basis else None
