"""The due list as it is shown: each proposal with its product, its next hours, and what was planned of it."""

from datetime import date, datetime
from typing import cast

from core.errors import InputError
from core.ground import Stress
from core.label.targets import find_target, includes
from core.season.choose import Pick
from core.season.standing import Stand
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.book.queries import applications
from greenmeasure.common import clock
from greenmeasure.common.findings import finding_out
from greenmeasure.common.kept import kept
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import kin, site_name
from greenmeasure.kit.queries import machines, taken_by
from greenmeasure.ledger.booked import history
from greenmeasure.ledger.meant import mixed, named
from greenmeasure.programme.queries import acting, placed, turn_out
from greenmeasure.programme.words import NO_PRODUCT
from greenmeasure.rounds.models import Round, RoundPart
from greenmeasure.season.due import (
    Proposal,
    choices_of,
    exposed_between,
    first_choice_of,
    listed_somewhere,
    proposal_of,
    proposals,
    regulators_due,
    zone_choice,
)
from greenmeasure.season.models import Planned
from greenmeasure.season.schemas import (
    DueChoiceOut,
    DueLineOut,
    DueOut,
    DueWholeOut,
    DueWindowOut,
    MachinePickOut,
    PlannedOut,
    StateName,
)
from greenmeasure.season.words import (
    NONE_FIT,
    STATES,
    STATES_OF_STEPS,
    TOO_FAR,
    again_title,
    by_text,
    due_sentence,
    fresh_of,
    from_text,
    missed_text,
    name_of,
    on_area,
    on_areas,
    stressed,
    zone_text,
)
from greenmeasure.shelf.queries import Card, cards
from greenmeasure.sky.outing import outing
from greenmeasure.sky.schemas import FreshOut, VerdictName
from greenmeasure.sky.weather import Known, known_at, recent, station_of
from greenmeasure.sky.words import fresh_out, span_text

WHOLE = 12
"""How many lines are told with their product and their window; the rest are told when they are opened."""
JOB_HOURS = 1
ORDER = ("late", "due", "coming")


def due_list(account: Account, whole: int = WHOLE) -> DueOut:
    """What is due in an account."""
    fresh = _freshness(account)
    standing = proposals(account)
    listed = [p for p in standing.proposals if listed_somewhere(account, p.disease)]
    shown = listed[:whole]
    lines = [line_out(account, p) for p in shown]
    meant = _steps(account, whole)
    again = {(x.area_id, x.product_id) for x in meant}
    lines += [x for x in _regulators(account) if (x.area_id, x.product_id) not in again] + meant
    lines.sort(key=lambda x: ORDER.index(x.state))
    told = {p.key for p in listed}
    without = on_areas([p for p in standing.proposals if p.key not in told])
    return DueOut(
        sentence=due_sentence(lines, len(listed) - len(shown), fresh.state),
        fresh=fresh,
        lines=lines,
        more=len(listed) - len(shown),
        without=without,
        unknown=on_areas(standing.unknown),
    )


def _freshness(account: Account) -> FreshOut:
    """How fresh the weather is; of several sites with ground, the one that is worst off, by its name."""
    every = []
    sites = list(sites_of(account).values())
    with_ground = set(account.areas.filter(archived_at=None).values_list("site_id", flat=True))
    for site in [s for s in sites if s.pk in with_ground] or sites[:1]:
        station = station_of(site)
        said = fresh_out(station, recent(station) if station else None, clock.now())
        every.append((("none", "stale", "fresh").index(said.state), site, said))
    worst = min(every, key=lambda e: e[0])
    if len(every) == 1:
        return worst[2]
    return fresh_of(worst[1].name, worst[2])


# --- one line ---------------------------------------------------------------------------------------------------


def line_out(account: Account, p: Proposal, choice: Pick | None = None) -> DueLineOut:
    """A proposal with the first product that may go down, and its next hours."""
    today, now = clock.today(p.area), clock.now()
    pick = choice or first_choice_of(account, p, today)
    card = _card(account, pick) if pick else None
    window = window_out(account, p.area, card, p.known, now) if card else None
    return DueLineOut(
        key=p.key,
        kind="disease",
        area_id=p.area.pk,
        area=p.area.name,
        site=site_name(account, p.area),
        disease=p.disease,
        title=f"{name_of(p.disease)} on {p.area.name}",
        state=cast(StateName, p.due.state.value),
        state_text=STATES[p.due.state],
        by=p.due.by,
        by_text=by_text(p.due.by, today),
        why=p.due.why,
        delay=p.due.delay,
        curative=p.due.curative and not p.zones,
        product_id=card.product.pk if card else None,
        product=card.product.name if card else "",
        rate=str(pick.rate) if pick else "",
        amount=str(pick.amount) if pick and pick.amount else "",
        cost=_cost(account, pick),
        zones=_zones(account, p, pick, today),
        window=window,
        planned=_planned(account, p, window, now),
        round_id=_under_way(account, p.area.pk, p.disease),
    )


