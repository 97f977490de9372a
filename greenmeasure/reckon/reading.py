"""A job as it is asked for, read into what the core reckons with: label rows, doses, ground, and what somebody looked at."""

from collections.abc import Sequence

from core.errors import InputError
from core.ground import Ground
from core.job import Dosing, Machine, Part
from core.units import AREA, SPEED, VOLUME, Quantity, celsius
from core.weather.said import UNSAID, Said
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import QuantityIn, filled, quantity_in, rate_in, signed_in
from greenmeasure.ground.actions import share_in
from greenmeasure.reckon.schemas import JobIn, PartIn, SaidIn
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import row_of


def rows_of(account: Account, data: JobIn, i: int) -> tuple[RateRow | None, ...]:
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


def part_of(i: int, given: PartIn, rows: Sequence[RateRow | None], ground: Ground, machine: Machine | None) -> Part:
    """A part as the core takes it. Raises InputError by its field."""
    doses = tuple(
        Dosing(rate_in(f"parts.{i}.doses.{c}.rate", d.rate), row.label()) if d.rate and row else Dosing()
        for c, (d, row) in enumerate(zip(given.doses, rows, strict=True))
    )
    return Part(ground, doses, _treated(i, given, ground, machine), given.zone)


def check_spots(data: JobIn, machine: Machine | None) -> None:
    """Refuse spots that are not sprayed, or sprayed in more than one pass. Raises InputError by its field."""
    if machine is None or not machine.sprays or machine.draws:
        name = machine.name if machine else None
        raise InputError("machine_id", name, "Spots are sprayed from a tank.", "Pick a sprayer.")
    if data.passes != 1:
        raise InputError("passes", data.passes, "Spots are treated once.", "Set one pass.")


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


def _treated(i: int, part: PartIn, ground: Ground, machine: Machine | None) -> Quantity | None:
    """How much of an area is treated, all where None: as given, as a share, or as far as a given spray reaches."""
    if sprayed := filled(part.spray):
        return _reached(f"parts.{i}.spray", quantity_in(f"parts.{i}.spray", sprayed, VOLUME), ground, machine)
    if treated := filled(part.treated):
        return quantity_in(f"parts.{i}.treated", treated, AREA)
    return ground_share(part.share, ground, f"parts.{i}.share")


def _reached(field: str, spray: Quantity, ground: Ground, machine: Machine | None) -> Quantity:
    """The ground that so much spray reaches by the machine's output, in the ground's own unit. Raises InputError."""
    if machine is None or not machine.sprays:
        raise InputError(field, str(spray), "How far it reaches is not known without a sprayer.", "Pick the sprayer.")
    reached = Quantity(spray.base / machine.output_base / ground.size.unit.size, ground.size.unit)
    if reached.base > ground.size.base * (1 + 1e-6):
        most = Quantity(ground.size.base * machine.output_base / spray.unit.size, spray.unit)
        raise InputError(
            field,
            str(spray),
            f"{spray} reach {reached} at {machine.output}; {ground.name} has {ground.size}.",
            f"Mix at most {most} for all of it.",
        )
    return reached


def ground_share(text: str, ground: Ground, field: str = "share") -> Quantity | None:
    """A share of an area as its ground, None where none is typed. Raises InputError by its field."""
    if not text.strip():
        return None
    return Quantity(ground.size.value * share_in(text, field), ground.size.unit)
