"""What comes back every week on a ground, and what was noted in its place: the hours in which it is mown, watered, kept free."""

from dataclasses import dataclass
from datetime import date, datetime, timedelta, tzinfo

import numpy as np
from numpy.typing import NDArray

from core.weather.hours import Hours, moment
from greenmeasure.accounts.models import Account
from greenmeasure.common.kept import kept
from greenmeasure.sky.models import Rhythm
from greenmeasure.work.models import Work
from greenmeasure.work.queries import works

Flags = NDArray[np.bool_]
OF_RHYTHM = {Rhythm.Kind.MOW.value: "mow", Rhythm.Kind.WATER.value: "water"}
"""The kind of work that a rhythm is of; hours kept free are of none."""
LATELY = timedelta(days=4)
"""How far back hours fit to work look at what was done."""


@kept("sky")
def every_rhythm(account: Account) -> list[Rhythm]:
    """What comes back every week in the account."""
    return list(Rhythm.objects.filter(account=account))


def has_own(account: Account, area_id: int, now: datetime) -> bool:
    """Whether an area has a rhythm of its own, or something that stands in the place of one was noted of it lately."""
    if any(r.area_id == area_id for r in every_rhythm(account)):
        return True
    since, kinds = (now - LATELY).date(), OF_RHYTHM.values()
    return any(w.area_id == area_id and w.kind in kinds and w.done_on >= since for w in works(account))


@dataclass(frozen=True)
class Routine:
    """What is done regularly on an area, or on a site's areas that have nothing of their own (`area_id` None)."""

    account: Account
    site_id: int
    area_id: int | None

    def touches(self, kind: str, zone: tzinfo, cut: Hours) -> Flags | None:
        """The hours in which something of a kind is done; None where nothing ever is.

        A work noted at its time, or noted as not done, stands in the place of its day's rhythm.
        """
        rhythms = [
            r
            for r in every_rhythm(self.account)
            if r.kind == kind and r.site_id == self.site_id and r.area_id in (None, self.area_id)
        ]
        noted = [w for w in self._noted(kind) if w.at or not w.done]
        if not rhythms and not noted:
            return None
        start, replaced = moment(cut.start), {w.done_on for w in noted}
        at_work = {w.at.replace(minute=0, second=0, microsecond=0) for w in noted if w.done and w.at}
        found = np.zeros(len(cut), dtype=bool)
        for i in range(len(cut)):
            at = start + timedelta(hours=i)
            here = at.astimezone(zone)
            found[i] = at in at_work or (here.date() not in replaced and any(r.touches(here) for r in rhythms))
        return found

    def on(self, kind: str, zone: tzinfo, day: date) -> list[tuple[datetime, datetime]]:
        """When something of a kind comes back on a day, in order; none of it where something noted stands in its place."""
        if any(w.done_on == day for w in self._noted(kind) if w.at or not w.done):
            return []
        mine = [r for r in every_rhythm(self.account) if r.kind == kind and r.site_id == self.site_id]
        here = [r for r in mine if r.area_id in (None, self.area_id) and day.weekday() in r.days]
        return sorted((datetime.combine(day, r.begin, zone), datetime.combine(day, r.end, zone)) for r in here)

    def _noted(self, kind: str) -> list[Work]:
        if self.area_id is None or kind not in OF_RHYTHM:
            return []
        mine = (w for w in works(self.account) if w.area_id == self.area_id and w.struck_at is None)
        return [w for w in mine if w.kind == OF_RHYTHM[kind]]
