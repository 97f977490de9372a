"""The reckon line for an account: names looked up, the core asked, one sentence and its working out."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from core.errors import Ambiguous, Choice, InputError
from core.findings import Finding, Weight, by_weight
from core.ground import Ground
from core.job import Dosing, Job, MachineKind, Part, PartPlan, Pour, one, reckon
from core.label.match import Fit, fits
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rate import Basis, Rate
from core.label.rules import Row
from core.ledger.gate import Plan, check
from core.ledger.history import applied
from core.ledger.ledger import plain
from core.rates.dose import dose
from core.rates.kinds import in_kind
from core.rates.reverse import rate_from_left, rate_of
from core.readable import foot_of, joined
from core.reckon.answer import convert_line, one_rate, reach, unnamed
from core.reckon.asked import (
    BackwardsAsked,
    BringsAsked,
    CompareAsked,
    ConversionAsked,
    CupAsked,
    DoseAsked,
    EarlierAsked,
    GroundAsked,
    MeasureAsked,
    MixAsked,
    MixedAsked,
    Names,
    ReachAsked,
)
from core.reckon.grammar import read_line
from core.tank.measuring import check_cup, ways
from core.tank.vessels import measure
from core.units import MASS, Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import QuantityIn, working_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine as MachineRow
from greenmeasure.kit.queries import machines
from greenmeasure.kit.vessels import cabinet
from greenmeasure.reckon.comparing import compared
from greenmeasure.reckon.earlier import earlier_job, kept_job
from greenmeasure.reckon.models import KeptMix
from greenmeasure.reckon.outs import per_foot, said_of
from greenmeasure.reckon.queries import reckoned
from greenmeasure.reckon.schemas import CompareIn, ComponentIn, DoseIn, JobIn, LineOut, PartIn
from greenmeasure.reckon.words import brings_sentence, headline, load_name, vessel_of
from greenmeasure.shelf.models import Product as ProductRow
from greenmeasure.shelf.queries import Card, cards

MOST_LOADS = 6


class _Account:
    """What a line's names stand for in an account."""

    def __init__(self, account: Account) -> None:
        self.account = account
        self.ground: dict[str, Area] = {a.name: a for a in areas(account).values() if not a.archived_at}
        self.kit: dict[str, MachineRow] = {m.name: m for m in machines(account).values() if not m.archived_at}
        self.shelf: dict[str, ProductRow] = {
            c.product.name: c.product for c in cards(account).values() if not c.product.archived_at
        }

    @cached_property
    def mixes(self) -> dict[str, KeptMix]:
        return {m.name: m for m in KeptMix.objects.of(self.account).kept()}

    @property
    def names(self) -> Names:
        return Names(list(self.ground), list(self.shelf), list(self.kit), list(self.mixes))

    def size(self, asked: GroundAsked) -> Quantity:
        whole = self.ground[asked.area].size if isinstance(asked.area, str) else asked.area
        return Quantity(whole.value * asked.share, whole.unit)


def answer_line(account: Account, text: str) -> LineOut:
    """The answer to a reckon line.

    Raises:
        NotUnderstood, Ambiguous, InputError: as the grammar and the sums do.
    """
    here = _Account(account)
    asked = read_line(text, here.names)
    if isinstance(asked, MixAsked):
        found = kept_job(account, here.mixes[asked.mix], asked, here.ground, here.kit)
        return _checked(here, found.job, found.notes)
    if isinstance(asked, EarlierAsked):
        found = earlier_job(account, asked, here.ground)
        return _checked(here, found.job, found.notes)
    if isinstance(asked, DoseAsked):
        return _dose(here, asked, text)
    if isinstance(asked, BackwardsAsked):
        return _backwards(here, asked)
    if isinstance(asked, BringsAsked):
        return _brings(here, asked)
    if isinstance(asked, CompareAsked):
        return _compare(here, asked)
    if isinstance(asked, MeasureAsked):
        return _measure(here, asked)
    if isinstance(asked, CupAsked):
        cup = check_cup(asked.mark, asked.weight, asked.celsius)
        return LineOut(kind="cup", sentence=cup.sentence, details=[], working=working_out(cup.working), job=None)
    kind = "conversion" if isinstance(asked, ConversionAsked) else "reach"
    answer = reach(asked.amount, asked.rate) if isinstance(asked, ReachAsked) else convert_line(asked)
    return LineOut(kind=kind, sentence=answer.sentence, details=[], working=working_out(answer.working), job=None)


