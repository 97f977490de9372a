"""An area's story: everything on its ground in one line of time, the last of each kind, and what comes next."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from itertools import groupby
from typing import Any

from core.days import dated
from core.ledger.lasts import last_of_each, nitrogen
from core.ledger.rotation import next_dates
from core.ledger.work import DOINGS
from core.rates.nutrients import season_range
from core.readable import joined
from greenmeasure.accounts.models import Account
from greenmeasure.accounts.sites import site_of
from greenmeasure.book.models import Application
from greenmeasure.book.queries import application_out, applications
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import FactOut
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of, areas, kin, wholes
from greenmeasure.ledger.booked import history
from greenmeasure.ledger.past import every_planned
from greenmeasure.scouting.followups import followup_out, without_effect_here
from greenmeasure.scouting.models import FollowUp, Photo
from greenmeasure.scouting.queries import by_report, photos, reports
from greenmeasure.scouting.words import named_text, photo_text, scout_text
from greenmeasure.sky.models import HandReading, Rhythm
from greenmeasure.sky.routine import OF_RHYTHM, every_rhythm
from greenmeasure.story.line import line
from greenmeasure.story.schemas import EventOut, EventsOut, LastOut, StoryOut, UsualOut
from greenmeasure.story.words import again_text, ago, by_rhythm, last_text, photographs_text, planned_text, season_text, soil_text
from greenmeasure.work.models import Work
from greenmeasure.work.queries import work_out, works

BACK = timedelta(days=400)
"""How far back a story goes by itself (ours); `all` tells the rest."""
MOST = 400


def story(account: Account, area_id: int, whole: bool = False) -> StoryOut:
    """An area's story. Raises Missing."""
    area = area_of(account, area_id)
    today = clock.today(area)
    every = _events(account, kin(account, area_id), area, today)
    return StoryOut(
        **dict(_told(every, today, whole)),
        line=line(account, area, today),
        lasts=_lasts(account, area, [e for e in every if e.regular], today),
        ahead=_ahead(account, area, today),
        usual=_usual(account, area),
    )


def of_all(account: Account, site_id: int | None, whole: bool = False) -> EventsOut:
    """What happened on every area of a site, or of the account. Raises Missing."""
    site = site_of(account, site_id) if site_id is not None else account.home
    every = areas(account)
    here = {pk for pk, a in every.items() if site_id in (None, a.site_id) and a.archived_at is None}
    return _told(_events(account, here, None, clock.today(site)), clock.today(site), whole)


def _told(every: list[EventOut], today: date, whole: bool) -> EventsOut:
    begin = today - BACK
    shown = every if whole else [e for e in every if e.on >= begin]
    return EventsOut(
        begin=begin if not whole else min((e.on for e in every), default=today),
        today=today,
        events=shown[:MOST],
        more=len(shown) < len(every) or len(shown) > MOST,
    )


def _events(account: Account, near: set[int], here: Area | None, today: date) -> list[EventOut]:
    """Everything on some areas up to a day, the newest first; of one day, what was later on it first. What is `here` is not told
    where it was; the week's rhythm is told of it, and of each area where there is no one area.
    """
    found = list(_done(account, frozenset(near), here.pk if here else 0))
    found += _read_by_hand(account, near, here.pk if here else 0)
    for pk in [here.pk] if here else near:
        found += regular(account, areas(account)[pk], today, told=here is None)
    return sorted((e for e in found if e.on <= today), key=lambda e: (e.on, e.clock), reverse=True)


@kept("book", "work", "ground", "scouting")
def _done(account: Account, near: frozenset[int], here: int) -> tuple[EventOut, ...]:
    return (*_down(account, near, here), *_worked(account, near, here), *_seen(account, near, here))


def _down(account: Account, near: frozenset[int], here: int) -> Iterator[EventOut]:
    every = applications(account, struck=True).filter(area_id__in=near).select_related("account", "area__site")
    found = every.prefetch_related("entries", "formers")
    for a in found:
        assert a.area
        yield _application(a, here)


