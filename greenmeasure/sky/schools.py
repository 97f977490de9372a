"""The calendar and the threshold school over a season that has been, on one area, with the account's own weather."""

from collections.abc import Sequence
from datetime import date
from decimal import Decimal

import numpy as np

from core.errors import InputError
from core.label.product import Kind
from core.label.targets import TARGETS
from core.ledger.history import Applied
from core.ledger.ledger import plain
from core.season.choose import Candidate, Pick, Wanted, choices
from core.season.replay import School, Season, by_calendar, by_threshold
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.ground.queries import area_of
from greenmeasure.shelf.queries import Card, cards, stocks
from greenmeasure.sky.schemas import SchoolReplayOut, SchoolsOut
from greenmeasure.sky.watching import Watched, watched
from greenmeasure.sky.weather import Known, station_of, whole
from greenmeasure.sky.words import NO_INTERVAL, NO_PRODUCT, ONE_PRODUCT, STAND_IN, cost_text, schools_sentence

MONTHS = (4, 11)
"""The months a calendar is taken to spray in, both in it (common practice, no source)."""


def schools(account: Account, area_id: int, disease: str, year: int | None) -> SchoolsOut:
    """Both schools replayed.

    Raises:
        InputError: the area is not watched for the disease, or there is no weather for the year.
    """
    area = area_of(account, area_id)
    station = station_of(area.site)
    w = next((w for w in watched(area) if w.disease == disease), None)
    if w is None:
        raise InputError("disease", disease, f"{area.name} is not watched for that.", "Pick one that it is watched for.")
    known = whole(station) if station else None
    today = clock.today(area)
    picked = year or (today.year if today.month > MONTHS[0] + 1 else today.year - 1)
    if known is None:
        raise InputError("year", picked, "There is no weather to replay.", "Fetch it, or bring in a file.")
    season, unknown = _season(w, known, picked, today)
    spray, price, notes = _spray(account, w)
    calendar, model = by_calendar(season, spray, price), by_threshold(season, spray, price)
    return SchoolsOut(
        sentence=schools_sentence(calendar, model),
        season=_span(season),
        area=area.name,
        disease=TARGETS[disease].name,
        product=spray.product,
        first=season.first,
        shares=[None if np.isnan(v) else round(float(v) / season.threshold, 4) for v in season.values],
        risk_days=calendar.risk_days,
        unknown_days=unknown,
        calendar=_out(calendar, account),
        threshold=_out(model, account),
        notes=notes,
    )


def _season(w: Watched, known: Known, year: int, today: date) -> tuple[Season, int]:
    begin = date(year, MONTHS[0], 1)
    end = min(date(year, MONTHS[1], 30), today)
    first = max(begin, known.weather.days.first)
    a, b = known.day_at(first), known.day_at(end) + 1
    if b - a < 30:
        raise InputError("year", year, f"There is too little weather of {year} to replay.", "Pick another year, or bring it in.")
    series = w.model.run(known.weather)
    values = series.values[a:b]
    unknown = int((np.isnan(values) & ~series.outside[a:b]).sum())
    return Season(first, values, w.threshold.value, first, end), unknown


def _span(season: Season) -> str:
    a, b = season.begin, season.end
    return f"{a.day} {a:%B} to {b.day} {b:%B %Y}"


def _spray(account: Account, w: Watched) -> tuple[Applied, Decimal | None, list[str]]:
    """The spray that both schools use: the shelf's first choice on bare turf, or a plain fortnight's where it has none."""
    found = choices(
        Wanted(w.disease, w.area.ground, clock.today(w.area)),
        candidates(account, list(cards(account).values())),
        plain(w.area.ground, (), w.area.site.house_rules),
        account.us,
    )
    pick: Pick | None = next((c for c in found if c.allowed), None)
    if pick is None:
        return Applied(date.min, STAND_IN, Kind.FUNGICIDE, interval=(14, 28)), None, [NO_PRODUCT]
    low, high = pick.row.interval
    notes = [] if low or high else [NO_INTERVAL]
    spray = Applied(
        date.min,
        pick.candidate.product.name,
        Kind.FUNGICIDE,
        pick.candidate.product.codes,
        interval=pick.row.interval if low or high else (14, 14),
    )
    notes.append(ONE_PRODUCT)
    return spray, pick.cost, notes


def candidates(account: Account, every: Sequence[Card]) -> list[Candidate]:
    """Fungicides of the shelf as the rules of a season look at them."""
    kept, left = [c for c in every if c.core.is_a(Kind.FUNGICIDE) and c.product.archived_at is None], stocks(account)
    return [Candidate(c.core, c.label_rows, left.get(c.product.pk)) for c in kept]


def _out(found: School, account: Account) -> SchoolReplayOut:
    cost = cost_text(found.cost, account.currency)
    return SchoolReplayOut(days=list(found.days), sprays=len(found.days), cost=cost, unprotected=found.unprotected)
