"""The programme of a year as it is shown: how each turn stands, what the gate says of it, and what the year brings and costs."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from decimal import Decimal
from typing import Any

import numpy as np

from core.disease.hosts import HOSTS
from core.errors import InputError
from core.findings import Finding, Weight
from core.growth.potential import of_sward
from core.label.rate import Basis
from core.label.targets import TARGETS
from core.ledger.gate import Plan, check
from core.ledger.history import Applied, Place
from core.ledger.history import Standing as BookStanding
from core.rates.cost import cost
from core.rates.nutrients import season_range
from core.readable import foot_of
from core.season.expected import Spell
from core.season.outlines import OUTLINES, fits
from core.season.standing import Kept, Stand, Standing, standings
from core.season.steps import Around, Timing, Warm
from core.units import show_number
from core.weather.soil import of_days
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.common import clock
from greenmeasure.common.errors import Missing
from greenmeasure.common.findings import finding_out
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import FactOut, OptionOut, quantity_out, rate_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas, site_name
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.ledger.meant import OVERSEED, Brought, by_area, down, lines, mixed, named, steps
from greenmeasure.ledger.past import Asked, ledger
from greenmeasure.programme.models import Event, Step, StepProduct
from greenmeasure.programme.money import money_of
from greenmeasure.programme.schemas import (
    AreaYearOut,
    GivenOut,
    MeantStepOut,
    ProgrammeOut,
    SeasonOutlineOut,
    StepEventOut,
    StepOptionsOut,
    StepProductOut,
    TotalOut,
    TurnAskIn,
    TurnOut,
    WhenOut,
)
from greenmeasure.programme.words import (
    NO_PRODUCT,
    OVERSEEDING,
    STANDS,
    day_text,
    differs_text,
    outings_text,
    sentence,
    total_text,
    uses_text,
    when_text,
    where_text,
)
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.watching import all_watched, spells_of
from greenmeasure.sky.weather import stations_of, whole

YEARS = 12
"""Years of weather before that are looked back on (ours)."""


@dataclass(frozen=True)
class Placed:
    """A turn of a step on an area, with how it stands."""

    step: Step
    area: Area
    standing: Standing

    @property
    def stand(self) -> Stand:
        return self.standing.stand


# --- the weather that steps go by -------------------------------------------------------------------------------


@kept("sky")
def _days(account: Account, site_id: int) -> Warm | None:
    """All days known of a site, with the forecast in them; its last one stands for today. None where nothing is known."""
    station = stations_of(account).get(site_id)
    known = whole(station) if station else None
    if known is None:
        return None
    days = known.weather.days
    return Warm(days.first, days.air, of_days(days), days.first + timedelta(days=len(days) - 1), days.snow)


@kept("sky")
def _years(account: Account, site_id: int) -> tuple[Warm, ...]:
    """The years of a site's weather, the oldest first, each from its first day of January on."""
    every, found = _days(account, site_id), []
    if every is None:
        return ()
    for year in range(max(every.first.year, every.today.year - YEARS), every.today.year + 1):
        a = max(0, (date(year, 1, 1) - every.first).days)
        b = (date(year + 1, 1, 1) - every.first).days
        first = every.first + timedelta(days=a)
        found.append(replace(every, first=first, air=every.air[a:b], soil=every.soil[a:b], snow=every.snow[a:b]))
    return tuple(found)


def _warm(account: Account, area: Area, today: date) -> Warm | None:
    """What is known of an area's days, with the forecast in them."""
    every = _days(account, area.site_id)
    return replace(every, today=today) if every else None


def _around(account: Account, area: Area, year: int) -> Around:
    """The weather of the years before a year on an area; incomplete first years are left out."""
    usual = [w for w in _years(account, area.site_id) if w.first.year < year and w.first == date(w.first.year, 1, 1)]
    return Around(usual=usual, us=account.us)


def _risky(account: Account, area: Area) -> dict[str, Spell]:
    """The risk days of what an area is watched for, by disease: every model over all that is known, so only where it is asked."""
    spells = spells_of(account, area.site_id)
    watched = all_watched(account).get(area.pk, [])
    return {w.disease: s for w in watched if (s := spells.get((w.model.key, w.threshold.value)))}


