"""Machines: cards, benches, calibrations, cleaning, and what a machine is asked in the field."""

from typing import Literal

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, MANAGER, VIEWER, account_of, user_of
from greenmeasure.common.bounds import Id
from greenmeasure.common.names import put_back
from greenmeasure.common.versions import against
from greenmeasure.kit import actions, benches, queries, tools, vessels
from greenmeasure.kit.bench_schemas import BenchAskIn, BenchOut
from greenmeasure.kit.models import Machine, Vessel
from greenmeasure.kit.schemas import (
    CalibrationIn,
    CleaningIn,
    CupIn,
    KitOptionsOut,
    MachineIn,
    MachineOut,
    MachineWholeOut,
    MidwayIn,
    MidwayOut,
    NozzleIn,
    NozzleOut,
    OwnVesselIn,
    OwnVesselOut,
    PaceIn,
    PaceOut,
    SettingIn,
    SettingOut,
    VesselCheckOut,
)

router = Router(tags=["kit"])
vessels_router = Router(tags=["kit"])


@router.get("", response=list[MachineOut], auth=VIEWER)
def list_machines(request: HttpRequest, account: Path[str]) -> list[MachineOut]:
    """The account's machines."""
    return queries.kit(account_of(request))


@router.get("/options", response=KitOptionsOut, auth=VIEWER)
def kit_options(request: HttpRequest, account: Path[str]) -> KitOptionsOut:
    """What the kit's forms offer to pick from."""
    return queries.options(account_of(request))


@router.post("/nozzle", response=NozzleOut, auth=VIEWER)
def nozzle_card(request: HttpRequest, account: Path[str], data: NozzleIn) -> NozzleOut:
    """A nozzle card: flow, output, pressure and droplets."""
    return tools.nozzle_card(account_of(request), data)


@router.post("/midway", response=MidwayOut, auth=VIEWER)
def midway(request: HttpRequest, account: Path[str], data: MidwayIn) -> MidwayOut:
    """A look into the hopper when a part is done."""
    return tools.midway(account_of(request), data)


@router.post("", response={201: MachineOut}, auth=MANAGER)
def add_machine(request: HttpRequest, account: Path[str], data: MachineIn) -> tuple[int, MachineOut]:
    """Add a machine."""
    found = account_of(request)
    return 201, queries.machine_out(actions.save_machine(found, data), found)


@router.get("/{machine_id}", response=MachineWholeOut, auth=VIEWER)
def get_machine(request: HttpRequest, account: Path[str], machine_id: Id) -> MachineWholeOut:
    """A machine with its calibrations, curves and cleanings."""
    return queries.whole(account_of(request), machine_id)


@router.put("/{machine_id}", response=MachineOut, auth=MANAGER)
def change_machine(request: HttpRequest, account: Path[str], machine_id: Id, data: MachineIn) -> MachineOut:
    """Change a machine."""
    found = account_of(request)

    def stands() -> MachineOut:
        out = queries.machine_out(Machine.objects.one(found, machine_id), found)
        return out.model_copy(update={"output": out.typed_output})

    with against(data, stands):
        return queries.machine_out(actions.save_machine(found, data, Machine.objects.one(found, machine_id)), found)


@router.delete("/{machine_id}", response=MachineOut, auth=MANAGER)
def remove_machine(request: HttpRequest, account: Path[str], machine_id: Id) -> MachineOut:
    """Put a machine away; the book keeps it, and it can be put back."""
    found = account_of(request)
    machine = Machine.objects.one(found, machine_id)
    machine.archive()
    return queries.machine_out(machine, found)


@router.post("/{machine_id}/put-back", response=MachineOut, auth=MANAGER)
def put_back_machine(request: HttpRequest, account: Path[str], machine_id: Id) -> MachineOut:
    """Undo a removal."""
    found = account_of(request)
    return queries.machine_out(put_back(Machine.objects.one(found, machine_id)), found)


@router.post("/{machine_id}/bench", response=BenchOut, auth=VIEWER)
def bench(request: HttpRequest, account: Path[str], machine_id: Id, data: BenchAskIn) -> BenchOut:
    """What a bench comes to, as its figures are typed; nothing is kept."""
    found = account_of(request)
    made = benches.bench(queries.machine_of(found, machine_id), data.figures, found)
    return benches.bench_out(data.figures.method, made, found.us)


@router.post("/{machine_id}/calibrations", response={201: MachineWholeOut}, auth=APPLICATOR)
def keep_calibration(
    request: HttpRequest, account: Path[str], machine_id: Id, data: CalibrationIn
) -> tuple[int, MachineWholeOut]:
    """Keep a calibration; the latest of a sprayer gives its output."""
    found = account_of(request)
    actions.keep_calibration(Machine.objects.one(found, machine_id), user_of(request), data)
    found.refresh_from_db()
    return 201, queries.whole(found, machine_id)


