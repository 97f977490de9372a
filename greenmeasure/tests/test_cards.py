"""Ground, shelf and kit: added, changed, put away and put back; bad input named by field and value."""

import json
from typing import Any, ClassVar

from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE, SPRAYER, SPREADER, ApiTest


class Ground(ApiTest):
    def test_sizes_as_people_type_them(self) -> None:
        # 1 1/2 and 3/16 as decimals.
        for i, (typed, unit, text) in enumerate(
            (("1,720", "ft2", "1,720 ft²"), ("1 1/2", "acre", "1.5 acre"), ("160 m²", "ft2", "160 m²"))
        ):
            body = AREA | {"name": f"area {i}", "size": {"value": typed, "unit": unit}, "height": {"value": "3/16", "unit": "in"}}
            made = self.ask("POST", "areas", body, 201)
            self.assertEqual((made["size"]["text"], made["height"]["text"]), (text, "0.1875 in"))

    def test_bad_input_names_each_field_and_saves_nothing(self) -> None:
        bad = {"name": " ", "size": {"value": "-3", "unit": "ft2"}, "grass": "", "height": {"value": "9", "unit": "yd"}}
        self.assertEqual(set(self.faults("POST", "areas", bad)), {"name", "size", "grass", "height"})
        self.assertEqual(Area.objects.count(), 1)

    def test_sizes_typed_with_a_decimal_comma(self) -> None:
        for name, value, text in (("one", "620,5", "620.5 m²"), ("two", "1.250,5", "1,250 m²"), ("three", "0,125", "0.125 m²")):
            made = self.ask("POST", "areas", AREA | {"name": name, "size": {"value": value, "unit": "m2"}}, 201)
            self.assertEqual(made["size"]["text"], text)  # to four figures, as every quantity is told

    def test_absurd_sizes(self) -> None:
        for value in ("0", "nan", "inf", "1e400", "1" + "0" * 30, "12 lb", "abc", "1,5,5", ""):
            self.assertEqual(
                list(self.faults("POST", "areas", AREA | {"name": "x", "size": {"value": value, "unit": "ft2"}})), ["size"]
            )
        for value in (float("nan"), float("inf"), 1e400, -0.0):
            self.assertEqual(
                list(self.faults("POST", "areas", AREA | {"name": "x", "size": {"value": value, "unit": "ft2"}})), ["size"]
            )

    def test_names_are_the_accounts_own_whatever_their_case(self) -> None:
        self.assertIn("already", self.faults("POST", "areas", AREA | {"name": "north GREEN"})["name"])

    def test_put_away_and_back(self) -> None:
        path = f"areas/{self.area.pk}"
        self.ask("DELETE", path)
        self.assertEqual(self.ask("GET", "areas")["areas"], [])
        self.ask("POST", f"{path}/put-back")
        self.assertEqual(len(self.ask("GET", "areas")["areas"]), 1)

    def test_a_name_taken_meanwhile_stops_the_putting_back(self) -> None:
        self.ask("DELETE", f"areas/{self.area.pk}")
        self.ask("POST", "areas", AREA, 201)
        self.assertIn("name", self.faults("POST", f"areas/{self.area.pk}/put-back", {}))

    def test_change(self) -> None:
        body = AREA | {"size": {"value": 8000, "unit": "ft2"}}
        self.assertEqual(self.ask("PUT", f"areas/{self.area.pk}", body)["size"]["text"], "8,000 ft²")


