"""What changes a programme: its steps and events, what is set for a turn, an outline taken over, a year copied."""

from collections.abc import Sequence
from dataclasses import asdict, replace
from datetime import date
from typing import Any

from django.db import transaction

from core.disease.hosts import HOSTS
from core.errors import InputError, Refused
from core.grasses import GRASSES
from core.label.match import lists, unlisted
from core.label.product import Kind
from core.label.rate import RateUnit
from core.ledger.amendments import is_sulfur
from core.readable import joined
from core.season.outlines import OUTLINES, Sketch, fits
from core.season.steps import Timing, When, same_day
from core.units import LENGTH, celsius
from greenmeasure.accounts.models import Account, User, sites_of
from greenmeasure.common import clock
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.schemas import QuantityIn, filled, number_in, quantity_in, rate_in, signed_in
from greenmeasure.common.versions import claim
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas, planned_ph
from greenmeasure.ledger.booked import history
from greenmeasure.ledger.meant import steps
from greenmeasure.programme.models import Event, Step, StepArea, StepProduct, StepTurn
from greenmeasure.programme.queries import findings, turn_of
from greenmeasure.programme.schemas import (
    CopyIn,
    SeasonOutlineIn,
    SoilStepsIn,
    StepEventIn,
    StepIn,
    StepProductIn,
    TurnIn,
    WhenIn,
)
from greenmeasure.programme.words import COLD_USUAL, SOIL_USUAL, no_such_rate
from greenmeasure.shelf.queries import Card, card_of, cards

MOST_STEPS = 200
"""Steps of one year (ours)."""


# --- steps ------------------------------------------------------------------------------------------------------


def save_step(account: Account, user: User, data: StepIn, step: Step | None = None) -> Step:
    """Keep a step, a new one or one that is changed.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
        Stale: somebody changed it since.
    """
    faults = Faults()
    when = faults.of(when_in, data.when, _goes_by(data))
    if not data.name.strip():
        faults.add("name", data.name, "The step has no name.", "Name it by what is done: Spring feed.")
    ground = [area for i, pk in enumerate(data.area_ids) if (area := faults.of(_area, account, pk, i))]
    if data.site_id and data.site_id not in sites_of(account):
        faults.add("site_id", data.site_id, "There is no such site.", "Pick one of the list.")
    if data.grass and data.grass not in GRASSES:
        faults.add("grass", data.grass, "That grass is not known.", "Pick one of the list.")
    products = [p for i, given in enumerate(data.products) if (p := faults.of(_product, account, given, i))]
    water = faults.of(quantity_in, "water", given, LENGTH) if (given := filled(data.water)) else None
    anchors = faults.of(_anchors, account, data, step)
    if step is None and sum(s.year == data.when.begin.year for s in steps(account)) >= MOST_STEPS:
        faults.add("name", data.name, f"{MOST_STEPS} steps a year are enough.", "Put away what is no longer meant.")
    faults.raise_any()
    assert when and anchors is not None
    made = step or Step(account=account, by=str(user))
    with claim(step, data.version):
        made.name, made.year, made.when = data.name, when.begin.year, stored(when)
        made.site_id, made.use, made.grass, made.why = data.site_id, data.use, data.grass, data.why
        made.anchor, made.event, made.after = data.anchor, *anchors
        made.water_value, made.water_unit = (water.value, water.unit.key) if water else (None, "")
        made.made = False
        if step is not None:
            made.next_version()
        made.save()
        made.areas.all().delete()
        made.products.all().delete()
        StepArea.objects.bulk_create(StepArea(step=made, area=a) for a in ground)
        for i, p in enumerate(products):
            p.step, p.position = made, i
        StepProduct.objects.bulk_create(products)
        account.touch("programme")
    return made


def when_in(data: WhenIn, anchor: str) -> When:
    """When a step is to be done. Raises InputError by field, as of `when`."""
    try:
        return When(
            data.timing,
            data.begin,
            data.end or data.begin,
            _whole("every", data.every),
            tuple(_days(data.monthly)) if data.timing is Timing.MONTHLY else (),
            number_in("sum", data.sum) if data.timing is Timing.WARMTH else 0.0,
            signed_in("base", data.base) if data.timing is Timing.WARMTH else 0.0,
            _degrees("soil", data.soil, SOIL_USUAL) if data.timing is Timing.SOIL else 0.0,
            data.rising,
            anchor,
            _whole("offset", data.offset),
            _whole("grace", data.grace),
            _degrees("cold", data.cold, COLD_USUAL) if data.timing is Timing.COLD else 0.0,
            _disease(data.disease) if data.timing is Timing.THRESHOLD else "",
        )
    except InputError as fault:
        raise fault.on(f"when.{fault.field}") from None


