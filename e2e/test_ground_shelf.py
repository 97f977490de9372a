"""Ground, Shelf and Reckon in the browser: measuring to scale, soil, files, whole cards, many areas, slips, side by side."""

import json
import re
import tempfile
from pathlib import Path
from typing import Any

from PIL import Image
from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Account, User
from greenmeasure.ground.actions import add_measurement, save_area
from greenmeasure.ground.models import Area, SoilReading
from greenmeasure.ground.schemas import AreaIn, MeasurementIn
from greenmeasure.scouting.models import Spot
from greenmeasure.shelf.models import LabelFile, Product
from greenmeasure.tests.base import AREA


class Ground(BrowserTest):
    def test_an_area_is_measured_into_being_and_measured_again(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.fill("Name", "Round bed lawn")
        self.pick("Grass", "Tall fescue")
        self.page.get_by_role("button", name="Measure it: tape").click()
        self.pick("How it is measured", "Shapes together")
        self.fill("Length", "80")
        self.fill("Width", "50")
        expect(self.page.locator("[data-answer=size]")).to_contain_text("4,000 ft²")
        self.button("Another shape").click()
        self.page.get_by_role("button", name="Adds Sign").nth(1).click()
        self.page.get_by_role("option", name="Is cut out").click()
        self.page.get_by_role("button", name="Rectangle Shape").nth(1).click()
        self.page.get_by_role("option", name="Circle").click()
        self.fill("Radius", "10")
        expect(self.page.locator("[data-answer=size]")).to_contain_text("3,686 ft²")
        expect(self.page.get_by_role("img", name=re.compile("^Plan"))).to_be_visible()
        self.button("Add the area").click()
        self.says("2 areas")
        self.page.get_by_role("link", name="Round bed lawn").click()
        self.says("Round bed lawn: 3,686 ft² of tall fescue")
        self.page.get_by_role("link", name="Measure it again").click()
        self.pick("How it is measured", "Radii around a pin")
        self.page.get_by_role("textbox", name="Radii, in order").fill("34 34 36 34 33 34 36 35")
        expect(self.page.get_by_text("They agree within")).to_be_visible()
        self.page.get_by_role("textbox", name="Radii, in order").fill("44 34 36 34 33 34 36 x")
        expect(self.page.locator("[data-field=radii] [role=alert]")).to_contain_text("“x” is not a number")
        self.page.get_by_role("textbox", name="Radii, in order").fill("40 41 44 41 40 41 42 41")
        expect(self.page.get_by_text("one of them is wrong")).to_be_visible()
        self.button("Keep it and use its size").click()
        self.says("Round bed lawn: 5,350 ft²")  # π × 13,624 / 8, the mean of the squared radii
        expect(self.page.get_by_role("button", name="Use this size")).to_have_count(1)

    def test_a_mixed_sward_is_typed_by_its_grasses(self) -> None:
        """Seventy to thirty by seed: common practice, no source."""
        self.let_in()
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            self.go("ground/new")
            self.fill("Name", f"Verge {size['width']}")
            self.fill("Size", "4000")
            self.pick("Grass", "Mixed sward")
            self.pick("Grass 1", "Perennial ryegrass")
            self.pick("Grass 2", "Fine fescues")
            self.page.get_by_label("Share, %").nth(1).fill("20")
            self.page.get_by_label("Share, %").nth(0).fill("70")
            self.button("Add the area").click()
            expect(self.page.get_by_role("alert").filter(has_text="add up to 90 %")).to_be_visible()
            self.page.get_by_label("Share, %").nth(1).fill("")
            self.button("Add the area").click()
            self.page.get_by_role("link", name=f"Verge {size['width']}").click()
            self.says("perennial ryegrass and fine fescues (70:30)")
        self.go("ground/new")
        self.pick("Grass", "Ornamentals")
        expect(self.page.get_by_label("Height of cut")).to_have_count(0)

    def test_a_half_for_a_trial_shares_the_whole(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.fill("Name", "Left half")
        self.pick("Grass", "Creeping bentgrass")
        self.pick("Part of", "North green")
        self.fill("As a share of it", "1/2")
        self.button("Add the area").click()
        self.says("2 areas, 7,000 ft² in all.")
        self.page.get_by_role("link", name="North green").click()
        expect(self.page.get_by_text("3,500 ft² is in no part.")).to_be_visible()

    def test_sodium_by_the_report_and_by_the_water(self) -> None:
        """Handbook 60, by hand: of CEC 15 over 6 in (0.1524 m), 18 % to 5 % takes 99.7 lb/1000 ft² of 92 % at 80 %."""
        self.let_in()
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            self.go(f"ground/{Area.objects.get().pk}/sodium")
            expect(self.page.get_by_text("No sample here tells sodium", exact=False)).to_be_visible()
            expect(self.page.get_by_role("alert")).to_have_count(0)
            self.fill("Exchangeable sodium, %", "18")
            expect(self.page.locator("[data-field=exchange] [role=alert]")).to_contain_text("is not known")
            self.fill("Exchange capacity, meq/100 g", "15")
            self.says("takes 99.7 lb/1000 ft² of gypsum")
            expect(self.page.get_by_text("The soil must drain", exact=False)).to_be_visible()
            self.fill("Exchangeable sodium, %", "")
            self.fill("Sodium, meq/L", "20")
            expect(self.page.locator("[data-field=water_calcium] [role=alert]")).to_contain_text("Copy all three")
            self.fill("Calcium, meq/L", "6")
            self.fill("Magnesium, meq/L", "2")
            self.says("11.9 % exchangeable sodium")
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])

    def test_soil_readings_become_a_plan_over_years(self) -> None:
        self.let_in()
        self.go(f"ground/{Area.objects.get().pk}/soil")
        for spot, ph in (("gate", "8.0"), ("middle", "7.9"), ("far end", "8.1")):
            self.fill("Spot", spot)
            self.page.get_by_role("textbox", name="pH", exact=True).fill(ph)
            self.button("Keep the sample").click()
            expect(self.page.get_by_role("cell", name=spot, exact=True)).to_be_visible()
        self.pick("Soil", "Clay")
        self.fill("Target pH", "6.5")
        self.says("of a product of 90 % sulfur in all")
        self.says("the rest waits for a new reading")
        expect(self.page.get_by_text("Gypsum does not lower pH")).to_be_visible()
        expect(self.page.get_by_role("img", name=re.compile("pH 8 now"))).to_be_visible()
        self.fill("Target pH", "12")
        expect(self.page.locator("[data-field=target] [role=alert]")).to_contain_text("no soil's")

    def test_a_sample_of_a_spot_on_the_plan_stands_beside_its_last(self) -> None:
        self.let_in()
        area = Area.objects.get()
        box = {"method": "rectangle", "unit": "ft", "values": {"length": "100", "width": "70"}}
        add_measurement(area, MeasurementIn(**box, taken_on="2026-03-01", use=True), User.objects.get(username="manager-alder"))
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            SoilReading.objects.all().delete()
            Spot.objects.all().delete()
            area.account.touch()
            self.go(f"ground/{area.pk}/soil")
            self.fill("Spot", "Oak end")
            plan = self.page.get_by_role("img", name="Plan: press where the sample was taken")
            plan.click()
            self.sampled("6.8", "24", "2025-03-02")
            expect(self.page.get_by_text("1 Oak end, pH 6.8")).to_be_visible()
            expect(self.page.get_by_role("button", name="Oak end Spot")).to_have_count(0)
            self.pick("Spot", "Oak end")
            self.sampled("6.3", "30", "2026-03-02")
            expect(self.page.get_by_text("pH 0.5 lower; Phosphorus 6 ppm higher since Sun 2 Mar 2025.")).to_be_visible()
            expect(self.page.get_by_text("1 Oak end, pH 6.3")).to_be_visible()
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])
        self.assertEqual([r.fixed_id for r in SoilReading.objects.all()], [Spot.objects.get().pk] * 2)

    def sampled(self, ph: str, phosphorus: str, on: str) -> None:
        """Fill in the rest of a laboratory's sample and keep it."""
        self.page.get_by_role("textbox", name="pH", exact=True).fill(ph)
        self.page.get_by_label("Taken on").fill(on)
        self.pick("Read by", "Laboratory")
        self.fill("Laboratory", "County laboratory")
        if not self.page.get_by_role("textbox", name="Found").count():
            self.button("Figures of its card").click()
            self.pick("Figure", "Phosphorus")
        self.fill("Found", phosphorus)
        self.fill("Extraction", "Olsen")
        self.button("Keep the sample").click()
        expect(self.page.get_by_text(f"Phosphorus {phosphorus} ppm (Olsen)")).to_be_visible()

    def test_geojson_shows_what_it_would_do_before_it_does_it(self) -> None:
        self.let_in()
        self.go("ground/files")
        ring = [[-71.603, 41.205], [-71.601, 41.205], [-71.6012, 41.2063], [-71.603, 41.205]]
        feature = {
            "type": "Feature",
            "geometry": {"type": "Polygon", "coordinates": [ring]},
            "properties": {"name": "From a map"},
        }
        with tempfile.TemporaryDirectory() as folder:
            good, bad = Path(folder) / "good.geojson", Path(folder) / "bad.geojson"
            good.write_text(json.dumps({"type": "FeatureCollection", "features": [feature]}))
            bad.write_text("{nonsense")
            self.take_file("File to bring in", bad)
            expect(self.page.get_by_role("alert")).to_contain_text("no JSON")
            self.take_file("File to bring in", good)
            expect(self.page.get_by_role("cell", name="From a map")).to_be_visible()
            self.assertEqual(Area.objects.count(), 1)
            self.button("Bring it in").click()
        self.says("2 areas")
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Import and export").click()
            self.page.get_by_role("link", name="Export all areas as GeoJSON").click()
        out = json.loads(Path(download.value.path()).read_text())
        self.assertEqual({f["properties"]["name"] for f in out["features"]}, {"North green", "From a map"})