@router.post("/{machine_id}/calibrations/{calibration_id}/{act}", response=MachineWholeOut, auth=APPLICATOR)
def use_calibration(
    request: HttpRequest, account: Path[str], machine_id: Id, calibration_id: Id, act: Literal["use", "leave"]
) -> MachineWholeOut:
    """Count a calibration (`use`) or leave it out (`leave`)."""
    found = account_of(request)
    machine = Machine.objects.one(found, machine_id)
    actions.use_calibration(actions.calibration_of(machine, calibration_id), act == "use")
    found.refresh_from_db()
    return queries.whole(found, machine_id)


@router.post("/{machine_id}/cleanings", response={201: MachineWholeOut}, auth=APPLICATOR)
def clean(request: HttpRequest, account: Path[str], machine_id: Id, data: CleaningIn) -> tuple[int, MachineWholeOut]:
    """Note that a machine was cleaned."""
    found = account_of(request)
    actions.clean(Machine.objects.one(found, machine_id), user_of(request), data)
    found.refresh_from_db()
    return 201, queries.whole(found, machine_id)


@router.delete("/{machine_id}/cleanings/{cleaning_id}", response=MachineWholeOut, auth=APPLICATOR)
def take_cleaning_back(request: HttpRequest, account: Path[str], machine_id: Id, cleaning_id: Id) -> MachineWholeOut:
    """Undo a cleaning that was noted by mistake."""
    found = account_of(request)
    actions.take_cleaning_back(Machine.objects.one(found, machine_id), cleaning_id)
    found.refresh_from_db()
    return queries.whole(found, machine_id)


@router.post("/{machine_id}/pace", response=PaceOut, auth=VIEWER)
def pace(request: HttpRequest, account: Path[str], machine_id: Id, data: PaceIn) -> PaceOut:
    """The pace that an output asks for, and its beat."""
    found = account_of(request)
    return tools.pace_card(found, queries.machine_of(found, machine_id), data)


@router.post("/{machine_id}/setting", response=SettingOut, auth=VIEWER)
def setting(request: HttpRequest, account: Path[str], machine_id: Id, data: SettingIn) -> SettingOut:
    """The setting of a spreader for a rate."""
    found = account_of(request)
    return tools.setting_card(found, queries.machine_of(found, machine_id), data)


@vessels_router.get("", response=list[OwnVesselOut], auth=VIEWER)
def list_vessels(request: HttpRequest, account: Path[str]) -> list[OwnVesselOut]:
    """What the account measures with, the retired ones too."""
    return vessels.own_vessels(account_of(request))


@vessels_router.post("", response={201: OwnVesselOut}, auth=MANAGER)
def add_vessel(request: HttpRequest, account: Path[str], data: OwnVesselIn) -> tuple[int, OwnVesselOut]:
    """Add a vessel."""
    return 201, vessels.vessel_out(vessels.save_vessel(account_of(request), data))


@vessels_router.put("/{vessel_id}", response=OwnVesselOut, auth=MANAGER)
def change_vessel(request: HttpRequest, account: Path[str], vessel_id: Id, data: OwnVesselIn) -> OwnVesselOut:
    """Change a vessel."""
    found = account_of(request)
    with against(data, lambda: vessels.vessel_out(Vessel.objects.one(found, vessel_id))):
        return vessels.vessel_out(vessels.save_vessel(found, data, Vessel.objects.one(found, vessel_id)))


@vessels_router.delete("/{vessel_id}", response=OwnVesselOut, auth=MANAGER)
def retire_vessel(request: HttpRequest, account: Path[str], vessel_id: Id) -> OwnVesselOut:
    """Retire a vessel: no dose is measured with it any more."""
    vessel = Vessel.objects.one(account_of(request), vessel_id)
    vessel.archive()
    return vessels.vessel_out(vessel)


@vessels_router.post("/{vessel_id}/put-back", response=OwnVesselOut, auth=MANAGER)
def put_back_vessel(request: HttpRequest, account: Path[str], vessel_id: Id) -> OwnVesselOut:
    """Undo a retirement."""
    return vessels.vessel_out(put_back(Vessel.objects.one(account_of(request), vessel_id)))


@vessels_router.post("/{vessel_id}/check", response=VesselCheckOut, auth=APPLICATOR)
def check_vessel(request: HttpRequest, account: Path[str], vessel_id: Id, data: CupIn) -> VesselCheckOut:
    """Keep what a check with water found of its marks."""
    vessel = Vessel.objects.one(account_of(request), vessel_id)
    found = vessels.keep_check(vessel, data)
    return VesselCheckOut(sentence=found.sentence, vessel=vessels.vessel_out(vessel))
