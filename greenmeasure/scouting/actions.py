"""What changes what was seen: reports, spots, and photographs."""

from datetime import datetime, timedelta
from enum import StrEnum
from typing import TypeVar

from django.db import transaction

from core.book.after import How
from core.days import dated
from core.errors import InputError
from core.scouting.kinds import Look, Namer, Sure, check_score, check_share, check_what, look_of
from core.scouting.likeness import Light, Mown
from core.units import LENGTH
from greenmeasure.accounts.models import Account, User
from greenmeasure.book.queries import applications
from greenmeasure.common import clock, pictures
from greenmeasure.common.errors import Faults, Missing
from greenmeasure.common.schemas import quantity_in, signed_in
from greenmeasure.common.struck import strike
from greenmeasure.common.versions import claim
from greenmeasure.ground.models import Area
from greenmeasure.scouting.models import FollowUp, Photo, Scouting, Spot
from greenmeasure.scouting.queries import report_of, spot_of
from greenmeasure.scouting.schemas import FollowUpIn, Number, PhotoIn, ScoutIn, SpotIn

MOST_SPOTS, MOST_PHOTOS = 60, 20_000
"""Spots of an area, and photographs of an account (ours)."""
MOST_ACROSS = 500.0
"""A spot's size [m] (ours)."""
LATE = timedelta(days=1)
"""How far ahead of us a camera's clock may be, and still be believed to be of today (ours)."""
K = TypeVar("K", bound=StrEnum)


# --- reports ----------------------------------------------------------------------------------------------------


def add_scouting(account: Account, user: User, data: ScoutIn) -> Scouting:
    """Keep a scout report.

    Raises:
        Faulty: every field at fault at once.
        Missing: no such area.
    """
    area, faults = Area.objects.one(account, data.area_id), Faults()
    if data.on > clock.today(area):
        faults.add("on", str(data.on), "That day is still to come.", "Give the day it was looked at.")
    look = faults.of(look_of, data.kind)
    what = faults.of(check_what, look, data.what) if look else None
    severity = faults.of(_share, look, data) if look else None
    score = faults.of(_score, look, data.score, account.us) if look else None
    sure, namer = faults.of(_one_of, Sure, "sure", data.sure), faults.of(_one_of, Namer, "named_by", data.named_by)
    spot = faults.of(_spot, account, area, data.spot_id)
    place = faults.of(_place, data)
    faults.raise_any()
    assert place and look and sure and namer
    made = Scouting.objects.create(
        area=area,
        on=data.on,
        kind=look.key,
        what=what or "",
        seen=data.seen,
        severity=severity,
        score=score,
        sure=sure,
        named_by=namer,
        spot=spot,
        x=place[0],
        y=place[1],
        across=place[2],
        where=data.where,
        note=data.note,
        by=str(user),
    )
    account.touch("scouting")
    return made


def strike_scouting(account: Account, user: User, pk: int, why: str) -> Scouting:
    """Strike a report: it stays readable, and counts for nothing.

    Raises:
        Missing: no such report.
        InputError: no reason.
        Conflict: it is struck already.
    """
    found = report_of(account, pk)
    strike(found, str(user), why)
    account.touch("scouting")
    return found


def _share(look: Look, data: ScoutIn) -> float | None:
    share = _number("severity", data.severity)
    if share is not None and not look.share:
        raise InputError("severity", data.severity, f"{look.name} is of the whole.", "Leave it empty.")
    return check_share(share, data.seen)


def _score(look: Look, typed: Number, us: bool) -> float | None:
    return check_score(look, _number("score", typed), us)


def _place(data: ScoutIn) -> tuple[float | None, float | None, float | None]:
    """Where on the plan it was, and how far across [m]; a size without a place is of the whole, and refused."""
    known = data.x is not None and data.y is not None
    if data.across is None or not str(data.across.value).strip():
        return (data.x, data.y, None) if known else (None, None, None)
    if not known:
        raise InputError("across", data.across.value, "It has a size and no place.", "Press the plan where it lies, or leave it.")
    across = quantity_in("across", data.across, LENGTH).base
    if across > MOST_ACROSS:
        raise InputError("across", data.across.value, "No spot is that large.", "Say how much of the turf shows it.")
    return data.x, data.y, across


