"""Past applications out of a CSV, and an application done again."""

import csv
import io
from datetime import UTC, datetime
from typing import Any
from unittest.mock import patch

from greenmeasure.accounts.models import Site
from greenmeasure.book.models import Application, Entry
from greenmeasure.ground.models import Area
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.models import Lot
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest

NOW = datetime(2026, 8, 12, 14, 0, tzinfo=UTC)  # 10:00 in New York
HEAD = "date,time,area,product,machine,used,used_unit"


class August(ApiTest):
    """10:00 on 12 August in New York."""

    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)


class PastIn(August):
    """A CSV of past applications."""

    def bring(self, *lines: str, head: str = HEAD, keep: bool = True, expect: int = 200) -> Any:
        path = "rounds/import" if keep else "rounds/import/preview"
        return self.ask("POST", path, {"text": "\n".join([head, *lines])}, expect)

    def out(self) -> list[dict[str, str]]:
        answer = self.client.get("/api/accounts/alder/book/book.csv")
        text = b"".join(answer.streaming_content).decode()  # type: ignore[attr-defined]
        return list(csv.DictReader(io.StringIO(text)))

    def test_a_line_becomes_an_entry_with_its_day_hour_and_rate(self) -> None:
        said = self.bring("2025-06-03,07:30,north green,test sc,Sprayer,3.5,fl oz")
        self.assertEqual((said["refused"], said["lines"][0]["act"]), (0, "add"))
        entry = self.ask("GET", "book")["applications"][0]
        # 3.5 fl oz on 7000 ft² are 0.5 fl oz/1000 ft²; 07:30 in New York's summer is 11:30 UTC
        self.assertEqual((entry["entries"][0]["actual"], entry["finished_at"]), ("0.5 fl oz/1000 ft²", "2025-06-03T11:30:00Z"))
        self.assertEqual((entry["entries"][0]["judgement"]["stand"], entry["entries"][0]["against"]), ("within", []))

    def test_an_amount_is_written_as_one_says_it(self) -> None:
        # 3.5 fl oz on 7000 ft² are 0.5 fl oz/1000 ft².
        head = "date,area,product,machine,amount"
        for n, amount in enumerate(("3.5 fl oz", "0.5 fl oz/1000 ft2", "0.5 fl oz per 1,000 sq ft", "0.5 fl oz/M"), start=1):
            said = self.bring(f'2025-0{n}-03,North green,Test SC,Sprayer,"{amount}"', head=head)
            self.assertEqual(said["lines"][0]["act"], "add", said)
        found = self.ask("GET", "book")["applications"]
        self.assertEqual({a["entries"][0]["actual"] for a in found}, {"0.5 fl oz/1000 ft²"})
        for amount, words in (("12 oz", "oz"), ("much", "much"), ("3 fl oz/week", "measures time"), ("", "missing")):
            (line,) = self.bring(f"2025-06-03,North green,Test SC,Sprayer,{amount}", head=head)["lines"]
            self.assertEqual(line["act"], "refused")
            self.assertIn(words, line["problems"][0])

    def test_looking_changes_nothing(self) -> None:
        said = self.bring("2025-06-03,07:30,North green,Test SC,Sprayer,3.5,fl oz", keep=False)
        self.assertIn("1 to add", said["sentence"])
        self.assertEqual((Entry.objects.count(), Round.objects.count()), (0, 0))

    def test_the_book_out_and_in_again_changes_nothing(self) -> None:
        job = {
            "job": self.job(on="2026-08-10", clock="06:45"),
            "finish": {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}], "wind": "calm"},
        }
        self.ask("POST", "rounds/done", job, 201)
        answer = self.client.get("/api/accounts/alder/book/book.csv")
        text = b"".join(answer.streaming_content).decode()  # type: ignore[attr-defined]
        self.assertEqual([x["act"] for x in self.ask("POST", "rounds/import", {"text": text})["lines"]], ["same"])
        before = self.out()
        Application.objects.all().delete()
        Round.objects.all().delete()
        self.assertEqual([x["act"] for x in self.ask("POST", "rounds/import", {"text": text})["lines"]], ["add"])
        self.assertEqual([r | {"application": "1"} for r in self.out()], [r | {"application": "1"} for r in before])

    def test_lines_that_break_a_rule_together_are_marked_at_the_later_one_in_any_order(self) -> None:
        rows = [FUNGICIDE["rates"][0] | {"interval_low": 14}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rows})
        later, earlier = (f"2025-06-{d},,North green,Test SC,Sprayer,3.5,fl oz" for d in ("09", "01"))
        for lines in ((later, earlier), (earlier, later)):
            said = self.bring(*lines, keep=False)["lines"]
            marked = {x["name"][:10]: any(c.startswith("Marked") for c in x["changes"]) for x in said}
            self.assertEqual(marked, {"2025-06-09": True, "2025-06-01": False})
        self.bring(later, earlier)
        kept = Entry.objects.get(application__applied_on="2025-06-09")
        self.assertEqual(kept.reason, "From a file of past records")
        self.assertIn("1 went against the label", self.ask("GET", "book")["sentence"])

    def test_a_rate_alone_is_enough(self) -> None:
        head = "date,area,product,machine,actual_rate,rate_unit,reason,applicator,lot"
        self.bring("2025-06-03,North green,Test SC,Sprayer,1.2,fl oz/1000 ft2,a slip,A. Helper,L-9", head=head)
        entry = self.ask("GET", "book")["applications"][0]
        # 1.2 on 7000 ft² are 8.4 fl oz, above the label's 0.8
        self.assertEqual(
            (entry["entries"][0]["used"], entry["entries"][0]["judgement"]["stand"], entry["entries"][0]["reason"]),
            ("8.4 fl oz", "above", "a slip"),
        )
        self.assertEqual((entry["by"], entry["entries"][0]["lot"]), ("A. Helper", "L-9"))

    def test_past_records_leave_the_stock_alone(self) -> None:
        Lot.objects.create(product=self.spray, number="L-9", left_value=100, left_unit="fl_oz")
        self.bring("2025-06-03,,North green,Test SC,Sprayer,3.5,fl oz,L-9", head=HEAD + ",lot")
        self.assertEqual(Lot.objects.get().left_value, 100)

    def test_one_line_at_fault_keeps_all_out_and_says_which_and_why(self) -> None:
        good = "2025-06-03,07:30,North green,Test SC,Sprayer,3.5,fl oz"
        wrong = {
            "2025-06-31,07:30,North green,Test SC,Sprayer,3.5,fl oz": "date:",
            "2025-06-03,7 o'clock,North green,Test SC,Sprayer,3.5,fl oz": "clock:",
            "2027-06-03,07:30,North green,Test SC,Sprayer,3.5,fl oz": "on:",
            "2025-06-03,07:30,South green,Test SC,Sprayer,3.5,fl oz": "area: There is no area “South green”.",
            "2025-06-03,07:30,North green,Best SC,Sprayer,3.5,fl oz": "product: There is no product “Best SC”.",
            "2025-06-03,07:30,North green,Test SC,,3.5,fl oz": "machine: The line names no machine.",
            "2025-06-03,07:30,North green,Test SC,Sprayer,,": "used: How much was used is missing.",
            "2025-06-03,07:30,North green,Test SC,Sprayer,3.5,oz": "used:",
            "2025-06-03,07:30,North green,Test SC,Sprayer,-3.5,fl oz": "used:",
            "2025-06-03,07:30,North green,Test SC,Sprayer,3.5,ft2": "used:",
        }
        for line, begins in wrong.items():
            with self.subTest(line):
                said = self.bring(good, line)
                self.assertEqual((said["refused"], said["lines"][0]["act"]), (1, "add"))
                self.assertTrue(said["lines"][1]["problems"][0].startswith(begins), said["lines"][1])
                self.assertEqual(Entry.objects.count(), 0)

    def test_files_that_are_none(self) -> None:
        self.assertEqual(list(self.faults("POST", "rounds/import", {"text": "a,b\n1,2"})), ["text"])
        huge = HEAD + "\n" + "x" * 200_000
        self.assertEqual(list(self.faults("POST", "rounds/import", {"text": huge})), ["text"])
        many = "\n".join([HEAD, *["2025-06-03,,North green,Test SC,Sprayer,3.5,fl oz"] * 501])
        self.assertEqual(list(self.faults("POST", "rounds/import", {"text": many})), ["text"])

    def test_an_area_is_told_apart_by_its_site(self) -> None:
        other = Site.objects.create(account=self.account, name="Hill", time_zone="Europe/Oslo")
        self.ask("POST", "areas", AREA | {"site_id": other.pk}, 201)
        line = "2025-06-03,07:30,North green,Test SC,Sprayer,3.5,fl oz"
        self.assertIn("There are 2 called", self.bring(line)["lines"][0]["problems"][0])
        self.bring(f"{line},Hill", head=HEAD + ",site")
        # 07:30 in Oslo's summer is 05:30 UTC
        self.assertEqual(Application.objects.get().finished_at, datetime(2025, 6, 3, 5, 30, tzinfo=UTC))

    def test_only_a_manager_brings_records_in(self) -> None:
        self.sign_in("applicator")
        self.bring("2025-06-03,07:30,North green,Test SC,Sprayer,3.5,fl oz", expect=403)


