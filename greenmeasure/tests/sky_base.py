"""What the tests of the sky share: an account with a station at a simulated service on a humid August morning."""

from datetime import UTC, datetime
from threading import Thread
from typing import Any
from unittest.mock import patch

from greenmeasure.sky.fetching import fetch, wanted
from greenmeasure.sky.models import Station
from greenmeasure.tests.base import ApiTest
from sims.weather_service import Faults, Service

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=UTC)  # 06:20 in New York
STATION = {"name": "Harbour mast", "latitude": 41.22, "longitude": "-72.61"}


class SkyTest(ApiTest):
    """An account with a station at a simulated service whose clock stands still on a humid August morning."""

    service: Service

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.service = Service(now=NOW)
        Thread(target=cls.service.serve_forever, daemon=True).start()

    @classmethod
    def tearDownClass(cls) -> None:
        cls.service.shutdown()
        cls.service.server_close()
        super().tearDownClass()

    def setUp(self) -> None:
        super().setUp()
        self.service.faults = Faults()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)

    def station(self) -> Station:
        self.ask("PUT", "sky/station", STATION | {"url": self.service.url, "probe_url": self.service.url})
        return Station.objects.get()

    def fetched(self, **faults: Any) -> Any:
        self.service.faults = Faults(**faults)
        self.ask("POST", "sky/station/fetch")
        for station in wanted():
            fetch(station)
        return self.ask("GET", "sky/station")["station"]["fetches"][0]
