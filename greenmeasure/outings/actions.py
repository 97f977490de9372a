"""What changes outings: one is taken up, begun, put in order anew, its jobs started and its stops skipped, and it is ended."""

from collections.abc import Iterator, Sequence
from contextlib import suppress
from datetime import UTC, datetime
from uuid import UUID

from django.db import IntegrityError, transaction

from core.errors import InputError
from core.ledger.locks import midnight
from core.outing.jobs import Doing, Job, Leg, Stop
from greenmeasure.accounts.models import Account, User
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict, Missing
from greenmeasure.outings.asked import OPEN, open_outings, plan_for, still_wanted
from greenmeasure.outings.clocks import water_due
from greenmeasure.outings.ending import closing_acts, closing_out
from greenmeasure.outings.lines import JobLine, kept_lines, proposed_lines
from greenmeasure.outings.models import Outing, OutingJob, OutingStop
from greenmeasure.outings.morning import How, planned
from greenmeasure.outings.queries import job_out, machines_for, open_job, standing_still
from greenmeasure.outings.repeat import left_of
from greenmeasure.outings.schemas import AgainIn, ClosingIn, JobMachineIn, PauseIn, SkipIn, StartJobIn, TakeOutingIn
from greenmeasure.outings.words import ASKS, NOTHING_FITS, out_then
from greenmeasure.rounds.actions import start_round
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.queries import cards
from greenmeasure.work.actions import note_work
from greenmeasure.work.schemas import WorkIn

SOAKING = 10.0
"""What water counts for what went down already, beside what is still to be done (ours)."""


def take(account: Account, user: User, data: TakeOutingIn, key: UUID) -> Outing:
    """Take up an outing as it is proposed. The same key again gives the one of the first time.

    Raises:
        InputError: a day that is over, or a machine that is out with another outing then.
        Conflict: nothing of what is due can go down.
    """
    if made := Outing.objects.filter(account=account, key=key).first():
        return Outing.objects.one(account, made.pk)
    if data.on and data.on < clock.today(account):
        raise InputError("on", str(data.on), "That day is over.", "Pick today or a day to come.")
    found = plan_for(account, data, still_wanted(account, data))
    lines = proposed_lines(found)
    if not lines:
        raise Conflict(NOTHING_FITS)
    _machines_free(account, lines)
    now = clock.now()
    try:
        with transaction.atomic():
            made = Outing.objects.create(
                account=account,
                key=key,
                on=found.on,
                begin=lines[0].begin,
                people=data.people,
                crew=data.crew,
                by=user,
                made_at=now,
                status=Outing.Status.UNDER_WAY if data.go else Outing.Status.PLANNED,
                started_at=now if data.go else None,
            )
            for x in lines:
                _save(made, x)
            account.touch("outings")
    except IntegrityError:
        made = Outing.objects.get(account=account, key=key)
    return Outing.objects.one(account, made.pk)


def _save(outing: Outing, x: JobLine) -> None:
    job = OutingJob.objects.create(
        outing=outing,
        position=x.position,
        doing=x.doing.value,
        machine=x.machine,
        job=x.asked.model_dump(mode="json") if x.asked else {},
        ready_minutes=x.ready,
        clean_minutes=x.clean,
        who=x.who,
        begin=x.begin,
        end=x.end,
    )
    OutingStop.objects.bulk_create(
        OutingStop(job=job, position=n, area=s.area, begin=s.begin, end=s.end, told=s.what[:300], want=s.want)
        for n, s in enumerate(x.stops)
    )


def _machines_free(account: Account, lines: Sequence[JobLine]) -> None:
    """Keep a machine from being out twice at once. Raises InputError."""
    for other in open_outings(account):
        for y in kept_lines(account, other):
            for x in lines:
                same = x.machine and y.machine and x.machine.pk == y.machine.pk
                if same and x.begin < y.end and y.begin < x.end and job_out(account, y).state in ("open", "under_way"):
                    assert x.machine
                    at = f"{y.begin.astimezone(account.home.zone):%H:%M}"
                    raise InputError("clock", at, out_then(x.machine.name, at), "Begin later, or leave out what it is for.")


