"""A plan for one ground against everything the label card, the ground and the house say of it.

For pesticides and growth regulators what the label does not list is refused; for the rest it warns.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta

from core.days import day, so_many
from core.findings import Finding, Weight, by_weight
from core.grasses import GRASSES
from core.ground import Ground, Stress
from core.label.match import fit, gap_in_heights, height_span, unlisted
from core.label.product import Kind, Product
from core.label.rate import Rate, show_label_rate
from core.label.rules import Intent, Row, unreadable_text
from core.label.targets import TARGETS, find_target, includes, mistaken_for
from core.ledger.amendments import amended
from core.ledger.budget import Budget, budget, over_budget, worst
from core.ledger.history import Applied, Standing, of_season
from core.ledger.ledger import Ledger
from core.ledger.locks import locked
from core.ledger.mates import mates_of, mixed
from core.ledger.places import Piece
from core.ledger.rotation import apart, binding, company, interval, rotation
from core.rates import nutrients
from core.rates.limits import SLACK, Stand, stand_of
from core.rates.misread import misread
from core.readable import is_us, joined
from core.readable import listed as listed_names
from core.schools import House
from core.units import UNITS, show_number
from core.weather.windows import Fit

NOISE = 1 + SLACK
"""Two rates closer than this factor are the same."""


@dataclass(frozen=True)
class Plan:
    """One product on one ground at one time: the row of the label that is meant, the rate, and what the dose brings.

    `rows` are all rows of the product's label.
    """

    product: Product
    row: Row
    rate: Rate
    applied: Applied
    rows: tuple[Row, ...] = ()
    target: str = ""

    @property
    def on(self) -> date:
        return self.applied.on


@dataclass(frozen=True)
class Checked:
    """What was found on a day, the gravest first, and the season's budget."""

    on: date
    findings: tuple[Finding, ...]
    budget: Budget

    @property
    def refused(self) -> bool:
        return any(f.act is Weight.REFUSE for f in self.findings)


def check(plan: Plan, ledger: Ledger, us: bool = True) -> Checked:
    """Hold a plan against everything that bears on it. Every door asks this, and gets the same answer.

    Each piece of the ground is asked for itself, by its own facts and its own past; what is said is the gravest of each kind.

    Args:
        plan: what is meant to go down.
        ledger: of its ground and day.
        us: whether to speak in US units.
    """
    every = [_piece(plan, piece, ledger, us) for piece in ledger.pieces]
    found = [
        *_unreadable(plan),
        *_rate(plan),
        *_most(plan),
        *_target(plan),
        *_between(plan),
        *_purpose(plan),
        *_hour(plan, ledger),
        *_gravest([_of_spots(p, c.findings) for p, c in zip(ledger.pieces, every, strict=True)]),
        *_yellow(plan, ledger.house),
    ]
    lawn = [c.budget for p, c in zip(ledger.pieces, every, strict=True) if not p.spots]
    return Checked(plan.on, by_weight(found), worst(lawn))


def _of_spots(piece: Piece, findings: Sequence[Finding]) -> Sequence[Finding]:
    """What a rule says of spots that were treated before: they can be left out, so it warns where it would refuse."""
    if not piece.spots:
        return findings
    days = joined([day(d) for d in piece.spots])
    return [
        replace(f, act=Weight.WARN, sentence=f"On the spots of {days}: {f.sentence} Leave those spots out.")
        if f.act is Weight.REFUSE
        else f
        for f in findings
    ]


def _piece(plan: Plan, piece: Piece, ledger: Ledger, us: bool) -> Checked:
    """What is said of a plan on one piece of its ground."""
    ground, past, house = piece.ground, piece.past, ledger.house
    season = of_season(past, house.season_of(plan.on))
    spent = budget(plan.product, plan.applied, season, ground, us)
    found = [
        *_row(plan, ground),
        *_twice(plan, ground, past),
        *_seed(plan, ground),
        *_stress(plan, ground),
        *_near(plan, ground, us),
        *_sown(plan, ground),
        *amended(plan.product, replace(plan.applied, target=plan.target), ground, season, house, us),
        *nutrients.once(plan.product, dict(plan.applied.nutrients), ground, plan.on, house, us),
        *over_budget(spent, plan.product),
        *rotation(plan.product, plan.applied, past, house),
        *interval(plan.product, plan.applied, past),
        *apart(plan.product, plan.applied, past),
        *company(plan.product, plan.applied, past, house),
        *mixed(plan.product, plan.row, plan.rate, mates_of(plan.applied, past)),
        *locked(plan.product, plan.applied, past, ledger.zone),
        *_unknown_cards(plan, season),
    ]
    return Checked(plan.on, tuple(found), spent)


