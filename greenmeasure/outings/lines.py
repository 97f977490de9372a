"""The jobs of an outing as lines, whether it is proposed or was taken up: what is done where, with what, from when to when."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta

from core.label.rate import Rate, RateUnit
from core.outing.jobs import Doing
from core.outing.order import Timed
from core.units import exact_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import QuantityIn, number_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.outings.models import Outing, OutingJob, OutingStop
from greenmeasure.outings.morning import Planned
from greenmeasure.outings.schemas import StopState
from greenmeasure.outings.wants import Due, Part
from greenmeasure.reckon.schemas import ComponentIn, DoseIn, JobIn, PartIn
from greenmeasure.shelf.queries import cards


@dataclass(frozen=True)
class StopLine:
    """A ground of a job with its time; `what` is what it is for, `want` what it was due by; `row` where it is kept."""

    area: Area
    begin: datetime
    end: datetime
    what: str = ""
    want: str = ""
    row: OutingStop | None = None
    state: StopState = "open"


@dataclass(frozen=True)
class JobLine:
    """A job with its time, measuring and cleaning in it; `names` are its products, or those that its water waters in.

    `key` is how an order by hand names it, `who` of the people does it. `asked` is the job as Reckon takes it, None for water and
    the mower; `row` where it is kept.
    """

    position: int
    doing: Doing
    names: tuple[str, ...]
    machine: Machine | None
    begin: datetime
    end: datetime
    ready: int
    clean: int
    stops: tuple[StopLine, ...]
    asked: JobIn | None = None
    row: OutingJob | None = None
    rates: tuple[str, ...] = field(default=())
    key: str = ""
    who: int | None = None


def proposed_lines(p: Planned) -> list[JobLine]:
    """The jobs of an outing that is proposed, in the order in which they begin."""
    by_job: dict[str, list[Timed]] = {}
    for t in p.order.legs:
        by_job.setdefault(t.job, []).append(t)
    jobs = {j.key: j for j in p.morning.jobs}
    made = []
    for n, (key, timed) in enumerate(by_job.items()):
        job = jobs[key]
        group = p.jobs.get(key)
        begin = timed[0].begin if timed[0].ready is None else timed[0].ready
        end = timed[-1].end if timed[-1].cleaned is None else timed[-1].cleaned
        stops = []
        for t in timed:
            leg = job.legs[t.leg]
            for stop in leg.stops:
                a, b = leg.at(stop.ground) or (0, 0)
                dues = p.due_of(key, stop.ground) if group else []
                stops.append(
                    StopLine(
                        areas(p.account)[int(stop.ground)],
                        p.at(t.begin + a),
                        p.at(t.begin + b),
                        ", ".join(dict.fromkeys(d.what for d in dues)),
                        dues[0].want.key if dues else "",
                    )
                )
        first = [p.due_of(key, str(s.area.pk))[0] for s in stops] if group else []
        serves = [jobs[s] for s in job.serves]
        made.append(
            JobLine(
                n,
                job.doing,
                tuple(c.name for c in job.products) or tuple(dict.fromkeys(c.name for s in serves for c in s.products)),
                first[0].machine if first else None,
                p.at(begin),
                p.at(end),
                job.ready,
                job.clean,
                tuple(stops),
                job_in(first) if first else None,
                rates=tuple(", ".join(str(x.rate) for x in d.mix) for d in first),
                key=key,
                who=timed[0].who,
            )
        )
    return made


def job_in(dues: Sequence[Due]) -> JobIn:
    """What is due, as Reckon takes it: one mix, a part for each ground. What it is against is said where all say the same."""
    mix = []
    for i, part in enumerate(dues[0].mix):
        targets = {d.mix[i].target for d in dues}
        mix.append(ComponentIn(product_id=part.card.product.pk, target=part.target if len(targets) == 1 else ""))
    machine = dues[0].machine
    parts = [PartIn(area_id=d.area.pk, doses=[_dose(p) for p in d.mix]) for d in dues]
    return JobIn(mix=mix, parts=parts, machine_id=machine.pk if machine else None)


def _dose(p: Part) -> DoseIn:
    return DoseIn(row_id=p.card.key_of(p.row), rate=QuantityIn(value=exact_number(p.rate.value), unit=p.rate.unit.key))


def kept_lines(account: Account, outing: Outing) -> list[JobLine]:
    """The jobs of an outing that was taken up."""
    rows = list(outing.jobs.all())
    asked = {j.pk: JobIn(**j.job | {"outing_id": outing.pk}) if j.job else None for j in rows}
    return [_kept(account, j, asked[j.pk], [asked[x.pk] for x in rows]) for j in rows]


def _kept(account: Account, j: OutingJob, asked: JobIn | None, every: Sequence[JobIn | None]) -> JobLine:
    mine = {s.area_id for s in j.stops.all()}
    watered = [x for x in every if x and j.doing == Doing.WATER and any(p.area_id in mine for p in x.parts)]
    shelf = cards(account)
    names = [shelf[c.product_id].product.name for x in ([asked] if asked else []) for c in x.mix if c.product_id in shelf]
    names += [
        shelf[c.product_id].product.name
        for x in watered
        for c in x.mix
        if c.product_id in shelf and shelf[c.product_id].core.rules.watered_in
    ]
    return JobLine(
        j.position,
        Doing(j.doing),
        tuple(dict.fromkeys(names)),
        j.machine,
        j.begin,
        j.end,
        j.ready_minutes,
        j.clean_minutes,
        tuple(_stop(account, j, s) for s in j.stops.all()),
        asked,
        j,
        tuple(_rates(asked, s.area_id) for s in j.stops.all()) if asked else (),
        who=j.who,
    )


def _stop(account: Account, j: OutingJob, s: OutingStop) -> StopLine:
    """A stop as far as it has come: what its round put in the book is done, what the round left out was skipped."""
    state: StopState = "done" if s.state == "done" else "skipped" if s.state == "skipped" else "open"
    if state == "open" and j.round and j.round.status == "done":
        state = "done" if any(a.area_id == s.area_id for a in j.round.applications.all()) else "skipped"
    return StopLine(areas(account).get(s.area_id, s.area), s.begin, s.end, s.told, s.want, s, state)


def _rates(asked: JobIn, area_id: int) -> str:
    part = next((p for p in asked.parts if p.area_id == area_id), None)
    return ", ".join(str(r) for d in (part.doses if part else ()) if (r := rate_of(d)))


def rate_of(given: DoseIn) -> Rate | None:
    """The rate of a dose that was kept; None for what goes in to taste."""
    return Rate(number_in("rate", given.rate.value), RateUnit.from_key(given.rate.unit)) if given.rate else None


def last_minute(lines: Sequence[JobLine]) -> datetime | None:
    """When all of it is over."""
    return max((x.end for x in lines), default=None)


def ready_at(x: JobLine) -> datetime:
    """When measuring for a job is over."""
    return x.begin + timedelta(minutes=x.ready)
