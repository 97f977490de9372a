"""The facts of a year to be planned, gathered into a problem of choice: ground, weather, shelf, gate, and what is kept.

Every day on which a product may go down on an area was asked of the gate, with the book, rounds under way and dated steps in its
ledger. What the choices do to each other is modelled, and asked of the gate again once they are made.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, timedelta
from functools import cache, cached_property, partial

import numpy as np
from numpy.typing import NDArray

from core.findings import Finding, Weight
from core.label.product import Kind
from core.label.rate import Basis
from core.ledger.gate import Checked, Plan, check
from core.ledger.history import Applied, Place, Standing
from core.ledger.ledger import Ledger
from core.ledger.rotation import IN_A_ROW, apart_days, in_a_row
from core.machines.labour import FILLING, fills_of, hours_of
from core.rates.nutrients import season_range
from core.season.choose import Candidate
from core.season.cover import covered_days, middle, protects
from core.season.expected import Spell, expected, foretold
from core.season.offers import NITROGEN, Offer, feeds, let_through, offers
from core.season.problem import Choice, Option, Problem
from core.season.standing import UNTOUCHED, Stand
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.errors import Faults
from greenmeasure.common.schemas import number_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import largest_for, taken_by
from greenmeasure.ledger.booked import history, whole_book
from greenmeasure.ledger.meant import Brought, mixed, named
from greenmeasure.ledger.past import Asked, ledger
from greenmeasure.planner.schemas import PlanAskIn
from greenmeasure.planner.words import FEEDS_EVENLY, no_price, no_weather
from greenmeasure.programme.queries import Placed, growth, placed
from greenmeasure.shelf.queries import cards, stocks
from greenmeasure.sky.watching import all_watched, covers_of, outlook_of, reaching, spells_of
from greenmeasure.sky.weather import known_at

Floats = NDArray[np.float64]
Key = tuple[str, str]
FREEZE = timedelta(days=3)
"""Made steps that begin within so many days are kept: they may be on the bench already (ours)."""
NEED = 3.0
"""How many times what it costs a day's nitrogen is worth (ours): it is fed unless a rule forbids it."""
CHANGE = 0.25
"""What a further product on an outing counts of going out, where no money decides (ours)."""
GROWING = range(4, 11)
"""Months that are fed evenly where no weather tells how grass grows (common practice, no source)."""


@dataclass(frozen=True)
class Ask:
    """What is to be planned, checked: from `first` to `last`, on which ground, going out on which days."""

    year: int
    first: date
    last: date
    ground: tuple[Area, ...]
    by_cost: bool
    protect: bool
    feed: bool
    risk_days: float
    weekdays: frozenset[int]
    off: tuple[tuple[date, date], ...]
    hours: float | None
    outing: float
    labour: float
    buy: bool
    release: bool

    @property
    def days(self) -> int:
        return (self.last - self.first).days + 1

    @cached_property
    def out(self) -> list[int]:
        """The days on which people go out, counted from the first."""
        found = []
        for i in range(self.days):
            on = self.first + timedelta(days=i)
            if on.weekday() in self.weekdays and not any(a <= on <= b for a, b in self.off):
                found.append(i)
        return found


def ask_in(account: Account, data: PlanAskIn) -> Ask:
    """What is asked, read and checked. Raises Faulty."""
    faults, today = Faults(), clock.today(account)
    last = date(data.year, 12, 31)
    if last <= today:
        faults.add("year", data.year, "That year is over.", "Plan this one or the next.")
    if data.year > today.year + 1:
        faults.add("year", data.year, "That is further ahead than a plan reaches.", "Plan this year or the next.")
    ground = [a for a in areas(account).values() if a.archived_at is None and a.parent_id is None]
    known = {a.pk for a in ground}
    for i, pk in enumerate(data.area_ids):
        if pk not in known:
            faults.add(f"area_ids.{i}", pk, "That is no whole area that is kept.", "Pick areas of the list.")
    if not data.weekdays:
        faults.add("weekdays", "", "Nobody ever goes out.", "Pick a weekday at least.")
    if not (data.protect or data.feed):
        faults.add("protect", "", "There is nothing to plan.", "Protect, feed, or both.")
    for i, span in enumerate(data.off):
        if span.end < span.begin:
            faults.add(f"off.{i}.end", str(span.end), "The last day is before the first.", "Give the later day as the last.")
    risk_days = faults.of(number_in, "risk_days", data.risk_days)
    outing = faults.of(number_in, "outing", data.outing) if data.outing not in ("", 0, "0") else 0.0
    labour = faults.of(number_in, "labour", data.labour) if data.labour not in ("", 0, "0") else 0.0
    hours = faults.of(number_in, "hours", data.hours) if data.hours != "" else None
    if risk_days is not None and not 0 < risk_days <= 60:
        faults.add("risk_days", data.risk_days, "No application covers so many days.", "Three to seven are usual.")
    if hours is not None and not 0 < hours <= 24:
        faults.add("hours", data.hours, "A day has no such hours.", "Write how long people are out.")
    if not ground:
        faults.add("area_ids", None, "There is no ground yet.", "Add an area first.")
    faults.raise_any()
    assert risk_days is not None and outing is not None and labour is not None
    return Ask(
        data.year,
        max(date(data.year, 1, 1), today),
        last,
        tuple(a for a in ground if not data.area_ids or a.pk in data.area_ids),
        data.wish == "cost",
        data.protect,
        data.feed,
        risk_days,
        frozenset(data.weekdays),
        tuple((s.begin, s.end) for s in data.off),
        hours,
        outing,
        labour,
        data.buy,
        data.release,
    )


