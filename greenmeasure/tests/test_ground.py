"""Ground over the API: measuring, parts, two measurements compared, GeoJSON in and out, soil and the pH planner."""

import json
from typing import Any

from greenmeasure.ground.models import Area, Measurement, SoilReading
from greenmeasure.tests.base import AREA, ApiTest

RECTANGLE = {"method": "rectangle", "unit": "ft", "values": {"length": "120", "width": "58 1/3"}}
RING = "41.2050, -71.6030\n41.2050, -71.6010\n41.2063, -71.6012\n41.2061, -71.6031"
SOIL = {"taken_on": "2026-03-02", "spot": "gate", "ph": "7.8"}


class Measuring(ApiTest):
    def test_what_a_measurement_comes_to_changes_nothing(self) -> None:
        """120 × 58 1/3 ft is 7,000 ft² (arithmetic), as the area's typed size."""
        said = self.ask("POST", f"areas/measure?area_id={self.area.pk}", RECTANGLE)
        self.assertEqual(said["size"]["text"], "7,000 ft²")
        self.assertEqual(said["agreement"], "agree")
        self.assertEqual([len(o["ring"]) for o in said["plan"]["outlines"]], [4])
        self.assertFalse(Measurement.objects.exists())

    def test_faults_name_the_figure(self) -> None:
        for body, field in (
            ({"method": "rectangle", "values": {"length": "x"}}, "measure.values.length"),
            ({"method": "rectangle", "values": {"length": 4}}, "measure.values.width"),
            ({"method": "star"}, "measure.method"),
            ({"method": "ring", "ring": "here"}, "measure.ring"),
            ({"method": "taped", "series": {"sides": [3, 4, 5, 6]}}, "measure.diagonals"),
            (
                {"method": "offsets", "values": {"spacing": 5}, "series": {"offsets": [1, "two thirds"]}},
                "measure.series.offsets.1",
            ),
            ({"method": "circle", "unit": "lb", "values": {"radius": 3}}, "measure.unit"),
        ):
            self.assertEqual(list(self.faults("POST", "areas/measure", body)), [field])

    def test_an_area_can_be_measured_into_being(self) -> None:
        # 120 ft × 0.3048 m (exact).
        body = {"name": "East bank", "grass": "tall_fescue", "measure": RECTANGLE}
        made = self.ask("POST", "areas", body, 201)
        self.assertEqual(made["size"]["text"], "7,000 ft²")
        whole = self.ask("GET", f"areas/{made['id']}")
        self.assertTrue(whole["measurements"][0]["in_use"])
        self.assertEqual(whole["plan"]["right"], 120 * 0.3048)

    def test_two_measurements_are_compared_and_one_can_be_taken(self) -> None:
        # 120 × 62 = 7,440 ft²; ÷ 7,000 is +6.3 %.
        taken = RECTANGLE | {"values": {"length": 120, "width": 62}, "taken_on": "2026-04-01"}
        whole = self.ask("POST", f"areas/{self.area.pk}/measurements", taken, 201)
        self.assertEqual(whole["area"]["size"]["text"], "7,000 ft²")
        self.assertIn("+6.3 % apart", whole["measurements"][0]["versus"])
        number = whole["measurements"][0]["id"]
        used = self.ask("POST", f"areas/{self.area.pk}/measurements/{number}/use")
        self.assertEqual(used["area"]["size"]["text"], "7,440 ft²")
        self.assertEqual(
            self.faults("POST", f"areas/{self.area.pk}/measurements", taken | {"taken_on": "2999-01-01"}).keys(), {"taken_on"}
        )

    def test_parts_add_up_to_their_parent_and_count_once(self) -> None:
        half = {"name": "Trial half", "grass": "creeping_bentgrass", "parent_id": self.area.pk, "share": "1/2"}
        made = self.ask("POST", "areas", half, 201)
        self.assertEqual(made["size"]["text"], "3,500 ft²")
        whole = self.ask("GET", f"areas/{self.area.pk}")
        self.assertEqual(whole["rest"], "3,500 ft² is in no part.")
        self.assertEqual(self.ask("GET", "areas")["total"], "7,000 ft²")
        self.assertEqual(set(self.faults("POST", "areas", half | {"name": "x", "share": "3/2"})), {"share"})
        large = half | {"name": "x", "share": "", "size": {"value": 9, "unit": "acre"}}
        self.assertEqual(set(self.faults("POST", "areas", large)), {"size"})
        own = AREA | {"parent_id": made["id"]}
        self.assertEqual(set(self.faults("PUT", f"areas/{self.area.pk}", own)), {"parent_id"})

    def test_every_fact_comes_back_and_heights_are_kept_with_their_days(self) -> None:
        # What comes back is what was typed.
        facts = {
            "cultivar": "a blend",
            "use": "green",
            "texture": "sandy_loam",
            "shade": "part",
            "slope": "2.5",
            "zone": "B",
            "sown_on": "2020-09-01",
            "overseed_on": "2027-04-01",
            "stress": "drought",
            "tested_p": True,
            "hazards": [{"kind": "water", "name": "pond", "buffer": {"value": 20, "unit": "ft"}}],
        }
        for height, on in ((0.2, "2026-03-01"), (0.16, "2026-05-01")):
            made = self.ask(
                "PUT", f"areas/{self.area.pk}", AREA | facts | {"height": {"value": height, "unit": "in"}, "height_on": on}
            )
        self.assertEqual({k: made[k] for k in facts if k != "hazards"}, {k: v for k, v in facts.items() if k != "hazards"})
        self.assertEqual((made["hazards"][0]["kind_text"], made["hazards"][0]["buffer"]["text"]), ("open water", "20 ft"))
        heights = self.ask("GET", f"areas/{self.area.pk}")["heights"]
        self.assertEqual([(h["on"], h["text"]) for h in heights], [("2026-05-01", "0.16 in"), ("2026-03-01", "0.2 in")])
        bad = AREA | {
            "stress": "bored",
            "use": "moon",
            "texture": "x",
            "shade": "x",
            "slope": -3,
            "hazards": [{"kind": "dragon"}],
        }
        self.assertEqual(
            set(self.faults("PUT", f"areas/{self.area.pk}", bad)),
            {"stress", "use", "texture", "shade", "slope", "hazards.0.kind"},
        )


