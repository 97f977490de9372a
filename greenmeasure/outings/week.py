"""The next seven days in a picture: what is due with the hours fit for it, what is locked, the outings, site by site."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta

import numpy as np

from core.ledger.locks import midnight
from core.outing.gather import Gathered, gathered
from core.spans import spans
from core.weather.sun import light_hours, place_of
from core.weather.windows import Fit
from greenmeasure.accounts.models import Account, Site, sites_of
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.ledger.locks import Locked, in_force
from greenmeasure.ledger.words import lock_sentence
from greenmeasure.outings.asked import open_outings, plan_for, still_wanted
from greenmeasure.outings.lines import kept_lines, last_minute
from greenmeasure.outings.models import Outing
from greenmeasure.outings.morning import READ, hours_for
from greenmeasure.outings.queries import outing_line, proposed_out
from greenmeasure.outings.schemas import OutingAskIn, ProposedOut, WeekDayOut, WeekOut, WeekRowOut, WeekSiteOut, WeekSpanOut
from greenmeasure.outings.wants import Due
from greenmeasure.outings.words import day_text, fit_text
from greenmeasure.sky.weather import recent, stations_of
from greenmeasure.sky.words import span_text

DAYS, MOST_ROWS, MOST_SITES = 7, 6, 6
"""Days in the picture, how many sites it shows, and how many jobs of each (ours)."""
WEEK = timedelta(days=DAYS)


STEP = timedelta(minutes=5)
"""How long a picture of the week stands, where nothing of the account has changed (ours)."""


def week(account: Account) -> WeekOut:
    """The week from today on, and the next outing."""
    now, start = clock.now(), midnight(clock.today(account), account.home.zone)
    return _week(account, int(now.timestamp() // STEP.total_seconds())).model_copy(update={"now": _share(start, now)})


@kept(*READ)
def _week(account: Account, step: int) -> WeekOut:
    """The week as it stands at one step of the clock."""
    today = clock.today(account)
    start = midnight(today, account.home.zone)
    under_way, every = open_outings(account), still_wanted(account)
    upcoming = None if any(_current(o, today) for o in under_way) else _proposal(account, every)
    sites = _busiest(account, every, under_way, upcoming)
    return WeekOut(
        days=[
            WeekDayOut(on=on, text=f"{on:%a} {on.day}", begin=n / DAYS)
            for n in range(DAYS)
            for on in (today + timedelta(days=n),)
        ],
        now=_share(start, clock.now()),
        sites=[_site(account, s, start, every, under_way, upcoming) for s in sites[:MOST_SITES]],
        more=len(sites[MOST_SITES:]),
        open=[outing_line(account, o) for o in under_way],
        next=upcoming,
    )


def _busiest(account: Account, every: Sequence[Due], kept: Sequence[Outing], upcoming: ProposedOut | None) -> list[Site]:
    """The sites, those at which something is due or that an outing leads to first, where they are too many for the picture."""
    sites = list(sites_of(account).values())
    if len(sites) <= MOST_SITES:
        return sites
    busy = (
        {d.area.site_id for d in every}
        | {s for o in kept for s in o.site_ids}
        | {s.id for s in (upcoming.sites if upcoming else ())}
    )
    return sorted(sites, key=lambda s: s.pk not in busy)


def _current(o: Outing, today: date) -> bool:
    """Whether an outing is the one to go on with, so that no other is proposed beside it."""
    return o.status == Outing.Status.UNDER_WAY or o.on <= today


def _proposal(account: Account, every: Sequence[Due]) -> ProposedOut | None:
    found = plan_for(account, OutingAskIn(), every)
    return proposed_out(found, []) if found.order.legs or found.refused or found.order.left else None


def _share(start: datetime, at: datetime) -> float:
    """Where a time lies in the week, as a share of it."""
    return min(1.0, max(0.0, (at - start) / WEEK))


def _site(
    account: Account, site: Site, start: datetime, every: Sequence[Due], kept: Sequence[Outing], upcoming: ProposedOut | None
) -> WeekSiteOut:
    mine = [d for d in every if d.area.site_id == site.pk]
    by_key = {d.want.key: d for d in mine}
    jobs, locked = gathered([d.want for d in mine]), [x for x in in_force(account, clock.now()) if x.area.site_id == site.pk]
    return WeekSiteOut(
        id=site.pk,
        name=site.name,
        rows=[_row(account, g, by_key, start) for g in jobs[:MOST_ROWS]],
        more=max(0, len(jobs) - MOST_ROWS),
        locks=[_lock(start, x, site) for x in locked],
        dark=_dark(account, site, start),
        outings=_outings(account, site, start, kept, upcoming),
    )


def _lock(start: datetime, x: Locked, site: Site) -> WeekSpanOut:
    begin, end = _share(start, clock.now()), _share(start, x.lock.end)
    return WeekSpanOut(begin=begin, end=end, text=lock_sentence(x, site.zone))


def _row(account: Account, g: Gathered, by_key: dict[str, Due], start: datetime) -> WeekRowOut:
    """A job with the hours that are fit for all of its grounds."""
    dues = [by_key[w.key] for w in g.wants]
    hours = [h for d in dues if (h := hours_for(account, d))]
    fit: list[WeekSpanOut] = []
    if hours:
        good = np.all([h.judged.fits[: min(len(x.judged.fits) for x in hours)] <= Fit.UNKNOWN for h in hours], axis=0)
        for a, b in spans(good):
            begin, end = hours[0].at(a), hours[0].at(b)
            if begin < start + WEEK:
                text = span_text(begin, end, dues[0].area.site.zone)
                fit.append(WeekSpanOut(begin=_share(start, begin), end=_share(start, end), text=text))
    by = min((d.by for d in dues if d.by), default=None)
    over = midnight(by + timedelta(days=1), dues[0].area.site.zone) if by else None
    names = " + ".join(p.card.product.name for p in dues[0].mix)
    state = min((d.state for d in dues), key=("late", "due", "coming").index)
    where = dues[0].area.called if len(dues) == 1 else ""
    title = f"{names}, {where}" if where else f"{names} ({len(dues)})"
    return WeekRowOut(
        key=g.key,
        title=title,
        state=state,
        fit=fit,
        said=fit_text(fit, bool(hours)),
        by=_share(start, over) if over and over > start else None,
    )


def _dark(account: Account, site: Site, start: datetime) -> list[WeekSpanOut]:
    """The dark hours of the week at a site whose station has a place."""
    station = stations_of(account).get(site.pk)
    known = recent(station) if station else None
    if known is None or known.station.latitude is None or known.station.longitude is None:
        return []
    at = known.hours.place(start)
    cut = known.hours.between(max(0, at), min(len(known.hours), at + DAYS * 24))
    light = light_hours(cut, place_of(known.station.latitude, known.station.longitude), known.station.zone)
    return [WeekSpanOut(begin=a / (DAYS * 24), end=b / (DAYS * 24), text="") for a, b in spans(~light)]


def _outings(
    account: Account, site: Site, start: datetime, kept: Sequence[Outing], upcoming: ProposedOut | None
) -> list[WeekSpanOut]:
    found = []
    for o in kept:
        lines = [x for x in kept_lines(account, o) if any(s.area.site_id == site.pk for s in x.stops)]
        end = last_minute(lines)
        if end:
            day = day_text(o.on, clock.today(account))
            found.append(WeekSpanOut(begin=_share(start, lines[0].begin), end=_share(start, end), text=day))
    here = upcoming and any(s.id == site.pk for s in upcoming.sites)
    if upcoming and here and upcoming.begin and upcoming.end:
        found.append(WeekSpanOut(begin=_share(start, upcoming.begin), end=_share(start, upcoming.end), text=upcoming.day))
    return found