@dataclass(frozen=True)
class Year:
    """A year as a problem of choice, with what stands behind it.

    `offers` are those of the problem's options by their places, None for what is kept; `areas` by the names of the problem;
    `risk` how likely each disease is on each day; `besides` how the ledger names what is planned anew; `fixed` and `old` are the
    turns that are kept, and that a plan takes the place of.
    """

    account: Account
    ask: Ask
    problem: Problem
    offers: tuple[Offer | None, ...]
    areas: Mapping[str, Area]
    machines: Mapping[str, Machine]
    risk: Mapping[Key, Floats]
    besides: frozenset[str]
    fixed: tuple[Placed, ...]
    old: tuple[Placed, ...]
    notes: tuple[str, ...] = field(default=())

    def on(self, day: int) -> date:
        """A day of the problem on the calendar."""
        return self.ask.first + timedelta(days=day)

    def of(self, i: int) -> Offer:
        """The offer of an option that is chosen anew."""
        found = self.offers[i]
        assert found
        return found


def standing(account: Account, ask: Ask) -> tuple[list[Placed], list[Placed]]:
    """The turns of the year that are kept, and those that a plan takes the place of."""
    keep, old, wanted = [], [], {a.pk for a in ask.ground}
    for p in placed(account, ask.year):
        begin = p.standing.turn.begin
        if p.area.pk not in wanted or not p.stand.open or begin is None:
            continue
        moved = p.standing.line.kept != UNTOUCHED
        frozen = begin <= clock.today(p.area) + FREEZE and p.stand is not Stand.LATE
        if p.step.made and (ask.release or not (moved or frozen)):
            old.append(p)
        else:
            keep.append(p)
    return keep, old


def gathered(account: Account, ask: Ask) -> Iterator[float | Year]:
    """The facts of a year: how far the gathering is, as a share, and at its end the year."""
    whole_book(account)
    keep, old = standing(account, ask)
    besides = frozenset(named(p.step, p.area, p.standing.turn.number) for p in old)
    shelf = shelf_of(account)
    found = _Gathered(account, ask, besides)
    out = ask.out
    for n, area in enumerate(ask.ground):
        yield n / len(ask.ground)
        found.add(area, shelf, out)
    found.keep([p for p in keep if p.standing.turn.begin])
    yield found.year(tuple(keep), tuple(old))


def shelf_of(account: Account) -> list[Candidate]:
    """The products that are kept, as plans look at them."""
    left = stocks(account)
    return [
        Candidate(c.core, c.label_rows, left.get(c.product.pk)) for c in cards(account).values() if c.product.archived_at is None
    ]


