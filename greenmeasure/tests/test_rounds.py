"""Rounds and the book: the sheet, the ticks, what was really used, the entry and its CSV."""

import csv
import io
import uuid
from datetime import UTC, date, datetime
from typing import Any

from greenmeasure.accounts.models import Site, User
from greenmeasure.book.models import Application, Entry
from greenmeasure.common.clock import local_day
from greenmeasure.common.names import put_back
from greenmeasure.rounds.models import Round
from greenmeasure.tests.base import FUNGICIDE, ApiTest


class RoundTest(ApiTest):
    def start(self, job: dict[str, Any] | None = None, key: str | None = None, expect: int = 201) -> Any:
        return self.ask("POST", "rounds", job or self.job(), expect, key or "")

    def tick(self, pk: int, load: int, act: str, done: bool = True, expect: int = 200) -> Any:
        return self.ask("POST", f"rounds/{pk}/ticks", {"load": load, "act": act, "done": done}, expect)

    def dress(self, begun: Any) -> None:
        for gear in begun["sheet"]["wear"]:
            if gear["when"] == "mixing":
                self.tick(begun["id"], 0, gear["key"])

    def finish(self, pk: int, used: Any = "4.3", treated: Any = 7000, expect: int = 200, **more: Any) -> Any:
        body = {
            "used": [{"amount": used if isinstance(used, dict) else {"value": used, "unit": "fl_oz"}}],
            "treated": [{"value": treated, "unit": "ft2"}],
        } | more
        said = self.ask("POST", f"rounds/{pk}/finish", body, expect)
        return said[0] if isinstance(said, list) else said


class Starting(RoundTest):
    def test_the_sheet_is_kept_as_it_was(self) -> None:
        begun = self.start()
        card = FUNGICIDE | {"rates": [{"phrase": "5 fl oz per acre"}], "note": "changed"}
        self.ask("PUT", f"products/{self.spray.pk}", card)
        self.assertEqual(self.ask("GET", f"rounds/{begun['id']}")["sheet"], begun["sheet"])

    def test_the_sheet_says_what_reckon_said_in_the_same_words(self) -> None:
        """A spray, a spray of a spoonful, granules; in US units and in metric ones."""
        for units in ("us", "metric"):
            self.account.units = units
            self.account.save()
            for job in (self.job(), self.job(share="1/100"), self.feed_job()):
                said, sheet = self.ask("POST", "reckon/job", job), self.start(job)["sheet"]
                for name in ("headline", "where", "machine", "passes", "capacity", "spray", "cautions", "label_rules", "wear"):
                    self.assertEqual(sheet[name], said[name], name)
                self.assertEqual(sheet["mix"][0]["amount"], said["mix"][0]["amount"]["text"])
                self.assertEqual(sheet["loads"], said["loads"])

    def test_above_the_label_is_refused_with_the_rule_quoted(self) -> None:
        # 1.2 is above the label's 0.8.
        said = self.start(self.job(rate={"value": 1.2, "unit": "fl_oz/kft2"}), expect=422)
        self.assertEqual(said["code"], "refused")
        self.assertIn("0.4 to 0.8 fl oz per 1000 ft²", said["message"])
        self.assertFalse(Round.objects.exists())

    def test_a_nutrient_above_its_label_only_warns(self) -> None:
        # 0.7 is above the label's 0.6.
        job = self.feed_job(rate={"value": 0.7, "unit": "lb/kft2:N"})
        self.assertEqual(self.ask("POST", "reckon/job", job)["judgement"]["stand"], "above")
        self.assertEqual(self.start(job)["parts"][0]["doses"][0]["rate"], "0.7 lb N/1000 ft²")

    def test_a_start_sent_twice_is_one_round(self) -> None:
        key = str(uuid.uuid4())
        self.assertEqual(self.start(key=key)["id"], self.start(key=key)["id"])

    def test_what_was_put_away_meanwhile_starts_no_round(self) -> None:
        for thing, field in ((self.spray, "mix.0.product_id"), (self.sprayer, "machine_id"), (self.area, "parts.0.area_id")):
            thing.refresh_from_db()
            thing.archive()
            said = self.faults("POST", "rounds", self.job())
            self.assertEqual(said, {field: f"{thing.name} has been put away."})
            put_back(thing)
        self.assertEqual(Round.objects.count(), 0)

    def test_a_round_needs_a_machine(self) -> None:
        self.assertEqual(self.start(self.job(machine_id=None), expect=422)["fields"][0]["field"], "machine_id")