# --- turns ------------------------------------------------------------------------------------------------------


def placed(account: Account, year: int) -> list[Placed]:
    """The turns of a year's steps on every area that they are for."""
    every = [s for s in steps(account) if s.year == year]
    if not every:
        return []
    whole_book(account)
    timings = {when.timing for s in every if (when := s.timing)}
    asks_weather = any(timing.by_weather for timing in timings)
    found, of = [], by_area(account, every)
    for area in areas(account).values():
        if not (mine := of.get(area.pk)):
            continue
        today, done = clock.today(area), down(account, area.pk)
        warm = _warm(account, area, today) if asks_weather else None
        around = _around(account, area, year) if asks_weather else Around(us=account.us)
        if Timing.THRESHOLD in timings:
            around = replace(around, risky=_risky(account, area))
        by_id = {s.pk: s for s in mine}
        stands = standings(lines(mine, area, done, warm, around), done, today)
        found += [Placed(by_id[x.line.step], area, x) for x in stands]
    return found


def turn_of(account: Account, step_id: int, area_id: int, number: int) -> Placed:
    """One turn of a step.

    Raises:
        InputError: there is none.
    """
    return turn_with_others(account, step_id, area_id, number)[0]


def turn_with_others(account: Account, step_id: int, area_id: int, number: int) -> list[Placed]:
    """One turn of a step, and after it the same turn on every other area.

    Raises:
        InputError: there is none.
    """
    year = next((s.year for s in steps(account) if s.pk == step_id), None)
    every = placed(account, year) if year else []
    same = [p for p in every if (p.step.pk, p.standing.turn.number) == (step_id, number)]
    if all(p.area.pk != area_id for p in same):
        raise InputError("number", number, "There is no such turn.", "Open the programme again.")
    return sorted(same, key=lambda p: p.area.pk != area_id)


def looked_at(account: Account, data: TurnAskIn) -> TurnOut:
    """A turn as it would be on another day. Raises InputError."""
    one = turn_of(account, data.step_id, data.area_id, data.number)
    line = replace(one.standing.line, kept=Kept(on=data.on)).moved
    return turn_out(account, Placed(one.step, one.area, replace(one.standing, line=line)))


ORDER = {Stand.LATE: 0, Stand.DUE: 1, Stand.COMING: 2}
SOONEST = date.max


def acting(found: Sequence[Placed]) -> list[Placed]:
    """What asks for something now or soon, the gravest first."""
    return sorted(
        (p for p in found if p.stand.acts),
        key=lambda p: (ORDER[p.stand], p.standing.turn.begin or SOONEST, p.step.name, p.area.name),
    )


def findings(account: Account, step: Step, area: Area, on: date, number: int) -> list[Finding]:
    """What the gate says of a turn on a day: of each product of the mix, the gravest first."""
    found: list[Finding] = []
    at = clock.moment_at(area, on)
    for told in mixed(account, step, area):
        if told.row is None:
            continue
        card, part, row, rate = told.card, told.part, told.row, told.rate
        own = named(step, area, number)
        meant = replace(told.applied, on=on, at=at, place=Place(area.pk), application=own, standing=_stands(area, on))
        asked = Asked(Place(area.pk), at, card.product.pk, part.target, own=own)
        target = part.target or row.target or row.use
        checked = check(Plan(card.core, row, rate, meant, card.label_rows, target), ledger(account, asked), account.us)
        found += [f for f in checked.findings if f.act in (Weight.REFUSE, Weight.WARN)]
    return sorted(dict.fromkeys(found), key=lambda f: f.act)


def _stands(area: Area, on: date) -> BookStanding:
    """How a turn stands to the ledger: one of a day to come is only planned, and is asked again on that day."""
    return BookStanding.PLANNED if on > clock.today(area) else BookStanding.BOOKED


