"""Reckon's other parts in the browser: backwards, side by side, measuring, the season, and a metric account."""

import re
import uuid
from typing import Any

from playwright.sync_api import expect

from e2e.base import BrowserTest
from greenmeasure.accounts.models import Account, User
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.kit.actions import save_machine
from greenmeasure.kit.models import Machine
from greenmeasure.kit.schemas import MachineIn
from greenmeasure.reckon.schemas import ComponentIn, JobIn
from greenmeasure.rounds.actions import finish_round, start_round
from greenmeasure.rounds.schemas import FinishIn, UsedIn
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import FEED, FUNGICIDE, make_account
from greenmeasure.tests.test_metric import BARROW, BOOM, LAWN
from greenmeasure.tests.test_metric import FEED as CLOVER
from greenmeasure.tests.test_metric import SPRAY as MOTH


def add_product(card: dict[str, Any], **more: Any) -> Product:
    return save_product(Account.objects.get(slug="alder"), ProductIn(**(card | more)))


class Backwards(BrowserTest):
    def test_what_is_left_tells_what_went_down(self) -> None:
        """8 lb less 3 lb on 7,000 ft² is 0.714 lb/1000 ft²; a fifth of it is N: 0.143 lb N (arithmetic)."""
        self.let_in()
        self.go("reckon/back")
        self.pick("What is known", "This much is left")
        self.pick("Product", "Test 20-0-10")
        self.pick("Area", "North green")
        self.fill("There was", "8")
        self.fill("Left over", "3")
        expect(self.page.locator("[data-answer=back]")).to_have_text("0.1429 lb N/1000 ft²")
        expect(self.page.locator("[data-stand=below]")).to_be_visible()
        self.fill("Left over", "8.5")
        expect(self.page.locator("[data-field=left] [role=alert]")).to_contain_text("nothing was used")

    def test_a_whole_bag_and_how_many_the_rate_needs(self) -> None:
        """50 lb of 20 % N on 7,000 ft² is 1.429 lb N/1000 ft²; 0.6 lb needs 21 lb, 42 % of a bag (arithmetic)."""
        self.let_in()
        self.go("reckon/back")
        self.pick("What is known", "A whole package")
        self.pick("Product", "Test 20-0-10")
        self.pick("Area", "North green")
        self.fill("The package holds", "50")
        expect(self.page.locator("[data-answer=back]")).to_have_text("1.429 lb N/1000 ft²")
        self.says("21 lb: 42 % of one package")
        self.fill("Rate that is meant", "2")
        self.says("so 2, with 30 lb left")

    def test_half_of_the_area_doubles_the_rate(self) -> None:
        self.let_in()
        self.go("reckon/back")
        self.pick("Product", "Test SC")
        self.pick("Area", "North green")
        self.fill("Used", "2.1")
        expect(self.page.locator("[data-answer=back]")).to_have_text("0.3 fl oz/1000 ft²")
        self.fill("Part of the area", "1/2")
        expect(self.page.locator("[data-answer=back]")).to_have_text("0.6 fl oz/1000 ft²")
        self.page.reload()
        expect(self.page.locator("[data-answer=back]")).to_have_text("0.6 fl oz/1000 ft²")


class SideBySide(BrowserTest):
    def test_the_cheaper_nitrogen_and_what_to_buy(self) -> None:
        """20 % at $30 for 50 lb is $3.00 a lb of N; 40 % at $44 for 40 lb is $2.75 (arithmetic)."""
        self.let_in()
        Product.objects.get(name="Test 20-0-10").delete()
        add_product(FEED, packages=[{"value": 50, "unit": "lb", "price": "30.00"}])
        strong = [{"name": "N", "basis": "N", "amount": 40, "unit": "%"}]
        add_product(FEED, name="Strong 40-0-0", contents=strong, packages=[{"value": 40, "unit": "lb", "price": "44.00"}])
        self.go("reckon/compare")
        self.pick("or of a type", "Fertiliser")
        self.pick("On", "North green")
        row = self.page.get_by_role("row", name=re.compile("Strong 40-0-0"))
        expect(row).to_contain_text("least for its N")
        expect(row).to_contain_text("2.75 USD a lb")
        expect(row).to_contain_text("1 × 40 lb")
        expect(self.page.get_by_role("row", name=re.compile("Test 20-0-10"))).to_contain_text("3.00 USD a lb")
        # 0.6 lb N/1000 ft² of 40 % on 7,000 ft² are 10.5 lb.
        self.pick("Each at", "the label’s highest")
        expect(row).to_contain_text("10.5 lb")
        self.fill("Rate of Strong 40-0-0", "0.4")
        expect(row).to_contain_text("7 lb")

    def test_weak_granules_at_the_active_of_a_strong_concentrate(self) -> None:
        self.let_in()
        weak = [{"name": "an active", "basis": "active", "amount": 0.5, "unit": "%"}]
        add_product(
            FUNGICIDE,
            name="Weak G",
            formulation="GR",
            contents=weak,
            density=None,
            packages=[],
            rates=[{"phrase": "2 to 6 lb per 1,000 sq ft"}],
        )
        self.go("reckon/compare")
        self.pick("or of a type", "Fungicide")
        self.pick("On", "North green")
        actives = "[...document.querySelectorAll('tbody tr')].map(r => r.cells[5].innerText.split('\\n')[0])"
        expect(self.page.get_by_role("row", name=re.compile("Weak G"))).to_be_visible()
        self.assertEqual(len(set(self.evaluate(f"() => {actives}"))), 2)
        self.pick("as", "Test SC")
        self.page.wait_for_function(f"() => new Set({actives}).size === 1")


