"""Hours fit to work: a product or a tank mix on an area against the hours to come, with every hour's reasons."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

import numpy as np
from numpy.typing import NDArray

from core.label.rules import Leaf
from core.readable import listed
from core.units import positive, show_number
from core.weather import soil
from core.weather.hours import Hours, moment
from core.weather.sun import light_hours, place_of
from core.weather.wetness import Wetness, leaf, wet_hours
from core.weather.windows import (
    DORMANT_BELOW,
    WORDS,
    Conditions,
    Fit,
    Judged,
    Needs,
    Together,
    Window,
    holds,
    judge_hours,
    limiting,
    needs_of,
    together,
    verdict,
    windows,
)
from core.weather.words import breeze, rainfall, told, warmth
from greenmeasure.accounts.models import Account
from greenmeasure.common import clock
from greenmeasure.common.kept import kept
from greenmeasure.common.schemas import FactOut, number_in
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import area_of
from greenmeasure.shelf.queries import Card, card_of
from greenmeasure.sky.models import Rhythm
from greenmeasure.sky.schemas import FitHourOut, FitIn, FitName, FitOut, ReasonOut, VerdictName, WindowOut
from greenmeasure.sky.weather import STALE_FORECAST, Known, recent, station_of
from greenmeasure.sky.words import fresh_out, hour_text, span_text
from greenmeasure.water.queries import water_in_text

Flags = NDArray[np.bool_]
AHEAD = 7 * 24
MOST_HOURS = 24.0
SHOWN = 6
"""How many windows are told."""
VERDICTS: dict[Fit, VerdictName] = {Fit.GOOD: "go", Fit.MIND: "mind", Fit.UNKNOWN: "wait", Fit.BAD: "no"}
FITS: dict[Fit, FitName] = {Fit.GOOD: "go", Fit.MIND: "mind", Fit.UNKNOWN: "unknown", Fit.BAD: "no"}


@dataclass(frozen=True)
class Outing:
    """What was asked of the hours and what they said; `begin` is the hour that place 0 of `judged` stands for."""

    needs: Together
    judged: Judged
    windows: list[Window]
    begin: datetime
    needed: int

    def at(self, place: int) -> datetime:
        return self.begin + timedelta(hours=place)


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
    needs = _together(picked)
    if station is None or known is None or not known.reaches(now):
        return FitOut(
            verdict="no",
            sentence="Without weather for the hours to come nothing can be said of them. Look at the sky yourself.",
            asks=_asks(needs.needs, account.us),
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
        sentence=_sentence(out, picked, known),
        asks=_asks(needs.needs, account.us),
        contradictions=list(needs.contradictions),
        windows=[_window_out(out, w, known) for w in out.windows[:SHOWN]],
        hours=_hours_out(out, known, account.us),
        change=_change(out),
        water_in=_water_in(account, area, picked, out, known),
        doubt=_doubt(known, now),
        fresh=fresh,
    )


def outing(account: Account, area: Area, picked: Sequence[Card], known: Known, now: datetime, needed: int) -> Outing:
    """Judge the hours from now on for products on an area."""
    needs, hours = _together(picked), known.hours
    here = known.now_at(now)
    end = min(len(hours), here + AHEAD)
    start = max(0, here - 72)
    cut = hours.between(start, end)
    wet = leaf(cut, wet_hours(cut, Wetness(known.station.wetness)))
    judged = judge_hours(
        cut,
        needs.needs,
        now=here - start,
        wet=wet,
        around=_around(account, area, known, cut),
        age=known.forecast_age(now) or 0.0,
        us=account.us,
    )
    begin = now.replace(minute=0, second=0, microsecond=0)
    return Outing(needs, judged, [] if needs.contradictions else windows(judged, needed), begin, needed)


def _together(picked: Sequence[Card]) -> Together:
    found = together([needs_of(c.core.rules, c.product.name, c.core.formulation.sprayed, c.core.kind) for c in picked])
    broken = [f"A rule of {c.product.name} cannot be read ({said})." for c in picked for said in c.core.rules.unreadable]
    return replace(found, contradictions=(*found.contradictions, *broken))


# --- what ground and account bring ---------------------------------------------------------------------------------


def _around(account: Account, area: Area, known: Known, cut: Hours) -> Conditions:
    station = known.station
    light = None
    if station.latitude is not None and station.longitude is not None:
        light = light_hours(cut, place_of(station.latitude, station.longitude), station.zone)
    rhythms = [r for r in every_rhythm(account) if r.site_id == area.site_id and r.area_id in (None, area.pk)]
    kinds = Rhythm.Kind
    flags = {kind: _flags([r for r in rhythms if r.kind == kind], known, cut) for kind in kinds}
    return Conditions(light, flags[kinds.QUIET], flags[kinds.MOW], flags[kinds.WATER], _dormant(area, known, cut))


@kept
def every_rhythm(account: Account) -> list[Rhythm]:
    """What comes back every week in the account."""
    return list(Rhythm.objects.filter(account=account))


def _flags(rhythms: Sequence[Rhythm], known: Known, cut: Hours) -> Flags | None:
    """The hours that any of the rhythms touches; None where there are none."""
    if not rhythms:
        return None
    start = moment(cut.start)
    found = np.zeros(len(cut), dtype=bool)
    for i in range(len(cut)):
        begin = (start + timedelta(hours=i)).astimezone(known.station.zone)
        found[i] = any(r.touches(begin) for r in rhythms)
    return found


def _dormant(area: Area, known: Known, cut: Hours) -> Flags:
    """Hours of days whose soil is too cold for the grass to grow; a day without a value is not."""
    ground = soil.of_days(known.weather.days)
    with np.errstate(invalid="ignore"):
        cold = ground < DORMANT_BELOW[area.ground.cool]
    at = known.hours.place(moment(cut.start))
    return np.asarray(cold[known.weather.number[at : at + len(cut)]])


# --- in words ---------------------------------------------------------------------------------------------------


def _sentence(out: Outing, picked: Sequence[Card], known: Known) -> str:
    names = listed([c.product.name for c in picked])
    if out.needs.contradictions:
        return f"No: what {names} ask for cannot be had at once."
    found = verdict(out.judged, out.needed)
    if found in (Fit.GOOD, Fit.MIND):
        until = f"{out.at(holds(out.judged)).astimezone(known.station.zone):%H:%M}"
        return (
            f"Go now; the hours hold until {until}."
            if found is Fit.GOOD
            else f"Now is possible until {until}; mind what is said."
        )
    if found is Fit.UNKNOWN:
        w = out.windows[0]
        return f"Wait. The best hours are {span_text(out.at(w.start), out.at(w.start + w.hours), known.station.zone)}."
    return "No: none of the hours that are foretold is fit for it."


def _change(out: Outing) -> str:
    """What would have to change, where most hours fail by one thing."""
    key = limiting(out.judged)
    return f"What stands in the way most often is {WORDS[key]}." if key in WORDS else ""


def _doubt(known: Known, now: datetime) -> str:
    age = known.forecast_age(now)
    if age is None:
        return "There is no forecast: only hours that have been measured are judged."
    if age > STALE_FORECAST:
        return (
            f"The forecast is {show_number(round(age))} h old, and the margins at every limit are as much wider. Fetch a new one."
        )
    return ""


def _water_in(
    account: Account, area: Area, picked: Sequence[Card], out: Outing | None = None, known: Known | None = None
) -> list[str]:
    """For each product that is watered in: by when after the best hours, what rain does of it, and what it takes here."""
    found = []
    for c in picked:
        rules = c.core.rules
        if not rules.watered_in:
            continue
        within = f" within {show_number(rules.water_in_delay)} h" if rules.water_in_delay else ""
        how = water_in_text(account, area.pk, rules.water_in_depth, rules.water_in_minutes)
        plan = _planned_water(account, rules.water_in_delay, rules.water_in_depth, out, known)
        found.append(" ".join(x for x in (f"Water {c.product.name} in{within} after it.", plan, how) if x))
    return found


def _planned_water(account: Account, delay: float | None, depth: float | None, out: Outing | None, known: Known | None) -> str:
    """By when water must be on after the best hours, and how much of it the forecast's rain brings."""
    if not delay or out is None or known is None or not out.windows:
        return ""
    best = out.windows[0]
    begin = out.at(best.start + out.needed)
    by = begin + timedelta(hours=delay)
    said = f"After the best hours that is by {hour_text(by, known.station.zone)}."
    a, b = known.hours.place(begin), known.hours.place(by)
    rain = known.hours.rain[a:b]
    if b > len(known.hours) or not len(rain) or np.isnan(rain).any() or not depth:
        return said
    falls = float(rain.sum())
    if falls >= depth:
        return f"{said} {rainfall(falls, account.us)} of rain is foretold by then, enough for it; look whether it came."
    return (
        f"{said} {rainfall(falls, account.us)} of the {rainfall(depth, account.us)} is foretold as rain."
        if falls >= 0.2
        else said
    )


DRY_AND_MOWN = {
    "dry_before": "No rain before it",
    "dry_after": "No rain after it",
    "mow_before": "No mowing before it",
    "mow_after": "No mowing after it",
}


def _asks(n: Needs, us: bool) -> list[FactOut]:
    """What is asked of the hours, and whose rule it is."""
    facts = []

    def add(key: str, name: str, text: str) -> None:
        whose = n.why.get(key, "")
        facts.append(FactOut(name=name, text=f"{text} ({whose})" if whose else text))

    for key, name, span, show in (("air", "Air", n.air, warmth), ("wind", "Wind", n.wind, breeze)):
        low, high = span
        parts = [f"from {show(low, us)}" if low is not None else "", f"up to {show(high, us)}" if high is not None else ""]
        if any(parts):
            add(key, name, " ".join(p for p in parts if p))
    if n.leaf is not Leaf.EITHER:
        add("leaf", "Leaf", n.leaf.value)
    for key, name in DRY_AND_MOWN.items():
        if hours := getattr(n, key):
            add(key, name, f"{show_number(hours)} h")
    if n.rain_wanted:
        add("rain_wanted", "Watered in", f"within {show_number(n.rain_wanted)} h")
    return facts


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
