"""A machine as the sums need it."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from core.errors import OUTPUT, InputError, Mend
from core.label.product import Product
from core.label.rate import Rate, RateUnit
from core.units import MASS, UNITS, VOLUME, Quantity, show_number


class MachineKind(StrEnum):
    """What a machine puts down: a liquid by the tank, or granules by the hopper."""

    SPRAYER = "sprayer"
    SPREADER = "spreader"


_USUAL: dict[str, tuple[tuple[float, str], tuple[float, str]]] = {
    "hand_pump": ((1, "gal"), (5, "l")),
    "knapsack": ((4, "gal"), (15, "l")),
    "knapsack_battery": ((4, "gal"), (15, "l")),
    "walking_boom": ((15, "gal"), (60, "l")),
    "ride_on": ((60, "gal"), (200, "l")),
    "hose_end": ((32, "fl_oz"), (1, "l")),
    "spot_gun": ((50, "gal"), (200, "l")),
    "broadcast": ((50, "lb"), (20, "kg")),
    "drop": ((40, "lb"), (20, "kg")),
    "hand_held": ((5, "lb"), (2, "kg")),
}


class Form(StrEnum):
    """What a machine is built as."""

    HAND_PUMP = "hand_pump"
    KNAPSACK = "knapsack"
    KNAPSACK_BATTERY = "knapsack_battery"
    WALKING_BOOM = "walking_boom"
    RIDE_ON = "ride_on"
    HOSE_END = "hose_end"
    SPOT_GUN = "spot_gun"
    BROADCAST = "broadcast"
    DROP = "drop"
    HAND_HELD = "hand_held"

    @property
    def text(self) -> str:
        return {
            "hand_pump": "hand-pumped sprayer",
            "knapsack": "knapsack, pumped by hand",
            "knapsack_battery": "knapsack, battery",
            "walking_boom": "walking boom",
            "ride_on": "ride-on sprayer",
            "hose_end": "hose-end sprayer",
            "spot_gun": "spot gun",
            "broadcast": "broadcast spreader",
            "drop": "drop spreader",
            "hand_held": "hand-held spreader",
        }[self.value]

    def usual(self, us: bool) -> Quantity:
        """What one of them usually holds: where a form begins, for its owner to put right (common practice, no source)."""
        value, key = _USUAL[self.value][0 if us else 1]
        return Quantity(value, UNITS[key])

    @property
    def kind(self) -> MachineKind:
        return MachineKind.SPREADER if self in (Form.BROADCAST, Form.DROP, Form.HAND_HELD) else MachineKind.SPRAYER


def assumed_output(us: bool) -> Rate:
    """What is taken for the output of a sprayer of which nobody knows it (common practice, no source)."""
    return Rate(1.0, RateUnit.from_key("gal/kft2")) if us else Rate(4.0, RateUnit.from_key("l/m2_100"))


@dataclass(frozen=True)
class Machine:
    """A sprayer (tank and output per area of one pass) or a spreader (hopper).

    `mark` is what lies between two marks of a sprayer's tank, where that is known. Of a hose-end the tank is its bottle, `dials`
    are the positions of its dial, what each draws of the bottle into the spray, and `flow` what the hose gives [L/s].
    """

    name: str
    kind: MachineKind
    capacity: Quantity
    output: Rate | None = None
    form: Form | None = None
    mark: Quantity | None = None
    dials: tuple[Rate, ...] = ()
    flow: float | None = None
    id: int | None = None

    @property
    def sprays(self) -> bool:
        return self.kind is MachineKind.SPRAYER

    @property
    def draws(self) -> bool:
        """Whether it draws from a bottle into a hose, in place of spraying a tank out."""
        return self.form is Form.HOSE_END

    @property
    def vessel(self) -> Literal["tank", "hopper", "bottle"]:
        """What is filled of it."""
        return "bottle" if self.draws else "tank" if self.sprays else "hopper"

    @property
    def output_base(self) -> float:
        """Output [L/m²].

        Raises:
            InputError: a sprayer whose output is not known.
        """
        if self.output is None:
            raise InputError(
                "machine",
                self.name,
                f"The output of {self.name} is not known.",
                "Measure it, or enter it in Kit.",
                mend=Mend(OUTPUT, self.id),
            )
        return self.output.base


def check_machine(machine: Machine) -> None:
    """Refuse a machine that cannot be. A sprayer's output may be unknown until it is calibrated.

    Raises:
        InputError: a form of the other kind, a tank not in volume, a hopper not in weight, or an output that is not volume
            per area.
    """
    if machine.form and machine.form.kind is not machine.kind:
        raise InputError("form", machine.form.value, f"A {machine.form.text} is no {machine.kind}.", "Pick another form.")
    wanted = VOLUME if machine.sprays else MASS
    if machine.capacity.unit.dimension != wanted:
        holds = "tank holds a volume" if wanted == VOLUME else "hopper holds a weight"
        raise InputError("capacity", str(machine.capacity), f"A {machine.kind}'s {holds}.", "Pick another unit.")
    if machine.mark and (machine.mark.unit.dimension != VOLUME or machine.mark.base > machine.capacity.base / 2):
        raise InputError(
            "mark",
            str(machine.mark),
            f"{machine.mark} is no distance between marks of a tank of {machine.capacity}.",
            "Enter what lies between two marks, such as 1 gal.",
        )
    if not machine.sprays or machine.output is None:
        return
    output = machine.output
    if output.unit.amount.dimension != VOLUME or not output.unit.per_area:
        raise InputError(
            "output",
            str(output),
            "A sprayer's output is a volume per area.",
            "Enter it as gal/1000 ft², gal/acre, L/100 m² or L/ha.",
        )
    if not 1e-4 <= machine.output_base <= 10:
        raise InputError(
            "output",
            str(output),
            f"{output} is {show_number(machine.output_base * 1e4)} L/ha, which no sprayer puts down.",
            "Check the number and its unit; walking sprayers put down about 0.5 to 4 gal/1000 ft² (200 to 1600 L/ha).",
        )


def takes(kind: MachineKind, form: Form | None, product: Product) -> bool:
    """Whether a machine can put a product down: what is sprayed by a tank, granules by a spreader, a powder by a drop one too."""
    if form is Form.DROP and not product.liquid:
        return True
    return product.formulation.sprayed == (kind is MachineKind.SPRAYER)


def check_one_way(mix: Sequence[Product]) -> None:
    """Refuse a mix of what is sprayed and what is spread dry: no machine puts both down at once.

    Raises:
        InputError: names the dry one.
    """
    for i, product in enumerate(mix):
        if not product.formulation.sprayed and any(p.formulation.sprayed for p in mix):
            problem = f"{product.name} is spread dry, and the rest of the mix is sprayed: it is not for the tank."
            raise InputError(f"mix.{i}", product.name, problem, "Make it a job of its own.")


def check_match(product: Product, machine: Machine) -> None:
    """Refuse a machine that cannot put the product down.

    Raises:
        InputError: a sprayed product in a spreader, granules in a sprayer, or a machine that cannot be.
    """
    check_machine(machine)
    if takes(machine.kind, machine.form, product):
        return
    how, other = ("sprayed", "sprayer") if product.formulation.sprayed else ("spread dry", "spreader")
    raise InputError(
        "machine", machine.name, f"{product.name} is {how}, and {machine.name} is a {machine.kind}.", f"Pick a {other}."
    )