def turn_out(account: Account, p: Placed) -> TurnOut:
    """A turn in words, with what the gate says of it where it is still open."""
    turn, stand = p.standing.turn, p.stand
    on = max(turn.begin, clock.today(p.area)) if turn.begin else None
    said_ = findings(account, p.step, p.area, on, turn.number) if on and stand.open else []
    first, length = _year(p.step.year)
    begin = p.standing.done or turn.begin or turn.about
    long = (turn.end - turn.begin).days if turn.begin and turn.end and not p.standing.done else 0
    return TurnOut(
        step_id=p.step.pk,
        number=turn.number,
        name=p.step.name,
        area_id=p.area.pk,
        area=p.area.name,
        stand=stand.value,
        stand_text=STANDS[stand],
        begin=turn.begin,
        end=turn.end,
        day=day_text(turn.begin, turn.end, turn.about, p.standing.done, stand),
        why=" ".join(x for x in (turn.why, p.standing.line.kept.why if stand is Stand.SKIPPED else "", p.step.why) if x),
        mix=mix_text(account, p.step),
        position=(begin - first).days / length if begin else None,
        long=long / length,
        refused=[finding_out(f) for f in said_ if f.act is Weight.REFUSE],
        warns=[finding_out(f) for f in said_ if f.act is Weight.WARN],
        moved=p.standing.line.kept.on is not None,
        water=str(p.step.water or ""),
    )


def _year(year: int) -> tuple[date, int]:
    """A year's first day and its length in days."""
    return date(year, 1, 1), (date(year + 1, 1, 1) - date(year, 1, 1)).days


def mix_text(account: Account, step: Step) -> str:
    """What a step puts down, in words."""
    return " + ".join(_part_text(account, p) for p in step.products.all() if not p.instead) or NO_PRODUCT


def _part_text(account: Account, p: StepProduct) -> str:
    card = cards(account).get(p.product_id)
    name = card.product.name if card else ""
    return f"{name}, {p.rate}" if p.rate else name


# --- a year -----------------------------------------------------------------------------------------------------


def programme(account: Account, year: int | None = None) -> ProgrammeOut:
    """The programme of a year, this one where none is named."""
    today = clock.today(account)
    year = year or today.year
    found = placed(account, year)
    every = [s for s in steps(account) if s.year == year]
    told_of = {id(p): turn_out(account, p) for p in found}
    acts = [told_of[id(p)] for p in acting(found)]
    turns_of: dict[int, list[Placed]] = {}
    for p in found:
        turns_of.setdefault(p.area.pk, []).append(p)
    told = [_area_year(account, areas(account)[pk], mine, year, told_of) for pk, mine in turns_of.items()]
    first, length = _year(year)
    prices = [price for _, price in told if price is not None]
    return ProgrammeOut(
        year=year,
        years=sorted({s.year for s in steps(account)} | {today.year, today.year + 1, year}),
        sentence=sentence(year, len(every), len(turns_of), acts),
        today=(today - first).days / length if today.year == year else None,
        acts=acts,
        areas=[out for out, _ in told],
        steps=[step_out(account, s) for s in every],
        events=[event_out(e) for e in _events(account)],
        before=sum(s.year == year - 1 for s in steps(account)),
        cost=f"{sum(prices, Decimal(0)):,.2f} {account.currency}" if prices else "",
        money=money_of(account, year, sum(prices, Decimal(0)) if prices else None),
    )


@kept("programme")
def _events(account: Account) -> tuple[Event, ...]:
    return tuple(Event.objects.of(account).kept())


def event_out(e: Event) -> StepEventOut:
    """An event."""
    return StepEventOut(id=e.pk, name=e.name, on=e.on, day=f"{e.on.day} {e.on:%b %Y}")


def _area_year(
    account: Account, area: Area, mine: list[Placed], year: int, told: dict[int, TurnOut]
) -> tuple[AreaYearOut, Decimal | None]:
    turns = sorted(mine, key=lambda p: (p.standing.done or p.standing.turn.begin or p.standing.turn.about or SOONEST, p.step.pk))
    ahead = _ahead(account, area, mine)
    price = _cost(account, area, ahead)
    return AreaYearOut(
        area_id=area.pk,
        area=area.name,
        site=site_name(account, area),
        grass=area.sward.name,
        turns=[told[id(p)] for p in turns],
        totals=[*_totals(account, area, ahead, year), *_uses(account, area, ahead, year)],
        outings=outings_text(*_outings(mine)),
        cost=f"{price:,.2f} {account.currency}" if price is not None else "",
        growth=growth(account, area, year),
    ), price


