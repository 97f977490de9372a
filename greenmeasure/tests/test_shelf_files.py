"""The shelf as files, its rules, its stock and its label pictures."""

import json
from io import BytesIO
from typing import Any
from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from greenmeasure.shelf.models import LabelFile, Product
from greenmeasure.tests.base import FUNGICIDE, ApiTest, pdf

RULES = {
    "most_per_season": "3 fl oz per 1,000 sq ft",
    "active_per_season": "2 lb ai per acre",
    "applications_per_season": 4,
    "consecutive": 2,
    "temperature_low": {"value": "−2", "unit": "degC"},
    "temperature_high": {"value": 85, "unit": "degF"},
    "wind_high": {"value": 10, "unit": "mph"},
    "leaf": "dry",
    "rain_after": {"value": "4", "unit": "h"},
    "water_in_delay": {"value": 0, "unit": "h"},
    "water_in_depth": {"value": "1/4", "unit": "in"},
    "seed_before": {"value": 8, "unit": "week"},
    "buffer": {"value": 25, "unit": "ft"},
    "incompatible": [{"what": "FRAC 3", "days": 7, "note": "Leaf burn."}],
    "revised": "2026-01-15",
}


class Rules(ApiTest):
    def save(self, **rules: Any) -> dict[str, Any]:
        body = FUNGICIDE | {"rules": rules}
        made: dict[str, Any] = self.ask("PUT", f"products/{self.spray.pk}", body)
        return made

    def test_rules_come_back_as_typed_and_in_sentences(self) -> None:
        # 8 weeks are 56 days; 1/4 in is 6.35 mm (exact).
        made = self.save(**RULES)
        said = {r["key"]: r["text"] for r in made["rules_said"]}
        self.assertEqual(said["temperature"], "Air −2 °C to 85 °F.")
        self.assertEqual(said["rain_after"], "No rain or water for 4 h after.")
        self.assertEqual(said["water_in_depth"], "Water in with 1/4 in of water.")
        self.assertEqual(said["incompatible"], "Not with FRAC 3 within 7 days. Leaf burn.")
        self.assertEqual(made["rules"]["seed_before"], {"value": 8, "unit": "week"})
        core = Product.objects.get(pk=self.spray.pk).core().rules
        self.assertEqual((core.seed_before, core.rain_after, core.water_in_delay), (56, 4.0, 0.0))
        self.assertAlmostEqual(core.water_in_depth or 0, 6.35)
        self.assertAlmostEqual(core.temperature[0] or 0, -2)

    def test_delay_and_duration_of_watering_in_are_two_things(self) -> None:
        # 30 min are 0.5 h.
        self.save(water_in_delay={"value": 30, "unit": "min"}, water_in_time={"value": 12, "unit": "min"})
        core = Product.objects.get(pk=self.spray.pk).core().rules
        self.assertEqual((core.water_in_delay, core.water_in_minutes), (0.5, 12.0))

    def test_faults_by_field(self) -> None:
        for rules, field in (
            ({"most_per_season": "lots"}, "rules.most_per_season"),
            ({"most_per_season": "2 fl oz per gal"}, "rules.most_per_season"),
            ({"active_per_season": "2 lb per acre"}, "rules.active_per_season"),
            ({"leaf": "damp"}, "rules.leaf"),
            ({"rain_after": {"value": 4, "unit": "lb"}}, "rules.rain_after"),
            ({"consecutive": 0}, "rules.consecutive"),
            ({"temperature_low": {"value": 400, "unit": "degF"}}, "rules.temperature_low"),
            (
                {"temperature_low": {"value": 80, "unit": "degF"}, "temperature_high": {"value": 50, "unit": "degF"}},
                "rules.temperature_high",
            ),
        ):
            self.assertEqual(list(self.faults("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": rules})), [field])

    def test_a_row_for_ground_is_checked(self) -> None:
        row = {"phrase": "1 fl oz/M"}
        for more, field in (
            ({"grasses": ["moss"]}, "rates.0.grasses"),
            ({"uses": ["moon"]}, "rates.0.uses"),
            ({"intent": "hope"}, "rates.0.intent"),
            ({"height_low": 2, "height_high": 1}, "rates.0.height_high"),
            ({"interval_low": "1.5"}, "rates.0.interval_low"),
            ({"interval_low": 21, "interval_high": 14}, "rates.0.interval_high"),
        ):
            body = FUNGICIDE | {"rates": [row | more]}
            self.assertEqual(list(self.faults("PUT", f"products/{self.spray.pk}", body)), [field])

    def test_a_slow_share_is_of_the_product(self) -> None:
        body = FUNGICIDE | {"contents": [{"name": "N", "basis": "N", "amount": 20, "unit": "%", "slow": 30}]}
        self.assertEqual(list(self.faults("PUT", f"products/{self.spray.pk}", body)), ["contents.0.slow"])