def go(outing: Outing) -> None:
    """Begin an outing. Raises Conflict where it is over."""
    _still_open(outing)
    if outing.status == Outing.Status.PLANNED:
        _set(outing, status=Outing.Status.UNDER_WAY, started_at=clock.now())


def _still_open(outing: Outing) -> None:
    if outing.status not in OPEN:
        raise Conflict(f"This outing is {outing.get_status_display()}; it cannot be changed any more.")


def _set(outing: Outing, **values: object) -> None:
    """Change an outing that is not over, decided on its row. Raises Conflict."""
    if not Outing.objects.filter(pk=outing.pk, status__in=OPEN).update(**values):
        outing.refresh_from_db()
        _still_open(outing)
    for name, value in values.items():
        setattr(outing, name, value)
    outing.account.touch("outings")


def _job(outing: Outing, position: int) -> OutingJob:
    found = next((j for j in outing.jobs.all() if j.position == position), None)
    if found is None:
        raise Missing("job")
    return found


def start_job(outing: Outing, user: User, position: int, data: StartJobIn, key: UUID) -> Round:
    """Make a job of an outing a round, on every ground that was not skipped; one that has a round gives that.

    Raises:
        Conflict: the outing is over, or every stop was skipped; and as `start_round`.
    """
    _still_open(outing)
    job = _job(outing, position)
    if job.round and job.round.status != Round.Status.GIVEN_UP:
        return Round.objects.one(outing.account, job.round.pk)
    if not job.job:
        raise Conflict("Nothing is mixed for this: note it as done.")
    line = next(x for x in kept_lines(outing.account, outing) if x.position == position)
    asked = open_job(line)
    if asked is None:
        raise Conflict("Every stop of it was skipped: take one back first.")
    made = start_round(outing.account, user, asked.model_copy(update={"said": data.said}), key)
    with transaction.atomic():
        OutingJob.objects.filter(pk=job.pk).update(round=made)
        go(outing)
        outing.account.touch("outings")
    return made


WORK = {Doing.WATER.value: "water", Doing.MOW.value: "mow"}


def done_job(outing: Outing, user: User, position: int) -> None:
    """Note a job without a mix as done, in the book's other work. Raises Conflict where it has a mix, or the outing is over."""
    _still_open(outing)
    job = _job(outing, position)
    if job.doing not in WORK:
        raise Conflict("What is mixed goes into the book by its round: start it first.")
    stops = [s for s in job.stops.all() if s.state == OutingStop.State.OPEN]
    if job.doing == Doing.WATER and (first := _waits_for(outing, {s.area_id for s in stops})):
        raise Conflict(f"{first} comes first: the water is for it.")
    with transaction.atomic():
        if stops:
            note_work(outing.account, user, WorkIn(kind=WORK[job.doing], area_ids=[s.area_id for s in stops]))
            OutingStop.objects.filter(pk__in=[s.pk for s in stops]).update(state=OutingStop.State.DONE)
        go(outing)
        outing.account.touch("outings")


def _waits_for(outing: Outing, ground: set[int]) -> str:
    """What has to go down on some ground before it is watered in; empty where nothing has."""
    for x in kept_lines(outing.account, outing):
        soaked = x.asked and any(cards(outing.account)[c.product_id].core.rules.watered_in for c in x.asked.mix)
        if soaked and any(s.area.pk in ground and s.state == "open" for s in x.stops):
            return job_out(outing.account, x).title
    return ""


def skip(outing: Outing, stop_id: int, data: SkipIn) -> None:
    """Skip a stop with a reason, or take that back.

    Raises:
        InputError: no reason.
        Conflict: the outing is over, the stop was done, or its mix is made without it.
    """
    stop = next((s for j in outing.jobs.all() for s in j.stops.all() if s.pk == stop_id), None)
    if stop is None:
        raise Missing("stop")
    _skip(outing, next(j for j in outing.jobs.all() if j.pk == stop.job_id), [stop], data)


def skip_job(outing: Outing, position: int, data: SkipIn) -> None:
    """Skip every stop of a job that was not done, with one reason, or take that back. Raises as `skip`."""
    job = _job(outing, position)
    _skip(outing, job, [s for s in job.stops.all() if s.state != OutingStop.State.DONE], data)


