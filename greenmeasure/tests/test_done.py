"""The day of a job: for another day and hour, done already, finished later, ground left out; and what was done all the same."""

from datetime import UTC, datetime, timedelta
from typing import Any
from unittest.mock import patch

from greenmeasure.book.models import Entry
from greenmeasure.rounds.models import Round
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest

NOW = datetime(2026, 8, 12, 14, 0, tzinfo=UTC)  # 10:00 in New York


class Day(ApiTest):
    """10:00 on 12 August in New York."""

    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)

    def done(self, expect: int = 201, reason: str = "", finish: dict[str, Any] | None = None, **more: Any) -> Any:
        used = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]} | (finish or {})
        return self.ask("POST", "rounds/done", {"job": self.job(**more), "finish": used, "reason": reason}, expect)

    def test_a_round_is_for_the_day_that_is_said(self) -> None:
        begun = self.ask("POST", "rounds", self.job(on="2026-08-14", clock="06:30"), 201)
        self.assertEqual(Round.objects.get(pk=begun["id"]).at, datetime(2026, 8, 14, 10, 30, tzinfo=UTC))
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=2)):
            said = self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": 4, "unit": "fl_oz"}}]})[0]
        self.assertEqual(said["applied_on"], "2026-08-14")

    def test_on_another_day_without_an_hour_it_is_eight_there(self) -> None:
        begun = self.ask("POST", "rounds", self.job(on="2026-08-14"), 201)
        self.assertEqual(Round.objects.get(pk=begun["id"]).at, datetime(2026, 8, 14, 12, 0, tzinfo=UTC))

    def test_days_and_hours_that_are_none(self) -> None:
        for more, field in (({"clock": "25:00"}, "clock"), ({"on": "1926-01-01"}, "on"), ({"on": "2999-01-01"}, "on")):
            self.assertEqual(list(self.faults("POST", "reckon/job", self.job(**more))), [field])

    def test_what_is_done_already_goes_in_the_book_with_its_day_and_hour(self) -> None:
        entry = self.done(on="2026-08-10", clock="06:45")[0]
        self.assertEqual((entry["applied_on"], entry["finished_at"]), ("2026-08-10", "2026-08-10T10:45:00Z"))
        self.assertEqual((entry["entries"][0]["against"], entry["entries"][0]["reason"]), ([], ""))
        self.assertEqual(Round.objects.get().status, Round.Status.DONE)
        self.assertEqual(self.done(on="2026-08-12", clock="11:00", expect=422)["fields"][0]["field"], "on")

    def test_done_already_on_two_areas(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)["id"]
        job = self.job()
        job["parts"] += [job["parts"][0] | {"area_id": bank}]
        body = {"job": job, "finish": {"used": [{"amount": {"value": 8.4, "unit": "fl_oz"}}]}}
        self.assertEqual([e["area"] for e in self.ask("POST", "rounds/done", body, 201)], ["North green", "Bank"])

    def test_sent_again_under_its_key_it_is_there_once(self) -> None:
        body = {"job": self.job(), "finish": {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}}
        first = self.ask("POST", "rounds/done", body, 201, "k")
        self.assertEqual(self.ask("POST", "rounds/done", body, 201, "k"), first)
        self.assertEqual(Entry.objects.count(), 1)

    def test_what_the_label_refuses_is_recorded_with_a_reason_and_marked(self) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": {"applications_per_season": 1}})
        self.done(on="2026-07-01")
        said = self.done(422)
        self.assertEqual(said["fields"][0]["field"], "reason")
        self.assertIn("application 2 of Test SC", said["fields"][0]["problem"])
        self.assertEqual((Entry.objects.count(), Round.objects.count()), (1, 1), "nothing is half saved")
        entry = self.done(reason="The contractor did not know")[0]
        self.assertEqual(entry["entries"][0]["reason"], "The contractor did not know")
        self.assertIn("the label allows 1", entry["entries"][0]["against"][0])
        self.assertIn("1 went against the label and is marked", self.ask("GET", "book")["sentence"])
        book = self.client.get("/api/accounts/alder/book/book.csv")
        self.assertIn("The contractor did not know", b"".join(book.streaming_content).decode())  # type: ignore[attr-defined]

    def test_above_the_label_it_is_recorded_too(self) -> None:
        # 1.2 is above the label's 0.8.
        high = {"rate": {"value": 1.2, "unit": "fl_oz/kft2"}, "finish": {"used": [{"amount": {"value": 8.4, "unit": "fl_oz"}}]}}
        self.assertEqual(self.done(422, **high)["fields"][0]["field"], "reason")
        self.assertEqual(self.done(reason="A slip of the jug", **high)[0]["entries"][0]["judgement"]["stand"], "above")

    def test_a_round_is_finished_for_the_hour_it_was_done(self) -> None:
        begun = self.ask("POST", "rounds", self.job(), 201)
        body = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        path = f"rounds/{begun['id']}/finish"
        self.assertEqual(list(self.faults("POST", path, body | {"on": "2026-08-13"})), ["on"])
        self.assertEqual(list(self.faults("POST", path, body | {"clock": "23:59"})), ["clock"])
        said = self.ask("POST", path, body | {"clock": "09:15"})[0]
        self.assertEqual(said["finished_at"], "2026-08-12T13:15:00Z")

    def test_ground_that_was_left_out_has_no_entry(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)["id"]
        job = self.job()
        job["parts"] += [job["parts"][0] | {"area_id": bank}]
        begun = self.ask("POST", "rounds", job, 201)
        path, used = f"rounds/{begun['id']}/finish", [{"amount": {"value": 4.2, "unit": "fl_oz"}}]
        none = [{"value": "0", "unit": "ft2"}, {"value": 0, "unit": "ft2"}]
        self.assertEqual(list(self.faults("POST", path, {"used": used, "treated": none})), ["treated.0"])
        one = [{"value": 7000, "unit": "ft2"}, {"value": "0", "unit": "ft2"}]
        said = self.ask("POST", path, {"used": used, "treated": one})
        self.assertEqual([(a["area"], a["entries"][0]["used"]) for a in said], [("North green", "4.2 fl oz")])

    def test_a_back_dated_application_is_held_against_what_followed_it(self) -> None:
        rows = [FUNGICIDE["rates"][0] | {"interval_low": 14}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rows})
        self.done(on="2026-08-10")
        before = self.ask("POST", "reckon/job", self.job(on="2026-08-01"))["parts"][0]["doses"][0]["findings"]
        self.assertIn("By 27 July.", next(f["sentence"] for f in before if f["key"] == "too-soon-before"))
        self.assertFalse(self.ask("POST", "reckon/job", self.job(on="2026-07-27"))["refused"])