def stored(when: When) -> dict[str, Any]:
    """When a step is to be done, as it is kept."""
    found = asdict(when) | {"timing": when.timing.value, "begin": when.begin.isoformat(), "end": when.end.isoformat()}
    found["monthly"] = list(when.monthly)
    return {k: v for k, v in found.items() if k != "anchor"}


def _whole(field: str, given: float | str) -> int:
    value = signed_in(field, given) if str(given).strip() else 0.0
    if value != int(value):
        raise InputError(field, given, f"{given} is no whole number of days.", "Write whole days.")
    return int(value)


def _days(given: str) -> list[int]:
    return sorted({_whole("monthly", d) for d in given.replace(",", " ").replace(";", " ").split()})


def _disease(key: str) -> str:
    if key and key not in HOSTS:
        raise InputError("disease", key, "No model watches for that.", "Pick one of the list.")
    return key


def _degrees(field: str, typed: QuantityIn | None, usual: str) -> float:
    given = filled(typed)
    if given is None:
        raise InputError(field, None, "At which temperature?", usual)
    return celsius(field, signed_in(field, given.value), given.unit)


def _goes_by(data: StepIn) -> str:
    if data.anchor:
        return data.anchor
    return f"event:{data.event_id}" if data.event_id else f"step:{data.after_id}" if data.after_id else ""


def _anchors(account: Account, data: StepIn, step: Step | None) -> tuple[Event | None, Step | None]:
    """The event and the step that a step goes by.

    Raises:
        InputError: they are not there, or steps would go round in a circle.
    """
    if data.when.timing is not Timing.EVENT:
        return None, None
    if data.event_id:
        event = Event.objects.of(account).kept().filter(pk=data.event_id).first()
        if event is None:
            raise InputError("event_id", data.event_id, "There is no such event.", "Pick one of the list.")
        return event, None
    if not data.after_id:
        return None, None
    by_id = {s.pk: s for s in steps(account)}
    after = by_id.get(data.after_id)
    if after is None:
        raise InputError("after_id", data.after_id, "There is no such step.", "Pick one of the list.")
    path, at = [data.name], after
    while at is not None:
        path.append(at.name)
        if step is not None and at.pk == step.pk:
            circle = joined([f"“{n}”" for n in path])
            raise InputError("after_id", after.name, f"{circle} would wait for each other.", "Let one of them have a day.")
        at = by_id.get(at.after_id)
    return None, Step.objects.get(pk=after.pk)


def _area(account: Account, pk: int, i: int) -> Area:
    found = areas(account).get(pk)
    if found is None or found.archived_at is not None:
        raise InputError(f"area_ids.{i}", pk, "There is no such area.", "Pick one of the list.")
    return found


def _product(account: Account, given: StepProductIn, i: int) -> StepProduct:
    at = f"products.{i}"
    try:
        card = card_of(account, given.product_id)
    except Missing:
        raise InputError(f"{at}.product_id", given.product_id, "There is no such product.", "Pick one of the shelf.") from None
    rate = rate_in(f"{at}.rate", r) if (r := filled(given.rate)) else None
    units = list(dict.fromkeys(r.label.unit.symbol for r in card.label_rows))
    if rate and units and not any(r.label.unit.kind == rate.unit.kind for r in card.label_rows):
        raise InputError(
            f"{at}.rate", str(rate), no_such_rate(card.product.name), f"Give it in {joined(units)}, or leave it empty."
        )
    return StepProduct(
        product=card.product,
        target=given.target,
        rate_value=rate.value if rate else None,
        rate_unit=rate.unit.key if rate else "",
        instead=given.instead and i > 0,
    )


def put_away(step: Step) -> None:
    """Put a step away; what goes by it waits."""
    step.archive()


def put_back(step: Step) -> Step:
    """Take a step back that was put away."""
    step.archived_at = None
    step.next_version()
    step.save()
    return step


# --- events -----------------------------------------------------------------------------------------------------


def add_event(account: Account, data: StepEventIn) -> Event:
    """Keep an event. Raises InputError."""
    if not data.name.strip():
        raise InputError("name", data.name, "The event has no name.", "Name it: Club tournament.")
    return Event.objects.create(account=account, name=data.name, on=data.on)


