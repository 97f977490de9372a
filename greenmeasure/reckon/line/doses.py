"""Doses of a line: on areas, held against their ledgers; on bare sizes; for a full tank; over a range; in so much spray."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from core.errors import Ambiguous, Choice, InputError
from core.findings import Finding, Weight, by_weight
from core.ground import Ground
from core.job import Dosing, Job, LoadPlan, MachineKind, Part, PartPlan, Pour, one, reckon
from core.label.match import Fit, fits
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rate import Basis, LabelRate, Rate
from core.label.rules import Row
from core.ledger.gate import Plan, check
from core.ledger.history import applied
from core.ledger.ledger import plain
from core.rates.compare import buy
from core.rates.dose import dose
from core.rates.kinds import in_kind
from core.readable import foot_of, handy, joined
from core.reckon.answer import one_rate, unnamed
from core.reckon.asked import DoseAsked, GroundAsked, MixedAsked, SpanAsked, SprayAsked
from core.units import MASS, UNITS, Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import QuantityIn, working_out
from greenmeasure.kit.models import Machine
from greenmeasure.reckon.line.here import Here
from greenmeasure.reckon.line.words import at_ends, full_tank, in_spray, label_says, load_names, more_loads, so_much_covers
from greenmeasure.reckon.outs import per_foot, said_of
from greenmeasure.reckon.queries import opening, reckoned
from greenmeasure.reckon.schemas import ComponentIn, DoseIn, JobIn, LineOut, PartIn
from greenmeasure.reckon.words import bought_out, cost_why_not, headline, load_name, refilled, vessel_of
from greenmeasure.shelf.queries import Card

MOST_LOADS = 6
"""Loads that are told in the line's own answer."""


@dataclass(frozen=True)
class Meant:
    """One product of a line with its card, its rate and the label row that is meant, by its id; neither, to taste."""

    card: Card
    rate: Rate | None
    row_id: int | None

    @property
    def row(self) -> Row | None:
        return self.card.rows[self.row_id].core() if self.row_id else None


@dataclass(frozen=True)
class Found:
    """A job that was reckoned, with what is said of it and the form that Reckon would open with."""

    job: Job
    said: tuple[str, ...] = ()
    refused: bool = False
    data: JobIn | None = None


def reckoned_dose(here: Here, asked: DoseAsked, text: str) -> Found:
    """A dose that a line asks, reckoned.

    Raises:
        InputError: anything that the sums or the labels cannot do.
        Ambiguous: a bare weight of a fertiliser.
    """
    machine, covers = here.kit[asked.machine] if asked.machine else None, tankful_text(here, asked)
    if covers:
        asked = replace(asked, grounds=(GroundAsked(_covered(here, machine, asked.spray)),))
    if asked.product:
        named = [here.ground[g.area] for g in asked.grounds if isinstance(g.area, str)]
        first = MixedAsked(asked.rate, asked.product, asked.said_product)
        mix = [meant(here, m, text, named[0].ground if named else None) for m in (first, *asked.others)]
        if len(named) == len(asked.grounds):
            return checked(here, _job_in(here, mix, asked, machine))
        return _on_size(here, mix, asked, machine, [covers] if covers else [])
    assert asked.rate is not None
    rate, product = one_rate(asked.rate), unnamed(asked.rate)
    mover = machine.core() if machine else None
    if mover and mover.kind is MachineKind.SPREADER:
        product = _spread(product)
    parts = [one(here.core_ground(g), rate, asked.rate, _narrowed(here, g)) for g in asked.grounds]
    account = here.account
    job = reckon([product], parts, mover, passes=asked.passes or 1, us=account.us, house=account.house_rules)
    return Found(job, (covers,) if covers else ())


def checked(here: Here, data: JobIn, notes: Sequence[str] = ()) -> Found:
    """A dose on areas of the account, held against its ledger as Reckon does; `notes` are said with it."""
    found = reckoned(here.account, data)
    judged, said = found.job.judgement, [*notes, *said_of(found)]
    said = [judged.sentence, *said] if judged.refused else [*said, judged.sentence]
    return Found(found.job, tuple(said), found.refused, data)


