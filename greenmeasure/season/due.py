"""What is due: every area and disease held against its threshold and its cover, and the regulators whose hold runs out."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import date, datetime, timedelta

from core.ground import Ground
from core.label.match import lists
from core.label.product import Kind
from core.label.targets import DISEASE
from core.ledger.history import Place
from core.ledger.ledger import Ledger
from core.readable import foot_of
from core.season.choose import Draft, Pick, Wanted, choices, drafts, first_choice
from core.season.cover import Cover, covered_days
from core.season.due import Due, Outlook, State, due
from core.weather.windows import Reason
from greenmeasure.accounts.models import Account, Site, sites_of
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.ledger.past import Asked, ledger
from greenmeasure.scouting.queries import standing
from greenmeasure.season.schemas import StateName
from greenmeasure.shelf.queries import Card, cards
from greenmeasure.sky.clocks import all_clocks
from greenmeasure.sky.outing import at_its_hour, hour_of
from greenmeasure.sky.schemas import ClockOut
from greenmeasure.sky.schools import candidates
from greenmeasure.sky.watching import Watched, all_watched, covers_of, outlook_of, reaching
from greenmeasure.sky.weather import Known, known_at, known_of

GRAVE = {State.LATE: 0, State.DUE: 1, State.COMING: 2}
SEEN = timedelta(days=14)


@dataclass(frozen=True)
class Proposal:
    """A disease on an area with what is due of it, by the weather of its site; `zones` are parts on which it was seen."""

    known: Known
    watched: Watched
    due: Due
    outlook: Outlook
    covers: list[Cover]
    zones: tuple[Area, ...] = field(default=())

    @property
    def area(self) -> Area:
        return self.watched.area

    @property
    def disease(self) -> str:
        return self.watched.disease

    @property
    def key(self) -> str:
        return f"{self.area.pk}-{self.disease}"


@dataclass(frozen=True)
class Seen:
    """When diseases were last seen, by area and disease, within the last fortnight."""

    by_pk: dict[int, dict[str, date]]

    def on(self, area: Area, disease: str) -> date | None:
        return self.by_pk.get(area.pk, {}).get(disease)


def seen_of(account: Account, today: date) -> Seen:
    """When diseases were last seen on the account's areas."""
    found: dict[int, dict[str, date]] = {}
    for s in reversed(standing(account)):
        if s.kind != DISEASE or not today - SEEN <= s.on <= today:
            continue
        if s.seen:
            found.setdefault(s.area_id, {})[s.what] = s.on
        else:
            found.get(s.area_id, {}).pop(s.what, None)
    return Seen(found)


@dataclass(frozen=True)
class Standing:
    """Every proposal of an account with what could not be told."""

    proposals: list[Proposal]
    unknown: list[Proposal]


def proposals(account: Account) -> Standing:
    """Every area that is no part of another, and every disease it is watched for, that calls for an application."""
    found, unknown = [], []
    whole_book(account)
    for site in sites_of(account).values():
        today, known = clock.today(site), known_of(account, site.pk)
        if known is None or not 0 <= known.day_at(today) < len(known.weather.days):
            continue
        for p in _at_site(account, site, known, today):
            if p.due.state.acts:
                found.append(p)
            elif p.due.state is State.UNKNOWN:
                unknown.append(p)
    return Standing(sorted(found, key=_turn), unknown)


def _at_site(account: Account, site: Site, known: Known, today: date) -> Iterable[Proposal]:
    """Where every disease stands on every area of a site that is no part of another."""
    seen, parts = seen_of(account, today), _parts(account)
    bare: dict[tuple[str, float], Due] = {}  # by model and threshold: what is due where nothing covers and nothing was seen
    for area_id, watches in all_watched(account).items():
        if area_id in parts.child or areas(account)[area_id].site_id != site.pk:
            continue
        past, own = reaching(history(account, area_id), known.weather.days.first), parts.of.get(area_id, ())
        looked = {d for a in (area_id, *(z.pk for z in own)) for d in seen.by_pk.get(a, ())}
        for w in watches:
            key = (w.model.key, w.threshold.value)
            outlook = outlook_of(w, known, today)
            covers = covers_of(account, past, w.disease, outlook)
            if covers or w.disease in looked:
                yield propose(w, known, outlook, seen, own, covers)
            else:
                if key not in bare:
                    bare[key] = due(outlook, [])
                yield Proposal(known, w, bare[key], outlook, [])


