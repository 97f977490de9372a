"""What really went down in a round: read from the form, shared out over its ground, judged, and what it tells of its machine."""

from collections.abc import Sequence
from dataclasses import dataclass

from core.errors import InputError
from core.job import MachineKind
from core.label.rate import Rate
from core.machines.spreader import Curve, rate_at
from core.machines.working import output_unit, spread_unit
from core.machines.working import rate_of as rate_in_unit
from core.rates.actual import actual_rate
from core.rates.limits import Judgement, judge
from core.units import AREA, MASS, VOLUME, Quantity, positive, unit
from greenmeasure.common.clock import today
from greenmeasure.common.errors import Faults
from greenmeasure.common.schemas import QuantityIn, filled, number_in, quantity_in
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machine_of, setting_of
from greenmeasure.rounds.models import Round, RoundComponent, RoundDose, RoundPart
from greenmeasure.rounds.schemas import FinishIn, UsedIn
from greenmeasure.rounds.words import taught_sentence
from greenmeasure.shelf.actions import lot_of
from greenmeasure.shelf.models import Lot


@dataclass(frozen=True)
class ActualDose:
    """What really went down of one component on one part, judged by its label row."""

    dose: RoundDose
    used: Quantity
    rate: Rate
    judgement: Judgement


@dataclass(frozen=True)
class ActualPart:
    """What really went down on one part; of what went in to taste there is no dose."""

    part: RoundPart
    treated: Quantity
    doses: tuple[ActualDose, ...]


@dataclass(frozen=True)
class Used:
    """What was used of one component in all, None to taste, and the lot that it was from."""

    component: RoundComponent
    amount: Quantity | None
    lot: Lot | None
    lot_number: str


@dataclass(frozen=True)
class Taught:
    """What a round tells of its machine: what one pass really put down [L/m² or g/m²], at a spreader's `setting`.

    `off` is its distance from the output or the tested curve that stood, as a share, where one did.
    """

    rate: float
    setting: float | None
    off: float | None
    sentence: str


PART = 0.95
"""Spray under this share of the plan, with all of the product used up, is a tank of which only part was sprayed (ours)."""


@dataclass(frozen=True)
class Partly:
    """A tank of which only part was sprayed: how much of it, and what of each product then went down, None to taste."""

    sprayed: Quantity
    planned: Quantity
    went_down: tuple[Quantity | None, ...]


@dataclass(frozen=True)
class Actual:
    """What really went down, read from the form and judged part by part; `used` is one a component."""

    used: tuple[Used, ...]
    spray: Quantity | None
    parts: tuple[ActualPart, ...]
    taught: Taught | None = None
    partly: Partly | None = None