OF_THE_LABEL = ("air", "wind", "soil", "leaf", "dry_before", "dry_after", "mow_before", "mow_after")
"""What of an hour a label rules; the rest, such as the dark, is for whoever goes out."""


def _hour(plan: Plan, ledger: Ledger) -> list[Finding]:
    """The label's weather and soil rules at the plan's hour: known and against it refuses, not known is asked."""
    found = []
    for r in ledger.hour:
        if r.key not in OF_THE_LABEL:
            continue
        if r.fit is Fit.BAD:
            found.append(Finding(f"hour-{r.key}", binding(plan.product), r.text))
        elif r.fit is Fit.UNKNOWN:
            act, how = (Weight.NOTE, "Look on the day.") if ledger.ahead else (Weight.ASK, "Look, and say how it is.")
            found.append(Finding(f"hour-{r.key}", act, f"{r.text} {how}"))
    return found


def _gravest(every: Sequence[Sequence[Finding]]) -> list[Finding]:
    """What pieces say, each kind of finding from the first piece that says it gravest; what lies near, from all of them."""
    best: dict[str, tuple[Weight, int]] = {}
    for i, findings in enumerate(every):
        for f in findings:
            if f.key not in best or f.act < best[f.key][0]:
                best[f.key] = (f.act, i)
    return [f for i, findings in enumerate(every) for f in findings if best[f.key][1] == i or f.key.startswith("near-")]


def _twice(plan: Plan, ground: Ground, past: Sequence[Applied]) -> list[Finding]:
    """Ground that the same job treats twice: with a whole, and again with its part."""
    again = [a for a in past if a.standing is Standing.SAME_JOB and a.is_of(plan.product)]
    mine, others = _amount(plan.applied), [_amount(a) for a in again]
    if not again or not mine or any(o is None for o in others):
        return []
    times = 1 + sum(o or 0.0 for o in others) / mine
    rate = Rate(plan.rate.value * times, plan.rate.unit)
    most = plan.row.label.highest
    over = plan.rate.unit.kind == most.unit.kind and stand_of(rate.to(most.unit).value, 0.0, most.value) is Stand.ABOVE
    said = f"{ground.name} is treated twice in this job, with the whole and as its part: {rate} in all"
    if over:
        said += f", and the label's most is {most}"
    return [Finding("twice-in-a-job", binding(plan.product) if over else Weight.WARN, f"{said}. Leave one of them out.")]


def _amount(a: Applied) -> float | None:
    return a.litres if a.litres is not None else a.grams


def _unknown_cards(plan: Plan, season: Sequence[Applied]) -> list[Finding]:
    """Says which applications were taken for this product's by what they held, their card not being on the shelf."""
    alike = [a for a in season if a.by_actives(plan.product)]
    if not alike:
        return []
    named = ", ".join(dict.fromkeys(f"{a.product} ({day(a.on)})" for a in alike))
    said = f"No card on the shelf is known for {named}: it held the same actives, so it counts as {plan.product.name}."
    return [Finding("matched-by-actives", Weight.NOTE, said)]


def _unreadable(plan: Plan) -> list[Finding]:
    """A rule of the card that cannot be read stops the plan: what it would say is not known."""
    return [
        Finding("rule-unreadable", Weight.REFUSE, unreadable_text(plan.product.name, said))
        for said in plan.product.rules.unreadable
    ]