# --- a dose -----------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class _Meant:
    """One product of a line with its card, its rate and the label row that is meant, by its id."""

    card: Card
    rate: Rate
    row_id: int

    @property
    def row(self) -> Row:
        return self.card.rows[self.row_id].core()


def _dose(here: _Account, asked: DoseAsked, text: str) -> LineOut:
    account = here.account
    machine = here.kit[asked.machine] if asked.machine else None
    if asked.product:
        named = [here.ground[g.area] for g in asked.grounds if isinstance(g.area, str)]
        first = MixedAsked(asked.rate, asked.product, asked.said_product)
        mix = [_meant(here, one, text, named[0].ground if named else None) for one in (first, *asked.others)]
        if len(named) == len(asked.grounds):
            return _checked(here, _job_in(here, mix, asked, machine))
        return _on_size(here, mix, asked, machine)
    product = unnamed(asked.rate)
    mover = machine.core() if machine else None
    if mover and mover.kind is MachineKind.SPREADER:
        product = _spread(product)
    rate = one_rate(asked.rate)
    parts = [one(_ground(here, g), rate, asked.rate, None if g.share == 1 else here.size(g)) for g in asked.grounds]
    job = reckon([product], parts, mover, passes=asked.passes or 1, us=account.us, house=account.house_rules)
    return _dose_out(account, job, [])


def _meant(here: _Account, asked: MixedAsked, text: str, ground: Ground | None) -> _Meant:
    """A product of the line and the row of its label that is meant. Raises as `label_for`; a bare weight of a feed is asked."""
    row, rate = here.shelf[asked.product], one_rate(asked.rate)
    _product_or_nutrient(row.core(), asked, text)
    card = cards(here.account)[row.pk]
    return _Meant(card, rate, label_for(card, rate, ground))


def _checked(here: _Account, data: JobIn, notes: Sequence[str] = ()) -> LineOut:
    """A dose on areas of the account, held against its ledger as Reckon does; `notes` are said with it."""
    found = reckoned(here.account, data)
    judged, said = found.job.judgement, [*notes, *said_of(found)]
    said = [judged.sentence, *said] if judged.refused else [*said, judged.sentence]
    return _dose_out(here.account, found.job, said, found.refused, data)


def _on_size(here: _Account, mix: Sequence[_Meant], asked: DoseAsked, machine: MachineRow | None) -> LineOut:
    """A dose on ground of which only the size is given: held against the labels, of no grass and no past."""
    account, house = here.account, here.account.house_rules
    doses = tuple(Dosing(m.rate, m.row.label) for m in mix)
    parts = [Part(_ground(here, g), doses, None if g.share == 1 else here.size(g)) for g in asked.grounds]
    mover = machine.core() if machine else None
    job = reckon([m.card.core for m in mix], parts, mover, passes=asked.passes or 1, us=account.us, house=house)
    on = today(account)
    found: list[Finding] = []
    for p in job.parts:
        meant = [
            replace(applied(m.card.core, d.dose.amount, p.part.area, on, m.row), application="line")
            for m, d in zip(mix, p.measured, strict=True)
        ]
        for i, (m, d) in enumerate(zip(mix, p.measured, strict=True)):
            plan = Plan(m.card.core, m.row, d.judged, meant[i], m.card.label_rows)
            others = (*meant[:i], *meant[i + 1 :])
            found += check(plan, plain(p.part.ground, others, house), account.us).findings
    refused = job.judgement.refused or any(f.act is Weight.REFUSE for f in found)
    said = [judgement_out(job.judgement).sentence, *(f.sentence for f in by_weight(found) if f.act is not Weight.NOTE)]
    return _dose_out(account, job, list(dict.fromkeys(said)), refused)


def _dose_out(account: Account, job: Job, said: list[str], refused: bool = False, data: JobIn | None = None) -> LineOut:
    details = list(said)
    if len(job.parts) > 1:
        details += [f"{p.part.name}: {_amounts(p)} on {p.part.area}" for p in job.parts]
    if not refused:
        details += [
            f"{load_name(p, vessel_of(job))}: {x.measure.instruction}{_of(x, job)} in the {x.measure.vessel.name}"
            for p in job.loads[:MOST_LOADS]
            for x in p.pours
            if x.measure
        ]
        if len(job.loads) > MOST_LOADS:
            details.append(f"and {len(job.loads) - MOST_LOADS} more loads")
    details += [f"{d.content.name}: {per_foot(d.g_per_m2, account.us)}/{job.foot.unit.symbol}" for d in job.delivered]
    return LineOut(
        kind="dose",
        sentence=headline(job, refused),
        refused=refused,
        details=[*details, *job.warnings],
        working=working_out(job.working),
        job=data,
    )


