"""What the API of stories gives."""

from datetime import date
from typing import Literal

from greenmeasure.common.schemas import FactOut, Out
from greenmeasure.work.schemas import WorkToldOut

Lane = Literal["down", "work", "seen"]


class EventOut(Out):
    """One thing that happened on a ground, in words. `id` is of what `link` names, a page of its own, a work or a report;
    `photos` are the ids of its photographs.

    `regular` is what comes back every week, and is taken to have been done; `marked` is what something stood against.
    """

    key: str
    lane: Lane
    kind: str
    on: date
    day: str
    clock: str
    title: str
    text: str
    area_id: int
    where: str
    link: Literal["book", "work", "scouting", ""]
    id: int | None
    regular: bool
    marked: bool
    struck: str
    by: str
    photos: list[int] = []


class UsualOut(Out):
    """What was told of the latest work of a kind here: what one tap notes again."""

    kind: str
    name: str
    text: str
    told: list[WorkToldOut]


class LastOut(Out):
    """When something was last put down, or done, in words."""

    lane: Lane
    name: str
    text: str


class EventsOut(Out):
    """What happened, the newest first, from `begin` to `today`; `more` says that there is more before."""

    begin: date
    today: date
    events: list[EventOut]
    more: bool


class RainOut(Out):
    """Rain of a day: `share` of what fills its lane."""

    on: date
    share: float
    text: str


class SpanOut(Out):
    """A stretch of days; `over` for risk at its threshold, and for a lock that still holds."""

    begin: date
    end: date
    over: bool
    text: str


class BehindOut(Out):
    """What lies behind the events, of so many days up to today."""

    days: int
    rain: list[RainOut]
    risk: list[SpanOut]
    locks: list[SpanOut]


class StoryOut(EventsOut):
    """An area's story with its whole and its parts."""

    line: BehindOut
    lasts: list[LastOut]
    ahead: list[FactOut]
    usual: list[UsualOut]
