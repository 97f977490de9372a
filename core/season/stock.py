"""Stock against what a season needs: what is old or goes out of date, what falls short, and which packages make it up."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from enum import StrEnum

SOON = timedelta(days=120)
"""What goes out of date within four months is told, so that it is used first (ours)."""
OLD = timedelta(days=3 * 365)
"""A jug that came longer ago, and prints no date, is asked about: most keep two to five years (extension advice, from memory)."""


class Keeps(StrEnum):
    """How a lot stands to its dates."""

    GOOD = "good"
    SOON = "soon"
    PAST = "past"
    OLD = "old"
    UNDATED = "undated"

    @property
    def asks(self) -> bool:
        """Whether somebody must look at it before it is used."""
        return self in (Keeps.PAST, Keeps.OLD)


def keeps(received: date | None, expires: date | None, today: date) -> Keeps:
    """How a lot stands: by its printed date where it has one, else by how long it has been on the shelf."""
    if expires is not None:
        return Keeps.PAST if expires < today else Keeps.SOON if expires <= today + SOON else Keeps.GOOD
    if received is None:
        return Keeps.UNDATED
    return Keeps.OLD if today - received > OLD else Keeps.GOOD


@dataclass(frozen=True)
class Jug:
    """What is left of a lot [L or g], and how it stands."""

    left: float
    keeps: Keeps


def usable(jugs: Iterable[Jug]) -> float:
    """What is left that is not past its date [the unit of the jugs, L or g]."""
    return math.fsum(j.left for j in jugs if j.keeps is not Keeps.PAST)


@dataclass(frozen=True)
class Pack:
    """A size that a product is sold in [L or g], and its price where it is known."""

    size: float
    price: Decimal | None = None


@dataclass(frozen=True)
class Buy:
    """So many packages of one size: `over` is what is left of them [L or g]."""

    count: int
    pack: Pack
    over: float

    @property
    def price(self) -> Decimal | None:
        return None if self.pack.price is None else self.pack.price * self.count


MOST_PACKS = 500
"""More than this is no order of a turf manager's (ours)."""


def to_buy(short: float, packs: Sequence[Pack]) -> Buy | None:
    """The packages of one size that make up what is short: the cheapest, where all prices are known, else with least left over.

    Args:
        short: what is short [L or g].
        packs: the sizes it is sold in.

    Returns:
        None where nothing is short or no size is known.
    """
    if short <= 0:
        return None
    found = []
    for pack in packs:
        count = math.ceil(short / pack.size - 1e-9)
        if 0 < count <= MOST_PACKS:
            found.append(Buy(count, pack, count * pack.size - short))
    priced = [b for b in found if b.price is not None]
    if found and len(priced) == len(found):
        return min(priced, key=lambda b: (b.price or Decimal(), b.over))
    return min(found, key=lambda b: (b.over, b.count), default=None)
