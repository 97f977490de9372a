"""A hose-end through the API: in kit, Reckon, line, round and book. Sums are by hand, beside each check."""

from typing import Any

from greenmeasure.kit.models import Machine
from greenmeasure.rounds.models import Round
from greenmeasure.tests.test_kit import DIAL, KitTest, q

HOSE: dict[str, Any] = {
    "name": "Hose",
    "kind": "sprayer",
    "form": "hose_end",
    "capacity": q(32, "fl_oz"),
    "dials": "2, 4, 8",
    "dial_unit": "fl_oz/gal",
}


class Hose(KitTest):
    def setUp(self) -> None:
        super().setUp()
        self.hose = Machine.objects.get(pk=self.ask("POST", "machines", HOSE, 201)["id"])

    def timed(self) -> None:
        """5 gal in a minute; 2 min on 2,000 ft²: 10 gal on 2 M, 5 gal/1000 ft²."""
        self.keep(DIAL, self.hose)

    def job(self, **more: Any) -> dict[str, Any]:
        """7,000 ft² at 0.6 fl oz/1000 ft²: 4.2 fl oz."""
        return self.planned(self.spray, self.hose) | more

    def reckoned(self, **more: Any) -> Any:
        return self.ask("POST", "reckon/job", self.job(**more))

    # --- in the kit

    def test_its_dial_is_kept_and_read_back(self) -> None:
        card = self.ask("GET", f"machines/{self.hose.pk}")["machine"]
        self.assertEqual((card["dials"], [p["text"] for p in card["positions"]][1]), ("2, 4, 8", "4 fl oz/gal"))
        self.assertIn(self.spray.pk, card["takes"])

    def test_a_bottle_covers_by_dial_and_output(self) -> None:
        """32 fl oz ÷ (2 fl oz/gal × 5 gal/M) is 3.2 M."""
        self.assertEqual(self.ask("GET", f"machines/{self.hose.pk}")["machine"]["reach"], "")
        self.timed()
        self.assertEqual(self.ask("GET", f"machines/{self.hose.pk}")["machine"]["reach"], "3,200 ft²")

    def test_a_dial_that_cannot_be_is_told_by_its_field(self) -> None:
        for bad, field in (
            ({"dials": "2, x"}, "dials"),
            ({"dials": "2", "dial_unit": ""}, "dial_unit"),
            ({"dials": "2", "dial_unit": "fl_oz/kft2"}, "dials"),
            ({"dials": "200", "dial_unit": "fl_oz/gal"}, "dials"),
        ):
            with self.subTest(bad):
                fault = self.ask("POST", "machines", HOSE | {"name": "Other"} | bad, 422)
                self.assertEqual(fault["fields"][0]["field"], field)

    def test_without_typed_positions_it_is_the_one_it_was_timed_at(self) -> None:
        Machine.objects.filter(pk=self.hose.pk).update(dials=[], dial_unit="")
        self.timed()
        self.assertEqual(
            [p["text"] for p in self.ask("GET", f"machines/{self.hose.pk}")["machine"]["positions"]], ["1 fl oz/gal"]
        )

    # --- in Reckon and on the line

    def test_made_up_with_water(self) -> None:
        """35 gal at 2 fl oz/gal are 70 fl oz, 3 bottles of 32 at most; 35 ÷ 5 are 7 min."""
        self.timed()
        found = self.reckoned()
        self.assertEqual(found["vessel"], "bottle")
        self.assertIn("3 bottles, dial at 2 fl oz/gal, 7 min of spraying", found["headline"])
        first = found["loads"][0]
        self.assertEqual((first["name"], first["volume"], first["spray"]), ("Bottle 1", "32 fl oz", "16 gal"))
        self.assertEqual(first["time"], "3 min 12 s")  # 16 ÷ 5
        self.assertIn("tap", [f["key"] for f in found["machine_findings"]])
        self.assertIn("vacuum breaker", " ".join(c["text"] for c in found["cautions"]))
        self.assertIn("5 gal/min", [f["text"] for f in found["setup"]])

    def test_undiluted_at_a_dial(self) -> None:
        """4.2 fl oz at 4 fl oz/gal become 1.05 gal, 12.6 s at 5 gal/min."""
        self.timed()
        found = self.reckoned(undiluted=True, dial=q(4, "fl_oz/gal"))
        self.assertEqual((found["loads"][0]["volume"], found["loads"][0]["time"]), ("4.2 fl oz", "12.6 s"))
        self.assertEqual(found["loads"][0]["water"], "")

    def test_a_bad_dial_is_named(self) -> None:
        self.timed()
        for bad in (q(0.1, "fl_oz/gal"), q(2, "fl_oz/kft2"), q(-1, "fl_oz/gal")):
            with self.subTest(bad):
                fault = self.ask("POST", "reckon/job", self.job(dial=bad), 422)
                self.assertEqual(fault["fields"][0]["field"], "dial")

    def test_before_it_was_timed_it_says_so(self) -> None:
        found = self.reckoned(undiluted=True, dial=q(4, "fl_oz/gal"))
        self.assertEqual(found["loads"][0]["time"], "")
        self.assertIn("not-calibrated", [f["key"] for f in found["machine_findings"]])
        fault = self.ask("POST", "reckon/job", self.job(), 422)
        self.assertEqual(fault["fields"][0]["field"], "machine")

    def test_the_line_says_bottles(self) -> None:
        self.timed()
        said = self.ask("POST", "reckon/line", {"line": "0.6 fl oz/M Test SC on North green with Hose"})
        self.assertIn("dial at 2 fl oz/gal", said["sentence"])
        self.assertIn("Bottle 1 and Bottle 2, each: 57 mL in the 60 mL syringe", said["details"])  # 4.2 × 32 ÷ 70 fl oz
        self.assertIn("Bottle 3: 10.5 mL in the 20 mL syringe", said["details"])

    # --- in the round and in the book

    def test_from_sheet_to_book_and_again(self) -> None:
        self.timed()
        begun = self.ask("POST", "rounds", self.job(dial=q(4, "fl_oz/gal")), 201)
        sheet = begun["sheet"]
        self.assertEqual((sheet["vessel"], sheet["loads"][0]["dial"]), ("bottle", "4 fl oz/gal"))
        self.assertEqual([a["key"] for a in sheet["loads"][0]["acts"]][-2:], ["dial", "spray"])
        self.assertIn("Flow of the hose", [f["name"] for f in sheet["setup"]])
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": q(4.2, "fl_oz")}]})
        done = Round.objects.get(pk=begun["id"]).applications.get()
        self.assertEqual(done.spray and str(done.spray.to("gal")), "35 gal")
        self.assertEqual(self.ask("GET", f"machines/{self.hose.pk}")["tank"]["product"], "Test SC")
        again = self.ask("GET", f"reckon/again/{done.pk}")["job"]
        self.assertEqual((again["dial"]["unit"], float(again["dial"]["value"]), again["undiluted"]), ("fl_oz/gal", 4, False))
