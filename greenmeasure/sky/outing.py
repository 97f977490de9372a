"""The hours to come judged for products on an area: what label, ground, account and weather ask of each."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta, tzinfo
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from core.findings import Finding, Weight
from core.label.product import Product
from core.label.rules import unreadable_text
from core.ledger.history import Applied, Place, applied
from core.ledger.ledger import Ledger
from core.ledger.locks import edges, locked, span_of
from core.ledger.rotation import apart
from core.units import UNITS, Quantity
from core.weather.hours import Hours, moment, unknown
from core.weather.said import UNSAID, Cut, Said
from core.weather.sun import light_hours, place_of
from core.weather.wetness import Wetness, leaf, wet_hours
from core.weather.windows import (
    DORMANT_BELOW,
    Conditions,
    Fit,
    Judged,
    Needs,
    Reason,
    Shut,
    Together,
    Window,
    judge_hours,
    needs_of,
    shut_by,
    together,
    windows,
)
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.past import Asked, ledger
from greenmeasure.shelf.queries import Card, cards
from greenmeasure.sky.models import Rhythm, Station
from greenmeasure.sky.routine import Routine, has_own
from greenmeasure.sky.weather import REACH, Known, near, recent, stations_of

SHUTS = {Weight.REFUSE: Fit.BAD, Weight.WARN: Fit.MIND}
MOST_APART = 120
"""What lies further away than this many days shuts no hour (ours)."""
Flags = NDArray[np.bool_]
EVER = datetime(2000, 1, 1, tzinfo=UTC)
AHEAD = 7 * 24
"""How many hours ahead are judged."""


@dataclass(frozen=True)
class Outing:
    """What was asked of the hours and what they said; `begin` is the hour that place 0 of `judged` stands for."""

    needs: Together
    judged: Judged
    windows: list[Window]
    begin: datetime
    needed: int

    def at(self, place: int) -> datetime:
        return self.begin + timedelta(hours=place)


def outing(
    account: Account,
    area: Area,
    picked: Sequence[Card],
    known: Known,
    now: datetime,
    needed: int,
    *,
    own: frozenset[str] = frozenset(),
) -> Outing:
    """Judge the hours from now on for products on an area; `own` is how the ledger names what is planned of them."""
    needs, here = needs_together(picked), known.now_at(now)
    on_its_own = area.pk if has_own(account, area.pk, now) else None
    open_hours = _open_hours(account, area.site_id, on_its_own, area.sward.cool, tuple(c.product.pk for c in picked), _hour(now))
    judged = shut_by(open_hours, _shut(account, area, picked, known.station, here, own), _ahead_of(known.station, here).now)
    return Outing(needs, judged, [] if needs.contradictions else windows(judged, needed), _hour(now), needed)


@kept()
def _ahead_of(station: Station, here: int) -> Cut:
    """The hours that an outing at the hour at a place is judged by: three days back, and as far ahead as is known."""
    known = recent(station)
    assert known
    start = max(0, here - 72)
    return _cut(known, start, min(len(known.hours), here + AHEAD), here)


def _cut(known: Known, begin: int, end: int, now: int) -> Cut:
    """The hours from one place to another, with their soil and their leaves."""
    return _bare(known, _with_soil(known, known.hours.between(begin, end), begin), now - begin)


def _bare(known: Known, hours: Hours, now: int) -> Cut:
    """Hours with their leaves; `now` is the place of the one at hand."""
    return Cut(hours, leaf(hours, wet_hours(hours, Wetness(known.station.wetness))), now)


def needs_together(picked: Sequence[Card]) -> Together:
    """What the labels of products ask together; a rule that cannot be read stands against every hour."""
    found = together([_needs_of(c) for c in picked])
    broken = [unreadable_text(c.product.name, said) for c in picked for said in c.core.rules.unreadable]
    return replace(found, contradictions=(*found.contradictions, *broken, *_at_odds(picked)))


def _at_odds(picked: Sequence[Card]) -> list[str]:
    """What the labels of products keep apart, were they put down together."""
    now = [replace(meant(c.core, EVER, UTC), application="one tank") for c in picked]
    found = [
        f.sentence
        for i, (card, plan) in enumerate(zip(picked, now, strict=True))
        for f in apart(card.core, plan, now[i + 1 :])
        if f.act is Weight.REFUSE
    ]
    return list(dict.fromkeys(found))


@kept("sky", "shelf", "work", "ground")
def _open_hours(
    account: Account, site_id: int, area_id: int | None, cool: bool, product_ids: tuple[int, ...], now: datetime
) -> Judged:
    """The hours from `now` on by weather, labels and rhythms: the same for all areas of a site and of a kind of grass that have
    no rhythms of their own, and on which nothing was mown or watered of late, whose `area_id` is None.
    """
    known = recent(stations_of(account)[site_id])
    assert known
    ahead = _ahead_of(known.station, known.now_at(now))
    return judge_hours(
        ahead.hours,
        needs_together([cards(account)[pk] for pk in product_ids]).needs,
        now=ahead.now,
        wet=ahead.wet,
        around=_around(Routine(account, site_id, area_id), cool, known, ahead.hours),
        age=known.forecast_age(now) or 0.0,
        us=account.us,
    )


def _around(routine: Routine, cool: bool, known: Known, cut: Hours) -> Conditions:
    station, kinds = known.station, Rhythm.Kind
    light = None
    if station.latitude is not None and station.longitude is not None:
        light = light_hours(cut, place_of(station.latitude, station.longitude), station.zone)
    flags = {kind: routine.touches(kind, station.zone, cut) for kind in kinds}
    return Conditions(light, flags[kinds.QUIET], flags[kinds.MOW], flags[kinds.WATER], _dormant(cool, known, cut))


@kept()
def _days_ahead(station: Station, here: int) -> tuple[tuple[date, int, int], ...]:
    """The local days of `_ahead_of`, each with the places of its first hour and of the one after its last."""
    known, cut = recent(station), _ahead_of(station, here).hours
    assert known
    begin = known.hours.place(moment(cut.start))
    number = known.weather.number[begin : begin + len(cut)]
    edges = [0, *(np.flatnonzero(np.diff(number)) + 1).tolist(), len(cut)]
    return tuple((known.weather.days.day(int(number[a])), a, b) for a, b in pairwise(edges))


def _shut(
    account: Account, area: Area, picked: Sequence[Card], station: Station, here: int, own: frozenset[str]
) -> tuple[Shut, ...]:
    """The hours that what lies on the ground shuts for products: held against its ledger, as the gate does, by the day for what
    labels keep apart by days, and by the hour for what is locked.
    """
    zone, place, cut = area.site.zone, Place(area.pk), _ahead_of(station, here).hours
    first, last = moment(cut.start), moment(cut.start) + timedelta(hours=len(cut) - 1)
    found: dict[tuple[str, str], tuple[Finding, np.ndarray[Any, np.dtype[np.bool_]]]] = {}
    for card in picked:
        pieces = ledger(account, Asked(place, first, card.product.pk, besides=own)).pieces
        past = [a for p in pieces if not p.spots for a in p.past if abs((a.on - last.date()).days) < MOST_APART]
        far = [a for a in past if a.apart or card.core.rules.incompatible]
        near = [a for a in past if _still(a, first, zone)]
        any_time = meant(card.core, first, zone)

        def shut(begin: int, end: int, every: list[Finding]) -> None:
            for f in every:
                said = found.setdefault((f.key, f.sentence), (f, np.zeros(len(cut), dtype=bool)))
                said[1][begin:end] = True

        for on, begin, end in _days_ahead(station, here) if far else ():
            shut(begin, end, apart(card.core, replace(any_time, on=on), far))
        turns = {n for at in edges(any_time, near, zone) for n in _places(first, at)}
        for on, begin, end in _days_ahead(station, here) if near else ():
            stretch = sorted({begin, end} | {n for n in turns if begin < n < end})
            for a, b in pairwise(stretch):
                shut(a, b, locked(card.core, replace(any_time, on=on, at=first + timedelta(hours=a)), near, zone))
    return tuple(Shut(f.key, flags, SHUTS[f.act], f.sentence) for f, flags in found.values() if f.act in SHUTS)


def _places(first: datetime, at: datetime) -> tuple[int, int]:
    """The hour that begins at a time or after it, and the one that begins after it."""
    hours = (at - first) / timedelta(hours=1)
    return math.ceil(hours), math.floor(hours) + 1


def _still(a: Applied, at: datetime, zone: tzinfo) -> bool:
    """Whether the hours of an application's label run on after a time."""
    hours = max(a.holds.dry or 0.0, a.holds.walk or 0.0, a.holds.water or 0.0, 24.0 if a.stays_on_leaf else 0.0)
    return span_of(a, zone)[1] + timedelta(hours=hours) > at


