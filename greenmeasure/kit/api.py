"""Machines."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.common.auth import MANAGER, VIEWER, club_of
from greenmeasure.common.names import put_back
from greenmeasure.kit import actions, queries
from greenmeasure.kit.models import Machine
from greenmeasure.kit.schemas import MachineIn, MachineOut

router = Router(tags=["kit"])


@router.get("", response=list[MachineOut], auth=VIEWER)
def list_machines(request: HttpRequest, club: Path[str]) -> list[MachineOut]:
    """The club's machines."""
    return queries.kit(club_of(request))


@router.post("", response={201: MachineOut}, auth=MANAGER)
def add_machine(request: HttpRequest, club: Path[str], data: MachineIn) -> tuple[int, MachineOut]:
    """Add a machine."""
    found = club_of(request)
    return 201, queries.machine_out(actions.save_machine(found, data), found.us)


@router.put("/{machine_id}", response=MachineOut, auth=MANAGER)
def change_machine(request: HttpRequest, club: Path[str], machine_id: int, data: MachineIn) -> MachineOut:
    """Change a machine."""
    found = club_of(request)
    return queries.machine_out(actions.save_machine(found, data, Machine.objects.one(found, machine_id)), found.us)


@router.delete("/{machine_id}", response=MachineOut, auth=MANAGER)
def remove_machine(request: HttpRequest, club: Path[str], machine_id: int) -> MachineOut:
    """Put a machine away; the book keeps it, and it can be put back."""
    found = club_of(request)
    machine = Machine.objects.one(found, machine_id)
    machine.archive()
    return queries.machine_out(machine, found.us)


@router.post("/{machine_id}/put-back", response=MachineOut, auth=MANAGER)
def put_back_machine(request: HttpRequest, club: Path[str], machine_id: int) -> MachineOut:
    """Undo a removal."""
    found = club_of(request)
    return queries.machine_out(put_back(Machine.objects.one(found, machine_id)), found.us)
