"""One time axis for an area: days with their weather, risks, covers, scouts and clocks; and a day of it unfolded."""

from collections.abc import Sequence
from datetime import date, datetime

import numpy as np

from core.days import day
from core.disease.explain import explain
from core.disease.model import Model, Risk, Series, risk_of
from core.disease.registry import of_disease
from core.disease.scouting import Report, score
from core.errors import InputError
from core.label.targets import DISEASE, TARGETS
from core.season.cover import Cover, covered_days
from core.weather import reference_et, soil
from core.weather.hours import moment
from core.weather.moisture import deficit, delta_t, wet_bulb
from core.weather.wetness import CALM, Wetness, dew_of, frost, leaf, liquid, wet_hours
from core.weather.words import UNITS, in_units, told, warmer
from greenmeasure.accounts.models import Account, Site
from greenmeasure.common import clock
from greenmeasure.common.schemas import FactOut
from greenmeasure.ground.queries import area_of
from greenmeasure.ledger.booked import history
from greenmeasure.scouting.models import Scouting
from greenmeasure.scouting.queries import scout_out, standing
from greenmeasure.sky.clocks import clocks_of
from greenmeasure.sky.schemas import (
    CoverOut,
    DayOfWeatherOut,
    ExplainOut,
    JobOnStripOut,
    LongOut,
    SkyDayOut,
    SkyHourOut,
    StripOut,
    StripRiskOut,
)
from greenmeasure.sky.watching import Watched, covers_of, outlook_of, series_of, threshold_text, value_text, watched
from greenmeasure.sky.weather import Known, recent, station_of, whole
from greenmeasure.sky.words import fresh_out

AHEAD = 7
FIELD_NAMES = {"air": "Air", "humidity": "Humidity", "rain": "Rain", "wind": "Wind", "soil": "Soil, measured"}


def strip(account: Account, area_id: int, weeks: int) -> StripOut:
    """The strip of an area over so many weeks back and the days to come."""
    area, now = area_of(account, area_id), clock.now()
    station, today = station_of(area.site), clock.today(area)
    known = recent(station) if station else None
    fresh = fresh_out(station, known, now)
    if station is None or known is None:
        return StripOut(
            area_id=area_id,
            area=area.name,
            fresh=fresh,
            units=UNITS[account.us],
            today=0,
            days=[],
            risks=[],
            covers=[],
            scouts=[],
            clocks=[],
            jobs=[],
        )
    first = max(0, known.day_at(today) - 7 * weeks)
    last = min(len(known.weather.days), known.day_at(today) + AHEAD + 1)
    begin = known.weather.days.day(first)
    past, series = history(account, area_id), series_of(station)
    every = {w.disease: covers_of(account, past, w.disease, outlook_of(w, known, today)) for w in watched(area)}
    scouts = scouts_of(account, area_id)
    return StripOut(
        area_id=area_id,
        area=area.name,
        fresh=fresh,
        units=UNITS[account.us],
        today=known.day_at(today) - first,
        days=days_out(known, first, last, account.us),
        risks=[_risk(w, series[w.model.key], known, slice(first, last), scouts, every[w.disease]) for w in watched(area)],
        covers=_covers(every, begin),
        scouts=[scout_out(s) for s in scouts if s.on >= begin],
        clocks=clocks_of(account, area, known),
        jobs=_jobs(account, area_id, now),
    )


def days_out(known: Known, first: int, last: int, us: bool) -> list[DayOfWeatherOut]:
    """The days from place `first` up to `last`."""
    days, ground = known.weather.days, soil.of_days(known.weather.days)
    found = []
    for i in range(first, last):
        on = days.day(i)
        high, low = told("air", days.high[i], us), told("air", days.low[i], us)
        said = "not known" if np.isnan(days.air[i]) else f"{low} to {high}, {told('wet', days.wet[i], us)} of wet leaf"
        if days.rain[i] > 0:
            said += f", {told('rain', days.rain[i], us)} of rain"
        found.append(
            DayOfWeatherOut(
                on=on,
                label=f"{on:%a} {on.day}",
                high=in_units("air", days.high[i], us),
                low=in_units("air", days.low[i], us),
                rain=in_units("rain", days.rain[i], us),
                wet=in_units("wet", days.wet[i], us),
                humidity=in_units("humidity", days.humidity[i], us),
                wind=in_units("wind", days.wind[i], us),
                soil=in_units("soil", ground[i], us),
                forecast=round(float(days.forecast[i]), 3),
                said=said,
            )
        )
    return found