class Sheets(RoundTest):
    """A sheet that lacks something takes nothing else with it: neither its round, nor the list of rounds."""

    def test_every_field_may_be_missing_and_round_and_list_still_answer(self) -> None:
        begun = self.start()
        self.start()
        whole = Round.objects.get(pk=begun["id"]).sheet
        for name in whole:
            Round.objects.filter(pk=begun["id"]).update(sheet={k: v for k, v in whole.items() if k != name})
            said = self.ask("GET", f"rounds/{begun['id']}")
            self.assertEqual(len(self.ask("GET", "rounds")), 2, name)
            if name in ("loads", "wear", "parts", "headline"):
                self.assertIn(name, said["sheet"]["problem"])
                self.assertIn("cannot be read", said["next"])
            self.ask("GET", "today")

    def test_any_field_of_its_loads_too(self) -> None:
        begun = self.start()
        whole = Round.objects.get(pk=begun["id"]).sheet
        for name in whole["loads"][0]:
            loads = [{k: v for k, v in load.items() if k != name} for load in whole["loads"]]
            Round.objects.filter(pk=begun["id"]).update(sheet=whole | {"loads": loads})
            self.assertEqual(len(self.ask("GET", f"rounds/{begun['id']}")["sheet"]["loads"]), 2, name)

    def test_what_is_no_sheet_at_all_is_told_and_can_be_given_up(self) -> None:
        begun = self.start()
        for wrong in ({}, [], "gone", {"version": 99}):
            Round.objects.filter(pk=begun["id"]).update(sheet=wrong)
            self.assertTrue(self.ask("GET", f"rounds/{begun['id']}")["sheet"]["problem"])
            self.assertEqual(self.ask("GET", "rounds")[0]["title"], "Test SC")
            self.tick(begun["id"], 0, "mixing-0", expect=422)
        self.assertEqual(self.ask("POST", f"rounds/{begun['id']}/give-up")["status"], "given_up")

    def test_the_document_is_in_core_terms_and_names_its_version(self) -> None:
        sheet = Round.objects.get(pk=self.start()["id"]).sheet
        self.assertEqual(sheet["version"], 3)
        self.assertEqual(sheet["mix"][0]["amount"], {"value": 4.2, "unit": "fl_oz", "text": ""})
        self.assertEqual(sheet["loads"][0]["volume"]["unit"], "gal")


class Ticking(RoundTest):
    def test_gear_first_then_the_loads(self) -> None:
        begun = self.start()
        self.assertIn("Put on", begun["next"])
        said = self.tick(begun["id"], 1, "half", expect=409)
        self.assertIn("put on", said["message"])
        self.dress(begun)
        said = self.tick(begun["id"], 1, "half")
        self.assertTrue(said["worn"])
        self.assertTrue(said["next"].startswith("Tank 1: Pour in: 2 3/8 fl oz of Test SC"))

    def test_every_act_of_every_load(self) -> None:
        begun = self.start()
        self.dress(begun)
        for load in begun["sheet"]["loads"]:
            for act in load["acts"]:
                said = self.tick(begun["id"], load["number"], act["key"])
        self.assertEqual(said["loads_done"], 2)
        self.assertIn("book", said["next"])

    def test_a_tick_sent_twice_is_one_and_can_be_taken_back(self) -> None:
        begun = self.start()
        for _ in range(2):
            said = self.tick(begun["id"], 0, "mixing-0")
        self.assertEqual([t["act"] for t in said["ticks"]], ["mixing-0"])
        self.assertEqual(self.tick(begun["id"], 0, "mixing-0", done=False)["ticks"], [])

    def test_what_the_sheet_does_not_hold_cannot_be_ticked(self) -> None:
        begun = self.start()
        for load, act in ((0, "no such"), (9, "half"), (1, "no such")):
            self.tick(begun["id"], load, act, expect=422)

    def test_given_up_and_taken_up_again(self) -> None:
        begun = self.start()
        path = f"rounds/{begun['id']}"
        self.assertEqual(self.ask("POST", f"{path}/give-up")["status"], "given_up")
        self.tick(begun["id"], 0, "mixing-0", expect=409)
        self.finish(begun["id"], expect=409)
        self.assertEqual(self.ask("POST", f"{path}/take-up")["status"], "under_way")
        self.ask("POST", f"{path}/take-up", expect=409)


