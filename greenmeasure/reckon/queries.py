"""Reckoning for an account: its products, ground, machines and book into the core."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime

from core.errors import InputError
from core.findings import Finding, by_weight
from core.ground import Ground
from core.growth.ramp import regulator_start, start_in_range
from core.job import DosePlan, Dosing, Job, MachineKind, Part, PartPlan, reckon
from core.label.match import fits
from core.label.product import Kind, Product
from core.label.rate import Rate, RateUnit
from core.label.rules import Intent, Row
from core.label.targets import find_target
from core.ledger.gate import Checked, Plan, check
from core.ledger.history import Applied, Standing, applied, in_season
from core.machines.residue import before_load
from core.rates.compare import Compared, Offer, compare, equal_active
from core.rates.misread import misread
from core.rates.reverse import Backwards, rate_from_left, rate_of, reach, whole_package
from core.readable import foot_of, readable
from core.schools import House
from core.tank.measuring import check_cup, leasts, stock_dilution, ways
from core.tank.vessels import measure
from core.units import AREA, MASS, SPEED, UNITS, VOLUME, Quantity, celsius, show_number
from core.weather.said import UNSAID, Said
from greenmeasure.accounts.models import Account
from greenmeasure.book.queries import history
from greenmeasure.common.clock import local_day, moment_at, today
from greenmeasure.common.findings import finding_out
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import (
    QuantityIn,
    filled,
    number_in,
    quantity_in,
    rate_in,
    rate_out,
    rule_out,
    signed_in,
    working_out,
)
from greenmeasure.ground.actions import share_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.bench_words import setting_text
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machine_of, said_of, setting_of
from greenmeasure.kit.tanks import held
from greenmeasure.kit.words import setup_of
from greenmeasure.ledger.past import Asked, ledger, place_of
from greenmeasure.reckon.outs import Reckoned, bought_out, compared_sentence, goes_as_far, measure_out, per_foot
from greenmeasure.reckon.schemas import (
    BackIn,
    BackOut,
    ComparedOut,
    CompareIn,
    CompareOut,
    CupIn,
    CupOut,
    DoseMeasureIn,
    JobIn,
    LeastOut,
    MeasuringOut,
    PartIn,
    RowFitOut,
    RowsIn,
    SaidIn,
    WayOut,
)
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, card_of, cards, row_of
from greenmeasure.sky.outing import at_its_hour, hour_of
from greenmeasure.water.queries import water_in_text

THIS_JOB = "this job"


def reckoned(account: Account, data: JobIn, at: datetime | None = None, besides: frozenset[str] = frozenset()) -> Reckoned:
    """Reckon a job of the account's and hold it against its ledger, ground by ground.

    Args:
        account: whose it is.
        data: the job, with its day and hour.
        at: when it is, for records brought in later; as `data` says, unless given.
        besides: applications that the job itself is: what was planned of it, the round that is taken up again.

    Raises:
        InputError: anything missing or absurd, named by its field.
        Missing: a product, area or machine that the account does not have.
    """
    mix = tuple(card_of(account, c.product_id) for c in data.mix)
    places = [area_of(account, p.area_id) for p in data.parts]
    house, when = account.house_rules, at or moment_at(places[0], data.on, data.clock)
    day = local_day(places[0], when)
    rows = tuple(_rows(account, data, i) for i in range(len(data.parts)))
    picked = machine_of(account, data.machine_id) if data.machine_id else None
    parts = [_part(i, p, rows[i], a.ground) for i, (p, a) in enumerate(zip(data.parts, places, strict=True))]
    job = reckon(
        [c.core for c in mix],
        parts,
        picked.core() if picked else None,
        passes=data.passes,
        even=data.even,
        by_pass=data.by_pass,
        us=account.us,
        house=house,
        dial=(dial := rate_in("dial", given) if (given := filled(data.dial)) else None),
        undiluted=data.undiluted,
    )
    looked = said_in(data.said)
    meant = {
        (i, c): _meant(planned, dose, row, area, when)
        for i, (planned, area) in enumerate(zip(job.parts, places, strict=True))
        for c, (dose, row) in enumerate(zip(planned.doses, rows[i], strict=True))
        if dose and row
    }

    def checked(i: int, c: int) -> Checked | None:
        dose, row, mine = job.parts[i].doses[c], rows[i][c], meant.get((i, c))
        if dose is None or row is None or mine is None or mine.place is None:
            return None
        card, target = mix[c], data.mix[c].target
        others = tuple(a for key, a in meant.items() if key != (i, c))
        bears = ledger(account, Asked(mine.place, when, card.product.pk, target, others, besides))
        told = at_its_hour(bears, when, hour_of(account, places[i], card, when, looked))
        return check(Plan(card.core, row.core(), dose.judged, mine, card.label_rows, target), told, account.us)

    said, settings = _machine_says(account, picked, job, day) if picked else ((), ())
    return Reckoned(
        job=job,
        at=when,
        looked=looked.text(account.us),
        cards=mix,
        rows=rows,
        area_ids=tuple(p.area_id for p in data.parts),
        checks=tuple(tuple(checked(i, c) for c in range(len(mix))) for i in range(len(parts))),
        targets=tuple(found.key if (found := find_target(c.target)) else c.target for c in data.mix),
        machine_says=said,
        settings=settings,
        setup=setup_of(picked, account.us) if picked else (),
        dial=dial if picked and picked.draws else None,
        watered_in=tuple(dict.fromkeys(_watered_in(account, card, p.area_id) for card in mix for p in data.parts)),
    )


def _rows(account: Account, data: JobIn, i: int) -> tuple[RateRow | None, ...]:
    """The label row of each component on a part; None for one to taste. Raises InputError by its field."""
    doses = data.parts[i].doses
    if len(doses) != len(data.mix):
        raise InputError(
            f"parts.{i}.doses", len(doses), f"The mix has {len(data.mix)} products.", "Give the rate of each, in its order."
        )
    return tuple(
        None if d.row_id is None else row_of(account, c.product_id, d.row_id, f"parts.{i}.doses.{k}.row_id")
        for k, (c, d) in enumerate(zip(data.mix, doses, strict=True))
    )


def _part(i: int, given: PartIn, rows: Sequence[RateRow | None], ground: Ground) -> Part:
    """A part as the core takes it. Raises InputError by its field."""
    doses = tuple(
        Dosing(rate_in(f"parts.{i}.doses.{c}.rate", d.rate), row.label()) if d.rate and row else Dosing()
        for c, (d, row) in enumerate(zip(given.doses, rows, strict=True))
    )
    return Part(ground, doses, _treated(i, given, ground), given.zone)


def _meant(planned: PartPlan, dose: DosePlan, row: RateRow, area: Area, when: datetime) -> Applied:
    """A component on a part as an application of this job."""
    made = applied(dose.product, dose.dose.amount, planned.part.area, local_day(area, when), row.core())
    place = place_of(area, planned.part.area.base, planned.part.zone)
    return replace(made, application=THIS_JOB, standing=Standing.SAME_JOB, place=place, at=when)


def said_in(given: SaidIn | None) -> Said:
    """What somebody looked at. Raises InputError by its field."""
    if given is None:
        return UNSAID

    def degrees(name: str, typed: QuantityIn | None) -> float | None:
        found = filled(typed)
        return celsius(f"said.{name}", signed_in(f"said.{name}", found.value), found.unit) if found else None

    wind = quantity_in("said.wind", w, SPEED).base if (w := filled(given.wind)) else None
    air, soil = degrees("air", given.air), degrees("soil", given.soil)
    return Said(given.leaf, air, wind, soil, given.dry_before, given.dry_after)


def _machine_says(account: Account, machine: Machine, job: Job, on: date) -> tuple[tuple[Finding, ...], tuple[str, ...]]:
    """What the machine's calibrations and its last filling say of a job, and a spreader's setting for each part."""
    said = [*before_load(held(account).get(machine.pk), job.products, machine.name), *said_of(machine, account, on)]
    settings = []
    if machine.kind == MachineKind.SPREADER:
        for planned in job.parts:
            weighed = sum(d.dose.grams or 0.0 for d in planned.measured)
            found = setting_of(machine, job.main.product, weighed / planned.part.area.base / job.passes, on)
            said += found.findings
            settings.append(setting_text(found))
    return by_weight(said), tuple(settings)


def _watered_in(account: Account, card: Card, area_id: int) -> str:
    """What the label's watering-in comes to on an area."""
    rules = card.core.rules
    return water_in_text(account, area_id, rules.water_in_depth, rules.water_in_minutes)


