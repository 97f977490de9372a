"""The sky as a whole: the state in a sentence, the days to come, and what every area is watched for."""

import numpy as np

from core.disease.model import Risk, risk_of
from core.label.targets import TARGETS
from core.season.cover import covered_days
from core.weather.words import UNITS
from greenmeasure.accounts.models import Account, Site
from greenmeasure.common import clock
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.sky.schemas import RiskOut, SkyOut
from greenmeasure.sky.strip import days_out
from greenmeasure.sky.watching import Watched, all_watched, covers_of, outlook_of, series_of, threshold_text
from greenmeasure.sky.weather import Known, recent, station_of
from greenmeasure.sky.words import fresh_out, overview_sentence, risk_sentence, told_of

AHEAD = 7
GRAVE = {Risk.HIGH: 0, Risk.RISING: 1, Risk.TOO_FEW: 2, Risk.LOW: 3, Risk.OUTSIDE: 4}


def sky(account: Account, site: Site) -> SkyOut:
    """The whole of a site's sky."""
    station, now, today = station_of(site), clock.now(), clock.today(site)
    known = recent(station) if station else None
    fresh = fresh_out(station, known, now)
    if station is None or known is None or not 0 <= known.day_at(today) < len(known.weather.days):
        return SkyOut(
            sentence=fresh.sentence, fresh=fresh, units=UNITS[account.us], week=[], risks=[], quiet=0, aside=0, gaps=0, filled=0
        )
    i = known.day_at(today)
    whole_book(account)
    every = [risk_out(account, w, known, i) for ws in all_watched(account).values() for w in ws if w.area.site_id == site.pk]
    shown = sorted(
        (r for r in every if "high" in (r.now, r.peak) or "rising" in (r.now, r.peak) or r.now == "too_few"),
        key=lambda r: (GRAVE[Risk(r.now)], GRAVE[Risk(r.peak)], r.covered_until is not None, r.area),
    )
    here = known.now_at(now)
    return SkyOut(
        sentence=overview_sentence(shown),
        fresh=fresh,
        units=UNITS[account.us],
        week=days_out(known, i, min(len(known.weather.days), i + AHEAD + 1), account.us),
        risks=shown,
        quiet=len(every) - len(shown),
        aside=station.aside.count(),
        gaps=len(known.hours.between(0, here).gaps),
        filled=known.filled,
    )


def risk_out(account: Account, w: Watched, known: Known, today: int) -> RiskOut:
    """A disease on an area: today, the worst of the week, and what covers it."""
    series, limit, days = series_of(known.station)[w.model.key], w.threshold.value, known.weather.days
    value, outside = float(series.values[today]), bool(series.outside[today])
    ahead = series.values[today : today + AHEAD + 1]
    worst = int(np.nanargmax(ahead)) if not np.isnan(ahead).all() else 0
    peak = float(ahead[worst])
    peak_state = risk_of(peak, bool(series.outside[min(today + worst, len(days) - 1)]), limit)
    outlook = outlook_of(w, known, days.day(today))
    covers = covers_of(account, history(account, w.area.pk), w.disease, outlook)
    covered = covered_days(covers, days.first, len(days))
    until = max((c.until for c in covers), default=None) if covered[today] else None
    state = risk_of(value, outside, limit)
    on = days.day(today + worst)
    limit_text = "" if w.model.yes_or_no else threshold_text(w)
    return RiskOut(
        area_id=w.area.pk,
        area=w.area.name,
        disease=w.disease,
        name=TARGETS[w.disease].name,
        model=w.model.name,
        tier=w.model.tier.text,
        now=state.value,
        now_text=told_of(w, value) if not np.isnan(value) else state.text,
        share=None if np.isnan(value) else round(value / limit, 4),
        peak=peak_state.value,
        peak_text=told_of(w, peak),
        peak_share=None if np.isnan(peak) else round(peak / limit, 4),
        peak_day="today" if worst == 0 else f"{on:%a} {on.day}",
        threshold=limit_text,
        covered_until=until,
        sentence=risk_sentence(state, peak_state, until, worst),
    )