class GeoJson(ApiTest):
    def text(self, *features: dict[str, Any]) -> dict[str, str]:
        return {"text": json.dumps({"type": "FeatureCollection", "features": list(features)})}

    def feature(self, name: str, ring: list[list[float]] | None = None, **more: Any) -> dict[str, Any]:
        ring = ring or [[-71.603, 41.205], [-71.601, 41.205], [-71.6012, 41.2063], [-71.603, 41.205]]
        return {"type": "Feature", "geometry": {"type": "Polygon", "coordinates": [ring]}, "properties": {"name": name, **more}}

    def test_out_and_in_again_changes_nothing(self) -> None:
        self.ask("POST", "areas", {"name": "Ring", "grass": "tall_fescue", "measure": {"method": "ring", "ring": RING}}, 201)
        out = self.client.get("/api/accounts/alder/areas/areas.geojson")
        self.assertEqual(out["Content-Type"], "application/geo+json")
        features = {f["properties"]["name"]: f for f in out.json()["features"]}
        self.assertIsNone(features["North green"]["geometry"])
        self.assertEqual(features["Ring"]["geometry"]["type"], "Polygon")
        said = self.ask("POST", "areas/geojson", {"text": out.content.decode()})
        self.assertEqual([x["act"] for x in said["lines"]], ["same", "same"])

    def test_a_preview_says_line_by_line_and_keeps_nothing(self) -> None:
        crossed = [[-71.603, 41.205], [-71.601, 41.206], [-71.601, 41.205], [-71.603, 41.206], [-71.603, 41.205]]
        body = self.text(self.feature("New one"), self.feature("North green"), self.feature("Bow", crossed))
        said = self.ask("POST", "areas/geojson/preview", body)
        self.assertEqual([(x["line"], x["act"]) for x in said["lines"]], [(1, "add"), (2, "change"), (3, "refused")])
        self.assertIn("crosses itself", said["lines"][2]["problems"][0])
        self.assertEqual(Area.objects.count(), 1)

    def test_one_bad_line_keeps_all_out_and_good_ones_come_in_together(self) -> None:
        bad = self.text(
            self.feature("A"),
            {"type": "Feature", "geometry": {"type": "Point", "coordinates": [1, 2]}, "properties": {"name": "P"}},
        )
        self.assertEqual(self.ask("POST", "areas/geojson", bad)["refused"], 1)
        self.assertEqual(Area.objects.count(), 1)
        said = self.ask("POST", "areas/geojson", self.text(self.feature("A", grass="zoysiagrass"), self.feature("B")))
        self.assertIn("2 to add", said["sentence"])
        self.assertEqual(Area.objects.get(name="A").grass, "zoysiagrass")

    def test_what_is_no_geojson_is_said(self) -> None:
        for text, words in (("{nope", "no JSON"), ("[1]", "no GeoJSON"), ('{"type": "Topology"}', "no GeoJSON")):
            said = self.ask("POST", "areas/geojson/preview", {"text": text}, 422)
            self.assertIn(words, said["message"])


