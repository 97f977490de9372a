"""The clocks of regulators over the API: as far as the weather goes, and what is said where it does not."""

from datetime import timedelta
from typing import Any
from unittest.mock import patch

from greenmeasure.tests.sky_base import NOW, SkyTest

REGULATOR: dict[str, Any] = {
    "name": "Slow ME",
    "kind": "growth_regulator",
    "formulation": "ME",
    "density": {"value": 8.4, "unit": "lb/gal"},
    "contents": [{"name": "trinexapac-ethyl", "basis": "active", "amount": 12, "unit": "%"}],
    "rates": [{"use": "greens", "phrase": "4 to 6 fl oz per acre", "interval_low": 14, "interval_high": 28}],
}


class Clocks(SkyTest):
    def setUp(self) -> None:
        super().setUp()
        made = self.ask("POST", "products", REGULATOR, 201)
        job = self.job(
            product_id=made["id"],
            row_id=made["rates"][0]["id"],
            rate={"value": 5, "unit": "fl_oz/acre"},
            on="2026-08-06",
            clock="08:00",
        )
        used = {"used": [{"amount": {"value": "0.8", "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)

    def clock(self) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("GET", "sky/clocks")[0]
        return found

    def test_it_runs_while_the_weather_is_known(self) -> None:
        self.station()
        self.fetched()
        found = self.clock()
        self.assertEqual((found["upto"], found["lacks"]), ("2026-08-12", ""))
        self.assertIn("since 6 August", found["sentence"])

    def test_after_a_gap_it_says_until_when_the_count_is_known(self) -> None:
        """It was told as “no target known” before."""
        self.station()
        self.fetched()
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=30)):
            found = self.clock()
        self.assertTrue(found["lacks"].startswith("counted to ") and found["lacks"].endswith("where the weather ends"))
        self.assertIn("The weather is known to", found["sentence"])
        self.assertIn("By the label again from 20 August and by 3 September.", found["sentence"])
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=30)):
            due = self.ask("GET", "season/due")
        line = next(x for x in due["lines"] if x["kind"] == "regulator")
        self.assertEqual(line["state"], "late")  # by the label's days, the clock having stopped

    def test_without_any_weather(self) -> None:
        found = self.clock()
        self.assertEqual((found["share"], found["lacks"]), (None, "no weather known since then"))