def _card(account: Account, pick: Pick) -> Card | None:
    return cards(account).get(pick.candidate.product.id or 0)


def _cost(account: Account, pick: Pick | None) -> str:
    return f"{pick.cost:,.2f} {account.currency}" if pick and pick.cost is not None else ""


def _zones(account: Account, p: Proposal, pick: Pick | None, on: date) -> list[str]:
    """What differs within the area: a higher rate where the disease was seen."""
    return [
        zone_text(zone.name, zone_choice(account, p, zone, pick.candidate.product.id, on) if pick else None, pick)
        for zone in p.zones
    ]


def window_out(account: Account, area: Area, card: Card, known: Known, now: datetime) -> DueWindowOut:
    """The next hours fit for a product on an area."""
    if not known.reaches(now):
        return DueWindowOut(verdict="no", begin=None, end=None, text=TOO_FAR, good=False)
    out = outing(account, area, [card], known, now, JOB_HOURS)
    best = out.windows[0] if out.windows else None
    if best is None:
        text = out.needs.contradictions[0] if out.needs.contradictions else NONE_FIT
        return DueWindowOut(verdict="no", begin=None, end=None, text=text, good=False)
    begin, end = out.at(best.start), out.at(best.start + best.hours)
    verdict: VerdictName = "wait" if best.start else "go" if best.all_good else "mind"
    return DueWindowOut(verdict=verdict, begin=begin, end=end, text=span_text(begin, end, known.station.zone), good=best.all_good)


def _planned(account: Account, p: Proposal, window: DueWindowOut | None, now: datetime) -> PlannedOut | None:
    """The window that was picked last, and whether it has passed with nothing put down."""
    found = planned_of(account).get((p.area.pk, p.disease))
    if found is None or any(
        a.product_id == found.product_id and a.at and a.at >= found.made_at for a in history(account, p.area.pk)
    ):
        return None
    missed = found.end <= now
    lost = exposed_between(p, found.begin, window.begin if window and window.begin else now) if missed else 0
    return PlannedOut(
        id=found.pk,
        text=span_text(found.begin, found.end, p.area.site.zone),
        product=found.product.name,
        by=found.by,
        missed=missed,
        cost=missed_text(lost) if missed else "",
    )


def _under_way(account: Account, area_id: int, disease: str) -> int | None:
    """A round under way on the area against the disease."""
    here = set(kin(account, area_id))
    for on, round_id, targets in targets_under_way(account):
        if on in here and any(includes(target, disease) for target in targets):
            return round_id
    return None


@kept("rounds")
def targets_under_way(account: Account) -> list[tuple[int, int, tuple[str, ...]]]:
    """Each area of each round under way: the area, the round, and what its mix is against, by keys."""
    parts = RoundPart.objects.filter(round__account=account, round__status=Round.Status.UNDER_WAY)
    return [
        (part.area_id, part.round_id, tuple(t.key for c in part.round.mix.all() if (t := find_target(c.target))))
        for part in parts.select_related("round").prefetch_related("round__mix")
    ]


@kept("season", "shelf")
def planned_of(account: Account) -> dict[tuple[int, str], Planned]:
    """The window that stands planned, by its area and disease."""
    every = Planned.objects.filter(account=account, dropped_at=None).select_related("product")
    return {(x.area_id, x.disease): x for x in reversed(every)}


# --- regulators -------------------------------------------------------------------------------------------------


def _regulators(account: Account) -> list[DueLineOut]:
    """Regulators whose hold runs out, by the school of the house."""
    found = []
    for r in regulators_due(account):
        c, card, area, state = r.clock, r.card, r.area, r.state
        today = clock.today(area)
        ground, window, why = area.ground, None, c.sentence
        if ground.stress is not Stress.NONE:
            why = f"{why} {stressed(ground.name, ground.stress)}"
        elif known := known_at(area.site):
            window = window_out(account, area, card, known, clock.now())
        found.append(
            DueLineOut(
                key=f"{c.area_id}-regulator-{card.product.pk}",
                kind="regulator",
                area_id=c.area_id,
                area=c.area,
                site=site_name(account, area),
                disease="growth",
                title=again_title(c.product, c.area),
                state=state,
                state_text={"late": "late", "due": "due"}.get(state, "coming"),
                by=r.on,
                by_text=by_text(r.on, today),
                why=why,
                delay="",
                curative=False,
                product_id=card.product.pk,
                product=c.product,
                rate="",
                amount="",
                cost="",
                zones=[],
                window=window,
                planned=None,
                round_id=_under_way(account, c.area_id, "growth"),
            )
        )
    return found


