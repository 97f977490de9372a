"""Reckoning over the API: the whole answer, its refusals, and the line."""

from greenmeasure.accounts.models import Account
from greenmeasure.tests.base import ApiTest


class Job(ApiTest):
    def test_the_whole_answer(self) -> None:
        # 7 × 0.6 = 4.2 fl oz; 7 × 1 = 7 gal in tanks of 4; 4.2 ÷ 128 × 320 = 10.50; 4 × 0.6 = 2.4, at eighths 2 3/8.
        said = self.ask("POST", "reckon/job", self.job())
        self.assertEqual(said["headline"], "Pour 4.2 fl oz of Test SC for North green: 2 tanks, 7 gal in all.")
        self.assertEqual(said["mix"][0]["amount"]["text"], "4.2 fl oz")
        self.assertEqual(
            [(x["name"], x["pours"][0]["amount"], x["volume"], x["odd"]) for x in said["loads"]],
            [("Tank 1", "2.4 fl oz", "4 gal", False), ("Tank 2", "1.8 fl oz", "3 gal", True)],
        )
        self.assertEqual(said["cost"], {"total": "10.50 USD", "per_foot": "1.50 USD", "foot": "1000 ft²"})
        self.assertEqual(said["judgement"]["stand"], "within")
        self.assertEqual(said["loads"][0]["pours"][0]["measure"]["instruction"], "2 3/8 fl oz")
        self.assertTrue(said["working"] and said["cautions"] and said["wear"] and said["label_first"])

    def test_what_is_typed_counts_fractions_and_units_too(self) -> None:
        # 7 × 3/5.
        for typed in ("0.6", "3/5", 0.6):
            rate = {"value": typed, "unit": "fl_oz/kft2"}
            self.assertEqual(self.ask("POST", "reckon/job", self.job(rate=rate))["mix"][0]["amount"]["text"], "4.2 fl oz")

    def test_another_unit_of_the_same_kind(self) -> None:
        """0.6 fl oz/1000 ft² is 26.136 fl oz/acre (× 43.56, exact)."""
        rate = {"value": 26.136, "unit": "fl_oz/acre"}
        said = self.ask("POST", "reckon/job", self.job(rate=rate))
        self.assertEqual(said["mix"][0]["amount"]["text"], "4.2 fl oz")
        self.assertAlmostEqual(said["parts"][0]["doses"][0]["rule"]["value"], 0.6, places=9)

    def test_above_the_label_is_answered_and_marked_refused(self) -> None:
        # 0.9 is above the label's 0.8.
        said = self.ask("POST", "reckon/job", self.job(rate={"value": 0.9, "unit": "fl_oz/kft2"}))
        self.assertTrue(said["judgement"]["refused"])
        self.assertIn("0.4 to 0.8 fl oz per 1000 ft²", said["judgement"]["sentence"])

    def test_granules(self) -> None:
        # 7 × 0.5 lb N ÷ 0.20 = 17.5 lb.
        said = self.ask("POST", "reckon/job", self.feed_job(passes=2))
        self.assertEqual(said["mix"][0]["amount"]["text"], "17.5 lb")
        self.assertEqual([x["name"] for x in said["loads"]], ["Hopper 1, pass 1", "Hopper 2, pass 2"])
        self.assertEqual(said["delivered"][0]["per_foot"], "0.5 lb/1000 ft²")
        self.assertEqual((said["cost"], said["mix"][0]["cost_why_not"]), (None, "No package on the card."))

    def test_a_metric_account_hears_metric(self) -> None:
        # 7 gal × 3.785411784 (NIST Handbook 44) = 26.5 L.
        Account.objects.filter(pk=self.account.pk).update(units="metric")
        said = self.ask("POST", "reckon/job", self.job())
        self.assertEqual((said["spray"], said["cost"]["foot"]), ("26.5 L", "100 m²"))

    def test_faults(self) -> None:
        for more, field in (
            ({"rate": {"value": "0", "unit": "fl_oz/kft2"}}, "parts.0.doses.0.rate"),
            ({"rate": {"value": "lots", "unit": "fl_oz/kft2"}}, "parts.0.doses.0.rate"),
            ({"rate": {"value": 1, "unit": "lb/kft2:N"}}, "parts.0.doses.0.rate"),
            ({"rate": {"value": 1, "unit": "zork"}}, "parts.0.doses.0.rate"),
            ({"passes": 0}, "passes"),
            ({"passes": 99}, "passes"),
            ({"row_id": 0}, "parts.0.doses.0.row_id"),
            ({"machine_id": self.spreader.pk}, "machine"),
            ({"area_id": "x"}, "parts.0.area_id"),
        ):
            self.assertEqual(list(self.faults("POST", "reckon/job", self.job(**more))), [field])

    def test_broken_json_is_told(self) -> None:
        answer = self.client.post("/api/accounts/alder/reckon/job", "{not json", content_type="application/json")
        self.assertEqual(answer.status_code, 400)
        self.assertEqual(set(answer.json()), {"code", "message", "fields"})


class Line(ApiTest):
    def line(self, text: str) -> dict:  # type: ignore[type-arg]
        said: dict = self.ask("POST", "reckon/line", {"line": text})  # type: ignore[type-arg]
        return said

    def test_a_whole_job_can_be_opened(self) -> None:
        # 7 × 0.6.
        said = self.line("0.6 fl oz/M of Test SC on north with sprayer")
        self.assertEqual(said["sentence"], "Pour 4.2 fl oz of Test SC for North green: 2 tanks, 7 gal in all.")
        job = self.job()
        self.assertEqual((said["job"]["mix"], said["job"]["machine_id"]), (job["mix"], job["machine_id"]))
        self.assertEqual(said["job"]["parts"][0]["area_id"], self.area.pk)
        self.assertEqual(self.ask("POST", "reckon/job", said["job"])["mix"][0]["amount"]["text"], "4.2 fl oz")

    def test_a_line_without_a_product(self) -> None:
        said = self.line("3 lb/M on 7,000 sq ft with spreader")
        self.assertEqual(said["sentence"], "Weigh out 21 lb of product for 7,000 ft²: one hopper fill.")
        self.assertIsNone(said["job"])

    def test_reach_and_conversion(self) -> None:
        # 150 kg × 2.20462 ÷ 107.639 (1000 ft² in a hectare) = 3.0722 (NIST Handbook 44).
        self.assertEqual(self.line("how far does 30 lb go at 4 lb/M")["kind"], "reach")
        self.assertEqual(self.line("150 kg/ha in lb/M")["sentence"], "150 kg per ha is 3.0722 lb/1000 ft².")

    def test_names_of_another_account_are_unknown_here(self) -> None:
        from greenmeasure.tests.base import make_account

        make_account("birch").areas.update(name="Birch meadow")
        self.assertIn("area", self.faults("POST", "reckon/line", {"line": "2 lb/M on Birch meadow"}))

    def test_a_range_is_told_at_both_ends(self) -> None:
        # 7 × 2 and 7 × 3.
        self.assertEqual(
            self.line("2 to 3 lb/M on north")["sentence"], "North green: 14 lb at the low rate and 21 lb at the high rate."
        )
