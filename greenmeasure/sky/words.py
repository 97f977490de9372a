"""The sky as one says it: how fresh the weather is, hours, fitness, risks, clocks and what a school would have cost."""

from collections.abc import Sequence
from datetime import date, datetime, timedelta
from decimal import Decimal
from math import isnan
from zoneinfo import ZoneInfo

from core.days import clock, day
from core.disease.model import Risk
from core.growth.clock import REBOUND, TURFS, Clock, Stage, Target
from core.growth.standing import Calendar
from core.label.rules import Leaf
from core.ledger.locks import Forbidden
from core.readable import joined
from core.season.replay import School
from core.units import show_number
from core.weather.intake import Taken
from core.weather.windows import WORDS, Fit, Needs, holds, limiting, verdict
from core.weather.words import breeze, degree_day_base, degree_day_part, degree_day_sum, rainfall, told, warmth
from greenmeasure.common.schemas import FactOut
from greenmeasure.sky.models import Station
from greenmeasure.sky.outing import Outing
from greenmeasure.sky.schemas import FreshOut, RiskOut
from greenmeasure.sky.station_schemas import AskingOut
from greenmeasure.sky.watching import Watched, value_text
from greenmeasure.sky.weather import STALE_FORECAST, STALE_HOURS, Known

UP_TO_DATE = "Weather measured and forecast: up to date."


def fresh_out(station: Station | None, known: Known | None, at: datetime) -> FreshOut:
    """How fresh an account's weather is, in a sentence that is shown wherever it matters."""
    if station is None:
        return FreshOut(
            state="none",
            sentence="No weather comes in yet: set up a station, or bring in a file.",
            station="",
            last=None,
            issued=None,
            problem="",
        )
    asked = station.fetches.first()
    problem = asked.problem if asked and not asked.ok else ""
    if known is None or known.last is None:
        sentence = f"Nothing has come from {station.name} yet. {problem}".strip()
        return FreshOut(state="none", sentence=sentence, station=station.name, last=None, issued=None, problem=problem)
    age, foretold = known.age(at) or 0.0, known.forecast_age(at)
    old = age > STALE_HOURS
    said = [f"Measured up to {_ago(age)}" if age >= 1 else "Measured up to this hour"]
    if foretold is None:
        said.append("no forecast")
    elif foretold > STALE_FORECAST:
        said.append(f"the forecast is {_long(foretold)} old and no longer sure")
    else:
        said.append(f"forecast of {_long(foretold)} ago" if foretold >= 1 else "forecast of this hour")
    late = old or foretold is None or foretold > STALE_FORECAST
    sentence = f"{'Old weather: ' if old else ''}{'; '.join(said)}."
    if age < 1 and foretold is not None and foretold < 1:
        sentence = UP_TO_DATE
    if old:
        sentence = sentence.replace("Old weather: M", "Old weather: m")
    words = " ".join(x for x in (sentence, _set_off(station), problem) if x)
    return FreshOut(
        state="stale" if late else "fresh",
        sentence=words,
        station=station.name,
        last=known.last,
        issued=known.issued,
        problem=problem,
        air="" if old else _here(known, "air", at),
        wind="" if old else _here(known, "wind", at),
    )


def _here(known: Known, name: str, at: datetime) -> str:
    """A field of this hour in the account's words; empty where it is not known."""
    value = float(getattr(known.hours, name)[known.now_at(at)])
    return "" if isnan(value) else told(name, value, known.station.account.us)


def _set_off(station: Station) -> str:
    """What is done to its humidity, and where it stands; empty where there is nothing to say."""
    said = ["It stands off the site."] if station.off_site else []
    if station.offset:
        word = "raised" if station.offset > 0 else "lowered"
        said.append(f"Its humidity is {word} by {show_number(abs(station.offset))} %.")
    return " ".join(said)


def _ago(hours: float) -> str:
    return f"{_long(hours)} ago"


def _long(hours: float) -> str:
    if hours < 48:
        whole = max(1, round(hours))
        return f"{whole} hour" if whole == 1 else f"{whole} hours"
    return f"{round(hours / 24)} days"


