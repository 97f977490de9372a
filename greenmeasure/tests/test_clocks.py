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


class ClockTest(SkyTest):
    def setUp(self) -> None:
        super().setUp()
        self.put_down(REGULATOR, "2026-08-06")

    def put_down(self, card: dict[str, Any], on: str) -> None:
        """Add a regulator's card, and note that it went down at eight."""
        made = self.ask("POST", "products", card, 201)
        rate = {"value": 5, "unit": "fl_oz/acre"}
        job = self.job(product_id=made["id"], row_id=made["rates"][0]["id"], rate=rate, on=on, clock="08:00")
        used = {"used": [{"amount": {"value": "0.8", "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)

    def clock(self) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("GET", "sky/clocks")[0]
        return found


class Clocks(ClockTest):
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


class OwnTargets(ClockTest):
    """A target of one's own for an area; the known ones are offered, taller cuts from 350 to 400 °C·d (rules of thumb)."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()

    def path(self) -> str:
        return f"sky/areas/{self.area.pk}/holds/trinexapac-ethyl"

    def test_the_known_ones_are_offered_and_one_of_ones_own_counts(self) -> None:
        """300 °C·d are 540 °F·d (× 1.8)."""
        before = self.clock()
        self.assertEqual((before["active"], before["own"], before["version"]), ("trinexapac-ethyl", "", 0))
        told = [o["text"] for o in before["offered"]]
        self.assertIn("350 °C·d (630 °F·d), base 0 °C (32 °F): taller cuts of cool grass, a rule of thumb", told)
        self.assertIn("400 °C·d (720 °F·d), base 0 °C (32 °F): taller cuts of cool grass, a rule of thumb", told)
        after = self.ask("PUT", self.path(), {"version": 0, "own": "300", "base": "0"})[0]
        self.assertIn("of 300 °C·d", after["sentence"])
        self.assertIn("of 540 °F·d", after["sentence"])
        self.assertEqual((after["own"], after["version"]), ("300", 1))
        self.assertNotIn("The target is", " ".join(after["cautions"]))
        back = self.ask("PUT", self.path(), {"version": 1, "own": ""})[0]
        self.assertEqual((back["own"], back["sentence"]), ("", before["sentence"]))

    def test_faults_and_changes_of_others(self) -> None:
        for body, field in (
            ({"version": 0, "own": "3"}, "own"),
            ({"version": 0, "own": "many"}, "own"),
            ({"version": 0, "own": "200", "base": "60"}, "base"),
        ):
            self.assertIn(field, self.faults("PUT", self.path(), body))
        self.ask("PUT", f"sky/areas/{self.area.pk}/holds/salt", {"version": 0, "own": "200"}, 422)
        self.ask("PUT", self.path(), {"version": 0, "own": "300"})
        told = self.ask("PUT", self.path(), {"version": 0, "own": "250"}, 409)
        self.assertEqual([c["theirs"] for c in told["changes"] if c["field"] == "own"], ["300"])

    def test_the_season_runs_on_and_the_day_it_went_down_is_noted(self) -> None:
        found = self.clock()["season"]
        if found:
            self.assertRegex(found, r"^[\d,]+ °C·d .* since 1 January.*; [\d,]+ °C·d .* on 6 August, when it went down$")

    def test_two_classes_on_one_ground(self) -> None:
        """Neither rebounds while the other holds (domain: only once all have run out)."""
        other = REGULATOR | {
            "name": "Root SC",
            "formulation": "SC",
            "contents": [{"name": "paclobutrazol", "basis": "active", "amount": 22, "unit": "%"}],
            "group_code": "Class B",
        }
        self.put_down(other, "2026-08-10")
        self.ask("PUT", self.path(), {"version": 0, "own": "60"})  # it has run out by far
        found = {c["product"]: c for c in self.ask("GET", "sky/clocks")}
        self.assertEqual((found["Slow ME"]["stage"], found["Root SC"]["stage"]), ("ended", "none"))  # by the label's days
        self.ask("PUT", f"sky/areas/{self.area.pk}/holds/paclobutrazol", {"version": 0, "own": "295"})
        found = {c["product"]: c for c in self.ask("GET", "sky/clocks")}
        self.assertEqual((found["Slow ME"]["stage"], found["Root SC"]["stage"]), ("ended", "holds"))
        self.assertIn("With Root SC", found["Slow ME"]["together"])
        self.assertIn("Growth rebounds only once all have run out.", found["Slow ME"]["together"])
