"""The acts of an outing, a line each with its time: measuring, what goes down, the drives between, cleaning."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from core.outing.jobs import Doing
from greenmeasure.accounts.models import Account, Site, sites_of
from greenmeasure.common import clock
from greenmeasure.ground.queries import areas, site_name
from greenmeasure.ledger.booked import history
from greenmeasure.outings.lines import JobLine, StopLine, ready_at
from greenmeasure.outings.routes import way
from greenmeasure.outings.schemas import ActName, OutingActOut, OutingSiteOut, OutingStopOut
from greenmeasure.outings.words import DRIVE, clean_text, filling_text, job_title, last_text, ready_text, time_text, water_note


def acts_of(account: Account, lines: Sequence[JobLine]) -> list[OutingActOut]:
    """Every line of an outing in the order of its time, with the drives between sites."""
    acts = [a for x in lines for a in _acts_of_job(account, x)]
    acts.sort(key=lambda a: (a.begin, a.end))
    return _with_drives(account, acts)


def _acts_of_job(account: Account, x: JobLine) -> list[OutingActOut]:
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
        made = _act(x.doing.value, begin, end, time_text(begin, end, zone), title_of(x), x.position)
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


def title_of(x: JobLine) -> str:
    """What a job does, in words."""
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


def sites_in(lines: Sequence[JobLine]) -> list[OutingSiteOut]:
    """What to know of the sites that jobs lead to."""
    every: dict[int, Site] = {s.area.site_id: s.area.site for x in lines for s in x.stops}
    return [site_facts(s) for s in every.values()]


def site_facts(s: Site) -> OutingSiteOut:
    """What to know of a site before one goes there."""
    return OutingSiteOut(
        id=s.pk,
        name=s.name,
        address=s.address,
        contact=s.contact,
        gate=s.gate,
        agreed=s.agreed,
        tell=s.tell,
        water=filling_text(s),
    )