def _skip(outing: Outing, job: OutingJob, stops: Sequence[OutingStop], data: SkipIn) -> None:
    _still_open(outing)
    done = job.round is not None and job.round.status == Round.Status.DONE
    if done or not stops or any(s.state == OutingStop.State.DONE for s in stops):
        raise Conflict("It was done already.")
    if job.round and job.round.status == Round.Status.UNDER_WAY:
        mixed = {p.area_id for p in job.round.parts.all()}
        if any(s.area_id not in mixed for s in stops):
            raise Conflict("Its mix is made without that area: finish the round, or give it up, first.")
    if data.skip and not data.why:
        raise InputError("why", "", "A skipped stop has no reason.", "Say why: locked gate, a dog, people on it.")
    state = OutingStop.State.SKIPPED if data.skip else OutingStop.State.OPEN
    OutingStop.objects.filter(pk__in=[s.pk for s in stops]).update(state=state, why=data.why if data.skip else "")
    outing.account.touch("outings")


def close(outing: Outing, user: User, data: ClosingIn) -> None:
    """Note an act at the end of an outing, or take it back. Raises InputError where there is none such, or it says too little."""
    _still_open(outing)
    lines = kept_lines(outing.account, outing)
    if data.key not in closing_acts(lines):
        raise InputError("key", data.key, "There is no such act at the end of an outing.", "Open the outing again.")
    if data.done and data.key in ASKS and not data.note:
        raise InputError("note", "", ASKS[data.key], "Say nothing was left, or how much and where it went.")
    rest = [c for c in outing.closing if c.get("key") != data.key]
    made = {"key": data.key, "by": str(user), "at": clock.now().isoformat(), "note": data.note}
    _set(outing, closing=[*rest, made] if data.done else rest)


def pause(outing: Outing, data: PauseIn) -> None:
    """Let an outing stand still, and say why. Raises Conflict where it is over, or stands still already."""
    _still_open(outing)
    if standing_still(outing):
        raise Conflict("It stands still already.")
    made = {"from": clock.now().isoformat(), "why": data.why}
    started = {} if outing.started_at else {"status": Outing.Status.UNDER_WAY, "started_at": clock.now()}
    _set(outing, pauses=[*outing.pauses, made], **started)


def go_on(outing: Outing) -> None:
    """Let an outing that stands still go on; what is left is put in order anew from now, where it can be. Raises Conflict."""
    _still_open(outing)
    if not standing_still(outing):
        raise Conflict("It does not stand still.")
    *before, last = outing.pauses
    _set(outing, pauses=[*before, last | {"to": clock.now().isoformat()}])
    with suppress(Conflict):  # nothing fits any more: it goes on in the order of before, and each job says so
        again(outing, AgainIn())


def change_machine(outing: Outing, position: int, data: JobMachineIn) -> None:
    """Let another machine do a job that has not begun: what is mixed follows it.

    Raises:
        InputError: no machine that can do it.
        Conflict: the outing is over, or the job has begun.
    """
    _still_open(outing)
    job = _job(outing, position)
    line = next(x for x in kept_lines(outing.account, outing) if x.position == position)
    if job_out(outing.account, line).state != "open" or not line.asked:
        raise Conflict("It has begun: finish it, or give its round up first.")
    machine = next((m for m in machines_for(outing.account, line) if m.pk == data.machine_id), None)
    if machine is None:
        raise InputError("machine_id", data.machine_id, "That machine cannot do this job.", "Pick one of the list.")
    asked = line.asked.model_copy(update={"machine_id": machine.pk})
    OutingJob.objects.filter(pk=job.pk).update(machine=machine, job=asked.model_dump(mode="json"))
    outing.account.touch("outings")


