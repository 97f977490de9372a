"""What changes other work: works noted for several areas at once, and struck with a reason."""

from collections.abc import Sequence
from datetime import date, datetime
from typing import Any

from django.db import transaction

from core.errors import InputError
from core.ledger.work import DOINGS, Ask, Doing
from core.units import show_number
from greenmeasure.accounts.models import Account, User
from greenmeasure.common import clock
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.schemas import quantity_in
from greenmeasure.common.struck import strike
from greenmeasure.ground.models import Area
from greenmeasure.work.models import Work
from greenmeasure.work.queries import against
from greenmeasure.work.schemas import WorkIn, WorkToldIn


def note_work(account: Account, user: User, data: WorkIn) -> list[Work]:
    """Note work on areas: all of them, or none. What it changes on the ground, its height or its seed, is changed with it.

    Raises:
        Faulty: every field at fault; nothing is saved.
    """
    doing, places, told = read_work(account, data)
    made = []
    with transaction.atomic():
        for area, on, at in places:
            stands = against(account, doing, area, at) if at and data.done else []
            made.append(
                Work.objects.create(
                    account=account,
                    area=area,
                    kind=doing.key,
                    done_on=on,
                    at=at,
                    done=data.done,
                    told=told,
                    before=_change(area, doing, on, told, data.done),
                    against="\n".join(stands),
                    note=data.note,
                    by=str(user),
                    noted_at=clock.now(),
                )
            )
        account.touch("work", *(["ground"] if any(w.before for w in made) else []))
    return made


def read_work(account: Account, data: WorkIn) -> tuple[Doing, list[tuple[Area, date, datetime | None]], dict[str, Any]]:
    """Work as it was sent: its kind, its areas each with day and time, and what was told of it.

    Raises:
        Faulty: every field at fault.
    """
    faults = Faults()
    doing = faults.of(_doing, data.kind)
    areas = [a for a in (faults.of(_area, account, i, pk) for i, pk in enumerate(data.area_ids)) if a]
    places = []
    for area in dict.fromkeys(areas):
        when = faults.of(_when, area, data)
        if when is None:
            break  # it is said once, not for each area
        places.append((area, *when))
    told: dict[str, Any] = {}
    for i, given in enumerate(data.told if doing else []):
        assert doing
        value = faults.of(_told, doing, i, given)
        if value:
            told[given.key] = value
    faults.raise_any()
    assert doing
    return doing, places, told


def strike_work(found: Work, user: User, why: str) -> None:
    """Strike a work: it stays readable and counts for nothing. What it changed on its ground is changed back.

    Raises:
        InputError: no reason.
        Conflict: it is struck already.
    """
    with transaction.atomic():
        strike(found, str(user), why)
        changed = _change_back(found)
        found.account.touch("work", *(["ground"] if changed else []))


def _doing(kind: str) -> Doing:
    if kind not in DOINGS:
        raise InputError("kind", kind, f"“{kind}” is no kind of work.", f"Use one of: {', '.join(DOINGS)}.")
    return DOINGS[kind]


def _area(account: Account, i: int, pk: int) -> Area:
    try:
        return Area.objects.one(account, pk)
    except Missing:
        raise InputError(f"area_ids.{i}", pk, "That area is not there.", "Pick another.") from None


def _when(area: Area, data: WorkIn) -> tuple[date, datetime | None]:
    """The day of a work on an area, and its time where one is known: now where neither is said."""
    at = clock.moment_at(area, data.on, data.clock)
    if at > clock.now():
        field, value = ("clock", data.clock) if data.clock.strip() else ("on", str(data.on))
        raise InputError(field, value, "That is still to come.", "Note it when it is done.")
    on = clock.local_day(area, at)
    known = bool(data.clock.strip()) or (data.on is None and data.done)
    return on, at if known else None


