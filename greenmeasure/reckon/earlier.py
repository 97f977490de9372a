"""What a reckon line asks of before: a kept mix by its name, and what went down on a day."""

from collections.abc import Mapping
from typing import Any

from core.days import day
from core.errors import Ambiguous, Choice, NotUnderstood
from core.readable import joined
from core.reckon.asked import EarlierAsked, GroundAsked, MixAsked
from core.units import show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.book.queries import applications
from greenmeasure.common.clock import today
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.reckon.again import again
from greenmeasure.reckon.mixes import opened
from greenmeasure.reckon.models import KeptMix
from greenmeasure.reckon.schemas import AgainOut


def kept_job(
    account: Account, kept: KeptMix, asked: MixAsked, ground: Mapping[str, Area], kit: Mapping[str, Machine]
) -> AgainOut:
    """A kept mix, on the ground that the line names at the rates of its first, or on its own.

    Raises:
        Conflict: nothing of it is there any more.
        NotUnderstood: a mere size in place of an area.
    """
    found = opened(account, kept)
    job = found.job
    if asked.grounds:
        first = job.parts[0].model_copy(update={"treated": None, "spray": None, "zone": ""})
        job.parts = [first.model_copy(update=_where(g, ground)) for g in asked.grounds]
        job.spots = False
    if asked.machine:
        job.machine_id = kit[asked.machine].pk
    job.passes = asked.passes or job.passes
    return found


def _where(asked: GroundAsked, ground: Mapping[str, Area]) -> dict[str, Any]:
    """The area of a part, and how much of it."""
    if not isinstance(asked.area, str):
        raise NotUnderstood("line", str(asked.area), "A kept mix goes on an area of the account.", "Name the area.")
    return {"area_id": ground[asked.area].pk, "share": "" if asked.share == 1 else show_percent(asked.share, 12)}


def earlier_job(account: Account, asked: EarlierAsked, ground: Mapping[str, Area]) -> AgainOut:
    """What went down on a day, once more: on the area that the line names, as it went down there, or else as it did elsewhere.

    Raises:
        NotUnderstood: nothing did; the last days on which something did are offered.
        Ambiguous: several jobs did, and the line names no area.
        Conflict: nothing of it is there any more.
    """
    on = asked.day.last(today(account))
    that_day = applications(account).filter(applied_on=on)
    done = that_day.filter(area=ground[asked.area]) if asked.area else that_day
    elsewhere = bool(asked.area) and not done.exists()
    done = that_day if elsewhere else done
    jobs = {a.pk if a.spots or a.round_id is None else -a.round_id: a for a in done.order_by("-position", "-pk")}
    if not jobs:
        days = applications(account).filter(applied_on__lte=today(account)).order_by("-applied_on")
        last = list(dict.fromkeys(days.values_list("applied_on", flat=True)[:12]))[:3]
        raise NotUnderstood(
            "line",
            str(on),
            f"Nothing is in the book for {day(on)}.",
            "Pick another day.",
            [Choice(f"as on {d}", day(d)) for d in last],
        )
    if len(jobs) > 1 and (elsewhere or not asked.area):
        places = {a.area_name: joined([e.product_name for e in a.entries.order_by("position")]) for a in jobs.values()}
        raise Ambiguous(
            "line",
            str(on),
            f"{len(jobs)} jobs went down on {day(on)}.",
            "Say on which area.",
            [Choice(f"as on {on} on {name}", what) for name, what in places.items()],
        )
    found = again(account, next(iter(jobs.values())).pk)
    if elsewhere and asked.area:
        _moved(found, ground[asked.area])
    return found


def _moved(found: AgainOut, area: Area) -> None:
    """A job put on another area, at the rates of its first part."""
    first = found.job.parts[0].model_copy(update={"area_id": area.pk, "treated": None, "share": "", "spray": None, "zone": ""})
    found.job.parts, found.job.spots = [first], False