def dose_line(account: Account, found: Found, packages: bool = False) -> LineOut:
    """A dose in a sentence, with what is said of it, its loads and what it brings, and in `packages` where that was asked."""
    job, details = found.job, list(found.said)
    if packages:
        details = [f"{c.product.name}: {_packed(c.product, c.amount, account.us)}" for c in job.mix if c.amount] + details
    if len(job.parts) > 1:
        details += [f"{p.part.name}: {_amounts(p)} on {p.part.area}" for p in job.parts]
    if found.refused:
        details += [refilled(job)] if job.machine else []
    else:
        details += _loads(job)
    details += [f"{d.content.name}: {per_foot(d.g_per_m2, account.us)}/{job.foot.unit.symbol}" for d in job.delivered]
    return LineOut(
        kind="dose",
        sentence=headline(job, found.refused),
        refused=found.refused,
        details=[*details, *job.warnings],
        working=working_out(job.working),
        job=found.data,
    )


def span_line(here: Here, asked: SpanAsked, text: str) -> LineOut:
    """A product at the ends of a range, and in its middle where that was asked.

    Raises:
        InputError: a product without a rate on its card, or one whose rate needs a spray volume.
        Ambiguous: a bare weight of a fertiliser.
    """
    ground, where = here.sizes(asked.grounds), joined(here.where(asked.grounds))
    label, product, data = asked.rate, None, None
    if asked.product:
        card = here.shelf[asked.product]
        product = card.core
        placed = here.ground[asked.grounds[0].area].ground if isinstance(asked.grounds[0].area, str) else None
        if label is None:
            row_id = best_row(card, placed)
            label = card.rows[row_id].label()
            if all(isinstance(g.area, str) for g in asked.grounds):
                data = job_of(here, card, asked.grounds)
        else:
            product_or_nutrient(product, MixedAsked(label, asked.product), text, label.highest)
    assert label is not None
    product = product or unnamed(label)
    rates = [label.lowest, label.highest]
    if asked.middle or asked.rate is None:
        rates.insert(1, Rate((label.lowest.value + label.highest.value) / 2, label.highest.unit))
    rates = [r for i, r in enumerate(rates) if r.value > 0 and r.value not in [x.value for x in rates[:i]]]
    found = [dose(product, r, ground) for r in rates]
    told = [(str(r), handy(d.amount)) for r, d in zip(rates, found, strict=True)]
    return LineOut(
        kind="dose",
        sentence=at_ends(asked.product or "", where, told),
        details=[label_says(asked.product, str(label))] if asked.product and asked.rate is None else [],
        working=working_out(tuple(s for d in found for s in d.working)),
        job=data,
    )


def spray_line(here: Here, asked: SprayAsked) -> LineOut:
    """A product in so much finished spray, at the rate that the line gives or at its label's own per volume.

    Raises:
        InputError: a card that has no rate per volume of spray.
    """
    card = here.shelf[asked.product] if asked.product else None
    label = asked.rate or _per_volume(card)
    rate = label.highest
    product = card.core if card else unnamed(label)
    found = dose(product, rate, foot_of(here.account.us), asked.spray.base)
    own = _own_per_volume(card) if asked.rate else None
    details = [label_says(asked.product, str(own))] if own else []
    amount = handy(found.amount)
    return LineOut(
        kind="dose",
        sentence=in_spray(str(amount), asked.product or "", str(asked.spray), str(rate)),
        details=details,
        working=working_out(found.working),
        job=None,
    )


def _own_per_volume(card: Card | None) -> LabelRate | None:
    """A label's first rate per volume of spray, where it has one."""
    return next((r.label for r in card.label_rows if not r.label.unit.per_area), None) if card else None


def _per_volume(card: Card | None) -> LabelRate:
    if card is None:
        raise InputError("product", None, "The line does not say of what.", "Name the product.")
    own, name = _own_per_volume(card), card.product.name
    if own is None:
        raise InputError("product", name, f"{name} has no rate per volume of spray on its card.", "Give one, or an area.")
    return own


def _covered(here: Here, machine: Machine | None, spray: Quantity | None) -> Quantity:
    """What so much spray covers, or a full tank. Raises InputError for an output that is not known, or a spreader."""
    core = machine.core() if machine else None
    if core is None or not core.sprays or core.draws:
        raise InputError("machine", machine and machine.name, "A tank is a sprayer's.", "Name a sprayer.")
    unit = UNITS["ft2" if here.account.us else "m2"]
    return Quantity((spray or core.capacity).base / core.output_base / unit.size, unit)


