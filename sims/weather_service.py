"""A simulated weather service and a simulated soil probe on one port, spoken to over HTTP.

    python -m sims.weather_service --port 8321

    GET /observations?from=2026-06-01T00:00Z&to=2026-06-02T00:00Z   hours up to now
    GET /forecast                                                   seven days by the hour
    GET /probe?from=…&to=…                                          soil temperature at 5 cm
    GET /ferry/…                                                    the same of a field across the harbour
    GET /faults, PUT /faults {"down": true}                         what is wrong with it, and switching that on and off

Faults: `down` refuses every request with 503, `dead` hangs up without an answer, `slow` waits so many seconds, `gaps` leaves
out a share of the hours, `garbage` answers with what is no JSON (`text`), with values no air can have (`values`) or with an
answer cut off half way (`half`), `duplicates` tells hours twice, `shift` sets its clock off by so many hours.
"""

import argparse
import json
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import asdict, dataclass, replace
from datetime import UTC, datetime
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Lock
from typing import Any
from urllib.parse import parse_qs, urlparse

import numpy as np

from sims import climate, soil_probe

MOST_HOURS = 24 * 400
UNITS = {"air": "degC", "humidity": "%", "dew": "degC", "rain": "mm", "wind": "m/s", "snow": "cm"}
DECIMALS = {"air": 1, "humidity": 0, "dew": 1, "rain": 1, "wind": 1, "snow": 0, "soil": 1}


@dataclass(frozen=True)
class Faults:
    """What is wrong with the service."""

    down: bool = False
    dead: bool = False
    slow: float = 0.0
    gaps: float = 0.0
    garbage: str = ""
    duplicates: bool = False
    shift: int = 0


class Service(ThreadingHTTPServer):
    """The service; tests stop its clock at `now`, and `clock` lets it go by another one."""

    daemon_threads = True

    def __init__(
        self,
        port: int = 0,
        place: climate.Place = climate.HERE,
        now: datetime | None = None,
        clock: Callable[[], datetime] | None = None,
    ) -> None:
        super().__init__(("127.0.0.1", port), Answer)
        self.clock = clock or (lambda: datetime.now(UTC))
        self.place, self.faults, self.asked, self.fixed, self.lock = place, Faults(), 0, now, Lock()

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.server_address[1]}"

    @property
    def now(self) -> datetime:
        """The hour that its clock says has begun."""
        at = self.fixed or self.clock()
        return at.replace(minute=0, second=0, microsecond=0)


class Answer(BaseHTTPRequestHandler):
    """Answers one request, with the faults that are switched on."""

    server: Service

    def do_GET(self) -> None:
        path = urlparse(self.path)
        if path.path == "/faults":
            return self._send(asdict(self.server.faults))
        with self.server.lock:
            self.server.asked += 1
        faults = self.server.faults
        time.sleep(faults.slow)
        if faults.dead:
            self.close_connection = True
            return None
        if faults.down:
            return self._send({"problem": "closed for repairs"}, 503)
        if faults.garbage == "text":
            return self._bytes(b"<html><body>502 Bad gateway, have a nice day", "text/html")
        try:
            given = {k: v[0] for k, v in parse_qs(path.query).items()}
            where, _, what = path.path.lstrip("/").rpartition("/")
            place = self.server.place if not where else climate.PLACES[where]
            said = {"observations": self._observations, "forecast": self._forecast, "probe": self._probe}[what](given, place)
        except (KeyError, ValueError) as problem:
            return self._send({"problem": f"not understood: {problem}"}, 400)
        if faults.garbage == "half":
            whole = json.dumps(said).encode()
            return self._bytes(whole[: len(whole) // 2])
        return self._send(said)

    def do_PUT(self) -> None:
        given = json.loads(self.rfile.read(int(self.headers.get("Content-Length", 0))) or b"{}")
        try:
            self.server.faults = replace(Faults(), **given)
        except TypeError as problem:
            return self._send({"problem": str(problem)}, 400)
        return self._send(asdict(self.server.faults))

    def handle(self) -> None:
        with suppress(ConnectionError):  # whoever asked has gone
            super().handle()

    def log_message(self, format: str, *args: Any) -> None:
        """Keep quiet."""

    def _span(self, given: dict[str, str]) -> climate.Times:
        begin, end = (_hour(datetime.fromisoformat(given[k])) for k in ("from", "to"))
        count = int((min(end, _hour(self.server.now)) - begin) / climate.HOUR)
        if count > MOST_HOURS:
            raise ValueError(f"{count} hours are too many, {MOST_HOURS} at the most")
        return begin + np.arange(max(0, count)) * climate.HOUR

    def _observations(self, given: dict[str, str], place: climate.Place) -> dict[str, Any]:
        times = self._span(given)
        made = climate.weather(times, place)
        return {"units": UNITS, "hours": self._hours(times, {k: made[k] for k in UNITS})}

    def _forecast(self, given: dict[str, str], place: climate.Place) -> dict[str, Any]:
        issued = _hour(self.server.now)
        times, made = climate.forecast(issued, place)
        return {"issued": f"{issued}:00:00Z", "units": UNITS, "hours": self._hours(times, made)}

    def _probe(self, given: dict[str, str], place: climate.Place) -> dict[str, Any]:
        times = self._span(given)
        return {"units": {"soil": "degC"}, "depth_cm": 5, "hours": self._hours(times, {"soil": soil_probe.read(times, place)})}

    def _hours(self, times: climate.Times, made: dict[str, climate.Floats]) -> list[dict[str, Any]]:
        faults = self.server.faults
        told = times + faults.shift * climate.HOUR
        hours = []
        for i, at in enumerate(told):
            if faults.gaps and _share(int((times[i] - climate.EPOCH) / climate.HOUR)) < faults.gaps:
                continue
            values = {k: round(float(v[i]), DECIMALS[k]) for k, v in made.items()}
            if faults.garbage == "values" and i % 3 == 0:
                values |= {"air": 999.9, "humidity": -12.0, "wind": 412.0}
            hours.append({"time": f"{at}:00:00Z", **values})
            if faults.duplicates:
                hours.append({"time": f"{at}:00:00Z", **values})
        return hours

    def _send(self, said: Any, status: int = 200) -> None:
        self._bytes(json.dumps(said).encode(), "application/json", status)

    def _bytes(self, body: bytes, kind: str = "application/json", status: int = 200) -> None:
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)


def _hour(at: datetime) -> np.datetime64:
    return np.datetime64(at.astimezone(UTC).replace(tzinfo=None), "h")


def _share(hour: int) -> float:
    """A number from 0 to 1 that belongs to an hour."""
    return (hour * 2654435761 % 2**32) / 2**32


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--port", type=int, default=8321)
    given = parser.parse_args()
    service = Service(given.port)
    print(f"Simulated weather service at {service.url}", flush=True)  # noqa: T201
    service.serve_forever()


if __name__ == "__main__":
    main()
