"""The year of every site on one page, and a site's own page: what is due there, what went down, and what was skipped and why."""

from datetime import date

from core.season.standing import Stand
from greenmeasure.accounts.models import Account, Site, sites_of
from greenmeasure.accounts.sites import site_of
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.common.natural import natural
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.outings.acts import site_facts
from greenmeasure.outings.asked import open_outings, still_wanted
from greenmeasure.outings.models import Outing, OutingStop
from greenmeasure.outings.morning import READ
from greenmeasure.outings.queries import outing_line
from greenmeasure.outings.routes import route_by_site
from greenmeasure.outings.schemas import SitePageOut, SitePastOut, SitesYearOut, SiteYearOut
from greenmeasure.outings.wants import Due
from greenmeasure.outings.words import by_state, day_text, due_line, put_down_text, sites_sentence, skipped_turn, went_text
from greenmeasure.outings.words import skipped_text as stop_text
from greenmeasure.programme.queries import Placed, placed

MOST_PAST = 60
"""How much of a year a site's page lists (ours)."""


def sites_year(account: Account) -> SitesYearOut:
    """The year of all sites: those with something late first, then those with something due."""
    return _sites_year(account, clock.today(account))


@kept(*READ)
def _sites_year(account: Account, today: date) -> SitesYearOut:
    rows = [_row(account, s, today) for s in sites_of(account).values()]
    late, due = sum(r.late > 0 for r in rows), sum(r.due > 0 for r in rows)
    return SitesYearOut(
        year=today.year,
        sentence=sites_sentence(len(rows), late, due),
        sites=sorted(rows, key=lambda r: (-(r.late > 0), -(r.due > 0), natural(r.name))),
    )


@kept(*READ)
def _dues(account: Account, today: date) -> dict[int, list[Due]]:
    """What is still to be done, by site."""
    found: dict[int, list[Due]] = {}
    for d in still_wanted(account):
        found.setdefault(d.area.site_id, []).append(d)
    return found


@kept(*READ)
def _turns(account: Account, today: date) -> dict[int, list[Placed]]:
    """The turns of the year's steps, by site."""
    found: dict[int, list[Placed]] = {}
    for p in placed(account, today.year):
        found.setdefault(p.area.site_id, []).append(p)
    return found


@kept("outings")
def _open(account: Account, today: date) -> dict[int, Outing]:
    """The outing that comes next at each site."""
    found: dict[int, Outing] = {}
    for o in open_outings(account):
        for site in o.site_ids:
            found.setdefault(site, o)
    return found


def _row(account: Account, site: Site, today: date) -> SiteYearOut:
    whole_book(account)
    mine = [a for a in areas(account).values() if a.site_id == site.pk and a.archived_at is None]
    past = [x for a in mine for x in history(account, a.pk) if not x.planned]
    last = max(past, key=lambda x: x.on, default=None)
    dues, turns = _dues(account, today).get(site.pk, []), _turns(account, today).get(site.pk, [])
    states, stands = [d.state for d in dues], [p.stand for p in turns]
    upcoming, route = _open(account, today).get(site.pk), route_by_site(account).get(site.pk)
    by = min((d.by for d in dues if d.by), default=None)
    return SiteYearOut(
        id=site.pk,
        name=site.name,
        route=route.name if route else "",
        areas=len(mine),
        last=went_text(last.product, last.on, today) if last else "",
        next=day_text(upcoming.on, today) if upcoming else by_state(dues[0].state, by) if dues else "",
        late=states.count("late"),
        due=states.count("due"),
        coming=states.count("coming"),
        done=stands.count(Stand.DONE),
        skipped=stands.count(Stand.SKIPPED),
        missed=stands.count(Stand.MISSED),
        turns=len(stands),
    )


def site_page(account: Account, site_id: int) -> SitePageOut:
    """A site on a page. Raises Missing."""
    site, today = site_of(account, site_id), clock.today(account)
    here = [o for o in Outing.objects.whole(account)[:MOST_PAST] if site.pk in o.site_ids]
    return SitePageOut(
        about=site_facts(site),
        year=_row(account, site, today),
        due=[due_line(d.title, by_state(d.state, d.by)) for d in _dues(account, today).get(site.pk, [])],
        past=_past(account, site, today),
        outings=[outing_line(account, o) for o in here],
    )


def _past(account: Account, site: Site, today: date) -> list[SitePastOut]:
    """What went down at a site this year, and what was skipped, the latest first."""
    mine = [a for a in areas(account).values() if a.site_id == site.pk]
    found = {(x.on, put_down_text(x.product, a.name)) for a in mine for x in history(account, a.pk) if not x.planned}
    told = [SitePastOut(on=on, text=text, skipped=False) for on, text in found if on.year == today.year]
    for p in _turns(account, today).get(site.pk, []):
        if p.stand is Stand.SKIPPED:
            text = skipped_turn(p.step.name, p.area.name, p.standing.line.kept.why)
            told.append(SitePastOut(on=p.standing.turn.begin or today, text=text, skipped=True))
    left = OutingStop.objects.filter(area__site=site, state=OutingStop.State.SKIPPED, job__outing__on__year=today.year)
    for s in left.select_related("area", "job__outing"):
        told.append(SitePastOut(on=s.job.outing.on, text=stop_text(s.area.name, s.why), skipped=True))
    return sorted(told, key=lambda x: (x.on, x.text), reverse=True)[:MOST_PAST]
