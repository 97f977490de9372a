"""Outings as they are shown: proposed, and followed."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta

from django.db.models import Q

from core.errors import InputError
from core.outing.jobs import Doing, Leg
from core.outing.sequence import Left
from core.readable import joined
from core.weather.windows import Fit
from greenmeasure.accounts.models import Account, Site, sites_of
from greenmeasure.book.models import Application
from greenmeasure.book.queries import applications
from greenmeasure.common import clock
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import OptionOut
from greenmeasure.ground.queries import areas, site_name
from greenmeasure.kit.models import Cleaning, Machine
from greenmeasure.kit.queries import machines
from greenmeasure.ledger.booked import history
from greenmeasure.outings.lines import JobLine, StopLine, kept_lines, last_minute, proposed_lines, ready_at
from greenmeasure.outings.models import Outing, OutingStop
from greenmeasure.outings.morning import How, Planned, hours_for, planned
from greenmeasure.outings.repeat import all_of
from greenmeasure.outings.routes import every_route, goes_on, route_by_site, way
from greenmeasure.outings.schemas import (
    ActName,
    ClosingOut,
    FollowedOut,
    OutingActOut,
    OutingAskIn,
    OutingDueOut,
    OutingJobOut,
    OutingLeftOut,
    OutingLineOut,
    OutingSiteOut,
    OutingStopOut,
    PlannedJobOut,
    ProposedOut,
)
from greenmeasure.outings.wants import Due, wants
from greenmeasure.outings.words import (
    ASKS,
    CLOSING,
    DRIVE,
    NOT_FOR_IT,
    NOTHING_DUE,
    NOTHING_FITS,
    STATUS,
    clean_machine,
    clean_text,
    closing_text,
    day_text,
    done_text,
    gave_text,
    job_title,
    last_text,
    left_text,
    line_text,
    next_hours,
    other_days,
    over_sentence,
    paused_text,
    planned_sentence,
    proposed_sentence,
    ready_text,
    skipped_text,
    time_text,
    under_way_sentence,
    unsure_text,
    was_paused,
    water_note,
)
from greenmeasure.reckon.schemas import JobIn
from greenmeasure.rounds.models import Round, RoundPart
from greenmeasure.sky.locks import locks
from greenmeasure.sky.words import span_text

AHEAD = 7
"""How many days ahead an outing is proposed for."""
OPEN = (Outing.Status.PLANNED, Outing.Status.UNDER_WAY)


def open_outings(account: Account) -> list[Outing]:
    """The outings that were taken up, are not over and were not missed, the next one first."""
    return sorted(Outing.objects.whole(account).filter(_standing(account)), key=lambda o: (o.begin, o.pk))


def _standing(account: Account) -> Q:
    """Which outings still stand: those under way, and those planned for a day that is not over."""
    return Q(status=Outing.Status.UNDER_WAY) | Q(status=Outing.Status.PLANNED, on__gte=clock.today(account))


def missed(account: Account, outing: Outing) -> bool:
    """Whether an outing was planned for a day that is over, and never begun: what it would have done is due again."""
    return outing.status == Outing.Status.PLANNED and outing.on < clock.today(account)


def taken(account: Account) -> set[str]:
    """What outings that still stand do, by what it was due by."""
    standing = Outing.objects.filter(_standing(account), account=account)
    rows = OutingStop.objects.filter(job__outing__in=standing).exclude(state="skipped")
    return {*rows.values_list("want", flat=True)} - {""}


# --- proposed ---------------------------------------------------------------------------------------------------


def due_on(dues: Sequence[Due], on: date) -> list[Due]:
    """What is due on a day: what is late or due now, and what is by then."""
    return [d for d in dues if d.state != "coming" or (d.by is not None and d.by <= on)]


def still_wanted(account: Account, data: OutingAskIn | None = None) -> list[Due]:
    """What is due and neither in an outing that was taken up nor going down in a round; or what the outing did that is asked for
    again. Raises InputError where there is no such outing, or a product is for none of it.
    """
    if data and data.like is not None:
        return all_of(account, liked(account, data.like))
    done, going = taken(account), _under_way(account)
    swaps = {s.key: s.product_id for s in data.swaps} if data else {}
    every = wants(account, swaps)
    picked = {d.want.key: {c.product.pk for c in d.picked} for d in every}
    for i, (key, product) in enumerate(swaps.items()):
        if key in picked and product not in picked[key]:
            raise InputError(f"swaps.{i}.product_id", product, NOT_FOR_IT, "Pick one of the list.")
    return [d for d in every if d.want.key not in done and not {(d.area.pk, c.product.pk) for c in d.picked} & going]


@kept("rounds")
def _under_way(account: Account) -> frozenset[tuple[int, int]]:
    """What is going down in rounds, by area and product."""
    parts = RoundPart.objects.filter(round__account=account, round__status=Round.Status.UNDER_WAY)
    return frozenset(parts.values_list("area_id", "doses__component__product_id"))


def liked(account: Account, outing_id: int) -> Outing:
    """The outing that is to be done again. Raises InputError."""
    found = Outing.objects.whole(account).filter(pk=outing_id).first()
    if found is None:
        raise InputError("like", outing_id, "There is no such outing.", "Pick one of the list.")
    return found


def plan_for(account: Account, data: OutingAskIn, every: Sequence[Due]) -> Planned:
    """The outing that is asked for, of what is still wanted. Raises InputError where the time cannot be."""
    sites, out = set(data.site_ids), set(data.leave)
    rest = [d for d in every if d.want.key not in out and (not sites or d.area.site_id in sites)]
    today = clock.today(account)
    fits = {d.want.key: _fit_days(account, d) for d in due_on(rest, today)}
    on = data.on or _best_day(account, due_on(rest, today), fits, bool(sites))
    begin = clock.moment_at(account.home, on, data.clock) if data.clock.strip() else None
    mine = [_scarce(d, on, fits.get(d.want.key)) for d in due_on(rest, on) if sites or _driven(account, d, on)]
    return planned(account, mine, on, How(data.people, begin, tuple(data.order)))


def _driven(account: Account, due: Due, on: date) -> bool:
    """Whether the route of a ground's site is driven on a day."""
    return goes_on(route_by_site(account).get(due.area.site_id), on)