def read_actual(found: Round, data: FinishIn) -> Actual:
    """What the form says really went down. Above the label is marked, never refused: it has happened.

    What was used is shared out over the parts by their planned doses and the ground really treated; what was left out has none.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    parts, mix = list(found.parts.all()), list(found.mix.all())
    if len(data.used) != len(mix):
        faults.add("used", len(data.used), f"The mix has {len(mix)} products.", "Enter what was used of each.")
    used = [_used(faults, c, component, given) for c, (component, given) in enumerate(zip(mix, data.used, strict=False))]
    if len(data.treated) not in (0, len(parts)):
        faults.add("treated", len(data.treated), f"The round has {len(parts)} areas.", "Enter the ground treated of each.")
    given = data.treated if len(data.treated) == len(parts) else [None] * len(parts)
    treated = [
        p.treated if g is None else faults.of(_treated, f"treated.{i}", g)
        for i, (p, g) in enumerate(zip(parts, given, strict=True))
    ]
    spray = faults.of(quantity_in, "spray", sprayed, VOLUME) if (sprayed := filled(data.spray)) else found.spray
    faults.raise_any()
    sizes = [t for t in treated if t]
    if not any(s.value for s in sizes):
        raise InputError("treated.0", 0, "No ground was treated.", "Give the round up, or enter what was.")
    ground = sum(s.base for s in sizes)
    shares = [_shared(u, parts, sizes) for u in used]
    judged = tuple(
        ActualPart(part, size, tuple(_judged(s[part.pk], size, spray, ground) for s in shares if part.pk in s))
        for part, size in zip(parts, sizes, strict=True)
        if size.value
    )
    weighed = sum(u.amount.base for u in used if u.amount)
    return Actual(tuple(used), spray, judged, _taught(found, data, weighed, ground), _partly(found, used, spray))


def _partly(found: Round, used: Sequence[Used], spray: Quantity | None) -> Partly | None:
    """Whether less was sprayed than was mixed, while everything mixed is told as used: the rest is in the tank still."""
    if spray is None or found.spray is None or spray.base >= PART * found.spray.base:
        return None
    share = spray.base / found.spray.base
    meant = [(u.amount, u.component.amount) for u in used]
    all_of_it = [a.base / p.base > (1 + share) / 2 for a, p in meant if a and p and a.unit.dimension == p.unit.dimension]
    if not all_of_it or not all(all_of_it):
        return None
    down = tuple(a and Quantity(a.value * share, a.unit) for a, _ in meant)
    return Partly(spray, found.spray, down)


def _used(faults: Faults, c: int, component: RoundComponent, given: UsedIn) -> Used:
    """What was used of one component; an amount is needed of all that had one."""
    amount, typed = None, filled(given.amount)
    if typed or component.amount:
        typed = typed or QuantityIn(value="", unit=component.amount_unit)
        amount = faults.of(quantity_in, f"used.{c}.amount", typed, MASS, VOLUME)
    lot = faults.of(lot_of, component.product, given.lot_id) if given.lot_id else None
    return Used(component, amount, lot, lot.number if lot else given.lot.strip())


def _shared(used: Used, parts: Sequence[RoundPart], sizes: Sequence[Quantity]) -> dict[int, tuple[RoundDose, Quantity]]:
    """A component's amount over the parts, by their keys: by planned dose and the ground really treated."""
    if used.amount is None:
        return {}
    doses = {p.pk: d for p in parts for d in p.doses.all() if d.component_id == used.component.pk}
    weights = {p.pk: doses[p.pk].dose * size.base / p.treated.base for p, size in zip(parts, sizes, strict=True) if p.pk in doses}
    whole = sum(weights.values())
    unit = used.amount.unit
    return {pk: (doses[pk], Quantity(used.amount.value * w / whole, unit)) for pk, w in weights.items() if w}


def _judged(shared: tuple[RoundDose, Quantity], size: Quantity, spray: Quantity | None, ground: float) -> ActualDose:
    """One component on one part, its spray by its share of the `ground` [m²]."""
    dose, used = shared
    wet = Quantity(spray.value * size.base / ground, spray.unit) if spray else None
    product = dose.component.product.core()
    rate = actual_rate(product, dose.label, used, size, wet)
    return ActualDose(dose, used, rate, judge(rate, dose.label, product.label_binds))


def _treated(field: str, given: QuantityIn) -> Quantity:
    """Ground really treated; 0 where it was left out. Raises InputError."""
    if str(given.value).strip() in ("0", "0.0"):
        return Quantity(0.0, unit(given.unit, f"{field}.unit"))
    return quantity_in(field, given, AREA)


def _taught(found: Round, data: FinishIn, weighed: float, ground: float) -> Taught | None:
    """What the round tells of its machine, where what tells it was measured: the spray, or a spreader's setting.

    `weighed` is what went through a spreader [g], `ground` what was treated [m²].
    """
    machine, walked = machine_of(found.account, found.machine_id), data.walked or found.passes
    if machine.kind == MachineKind.SPRAYER:
        sprayed = filled(data.spray)
        if sprayed is None or machine.output is None:
            return None
        rate = quantity_in("spray", sprayed, VOLUME).base / ground / walked
        return _told(found, machine, rate, None, rate / machine.output.base - 1)
    if not str(data.setting).strip():
        return None
    setting = positive("setting", number_in("setting", data.setting), zero=True, most=1000)
    rate = weighed / ground / walked
    tested = setting_of(machine, found.mix.all()[0].product.core(), rate, today(found.account)).curve
    return _told(found, machine, rate, setting, _against(tested, setting, rate))


def _told(found: Round, machine: Machine, rate: float, setting: float | None, off: float | None) -> Taught:
    us = found.account.us
    unit = output_unit(us) if setting is None else spread_unit(us)
    return Taught(rate, setting, off, taught_sentence(machine.name, rate_in_unit(rate, unit), setting, off))


def _against(tested: Curve | None, setting: float, rate: float) -> float | None:
    """How far a rate lies from the tested curve at its setting; None where the curve does not reach."""
    try:
        return rate / rate_at(tested, setting) - 1 if tested else None
    except InputError:
        return None