def meant(product: Product, at: datetime, zone: tzinfo) -> Applied:
    """A product at a time, whatever its rate: enough to ask what keeps it apart and what it would break."""
    foot = Quantity(1.0, UNITS["m2"])
    one = Quantity(1e-6, UNITS["l" if product.liquid else "g"])
    return replace(applied(product, one, foot, at.astimezone(zone).date()), at=at)


# --- one hour, as the gate asks it ----------------------------------------------------------------------------------

AROUND = REACH // timedelta(hours=1)


@kept()
def _cut_around(station: Station, hour: datetime, soil: bool) -> Cut | None:
    """The hours around one, with their soil if it is asked for; None where no table reaches it."""
    known = _known_around(station, hour, soil)
    place = known.hours.place(hour) if known else -1
    if known is None or not 0 <= place < len(known.hours):
        return None
    begin, end = max(0, place - AROUND), min(len(known.hours), place + AROUND + 1)
    return _cut(known, begin, end, place) if soil else _bare(known, known.hours.between(begin, end), place - begin)


def _known_around(station: Station, hour: datetime, soil: bool) -> Known | None:
    """What is known around an hour; the soil, where it was not measured, is estimated by months of air."""
    return recent(station) if soil else near(station, hour)


def _nothing_around(hour: datetime) -> Cut:
    """The hours around one of which nothing is known."""
    start = np.datetime64(hour.astimezone(UTC).replace(tzinfo=None), "h") - np.timedelta64(AROUND, "h")
    blank = unknown(start, 2 * AROUND + 1)
    return Cut(blank, np.full(len(blank), np.nan), AROUND)