class Shelf(BrowserTest):
    def test_a_card_opened_before_it_is_read_again_shows_what_was_saved(self) -> None:
        self.let_in()
        self.go(f"shelf/{Product.objects.get(name='Test SC').pk}")
        self.fill("For what", "dollar spot, preventive")
        held: list[Any] = []
        self.page.route("**/api/accounts/alder/products", lambda route: held.append(route))
        self.button("Save the changes").click()
        self.page.wait_for_url("**/shelf")
        self.page.get_by_role("link", name="Test SC").click()
        expect(self.button("Save the changes")).to_be_visible()
        for route in held:
            route.continue_()
        self.page.unroute("**/api/accounts/alder/products")
        expect(self.page.get_by_role("textbox", name="For what")).to_have_value("dollar spot, preventive")

    def test_a_whole_card_with_its_rules_its_stock_and_its_picture(self) -> None:
        self.let_in()
        product = Product.objects.get(name="Test SC")
        self.go(f"shelf/{product.pk}")
        self.page.get_by_role("button", name="Which target, grass, height, interval?").click()
        self.pick("Target", "Dollar spot")
        self.pick_many("Grasses listed", "Creeping bentgrass", "Perennial ryegrass")
        self.fill("Days, from", "14")
        self.button("Open them").click()
        self.fill("Most product a season", "3 fl oz per 1,000 sq ft")
        self.fill("No rain after it, for", "4")
        self.fill("Water in within", "30")
        self.pick("Water in within: unit", "min")
        self.button("Save the changes").click()
        self.says("2 products on the shelf.")
        self.page.get_by_role("link", name="Test SC").click()
        expect(self.page.get_by_text("No rain or water for 4 h after.")).to_be_visible()
        expect(
            self.page.get_by_text("Dollar spot; creeping bentgrass, perennial ryegrass; 14 days apart or more")
        ).to_be_visible()
        self.button("A new lot").click()
        self.fill("Lot number", "L-77")
        self.fill("Left", "48")
        self.button("Put the lot on the shelf").click()
        expect(self.page.get_by_role("heading", name="On the shelf: 48 fl oz")).to_be_visible()
        with tempfile.TemporaryDirectory() as folder:
            picture = Path(folder) / "label.png"
            Image.new("RGB", (60, 40), "white").save(picture)
            self.take_file("Photograph or PDF of the label", picture)
            expect(self.page.get_by_role("img", name="Label, label.png")).to_be_visible()
        self.assertEqual(LabelFile.objects.get().kind, "image/jpeg")

    def test_a_fault_in_a_rule_stands_beside_it(self) -> None:
        self.let_in()
        self.go(f"shelf/{Product.objects.get(name='Test SC').pk}")
        self.button("Open them").click()
        self.fill("Most active a season", "2 lb per acre")
        self.button("Save the changes").click()
        expect(self.page.locator("[data-field='rules.active_per_season'] [role=alert]")).to_contain_text("product, not active")

    def test_the_shelf_goes_out_and_comes_in_with_a_preview(self) -> None:
        self.let_in()
        self.go("shelf/files")
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Export the shelf as JSON").click()
        given = json.loads(Path(download.value.path()).read_text())
        given["products"][0]["note"] = "read again"
        given["products"].append({"name": "Fresh", "kind": "iron", "formulation": "SL", "rates": [{"phrase": "2 fl oz/M"}]})
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "shelf.json"
            file.write_text(json.dumps(given))
            self.take_file("File to bring in", file)
            expect(self.page.get_by_text("1 to add, 1 to change, 1 as they are.")).to_be_visible()
            self.button("Bring it in").click()
        self.says("3 products on the shelf.")


