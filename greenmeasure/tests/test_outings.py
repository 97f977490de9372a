"""Outings: what is due gathered into one, in an order that keeps every rule, taken up, followed and ended."""

import json
from datetime import UTC, datetime, timedelta
from io import StringIO
from typing import Any
from unittest.mock import patch
from urllib.request import urlopen
from uuid import uuid4

from django.core.management import CommandError, call_command
from django.test import override_settings
from icalendar import Calendar, Event

from greenmeasure.accounts.models import User
from greenmeasure.book.models import Application
from greenmeasure.outings.models import Outing, OutingJob, OutingStop
from greenmeasure.outings.morning import planned
from greenmeasure.outings.wants import wants
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.models import RateRow
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE, ApiTest
from greenmeasure.work.models import Work
from sims.mailbox import Mailbox

NOW = datetime(2026, 5, 20, 10, 20, tzinfo=UTC)  # 06:20 in New York
SOAK = {"water_in_depth": {"value": 0.25, "unit": "in"}, "water_in_delay": {"value": 8, "unit": "h"}}
LOOKED = {"said": {"dry_after": True}}
DRY = {"rain_after": {"value": 4, "unit": "h"}}
LIFE = {"mixed_life": {"value": 6, "unit": "h"}}
KEEPS = "Spray out Iron SL: by its label the mix keeps no longer"


