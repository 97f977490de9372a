"""Where each regulator stands on each area: its degree-day clock, with the calendar school beside it."""

from dataclasses import dataclass, replace
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from core.errors import InputError
from core.growth.clock import OVER, Clock, Stage, Target, growth_shape, offered, own_target, run
from core.growth.standing import calendar, cautions, target_for
from core.label.product import Kind
from core.ledger.history import Applied, in_season
from core.units import show_number
from core.weather.degree_days import Base, degree_days
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.common import clock as clocks
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import OptionOut
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.models import Hold
from greenmeasure.sky.schemas import ClockOut, HoldIn
from greenmeasure.sky.weather import Known, known_of, stations_of, whole
from greenmeasure.sky.words import CLOCK_SCHOOLS, clock_sentence, lacks_text, season_text, target_text, together_text

Floats = NDArray[np.float64]
SHARES = np.arange(0, OVER + 0.001, 0.05)
FORGOTTEN = 90
"""Days after which a regulator's clock is no longer shown."""


def all_clocks(account: Account) -> list[ClockOut]:
    """The clocks of every kept area, those that are due first."""
    whole_book(account)
    known = {pk: known_of(account, pk) for pk in sites_of(account)}
    every = [c for a in areas(account).values() if not a.archived_at for c in clocks_of(account, a, known.get(a.site_id))]
    return sorted(every, key=lambda c: (-(c.share or 0), c.area))


def clocks_of(account: Account, area: Area, known: Known | None) -> list[ClockOut]:
    """The clocks of an area's regulators, one for each product, the last application's; those that are over are left out.

    While one class holds there is no rebound of another.
    """
    today = clocks.today(area)
    last: dict[int | str, Applied] = {}
    for a in sorted(history(account, area.pk), key=lambda a: a.on):
        if a.is_a(Kind.GROWTH_REGULATOR) and timedelta() <= today - a.on <= timedelta(days=FORGOTTEN):
            last[a.product_id or a.product] = a
    every = [_Running(a, target_here(account, area, list(a.actives))) for a in last.values()]
    every = [replace(r, clock=_run(r.applied, r.target, known, today)) if r.target and known else r for r in every]
    working = [r for r in every if not r.clock or r.clock.stage is not Stage.GONE]
    return [_clock(account, area, r, [o for o in working if o is not r], known) for r in working]


def target_here(account: Account, area: Area, actives: list[str]) -> Target | None:
    """The target of a regulator on an area: its own, where somebody set one; None where none is known."""
    own = {name: own_target(name, row.sum, row.base) for name, row in _holds(account).get(area.pk, {}).items()}
    return target_for(actives, area.ground, own)


@dataclass(frozen=True)
class _Running:
    """A regulator at work: its last application, its target and its clock, None where there is none."""

    applied: Applied
    target: Target | None
    clock: Clock | None = None

    def holds(self, today: date) -> bool:
        """Whether it is still at work: by its clock, else by the label's days."""
        if self.clock is not None:
            return self.clock.stage in (Stage.HOLDS, Stage.DUE)
        last = calendar(self.applied.on, self.applied.interval).last
        return last is not None and last >= today


@kept("sky", "ground")
def _holds(account: Account) -> dict[int, dict[str, Hold]]:
    """The targets that were set, by area and active; for reading only."""
    found: dict[int, dict[str, Hold]] = {}
    for row in Hold.objects.filter(area__account=account):
        found.setdefault(row.area_id, {})[row.active] = row
    return found


def hold_of(account: Account, area_id: int, active: str) -> HoldIn:
    """A target as a form would send it; version 0 where none is set."""
    row = _holds(account).get(area_id, {}).get(active.strip().lower())
    if row is None:
        return HoldIn(version=0)
    return HoldIn(version=row.version, own=show_number(row.sum), base=show_number(row.base))


def _clock(account: Account, area: Area, r: _Running, others: list[_Running], known: Known | None) -> ClockOut:
    ground, a, target, found, today = area.ground, r.applied, r.target, r.clock, clocks.today(area)
    by_days = calendar(a.on, a.interval)
    season = in_season(history(account, area.pk), account.house_rules.season_of(a.on), a.on)
    earlier = sum(x.is_a(Kind.GROWTH_REGULATOR) and x.codes == a.codes for x in season)
    if found and found.stage is Stage.REBOUND and any(o.holds(today) for o in others):
        found = replace(found, stage=Stage.ENDED)
    track = _track(a, target, known) if found and target and known else np.array([])
    by_heat = account.house_rules.of("regulator_again") == "degree_days"
    active = target.active if target else next(iter(a.actives), "").lower()
    form = hold_of(account, area.pk, active)
    return ClockOut(
        area_id=area.pk,
        area=area.name,
        product_id=a.product_id,
        product=_name(account, a),
        since=a.on,
        stage=found.stage.value if found else "none",
        share=round(found.share, 4) if found else None,
        sentence=clock_sentence(found, target, by_days, account.us, today),
        due=found.due if found else None,
        earliest=found.earliest if found else None,
        latest=found.latest if found else None,
        calendar_first=by_days.first,
        calendar_last=by_days.last,
        school=CLOCK_SCHOOLS[by_heat],
        upto=found.upto if found else None,
        lacks=lacks_text(found, target, today),
        cautions=cautions(ground, target, a.on, today, earlier),
        track=[round(float(t), 4) for t in track],
        shape=[round(float(s), 4) for s in growth_shape(SHARES)] if found else [],
        active=active,
        version=form.version or 0,
        own=str(form.own),
        base=str(form.base),
        offered=[OptionOut(key=f"{t.sum:g}/{t.base.celsius:g}", text=target_text(t, account.us)) for t in offered(active)],
        season=_season(account, area, a, target, today),
        together=together_text(_name(account, a), [(_name(account, o.applied), o.clock) for o in others], found),
    )


def _season(account: Account, area: Area, a: Applied, target: Target | None, today: date) -> str:
    """The season's running total, and what it was on the day a regulator went down; empty where weather is not known so far."""
    begin = account.house_rules.season_of(today)
    station = stations_of(account).get(area.site_id)
    known = whole(station) if station else None
    if known is None or known.day_at(begin) < 0:
        return ""
    base, days = target.base if target else Base(), known.weather.days
    daily = degree_days(days.high, days.low, base)

    def upto(on: date) -> float:
        return float(np.nansum(daily[known.day_at(begin) : known.day_at(on) + 1]))

    return season_text(upto(today), upto(a.on) if a.on >= begin else None, a.on, begin, base.celsius, account.us)


def _name(account: Account, a: Applied) -> str:
    """What an application's product is called now; as it went down where its card is not known."""
    card = cards(account).get(a.product_id or 0)
    return card.product.name if card else a.product


def _run(a: Applied, target: Target, known: Known, today: date) -> Clock | None:
    """The clock up to today, or up to where the weather ends; None where there is none for it."""
    days = known.weather.days
    last = days.first + timedelta(days=len(days) - 1)
    try:
        return run(days.first, days.high, days.low, a.on, min(today, last), target, foretold=days.forecast)
    except InputError:
        return None


def _track(a: Applied, target: Target, known: Known) -> Floats:
    """The share of the target by day, from the application to the end of what is known."""
    days = known.weather.days
    begin = known.day_at(a.on)
    daily = np.nan_to_num(degree_days(days.high[begin:], days.low[begin:], target.base))
    daily[0] = 0.0
    return np.asarray(np.cumsum(daily) / target.sum)