def finish(outing: Outing) -> None:
    """End an outing whose jobs are all done or skipped, and whose end was seen to. Raises Conflict, naming what is left."""
    _still_open(outing)
    lines = kept_lines(outing.account, outing)
    left = [job.title for x in lines if (job := job_out(outing.account, x)).state in ("open", "under_way")]
    if left:
        raise Conflict(f"Not done yet: {', '.join(left)}. Do it, or skip its stops with a reason.")
    open_ = [x.text for x in closing_out(outing, lines) if not x.done]
    if open_:
        raise Conflict(f"Not seen to yet: {open_[0]}.")
    _set(outing, status=Outing.Status.DONE, ended_at=clock.now())


def give_up(outing: Outing) -> None:
    """End an outing of which the rest is not done: its rounds stay as they are. Raises Conflict where one is under way."""
    _still_open(outing)
    if any(j.round and j.round.status == Round.Status.UNDER_WAY for j in outing.jobs.all()):
        raise Conflict("A round of it is under way: finish it, or give it up first.")
    _set(outing, status=Outing.Status.GIVEN_UP, ended_at=clock.now())


# --- in order anew ----------------------------------------------------------------------------------------------


def again(outing: Outing, data: AgainIn) -> None:
    """Put what is left of an outing in order anew from now on, by the hours as they are known now, for as many people as go on.
    What cannot be done any more keeps its place, after the rest.

    Raises:
        Conflict: the outing is over, or nothing is left to put in order.
    """
    _still_open(outing)
    account, now = outing.account, clock.now()
    rows = [j for j in outing.jobs.all() if j.job and not (j.round and j.round.status != Round.Status.GIVEN_UP)]
    dues = [d for j in rows for d in left_of(account, j)]
    waters = list(_waters_left(account, outing, {d.area.pk for d in dues}))
    if not dues and not waters:
        raise Conflict("Nothing is left to put in order.")
    people = data.people or outing.people
    found = planned(account, dues, clock.today(account), How(people, now, more=tuple(waters)))
    lines = proposed_lines(found)
    done = {s.area.pk for x in lines for s in x.stops}
    with transaction.atomic():
        _set(outing, people=people)
        for x in lines:
            for j in _rows_of(outing, rows, x):
                _move(j, x)
        account.touch("outings")
    if not done:
        raise Conflict(NOTHING_FITS)


def _waters_left(account: Account, outing: Outing, to_come: set[int]) -> Iterator[Job]:
    """The water that is still to follow what went down already: by when its label wants it."""
    start = midnight(clock.today(account), account.home.zone).astimezone(UTC)
    for j in outing.jobs.all():
        for s in j.stops.all() if j.doing == Doing.WATER else ():
            if s.state != OutingStop.State.OPEN or s.area_id in to_come:
                continue
            until = [_minutes(start, at) for at, _ in water_due(account, outing, s.area_id)]
            long = max(1, _minutes(s.begin, s.end))
            fit = ((0, max(min(until), long)),) if until else None
            stop = Stop(str(s.area_id), long, fit)
            yield Job(f"water+{s.area_id}", Doing.WATER, (Leg(str(s.area.site_id), (stop,)),), hands=False, weight=SOAKING)


def _minutes(start: datetime, at: datetime) -> int:
    return round((at - start).total_seconds() / 60)


def _rows_of(outing: Outing, rows: Sequence[OutingJob], x: JobLine) -> list[OutingJob]:
    """The rows that a line stands for: a mix by its products and machine, water by its ground."""
    ground = {s.area.pk for s in x.stops}
    if x.asked is None:
        every = [j for j in outing.jobs.all() if j.doing == x.doing.value]
        return [j for j in every if ground == {s.area_id for s in j.stops.all() if s.state == OutingStop.State.OPEN}]
    ids = [c.product_id for c in x.asked.mix]
    return [j for j in rows if [c["product_id"] for c in j.job["mix"]] == ids and j.machine_id == x.asked.machine_id]


def _move(j: OutingJob, x: JobLine) -> None:
    times: dict[int, tuple[datetime, datetime]] = {s.area.pk: (s.begin, s.end) for s in x.stops}
    OutingJob.objects.filter(pk=j.pk).update(begin=x.begin, end=x.end, who=x.who)
    for s in j.stops.all():
        if s.area_id in times and s.state == OutingStop.State.OPEN:
            OutingStop.objects.filter(pk=s.pk).update(begin=times[s.area_id][0], end=times[s.area_id][1])
