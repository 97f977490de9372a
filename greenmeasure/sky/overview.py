"""The sky as a whole: the state in a sentence, the days to come, and what every area is watched for."""

from datetime import date

import numpy as np

from core.days import day
from core.disease.model import Risk, risk_of
from core.label.targets import TARGETS
from core.season.cover import covered_days
from core.weather.words import UNITS
from greenmeasure.accounts.models import Account, Site
from greenmeasure.book.queries import history
from greenmeasure.common import clock
from greenmeasure.sky.schemas import RiskOut, SkyOut
from greenmeasure.sky.strip import days_out
from greenmeasure.sky.watching import Watched, all_watched, covers_of, outlook_of, series_of, threshold_text, value_text
from greenmeasure.sky.weather import Known, recent, station_of
from greenmeasure.sky.words import fresh_out

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
    every = [risk_out(account, w, known, i) for ws in all_watched(account).values() for w in ws if w.area.site_id == site.pk]
    shown = sorted(
        (r for r in every if "high" in (r.now, r.peak) or "rising" in (r.now, r.peak) or r.now == "too_few"),
        key=lambda r: (GRAVE[Risk(r.now)], GRAVE[Risk(r.peak)], r.covered_until is not None, r.area),
    )
    here = known.now_at(now)
    return SkyOut(
        sentence=_sentence(shown),
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
    outlook = outlook_of(w, known, series, days.day(today))
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
        now_text=_told(w, value) if not np.isnan(value) else state.text,
        share=None if np.isnan(value) else round(value / limit, 4),
        peak=peak_state.value,
        peak_text=_told(w, peak),
        peak_share=None if np.isnan(peak) else round(peak / limit, 4),
        peak_day="today" if worst == 0 else f"{on:%a} {on.day}",
        threshold=limit_text,
        covered_until=until,
        sentence=_said(state, peak_state, until, worst),
    )


def _told(w: Watched, value: float) -> str:
    """A value in words; of a model that only says yes or no, what that is."""
    if w.model.yes_or_no:
        return w.model.unit if value >= 1 else "not yet"
    return value_text(w.model, value)


def _said(now: Risk, peak: Risk, until: date | None, worst: int) -> str:
    cover = f" Covered to {day(until)}." if until else ""
    if now is Risk.HIGH:
        return f"At its threshold today.{cover or ' Nothing covers it.'}"
    if peak is Risk.HIGH:
        return f"The forecast reaches the threshold in {worst} {'day' if worst == 1 else 'days'}.{cover or ' Nothing covers it.'}"
    if now is Risk.TOO_FEW:
        return "Not enough hours are known to tell."
    return f"Rising.{cover}" if Risk.RISING in (now, peak) else f"Low.{cover}"


def _sentence(shown: list[RiskOut]) -> str:
    high = [r for r in shown if r.now == "high"]
    bare = [r for r in high if r.covered_until is None]
    coming = [r for r in shown if r.now != "high" and r.peak == "high" and r.covered_until is None]
    if bare:
        said = f"{_names(bare)} at the threshold today, with nothing to cover it"
    elif high:
        said = f"{_names(high)} at the threshold today; all of it is covered"
    else:
        said = ""
    if coming:
        later = f"{_names(coming, first=not said)} coming within the week"
        return f"{said}; {later}." if said else f"{later}."
    return f"{said}." if said else "Nothing that is watched is near its threshold without cover, today or in the week to come."


def _names(risks: list[RiskOut], first: bool = True) -> str:
    names = [r.name.lower() for r in risks]
    unlike = list(dict.fromkeys(names))
    where = len({r.area_id for r in risks})
    what = unlike[0] if len(unlike) == 1 else f"{', '.join(unlike[:-1])} and {unlike[-1]}"
    on = f"{what} on {where} {'area' if where == 1 else 'areas'} {'is' if len(unlike) == 1 else 'are'}"
    return on[0].upper() + on[1:] if first else on