def _number(field: str, typed: Number) -> float | None:
    return None if str(typed).strip() == "" else signed_in(field, typed)


def _one_of(kinds: type[K], field: str, given: str) -> K:
    try:
        return kinds(given)
    except ValueError:
        raise InputError(field, given, f"“{given}” is none of them.", f"Use one of: {', '.join(kinds)}.") from None


# --- after an application ---------------------------------------------------------------------------------------


def answer_followup(account: Account, user: User, data: FollowUpIn) -> FollowUp:
    """Keep how it is after an application.

    Raises:
        Missing: no such application.
        Faulty: what it cannot be, or a day before it or to come.
    """
    found = applications(account).filter(pk=data.application_id).select_related("area__site").prefetch_related("entries").first()
    if found is None or found.area is None:
        raise Missing("application")
    faults, today = Faults(), clock.today(found.area)
    how = faults.of(_one_of, How, "how", data.how)
    on = data.on or today
    if on > today:
        faults.add("on", str(on), "That day is still to come.", "Give the day it was looked at.")
    elif on < found.applied_on:
        faults.add("on", str(on), "That is before it was put down.", f"From {dated(found.applied_on)} on.")
    faults.raise_any()
    assert how
    made = FollowUp.objects.create(application=found, on=on, how=how, note=data.note, by=str(user), noted_at=clock.now())
    account.touch("scouting")
    return made


def strike_followup(account: Account, user: User, found: FollowUp, why: str) -> FollowUp:
    """Strike what was said of an application; it stays readable. Raises InputError or Conflict as `strike_scouting`."""
    strike(found, str(user), why)
    account.touch("scouting")
    return found


# --- spots ------------------------------------------------------------------------------------------------------


def save_spot(account: Account, area: Area, data: SpotIn, spot: Spot | None = None) -> Spot:
    """Keep a fixed spot of an area, or change one.

    Raises:
        InputError: no name, one that is there, or too many of them.
        Stale: it was changed since `data.version`.
    """
    name = " ".join(data.name.split())
    others = [s for s in Spot.objects.filter(area=area, archived_at=None) if spot is None or s.pk != spot.pk]
    if not name:
        raise InputError("name", data.name, "The spot has no name.", "Name what one finds it by: left of the third tree.")
    if any(s.name.casefold() == name.casefold() for s in others):
        raise InputError("name", name, f"{area.name} has a spot “{name}”.", "Give it another name.")
    if spot is None and len(others) >= MOST_SPOTS:
        raise InputError("name", name, f"{MOST_SPOTS} spots are there already.", "Remove one that is not looked at any more.")
    made = spot or Spot(account=account, area=area)
    with claim(spot, data.version):
        made.name, made.x, made.y = name, data.x, data.y
        made.save()
    account.touch("scouting")
    return made


def remove_spot(account: Account, pk: int) -> None:
    """Look at a spot no more; what was taken of it stays. Raises Missing."""
    spot_of(account, pk).archive()
    account.touch("scouting")


def _spot(account: Account, area: Area, pk: int | None) -> Spot | None:
    """A spot of an area. Raises InputError."""
    if pk is None:
        return None
    try:
        found = spot_of(account, pk)
    except Missing:
        raise InputError("spot_id", pk, "That spot is not there.", "Pick another.") from None
    if found.area_id != area.pk:
        raise InputError("spot_id", pk, f"“{found.name}” is no spot of {area.name}.", "Pick another.")
    return found


# --- photographs ------------------------------------------------------------------------------------------------


