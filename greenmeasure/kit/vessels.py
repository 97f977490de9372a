"""An account's own cups, syringes, spoons and scales: kept, checked by water, retired."""

from typing import get_args

from core.errors import InputError
from core.tank.measuring import CupCheck, check_cup
from core.tank.vessels import Cabinet, Shape, marks_of
from core.units import MASS, VOLUME, Quantity, celsius
from greenmeasure.accounts.models import Account
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Faults
from greenmeasure.common.kept import kept
from greenmeasure.common.names import free_name
from greenmeasure.common.schemas import filled, number_in, quantity_in, quantity_out
from greenmeasure.common.versions import claim
from greenmeasure.kit.models import Vessel
from greenmeasure.kit.schemas import CupIn, OwnVesselIn, OwnVesselOut
from greenmeasure.kit.words import vessel_state

MOST_MARKS = 1000
"""A vessel with more marks than this was mistyped (ours)."""


@kept("kit")
def cabinet(account: Account) -> Cabinet:
    """What the account measures with."""
    return Cabinet(account.us, tuple(v.core() for v in Vessel.objects.of(account).kept()))


def own_vessels(account: Account) -> list[OwnVesselOut]:
    """The account's vessels, the retired ones last."""
    return [vessel_out(v) for v in sorted(Vessel.objects.of(account), key=_turn)]


def _turn(vessel: Vessel) -> tuple[bool, bool, float]:
    """Those in use first, what pours before what weighs, the smallest first."""
    return vessel.archived_at is not None, vessel.holds.unit.dimension == MASS, vessel.holds.base


def vessel_out(vessel: Vessel) -> OwnVesselOut:
    """A vessel with what its last check said."""
    return OwnVesselOut(
        id=vessel.pk,
        version=vessel.version,
        name=vessel.name,
        shape=vessel.core().shape,
        capacity=quantity_out(vessel.holds),
        graduation=quantity_out(vessel.marked),
        weighs=vessel.holds.unit.dimension == MASS,
        marks=marks_of(vessel.core()),
        retired=vessel.archived_at is not None,
        state=vessel_state(vessel),
    )


def save_vessel(account: Account, data: OwnVesselIn, vessel: Vessel | None = None) -> Vessel:
    """Add a vessel, or change one. Other marks than those that were checked ask for a new check.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    before, vessel = vessel, vessel or Vessel(account=account)
    name = faults.of(free_name, Vessel, account, data.name, vessel.pk)
    shape = faults.of(_shape, data.shape)
    dimension = MASS if shape == "scale" else VOLUME
    capacity = faults.of(quantity_in, "capacity", data.capacity, dimension)
    graduation = faults.of(quantity_in, "graduation", given, dimension) if (given := filled(data.graduation)) else capacity
    if capacity and graduation:
        faults.of(_check_marks, capacity, graduation)
    faults.raise_any()
    assert name and shape and capacity and graduation
    step = graduation.to(capacity.unit).value
    if (vessel.capacity, vessel.graduation, vessel.unit) != (capacity.value, step, capacity.unit.key):
        vessel.off, vessel.checked_on = None, None
    vessel.name, vessel.shape = name, shape
    vessel.capacity, vessel.graduation, vessel.unit = capacity.value, step, capacity.unit.key
    with claim(before, data.version):
        vessel.save()
    return vessel


def _shape(key: str) -> Shape:
    found: tuple[Shape, ...] = get_args(Shape)
    for shape in found:
        if shape == key:
            return shape
    raise InputError("shape", key, f"“{key}” is no shape of vessel known here.", "Pick one of the list.")


def _check_marks(capacity: Quantity, graduation: Quantity) -> None:
    """Refuse marks that lie further apart than the vessel is large, or too many of them. Raises InputError."""
    count = capacity.base / graduation.base
    if count < 1 - 1e-9:
        raise InputError(
            "graduation",
            str(graduation),
            f"{graduation} between two marks is more than the {capacity} it holds.",
            "Enter what lies between two marks next to each other.",
        )
    if capacity.unit.dimension == VOLUME and count > MOST_MARKS:
        raise InputError("graduation", str(graduation), f"That makes {count:.0f} marks.", "Check both units.")


def check_in(data: CupIn) -> CupCheck:
    """Whether a mark is true, by the water that fills the vessel to it. Raises InputError."""
    warm = 20.0
    if given := filled(data.temperature):
        warm = celsius("temperature", number_in("temperature", given.value), given.unit)
    return check_cup(quantity_in("mark", data.mark, VOLUME), quantity_in("weight", data.weight, MASS), warm)


def keep_check(vessel: Vessel, data: CupIn) -> CupCheck:
    """Keep what a check with water found of a vessel's marks: doses go by it from now on.

    Raises:
        InputError: a scale; a mark that the vessel does not have; figures that cannot be.
    """
    if vessel.holds.unit.dimension != VOLUME:
        raise InputError("mark", vessel.name, "A scale holds no water.", "Check it with a known weight.")
    found = check_in(data)
    mark = quantity_in("mark", data.mark, VOLUME)
    if mark.base > vessel.holds.base * (1 + 1e-9):
        raise InputError("mark", str(mark), f"{vessel.name} has no mark at {mark}.", f"It ends at {vessel.holds}.")
    vessel.off, vessel.checked_on = found.off, today(vessel.account)
    vessel.next_version()
    vessel.save()
    return found