def _turn(p: Proposal) -> tuple[int, date, int, str]:
    return (GRAVE[p.due.state], p.due.by or date.max, -p.due.exposed, p.area.name)


@dataclass(frozen=True)
class Parts:
    """Which kept areas are parts, and whose."""

    of: dict[int, tuple[Area, ...]]
    child: set[int]


def _parts(account: Account) -> Parts:
    kept = {pk: a for pk, a in areas(account).items() if a.archived_at is None}
    found: dict[int, tuple[Area, ...]] = {}
    for a in kept.values():
        if a.parent_id in kept:
            assert a.parent_id is not None
            found[a.parent_id] = (*found.get(a.parent_id, ()), a)
    return Parts(found, {a.pk for group in found.values() for a in group})


def propose(w: Watched, known: Known, outlook: Outlook, seen: Seen, parts: Iterable[Area], covers: list[Cover]) -> Proposal:
    """Where one disease stands on one area; `parts` are the parts of it, `covers` what has gone down against it."""
    zones = tuple(a for a in parts if seen.on(a, w.disease))
    latest = max([d for a in (w.area, *zones) if (d := seen.on(a, w.disease))], default=None)
    zones = () if seen.on(w.area, w.disease) else zones
    return Proposal(known, w, due(outlook, covers, latest), outlook, covers, zones)


def proposal_of(account: Account, area_id: int, disease: str) -> Proposal | None:
    """One proposal, whatever its state; None where the area is not watched for it or there is no weather."""
    w = next((w for w in all_watched(account).get(area_id, []) if w.disease == disease), None)
    known = known_at(w.area.site) if w else None
    if w is None or known is None:
        return None
    today = clock.today(w.area)
    if not 0 <= known.day_at(today) < len(known.weather.days):
        return None
    outlook = outlook_of(w, known, today)
    parts = _parts(account).of.get(area_id, ())
    covers = covers_of(account, history(account, area_id), disease, outlook)
    return propose(w, known, outlook, seen_of(account, today), parts, covers)


def _wanted(p: Proposal, on: date) -> Wanted:
    """What a proposal asks of the shelf; where parts of the area have the disease, the rest of it is treated preventively."""
    return Wanted(p.disease, p.area.ground, on, p.due.curative and not p.zones, clock.moment_at(p.area, on))


def choices_of(account: Account, p: Proposal, on: date) -> list[Pick]:
    """The shelf against a proposal."""
    return _choices(account, _wanted(p, on), p.area, shelf_of(account))


def first_choice_of(account: Account, p: Proposal, on: date) -> Pick | None:
    """The first of the shelf that may go down against a proposal; None where none may."""
    wanted = _wanted(p, on)
    return first_choice(wanted, drafts_of(account, p, on), _bears(account, wanted, p.area), account.us)


def drafts_of(account: Account, p: Proposal, on: date) -> list[Draft]:
    """What of the shelf lists a proposal's disease, by which row and at which rate, whatever went down before."""
    wanted, ground = _wanted(p, on), p.area.ground
    like = Ground("", foot_of(account.us), ground.grass, ground.blend, height=ground.height, use=ground.use)
    return _drafts(account, p.area.site_id, wanted.disease, wanted.curative, like)


@kept("shelf", "stock")
def _drafts(account: Account, site_id: int, disease: str, curative: bool, like: Ground) -> list[Draft]:
    """What of the shelf could go down against a disease on ground of this kind, whatever its size and its past."""
    wanted, house = Wanted(disease, like, date.min, curative), sites_of(account)[site_id].house_rules
    return drafts(wanted, candidates(account, shelf_of(account)), house, account.us)