class Files(ApiTest):
    def bring(self, form: str, text: str, keep: bool = False) -> Any:
        return self.ask("POST", "products/import" if keep else "products/import/preview", {"form": form, "text": text})

    def test_json_out_and_in_again_changes_nothing(self) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": RULES})
        text = self.client.get("/api/accounts/alder/products/shelf.json").content.decode()
        self.assertEqual({x["act"] for x in self.bring("json", text)["lines"]}, {"same"})

    def test_csv_out_and_in_again_changes_nothing(self) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": RULES, "note": "=2+3"})
        answer = self.client.get("/api/accounts/alder/products/shelf.csv")
        text = b"".join(answer.streaming_content).decode()  # type: ignore[attr-defined]
        self.assertIn("'=2+3", text)
        self.assertEqual({x["act"] for x in self.bring("csv", text)["lines"]}, {"same"})

    def test_a_preview_says_what_would_change_and_keeps_nothing(self) -> None:
        # The price is what was brought.
        given = json.loads(self.client.get("/api/accounts/alder/products/shelf.json").content)
        given["products"][1]["packages"][0]["price"] = "355.50"
        given["products"].append({"name": "Newcomer", "kind": "iron", "formulation": "SL", "rates": [{"phrase": "2 fl oz/M"}]})
        given["products"].append({"name": "Broken", "kind": "iron", "formulation": "SL", "rates": [{"phrase": "2 zorks"}]})
        said = self.bring("json", json.dumps(given))
        self.assertEqual([x["act"] for x in said["lines"]], ["same", "change", "add", "refused"])
        self.assertIn("packages", said["lines"][1]["changes"][0])
        self.assertIn("rates.0.phrase", said["lines"][3]["problems"][0])
        self.assertEqual(Product.objects.count(), 2)
        self.assertEqual(self.bring("json", json.dumps(given), keep=True)["refused"], 1)
        self.assertEqual(Product.objects.count(), 2)
        given["products"].pop()
        self.assertIn("Done: 1 to add, 1 to change", self.bring("json", json.dumps(given), keep=True)["sentence"])
        self.assertEqual(str(self.spray.packages.get().price), "355.50")

    def test_rows_keep_their_ids_through_an_import(self) -> None:
        row = self.spray.rates.get().pk
        given = json.loads(self.client.get("/api/accounts/alder/products/shelf.json").content)
        given["products"][1]["note"] = "changed"
        self.bring("json", json.dumps(given), keep=True)
        self.assertEqual(self.spray.rates.get().pk, row)

    def test_a_file_at_fault_is_said(self) -> None:
        for form, text, words in (
            ("json", "{", "no JSON"),
            ("json", '{"a": 1}', "no list of products"),
            ("csv", "product,dose\nx,1", "name and rate is missing"),
        ):
            said = self.ask("POST", "products/import/preview", {"form": form, "text": text}, 422)
            self.assertIn(words, said["message"])


class Stock(ApiTest):
    LOT = {"number": "A-1", "left": {"value": 40, "unit": "fl_oz"}, "received_on": "2026-02-01", "expires_on": "2026-03-01"}

    def test_what_is_left_is_told_and_taken_from(self) -> None:
        # 40 − 4.2 planned; 40 − 4.5 used.
        made = self.ask("POST", f"products/{self.spray.pk}/lots", self.LOT, 201)
        self.assertEqual((made["stock"], made["lots"][0]["expired"]), ("40 fl oz", True))
        self.assertEqual(
            self.ask("POST", "reckon/job", self.job())["mix"][0]["purchase"]["sentence"],
            "40 fl oz in stock is enough; 35.8 fl oz will be left.",
        )
        begun = self.ask("POST", "rounds", self.job(), 201)
        body = {"used": [{"amount": {"value": 4.5, "unit": "fl_oz"}, "lot_id": made["lots"][0]["id"]}]}
        entry = self.ask("POST", f"rounds/{begun['id']}/finish", body)[0]
        self.assertEqual(entry["entries"][0]["lot"], "A-1")
        self.assertAlmostEqual(self.spray.lots.get().left_value, 35.5)

    def test_a_lot_is_counted_again_and_taken_off(self) -> None:
        # 1 1/2 as a decimal.
        made = self.ask("POST", f"products/{self.spray.pk}/lots", self.LOT, 201)
        path = f"products/{self.spray.pk}/lots/{made['lots'][0]['id']}"
        counted = self.ask("PUT", path, self.LOT | {"left": {"value": "1 1/2", "unit": "gal"}, "expires_on": "2031-01-01"})
        self.assertEqual((counted["stock"], counted["lots"][0]["expired"]), ("1.5 gal", False))
        self.assertEqual(self.ask("DELETE", path)["lots"], [])
        self.ask("DELETE", path, None, 404)

    def test_a_lot_of_another_product_is_not_found(self) -> None:
        made = self.ask("POST", f"products/{self.spray.pk}/lots", self.LOT, 201)
        self.ask("DELETE", f"products/{self.feed.pk}/lots/{made['lots'][0]['id']}", None, 404)
        self.assertEqual(self.spray.lots.count(), 1)

    def test_short_stock_becomes_a_list_to_buy(self) -> None:
        # 4.2 − 2 fl oz are short: one gallon, at the card's price.
        self.ask("POST", f"products/{self.spray.pk}/lots", self.LOT | {"left": {"value": 2, "unit": "fl_oz"}}, 201)
        self.assertIn(
            "Buy 1 × 1 gal for 320.00 USD", self.ask("POST", "reckon/job", self.job())["mix"][0]["purchase"]["sentence"]
        )

    def test_faults_by_field(self) -> None:
        path = f"products/{self.spray.pk}/lots"
        bad = self.LOT | {"number": "", "left": {"value": 4, "unit": "lb"}, "expires_on": "2026-01-01"}
        self.assertEqual(set(self.faults("POST", path, bad)), {"number", "left", "expires_on"})


