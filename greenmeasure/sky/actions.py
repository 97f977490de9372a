"""What changes the sky: stations, readings by hand, how areas are watched, what comes back every week."""

from datetime import datetime, time, timedelta

from django.db import IntegrityError, transaction

from core.disease.registry import MODELS, of_disease
from core.disease.threshold import Care, Level, threshold_of
from core.errors import InputError
from core.growth.clock import own_target
from core.label.targets import TARGETS
from core.units import read_signed
from core.weather.hours import believable
from core.weather.intake import UNITS
from core.weather.sun import place_of
from core.weather.wetness import Wetness
from greenmeasure.accounts.models import Account, Site, User
from greenmeasure.accounts.sites import site_of
from greenmeasure.common import clock
from greenmeasure.common.errors import Conflict, Faults, Missing
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import signed_in
from greenmeasure.common.versions import Stale, claim, no_version
from greenmeasure.ground.models import Area
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.addresses import address_of, outside
from greenmeasure.sky.models import HandReading, Hold, Rhythm, Station, Watch
from greenmeasure.sky.schemas import HoldIn, Number
from greenmeasure.sky.station_schemas import HandIn, RhythmIn, StationIn, WatchIn
from greenmeasure.sky.weather import station_of

MOST_OFFSET, MOST_FILL = 20.0, 12
WEEK = range(7)


# --- stations ---------------------------------------------------------------------------------------------------


def want(station: Station) -> None:
    """Note that somebody wants a station's hours now; `fetching` takes it up, in a process of its own."""
    Station.objects.filter(pk=station.pk, asked_at=None).update(asked_at=clock.now())


def save_station(site: Site, data: StationIn, station: Station | None = None) -> Station:
    """Set a site's station up, or change it.

    Raises:
        Faulty: every field at fault at once.
        Stale: it was changed since `data.version`.
    """
    faults = Faults()
    name = faults.of(_named, "name", data.name)
    for field in ("url", "probe_url"):
        faults.of(_address, field, getattr(data, field))
    latitude, longitude = (faults.of(_optional, f, getattr(data, f)) for f in ("latitude", "longitude"))
    if (latitude is None) != (longitude is None):
        faults.add("longitude", data.longitude, "Latitude and longitude belong together.", "Give both, or neither.")
    if latitude is not None and longitude is not None:
        faults.of(place_of, latitude, longitude)
    offset = faults.of(_offset, data.offset)
    if data.wetness not in [w.value for w in Wetness]:
        faults.add("wetness", data.wetness, f"“{data.wetness}” is no estimator of wet leaves.", "Pick one of the list.")
    if not 0 <= data.fill <= MOST_FILL:
        faults.add("fill", data.fill, f"Gaps of {data.fill} h are not read across.", f"0 to {MOST_FILL} h.")
    faults.raise_any()
    made = station or Station(account=site.account, site=site)
    made.name, made.url, made.probe_url = name or "", data.url, data.probe_url
    made.latitude, made.longitude, made.off_site = latitude, longitude, data.off_site
    made.offset, made.wetness, made.fill = offset or 0.0, data.wetness, data.fill
    with claim(station, data.version):
        made.save()
        made.renew()
    return made


def station_in(site: Site) -> Station:
    """A site's station. Raises Conflict where it has none yet."""
    found = station_of(site)
    if found is None:
        raise Conflict("There is no station yet that the hours could belong to. Set one up first, under Sky, Station.")
    return found


def _named(field: str, value: str) -> str:
    if not value:
        raise InputError(field, value, "The station has no name.", "Name it by where it stands.")
    return value


def _address(field: str, value: str) -> None:
    if not value:
        return
    found = address_of(value)
    if found is None:
        raise InputError(field, value, "That is no address of a service.", "It begins with http:// or https://.")
    if not outside(found.hostname or ""):
        raise InputError(field, value, "That address lies in this server's own network.", "Enter one that anybody can reach.")


def _optional(field: str, value: Number) -> float | None:
    return None if str(value).strip() == "" else signed_in(field, value)


def _offset(value: Number) -> float:
    found = signed_in("offset", value) if str(value).strip() else 0.0
    if abs(found) > MOST_OFFSET:
        raise InputError("offset", value, f"{found:g} % is no correction of a humidity.", f"Within {MOST_OFFSET:g} % either way.")
    return found


# --- by hand ----------------------------------------------------------------------------------------------------


def add_by_hand(account: Account, user: User, data: HandIn) -> HandReading:
    """Keep a reading by hand.

    Raises:
        InputError: a day to come, a unit that is none of the kind's, or a value that cannot be.
        Conflict: there is no station yet.
        Missing: no such area.
    """
    area = Area.objects.one(account, data.area_id) if data.area_id else None
    site = area.site if area else site_of(account, data.site_id)
    station = station_in(site)
    at = datetime.combine(data.on, time(23, 30) if data.kind == "rain" else data.clock or time(8), tzinfo=site.zone)
    if data.on > clock.today(site) or (data.kind != "rain" and at > clock.now() + timedelta(minutes=30)):
        raise InputError("on", str(data.on), "That time is still to come.", "Give the time it was read.")
    value, text = _hand_value(data)
    made = HandReading.objects.create(station=station, area=area, kind=data.kind, at=at, value=value, text=text, by=str(user))
    station.renew()
    return made


