"""Spots: one mix over several outings, each by its own ground, until the tank is empty. Sums are by hand, beside each check."""

from datetime import timedelta
from typing import Any
from unittest.mock import patch

from greenmeasure.book.models import Application
from greenmeasure.common import clock
from greenmeasure.kit.models import Machine
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest
from greenmeasure.tests.test_kit import q

INTERVAL = {"use": "curative", "phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "interval_low": 14, "interval_high": 21}


class Spots(ApiTest):
    """1 gal at 1 gal/1000 ft² reaches 1,000 ft² of the green's 7,000; at 0.6 fl oz/1000 ft² it takes 0.6 fl oz."""

    def setUp(self) -> None:
        super().setUp()
        self.card(rates=[INTERVAL], rules={"mixed_life": q(24, "h")})

    def card(self, **more: Any) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | more)
        self.spray = Product.objects.get(pk=self.spray.pk)

    def spotted(self, spray: Any = 1, unit: str = "gal", **more: Any) -> dict[str, Any]:
        job = self.job(spots=True, **more)
        for part in job["parts"]:
            part["spray"] = q(spray, unit)
        return job

    def begun(self, **more: Any) -> int:
        return int(self.ask("POST", "rounds", self.spotted(**more), 201)["id"])

    def out(self, pk: int, expect: int = 201, **more: Any) -> Any:
        return self.ask("POST", f"rounds/{pk}/outings", more, expect)

    # --- in Reckon

    def test_so_much_mix_takes_so_much_product_and_reaches_so_far(self) -> None:
        said = self.ask("POST", "reckon/job", self.spotted())
        self.assertEqual(said["parts"][0]["treated"]["text"], "1,000 ft²")
        self.assertIn("0.6 fl oz", said["headline"])
        self.assertIn("for spots on North green", said["headline"])

    def test_a_label_that_gives_only_a_strength_is_mixed_by_it(self) -> None:
        """1.5 fl oz/gal × 2 gal are 3 fl oz."""
        self.card(rates=[{"phrase": "1.5 fl oz per gallon of water"}])
        job = self.spotted(2, rate=q(1.5, "fl_oz/gal"), row_id=self.spray.rates.get().pk)
        self.assertIn("3 fl oz", self.ask("POST", "reckon/job", job)["headline"])

    def test_more_mix_than_the_area_takes_is_told_with_the_most(self) -> None:
        fault = self.ask("POST", "reckon/job", self.spotted(8), 422)["fields"][0]
        self.assertEqual(fault["field"], "parts.0.spray")
        self.assertIn("Mix at most 7 gal", fault["remedy"])

    def test_spots_ask_for_a_sprayer_and_one_pass(self) -> None:
        self.assertIn("machine_id", self.faults("POST", "reckon/job", self.job(spots=True, machine_id=None)))
        self.assertIn("machine_id", self.faults("POST", "reckon/job", self.feed_job(spots=True)))
        self.assertIn("passes", self.faults("POST", "reckon/job", self.spotted(passes=2)))
        self.assertIn("parts.0.spray", self.faults("POST", "reckon/job", self.spotted("much")))

    # --- outings

    def test_each_outing_is_in_the_book_by_its_own_ground(self) -> None:
        pk = self.begun()
        left = self.out(pk, spray=q(0.25, "gal"))["spots"]
        self.assertEqual((left["left"]["text"], len(left["outings"]), left["outings"][0]["treated"]), ("0.75 gal", 1, "250 ft²"))
        self.out(pk, treated=q(300, "ft2"))
        last = self.out(pk, spray=q(0.2, "gal"), treated=q(400, "ft2"))["spots"]
        self.assertEqual(last["left"]["text"], "0.25 gal")  # 1 − 0.25 − 0.3 − 0.2 gal
        made = list(Application.objects.filter(round_id=pk).order_by("position"))
        self.assertEqual([a.spots for a in made], [True] * 3)
        self.assertEqual([round(a.treated_value) for a in made], [250, 300, 400])
        # 0.6 fl oz/gal: 0.15, 0.18, 0.12 fl oz; the last on 400 ft² is 0.3 fl oz/1000 ft², below the label's 0.4.
        entries = [a.entries.get() for a in made]
        self.assertEqual([round(e.used.to("fl_oz").value, 3) for e in entries if e.used], [0.15, 0.18, 0.12])
        self.assertEqual([e.stand for e in entries], ["within", "within", "below"])

    def test_what_was_measured_into_the_tank_is_what_goes_out(self) -> None:
        pk = self.begun()
        for gear in self.ask("GET", f"rounds/{pk}")["sheet"]["wear"]:
            self.ask("POST", f"rounds/{pk}/ticks", {"load": 0, "act": gear["key"], "done": True})
        self.ask("POST", f"rounds/{pk}/poured", {"load": 1, "place": 0, "amount": q(0.8, "fl_oz")})
        self.out(pk, spray=q(0.5, "gal"))
        entry = Application.objects.get(round_id=pk).entries.get()
        assert entry.used
        self.assertAlmostEqual(entry.used.to("fl_oz").value, 0.4)

    def test_more_than_is_left_is_refused_and_nothing_is_kept(self) -> None:
        pk = self.begun()
        self.out(pk, spray=q(0.7, "gal"))
        fault = self.out(pk, 422, spray=q(0.4, "gal"))["fields"][0]
        self.assertEqual((fault["field"], "0.3 gal that is left" in fault["problem"]), ("spray", True))
        self.assertEqual(Application.objects.filter(round_id=pk).count(), 1)

    def test_an_outing_that_cannot_be_names_its_field(self) -> None:
        pk = self.begun()
        for given, field in (
            ({}, "spray"),
            ({"spray": q("", "gal")}, "spray"),
            ({"spray": q(-1, "gal")}, "spray"),
            ({"spray": q(1, "lb")}, "spray"),
            ({"treated": q(9000, "ft2"), "spray": q(0.1, "gal")}, "treated"),
            ({"spray": q(0.1, "gal"), "place": 1}, "place"),
            ({"spray": q(0.1, "gal"), "on": "2099-01-01"}, "on"),
        ):
            with self.subTest(given):
                self.assertEqual(self.out(pk, 422, **given)["fields"][0]["field"], field)
        self.assertFalse(Application.objects.exists())

    def test_lots_go_down_by_what_went_out_and_by_what_was_thrown_away(self) -> None:
        lot = self.ask("POST", f"products/{self.spray.pk}/lots", {"number": "A1", "left": q(10, "fl_oz")}, 201)["lots"][0]["id"]
        pk = self.begun()
        self.out(pk, spray=q(0.5, "gal"), lots=[lot])
        here = self.spray.lots.get(pk=lot)
        self.assertAlmostEqual(here.left.to("fl_oz").value, 9.7)
        self.assertEqual(Application.objects.get(round_id=pk).entries.get().lot, "A1")
        self.ask("POST", f"rounds/{pk}/empty", {"how": "disposed"})
        here.refresh_from_db()
        self.assertAlmostEqual(here.left.to("fl_oz").value, 9.4)

    def test_several_lawns_are_one_mix(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)["id"]
        job = self.spotted(0.5)
        job["parts"].append(job["parts"][0] | {"area_id": bank})
        pk = self.ask("POST", "rounds", job, 201)["id"]
        self.out(pk, spray=q(0.8, "gal"), place=1)
        left = self.out(pk, spray=q(0.2, "gal"), place=0)["spots"]
        self.assertEqual([o["area"] for o in left["outings"]], ["Bank", "North green"])
        self.assertTrue(left["used_up"])

    # --- its end

    def test_it_is_sprayed_out_once_nothing_is_left(self) -> None:
        pk = self.begun()
        self.out(pk, spray=q(0.5, "gal"))
        self.assertIn("0.5 gal is left", self.ask("POST", f"rounds/{pk}/empty", {"how": "sprayed"}, 409)["message"])
        self.out(pk, spray=q(0.5, "gal"))
        done = self.ask("POST", f"rounds/{pk}/empty", {"how": "sprayed"})
        self.assertEqual((done["status"], done["spots"]["sentence"]), ("done", "The mix is sprayed out."))
        self.out(pk, 409, spray=q(0.1, "gal"))

    def test_disposed_of_before_any_outing_is_given_up(self) -> None:
        pk = self.begun()
        done = self.ask("POST", f"rounds/{pk}/empty", {"how": "disposed"})
        self.assertEqual((done["status"], done["spots"]["emptied"]), ("given_up", "disposed"))

    def test_what_was_disposed_of_is_not_taken_up_again(self) -> None:
        pk = self.begun()
        self.ask("POST", f"rounds/{pk}/empty", {"how": "disposed"})
        self.assertIn("disposed of", self.ask("POST", f"rounds/{pk}/take-up", {}, 409)["message"])
        self.assertEqual(Round.objects.get(pk=pk).status, "given_up")

    def test_an_outing_sent_twice_counts_once(self) -> None:
        pk, body = self.begun(), {"spray": q(0.5, "gal")}
        for _ in range(2):
            self.ask("POST", f"rounds/{pk}/outings", body, 201, key="5d1f3f6e-2f0b-4c53-9f4e-6a0b6d8e2a12")
        self.assertEqual(Application.objects.filter(round_id=pk).count(), 1)

    def test_a_mix_of_which_some_is_in_the_book_is_neither_given_up_nor_finished_whole(self) -> None:
        pk = self.begun()
        self.out(pk, spray=q(0.5, "gal"))
        self.ask("POST", f"rounds/{pk}/give-up", {}, 409)
        self.ask("POST", f"rounds/{pk}/finish", {"used": [{"amount": q(0.6, "fl_oz")}]}, 409)

    def test_a_round_to_no_spots_has_no_outings(self) -> None:
        pk = self.ask("POST", "rounds", self.job(), 201)["id"]
        self.out(pk, 409, spray=q(0.5, "gal"))
        self.ask("POST", f"rounds/{pk}/empty", {"how": "disposed"}, 409)
        self.assertIsNone(self.ask("GET", f"rounds/{pk}")["spots"])

    # --- its age

    def test_a_mix_has_an_age_and_is_not_used_past_its_labels_time(self) -> None:
        pk = self.begun()
        self.assertFalse(self.out(pk, spray=q(0.1, "gal"))["spots"]["stale"])
        with patch("greenmeasure.common.clock.now", return_value=clock.now() + timedelta(hours=25)):
            here = self.ask("GET", f"rounds/{pk}")["spots"]
            self.assertTrue(here["stale"])
            self.assertIn("25 h old", here["life"])
            self.assertIn("0.9 gal left, too old", [r["left"] for r in self.ask("GET", "rounds")])
            self.assertIn("dispose of it", self.ask("GET", f"rounds/{pk}")["next"])
            self.assertIn("do not spray it", here["life"])
            self.assertEqual(self.out(pk, 422, spray=q(0.1, "gal"))["fields"][0]["field"], "reason")
            self.out(pk, spray=q(0.1, "gal"), reason="Found too late")
        entry = Application.objects.get(round_id=pk, position=1).entries.get()
        self.assertIn("by its label, not later", entry.against)
        self.assertEqual(entry.reason, "Found too late")

    # --- what it does to the ground

    def test_spots_of_yesterday_do_not_lock_the_lawn(self) -> None:
        """700 ft² in spots, of 7,000 ft²: the lawn may be sprayed, its spots are to be left out."""
        pk = self.begun()
        self.out(pk, spray=q(0.7, "gal"))
        self.ask("POST", f"rounds/{pk}/empty", {"how": "disposed"})
        said = self.ask("POST", "reckon/job", self.job())
        found = said["parts"][0]["doses"][0]["findings"]
        self.assertFalse([f for f in found if f["act"] == "refuse"], found)
        warned = [f["sentence"] for f in found if "Leave those spots out." in f["sentence"]]
        self.assertTrue(warned)
        self.ask("POST", "rounds", self.job(), 201)

    def test_its_locks_are_told_of_the_spots(self) -> None:
        self.card(rates=[INTERVAL], rules={"seed_before": {"value": 21, "unit": "day"}})
        self.out(self.begun(), spray=q(0.5, "gal"))
        for path in ("sky/locks", f"sky/locks?area_id={self.area.pk}"):
            sentences = [x["sentence"] for x in self.ask("GET", path) if x["what"] == "seed"]
            self.assertEqual([s.split(" until ")[0] for s in sentences], ["No seeding on North green, spots"])

    def test_a_lawn_of_yesterday_stands_against_spots_today(self) -> None:
        whole = self.ask("POST", "rounds", self.job(), 201)
        self.ask("POST", f"rounds/{whole['id']}/finish", {"used": [{"amount": q(4.2, "fl_oz")}]})
        self.assertIn("14", self.ask("POST", "rounds", self.spotted(), 422)["message"])

    def test_an_outing_after_the_lawn_was_sprayed_asks_why(self) -> None:
        pk = self.begun()
        other = Machine.objects.create(account=self.account, name="Other", kind="sprayer", capacity_value=4, capacity_unit="gal")
        Machine.objects.filter(pk=other.pk).update(output_value=1, output_unit="gal/kft2")
        self.ask("POST", f"rounds/{self.done_whole(other)}/finish", {"used": [{"amount": q(4.2, "fl_oz")}]})
        self.assertEqual(self.out(pk, 422, spray=q(0.1, "gal"))["fields"][0]["field"], "reason")
        self.out(pk, spray=q(0.1, "gal"), reason="A spot was missed")
        self.assertEqual(Application.objects.get(round_id=pk).entries.get().reason, "A spot was missed")

    def done_whole(self, machine: Machine) -> int:
        made = self.ask("POST", "rounds", self.job(machine_id=machine.pk), 201)
        return int(made["id"])

    def test_what_is_left_stays_under_way_and_a_second_outing_is_free(self) -> None:
        """Other spots of the same mix the next day: what was spotted before warns, it does not refuse."""
        pk = self.begun()
        self.out(pk, spray=q(0.3, "gal"))
        self.out(pk, spray=q(0.3, "gal"))
        self.assertEqual(Round.objects.get(pk=pk).status, "under_way")

    def test_the_book_says_spots_and_its_csv_brings_them_in_again(self) -> None:
        self.out(self.begun(), spray=q(0.7, "gal"))
        self.assertEqual(self.ask("GET", "book")["applications"][0]["area"], "North green, spots")
        answer: Any = self.client.get("/api/accounts/alder/book/book.csv")
        text = b"".join(answer.streaming_content).decode()
        Application.objects.all().delete()
        Round.objects.all().delete()
        self.assertEqual([x["act"] for x in self.ask("POST", "rounds/import", {"text": text})["lines"]], ["add"])
        again = Application.objects.get()
        self.assertEqual((again.spots, str(again.treated)), (True, "700 ft²"))
        self.assertFalse([f for f in self.first_findings() if f["act"] == "refuse"])

    def first_findings(self) -> list[dict[str, Any]]:
        found: list[dict[str, Any]] = self.ask("POST", "reckon/job", self.job())["parts"][0]["doses"][0]["findings"]
        return found

    def test_an_outing_is_repeated_as_spots(self) -> None:
        pk = self.begun()
        made = self.out(pk, spray=q(0.7, "gal"))["application_ids"][0]
        job = self.ask("GET", f"reckon/again/{made}")["job"]
        self.assertTrue(job["spots"])
        self.assertEqual((len(job["parts"]), job["parts"][0]["spray"]), (1, {"value": "89.6", "unit": "fl_oz"}))
