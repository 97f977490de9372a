"""Passes and Water in the browser: a plan, what lands, what is kept off, the file and the card; cans, minutes and tasks."""

import json

from playwright.sync_api import expect

from e2e.test_kit import KitTest
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.tests.base import AREA
from greenmeasure.water.models import Task, WaterAudit


class Passes(KitTest):
    def setUp(self) -> None:
        super().setUp()
        area = Area.objects.get(account=self.account)
        measure = {"method": "rectangle", "unit": "ft", "values": {"length": 100, "width": 70}}
        hazards = [{"kind": "drain", "name": "yard", "buffer": {"value": 10, "unit": "ft"}}]
        save_area(
            self.account, AreaIn(**(AREA | {"size": None, "measure": measure, "hazards": hazards, "version": area.version})), area
        )

    def plan(self) -> None:
        self.go("passes")
        self.pick("Area", "North green")
        self.fill("Passes apart", "10")
        self.pick("Rings along the edge", "None")

    def test_a_plan_a_landing_map_and_four_ways_side_by_side(self) -> None:
        self.plan()
        self.says("7 stripes, 10 ft apart")
        expect(self.page.locator("[data-answer=landed]")).to_contain_text("nothing will show dark")
        drawn = self.page.evaluate("""() => {
            const c = document.querySelector('[data-map=landing] canvas');
            return new Set(c.getContext('2d').getImageData(0, 0, c.width, c.height).data).size; }""")
        self.assertGreater(drawn, 2, "the map holds no picture")
        self.pick("It is walked", "Tired")
        expect(self.page.locator("[data-answer=landed]")).not_to_contain_text("CV of 0 %")
        self.button("Lay them side by side").click()
        expect(self.page.locator("[data-answer=compared]")).to_contain_text("is the most even")
        self.page.get_by_role("region", name="Two at right angles").get_by_role("button", name="Walk it so").click()
        self.says("17 stripes")
        self.page.reload()
        self.says("17 stripes")

    def test_a_drain_is_put_on_the_plan_by_keyboard_and_kept_off(self) -> None:
        self.plan()
        self.button("Place it on the plan").click()
        self.pick("yard", "A spot")
        for label, text in (("Middle, from the left, ft", "50"), ("Middle, from below, ft", "35"), ("Across, ft", "2")):
            self.fill(label, text)
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_text("Keep 10 ft off drain, yard.")).to_be_visible()
        self.assertEqual(Area.objects.get(account=self.account).hazards[0]["lies"]["x"], "50")

    def test_the_plan_as_geojson(self) -> None:
        self.plan()
        self.settle()  # what lands where comes in above the button, and moves it
        self.button("Write GeoJSON").click()
        expect(self.page.locator("[data-field=latitude] [role=alert]")).to_contain_text("not measured by positions")
        self.fill("Latitude", "41.2")
        self.fill("Longitude", "-71.6")
        with self.page.expect_download() as coming:
            self.button("Write GeoJSON").click()
        made = json.loads(coming.value.path().read_text(encoding="utf-8"))
        self.assertEqual(sum(f["properties"]["what"] == "stripe" for f in made["features"]), 7)

    def test_ground_narrower_than_a_swath(self) -> None:
        self.plan()
        self.fill("Passes apart", "90")
        expect(self.page.locator("[data-field=spacing] [role=alert]")).to_contain_text("narrower than a swath")

    def test_the_card_prints_the_plan_without_the_form(self) -> None:
        self.plan()
        self.says("7 stripes")
        self.page.emulate_media(media="print")
        expect(self.page.get_by_text("As one walks it")).to_be_visible()
        expect(self.page.get_by_text("What lands where")).to_be_hidden()


class Water(KitTest):
    cans = "\n".join(
        f"{d} {10 + i % 4 * 20} {10 + i // 4 * 15}"
        for i, d in enumerate([0.2, 0.22, 0.24, 0.26, 0.25, 0.23, 0.21, 0.19, 0.22, 0.2, 0.24, 0.26, 0.24, 0.1, 0.23, 0.21])
    )

    def test_an_audit_its_minutes_and_its_tasks(self) -> None:
        """0.25 in at 0.4375 in/h with a low quarter of 79 %: 39.3 min, set as 40 (see the API's tests)."""
        area = Area.objects.get(account=self.account)
        self.go(f"ground/{area.pk}/water")
        self.fill("Cans, one a line", self.cans)
        self.fill("Ran for, min", "30")
        self.fill("Wind", "2")
        self.says("gets 0.438 in/h")
        expect(self.page.locator("[data-can=dry]")).to_have_count(1)
        expect(self.page.locator("[data-answer=run]")).to_contain_text("40 min")
        self.fill("Cans, one a line", self.cans + "\nwet")
        expect(self.page.get_by_text("Can 17.")).to_be_visible()
        self.fill("Cans, one a line", self.cans)
        self.button("Keep the audit").click()
        expect(self.page.get_by_role("heading", name="Audits")).to_be_visible()
        self.assertEqual(WaterAudit.objects.get().by, "Manager alder")
        self.go("today")
        self.page.get_by_text("Dry spot, can 14").click()
        expect(self.page.get_by_text("Dry spot, can 14")).to_have_count(0)
        self.assertEqual(Task.objects.get().done_by, "Manager alder")

    def test_three_cans_are_no_audit(self) -> None:
        self.go(f"ground/{Area.objects.get(account=self.account).pk}/water")
        self.fill("Cans, one a line", "0.2\n0.3\n0.2")
        self.fill("Ran for, min", "20")
        expect(self.page.get_by_text("3 cans make no audit")).to_be_visible()
