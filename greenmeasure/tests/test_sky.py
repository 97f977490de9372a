"""Weather in over real HTTP, with every fault switched on in turn; and what the screens are told of it."""

from datetime import UTC, datetime, timedelta
from threading import Thread
from typing import Any
from unittest.mock import patch

from django.core.management import call_command
from django.core.management.base import CommandError
from icalendar import Calendar, Event

from greenmeasure.sky import providers
from greenmeasure.sky.fetching import fetch
from greenmeasure.sky.models import Foretold, Reading, Station
from greenmeasure.tests.base import ApiTest
from sims.weather_service import Faults, Service

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=UTC)  # 06:20 in New York
STATION = {"name": "Harbour mast", "latitude": 41.22, "longitude": "-72.61"}


class SkyTest(ApiTest):
    """A club with a station at a simulated service whose clock stands still on a humid August morning."""

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
        return self.ask("POST", "sky/station/fetch")


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
            ({"down": True}, "refused"), ({"dead": True}, "cannot be reached"), ({"slow": 0.8}, "did not answer within"),
            ({"garbage": "text"}, "no JSON"), ({"garbage": "half"}, "cut off"), ({"shift": 3}, "clock is about"),
            ({"shift": -4}, "4 h early"),
        ):  # fmt: skip
            with patch.object(providers, "READ", 0.3), patch.object(providers.WeatherService.__init__, "__defaults__", (0.3,)), \
                    patch.object(providers.SoilProbe.__init__, "__defaults__", (0.3,)):  # fmt: skip
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
        import io

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

    def test_a_club_without_a_station_is_told_what_to_do(self) -> None:
        sky = self.ask("GET", "sky")
        self.assertIn("set up a station", sky["sentence"])
        self.assertEqual(self.ask("GET", f"sky/strip?area_id={self.area.pk}")["days"], [])
        self.ask("POST", "sky/station/fetch", expect=404)
        self.assertEqual(fetch.__name__, "fetch")


class Stations(SkyTest):
    def test_every_field_at_fault_at_once(self) -> None:
        said = self.faults("PUT", "sky/station", {"name": "", "url": "ftp://x", "latitude": 99, "longitude": 5, "offset": 40,
                                                  "wetness": "guess", "fill": 50})  # fmt: skip
        self.assertEqual(set(said), {"name", "url", "latitude", "offset", "wetness", "fill"})
        said = self.faults("PUT", "sky/station", {"name": "Mast", "latitude": 41})
        self.assertEqual(set(said), {"longitude"})

    def test_an_offset_moistens_and_is_stated(self) -> None:
        self.station()
        self.fetched()
        dry = self.ask("GET", "sky")["week"][0]["humidity"]
        self.ask("PUT", "sky/station", STATION | {"url": self.service.url, "offset": "6"})
        self.assertGreater(self.ask("GET", "sky")["week"][0]["humidity"], dry + 3)
        self.assertEqual(self.ask("GET", "sky/station")["station"]["offset"], "6")

    def test_the_three_estimators_stand_side_by_side(self) -> None:
        self.station()
        self.fetched()
        told = {e["key"]: float(e["wet"].split(" ")[0]) for e in self.ask("GET", "sky/station")["station"]["estimators"]}
        self.assertEqual(set(told), {"humidity", "depression", "tree"})
        self.assertGreater(max(told.values()), 1.2 * min(told.values()))


FUNGICIDES = (
    {"name": "Seven SC", "group_code": "FRAC 7", "rates": [
        {"use": "Dollar spot, preventive", "target": "Dollar spot", "phrase": "0.3 to 0.5 fl oz per 1,000 sq ft",
         "intent": "preventive", "interval_low": 14, "interval_high": 28, "grasses": ["creeping_bentgrass"]},
        {"use": "Dollar spot, curative", "target": "Dollar spot", "phrase": "0.6 to 0.7 fl oz per 1,000 sq ft",
         "intent": "curative", "interval_low": 14, "interval_high": 14, "grasses": ["creeping_bentgrass"]}]},
    {"name": "Three SC", "group_code": "FRAC 3", "rates": [
        {"use": "Dollar spot", "target": "Dollar spot", "phrase": "1 to 2 fl oz per 1,000 sq ft", "interval_low": 14,
         "interval_high": 21, "grasses": ["tall_fescue"]}]},
)  # fmt: skip