def span_text(begin: datetime, end: datetime, zone: ZoneInfo) -> str:
    """A span of hours: Thu 26 Nov, 07:00 to 10:00."""
    a, b = begin.astimezone(zone), end.astimezone(zone)
    if a.date() == b.date() or (b.hour == 0 and b.date() - a.date() == timedelta(days=1)):
        return f"{clock(begin, zone)} to {b:%H:%M}"
    return f"{clock(begin, zone)} to {b:%a %H:%M}"


def fit_sentence(out: Outing, names: str, zone: ZoneInfo) -> str:
    """Go, wait or no, in a sentence, for products by their names."""
    if out.needs.contradictions:
        return f"No: what {names} ask for cannot be had at once."
    found = verdict(out.judged, out.needed)
    if found in (Fit.GOOD, Fit.MIND):
        until = f"{out.at(holds(out.judged)).astimezone(zone):%H:%M}"
        return (
            f"Go now; the hours hold until {until}."
            if found is Fit.GOOD
            else f"Now is possible until {until}; mind what is said."
        )
    if found is Fit.UNKNOWN:
        w = out.windows[0]
        return f"Wait. The best hours are {span_text(out.at(w.start), out.at(w.start + w.hours), zone)}."
    return "No: none of the hours in the forecast is fit for it."


def change_text(out: Outing) -> str:
    """What would have to change, where most hours fail by one thing."""
    key = limiting(out.judged)
    return f"What stands in the way most often is {WORDS[key]}." if key in WORDS else ""


def doubt_text(known: Known, now: datetime) -> str:
    """Why the hours to come are less sure: no forecast, or an old one; else empty."""
    age = known.forecast_age(now)
    if age is None:
        return "There is no forecast: only hours that have been measured are judged."
    if age > STALE_FORECAST:
        return (
            f"The forecast is {show_number(round(age))} h old, and the margins at every limit are as much wider. Fetch a new one."
        )
    return ""


NO_WEATHER = "Without weather for the hours to come nothing can be said of them. Look at the sky yourself."


SOME_RAIN = 0.2
"""Less rain than this [mm] is not worth a word."""


def water_in_within(product: str, delay: float | None) -> str:
    """That a product is watered in, within how long [h] where its label says so."""
    return f"Water {product} in{f' within {show_number(delay)} h' if delay else ''} after it."


def water_by(by: datetime, zone: ZoneInfo, falls: float = 0.0, depth: float = 0.0, us: bool = True) -> str:
    """By when water must be on after the best hours, and how much of its depth [mm] the rain that falls by then [mm] brings."""
    said = f"After the best hours that is by {clock(by, zone)}."
    if depth and falls >= depth:
        return f"{said} {rainfall(falls, us)} of rain is forecast by then, enough for it; look whether it came."
    return f"{said} {rainfall(falls, us)} of the {rainfall(depth, us)} is forecast as rain." if falls >= SOME_RAIN else said


DRY_AND_MOWN = {
    "dry_before": "No rain before it",
    "dry_after": "No rain after it",
    "mow_before": "No mowing before it",
    "mow_after": "No mowing after it",
}


def asked_of(n: Needs, us: bool) -> list[FactOut]:
    """What is asked of the hours, and whose rule it is."""
    facts = []

    def add(key: str, name: str, text: str) -> None:
        whose = n.why.get(key, "")
        facts.append(FactOut(name=name, text=f"{text} ({whose})" if whose else text))

    for key, name, span, show in (
        ("air", "Air", n.air, warmth),
        ("wind", "Wind", n.wind, breeze),
        ("soil", "Soil", n.soil, warmth),
    ):
        low, high = span
        parts = [f"from {show(low, us)}" if low is not None else "", f"up to {show(high, us)}" if high is not None else ""]
        if any(parts):
            add(key, name, " ".join(p for p in parts if p))
    if n.leaf is not Leaf.EITHER:
        add("leaf", "Leaf", n.leaf.value)
    for key, name in DRY_AND_MOWN.items():
        if (hours := getattr(n, key)) is not None:
            add(key, name, f"{show_number(hours)} h")
    if n.soaked:
        when = "its label names no time" if n.rain_wanted is None else f"within {show_number(n.rain_wanted)} h"
        add("soaked", "Watered in", when if n.rain_wanted != 0 else "at once")
    return facts


def told_of(w: Watched, value: float) -> str:
    """A value in words; of a model that only says yes or no, what that is."""
    if w.model.yes_or_no:
        return w.model.unit if value >= 1 else "not yet"
    return value_text(w.model, value)