def _risk(
    w: Watched, found: Series, known: Known, shown: slice, scouts: Sequence[Scouting], covers: Sequence[Cover]
) -> StripRiskOut:
    limit, values, outside = w.threshold.value, found.values[shown], found.outside[shown]
    days = known.weather.days
    reports = [Report(s.on, s.seen, s.severity) for s in scouts if s.what == w.disease]
    held = score(days.first, found.values, limit, reports, covered_days(covers, days.first, len(days)))
    limit_text = threshold_text(w) if w.model.yes_or_no else f"at {threshold_text(w)}"
    return StripRiskOut(
        disease=w.disease,
        name=TARGETS[w.disease].name,
        model=w.model.key,
        model_name=w.model.name,
        tier=w.model.tier.text,
        source=w.model.source,
        valid=w.model.valid,
        threshold=limit_text,
        why=w.threshold.why,
        shares=[None if np.isnan(v) else round(float(v) / limit, 4) for v in values],
        states=[risk_of(float(v), bool(o), limit).value for v, o in zip(values, outside, strict=True)],
        score=held.sentence if reports else "",
        others=[m.name for m in of_disease(w.disease) if m.key != w.model.key],
    )


def _covers(every: dict[str, list[Cover]], begin: date) -> list[CoverOut]:
    """Covers that reach into the strip; one product's covers against several diseases that end alike are one."""
    found: dict[tuple[str, date, date], list[tuple[str, Cover]]] = {}
    for disease, covers in every.items():
        for c in covers:
            if c.most >= begin:
                found.setdefault((c.product, c.on, c.until), []).append((disease, c))
    return [
        CoverOut(
            product=c.product,
            codes=" + ".join(c.codes),
            on=c.on,
            least=c.least,
            until=c.until,
            most=c.most,
            against=[TARGETS[d].name for d, _ in pairs],
            sentence=c.sentence,
        )
        for pairs in found.values()
        for c in [pairs[0][1]]
    ]


def _jobs(account: Account, area_id: int, now: datetime) -> list[JobOnStripOut]:
    """Windows that were picked for an area and still stand."""
    area = area_of(account, area_id)
    found = area.planned.filter(dropped_at=None).select_related("product").order_by("begin")
    return [
        JobOnStripOut(on=clock.local_day(area, p.begin), text=p.product.name, state="missed" if p.end <= now else "planned")
        for p in found
    ]


def scouts_of(account: Account, area_id: int) -> list[Scouting]:
    """Reports of diseases on an area that count, the oldest first."""
    return [s for s in reversed(standing(account)) if s.area_id == area_id and s.kind == DISEASE]


# --- a day unfolded ---------------------------------------------------------------------------------------------


def sky_day(account: Account, area_id: int, on: date) -> SkyDayOut:
    """A day with its hours, and how each model came to its value. Raises InputError for a day without weather."""
    area = area_of(account, area_id)
    station = station_of(area.site)
    known = recent(station) if station else None
    i = known.day_at(on) if known else -1
    if station is None or known is None or not 0 <= i < len(known.weather.days):
        raise InputError("on", str(on), f"There is no weather for {day(on)}.", "Pick a day of the strip.")
    series = series_of(station)
    return SkyDayOut(
        on=on,
        label=f"{on:%A} {day(on)}",
        facts=_facts(known, i, account.us),
        hours=_hours(known, i, account.us),
        models=[
            _explain(w, model, series[model.key], known, i)
            for w in watched(area)
            for model in [w.model, *(m for m in of_disease(w.disease) if m.key != w.model.key)]
        ],
    )