def other_routes(account: Account, data: OutingAskIn, every: Sequence[Due], on: date) -> list[str]:
    """What is due on routes that are driven on other days, a line each route."""
    if data.site_ids:
        return []
    found: dict[int, list[Due]] = {}
    for d in due_on(every, on):
        if d.want.key not in data.leave and not _driven(account, d, on):
            found.setdefault(route_by_site(account)[d.area.site_id].pk, []).append(d)
    return [other_days(r.name, r.days, len(found[r.pk])) for r in every_route(account) if r.pk in found]


def _best_day(account: Account, dues: Sequence[Due], fits: Mapping[str, set[date]], named: bool) -> date:
    """The first of the days ahead on which most of what is due has hours and its route is driven; today where nothing has."""
    today = clock.today(account)
    best, when = 0.0, today
    for n in range(AHEAD):
        on = today + timedelta(days=n)
        worth = sum(d.want.weight for d in dues if on in fits[d.want.key] and (named or _driven(account, d, on)))
        if worth > best * MUCH:
            best, when = worth, on
    return when


def _scarce(due: Due, on: date, days: set[date] | None) -> Due:
    """What has no other hours ahead comes before what has."""
    if days != {on}:
        return due
    return replace(due, want=replace(due.want, weight=due.want.weight * ONLY))


ONLY = 2.0
"""How much more it counts to do something on the only day ahead that has hours for it (ours)."""
MUCH = 1.5
"""How much more of what is due must be possible on a later day, for an outing to wait for it (ours)."""
LEAST = 2
"""Fit hours that a day must have, for an outing to go out for them (ours)."""


def _fit_days(account: Account, due: Due) -> set[date]:
    """The days on which a mix has hours that are fit."""
    hours = hours_for(account, due)
    if hours is None:
        return {clock.today(due.area)}
    found: dict[date, int] = {}
    for i, fit in enumerate(hours.judged.fits):
        if fit <= Fit.UNKNOWN:
            on = clock.local_day(due.area, hours.at(i))
            found[on] = found.get(on, 0) + 1
    return {on for on, n in found.items() if n >= LEAST}


def proposed(account: Account, data: OutingAskIn) -> ProposedOut:
    """An outing as it is proposed. Raises InputError where the time cannot be."""
    every = still_wanted(account, data)
    found = plan_for(account, data, every)
    out = [d for d in every if d.want.key in data.leave]
    return proposed_out(found, out, other_routes(account, data, every, found.on))


def proposed_out(p: Planned, out: Sequence[Due], elsewhere: Sequence[str] = ()) -> ProposedOut:
    """A proposed outing in words; `out` is what was left out by hand, `elsewhere` what is due on other days' routes."""
    lines, today = proposed_lines(p), clock.today(p.account)
    acts = _acts(p.account, lines)
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
        sites=_sites(lines),
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
    return PlannedJobOut(key=x.key, position=x.position, title=_title(x))


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


# --- acts -------------------------------------------------------------------------------------------------------


def _acts(account: Account, lines: Sequence[JobLine]) -> list[OutingActOut]:
    """Every line of an outing in the order of its time, with the drives between sites."""
    acts = [a for x in lines for a in _acts_of(account, x)]
    acts.sort(key=lambda a: (a.begin, a.end))
    return _with_drives(account, acts)


