"""What a programme means to put down: the turns of its steps on each area, and what each would bring.

What is dated counts in the ledger like any plan; what waits for weather has no day yet, and counts once it has one.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from typing import Any

from core.errors import InputError
from core.growth.ramp import start_in_range
from core.label.match import fit
from core.label.rate import Rate
from core.label.rules import Row
from core.ledger.history import Applied, Place, Standing, applied
from core.rates.dose import dose
from core.season.standing import UNTOUCHED, Down, Kept, Line, matched
from core.season.steps import NOTHING, Around, Warm, turns
from core.units import Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.shelf.queries import Card, cards

OVERSEED = "overseed"


@kept("programme", "shelf", "ground")
def steps(account: Account) -> tuple[Any, ...]:
    """The steps that are kept, of all years, with their products, areas and what was set for their turns; for reading only."""
    found = account.steps.filter(archived_at=None).select_related("event").prefetch_related("products", "areas", "turns")
    return tuple(found)


def grounds(account: Account, step: Any) -> list[Area]:
    """The areas a step is for: its own, or all whole ones that are kept of its site, use and grass."""
    own = {a.area_id for a in step.areas.all()}
    every = [a for a in areas(account).values() if a.archived_at is None]
    if own:
        return [a for a in every if a.pk in own]
    return [
        a
        for a in every
        if a.parent_id is None
        and step.site_id in (None, a.site_id)
        and step.use in ("", a.use)
        and (not step.grass or step.grass in (a.grass, *a.sward.grasses))
    ]


def by_area(account: Account, every: Sequence[Any]) -> dict[int, list[Any]]:
    """Of some steps those that are for each area, by its id."""
    found: dict[int, list[Any]] = {}
    for s in every:
        for a in grounds(account, s):
            found.setdefault(a.pk, []).append(s)
    return found


def down(account: Account, area_id: int) -> list[Down]:
    """What the book has of an area, of what it is part of and of its parts, by product."""
    return [Down(a.on, a.product_id) for a in history(account, area_id)]


def lines(every: Sequence[Any], area: Area, done: Sequence[Down], warm: Warm | None = None, more: Around = NOTHING) -> list[Line]:
    """The turns of some steps on an area, as they were set.

    Args:
        every: the steps that are for it.
        area: the ground.
        done: what went down there.
        warm: its weather, where it is asked.
        more: the weather of years before, and how to speak.
    """
    by_id = {s.pk: s for s in every}

    def of(step: Any, path: tuple[int, ...]) -> list[Line]:
        when = step.timing
        if when is None:
            return []
        days = _anchor(step, area)
        if step.after_id in by_id and step.after_id not in path:
            before = of(by_id[step.after_id], (*path, step.pk))
            at = matched(before, done)
            days = [on for x in before if (on := at.get((x.step, x.turn.number), x.turn.begin)) and not x.kept.skipped]
        found = turns(when, replace(more, warm=warm, anchors={when.anchor: days}))
        set_ = {t.number: Kept(t.on, t.skipped, t.why) for t in step.turns.all() if t.area_id == area.pk}
        does = frozenset(p.product_id for p in step.products.all() if p.position == 0 or p.instead)
        return [Line(step.pk, t, does, set_.get(t.number, UNTOUCHED)).moved for t in found]

    return [line for step in every for line in of(step, ())]


def _anchor(step: Any, area: Area) -> list[date]:
    if step.anchor == OVERSEED:
        return [area.overseed_on] if area.overseed_on else []
    return [step.event.on] if step.event and step.event.archived_at is None else []


@dataclass(frozen=True)
class Brought:
    """A step's product on an area: its label's row that fits best, the rate, how much of it, and what that brings."""

    part: Any
    card: Card
    row: Row | None
    rate: Rate
    amount: Quantity
    applied: Applied


def mixed(account: Account, step: Any, area: Area, first: int | None = None) -> list[Brought]:
    """What the products of a step's mix come to on an area, but for those of which no rate is known or can be reckoned; `first`
    is the product that stands in for its first, by its key, where one does.

    Where the step gives no rate, the rule of the house gives it.
    """
    every = list(step.products.all())
    told = next((p for p in every if p.instead and p.product_id == first), None)
    parts = [told if told and p.position == 0 else p for p in every if not p.instead]
    found = [(part, cards(account).get(part.product_id)) for part in parts]
    return [b for part, card in found if card is not None and (b := _brought(card, part, area))]


def _brought(card: Card, part: Any, area: Area) -> Brought | None:
    row, rate = row_and_rate(card, area, part.target, part.rate)
    if rate is None:
        return None
    amount = amount_on(card, rate, area)
    if amount is None:
        return None
    return Brought(part, card, row, rate, amount, applied(card.core, amount, area.size, date.min, row))


def amount_on(card: Card, rate: Rate, area: Area) -> Quantity | None:
    """How much of a product a rate comes to on an area; None where that cannot be reckoned."""
    try:
        return dose(card.core, rate, area.size).amount
    except InputError:
        return None


def row_and_rate(card: Card, area: Area, target: str, given: Rate | None = None) -> tuple[Row | None, Rate | None]:
    """The row of a label that fits an area best, and the rate: the one that is given, else where the rule of the house starts."""
    rows = [(i, r) for i, r in enumerate(card.label_rows) if given is None or r.label.unit.kind == given.unit.kind]
    row = min(rows, key=lambda r: (len(fit(r[1], r[0], area.ground, target).misses), r[0]))[1] if rows else None
    return row, given or (start_in_range(row.label, area.site.house_rules).rate if row else None)


STEP = "step-"
"""How the names of what turns would put down begin."""


def named(step: Any, area: Area, number: int) -> str:
    """How the ledger names what a turn of a step would put down."""
    return f"{STEP}{step.pk}-{area.pk}-{number}"


@kept("programme", "book", "shelf", "ground")
def every_meant(account: Account) -> tuple[Applied, ...]:
    """What the dated turns of the programme that are still open would put down."""
    return tuple(_read(account))


def _read(account: Account) -> Iterator[Applied]:
    every = steps(account)
    if not every:
        return
    whole_book(account)
    for pk, mine in by_area(account, every).items():
        area, been = areas(account)[pk], down(account, pk)
        found = lines(mine, area, been)
        done = matched(found, been)
        by_id = {s.pk: s for s in mine}
        made = {s.pk: mixed(account, s, area) for s in mine}
        for line in found:
            if line.turn.begin and line.turn.end and not line.kept.skipped and (line.step, line.turn.number) not in done:
                step = by_id[line.step]
                for b in made[line.step]:
                    yield _planned(b.applied, b.part.target, line, area, named(step, area, line.turn.number))


def _planned(a: Applied, target: str, line: Line, area: Area, name: str) -> Applied:
    assert line.turn.begin and line.turn.end
    over = datetime.combine(line.turn.end + timedelta(days=1), time(), area.site.zone)
    return replace(
        a, on=line.turn.begin, application=name, standing=Standing.PLANNED, place=Place(area.pk), at=over, target=target
    )
