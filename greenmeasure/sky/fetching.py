"""Asking a station's services for what is new, and writing down how it went. Safe to run twice, and from cron.

No page waits for it: `manage.py fetch_weather` asks from a process of its own. A press on “Fetch it now” only notes on the
station that it is wanted; the process takes that up.
"""

from datetime import datetime, timedelta

from django.db.models import QuerySet

from core.weather.arrivals import from_the_future, shifted
from core.weather.hours import Hour
from greenmeasure.common import clock
from greenmeasure.sky.keeping import Kept, keep_forecast, keep_hours
from greenmeasure.sky.models import Fetch, Station
from greenmeasure.sky.providers import NoAnswer, Provider, SoilProbe, WeatherService

BACK = timedelta(days=30)
AGAIN = timedelta(hours=48)
"""How far back the first asking reaches, and what later ones ask again, for hours that come late or are mended."""
KEPT_FETCHES = 200


def wanted() -> list[Station]:
    """The stations whose hours somebody wants now."""
    return list(with_services().exclude(asked_at=None))


def with_services() -> QuerySet[Station]:
    """The stations that can be asked."""
    return Station.objects.kept().exclude(url="", probe_url="").select_related("account", "site")


def fetch(station: Station) -> Fetch:
    """Ask a station's services, and note while it lasts that they are being asked."""
    Station.objects.filter(pk=station.pk).update(begun_at=clock.now())
    try:
        return _fetch(station, clock.now())
    finally:
        Station.objects.filter(pk=station.pk).update(asked_at=None, begun_at=None)


def _fetch(station: Station, now: datetime) -> Fetch:
    """Ask a station's services and keep what can be read.

    What fails is told in the answer's `problem`; what came before the failure is kept, for each part is whole in itself.
    """
    problems: list[str] = []
    hours = new = 0
    latest = station.readings.order_by("-at").values_list("at", flat=True).first()
    begin = max(latest - AGAIN, now - timedelta(days=300)) if latest else now - BACK
    asked: list[tuple[Provider, str]] = [(WeatherService(station.url), "service")] if station.url else []
    if station.probe_url:
        asked.append((SoilProbe(station.probe_url), "probe"))
    for provider, source in asked:
        try:
            kept = _measured(station, provider, source, begin, now)
            hours, new = hours + kept.hours, new + kept.new
            foretold = provider.forecast()
            if foretold:
                _check_forecast(foretold.issued, now)
                keep_forecast(station, foretold.issued, foretold.hours)
        except NoAnswer as problem:
            said = str(problem)
            problems.append(said if source == "service" else said.replace("weather service", "soil probe"))
    made = Fetch.objects.create(station=station, at=now, ok=not problems, hours=hours, new=new, problem=" ".join(problems)[:300])
    old = list(station.fetches.values_list("pk", flat=True)[KEPT_FETCHES:])
    Fetch.objects.filter(pk__in=old).delete()
    station.account.touch("sky")
    return made


def _measured(station: Station, provider: Provider, source: str, begin: datetime, now: datetime) -> Kept:
    hours = provider.observations(begin, now)
    _check_clock(station, hours, begin, now, "air" if source == "service" else "soil")
    return keep_hours(station, [h for h in hours if h.at <= now], source)


def _check_clock(station: Station, hours: list[Hour], begin: datetime, now: datetime, name: str) -> None:
    if ahead := from_the_future(hours, now):
        raise NoAnswer(
            f"The weather service's clock is about {ahead} h ahead: it tells of hours that have not been. None was kept."
        )
    held = station.readings.filter(at__gte=begin - timedelta(days=1)).values_list("at", name)
    if moved := shifted(hours, {at: value for at, value in held if value is not None}, name):
        word = "late" if moved > 0 else "early"
        raise NoAnswer(f"The weather service's hours are {abs(moved)} h {word} against those it told before. None was kept.")


def _check_forecast(issued: datetime, now: datetime) -> None:
    if issued - now > timedelta(hours=1, minutes=15):
        raise NoAnswer("The weather service's forecast was issued in the future: its clock is off. It was not kept.")
