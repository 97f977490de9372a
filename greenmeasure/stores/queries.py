"""What is read of stores: lots, what planned jobs need, what the rest of last season took."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal

from core.ledger.history import Applied
from core.readable import readable
from core.season.stock import Jug, Keeps, Pack, keeps, to_buy, usable
from core.units import UNITS, VOLUME, Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Entry
from greenmeasure.book.queries import entries
from greenmeasure.common import clock
from greenmeasure.common.natural import natural
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.past import every_to_come, every_under_way
from greenmeasure.shelf.models import Lot
from greenmeasure.shelf.queries import Card, cards
from greenmeasure.stores import words
from greenmeasure.stores.schemas import JugOut, StockLineOut, StoresOut

YEAR = timedelta(days=365)


@dataclass
class Needed:
    """What is needed of a product [L or g]: by plans, and as in the rest of last season; `lost` where some is not counted."""

    planned: float = 0.0
    as_last: float = 0.0
    lost: bool = False


def stores(account: Account) -> StoresOut:
    """The shelf against the season."""
    today = clock.today(account)
    end = date(today.year, 12, 31)
    lots: dict[int, list[Lot]] = {}
    for lot in Lot.objects.filter(product__account=account, product__archived_at=None):
        lots.setdefault(lot.product_id, []).append(lot)
    kept = {pk: c for pk, c in cards(account).items() if c.product.archived_at is None}
    needs = {pk: Needed() for pk in kept}
    now = clock.now()
    ahead = [a for a in every_to_come(account) if a.on <= end and (a.at is None or a.at > now)]
    for a in (*every_under_way(account), *ahead):
        _add(needs, kept, a, _ground(account, a), planned=True)
    for e, applied in _last_year(account, today, end):
        _add(needs, kept, applied, e.application.treated.base, planned=False)
    told = [
        _line(account, kept[pk], lots.get(pk, []), needs[pk], today)
        for pk in sorted(kept, key=lambda pk: natural(kept[pk].product.name))
        if lots.get(pk) or needs[pk].planned or needs[pk].as_last
    ]
    jugs = [j for line, _ in told for j in line.jugs]
    prices = [price for _, price in told if price is not None]
    return StoresOut(
        sentence=words.sentence(
            sum(Keeps(j.keeps).asks for j in jugs),
            sum(Keeps(j.keeps) is Keeps.SOON for j in jugs),
            sum(bool(line.short) for line, _ in told),
        ),
        lines=[line for line, _ in told],
        cost=words.money(sum(prices, Decimal()), account.currency) if prices else "",
        until=words.until_text(end),
    )


def _ground(account: Account, a: Applied) -> float:
    """The ground of an application [m²]."""
    if a.place is None:
        return 0.0
    area = areas(account).get(a.place.area)
    return a.place.treated or (area.size.base if area else 0.0)


def _last_year(account: Account, today: date, end: date) -> Iterable[tuple[Entry, Applied]]:
    """What went down a year ago, from this day to the year's end."""
    begin = today - YEAR
    stood = entries(account).filter(application__struck_at=None)
    found = stood.filter(application__applied_on__gt=begin, application__applied_on__lte=end - YEAR)
    for e in found:
        yield e, e.applied()


def _add(needs: dict[int, Needed], kept: dict[int, Card], a: Applied, ground: float, planned: bool) -> None:
    """Count an application among what is needed of its product, in what that is measured in."""
    if a.product_id not in needs:
        return
    need = needs[a.product_id]
    each = a.litres if kept[a.product_id].core.measured_in == VOLUME else a.grams
    if each is None:
        need.lost = True
    elif planned:
        need.planned += each * ground
    else:
        need.as_last += each * ground


def _line(account: Account, card: Card, lots: list[Lot], need: Needed, today: date) -> tuple[StockLineOut, Decimal | None]:
    """A product's line, and what is to be paid for it."""
    product, us = card.product, account.us
    dimension = card.core.measured_in
    unit = UNITS["l" if dimension == VOLUME else "g"]
    alike = [(x, keeps(x.received_on, x.expires_on, today)) for x in lots]
    left = usable(Jug(x.left.base, k) for x, k in alike if x.left.unit.dimension == dimension) / unit.size
    wanted = max(need.planned, need.as_last)
    short = wanted - left if wanted > left * (1 + 1e-9) else 0.0
    packs = {Pack(p.size.base / unit.size, p.price): p.size for p in product.packages.all() if p.size.unit.dimension == dimension}
    buy = to_buy(short, list(packs))

    def said(amount: float) -> str:
        return str(readable(Quantity(amount, unit), us)) if amount > 0 else ""

    notes = [words.NO_DENSITY] if need.lost else []
    if short and not packs:
        notes.append(words.NO_SIZE)
    line = StockLineOut(
        product_id=product.pk,
        product=product.name,
        kind=card.core.kind.text,
        left=said(left) or ("None" if lots else ""),
        planned=said(need.planned),
        as_last=said(need.as_last),
        short=said(short),
        buy=words.buy_text(buy, packs[buy.pack] if buy else None, account.currency),
        note=" ".join(notes),
        jugs=[
            JugOut(
                id=x.pk,
                number=x.number,
                left=str(x.left),
                since=words.since_text(x, today),
                keeps=k.value,
                text=words.jug_text(x, k, today),
            )
            for x, k in alike
        ],
    )
    return line, buy.price if buy else None
