"""Trials: laid out on the true outline, histories kept apart, scored blind, and read with their uncertainty."""

from datetime import date, datetime
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from django.db import connection
from django.test.utils import CaptureQueriesContext

from greenmeasure.ground.models import Area
from greenmeasure.scouting.models import Scouting, Spot
from greenmeasure.tests.base import ApiTest, make_account
from greenmeasure.trials.models import Trial

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=ZoneInfo("America/New_York"))
RECTANGLE = {"method": "rectangle", "unit": "ft", "values": {"length": "120", "width": "60"}}


class TrialTest(ApiTest):
    """A lawn of 120 ft by 60 ft with an outline, on 12 August."""

    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)
        body = {"name": "Long lawn", "grass": "creeping_bentgrass", "measure": RECTANGLE, "hazards": []}
        self.lawn = int(self.ask("POST", "areas", body, 201)["id"])

    def asked(self, *names: str, **more: Any) -> dict[str, Any]:
        treatments = [{"name": n, "product_id": self.feed.pk} for n in names or ("Feed",)]
        return {"area_id": self.lawn, "treatments": treatments, "seed": 7, "name": "Does it green up?"} | more

    def begin(self, *names: str, **more: Any) -> dict[str, Any]:
        made: dict[str, Any] = self.ask("POST", "trials", self.asked(*names, **more), 201)
        return made

    def score(self, trial: dict[str, Any], marks: list[list[float]], expect: int = 201, **more: Any) -> dict[str, Any]:
        """Score a trial; `marks` by block, then by treatment."""
        body = {"scores": [{"plot_id": p["id"], "score": marks[p["block"] - 1][p["treatment"]]} for p in trial["plots"]]}
        made: dict[str, Any] = self.ask("POST", f"trials/{trial['id']}/scores", body | more, expect)
        return made

    def feed_on(self, area: int, on: str) -> None:
        job = self.feed_job(on=on, clock="07:30", area_id=area)
        used = {"used": [{"amount": {"value": "1", "unit": "lb"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)


class Layouts(TrialTest):
    def test_a_layout_is_looked_at_before_anything_is_kept(self) -> None:
        """120 ft cut into 6 × 3 plots of 6 ⅔ ft by 60 ft, 400 ft² each; 6 blocks of 3 show 1.42 σ√2 (own noncentral t)."""
        found = self.ask("POST", "trials/layout", self.asked("A", "B", least={"value": "6", "unit": "ft"}))
        self.assertEqual((found["blocks"], found["most"], len(found["plots"])), (6, 6, 18))
        self.assertEqual(found["sentence"], "Untreated and 2 treatments, 6 times each: 18 plots of 400 ft², 6.7 ft wide.")
        self.assertIn("four times out of five", found["shows"])
        self.assertEqual([f["name"] for f in found["facts"]], ["Untreated", "A", "B"])
        self.assertEqual({f["text"] for f in found["facts"]}, {"2,400 ft²"})
        self.assertEqual((Trial.objects.count(), Area.objects.filter(parent=self.lawn).count()), (0, 0))

    def test_halves_say_that_they_show_nothing_by_a_test(self) -> None:
        found = self.ask("POST", "trials/layout", self.asked(blocks=1))
        self.assertEqual(found["sentence"][:26], "Untreated and Feed, one pl")
        self.assertIn("by no test", found["shows"])
        self.assertEqual([f["key"] for f in found["findings"]], ["few"])

    def test_a_strip_is_a_swath_at_least(self) -> None:
        swath = self.sprayer.swath or 0  # a foot is 0.3048 m (NIST Handbook 44)
        found = self.ask("POST", "trials/layout", self.asked(machine_id=self.sprayer.pk))
        self.assertEqual(found["blocks"], int(120 * 0.3048 / (2 * swath) + 1e-6) if swath else 12)

    def test_the_other_way(self) -> None:
        found = self.ask("POST", "trials/layout", self.asked(turn="across", least={"value": "6", "unit": "ft"}))
        self.assertEqual(found["blocks"], 5)  # 60 ft hold 10 strips of 6 ft

    def test_bad_input_names_its_fields(self) -> None:
        ask = {
            "area_id": 999_999,
            "kind": "taste",
            "blocks": "1.5",
            "turn": "slanting",
            "least": {"value": "900", "unit": "ft"},
            "treatments": [{"name": "A", "product_id": 999_999}],
        }
        wrong = self.faults("POST", "trials/layout", ask)
        self.assertEqual(set(wrong), {"area_id", "kind", "blocks", "turn", "least", "treatments.0.product_id"})
        self.assertEqual(set(self.faults("POST", "trials/layout", {"area_id": self.lawn})), {"treatments"})
        self.assertEqual(set(self.faults("POST", "trials/layout", self.asked(machine_id=999_999))), {"machine_id"})
        self.assertEqual(set(self.faults("POST", "trials/layout", self.asked(scatter="0"))), {"scatter"})
        self.assertEqual(set(self.faults("POST", "trials/layout", self.asked(kind="disease", what="a cloud"))), {"what"})
        self.assertEqual(
            set(self.faults("POST", "trials", self.asked("A", "a", days="soon", name=" ", began_on="2027-01-01"))),
            {"treatments.1.name", "days", "name", "began_on"},
        )
        self.assertEqual(set(self.faults("POST", "trials", self.asked(began_on="2019-01-01"))), {"began_on"})
        self.assertEqual(Trial.objects.count(), 0)

    def test_ground_drawn_in_pieces_is_said(self) -> None:
        parts = [{"shape": "rectangle", "values": {"length": 40, "width": 30}}, {"shape": "circle", "values": {"radius": 10}}]
        measure = {"method": "composed", "unit": "ft", "parts": parts}
        body = {"name": "Two pieces", "grass": "creeping_bentgrass", "measure": measure, "hazards": []}
        made = self.ask("POST", "areas", body, 201)
        found = self.ask("POST", "trials/layout", self.asked(blocks=4) | {"area_id": made["id"]})
        self.assertEqual([f["key"] for f in found["findings"]], ["pieces"])

    def test_ground_without_an_outline_is_refused(self) -> None:
        wrong = self.faults("POST", "trials/layout", self.asked() | {"area_id": self.area.pk})
        self.assertIn("no outline", wrong["area_id"])

    def test_unequal_history_is_named(self) -> None:
        half = self.ask(
            "POST", "areas", {"name": "East end", "parent_id": self.lawn, "share": "1/2", "grass": "creeping_bentgrass"}, 201
        )
        self.feed_on(half["id"], "2026-06-03")
        self.feed_on(self.lawn, "2026-07-20")  # on all of it: that is alike
        found = self.ask("POST", "trials/layout", self.asked(blocks=5))
        (said,) = found["findings"]
        self.assertEqual(said["key"], "unequal")
        self.assertIn("Test 20-0-10 on East end alone, Wed 3 Jun", said["sentence"])
        self.assertNotIn("Jul", said["sentence"])


class Running(TrialTest):
    def test_each_treatment_is_a_part_with_a_past_of_its_own(self) -> None:
        made = self.begin("A", "B", blocks=5)
        parts = {t["name"]: t["area_id"] for t in made["treatments"]}
        areas = {a.pk: a for a in Area.objects.filter(parent=self.lawn)}
        self.assertEqual([areas[pk].name for pk in parts.values()], ["Long lawn: Untreated", "Long lawn: A", "Long lawn: B"])
        self.assertEqual({str(a.size) for a in areas.values()}, {"2,400 ft²"})  # a third of 7,200 ft² (arithmetic)
        self.assertEqual({a.grass for a in areas.values()}, {"creeping_bentgrass"})
        self.assertEqual(Spot.objects.filter(plots__treatment__trial=made["id"]).count(), 15)
        self.feed_on(parts["A"], "2026-08-12")
        now = self.ask("GET", f"trials/{made['id']}")
        self.assertEqual([t["past"] for t in now["treatments"]], [[], ["Wed 12 Aug 2026: Test 20-0-10"], []])
        self.assertEqual(now["findings"], [])
        for name, seen in (("A", 1), ("B", 0), ("Untreated", 0)):
            down = [x for x in self.ask("GET", f"areas/{parts[name]}/story")["events"] if x["title"].startswith("Test 20-0-10")]
            self.assertEqual(len(down), seen, name)

    def test_what_is_not_the_trials_own_is_named(self) -> None:
        made = self.begin("A", blocks=4)
        untreated, fed = (t["area_id"] for t in made["treatments"])
        self.feed_on(untreated, "2026-08-12")
        sprayed = self.job(area_id=fed, on="2026-08-12", clock="07:30")
        used = {"used": [{"amount": {"value": 2, "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": sprayed, "finish": used, "reason": "It was so."}, 201)
        found = self.ask("GET", f"trials/{made['id']}")["findings"]
        self.assertEqual([f["key"] for f in found], ["untreated", "stray"])

    def test_scores_are_read_with_their_uncertainty(self) -> None:
        """The ratings of `core.tests.test_trial`: A 0.8 and B 1.4 marks more, LSD 0.489 (worked by hand)."""
        made = self.begin("A", "B", blocks=5, began_on="2026-08-05")
        self.assertEqual(made["due"], "Day 7: score it by quality as a whole.")
        self.assertEqual(len(self.ask("GET", "today")["trials"]), 1)
        told = self.score(made, [[5.5, 6.5, 7], [6, 6.5, 7.5], [5, 6, 6], [6, 7, 7], [5.5, 6, 7.5]])
        (reading,) = told["readings"]
        self.assertEqual(reading["marks"], ["5.6", "6.4", "7"])
        self.assertEqual(reading["text"], "A difference is shown: A 0.8 marks more and B 1.4 marks more than untreated.")
        self.assertEqual(reading["differences"][0]["text"], "A: 0.8 marks more than untreated, likely +0.31 to +1.29 (95 %).")
        self.assertIn({"name": "Least significant difference", "text": "0.49, at 5 %"}, reading["facts"])
        self.assertEqual(told["due"], "")
        self.assertEqual(told["next"], "Next on Wed 19 Aug 2026, day 14.")
        self.assertEqual(self.ask("GET", "today")["trials"], [])
        self.assertEqual(Scouting.objects.filter(kind="quality").count(), 15)

    def test_no_difference_is_said_plainly(self) -> None:
        made = self.begin(blocks=4)
        told = self.score(made, [[6, 6.5], [6, 5.5], [5, 6], [7, 6.5]])
        self.assertEqual(told["readings"][0]["text"], "No difference could be shown. That is not the same as none.")
        self.assertFalse(told["readings"][0]["differences"][0]["shown"])

    def test_halves_give_two_marks_and_no_proof(self) -> None:
        told = self.score(self.begin(blocks=1), [[5, 8]])
        self.assertEqual(told["readings"][0]["differences"][0]["text"], "Feed: 3 marks more than untreated.")
        self.assertIn("cannot be told from what the ground does", told["readings"][0]["text"])

    def test_differences_before_anything_went_down_are_named(self) -> None:
        told = self.score(self.begin(blocks=4), [[5, 6], [5, 6.5], [5.5, 6.5], [5, 6]])
        self.assertEqual([f["key"] for f in told["findings"]], ["start"])

    def test_blocks_that_are_not_whole_are_left_out_and_said(self) -> None:
        made = self.begin(blocks=4)
        body = {"scores": [{"plot_id": p["id"], "score": "6" if p["block"] < 4 else ""} for p in made["plots"]]}
        body["scores"] = [
            s | {"score": "7"} if made["plots"][i]["treatment"] and s["score"] else s for i, s in enumerate(body["scores"])
        ]
        (reading,) = self.ask("POST", f"trials/{made['id']}/scores", body, 201)["readings"]
        self.assertIn({"name": "Left out", "text": "1 block not scored whole"}, reading["facts"])
        self.assertIn("do not scatter", reading["text"])

    def test_a_plot_scored_anew_has_its_former_score_struck(self) -> None:
        # Marks as given: 6, then 7.
        made = self.begin(blocks=4)
        self.score(made, [[5, 6]] * 4)
        self.score(made, [[5, 7]] + [[5, 6]] * 3)
        struck = Scouting.objects.exclude(struck_at=None)
        self.assertEqual([(s.score, s.struck_why) for s in struck], [(6.0, "Scored again")])
        self.assertEqual(Scouting.objects.filter(struck_at=None).count(), 8)

    def test_several_scorers_of_one_day_are_named(self) -> None:
        made = self.begin(blocks=4)
        self.score(made, [[5, 6]] * 4)
        self.sign_in("applicator")
        told = self.score(made, [[5, 7]] + [[5, 6]] * 3)
        self.assertIn("scorers", [f["key"] for f in told["findings"]])

    def test_bad_scores_name_their_plot_and_keep_nothing(self) -> None:
        made = self.begin(blocks=4, began_on="2026-08-05")
        first, second = made["plots"][0]["id"], made["plots"][1]["id"]
        at = f"trials/{made['id']}/scores"
        body: dict[str, Any] = {
            "scores": [{"plot_id": first, "score": "10"}, {"plot_id": 999_999, "score": "5"}, {"plot_id": second, "score": "6"}]
        }
        self.assertEqual(set(self.faults("POST", at, body)), {"scores.0.score", "scores.1.plot_id"})
        for on in ("2026-08-04", "2026-08-13"):
            self.assertEqual(set(self.faults("POST", at, {"on": on, "scores": [{"plot_id": first, "score": 6}]})), {"on"})
        self.assertEqual(set(self.faults("POST", at, {"scores": [{"plot_id": first, "score": " "}]})), {"scores"})
        self.assertFalse(Scouting.objects.filter(kind="quality").exists())

    def test_weeds_are_scored_by_their_share(self) -> None:
        made = self.begin(kind="weed", what="crabgrass", blocks=4)
        self.assertEqual((made["per"], made["most"]), ("%", 100.0))  # of the turf
        told = self.score(made, [[20, 5], [30, 0], [25, 5], [20, 2]])
        self.assertEqual(told["readings"][0]["text"], "A difference is shown: Feed 20.8 % less than untreated.")
        self.assertEqual(Scouting.objects.filter(kind="weed", seen=False).count(), 1)

    def test_it_is_changed_ended_and_taken_up_again(self) -> None:
        made = self.begin("A", blocks=4)
        at = f"trials/{made['id']}"
        body = {"name": "Greener?", "days": "3 10", "note": "By one person", "version": made["version"]}
        changed = self.ask("PUT", at, body)
        self.assertEqual((changed["name"], changed["days"]), ("Greener?", "3, 10"))
        self.ask("PUT", at, body, 409)
        ended = self.ask("POST", f"{at}/end")
        self.assertTrue(ended["ended"])
        self.assertEqual(Area.objects.filter(parent=self.lawn, archived_at=None).count(), 0)
        self.ask("POST", f"{at}/end", expect=409)
        self.assertEqual(self.ask("GET", "trials")["sentence"], "No trial is under way.")
        self.assertFalse(self.ask("POST", f"{at}/resume")["ended"])
        self.assertEqual(Area.objects.filter(parent=self.lawn, archived_at=None).count(), 2)
        self.ask("POST", f"{at}/resume", expect=409)

    def test_one_trial_stands_on_a_ground_at_a_time(self) -> None:
        first = self.begin(blocks=2)
        wrong = self.faults("POST", "trials", self.asked(name="Another"))
        self.assertIn("Does it green up?", wrong["area_id"])
        part = first["treatments"][0]["area_id"]
        self.assertIn("area_id", self.faults("POST", "trials/layout", self.asked() | {"area_id": part}))
        self.ask("POST", f"trials/{first['id']}/end")
        self.begin(name="Another", blocks=2)
        self.ask("POST", f"trials/{first['id']}/resume", expect=409)

    def test_one_begun_by_mistake_is_taken_out_and_one_with_scores_is_not(self) -> None:
        made = self.begin(blocks=2)
        self.ask("DELETE", f"trials/{made['id']}", expect=204)
        self.assertEqual(self.ask("GET", "trials")["trials"], [])
        self.assertEqual(Area.objects.filter(parent=self.lawn, archived_at=None).count(), 0)
        again = self.begin(blocks=2)
        self.score(again, [[5, 6], [5, 6]])
        self.ask("DELETE", f"trials/{again['id']}", expect=409)

    def test_the_map_goes_on_the_sheet_of_a_round(self) -> None:
        made = self.begin("A", blocks=4)
        fed = made["treatments"][1]
        started = self.ask("POST", "rounds", self.feed_job(area_id=fed["area_id"]), 201)
        (found,) = self.ask("GET", f"trials/on-round/{started['id']}")
        own = [p["number"] for p in found["plots"] if p["treatment"] in found["own"]]
        self.assertEqual(fed["plots"], f"Plots {own[0]}, {own[1]}, {own[2]} and {own[3]}")
        self.assertIn("Mark their corners first", found["text"])
        other = self.ask("POST", "rounds", self.job(), 201)
        self.assertEqual(self.ask("GET", f"trials/on-round/{other['id']}"), [])

    def test_nobody_sees_anothers(self) -> None:
        made = self.begin(blocks=2)
        make_account("birch")
        self.sign_in("manager", "birch")
        self.ask("GET", f"/api/accounts/birch/trials/{made['id']}", expect=404)
        self.assertEqual(self.ask("GET", "/api/accounts/birch/trials")["trials"], [])

    def test_the_day_of_looking_is_the_latest_that_has_come(self) -> None:
        made = self.begin(blocks=4, began_on="2026-07-20", days="0, 7, 14, 28")
        self.assertEqual(made["due"], "Day 14: score it by quality as a whole, 9 days late.")
        told = self.score(made, [[5, 6], [5, 6.5], [5.5, 6.5], [5, 6]], on=str(date(2026, 8, 3)))
        self.assertEqual((told["due"], told["next"]), ("", "Next on Mon 17 Aug 2026, day 28."))

    def test_a_list_of_many_is_asked_for_as_often_as_of_one(self) -> None:
        self.score(self.begin(blocks=2), [[5, 6], [5, 6]])
        for path in ("trials", "today"):
            self.ask("GET", path)
        with CaptureQueriesContext(connection) as few:
            self.ask("GET", "trials")
        for i in range(3):
            self.ask("POST", f"trials/{Trial.objects.latest('pk').pk}/end")
            self.score(self.begin(blocks=2, name=f"Again {i}"), [[5, 6], [5, 7]])
        self.ask("GET", "trials")
        with CaptureQueriesContext(connection) as many:
            self.assertEqual(len(self.ask("GET", "trials")["trials"]), 4)
        self.assertEqual(len(many), len(few))
