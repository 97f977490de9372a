"""Where hours come from over HTTP: asked with time-outs and retries, and believed only as far as they can be read.

An answer that cannot be read is a `NoAnswer` with a plain sentence; nothing of it is kept. Values that cannot be are set aside
later, by their hour.
"""

import json
import signal
import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Protocol

import requests
from django.conf import settings
from requests.adapters import HTTPAdapter
from urllib3.exceptions import ConnectTimeoutError, HTTPError, ReadTimeoutError
from urllib3.util import Retry

from core.errors import InputError
from core.weather.hours import FIELDS, Hour
from core.weather.intake import UNITS
from greenmeasure.common.bounds import bounded
from greenmeasure.sky.addresses import address_of, outside

CONNECT, READ, WHOLE = 3.05, 10.0, 25.0
"""How long is waited for a service to open, to go on, and to come to its end [s]."""
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
        NoAnswer: it is down, too slow, at an address of this house's own network, or answers with what is no JSON.
    """
    _reachable(url)
    retry = Retry(
        total=TRIES - 1, read=1, redirect=False, backoff_factor=0.2, status_forcelist=(502, 503, 504), raise_on_status=False
    )
    with requests.Session() as session, _within(WHOLE):
        session.trust_env = False
        for scheme in ("http://", "https://"):
            session.mount(scheme, HTTPAdapter(max_retries=retry))
        try:
            with session.get(url, params=given, timeout=(CONNECT, read), stream=True, allow_redirects=False) as answer:
                body = _body(answer)
                status = answer.status_code
        except _TooLong:
            raise NoAnswer(f"The weather service did not come to an end within {WHOLE:g} s.") from None
        except requests.exceptions.Timeout:
            raise NoAnswer(f"The weather service did not answer within {read:g} s.") from None
        except requests.exceptions.ConnectionError as problem:
            reason = getattr(problem.args[0] if problem.args else None, "reason", None)
            if isinstance(reason, ReadTimeoutError | ConnectTimeoutError):
                raise NoAnswer(f"The weather service did not answer within {read:g} s.") from None
            raise NoAnswer("The weather service cannot be reached.") from None
        except (requests.exceptions.RequestException, OSError, ValueError, HTTPError):
            raise NoAnswer("The weather service cannot be reached.") from None
    if 300 <= status < 400:
        raise NoAnswer("The weather service sends on to another address. Enter that one.")
    if status != 200:
        raise NoAnswer(f"The weather service refused the question (status {status}).")
    if len(body) > MOST_BYTES:
        raise NoAnswer("The weather service's answer is too long to be weather.")
    try:
        return bounded(json.loads(body))
    except InputError as beyond:
        raise NoAnswer(f"The weather service's answer cannot be read: {beyond.sentence}") from None
    except (ValueError, RecursionError):
        raise NoAnswer("The weather service's answer cannot be read: it is no JSON, or was cut off.") from None


def _body(answer: requests.Response) -> bytes:
    """What a service says, as far as it is taken; a drop at a time still ends with the whole call's time."""
    end, found = time.monotonic() + WHOLE, bytearray()
    while len(found) <= MOST_BYTES and (part := answer.raw.read1(65_536, decode_content=True)):
        found += part
        if time.monotonic() > end:
            raise _TooLong
    return bytes(found)


class _TooLong(Exception):
    """The whole call took too long."""


@contextmanager
def _within(seconds: float) -> Iterator[None]:
    """Break off what takes longer, headers a drop at a time too; where a signal can be had, as in the process that fetches."""
    if threading.current_thread() is not threading.main_thread() or not hasattr(signal, "SIGALRM"):
        yield
        return

    def ring(*_: object) -> None:
        raise _TooLong

    before = signal.signal(signal.SIGALRM, ring)
    signal.setitimer(signal.ITIMER_REAL, seconds)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_REAL, 0)
        signal.signal(signal.SIGALRM, before)


def _reachable(url: str) -> None:
    """Refuse a service whose name leads into this house's own network, or whose address is none. Raises NoAnswer."""
    found = address_of(url)
    if found is None:
        raise NoAnswer("The weather service's address is none.")
    if settings.PRIVATE_STATIONS:
        return
    try:
        leads = {info[4][0] for info in socket.getaddrinfo(found.hostname, found.port or 80, proto=socket.IPPROTO_TCP)}
    except (OSError, ValueError, UnicodeError):
        raise NoAnswer("The weather service cannot be reached.") from None
    if not all(outside(str(address)) for address in leads):
        raise NoAnswer("The weather service's address leads into this server's own network. It was not asked.")


AGREED = {name: next(iter(units)) for name, units in UNITS.items()}
"""What each field is told in: the first unit of a table's column."""


def hours_in(said: Any, forecast: bool) -> list[Hour]:
    """The hours of an answer.

    Raises:
        NoAnswer: it has no hours, or one that is none, or a unit that is not agreed.
    """
    if not isinstance(said, dict) or not isinstance(said.get("hours"), list):
        raise NoAnswer("The weather service's answer has no hours in it.")
    for name, unit in (said.get("units") or {}).items():
        if AGREED.get(name, unit) != unit:
            raise NoAnswer(f"The weather service tells {name} in {unit}; {AGREED[name]} is agreed.")
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