class Again(August):
    """An application of the book once more."""

    def done(self, **more: Any) -> Any:
        body = {"job": self.job(**more), "finish": {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}}
        return self.ask("POST", "rounds/done", body, 201)

    def test_the_same_job_for_now(self) -> None:
        entry = self.done(on="2026-08-01")[0]
        said = self.ask("GET", f"reckon/again/{entry['id']}")
        self.assertEqual(said["notes"], [])
        self.assertEqual((said["job"]["on"], said["job"]["machine_id"]), (None, self.sprayer.pk))
        answer = self.ask("POST", "reckon/job", said["job"])
        self.assertEqual(answer["parts"][0]["doses"][0]["rate"]["text"], entry["entries"][0]["planned"])

    def test_all_its_ground_less_what_was_put_away(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)["id"]
        job = self.job(on="2026-08-01")
        job["parts"] += [job["parts"][0] | {"area_id": bank, "share": "1/2"}]
        body = {"job": job, "finish": {"used": [{"amount": {"value": 6.3, "unit": "fl_oz"}}]}}
        first = self.ask("POST", "rounds/done", body, 201)[0]["id"]
        said = self.ask("GET", f"reckon/again/{first}")["job"]
        self.assertEqual([p["share"] for p in said["parts"]], ["", "50 %"])
        Area.objects.filter(pk=bank).update(archived_at=NOW)
        self.account.touch()
        said = self.ask("GET", f"reckon/again/{first}")
        self.assertEqual(([p["area_id"] for p in said["job"]["parts"]], len(said["notes"])), ([self.area.pk], 1))
        Area.objects.filter(pk=self.area.pk).update(archived_at=NOW)
        self.account.touch()
        self.ask("GET", f"reckon/again/{first}", expect=409)

    def test_a_row_that_has_changed_is_told(self) -> None:
        entry = self.done(on="2026-08-01")[0]
        rows = [{"use": "curative", "phrase": "0.5 to 0.9 fl oz per 1,000 sq ft"}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rows})
        said = self.ask("GET", f"reckon/again/{entry['id']}")
        self.assertEqual(said["notes"], ["North green: the label row has changed; this is curative."])