class OutingTest(ApiTest):
    """On the morning of 20 May 2026, without a station: three areas, granules that are watered in, iron that must stay dry."""

    def setUp(self) -> None:
        super().setUp()
        self.at(NOW)
        self.grounds = [self.area.pk, *(self.ask("POST", "areas", AREA | {"name": n}, 201)["id"] for n in ("Court", "Lawn"))]
        self.granules = self.ask("POST", "products", FEED | {"name": "Soaked 20-0-0", "rules": SOAK}, 201)["id"]
        iron = FUNGICIDE | {"name": "Iron SL", "kind": "iron", "formulation": "SL", "rules": DRY}
        self.iron = self.ask("POST", "products", iron, 201)["id"]

    def at(self, now: datetime) -> None:
        held = patch("greenmeasure.common.clock.now", return_value=now)
        held.start()
        self.addCleanup(held.stop)

    def step(self, name: str, product: int, rate: float, unit: str, *grounds: int, begin: str = "2026-05-20") -> dict[str, Any]:
        """A step that is due from a day on, for three days."""
        last = (datetime.fromisoformat(begin) + timedelta(days=3)).date()
        when = {"timing": "dated", "begin": begin, "end": str(last)}
        mix = [{"product_id": product, "rate": {"value": rate, "unit": unit}}]
        body = {"name": name, "when": when, "products": mix, "area_ids": list(grounds or self.grounds)}
        made: dict[str, Any] = self.ask("POST", "programme/steps", body, 201)
        return made

    def morning(self) -> None:
        self.step("Feed", self.granules, 0.4, "lb/kft2:N")
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")

    def propose(self, expect: int = 200, **more: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("POST", "outings/propose", more, expect)
        return found

    def take(self, expect: int = 201, **more: Any) -> dict[str, Any]:
        made: dict[str, Any] = self.ask("POST", "outings", more, expect)
        return made


def clocks(acts: list[dict[str, Any]]) -> dict[str, str]:
    return {f"{a['kind']} {a['where']}": a["time"] for a in acts}


class Proposed(OutingTest):
    def test_what_shares_a_mix_is_one_job_in_an_order_that_keeps_every_label(self) -> None:
        """Granules first, their water before the iron or after its four dry hours; each area once in a job."""
        self.morning()
        found = self.propose()
        acts = [a for a in found["acts"] if a["kind"] in ("spread", "spray", "water")]
        self.assertEqual([a["kind"] for a in acts if a["kind"] != "water"], ["spread", "spray"])
        self.assertEqual(acts[0]["where"], "Court, Lawn, North green")
        self.assertEqual(found["left"], [])
        spread, spray = (next(a for a in acts if a["kind"] == k) for k in ("spread", "spray"))
        iron = {s["area_id"]: (s["time"][:5], s["time"][-5:]) for s in spray["stops"]}
        for water in (a for a in acts if a["kind"] == "water"):
            (stop,) = water["stops"]
            begin, end = stop["time"][:5], stop["time"][-5:]
            self.assertGreaterEqual(begin, next(s["time"][-5:] for s in spread["stops"] if s["area_id"] == stop["area_id"]))
            before = end <= iron[stop["area_id"]][0]
            dry = datetime.strptime(iron[stop["area_id"]][1], "%H:%M") + timedelta(hours=4)
            self.assertTrue(before or begin >= f"{dry:%H:%M}", (begin, end, iron))
        self.assertIn("2 jobs on 3 areas", found["sentence"])

    def test_nothing_due_and_everything_left_out_say_so(self) -> None:
        self.assertIn("Nothing is due", self.propose()["sentence"])
        self.morning()
        dues = self.propose()["dues"]
        keys, feeding = [d["key"] for d in dues], [d["key"] for d in dues if d["text"].startswith("Feed")]
        found = self.propose(leave=keys)
        self.assertEqual((found["acts"], {d["key"] for d in found["out"]}), ([], set(keys)))
        self.assertEqual([a["kind"] for a in self.propose(leave=feeding)["acts"]].count("spread"), 0)

    def test_each_job_passes_the_gate_at_the_hour_at_which_it_would_be_done(self) -> None:
        self.morning()
        data = planned(self.account, wants(self.account), NOW.date())
        self.assertEqual(data.refused, ())
        self.assertEqual({j.key for j in data.morning.jobs}, {t.job for t in data.order.legs})

    def test_what_a_label_keeps_apart_is_left_for_another_day_with_the_rule(self) -> None:
        apart = {"incompatible": [{"what": "Soaked 20-0-0", "days": 3, "note": ""}]}
        self.ask("PUT", f"products/{self.iron}", FUNGICIDE | {"name": "Iron SL", "rules": DRY | apart, "version": 1})
        self.morning()
        found = self.propose()
        self.assertEqual(len({a["title"] for a in found["acts"] if a["kind"] in ("spread", "spray")}), 1)
        self.assertEqual(len(found["left"]), 3)
        self.assertIn("Not on one day with", found["left"][0]["why"])

    def test_where_two_jobs_meet_on_one_ground_one_gives_way_there_alone(self) -> None:
        apart = {"incompatible": [{"what": "Soaked 20-0-0", "days": 3, "note": ""}]}
        self.ask("PUT", f"products/{self.iron}", FUNGICIDE | {"name": "Iron SL", "rules": DRY | apart})
        north, court, lawn = self.grounds
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", north, lawn)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", north, court)
        found = self.propose()
        where = {a["kind"]: a["where"] for a in found["acts"] if a["kind"] in ("spread", "spray")}
        self.assertEqual(where, {"spread": "Lawn, North green", "spray": "Court"})
        self.assertEqual([x["title"] for x in found["left"]], ["Colour on North green"])
        self.assertIn("keeps Soaked 20-0-0 away from it by 3 days", found["left"][0]["why"])

    def test_a_later_day_a_later_hour_and_more_people(self) -> None:
        self.morning()
        later = self.propose(on="2026-05-21", clock="09:30")
        self.assertTrue(later["acts"][0]["time"].startswith("09:30"))
        self.assertIn("Tomorrow, Thu 21 May 2026", later["sentence"])
        one, two = self.propose(), self.propose(people=2)
        self.assertLessEqual(two["end"], one["end"])
        faults = self.propose(422, clock="half past")["fields"]
        self.assertEqual([f["field"] for f in faults], ["clock"])
        self.assertEqual(self.propose(422, people=9)["fields"][0]["field"], "people")

    def test_the_week_has_the_jobs_their_ends_and_the_outing(self) -> None:
        self.morning()
        week = self.ask("GET", "outings/week")
        self.assertEqual([d["text"] for d in week["days"]][:2], ["Wed 20", "Thu 21"])
        (site,) = week["sites"]
        self.assertEqual({r["title"] for r in site["rows"]}, {"Soaked 20-0-0 (3)", "Iron SL (3)"})
        by = next(d for d in self.ask("GET", "season/due")["lines"] if d["product"] == "Iron SL")["by"]
        days = (datetime.fromisoformat(by).date() - NOW.date()).days + 1  # its day is over a day after it begins
        self.assertAlmostEqual(next(r for r in site["rows"] if r["title"].startswith("Iron"))["by"], min(1, days / 7))
        self.assertEqual((len(site["outings"]), week["open"]), (1, []))
        self.assertEqual(week["next"]["sentence"], self.propose()["sentence"])


