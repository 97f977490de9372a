"""Which products of the shelf may go down against a disease on a ground, each with its reason, each refusal with its rule."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from decimal import Decimal

from core.days import day
from core.errors import InputError
from core.findings import Finding, Weight
from core.ground import Ground
from core.growth.ramp import start_in_range
from core.label.match import fit, lists
from core.label.product import Kind, Product
from core.label.rate import Rate
from core.label.rules import Intent, Row
from core.ledger.gate import Plan, check
from core.ledger.history import Applied, applied, in_season, last_of
from core.ledger.ledger import Ledger
from core.rates.cost import cost
from core.rates.dose import dose
from core.readable import foot_of
from core.schools import House
from core.units import Quantity


@dataclass(frozen=True)
class Candidate:
    """A product with its label's rows, and what is left of it where stock is kept."""

    product: Product
    rows: tuple[Row, ...]
    stock: Quantity | None = None


@dataclass(frozen=True)
class Pick:
    """A candidate for a disease: the row and the rate it would go down by, why, what warns, and the rules that refuse it.

    `index` is the row's place on the label; `amount` the product for the whole ground; `cost` of it, None where no price is
    known.
    """

    candidate: Candidate
    index: int
    rate: Rate
    intent: Intent
    why: tuple[str, ...]
    warns: tuple[Finding, ...]
    refused: tuple[Finding, ...]
    amount: Quantity | None
    cost: Decimal | None

    @property
    def row(self) -> Row:
        return self.candidate.rows[self.index]

    @property
    def allowed(self) -> bool:
        return not self.refused


@dataclass(frozen=True)
class Wanted:
    """What is to be treated: a disease (a target's key) on a ground, on a day (and its hour), and whether it has been seen."""

    disease: str
    ground: Ground
    on: date
    curative: bool = False
    at: datetime | None = None


def choices(wanted: Wanted, candidates: Sequence[Candidate], ledger: Ledger, us: bool = True) -> list[Pick]:
    """All candidates that list the disease: those that may go down first, then by another group, by warnings, by cost."""
    last = _last_codes(ledger)
    found = [_pick(wanted, d, ledger, us) for d in drafts(wanted, candidates, ledger.house, us)]
    return sorted(found, key=lambda c: (not c.allowed, _again(c.candidate, last), len(c.warns), _by_cost(c.cost, c.candidate)))


def first_choice(wanted: Wanted, found: "Sequence[Draft]", ledger: Ledger, us: bool = True) -> Pick | None:
    """The first of `choices` that may go down, held against the ledger no more than it takes to tell; None where there is none.

    Args:
        wanted: what is to be treated.
        found: the drafts of the candidates, as `drafts` gives them.
        ledger: of the ground and the day.
        us: whether to speak in US units.
    """
    last = _last_codes(ledger)
    for again in (False, True):
        best: Pick | None = None
        for d in found:
            if _again(d.candidate, last) is not again:
                continue
            pick = _pick(wanted, d, ledger, us)
            if pick.allowed and not pick.warns:
                return pick
            if pick.allowed and (best is None or len(pick.warns) < len(best.warns)):
                best = pick
        if best:
            return best
    return None


def _last_codes(ledger: Ledger) -> tuple[str, ...]:
    """The groups of the ground's last fungicide."""
    return next((a.codes for a in reversed(ledger.pieces[0].past) if a.is_a(Kind.FUNGICIDE)), ())


def _again(candidate: Candidate, last: Sequence[str]) -> bool:
    """Whether a candidate is of the same group as what went down last."""
    return bool(set(candidate.product.codes) & set(last))


def _by_cost(price: Decimal | None, candidate: Candidate) -> tuple[bool, Decimal, str]:
    return price is None, price or Decimal(0), candidate.product.name


@dataclass(frozen=True)
class Draft:
    """A candidate with the row and the rate it would go down by, before anything is asked of the ground's past.

    `per_area` is what it costs on one unit of area, None where no price or no dose is known; grounds that differ in size and
    name alone share their drafts.
    """

    candidate: Candidate
    index: int
    rate: Rate
    why: str
    per_area: Decimal | None

    @property
    def row(self) -> Row:
        return self.candidate.rows[self.index]


