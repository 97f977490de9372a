"""An area's story: all that happened on its ground in one line of time, the last of each kind, the week's rhythms filled in."""

from datetime import date, datetime, timedelta
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.sky.models import Rhythm
from greenmeasure.story.words import ago
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest
from greenmeasure.tests.sky_base import SkyTest

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=ZoneInfo("America/New_York"))  # a Wednesday


class Story(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)

    def story(self, area: int | None = None, more: str = "") -> dict[str, Any]:
        found: dict[str, Any] = self.ask("GET", f"areas/{area or self.area.pk}/story{more}")
        return found

    def fed(self, on: str, clock_at: str = "07:30", **more: Any) -> None:
        used = {"used": [{"amount": {"value": "17.5", "unit": "lb"}}]}
        job = self.feed_job(on=on, clock=clock_at, **more)
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)

    def work(self, kind: str, on: str, **more: Any) -> dict[str, Any]:
        body = {"kind": kind, "area_ids": [self.area.pk], "on": on} | more
        return dict(self.ask("POST", "works", body, expect=201)[0])

    def lasts(self) -> dict[str, str]:
        return {f["name"]: f["text"] for f in self.story()["lasts"]}

    def test_an_area_of_which_nothing_is_known(self) -> None:
        said = self.story()
        self.assertEqual((said["events"], said["lasts"], said["ahead"], said["more"]), ([], [], [], False))
        self.assertEqual(len(said["usual"]), len(self.ask("GET", "works/kinds")))

    def test_fed_so_many_days_ago_and_the_seasons_nitrogen(self) -> None:
        """17.5 lb of 20 % on 7,000 ft² are 3.5 lb of N, 0.5 lb/1000 ft²; twice, 1 (arithmetic)."""
        self.fed("2026-06-20")
        self.fed("2026-07-31")
        said = self.lasts()
        self.assertEqual(said["Fed"], "12 days ago, Test 20-0-10, 0.5 lb N/1000 ft²")
        self.assertTrue(said["N this season"].startswith("1 lb N/1000 ft² of the usual "), said)

    def test_everything_of_a_day_in_its_order_the_newest_first(self) -> None:
        self.fed("2026-08-10")
        self.work("mow", "2026-08-10", clock="06:30")
        self.work("roll", "2026-08-10", clock="09:00")
        self.work("aerate", "2026-08-01")
        seen = {
            "area_id": self.area.pk,
            "on": "2026-08-11",
            "what": "dollar_spot",
            "seen": True,
            "severity": 3,
            "where": "north edge",
        }
        self.ask("POST", "scouting", seen, 201)
        self.assertEqual(
            [(e["lane"], e["kind"], str(e["on"])[8:], e["clock"]) for e in self.story()["events"]],
            [
                ("seen", "scouting", "11", ""),
                ("work", "roll", "10", "09:00"),
                ("down", "fertiliser", "10", "07:30"),
                ("work", "mow", "10", "06:30"),
                ("work", "aerate", "01", ""),
            ],
        )
        self.assertEqual(self.story()["events"][0]["title"], "Dollar spot seen on 3 %, north edge")

    def test_whole_and_parts_are_told_together_and_a_neighbour_is_not(self) -> None:
        collar = {"name": "Collar", "parent_id": self.area.pk, "size": {"value": 900, "unit": "ft2"}}
        part = self.ask("POST", "areas", AREA | collar, 201)
        bank = self.ask("POST", "areas", AREA | {"name": "Yard 1"}, 201)
        self.ask("POST", "areas", AREA | {"name": "Yard 10"}, 201)
        self.work("roll", "2026-08-10")
        self.work("verticut", "2026-08-09", area_ids=[part["id"]])
        on_part = self.story(part["id"])["events"]
        self.assertEqual([(e["kind"], e["where"]) for e in on_part], [("roll", "North green"), ("verticut", "")])
        self.assertEqual([(e["kind"], e["where"]) for e in self.story()["events"]], [("roll", ""), ("verticut", "Collar")])
        self.assertEqual(self.story(bank["id"])["events"], [])
        said = {f["name"] for f in self.story()["lasts"]}
        self.assertEqual(said, {"Rolled"}, "what was done to a part was not done to the whole")

    def test_the_weeks_rhythm_fills_in_and_is_struck_out(self) -> None:
        """Mondays and Wednesdays since 3 August, a Monday: 3, 5, 10, 12."""
        body = {"area_id": self.area.pk, "kind": "mow", "days": [0, 2], "begin": "06:00", "end": "07:00"}
        self.ask("POST", "sky/rhythms", body, 201)
        self.assertEqual([e["on"] for e in self.story()["events"]], ["2026-08-12"], "not before it was set up")
        Rhythm.objects.update(since="2026-08-03")
        self.account.touch()
        days = [e["on"] for e in self.story()["events"]]
        self.assertEqual(days, [f"2026-08-{d:02}" for d in (12, 10, 5, 3)])
        self.assertEqual(self.lasts()["Mown"], "today")
        self.work("mow", "2026-08-12", done=False, note="Storm.")
        events = self.story()["events"]
        self.assertEqual([(e["title"], e["regular"]) for e in events[:2]], [("Not mown", False), ("Mown", True)])
        self.assertEqual(self.lasts()["Mown"], "2 days ago")
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=5) - timedelta(hours=4)):
            self.assertEqual(self.story()["events"][0]["on"], "2026-08-12", "Monday’s mowing ends at seven, and it is six")

    def test_what_is_struck_is_told_and_counts_for_nothing(self) -> None:
        made = self.work("roll", "2026-08-10")
        self.ask("POST", f"works/{made['id']}/strike", {"why": "Another green."})
        event = self.story()["events"][0]
        self.assertEqual(event["struck"], "Struck by Manager alder: Another green.")
        self.assertEqual(self.lasts(), {})

    def test_the_usual_is_the_latest_of_its_kind(self) -> None:
        told = [{"key": "clippings", "word": "taken"}]
        self.work("mow", "2026-08-10", told=told)
        self.work("mow", "2026-08-02", told=[{"key": "clippings", "word": "left"}])
        usual = {u["kind"]: u for u in self.story()["usual"]}
        self.assertEqual(usual["mow"]["text"], "Mown: clippings taken off.")
        again = [{"key": t["key"], "word": t["word"]} for t in usual["mow"]["told"]]
        self.assertEqual(again, told)
        self.assertEqual((usual["roll"]["text"], usual["roll"]["told"]), ("Rolled.", []))

    def test_more_than_a_year_is_told_when_it_is_asked_for(self) -> None:
        self.work("aerate", "2024-09-01")
        self.assertEqual((self.story()["events"], self.story()["more"]), ([], True))
        said = self.story(more="?whole=true")
        self.assertEqual((len(said["events"]), said["more"], said["begin"]), (1, False, "2024-09-01"))

    def test_what_is_long_ago_is_told_by_its_day(self) -> None:
        told = {"08-12": "today", "08-11": "yesterday", "06-13": "60 days ago", "06-12": "on 12 June"}
        for on, said in told.items():
            self.assertEqual(ago(date.fromisoformat(f"2026-{on}"), NOW.date()), said)
        self.assertEqual(ago(date(2025, 9, 15), NOW.date()), "on 15 September 2025")

    def test_when_the_label_lets_it_go_down_again(self) -> None:
        """14 to 28 days after 10 August are 24 August and 7 September (calendar)."""
        row = FUNGICIDE["rates"][0] | {"interval_low": 14, "interval_high": 28}
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": [row]})
        used = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": self.job(on="2026-08-10", clock="07:00"), "finish": used, "reason": ""}, 201)
        again = "Test SC again between 24 August and 7 September"
        self.assertEqual(self.story()["ahead"], [{"name": "Fungicide", "text": again}])

    def test_all_that_happened_on_a_site_and_everywhere(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)["id"]
        home = self.area.site_id
        far = self.ask("POST", "sites", {"name": "Far field", "time_zone": "America/New_York"}, 201)["id"]
        meadow = self.ask("POST", "areas", AREA | {"name": "Meadow", "site_id": far}, 201)["id"]
        for n, pk in enumerate((self.area.pk, bank, meadow)):
            self.work("roll", f"2026-08-0{n + 1}", area_ids=[pk])

        def wheres(query: str) -> list[str]:
            return [e["where"] for e in self.ask("GET", f"story?{query}")["events"]]

        self.assertEqual(wheres(""), ["Meadow", "Bank", "North green"])
        self.assertEqual(wheres(f"site_id={home}"), ["Bank", "North green"])
        self.assertEqual(wheres(f"site_id={far}"), ["Meadow"])
        self.ask("GET", "story?site_id=987654", expect=404)

    def test_a_name_of_several_words_is_that_one_and_no_other(self) -> None:
        """17.5 lb each; as many as were put down."""
        yards = [self.ask("POST", "areas", AREA | {"name": name}, 201)["id"] for name in ("Yard 1", "Yard 10", "Yard 10 back")]
        for n, yard in enumerate(yards):
            for day in range(n + 1):
                self.fed(f"2026-07-{1 + day + 4 * n:02}", area_id=yard)
        counts = {
            words: self.ask("GET", f"book?words={words}")["count"] for words in ("Yard 1", "yard 10", "Yard 10 back", "Yard")
        }
        self.assertEqual(counts, {"Yard 1": 1, "yard 10": 2, "Yard 10 back": 3, "Yard": 6})
        self.assertEqual(self.ask("GET", "book?words=yard 10 test 20-0-10 manager")["count"], 2)
        self.assertEqual(self.ask("GET", "book?words=yard 10 nobody")["count"], 0)

    def test_an_area_that_is_not_there(self) -> None:
        self.ask("GET", "areas/987654/story", expect=404)
        other = Area.objects.exclude(account=self.account).first()
        if other:
            self.ask("GET", f"areas/{other.pk}/story", expect=404)
        self.assertEqual(clock.now(), NOW)