def tankful_text(here: Here, asked: DoseAsked) -> str:
    """What a full tank covers, or so much spray, in words; empty where the line gives its ground."""
    if asked.grounds or not asked.machine:
        return ""
    machine = here.kit[asked.machine]
    covered = str(_covered(here, machine, asked.spray))
    if asked.spray:
        return so_much_covers(machine.name, str(asked.spray), covered)
    return full_tank(machine.name, str(machine.core().capacity), covered)


def meant(here: Here, asked: MixedAsked, text: str, ground: Ground | None) -> Meant:
    """A product of the line and the row of its label that is meant. Raises as `label_for`; a bare weight of a feed is asked."""
    card = here.shelf[asked.product]
    if asked.rate is None:
        return Meant(card, None, None)
    rate = one_rate(asked.rate)
    product_or_nutrient(card.core, asked, text, rate)
    return Meant(card, rate, label_for(card, rate, ground))


def _on_size(here: Here, mix: Sequence[Meant], asked: DoseAsked, machine: Machine | None, notes: Sequence[str]) -> Found:
    """A dose on ground of which only the size is given: held against the labels, of no grass and no past."""
    account, house = here.account, here.account.house_rules
    doses = tuple(Dosing(m.rate, m.row.label) if m.rate and m.row else Dosing() for m in mix)
    parts = [Part(here.core_ground(g), doses, _narrowed(here, g)) for g in asked.grounds]
    mover = machine.core() if machine else None
    job = reckon([m.card.core for m in mix], parts, mover, passes=asked.passes or 1, us=account.us, house=house)
    found = [f for p in job.parts for f in _against_labels(here, mix, p)]
    refused = job.judgement.refused or any(f.act is Weight.REFUSE for f in found)
    said = [*notes, judgement_out(job.judgement).sentence, *(f.sentence for f in by_weight(found) if f.act is not Weight.NOTE)]
    return Found(job, tuple(dict.fromkeys(said)), refused)


def _against_labels(here: Here, mix: Sequence[Meant], planned: PartPlan) -> list[Finding]:
    account, on = here.account, today(here.account)
    measured = [(m, m.row, d) for m, d in zip(mix, planned.doses, strict=True) if d and m.row]
    down = [
        replace(applied(m.card.core, d.dose.amount, planned.part.area, on, row), application="line") for m, row, d in measured
    ]
    found: list[Finding] = []
    for i, (m, row, d) in enumerate(measured):
        plan = Plan(m.card.core, row, d.judged, down[i], m.card.label_rows)
        bears = plain(planned.part.ground, (*down[:i], *down[i + 1 :]), account.house_rules)
        found += check(plan, bears, account.us).findings
    return found


def _narrowed(here: Here, asked: GroundAsked) -> Quantity | None:
    return None if asked.share == 1 else here.size(asked)


def _loads(job: Job) -> list[str]:
    """What goes into each load, those that are alike in one line."""
    alike: list[tuple[list[LoadPlan], str]] = []
    for plan in job.loads:
        pours = [f"{x.measure.instruction}{_of(x, job)} in the {x.measure.vessel.name}" for x in plan.pours if x.measure]
        if alike and alike[-1][1] == "; ".join(pours):
            alike[-1][0].append(plan)
        elif pours:
            alike.append(([plan], "; ".join(pours)))
    vessel = vessel_of(job)
    told = [f"{load_names([load_name(p, vessel) for p in plans])}: {text}" for plans, text in alike]
    return [*told[:MOST_LOADS], *([more_loads(len(told) - MOST_LOADS)] if len(told) > MOST_LOADS else [])]


def _packed(product: Product, amount: Quantity, us: bool) -> str:
    """How many packages an amount takes. Raises nothing: a product without a package says so."""
    found = buy(product.packages, amount)
    return bought_out(found, "", "", us).sentence if found else cost_why_not(product)


def _amounts(p: PartPlan) -> str:
    """What goes down on a part, each component named where there are several."""
    return joined([f"{d.dose.amount} of {d.product.name}" if len(p.measured) > 1 else str(d.dose.amount) for d in p.measured])


def _of(pour: Pour, job: Job) -> str:
    return f" of {pour.product.name}" if len(job.mix) > 1 else ""