def _treated(i: int, part: PartIn, ground: Ground) -> Quantity | None:
    if treated := filled(part.treated):
        return quantity_in(f"parts.{i}.treated", treated, AREA)
    return _share(part.share, ground, f"parts.{i}.share")


def _share(text: str, ground: Ground, field: str = "share") -> Quantity | None:
    if not text.strip():
        return None
    return Quantity(ground.size.value * share_in(text, field), ground.size.unit)


# --- which row, which rate --------------------------------------------------------------------------------------


def row_fits(account: Account, data: RowsIn) -> list[RowFitOut]:
    """How the rows of a label fit an area, the one to open with first.

    Raises:
        Missing: no such product or area.
    """
    card, area = card_of(account, data.product_id), area_of(account, data.area_id)
    rows = list(card.rows.values())
    before = history(account, data.area_id)
    found = fits(card.label_rows, area.ground, data.target, house=_by_house(account, card.core))
    return [_fit_out(account, card.core, rows[f.index], f.fits, list(f.misses), before) for f in found]


def _by_house(account: Account, product: Product) -> House | None:
    """The house rules that order the rows of a growth regulator; other labels keep their own order."""
    return account.house_rules if product.kind is Kind.GROWTH_REGULATOR else None


def _fit_out(account: Account, product: Product, row: RateRow, fit: bool, misses: list[str], before: list[Applied]) -> RowFitOut:
    start = _start(account, product, row.core(), before)
    return RowFitOut(row_id=row.pk, fits=fit, misses=misses, start=rate_out(start[0]), why=start[1])


