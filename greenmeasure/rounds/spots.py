"""Spots: one mix that goes out over several outings, each in the book by the ground that it went on, until it is emptied."""

from datetime import datetime

from core.errors import InputError
from core.ledger.places import NEAR
from core.units import AREA, UNITS, VOLUME, Quantity, Unit, exact_number
from greenmeasure.accounts.models import User
from greenmeasure.book.models import Application
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict, Faults
from greenmeasure.common.schemas import QuantityIn, filled, quantity_in
from greenmeasure.kit.queries import machine_of
from greenmeasure.rounds.actions import end, open_round, when_done
from greenmeasure.rounds.actual import read_actual
from greenmeasure.rounds.left import Left, left_of
from greenmeasure.rounds.models import Round, RoundPart
from greenmeasure.rounds.pouring import poured_in_all
from greenmeasure.rounds.recording import Finished, Marked, Marks, record, take_from_lots
from greenmeasure.rounds.schemas import EmptiedIn, FinishIn, OutingIn, UsedIn
from greenmeasure.rounds.standing import stands_against
from greenmeasure.rounds.words import stale_sentence
from greenmeasure.shelf.actions import take_from_lot


def go_out(found: Round, user: User, data: OutingIn, at: datetime | None = None) -> Application:
    """Put one outing in the book. `at` is when, for records brought in later; as `data` says, unless given.

    Raises:
        Faulty: a field at fault; nothing is saved.
        InputError: neither spray nor ground, more spray than is left, more ground than the area has, or no reason where a rule
            stands against it.
        Conflict: the round is over, or treats no spots.
    """
    with open_round(found):
        left, part = left_of(found), _part(found, data.place)
        spray, treated = _how_much(found, part, data)
        if spray.base > left.litres * NEAR:
            said = Quantity(left.litres / spray.unit.size, spray.unit)
            raise InputError(
                "spray", str(spray), f"{spray} is more than the {said} that is left.", "Measure what is in the tank."
            )
        when = at or when_done(found, data.on, data.clock)
        marked = _marked(found, part, treated, left, data.reason, when)
        form = _as_finish(found, part, spray, treated, data)
        actual = read_actual(found, form)
        made = record(Finished(found, user, when, actual, form), actual.parts[0], marked)
        take_from_lots(actual)
        found.account.touch("book", "stock")
    return made


def _marked(found: Round, part: RoundPart, treated: Quantity, left: Left, reason: str, at: datetime) -> Marked:
    """The rules that stand against an outing, by component. Raises InputError where they do and nobody says why it was done."""
    stood: dict[int, list[str]] = {}
    for against in stands_against(found, at, {part.pk: treated.base / part.treated.base}):
        stood.setdefault(against.dose.component.position, []).append(against.rule.sentence)
    if left.stale(at):
        stood.setdefault(0, []).append(stale_sentence(left.mixed_at, left.until, part.area.site.zone))
    if stood and not reason.strip():
        raise InputError("reason", "", next(iter(stood.values()))[0], "It is recorded all the same: say why it was done.")
    return {(part.position, place): Marks(tuple(rules), reason.strip()) for place, rules in stood.items()}


def _part(found: Round, place: int) -> RoundPart:
    part = next((p for p in found.parts.all() if p.position == place), None)
    if part is None:
        raise InputError("place", place, "The round has no such area.", "Pick one of its areas.")
    return part


def _how_much(found: Round, part: RoundPart, data: OutingIn) -> tuple[Quantity, Quantity]:
    """The spray and the ground of an outing: what one of them lacks follows from the other by the sprayer's output."""
    faults = Faults()
    spray = faults.of(quantity_in, "spray", given, VOLUME) if (given := filled(data.spray)) else None
    treated = faults.of(quantity_in, "treated", given, AREA) if (given := filled(data.treated)) else None
    faults.raise_any()
    if spray is None and treated is None:
        raise InputError("spray", "", "How much went out is missing.", "Enter the spray, the ground, or both.")
    output = machine_of(found.account, found.machine_id).core().output_base
    if spray is None:
        assert treated
        spray = Quantity(treated.base * output, UNITS["l"])
    if treated is None:
        unit = part.treated.unit
        treated = Quantity(spray.base / output / unit.size, unit)
    if treated.base > part.area.size.base * NEAR:
        raise InputError(
            "treated",
            str(treated),
            f"{treated} is more than {part.area.called} has, {part.area.size}.",
            "Enter the ground of the spots.",
        )
    return spray, treated


def _as_finish(found: Round, part: RoundPart, spray: Quantity, treated: Quantity, data: OutingIn) -> FinishIn:
    """An outing as a round of its own would be finished: each product by the share of the mix that went out."""
    assert found.spray_litres
    share = spray.base / found.spray_litres
    mixed = _mixed(found)
    lots = [*data.lots, *[None] * (len(mixed) - len(data.lots))]
    used = [
        UsedIn(amount=_typed(amount.value * share, amount.unit) if amount else None, lot_id=lot)
        for amount, lot in zip(mixed, lots, strict=False)
    ]
    ground = [_typed(treated.value if p.pk == part.pk else 0, treated.unit) for p in found.parts.all()]
    return FinishIn(
        used=used, treated=ground, spray=_typed(spray.value, spray.unit), by=data.by, wind=data.wind, air=data.air, note=data.note
    )


def _mixed(found: Round) -> list[Quantity | None]:
    """What went into the mix of each component: as it was measured, as planned where it was not, None to taste."""
    poured, loads = list(found.poured.all()), len(found.read_sheet().loads)
    return [poured_in_all(c, poured, loads) or c.amount for c in found.mix.all()]


def _typed(value: float, unit: Unit) -> QuantityIn:
    return QuantityIn(value=exact_number(value), unit=unit.key)


def empty(found: Round, data: EmptiedIn) -> None:
    """End a round to spots: its mix is sprayed out, or disposed of. Without an outing nothing is in the book, and it is given up.

    Raises:
        Conflict: the round is over, treats no spots, or is to be sprayed out while some is left.
    """
    with open_round(found):
        left = left_of(found)
        if data.how == "sprayed" and not left.used_up:
            raise Conflict(f"By the outings that are noted {left.amount} is left: note where it went, or dispose of it.")
        status = Round.Status.DONE if found.applications.exists() else Round.Status.GIVEN_UP
        end(found, status, clock.now())
        Round.objects.filter(pk=found.pk).update(emptied=data.how)
        _take_the_rest(found, left)
        found.emptied = data.how
        found.account.touch("book", "stock")


def _take_the_rest(found: Round, left: Left) -> None:
    """Take what was mixed and never went out from the lots of the last outing: it is gone as well."""
    last = found.applications.order_by("-position").first()
    for entry, amount in zip(last.entries.order_by("position") if last else (), _mixed(found), strict=False):
        lot = entry.product.lots.filter(number=entry.lot).first() if entry.product and entry.lot else None
        if lot and amount:
            take_from_lot(lot, Quantity(amount.value * left.litres / left.of, amount.unit))