class BehindIt(SkyTest):
    """Rain, risk and locks behind the events, held against what the sky's own strip and locks say."""

    def test_without_weather_there_is_none(self) -> None:
        line = self.ask("GET", f"areas/{self.area.pk}/story")["line"]
        self.assertEqual((line["rain"], line["risk"], line["locks"]), ([], [], []))

    def test_rain_and_risk_are_those_of_the_strip(self) -> None:
        self.station()
        self.fetched()
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}&weeks=10")
        line = self.ask("GET", f"areas/{self.area.pk}/story")["line"]
        past = strip["days"][: strip["today"] + 1]
        self.assertEqual([r["on"] for r in line["rain"]], [d["on"] for d in past if d["rain"]])
        over = {d["on"] for i, d in enumerate(past) if any(r["states"][i] == "high" for r in strip["risks"])}
        self.assertTrue(over)
        told = {d["on"] for d in past if any(s["over"] and s["begin"] <= d["on"] <= s["end"] for s in line["risk"])}
        self.assertEqual(told, over)
        self.assertTrue(all("at its threshold" in s["text"] for s in line["risk"] if s["over"]))

    def test_what_is_locked_and_until_when(self) -> None:
        """Seed is kept off for 30 days from 10 August, so that the lock still holds on the 12th (by hand)."""
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": {"seed_before": {"value": 30, "unit": "day"}}})
        used = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        job = self.job(on="2026-08-10", clock="07:30", row_id=self.spray.rates.get().pk)
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        locks = self.ask("GET", f"areas/{self.area.pk}/story")["line"]["locks"]
        seed = next(x for x in locks if x["text"].startswith("No seeding"))
        self.assertEqual((seed["begin"], seed["end"], seed["over"]), ("2026-08-10", "2026-08-12", True))

    def test_a_gauge_read_on_the_area_stands_in_its_story(self) -> None:
        self.station()
        rain = {"kind": "rain", "value": {"value": 0.4, "unit": "in"}, "on": "2026-08-10"}
        self.ask("POST", "sky/readings", rain | {"area_id": self.area.pk}, 201)
        self.ask("POST", "sky/readings", rain, 201)
        found = [e for e in self.ask("GET", f"areas/{self.area.pk}/story")["events"] if e["kind"] == "reading"]
        self.assertEqual([(e["title"], e["on"], e["where"]) for e in found], [("Rain gauge: 0.4 in", "2026-08-10", "")])
