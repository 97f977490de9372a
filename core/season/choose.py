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
    ordered = [a for a in ledger.pieces[0].past if a.is_a(Kind.FUNGICIDE)]
    last = ordered[-1].codes if ordered else ()
    found = [c for x in candidates if (c := _choice(wanted, x, ledger, us))]
    return sorted(
        found,
        key=lambda c: (
            not c.allowed,
            bool(set(c.candidate.product.codes) & set(last)),
            len(c.warns),
            c.cost is None,
            c.cost or 0,
            c.candidate.product.name,
        ),
    )


def _choice(wanted: Wanted, candidate: Candidate, ledger: Ledger, us: bool) -> Pick | None:
    product, ground, house = candidate.product, wanted.ground, ledger.house
    index = _row(wanted, candidate.rows)
    if index is None or not product.label_binds:
        return None
    row = candidate.rows[index]
    start = start_in_range(row.label, house)
    rate = row.label.highest if wanted.curative and row.intent is not Intent.CURATIVE else start.rate
    try:
        amount = dose(product, rate, ground.size).amount
    except InputError as problem:
        unmeasured = Finding("no-dose", Weight.REFUSE, problem.sentence)
        return Pick(candidate, index, rate, row.intent, (), (), (unmeasured,), None, None)
    meant = replace(applied(product, amount, ground.size, wanted.on, row), at=wanted.at)
    checked = check(Plan(product, row, rate, meant, candidate.rows, row.target or row.use), ledger, us)
    refused = [f for f in checked.findings if f.act is Weight.REFUSE]
    if wanted.curative and row.intent is Intent.PREVENTIVE:
        said = "Its label gives a preventive rate alone, and the disease is there."
        refused.append(Finding("preventive-only", Weight.REFUSE, said))
    price = cost(product, amount, ground.size, foot_of(us))
    warns = tuple(f for f in checked.findings if f.act in (Weight.ASK, Weight.WARN))
    why = (*_why(wanted, candidate, row, ledger.pieces[0].past, house), *([start.why] if not wanted.curative else []))
    return Pick(candidate, index, rate, row.intent, why, warns, tuple(refused), amount, price.total if price else None)


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