def _row(plan: Plan, ground: Ground) -> list[Finding]:
    act, found, rows = binding(plan.product), [], plan.rows
    here = fit(plan.row, 0, ground, plan.target)
    if plan.product.label_binds and rows and all("grass" in fit(r, 0, ground).aspects for r in rows):
        return [
            Finding(
                "grass-not-listed",
                act,
                f"The label of {plan.product.name} does not list {_not_listed(rows, ground)}, which is on {ground.name}."
                f"{SAY_WHICH if ground.sward.unsaid else ''}",
            )
        ]
    gap = gap_in_heights(rows, ground, plan.target)
    if gap:
        found.append(Finding("height-in-no-row", act, gap))
    if "height" in here.aspects and ground.height is None:
        where = "Enter it on its page, where it is kept."
        span = height_span(plan.row, UNITS["in" if is_us(ground.size.unit) else "mm"])
        found.append(Finding("height-unknown", Weight.ASK, f"The row is for {span}. How high is {ground.name} mown? {where}"))
    said = {"grass": "grass-not-in-row", "height": "height-not-in-row", "use": "use-not-in-row", "target": "target-not-in-row"}
    for aspect, key in said.items():
        if aspect in here.aspects and not (aspect == "height" and (gap or ground.height is None)):
            words = next(m for m, a in zip(here.misses, _order(here.aspects), strict=True) if a == aspect)
            found.append(Finding(key, act, f"{words} Pick the row that is meant."))
    return found


SAY_WHICH = " Say on the area's page which grasses it has: each must be on the label."


def _not_listed(rows: Sequence[Row], ground: Ground) -> str:
    """What of a ground's sward no row that comes nearest lists."""
    fewest = min((unlisted(r, ground.sward) for r in rows), key=len)
    return joined([GRASSES[g].name.lower() for g in fewest])


def _order(aspects: frozenset[str]) -> list[str]:
    return [a for a in ("grass", "height", "use", "target", "intent") if a in aspects]


def _rate(plan: Plan) -> list[Finding]:
    found = misread(plan.rate, plan.row.label, plan.product)
    return [found] if found else []


def _most(plan: Plan) -> list[Finding]:
    most = plan.product.rules.most_per_application
    if most is None or most.highest.unit.kind != plan.rate.unit.kind:
        return []
    here = plan.rate.to(most.highest.unit).value
    if stand_of(here, 0.0, most.highest.value) != "above":
        return []
    return [
        Finding(
            "most-per-application",
            binding(plan.product),
            f"{plan.rate} is above the most in one application: {show_label_rate(most)}.",
        )
    ]


def _asked_for(plan: Plan) -> list[Finding]:
    """What it is for is asked where the label's rows for different targets say different things."""
    by_target: dict[str, set[object]] = {}
    for r in plan.rows:
        if named := find_target(r.target or r.use):
            by_target.setdefault(named.key, set()).add((r.label.lowest.base, r.label.highest.base, r.interval))
    if len({frozenset(said) for said in by_target.values()}) < 2:
        return []
    names = listed_names([TARGETS[key].name.lower() for key in by_target])
    said = f"What is {plan.product.name} for? Its label says different things for {names}. Pick the target."
    return [Finding("target-not-said", Weight.ASK, said)]


def _between(plan: Plan) -> list[Finding]:
    """A rate over the label's preventive range and under its curative one is neither."""
    alike = [r for r in plan.rows if r.label.unit.kind == plan.row.label.unit.kind and _one_target(r, plan.row)]
    high = max((r.label.highest.base for r in alike if r.intent is Intent.PREVENTIVE), default=None)
    low = min((r.label.lowest.base for r in alike if r.intent is Intent.CURATIVE), default=None)
    unit = plan.row.label.highest.unit
    if high is None or low is None or not high * NOISE < plan.rate.to(unit).base < low / NOISE:
        return []
    rates = [Rate(base / unit.size, unit) for base in (high, low)]
    span = f"the label's preventive rate, up to {rates[0]}, and its curative one, from {rates[1]}"
    return [Finding("between-rows", Weight.WARN, f"{plan.rate} lies between {span}: it is neither.")]


def _one_target(a: Row, b: Row) -> bool:
    one, other = find_target(a.target or a.use), find_target(b.target or b.use)
    return one is other


def _target(plan: Plan) -> list[Finding]:
    if not plan.target:
        return _asked_for(plan)
    found: list[Finding] = []
    wanted = find_target(plan.target)
    name = wanted.name.lower() if wanted else plan.target
    listed = {t.key for r in plan.rows if (t := find_target(r.target or r.use))}
    if wanted and listed and not any(includes(key, wanted.key) for key in listed) and plan.product.label_binds:
        found.append(Finding("target-not-listed", Weight.REFUSE, f"The label of {plan.product.name} does not list {name}."))
    if wanted:
        found += [Finding("look-alike", Weight.NOTE, said) for said in mistaken_for(wanted.key)]
    return found