class Reckon(BrowserTest):
    def bank(self) -> None:
        account = Account.objects.get(slug="alder")
        save_area(account, AreaIn(**AREA | {"name": "Bank", "size": {"value": 3000, "unit": "ft2"}}))

    def test_two_areas_each_at_its_own_rate_and_a_core_at_a_third(self) -> None:
        self.let_in()
        self.bank()
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green", "Bank")
        self.pick("Machine", "Sprayer")
        self.says("Pour 4 fl oz of Test SC for Bank and North green: 3 tanks, 10 gal in all.")
        self.button("A rate for each area").click()
        self.fill("Rate to put down on Bank", "0.8")
        self.says("Pour 5.2 fl oz of Test SC for Bank and North green: 3 tanks")
        ground = self.page.get_by_role("list", name="Ground of the job").get_by_role("listitem").filter(has_text="North green")
        ground.get_by_role("button", name="Two rates").click()
        self.fill("Rate to put down on North green, core", "0.8")
        self.says("Pour 5.9 fl oz of Test SC for Bank and North green")
        self.button("Start the round").click()
        self.says("Put on what the label asks")
        self.fill("Product used", "6.2")
        expect(self.page.get_by_text("North green, core, ").first).to_be_visible()
        self.button("Put it in the book").click()
        self.says("3 applications in the book")

    def test_a_slip_is_asked_and_put_right_with_a_press(self) -> None:
        self.let_in()
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        self.fill("Rate to put down", "22")
        expect(self.page.locator("[data-act=ask]")).to_contain_text("Is it per acre?")
        self.page.get_by_role("button", name="Take 0.5051 fl oz/1000 ft²").click()
        expect(self.page.locator("[data-answer=amount]")).to_contain_text("3.535 fl oz")
        expect(self.page.locator("[data-act=ask]")).to_have_count(0)

    def test_a_target_that_the_label_does_not_list_stops_the_round(self) -> None:
        self.let_in()
        product = Product.objects.get(name="Test SC")
        product.rates.update(target="Brown patch")
        product.account.touch()
        self.pick_spray()
        expect(self.button("Start the round")).to_be_enabled()
        self.pick("Target", "Rust")
        expect(self.page.locator("[data-finding=target-not-listed]")).to_contain_text("does not list rust")
        expect(self.button("Start the round")).to_be_disabled()

    def test_backwards_side_by_side_and_measuring(self) -> None:
        self.let_in()
        self.go("reckon/back")
        self.pick("Product", "Test SC")
        self.pick("Area", "North green")
        self.fill("Used", "8.4")
        expect(self.page.locator("[data-answer=back]")).to_have_text("1.2 fl oz/1000 ft²")
        expect(self.page.locator("[data-stand=above]")).to_be_visible()
        self.page.get_by_role("link", name="Side by side").click()
        self.pick("or of a type", "Fungicide")
        self.pick("On", "North green")
        expect(self.page.get_by_role("cell", name="2.8 fl oz")).to_be_visible()
        self.page.get_by_role("link", name="Measuring").click()
        self.fill("Dose", "0.38")
        self.says("11 mL in the 20 mL syringe.")
        self.fill("The mark says", "4")
        self.fill("Its water weighs", "112")
        expect(self.page.get_by_text("every dose by it is −5.2 % out")).to_be_visible()

    def test_the_house_rule_changes_the_mix_sheet(self) -> None:
        self.let_in()
        self.go("account/house")
        self.page.get_by_role("radio", name=re.compile("All the water, then the products")).check()
        self.button("Keep the house rules").click()
        self.says("House rules: one of your own.")
        self.pick_spray()
        self.button("Start the round").click()
        expect(self.page.get_by_text("Fill with clean water almost to 4 gal").first).to_be_visible()

    def test_the_line_asks_back_and_answers_every_question(self) -> None:
        self.let_in()
        self.go("today")
        self.says("Everything is in place")
        self.page.keyboard.press("=")
        line = self.page.get_by_role("textbox", name="Reckon line")
        line.fill("0.25 lb/M of Test 20-0-10 on North green")
        self.page.get_by_role("button", name="0.25 lb N/M of Test 20-0-10 on North green").click()
        expect(self.page.get_by_text("Weigh out 8.75 lb of Test 20-0-10 for North green.")).to_be_visible()
        for asked, said in (
            ("what rate is 4.2 fl oz of Test SC on North green", "is 0.6 fl oz/1000 ft²"),
            ("what does 3 lb/M of Test 20-0-10 bring", "0.6 lb N"),
            ("measure 1/8 fl oz", "3.7 mL"),
        ):
            line.fill(asked)
            expect(self.page.get_by_role("dialog").get_by_text(said).first).to_be_visible()