class StandIns(OutingTest):
    def test_a_step_goes_out_with_what_may_stand_in_for_its_first_product(self) -> None:
        other = self.ask("POST", "products", FUNGICIDE | {"name": "Other iron SL", "kind": "iron", "formulation": "SL"}, 201)[
            "id"
        ]
        rate = {"value": 0.5, "unit": "fl_oz/kft2"}
        mix = [{"product_id": self.iron, "rate": rate}, {"product_id": other, "rate": rate, "instead": True}]
        when = {"timing": "dated", "begin": "2026-05-20", "end": "2026-05-23"}
        step = {"name": "Colour", "when": when, "products": mix, "area_ids": [self.area.pk]}
        self.ask("POST", "programme/steps", step, 201)
        (due,) = self.propose()["dues"]
        self.assertEqual([o["text"] for o in due["others"]], ["Other iron SL"])
        swaps = [{"key": due["key"], "product_id": other}]
        swapped = self.propose(swaps=swaps)
        self.assertEqual([j["title"] for j in swapped["jobs"]], ["Spray Other iron SL"])
        self.assertEqual([o["text"] for o in swapped["dues"][0]["others"]], ["Iron SL"])
        self.take(swaps=swaps)
        self.assertEqual(self.propose()["dues"], [], "the turn is in an outing")
        far = [{"key": due["key"], "product_id": self.granules}]
        self.assertEqual(set(self.faults("POST", "outings/propose", {"swaps": far})), {"swaps.0.product_id"})