def risk_sentence(now: Risk, peak: Risk, until: date | None, worst: int) -> str:
    """How a disease stands today and in so many days, and whether it is covered."""
    cover = f" Covered to {day(until)}." if until else ""
    if now is Risk.HIGH:
        return f"At its threshold today.{cover or ' Nothing covers it.'}"
    if peak is Risk.HIGH:
        return f"The forecast reaches the threshold in {worst} {'day' if worst == 1 else 'days'}.{cover or ' Nothing covers it.'}"
    if now is Risk.TOO_FEW:
        return "Not enough hours are known to tell."
    return f"Rising.{cover}" if Risk.RISING in (now, peak) else f"Low.{cover}"


def overview_sentence(shown: list[RiskOut]) -> str:
    """What is at its threshold, covered or not, and what is coming."""
    high = [r for r in shown if r.now == "high"]
    bare = [r for r in high if r.covered_until is None]
    coming = [r for r in shown if r.now != "high" and r.peak == "high" and r.covered_until is None]
    if bare:
        said = f"{risk_names(bare)} at the threshold today, with nothing to cover it"
    elif high:
        said = f"{risk_names(high)} at the threshold today; all of it is covered"
    else:
        said = ""
    if coming:
        later = f"{risk_names(coming, first=not said)} coming within the week"
        return f"{said}; {later}." if said else f"{later}."
    return f"{said}." if said else "Nothing that is watched is near its threshold without cover, today or in the week to come."


def risk_names(risks: list[RiskOut], first: bool = True) -> str:
    """Diseases with the number of areas they are on: dollar spot on 2 areas is."""
    names = [r.name.lower() for r in risks]
    unlike = list(dict.fromkeys(names))
    where = len({r.area_id for r in risks})
    what = unlike[0] if len(unlike) == 1 else f"{', '.join(unlike[:-1])} and {unlike[-1]}"
    on = f"{what} on {where} {'area' if where == 1 else 'areas'} {'is' if len(unlike) == 1 else 'are'}"
    return on[0].upper() + on[1:] if first else on


CLOCK_SCHOOLS = {True: "House rule: go by degree days.", False: "House rule: go by the label's days."}


def lacks_text(found: Clock | None, target: Target | None, today: date) -> str:
    """Why nothing is told of a target: none is known, or no weather, or it ends before today; empty where all is there."""
    if target is None:
        return "no target known"
    if found is None:
        return "no weather known since then"
    return f"counted to {day(found.upto)}, where the weather ends" if found.upto < today else ""


def clock_sentence(found: Clock | None, target: Target | None, by_days: Calendar, us: bool, today: date) -> str:
    """How far a regulator's hold has run, and when it ends; by the label's days where no clock runs."""
    if found is not None and target is not None and found.upto < today:
        ends = f"The weather is known to {day(found.upto)} only: the count stands at {degree_day_part(found.sum, target.sum, us)}"
        return f"{ends}. {clock_sentence(None, None, by_days, us, today)}"
    if found is None or target is None:
        first = f"from {day(by_days.first)}" if by_days.first else ""
        last = f"by {day(by_days.last)}" if by_days.last else ""
        span = " and ".join(x for x in (first, last) if x)
        return f"By the label again {span}." if span else "The label gives no days."
    when = ""
    if found.stage is Stage.HOLDS and found.due:
        low, high = found.earliest, found.latest
        spread = f", between {day(low)} and {day(high)}" if low and high and low != high else ""
        when = f" The target is reached on {day(found.due)}{spread}."
    elif found.stage is Stage.HOLDS:
        when = " The forecast does not reach as far as the target."
    elif found.stage in (Stage.DUE, Stage.ENDED):
        ends = degree_day_sum(REBOUND * target.sum, us)
        when = f" Past {ends} growth rebounds."
    return f"{found.told(us)}{when}"


def target_text(t: Target, us: bool) -> str:
    """A known target in words: its sum, what it was found on, and how well."""
    return f"{degree_day_sum(t.sum, us)}, {degree_day_base(t.base.celsius, us)}: {TURFS[t.turf]}, {t.trust.text}"


