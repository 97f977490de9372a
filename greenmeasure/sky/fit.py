"""Hours fit to work: a product or a tank mix on an area against the hours to come, with every hour's reasons."""

from collections.abc import Sequence
from datetime import timedelta

import numpy as np

from core.readable import listed
from core.units import positive
from core.weather.windows import Fit, Window, verdict
from core.weather.words import told
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.schemas import number_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.shelf.queries import Card, card_of
from greenmeasure.sky.outing import Outing, needs_together, outing
from greenmeasure.sky.schemas import FitHourOut, FitIn, FitName, FitOut, ReasonOut, VerdictName, WindowOut
from greenmeasure.sky.weather import Known, recent, station_of
from greenmeasure.sky.words import (
    NO_WEATHER,
    asked_of,
    change_text,
    doubt_text,
    fit_sentence,
    fresh_out,
    span_text,
    water_by,
    water_in_within,
)
from greenmeasure.water.queries import water_in_text

MOST_HOURS = 24.0
SHOWN = 6
"""How many windows are told."""
VERDICTS: dict[Fit, VerdictName] = {Fit.GOOD: "go", Fit.MIND: "mind", Fit.UNKNOWN: "wait", Fit.BAD: "no"}
FITS: dict[Fit, FitName] = {Fit.GOOD: "go", Fit.MIND: "mind", Fit.UNKNOWN: "unknown", Fit.BAD: "no"}


def fit(account: Account, data: FitIn) -> FitOut:
    """Hours fit to work.

    Raises:
        InputError: hours that are no number, or that no day has.
        Missing: no such area or product.
    """
    hours = positive("hours", number_in("hours", data.hours), most=MOST_HOURS)
    area = area_of(account, data.area_id)
    picked = [card_of(account, pk) for pk in dict.fromkeys(data.product_ids)]
    station, now = station_of(area.site), clock.now()
    known = recent(station) if station else None
    fresh = fresh_out(station, known, now)
    needs = needs_together(picked)
    if station is None or known is None or not known.reaches(now):
        return FitOut(
            verdict="no",
            sentence=NO_WEATHER,
            asks=asked_of(needs.needs, account.us),
            contradictions=list(needs.contradictions),
            windows=[],
            hours=[],
            change="",
            water_in=_water_in(account, area, picked),
            doubt="",
            fresh=fresh,
        )
    out = outing(account, area, picked, known, now, int(np.ceil(hours)))
    called = VERDICTS[Fit.BAD if needs.contradictions else verdict(out.judged, out.needed)]
    return FitOut(
        verdict=called,
        sentence=fit_sentence(out, listed([c.product.name for c in picked]), known.station.zone),
        asks=asked_of(needs.needs, account.us),
        contradictions=list(needs.contradictions),
        windows=[_window_out(out, w, known) for w in out.windows[:SHOWN]],
        hours=_hours_out(out, known, account.us),
        change=change_text(out),
        water_in=_water_in(account, area, picked, out, known),
        doubt=doubt_text(known, now),
        fresh=fresh,
    )


# --- what ground and account bring ---------------------------------------------------------------------------------


# --- in words ---------------------------------------------------------------------------------------------------


def _water_in(
    account: Account, area: Area, picked: Sequence[Card], out: Outing | None = None, known: Known | None = None
) -> list[str]:
    """For each product that is watered in: by when after the best hours, what rain does of it, and what it takes here."""
    found = []
    for c in picked:
        rules = c.core.rules
        if not rules.watered_in:
            continue
        how = water_in_text(account, area.pk, rules.water_in_depth, rules.water_in_minutes)
        plan = _planned_water(account, rules.water_in_delay, rules.water_in_depth, out, known)
        found.append(" ".join(x for x in (water_in_within(c.product.name, rules.water_in_delay), plan, how) if x))
    return found


def _planned_water(account: Account, delay: float | None, depth: float | None, out: Outing | None, known: Known | None) -> str:
    """By when water must be on after the best hours, and how much of it the forecast's rain brings."""
    if not delay or out is None or known is None or not out.windows:
        return ""
    best = out.windows[0]
    begin = out.at(best.start + out.needed)
    by = begin + timedelta(hours=delay)
    a, b = known.hours.place(begin), known.hours.place(by)
    rain = known.hours.rain[a:b]
    if b > len(known.hours) or not len(rain) or np.isnan(rain).any() or not depth:
        return water_by(by, known.station.zone)
    return water_by(by, known.station.zone, float(rain.sum()), depth, account.us)


def _window_out(out: Outing, w: Window, known: Known) -> WindowOut:
    begin, end = out.at(w.start), out.at(w.start + w.hours)
    minds: dict[str, str] = {}
    for said in out.judged.reasons[w.start : w.start + w.hours]:
        for r in said:
            if r.fit is Fit.MIND:
                minds.setdefault(r.key, r.text)
    return WindowOut(
        begin=begin,
        end=end,
        text=span_text(begin, end, known.station.zone),
        hours=w.hours,
        good=w.all_good,
        minds=list(minds.values()),
    )


def _hours_out(out: Outing, known: Known, us: bool) -> list[FitHourOut]:
    hours, zone = known.hours, known.station.zone
    here, found = hours.place(out.begin), []
    for i, (value, reasons) in enumerate(zip(out.judged.fits, out.judged.reasons, strict=True)):
        local, k = out.at(i).astimezone(zone), here + i
        found.append(
            FitHourOut(
                at=out.at(i),
                day=f"{local:%a} {local.day}",
                hour=local.hour,
                fit=FITS[Fit(int(value))],
                reasons=[ReasonOut(key=r.key, fit=FITS[r.fit], text=r.text) for r in reasons],
                air=told("air", hours.air[k], us),
                wind=told("wind", hours.wind[k], us),
                rain=told("rain", hours.rain[k], us),
            )
        )
    return found
