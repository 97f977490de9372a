"""What is read of the kit."""

from typing import cast

from core.readable import readable
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Club
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import quantity_out, rate_out
from greenmeasure.kit.models import Machine
from greenmeasure.kit.schemas import MachineKindName, MachineOut


def machine_out(machine: Machine, us: bool) -> MachineOut:
    reach = ""
    if machine.output:
        reach = str(readable(Quantity(machine.capacity.base / machine.output.base, UNITS["m2"]), us))
    return MachineOut(
        id=machine.pk, name=machine.name, kind=cast(MachineKindName, machine.kind), capacity=quantity_out(machine.capacity),
        output=rate_out(machine.output) if machine.output else None, reach=reach, note=machine.note,
        archived=machine.archived_at is not None,
    )  # fmt: skip


def kit(club: Club) -> list[MachineOut]:
    return [machine_out(m, club.us) for m in Machine.objects.of(club).kept()]


@kept
def machines(club: Club) -> dict[int, Machine]:
    """All machines of the club by their ids, those put away too."""
    return {m.pk: m for m in Machine.objects.of(club)}


def machine_of(club: Club, machine_id: int) -> Machine:
    """A machine of this club.

    Raises:
        Missing: no such machine.
    """
    try:
        return machines(club)[machine_id]
    except KeyError:
        raise Missing("machine") from None
