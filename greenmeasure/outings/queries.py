"""Outings as they are shown: proposed, and followed."""

from collections.abc import Sequence
from datetime import datetime

from core.outing.jobs import Leg
from core.outing.order import Left
from core.readable import joined
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Application
from greenmeasure.book.queries import applications
from greenmeasure.common import clock
from greenmeasure.common.errors import Missing
from greenmeasure.common.natural import natural
from greenmeasure.common.schemas import OptionOut
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machines
from greenmeasure.outings.acts import acts_of, sites_in, title_of
from greenmeasure.outings.asked import OPEN, missed, other_routes, plan_for, still_wanted
from greenmeasure.outings.clocks import clocks_of
from greenmeasure.outings.ending import closing_out
from greenmeasure.outings.lines import JobLine, kept_lines, last_minute, proposed_lines
from greenmeasure.outings.models import Outing
from greenmeasure.outings.morning import Planned, hours_for
from greenmeasure.outings.schemas import (
    FollowedOut,
    OutingAskIn,
    OutingDueOut,
    OutingJobOut,
    OutingLeftOut,
    OutingLineOut,
    PlannedJobOut,
    ProposedOut,
)
from greenmeasure.outings.wants import Due
from greenmeasure.outings.words import (
    NOTHING_DUE,
    NOTHING_FITS,
    STATUS,
    closing_text,
    day_text,
    done_text,
    gave_text,
    left_text,
    line_text,
    next_hours,
    over_sentence,
    paused_text,
    planned_sentence,
    proposed_sentence,
    skipped_text,
    under_way_sentence,
    unsure_text,
    was_paused,
)
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.rounds.falls import every_fall
from greenmeasure.sky.locks import locks
from greenmeasure.sky.words import span_text

# --- proposed ---------------------------------------------------------------------------------------------------


def proposed(account: Account, data: OutingAskIn) -> ProposedOut:
    """An outing as it is proposed. Raises InputError where the time cannot be."""
    every = still_wanted(account, data)
    found = plan_for(account, data, every)
    out = [d for d in every if d.want.key in data.leave]
    return proposed_out(found, out, other_routes(account, data, every, found.on))


def proposed_out(p: Planned, out: Sequence[Due], elsewhere: Sequence[str] = ()) -> ProposedOut:
    """A proposed outing in words; `out` is what was left out by hand, `elsewhere` what is due on other days' routes."""
    lines, today = proposed_lines(p), clock.today(p.account)
    acts = acts_of(p.account, lines)
    begin, end, zone = (lines[0].begin if lines else None), last_minute(lines), p.account.home.zone
    sentence = NOTHING_FITS if p.dues or p.refused else NOTHING_DUE
    if begin and end:
        grounds = {s.area.pk for x in lines for s in x.stops}
        jobs = sum(x.asked is not None for x in lines)
        a, b = (f"{t.astimezone(zone):%H:%M}" for t in (begin, end))
        sentence = proposed_sentence(day_text(p.on, today), a, b, jobs, len(grounds))
    return ProposedOut(
        on=p.on,
        day=day_text(p.on, today),
        sentence=sentence,
        begin=begin,
        end=end,
        acts=acts,
        left=_left(p),
        notes=[*(unsure_text(p.unsure)), *(gave_text(g.text) for g in p.order.gave), *elsewhere],
        jobs=[_planned_job(x) for x in lines if x.asked],
        dues=[_due_out(d) for d in p.dues.values()],
        out=[_due_out(d) for d in out],
        sites=sites_in(lines),
        people=p.morning.people,
        proven=p.order.proven,
    )


def _due_out(d: Due) -> OutingDueOut:
    """What is due, with what else could be put down for it."""
    others = [OptionOut(key=str(c.product.pk), text=c.product.name) for c in d.others]
    return OutingDueOut(
        key=d.want.key,
        text=d.title,
        product_id=d.mix[0].card.product.pk,
        product=joined([p.card.product.name for p in d.mix]),
        others=others,
    )


def _planned_job(x: JobLine) -> PlannedJobOut:
    return PlannedJobOut(key=x.key, position=x.position, title=title_of(x))


