"""What is read of the kit."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace
from datetime import date
from typing import cast

from django.db.models import QuerySet

from core import job
from core.errors import OUTPUT, InputError, Mend
from core.findings import Finding, Weight, by_weight
from core.job.hose_end import positions, reach_of
from core.job.machine import assumed_output
from core.label.product import Kind, Product
from core.label.rate import Rate, RateUnit
from core.label.rules import DROPLETS
from core.machines import standing, working
from core.machines.nozzle import SIZES
from core.machines.residue import Residue
from core.machines.sprayer import COURSES
from core.machines.spreader import Point, curve
from core.readable import readable
from core.units import UNITS, Quantity, show_number, show_percent
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Missing
from greenmeasure.common.findings import FindingOut, finding_out
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import OptionOut, quantity_out, rate_out
from greenmeasure.kit.bench_schemas import PansIn, PatternOut, TrustName
from greenmeasure.kit.bench_words import flow_text
from greenmeasure.kit.benches import bench, bench_out
from greenmeasure.kit.models import Calibration, Machine
from greenmeasure.kit.schemas import (
    CalibrationOut,
    CleaningOut,
    CleanStepOut,
    CourseOut,
    CurveOut,
    CurvePointOut,
    FormOut,
    KitOptionsOut,
    MachineKindName,
    MachineOut,
    MachineWholeOut,
    SizeOut,
    TankOut,
)
from greenmeasure.kit.tanks import held
from greenmeasure.kit.words import UNMEASURED, cleaned_text, reference_text, state, tank_sentence, tank_text, traces, with_what
from greenmeasure.shelf.queries import cards


def whole_machines(account: Account) -> QuerySet[Machine]:
    """Machines with all that the sums need of them."""
    return (
        Machine.objects.of(account)
        .select_related("account")
        .prefetch_related("calibrations__product", "calibrations__machine__account", "calibrations__round__mix__product")
    )


def machine_out(machine: Machine, account: Account) -> MachineOut:
    """A machine with how its output is known and what was last in it."""
    us = account.us
    output = machine.output
    covered = _reach(machine)
    last = held(account).get(machine.pk)
    return MachineOut(
        id=machine.pk,
        version=machine.version,
        takes=taken_by(account, machine),
        name=machine.name,
        kind=cast(MachineKindName, machine.kind),
        form=machine.form,
        form_text=job.Form(machine.form).text if machine.form else machine.kind,
        capacity=quantity_out(machine.capacity),
        mark=quantity_out(machine.mark) if machine.mark else None,
        output=rate_out(output) if output else None,
        typed_output=rate_out(machine.typed_output) if machine.typed_output else None,
        output_assumed=machine.output_assumed,
        width=quantity_out(machine.width) if machine.width else None,
        swath=working.length_text(machine.swath, us) if machine.swath else "",
        nozzle=machine.nozzle,
        nozzle_size=machine.nozzle_size,
        nozzle_count=machine.nozzle_count,
        nozzle_spacing=quantity_out(machine.nozzle_spacing) if machine.nozzle_spacing else None,
        pressure=quantity_out(machine.pressure) if machine.pressure else None,
        droplets=machine.droplets,
        dials=", ".join(show_number(x) for x in machine.dials),
        dial_unit=machine.dial_unit,
        positions=[rate_out(r) for r in positions(machine.core())] if machine.draws else [],
        setting_step=machine.setting_step,
        reach=str(readable(covered, us)) if covered else "",
        state=state(machine),
        tank=tank_text(last),
        findings=[finding_out(f) for f in said_of(machine, account, today(account))],
        note=machine.note,
    )


def _reach(machine: Machine) -> Quantity | None:
    """The ground that one filling covers; None where that is not known."""
    if machine.draws:
        return reach_of(machine.core())
    return Quantity(machine.capacity.base / machine.output.base, UNITS["m2"]) if machine.output else None


def taken_by(account: Account, machine: Machine) -> list[int]:
    """The kept products that a machine can put down, by their ids."""
    return _taken(account, job.MachineKind(machine.kind), job.Form(machine.form) if machine.form else None)


def _taken(account: Account, kind: job.MachineKind, form: job.Form | None) -> list[int]:
    every = cards(account).values()
    return [c.product.pk for c in every if c.product.archived_at is None and job.takes(kind, form, c.core)]


def largest_for(account: Account, product_ids: Sequence[int], sprayed: bool) -> Machine | None:
    """The largest kept machine that puts all of some products down, a sprayer before a spreader for what is sprayed."""
    kept_ = [m for m in machines(account).values() if m.archived_at is None]
    able = [m for m in kept_ if set(product_ids) <= set(taken_by(account, m))]
    return min(able, key=lambda m: (sprayed is (m.kind == "spreader"), -m.capacity.base, m.name), default=None)


def kit(account: Account) -> list[MachineOut]:
    """The machines that are kept."""
    return [machine_out(m, account) for m in whole_machines(account).kept()]  # type: ignore[attr-defined]


@kept("kit", "shelf")
def machines(account: Account) -> dict[int, Machine]:
    """All machines of the account by their ids, those put away too, with their calibrations."""
    return {m.pk: m for m in whole_machines(account)}


def machine_of(account: Account, machine_id: int) -> Machine:
    """A machine of this account.

    Raises:
        Missing: no such machine.
    """
    try:
        return machines(account)[machine_id]
    except KeyError:
        raise Missing("machine") from None


def said_of(machine: Machine, account: Account, on: date) -> list[Finding]:
    """What is said when a machine is used on a day, whatever goes in it, with the way to its bench."""
    return [replace(f, mend=Mend(OUTPUT, machine.pk)) for f in _said_of(machine, account, on)]


def _said_of(machine: Machine, account: Account, on: date) -> list[Finding]:
    if machine.kind != job.MachineKind.SPRAYER:
        return [standing.skewed_said(machine.name)] if machine.pans and machine.pans.skewed else []
    found = machine.in_force
    if machine.draws:
        timed = machine.timed
        test, flow = (timed.core(), timed.flow) if timed else (None, None)
        return standing.hosing(machine.name, test, flow, on, account.us)
    if machine.output is None:
        return []
    if machine.assumed:
        return [standing.assumed(machine.name, str(machine.output))]
    uses = [standing.Use(c.taken_on, c.rate or 0.0) for c in _rounds(machine) if not found or c.pk != found.pk]
    return standing.spraying(machine.name, found.core() if found else None, machine.nozzle, on, uses)


def asking(account: Account) -> list[FindingOut]:
    """What the machines in use ask for today: to be calibrated again, or cleaned of a herbicide."""
    said = []
    for pk, machine in machines(account).items():
        if machine.archived_at is not None:
            continue
        said += [f for f in said_of(machine, account, today(account)) if f.act is Weight.WARN and f.key not in UNMEASURED]
        last = held(account).get(pk)
        if last and last.worst.missing and last.worst.kind is Kind.HERBICIDE:
            said.append(Finding("herbicide-in-tank", Weight.WARN, traces(machine.name, last.worst.name)))
    return [finding_out(f) for f in by_weight(said)]


def _rounds(machine: Machine) -> list[Calibration]:
    return [c for c in machine.calibrations.all() if c.method == Calibration.Method.ROUND]


def setting_of(machine: Machine, product: Product, rate: float, on: date) -> standing.Spread:
    """The setting of a spreader for a rate of one pass [g/m²], and what is said of it."""
    tests = [c.core() for c in machine.calibrations.all() if c.in_use and c.setting is not None and c.rate is not None]
    pans = machine.pans
    return standing.spreading(
        machine.name,
        product,
        rate,
        tests,
        on,
        skewed=bool(pans and pans.skewed),
        step=machine.setting_step,
        form=(machine.form, job.Form(machine.form).text) if machine.form else ("", ""),
    )


# --- one machine, whole -----------------------------------------------------------------------------------------


def whole(account: Account, machine_id: int) -> MachineWholeOut:
    """A machine with its calibrations, curves and cleanings."""
    machine = machine_of(account, machine_id)
    now, force = today(account), machine.in_force
    taken = list(machine.calibrations.all())
    return MachineWholeOut(
        machine=machine_out(machine, account),
        calibrations=[_calibration_out(c, taken, force, now, account.us) for c in taken],
        curves=_curves(machine, account.us),
        pattern=_latest_pattern(machine, account),
        tank=tank_out(held(account).get(machine.pk), machine),
        cleanings=[
            CleaningOut(id=c.pk, at=c.at, by=c.by, steps=cleaned_text(c.done), note=c.note) for c in machine.cleanings.all()[:20]
        ],
    )


def _latest_pattern(machine: Machine, account: Account) -> PatternOut | None:
    """The pattern of the latest pan test in use, reckoned anew from its figures."""
    pans = machine.pans
    if pans is None:
        return None
    figures = PansIn(**{k: v for k, v in pans.given.items() if k in PansIn.model_fields})
    return bench_out("pans", bench(machine, figures, account), account.us).pattern


def _calibration_out(c: Calibration, taken: list[Calibration], force: Calibration | None, now: date, us: bool) -> CalibrationOut:
    before = next(
        (
            b
            for b in taken
            if (b.taken_on, b.pk) < (c.taken_on, c.pk)
            and b.rate
            and b.product_id == c.product_id
            and b.setting == c.setting
            and b.method != Calibration.Method.TIPS
        ),
        None,
    )
    versus = show_percent(c.rate / before.rate - 1, sign=True) if c.rate and before and before.rate else ""
    return CalibrationOut(
        id=c.pk,
        method=c.method,
        method_text=c.get_method_display(),
        taken_on=c.taken_on,
        expires_on=c.expires_on,
        old=bool(c.expires_on and c.expires_on < now),
        with_what=with_what(c),
        setting="" if c.setting is None else show_number(c.setting),
        rate=_rate_text(c, us),
        rate_value=None if c.rate is None else c.rate / _unit_of(c.machine, us).size,
        sentence=c.sentence,
        trust=cast(TrustName, c.trust),
        nozzle=c.nozzle,
        weather=c.weather,
        by=c.by,
        note=c.note,
        in_use=c.in_use,
        in_force=force is not None and c.pk == force.pk,
        versus=versus,
    )


def _rate_text(c: Calibration, us: bool) -> str:
    if c.rate is None:
        return working.length_text(c.swath, us) if c.swath else ""
    return str(working.rate_of(c.rate, _unit_of(c.machine, us)))


def _unit_of(machine: Machine, us: bool) -> RateUnit:
    return working.output_unit(us) if machine.kind == job.MachineKind.SPRAYER else working.spread_unit(us)


def _curves(machine: Machine, us: bool) -> list[CurveOut]:
    unit = working.spread_unit(us)
    found: dict[int, list[Calibration]] = {}
    for c in machine.calibrations.all():
        if c.in_use and c.product_id and c.setting is not None and c.rate is not None:
            found.setdefault(c.product_id, []).append(c)
    return [_curve_out(tests, unit) for tests in found.values()]


def _curve_out(tests: list[Calibration], unit: RateUnit) -> CurveOut:
    def point(setting: float, rate: float) -> CurvePointOut:
        shown = Rate(rate / unit.size, unit)
        return CurvePointOut(setting=setting, rate=shown.value, text=f"{show_number(setting)}: {shown}")

    product = tests[0].product
    assert product
    tested = [point(c.setting or 0.0, c.rate or 0.0) for c in tests]
    points, problem = [], ""
    try:
        line = curve(product.name, [Point(c.setting or 0.0, c.rate or 0.0) for c in tests])
        points = [point(p.setting, p.rate) for p in line.points]
    except InputError as fault:
        problem = fault.sentence
    return CurveOut(
        product_id=product.pk, product=product.name, symbol=unit.symbol, points=points, tested=tested, problem=problem
    )


def tank_out(residue: Residue | None, machine: Machine) -> TankOut:
    """What was in a machine and what cleaning is still to do, step by step: after the worst that it still holds traces of."""
    if residue is None:
        return TankOut(product="", kind="", on=None, steps=[], clean=True, sentence=tank_sentence(None, machine.name))
    last = residue.worst
    have, steps = Counter(last.cleaned), []
    for step in last.needed:
        steps.append(CleanStepOut(key=step.value, text=step.text, done=have[step] > 0))
        have[step] -= 1
    return TankOut(
        product=last.name,
        kind=last.kind.text,
        on=last.on,
        steps=steps,
        clean=not last.missing,
        sentence=tank_sentence(residue, machine.name),
    )


def options(account: Account) -> KitOptionsOut:
    """What the kit's forms offer to pick from."""
    us = account.us
    courses = [c for c in COURSES.values() if (c.catch_unit == "fl_oz") == us]
    return KitOptionsOut(
        forms=[
            FormOut(
                key=f.value,
                text=f.text[0].upper() + f.text[1:],
                kind=f.kind.value,
                capacity=quantity_out(f.usual(us)),
                takes=_taken(account, f.kind, f),
            )
            for f in job.Form
        ],
        assumed_output=rate_out(assumed_output(us)),
        sizes=[
            SizeOut(key=s.key, text=f"{s.key} {s.colour}", flow=f"{flow_text(s.flow, us)} at {reference_text(us)}")
            for s in SIZES.values()
        ],
        droplets=[OptionOut(key=str(i), text=d.capitalize()) for i, d in enumerate(DROPLETS)],
        courses=[CourseOut(key=c.key, text=c.name) for c in courses],
    )