class Counted(OutingTest):
    """What an outing is to put down counts in the ledger before its jobs begin, and only once. 0.9 a season, at 0.5 each."""

    def setUp(self) -> None:
        super().setUp()
        card = FUNGICIDE | {"name": "Once SC", "rules": DRY | {"most_per_season": "0.9 fl oz per 1,000 sq ft"}}
        self.once = self.ask("POST", "products", card, 201)["id"]
        self.row = RateRow.objects.filter(product_id=self.once).earliest("position").pk
        rate = {"value": "0.5", "unit": "fl_oz/kft2"}
        asked = {
            "mix": [{"product_id": self.once, "target": ""}],
            "parts": [{"area_id": self.area.pk, "doses": [{"row_id": self.row, "rate": rate}]}],
            "machine_id": self.sprayer.pk,
        }
        by, end = User.objects.get(username="manager-alder"), NOW + timedelta(hours=3)
        self.outing = Outing.objects.create(
            account=self.account, key=uuid4(), on=NOW.date(), begin=NOW, made_at=NOW, by=by, status="under_way", started_at=NOW
        )
        job = OutingJob.objects.create(
            outing=self.outing, position=0, doing="spray", machine=self.sprayer, job=asked, begin=NOW, end=end
        )
        self.stop = OutingStop.objects.create(job=job, position=0, area=self.area, begin=NOW, end=end, want="1-dollar_spot")
        self.account.touch("outings")

    def against(self, job: dict[str, Any]) -> list[str]:
        """What is refused of a job, in words."""
        found = self.ask("POST", "reckon/job", job)["parts"][0]["doses"][0]["findings"]
        return [f["sentence"] for f in found if f["act"] == "refuse"]

    def refused(self) -> set[str]:
        """The rules that are against the same on another day."""
        rate = {"value": 0.5, "unit": "fl_oz/kft2"}
        job = self.job(product_id=self.once, row_id=self.row, rate=rate, on="2026-05-27")
        found = self.ask("POST", "reckon/job", job)["parts"][0]["doses"][0]["findings"]
        return {f["key"] for f in found if f["act"] == "refuse"}

    def test_what_is_taken_up_counts_until_it_is_skipped(self) -> None:
        self.assertEqual(self.refused(), {"season-product"})
        OutingStop.objects.filter(pk=self.stop.pk).update(state="skipped")
        self.account.touch("outings")
        self.assertEqual(self.refused(), set())

    def test_what_goes_down_later_that_day_keeps_off_nothing_that_the_order_put_before_it(self) -> None:
        """The outing's spray of 09:20 must stay dry for four hours; granules that are watered in go down before it, at 06:20."""
        row = RateRow.objects.filter(product_id=self.granules).earliest("position").pk
        job = self.feed_job(product_id=self.granules, row_id=row, rate={"value": 0.4, "unit": "lb/kft2:N"})
        self.assertEqual(self.against(job | {"outing_id": self.outing.pk}), [])
        self.assertIn("Once SC", "".join(self.against(job)), "what goes down beside the outing sees it")
        told = self.ask("POST", "reckon/job", job | {"outing_id": 10**6}, 422)
        self.assertEqual(told["fields"][0]["field"], "outing_id")

    def test_nor_does_what_was_planned_of_it(self) -> None:
        """As a window on the season's board, which counts once beside the outing: 09:00 to 11:00 that day."""
        window = {"begin": NOW + timedelta(hours=2.7), "end": NOW + timedelta(hours=4.7)}
        one = {"area": self.area, "product_id": self.once, "disease": "dollar_spot", "by": "Ann", "made_at": NOW}
        self.account.planned.create(**one, **window)
        self.account.touch("season")
        self.test_what_goes_down_later_that_day_keeps_off_nothing_that_the_order_put_before_it()

    def test_it_neither_stands_in_its_own_way_nor_counts_beside_its_round(self) -> None:
        path = f"outings/{self.outing.pk}"
        again = self.ask("POST", f"{path}/again", {})
        self.assertEqual([j["state"] for j in again["jobs"]], ["open"])
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        self.assertEqual(self.refused(), {"season-product"})
        used = {"used": [{"amount": {"value": "2.8", "unit": "fl_oz"}}]}  # 0.4 on 7,000 ft²: 0.4 + 0.5 is 0.9
        self.ask("POST", f"rounds/{sheet['id']}/finish", used)
        self.assertEqual(self.refused(), set())