def _application(a: Application, here: int) -> EventOut:
    said = application_out(a)
    assert a.area
    rates = joined([f"{e.product} {e.actual}" if e.actual else f"{e.product} to taste" for e in said.entries])
    note = a.note or joined([e.use or e.target for e in said.entries if e.use or e.target])
    return EventOut(
        key=f"application-{a.pk}",
        lane="down",
        kind=a.entries.all()[0].kind if said.entries else "",
        on=a.applied_on,
        day=said.day,
        clock=said.clock,
        title=rates,
        text=note,
        area_id=a.area.pk,
        where=said.area if a.area.pk != here or a.zone or a.spots else "",
        link="book",
        id=a.pk,
        regular=False,
        marked=any(e.against or (e.judgement and e.judgement.stand == "above") for e in said.entries),
        struck=said.struck,
        by=a.by_name,
    )


def _worked(account: Account, near: frozenset[int], here: int) -> Iterator[EventOut]:
    for w in works(account):
        if w.area_id not in near:
            continue
        said = work_out(w)
        yield EventOut(
            key=f"work-{w.pk}",
            lane="work",
            kind=w.kind,
            on=w.done_on,
            day=said.day,
            clock=said.clock,
            title=said.text.rstrip("."),
            text=joined([x for x in (w.note, *said.against) if x]),
            area_id=w.area_id,
            where=said.area if w.area_id != here else "",
            link="work",
            id=w.pk,
            regular=False,
            marked=bool(said.against),
            struck=said.struck,
            by=w.by,
        )


def _seen(account: Account, near: frozenset[int], here: int) -> Iterator[EventOut]:
    names = areas(account)
    pictures = [p for p in photos(account) if p.area_id in near]
    of = by_report(pictures)
    for r in reports(account):
        if r.area_id in near:
            said = _Seen(f"scouting-{r.pk}", "scouting", r.on, scout_text(r, account.us), names[r.area_id])
            text = joined([x for x in (r.note, named_text(r)) if x])
            yield said.event(here, text=text, by=r.by, photos=of.get(r.pk, []), link="scouting", id=r.pk, struck=r.struck)
    for (on, area_id), several in groupby([p for p in pictures if p.report_id is None], key=_day_of):
        yield _photographed(on, names[area_id], list(several), here)
    said_after = FollowUp.objects.filter(application__area_id__in=near, application__struck_at=None)
    for f in said_after.select_related("application").prefetch_related("application__entries"):
        told = followup_out(f)
        area_id = f.application.area_id or 0
        event = _Seen(f"followup-{f.pk}", "followup", f.on, told.text, names[area_id])
        yield event.event(here, text=f.note, by=f.by, link="book", id=f.application_id, struck=told.struck)
    for pk in near:
        for on, readings in groupby(names[pk].soil.all(), key=lambda r: r.taken_on):
            yield _Seen(f"soil-{pk}-{on}", "soil", on, soil_text([r.ph for r in readings]), names[pk]).event(here)


def _read_by_hand(account: Account, near: set[int], here: int) -> Iterator[EventOut]:
    """What gauges and thermometers on the areas read; those of a station are of its site, and not of a ground."""
    names = areas(account)
    for r in HandReading.objects.filter(station__account=account, area_id__in=near):
        area = names[r.area_id or 0]
        local = r.at.astimezone(area.site.zone)
        said = _Seen(f"reading-{r.pk}", "reading", local.date(), f"{r.get_kind_display()}: {r.text}", area)
        yield said.event(here, by=r.by, clock="" if r.kind == HandReading.Kind.RAIN else f"{local:%H:%M}")


def _day_of(p: Photo) -> tuple[date, int]:
    return p.local.date(), p.area_id


def _photographed(on: date, area: Area, several: list[Photo], here: int) -> EventOut:
    spots = joined(list(dict.fromkeys(p.spot.name for p in several if p.spot)))
    said = _Seen(f"photos-{area.pk}-{on}-{several[0].pk}", "photo", on, photographs_text(len(several), spots), area)
    text = photo_text(several[0]) if len(several) == 1 else ""
    clock = f"{several[0].local:%H:%M}" if several[0].timed else ""
    return said.event(here, text=text, by=several[0].by, photos=[p.pk for p in several], clock=clock)


@dataclass(frozen=True)
class _Seen:
    """Something that was seen on an area."""

    key: str
    kind: str
    on: date
    title: str
    area: Area

    def event(self, here: int, **more: Any) -> EventOut:
        """It as an event, told from an area; what else is known of it comes by name."""
        known = {"text": "", "clock": "", "link": "", "id": None, "struck": "", "by": "", "photos": []} | more
        return EventOut(
            key=self.key,
            lane="seen",
            kind=self.kind,
            on=self.on,
            day=dated(self.on),
            title=self.title,
            area_id=self.area.pk,
            where=self.area.name if self.area.pk != here else "",
            regular=False,
            marked=False,
            **known,
        )