def _left(p: Planned) -> list[OutingLeftOut]:
    found = []
    for left in p.order.left:
        if left.job not in p.jobs:  # the mower, which comes back every week
            continue
        other = " and ".join(x.name for j in p.morning.jobs if j.key == left.against for x in j.products)
        ground = None if left.leg is None else {s.ground for s in _leg_of(p, left).stops}
        for w in p.jobs[left.job].wants:
            if ground is not None and w.ground not in ground:
                continue
            found.append(_left_out(p.account, p.dues[w.key], left_text(left, other)))
    return [*found, *(_left_out(p.account, r.due, r.rule.sentence) for r in p.refused)]


def _leg_of(p: Planned, left: Left) -> Leg:
    job = next(j for j in p.morning.jobs if j.key == left.job)
    return job.legs[left.leg or 0]


def _left_out(account: Account, due: Due, why: str) -> OutingLeftOut:
    hours = hours_for(account, due)
    later = [w for w in hours.windows if clock.local_day(due.area, hours.at(w.start)) > clock.today(due.area)] if hours else []
    text = ""
    if hours and later:
        begin, end = hours.at(later[0].start), hours.at(later[0].start + later[0].hours)
        text = next_hours(span_text(begin, end, due.area.site.zone))
    return OutingLeftOut(key=due.want.key, title=due.title, why=why, next=text, cost=due.delay)


# --- followed ---------------------------------------------------------------------------------------------------


def outing_out(account: Account, outing: Outing) -> FollowedOut:
    """An outing that was taken up, as far as it has come."""
    lines, now = kept_lines(account, outing), clock.now()
    jobs = [job_out(account, x) for x in lines]
    first = next((j for j in jobs if j.state in ("under_way", "open")), None)
    grounds = {s.area.pk for x in lines for s in x.stops}
    return FollowedOut(
        id=outing.pk,
        status=outing.status,  # type: ignore[arg-type]
        on=outing.on,
        day=day_text(outing.on, clock.today(account)),
        sentence=_sentence(account, outing, lines, jobs),
        people=outing.people,
        crew=outing.crew,
        paused=_paused(account, outing),
        jobs=jobs,
        acts=acts_of(account, lines),
        next=first.position if first and outing.status in OPEN else None,
        locks=[x for x in locks(account, now) if x.area_id in grounds] if outing.status in OPEN else [],
        clocks=clocks_of(account, outing) if outing.status in OPEN else [],
        closing=closing_out(outing, lines),
        sites=sites_in(lines),
        over=_over(account, outing, lines) if outing.status not in OPEN else [],
        applications=sorted(a.pk for x in lines if x.row and x.row.round for a in x.row.round.applications.all()),
    )


def put_down_on(account: Account, outing_id: int) -> list[Application]:
    """What an outing put down, by site and ground. Raises Missing, where it put nothing down too."""
    outing = Outing.objects.one(account, outing_id)
    rounds = [j.round_id for j in outing.jobs.all() if j.round_id]
    found = applications(account).filter(round__in=rounds).select_related("area__site", "account").prefetch_related("entries")
    every = sorted(found, key=lambda a: (a.area.site_id if a.area else 0, natural(a.area_name), a.pk))
    if not every:
        raise Missing("application")
    return every


def standing_still(outing: Outing) -> bool:
    """Whether an outing stands still."""
    return bool(outing.pauses) and "to" not in outing.pauses[-1]


def _paused(account: Account, outing: Outing) -> str:
    if not standing_still(outing):
        return ""
    last = outing.pauses[-1]
    return paused_text(str(last.get("why", "")), _clock(account, str(last["from"])))


def _clock(account: Account, said: str) -> str:
    """A time that was kept as text, on the account's clock."""
    return f"{datetime.fromisoformat(said).astimezone(account.home.zone):%H:%M}"


def machines_for(account: Account, x: JobLine) -> list[Machine]:
    """The machines in use that could do a job, which is not to say that the label likes them."""
    if x.asked is None or x.machine is None:
        return []
    return [m for m in machines(account).values() if m.kind == x.machine.kind and m.archived_at is None]