def remove_event(account: Account, event_id: int) -> None:
    """Take an event out. Raises Missing."""
    Event.objects.of(account).kept().one(account, event_id).archive()


# --- turns ------------------------------------------------------------------------------------------------------


def set_turn(account: Account, user: User, data: TurnIn) -> int:
    """Move or skip a turn, or take back what was set for it; the year that it is of.

    Raises:
        InputError: there is no such turn, it is done, or the day is far off.
        Refused: a rule is against that day, and is quoted; nothing is saved.
    """
    one = turn_of(account, data.step_id, data.area_id, data.number)
    if one.standing.done:
        raise InputError("on", str(data.on), "It is done, and stands in the book.", "Correct it there, if it is wrong.")
    if data.on:
        if abs((data.on - date(one.step.year, 7, 1)).days) > 366:
            raise InputError("on", str(data.on), f"That is not of the programme of {one.step.year}.", "Pick a nearer day.")
        against = next((f for f in findings(account, one.step, one.area, data.on, data.number) if f.act.text == "refuse"), None)
        if against:
            raise Refused("on", str(data.on), against.sentence, "Pick another day.")
    with transaction.atomic():
        StepTurn.objects.filter(step=one.step, area=one.area, number=data.number).delete()
        if data.on or data.skipped:
            StepTurn.objects.create(
                step=one.step,
                area=one.area,
                number=data.number,
                on=data.on,
                skipped=data.skipped,
                why=data.why,
                by=str(user),
                at=clock.now(),
            )
    account.touch("programme")
    return one.step.year


# --- whole years ------------------------------------------------------------------------------------------------


def adopt(account: Account, user: User, data: SeasonOutlineIn) -> list[Step]:
    """Begin from an outline: its steps, with the first product of the shelf that is of their kind.

    Raises:
        InputError: no such outline, or no ground that it is for.
    """
    outline = OUTLINES.get(data.key)
    if outline is None:
        raise InputError("key", data.key, "There is no such outline.", "Pick one of the list.")
    ground = [_area(account, pk, i) for i, pk in enumerate(data.area_ids)] or [
        a for a in areas(account).values() if a.archived_at is None and a.parent_id is None and fits(outline, a.sward, a.use)
    ]
    if not ground:
        raise InputError("area_ids", None, "None of the ground is of its kind.", "Pick the areas that it is to be for.")
    made = []
    with transaction.atomic():
        for sketch in outline.steps:
            card = _of_kind(account, sketch, ground)
            step = Step.objects.create(
                account=account,
                name=sketch.name,
                year=data.year,
                when=stored(_within_label(sketch.when(data.year), card)),
                why=sketch.why,
                by=str(user),
            )
            StepArea.objects.bulk_create(StepArea(step=step, area=a) for a in ground)
            if card:
                StepProduct.objects.create(
                    step=step,
                    position=0,
                    product=card.product,
                    target=sketch.target,
                    rate_value=sketch.nitrogen or None,
                    rate_unit=PER_FOOT.key if sketch.nitrogen else "",
                )
            made.append(step)
        account.touch("programme")
    return made


def _within_label(when: When, card: Card | None) -> When:
    """A repeated step no more often than the label's least interval."""
    least = max((r.interval[0] or 0 for r in card.label_rows), default=0) if card else 0
    return replace(when, every=max(when.every, least)) if when.timing is Timing.EVERY else when


def _of_kind(account: Account, sketch: Sketch, ground: Sequence[Area]) -> Card | None:
    """The product of the shelf for a step: of its kind, against its target where it has one; the one used last here first.

    A large feeding takes a granule before a spray.
    """
    used = {a.product_id: a.on for area in ground for a in sorted(history(account, area.pk), key=lambda a: a.on)}
    found = [
        c
        for c in cards(account).values()
        if c.product.archived_at is None
        and c.core.is_a(sketch.kind)
        and (sketch.kind is not Kind.FERTILISER or not c.core.label_binds)
        and (not sketch.target or any(lists(r, sketch.target) for r in c.label_rows))
        and (not c.label_rows or any(not unlisted(r, a.sward) for r in c.label_rows for a in ground))
        and (not sketch.nitrogen or any(r.label.unit.kind == PER_FOOT.kind for r in c.label_rows))
    ]

    def turn(card: Card) -> tuple[bool, float, str]:
        last = used.get(card.product.pk)
        wrong = bool(sketch.nitrogen) and card.core.formulation.sprayed is (sketch.nitrogen > LIQUID)
        return wrong, -last.toordinal() if last else 0.0, card.product.name

    return min(found, key=turn, default=None)