def _start(account: Account, product: Product, row: Row, before: list[Applied]) -> tuple[Rate, str]:
    """The rate that Reckon opens with, and why: the ramp for regulators, the house's place in the range for the rest."""
    house = account.house_rules
    if product.kind is Kind.GROWTH_REGULATOR and row.intent is not Intent.FIRST_USE:
        day = today(account)
        season = in_season(before, house.season_of(day), day)
        earlier = sum(a.kind is Kind.GROWTH_REGULATOR and bool(set(a.codes) & set(product.codes)) for a in season)
        found = regulator_start(row.label, earlier, house)
    else:
        found = start_in_range(row.label, house)
    return found.rate, found.why


# --- backwards --------------------------------------------------------------------------------------------------


def backwards(account: Account, data: BackIn) -> BackOut:
    """The sum backwards. Raises as the core does, named by field."""
    card, row = card_of(account, data.product_id), row_of(account, data.product_id, data.row_id)
    ground = area_of(account, data.area_id).ground
    area = quantity_in("treated", treated, AREA) if (treated := filled(data.treated)) else None
    area = area or _share(data.share, ground) or ground.size
    product, label = card.core, row.label()
    amount = quantity_in("amount", data.amount, MASS, VOLUME)
    spray = quantity_in("spray", given, VOLUME) if (given := filled(data.spray)) else None
    rate = rate_in("rate", data.rate) if data.rate else label.highest
    meant, packages, leftover, sentence = "", 0, "", ""
    found: Backwards
    if data.mode == "left":
        if data.left is None:
            raise InputError("left", None, "What is left is missing.", "Weigh or measure what remains.")
        found = rate_from_left(product, label, amount, quantity_in("left", data.left, MASS, VOLUME), area)
    elif data.mode == "whole":
        whole = whole_package(product, label, rate, amount, area)
        found, sentence = whole.backwards, whole.sentence
        meant, packages, leftover = str(whole.meant), whole.packages, str(whole.leftover)
    else:
        found = rate_of(product, label, amount, area, spray)
    slip = misread(found.rate, label, product) if data.mode == "used" else None
    return BackOut(
        sentence=sentence or found.sentence,
        used=str(found.used),
        rate=rate_out(found.rate),
        rule=rule_out(label, found.rate.value, product.label_binds),
        judgement=judgement_out(found.judgement),
        reach=_reach(account, product, rate, row, amount),
        meant=meant,
        packages=packages,
        leftover=leftover,
        misread=finding_out(slip) if slip else None,
        working=working_out(found.working),
    )


