"""What is due on a day put in order: gathered into jobs, each with how long it takes and the hours that are fit for it, asked of
the gate together and again at the hour at which each would be done.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, date, datetime, time, timedelta
from itertools import combinations

from core.findings import Finding, Weight
from core.ledger.gate import Plan, check
from core.ledger.history import Applied, Place, Standing
from core.ledger.locks import midnight
from core.machines.labour import FILLING, fills_of, on_ground
from core.outing.between import Apart
from core.outing.gather import Gathered, gathered
from core.outing.jobs import Doing, Job, Leg, Span, Stop, apart, meet, minutes, spans_of
from core.outing.order import Morning, Order
from core.outing.sequence import sequence
from core.water.cans import run_for
from core.weather.windows import Fit
from greenmeasure.accounts.models import PARTS, Account
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.ledger.past import Asked, ledger, planned_near
from greenmeasure.outings.routes import ways
from greenmeasure.outings.wants import Due
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.outing import Outing as Hours
from greenmeasure.sky.outing import at_its_hour, hour_of, outing
from greenmeasure.sky.routine import Routine
from greenmeasure.sky.weather import recent, stations_of
from greenmeasure.water.queries import audit_for

DAY = 24 * 60
EARLIEST, LATEST = 5 * 60, 21 * 60
"""When work by hand may begin and must be over [min], where daylight does not say (ours)."""
BETWEEN = 3
"""Minutes from one area of a site to the next, getting going included (ours)."""
MEASURING, FURTHER = 8, 4
"""Minutes for measuring out the first product of a mix, and each further one (ours)."""
CLEANING = 15
"""Minutes for rinsing a machine (ours)."""
WATERING = 20
"""Minutes of water where no audit tells how much falls (ours)."""
MOWING = 0.5
"""What the mowing of a day counts beside what is due: it is moved more easily (ours)."""
ROUNDED = 5
"""An outing begins at a time that is told in so many minutes (ours)."""


@dataclass(frozen=True)
class Refused:
    """What is due and may not go down that day, by the rule that is against it."""

    due: Due
    rule: Finding


@dataclass(frozen=True)
class Planned:
    """A day's outing: what is due, its jobs by their keys, the order, and what the gate keeps out.

    Minutes are counted from `midnight` (UTC) of the first site's day.
    """

    account: Account
    on: date
    midnight: datetime
    dues: Mapping[str, Due]
    jobs: Mapping[str, Gathered]
    morning: Morning
    order: Order
    refused: tuple[Refused, ...] = ()
    unsure: tuple[str, ...] = field(default=())

    def at(self, minute: int) -> datetime:
        return self.midnight + timedelta(minutes=minute)

    def due_of(self, job: str, ground: str) -> list[Due]:
        """What a job does for a ground, what sets its rate first."""
        return [self.dues[w.key] for w in self.jobs[job].of(ground)]


@dataclass(frozen=True)
class How:
    """How an outing is to go: how many people, from when on (now, or early in the morning, where None), the jobs put after each
    other by hand, by their keys, and what is to be done besides what is due, in minutes of the day on the first site's calendar.
    """

    people: int = 1
    begin: datetime | None = None
    order: tuple[str, ...] = ()
    more: tuple[Job, ...] = ()


ANYHOW = How()


def planned(account: Account, dues: Sequence[Due], on: date, how: How = ANYHOW) -> Planned:
    """A day's outing for everything that is due then.

    Args:
        account: whose.
        dues: what is to be done.
        on: the day, on the first site's calendar.
        how: how it is to go.
    """
    start = midnight(on, (dues[0].area.site if dues else account.home).zone).astimezone(UTC)
    first = max(EARLIEST if how.begin is None else 0, _minute(start, how.begin or clock.now()))
    gate = _Gate(account, on, frozenset().union(*(d.own for d in dues)))
    by_key, refused = {d.want.key: d for d in dues}, list[Refused]()
    for d in dues:
        if rule := gate.against(d):
            refused.append(Refused(d, rule))
            del by_key[d.want.key]
    while here := gate.one_ground({g.key: g for g in gathered([d.want for d in by_key.values()])}, by_key):
        refused.append(here)
        del by_key[here.due.want.key]
    while True:
        found = _put_in_order(gate, by_key, start, first, how)
        late = gate.late(found)
        if not late:
            return replace(found, refused=tuple(refused))
        refused += late
        for r in late:
            del by_key[r.due.want.key]


def _minute(start: datetime, at: datetime) -> int:
    return math.ceil((at - start).total_seconds() / 60 / ROUNDED) * ROUNDED


def _put_in_order(gate: "_Gate", dues: Mapping[str, Due], start: datetime, first: int, how: How) -> Planned:
    """The jobs of what is due, in order."""
    account, on = gate.account, gate.on
    groups = {g.key: g for g in gathered([d.want for d in dues.values()])}
    last, jobs, unsure = max(first, DAY), list(how.more), list[str]()
    for g in groups.values():
        jobs.append(_job(gate, g, dues, start, unsure))
    ground = {str(d.area.pk): d.area for d in dues.values()}
    jobs += [*_waters(account, on, start, jobs, ground), *_mown(account, on, start, first, ground.values())]
    never = tuple(gate.apart(groups, dues))
    morning = Morning(tuple(jobs), first, last, ways(account), how.people, never, how.order).driven()
    found = sequence(morning) if jobs else Order((), (), first, True)
    return Planned(account, on, start, dues, groups, morning, found, unsure=tuple(dict.fromkeys(unsure)))


def _job(gate: "_Gate", g: Gathered, dues: Mapping[str, Due], start: datetime, unsure: list[str]) -> Job:
    """A gathered job with how long it takes, and when it may be."""
    first = dues[g.wants[0].key]
    by_site: dict[str, list[Stop]] = {}
    for w in g.wants:
        due = dues[w.key]
        by_site.setdefault(w.site, []).append(Stop(w.ground, _minutes_on(due), _fit(gate, due, start, unsure)))
    legs = [leg for site, stops in by_site.items() for leg in apart(Leg(site, tuple(stops)), DAY)]
    life = min((h for p in first.mix if (h := p.card.core.rules.mixed_life) is not None), default=None)
    return Job(
        g.key,
        g.wants[0].doing,
        tuple(replace(leg, weight=sum(max(w.weight for w in g.of(s.ground)) for s in leg.stops)) for leg in legs),
        tuple(p.card.core for p in first.mix),
        g.wants[0].machine,
        MEASURING + FURTHER * (len(first.mix) - 1),
        CLEANING if g.wants[0].doing is Doing.SPRAY else 0,
        None if life is None else minutes(life),
        weight=g.weight,
    )


def _minutes_on(due: Due) -> int:
    """How long a ground takes: over it, its further fillings, and to the next."""
    size, m = due.area.size.base, due.machine
    fills = fills_of(size, m.output.base, m.capacity.base) if m and m.kind == "sprayer" and m.output else 1
    said = due.area.site.fill_minutes
    return BETWEEN + minutes(on_ground(size, *_walked(m)) + (FILLING if said is None else said / 60) * (fills - 1))


def _walked(m: Machine | None) -> tuple[float | None, float | None]:
    return (m.swath, m.pace) if m else (None, None)


def _fit(gate: "_Gate", due: Due, start: datetime, unsure: list[str]) -> tuple[Span, ...] | None:
    """When a mix may go down on a ground that day, by its hours; in the light of a usual day where no weather is known."""
    hours = hours_for(gate.account, due, gate.own)
    if hours is None:
        unsure.append(due.area.site.name)
        return ((EARLIEST, LATEST),)
    begin = round((hours.begin - start).total_seconds() / 60)
    return tuple(meet(spans_of((f <= Fit.UNKNOWN for f in hours.judged.fits), begin), [(0, DAY)]))


def hours_for(account: Account, due: Due, own: frozenset[str] = frozenset()) -> Hours | None:
    """The hours ahead judged for a mix on its ground; None where no weather is known that reaches to now. What is planned of it
    shuts none of them, nor what is its own outing's.
    """
    hour = clock.now().replace(minute=0, second=0, microsecond=0)
    besides = (due.own | own) & planned_near(account, due.area.pk)
    return _hours(account, due.area.pk, tuple(c.product.pk for c in due.picked), hour, besides)


READ = tuple(part for part in PARTS if part not in ("trials", "reckon"))
"""What an outing goes by: all that grows, lies, stands, was done and is meant."""


@kept(*READ)
def _hours(account: Account, area_id: int, product_ids: tuple[int, ...], hour: datetime, own: frozenset[str]) -> Hours | None:
    """The hours from one on: asked for by the picture, the day that is best, the order and what is left over."""
    area = areas(account)[area_id]
    station = stations_of(account).get(area.site_id)
    known = recent(station) if station else None
    if known is None or not known.reaches(hour):
        return None
    return outing(account, area, [cards(account)[pk] for pk in product_ids], known, hour, 1, own=own)


def _waters(account: Account, on: date, start: datetime, jobs: Iterable[Job], ground_of: Mapping[str, Area]) -> list[Job]:
    """The water that follows what is watered in, one run for each ground, outside of the hours that its site keeps free."""
    serves: dict[str, list[Job]] = {}
    for j in jobs:
        if any(p.rules.watered_in for p in j.products):
            for ground in j.grounds:
                serves.setdefault(ground, []).append(j)
    found = []
    for ground, mine in serves.items():
        area = ground_of[ground]
        quiet = _regular(account, area, "quiet", on, start)
        stop = Stop(ground, water_minutes(account, area, mine), tuple(_outside(quiet)) if quiet else None)
        leg = Leg(str(area.site_id), (stop,))
        found.append(Job(f"water+{ground}", Doing.WATER, (leg,), hands=False, serves=tuple(j.key for j in mine)))
    return found


def _mown(account: Account, on: date, start: datetime, first: int, ground: Iterable[Area]) -> Iterable[Job]:
    """The mowing that comes back on that day on the ground of an outing, at its own hours: what goes down keeps clear of it."""
    for area in ground:
        for begin, end in _regular(account, area, "mow", on, start):
            if begin >= first:
                leg = Leg(str(area.site_id), (Stop(str(area.pk), end - begin, ((begin, end),)),))
                yield Job(f"mow+{area.pk}+{begin}", Doing.MOW, (leg,), hands=False, weight=MOWING)


def _regular(account: Account, area: Area, kind: str, on: date, start: datetime) -> list[Span]:
    """When something is done on an area every week, on a day, in minutes from its beginning."""
    spans = Routine(account, area.site_id, area.pk).on(kind, area.site.zone, on)
    return [(round((a - start).total_seconds() / 60), round((b - start).total_seconds() / 60)) for a, b in spans]


def _outside(spans: Iterable[Span]) -> list[Span]:
    """The day less some spans of it."""
    left: list[Span] = [(0, DAY)]
    for a, b in spans:
        left = meet(left, [(0, a), (b, DAY)])
    return left


def water_minutes(account: Account, area: Area, jobs: Sequence[Job]) -> int:
    """How long the water runs: as the labels say, or by the audit of the area for their depth."""
    rules = [p.rules for j in jobs for p in j.products if p.rules.watered_in]
    said = max((r.water_in_minutes for r in rules if r.water_in_minutes), default=None)
    depth = max((r.water_in_depth for r in rules if r.water_in_depth), default=None)
    audit = audit_for(account, area.pk)
    if depth is not None and audit:
        return math.ceil(max(said or 0.0, run_for(audit.core(), depth).advised))
    return math.ceil(said or WATERING)


# --- the gate ---------------------------------------------------------------------------------------------------

FAR_APART = (time(0, 1), time(23, 58))
"""Two times of a day between which no hours of a label are in the way (ours)."""


@dataclass(frozen=True)
class _Gate:
    """The gate as an outing asks it: for a day, with what is planned of the outing itself out of the ledger."""

    account: Account
    on: date
    own: frozenset[str]
    known: dict[tuple[str, str], Finding | None] = field(default_factory=dict)

    def against(self, due: Due) -> Finding | None:
        """The rule that keeps a mix off its ground that day, whatever the hour and whatever else goes with the outing."""
        return next(iter(self._refusals(due, clock.moment_at(due.area, self.on))), None)

    def apart(self, groups: Mapping[str, Gathered], dues: Mapping[str, Due]) -> Iterable[Apart]:
        """What is kept off one ground on one day, in either order, however far apart in it."""
        for a, b in combinations(groups.values(), 2):
            if rules := self._clashes(a, b, dues):
                yield Apart(a.key, b.key, next(iter(rules.values())).sentence)

    def one_ground(self, groups: Mapping[str, Gathered], dues: Mapping[str, Due]) -> Refused | None:
        """What gives way to another job on one ground alone, both having other ground as well: the lighter of the two, of jobs
        that weigh the same there the one with less ground.
        """
        for a, b in combinations(groups.values(), 2):
            rules = self._clashes(a, b, dues)
            if rules and not len(rules) == len(a.wants) == len(b.wants):
                ground, rule = next(iter(rules.items()))
                gives = min((a, b), key=lambda x: (max(w.weight for w in x.of(ground)), len(x.wants)))
                return Refused(dues[gives.of(ground)[0].key], rule)
        return None

    def _clashes(self, a: Gathered, b: Gathered, dues: Mapping[str, Due]) -> dict[str, Finding]:
        """The rules that keep two jobs apart, by the grounds that both are for."""
        shared = sorted({w.ground for w in a.wants} & {w.ground for w in b.wants})
        return {g: r for g in shared if (r := self._clash(dues[a.of(g)[0].key], dues[b.of(g)[0].key]))}

    def late(self, found: Planned) -> list[Refused]:
        """What is refused at the hour at which it would be done, with what is done before it that day."""
        down: list[Applied] = []
        late: list[Refused] = []
        legs = {j.key: j.legs for j in found.morning.jobs}
        for t in found.order.legs:
            leg = legs[t.job][t.leg]
            for stop in leg.stops if t.job in found.jobs else ():
                span, due = leg.at(stop.ground), found.due_of(t.job, stop.ground)[0]
                at = found.at(t.begin + (span[0] if span else 0))
                if said := self._refusals(due, at, tuple(down), by_hour=True):
                    late.append(Refused(due, said[0]))
                else:
                    down += [_done(a, at) for _, a in due.meant(found.on)]
        return late

    def _clash(self, one: Due, other: Due) -> Finding | None:
        """The rule by which two mixes are kept apart on a ground that takes each alone."""
        pair = (one.want.key, other.want.key)
        if pair not in self.known:
            self.known[pair] = self._asked_of(one, other)
        return self.known[pair]

    def _asked_of(self, one: Due, other: Due) -> Finding | None:
        found: list[Finding] = []
        early, late = (datetime.combine(self.on, t, one.area.site.zone).astimezone(UTC) for t in FAR_APART)
        for first, then in ((one, other), (other, one)):
            found = self._refusals(then, late, tuple(_done(a, early) for _, a in first.meant(self.on)))
            if not found:
                return None
        return found[0]

    def _refusals(self, due: Due, at: datetime, more: tuple[Applied, ...] = (), by_hour: bool = False) -> list[Finding]:
        """What is refused of a mix on its ground at a time, with what else goes down that day."""
        found, meant, place = list[Finding](), due.meant(self.on), Place(due.area.pk)
        for part, mine in meant:
            card, job = part.card, tuple(replace(a, at=at) for p, a in meant if p is not part)
            bears = ledger(self.account, Asked(place, at, card.product.pk, part.target, job, self.own, more=more))
            if by_hour:
                bears = at_its_hour(bears, at, hour_of(self.account, due.area, card, at))
            plan = Plan(card.core, part.row, part.rate, replace(mine, at=at), card.label_rows, part.target)
            found += [f for f in check(plan, bears, self.account.us).findings if f.act is Weight.REFUSE]
        return found


def _done(a: Applied, at: datetime) -> Applied:
    """What a mix would put down, as it stands once it was done at a time: what comes after it that day goes by it."""
    return replace(a, at=at, standing=Standing.BOOKED)
