"""Weather at the border: how fresh it is, and hours as one says them."""

from datetime import datetime, timedelta
from math import isnan
from zoneinfo import ZoneInfo

from core.units import show_number
from core.weather.words import told
from greenmeasure.sky.models import Station
from greenmeasure.sky.schemas import FreshOut
from greenmeasure.sky.weather import STALE_FORECAST, STALE_HOURS, Known


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


def hour_text(at: datetime, zone: ZoneInfo) -> str:
    """An hour as one says it: Thu 26 Nov, 07:00."""
    local = at.astimezone(zone)
    return f"{local:%a} {local.day} {local:%b}, {local:%H:%M}"


def span_text(begin: datetime, end: datetime, zone: ZoneInfo) -> str:
    """A span of hours: Thu 26 Nov, 07:00 to 10:00."""
    a, b = begin.astimezone(zone), end.astimezone(zone)
    if a.date() == b.date() or (b.hour == 0 and b.date() - a.date() == timedelta(days=1)):
        return f"{hour_text(begin, zone)} to {b:%H:%M}"
    return f"{hour_text(begin, zone)} to {b:%a %H:%M}"
