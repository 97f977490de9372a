"""Mixed swards and ornamentals at the doors: kept, out and in again, watched, reckoned, in the programme."""

import json
from typing import Any

from greenmeasure.ground.models import Area
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest

RYE, FESCUE = "perennial_ryegrass", "fine_fescue"
BLEND = [{"grass": RYE, "share": 70}, {"grass": FESCUE}]
"""Seventy to thirty by seed (common practice, no source); the second takes what is left."""


class Swards(ApiTest):
    def made(self, name: str, grass: str, **more: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("POST", "areas", AREA | {"name": name, "grass": grass} | more, 201)
        return found

    def test_a_mixed_sward_is_kept_with_its_grasses(self) -> None:
        made = self.made("Memorial", "mixed", blend=BLEND)
        self.assertEqual(made["grass_name"], "Perennial ryegrass and fine fescues (70:30)")
        self.assertEqual(made["blend"], [{"grass": RYE, "share": "70"}, {"grass": FESCUE, "share": "30"}])
        same = AREA | {"name": "Memorial", "grass": "mixed", "blend": made["blend"]}
        self.assertEqual(self.ask("PUT", f"areas/{made['id']}", same)["blend"], made["blend"])
        single = self.ask("PUT", f"areas/{made['id']}", AREA | {"name": "Memorial", "grass": RYE, "blend": made["blend"]})
        self.assertEqual(single["blend"], [])

    def test_what_is_no_blend_is_told_beside_its_field(self) -> None:
        for blend, field in (
            ([{"grass": RYE, "share": 70}, {"grass": FESCUE, "share": 40}], "blend"),
            ([{"grass": RYE}, {"grass": FESCUE}], "blend"),
            ([{"grass": RYE, "share": "x"}, {"grass": FESCUE}], "blend.0.share"),
            ([{"grass": RYE, "share": 40}, {"grass": "hay"}], "blend.1.grass"),
        ):
            body = AREA | {"name": "Memorial", "grass": "mixed", "blend": blend}
            self.assertEqual(set(self.faults("POST", "areas", body)), {field})
        self.assertFalse(Area.objects.filter(name="Memorial").exists())

    def test_a_blend_that_cannot_be_read_takes_no_page_down(self) -> None:
        made = self.made("Memorial", "mixed", blend=BLEND)
        for odd in ([{"grass": RYE}], [3], [{"grass": RYE, "share": "x"}, {"grass": FESCUE, "share": 30}], {"a": 1}):
            Area.objects.filter(pk=made["id"]).update(blend=odd)
            self.account.touch()
            read = self.ask("GET", f"areas/{made['id']}")["area"]
            self.assertEqual((read["grass_name"], read["blend"]), ("Mixed sward", []))

    def test_out_as_geojson_and_in_again(self) -> None:
        made = self.made("Memorial", "mixed", blend=BLEND)
        out = self.ask("GET", "areas/areas.geojson")
        Area.objects.filter(pk=made["id"]).delete()
        self.account.touch()
        self.ask("POST", "areas/geojson", {"text": json.dumps(out)})
        again = Area.objects.get(name="Memorial")
        self.assertEqual(again.sward.grasses, (RYE, FESCUE))

    def test_it_is_watched_for_what_strikes_either_and_ornamentals_for_nothing(self) -> None:
        mixed, shrubs = self.made("Memorial", "mixed", blend=BLEND), self.made("Border", "ornamentals")

        def usual(area: int) -> set[str]:
            return {w["disease"] for w in self.ask("GET", f"sky/areas/{area}/watch")["watches"] if w["usual"]}

        # Gray leaf spot strikes ryegrass, summer patch fine fescues (hosts are common practice, no source).
        self.assertLess({"gray_leaf_spot", "summer_patch"}, usual(mixed["id"]))
        self.assertEqual(usual(shrubs["id"]), set())
        self.assertFalse(shrubs["turf"])

    def test_a_label_must_list_every_grass_and_a_turf_rate_is_not_carried_to_shrubs(self) -> None:
        mixed, shrubs = self.made("Memorial", "mixed", blend=BLEND), self.made("Border", "ornamentals")
        row = self.spray.rates.get()
        row.grasses = [RYE]
        row.save()
        self.account.touch()

        def refused(area: int) -> list[str]:
            said = self.ask("POST", "reckon/job", self.job(area_id=area))["parts"][0]["doses"][0]["findings"]
            return [f["sentence"] for f in said if f["key"] == "grass-not-listed" and f["act"] == "refuse"]

        self.assertIn("does not list fine fescues", refused(mixed["id"])[0])
        row.grasses = [RYE, FESCUE]
        row.save()
        self.account.touch()
        self.assertEqual(refused(mixed["id"]), [])
        self.assertIn("does not list ornamentals", refused(shrubs["id"])[0])

    def test_a_step_for_a_grass_is_for_swards_that_have_it(self) -> None:
        self.made("Memorial", "mixed", blend=BLEND)
        when = {"timing": "dated", "begin": "2027-05-01", "end": "2027-05-01"}
        products = [{"product_id": self.feed.pk}]
        self.ask("POST", "programme/steps", {"name": "Feed", "when": when, "products": products, "grass": FESCUE}, 201)
        found = self.ask("GET", "programme?year=2027")["areas"]
        self.assertEqual([(a["area"], a["grass"]) for a in found], [("Memorial", "Perennial ryegrass and fine fescues (70:30)")])

    def test_the_30_day_step_of_ornamentals_takes_what_is_for_them(self) -> None:
        self.made("Border", "ornamentals")
        key = {"key": "ornamentals", "year": 2027}
        self.ask("POST", "programme/outlines", key, 201)
        (step,) = self.ask("GET", "programme?year=2027")["steps"]
        self.assertEqual(step["mix"], "No product yet")
        shrubs = {"name": "Shrub SC", "rates": [{"phrase": "2 to 4 fl oz per 100 gal", "grasses": ["ornamentals"]}]}
        self.ask("POST", "products", FUNGICIDE | shrubs, 201)
        self.ask("POST", "programme/outlines", key | {"year": 2028}, 201)
        (step,) = self.ask("GET", "programme?year=2028")["steps"]
        self.assertEqual((step["mix"].split(",")[0], step["where"]), ("Shrub SC", "Border"))
        begins = [t["begin"] for a in self.ask("GET", "programme?year=2028")["areas"] for t in a["turns"]]
        # 20 April to 20 September every 30 days: six turns.
        self.assertEqual((len(begins), begins[:2]), (6, ["2028-04-20", "2028-05-20"]))
