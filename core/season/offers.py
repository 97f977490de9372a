"""What a shelf offers an area for a season: each product by a row of its label, what it protects or feeds, and for how long.

Cover is taken as the middle of the label's interval; what pressure takes off it shows in the years it is held against. That
quick nitrogen feeds for about five weeks and slow nitrogen for twice as long is common practice, no source.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from datetime import date

from core.errors import InputError
from core.ground import Ground
from core.growth.ramp import start_in_range
from core.label.match import fit
from core.label.product import Kind, Product
from core.label.rate import Basis, Rate
from core.label.rules import Intent, Row
from core.ledger.history import Applied, applied
from core.rates.cost import cost
from core.rates.dose import dose
from core.schools import House
from core.season.choose import Candidate
from core.season.cover import middle, protects
from core.units import Quantity

NITROGEN = "N"
"""The target of what feeds, beside diseases by their keys."""
NEVER = date.min
"""The day of what has none yet."""
QUICK_DAYS = 35
"""Days that quick nitrogen feeds."""


@dataclass(frozen=True)
class Offer:
    """A product on an area by the row of its label at place `index`: its rate, how much of it, and what that is to the gate.

    `covers` is how much of a day's need it meets by target: 1 of a disease, g/m² of nitrogen; `price` is for the whole area,
    None where none is known.
    """

    product: Product
    index: int
    row: Row
    rows: tuple[Row, ...]
    rate: Rate
    amount: Quantity
    applied: Applied
    price: float | None
    covers: dict[str, float] = field(default_factory=dict)

    @property
    def lasts(self) -> int:
        """For how many days it covers, its own first."""
        if NITROGEN in self.covers:
            return feeds(self.product)
        return middle(self.row.interval)

    @property
    def least(self) -> int:
        """The least days to the next of it."""
        return self.row.interval[0] or 1

    @property
    def active(self) -> float:
        """What acts in it, of actives and nutrients [g/m²]; its own weight or volume where its card names none [g or mL/m²]."""
        held = sum(self.applied.actives.values()) or self.applied.nutrients.get(Basis.N, 0.0)
        return held or self.applied.grams or (self.applied.litres or 0.0) * 1000


def feeds(product: Product) -> int:
    """For how many days the nitrogen of a product feeds."""
    content = product.content(Basis.N)
    return round(QUICK_DAYS * (1 + (content.slow_share if content else 0.0)))


def offers(ground: Ground, shelf: Iterable[Candidate], diseases: Sequence[str], feed: bool, house: House) -> list[Offer]:
    """What a shelf offers an area, each product once for each different thing that it does.

    Args:
        ground: the area.
        shelf: the products with the rows of their labels.
        diseases: what is to be held off, by keys.
        feed: whether it is to be fed.
        house: whose school says where in a range to start.
    """
    found: list[Offer] = []
    for candidate in shelf:
        mine: list[Offer] = []
        for index, row in enumerate(candidate.rows):
            if row.intent is Intent.CURATIVE or fit(row, index, ground).misses:
                continue
            offer = _offer(ground, candidate, index, diseases, feed, house)
            if offer and offer.covers and not any(_does(m, offer) for m in mine):
                mine = [m for m in mine if not _does(offer, m)] + [offer]
        found += mine
    return found


def _does(a: Offer, b: Offer) -> bool:
    """Whether one offer does all that another of its product does, with no more."""
    return set(a.covers) >= set(b.covers) and a.active <= b.active * (1 + 1e-9)


def _offer(ground: Ground, candidate: Candidate, index: int, diseases: Sequence[str], feed: bool, house: House) -> Offer | None:
    product, row = candidate.product, candidate.rows[index]
    rate = start_in_range(row.label, house).rate
    try:
        amount = dose(product, rate, ground.size).amount
    except InputError:
        return None
    down = applied(product, amount, ground.size, NEVER, row)
    priced = cost(product, amount, ground.size, ground.size)
    covers: dict[str, float] = {}
    if product.is_a(Kind.FUNGICIDE):
        preventive = [r for i, r in enumerate(candidate.rows) if r.intent is not Intent.CURATIVE and not fit(r, i, ground).misses]
        covers = {d: 1.0 for d in diseases if protects(down, preventive, d)}
    elif feed and product.is_a(Kind.FERTILISER) and not product.label_binds and (n := down.nutrients.get(Basis.N, 0.0)):
        covers = {NITROGEN: n / feeds(product)}
    return Offer(product, index, row, candidate.rows, rate, amount, down, float(priced.total) if priced else None, covers)


STRIDE = 2
"""Of so many days one is asked of the gate, where its neighbours are answered alike (ours)."""


def let_through(days: Sequence[int], let: Callable[[int], bool]) -> frozenset[int]:
    """The days of those that are let through: every so many-th is asked, and between two that differ the ones where it turns.

    What holds on both sides is taken to hold between: whoever chooses such a day asks it then.

    Args:
        days: the days, in order.
        let: whether a day is let through.
    """
    found = {0: let(days[0])} if days else {}

    def between(a: int, b: int) -> None:
        if found[a] == found[b]:
            found.update(dict.fromkeys(range(a + 1, b), found[a]))
        elif b - a > 1:
            half = (a + b) // 2
            found[half] = let(days[half])
            between(a, half)
            between(half, b)

    for a in range(0, len(days) - 1, STRIDE):
        b = min(a + STRIDE, len(days) - 1)
        found[b] = let(days[b])
        between(a, b)
    return frozenset(days[i] for i, yes in found.items() if yes)
