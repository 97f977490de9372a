"""The simulated service: the same weather at any time, an error that grows as it says, faults switched on over HTTP."""

import json
import unittest
from datetime import UTC, datetime
from threading import Thread
from typing import Any

import numpy as np
import requests

from core.weather.windows import AIR_ERROR
from sims import climate, soil_probe
from sims.weather_service import Service

NOW = datetime(2026, 8, 12, 10, tzinfo=UTC)


def hours(begin: str, count: int) -> climate.Times:
    return np.datetime64(begin, "h") + np.arange(count) * climate.HOUR


class Climate(unittest.TestCase):
    def test_an_hour_is_the_same_however_it_is_asked_for(self) -> None:
        whole, part = climate.weather(hours("2026-01-01", 24 * 90)), climate.weather(hours("2026-02-01", 48))
        at = slice(31 * 24, 33 * 24)
        for name in whole:
            np.testing.assert_allclose(whole[name][at], part[name], rtol=1e-12, err_msg=name)

    def test_another_seed_is_other_weather(self) -> None:
        # Made-up weather: a degree is enough to be another.
        here, there = (climate.weather(hours("2026-06-01", 240), climate.Place(seed))["air"] for seed in (41, 42))
        self.assertGreater(float(np.abs(here - there).mean()), 1.0)

    def test_what_air_can_be_and_seasons(self) -> None:
        made = climate.weather(hours("2025-01-01", 24 * 365))
        self.assertTrue(((made["humidity"] > 5) & (made["humidity"] <= 100)).all())
        self.assertTrue((made["rain"] >= 0).all() and (made["wind"] > 0).all() and (made["snow"] >= 0).all())
        self.assertGreater(made["air"][24 * 180 : 24 * 240].mean(), made["air"][: 24 * 60].mean() + 15)
        self.assertTrue(600 < made["rain"].sum() < 1800)
        self.assertEqual(made["snow"][24 * 150 : 24 * 300].max(), 0)

    def test_the_forecasts_error_is_what_the_hours_fit_to_work_allow_for(self) -> None:
        """Air: 0.5 °C at once and 0.02 °C more an hour of lead is what `core.weather.windows` widens its limits by."""
        errors = []
        for day in range(0, 360, 3):
            times, told = climate.forecast(np.datetime64("2025-07-01T06", "h") + day * 24 * climate.HOUR)
            errors.append(told["air"] - climate.weather(times)["air"])
        spread = np.std(np.array(errors), axis=0)
        near, far = spread[:12].mean(), spread[-24:].mean()
        self.assertLess(near, far)
        for lead, found in ((6, near), (156, far)):
            self.assertTrue(0.4 < found / (AIR_ERROR[0] + AIR_ERROR[1] * lead) < 1.3, (lead, found))

    def test_the_probe_reads_a_little_warm(self) -> None:
        # 0.2 °C is the fault that the stand-in is built with.
        times = hours("2026-05-01", 500)
        off = soil_probe.read(times) - climate.weather(times)["soil"]
        self.assertAlmostEqual(float(off.mean()), 0.2, delta=0.05)


class OverHttp(unittest.TestCase):
    def setUp(self) -> None:
        self.service = Service(now=NOW)
        Thread(target=self.service.serve_forever, daemon=True).start()
        self.addCleanup(self.service.server_close)
        self.addCleanup(self.service.shutdown)

    def get(self, path: str) -> Any:
        return requests.get(f"{self.service.url}{path}", timeout=5)

    def faults(self, **given: Any) -> int:
        return requests.put(f"{self.service.url}/faults", data=json.dumps(given), timeout=5).status_code

    def test_hours_up_to_now_and_no_further(self) -> None:
        said = self.get("/observations?from=2026-08-12T00:00Z&to=2026-08-13T00:00Z").json()
        self.assertEqual([said["hours"][i]["time"] for i in (0, -1)], ["2026-08-12T00:00:00Z", "2026-08-12T09:00:00Z"])
        foretold = self.get("/forecast").json()
        self.assertEqual((foretold["issued"], len(foretold["hours"])), ("2026-08-12T10:00:00Z", 168))
        self.assertEqual(foretold["hours"][0]["time"], "2026-08-12T10:00:00Z")

    def test_faults_are_switched_on_and_off(self) -> None:
        # 24 hours of a day; half of them gone, all of them twice, two hours on.
        span = "/observations?from=2026-08-11T00:00Z&to=2026-08-12T00:00Z"
        whole = len(self.get(span).json()["hours"])
        self.assertEqual((whole, self.faults(gaps=0.5)), (24, 200))
        self.assertTrue(4 < len(self.get(span).json()["hours"]) < 20)
        self.faults(duplicates=True)
        self.assertEqual(len(self.get(span).json()["hours"]), 48)
        self.faults(shift=2)
        self.assertEqual(self.get(span).json()["hours"][0]["time"], "2026-08-11T02:00:00Z")
        self.faults(down=True)
        self.assertEqual(self.get(span).status_code, 503)
        self.faults()
        self.assertEqual(len(self.get(span).json()["hours"]), 24)

    def test_what_it_does_not_understand(self) -> None:
        self.assertEqual(self.faults(sulking=True), 400)
        for path in (
            "/observations",
            "/observations?from=soon&to=2026-08-12T00:00Z",
            "/nowhere",
            "/observations?from=2020-01-01T00:00Z&to=2026-08-12T00:00Z",
        ):
            self.assertEqual(self.get(path).status_code, 400, path)