class Followed(OutingTest):
    def test_from_the_first_job_to_the_page_of_what_was_done(self) -> None:
        self.morning()
        made = self.take(go=True)
        path = f"outings/{made['id']}"
        self.assertEqual((made["status"], made["next"], len(made["jobs"])), ("under_way", 0, 5))
        self.assertIn("0 of 5 jobs done", made["sentence"])
        self.assertEqual(self.propose()["acts"], [], "what was taken up is not proposed again")
        water = next(j for j in made["jobs"] if j["kind"] == "water")
        told = self.ask("POST", f"{path}/jobs/{water['position']}/done", {}, 409)
        self.assertIn("Spread Soaked 20-0-0 comes first", told["message"])
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        self.assertEqual((sheet["outing_id"], len(sheet["parts"])), (made["id"], 3))
        self.assertEqual(self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)["id"], sheet["id"])
        self.assertEqual(self.ask("GET", path)["jobs"][0]["state"], "under_way")
        self.ask("POST", f"{path}/give-up", {}, 409)
        used: dict[str, Any] = {
            "used": [{"amount": {"value": "42", "unit": "lb"}}],
            "treated": [{"value": 7000, "unit": "ft2"}] * 2,
        }
        used["treated"].append({"value": 0, "unit": "ft2"})  # the last was left out at the gate
        self.ask("POST", f"rounds/{sheet['id']}/finish", used)
        now = self.ask("GET", path)
        self.assertEqual(now["jobs"][0]["state"], "done")
        watered = [(c["text"], c["until_text"], c["left"]) for c in now["clocks"]]
        want = [(f"Water in Soaked 20-0-0 on {name}", "Wed 20 May, 14:20", 8 * 3600) for name in ("Court", "Lawn")]
        self.assertEqual(watered, want, "eight hours by the label, where it went down")
        self.assertEqual(
            sorted(s["state"] for a in now["acts"] if a["kind"] == "spread" for s in a["stops"]), ["done", "done", "skipped"]
        )
        for j in now["jobs"]:
            if j["kind"] == "water":
                self.ask("POST", f"{path}/jobs/{j['position']}/done", {})
        self.assertEqual(Work.objects.filter(kind="water").count(), 3)
        spray = next(j for j in now["jobs"] if j["kind"] == "spray")
        self.assertIn("Not done yet", self.ask("POST", f"{path}/finish", {}, 409)["message"])
        stops = [s for a in now["acts"] if a["job"] == spray["position"] for s in a["stops"]]
        self.assertEqual(self.ask("POST", f"{path}/stops/{stops[0]['id']}/skip", {"why": ""}, 422)["fields"][0]["field"], "why")
        for skip in (True, False, True):
            self.ask("POST", f"{path}/jobs/{spray['position']}/skip", {"why": "Too windy", "skip": skip})
        self.ask("POST", f"{path}/jobs/0/skip", {"why": "Too windy"}, 409)
        self.assertIn("Not seen to yet", self.ask("POST", f"{path}/finish", {}, 409)["message"])
        closing = self.ask("GET", path)["closing"]
        keys = [c["key"] for c in closing]
        self.assertEqual([k for k in keys if k in ("left", "rinse")], [], "nothing was sprayed in the end")
        for c in closing:
            self.ask("POST", f"{path}/closing", {"key": c["key"], "done": True})
        over = self.ask("POST", f"{path}/finish", {})
        self.assertEqual((over["status"], over["next"], over["locks"]), ("done", None, []))
        self.assertEqual(len([x for x in over["over"] if "Too windy" in x]), 3)
        self.assertEqual(Application.objects.count(), 2)
        self.ask("POST", f"{path}/closing", {"key": "gear", "done": False}, 409)

    def test_a_stop_is_skipped_at_the_gate_and_the_tank_follows(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        made = self.take()
        path, stop = f"outings/{made['id']}", made["acts"][1]["stops"][0]
        self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"why": "A dog"})
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        self.assertEqual(len(sheet["parts"]), 2)
        self.assertEqual(sheet["mix"][0]["planned"]["value"], 7)  # 2 × 7,000 ft² at 0.5 fl oz per 1,000 ft²
        self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"skip": False}, 409)
        self.ask("POST", f"rounds/{sheet['id']}/give-up", {})
        self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"skip": False})
        self.assertEqual(len(self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)["parts"]), 3)
        self.assertEqual(Round.objects.count(), 2)

    def test_a_stop_that_is_skipped_once_its_mix_is_made_says_what_is_left(self) -> None:
        """Three areas of 7,000 ft² at 1 gal per 1,000 ft² from a tank of 4 gal: two of them take three tanks and a half. The
        first lasts for 4,000 ft² of the second area; the round leaves the first out.
        """
        card = FUNGICIDE | {"name": "Iron SL", "kind": "iron", "formulation": "SL", "rules": DRY | LIFE}
        self.ask("PUT", f"products/{self.iron}", card)
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        made = self.take(go=True)
        path, stop = f"outings/{made['id']}", made["acts"][1]["stops"][0]
        sheet = self.ask("POST", f"{path}/jobs/0/start", LOOKED, 201)
        told = self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"why": "A dog"})
        falls = told["jobs"][0]["falls"]
        self.assertEqual(falls[0], "Tank 1: Runs out on Lawn, after about 4,000 ft² of its 7,000 ft².")
        self.assertIn(
            "Tank 4: Court is left out: mix only 2 gal, 1 fl oz of Iron SL. If it is mixed already, 2 gal of it", falls[3]
        )
        self.assertEqual(falls[4:], [f"Tank {n}: Court is left out: do not mix it." for n in (5, 6)])
        acts = [a["key"] for a in sheet["sheet"]["loads"][3]["acts"]]
        for act in [w["key"] for w in sheet["sheet"]["wear"]]:
            self.ask("POST", f"rounds/{sheet['id']}/ticks", {"load": 0, "act": act, "done": True})
        mixed = self.ask("POST", f"rounds/{sheet['id']}/ticks", {"load": 4, "act": acts[0], "done": True})
        self.assertIn("2 gal of it is left over: it was for Court.", mixed["falls"][3])
        (life,) = self.ask("GET", path)["clocks"]
        self.assertEqual((life["text"], life["left"]), (KEEPS, 6 * 3600))
        self.assertNotIn("mix only", mixed["falls"][3])
        parts = self.ask("GET", f"rounds/{sheet['id']}")["parts"]
        self.assertEqual([(p["name"], p["skipped"]) for p in parts], [("Court", "A dog"), ("Lawn", ""), ("North green", "")])
        back = self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"skip": False})
        self.assertIn("Tank 1: Runs out on Court, after about 4,000 ft² of its 7,000 ft².", back["jobs"][0]["falls"])
        self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"why": "A dog"})
        treated = [{"value": n, "unit": "ft2"} for n in (0, 7000, 7000)]
        self.ask(
            "POST", f"rounds/{sheet['id']}/finish", {"used": [{"amount": {"value": "7", "unit": "fl_oz"}}], "treated": treated}
        )
        now = self.ask("GET", path)
        self.assertEqual([s["state"] for s in now["acts"][1]["stops"]], ["skipped", "done", "done"])
        self.ask("POST", f"{path}/stops/{stop['id']}/skip", {"skip": False}, 409)

    def test_it_is_put_in_order_anew_from_now_on(self) -> None:
        self.morning()
        made = self.take(go=True)
        self.at(NOW + timedelta(hours=2))
        again = self.ask("POST", f"outings/{made['id']}/again", {})
        self.assertTrue(again["acts"][0]["time"].startswith("08:20"))
        self.assertEqual({a["title"] for a in again["acts"]}, {a["title"] for a in made["acts"]})
        times = [a["begin"] for a in again["acts"]]
        self.assertEqual(times, sorted(times))

    def test_what_is_going_down_in_a_round_is_not_proposed_again(self) -> None:
        """Feed is a warning where it is twice, not a refusal: the round that is under way keeps it out all the same."""
        self.step("Feed", self.granules, 0.4, "lb/kft2:N", self.grounds[0])
        rows = {"row_id": RateRow.objects.get(product=self.granules).pk}
        dose = rows | {"rate": {"value": 0.4, "unit": "lb/kft2:N"}}
        spreader = next(m["id"] for m in self.ask("GET", "machines") if m["kind"] == "spreader")
        job = {"mix": [{"product_id": self.granules}], "parts": [{"area_id": self.grounds[0], "doses": [dose]}]}
        self.assertEqual(len(self.propose()["dues"]), 1)
        self.ask("POST", "rounds", job | {"machine_id": spreader}, 201)
        self.assertEqual(self.propose()["dues"], [])

    def test_one_for_a_later_day_leaves_today_free_and_a_missed_one_is_due_again(self) -> None:
        self.step("Feed", self.granules, 0.4, "lb/kft2:N")
        self.take(on="2026-05-21")
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2")
        week = self.ask("GET", "outings/week")
        self.assertEqual([o["day"] for o in week["open"]], ["Tomorrow, Thu 21 May 2026"])
        self.assertEqual({d["text"][:6] for d in week["next"]["dues"]}, {"Colour"})
        self.at(NOW + timedelta(days=2))
        week = self.ask("GET", "outings/week")
        self.assertEqual(week["open"], [])
        self.assertEqual({d["text"].split(" on")[0] for d in week["next"]["dues"]}, {"Colour", "Feed"})
        self.assertEqual([o["status_text"] for o in self.ask("GET", "outings")], ["missed"])

    def test_a_machine_is_not_out_twice_at_once(self) -> None:
        self.step("Colour", self.iron, 0.5, "fl_oz/kft2", self.grounds[0])
        self.take()
        self.step("More colour", self.iron, 0.5, "fl_oz/kft2", self.grounds[1])
        told = self.take(422)
        self.assertEqual(told["fields"][0]["field"], "clock")
        self.assertIn("Sprayer is out then with another outing", told["fields"][0]["problem"])
        self.take(clock="15:00")
        self.assertEqual(Outing.objects.count(), 2)

    def test_sent_twice_it_is_there_once_and_a_day_that_is_over_is_none(self) -> None:
        self.morning()
        key = str(uuid4())
        first = self.ask("POST", "outings", {}, 201, key=key)
        self.assertEqual(self.ask("POST", "outings", {}, 201, key=key)["id"], first["id"])
        self.assertEqual(self.take(422, on="2026-05-19")["fields"][0]["field"], "on")
        self.assertEqual(self.take(409)["code"], "conflict")
        self.assertEqual(OutingStop.objects.values("job", "area").distinct().count(), OutingStop.objects.count())

    def test_a_member_of_one_site_sees_its_outings_alone(self) -> None:
        self.morning()
        made = self.take()
        far = self.ask("POST", "sites", {"name": "Far", "time_zone": "America/New_York"}, 201)["id"]
        applicator = next(m for m in self.ask("GET", "members") if m["role"] == "applicator")
        self.ask(
            "PUT", f"members/{applicator['id']}", {"role": "applicator", "site_ids": [far], "version": applicator["version"]}
        )
        self.sign_in("applicator")
        self.assertEqual(self.ask("GET", "outings"), [])
        self.ask("GET", f"outings/{made['id']}", expect=404)