def product_or_nutrient(product: Product, asked: MixedAsked, text: str, amount: Rate) -> None:
    """A bare weight of a fertiliser can be product or nitrogen: asked back with what each would come to."""
    rate = asked.rate
    content = product.content(Basis.N)
    bare = rate is not None and rate.basis is Basis.PRODUCT and amount.unit.amount.dimension == MASS and not asked.said_product
    if not (bare and product.is_a(Kind.FERTILISER) and content and content.percent):
        return
    symbol, share = amount.unit.amount.symbol, content.percent / 100
    as_product = Rate(amount.value * share, amount.unit)
    as_n = Rate(amount.value / share, amount.unit)
    at = text.lower().find(symbol.lower())
    lines = [f"{text[: at + len(symbol)]} {w}{text[at + len(symbol) :]}" if at >= 0 else text for w in ("product", "N")]
    raise Ambiguous(
        "line",
        text,
        f"{amount} of {product.name} can be product, which brings {as_product} N, or nitrogen, which takes {as_n} of product: "
        f"{1 / share:.3g} times as much.",
        "Say which.",
        [Choice(lines[0], f"{as_product} N"), Choice(lines[1], f"{as_n} product")],
    )


def _spread(product: Product) -> Product:
    if product.liquid:
        raise InputError("machine", None, "A spreader spreads by weight, and the rate is a volume.", "Pick a sprayer.")
    return replace(product, formulation=FORMULATIONS["GR"])


def label_for(card: Card, rate: Rate, ground: Ground | None) -> int:
    """The rate row that is meant, by its id: of those that fit the ground best, one that the rate lies within, or the first.

    A row is never taken because its rate fits while its ground does not.

    Raises:
        InputError: no row can be told in the rate's kind of unit.
    """
    alike: list[tuple[int, int, bool]] = []
    fault = None
    for f in _fits(card, ground):
        label = f.row.label
        try:
            here = in_kind(card.core, rate, label.highest.unit).base
        except InputError as wrong:
            fault = wrong
            continue
        within = label.lowest.base * (1 - 1e-9) <= here <= label.highest.base * (1 + 1e-9)
        alike.append((len(f.misses), f.index, within))
    if not alike:
        name = card.product.name
        raise fault or InputError("product", name, f"{name} has no rate on its card.", "Type its rate as the label prints it.")
    least = min(misses for misses, _, _ in alike)
    best = [(index, within) for misses, index, within in alike if misses == least]
    index = next((i for i, within in best if within), best[0][0])
    return list(card.rows)[index]


def best_row(card: Card, ground: Ground | None) -> int:
    """The rate row that fits a ground best, of those per area, by its id. Raises InputError for a card without one."""
    found = [f for f in _fits(card, ground) if f.row.label.unit.per_area]
    if not found:
        name = card.product.name
        raise InputError("product", name, f"{name} has no rate per area on its card.", "Give one in the line.")
    return list(card.rows)[min(found, key=lambda f: (len(f.misses), f.index)).index]


def _fits(card: Card, ground: Ground | None) -> Sequence[Fit]:
    return fits(card.label_rows, ground) if ground else [Fit(row, i, (), frozenset()) for i, row in enumerate(card.label_rows)]


def _job_in(here: Here, mix: Sequence[Meant], asked: DoseAsked, machine: Machine | None) -> JobIn:
    doses = [
        DoseIn(row_id=m.row_id, rate=QuantityIn(value=m.rate.value, unit=m.rate.unit.key)) if m.rate else DoseIn() for m in mix
    ]
    parts = [
        PartIn(area_id=here.ground[str(g.area)].pk, doses=doses, share="" if g.share == 1 else f"{g.share * 100:g} %")
        for g in asked.grounds
    ]
    return JobIn(
        mix=[ComponentIn(product_id=m.card.product.pk) for m in mix],
        parts=parts,
        machine_id=machine.pk if machine else None,
        passes=asked.passes or 1,
    )


def job_of(here: Here, card: Card, grounds: tuple[GroundAsked, ...]) -> JobIn:
    """A product on areas as Reckon would open with it: at the row that fits the first best, at the rate the house starts from."""
    row_id = best_row(card, here.core_ground(grounds[0]))
    start = opening(here.account, card.core, card.rows[row_id].core(), [])[0]
    return _job_in(here, [Meant(card, start, row_id)], DoseAsked(None, card.product.name, grounds, None, None), None)