class Shelf(ApiTest):
    def faulty(self, **more: Any) -> set[str]:
        return set(self.faults("POST", "products", FUNGICIDE | {"name": "another"} | more))

    def test_a_card_comes_back_as_it_was_typed(self) -> None:
        # What comes back is what was typed.
        made = next(p for p in self.ask("GET", "products") if p["name"] == "Test SC")
        self.assertEqual(made["rates"][0]["phrase"], "0.4 to 0.8 fl oz per 1,000 sq ft")
        self.assertEqual(made["rates"][0]["start"]["text"], "0.4 fl oz/1000 ft²")
        self.assertEqual(
            (made["density"]["text"], made["packages"][0]["text"], made["packages"][0]["price"]), ("9 lb/gal", "1 gal", "320.00")
        )

    def test_rows_keep_what_they_are_when_a_card_is_changed(self) -> None:
        row = self.spray.rates.get()
        rates = [{"phrase": "1 to 2 fl oz per acre"}, {"id": row.pk, "use": "changed", "phrase": row.phrase}]
        made = self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rates": rates})
        self.assertEqual(made["rates"][1]["id"], row.pk)
        self.assertEqual(Product.objects.get(pk=self.spray.pk).rates.count(), 2)

    def test_faults_by_field(self) -> None:
        self.assertEqual(self.faulty(rates=[{"phrase": "3 zorks per acre"}]), {"rates.0.phrase"})
        self.assertEqual(self.faulty(rates=[]), {"rates"})
        self.assertEqual(self.faulty(kind="potion", formulation="XX"), {"kind", "formulation"})
        self.assertEqual(self.faulty(density={"value": 92, "unit": "lb/gal"}), {"density"})
        for price in ("free", "NaN"):
            self.assertEqual(self.faulty(packages=[{"value": 1, "unit": "gal", "price": price}]), {"packages.0.price"})
        self.assertEqual(self.faulty(packages=[{"value": 5, "unit": "lb"}]), {"packages.0.value"})
        self.assertEqual(
            self.faulty(contents=[{"name": "a", "basis": "active", "amount": "120", "unit": "%"}]), {"contents.0.amount"}
        )
        self.assertEqual(self.faulty(rates=[{"phrase": "3 oz wt per acre"}], density=None), {"density"})
        self.assertEqual(self.faulty(name=""), {"name"})

    def test_granules_are_not_poured_nor_a_share_of_spray(self) -> None:
        for phrase in ("2 fl oz per acre", "2 lb per 100 gal"):
            body = FEED | {"name": "x", "rates": [{"phrase": phrase}]}
            self.assertEqual(set(self.faults("POST", "products", body)), {"rates.0.phrase"})

    def test_a_bare_ounce_is_asked_back_with_its_readings(self) -> None:
        body = FUNGICIDE | {"name": "x", "rates": [{"phrase": "2 oz per 1000 sq ft"}]}
        said = self.ask("POST", "products", body, 422)
        self.assertEqual(said["code"], "ambiguous")
        self.assertEqual([c["text"] for c in said["fields"][0]["choices"]], ["2 fl oz per 1000 sq ft", "2 oz wt per 1000 sq ft"])

    def test_a_phrase_is_read_as_it_is_typed(self) -> None:
        # 1/2 lb × 43.56 = 21.78 lb/acre.
        said = self.ask("POST", "products/phrase", {"phrase": "1/2 lb/M"})
        self.assertEqual(said["understood"], "0.5 lb per 1000 ft²")
        self.assertIn("21.78 lb/acre", said["also"])


class Kit(ApiTest):
    def test_reach_of_a_filling(self) -> None:
        made = next(m for m in self.ask("GET", "machines") if m["kind"] == "sprayer")
        self.assertEqual((made["reach"], made["output"]["text"]), ("4,000 ft²", "1 gal/1000 ft²"))

    def test_faults_by_field(self) -> None:
        for more, field in (
            ({"form": "drop"}, "form"),
            ({"nozzle_count": 1.5}, "nozzle_count"),
            ({"pressure": {"value": 3, "unit": "ft"}}, "pressure"),
            ({"output": {"value": 900, "unit": "gal/kft2"}}, "output"),
            ({"output": {"value": 2, "unit": "lb/kft2"}}, "output"),
            ({"capacity": {"value": 4, "unit": "lb"}}, "capacity"),
            ({"capacity": {"value": 0, "unit": "gal"}}, "capacity"),
            ({"name": ""}, "name"),
            ({"kind": "drone"}, "kind"),
        ):
            self.assertEqual(list(self.faults("POST", "machines", SPRAYER | {"name": "x"} | more)), [field])
        self.assertEqual(Machine.objects.count(), 2)

    def test_a_hopper_needs_no_output(self) -> None:
        self.assertIsNone(self.ask("POST", "machines", SPREADER | {"name": "x"}, 201)["output"])

    def test_change_put_away_and_back(self) -> None:
        path = f"machines/{self.sprayer.pk}"
        changed = self.ask("PUT", path, SPRAYER | {"capacity": {"value": 25, "unit": "gal"}})
        self.assertEqual((changed["capacity"]["text"], changed["reach"]), ("25 gal", "25,000 ft²"))
        self.ask("DELETE", path)
        self.assertEqual([m["kind"] for m in self.ask("GET", "machines")], ["spreader"])
        self.ask("POST", f"{path}/put-back")
        self.assertEqual(len(self.ask("GET", "machines")), 2)