# --- steps of the programme -------------------------------------------------------------------------------------


def _steps(account: Account, most: int) -> list[DueLineOut]:
    """The turns of the programme that ask for something, the gravest first; each with the hours fit for it."""
    found = []
    for p in acting(placed(account, clock.today(account).year))[:most]:
        part = next((x for x in p.step.products.all() if not x.instead), None)
        card = cards(account).get(part.product_id) if part else None
        told = next((b for b in mixed(account, p.step, p.area) if b.part == part), None)
        known = known_at(p.area.site) if card else None
        today, turn = clock.today(p.area), p.standing.turn
        by = turn.begin if p.stand is Stand.COMING else turn.end
        against = turn_out(account, p).refused
        found.append(
            DueLineOut(
                key=named(p.step, p.area, turn.number),
                kind="step",
                area_id=p.area.pk,
                area=p.area.name,
                site=site_name(account, p.area),
                disease="",
                title=on_area(p.step.name, p.area.name),
                state=cast(StateName, p.stand.value),
                state_text=STATES_OF_STEPS[p.stand],
                by=by,
                by_text=by_text(by, today) if p.stand is not Stand.COMING else from_text(turn.begin),
                why=against[0].sentence if against else turn.why,
                delay="",
                curative=False,
                product_id=card.product.pk if card else None,
                product=card.product.name if card else NO_PRODUCT,
                rate=str(told.rate) if told else "",
                amount=str(told.amount) if told else "",
                cost="",
                zones=[],
                window=window_out(account, p.area, card, known, clock.now()) if card and known and not against else None,
                planned=None,
                round_id=None,
            )
        )
    return found


# --- one due thing whole ----------------------------------------------------------------------------------------


def due_whole(account: Account, area_id: int, disease: str) -> DueWholeOut:
    """One due thing with every product that lists it.

    Raises:
        InputError: the area is not watched for it, or it calls for nothing now.
    """
    found = proposal_of(account, area_id, disease)
    if found is None:
        raise InputError("disease", disease, "The area is not watched for that, or there is no weather.", "Look at the sky.")
    p = found
    if not p.due.state.acts:
        raise InputError("disease", disease, f"Nothing is due against {name_of(disease).lower()} here. {p.due.why}", "")
    now = clock.now()
    every = choices_of(account, p, clock.today(p.area))
    first = next((c for c in every if c.allowed), None)
    return DueWholeOut(
        fresh=fresh_out(p.known.station, p.known, now),
        line=line_out(account, p, first),
        covers=[c.sentence for c in p.covers[-3:]],
        choices=[_choice_out(account, p, c, now) for c in every],
        machines=machine_picks(account, area_id, first),
    )


def _choice_out(account: Account, p: Proposal, c: Pick, now: datetime) -> DueChoiceOut:
    card = _card(account, c)
    assert card
    return DueChoiceOut(
        product_id=card.product.pk,
        product=card.product.name,
        codes=" + ".join(c.candidate.product.codes),
        row_id=list(card.rows)[c.index],
        use=c.row.use,
        intent=c.intent.text,
        rate=str(c.rate),
        amount=str(c.amount) if c.amount else "",
        cost=_cost(account, c),
        allowed=c.allowed,
        why=list(c.why),
        warns=[finding_out(f) for f in c.warns],
        refused=[finding_out(f) for f in c.refused],
        window=window_out(account, p.area, card, p.known, now) if c.allowed else None,
    )


def machine_picks(account: Account, area_id: int, choice: Pick | None) -> list[MachinePickOut]:
    """The machines that can put it down, the one used last on this area first."""
    wanted = choice.candidate.product.id if choice else None
    kept = [m for m in machines(account).values() if m.archived_at is None]
    fitting = [m for m in kept if wanted is None or wanted in taken_by(account, m)]
    last = applications(account).filter(area_id__in=kin(account, area_id), machine_id__in=[m.pk for m in fitting]).first()
    fitting.sort(key=lambda m: (m.pk != (last.machine_id if last else None), m.name))
    return [MachinePickOut(id=m.pk, name=m.name, suggested=i == 0) for i, m in enumerate(fitting)]