def add_photo(account: Account, user: User, area: Area, name: str, data: bytes, told: PhotoIn) -> Photo:
    """Keep a photograph of an area; one that is there is not kept twice.

    Raises:
        Faulty: it is no picture, too large, or what is told of it cannot be.
    """
    faults = Faults()
    found = faults.of(pictures.photograph, name, data)
    read = faults.of(_told, account, area, told)
    if Photo.objects.filter(account=account).count() >= MOST_PHOTOS:
        faults.add("file", name, f"The account holds {MOST_PHOTOS:,} photographs.", "Remove some that are not needed any more.")
    faults.raise_any()
    assert found and read
    sha = pictures.store(found.jpeg)
    if there := Photo.objects.filter(account=account, area=area, sha=sha).select_related("area__site", "spot").first():
        return there
    at, timed = _taken(area, found, told)
    made = Photo.objects.create(
        account=account,
        area=area,
        sha=sha,
        width=found.width,
        height=found.height,
        name=name[:120],
        taken_at=at,
        timed=timed,
        by=str(user),
        noted_at=clock.now(),
        **read,
    )
    account.touch("scouting")
    return made


def change_photo(account: Account, photo: Photo, told: PhotoIn) -> Photo:
    """Change what is noted of a photograph.

    Raises:
        Faulty: what cannot be.
        Stale: it was changed since `told.version`.
    """
    read = _told(account, photo.area, told)
    with claim(photo, told.version):
        for field, value in read.items():
            setattr(photo, field, value)
        if told.on is not None or told.clock.strip():
            photo.taken_at, photo.timed = _moment(photo.area, told), bool(told.clock.strip())
        photo.save()
    account.touch("scouting")
    return photo


def remove_photo(account: Account, photo: Photo) -> None:
    """Remove a photograph, and its file with the last row that shows it."""
    photo.delete()
    account.touch("scouting")
    transaction.on_commit(lambda: drop_unused({photo.sha}))


def drop_unused(shas: set[str]) -> None:
    """Let those files go that no photograph shows any more."""
    shown = set(Photo.objects.filter(sha__in=shas).values_list("sha", flat=True))
    for sha in shas - shown:
        pictures.drop(sha)


def _told(account: Account, area: Area, told: PhotoIn) -> dict[str, object]:
    """What is noted of a photograph, by column. Raises Faulty."""
    faults = Faults()
    spot = faults.of(_spot, account, area, told.spot_id)
    report = faults.of(_report, account, area, told.report_id)
    light = faults.of(_one_of, Light, "light", told.light) if told.light else ""
    mown = faults.of(_one_of, Mown, "mown", told.mown) if told.mown else ""
    if told.on is not None or told.clock.strip():
        faults.of(_moment, area, told)
    faults.raise_any()
    return {"spot": spot, "report": report, "light": light, "mown": mown, "note": told.note}


def _report(account: Account, area: Area, pk: int | None) -> Scouting | None:
    if pk is None:
        return None
    try:
        found = report_of(account, pk)
    except Missing:
        raise InputError("report_id", pk, "That report is not there.", "Pick another.") from None
    if found.area_id != area.pk:
        raise InputError("report_id", pk, f"That report is not of {area.name}.", "Pick another.")
    return found


def _moment(area: Area, told: PhotoIn) -> datetime:
    at = clock.moment_at(area, told.on, told.clock)
    if at > clock.now():
        field, value = ("clock", told.clock) if told.clock.strip() else ("on", str(told.on))
        raise InputError(field, value, "That is still to come.", "Say when it was taken.")
    return at


def _taken(area: Area, found: pictures.Photograph, told: PhotoIn) -> tuple[datetime, bool]:
    """When a photograph was taken, and whether its hour is known: as told, else by its camera, else now.

    A camera's clock knows no zone: it is taken to stand on the ground's time. One that is far ahead is not believed.
    """
    if told.on is not None or told.clock.strip():
        return _moment(area, told), bool(told.clock.strip())
    now = clock.now()
    if found.taken is not None:
        at = found.taken.replace(tzinfo=area.site.zone)
        if now - clock.PAST <= at <= now + LATE:
            return min(at, now), True
    return now, True