class Soil(ApiTest):
    def test_readings_and_the_plan(self) -> None:
        # (7.8 + 7.7 + 7.9) ÷ 3; shares of a whole.
        for spot, ph in (("gate", 7.8), ("middle", 7.7), ("river", "7.9")):
            self.ask("POST", f"areas/{self.area.pk}/soil", SOIL | {"spot": spot, "ph": ph}, 201)
        self.assertEqual(next(a for a in self.ask("GET", "areas")["areas"])["ph"], "pH 7.8")
        plan = self.ask("POST", f"areas/{self.area.pk}/ph", {"texture": "loam", "start": "2027-03-01", "target": "6.5"})
        self.assertEqual(plan["verdict"], "lower")
        self.assertGreater(len(plan["steps"]), 1)
        self.assertAlmostEqual(sum(s["share"] for s in plan["steps"]), 1, places=6)
        self.assertIn("Gypsum does not lower pH", " ".join(plan["notes"]))

    def test_faults_by_field(self) -> None:
        path = f"areas/{self.area.pk}/soil"
        self.assertEqual(
            set(self.faults("POST", path, SOIL | {"ph": 14, "spot": " ", "taken_on": "2999-01-01"})), {"ph", "spot", "taken_on"}
        )
        self.assertEqual(set(self.faults("POST", f"areas/{self.area.pk}/ph", {"start": "2027-03-01"})), {"texture"})
        self.assertEqual(
            set(self.faults("POST", f"areas/{self.area.pk}/ph", {"texture": "loam", "start": "2027-03-01"})), {"readings"}
        )

    def test_the_gypsum_that_sodium_asks_for(self) -> None:
        """USDA Handbook 60 (1954), by hand: CEC 15, 1400 kg/m³, 15 cm, 18 % to 5 %: 98.1 lb/1000 ft² of 92 % at 80 %."""
        path = f"areas/{self.area.pk}/sodium"
        asked = {"sodium": 18, "exchange": "15", "depth": {"value": 150, "unit": "mm"}}
        found = self.ask("POST", path, asked)
        self.assertEqual((found["per_area"], found["from_text"]), ("98.1 lb/1000 ft²", "As typed"))
        self.assertIn("18 % exchangeable sodium down to 5 %", found["sentence"])
        self.assertIn("10 applications" if self.area.use == "green" else "2 applications", found["sentence"])
        # 20 meq/L over √((6 + 2) ÷ 2): a ratio of 10, which comes to 11.89 %.
        water = {"water_sodium": 20, "water_calcium": 6, "water_magnesium": 2, "exchange": 15}
        found = self.ask("POST", path, water)
        self.assertAlmostEqual(found["share"], 11.89, places=2)
        self.assertIn("not sodic", found["notes"][0])
        self.assertIn("no more than the 5 %", self.ask("POST", path, asked | {"sodium": 4})["sentence"])

    def test_sodium_by_the_latest_sample_that_tells_it(self) -> None:
        path = f"areas/{self.area.pk}/sodium"
        self.assertEqual(set(self.faults("POST", path, {})), {"exchange"})
        self.assertEqual(set(self.faults("POST", path, {"exchange": 15})), {"sodium"})
        self.assertEqual(set(self.faults("POST", path, {"exchange": 15, "water_sodium": 3})), {"water_calcium"})
        figures = [{"kind": "na", "value": "690", "unit": "ppm"}, {"kind": "cec", "value": 15}]
        self.ask("POST", f"areas/{self.area.pk}/soil", SOIL | {"how": "lab", "figures": figures}, 201)
        found = self.ask("POST", path, {})
        # A milliequivalent of sodium is 22.99 mg (IUPAC): 690 ppm are 3.0 meq/100 g, a fifth of 15.
        self.assertAlmostEqual(found["share"], 20, delta=0.02)
        self.assertEqual(found["from_text"], "The sample of gate, Mon 2 Mar 2026")
        self.assertEqual(set(self.faults("POST", path, {"density": 2})), {"density"})

    def sampled(self, **more: Any) -> dict[str, Any]:
        """The latest sample's answer, once it is kept."""
        whole = self.ask("POST", f"areas/{self.area.pk}/soil", SOIL | more, 201)
        return next(s for s in whole["soil"] if s["taken_on"] == more.get("taken_on", SOIL["taken_on"]))

    def test_a_laboratorys_card_stands_beside_the_last_of_its_spot(self) -> None:
        # By hand: 6.8 to 6.3 is 0.5 lower; 60 lb/acre are 30 ppm, 6 more than 24 (`core.soil.samples` has the source).
        spot = self.ask("POST", f"areas/{self.area.pk}/spots", {"name": "Oak end", "x": 2, "y": 3}, 201)
        mine = {"spot_id": spot["id"], "spot": "", "how": "lab", "lab": "County laboratory"}
        p = {"kind": "p", "value": "24", "unit": "ppm", "method": "Mehlich-3"}
        first = self.sampled(**mine, taken_on="2025-03-02", ph=6.8, number="A-17", figures=[p], depth={"value": 4, "unit": "in"})
        self.assertEqual((first["since"], first["doubts"], first["spot"]), ("", [], "Oak end"))
        self.assertEqual(first["from_text"], "County laboratory, no. A-17")
        self.assertEqual(first["figures"][0]["text"], "Phosphorus 24 ppm (Mehlich-3)")
        self.sampled(spot="Elm end", taken_on="2025-09-01", ph=5.0)
        now = self.sampled(**mine, ph=6.3, figures=[p | {"value": 60, "unit": "lb/acre"}], depth={"value": 6, "unit": "in"})
        self.assertEqual(now["since"], "pH 0.5 lower; Phosphorus 6 ppm higher since Sun 2 Mar 2025")
        self.assertEqual(now["doubts"], ["Not of one depth."])
        self.assertEqual(now["spot_id"], spot["id"])

    def test_a_spot_that_is_no_longer_marked_keeps_its_name(self) -> None:
        # By hand.
        spot = self.ask("POST", f"areas/{self.area.pk}/spots", {"name": "Oak end"}, 201)
        self.sampled(spot_id=spot["id"], taken_on="2025-03-02", ph=6.0)
        self.ask("DELETE", f"areas/{self.area.pk}/spots/{spot['id']}", expect=204)
        self.assertIn("since Sun 2 Mar 2025", self.sampled(spot="oak end", ph=6.4)["since"])
        self.assertEqual(set(self.faults("POST", f"areas/{self.area.pk}/soil", SOIL | {"spot_id": spot["id"]})), {"spot_id"})

    def test_faults_of_a_card_by_field(self) -> None:
        bad = [{"kind": "p", "value": "much"}, {"kind": "gold", "value": 1}, {"kind": "cec", "value": 3, "unit": "ppm"}]
        found = self.faults("POST", f"areas/{self.area.pk}/soil", SOIL | {"how": "guess", "figures": bad})
        self.assertEqual(set(found), {"how", "figures.0.value", "figures.1.kind", "figures.2.unit"})
        twice = [{"kind": "p", "value": 1}, {"kind": "p", "value": 2}]
        self.assertEqual(set(self.faults("POST", f"areas/{self.area.pk}/soil", SOIL | {"figures": twice})), {"figures"})
        self.assertEqual(self.ask("GET", f"areas/{self.area.pk}")["soil"], [])

    def test_a_row_that_cannot_be_takes_no_page_down(self) -> None:
        # No number of it is compared.
        self.sampled(how="lab")
        odd = [{"kind": "gold"}, 3, {"kind": "p", "value": "x", "unit": "ppm", "method": 1}]
        SoilReading.objects.update(how="guess", figures=odd)
        self.account.touch()
        (read,) = self.ask("GET", f"areas/{self.area.pk}")["soil"]
        self.assertEqual((read["figures"], read["from_text"]), ([], ""))

    def test_a_reading_can_be_taken_out(self) -> None:
        whole = self.ask("POST", f"areas/{self.area.pk}/soil", SOIL, 201)
        number = whole["soil"][0]["id"]
        self.assertEqual(self.ask("DELETE", f"areas/{self.area.pk}/soil/{number}")["soil"], [])
        self.ask("DELETE", f"areas/{self.area.pk}/soil/{number}", expect=404)
