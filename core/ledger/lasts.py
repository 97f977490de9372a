"""The last of each kind that went down on a ground, and what a season has brought of nitrogen."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from core.label.product import Kind
from core.label.rate import Basis
from core.ledger.history import Applied

KINDS = (
    ("Fed", Kind.FERTILISER),
    ("Fungicide", Kind.FUNGICIDE),
    ("Herbicide", Kind.HERBICIDE),
    ("Insecticide", Kind.INSECTICIDE),
    ("Regulated", Kind.GROWTH_REGULATOR),
    ("Iron", Kind.IRON),
    ("Amended", Kind.AMENDMENT),
    ("Biostimulant", Kind.BIOSTIMULANT),
)
"""What one asks after, and the kind of product that answers it."""


@dataclass(frozen=True)
class Last:
    """The latest application of a kind of product."""

    name: str
    applied: Applied


def last_of_each(past: Sequence[Applied], today: date) -> list[Last]:
    """The latest of each kind that went down by a day, in the order of the kinds; a product of two kinds answers for both.

    Args:
        past: what bears on the ground.
        today: the day.
    """
    been = sorted((a for a in past if a.on <= today and not a.planned), key=lambda a: a.on)
    found = []
    for name, kind in KINDS:
        mine = [a for a in been if a.is_a(kind)]
        if mine:
            found.append(Last(name, mine[-1]))
    return found


def nitrogen(past: Sequence[Applied], begin: date, today: date) -> float:
    """The N that went down from the beginning of a season to a day [g/m²].

    Args:
        past: what bears on the ground.
        begin: of the season.
        today: the day.
    """
    return sum(a.nutrients.get(Basis.N, 0.0) for a in past if begin <= a.on <= today and not a.planned)