class Finishing(RoundTest):
    def test_into_the_book_with_the_actual_rate(self) -> None:
        # 4.3 ÷ 7 = 0.6143; 4.3 ÷ 128 × 320 = 10.75.
        begun = self.start()
        entry = self.finish(begun["id"], wind="3 mph W", note="quiet")
        (one,) = entry["entries"]
        self.assertEqual((one["actual"], one["planned"]), ("0.6143 fl oz/1000 ft²", "0.6 fl oz/1000 ft²"))
        self.assertEqual((one["judgement"]["stand"], one["cost"], entry["wind"]), ("within", "10.75 USD", "3 mph W"))
        self.assertEqual(self.ask("GET", f"rounds/{begun['id']}")["application_ids"], [entry["id"]])

    def test_above_the_label_is_recorded_and_marked(self) -> None:
        # 9 ÷ 7 ÷ 0.6 − 1 = +114 %.
        begun = self.start()
        body = {"used": [{"amount": {"value": 9, "unit": "fl_oz"}}], "treated": [{"value": 7000, "unit": "ft2"}]}
        checked = self.ask("POST", f"rounds/{begun['id']}/actual", body)["parts"][0]["doses"][0]
        self.assertEqual(checked["against_plan"], "+114 % against the plan of 0.6 fl oz/1000 ft²")
        self.assertFalse(Entry.objects.exists())
        self.assertEqual(self.finish(begun["id"], used=9)["entries"][0]["judgement"]["stand"], "above")
        self.assertEqual(Entry.objects.get().stand, "above")
        self.assertIn("against the label", self.ask("GET", "book")["sentence"])

    def test_finished_twice_is_one_entry(self) -> None:
        begun = self.start()
        self.assertEqual(self.finish(begun["id"])["id"], self.finish(begun["id"], used=5)["id"])
        self.assertEqual(Entry.objects.count(), 1)

    def test_bad_input_names_its_fields_and_ends_nothing(self) -> None:
        begun = self.start()
        said = self.finish(begun["id"], used="-1", treated="lots", expect=422)
        self.assertEqual({f["field"] for f in said["fields"]}, {"used.0.amount", "treated.0"})
        self.assertEqual(Round.objects.get().status, "under_way")

    def test_used_by_weight_is_turned_by_the_density(self) -> None:
        """4.2 fl oz at 9 lb/gal weigh 4.2/128 × 9 = 0.2953125 lb (arithmetic)."""
        begun = self.start()
        entry = self.finish(begun["id"], used={"value": 0.2953125, "unit": "lb"})
        self.assertEqual(entry["entries"][0]["actual"], "0.6 fl oz/1000 ft²")

    def test_granules_by_nitrogen(self) -> None:
        # 18.2 × 0.20 ÷ 7 = 0.52.
        begun = self.start(self.feed_job())
        entry = self.finish(begun["id"], used={"value": "18.2", "unit": "lb"})
        self.assertEqual(entry["entries"][0]["actual"], "0.52 lb N/1000 ft²")

    def test_the_day_is_the_grounds_own_calendar_day(self) -> None:
        """01:30 UTC on 2 July is 21:30 on 1 July in New York; on 9 March 2025 the clocks there go forward."""
        account = Site(time_zone="America/New_York")
        self.assertEqual(local_day(account, datetime(2025, 7, 2, 1, 30, tzinfo=UTC)), date(2025, 7, 1))
        self.assertEqual(local_day(account, datetime(2025, 3, 9, 4, 59, tzinfo=UTC)), date(2025, 3, 8))
        self.assertEqual(local_day(account, datetime(2025, 3, 10, 3, 59, tzinfo=UTC)), date(2025, 3, 9))


