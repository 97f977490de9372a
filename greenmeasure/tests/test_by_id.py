"""Things are known by id: what was renamed keeps its past, what was struck is matched by its actives, and said so."""

from typing import Any

from greenmeasure.book.models import Entry
from greenmeasure.kit.models import Machine
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import AREA, FUNGICIDE, SPRAYER, ApiTest

RULED: dict[str, Any] = FUNGICIDE | {
    "name": "Ruled SC",
    "group_code": "FRAC 7",
    "contents": [{"name": "boscalid", "basis": "active", "amount": 20, "unit": "%"}],
    "rates": [{"use": "preventive", "phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "interval_low": 14, "interval_high": 21}],
    "rules": {"applications_per_season": 1, "most_per_season": "1 fl oz per 1,000 sq ft"},
}


class Renamed(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        self.ruled = self.ask("POST", "products", RULED, 201)
        self.plan = self.job(product_id=self.ruled["id"], row_id=self.ruled["rates"][0]["id"])

    def book(self, plan: dict[str, Any] | None = None) -> Any:
        pk = self.ask("POST", "rounds", plan or self.plan, 201)["id"]
        return self.ask("POST", f"rounds/{pk}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})[0]

    def rename(self, name: str) -> None:
        held = self.ask("GET", "products")
        card = next(p for p in held if p["id"] == self.ruled["id"])
        self.ask(
            "PUT",
            f"products/{self.ruled['id']}",
            RULED | {"name": name, "version": card["version"], "rates": [RULED["rates"][0] | {"id": card["rates"][0]["id"]}]},
        )

    def found(self, plan: dict[str, Any] | None = None) -> dict[str, str]:
        said = self.ask("POST", "reckon/job", plan or self.plan)
        return {f["key"]: f["act"] for f in said["parts"][0]["doses"][0]["findings"]}

    def test_an_interval_and_a_season_hold_over_a_new_name(self) -> None:
        # 0.6 fl oz/1000 ft² is what was booked.
        self.book()
        before = self.found()
        self.assertEqual((before["too-soon"], before["season-times"]), ("refuse", "refuse"))
        self.rename("Another name SC")
        self.assertEqual(self.found(), before)
        said = self.ask("POST", "reckon/job", self.plan)["parts"][0]["doses"][0]
        self.assertEqual(said["times"], "Application 2 of 1 this season.")
        line = next(b for b in said["budget"] if b["key"] == "product")
        self.assertAlmostEqual(line["used"], 0.6)
        self.ask("POST", "rounds", self.plan, 422)

    def test_the_book_keeps_the_name_it_went_down_by_beside_the_id(self) -> None:
        entry = self.book()
        self.rename("Another name SC")
        said = self.ask("GET", f"book/{entry['id']}")
        self.assertEqual((said["entries"][0]["product"], said["entries"][0]["product_id"]), ("Ruled SC", self.ruled["id"]))
        self.assertEqual((said["area_id"], said["machine_id"]), (self.area.pk, self.sprayer.pk))

    def test_a_renamed_area_keeps_its_past_and_a_machine_its_last_filling(self) -> None:
        self.book()
        self.ask("PUT", f"areas/{self.area.pk}", AREA | {"name": "South green"})
        self.assertIn("too-soon", self.found())
        other = self.ask("POST", "reckon/job", self.job())
        self.assertEqual(other["machine_findings"][0]["key"], "not-cleaned")
        self.ask("PUT", f"machines/{self.sprayer.pk}", SPRAYER | {"name": "Old can"})
        again = self.ask("POST", "reckon/job", self.job())
        self.assertIn("Old can held Ruled SC", again["machine_findings"][0]["sentence"])

    def test_what_was_last_in_a_tank_is_the_same_product_by_any_name(self) -> None:
        self.book()
        self.rename("Another name SC")
        keys = [f["key"] for f in self.ask("POST", "reckon/job", self.plan)["machine_findings"]]
        self.assertNotIn("not-cleaned", keys)

    def test_a_new_card_under_an_old_name_has_no_past(self) -> None:
        self.book()
        self.rename("Another name SC")
        fresh = self.ask("POST", "products", RULED | {"contents": FUNGICIDE["contents"]}, 201)
        found = self.found(self.job(product_id=fresh["id"], row_id=fresh["rates"][0]["id"]))
        self.assertNotIn("too-soon", found)
        self.assertNotIn("season-times", found)

    def test_a_struck_product_is_matched_by_its_actives_and_that_is_said(self) -> None:
        self.book()
        Entry.objects.update(product=None, product_name="Gone SC")
        Product.objects.get(pk=self.ruled["id"]).account.touch()
        found = self.found()
        self.assertEqual((found["too-soon"], found["matched-by-actives"]), ("refuse", "note"))
        said = self.ask("POST", "reckon/job", self.plan)["parts"][0]["doses"][0]["findings"]
        note = next(f["sentence"] for f in said if f["key"] == "matched-by-actives")
        self.assertIn("Gone SC", note)
        self.assertIn("same actives, so it counts as Ruled SC", note)

    def test_what_holds_other_actives_is_not_taken_for_it(self) -> None:
        self.book(self.job())
        Entry.objects.update(product=None)
        Product.objects.get(pk=self.ruled["id"]).account.touch()
        self.assertNotIn("too-soon", self.found())

    def test_what_is_kept_apart_is_kept_apart_over_a_new_name(self) -> None:
        card = RULED | {"name": "Keeps off SC", "rules": {"incompatible": [{"what": "ruled sc", "days": 14, "note": ""}]}}
        shy = self.ask("POST", "products", card | {"contents": FUNGICIDE["contents"]}, 201)
        self.rename("Another name SC")
        self.book()
        found = self.found(self.job(product_id=shy["id"], row_id=shy["rates"][0]["id"]))
        self.assertEqual(found["kept-apart"], "refuse")

    def test_a_machine_that_was_renamed_is_still_the_one_used_last(self) -> None:
        from greenmeasure.season.queries import machine_picks

        self.ask("POST", "machines", SPRAYER | {"name": "Aardvark"}, 201)
        self.book()
        self.ask("PUT", f"machines/{self.sprayer.pk}", SPRAYER | {"name": "Zebra"})
        self.account.refresh_from_db()
        self.assertEqual(machine_picks(self.account, self.area.pk, None)[0].id, Machine.objects.get(name="Zebra").pk)