def season_text(today: float, then: float | None, on: date, begin: date, base: float, us: bool) -> str:
    """The season's running total of degree days, and what it was when a regulator went down.

    Args:
        today: the total so far [°C d].
        then: the total on that day, None where it was before the season [°C d].
        on: that day.
        begin: when the season began.
        base: what is counted over [°C].
        us: whether to say it in °F·d, too.
    """
    said = f"{degree_day_sum(today, us)} since {day(begin)}, {degree_day_base(base, us)}"
    return said if then is None else f"{said}; {degree_day_sum(then, us)} on {day(on)}, when it went down"


def together_text(product: str, others: Sequence[tuple[str, Clock | None]], own: Clock | None) -> str:
    """What is to be minded where several classes are at work on one ground."""
    if not others:
        return ""
    ends = sorted((c.due, name) for name, c in (*others, (product, own)) if c and c.due)
    said = f"With {joined([name for name, _ in others])}: two suppress more than one, and neither holds longer for it."
    first = f" {ends[0][1]} is the first to run out, on {day(ends[0][0])}." if ends else ""
    return f"{said}{first} Growth rebounds only once all have run out."


STAND_IN = "A product of 14 to 28 days"


NO_PRODUCT = "No product on the shelf may go down against it here: a plain one of 14 to 28 days stands in, without a price."


NO_INTERVAL = "Its label gives no interval; 14 days are taken."


ONE_PRODUCT = "Both use one product throughout, to be alike; a real season changes its group."


def cost_text(cost: Decimal | None, currency: str) -> str:
    """A cost with its currency, or that none is known."""
    return "no price known" if cost is None else f"{cost:,.2f} {currency}"


def schools_sentence(calendar: School, model: School) -> str:
    """What the threshold would have saved against the calendar, and what it left unprotected."""
    saved = len(calendar.days) - len(model.days)
    if saved > 0:
        first = f"The threshold would have saved {saved} of {len(calendar.days)} sprays"
    elif saved < 0:
        first = f"The threshold would have sprayed {-saved} more than the calendar's {len(calendar.days)}"
    else:
        first = f"Both would have sprayed {len(calendar.days)} times"
    bare = f"left {model.unprotected} of {model.risk_days} risk days unprotected"
    return f"{first}, and {bare}; the calendar left {calendar.unprotected}."


def hours_kept(count: int, since: datetime | None) -> str:
    """How many hours a station has, and since when."""
    return f"{count:,} hours since {day(since.date())} {since.year}." if since else "No hour is in yet."


def hours_came(count: int, new: int) -> str:
    """What an asking brought."""
    return f"{count} hours came, {new} of them new."


def not_yet(count: int) -> str:
    """That hours of a file lie ahead of the clock."""
    return f"{count} hours of it have not been yet: look at its dates and its zone"


def hours_in(count: int, new: int) -> str:
    """What a file brought in."""
    return f"{count:,} hours are in, {new:,} of them new."


NO_RAIN_IN_TMY3 = "Rain is left out: the makers of TMY3 say that its column is not to be used."
NO_RAIN_IN_EPW = "Rain is left out: the file has none that could be a year's."


def taken_sentence(taken: Taken, mapped: bool, against: bool, note: str = "") -> str:
    """How many lines of a file can be taken, or why none; then what is left out of all of them."""
    if against:
        return "Nothing of this file is taken as it is: see what stands against it."
    if not mapped:
        return "Say which column holds what."
    if not taken.hours:
        return "No line of this file can be read."
    left = f"; {len(taken.faults)} faults are left out, by their line" if taken.faults else ""
    return f"{len(taken.hours):,} of {taken.lines:,} lines can be taken{left}. {note}".strip()


def breaks_lock(what: Forbidden, when: str) -> str:
    """What of the week falls into a lock, and what to do."""
    act = "watering" if what is Forbidden.WATER else "mowing"
    return f"The {act} of {when} falls into it: leave it out."


STUCK = timedelta(seconds=90)
"""After so long nobody takes it up: the fetching process looks every second."""


def asking_out(station: Station, now: datetime) -> AskingOut | None:
    """How far the asking of a station is; None where nobody wants it just now."""
    if station.begun_at:
        return AskingOut(since=station.begun_at, sentence="The service is being asked.", stuck=now - station.begun_at > STUCK)
    if station.asked_at is None:
        return None
    stuck = now - station.asked_at > STUCK
    said = (
        "Nobody takes it up: the process that fetches weather does not run."
        if stuck
        else "The service will be asked in a moment."
    )
    return AskingOut(since=station.asked_at, sentence=said, stuck=stuck)
