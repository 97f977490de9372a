"""What really went down in a round: read from the form, shared out over its ground, judged, and what it tells of its machine."""

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
from greenmeasure.rounds.models import Round, RoundPart
from greenmeasure.rounds.schemas import FinishIn
from greenmeasure.rounds.words import taught_sentence
from greenmeasure.shelf.actions import lot_of
from greenmeasure.shelf.models import Lot


@dataclass(frozen=True)
class ActualPart:
    """What really went down on one part, judged by its label row."""

    part: RoundPart
    used: Quantity
    treated: Quantity
    rate: Rate
    judgement: Judgement


@dataclass(frozen=True)
class Taught:
    """What a round tells of its machine: what one pass really put down [L/m² or g/m²], at a spreader's `setting`.

    `off` is its distance from the output or the tested curve that stood, as a share, where one did.
    """

    rate: float
    setting: float | None
    off: float | None
    sentence: str


@dataclass(frozen=True)
class Actual:
    """What really went down, read from the form and judged part by part."""

    used: Quantity
    spray: Quantity | None
    parts: tuple[ActualPart, ...]
    lot: Lot | None
    taught: Taught | None = None


def read_actual(found: Round, data: FinishIn) -> Actual:
    """What the form says really went down. Above the label is marked, never refused: it has happened.

    What was used is shared out over the parts by their planned doses and the ground really treated; what was left out has none.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    parts = list(found.parts.all())
    used = faults.of(quantity_in, "used", data.used, MASS, VOLUME)
    if len(data.treated) not in (0, len(parts)):
        faults.add("treated", len(data.treated), f"The round has {len(parts)} areas.", "Enter the ground treated of each.")
    given = data.treated if len(data.treated) == len(parts) else [None] * len(parts)
    treated = [
        p.treated if g is None else faults.of(_treated, f"treated.{i}", g)
        for i, (p, g) in enumerate(zip(parts, given, strict=True))
    ]
    spray = faults.of(quantity_in, "spray", sprayed, VOLUME) if (sprayed := filled(data.spray)) else found.spray
    lot = faults.of(lot_of, found.product, data.lot_id) if data.lot_id else None
    faults.raise_any()
    assert used
    sizes = [t for t in treated if t]
    if not any(s.value for s in sizes):
        raise InputError("treated.0", 0, "No ground was treated.", "Give the round up, or enter what was.")
    weights = [p.dose * t.base / p.treated.base for p, t in zip(parts, sizes, strict=True)]
    whole = sum(weights)
    judged = []
    for part, size, weight in zip(parts, sizes, weights, strict=True):
        if not size.value:
            continue
        share = Quantity(used.value * weight / whole, used.unit)
        wet = Quantity(spray.value * size.base / sum(s.base for s in sizes), spray.unit) if spray else None
        product = found.product.core()
        rate = actual_rate(product, part.label, share, size, wet)
        judged.append(ActualPart(part, share, size, rate, judge(rate, part.label, product.label_binds)))
    return Actual(used, spray, tuple(judged), lot, _taught(found, data, used, sum(s.base for s in sizes)))


def _treated(field: str, given: QuantityIn) -> Quantity:
    """Ground really treated; 0 where it was left out. Raises InputError."""
    if str(given.value).strip() in ("0", "0.0"):
        return Quantity(0.0, unit(given.unit, f"{field}.unit"))
    return quantity_in(field, given, AREA)


def _taught(found: Round, data: FinishIn, used: Quantity, ground: float) -> Taught | None:
    """What the round tells of its machine, where what tells it was measured: the spray, or a spreader's setting."""
    machine = machine_of(found.account, found.machine_id)
    if machine.kind == MachineKind.SPRAYER:
        sprayed = filled(data.spray)
        if sprayed is None or machine.output is None:
            return None
        rate = quantity_in("spray", sprayed, VOLUME).base / ground / found.passes
        return _told(found, machine, rate, None, rate / machine.output.base - 1)
    if not str(data.setting).strip():
        return None
    setting = positive("setting", number_in("setting", data.setting), zero=True, most=1000)
    rate = used.base / ground / found.passes
    tested = setting_of(machine, found.product.core(), rate, today(found.account)).curve
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