class Unreadable(ApiTest):
    """A stored rule that no longer parses: the card still opens, and every door stops the plan."""

    def setUp(self) -> None:
        super().setUp()
        self.spray.rules = {"most_per_season": "4 blobs per paddock", "reentry": "soon", "leaf": "dry"}
        self.spray.save()

    def test_the_card_opens_and_says_so(self) -> None:
        card = next(p for p in self.ask("GET", "products") if p["id"] == self.spray.pk)
        said = {r["key"]: r["text"] for r in card["rules_said"]}
        self.assertIn("cannot be read", said["most_per_season"])
        self.assertIn("cannot be read", said["reentry"])
        self.assertEqual(said["leaf"], "Leaf dry.")
        self.ask("GET", "products/shelf.json")

    def test_reckon_start_and_line_stop(self) -> None:
        found = self.ask("POST", "reckon/job", self.job())
        self.assertTrue(found["refused"])
        self.assertEqual(
            {f["key"] for f in found["parts"][0]["doses"][0]["findings"] if f["act"] == "refuse"}, {"rule-unreadable"}
        )
        self.assertIn("cannot be read any more", self.ask("POST", "rounds", self.job(), 422)["message"])

    def test_typed_again_it_holds(self) -> None:
        self.ask("PUT", f"products/{self.spray.pk}", FUNGICIDE | {"rules": {"most_per_season": "4 fl oz per 1,000 sq ft"}})
        self.assertFalse(self.ask("POST", "reckon/job", self.job())["refused"])

    def test_the_form_is_made_from_the_table(self) -> None:
        from core.label.table import RULES

        fields = self.ask("GET", "products/options")["rules"]
        self.assertEqual([f["key"] for f in fields], [r.key for r in RULES])
        self.assertEqual(next(f for f in fields if f["key"] == "wind_high")["units"][0]["key"], "mph")


class Pictures(ApiTest):
    def send(self, name: str, data: bytes) -> Any:
        file = SimpleUploadedFile(name, data)
        return self.client.post(f"/api/accounts/alder/products/{self.spray.pk}/labels", {"file": file})

    def picture(self) -> bytes:
        out = BytesIO()
        exif = Image.Exif()
        exif[0x010E] = "taken at home"
        Image.new("RGB", (3000, 40), "white").save(out, "JPEG", exif=exif)
        return out.getvalue()

    def test_a_photograph_is_sized_down_and_rid_of_its_place_and_time(self) -> None:
        made = self.send("label.jpg", self.picture())
        self.assertEqual(made.status_code, 201)
        number = made.json()["labels"][0]["id"]
        answer = self.client.get(f"/api/accounts/alder/products/{self.spray.pk}/labels/{number}")
        self.assertEqual((answer["Content-Type"], answer["X-Content-Type-Options"]), ("image/jpeg", "nosniff"))
        with Image.open(BytesIO(answer.content)) as kept:
            self.assertEqual((kept.width, dict(kept.getexif())), (2400, {}))

    def test_a_pdf_is_kept_as_it_is_and_anything_else_refused(self) -> None:
        self.assertEqual(self.send("label.pdf", pdf()).status_code, 201)
        for data in (b"<script>alert(1)</script>", b"", b"%PDF-1.4 label", pdf()[:300], pdf(201)):
            refused = self.send("label.html", data)
            self.assertEqual((refused.status_code, refused.json()["fields"][0]["field"]), (422, "file"))
        self.assertEqual(LabelFile.objects.count(), 1)

    def test_a_picture_is_measured_before_it_is_decoded(self) -> None:
        """A PNG of 20 kB holds 169 million pixels, which decoded are half a gigabyte and more."""
        out = BytesIO()
        Image.new("1", (13_000, 13_000)).save(out, "PNG")
        self.assertLess(len(out.getvalue()), 40_000)
        with patch("PIL.ImageFile.ImageFile.load", side_effect=AssertionError("it was decoded")):
            refused = self.send("label.png", out.getvalue())
        self.assertEqual(refused.status_code, 422)
        self.assertIn("13,000 × 13,000 pixels", refused.json()["message"])

    def test_a_picture_is_taken_away_and_then_is_not_there(self) -> None:
        number = self.send("label.pdf", pdf()).json()["labels"][0]["id"]
        path = f"products/{self.spray.pk}/labels/{number}"
        self.sign_in("viewer")
        self.ask("DELETE", path, None, 403)
        self.sign_in("manager")
        self.assertEqual(self.ask("DELETE", path)["labels"], [])
        self.ask("GET", path, None, 404)
        self.ask("DELETE", path, None, 404)
