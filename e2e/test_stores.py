"""The shelf against the season, at desk and phone width."""

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.shelf.models import Lot, Product
from greenmeasure.tests.base import make_account


class Shelf(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        make_account("alder")
        self.let_in()

    def test_what_is_short_is_bought_and_what_is_old_is_asked_about(self) -> None:
        """0.6 fl oz on 7 × 1,000 ft² are 4.2, 1.2 stand there: 3 short, one gallon to buy (by hand)."""
        self.go("shelf")
        self.page.get_by_role("link", name="Stock and needs").click()
        self.says("The shelf is empty.")
        product = Product.objects.get(name="Test SC")
        Lot.objects.create(product=product, number="T 1", left_value=1.2, left_unit="fl_oz", received_on="2015-04-01")
        product.account.touch("stock")
        self.pick_spray()
        self.fill("Rate to put down", "0.6")
        self.settle()
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            self.go("shelf/stock")
            self.says("1 product falls short, 1 lot is to be looked at before use.")
            expect(self.page.get_by_text("1 × 1 gal, 320.00 USD")).to_be_visible()
            expect(self.page.get_by_text("Is it still good?")).to_be_visible()
            wide = self.page.evaluate("() => document.documentElement.scrollWidth")
            self.assertLessEqual(wide, size["width"])
