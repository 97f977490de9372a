"""Where each regulator stands on each area: its degree-day clock, with the calendar school beside it."""

from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

from core.errors import InputError
from core.growth.clock import OVER, Clock, Stage, Target, growth_shape, run
from core.growth.standing import calendar, cautions, target_for
from core.label.product import Kind
from core.ledger.history import Applied, in_season
from core.weather.degree_days import degree_days
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.common import clock as clocks
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.schemas import ClockOut
from greenmeasure.sky.weather import Known, recent, station_of
from greenmeasure.sky.words import CLOCK_SCHOOLS, clock_sentence, lacks_text

Floats = NDArray[np.float64]
SHARES = np.arange(0, OVER + 0.001, 0.05)
FORGOTTEN = 90
"""Days after which a regulator's clock is no longer shown."""


def all_clocks(account: Account) -> list[ClockOut]:
    """The clocks of every kept area, those that are due first."""
    whole_book(account)
    known = {s.pk: recent(found) if (found := station_of(s)) else None for s in sites_of(account).values()}
    every = [c for a in areas(account).values() if not a.archived_at for c in clocks_of(account, a, known.get(a.site_id))]
    return sorted(every, key=lambda c: (-(c.share or 0), c.area))


def clocks_of(account: Account, area: Area, known: Known | None) -> list[ClockOut]:
    """The clocks of an area's regulators, one for each product, the last application's; those that are over are left out."""
    today = clocks.today(area)
    last: dict[int | str, Applied] = {}
    for a in sorted(history(account, area.pk), key=lambda a: a.on):
        if a.is_a(Kind.GROWTH_REGULATOR) and timedelta() <= today - a.on <= timedelta(days=FORGOTTEN):
            last[a.product_id or a.product] = a
    every = [_clock(account, area, a, known, today) for a in last.values()]
    return [c for c in every if c.stage != Stage.GONE.value]


def _clock(account: Account, area: Area, a: Applied, known: Known | None, today: date) -> ClockOut:
    ground = area.ground
    target = target_for(list(a.actives), ground)
    by_days = calendar(a.on, a.interval)
    season = in_season(history(account, area.pk), account.house_rules.season_of(a.on), a.on)
    earlier = sum(x.is_a(Kind.GROWTH_REGULATOR) and x.codes == a.codes for x in season)
    found = _run(a, target, known, today) if target and known else None
    track = _track(a, target, known) if found and target and known else np.array([])
    by_heat = account.house_rules.of("regulator_again") == "degree_days"
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
    )


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
