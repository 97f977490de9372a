"""The book put right: corrected or struck with a reason; rules, budgets, stock and story follow; the former stays readable."""

from datetime import datetime, timedelta
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from greenmeasure.book.models import Application, Entry, Former
from greenmeasure.shelf.models import Lot
from greenmeasure.tests.base import FUNGICIDE, ApiTest

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=ZoneInfo("America/New_York"))


def oz(value: float | str) -> dict[str, Any]:
    return {"value": value, "unit": "fl_oz"}


class Corrections(ApiTest):
    """4.2 fl oz on 7,000 ft², 0.6 fl oz/1000 ft² of a label of 0.4 to 0.8, from a lot of 40 fl oz, on 10 August at 07:00."""

    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)
        row = FUNGICIDE["rates"][0] | {"interval_low": 14, "interval_high": 28}
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": [row]})
        self.lot = Lot.objects.create(product=self.spray, number="L1", left_value=40, left_unit="fl_oz")
        used = {"used": [{"amount": oz(4.2), "lot_id": self.lot.pk}], "wind": "3 mph"}
        job = self.job(on="2026-08-10", clock="07:00", row_id=self.spray.rates.get().pk)
        self.made = self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": ""}, 201)[0]

    def correct(self, expect: int = 200, **more: Any) -> Any:
        body = {"version": 0, "why": "Misread the tank."} | more
        return self.ask("POST", f"book/{self.made['id']}/correct", body, expect)

    def strike(self, expect: int = 200, **more: Any) -> Any:
        return self.ask("POST", f"book/{self.made['id']}/strike", {"version": 0, "why": "It was the other green."} | more, expect)

    def left(self) -> float:
        self.lot.refresh_from_db()
        return round(self.lot.left_value, 6)

    def findings(self) -> set[str]:
        job = self.job(on="2026-08-12", clock="12:00", row_id=self.spray.rates.get().pk)
        said = self.ask("POST", "reckon/job", job)
        return {f["key"] for p in said["parts"] for d in p["doses"] for f in d["findings"]}

    def test_an_amount_takes_rate_verdict_and_lot_with_it(self) -> None:
        """6.3 fl oz on 7,000 ft² are 0.9 fl oz/1000 ft², above 0.8; the lot gives 2.1 more (arithmetic)."""
        self.assertEqual(self.left(), 35.8)
        said = self.correct(used=[{"position": 0, "amount": oz("6.3")}])
        entry = said["entries"][0]
        self.assertEqual(
            (entry["used"], entry["actual"], entry["judgement"]["stand"]), ("6.3 fl oz", "0.9 fl oz/1000 ft²", "above")
        )
        self.assertEqual(self.left(), 33.7)
        changes = [(c["what"], c["was"], c["now"]) for c in said["formers"][0]["changes"]]
        self.assertEqual(
            changes, [("Test SC used", "4.2 fl oz", "6.3 fl oz"), ("Test SC, rate", "0.6 fl oz/1000 ft²", "0.9 fl oz/1000 ft²")]
        )
        self.assertEqual((said["formers"][0]["by"], said["formers"][0]["why"]), ("Manager alder", "Misread the tank."))
        self.assertEqual(
            self.ask("GET", "book")["sentence"], "1 application in the book; 1 went against the label and is marked."
        )

    def test_facts_for_the_seasons_rules_go_with_the_amount(self) -> None:
        """Half as much is half of each (arithmetic)."""
        before = Entry.objects.get().facts
        self.correct(used=[{"position": 0, "amount": oz("2.1")}])
        after = Entry.objects.get().facts
        self.assertAlmostEqual(after["litres"], before["litres"] / 2)
        self.assertEqual({k for k in before if before[k] != after[k]} - {"litres", "grams", "actives"}, set())
        for name, grams in before["actives"].items():
            self.assertAlmostEqual(after["actives"][name], grams / 2)

    def test_a_day_moves_what_the_label_asks_for(self) -> None:
        """14 days from 10 August are not over on the 12th; from 20 July they are (calendar)."""
        self.assertIn("too-soon", self.findings())
        said = self.correct(on="2026-07-20", clock="06:30", wind="5 mph", note="Dew on it.")
        self.assertNotIn("too-soon", self.findings())
        self.assertEqual(
            (said["applied_on"], said["clock"], said["wind"], said["note"]), ("2026-07-20", "06:30", "5 mph", "Dew on it.")
        )
        self.assertEqual([c["what"] for c in said["formers"][0]["changes"]], ["Day", "Wind", "Note"])
        story = self.ask("GET", f"areas/{self.area.pk}/story")
        self.assertEqual([(e["on"], e["clock"]) for e in story["events"]], [("2026-07-20", "06:30")])

    def test_struck_it_is_readable_and_counts_for_nothing(self) -> None:
        said = self.strike()
        self.assertEqual(said["struck"], "Struck by Manager alder: It was the other green.")
        self.assertEqual(self.left(), 40)
        self.assertNotIn("too-soon", self.findings())
        book = self.ask("GET", "book")
        self.assertEqual([a["struck"] for a in book["applications"]], [said["struck"]])
        self.assertEqual(self.client.get("/api/accounts/alder/book/book.csv").getvalue().count(b"\n"), 1)
        story = self.ask("GET", f"areas/{self.area.pk}/story")
        self.assertEqual((story["lasts"], story["ahead"], [e["struck"] for e in story["events"]]), ([], [], [said["struck"]]))
        self.assertEqual(self.ask("GET", "sky/locks"), [])
        self.strike(409)
        self.correct(409, wind="9 mph")

    def test_what_cannot_be_is_refused_by_its_field_and_nothing_is_changed(self) -> None:
        path = f"book/{self.made['id']}/correct"
        for more, field in (
            ({"why": " ", "wind": "9 mph"}, "why"),
            ({}, "why"),
            ({"on": "2026-08-13"}, "on"),
            ({"clock": "half past"}, "clock"),
            ({"used": [{"position": 0, "amount": oz("lots")}]}, "used.0.amount"),
            ({"used": [{"position": 0, "amount": {"value": 3, "unit": "lb"}}]}, "used.0.amount"),
            ({"used": [{"position": 4, "amount": oz(3)}]}, "used.0.position"),
        ):
            self.assertEqual(set(self.faults("POST", path, {"version": 0, "why": "Wrong."} | more)), {field}, more)
        self.assertEqual(set(self.faults("POST", f"book/{self.made['id']}/strike", {"version": 0, "why": ""})), {"why"})
        self.assertFalse(Former.objects.exists())
        self.assertEqual((self.left(), Application.objects.get().wind), (35.8, "3 mph"))

    def test_two_who_correct_at_once(self) -> None:
        self.correct(wind="5 mph")
        self.correct(409, wind="6 mph")
        said = self.correct(version=1, wind="6 mph")
        self.assertEqual([c["was"] for f in said["formers"] for c in f["changes"]], ["5 mph", "3 mph"])

    def test_what_went_in_to_taste_has_no_amount(self) -> None:
        Entry.objects.update(used_value=None, used_unit="", actual_value=None)
        self.account.touch()
        path = f"book/{self.made['id']}/correct"
        said = self.faults("POST", path, {"version": 0, "why": "Wrong.", "used": [{"position": 0, "amount": oz(3)}]})
        self.assertEqual(set(said), {"used.0.amount"})

    def test_a_tick_away_is_now(self) -> None:
        self.assertEqual(self.correct(on=str((NOW - timedelta(days=1)).date()))["clock"], "07:00", "the hour stays")