class Contents(ApiTest):
    """What a card says that it is and holds."""

    BOTH: ClassVar[dict[str, Any]] = {
        "name": "Weeds 24-0-6",
        "kind": "fertiliser",
        "also": ["herbicide"],
        "formulation": "GR",
        "group_code": "4",
        "contents": [{"name": "N", "basis": "N", "amount": 24, "unit": "%"}],
        "rates": [{"phrase": "3 to 4 lb per 1,000 sq ft"}],
    }

    def test_a_weed_and_feed_is_both(self) -> None:
        made = self.ask("POST", "products", self.BOTH, 201)
        self.assertEqual(
            (made["kind_text"], made["also"], made["codes"]), ("fertiliser and herbicide", ["herbicide"], ["HRAC 4"])
        )
        job = self.feed_job(product_id=made["id"], row_id=made["rates"][0]["id"], rate={"value": 5, "unit": "lb/kft2"})
        self.assertEqual(self.ask("POST", "reckon/job", job)["judgement"]["stand"], "above")
        self.assertIn("law for a herbicide", self.ask("POST", "rounds", job, 422)["message"])
        # Through the spreader and the book: the next granules are refused until it is brushed out.
        job["parts"][0]["doses"][0]["rate"]["value"] = 4
        begun = self.ask("POST", "rounds", job, 201)
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": 28, "unit": "lb"}}]})
        said = {f["key"]: f["act"] for f in self.ask("POST", "reckon/job", self.feed_job())["machine_findings"]}
        self.assertEqual(said.get("not-cleaned"), "warn")

    def test_a_printed_setting_is_kept_and_told_as_printed(self) -> None:
        card = self.BOTH | {"printed": [{"form": "broadcast", "setting": "5 1/2"}, {"form": "drop", "setting": " "}]}
        made = self.ask("POST", "products", card, 201)
        self.assertEqual(made["printed"], [{"form": "broadcast", "setting": "5 1/2"}])
        self.spreader.form = "broadcast"
        self.spreader.save()
        job = self.feed_job(product_id=made["id"], row_id=made["rates"][0]["id"], rate={"value": 4, "unit": "lb/kft2"})
        said = self.ask("POST", "reckon/job", job)
        self.assertEqual(said["parts"][0]["setting"], "5 1/2 as printed, not tested")
        self.assertIn("printed-setting", [f["key"] for f in said["machine_findings"]])
        asked = {"product_id": made["id"], "rate": {"value": 4, "unit": "lb/kft2"}}
        alone = self.ask("POST", f"machines/{self.spreader.pk}/setting", asked)
        self.assertEqual(alone["setting"], "5 1/2 as printed, not tested")
        bad = self.BOTH | {"printed": [{"form": "sled", "setting": "1"}]}
        self.assertIn("printed.0.form", self.faults("POST", "products", bad))

    def test_rates_can_be_typed_as_syringes_and_scales_tell_them(self) -> None:
        """0.6 fl oz are 17.744 mL (29.5735 mL each, NIST Handbook 44)."""
        units = [u["key"] for u in self.ask("GET", "products")[1]["rates"][0]["units"]]
        self.assertLessEqual({"fl_oz/kft2", "ml/kft2", "tsp/kft2", "ml/m2_100"}, set(units))
        said = self.ask("POST", "reckon/job", self.job(rate={"value": "17.74411773750", "unit": "ml/kft2"}))
        self.assertEqual(said["mix"][0]["amount"]["text"], "124.2 mL")  # 4.2 fl oz

    def test_what_it_is_besides_is_asked_like_what_it_is_first(self) -> None:
        """A bare pound of a herbicide that is also a fertiliser is a question: product, or nitrogen."""
        self.ask("POST", "products", self.BOTH | {"kind": "herbicide", "also": ["fertiliser"]}, 201)
        line = {"line": "3 lb/M of Weeds 24-0-6 on North green"}
        asked = self.ask("POST", "reckon/line", line, 422)["fields"][0]
        self.assertEqual(len(asked["choices"]), 2)

    def test_it_goes_out_and_comes_in_as_it_is(self) -> None:
        self.ask("POST", "products", self.BOTH, 201)
        answer: Any = self.client.get("/api/accounts/alder/products/shelf.csv")
        text = b"".join(answer.streaming_content).decode()
        self.assertIn("Weeds 24-0-6,fertiliser,herbicide,GR", text)
        whole = json.loads(self.client.get("/api/accounts/alder/products/shelf.json").content)
        self.assertEqual([p["also"] for p in whole["products"] if p["name"] == "Weeds 24-0-6"], [["herbicide"]])

    def test_what_it_is_also_must_be_a_type(self) -> None:
        self.assertEqual(list(self.faults("POST", "products", self.BOTH | {"also": ["tonic"]})), ["also.0"])
        made = self.ask("POST", "products", self.BOTH | {"also": ["fertiliser", "herbicide", "herbicide"]}, 201)
        self.assertEqual(made["also"], ["herbicide"])

    def test_a_grade_in_the_name_is_offered(self) -> None:
        found = self.ask("POST", "products/grade", {"name": "Weeds 24-0-6"})
        self.assertEqual((found["text"], [c["basis"] for c in found["contents"]]), ("24 % N and 6 % K₂O", ["N", "K2O"]))
        self.assertEqual(self.ask("POST", "products/grade", {"name": "Weeds"})["contents"], [])

    def test_a_nutrient_typed_as_an_active_is_asked(self) -> None:
        bad = self.BOTH | {"also": [], "contents": [{"name": "Urea", "basis": "active", "amount": 50, "unit": "%"}]}
        fault = self.ask("POST", "products", bad, 422)["fields"][0]
        self.assertEqual((fault["field"], fault["remedy"]), ("contents.0.basis", "Count it as N: 50 % urea is 23 % N."))
        # Of a pesticide an element may be the active: copper and sulfur are fungicides.
        sulfur = FUNGICIDE | {"name": "S", "contents": [{"name": "sulfur", "basis": "active", "amount": 80, "unit": "%"}]}
        self.ask("POST", "products", sulfur, 201)

    def test_a_type_says_what_it_opens_with(self) -> None:
        kinds = {k["key"]: k["opens"] for k in self.ask("GET", "products/options")["kinds"]}
        self.assertEqual((kinds["fertiliser"], kinds["herbicide"], kinds["adjuvant"]), (["N", "P2O5", "K2O"], ["active"], []))
