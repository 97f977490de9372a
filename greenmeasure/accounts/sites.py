"""An account's sites: reading them, adding, changing and putting them away."""

from calendar import monthrange

from core.errors import InputError
from core.zones import zone
from greenmeasure.accounts.models import Account, Membership, Site, sites_of
from greenmeasure.accounts.schemas import ClosedIn, DayOut, SiteIn, SiteOut
from greenmeasure.common.errors import Conflict, Faults, Missing
from greenmeasure.common.names import free_name
from greenmeasure.common.versions import claim

CLOSED = ("N", "P2O5")
"""What a by-law may close."""


def site_of(account: Account, site_id: int | None = None) -> Site:
    """A site that is seen; the first of them where none is named.

    Raises:
        Missing: no such site here, or not one that this member sees.
    """
    if site_id is None:
        return account.home
    try:
        return sites_of(account)[site_id]
    except KeyError:
        raise Missing("site") from None


def fresh_site(account: Account, site_id: int) -> Site:
    """A site as it stands in the database now, to be changed. Raises Missing."""
    return account.sites.get(pk=site_of(account, site_id).pk)


def site_out(site: Site) -> SiteOut:
    """A site as it is shown and typed."""
    return SiteOut(
        id=site.pk,
        version=site.version,
        name=site.name,
        address=site.address,
        contact=site.contact,
        gate=site.gate,
        agreed=site.agreed,
        tell=site.tell,
        water=site.water,
        fill_minutes=site.fill_minutes,
        time_zone=site.time_zone,
        closed=[
            ClosedIn(
                what=c.what, start=DayOut(month=c.start[0], day=c.start[1]), end=DayOut(month=c.end[0], day=c.end[1]), why=c.why
            )
            for c in site.house_rules.closed
        ],
        areas=site.areas.filter(archived_at=None).count(),
    )


def save_site(account: Account, data: SiteIn, site: Site | None = None) -> Site:
    """Add a site, or change one.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    made = site or Site(account=account)
    name = faults.of(free_name, Site, account, data.name, made.pk)
    faults.of(zone, data.time_zone)
    closed = []
    for i, c in enumerate(data.closed):
        if c.what not in CLOSED:
            faults.add(f"closed.{i}.what", c.what, f"“{c.what}” is not closed anywhere.", "Pick N or P₂O₅.")
        first, last = (faults.of(day_in, f"closed.{i}.{n}", getattr(c, n)) for n in ("start", "end"))
        closed.append({"what": c.what, "start": first, "end": last, "why": c.why})
    faults.raise_any()
    made.name, made.time_zone, made.closed = name or "", data.time_zone, closed
    made.address, made.contact, made.gate, made.agreed, made.tell = data.address, data.contact, data.gate, data.agreed, data.tell
    made.water, made.fill_minutes = data.water, data.fill_minutes
    with claim(site, data.version):
        made.save()
    return made


def day_in(field: str, given: DayOut) -> list[int]:
    """A day of any year as it is stored, month and day. Raises InputError."""
    if not 1 <= given.month <= 12 or not 1 <= given.day <= monthrange(2001, given.month)[1]:
        raise InputError(field, f"{given.month}/{given.day}", f"There is no day {given.day} of month {given.month}.", "Pick one.")
    return [given.month, given.day]


def put_site_away(site: Site) -> None:
    """Put a site away; its areas must have gone first.

    Raises:
        Conflict: areas lie on it, it is the only one, or somebody is limited to it.
    """
    if site.areas.filter(archived_at=None).exists():
        raise Conflict(f"Areas lie on {site.name}. Remove them, or move them to another site, first.")
    if len(sites_of(site.account)) == 1:
        raise Conflict(f"{site.name} is the only site; an account has one at least.")
    limited = Membership.objects.filter(sites=site).select_related("user").first()
    if limited:
        raise Conflict(f"{limited.user} is limited to {site.name}. Change that first.")
    site.archive()
