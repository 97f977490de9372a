"""The slips that were let through at one door: by the line, by a target's name, by a rate of another kind."""

from typing import Any

from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest

IRON = {
    "name": "Iron 8-0-0",
    "kind": "iron",
    "formulation": "SL",
    "density": {"value": 10, "unit": "lb/gal"},
    "contents": [{"name": "Fe", "basis": "Fe", "amount": 6, "unit": "%"}],
    "rates": [{"phrase": "2 to 4 fl oz per 1,000 sq ft"}],
}


class AtTheLine(ApiTest):
    def line(self, text: str) -> Any:
        return self.ask("POST", "reckon/line", {"line": text})

    def rows(self, *rows: dict[str, Any]) -> None:
        first = FUNGICIDE["rates"][0]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": [first | row for row in rows]})

    def test_a_grass_that_the_label_does_not_list(self) -> None:
        self.rows({"grasses": ["creeping_bentgrass"]})
        self.ask("POST", "areas", AREA | {"name": "Bank", "grass": "tall_fescue"}, 201)
        said = self.line("0.6 fl oz/M of Test SC on Bank with Sprayer")
        self.assertTrue(said["refused"])
        # 7 × 0.6 = 4.2 fl oz.
        self.assertEqual(said["sentence"], "Do not pour 4.2 fl oz of Test SC for Bank.")
        self.assertIn("does not list tall fescue", " ".join(said["details"]))
        self.assertFalse(self.line("0.6 fl oz/M of Test SC on North green with Sprayer")["refused"])

    def test_a_row_is_not_taken_because_its_rate_fits(self) -> None:
        """1.5 fl oz lies in the row for tall fescue; on bentgrass the label's most is 0.8."""
        self.rows({"grasses": ["creeping_bentgrass"]}, {"grasses": ["tall_fescue"], "phrase": "1 to 2 fl oz per 1,000 sq ft"})
        said = self.line("1.5 fl oz/M of Test SC on North green with Sprayer")
        self.assertTrue(said["refused"])
        self.assertIn("The label says 0.4 to 0.8 fl oz per 1000 ft²", " ".join(said["details"]))

    def test_nutrient_pounds_and_product_pounds_are_both_held_against_the_label(self) -> None:
        """Of a 20-0-10 3.7 lb/1000 ft² bring 0.74 lb N, over the label's 0.6 lb N: a nutrient's label warns."""
        over = self.line("3.7 lb product/M of Test 20-0-10 on North green with Spreader")
        self.assertIn("3.7 lb/1000 ft², which is 0.74 lb N/1000 ft², is", " ".join(over["details"]))
        self.assertFalse(over["refused"])
        sound = self.line("2.5 lb product/M of Test 20-0-10 on North green with Spreader")
        self.assertIn("is within the label", " ".join(sound["details"]))

    def test_a_flood_of_liquid_iron(self) -> None:
        self.ask("POST", "products", IRON, 201)
        said = " ".join(self.line("16.7 fl oz/M of Iron 8-0-0 on North green with Sprayer")["details"])
        # 16.7 ÷ 4 = 4.17 times.
        self.assertIn("4.17 times the label's highest rate", said)

    def test_a_rate_that_the_card_cannot_tell_is_a_fault_and_no_answer(self) -> None:
        fault = self.ask("POST", "reckon/line", {"line": "0.5 lb N/M of Test SC on North green with Sprayer"}, 422)
        self.assertTrue(fault["message"])


class Targets(ApiTest):
    def keys(self, target: str, *rows: dict[str, Any], rate: float = 0.6) -> dict[str, str]:
        first = FUNGICIDE["rates"][0]
        made = self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": [first | row for row in rows]})
        part = {
            "area_id": self.area.pk,
            "doses": [{"row_id": made["rates"][0]["id"], "rate": {"value": rate, "unit": "fl_oz/kft2"}}],
        }
        body = {"mix": [{"product_id": self.spray.pk, "target": target}], "parts": [part]}
        return {f["key"]: f["act"] for f in self.ask("POST", "reckon/job", body)["parts"][0]["doses"][0]["findings"]}

    def test_snow_moulds_are_gray_snow_mould_too(self) -> None:
        self.assertNotIn("refuse", self.keys("gray_snow_mould", {"target": "Snow moulds", "use": "Snow moulds"}).values())
        self.assertIn("target-not-listed", self.keys("dollar_spot", {"target": "Snow moulds", "use": "Snow moulds"}))

    def test_a_target_is_asked_for_where_the_rows_differ_by_it(self) -> None:
        two = ({"target": "Dollar spot"}, {"target": "Brown patch", "phrase": "0.6 to 1 fl oz/M"})
        self.assertEqual(self.keys("", *two)["target-not-said"], "ask")
        self.assertNotIn("target-not-said", self.keys("dollar_spot", *two))
        alike = ({"target": "Dollar spot"}, {"target": "Brown patch"})
        self.assertNotIn("target-not-said", self.keys("", *alike))

    def test_a_rate_between_the_preventive_and_the_curative_is_neither(self) -> None:
        # 0.6 lies over 0.5 and under 0.7, the ends of the two rows.
        rows = (
            {"target": "Dollar spot", "intent": "preventive", "phrase": "0.3 to 0.5 fl oz/M"},
            {"target": "Dollar spot", "intent": "curative", "phrase": "0.7 to 0.8 fl oz/M"},
        )
        self.assertIn("between-rows", self.keys("dollar_spot", *rows, rate=0.6))
        for rate in (0.4, 0.5):
            self.assertNotIn("between-rows", self.keys("dollar_spot", *rows, rate=rate))


