"""What is read of the account's station, of how areas are watched, and of what comes back every week."""

from datetime import timedelta
from zoneinfo import ZoneInfo

import numpy as np

from core.days import clock as hour_text
from core.disease.hosts import HOSTS, diseases_of
from core.disease.model import Model
from core.disease.registry import of_disease
from core.disease.threshold import Care, threshold_of
from core.label.targets import TARGETS
from core.units import exact_number, show_number
from core.weather.hours import moment
from core.weather.intake import UNITS
from core.weather.wetness import Wetness, wet_hours
from greenmeasure.accounts.models import Account, Site
from greenmeasure.common import clock
from greenmeasure.common.rows import nearest_moment
from greenmeasure.common.schemas import FactOut
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.sky.models import Fetch, HandReading, Rhythm, Station, Watch
from greenmeasure.sky.station_schemas import (
    AsideOut,
    EstimatorOut,
    FetchOut,
    GapOut,
    HandOut,
    ModelOut,
    RhythmOut,
    StationOut,
    StationsOut,
    WatchesOut,
    WatchOut,
)
from greenmeasure.sky.watching import Watched, seen_lately, threshold_text
from greenmeasure.sky.weather import Known, recent, station_of
from greenmeasure.sky.words import asking_out, fresh_out, hours_came, hours_kept

LISTED = 60
DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
SOURCES = {"service": "service", "probe": "soil probe", "csv": "file", "typical": "typical year"}
UNIT_NAMES = {"degC": "°C", "degF": "°F", "share": "share of the hour", "fraction": "fraction"}


def stations_out(site: Site) -> StationsOut:
    """A site's station, and what can be picked."""
    station, account = station_of(site), site.account
    return StationsOut(
        site_id=site.pk,
        site=site.name,
        station=station_out(station) if station else None,
        wetness=[FactOut(name=w.value, text=w.text) for w in Wetness],
        hand_units={
            kind: [
                FactOut(name=u, text=UNIT_NAMES.get(u, u)) for u in sorted(UNITS[kind], key=lambda u: not _usual(u, account.us))
            ]
            for kind in ("rain", "soil", "snow")
        },
    )


def _usual(unit: str, us: bool) -> bool:
    """Whether a unit is the one that an account's people read in."""
    return unit in (("degF", "in") if us else ("degC", "mm", "cm"))


def station_out(station: Station) -> StationOut:
    """A station with what came of it."""
    known, zone = recent(station), station.zone
    first = station.readings.values_list("at", flat=True).first()
    count, since = station.readings.count(), nearest_moment(first).astimezone(zone) if first else None
    return StationOut(
        id=station.pk,
        version=station.version,
        name=station.name,
        url=station.url,
        probe_url=station.probe_url,
        latitude="" if station.latitude is None else exact_number(station.latitude),
        longitude="" if station.longitude is None else exact_number(station.longitude),
        off_site=station.off_site,
        offset=exact_number(station.offset),
        wetness=station.wetness,
        fill=station.fill,
        fresh=fresh_out(station, known, clock.now()),
        span=hours_kept(count, since),
        estimators=_estimators(known),
        asking=asking_out(station, clock.now()),
        fetches=[fetch_out(f) for f in station.fetches.all()[:8]],
        gaps=_gaps(known, zone),
        aside=[
            AsideOut(at=a.at, field=a.field, value=a.value, problem=a.problem, source=SOURCES.get(a.source, a.source))
            for a in station.aside.all()[:LISTED]
        ],
        by_hand=[hand_out(r) for r in station.by_hand.select_related("area")[:LISTED]],
    )


def _estimators(known: Known | None) -> list[EstimatorOut]:
    """How many wet hours a day each estimator found over the last weeks: they differ, and the user sees by how much."""
    found = []
    for by in Wetness:
        text = "—"
        if known:
            wet = wet_hours(known.hours, by)[~known.hours.forecast]
            if len(wet) and not np.isnan(wet).all():
                text = f"{show_number(round(float(np.nanmean(wet)) * 24, 1))} h a day"
        found.append(EstimatorOut(key=by.value, text=by.text, wet=text))
    return found


def _gaps(known: Known | None, zone: ZoneInfo) -> list[GapOut]:
    """Holes in what was measured lately, the longest first."""
    if known is None:
        return []
    measured = known.hours.between(0, int((~known.hours.forecast).sum()))
    found = []
    for begin, hours in sorted(measured.gaps, key=lambda g: -g[1])[:LISTED]:
        at = moment(begin)
        found.append(
            GapOut(begin=at, hours=hours, text=f"{hour_text(at, zone)} to {hour_text(at + timedelta(hours=hours), zone)}")
        )
    return found


def fetch_out(f: Fetch) -> FetchOut:
    """One asking in words."""
    return FetchOut(at=f.at, ok=f.ok, text=f.problem or hours_came(f.hours, f.new))


def hand_out(r: HandReading) -> HandOut:
    """A reading by hand in words."""
    return HandOut(
        id=r.pk,
        at=r.at,
        kind=r.kind,
        kind_text=str(HandReading.Kind(r.kind).label),
        text=r.text,
        area=r.area.name if r.area else "",
        by=r.by,
    )


# --- how an area is watched -------------------------------------------------------------------------------------


def watches_out(account: Account, area_id: int) -> WatchesOut:
    """Every disease there is a model for, and how an area is watched for it; the usual ones of its grass first."""
    area = area_of(account, area_id)
    usual = diseases_of(area.sward)
    rows = {w.disease: w for w in Watch.objects.filter(area=area)}
    seen = seen_lately(account)
    order = [*usual, *(d for d in HOSTS if d not in usual)]
    return WatchesOut(
        area_id=area.pk,
        site_id=area.site_id,
        area=area.name,
        grass=area.ground.grass_name,
        watches=[_watch_out(area, d, rows.get(d), d in usual, (area.pk, d) in seen) for d in order],
        rhythms=[
            rhythm_out(r) for r in Rhythm.objects.filter(site=area.site).select_related("area") if r.area_id in (None, area.pk)
        ],
    )


def _watch_out(area: Area, disease: str, row: Watch | None, usual: bool, seen: bool) -> WatchOut:
    known = of_disease(disease)
    model: Model = next((m for m in known if row and m.key == row.model), known[0])
    care = row.care if row else Care(history=seen)
    limit = threshold_of(model, care)
    own = "" if care.own is None else exact_number(care.own * 100 if model.share else care.own)
    return WatchOut(
        version=row.version if row else 0,
        disease=disease,
        name=TARGETS[disease].name,
        on=row.on if row else usual,
        usual=usual,
        model=model.key,
        models=[ModelOut(key=m.key, name=m.name, tier=m.tier.text, source=m.source, valid=m.valid) for m in known],
        susceptible=care.susceptible.value,
        bears=care.bears.value,
        history=care.history,
        own=own,
        threshold=threshold_text(Watched(area, disease, model, limit, care)),
        why=limit.why,
    )


def rhythm_out(r: Rhythm) -> RhythmOut:
    """What comes back every week, in words."""
    days = "every day" if len(r.days) == 7 else ", ".join(DAYS[d] for d in r.days)
    return RhythmOut(
        id=r.pk,
        kind=r.kind,
        kind_text=str(Rhythm.Kind(r.kind).label),
        area_id=r.area_id,
        area=r.area.name if r.area else "",
        text=f"{days}, {r.begin:%H:%M} to {r.end:%H:%M}",
        why=r.why,
    )
