"""A hose-end sprayer in a job: a bottle, and a dial that draws from it into the hose's water.

    spray = flow × time      from the bottle = dial × spray      ground that one bottle covers = bottle ÷ (dial × spray per area)

The dial is what of the bottle's content is in the finished spray. Where the product is made up with water to the bottle's mark
the spray comes from the calibrated output, and the dial draws all of the bottle's content into it. Where the product goes in
as it is, the dial tells how much spray it becomes, so that the ground is covered for as long as the bottle lasts. Flow is that of
the tap at which it was timed.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from core.errors import InputError
from core.job.machine import Machine
from core.label.rate import Rate, RateUnit
from core.machines.working import time_text
from core.readable import joined
from core.units import UNITS, Quantity


@dataclass(frozen=True)
class Draw:
    """How a hose-end is set for a ground: its dial, the spray that comes of it [L], what of that is from the bottle [L].

    `seconds` is how long the spray is on, None where the flow was never timed.
    """

    dial: Rate
    spray: float
    content: float
    seconds: float | None

    @property
    def time(self) -> str:
        return time_text(self.seconds) if self.seconds is not None else ""


def draw_diluted(machine: Machine, dial: Rate | None, liquids: float, spray: float) -> Draw:
    """The product made up with water to the bottle's mark.

    Args:
        machine: the hose-end.
        dial: where it is set; where nobody says, the lowest position at which the product leaves room for water.
        liquids: what of the mix is liquid [L].
        spray: of the ground in all, by the calibrated output [L].

    Raises:
        InputError: no dial is known, or the product leaves no room for water at it.
    """
    needed = liquids / spray
    if dial is None:
        room = [d for d in positions(machine) if d.base > needed * (1 + 1e-9)]
        dial = room[0] if room else None
    if dial is None or dial.base <= needed * (1 + 1e-9):
        at_least = _like(needed, machine)
        stands = f"At {dial} it" if dial else f"No position of {machine.name}’s dial"
        raise InputError(
            "dial",
            str(dial or ""),
            f"{stands} leaves no room for water: the product alone needs more than {at_least}.",
            "Turn the dial higher, use the product undiluted, or cover the ground more slowly.",
        )
    return Draw(dial, spray, dial.base * spray, _seconds(machine, spray))


def draw_undiluted(machine: Machine, dial: Rate | None, liquids: float, spray: float | None) -> Draw:
    """The product as it is in the bottle: what it becomes is by the dial.

    Args:
        machine: the hose-end.
        dial: where it is set; where nobody says, the position nearest to what the calibrated output asks for.
        liquids: what goes into the bottle [L].
        spray: of the ground in all, by the calibrated output [L]; None where that is not known.

    Raises:
        InputError: neither a dial nor an output is known.
    """
    if dial is None and spray is None:
        raise InputError(
            "dial", "", f"How much {machine.name} draws is not known.", "Set the dial here, or time the hose in Kit."
        )
    if dial is None:
        assert spray is not None
        wanted = liquids / spray
        known = positions(machine)
        dial = min(known, key=lambda d: max(d.base / wanted, wanted / d.base)) if known else _like(wanted, machine)
    made = liquids / dial.base
    return Draw(dial, made, liquids, _seconds(machine, made))


def positions(machine: Machine) -> Sequence[Rate]:
    """The dial's positions, the lowest first.

    Args:
        machine: a hose-end.
    """
    return sorted(machine.dials, key=lambda d: d.base)


def check_dial(dial: Rate, field: str = "dial") -> Rate:
    """Refuse what no dial sets: more than there is, or an amount per area.

    Raises:
        InputError: by its field.
    """
    if dial.unit.per_area or dial.unit.amount.dimension == "mass" or not 0 < dial.base < 1:
        raise InputError(
            field, str(dial), f"{dial} is no setting of a dial.", "Enter what it draws per gallon, such as 2 fl oz per gal."
        )
    return dial


def check_bottle(dry: Sequence[str]) -> None:
    """Refuse dry products that are to go in undiluted. Raises InputError with their names.

    Args:
        dry: the names of what is dry.
    """
    if dry:
        raise InputError(
            "undiluted", joined(list(dry)), f"{joined(list(dry))} is dry: it cannot go in undiluted.", "Make it up with water."
        )


def reach_of(machine: Machine) -> Quantity | None:
    """The ground that one bottle covers at the lowest position of its dial; None where dial or output is not known.

    Args:
        machine: a hose-end.
    """
    known = positions(machine)
    if not known or machine.output is None:
        return None
    return Quantity(machine.capacity.base / (known[0].base * machine.output.base), UNITS["m2"])


def _seconds(machine: Machine, spray: float) -> float | None:
    return spray / machine.flow if machine.flow else None


def _like(share: float, machine: Machine) -> Rate:
    """A share as a dial is marked: in the unit of the machine's own positions, else per gallon or litre by its bottle."""
    known = positions(machine)
    litre = machine.capacity.unit.key in ("l", "ml")
    unit = known[0].unit if known else RateUnit.from_key("ml/l" if litre else "fl_oz/gal")
    return Rate(share / unit.size, unit)
