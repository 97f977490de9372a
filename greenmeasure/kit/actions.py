"""What changes the kit: machines, calibrations, cleanings."""

import re
from datetime import date, datetime

from django.db import transaction

from core import job
from core.errors import InputError
from core.job.hose_end import check_dial
from core.label.rate import Rate, RateUnit
from core.label.rules import DROPLETS
from core.machines.nozzle import SIZES
from core.machines.residue import CleanStep
from core.machines.runs import Trust
from core.machines.standing import expiry
from core.units import LENGTH, MASS, PRESSURE, VOLUME, Quantity, positive
from greenmeasure.accounts.models import Account, User
from greenmeasure.common import clock
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import QuantityIn, filled, number_in, quantity_in, rate_in
from greenmeasure.common.versions import claim
from greenmeasure.kit.benches import bench
from greenmeasure.kit.models import Calibration, Cleaning, Machine
from greenmeasure.kit.schemas import CalibrationIn, CleaningIn, MachineIn
from greenmeasure.shelf.models import Product


def save_machine(account: Account, data: MachineIn, machine: Machine | None = None) -> Machine:
    """Add a machine, or change one.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    before, machine = machine, machine or Machine(account=account)
    name = faults.of(free_name, Machine, account, data.name, machine.pk)
    kind = job.MachineKind(data.kind)
    sprays = kind is job.MachineKind.SPRAYER
    form = faults.of(_form, data.form) if data.form else None
    capacity = faults.of(quantity_in, "capacity", data.capacity, VOLUME if sprays else MASS)
    mark = faults.of(_optional, "mark", data.mark, VOLUME) if sprays else None
    output = faults.of(rate_in, "output", given) if sprays and (given := filled(data.output)) else None
    width = faults.of(_optional, "width", data.width, LENGTH)
    spacing = faults.of(_optional, "nozzle_spacing", data.nozzle_spacing, LENGTH) if sprays else None
    pressure = faults.of(_optional, "pressure", data.pressure, PRESSURE) if sprays else None
    count = faults.of(_count, data.nozzle_count) if sprays else None
    draws = form is job.Form.HOSE_END
    dials = faults.of(_dials, data.dials, data.dial_unit) if draws and data.dials.strip() else ()
    step = faults.of(_step, data.setting_step) if not sprays else None
    if data.nozzle_size and data.nozzle_size not in SIZES:
        faults.add("nozzle_size", data.nozzle_size, f"“{data.nozzle_size}” is no size of the series.", "Pick one of the list.")
    if data.droplets is not None and not 0 <= data.droplets < len(DROPLETS):
        faults.add("droplets", data.droplets, "That is no class of droplets.", "Pick one of the list.")
    faults.raise_any()
    assert name and capacity
    faults.of(job.check_machine, job.Machine(name, kind, capacity, output, form, mark))
    faults.raise_any()
    machine.name, machine.kind, machine.note, machine.form = name, kind.value, data.note, form.value if form else ""
    machine.capacity_value, machine.capacity_unit = capacity.value, capacity.unit.key
    machine.output_value = output.value if output else None
    machine.output_unit = output.unit.key if output else ""
    machine.output_assumed = data.output_assumed and output is not None
    for field, found in (("mark", mark), ("width", width), ("nozzle_spacing", spacing), ("pressure", pressure)):
        setattr(machine, f"{field}_value", found.value if found else None)
        setattr(machine, f"{field}_unit", found.unit.key if found else "")
    machine.nozzle_size, machine.nozzle_count = (data.nozzle_size, count) if sprays else ("", None)
    machine.droplets = data.droplets if sprays else None
    machine.dials, machine.dial_unit = [d.value for d in dials or ()], data.dial_unit if dials else ""
    machine.setting_step = step
    with claim(before, data.version):
        machine.save()
    return machine


def _form(key: str) -> job.Form:
    try:
        return job.Form(key)
    except ValueError:
        raise InputError("form", key, f"“{key}” is no form of machine known here.", "Pick one of the list.") from None


def _dials(typed: str, unit: str) -> tuple[Rate, ...]:
    """The positions of a dial, typed one after the other. Raises InputError."""
    if not unit:
        raise InputError("dial_unit", "", "The dial's unit is missing.", "Pick what its numbers count, such as fl oz per gal.")
    found = [text for text in re.split(r"[;,\s]+", typed.strip()) if text]
    if len(found) > MOST_POSITIONS:
        raise InputError("dials", typed, f"{len(found)} positions are too many.", f"Enter at most {MOST_POSITIONS}.")
    rates = (Rate(number_in("dials", text), RateUnit.from_key(unit, "dial_unit")) for text in found)
    return tuple(sorted({r.base: check_dial(r, "dials") for r in rates}.values(), key=lambda r: r.base))


MOST_POSITIONS = 40


def _step(given: float | str | None) -> float | None:
    """What lies between two clicks of a dial. Raises InputError."""
    if given is None or not str(given).strip():
        return None
    return positive("setting_step", number_in("setting_step", given), most=100)


def _optional(field: str, given: QuantityIn | None, dimension: str) -> Quantity | None:
    found = filled(given)
    return quantity_in(field, found, dimension) if found else None


def _count(given: float | str | None) -> int | None:
    if given is None or not str(given).strip():
        return None
    value = positive("nozzle_count", number_in("nozzle_count", given), most=200)
    if value != int(value):
        raise InputError("nozzle_count", given, f"{given} is no count of nozzles.", "Count them.")
    return int(value)


# --- calibrations -----------------------------------------------------------------------------------------------


def keep_calibration(machine: Machine, user: User, data: CalibrationIn) -> Calibration:
    """Keep what a bench came to. The latest of a sprayer that is in use gives its output from then on.

    Raises:
        InputError: a figure at fault, a day to come, an end before the start, or granules without their product.
    """
    account = machine.account
    found = bench(machine, data.figures, account)
    if data.taken_on > today(account):
        raise InputError("taken_on", str(data.taken_on), "That day is still to come.", "Give the day it was measured.")
    ends = data.expires_on or expiry(data.taken_on)
    if ends <= data.taken_on:
        raise InputError("expires_on", str(ends), "It would run out before it begins.", "Give a later day, or none.")
    product_id = getattr(data.figures, "product_id", None) or data.product_id
    if found.setting is not None and product_id is None:
        raise InputError("product_id", None, "A setting holds for one product.", "Pick the product it was measured with.")
    product = _product(account, product_id) if product_id else None
    with transaction.atomic():
        made = Calibration.objects.create(
            machine=machine,
            method=data.figures.method,
            taken_on=data.taken_on,
            expires_on=ends,
            product=product,
            setting=found.setting,
            rate=found.rate,
            flow=found.flow,
            pace=found.pace,
            swath=found.swath,
            trust=found.trust,
            skewed=found.skewed,
            nozzle=machine.nozzle,
            weather=data.weather,
            by=str(user),
            note=data.note,
            sentence=found.sentence[:300],
            given={**data.figures.dict(), **found.kept},
        )
        account.touch("kit")
    return made


def _product(account: Account, product_id: int) -> Product:
    try:
        return Product.objects.one(account, product_id)
    except Missing:
        raise InputError("product_id", product_id, "That product is not on the shelf.", "Pick another, or water.") from None


def calibration_of(machine: Machine, calibration_id: int) -> Calibration:
    """One calibration of a machine. Raises Missing."""
    found = machine.calibrations.filter(pk=calibration_id).first()
    if found is None:
        raise Missing("calibration")
    return found


def use_calibration(found: Calibration, use: bool) -> None:
    """Count a calibration, or leave it out; it stays in the list either way."""
    found.in_use = use
    found.save(update_fields=["in_use"])
    found.machine.account.touch("kit")


def learn(
    machine: Machine,
    user: str,
    on: date,
    rate: float,
    *,
    round_id: int,
    product: Product | None = None,
    setting: float | None = None,
    in_use: bool,
    sentence: str,
) -> Calibration:
    """Keep what a finished round really put down in one pass [L/m² or g/m²]; the caller's transaction and touch."""
    before = machine.in_force
    return Calibration.objects.create(
        machine=machine,
        method=Calibration.Method.ROUND,
        taken_on=on,
        expires_on=expiry(on),
        product=product,
        setting=setting,
        rate=rate,
        swath=before.swath if before else None,
        trust=Trust.ONE,
        nozzle=machine.nozzle,
        by=user,
        round_id=round_id,
        sentence=sentence[:300],
        in_use=in_use,
    )


def clean(machine: Machine, user: User, data: CleaningIn, at: datetime | None = None) -> Cleaning:
    """Note that a machine was cleaned. `at` is when, for records brought in later; now, unless given.

    Raises:
        InputError: a step that is none.
    """
    known = {s.value for s in CleanStep}
    for i, step in enumerate(data.steps):
        if step not in known:
            raise InputError(f"steps.{i}", step, f"“{step}” is no step of cleaning.", f"Use one of: {', '.join(sorted(known))}.")
    made = Cleaning.objects.create(machine=machine, at=at or clock.now(), by=str(user), steps=data.steps, note=data.note)
    machine.account.touch("kit")
    return made


def take_cleaning_back(machine: Machine, cleaning_id: int) -> None:
    """Undo a cleaning that was noted by mistake. Raises Missing."""
    found = machine.cleanings.filter(pk=cleaning_id).first()
    if found is None:
        raise Missing("cleaning")
    found.delete()
    machine.account.touch("kit")
