"""No page waits for a weather service; what it does to the process that asks it is bounded in time, size and reach."""

import io
import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import timedelta
from unittest.mock import patch

from django.core.management import CommandError, call_command
from django.test import SimpleTestCase, override_settings

from greenmeasure.common import clock
from greenmeasure.sky import providers
from greenmeasure.sky.addresses import outside
from greenmeasure.sky.models import Fetch, Foretold, Station
from greenmeasure.sky.providers import NoAnswer, ask
from greenmeasure.tests.sky_base import STATION, SkyTest


class Wanting(SkyTest):
    def test_a_press_asks_nothing_itself_and_shows_how_far_it_is(self) -> None:
        self.station()
        with patch.object(providers, "ask", side_effect=AssertionError("a page asked the service")):
            said = self.ask("POST", "sky/station/fetch")["station"]["asking"]
        self.assertEqual((said["stuck"], said["sentence"]), (False, "The service will be asked in a moment."))
        Station.objects.update(begun_at=clock.now())
        self.assertIn("is being asked", self.ask("GET", "sky/station")["station"]["asking"]["sentence"])
        call_command("fetch_weather", "--wanted", stdout=io.StringIO())
        told = self.ask("GET", "sky/station")["station"]
        self.assertEqual((told["asking"], told["fetches"][0]["ok"]), (None, True))

    def test_that_nobody_takes_it_up_is_said(self) -> None:
        self.station()
        self.ask("POST", "sky/station/fetch")
        with patch("greenmeasure.common.clock.now", return_value=clock.now() + timedelta(minutes=3)):
            said = self.ask("GET", "sky/station")["station"]["asking"]
        self.assertTrue(said["stuck"])
        self.assertIn("does not run", said["sentence"])

    def test_only_what_is_wanted_is_asked(self) -> None:
        self.station()
        call_command("fetch_weather", "--wanted", stdout=io.StringIO())
        self.assertEqual(Fetch.objects.count(), 0)

    def test_an_empty_forecast_leaves_the_one_before(self) -> None:
        self.station()
        self.fetched()
        before = Foretold.objects.count()
        with patch.object(providers.WeatherService, "forecast", lambda s: providers.Forecast(clock.now(), [])):
            self.fetched()
        self.assertGreater(before, 100)
        self.assertEqual(Foretold.objects.count(), before)

    def test_a_station_in_this_servers_own_network_is_refused_at_the_door(self) -> None:
        with override_settings(PRIVATE_STATIONS=False):
            for host in ("127.0.0.1", "localhost", "10.1.2.3", "192.168.0.9", "169.254.1.1", "[::1]", "[fd00::1]", "0.0.0.0"):
                said = self.faults("PUT", "sky/station", STATION | {"url": f"http://{host}:8080"})
                self.assertIn("own network", said["url"], host)

    def test_an_address_that_is_none_is_refused_at_the_door_and_never_asked(self) -> None:
        for url in (
            "http://[",
            "http://[::1",
            "http://[oops]/x",
            "http://x:99999",
            "http://x:port",
            "http://:80",
            "ftp://x",
            "x",
        ):
            for field in ("url", "probe_url"):
                said = self.faults("PUT", "sky/station", STATION | {field: url})
                self.assertEqual(said, {field: "That is no address of a service."}, url)
        self.station()
        Station.objects.update(url="http://[::1")  # kept by a version of before
        with self.assertRaises(CommandError):
            call_command("fetch_weather", stdout=io.StringIO(), stderr=io.StringIO())
        self.assertIn("address is none", Fetch.objects.latest("at").problem)


@contextmanager
def speaking(*parts: bytes, pause: float = 0.0) -> Iterator[str]:
    """A service that sends these parts to whoever comes, with pauses between them."""
    listening = socket.create_server(("127.0.0.1", 0))

    def speak() -> None:
        try:
            while True:
                line, _ = listening.accept()
                line.recv(65_536)
                try:
                    for part in parts:
                        line.sendall(part)
                        time.sleep(pause)
                except OSError:
                    pass
                line.close()
        except OSError:
            return

    threading.Thread(target=speak, daemon=True).start()
    try:
        yield f"http://127.0.0.1:{listening.getsockname()[1]}"
    finally:
        listening.close()


class Bounds(SimpleTestCase):
    def no_answer(self, url: str) -> str:
        with self.assertRaises(NoAnswer) as said:
            ask(url, {}, 0.5)
        return str(said.exception)

    def test_a_service_that_drips_comes_to_an_end(self) -> None:
        body = (b"HTTP/1.1 200 OK\r\nContent-Length: 900\r\n\r\n", *[b"{"] * 40)
        head = tuple(bytes([c]) for c in b"HTTP/1.1 200 OK\r\nX: " + b"x" * 40)
        for parts in (body, head):
            begun = time.monotonic()
            with patch.object(providers, "WHOLE", 1.0), speaking(*parts, pause=0.1) as url:
                self.assertIn("did not come to an end within 1 s", self.no_answer(url))
            self.assertLess(time.monotonic() - begun, 3)  # the second allowed, and an answer's time-out

    def test_an_answer_without_end_is_cut(self) -> None:
        with patch.object(providers, "MOST_BYTES", 10_000), speaking(b"HTTP/1.1 200 OK\r\n\r\n", b"[" * 50_000) as url:
            self.assertIn("too long to be weather", self.no_answer(url))

    def test_nobody_is_sent_on(self) -> None:
        with speaking(b"HTTP/1.1 302 Found\r\nLocation: http://10.0.0.1/\r\nContent-Length: 0\r\n\r\n") as url:
            self.assertIn("sends on to another address", self.no_answer(url))

    def test_a_name_that_leads_into_the_own_network_is_not_asked(self) -> None:
        inside = [(socket.AF_INET, socket.SOCK_STREAM, 6, "", ("192.168.4.4", 80))]
        with override_settings(PRIVATE_STATIONS=False), patch.object(socket, "getaddrinfo", return_value=inside):
            self.assertIn("own network", self.no_answer("http://weather.example"))
            self.assertTrue(outside("weather.example"))