def _facts(known: Known, i: int, us: bool) -> list[FactOut]:
    days, hours = known.weather.days, known.hours
    here = known.weather.number == i
    facts = [
        FactOut(name="Air", text=f"{told('air', days.low[i], us)} to {told('air', days.high[i], us)}"),
        FactOut(name="Humidity, mean", text=told("humidity", days.humidity[i], us)),
        FactOut(name="Rain", text=told("rain", days.rain[i], us)),
        FactOut(name="Hours known", text=f"{days.known[i]} of {days.length[i]}"),
    ]
    for by in Wetness:
        wet = liquid(hours, wet_hours(hours, by))[here]
        text = "not known" if np.isnan(wet).mean() > 0.2 else f"{np.nansum(wet):.0f} h"
        mark = ", which counts here" if by.value == known.station.wetness else ""
        facts.append(FactOut(name=f"Wet leaf {by.short}", text=f"{text}{mark}"))
    if days.frost[i] > 0:
        facts.append(FactOut(name="Frost on the leaf", text=f"{days.frost[i]:.0f} h, not counted as wet"))
    measured = not np.isnan(days.soil[i])
    ground = soil.of_days(days)[i]
    facts.append(FactOut(name="Soil at 5 cm", text=f"{told('soil', ground, us)}, {'measured' if measured else 'estimated'}"))
    if known.station.latitude is not None:
        drinks = reference_et.of_days(days, known.station.latitude)[i]
        facts.append(FactOut(name="Short grass drinks", text=f"{told('et', drinks, us)} (FAO-56)"))
    return facts


def _hours(known: Known, i: int, us: bool) -> list[SkyHourOut]:
    hours = known.hours
    wet = leaf(hours, wet_hours(hours, Wetness(known.station.wetness)))
    air, humidity = hours.air, hours.humidity
    iced, dew = frost(hours, wet), dew_of(hours)
    wet_air, delta, dry = (f(air, humidity) for f in (wet_bulb, delta_t, deficit))
    found = []
    for k in np.flatnonzero(known.weather.number == i):
        at = moment(hours.times[k])
        found.append(
            SkyHourOut(
                at=at,
                label=f"{at.astimezone(known.station.zone):%H:%M}",
                air=told("air", hours.air[k], us),
                humidity=told("humidity", hours.humidity[k], us),
                dew=told("air", dew[k], us),
                wet_bulb=told("air", wet_air[k], us),
                deficit="—" if np.isnan(dry[k]) else f"{dry[k]:.2f} kPa",
                delta="—" if np.isnan(delta[k]) else warmer(float(delta[k]), us),
                rain=told("rain", hours.rain[k], us),
                wind="calm" if hours.wind[k] < CALM else told("wind", hours.wind[k], us),
                wet="frost" if iced[k] == 1 else "—" if np.isnan(wet[k]) else "wet" if wet[k] >= 0.5 else "dry",
                soil=told("soil", hours.soil[k], us),
                forecast=bool(hours.forecast[k]),
            )
        )
    return found


def _explain(w: Watched, model: Model, found: Series, known: Known, i: int) -> ExplainOut:
    """How a model came to its value of day `i`, by the area's own threshold where it is the one the area is watched by."""
    limit = w.threshold.value if model.key == w.model.key else model.threshold
    value = float(found.values[i])
    state: Risk = risk_of(value, bool(found.outside[i]), limit)
    against = f"{value_text(model, value)} against {value_text(model, limit)} ({model.unit})"
    if model.yes_or_no:
        against = f"{value_text(model, value)} ({model.unit})"
    return ExplainOut(
        disease=w.disease,
        name=TARGETS[w.disease].name,
        model=model.name,
        value="no value" if np.isnan(value) else against,
        state=state.value,
        state_text=state.text,
        lines=[FactOut(name=n, text=t) for n, t in explain(model, known.weather, i, known.station.account.us)],
    )


# --- long series ------------------------------------------------------------------------------------------------


def long_series(site: Site, field: str) -> LongOut:
    """One field of all that is known, hour by hour. Raises InputError for a field that is none."""
    if field not in FIELD_NAMES:
        raise InputError("field", field, f"“{field}” is no field of weather.", f"Use one of {', '.join(FIELD_NAMES)}.")
    station, us = station_of(site), site.account.us
    known = whole(station) if station else None
    unit = UNITS[us][field]
    if known is None:
        return LongOut(field=field, name=FIELD_NAMES[field], unit=unit, start=clock.now(), foretold=0, values=[])
    start = moment(known.hours.start)
    values = getattr(known.hours, field)
    foretold = int(np.argmax(known.hours.forecast)) if known.hours.forecast.any() else len(values)
    return LongOut(
        field=field,
        name=FIELD_NAMES[field],
        unit=unit,
        start=start,
        foretold=foretold,
        values=[in_units(field, v, us) for v in values],
    )