def _acts_of(account: Account, x: JobLine) -> list[OutingActOut]:
    machine, zone = x.machine.name if x.machine else "", account.home.zone
    found = []
    if x.ready:
        end = ready_at(x)
        made = _act("ready", x.begin, end, time_text(x.begin, end, zone), ready_text(x.names, machine), x.position)
        made.who = x.who
        found.append(made)
    legs: list[list[int]] = []
    for n, s in enumerate(x.stops):
        if n and s.area.site_id == x.stops[n - 1].area.site_id and s.begin == x.stops[n - 1].end:
            legs[-1].append(n)
        else:
            legs.append([n])
    for leg in legs:
        stops = [x.stops[n] for n in leg]
        begin, end = stops[0].begin, stops[-1].end
        made = _act(x.doing.value, begin, end, time_text(begin, end, zone), _title(x), x.position)
        made.where = ", ".join(s.area.called for s in stops)
        made.note = _note(account, x, leg, machine)
        made.who = x.who
        made.stops = [_stop(account, x, s, x.rates[n] if n < len(x.rates) else "") for n, s in zip(leg, stops, strict=True)]
        found.append(made)
    if x.clean:
        begin = x.end - timedelta(minutes=x.clean)
        made = _act("clean", begin, x.end, time_text(begin, x.end, zone), clean_text(machine), x.position)
        made.who = x.who
        found.append(made)
    return found


def _title(x: JobLine) -> str:
    return job_title(x.doing, x.names if x.asked else ())


def _note(account: Account, x: JobLine, leg: Sequence[int], machine: str) -> str:
    if x.doing is Doing.WATER:
        minutes = round((x.stops[leg[0]].end - x.stops[leg[0]].begin).total_seconds() / 60)
        return water_note(minutes, x.names)
    rates = dict.fromkeys(x.rates[n] for n in leg if n < len(x.rates))
    return " · ".join(t for t in (site_name(account, x.stops[leg[0]].area), " / ".join(rates), machine) if t)


def _act(kind: ActName | str, begin: datetime, end: datetime, time: str, title: str, job: int | None) -> OutingActOut:
    return OutingActOut(
        kind=kind,  # type: ignore[arg-type]
        begin=begin,
        end=end,
        time=time,
        title=title,
        where="",
        note="",
        job=job,
        who=None,
        stops=[],
    )


def _stop(account: Account, x: JobLine, s: StopLine, rate: str) -> OutingStopOut:
    past = [a for a in history(account, s.area.pk) if not a.planned]
    last = max(past, key=lambda a: a.on, default=None)
    return OutingStopOut(
        id=s.row.pk if s.row else None,
        area_id=s.area.pk,
        area=s.area.called,
        time=time_text(s.begin, s.end, account.home.zone),
        what=s.what,
        rate=rate,
        last=last_text(last.product, last.on, clock.today(account)) if last and x.asked else "",
        note=s.area.note if x.asked else "",
        state=s.state,
        why=s.row.why if s.row else "",
    )


def _with_drives(account: Account, acts: Sequence[OutingActOut]) -> list[OutingActOut]:
    """The drives from one site to the next, where what somebody does goes on at another; measuring for a job comes after it.
    Nobody drives to where everything was skipped.
    """
    found: list[OutingActOut] = []
    here: dict[int | None, int] = {}
    ground = areas(account)
    for n, a in enumerate(acts):
        at = next((x for x in acts[n:] if x.job == a.job and _goes(x)), a) if a.kind == "ready" else a
        goes = at.kind not in ("water", "mow") and _goes(at)
        area = ground.get(at.stops[0].area_id) if goes else None
        site = area.site_id if area else None
        if site is not None and here.get(a.who, site) != site:
            begin = a.begin - timedelta(minutes=way(account, here[a.who], site))
            drive = _act("drive", begin, a.begin, time_text(begin, a.begin, account.home.zone), DRIVE, None)
            drive.where, drive.who = sites_of(account)[site].name if site in sites_of(account) else "", a.who
            found.append(drive)
        if site is not None:
            here[a.who] = site
        found.append(a)
    return found


def _goes(a: OutingActOut) -> bool:
    """Whether somebody goes to a ground for it."""
    return any(s.state != "skipped" for s in a.stops)


def _sites(lines: Sequence[JobLine]) -> list[OutingSiteOut]:
    every: dict[int, Site] = {s.area.site_id: s.area.site for x in lines for s in x.stops}
    return [site_facts(s) for s in every.values()]