class Asked(ApiTest):
    """What a rule needs and nobody knows is asked; the answer is kept with the ground."""

    def keys(self) -> dict[str, str]:
        return {f["key"]: f["act"] for f in self.ask("POST", "reckon/job", self.job())["parts"][0]["doses"][0]["findings"]}

    def test_the_height(self) -> None:
        rows = [FUNGICIDE["rates"][0] | {"height_high": 1}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rows})
        self.assertEqual(self.keys()["height-unknown"], "ask")
        self.ask("PUT", f"areas/{self.area.pk}", AREA | {"height": {"value": 0.2, "unit": "in"}})
        self.assertNotIn("height-unknown", self.keys())

    def test_the_day_of_seed(self) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": {"seed_after": {"value": 28, "unit": "day"}}})
        self.assertEqual(self.keys()["seed-day-unknown"], "ask")
        self.ask("PUT", f"areas/{self.area.pk}", AREA | {"sown_on": "2015-05-01"})
        self.assertNotIn("seed-day-unknown", self.keys())

    def test_a_whole_and_its_part_in_one_job(self) -> None:
        """0.6 twice on one ground, where 0.8 a season are allowed."""
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": {"most_per_season": "0.8 fl oz per 1,000 sq ft"}})
        part = AREA | {"name": "Collar", "parent_id": self.area.pk, "size": {"value": "900", "unit": "ft2"}}
        collar = self.ask("POST", "areas", part, 201)["id"]
        job = self.job()
        job["parts"] += [job["parts"][0] | {"area_id": collar}]
        said = self.ask("POST", "reckon/job", job)
        keys = {f["key"]: f["act"] for p in said["parts"] for d in p["doses"] for f in d["findings"]}
        self.assertEqual((keys["season-product"], keys["twice-in-a-job"]), ("refuse", "refuse"))
        self.ask("POST", "rounds", job, 422)

    def test_a_round_that_was_given_up_asks_the_gate_again(self) -> None:
        rows = [FUNGICIDE["rates"][0] | {"interval_low": 14}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rows})
        first = self.ask("POST", "rounds", self.job(), 201)
        self.ask("POST", f"rounds/{first['id']}/give-up")
        second = self.ask("POST", "rounds", self.job(), 201)
        said = self.ask("POST", f"rounds/{first['id']}/take-up", expect=422)
        self.assertEqual(said["code"], "refused")
        self.ask("POST", f"rounds/{second['id']}/give-up")
        self.assertEqual(self.ask("POST", f"rounds/{first['id']}/take-up")["status"], "under_way")


class Outlines(ApiTest):
    """Two areas that nobody called part of each other, and whose outlines lie on one another: ground is one."""

    def ring(self, name: str, west: float, east: float) -> int:
        """A strip 0.0003° high, so wide in thousandths of a degree west of 71.6°."""
        corners = [(41.2, west), (41.2, east), (41.2003, east), (41.2003, west)]
        text = "\n".join(f"{lat}, {-71.6 + lon / 1000}" for lat, lon in corners)
        body = {"name": name, "grass": "creeping_bentgrass", "measure": {"method": "ring", "ring": text}}
        return int(self.ask("POST", "areas", body, 201)["id"])

    def test_what_lies_on_it_counts_and_a_neighbour_does_not(self) -> None:
        rows = [FUNGICIDE["rates"][0] | {"interval_low": 14}]
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rows})
        wide, inside, beside = self.ring("Wide", 0, 1), self.ring("Inside", 0.5, 0.8), self.ring("Beside", 1, 1.4)
        self.ask("POST", "rounds", self.job(area_id=wide), 201)
        for area, refused in ((wide, True), (inside, True), (beside, False), (self.area.pk, False)):
            self.assertEqual(self.ask("POST", "reckon/job", self.job(area_id=area))["refused"], refused, area)
