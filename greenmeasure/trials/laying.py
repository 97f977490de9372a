"""A trial's plots, from what was asked for to ground that is cut: the one reading of it, for the look ahead and for the start."""

import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from math import fsum

from core.book.trial import LEAST_WIDTH, MOST_BLOCKS, MOST_TREATMENTS, SCATTER, Layout, lay_out, long_way
from core.errors import InputError
from core.passes.near import outline_of
from core.scouting.kinds import Look, check_what, look_of
from core.units import LENGTH, show_number
from greenmeasure.accounts.models import Account
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.schemas import filled, number_in, quantity_in
from greenmeasure.ground.measuring import plan_of
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import kin
from greenmeasure.kit.models import Machine
from greenmeasure.shelf.models import Product
from greenmeasure.trials.models import Trial
from greenmeasure.trials.schemas import LayoutIn, TreatmentIn

UNTREATED = "Untreated"


@dataclass(frozen=True)
class Laid:
    """What was asked for, read: its ground, its layout, what is scored, by how much that scatters, and its treatments' names.

    `scale` is how much larger the area is than its drawing.
    """

    area: Area
    layout: Layout
    look: Look
    what: str
    scatter: float | None
    names: tuple[str, ...]
    products: tuple[Product | None, ...]
    seed: int
    least: float
    scale: float

    def size(self, treatment: int) -> float:
        """The ground of one treatment [m²]."""
        return self.scale * fsum(float(p.shape.area) for p in self.layout.plots if p.treatment == treatment)


def laid(account: Account, data: LayoutIn) -> Laid:
    """A layout as it was asked for.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    area = faults.of(_area, account, data.area_id)
    look = faults.of(look_of, data.kind)
    what = faults.of(check_what, look, data.what) if look else None
    scatter = faults.of(_scatter, look, data.scatter) if look else None
    products = [faults.of(_product, account, i, t) for i, t in enumerate(data.treatments)]
    least = faults.of(_least, account, data)
    blocks = faults.of(_blocks, data.blocks)
    turn = faults.of(_turn, data.turn)
    count = len(data.treatments) + 1
    if not 2 <= count <= MOST_TREATMENTS:
        faults.add("treatments", count, "Nothing is tried yet.", f"Add 1 to {MOST_TREATMENTS - 1} beside the untreated.")
    faults.raise_any()
    assert area and look and what is not None and least and turn is not None
    plan = plan_of(area)
    assert plan
    ground = outline_of(plan)
    way, seed = (long_way(ground) + turn) % 180, data.seed or 1 + secrets.randbelow(2**31 - 1)
    layout = faults.of(lay_out, ground, count, seed, least=least, blocks=blocks, direction=way)
    faults.raise_any()
    assert layout
    names = (UNTREATED, *(t.name or f"Treatment {i}" for i, t in enumerate(data.treatments, start=1)))
    scale = area.size.base / ground.area
    return Laid(area, layout, look, what, scatter, names, (None, *products), seed, least, scale)


def _area(account: Account, pk: int) -> Area:
    try:
        area = Area.objects.one(account, pk)
    except Missing:
        raise InputError("area_id", pk, "That area is not there.", "Pick another.") from None
    if area.archived_at is not None:
        raise InputError("area_id", area.name, f"{area.name} was put away.", "Pick another.")
    if plan_of(area) is None:
        raise InputError("area_id", area.name, f"{area.name} has no outline to cut.", "Measure it by its sides or corners first.")
    other = under_way(account, area)
    if other:
        raise InputError("area_id", area.name, f"The trial “{other.name}” stands on it.", "End that first, or pick other ground.")
    return area


def under_way(account: Account, area: Area) -> Trial | None:
    """A trial that stands on an area, on a part of it, or on what it is a part of."""
    standing = Trial.objects.of(account).kept().filter(ended_on=None, area_id__in=kin(account, area.pk))
    return standing.first()


def _product(account: Account, i: int, given: TreatmentIn) -> Product | None:
    if given.product_id is None:
        return None
    try:
        return Product.objects.one(account, given.product_id)
    except Missing:
        raise InputError(f"treatments.{i}.product_id", given.product_id, "That product is not there.", "Pick another.") from None


def _least(account: Account, data: LayoutIn) -> float:
    if given := filled(data.least):
        found = quantity_in("least", given, LENGTH).base
        if not LEAST_WIDTH / 4 <= found <= 100:
            raise InputError("least", given.value, f"A strip of {show_number(found, 3)} m cannot be worked.", "0.25 to 100 m.")
        return found
    if data.machine_id is None:
        return LEAST_WIDTH
    try:
        machine = Machine.objects.one(account, data.machine_id)
    except Missing:
        raise InputError("machine_id", data.machine_id, "That machine is not there.", "Pick another.") from None
    return float(machine.swath or LEAST_WIDTH)


def _blocks(given: float | str) -> int | None:
    if not str(given).strip():
        return None
    found = number_in("blocks", given)
    if found != int(found) or not 1 <= found <= MOST_BLOCKS:
        raise InputError("blocks", given, f"{given} is no number of repeats.", f"1 to {MOST_BLOCKS}, or leave it empty.")
    return int(found)


def _turn(given: str) -> float:
    if given not in ("", "across"):
        raise InputError("turn", given, f"“{given}” is no way to cut.", "Leave it empty, or say across.")
    return 90.0 if given else 0.0


def _scatter(look: Look, given: float | str) -> float | None:
    if not str(given).strip():
        return SCATTER if look.scale and look.scale.least == 1 else None
    found = number_in("scatter", given)
    if not 0 < found <= 1000:
        raise InputError("scatter", given, f"Plots are never {given} apart by chance.", "Half a mark is usual.")
    return found


def named(treatments: Sequence[TreatmentIn]) -> Faults:
    """What is wrong with the names of treatments: empty, or twice."""
    faults, seen = Faults(), {UNTREATED.casefold()}
    for i, t in enumerate(treatments):
        name = t.name.casefold()
        if not name:
            faults.add(f"treatments.{i}.name", t.name, "It has no name.", "Say what is tried: a product and its rate.")
        elif name in seen:
            faults.add(f"treatments.{i}.name", t.name, f"“{t.name}” stands twice.", "Tell them apart.")
        seen.add(name)
    return faults
