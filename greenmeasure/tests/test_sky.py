"""Weather in over real HTTP, with every fault switched on in turn; and what the screens are told of it."""

import io
from datetime import timedelta
from typing import Any
from unittest.mock import patch

from django.core.management import call_command
from django.core.management.base import CommandError

from greenmeasure.sky import providers
from greenmeasure.sky.models import Foretold, Reading
from greenmeasure.tests.sky_base import NOW, STATION, SkyTest
from sims.weather_service import Faults


class Fetching(SkyTest):
    def test_hours_forecast_and_soil_come_in(self) -> None:
        station = self.station()
        said = self.fetched()
        self.assertTrue(said["ok"], said)
        self.assertEqual(station.readings.count(), 30 * 24)
        self.assertEqual(station.foretold.count(), 7 * 24)
        self.assertFalse(station.readings.filter(air=None).exists())
        self.assertFalse(station.readings.filter(soil=None).exists())
        last = station.readings.last()
        assert last
        self.assertEqual(last.at, NOW.replace(minute=0) - timedelta(hours=1))
        sky = self.ask("GET", "sky")
        self.assertEqual(sky["fresh"]["state"], "fresh")
        self.assertEqual(len(sky["week"]), 8)

    def test_twice_is_as_good_as_once(self) -> None:
        self.station()
        self.fetched()
        before = list(Reading.objects.order_by("at").values_list("at", "air", "soil", "source"))
        self.assertIn("0 of them new", self.fetched()["text"])
        self.assertEqual(list(Reading.objects.order_by("at").values_list("at", "air", "soil", "source")), before)

    def test_killed_slowed_and_fed_garbage_nothing_is_lost_and_all_is_said(self) -> None:
        self.station()
        self.fetched()
        kept = Reading.objects.count(), Foretold.objects.count()
        for fault, said in (
            ({"down": True}, "refused"),
            ({"dead": True}, "cannot be reached"),
            ({"slow": 0.8}, "did not answer within"),
            ({"garbage": "text"}, "no JSON"),
            ({"garbage": "half"}, "cut off"),
            ({"shift": 3}, "clock is about"),
            ({"shift": -4}, "4 h early"),
        ):
            with (
                patch.object(providers, "READ", 0.3),
                patch.object(providers.WeatherService.__init__, "__defaults__", (0.3,)),
                patch.object(providers.SoilProbe.__init__, "__defaults__", (0.3,)),
            ):
                told = self.fetched(**fault)
            self.assertFalse(told["ok"], fault)
            self.assertIn(said, told["text"], fault)
            self.assertEqual((Reading.objects.count(), Foretold.objects.count()), kept, fault)
            fresh = self.ask("GET", "sky")["fresh"]
            self.assertIn(said, fresh["problem"])
        self.assertTrue(self.fetched()["ok"])
        self.assertEqual(self.ask("GET", "sky")["fresh"]["problem"], "")

    def test_a_service_that_is_down_is_asked_three_times(self) -> None:
        self.station()
        before = self.service.asked
        self.fetched(down=True)
        self.assertEqual(self.service.asked - before, 2 * providers.TRIES)

    def test_values_that_cannot_be_are_set_aside_and_listed(self) -> None:
        station = self.station()
        self.fetched(garbage="values")
        self.assertGreater(station.aside.count(), 100)
        self.assertFalse(station.readings.filter(air__gt=60).exists())
        told = self.ask("GET", "sky/station")["station"]
        self.assertEqual({a["field"] for a in told["aside"]}, {"air", "humidity", "wind"})
        self.assertIn("not between", told["aside"][0]["problem"])
        self.assertGreater(self.ask("GET", "sky")["aside"], 100)
        self.assertTrue(station.readings.filter(quality="partly").exists())

    def test_gaps_are_shown_and_short_ones_filled_as_the_station_says(self) -> None:
        self.station()
        self.fetched(gaps=0.3)
        sky = self.ask("GET", "sky")
        self.assertGreater(sky["filled"], 50)
        self.ask("PUT", "sky/station", STATION | {"url": self.service.url, "fill": 0})
        bare = self.ask("GET", "sky")
        self.assertEqual(bare["filled"], 0)
        self.assertGreater(bare["gaps"], sky["gaps"])
        self.assertTrue(self.ask("GET", "sky/station")["station"]["gaps"])

    def test_hours_told_twice_are_kept_once(self) -> None:
        station = self.station()
        self.fetched(duplicates=True)
        self.assertEqual(station.readings.count(), 30 * 24)

    def test_old_weather_is_said_to_be_old(self) -> None:
        self.station()
        self.fetched()
        for later, words in ((timedelta(hours=9), "Old weather"), (timedelta(days=3), "3 days old and no longer sure")):
            with patch("greenmeasure.common.clock.now", return_value=NOW + later):
                fresh = self.ask("GET", "sky")["fresh"]
                self.assertEqual(fresh["state"], "stale")
                self.assertIn(words, fresh["sentence"])
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=40)):
            self.assertEqual(self.ask("GET", "sky")["risks"], [])
            said = self.hours()
            self.assertEqual((said["verdict"], said["windows"]), ("no", []))
            self.assertIn("Without weather", said["sentence"])

    def hours(self) -> Any:
        return self.ask("POST", "sky/hours", {"area_id": self.area.pk, "product_ids": [self.spray.pk]})

    def test_the_command_asks_all_stations_and_ends_with_a_fault_where_one_fails(self) -> None:
        station = self.station()
        call_command("fetch_weather", stdout=self.null())
        self.assertEqual(station.readings.count(), 30 * 24)
        self.service.faults = Faults(down=True)
        with self.assertRaises(CommandError):
            call_command("fetch_weather", stdout=self.null())

    def null(self) -> Any:
        return io.StringIO()

    def test_a_forecast_never_alters_the_past(self) -> None:
        station = self.station()
        self.fetched()
        before = self.ask("GET", f"sky/strip?area_id={self.area.pk}&weeks=2")
        station.foretold.all().update(air=45.0, humidity=99.0)
        station.renew()
        after = self.ask("GET", f"sky/strip?area_id={self.area.pk}&weeks=2")
        self.assertNotEqual(before["days"][-2], after["days"][-2])
        for one, other in zip(before["risks"], after["risks"], strict=True):
            self.assertEqual(one["shares"][: before["today"]], other["shares"][: before["today"]], one["disease"])

    def test_an_account_without_a_station_is_told_what_to_do(self) -> None:
        sky = self.ask("GET", "sky")
        self.assertIn("set up a station", sky["sentence"])
        self.assertEqual(self.ask("GET", f"sky/strip?area_id={self.area.pk}")["days"], [])
        self.assertIn("Set one up first", self.ask("POST", "sky/station/fetch", expect=409)["message"])


