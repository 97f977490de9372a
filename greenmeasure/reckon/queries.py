"""Reckoning for an account: its products, ground, machines and book into the core."""

from dataclasses import replace
from datetime import date, datetime

from core.errors import InputError
from core.findings import Finding, by_weight
from core.growth.ramp import regulator_start, start_in_range
from core.job import DosePlan, Job, MachineKind, PartPlan, reckon
from core.job.jar import jar_test
from core.label.match import fits
from core.label.product import Kind, Product
from core.label.rate import Rate
from core.label.rules import Intent, Row
from core.label.targets import find_target
from core.ledger.gate import Checked, Plan, check
from core.ledger.history import Applied, Standing, applied, in_season
from core.machines.residue import before_load
from core.machines.standing import sprays_fit
from core.rates.misread import misread
from core.rates.reverse import Backwards, rate_from_left, rate_of, reach, whole_package
from core.readable import readable
from core.schools import House
from core.tank.measuring import leasts, stock_dilution, ways
from core.tank.vessels import TRUE, measure
from core.units import AREA, MASS, VOLUME, Quantity
from greenmeasure.accounts.models import Account
from greenmeasure.book.queries import mixed_before
from greenmeasure.common.clock import local_day, moment_at, today
from greenmeasure.common.findings import finding_out
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.schemas import filled, quantity_in, rate_in, rate_out, rule_out, working_out
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.kit.bench_words import setting_text
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machine_of, said_of, setting_of
from greenmeasure.kit.schemas import CupIn
from greenmeasure.kit.tanks import held
from greenmeasure.kit.vessels import cabinet, check_in
from greenmeasure.kit.words import setup_of
from greenmeasure.ledger.booked import history, place_of
from greenmeasure.ledger.past import Asked, ledger, of_outing
from greenmeasure.reckon.outs import Reckoned, measure_out
from greenmeasure.reckon.reading import check_spots, ground_share, part_of, rows_of, said_in
from greenmeasure.reckon.schemas import (
    BackIn,
    BackOut,
    CupOut,
    DoseMeasureIn,
    JobIn,
    LeastOut,
    MeasuringOut,
    RowFitOut,
    RowsIn,
    WayOut,
)
from greenmeasure.reckon.words import CROSSINGS, goes_as_far
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, card_of, row_of, stocks
from greenmeasure.sky.outing import at_its_hour, hour_of
from greenmeasure.water.queries import water_in_text

THIS_JOB = "this job"


def reckoned(account: Account, data: JobIn, at: datetime | None = None) -> Reckoned:
    """Reckon a job of the account's and hold it against its ledger, ground by ground.

    Args:
        account: whose it is.
        data: the job, with its day and hour.
        at: when it is, for records brought in later; as `data` says, unless given.

    Raises:
        InputError: anything missing or absurd, named by its field.
        Missing: a product, area or machine that the account does not have.
    """
    mix = tuple(card_of(account, c.product_id) for c in data.mix)
    places = [area_of(account, p.area_id) for p in data.parts]
    house, when = account.house_rules, at or moment_at(places[0], data.on, data.clock)
    day = local_day(places[0], when)
    besides = _of_outing(account, data.outing_id)
    rows = tuple(rows_of(account, data, i) for i in range(len(data.parts)))
    picked = machine_of(account, data.machine_id) if data.machine_id else None
    machine = picked.core() if picked else None
    parts = [part_of(i, p, rows[i], a.ground, machine) for i, (p, a) in enumerate(zip(data.parts, places, strict=True))]
    if data.spots:
        check_spots(data, machine)
    job = reckon(
        [c.core for c in mix],
        parts,
        machine,
        passes=data.passes,
        even=data.even,
        by_pass=data.by_pass,
        us=account.us,
        vessels=cabinet(account).own,
        house=house,
        dial=(dial := rate_in("dial", given) if (given := filled(data.dial)) else None),
        undiluted=data.undiluted,
    )
    looked = said_in(data.said)
    meant = {
        (i, c): _meant(planned, dose, row, area, when, data.spots)
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
        stocks=tuple(stocks(account).get(c.product.pk) for c in mix),
        rows=rows,
        area_ids=tuple(p.area_id for p in data.parts),
        checks=tuple(tuple(checked(i, c) for c in range(len(mix))) for i in range(len(parts))),
        targets=tuple(found.key if (found := find_target(c.target)) else c.target for c in data.mix),
        machine_says=said,
        settings=settings,
        setup=(*(setup_of(picked, account.us) if picked else ()), *_crossed(data)),
        crossing=data.crossing if data.passes > 1 else "",
        dial=dial if picked and picked.draws else None,
        spots=data.spots,
        cabinet=cabinet(account),
        watered_in=tuple(dict.fromkeys(_watered_in(account, card, p.area_id) for card in mix for p in data.parts)),
    )