class Ahead(OutingTest):
    def events(self, content: bytes) -> dict[str, Event]:
        return {str(e["SUMMARY"]): e for e in Calendar.from_ical(content).walk("VEVENT") if isinstance(e, Event)}

    def test_a_private_address_carries_what_was_chosen_until_it_is_revoked(self) -> None:
        """Outings with their acts, locks and their ends; a stranger with the address reads it, one with another does not."""
        self.ask(
            "PUT", f"products/{self.iron}", FUNGICIDE | {"name": "Iron SL", "rules": {"reentry": {"value": 12, "unit": "h"}}}
        )
        self.morning()
        made = self.take(go=True)
        spray = next(j for j in made["jobs"] if j["kind"] == "spray")
        self.ask("POST", f"outings/{made['id']}/jobs/{spray['position']}/start", {}, 201)
        self.assertEqual(self.ask("GET", "outings/reminders")["address"], "")
        self.ask("POST", "outings/reminders", {"holds": ["outings", "locks"]})
        address = self.ask("POST", "outings/reminders/address")["address"]
        self.assertTrue(address.startswith("http://testserver/api/calendar/"))
        stranger = self.client_class()
        answer = stranger.get(address)
        self.assertIn("text/calendar", answer["Content-Type"])
        found = self.events(answer.content)
        outing = found["Outing: Spread Soaked 20-0-0, Water and Spray Iron SL"]
        self.assertEqual(outing.start, NOW)
        self.assertIn("Spread Soaked 20-0-0: Court, Lawn, North green", str(outing["DESCRIPTION"]))
        self.assertEqual(found["Court: over is no walking"].start, NOW + timedelta(hours=12))
        self.assertEqual([s for s in found if s.startswith("Colour on")], [], "windows were not chosen")
        self.assertEqual(stranger.get(address + "x").status_code, 404)
        again = self.ask("POST", "outings/reminders/address")["address"]
        self.assertEqual((stranger.get(address).status_code, stranger.get(again).status_code), (404, 200))
        self.ask("DELETE", "outings/reminders/address")
        self.assertEqual(stranger.get(again).status_code, 404)
        self.assertEqual(self.ask("POST", "outings/reminders", {"holds": ["tides"]}, 422)["fields"][0]["field"], "holds.0")

    def test_a_viewer_of_one_site_has_a_calendar_of_that_site_alone(self) -> None:
        self.morning()
        self.take()
        far = self.ask("POST", "sites", {"name": "Far", "time_zone": "America/New_York"}, 201)["id"]
        viewer = next(m for m in self.ask("GET", "members") if m["role"] == "viewer")
        self.ask("PUT", f"members/{viewer['id']}", {"role": "viewer", "site_ids": [far], "version": viewer["version"]})
        self.sign_in("viewer")
        address = self.ask("POST", "outings/reminders/address")["address"]
        self.assertEqual(self.events(self.client_class().get(address).content), {})