# --- what comes back every week -----------------------------------------------------------------------------------


def regular(account: Account, area: Area, today: date, *, told: bool = False) -> list[EventOut]:
    """What comes back every week on an area, a day each, from when it was set up to now: it is taken to have been done.

    A work of its kind noted for the day stands in its place, done or not. `told` says where it was.
    """
    noted = {(w.kind, w.done_on) for w in works(account) if w.area_id == area.pk and not w.struck_at}
    now = clock.now().astimezone(area.site.zone)
    found = []
    for r in every_rhythm(account):
        kind = OF_RHYTHM.get(r.kind)
        if kind is None or r.site_id != area.site_id or r.area_id not in (None, area.pk):
            continue
        for n in range((today - max(r.since, today - BACK)).days + 1):
            on = today - timedelta(days=n)
            over = datetime.combine(on, r.end, area.site.zone) <= now
            if on.weekday() in r.days and over and (kind, on) not in noted:
                found.append(_by_rhythm(r, kind, on, area, told))
    return found


def _by_rhythm(r: Rhythm, kind: str, on: date, area: Area, told: bool) -> EventOut:
    return EventOut(
        key=f"rhythm-{r.pk}-{area.pk}-{on}",
        lane="work",
        kind=kind,
        on=on,
        day=dated(on),
        clock=f"{r.begin:%H:%M}",
        title=DOINGS[kind].done.capitalize(),
        text=by_rhythm(r.why),
        area_id=area.pk,
        where=area.name if told else "",
        link="",
        id=None,
        regular=True,
        marked=False,
        struck="",
        by="",
    )


# --- the last of each, and what comes next ------------------------------------------------------------------------


def _lasts(account: Account, area: Area, rhythm: list[EventOut], today: date) -> list[LastOut]:
    past = history(account, area.pk)
    us = account.us
    found = [LastOut(lane="down", name=x.name, text=last_text(x, today, us)) for x in last_of_each(past, today)]
    begin = area.site.house_rules.season_of(today)
    above = wholes(account, area.pk)
    used = nitrogen([a for a in past if a.place and a.place.area in above], begin, today)
    if used > 0:
        found.append(LastOut(lane="down", name="N this season", text=season_text(used, season_range(area.ground), us)))
    works_here = [w for w in works(account) if w.area_id in above and w.done and not w.struck_at]
    days = {w.kind: w.done_on for w in reversed(works_here)}
    for e in rhythm:
        days[e.kind] = max(e.on, days.get(e.kind, e.on))
    return found + [
        LastOut(lane="work", name=d.done.capitalize(), text=ago(days[d.key], today)) for d in DOINGS.values() if d.key in days
    ]


def _ahead(account: Account, area: Area, today: date) -> list[FactOut]:
    """What is planned, and when labels let the last of each kind go down again."""
    near = kin(account, area.pk)
    planned = sorted((a for a in every_planned(account) if a.place and a.place.area in near), key=lambda a: a.on)
    found = [FactOut(name="Planned", text=planned_text(a)) for a in planned]
    found += [FactOut(name="No effect", text=said) for said in without_effect_here(account, area.pk, today)]
    for x in last_of_each(history(account, area.pk), today):
        first, last = next_dates(x.applied.on, x.applied.interval)
        if max(d for d in (first, last, date.min) if d) > today:
            found.append(FactOut(name=x.name, text=again_text(x.applied, first, last)))
    return found


def _usual(account: Account, area: Area) -> list[UsualOut]:
    """The latest work of each kind on an area that was done and told something."""
    latest: dict[str, Work] = {}
    for w in works(account):
        if w.area_id == area.pk and w.done and not w.struck_at:
            latest.setdefault(w.kind, w)
    found = []
    for d in DOINGS.values():
        said = work_out(latest[d.key]) if d.key in latest else None
        text = said.text if said else f"{d.done.capitalize()}."
        found.append(UsualOut(kind=d.key, name=d.name, text=text, told=said.told if said else []))
    return found