def _hand_value(data: HandIn) -> tuple[float, str]:
    """A reading in the table's unit, and as typed."""
    if data.kind == "wet":
        wet = str(data.value.value).strip().lower()
        if wet not in ("wet", "dry", "1", "0"):
            raise InputError("value", data.value.value, f"A leaf is wet or dry, not “{wet}”.", "Pick wet or dry.")
        return (1.0, "wet") if wet in ("wet", "1") else (0.0, "dry")
    units = UNITS[data.kind]
    if data.value.unit not in units:
        raise InputError("value", data.value.unit, f"“{data.value.unit}” is no unit of it.", f"Use one of {', '.join(units)}.")
    given = read_signed(str(data.value.value), "value")
    value = units[data.value.unit](given)
    if problem := believable(data.kind, value):
        raise InputError("value", given, f"That cannot be: {problem}.", "Look at the number and its unit again.")
    shown = {"degC": "°C", "degF": "°F"}.get(data.value.unit, data.value.unit)
    return value, f"{given:g} {shown}"


def remove_by_hand(account: Account, reading_id: int) -> None:
    """Take a reading by hand back. Raises Missing."""
    found = HandReading.objects.filter(seen_by(account, "station__site"), station__account=account, pk=reading_id).first()
    if found is None:
        raise Missing("reading")
    station = found.station
    found.delete()
    station.renew()


# --- watching ---------------------------------------------------------------------------------------------------


def save_watch(area: Area, disease: str, data: WatchIn) -> Watch:
    """Say how an area is watched for a disease; version 0 is of a row that is not there yet.

    Raises:
        Stale: it was changed since `data.version`.
        InputError: a disease without a model, a model of another one, or a threshold that is none.
    """
    known = of_disease(disease)
    if not known:
        raise InputError("disease", disease, f"There is no model for “{disease}”.", "Pick one of the list.")
    model = MODELS.get(data.model) if data.model else known[0]
    if model not in known:
        raise InputError(
            "model", data.model, f"“{data.model}” is no model of {TARGETS[disease].name.lower()}.", "Pick one of the list."
        )
    own = _optional("own", data.own)
    if own is not None and model.share:
        own /= 100
    care = Care(Level(data.susceptible), Level(data.bears), data.history, own)
    try:
        threshold_of(model, care)
    except InputError as fault:
        raise fault.on("own") from None
    row = Watch.objects.filter(area=area, disease=disease).first()
    if data.version is not None and (row is None) != (data.version == 0):
        raise Stale
    made = row or Watch(area=area, disease=disease)
    made.on, made.model, made.susceptible, made.bears = data.on, model.key, data.susceptible, data.bears
    made.history, made.own = data.history, own
    if row is None and data.version is None:
        raise no_version()
    with claim(row, data.version):
        try:
            with transaction.atomic():
                made.save()
        except IntegrityError:
            raise Stale from None
        area.account.touch("sky")
    return made


def save_hold(area: Area, active: str, data: HoldIn) -> None:
    """Set how long an active holds on an area; an empty target takes what was set back. Version 0 is of none that is set yet.

    Raises:
        Stale: it was changed since `data.version`.
        InputError: no regulator's active, or no target to wait for.
    """
    name = active.strip().lower()
    if not any(c.name.lower() == name for card in cards(area.account).values() for c in card.core.contents):
        raise InputError("active", active, f"No product on the shelf holds “{active}”.", "Pick a regulator of the list.")
    own = _optional("own", data.own)
    target = own_target(name, own, _optional("base", data.base) or 0.0) if own is not None else None
    row = Hold.objects.filter(area=area, active=name).first()
    if data.version is None:
        raise no_version()
    if (row is None) != (data.version == 0):
        raise Stale
    with claim(row, data.version):
        if target is None:
            Hold.objects.filter(area=area, active=name).delete()
        else:
            made = row or Hold(area=area, active=name)
            made.sum, made.base = target.sum, target.base.celsius
            try:
                with transaction.atomic():
                    made.save()
            except IntegrityError:
                raise Stale from None
        area.account.touch("sky")


# --- what comes back every week ---------------------------------------------------------------------------------


def add_rhythm(account: Account, data: RhythmIn) -> Rhythm:
    """Keep a weekly mowing, watering, or hours that a site keeps free.

    Raises:
        InputError: no day, an end that is not after the begin, or an area missing.
        Missing: no such area.
    """
    days = sorted(set(data.days))
    if not days or any(d not in WEEK for d in days):
        raise InputError("days", data.days, "No day of the week is picked.", "Pick the days on which it comes back.")
    if data.end <= data.begin:
        raise InputError("end", f"{data.end:%H:%M}", "It ends before it begins.", "Past midnight, enter it as two.")
    if data.kind != "quiet" and data.area_id is None:
        raise InputError("area_id", "", "It belongs to no area.", "Pick the area that is mown or watered.")
    area = Area.objects.one(account, data.area_id) if data.area_id else None
    site = area.site if area else site_of(account, data.site_id)
    made = Rhythm.objects.create(
        account=account, site=site, area=area, kind=data.kind, days=days, begin=data.begin, end=data.end, why=data.why
    )
    account.touch("sky")
    return made


def remove_rhythm(account: Account, rhythm_id: int) -> None:
    """Take one back. Raises Missing."""
    found = Rhythm.objects.filter(seen_by(account, "site"), account=account, pk=rhythm_id).first()
    if found is None:
        raise Missing("rhythm")
    with transaction.atomic():
        found.delete()
        account.touch("sky")