class Due(SkyTest):
    """A humid August: dollar spot at its threshold on a bentgrass green that nothing covers."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        made = [self.ask("POST", "products", {"kind": "fungicide", "formulation": "SC", "density": {"value": 9, "unit": "lb/gal"},
                                              "contents": [{"name": "an active", "basis": "active", "amount": 20, "unit": "%"}],
                                              "packages": [{"value": 1, "unit": "gal", "price": "256.00"}],
                                              "rules": {"rain_after": {"value": 2, "unit": "h"}, "leaf": "dry"}} | p, 201)
                for p in FUNGICIDES]  # fmt: skip
        self.seven, self.three = (m["id"] for m in made)

    def line(self) -> Any:
        lines = [x for x in self.ask("GET", "season/due")["lines"] if x["disease"] == "dollar_spot"]
        self.assertEqual(len(lines), 1)
        return lines[0]

    def whole(self) -> Any:
        return self.ask("GET", f"season/due/{self.area.pk}/dollar_spot")

    def test_a_proposal_names_its_product_its_rate_and_its_hours(self) -> None:
        line = self.line()
        self.assertIn(line["state"], ("late", "due"))
        self.assertEqual((line["product"], line["rate"], line["amount"]), ("Seven SC", "0.3 fl oz/1000 ft²", "2.1 fl oz"))
        self.assertEqual(line["cost"], "4.20 USD")
        self.assertTrue(line["window"]["begin"])
        self.assertIn("unprotected", line["why"])

    def test_each_choice_has_its_reason_and_each_refusal_its_rule(self) -> None:
        first, second = self.whole()["choices"]
        self.assertTrue(first["allowed"] and first["why"])
        self.assertEqual((second["product"], second["allowed"]), ("Three SC", False))
        self.assertIn("does not list creeping bentgrass", second["refused"][0]["sentence"])

    def test_a_proposal_becomes_a_round_in_one_step_and_covers_when_it_is_in_the_book(self) -> None:
        key = "7d2ff6de-51a5-4e9e-9d7a-0b3d8a1f2c11"
        body = {"key": key, "area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.seven,
                "machine_id": self.sprayer.pk}  # fmt: skip
        made = self.ask("POST", "season/start", body, 201)
        self.assertEqual(made["parts"][0]["rate"], "0.3 fl oz/1000 ft²")
        self.assertEqual(self.line()["round_id"], made["id"])
        self.assertEqual(self.ask("POST", "season/start", body, 201)["id"], made["id"], "the same key is the same round")
        for worn in made["sheet"]["wear"]:
            self.ask("POST", f"rounds/{made['id']}/ticks", {"load": 0, "act": worn["key"], "done": True})
        self.ask("POST", f"rounds/{made['id']}/finish", {"used": {"value": 2.1, "unit": "fl_oz"}})
        self.assertFalse([x for x in self.ask("GET", "season/due")["lines"] if x["disease"] == "dollar_spot"])
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}")
        self.assertEqual([(c["product"], c["on"]) for c in strip["covers"]], [("Seven SC", "2026-08-12")])
        self.assertTrue(strip["covers"][0]["least"] <= strip["covers"][0]["until"] <= strip["covers"][0]["most"])
        said = self.faults("POST", "season/start", body | {"key": key.replace("7", "8")})
        self.assertIn("Nothing is due", said["disease"])

    def test_a_refused_product_never_becomes_a_round(self) -> None:
        body = {"key": "7d2ff6de-51a5-4e9e-9d7a-0b3d8a1f2c12", "area_id": self.area.pk, "disease": "dollar_spot",
                "product_id": self.three, "machine_id": self.sprayer.pk}  # fmt: skip
        self.assertIn("does not list creeping bentgrass", self.faults("POST", "season/start", body)["product_id"])
        self.assertIn("does not list it", self.faults("POST", "season/start", body | {"product_id": self.feed.pk})["product_id"])

    def test_seen_by_a_scout_it_is_curative(self) -> None:
        self.ask("POST", "sky/scouting", {"area_id": self.area.pk, "on": "2026-08-11", "disease": "dollar_spot", "seen": True,
                                          "severity": 3}, 201)  # fmt: skip
        line = self.line()
        self.assertTrue(line["curative"])
        self.assertEqual((line["state"], line["rate"]), ("late", "0.6 fl oz/1000 ft²"))
        self.assertIn("seen on 11 August", line["why"])

    def test_a_part_that_has_it_gets_the_curative_rate_and_the_rest_the_preventive_one(self) -> None:
        corner = self.ask("POST", "areas", {"name": "Wet corner", "size": {"value": 1000, "unit": "ft2"},
                                            "grass": "creeping_bentgrass", "parent_id": self.area.pk}, 201)  # fmt: skip
        self.ask(
            "POST", "sky/scouting", {"area_id": corner["id"], "on": "2026-08-11", "disease": "dollar_spot", "seen": True}, 201
        )
        line = self.line()
        self.assertIn("Wet corner, where it was seen: 0.6 fl oz/1000 ft², curative", line["zones"][0])
        made = self.ask("POST", "season/start", {
            "key": "7d2ff6de-51a5-4e9e-9d7a-0b3d8a1f2c13", "area_id": self.area.pk, "disease": "dollar_spot",
            "product_id": self.seven, "machine_id": self.sprayer.pk}, 201)  # fmt: skip
        self.assertEqual([(p["rate"], p["treated"]["text"]) for p in made["parts"]],
                         [("0.6 fl oz/1000 ft²", "1,000 ft²"), ("0.3 fl oz/1000 ft²", "6,000 ft²")])  # fmt: skip

    def test_a_missed_window_replans_and_says_what_the_delay_cost(self) -> None:
        window = self.line()["window"]
        begin = datetime.fromisoformat(window["begin"])
        body = {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.seven, "begin": window["begin"],
                "end": (begin + timedelta(hours=1)).isoformat()}  # fmt: skip
        planned = self.ask("POST", "season/planned", body, 201)["line"]["planned"]
        self.assertFalse(planned["missed"])
        with patch("greenmeasure.common.clock.now", return_value=begin + timedelta(hours=49)):
            line = self.line()
            self.assertTrue(line["planned"]["missed"])
            self.assertIn("unprotected until the next window", line["planned"]["cost"])
            self.assertGreater(datetime.fromisoformat(line["window"]["end"]), begin + timedelta(hours=49))
            self.assertIn("is over", self.faults("POST", "season/planned", body)["begin"])
        self.ask("DELETE", f"season/planned/{planned['id']}", expect=204)
        self.assertIsNone(self.line()["planned"])

    def test_the_list_goes_out_as_a_calendar(self) -> None:
        window = self.line()["window"]
        self.ask("POST", "season/planned", {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.seven,
                                             "begin": window["begin"], "end": window["end"]}, 201)  # fmt: skip
        answer = self.client.get("/api/clubs/alder/season/due.ics")
        self.assertIn("text/calendar", answer["Content-Type"])
        events = list(Calendar.from_ical(answer.content).walk("VEVENT"))
        mine = next(e for e in events if isinstance(e, Event) and "Seven SC on North green" in str(e["SUMMARY"]))
        self.assertEqual((str(mine["STATUS"]), mine.start), ("CONFIRMED", datetime.fromisoformat(window["begin"])))

    def test_without_fresh_weather_nothing_is_known_to_be_due(self) -> None:
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=40)):
            due = self.ask("GET", "season/due")
        self.assertEqual((due["lines"], due["sentence"]), ([], "Nothing is known to be due."))

    def test_both_schools_over_the_season(self) -> None:
        said = self.ask("GET", f"sky/schools?area_id={self.area.pk}&disease=dollar_spot&year=2026")
        self.assertEqual(said["product"], "Seven SC")
        for school in (said["calendar"], said["threshold"]):
            self.assertEqual(len(school["days"]), school["sprays"])
            self.assertEqual(school["cost"], f"{4.2 * school['sprays']:,.2f} USD")
            self.assertLessEqual(school["unprotected"], said["risk_days"])
        self.assertEqual(said["threshold"]["unprotected"], 0)
        self.assertIn("year", self.faults_of(f"sky/schools?area_id={self.area.pk}&disease=dollar_spot&year=2019"))
        self.assertIn("disease", self.faults_of(f"sky/schools?area_id={self.area.pk}&disease=rust"))

    def faults_of(self, path: str) -> set[str]:
        return {f["field"] for f in self.ask("GET", path, expect=422)["fields"]}