def _of_outing(account: Account, outing_id: int | None) -> frozenset[str]:
    """What the outing of a job puts down besides, by name. Raises InputError where there is no such outing."""
    if outing_id is None:
        return frozenset()
    mine = of_outing(account, outing_id)
    if not mine and not account.outings.filter(pk=outing_id).exists():
        raise InputError("outing_id", outing_id, "There is no such outing.", "Leave it out, or start the job from its outing.")
    return mine


def _meant(planned: PartPlan, dose: DosePlan, row: RateRow, area: Area, when: datetime, spots: bool) -> Applied:
    """A component on a part as an application of this job."""
    made = applied(dose.product, dose.dose.amount, planned.part.area, local_day(area, when), row.core())
    place = place_of(area, planned.part.area.base, planned.part.zone, spots)
    return replace(made, application=THIS_JOB, standing=Standing.SAME_JOB, place=place, at=when)


def _crossed(data: JobIn) -> tuple[tuple[str, str], ...]:
    """How further passes lie, as a fact of the job."""
    return (("Second pass", CROSSINGS[data.crossing]),) if data.crossing and data.passes > 1 else ()


def _machine_says(account: Account, machine: Machine, job: Job, on: date) -> tuple[tuple[Finding, ...], tuple[str, ...]]:
    """What the machine's calibrations and its last filling say of a job, and a spreader's setting for each part."""
    said = [*before_load(held(account).get(machine.pk), job.products, machine.name), *said_of(machine, account, on)]
    if machine.kind == MachineKind.SPRAYER:
        said += sprays_fit(machine.name, machine.droplets, job.products)
        said += jar_test(job.products, mixed_before(account)) if len(job.mix) > 1 else ()
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


# --- which row, which rate --------------------------------------------------------------------------------------


def row_fits(account: Account, data: RowsIn) -> list[RowFitOut]:
    """How the rows of a label fit an area, the one to open with first.

    Raises:
        Missing: no such product or area.
    """
    card, area = card_of(account, data.product_id), area_of(account, data.area_id)
    rows = list(card.rows.values())
    before = history(account, data.area_id)
    found = fits(card.label_rows, area.ground, data.target, house=by_house(account, card.core))
    return [_fit_out(account, card.core, rows[f.index], f.fits, list(f.misses), before) for f in found]


def by_house(account: Account, product: Product) -> House | None:
    """The house rules that order the rows of a growth regulator; other labels keep their own order."""
    return account.house_rules if product.is_a(Kind.GROWTH_REGULATOR) else None


def _fit_out(account: Account, product: Product, row: RateRow, fit: bool, misses: list[str], before: list[Applied]) -> RowFitOut:
    start = opening(account, product, row.core(), before)
    return RowFitOut(row_id=row.pk, fits=fit, misses=misses, start=rate_out(start[0]), why=start[1])


def opening(account: Account, product: Product, row: Row, before: list[Applied]) -> tuple[Rate, str]:
    """The rate that Reckon opens with, and why: the ramp for regulators, the house's place in the range for the rest."""
    house = account.house_rules
    if product.is_a(Kind.GROWTH_REGULATOR) and row.intent is not Intent.FIRST_USE:
        day = today(account)
        season = in_season(before, house.season_of(day), day)
        earlier = sum(a.is_a(Kind.GROWTH_REGULATOR) and bool(set(a.codes) & set(product.codes)) for a in season)
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
    area = area or ground_share(data.share, ground) or ground.size
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


# --- measuring --------------------------------------------------------------------------------------------------


def measuring(account: Account, data: DoseMeasureIn) -> MeasuringOut:
    """How to measure a dose, and what each vessel is good for. Raises InputError."""
    amount = quantity_in("amount", data.amount, MASS, VOLUME)
    product = card_of(account, data.product_id).core if data.product_id else None
    density = product.density_g_per_l if product else None
    at_hand = cabinet(account)
    wet = amount.unit.dimension == VOLUME or bool(product and product.formulation.sprayed)
    dilution = stock_dilution(amount, at_hand, wet)
    return MeasuringOut(
        measure=measure_out(measure(amount, at_hand), amount),
        ways=[WayOut(unit=w.unit, text=w.text) for w in ways(amount, density)],
        dilution=dilution.sentence if dilution else "",
        leasts=[
            LeastOut(vessel=x.vessel.name, well=str(x.well), at_all=str(x.at_all)) for x in leasts(at_hand, amount.unit.dimension)
        ],
    )


def cup(data: CupIn) -> CupOut:
    """Whether a cup's mark is true, by the water it holds. Raises InputError."""
    found = check_in(data)
    return CupOut(
        sentence=found.sentence,
        holds=str(found.holds),
        off=f"{found.off * 100:+.1f} %".replace("-", "−"),
        good=abs(found.off) <= TRUE,
        working=working_out(found.working),
    )
