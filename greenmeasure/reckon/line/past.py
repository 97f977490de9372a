"""What a line asks of the book, the rules of time, and degree days."""

from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from django.db.models import QuerySet

from core.days import dated
from core.errors import InputError, NotUnderstood
from core.label.rate import Basis
from core.ledger.history import in_season
from core.readable import foot_of
from core.reckon.asked import BroughtAsked, DegreeDaysAsked, GroundAsked, HistoryAsked, MayAsked
from core.weather.degree_days import Base, Floats, degree_days
from core.weather.words import degree_day_base, degree_day_sum
from greenmeasure.book.models import Application
from greenmeasure.book.queries import application_out, applications
from greenmeasure.common.clock import today
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.booked import history
from greenmeasure.reckon.line.doses import Found, checked, job_of
from greenmeasure.reckon.line.here import Here
from greenmeasure.reckon.line.words import (
    days_missing,
    degrees,
    may_go,
    may_not,
    not_reached,
    nothing_down,
    one_down,
    reaches,
    season_has,
    went_down,
    with_forecast,
)
from greenmeasure.reckon.outs import per_foot
from greenmeasure.reckon.schemas import LineOut
from greenmeasure.sky.clocks import target_here
from greenmeasure.sky.weather import Known, known_of, stations_of

SEARCHED = 60
"""Days that are searched for the first on which nothing stands against a product (ours)."""


MOST_TOLD = 12
"""Applications of one day that are told (ours)."""


def history_line(here: Here, asked: HistoryAsked) -> LineOut:
    """What went down last, on an area or of a product: all of that day."""
    account = here.account
    done = _done(here, asked.area, asked.product)
    if asked.kind:
        done = done.filter(entries__kind=asked.kind.value)
    last = done.order_by("-applied_on", "-pk").first()
    if last is None:
        return _told("history", nothing_down(asked.area or "", asked.product or (asked.kind.text if asked.kind else "")))
    that_day = done.filter(applied_on=last.applied_on).order_by("pk").prefetch_related("entries", "formers").distinct()
    every = [application_out(a) for a in that_day[:MOST_TOLD]]
    return _told(
        "history",
        went_down(last.applied_on, today(account), [one_down(f.name, f.rates, f.area, f.machine) for f in every]),
        [f"{e.product}: {e.again}" for f in every for e in f.entries if e.again],
    )


def _done(here: Here, area: str | None, product: str | None) -> QuerySet[Application]:
    """What went down up to today, on an area and of a product where they are named."""
    done = applications(here.account).filter(applied_on__lte=today(here.account))
    if area:
        done = done.filter(area=here.ground[area])
    return done.filter(entries__product=here.shelf[product].product) if product else done


def brought_line(here: Here, asked: BroughtAsked) -> LineOut:
    """How much of a nutrient an area has had this season, and of what."""
    account, area = here.account, here.ground[asked.area]
    now = today(area)
    start = account.house_rules.season_of(now)
    had = [a for a in in_season(history(account, area.pk), start, now) if a.nutrients.get(asked.basis)]
    total = per_foot(sum(a.nutrients[asked.basis] for a in had), account.us)
    foot = foot_of(account.us).unit.symbol
    sentence = season_has(asked.area, asked.basis.text, f"{total}/{foot}", len(had), start)
    return _told(
        "history", sentence, [f"{dated(a.on)}: {per_foot(a.nutrients[asked.basis], account.us)}/{foot}, {a.product}" for a in had]
    )


def may_line(here: Here, asked: MayAsked) -> LineOut:
    """Whether a product can go on an area on a day, at the rate that Reckon opens with; else from when."""
    card, area = here.shelf[asked.product], here.ground[asked.area]
    now = today(area)
    on = asked.day.next(now) if asked.day else now
    if on < now:
        raise NotUnderstood("line", str(on), "That day has been.", "Ask of a day to come.")
    job = job_of(here, card, (GroundAsked(asked.area),))

    def on_day(day: date) -> Found:
        return checked(here, job.model_copy(update={"on": day}))

    first = on_day(on)
    said = list(first.said)
    if not first.refused:
        sentence = may_go(asked.product, asked.area, on)
        return LineOut(kind="may", sentence=sentence, details=said, working=[], job=first.data)
    days = (on + timedelta(days=i) for i in range(1, SEARCHED + 1))
    free = next((d for d in days if not on_day(d).refused), None)
    sentence = may_not(asked.product, asked.area, on, free, SEARCHED)
    return LineOut(kind="may", sentence=sentence, refused=True, details=said, working=[], job=None)