def drafts(wanted: Wanted, candidates: Sequence[Candidate], house: House, us: bool = True) -> list[Draft]:
    """The candidates that list a disease and whose label binds, the cheapest first."""
    found = [d for x in candidates if (d := _draft(wanted, x, house, us))]
    return sorted(found, key=lambda d: _by_cost(d.per_area, d.candidate))


def _draft(wanted: Wanted, candidate: Candidate, house: House, us: bool) -> Draft | None:
    index = _row(wanted, candidate.rows)
    if index is None or not candidate.product.label_binds:
        return None
    row, foot = candidate.rows[index], foot_of(us)
    start = start_in_range(row.label, house)
    rate = row.label.highest if wanted.curative and row.intent is not Intent.CURATIVE else start.rate
    why = "" if wanted.curative else start.why
    try:
        price = cost(candidate.product, dose(candidate.product, rate, foot).amount, foot, foot)
    except InputError:
        return Draft(candidate, index, rate, why, None)
    return Draft(candidate, index, rate, why, price.per_foot if price else None)


def _pick(wanted: Wanted, draft: Draft, ledger: Ledger, us: bool) -> Pick:
    """A draft held against the ledger of the ground."""
    candidate, ground, row, rate = draft.candidate, wanted.ground, draft.row, draft.rate
    product = candidate.product
    try:
        amount = dose(product, rate, ground.size).amount
    except InputError as problem:
        unmeasured = Finding("no-dose", Weight.REFUSE, problem.sentence)
        return Pick(candidate, draft.index, rate, row.intent, (), (), (unmeasured,), None, None)
    meant = replace(applied(product, amount, ground.size, wanted.on, row), at=wanted.at)
    checked = check(Plan(product, row, rate, meant, candidate.rows, row.target or row.use), ledger, us)
    refused = [f for f in checked.findings if f.act is Weight.REFUSE]
    if wanted.curative and row.intent is Intent.PREVENTIVE:
        said = "Its label gives a preventive rate alone, and the disease is there."
        refused.append(Finding("preventive-only", Weight.REFUSE, said))
    price = cost(product, amount, ground.size, foot_of(us))
    warns = tuple(f for f in checked.findings if f.act in (Weight.ASK, Weight.WARN))
    why = (*_why(wanted, candidate, row, ledger.pieces[0].past, ledger.house), *([draft.why] if draft.why else []))
    return Pick(candidate, draft.index, rate, row.intent, why, warns, tuple(refused), amount, price.total if price else None)


def _row(wanted: Wanted, rows: Sequence[Row]) -> int | None:
    """The row for the disease that fits best: its intent first, then the ground."""
    intent = Intent.CURATIVE if wanted.curative else Intent.PREVENTIVE
    listing = [(i, row) for i, row in enumerate(rows) if lists(row, wanted.disease)]
    if not listing:
        return None

    def turn(pair: tuple[int, Row]) -> tuple[int, bool, int]:
        found = fit(pair[1], pair[0], wanted.ground)
        return (len(found.misses), pair[1].intent not in (intent, Intent.ANY), pair[0])

    return min(listing, key=turn)[0]


def _why(wanted: Wanted, candidate: Candidate, row: Row, history: Sequence[Applied], house: House) -> list[str]:
    product = candidate.product
    said = [f"Its label lists {row.use.lower() or wanted.disease.replace('_', ' ')}."]
    if row.intent is Intent.CURATIVE and not wanted.curative:
        said.append("It gives a curative rate alone, and nothing has been seen.")
    season = in_season(history, house.season_of(wanted.on), wanted.on)
    group = [a for a in season if set(a.codes) & set(product.codes)]
    codes = " + ".join(product.codes) or "no group"
    if group:
        said.append(f"{codes} was last used here on {day(max(a.on for a in group))}.")
    elif product.codes:
        said.append(f"{codes} has not been used here this season.")
    times, most = sum(a.is_of(product) for a in season), product.rules.applications_per_season
    if most:
        said.append(f"{times} of {most} applications a season are used.")
    last = last_of(history, product)
    if last and row.interval[0]:
        said.append(f"{(wanted.on - last.on).days} days since its last; the label asks for {row.interval[0]}.")
    if candidate.stock is not None:
        said.append(f"{candidate.stock} in stock." if candidate.stock.value else "None is in stock.")
    return said