def _ahead(account: Account, area: Area, mine: Sequence[Placed]) -> list[Brought]:
    """What the turns that are still open bring, a product each."""
    made = {p.step.pk: mixed(account, p.step, area) for p in mine}
    return [b for p in mine if p.stand.open for b in made[p.step.pk]]


def _cost(account: Account, area: Area, ahead: Sequence[Brought]) -> Decimal | None:
    """What is still to come costs; None where no price is known."""
    prices = [cost(b.card.core, b.amount, area.size, foot_of(account.us)) for b in ahead]
    found = [price.total for price in prices if price]
    return sum(found, Decimal(0)) if found else None


NUTRIENTS = ((Basis.N, "Nitrogen"), (Basis.P2O5, "Phosphate (P₂O₅)"), (Basis.K2O, "Potash (K₂O)"))


def _totals(account: Account, area: Area, ahead: Sequence[Brought], year: int) -> list[TotalOut]:
    """What a year brings of N, P and K: what went down, and what is still meant."""
    been = [a for a in history(account, area.pk) if a.on.year == year and a.place and a.place.area == area.pk]
    found = []
    for basis, name in NUTRIENTS:
        done, meant = _sum(been, basis), _sum([b.applied for b in ahead], basis)
        usual = season_range(area.ground) if basis is Basis.N else None
        if not done and not meant:
            continue
        full = max(done + meant, usual[1] if usual else 0.0) * 1.1
        found.append(
            TotalOut(
                name=name,
                text=total_text(done, meant, usual, account.us),
                share_done=done / full,
                share_meant=meant / full,
                low=usual[0] / full if usual else 0.0,
                high=usual[1] / full if usual else 0.0,
            )
        )
    return found


def _outings(mine: Sequence[Placed]) -> tuple[int, int]:
    """On how many days of a year's turns somebody was out on an area, and will be."""
    done = {p.standing.done for p in mine if p.standing.done}
    ahead = {p.standing.turn.begin or p.standing.turn.about for p in mine if p.stand.open}
    return len(done), len(ahead)


def _uses(account: Account, area: Area, ahead: Sequence[Brought], year: int) -> list[TotalOut]:
    """How often each product that is still meant goes down in a year, of how often its label allows."""
    been = [a for a in history(account, area.pk) if a.on.year == year]
    found = []
    for card in {b.card.product.pk: b.card for b in ahead}.values():
        most = card.core.rules.applications_per_season
        if most is None:
            continue
        done = len({a.application or i for i, a in enumerate(been) if a.is_of(card.core)})
        meant = sum(b.card.product.pk == card.product.pk for b in ahead)
        full = max(done + meant, most)
        found.append(
            TotalOut(
                name=card.product.name,
                text=uses_text(done, meant, most),
                share_done=done / full,
                share_meant=meant / full,
                low=0.0,
                high=most / full,
            )
        )
    return found


def _sum(every: Sequence[Applied], basis: Basis) -> float:
    return sum(a.nutrients.get(basis, 0.0) for a in every)


def growth(account: Account, area: Area, year: int) -> list[float]:
    """How well the grass grows in each month, by the weather of the years that are known; empty where none is."""
    months: list[list[float]] = [[] for _ in range(12)]
    for w in _years(account, area.site_id):
        if w.first.year > year:
            continue
        for i, air in enumerate(w.air):
            months[(w.first + timedelta(days=i)).month - 1].append(float(air))
    if not all(len(m) and not np.isnan(m).all() for m in months):
        return []
    found = [float(np.nanmean(of_sward(np.array(m), area.sward))) for m in months] if area.sward.turf else []
    return [round(g, 3) for g in found]


# --- steps ------------------------------------------------------------------------------------------------------


