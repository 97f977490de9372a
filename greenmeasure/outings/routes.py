"""Routes that sites are driven to by, and how long it takes from one site to another."""

from collections.abc import Mapping
from datetime import date
from itertools import pairwise

from django.db import transaction

from core.errors import InputError
from core.outing.driving import minutes_between, shortest
from greenmeasure.accounts.models import Account, Site, sites_of
from greenmeasure.accounts.sites import site_of
from greenmeasure.common.errors import Faults
from greenmeasure.common.kept import kept
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import OptionOut
from greenmeasure.common.versions import claim
from greenmeasure.outings.models import Route, RouteSite, Way
from greenmeasure.outings.schemas import RouteIn, RouteLegOut, RouteOut, RoutesOut, WayIn
from greenmeasure.outings.words import leg_text, other_route, route_text
from greenmeasure.sky.weather import stations_of

DRIVING = 20
"""Minutes from one site to another, where nobody said and no station tells how far apart they are (ours)."""


# --- ways -------------------------------------------------------------------------------------------------------


@kept("outings")
def _said(account: Account) -> dict[tuple[int, int], int]:
    """What somebody said of the ways between sites [min], by the lower key and the higher."""
    return {(w.one_id, w.other_id): w.minutes for w in Way.objects.filter(account=account)}


def way(account: Account, one: int, other: int) -> int:
    """How long it takes from one site to another [min]: as somebody said, or by where their stations stand."""
    if one == other:
        return 0
    said = _said(account).get((min(one, other), max(one, other)))
    return _guessed(account, one, other) if said is None else said


def _guessed(account: Account, one: int, other: int) -> int:
    stations = stations_of(account)
    a, b = (
        (s.latitude, s.longitude) if (s := stations.get(site)) and s.latitude is not None and s.longitude is not None else None
        for site in (one, other)
    )
    return minutes_between(a, b) if a and b else DRIVING


@kept("outings", "sky")
def ways(account: Account) -> Mapping[tuple[str, str], int]:
    """How long it takes between all sites [min], by their keys as an order takes them."""
    sites = sites_of(account)
    return {(str(a), str(b)): way(account, a, b) for a in sites for b in sites if a != b}


def say_way(account: Account, data: WayIn) -> None:
    """Keep how long it takes between two sites; none takes it back. Raises InputError where they are one."""
    if data.one_id == data.other_id:
        raise InputError("other_id", data.other_id, "A site is no way from itself.", "Pick another site.")
    one, other = sorted((site_of(account, data.one_id), site_of(account, data.other_id)), key=lambda s: s.pk)
    with transaction.atomic():
        if data.minutes is None:
            Way.objects.filter(one=one, other=other).delete()
        else:
            Way.objects.update_or_create(one=one, other=other, defaults={"account": account, "minutes": data.minutes})
        account.touch("outings")


# --- routes -----------------------------------------------------------------------------------------------------


@kept("outings")
def every_route(account: Account) -> list[Route]:
    """The account's routes with their sites."""
    return list(Route.objects.of(account).kept().prefetch_related("stops"))


@kept("outings")
def route_by_site(account: Account) -> dict[int, Route]:
    """The route of each site that is on one."""
    return {s.site_id: r for r in every_route(account) for s in r.stops.all()}


def goes_on(route: Route | None, on: date) -> bool:
    """Whether a route is driven on a day; what is on none may be any day."""
    return route is None or not route.days or on.weekday() in route.days


def routes_out(account: Account) -> RoutesOut:
    """The routes, each in driving order, and the sites that are on none."""
    of = route_by_site(account)
    loose = [s for pk, s in sites_of(account).items() if pk not in of]
    return RoutesOut(
        routes=[route_out(account, r) for r in every_route(account)], loose=[OptionOut(key=str(s.pk), text=s.name) for s in loose]
    )


def route_out(account: Account, route: Route) -> RouteOut:
    """A route with its sites in driving order."""
    sites, said = sites_of(account), _said(account)
    mine = [str(s.site_id) for s in route.stops.all() if s.site_id in sites]
    order = [int(pk) for pk in shortest(mine, ways(account))]
    legs = [
        RouteLegOut(
            one_id=a,
            other_id=b,
            text=leg_text(sites[a].name, sites[b].name),
            minutes=way(account, a, b),
            said=(min(a, b), max(a, b)) in said,
        )
        for a, b in pairwise(order)
    ]
    return RouteOut(
        id=route.pk,
        version=route.version,
        name=route.name,
        days=route.days,
        site_ids=order,
        sites=[sites[pk].name for pk in order],
        text=route_text(route.days, len(order), sum(x.minutes for x in legs)),
        legs=legs,
    )


def save_route(account: Account, data: RouteIn, route: Route | None = None) -> Route:
    """Add a route, or change one.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    made = route or Route(account=account)
    name = faults.of(free_name, Route, account, data.name, made.pk)
    sites: list[Site] = []
    for i, pk in enumerate(dict.fromkeys(data.site_ids)):
        site = sites_of(account).get(pk)
        taken = route_by_site(account).get(pk)
        if site is None:
            faults.add(f"site_ids.{i}", pk, "There is no such site.", "Pick one of the list.")
        elif taken and taken.pk != made.pk:
            faults.add("site_ids", site.name, other_route(site.name, taken.name), "Take it off that route first.")
        else:
            sites.append(site)
    if not data.site_ids:
        faults.add("site_ids", "", "A route without a site leads nowhere.", "Pick its sites.")
    faults.raise_any()
    made.name, made.days = name or "", sorted(set(data.days))
    with claim(route, data.version):
        made.save()
        made.stops.exclude(site__in=sites).delete()
        kept_already = set(made.stops.values_list("site_id", flat=True))
        RouteSite.objects.bulk_create(RouteSite(route=made, site=s) for s in sites if s.pk not in kept_already)
        account.touch("outings")
    return fresh_route(account, made.pk)


def fresh_route(account: Account, pk: int) -> Route:
    """A route as it stands in the database now. Raises Missing."""
    return Route.objects.one(account, pk)


def put_route_away(route: Route) -> None:
    """Put a route away: its sites are free for another."""
    with transaction.atomic():
        route.stops.all().delete()
        route.archive()