PER_FOOT = RateUnit.from_key("lb/kft2:N")
"""What outlines give nitrogen in."""
LIQUID = 0.3
"""Nitrogen above which a feeding is a granule's [lb/1000 ft²] (common practice, no source)."""


SOIL_GRACE = 14
"""Days that a step of a pH plan may wait: soil is in no haste (ours)."""


def adopt_soil(account: Account, user: User, data: SoilStepsIn) -> int:
    """Put the steps of a pH plan into the programme of their years, with the shelf's sulfur or lime; the first one's year.

    Steps of a soil's plan that stand already and are not done make place.

    Raises:
        InputError: as `core.soil.ph.plan_ph`, or the plan has no steps, or nothing on the shelf does it.
    """
    plan = planned_ph(account, data.area_id, data.plan)
    if not plan.steps:
        raise InputError("area_id", data.area_id, plan.sentence, "There is nothing to put down.")
    lower = plan.verdict == "lower"
    every = [c for c in cards(account).values() if c.product.archived_at is None and _amends(c, lower)]
    if not every:
        what = "elemental sulfur" if lower else "lime"
        raise InputError("area_id", data.area_id, f"There is no {what} on the shelf.", "Add its card first.")
    area, name = areas(account)[data.area_id], LOWER if lower else RAISE
    with transaction.atomic():
        Step.objects.of(account).filter(name=name, areas__area=area, year__gte=plan.steps[0].on.year, turns=None).delete()
        for s in plan.steps:
            when = When(Timing.DATED, s.on, s.on, grace=SOIL_GRACE)
            made = Step.objects.create(
                account=account, name=name, year=s.on.year, when=stored(when), why=plan.sentence[:300], by=str(user)
            )
            StepArea.objects.create(step=made, area=area)
            rate = s.per_m2 / AMENDED_IN.size
            StepProduct.objects.create(
                step=made, position=0, product=every[0].product, target=PH, rate_value=rate, rate_unit=AMENDED_IN.key
            )
        account.touch("programme")
    return plan.steps[0].on.year


LOWER, RAISE, PH = "Sulfur for the pH", "Lime for the pH", "Soil pH"
AMENDED_IN = RateUnit.from_key("lb/kft2")
"""What the steps of a pH plan are given in."""


def _amends(card: Card, lower: bool) -> bool:
    """Whether a product moves a soil's pH the way that is wanted: elemental sulfur lowers it, lime raises it."""
    listed = any(lists(r, "soil_ph") for r in card.label_rows)
    return is_sulfur(card.core) if lower else card.core.is_a(Kind.AMENDMENT) and listed and not is_sulfur(card.core)


def copy_year(account: Account, user: User, data: CopyIn) -> list[Step]:
    """Copy a year's steps into another, their days moved by as many years; what was set for single turns stays behind.

    Raises:
        InputError: nothing to copy, or it was copied already.
    """
    every = [s for s in steps(account) if s.year == data.from_year]
    if not every or data.year == data.from_year:
        raise InputError("from_year", data.from_year, f"{data.from_year} has no steps to copy.", "Pick another year.")
    if any(s.year == data.year and s.copied_id in {x.pk for x in every} for s in steps(account)):
        raise InputError("year", data.year, f"{data.from_year} is copied into {data.year} already.", "Change its steps there.")
    with transaction.atomic():
        made = {s.pk: _copy(s, user, data.year - s.year) for s in every}
        for step in made.values():
            if step.after_id in made:
                step.after = made[step.after_id]
                step.save()
        account.touch("programme")
    return list(made.values())


def _copy(step: Step, user: User, years: int) -> Step:
    when = step.timing
    kept = stored(_moved(when, years)) if when else step.when
    own: Sequence[Any] = (*step.areas.all(), *step.products.all())
    made = Step.objects.get(pk=step.pk)
    made.pk, made._state.adding, made.version = None, True, 1
    made.year, made.when, made.by, made.copied_id, made.made = step.year + years, kept, str(user), step.pk, False
    made.save()
    for row in own:
        row.pk, row._state.adding, row.step = None, True, made
        row.save()
    return made


def _moved(when: When, years: int) -> When:
    begin, end = (same_day(on, on.year + years) for on in (when.begin, when.end))
    return replace(when, begin=begin, end=end)
