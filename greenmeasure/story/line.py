"""What lies behind the events of a story: three months of rain, of disease risk, and of what was locked, by the day."""

from collections.abc import Iterator
from datetime import date, timedelta
from itertools import groupby

import numpy as np

from core.disease.model import Risk, risk_of
from core.label.targets import TARGETS
from core.ledger.locks import locks_of
from core.weather.words import told
from greenmeasure.accounts.models import Account
from greenmeasure.ground.models import Area
from greenmeasure.ledger.booked import history
from greenmeasure.sky.watching import series_of, watched
from greenmeasure.sky.weather import Known, known_at
from greenmeasure.story.schemas import BehindOut, RainOut, SpanOut
from greenmeasure.story.words import locked_text, rain_text, risk_text

DAYS = 91
HEAVY = 25.0
"""Rain of a day that fills its lane [mm] (ours; about an inch)."""
RISKS = (Risk.HIGH, Risk.RISING)


def line(account: Account, area: Area, today: date) -> BehindOut:
    """Rain, risk and locks of an area over the three months up to a day."""
    begin, known = today - timedelta(days=DAYS), known_at(area.site)
    return BehindOut(
        days=DAYS,
        rain=list(_rain(known, begin, today, account.us)) if known else [],
        risk=list(_risk(known, area, begin, today)) if known else [],
        locks=_locks(account, area, begin, today),
    )


def _rain(known: Known, begin: date, today: date, us: bool) -> Iterator[RainOut]:
    """The days on which it rained."""
    days = known.weather.days
    for i in range(max(0, known.day_at(begin)), min(len(days), known.day_at(today) + 1)):
        rain = float(days.rain[i])
        if rain > 0:
            on = days.day(i)
            yield RainOut(on=on, share=round(min(1.0, rain / HEAVY), 3), text=rain_text(on, told("rain", rain, us)))


def _risk(known: Known, area: Area, begin: date, today: date) -> Iterator[SpanOut]:
    """The days on which the gravest of what an area is watched for was rising or over its threshold, in runs."""
    series, days, every = series_of(known.station), known.weather.days, watched(area)
    found: list[tuple[date, bool, str]] = []
    for i in range(max(0, known.day_at(begin)), min(len(days), known.day_at(today) + 1)):
        worst = max(
            (
                (RISKS[::-1].index(state), share, TARGETS[w.disease].name)
                for w in every
                for value in [float(series[w.model.key].values[i])]
                for state in [risk_of(value, bool(series[w.model.key].outside[i]), w.threshold.value)]
                for share in [0.0 if np.isnan(value) else value / w.threshold.value]
                if state in RISKS
            ),
            default=None,
        )
        if worst:
            found.append((days.day(i), worst[0] == 1, worst[2]))
    for (_, over, name), run in groupby(enumerate(found), key=lambda x: (x[1][0].toordinal() - x[0], x[1][1], x[1][2])):
        several = [on for _, (on, _, _) in run]
        yield SpanOut(begin=several[0], end=several[-1], over=over, text=risk_text(name, over, several[0], several[-1]))


def _locks(account: Account, area: Area, begin: date, today: date) -> list[SpanOut]:
    """What was and is locked, of each kind what reaches into the span."""
    zone = area.site.zone
    lately = [a for a in history(account, area.pk) if a.on >= begin - timedelta(days=DAYS)]
    found = []
    for lock in locks_of(lately, zone):
        first, last = lock.begin.astimezone(zone).date(), lock.end.astimezone(zone).date()
        if last >= begin and first <= today:
            text = locked_text(lock.what.text, lock.by.product, first, lock.until(zone))
            found.append(SpanOut(begin=max(first, begin), end=min(last, today), over=last >= today, text=text))
    return found