def _amounts(p: PartPlan) -> str:
    """What goes down on a part, each component named where there are several."""
    return joined([f"{d.dose.amount} of {d.product.name}" if len(p.measured) > 1 else str(d.dose.amount) for d in p.measured])


def _of(pour: Pour, job: Job) -> str:
    return f" of {pour.product.name}" if len(job.mix) > 1 else ""


def _product_or_nutrient(product: Product, asked: MixedAsked, text: str) -> None:
    """A bare weight of a fertiliser can be product or nitrogen: asked back with what each would come to."""
    rate = asked.rate
    content = product.content(Basis.N)
    bare = rate.basis is Basis.PRODUCT and rate.unit.amount.dimension == MASS and not asked.said_product
    if not (bare and product.is_a(Kind.FERTILISER) and content and content.percent):
        return
    amount, symbol = rate.highest, rate.unit.amount.symbol
    share = content.percent / 100
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


def _ground(here: _Account, asked: GroundAsked) -> Ground:
    if isinstance(asked.area, str):
        return here.ground[asked.area].ground
    return Ground("that area", asked.area)


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
    for f in fits(card.label_rows, ground) if ground else _unplaced(card.label_rows):
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


def _unplaced(rows: Sequence[Row]) -> list[Fit]:
    return [Fit(row, i, (), frozenset()) for i, row in enumerate(rows)]


def _job_in(here: _Account, mix: Sequence[_Meant], asked: DoseAsked, machine: MachineRow | None) -> JobIn:
    doses = [DoseIn(row_id=m.row_id, rate=QuantityIn(value=m.rate.value, unit=m.rate.unit.key)) for m in mix]
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


# --- other questions --------------------------------------------------------------------------------------------


def _backwards(here: _Account, asked: BackwardsAsked) -> LineOut:
    row = here.shelf[asked.product]
    product = row.core()
    sizes = [here.size(g) for g in asked.grounds]
    ground = Quantity(sum(s.base for s in sizes) / sizes[0].unit.size, sizes[0].unit)
    rows = list(row.rates.all())
    label = next((r.label() for r in rows if r.label().unit.per_area), rows[0].label())
    found = (
        rate_from_left(product, label, asked.had, asked.left, ground)
        if asked.left
        else rate_of(product, label, asked.had, ground)
    )
    return LineOut(kind="backwards", sentence=found.sentence, details=[], working=working_out(found.working), job=None)


def _brings(here: _Account, asked: BringsAsked) -> LineOut:
    product = here.shelf[asked.product].core()
    us = here.account.us
    foot = foot_of(us)
    rate = one_rate(asked.rate)
    found = dose(product, rate, foot)
    brings = [f"{per_foot(d.g_per_m2, us)} {d.content.name}" for d in found.delivered]
    if not brings:
        raise InputError(
            "product",
            product.name,
            f"{product.name} lists nothing that can be counted.",
            "Add its contents to the card, and its density if it is a liquid.",
        )
    sentence = brings_sentence(rate, product.name, brings, foot)
    return LineOut(kind="brings", sentence=sentence, details=[], working=working_out((*found.working, *found.brings)), job=None)


def _compare(here: _Account, asked: CompareAsked) -> LineOut:
    if not isinstance(asked.ground.area, str):
        raise InputError("line", str(asked.ground.area), "Compare on an area of the account.", "Name one of your areas.")
    share = "" if asked.ground.share == 1 else f"{asked.ground.share * 100:g} %"
    data = CompareIn(
        area_id=here.ground[asked.ground.area].pk,
        share=share,
        target=asked.target,
        product_ids=[here.shelf[p].pk for p in asked.products],
    )
    found = compared(here.account, data)
    details = [
        f"{r.product}: {', '.join(x for x in (r.rate.text, r.amount, r.cost, r.active, r.problem) if x)}" for r in found.rows
    ]
    return LineOut(kind="compare", sentence=found.sentence, details=details, working=[], job=None)


def _measure(here: _Account, asked: MeasureAsked) -> LineOut:
    product = here.shelf[asked.product].core() if asked.product else None
    by = measure(asked.amount, cabinet(here.account))
    others = [w.text for w in ways(asked.amount, product.density_g_per_l if product else None) if w.text != str(asked.amount)]
    sentence = f"{asked.amount}: {by.instruction} in the {by.vessel.name}."
    return LineOut(kind="measure", sentence=sentence, details=[*others, *([by.note] if by.note else [])], working=[], job=None)