class Book(RoundTest):
    def entries(self, *notes: str) -> None:
        for note in notes:
            self.finish(self.start()["id"], note=note)

    def rows(self, query: str = "") -> list[dict[str, str]]:
        answer = self.client.get(f"/api/accounts/alder/book/book.csv{query}")
        self.assertEqual(answer["Content-Type"], "text/csv; charset=utf-8")
        self.assertIn("alder-book-", answer["Content-Disposition"])
        return list(csv.DictReader(io.StringIO(b"".join(answer.streaming_content).decode())))  # type: ignore[attr-defined]

    def test_csv_holds_the_actual_rate_against_the_labels_range(self) -> None:
        # 4.3 fl oz over 7.
        self.entries("wet, windy")
        row = self.rows()[0]
        self.assertEqual((row["product"], row["area"], row["applicator"]), ("Test SC", "North green", "Manager alder"))
        self.assertEqual((row["label_low"], row["label_high"], row["rate_unit"]), ("0.4", "0.8", "fl oz/1000 ft²"))
        self.assertAlmostEqual(float(row["actual_rate"]), 4.3 / 7, places=12)
        self.assertEqual((row["against_label"], row["note"]), ("within", "wet, windy"))

    def test_a_note_is_no_formula_in_a_spreadsheet(self) -> None:
        """OWASP, CSV injection."""
        self.entries("=1+1", "@x", 'said "quotes", and\ncommas')
        self.assertEqual([r["note"] for r in self.rows()], ["'=1+1", "'@x", 'said "quotes", and\ncommas'])

    def test_search_narrows_book_and_csv_alike(self) -> None:
        self.entries("heron", "otter")
        self.assertEqual(self.ask("GET", "book?words=heron+green")["count"], 1)
        self.assertEqual([r["note"] for r in self.rows("?words=otter")], ["otter"])
        self.assertIn("No applications", self.ask("GET", "book?words=badger")["sentence"])

    def test_pages(self) -> None:
        self.entries("first")
        one = Application.objects.get()
        for _ in range(30):
            one.pk, one.round = None, None
            one.save()
        said = self.ask("GET", "book?page=9")
        self.assertEqual((said["count"], said["page"], said["pages"], len(said["applications"])), (31, 2, 2, 6))

    def test_an_entry_stays_when_its_product_is_put_away(self) -> None:
        self.entries("kept")
        self.ask("DELETE", f"products/{self.spray.pk}")
        self.assertEqual(self.ask("GET", "book")["applications"][0]["name"], "Test SC")


class Today(RoundTest):
    def test_it_says_the_state_and_the_next_thing(self) -> None:
        self.assertEqual(self.ask("GET", "today")["to"], "reckon")
        begun = self.start()
        said = self.ask("GET", "today")
        self.assertEqual(said["sentence"], "One round is under way: Test SC on North green, 0 of 2 loads out.")
        self.assertEqual(said["to"], f"round/{begun['id']}")
        self.finish(begun["id"])
        self.assertTrue(self.ask("GET", "today")["sentence"].startswith("Nothing is under way. The last job was Test SC"))

    def test_the_person_who_did_it_stays_named_after_leaving(self) -> None:
        self.sign_in("applicator")
        self.finish(self.start()["id"])
        User.objects.filter(username="applicator-alder").update(full_name="Somebody Else")
        self.assertEqual(self.ask("GET", "book")["applications"][0]["by"], "Applicator alder")