def _choices(account: Account, wanted: Wanted, area: Area, shelf: list[Card], hour: tuple[Reason, ...] = ()) -> list[Pick]:
    """Cards against a disease on an area, each held against its ledger; `hour` is what the plan's hour says, where it has one."""
    return choices(wanted, candidates(account, shelf), _bears(account, wanted, area, hour), account.us)


def _bears(account: Account, wanted: Wanted, area: Area, hour: tuple[Reason, ...] = ()) -> Ledger:
    """What bears on a plan against a disease on an area."""
    at = wanted.at or clock.moment_at(area, wanted.on)
    return at_its_hour(ledger(account, Asked(Place(area.pk), at, target=wanted.disease)), at, hour)


def choice_at(account: Account, area: Area, disease: str, card: Card, at: datetime) -> Pick | None:
    """A product against a disease on an area at a time; None where its label does not list it."""
    p = proposal_of(account, area.pk, disease)
    curative = p is not None and p.due.curative and not p.zones
    wanted = Wanted(disease, area.ground, clock.local_day(area, at), curative, at)
    return next(iter(_choices(account, wanted, area, [card], hour_of(account, area, card, at))), None)


def zone_choice(account: Account, p: Proposal, zone: Area, product: int | None, on: date) -> Pick | None:
    """How a product would go down on a part of the area on which the disease was seen."""
    card = next((c for c in shelf_of(account) if c.product.pk == product), None)
    if card is None:
        return None
    found = _choices(account, Wanted(p.disease, zone.ground, on, True, clock.moment_at(zone, on)), zone, [card])
    return next((c for c in found if c.allowed), None)


def shelf_of(account: Account) -> list[Card]:
    """The cards of products that are kept."""
    return [c for c in cards(account).values() if c.product.archived_at is None]


@kept("shelf")
def listed_somewhere(account: Account, disease: str) -> bool:
    """Whether any product on the shelf lists a disease."""
    return any(lists(row, disease) for c in shelf_of(account) if c.core.is_a(Kind.FUNGICIDE) for row in c.label_rows)


def exposed_between(p: Proposal, begin: datetime, end: datetime) -> int:
    """Unprotected risk days from one time to another, the second day not among them."""
    a, b = ((clock.local_day(p.area, t) - p.outlook.first).days for t in (begin, end))
    bare = p.outlook.risky & ~covered_days(p.covers, p.outlook.first, len(p.outlook.values))
    return int(bare[max(0, a) : max(0, b)].sum())


# --- regulators -------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Again:
    """A regulator that runs out on an area: its clock, its card, by when it is due again, and how that stands."""

    area: Area
    card: Card
    clock: ClockOut
    on: date | None
    state: StateName


def regulators_due(account: Account) -> list[Again]:
    """Regulators whose hold runs out, by the school of the house."""
    by_heat, found = account.house_rules.of("regulator_again") == "degree_days", []
    shelf = {c.product.pk: c for c in shelf_of(account)}
    for c in all_clocks(account):
        area, card = areas(account)[c.area_id], shelf.get(c.product_id or 0)
        on, state = _again(c, by_heat, clock.today(area))
        if state and card:
            found.append(Again(area, card, c, on, state))
    return found


def _again(c: ClockOut, by_heat: bool, today: date) -> tuple[date | None, StateName | None]:
    """When a regulator is due again by the house's school: its day and its state; none while it is far off."""
    if by_heat and c.share is not None and not c.lacks:
        if c.stage in ("ended", "rebound"):
            return today, "late"
        if c.stage == "due":
            return today, "due"
        return (c.due, "coming") if c.due and (c.due - today).days <= 7 else (None, None)
    first, last = c.calendar_first, c.calendar_last
    if c.stage == "gone" or first is None:
        return None, None
    if last and today > last:
        return today, "late"
    if today >= first:
        return last or today, "due"
    return (first, "coming") if (first - today).days <= 7 else (None, None)
