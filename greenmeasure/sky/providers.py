"""Where hours come from over HTTP: asked with time-outs and retries, and believed only as far as they can be read.

An answer that cannot be read is a `NoAnswer` with a plain sentence; nothing of it is kept. Values that cannot be are set aside
later, by their hour.
"""

import json
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Protocol

import requests
from requests.adapters import HTTPAdapter
from urllib3.exceptions import ConnectTimeoutError, HTTPError, ReadTimeoutError
from urllib3.util import Retry

from core.weather.hours import FIELDS, Hour

CONNECT, READ = 3.05, 10.0
"""How long is waited for a service to open and to answer [s]."""
TRIES = 3
MOST_BYTES = 8_000_000


class NoAnswer(Exception):
    """A service did not answer, or not so that it can be read; the message is for people."""


@dataclass(frozen=True)
class Forecast:
    """Hours to come, and when they were foretold (UTC)."""

    issued: datetime
    hours: list[Hour]


class Provider(Protocol):
    """Anything that tells of hours: measured ones of a span (UTC), and a forecast where it has one."""

    def observations(self, begin: datetime, end: datetime) -> list[Hour]:
        """Hours from `begin` up to `end`. Raises NoAnswer."""
        ...

    def forecast(self) -> Forecast | None:
        """The hours to come. Raises NoAnswer."""
        ...


class WeatherService:
    """A service that tells of the air over HTTP, as JSON: see docs/file-formats.md for its answers."""

    def __init__(self, url: str, read: float = READ) -> None:
        self.url, self.read = url.rstrip("/"), read

    def observations(self, begin: datetime, end: datetime) -> list[Hour]:
        said = ask(f"{self.url}/observations", {"from": _iso(begin), "to": _iso(end)}, self.read)
        return hours_in(said, forecast=False)

    def forecast(self) -> Forecast | None:
        said = ask(f"{self.url}/forecast", {}, self.read)
        issued = _time(said.get("issued") if isinstance(said, dict) else None)
        return Forecast(issued, hours_in(said, forecast=True))


class SoilProbe:
    """A probe that tells of the soil's temperature alone."""

    def __init__(self, url: str, read: float = READ) -> None:
        self.url, self.read = url.rstrip("/"), read

    def observations(self, begin: datetime, end: datetime) -> list[Hour]:
        return hours_in(ask(f"{self.url}/probe", {"from": _iso(begin), "to": _iso(end)}, self.read), forecast=False)

    def forecast(self) -> Forecast | None:
        return None


def ask(url: str, given: dict[str, str], read: float) -> Any:
    """Ask a service for JSON.

    Raises:
        NoAnswer: it is down, too slow, or answers with what is no JSON.
    """
    retry = Retry(total=TRIES - 1, read=1, backoff_factor=0.2, status_forcelist=(502, 503, 504), raise_on_status=False)
    with requests.Session() as session:
        session.trust_env = False
        for scheme in ("http://", "https://"):
            session.mount(scheme, HTTPAdapter(max_retries=retry))
        try:
            with session.get(url, params=given, timeout=(CONNECT, read), stream=True) as answer:
                body = answer.raw.read(MOST_BYTES + 1, decode_content=True)
                status = answer.status_code
        except requests.exceptions.Timeout:
            raise NoAnswer(f"The weather service did not answer within {read:g} s.") from None
        except requests.exceptions.ConnectionError as problem:
            reason = getattr(problem.args[0] if problem.args else None, "reason", None)
            if isinstance(reason, ReadTimeoutError | ConnectTimeoutError):
                raise NoAnswer(f"The weather service did not answer within {read:g} s.") from None
            raise NoAnswer("The weather service cannot be reached.") from None
        except (requests.exceptions.RequestException, OSError, ValueError, HTTPError):
            raise NoAnswer("The weather service cannot be reached.") from None
    if status != 200:
        raise NoAnswer(f"The weather service refused the question (status {status}).")
    if len(body) > MOST_BYTES:
        raise NoAnswer("The weather service's answer is too long to be weather.")
    try:
        return json.loads(body)
    except (ValueError, RecursionError):
        raise NoAnswer("The weather service's answer cannot be read: it is no JSON, or was cut off.") from None


def hours_in(said: Any, forecast: bool) -> list[Hour]:
    """The hours of an answer.

    Raises:
        NoAnswer: it has no hours, or one that is none, or a unit that is not agreed.
    """
    if not isinstance(said, dict) or not isinstance(said.get("hours"), list):
        raise NoAnswer("The weather service's answer has no hours in it.")
    agreed = {"air": "degC", "humidity": "%", "rain": "mm", "wind": "m/s", "wet": "share", "soil": "degC", "snow": "cm"}
    for name, unit in (said.get("units") or {}).items():
        if agreed.get(name, unit) != unit:
            raise NoAnswer(f"The weather service tells {name} in {unit}; {agreed[name]} is agreed.")
    return [_hour(row, forecast) for row in said["hours"]]


def _hour(row: Any, forecast: bool) -> Hour:
    if not isinstance(row, dict):
        raise NoAnswer("The weather service's answer has an hour that is none.")
    values = {}
    for name in FIELDS:
        value = row.get(name)
        if value is None:
            continue
        if not isinstance(value, int | float) or isinstance(value, bool):
            raise NoAnswer(f"The weather service tells {name} as “{value}”, which is no number.")
        values[name] = float(value)
    return Hour(_time(row.get("time")), **values, forecast=forecast)


def _time(text: Any) -> datetime:
    try:
        found = datetime.fromisoformat(str(text))
    except ValueError:
        raise NoAnswer(f"The weather service tells a time as “{text}”, which is none.") from None
    if found.tzinfo is None:
        raise NoAnswer(f"The weather service tells the time {text} without its zone.")
    return found.astimezone(UTC)


def _iso(at: datetime) -> str:
    return f"{at.astimezone(UTC):%Y-%m-%dT%H:%M}Z"