class Stations(SkyTest):
    def test_every_field_at_fault_at_once(self) -> None:
        said = self.faults(
            "PUT",
            "sky/station",
            {"name": "", "url": "ftp://x", "latitude": 99, "longitude": 5, "offset": 40, "wetness": "guess", "fill": 50},
        )
        self.assertEqual(set(said), {"name", "url", "latitude", "offset", "wetness", "fill"})
        said = self.faults("PUT", "sky/station", {"name": "Mast", "latitude": 41})
        self.assertEqual(set(said), {"longitude"})

    def test_an_offset_moistens_and_is_stated(self) -> None:
        self.station()
        self.fetched()
        dry = self.ask("GET", "sky")["week"][0]["humidity"]
        self.ask("PUT", "sky/station", STATION | {"url": self.service.url, "offset": "6"})
        moist = self.ask("GET", "sky")
        self.assertGreater(moist["week"][0]["humidity"], dry + 3)
        self.assertIn("Its humidity is raised by 6 %", moist["fresh"]["sentence"])
        self.assertEqual(self.ask("GET", "sky/station")["station"]["offset"], "6")

    def test_the_three_estimators_stand_side_by_side(self) -> None:
        # That they differ is the point; made-up weather.
        self.station()
        self.fetched()
        told = {e["key"]: float(e["wet"].split(" ")[0]) for e in self.ask("GET", "sky/station")["station"]["estimators"]}
        self.assertEqual(set(told), {"humidity", "depression", "tree"})
        self.assertGreater(max(told.values()), 1.2 * min(told.values()))