class _Gathered:
    """A problem as its areas are added."""

    def __init__(self, account: Account, ask: Ask, besides: frozenset[str]) -> None:
        self.account, self.ask, self.besides = account, ask, besides
        self.able: dict[int, Machine | None] = {}
        self.options: list[Option] = []
        self.offers: list[Offer | None] = []
        self.areas: dict[str, Area] = {}
        self.machines: dict[str, Machine] = {}
        self.risk: dict[Key, Floats] = {}
        self.need: dict[Key, Floats] = {}
        self.worth: dict[Key, Floats] = {}
        self.caps: dict[tuple[str, str], float] = {}
        self.runs: dict[tuple[str, str], int] = {}
        self.limits: dict[str, int] = {}
        self.fixed: list[Choice] = []
        self.notes: dict[str, None] = {}

    def add(self, area: Area, shelf: Sequence[Candidate], out: Sequence[int]) -> None:
        """An area: what threatens and what feeds it, and every offer with the days on which the gate lets it."""
        name = str(area.pk)
        self.areas[name] = area
        self._threats(area, name)
        diseases = [target for where, target in self.risk if where == name]
        mine = offers(area.ground, shelf, diseases, self.ask.feed, area.site.house_rules)
        mine = self._priced(mine)
        self._worths(area, name, mine)
        mine = [o for o in mine if any((name, target) in self.worth for target in o.covers)]
        self._limits(name, mine, bears(self.account, area, self.ask.first, self.besides))
        days = self._days(area, name, mine, out)
        for offer in mine:
            self._option(area, name, offer, days[id(offer)])

    def _threats(self, area: Area, name: str) -> None:
        """How likely each disease is on each day, less what is covered by what went down."""
        if not self.ask.protect:
            return
        spells, known = spells_of(self.account, area.site_id), known_at(area.site)
        every = all_watched(self.account).get(area.pk, [])
        if not spells or known is None:
            if every:
                self.notes[no_weather(area.site.name)] = None
            return
        today = clock.today(area)
        for w in every:
            usual = expected([spells[w.model.key, w.threshold.value]], self.ask.first, self.ask.days)
            recent = outlook_of(w, known, today)
            late = Spell(recent.first, np.where(np.isnan(recent.values), np.nan, recent.risky.astype(float)))
            risk = np.nan_to_num(foretold(usual, late, self.ask.first))
            covers = covers_of(self.account, reaching(history(self.account, area.pk), recent.first), w.disease, recent)
            risk[covered_days(covers, self.ask.first, self.ask.days)] = 0.0
            if risk.any():
                self.risk[name, w.disease] = risk

    def _priced(self, mine: list[Offer]) -> list[Offer]:
        """Those that can be weighed: where money decides and some have a price, what has none is left out, and told."""
        if not self.ask.by_cost or all(o.price is None for o in mine):
            return mine
        for o in mine:
            if o.price is None:
                self.notes[no_price(o.product.name)] = None
        return [o for o in mine if o.price is not None]

    def cost(self, area: Area, offer: Offer) -> float:
        """What an application counts: its price and the work, or what acts in it [kg]."""
        if self.ask.by_cost:
            work = hours_with(self._machine(offer), area.size.base) * self.ask.labour
            return (0.0 if offer.price is None else offer.price) + work
        return offer.active * area.size.base / 1000

    def _worths(self, area: Area, name: str, mine: Sequence[Offer]) -> None:
        """What a day without cover or food is worth: by what an application costs here, a share of going out in it."""
        out = self.ask.outing / len(self.ask.ground) if self.ask.by_cost else 0.0
        costs = [(self.cost(area, o) + out, o) for o in mine]
        for disease in {t for _, o in costs for t in o.covers if t != NITROGEN}:
            cheapest = min(c for c, o in costs if disease in o.covers)
            self.worth[name, disease] = self.risk[name, disease] * cheapest / self.ask.risk_days
        feeding = [(c, o.applied.nutrients[Basis.N]) for c, o in costs if NITROGEN in o.covers]
        span = season_range(area.ground) if self.ask.feed else None
        if not feeding or span is None:
            return
        done = sum(a.nutrients.get(Basis.N, 0.0) for a in history(self.account, area.pk) if a.on.year == self.ask.year)
        months = growth(self.account, area, self.ask.year)
        if not months:
            self.notes[FEEDS_EVENLY] = None
        pace = np.array(
            [
                months[on.month - 1] if months else float(on.month in GROWING)
                for on in (self.ask.first + timedelta(days=i) for i in range(self.ask.days))
            ]
        )
        year = sum(months) / 12 * 365 if months else len(GROWING) * 30.4
        goal = max(0.0, sum(span) / 2 - done)
        if goal and pace.sum():
            self.need[name, NITROGEN] = pace * min(goal / pace.sum(), 1.5 * sum(span) / 2 / year)
            self.worth[name, NITROGEN] = np.full(self.ask.days, NEED * min(c / n for c, n in feeding))
        self.caps[name, NITROGEN] = max(0.0, span[1] - done)

    def _days(self, area: Area, name: str, mine: Sequence[Offer], out: Sequence[int]) -> dict[int, frozenset[int]]:
        """The days on which the gate lets each offer go down, of those on which it would do anything."""
        led = cache(lambda on: bears(self.account, area, on, self.besides))

        def let(o: Offer, day: int) -> bool:
            on = self.ask.first + timedelta(days=day)
            return not refused(self.account, area, o, on, led(on), warned=True)

        return {id(o): let_through([d for d in out if self._does(name, o, d)], partial(let, o)) for o in mine}

    def _does(self, name: str, offer: Offer, day: int) -> bool:
        """Whether an offer would cover anything of worth from a day on."""
        return any(
            bool((self.worth[name, t][day : day + offer.lasts] > 0).any()) for t in offer.covers if (name, t) in self.worth
        )

    def _limits(self, name: str, mine: Sequence[Offer], led: Ledger) -> None:
        """How often each group has gone down on an area before, told once, and how often it may."""
        past = [a for a in led.pieces[0].past if a.on <= self.ask.first]
        for o in mine:
            label = o.product.rules.consecutive
            for code, run in in_a_row(replace(o.applied, on=date.max), past).items():
                self.runs.setdefault((name, code), run - 1)
                self.limits[code] = min(self.limits.get(code, IN_A_ROW), label if label is not None else IN_A_ROW)

    def _option(self, area: Area, name: str, o: Offer, days: frozenset[int]) -> None:
        """An offer as an option, with what of its caps is left."""
        if not days:
            return
        machine = self._machine(o)
        kind = str(machine.pk) if machine else ""
        if machine:
            self.machines[kind] = machine
        led = bears(self.account, area, self.ask.first + timedelta(days=min(days)), self.besides)
        told = checked(self.account, area, o, self.ask.first + timedelta(days=min(days)), led).budget
        held = dict(o.applied.actives)
        if NITROGEN in o.covers:
            held[NITROGEN] = o.applied.nutrients[Basis.N]
        for line in told.lines:
            if line.cap is None or not line.binds:
                continue
            what = f"product {o.product.id}" if line.key == "product" else line.what
            held[what] = line.plan * line.unit.size
            left = max(0.0, line.cap - line.used) * line.unit.size
            self.caps[name, what] = min(left, self.caps.get((name, what), left))
        most = None if told.most_times is None else max(0, told.most_times - told.times)
        amount = o.amount.base
        self.options.append(
            Option(
                name,
                str(o.product.id),
                self.cost(area, o),
                o.lasts,
                o.least,
                o.covers,
                o.applied.codes,
                held,
                amount,
                most,
                days,
                machine=kind,
                hours=hours_with(machine, area.size.base),
            )
        )
        self.offers.append(o)

    def _clash(self, p: str, q: str) -> bool:
        """Whether the gate keeps two products off one ground on one day that lets each go down alone."""
        for i, o in enumerate(self.options):
            for j, other in enumerate(self.options):
                one, two = self.offers[i], self.offers[j]
                if (o.product, other.product) != (p, q) or o.area != other.area or not one or not two:
                    continue
                both = sorted((o.days or frozenset()) & (other.days or frozenset()))
                if both:
                    area, on = self.areas[o.area], self.ask.first + timedelta(days=both[0])
                    return any(
                        refused(self.account, area, x, on, bears(self.account, area, on, self.besides, (meant_of(area, y, on),)))
                        for x, y in ((one, two), (two, one))
                    )
        return False

    def _machine(self, o: Offer) -> Machine | None:
        """The largest machine that puts it down, a sprayer before a spreader for what is sprayed."""
        assert o.product.id
        if o.product.id not in self.able:
            self.able[o.product.id] = largest_for(self.account, [o.product.id], o.product.formulation.sprayed)
        return self.able[o.product.id]

    def keep(self, turns: Sequence[Placed]) -> None:
        """What is kept: chosen already, with what it covers; what it uses of caps the gate has counted."""
        for p in turns:
            begin = p.standing.turn.begin
            assert begin
            day, name = max(0, (begin - self.ask.first).days), str(p.area.pk)
            if day >= self.ask.days:
                continue
            for b in mixed(self.account, p.step, p.area):
                if (name, NITROGEN) in self.caps:
                    left = self.caps[name, NITROGEN] - b.applied.nutrients.get(Basis.N, 0.0)
                    self.caps[name, NITROGEN] = max(0.0, left)
                self.options.append(self._kept_option(name, b, day))
                self.offers.append(None)
                self.fixed.append((len(self.options) - 1, day))

    def _kept_option(self, name: str, b: Brought, day: int) -> Option:
        lasts = middle(b.applied.interval)
        covers: dict[str, float] = {}
        if b.card.core.is_a(Kind.FUNGICIDE):
            covers = {t: 1.0 for where, t in self.risk if where == name and protects(b.applied, b.card.label_rows, t)}
        elif n := b.applied.nutrients.get(Basis.N, 0.0):
            lasts = feeds(b.card.core)
            covers = {NITROGEN: n / lasts}
        kind = next((k for k, m in self.machines.items() if b.card.product.pk in taken_by(self.account, m)), "")
        return Option(
            name, f"kept-{len(self.options)}", 0.0, lasts, 1, covers, b.applied.codes, days=frozenset({day}), machine=kind
        )

    def _before(self, old: Sequence[Placed]) -> Iterator[Choice]:
        """What of the plan that is replaced can be chosen again."""
        for p in old:
            products = {str(part.product_id) for part in p.step.products.all()}
            begin = p.standing.turn.begin
            for i, o in enumerate(self.options):
                if begin and self.offers[i] and o.area == str(p.area.pk) and o.product in products:
                    yield i, (begin - self.ask.first).days

    def year(self, keep: tuple[Placed, ...], old: tuple[Placed, ...]) -> Year:
        """The problem of all areas that were added."""
        apart: dict[tuple[str, str], int] = {}
        by_product = {o.product: offer.applied for o, offer in zip(self.options, self.offers, strict=True) if offer}
        for p, a in by_product.items():
            for q, b in by_product.items():
                if p < q and (days := max(apart_days(a, b), int(self._clash(p, q)))):
                    apart[p, q] = days
        costs = [o.cost for o in self.options if o.cost]
        left = {str(pk): q.base for pk, q in stocks(self.account).items()}
        outing = self.ask.outing if self.ask.by_cost else min(costs, default=0.0) / 100
        problem = Problem(
            self.ask.days,
            tuple(self.options),
            self.worth,
            outing,
            apart,
            self.limits,
            self.runs,
            self.caps,
            {} if self.ask.buy else {p: left.get(p, 0.0) for p in by_product},
            need=self.need,
            hours=self.ask.hours,
            fixed=tuple(self.fixed),
            change=FILLING * self.ask.labour if self.ask.by_cost else outing * CHANGE,
            before=frozenset(self._before(old)),
        )
        return Year(
            self.account,
            self.ask,
            problem,
            tuple(self.offers),
            self.areas,
            self.machines,
            self.risk,
            self.besides,
            keep,
            old,
            tuple(self.notes),
        )