class Letters(OutingTest):
    """The letter of the day, into a simulated mailbox over real SMTP."""

    def setUp(self) -> None:
        super().setUp()
        self.box = Mailbox()
        self.addCleanup(self.box.close)
        mail = {"EMAIL_HOST": "127.0.0.1", "EMAIL_PORT": self.box.ports[0], "EMAIL_USE_TLS": False}
        held = override_settings(EMAIL_BACKEND="django.core.mail.backends.smtp.EmailBackend", **mail)
        held.enable()
        self.addCleanup(held.disable)

    def letters(self) -> list[dict[str, Any]]:
        with urlopen(f"http://127.0.0.1:{self.box.ports[1]}/letters", timeout=10) as answer:
            found: list[dict[str, Any]] = json.loads(answer.read())
        return found

    def asked(self) -> None:
        User.objects.filter(username="manager-alder").update(email="manager@example.org")
        self.assertEqual(self.ask("POST", "outings/reminders", {"holds": [], "mail": True})["no_mail"], "")

    def test_it_goes_out_once_a_day_from_five_on(self) -> None:
        self.morning()
        self.assertEqual(self.ask("GET", "outings/reminders")["no_mail"], "Give your e-mail address first.")
        self.asked()
        with patch("greenmeasure.common.clock.now", return_value=NOW - timedelta(hours=2)):  # 04:20 there
            call_command("send_summaries", verbosity=0)
        self.assertEqual(self.letters(), [])
        for _ in range(2):
            call_command("send_summaries", stdout=StringIO())
        (letter,) = self.letters()
        self.assertEqual(letter["to"], ["manager@example.org"])
        self.assertIn("Account alder, Wed 20 May 2026: 6 jobs are due.", letter["subject"].replace("\n", ""))
        self.assertIn("Spread Soaked 20-0-0: Court, Lawn, North green", letter["text"])
        self.assertIn("- Colour on Lawn", letter["text"])
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=1)):
            call_command("send_summaries", stdout=StringIO())
        self.assertEqual(len(self.letters()), 2)

    def test_what_cannot_be_sent_is_tried_again(self) -> None:
        self.asked()
        self.box.taker.refuse = True
        with self.assertRaises(CommandError):
            call_command("send_summaries", stdout=StringIO(), stderr=StringIO())
        self.box.taker.refuse = False
        call_command("send_summaries", stdout=StringIO())
        self.assertEqual(len(self.letters()), 1)

    def test_without_a_mail_server_it_says_so(self) -> None:
        with override_settings(EMAIL_HOST=""):
            self.assertIn("No letters go out", self.ask("GET", "outings/reminders")["no_mail"])
            with self.assertRaises(CommandError):
                call_command("send_summaries")