class Season(BrowserTest):
    def test_what_the_book_holds_counts_against_the_label(self) -> None:
        self.let_in()
        account, user = Account.objects.get(slug="alder"), User.objects.get(username="manager-alder")
        product = Product.objects.get(name="Test SC")
        card = FUNGICIDE | {"rules": {"most_per_season": "1 fl oz per 1,000 sq ft"}}
        save_product(account, ProductIn(**card, version=product.version), product)
        part: Any = {
            "area_id": Area.objects.get().pk,
            "doses": [{"row_id": product.rates.get().pk, "rate": {"value": 0.6, "unit": "fl_oz/kft2"}}],
        }
        sprayer = Machine.objects.get(kind="sprayer").pk
        job = JobIn(mix=[ComponentIn(product_id=product.pk)], machine_id=sprayer, passes=1, parts=[part])
        begun = start_round(account, user, job, uuid.uuid4())
        finish_round(begun, user, FinishIn(used=[UsedIn(amount=QuantityIn(value=4.2, unit="fl_oz"))]))
        self.pick_spray()
        line = self.page.locator("[data-budget=product]")
        expect(line).to_be_visible()
        self.fill("Rate to put down", "0.6")
        expect(line).to_have_attribute("data-over", "true")
        expect(line).to_contain_text("of 1")
        expect(self.page.locator("[data-finding=season-product]")).to_contain_text(
            "would come to 1.2 fl oz/1000 ft² this season; the most is 1"
        )
        expect(self.button("Start the round")).to_be_disabled()
        self.fill("Rate to put down", "0.4")
        expect(self.page.locator("[data-budget=product][data-over]")).to_have_count(0)
        expect(self.button("Start the round")).to_be_enabled()


class Metric(BrowserTest):
    def test_a_metric_account_from_the_area_to_the_mark(self) -> None:
        """0.125 ha at 1.8 L/ha is 225 mL; at 400 L/ha it is 50 L (arithmetic)."""
        account = make_account("linden", "metric")
        save_area(account, AreaIn(**LAWN))
        for card in (MOTH, CLOVER):
            save_product(account, ProductIn(**card))
        for machine in (BOOM, BARROW):
            save_machine(account, MachineIn(**machine))
        self.let_in(slug="linden")
        self.go("reckon", "linden")
        self.pick("Product", "Moth SC")
        self.pick_many("Areas", "Lawn")
        self.pick("Machine", "Boom")
        self.fill("Rate to put down", "1.8")
        self.says("Pour 225 mL of Moth SC for Lawn: one tank of 50 L.")
        self.fill("Rate to put down", "1,8")
        self.says("Pour 225 mL of Moth SC for Lawn: one tank of 50 L.")
        self.fill("Rate to put down", "1,8,5")
        expect(self.page.locator("[data-field='parts.0.doses.0.rate'] [role=alert]")).to_contain_text("two ways")
        self.pick("Product", "Clover 18-3-9")
        self.pick("Machine", "Barrow")
        self.fill("Rate to put down", "3")
        self.says("Weigh out 37.5 kg of Clover 18-3-9 for Lawn: 2 hopper fills.")
        expect(self.page.locator("[data-budget='nutrient:N']")).to_contain_text("54 kg N/ha")