def step_of(account: Account, step_id: int) -> MeantStepOut:
    """A step that is kept. Raises Missing."""
    found = next((s for s in steps(account) if s.pk == step_id), None)
    if found is None:
        raise Missing("step")
    return step_out(account, found)


def step_out(account: Account, step: Step) -> MeantStepOut:
    """A step as a form holds it."""
    when = step.timing
    now = _said_of(account, step)
    before = next((s for s in steps(account) if s.pk == step.copied_id), None)
    return MeantStepOut(
        id=step.pk,
        version=step.version,
        year=step.year,
        name=step.name,
        when=_when_out(when, account.us) if when else None,
        when_text=when_text(when, _goes_by(account, step), account.us),
        products=[
            StepProductOut(
                product_id=p.product_id,
                product=cards(account)[p.product_id].product.name if p.product_id in cards(account) else "",
                target=p.target,
                rate=rate_out(p.rate) if p.rate else None,
                instead=p.instead,
            )
            for p in step.products.all()
        ],
        mix=mix_text(account, step),
        area_ids=[a.area_id for a in step.areas.all()],
        where=_where(account, step),
        site_id=step.site_id,
        use=step.use,
        grass=step.grass,
        anchor=step.anchor,
        event_id=step.event_id,
        after_id=step.after_id,
        water=quantity_out(step.water) if step.water else None,
        why=step.why,
        differs=differs_text(now, _in_year(_said_of(account, before), before.year, step.year)) if before else "",
    )


def _said_of(account: Account, step: Step) -> str:
    return f"{mix_text(account, step)}; {when_text(step.timing, _goes_by(account, step), account.us)}; {_where(account, step)}"


def _in_year(text: str, was: int, now: int) -> str:
    return text.replace(str(was), str(now))


def _where(account: Account, step: Step) -> str:
    own = [areas(account)[a.area_id].name for a in step.areas.all() if a.area_id in areas(account)]
    site = sites_of(account).get(step.site_id or 0)
    return where_text(own, site.name if site else "", step.use, step.grass)


def _goes_by(account: Account, step: Step) -> str:
    """What a step goes by, in words; empty where that is gone."""
    if step.anchor == OVERSEED:
        return OVERSEEDING
    if step.event_id:
        return step.event.name.lower() if step.event and step.event.archived_at is None else ""
    found = next((s for s in steps(account) if s.pk == step.after_id), None)
    return found.name.lower() if found else ""


def _degrees(celsius: float, us: bool) -> GivenOut:
    return GivenOut(value=show_number(round(celsius * 1.8 + 32 if us else celsius, 1)), unit="degF" if us else "degC")


def _when_out(when: Any, us: bool) -> WhenOut:
    return WhenOut(
        timing=when.timing,
        begin=when.begin,
        end=when.end,
        every=when.every,
        monthly=", ".join(map(str, when.monthly)),
        sum=when.sum,
        base=when.base,
        soil=_degrees(when.soil, us) if when.timing is Timing.SOIL else None,
        rising=when.rising,
        disease=when.disease,
        cold=_degrees(when.cold, us) if when.timing is Timing.COLD else None,
        offset=when.offset,
        grace=when.grace,
    )


# --- outlines ---------------------------------------------------------------------------------------------------


def options(account: Account) -> StepOptionsOut:
    """What a step's form offers, and the outlines, those for the account's turf first."""
    year = clock.today(account).year
    turf = {(a.sward, a.use) for a in areas(account).values() if a.archived_at is None}
    found = [
        SeasonOutlineOut(
            key=o.key,
            name=o.name,
            told=o.told,
            source=o.source,
            fits=any(fits(o, sward, use) for sward, use in turf),
            steps=[FactOut(name=s.name, text=f"{when_text(s.when(year), '', account.us)}. {s.why}") for s in o.steps],
        )
        for o in OUTLINES.values()
    ]
    return StepOptionsOut(
        diseases=[OptionOut(key=d, text=TARGETS[d].name) for d in HOSTS],
        timings=[OptionOut(key=t.value, text=t.text) for t in Timing],
        outlines=sorted(found, key=lambda o: not o.fits),
    )