def _reach(account: Account, product: Product, rate: Rate, row: RateRow, amount: Quantity) -> str:
    if not rate.unit.per_area:
        return ""
    far = readable(reach(product, row.label(), rate, amount), account.us)
    return goes_as_far(amount, far, rate)


# --- side by side -----------------------------------------------------------------------------------------------


def compared(account: Account, data: CompareIn) -> CompareOut:
    """Products for one purpose on one area.

    Raises:
        InputError: nothing to compare, or a rate that needs a sprayer.
    """
    area = area_of(account, data.area_id)
    ground = area.ground
    size = _share(data.share, ground) or ground.size
    machine = machine_of(account, data.machine_id).core() if data.machine_id else None
    spray = machine.output_base * size.base if machine and machine.sprays else None
    chosen = _chosen(account, data)
    if not chosen:
        what = data.target or data.kind or "that"
        raise InputError("target", what, f"Nothing on the shelf is for {what}.", "Pick another purpose, or pick products.")
    rows, problems = [], []
    for card in chosen:
        held = list(card.rows.values())
        best = fits(card.label_rows, ground, data.target, house=_by_house(account, card.core))[0]
        row = held[best.index]
        rate = _start(account, card.core, row.core(), history(account, data.area_id))[0]
        try:
            one = compare([Offer(card.core, row.label(), rate)], size, spray)[0]
        except InputError as fault:
            problems.append(_unreckoned(card, row, rate, fault.sentence))
            continue
        rows.append((card, row, best.fits, list(best.misses), one))
    if data.equal_to is not None:
        rows = _matched(data.equal_to, rows, size)
    return _compare_out(account, rows, problems, data)


def _chosen(account: Account, data: CompareIn) -> list[Card]:
    here = [c for c in cards(account).values() if c.product.archived_at is None and c.rows]
    if data.product_ids:
        return [card_of(account, pk) for pk in data.product_ids]
    wanted = find_target(data.target)
    if wanted:
        return [c for c in here if any((t := find_target(r.target or r.use)) and t.key == wanted.key for r in c.rows.values())]
    return [c for c in here if data.kind and c.product.kind == data.kind]


Row5 = tuple[Card, RateRow, bool, list[str], Compared]


def _matched(product_id: int, rows: list[Row5], size: Quantity) -> list[Row5]:
    """The rows at the rates that bring as much active as one of them."""
    reference = next((r for r in rows if r[0].product.pk == product_id), None)
    if reference is None:
        raise InputError("equal_to", product_id, "The product to match is not among them.", "Pick one of the list.")
    found = {c.product.id: c for c in equal_active(reference[4], [r[4].candidate for r in rows], size)}
    matched = []
    for card, row, fit, misses, _ in rows:
        if card.core.id in found:
            matched.append((card, row, fit, misses, compare([found[card.core.id]], size)[0]))
    return matched


def _compare_out(account: Account, rows: list[Row5], problems: list[ComparedOut], data: CompareIn) -> CompareOut:
    us = account.us
    forgiving = account.house_rules.of("concentrates") == "forgiving"
    strength = {r[0].product.pk: _strength(r[0].core) for r in rows}
    order = sorted(
        rows,
        key=lambda r: (
            not r[2],
            strength[r[0].product.pk] if forgiving else (r[4].cost if r[4].cost is not None else float("inf")),
        ),
    )
    top_active = max((r[4].active or 0.0 for r in rows), default=0.0)
    top_cost = max((r[4].cost or 0.0 for r in rows), default=0.0)
    best = _best(rows)
    outs = [_compared_out(account, r, top_active, top_cost, best, us) for r in order]
    count = len(outs) + len(problems)
    cheapest = next((o for o in outs if "cost" in o.best), None)
    cheapest = cheapest if len(outs) > 1 else None
    sentence = compared_sentence(count, cheapest.product if cheapest else "", cheapest.cost if cheapest else "")
    return CompareOut(sentence=sentence, foot=foot_of(us).unit.symbol, rows=[*outs, *problems])


def _strength(product: Product) -> float:
    shares = [product.share(c) or 0.0 for c in product.contents]
    return max(shares, default=0.0)


def _best(rows: list[Row5]) -> dict[str, int]:
    """Which product is least in each kind of cost, where two or more can be compared."""
    found = {}
    for name in ("cost", "per_nitrogen", "per_active"):
        priced = [(getattr(r[4], name), r[0].product.pk) for r in rows if getattr(r[4], name) is not None]
        priced.sort()
        if len(priced) > 1 and priced[0][0] < priced[1][0] * (1 - 1e-9):
            found[name] = priced[0][1]
    return found


