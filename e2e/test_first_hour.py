"""The first hour: from the door to the first dose in the book, at a desk and on a phone, in US and in metric units."""

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.book.models import Application, Entry
from greenmeasure.kit.models import Machine
from greenmeasure.shelf.models import Product

LABEL = """Fairhollow Lawn Food 24-0-6
GUARANTEED ANALYSIS
Total Nitrogen (N) ..... 24.0%
   3.0% Ammoniacal Nitrogen
   21.0% Urea Nitrogen*
Soluble Potash (K2O) ....6.0%
*9.6% Slowly available urea nitrogen from coated urea
Net weight 50 lb (22.7 kg)
This bag covers 12,500 sq. ft.
Water in with 0.25 inch of irrigation within 24 hours.
Sweep granules off sidewalks and driveways.
"""

COUNT = """() => {
  const made = window.made = { presses: 0, fields: new Set() };
  addEventListener("pointerdown", () => (made.presses += 1), true);
  addEventListener("input", e => made.fields.add(e.target.name), true);
}"""
"""Counts what a person does to a page: presses, and the fields that they type in. It stays while no page is loaded anew."""


class FirstHour(BrowserTest):
    def begin(self, size: dict[str, int] = WIDE) -> None:
        self.page.set_viewport_size(size)
        self.page.goto(self.live_server_url)
        self.page.get_by_role("button", name="Start here").wait_for()
        self.evaluate(COUNT)
        self.button("Start here").click()

    def enter(self, name: str) -> None:
        self.fill("Your name", name)
        self.page.get_by_label("Password").fill("quiet otter lamp")
        self.button("Start").click()

    def sound(self) -> None:
        """Nothing serious for axe, nothing wider than the window."""
        self.assertEqual(self.serious(), [])
        self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth - innerWidth"), 0)

    def bag(self, size: dict[str, int]) -> None:
        """5,000 ft² of 12,500 ft² take 20 lb of a bag of 50 lb."""
        self.begin(size)
        self.sound()
        self.enter("Rosa Quill")
        self.says("Three things, then the first dose")
        self.sound()
        self.fill("Size", "5,000")
        self.button("Next: a product").click()
        self.says("Two things, then the first dose")
        self.fill("Text of the label", LABEL)
        expect(self.page.get_by_label("Read in the label")).to_contain_text("24 % N (9.6 % slow)")
        self.sound()
        self.button("Put it on the shelf").click()
        self.says("One thing, then the first dose")
        expect(self.page.get_by_text("Not for what is on your shelf").first).to_be_visible()
        self.page.get_by_text("Broadcast spreader").click()
        self.sound()
        self.button("Add the machine").click()
        self.page.get_by_role("link", name="Reckon the first dose").click()
        self.says("Weigh out 20 lb of Fairhollow Lawn Food 24-0-6 for Lawn")
        self.button("It is done already").click()
        self.settle()
        self.button("Put it in the book").click()
        self.says("Fairhollow Lawn Food 24-0-6 on Lawn")
        presses, fields = self.evaluate("() => [made.presses, [...made.fields]]")
        self.assertLessEqual(presses, 20)
        self.assertLessEqual(len(fields), 8)
        self.assertEqual(Entry.objects.get().used_value, 20)
        product = Product.objects.get()
        self.assertEqual({c.basis: c.amount for c in product.contents.all()}, {"N": 24, "K2O": 6})
        self.settle()

    def test_a_bag_at_a_desk(self) -> None:
        self.bag(WIDE)

    def test_a_bag_on_a_phone(self) -> None:
        self.bag(PHONE)

    def test_a_metric_court_with_a_comma_and_a_knapsack_that_nobody_has_measured(self) -> None:
        """650,5 m² at 40 mL/100 m² are 260 mL; 4 L/100 m² are assumed until the knapsack is measured."""
        self.begin()
        self.page.get_by_text("Grounds", exact=True).click()
        self.page.get_by_text("Metric", exact=True).click()
        self.fill("Name of the club, course or school", "Otter Lane Bowls")
        self.enter("Øyvind Quill")
        self.fill("Name", "Court 2")
        self.fill("Size", "650,5")
        self.button("Next: a product").click()
        self.says("Two things")
        self.fill("Name", "Quill Iron 6-0-0")
        self.pick("Type", "Iron")
        self.pick("Formulation", "soluble liquid")
        self.fill("Rate, as printed", "40 mL per 100 m²")
        self.button("Put it on the shelf").click()
        self.says("One thing")
        self.page.get_by_text("Knapsack, pumped by hand").click()
        expect(self.page.get_by_text("About 4 L/100 m²")).to_be_visible()
        self.button("Add the machine").click()
        self.page.get_by_role("link", name="Reckon the first dose").click()
        self.says("260.2 mL of Quill Iron 6-0-0 for Court 2")
        expect(self.page.get_by_text("is assumed to be 4 L/100 m² until it is measured")).to_be_visible()
        self.page.get_by_role("link", name="Measure it now (5 min)").click()
        self.says("Knapsack")
        self.page.get_by_role("link", name="Back to what you were doing").click()
        self.says("260.2 mL of Quill Iron 6-0-0 for Court 2")
        self.button("Start the round").click()
        self.says("Court 2")
        expect(self.page.get_by_text("4 L/100 m², assumed")).to_be_visible()
        self.assertTrue(Machine.objects.get().assumed)
        self.assertFalse(Application.objects.exists())
        self.settle()

    def test_a_fault_goes_when_it_is_mended_and_nothing_is_lost_by_a_reload(self) -> None:
        self.begin()
        self.enter("Rosa Quill")
        self.fill("Name", "")
        self.fill("Size", "12 oz")
        self.button("Next: a product").click()
        name, size = (self.page.get_by_role("textbox", name=label, exact=True) for label in ("Name", "Size"))
        expect(name).to_have_attribute("aria-invalid", "true")
        expect(size).to_have_attribute("aria-invalid", "true")
        name.fill("Lawn")
        expect(name).not_to_have_attribute("aria-invalid", "true")
        expect(size).to_have_attribute("aria-invalid", "true")
        self.page.reload()
        expect(size).to_have_value("12 oz")
        expect(name).to_have_attribute("aria-required", "true")
        self.settle()