def _told(doing: Doing, i: int, given: WorkToldIn) -> Any:
    ask = next((a for a in doing.asks if a.key == given.key), None)
    if ask is None:
        raise InputError(f"told.{i}.key", given.key, f"{doing.name} does not tell “{given.key}”.", "Open the form again.")
    if ask.dimension:
        return _quantity(ask, given)
    word = given.word.strip()
    if ask.choices and word and word not in dict(ask.choices):
        raise InputError(f"told.{ask.key}", word, f"“{word}” is none of them.", f"Use one of: {', '.join(dict(ask.choices))}.")
    return word


def _quantity(ask: Ask, given: WorkToldIn) -> dict[str, Any] | None:
    if given.quantity is None or not str(given.quantity.value).strip():
        return None
    found = quantity_in(f"told.{ask.key}", given.quantity, ask.dimension)
    if not ask.least <= found.base <= ask.most:
        low, high = (show_number(x / found.unit.size) for x in (ask.least, ask.most))
        raise InputError(
            f"told.{ask.key}", str(found), f"{ask.name} of {found} cannot be.", f"Between {low} and {high} {found.unit.symbol}."
        )
    return {"value": found.value, "unit": found.unit.key}


# --- what work changes on its ground ------------------------------------------------------------------------------


def _change(area: Area, doing: Doing, on: date, told: dict[str, Any], done: bool) -> dict[str, Any]:
    """Change what a work changes on its area; gives what stood there before, nothing where it changes nothing."""
    if doing.key == "mow" and done and "height" in told:
        return _cut(area, on, told["height"])
    if doing.key == "seed":
        return _seeded(area, on, done)
    return {}


def _cut(area: Area, on: date, height: dict[str, Any]) -> dict[str, Any]:
    """A mowing at another height, the latest there is, is the height of cut from its day on."""
    newer = area.heights.filter(on__gt=on).exists()
    if newer or (area.height_value, area.height_unit) == (height["value"], height["unit"]):
        return {}
    before = {"height": [area.height_value, area.height_unit]}
    area.height_value, area.height_unit = height["value"], height["unit"]
    area.next_version()
    area.save(update_fields=["height_value", "height_unit", "version"])
    made = area.heights.create(on=on, value=height["value"], unit=height["unit"])
    return before | {"row": made.pk}


def _seeded(area: Area, on: date, done: bool) -> dict[str, Any]:
    """Seed that went down is what the rules go by from its day on; a day for it that is over is no plan any more."""
    before = {"sown_on": _iso(area.sown_on), "overseed_on": _iso(area.overseed_on)}
    was = (area.sown_on, area.overseed_on)
    if done and (area.sown_on is None or area.sown_on < on):
        area.sown_on = on
    if area.overseed_on and area.overseed_on <= on:
        area.overseed_on = None
    if (area.sown_on, area.overseed_on) == was:
        return {}
    area.next_version()
    area.save(update_fields=["sown_on", "overseed_on", "version"])
    return before


def _change_back(found: Work) -> bool:
    """Put back what a struck work changed, where nothing has changed it since."""
    area, before = found.area, found.before
    if "height" in before:
        height = found.told["height"]
        if (area.height_value, area.height_unit) != (height["value"], height["unit"]):
            return False
        area.heights.filter(pk=before["row"]).delete()
        area.height_value, area.height_unit = before["height"]
    elif "sown_on" in before:
        if found.done and area.sown_on != found.done_on:
            return False
        area.sown_on, area.overseed_on = _day(before["sown_on"]), _day(before["overseed_on"])
    else:
        return False
    area.next_version()
    area.save(update_fields=["height_value", "height_unit", "sown_on", "overseed_on", "version"])
    return True


def _iso(on: date | None) -> str:
    return on.isoformat() if on else ""


def _day(text: str) -> date | None:
    return date.fromisoformat(text) if text else None


def warned(account: Account, data: WorkIn) -> Sequence[str]:
    """What stands against work as it is typed, before it is noted; keeps nothing. Raises Faulty as `note_work`."""
    doing, places, _ = read_work(account, data)
    return [said for area, _, at in places if at and data.done for said in against(account, doing, area, at)]