def _money(value: float | None, account: Account) -> str:
    return "" if value is None else f"{value:,.2f} {account.currency}"


def _compared_out(account: Account, r: Row5, top_active: float, top_cost: float, best: dict[str, int], us: bool) -> ComparedOut:
    card, row, fit, misses, found = r
    pound = UNITS["lb" if us else "kg"]
    foot = foot_of(us)
    bought = bought_out(found.purchase, "", "", us) if found.purchase else None
    acre = RateUnit(UNITS["lb" if us else "g"], UNITS["acre" if us else "ha"])
    return ComparedOut(
        product_id=card.product.pk,
        row_id=row.pk,
        product=card.product.name,
        kind=card.core.kind.text,
        codes=", ".join(card.core.codes),
        use=row.use or row.target,
        fits=fit,
        misses=misses,
        rate=rate_out(found.candidate.rate),
        amount=str(found.dose.amount),
        cost=_money(found.cost, account),
        per_foot=_money(None if found.per_area is None else found.per_area * foot.base, account),
        per_nitrogen=_money(None if found.per_nitrogen is None else found.per_nitrogen * pound.size, account),
        per_active=_money(None if found.per_active is None else found.per_active * UNITS["oz_wt" if us else "g"].size, account),
        active=f"{show_number(found.active / acre.size, 3)} {acre.symbol}" if found.active else "",
        nitrogen=f"{per_foot(found.nitrogen, us)}/{foot.unit.symbol}" if found.nitrogen else "",
        active_share=(found.active or 0.0) / top_active if top_active else 0.0,
        cost_share=(found.cost or 0.0) / top_cost if top_cost else 0.0,
        best=[name for name, pk in best.items() if pk == card.product.pk],
        purchase=" and ".join(bought.packages) + (f", {bought.cost}" if bought and bought.cost else "") if bought else "",
        leftover=bought.leftover if bought else "",
        problem="",
    )


def _unreckoned(card: Card, row: RateRow, rate: Rate, problem: str) -> ComparedOut:
    return ComparedOut(
        product_id=card.product.pk,
        row_id=row.pk,
        product=card.product.name,
        kind=card.core.kind.text,
        codes=", ".join(card.core.codes),
        use=row.use or row.target,
        fits=False,
        misses=[],
        rate=rate_out(rate),
        amount="",
        cost="",
        per_foot="",
        per_nitrogen="",
        per_active="",
        active="",
        nitrogen="",
        active_share=0.0,
        cost_share=0.0,
        best=[],
        purchase="",
        leftover="",
        problem=problem,
    )


# --- measuring --------------------------------------------------------------------------------------------------


def measuring(account: Account, data: DoseMeasureIn) -> MeasuringOut:
    """How to measure a dose, and what each vessel is good for. Raises InputError."""
    amount = quantity_in("amount", data.amount, MASS, VOLUME)
    density = card_of(account, data.product_id).core.density_g_per_l if data.product_id else None
    dilution = stock_dilution(amount, account.us)
    return MeasuringOut(
        measure=measure_out(measure(amount, account.us), amount),
        ways=[WayOut(unit=w.unit, text=w.text) for w in ways(amount, density)],
        dilution=dilution.sentence if dilution else "",
        leasts=[
            LeastOut(vessel=x.vessel.name, well=str(x.well), at_all=str(x.at_all))
            for x in leasts(account.us)
            if x.vessel.unit.dimension == amount.unit.dimension
        ],
    )


def cup(data: CupIn) -> CupOut:
    """Whether a cup's mark is true, by the water it holds. Raises InputError."""
    warm = 20.0
    if given := filled(data.temperature):
        warm = celsius("temperature", number_in("temperature", given.value), given.unit)
    found = check_cup(quantity_in("mark", data.mark, VOLUME), quantity_in("weight", data.weight, MASS), warm)
    return CupOut(
        sentence=found.sentence,
        holds=str(found.holds),
        off=f"{found.off * 100:+.1f} %".replace("-", "−"),
        good=abs(found.off) <= 0.01,
        working=working_out(found.working),
    )