def bears(account: Account, area: Area, on: date, besides: frozenset[str], more: tuple[Applied, ...] = ()) -> Ledger:
    """What bears on an area on a day, but for what is planned anew; `more` is what a plan would put down beside it."""
    return ledger(account, Asked(Place(area.pk), clock.moment_at(area, on), besides=besides, more=more))


def checked(account: Account, area: Area, o: Offer, on: date, led: Ledger) -> Checked:
    """What the gate says of an offer on a day."""
    meant = meant_of(area, o, on)
    return check(Plan(o.product, o.row, o.rate, meant, o.rows, o.row.target or o.row.use), led, account.us)


def refused(account: Account, area: Area, o: Offer, on: date, led: Ledger, warned: bool = False) -> list[Finding]:
    """Why an offer may not go down on a day; `warned` takes a warning for a refusal where the label is no law.

    What lies near is minded on the day: it keeps nothing off the rest of the ground.
    """
    grave = (Weight.REFUSE, Weight.WARN) if warned and not o.product.label_binds else (Weight.REFUSE,)
    found = [f for f in checked(account, area, o, on, led).findings if f.act in grave]
    return [f for f in found if f.act is Weight.REFUSE or not f.key.startswith("near-")]


def meant_of(area: Area, o: Offer, on: date) -> Applied:
    """An offer as the ledger would count it on a day."""
    return replace(
        o.applied,
        on=on,
        at=clock.moment_at(area, on),
        place=Place(area.pk),
        application=f"plan-{area.pk}-{o.product.id}-{on}",
        standing=Standing.PLANNED,
        target=o.row.target or o.row.use,
    )


def hours_with(machine: Machine | None, size: float) -> float:
    """How long an area takes with a machine, out and back, by its own calibrations [h].

    Args:
        machine: what it is done with.
        size: of the area [m²].
    """
    if machine is None:
        return hours_of(size)
    output = machine.output if machine.kind == "sprayer" else None
    return hours_of(size, machine.swath, machine.pace, fills_of(size, output.base, machine.capacity.base) if output else 1)