def _seed(plan: Plan, ground: Ground) -> list[Finding]:
    rules = plan.product.rules
    if ground.overseed_on is None or rules.seed_before is None or ground.overseed_on < plan.on:
        return []
    days = (ground.overseed_on - plan.on).days
    if days >= rules.seed_before:
        return []
    return [
        Finding(
            "seeding-ahead",
            binding(plan.product),
            f"{ground.name} is to be overseeded on {day(ground.overseed_on)}, "
            f"in {so_many(days)}; the label asks for {rules.seed_before} between it and seed.",
        )
    ]


def _sown(plan: Plan, ground: Ground) -> list[Finding]:
    rules, sown = plan.product.rules, ground.sown_by(plan.on)
    if rules.seed_after is None:
        return []
    if sown is None and ground.sown_on is None:
        ask = f"The label asks for {so_many(rules.seed_after)} after seeding. When was {ground.name} sown?"
        return [Finding("seed-day-unknown", Weight.ASK, f"{ask} Enter the day on its page, where it is kept; the year will do.")]
    if sown is None:
        return []
    days = (plan.on - sown).days
    if days >= rules.seed_after:
        return []
    first = day(sown + timedelta(days=rules.seed_after))
    said = f"{ground.name} was sown {so_many(days)} ago"
    if sown != ground.sown_on:
        meant = f"{ground.name} was to be overseeded on {day(sown)}, {so_many(days)} ago"
        said = f"{meant}; if it was not, take that day off its card"
    return [
        Finding(
            "seed-too-young",
            binding(plan.product),
            f"{said}; the label asks for {rules.seed_after} before this goes on young grass. From {first}.",
        )
    ]


def _stress(plan: Plan, ground: Ground) -> list[Finding]:
    stress, kind = ground.stress, plan.product.kind
    if stress is Stress.NONE or (stress is Stress.DISEASE and kind is Kind.FUNGICIDE):
        return []
    if stress is Stress.INSECTS and kind is Kind.INSECTICIDE:
        return []
    careful = kind in (Kind.GROWTH_REGULATOR, Kind.HERBICIDE, Kind.FERTILISER, Kind.IRON, Kind.BIOSTIMULANT)
    if not careful:
        return []
    what = {Kind.GROWTH_REGULATOR: "held back by a regulator", Kind.HERBICIDE: "sprayed with a herbicide"}.get(kind, "pushed")
    return [
        Finding(
            "stress",
            Weight.WARN,
            f"{ground.name} suffers from {stress.text}: turf that is {what} then is set back. "
            "Find the cause first; hunger, drought and disease look alike.",
        )
    ]


def _near(plan: Plan, ground: Ground, us: bool) -> list[Finding]:
    found = []
    for hazard in ground.hazards:
        wide = max(hazard.buffer, plan.product.rules.buffer or 0.0)
        keep = f"keep {show_number(wide / 0.3048, 3)} ft" if us else f"keep {show_number(wide, 3)} m"
        how = f"{keep} away" if wide else "keep off it"
        named = f"{hazard.kind.text} ({hazard.name})" if hazard.name else hazard.kind.text
        act = Weight.WARN if hazard.kind.wet else Weight.NOTE
        found.append(Finding(f"near-{hazard.kind.value}", act, f"Near {ground.name} lies {named}: {how}."))
    return found


def _purpose(plan: Plan) -> list[Finding]:
    """A pesticide put down for something only a soil amendment does."""
    wanted = find_target(plan.target)
    if wanted and wanted.kind == "soil" and plan.product.label_binds:
        return [
            Finding(
                "off-purpose",
                Weight.REFUSE,
                f"{plan.product.name} is a {plan.product.leading.text}; its label is for no soil "
                "amendment, even where what is in it is the same.",
            )
        ]
    return []


def _yellow(plan: Plan, house: House) -> list[Finding]:
    if not plan.product.is_a(Kind.GROWTH_REGULATOR):
        return []
    how = {
        "mow_off": "mow it off; it grows out.",
        "prevent": "lower the dose, and mow an hour before or some hours after.",
        "mask": "a little iron or nitrogen in the tank hides it.",
    }[house.of("yellowing")]
    return [Finding("yellowing", Weight.NOTE, f"A pale tinge for some days is usual; {how}")]
