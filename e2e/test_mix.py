"""A mix from label to book in the interface, at desk and phone width: one job, one sheet, one record."""

import re
from typing import Any

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.book.models import Application
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import FUNGICIDE, make_account


def card(name: str, kind: str, formulation: str, phrase: str, **more: Any) -> dict[str, Any]:
    return {"name": name, "kind": kind, "formulation": formulation, "rates": [{"phrase": phrase}]} | more


UREA = [{"name": "N", "basis": "N", "amount": 46, "unit": "%"}]
SHELF = (
    card("Broad SL", "herbicide", "SL", "1 to 1.5 fl oz per 1,000 sq ft"),
    card("Sedge WG", "herbicide", "WG", "0.5 to 1 oz wt per 1,000 sq ft"),
    card("Wetter", "adjuvant", "SL", "0.25 to 0.5% v/v"),
    card("Blue", "colourant", "SL", "1 fl oz per gallon of spray"),
    card("Slow ME", "growth_regulator", "ME", "0.2 to 0.3 fl oz per 1,000 sq ft", group_code="Class A"),
    card("Prills", "fertiliser", "SG", "0.1 to 0.9 lb N per 1,000 sq ft", contents=UREA),
    FUNGICIDE | {"name": "Other EC", "formulation": "EC", "rates": [{"phrase": "1 to 2 fl oz per 1,000 sq ft"}]},
)
HERBICIDES = (("Broad SL", "1"), ("Sedge WG", "0.5"), ("Wetter", "0.25"), ("Blue", ""))
REGULATOR = (("Slow ME", "0.25"), ("Prills", "0.9"))
FUNGICIDES = (("Test SC", "0.6"), ("Other EC", "1.5"), ("Wetter", "0.25"))
PLACE = "it => it.getBoundingClientRect().top + window.scrollY"  # on the page


