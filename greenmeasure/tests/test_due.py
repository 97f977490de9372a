"""What is due: proposed with its reasons and rules, planned, missed, started as a round, exported; and both schools."""

from datetime import datetime, timedelta
from typing import Any
from unittest.mock import patch

from icalendar import Calendar, Event

from greenmeasure.tests.sky_base import NOW, SkyTest

FUNGICIDES = (
    {
        "name": "Seven SC",
        "group_code": "FRAC 7",
        "rates": [
            {
                "use": "Dollar spot, preventive",
                "target": "Dollar spot",
                "phrase": "0.3 to 0.5 fl oz per 1,000 sq ft",
                "intent": "preventive",
                "interval_low": 14,
                "interval_high": 28,
                "grasses": ["creeping_bentgrass"],
            },
            {
                "use": "Dollar spot, curative",
                "target": "Dollar spot",
                "phrase": "0.6 to 0.7 fl oz per 1,000 sq ft",
                "intent": "curative",
                "interval_low": 14,
                "interval_high": 14,
                "grasses": ["creeping_bentgrass"],
            },
        ],
    },
    {
        "name": "Three SC",
        "group_code": "FRAC 3",
        "rates": [
            {
                "use": "Dollar spot",
                "target": "Dollar spot",
                "phrase": "1 to 2 fl oz per 1,000 sq ft",
                "interval_low": 14,
                "interval_high": 21,
                "grasses": ["tall_fescue"],
            }
        ],
    },
)


class Due(SkyTest):
    """A humid August: dollar spot at its threshold on a bentgrass green that nothing covers."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        made = [
            self.ask(
                "POST",
                "products",
                {
                    "kind": "fungicide",
                    "formulation": "SC",
                    "density": {"value": 9, "unit": "lb/gal"},
                    "contents": [{"name": "an active", "basis": "active", "amount": 20, "unit": "%"}],
                    "packages": [{"value": 1, "unit": "gal", "price": "256.00"}],
                    "rules": {"rain_after": {"value": 2, "unit": "h"}, "leaf": "dry"},
                }
                | p,
                201,
            )
            for p in FUNGICIDES
        ]
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
        body = {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.seven, "machine_id": self.sprayer.pk}
        made = self.ask("POST", "season/start", body, 201, key)
        self.assertEqual(made["parts"][0]["doses"][0]["rate"], "0.3 fl oz/1000 ft²")
        self.assertEqual(self.line()["round_id"], made["id"])
        self.assertEqual(self.ask("POST", "season/start", body, 201, key)["id"], made["id"], "the same key is the same round")
        for worn in made["sheet"]["wear"]:
            self.ask("POST", f"rounds/{made['id']}/ticks", {"load": 0, "act": worn["key"], "done": True})
        self.ask("POST", f"rounds/{made['id']}/finish", {"used": [{"amount": {"value": 2.1, "unit": "fl_oz"}}]})
        self.assertFalse([x for x in self.ask("GET", "season/due")["lines"] if x["disease"] == "dollar_spot"])
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}")
        self.assertEqual([(c["product"], c["on"]) for c in strip["covers"]], [("Seven SC", "2026-08-12")])
        self.assertTrue(strip["covers"][0]["least"] <= strip["covers"][0]["until"] <= strip["covers"][0]["most"])
        said = self.faults("POST", "season/start", body)
        self.assertIn("Nothing is due", said["disease"])

    def test_a_refused_product_never_becomes_a_round(self) -> None:
        body = {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.three, "machine_id": self.sprayer.pk}
        self.assertIn("does not list creeping bentgrass", self.faults("POST", "season/start", body)["product_id"])
        self.assertIn("does not list it", self.faults("POST", "season/start", body | {"product_id": self.feed.pk})["product_id"])

    def test_seen_by_a_scout_it_is_curative(self) -> None:
        self.ask(
            "POST",
            "scouting",
            {"area_id": self.area.pk, "on": "2026-08-11", "what": "dollar_spot", "seen": True, "severity": 3},
            201,
        )
        line = self.line()
        self.assertTrue(line["curative"])
        self.assertEqual((line["state"], line["rate"]), ("late", "0.6 fl oz/1000 ft²"))
        self.assertIn("seen on 11 August", line["why"])

    def test_a_part_that_has_it_gets_the_curative_rate_and_the_rest_the_preventive_one(self) -> None:
        corner = self.ask(
            "POST",
            "areas",
            {
                "name": "Wet corner",
                "size": {"value": 1000, "unit": "ft2"},
                "grass": "creeping_bentgrass",
                "parent_id": self.area.pk,
            },
            201,
        )
        self.ask("POST", "scouting", {"area_id": corner["id"], "on": "2026-08-11", "what": "dollar_spot", "seen": True}, 201)
        line = self.line()
        self.assertIn("Wet corner, where it was seen: 0.6 fl oz/1000 ft², curative", line["zones"][0])
        made = self.ask(
            "POST",
            "season/start",
            {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.seven, "machine_id": self.sprayer.pk},
            201,
        )
        self.assertEqual(
            [(p["doses"][0]["rate"], p["treated"]["text"]) for p in made["parts"]],
            [("0.6 fl oz/1000 ft²", "1,000 ft²"), ("0.3 fl oz/1000 ft²", "6,000 ft²")],
        )

    def test_a_missed_window_replans_and_says_what_the_delay_cost(self) -> None:
        window = self.line()["window"]
        begin = datetime.fromisoformat(window["begin"])
        body = {
            "area_id": self.area.pk,
            "disease": "dollar_spot",
            "product_id": self.seven,
            "begin": window["begin"],
            "end": (begin + timedelta(hours=1)).isoformat(),
        }
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
        self.ask(
            "POST",
            "season/planned",
            {
                "area_id": self.area.pk,
                "disease": "dollar_spot",
                "product_id": self.seven,
                "begin": window["begin"],
                "end": window["end"],
            },
            201,
        )
        answer = self.client.get("/api/accounts/alder/outings/ahead.ics")
        self.assertIn("text/calendar", answer["Content-Type"])
        events = list(Calendar.from_ical(answer.content).walk("VEVENT"))
        mine = next(e for e in events if isinstance(e, Event) and "Seven SC on North green" in str(e["SUMMARY"]))
        self.assertEqual((str(mine["STATUS"]), mine.start), ("CONFIRMED", datetime.fromisoformat(window["begin"])))

    def test_without_fresh_weather_nothing_is_known_to_be_due(self) -> None:
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=40)):
            due = self.ask("GET", "season/due")
        said = "No step is due. What the weather asks for needs newer hours and a forecast: fetch the weather."
        self.assertEqual((due["lines"], due["sentence"]), ([], said))

    def test_hours_beyond_the_table_are_never_told_as_now(self) -> None:
        """The last day of the forecast ends in the morning; in its evening nothing is known of the hour that is now."""
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=7, hours=8)):
            seen = {"area_id": self.area.pk, "on": "2026-08-18", "what": "dollar_spot", "seen": True}
            self.ask("POST", "scouting", seen, 201)
            window = self.line()["window"]
        self.assertEqual((window["verdict"], window["begin"]), ("no", None))
        self.assertIn("does not reach to now", window["text"])

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
