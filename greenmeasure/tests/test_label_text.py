"""A label's text at the API's door: what is read, the card that it makes, and that the card is saved as it stands."""

from typing import Any

from core.label.pasted.pieces import LONGEST
from greenmeasure.tests.base import ApiTest

FUNGICIDE = """Harrowmere 14.3 ME
Systemic fungicide
GROUP 3 FUNGICIDE
ACTIVE INGREDIENT:
Propiconazole* .......... 14.3%
OTHER INGREDIENTS: ...... 85.7%
This product weighs 9.1 lb per gallon.
NET CONTENTS: 1 gallon (3.785 L)
Dollar spot: apply 0.5 to 1 fl oz per 1,000 sq ft every 14 to 28 days.
Do not apply more than 12 fl oz per 1,000 sq ft per year.
Do not enter until sprays have dried.
"""


class LabelText(ApiTest):
    def read(self, text: str, **more: object) -> Any:
        return self.ask("POST", "products/label", {"text": text, **more})

    def test_what_is_read_is_a_card_that_can_be_saved(self) -> None:
        """The label above, read off by hand."""
        read = self.read(FUNGICIDE)
        told = {(f["name"], f["text"]) for f in read["found"]}
        self.assertIn(("Rate", "0.5 to 1 fl oz per 1,000 sq ft; Dollar spot; every 14 to 28 days"), told)
        self.assertIn(("In it", "14.3 % propiconazole"), told)
        self.assertIn(("Most product a season", "At most 12 fl oz per 1000 ft² a season."), told)
        card = self.ask("POST", "products", read["card"], 201)
        self.assertEqual((card["name"], card["kind"], card["formulation"]), ("Harrowmere 14.3 ME", "fungicide", "ME"))
        self.assertEqual(card["codes"], ["FRAC 3"])
        self.assertEqual(card["density"]["text"], "9.1 lb/gal")
        self.assertEqual((card["rates"][0]["target"], card["rates"][0]["interval_high"]), ("Dollar spot", "28"))

    def test_every_finding_says_from_which_words(self) -> None:
        for found in self.read(FUNGICIDE)["found"]:
            with self.subTest(found["name"]):
                self.assertIn(found["source"], FUNGICIDE.replace("\n", " "))
                self.assertIn(found["source"].split(" ")[0], FUNGICIDE.splitlines()[found["line"] - 1])

    def test_what_is_not_taken_is_not_in_the_card(self) -> None:
        read = self.read(FUNGICIDE)
        at = next(i for i, f in enumerate(read["found"]) if f["field"] == "rules.most_per_season")
        again = self.read(FUNGICIDE, without=[at])
        self.assertEqual(read["card"]["rules"]["most_per_season"], "12 fl oz per 1,000 sq ft")
        self.assertEqual(again["card"]["rules"]["most_per_season"], "")
        self.assertFalse(again["found"][at]["taken"])

    def test_a_bare_ounce_is_asked_at_its_row(self) -> None:
        read = self.read("Greenleaf iron\nApply 3 to 6 oz per 1,000 sq ft.")
        (rate,) = (f for f in read["found"] if f["field"] == "rates")
        self.assertTrue(rate["asks"])
        fault = self.ask("POST", "products", read["card"] | {"kind": "iron", "formulation": "SL"}, 422)
        self.assertEqual(fault["fields"][0]["field"], "rates.0.phrase")
        self.assertEqual(len(fault["fields"][0]["choices"]), 2)

    def test_what_no_card_has_room_for_is_left_and_nothing_is_refused(self) -> None:
        """Names longer than 80 characters, notes than 300, codes than 40; 30 contents, 60 rates; numbers beyond all measure."""
        actives = [f"thing{chr(97 + i % 26)}{chr(97 + i // 26)}" for i in range(40)]
        for text, field, count in (
            ("ACTIVE INGREDIENT:\n" + "abc " * 30 + " 5%", "contents", 0),
            ("Keep children off " + "and pets too " * 30 + "until dry", "rules.reentry_note", 0),
            ("Blank SC\nFRAC 1+2+3+4+5+6+7+8+9+10", "group_code", 0),
            ("active ingredients\n" + "\n".join(f"{a} 1%" for a in actives), "contents", 30),
            ("\n".join(f"Apply {i}.5 lb per acre" for i in range(1, 80)), "rates", 60),
            ("Do not make more than 99999999999999999999 applications per year", "rules.applications_per_season", 0),
            ("Restricted entry interval " + "9" * 40 + " hours. Rainfast in 2 hours.", "rules.rain_after", 1),
            ("Apply 1/0 lb per acre", "rates", 0),
        ):
            with self.subTest(text[:40]):
                read = self.read(text)
                self.assertEqual(sum(f["field"] == field for f in read["found"]), count)
                if count == 0:
                    self.assertTrue(read["left"])

    def test_nothing_in_it_and_too_much_of_it(self) -> None:
        self.assertEqual(self.read("")["found"], [])
        self.assertEqual(self.read("shake well before use")["card"]["rates"], [])
        self.assertTrue(self.read("shake well. " * (LONGEST // 10))["cut"])
        self.ask("POST", "products/label", {"text": "x" * 200_001}, 422)