def job_out(account: Account, x: JobLine) -> OutingJobOut:
    """A job of an outing, and how far it is."""
    assert x.row
    states = {s.state for s in x.stops}
    status = x.row.round.status if x.row.round else ""
    state = "open"
    if states == {"skipped"}:
        state = "skipped"
    elif status == "under_way":
        state = "under_way"
    elif status == "done" or not states & {"open"}:
        state = "done"
    return OutingJobOut(
        position=x.position,
        kind=x.doing.value,
        title=title_of(x),
        state=state,  # type: ignore[arg-type]
        round_id=x.row.round_id,
        machine_id=x.machine.pk if x.machine else None,
        machine=x.machine.name if x.machine else "",
        machines=[OptionOut(key=str(m.pk), text=m.name) for m in machines_for(account, x)] if state == "open" else [],
        falls=every_fall(x.row.round) if state == "under_way" and x.row.round else [],
        asked=open_job(x) if state == "open" else None,
    )


def open_job(x: JobLine) -> JobIn | None:
    """A job as it is reckoned, on every ground that was not skipped; None where none is left, or nothing is mixed."""
    wanted = {s.area.pk for s in x.stops if s.state == "open"}
    parts = [p for p in x.asked.parts if p.area_id in wanted] if x.asked else []
    return x.asked.model_copy(update={"parts": parts}) if x.asked and parts else None


def _sentence(account: Account, outing: Outing, lines: Sequence[JobLine], jobs: Sequence[OutingJobOut]) -> str:
    zone, day = account.home.zone, day_text(outing.on, clock.today(account))
    if outing.status == Outing.Status.PLANNED:
        return planned_sentence(day, f"{outing.begin.astimezone(zone):%H:%M}", len(jobs))
    if outing.status == Outing.Status.UNDER_WAY:
        first = next(((x, j) for x, j in zip(lines, jobs, strict=True) if j.state in ("open", "under_way")), None)
        done = sum(j.state in ("done", "skipped") for j in jobs)
        begin = f"{first[0].begin.astimezone(zone):%H:%M}" if first else ""
        return under_way_sentence(done, len(jobs), first[1].title if first else "", begin)
    states = [s.state for x in lines for s in x.stops]
    return over_sentence(day, states.count("done"), states.count("skipped"))


def _over(account: Account, outing: Outing, lines: Sequence[JobLine]) -> list[str]:
    """What was done on an outing that is over, a line each, and what was seen to at its end."""
    zone, found = account.home.zone, []
    for x in lines:
        done = [s.area.called for s in x.stops if s.state == "done"]
        if done:
            by = str(x.row.round.started_by) if x.row and x.row.round else ""
            ended = x.row.round.ended_at if x.row and x.row.round else None
            found.append(done_text(title_of(x), ", ".join(done), by, f"{(ended or x.end).astimezone(zone):%H:%M}"))
        found += [skipped_text(s.area.called, s.row.why) for s in x.stops if s.row and s.state == "skipped"]
    for p in outing.pauses:
        if "to" in p:
            found.append(was_paused(str(p.get("why", "")), _clock(account, str(p["from"])), _clock(account, str(p["to"]))))
    return [*found, *(closing_text(c.text, c.note, c.by) for c in closing_out(outing, lines) if c.done)]


def outing_line(account: Account, outing: Outing) -> OutingLineOut:
    """An outing in a list."""
    lines, zone = kept_lines(account, outing), account.home.zone
    titles = [title_of(x) for x in lines if x.asked]
    return OutingLineOut(
        id=outing.pk,
        status=outing.status,  # type: ignore[arg-type]
        day=day_text(outing.on, clock.today(account)),
        text=line_text(f"{outing.begin.astimezone(zone):%H:%M}", titles),
        status_text=STATUS["missed" if missed(account, outing) else outing.status],
    )


MOST_LISTED = 60
"""How many outings a list shows."""


def outings(account: Account) -> list[OutingLineOut]:
    """The latest outings, those to come first."""
    return [outing_line(account, o) for o in Outing.objects.whole(account)[:MOST_LISTED]]