def site_facts(s: Site) -> OutingSiteOut:
    """What to know of a site before one goes there."""
    return OutingSiteOut(id=s.pk, name=s.name, address=s.address, contact=s.contact, gate=s.gate, agreed=s.agreed, tell=s.tell)


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
        acts=_acts(account, lines),
        next=first.position if first and outing.status in OPEN else None,
        locks=[x for x in locks(account, now) if x.area_id in grounds] if outing.status in OPEN else [],
        closing=closing_out(outing, lines),
        sites=_sites(lines),
        over=_over(account, outing, lines) if outing.status not in OPEN else [],
        applications=sorted(a.pk for x in lines if x.row and x.row.round for a in x.row.round.applications.all()),
    )


def put_down_on(account: Account, outing_id: int) -> list[Application]:
    """What an outing put down, by site and ground. Raises Missing, where it put nothing down too."""
    outing = Outing.objects.one(account, outing_id)
    rounds = [j.round_id for j in outing.jobs.all() if j.round_id]
    found = applications(account).filter(round__in=rounds).select_related("area__site", "account").prefetch_related("entries")
    every = sorted(found, key=lambda a: (a.area.site_id if a.area else 0, a.area_name, a.pk))
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
        title=_title(x),
        state=state,  # type: ignore[arg-type]
        round_id=x.row.round_id,
        machine_id=x.machine.pk if x.machine else None,
        machine=x.machine.name if x.machine else "",
        machines=[OptionOut(key=str(m.pk), text=m.name) for m in machines_for(account, x)] if state == "open" else [],
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


def closing_out(outing: Outing, lines: Sequence[JobLine]) -> list[ClosingOut]:
    """What is to be seen to at the end of an outing, and how far that is; a machine that was cleaned since its last round is."""
    kept_acts = {str(c["key"]): c for c in outing.closing if isinstance(c, dict) and "key" in c}
    found = []
    for key, (text, machine) in closing_acts(lines).items():
        said, by = kept_acts.get(key, {}), str(kept_acts.get(key, {}).get("by", ""))
        cleaned = _cleaned(machine, lines) if machine else None
        found.append(
            ClosingOut(
                key=key,
                text=text,
                done=key in kept_acts or cleaned is not None or (machine is not None and "clean" in kept_acts),
                by=by or (cleaned.by if cleaned else ""),
                asks=ASKS.get(key, ""),
                note=str(said.get("note", "")),
                machine_id=machine.pk if machine else None,
            )
        )
    return found


def _cleaned(machine: Machine, lines: Sequence[JobLine]) -> Cleaning | None:
    """The cleaning of a machine since its last round of an outing ended; None where there is none, or none ended."""
    ends = [x.row.round.ended_at for x in lines if x.row and x.row.round and x.machine == machine and x.row.round.ended_at]
    return machine.cleanings.filter(at__gte=max(ends)).first() if ends else None


def closing_acts(lines: Sequence[JobLine]) -> dict[str, tuple[str, Machine | None]]:
    """What is to be seen to at the end of an outing, by what was done on it: its words, and the machine whose cleaning it is."""
    went = [x for x in lines if any(s.state != "skipped" for s in x.stops)]
    doings, every = {x.doing for x in went}, {x.machine.pk: x.machine for x in went if x.machine}
    keys = [
        *(("left", "rinse") if Doing.SPRAY in doings else ()),
        *(f"clean-{pk}" for pk in every),
        *(("swept",) if Doing.SPREAD in doings else ()),
        *(("gear", "signs", "told") if doings & {Doing.SPRAY, Doing.SPREAD} else ()),
    ]
    machine = {f"clean-{pk}": m for pk, m in every.items()}
    return {k: (clean_machine(machine[k].name) if k in machine else CLOSING[k], machine.get(k)) for k in keys}


def _over(account: Account, outing: Outing, lines: Sequence[JobLine]) -> list[str]:
    """What was done on an outing that is over, a line each, and what was seen to at its end."""
    zone, found = account.home.zone, []
    for x in lines:
        done = [s.area.called for s in x.stops if s.state == "done"]
        if done:
            by = str(x.row.round.started_by) if x.row and x.row.round else ""
            ended = x.row.round.ended_at if x.row and x.row.round else None
            found.append(done_text(_title(x), ", ".join(done), by, f"{(ended or x.end).astimezone(zone):%H:%M}"))
        found += [skipped_text(s.area.called, s.row.why) for s in x.stops if s.row and s.state == "skipped"]
    for p in outing.pauses:
        if "to" in p:
            found.append(was_paused(str(p.get("why", "")), _clock(account, str(p["from"])), _clock(account, str(p["to"]))))
    return [*found, *(closing_text(c.text, c.note, c.by) for c in closing_out(outing, lines) if c.done)]


def outing_line(account: Account, outing: Outing) -> OutingLineOut:
    """An outing in a list."""
    lines, zone = kept_lines(account, outing), account.home.zone
    titles = [_title(x) for x in lines if x.asked]
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