class Mixes(BrowserTest):
    """An account with a green of 7,000 ft², a sprayer of 1 gal/1000 ft² with 4 gal, and a shelf of things to mix."""

    def setUp(self) -> None:
        super().setUp()
        account = make_account("alder")
        for found in SHELF:
            save_product(account, ProductIn(**found))
        self.let_in()

    def mix(self, what: tuple[tuple[str, str], ...]) -> None:
        """Put a mix together on Reckon; no rate is a dye to taste."""
        self.go("reckon")
        for n, (name, rate) in enumerate(what, start=1):
            if n > 1:
                self.button("Add to the tank").click()
            self.pick(f"Product {n}" if n > 1 else "Product", name)
            if n == 1:
                self.pick_many("Areas", "North green")
                self.pick("Machine", "Sprayer")
            if rate:
                self.fill(f"Rate of {name}" if n > 1 else "Rate to put down", rate)
                self.settle()  # nothing is to move under the next press
            self.says(name)

    def carried(self, what: tuple[tuple[str, str], ...]) -> Application:
        """From Reckon through every tick into the book."""
        self.mix(what)
        self.says("2 tanks, 7 gal in all.")
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        self.says("Put on what the label asks")
        self.tick_all("Put on")
        self.says("Tank 1")  # a tank is refused until the server has kept what is put on
        for tank, then in (("Tank 1", "Tank 2"), ("Tank 2", "All loads are out.")):
            for box in self.page.get_by_role("region", name=tank).locator("label:has(input[type=checkbox])").all():
                box.click()
            self.says(then)  # a tank that is out folds away, and the next one moves up
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book/*")
        return Application.objects.get()

    def at_both_widths(self, what: tuple[tuple[str, str], ...]) -> Application:
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            Application.objects.all().delete()
            made = self.carried(what)
        expect(self.page.get_by_role("heading", level=1)).to_contain_text(what[0][0])
        wide = self.page.evaluate("() => document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE["width"])
        self.assertEqual([e.product_name for e in made.entries.order_by("position")], [name for name, _ in what])
        return made

    def test_two_herbicides_with_a_surfactant_and_a_dye(self) -> None:
        made = self.at_both_widths(HERBICIDES)
        self.assertIsNone(made.entries.get(product_name="Blue").used)

    def test_a_regulator_with_urea_dissolved_in_two_buckets(self) -> None:
        """0.9 lb N/1000 ft² of 46 % over 4,000 ft² a tank are 7.83 lb, 3.55 kg: two buckets of at most 2 kg (arithmetic)."""
        made = self.at_both_widths(REGULATOR)
        self.assertEqual(f"{made.entries.get(product_name='Prills').used}", "13.7 lb")  # 0.9 × 7 ÷ 0.46
        self.page.goto(f"{self.live_server_url}/a/alder/round/{made.round_id}")
        first = self.page.get_by_role("region", name="Tank 1")
        expect(first.get_by_text("half of it in each of 2 buckets", exact=False)).to_have_count(2)

    def test_two_fungicides_with_a_spreader_sticker(self) -> None:
        self.at_both_widths(FUNGICIDES)

    def test_what_was_measured_is_checked_before_it_goes_in(self) -> None:
        """The whole 4.2 fl oz in a tank that takes 2.4 are asked about; what was noted is what was used at the end: 2.5 fl oz and
        53 mL, 1.792 fl oz (NIST Handbook 44), measured in a syringe.
        """
        self.mix((("Test SC", "0.6"),))
        self.says("2 tanks")
        self.button("Start the round").click()
        self.says("Put on what the label asks")
        self.tick_all("Put on")
        first, second = (self.page.get_by_role("region", name=f"Tank {n}") for n in (1, 2))
        first.get_by_role("textbox", name="Really measured").fill("4.2")
        expect(first.get_by_text("Is that the dose of the whole job, 4.2 fl oz?")).to_be_visible()
        expect(first.locator("[data-stand=above]")).to_be_visible()
        for tank, amount in ((first, "2.5"), (second, "53")):
            tank.get_by_role("textbox", name="Really measured").fill(amount)
            tank.get_by_role("button", name="Note really measured").click()
            expect(tank.get_by_role("button", name="Note really measured")).to_have_text("Noted")
        self.page.reload()
        expect(self.page.get_by_role("textbox", name="Product used", exact=True)).to_have_value("4.292")

    def test_nothing_moves_under_the_next_tick(self) -> None:
        """A tick changes the sentence and ends what was asked; the acts below stay where the finger goes next."""
        self.mix(FUNGICIDES)
        self.button("Start the round").click()
        self.says("Put on what the label asks")
        self.tick_all("Put on")
        self.says("Tank 1")
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            boxes = self.page.get_by_role("region", name="Tank 1").locator("label:has(input[type=checkbox])")
            last = boxes.last
            for box in boxes.all()[:-1]:
                says, place = self.sentence().inner_text(), last.evaluate(PLACE)
                box.click()
                expect(self.sentence()).not_to_have_text(says)
                self.assertEqual(last.evaluate(PLACE), place, box.inner_text())
            for box in boxes.all()[:-1]:
                box.click()  # taken back, for the other width
            self.says("Tank 1")

    def test_a_product_leaves_the_tank_and_the_rest_stays(self) -> None:
        self.mix(FUNGICIDES)
        self.button("Remove: Other EC").click()
        self.says("Mix 4.2 fl oz of Test SC and 2.24 fl oz of Wetter")
        self.page.reload()
        self.says("Mix 4.2 fl oz of Test SC and 2.24 fl oz of Wetter")

    def test_the_rate_goes_to_the_labels_ends_at_a_press(self) -> None:
        self.mix((("Test SC", "0.6"),))
        for word, amount in (("Low", "2.8"), ("Middle", "4.2"), ("High", "5.6")):
            self.button(f"{word} of the label").click()
            self.says(f"Pour {amount} fl oz of Test SC")


class KeptMixes(BrowserTest):
    def test_kept_called_by_name_and_put_away(self) -> None:
        self.let_in()
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        self.pick("Machine", "Sprayer")
        self.fill("Rate to put down", "0.7")
        self.says("Pour 4.9 fl oz of Test SC")
        self.button("Keep this mix").click()
        self.button("Keep it").click()
        expect(self.page.get_by_text("The name is empty.").first).to_be_visible()
        self.fill("Name of the mix", "Summer tank")
        self.button("Keep it").click()
        expect(self.page.get_by_text("Summer tank is kept").first).to_be_visible()
        self.fill("Rate to put down", "0.5")
        self.says("Pour 3.5 fl oz of Test SC")

        self.page.set_viewport_size(PHONE)
        self.go("reckon/mixes")
        self.says("One mix is kept")
        self.button("Reckon Summer tank").click()
        self.says("Pour 4.9 fl oz of Test SC")
        self.go("reckon/mixes")
        self.button("Put Summer tank away").click()
        self.says("No mixes are kept yet.")
        self.button("Undo").click()
        self.says("One mix is kept")


class Spots(BrowserTest):
    """A gallon for the spots of two outings, at desk width and on the phone."""

    def test_from_the_mix_to_the_last_outing(self) -> None:
        """1 gal at 1 gal/1000 ft² reaches 1,000 ft²; 0.4 gal are 400 ft², and 600 ft² take the rest."""
        self.let_in()
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        self.pick("Machine", "Sprayer")
        self.page.get_by_text("Spots only").click()
        self.says("Enter how much to mix.")
        self.fill("Mix", "1")
        expect(self.page.get_by_text("reaches 1,000 ft²")).to_be_visible()
        self.fill("Mix", "8")
        expect(self.page.get_by_text("Mix at most 7 gal").first).to_be_visible()
        self.fill("Mix", "1")
        self.says("for spots on North green")
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        expect(self.page.get_by_text("1 gal is to be mixed.").first).to_be_visible()
        self.button("Note this outing").click()
        expect(self.page.get_by_text("How much went out is missing.").first).to_be_visible()
        self.fill("Spray put down", "0.4")
        self.button("Note this outing").click()
        expect(self.page.get_by_role("cell", name="400 ft²")).to_be_visible()

        self.page.set_viewport_size(PHONE)
        self.fill("Ground of the spots", "600")
        self.button("Note this outing").click()
        expect(self.page.get_by_text("All of the mix has gone out.").first).to_be_visible()
        self.assertLessEqual(self.page.evaluate("() => document.documentElement.scrollWidth"), PHONE["width"])
        self.button("It is sprayed out").click()
        expect(self.page.get_by_text("The mix is sprayed out.").first).to_be_visible()
        self.assertEqual([str(a.treated) for a in Application.objects.order_by("position")], ["400 ft²", "600 ft²"])


class HoseEnd(BrowserTest):
    """A hose-end from the kit's form to the book: bottle, dial, minutes."""

    def test_from_the_kit_to_the_book(self) -> None:
        """5 gal a minute, 2 min on 2,000 ft² are 5 gal/1000 ft²; 7,000 ft² at 4 fl oz/gal draw 140 fl oz: 5 bottles of 32."""
        self.let_in()
        self.go("kit/new")
        self.fill("Name", "Yard hose")
        self.pick("Built as", "Hose-end sprayer")
        self.fill("Bottle holds", "32")
        self.fill("Positions of the dial", "2, 4, 8")
        self.button("Add the machine").click()
        self.page.get_by_role("link", name="Yard hose").click()
        self.page.get_by_role("link", name="Calibrate", exact=True).first.click()
        for label, figure in (("The dial sets", "4"), ("in each", "1"), ("The bucket holds", "5"), ("Area sprayed", "2,000")):
            self.fill(label, figure)
        self.fill("Full after, s", "60")
        self.fill("It took, s", "120")
        self.button("Keep it and use it").click()
        self.page.wait_for_url(re.compile(r"/kit/\d+$"))
        expect(self.page.get_by_text("3,200 ft²").first).to_be_visible()  # 32 ÷ (2 × 5)

        self.page.set_viewport_size(PHONE)
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        self.pick("Machine", "Yard hose")
        self.says("3 bottles, dial at 2 fl oz/gal, 7 min of spraying")
        self.pick("Dial", "4 fl oz/gal")
        self.says("5 bottles, dial at 4 fl oz/gal")
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        self.tick_all("Put on")
        expect(self.page.get_by_role("img", name="Bottle 1:").first).to_be_visible()
        self.assertLessEqual(self.page.evaluate("() => document.documentElement.scrollWidth"), PHONE["width"])
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book/*")
        self.assertEqual(str(Application.objects.get().spray), "35 gal")