# --- degree days ------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class _Days:
    """The degree days of the days after one, the first of them `begin`; NaN where an extreme is missing."""

    begin: date
    daily: Floats

    def upto(self, on: date) -> float:
        """The sum up to a day, that day counted in [°C·d]."""
        return float(np.nansum(self.daily[: max(0, (on - self.begin).days + 1)]))

    def missing(self, on: date) -> int:
        return int(np.isnan(self.daily[: max(0, (on - self.begin).days + 1)]).sum())

    @property
    def last(self) -> date:
        return self.begin + timedelta(days=len(self.daily) - 1)


def degree_days_line(here: Here, asked: DegreeDaysAsked) -> LineOut:
    """Degree days since a day or an application, or the day on which they reach a sum.

    Raises:
        InputError: no weather is known, or nothing of the product went down there.
    """
    account, us = here.account, here.account.us or asked.fahrenheit
    area_name, since, base = asked.area, None, Base(asked.base or 0.0)
    if asked.product:
        area_name, since, base = _applied(here, asked)
    known = _known(here, area_name)
    now = today(here.ground[area_name] if area_name else account)
    start = since or (asked.since.last(now) if asked.since else now)
    yesterday = now - timedelta(days=1)
    days = _days(known, start, base)
    by = degree_day_base(base.celsius, us)
    if asked.total is not None:
        return _reached(asked, days, by, us, now)
    details = []
    if days.last >= now:
        details.append(with_forecast(degree_day_sum(days.upto(days.last), us), days.last))
    if missing := days.missing(yesterday):
        details.append(days_missing(missing))
    return _told("degree_days", degrees(degree_day_sum(days.upto(yesterday), us), start, yesterday, by), details)


def _reached(asked: DegreeDaysAsked, days: _Days, by: str, us: bool, now: date) -> LineOut:
    assert asked.total is not None
    goal = degree_day_sum(asked.total, us)
    sums = np.nancumsum(days.daily)
    if not len(sums) or sums[-1] < asked.total:
        return _told("date", not_reached(goal, degree_day_sum(days.upto(days.last), us), days.last))
    on = days.begin + timedelta(days=int(np.searchsorted(sums, asked.total)))
    name = asked.product or "The sum"
    return _told("date", reaches(name, goal, on, degree_day_sum(days.upto(on), us), by, on >= now))


def _applied(here: Here, asked: DegreeDaysAsked) -> tuple[str, date, Base]:
    """The area and the day on which a regulator went down last, and the base that its clock counts over there."""
    account = here.account
    assert asked.product
    card = here.shelf[asked.product]
    last = _done(here, asked.area, asked.product).order_by("-applied_on", "-pk").first()
    if last is None or last.area_id not in areas(account):
        raise InputError(
            "product", asked.product, nothing_down(asked.area or "", asked.product), "Ask of a day: “gdd since 4 Aug”."
        )
    area = areas(account)[last.area_id]
    if asked.base is not None:
        return area.called, last.applied_on, Base(asked.base)
    target = target_here(account, area, [c.name for c in card.core.contents if c.basis is Basis.ACTIVE])
    return area.called, last.applied_on, target.base if target else Base()


def _known(here: Here, area_name: str | None) -> Known:
    account = here.account
    site_id = here.ground[area_name].site_id if area_name else next(iter(stations_of(account)), 0)
    known = known_of(account, site_id)
    if known is None:
        raise InputError("line", area_name or "", "No weather is known there.", "Set up a weather station in Weather first.")
    return known


def _days(known: Known, since: date, base: Base) -> _Days:
    """The degree days from the day after one. Raises InputError for a day that the weather does not reach."""
    at = known.day_at(since) + 1
    days = known.weather.days
    if at < 0 or at > len(days):
        raise InputError("line", str(since), f"The weather is known from {dated(days.first)}.", "Ask of a later day.")
    return _Days(since + timedelta(days=1), degree_days(days.high[at:], days.low[at:], base))


def _told(kind: str, sentence: str, details: list[str] | None = None) -> LineOut:
    return LineOut(kind=kind, sentence=sentence, details=details or [], working=[], job=None)
