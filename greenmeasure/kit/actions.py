"""What changes the kit."""

from core import job
from core.rates.rate import Rate
from core.units import MASS, VOLUME
from greenmeasure.accounts.models import Club
from greenmeasure.common.errors import Faults
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import quantity_in, rate_in
from greenmeasure.kit.models import Machine
from greenmeasure.kit.schemas import MachineIn


def save_machine(club: Club, data: MachineIn, machine: Machine | None = None) -> Machine:
    """Add a machine, or change one.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults = Faults()
    machine = machine or Machine(club=club)
    name = faults.of(free_name, Machine, club, data.name, machine.pk)
    kind = job.MachineKind(data.kind)
    dimension = VOLUME if kind is job.MachineKind.SPRAYER else MASS
    capacity = faults.of(quantity_in, "capacity", data.capacity, dimension)
    output: Rate | None = None
    if kind is job.MachineKind.SPRAYER:
        if data.output is None:
            faults.add("output", None, "The output is missing.", "Enter what one pass puts down per area.")
        else:
            output = faults.of(rate_in, "output", data.output)
    faults.raise_any()
    assert name and capacity
    faults.of(job.check_machine, job.Machine(name, kind, capacity, output))
    faults.raise_any()
    machine.name, machine.kind, machine.note = name, kind.value, data.note
    machine.capacity_value, machine.capacity_unit = capacity.value, capacity.unit.key
    machine.output_value = output.value if output else None
    machine.output_unit = output.unit.key if output else ""
    machine.save()
    return machine
