"""What an outing is asked for: what is still wanted, on which day most of it can go, and its plan; and which outings stand."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from functools import lru_cache
from zoneinfo import ZoneInfo

from django.db.models import Q

from core.errors import InputError
from core.weather.windows import Fit
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.outings.models import Outing, OutingStop
from greenmeasure.outings.morning import How, Planned, hours_for, planned
from greenmeasure.outings.repeat import all_of
from greenmeasure.outings.routes import every_route, goes_on, route_by_site
from greenmeasure.outings.schemas import OutingAskIn
from greenmeasure.outings.wants import Due, wants
from greenmeasure.outings.words import NOT_FOR_IT, other_days
from greenmeasure.rounds.models import Round, RoundPart

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
    mine = [scarce(d, on, fits.get(d.want.key)) for d in due_on(rest, on) if sites or _driven(account, d, on)]
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


def scarce(due: Due, on: date, days: set[date] | None) -> Due:
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
    """The days on which a mix has hours that are fit; all of those ahead where no weather is known."""
    hours = hours_for(account, due)
    if hours is None:
        return {clock.today(due.area) + timedelta(days=n) for n in range(AHEAD)}
    days = _days(hours.begin, len(hours.judged.fits), due.area.time_zone)
    found = Counter(on for on, fit in zip(days, hours.judged.fits.tolist(), strict=True) if fit <= Fit.UNKNOWN)
    return {on for on, n in found.items() if n >= LEAST}


@lru_cache(maxsize=64)
def _days(begin: datetime, count: int, zone: str) -> tuple[date, ...]:
    """The local day of each of so many hours."""
    return tuple((begin + timedelta(hours=i)).astimezone(ZoneInfo(zone)).date() for i in range(count))