@kept()
def _soil_by_day(station: Station) -> NDArray[np.float64]:
    """The soil of each day of a station's last months, reckoned once a revision [°C]."""
    known = recent(station)
    return known.weather.soil if known else np.array([])


def _with_soil(known: Known, cut: Hours, begin: int) -> Hours:
    """Hours with the soil as it was measured, and as its day is estimated where it was not."""
    by_day = _soil_by_day(known.station)[known.weather.number[begin : begin + len(cut)]]
    return replace(cut, soil=np.where(np.isnan(cut.soil), by_day, cut.soil))


def hour_of(account: Account, area: Area, card: Card, at: datetime, said: Said = UNSAID) -> tuple[Reason, ...]:
    """What the hour of a plan says against a product's label: by the weather of the site, and by what somebody looked at."""
    if not _needs_of(card).asks:
        return ()
    if said == UNSAID:
        return _hour_judged(account, area.pk, card.product.pk, _hour(at), _hour(clock.now()))
    return _judged(account, area, card, at, said)


@kept("sky", "shelf", "ground", "work")
def _hour_judged(account: Account, area_id: int, product_id: int, at: datetime, now: datetime) -> tuple[Reason, ...]:
    """What an hour is found to say on an area against a product's label, asked in the hour `now`."""
    return _judged(account, areas(account)[area_id], cards(account)[product_id], at, UNSAID)


def _needs_of(card: Card) -> Needs:
    return needs_of(card.core.rules, card.product.name, card.core.formulation.sprayed, card.core.kind)


LOOKED = timedelta(hours=12)
"""Nobody can look at the leaf of an hour that is further off than this (ours)."""


def at_its_hour(bears: Ledger, at: datetime, hour: tuple[Reason, ...]) -> Ledger:
    """A ledger with what its plan's hour says."""
    return replace(bears, hour=hour, ahead=at > clock.now() + LOOKED)


def _hour(at: datetime) -> datetime:
    return at.replace(minute=0, second=0, microsecond=0)


def _judged(account: Account, area: Area, card: Card, at: datetime, said: Said) -> tuple[Reason, ...]:
    station, zone, kinds = stations_of(account).get(area.site_id), area.site.zone, Rhythm.Kind
    needs, hour = _needs_of(card), _hour(at)
    soil = any(x is not None for x in needs.soil)
    known = _known_around(station, hour, soil) if station else None
    cut = said.seen((_cut_around(station, hour, soil) if station else None) or _nothing_around(hour))
    routine = Routine(account, area.site_id, area.pk)
    mown, watered = (routine.touches(kind, zone, cut.hours) for kind in (kinds.MOW, kinds.WATER))
    around, age = Conditions(mown=mown, watered=watered), (known.forecast_age(clock.now()) if known else None) or 0.0
    judged = judge_hours(cut.hours, needs, now=cut.now, wet=cut.wet, around=around, age=age, us=account.us, count=1)
    return judged.reasons[0]


def _dormant(cool: bool, known: Known, cut: Hours) -> Flags:
    """Hours of days whose soil is too cold for the grass to grow; a day without a value is not."""
    ground = _soil_by_day(known.station)
    with np.errstate(invalid="ignore"):
        cold = ground < DORMANT_BELOW[cool]
    at = known.hours.place(moment(cut.start))
    return np.asarray(cold[known.weather.number[at : at + len(cut)]])
