"""The hour of a plan at the gate: what the label rules of weather, leaf and soil, what is not known, and what somebody saw."""

from datetime import timedelta
from typing import Any
from unittest.mock import patch

from greenmeasure.book.models import Application
from greenmeasure.sky.models import Foretold, Reading, Station
from greenmeasure.tests.base import FUNGICIDE, ApiTest
from greenmeasure.tests.sky_base import NOW, SkyTest


def warm(low: float) -> dict[str, Any]:
    return {"temperature_low": {"value": low, "unit": "degF"}}


class Hour(SkyTest):
    """06:20 on a humid August morning of 68 °F or so, with a station."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()

    def rule(self, **rules: Any) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": rules})

    def said(self, **more: Any) -> dict[str, str]:
        """What is said of the hour, by the rule's name."""
        found = self.ask("POST", "reckon/job", self.job(**more))["parts"][0]["doses"][0]["findings"]
        return {f["key"].removeprefix("hour-"): f["act"] for f in found if f["key"].startswith("hour-")}

    def set_hours(self, **fields: float | None) -> None:
        Reading.objects.update(**fields)
        Foretold.objects.update(**fields)
        Station.objects.get().renew()

    def test_the_lowest_air_refuses_at_reckon_and_at_start(self) -> None:
        self.rule(**warm(90))
        self.assertEqual(self.said(), {"air": "refuse"})
        self.assertIn("is below 90 °F", self.ask("POST", "rounds", self.job(), 422)["message"])
        line = self.ask("POST", "reckon/line", {"line": "0.6 fl oz/M of Test SC on North green"})
        self.assertTrue(line["refused"])
        self.rule(**warm(40))
        self.assertEqual(self.said(), {})
        self.ask("POST", "rounds", self.job(), 201)

    def test_a_label_has_its_soil_temperature(self) -> None:
        self.set_hours(soil=9.0)
        self.rule(soil_low={"value": 50, "unit": "degF"})
        self.assertEqual(self.said(), {"soil": "refuse"})
        card = next(p for p in self.ask("GET", "products") if p["id"] == self.spray.pk)
        sentences = [r["text"] for r in card["rules_said"]]
        self.assertEqual(sentences, ["Soil 50 °F or more."])
        hours = self.ask("POST", "sky/hours", {"area_id": self.area.pk, "product_ids": [self.spray.pk], "hours": 1})["hours"]
        self.assertIn("soil", {r["key"] for r in hours[0]["reasons"]})
        self.set_hours(soil=12.0)
        self.assertEqual(self.said(), {})

    def test_a_wet_leaf_where_it_should_be_dry_and_the_other_way(self) -> None:
        for leaf, wet, refused in (("dry", 1.0, True), ("dry", 0.0, False), ("wet", 0.0, True), ("wet", 1.0, False)):
            self.set_hours(wet=wet)
            self.rule(leaf=leaf)
            self.assertEqual(self.said(), {"leaf": "refuse"} if refused else {}, (leaf, wet))

    def test_what_somebody_saw_goes_before_the_station_and_is_kept(self) -> None:
        self.set_hours(wet=1.0)
        self.rule(leaf="dry")
        looked = {"said": {"leaf": "dry"}}
        self.assertEqual(self.said(**looked), {})
        begun = self.ask("POST", "rounds", self.job(**looked), 201)
        self.assertEqual(begun["looked"], "leaf dry")
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})
        self.assertEqual(Application.objects.get().looked, "leaf dry")
        self.rule(leaf="wet")
        self.set_hours(wet=0.0)
        self.assertEqual(self.said(said={"leaf": "wet"}), {}, "I wet the leaf myself")

    def test_what_somebody_saw_can_be_against_it(self) -> None:
        self.rule(wind_high={"value": 10, "unit": "mph"})
        self.assertEqual(self.said(said={"wind": {"value": 14, "unit": "mph"}}), {"wind": "refuse"})
        self.assertEqual(self.said(said={"wind": {"value": 4, "unit": "mph"}}), {})
        wrong = self.job(said={"air": {"value": "warm", "unit": "degF"}})
        self.assertEqual(list(self.faults("POST", "reckon/job", wrong)), ["said.air"])

    def test_rain_in_the_hours_after(self) -> None:
        self.set_hours(rain=0.0)
        self.rule(rain_after={"value": 4, "unit": "h"})
        self.assertEqual(self.said(), {})
        Foretold.objects.filter(at__gt=NOW + timedelta(hours=1)).update(rain=2.0)
        Station.objects.get().renew()
        self.assertEqual(self.said(), {"dry_after": "refuse"})
        self.assertEqual(self.said(said={"dry_after": True}), {})

    def test_an_hour_of_another_day(self) -> None:
        self.rule(rain_after={"value": 4, "unit": "h"})
        self.set_hours(rain=0.0)
        Foretold.objects.filter(at__lt=NOW + timedelta(hours=12)).update(rain=2.0)
        Station.objects.get().renew()
        self.assertEqual(self.said(), {"dry_after": "refuse"})
        self.assertEqual(self.said(on="2026-08-14", clock="07:00"), {})


class NoWeather(ApiTest):
    """An account without a station: what a rule needs is asked, and a round waits for the answer."""

    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": warm(50) | {"leaf": "dry"}})

    def test_it_is_asked_and_not_guessed(self) -> None:
        found = self.ask("POST", "reckon/job", self.job())
        self.assertFalse(found["refused"])
        asked = {f["key"]: f["sentence"] for f in found["parts"][0]["doses"][0]["findings"] if f["act"] == "ask"}
        self.assertEqual(set(asked), {"hour-air", "hour-leaf"})
        self.assertIn("Whether the leaf is wet is not known", asked["hour-leaf"])
        fault = self.faults("POST", "rounds", self.job())
        self.assertTrue(set(fault) <= {"said.air", "said.leaf"} and fault)
        said = {"leaf": "dry", "air": {"value": "61", "unit": "degF"}}
        begun = self.ask("POST", "rounds", self.job(said=said), 201)
        self.assertEqual(begun["looked"], "leaf dry, air 61 °F")

    def test_of_another_day_nobody_can_look_yet(self) -> None:
        found = self.ask("POST", "reckon/job", self.job(on="2026-08-20"))["parts"][0]["doses"][0]["findings"]
        said = {f["key"]: (f["act"], f["sentence"]) for f in found if f["key"].startswith("hour-")}
        self.assertEqual(said["hour-leaf"], ("note", "Whether the leaf is wet is not known. Look on the day."))
        self.ask("POST", "rounds", self.job(on="2026-08-20"), 201)

    def test_a_product_without_such_rules_asks_nothing(self) -> None:
        said = self.ask("POST", "reckon/job", self.feed_job())["parts"][0]["doses"][0]["findings"]
        self.assertFalse([f for f in said if f["key"].startswith("hour-")])

    def test_what_has_happened_is_not_asked(self) -> None:
        body = {"job": self.job(on="2026-08-10"), "finish": {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}}
        self.ask("POST", "rounds/done", body, 201)
