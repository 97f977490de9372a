"""Did it work, at desk and phone width: what came of an application, and how many looks a forecast wants."""

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Account, User
from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.scouting.actions import add_scouting
from greenmeasure.scouting.schemas import ScoutIn
from greenmeasure.shelf.models import RateRow
from greenmeasure.tests.base import make_account


class DidItWork(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        account = make_account("alder")
        RateRow.objects.filter(product__name="Test SC").update(target="Dollar spot")
        account.touch("shelf")
        self.let_in()

    def test_what_went_down_and_what_was_seen_after(self) -> None:
        self.go("book/outcomes")
        self.says("Nothing went down against anything")
        expect(self.page.get_by_text("Notes of none are worth as much as notes of some")).to_be_visible()
        self.pick_spray()
        self.pick("Target", "Dollar spot")
        self.settle()
        self.button("It is done already").click()
        self.fill("Product used", "4.2")
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book/*")
        account, area = Account.objects.get(), Area.objects.get()
        told = {"area_id": area.pk, "on": clock.today(area), "kind": "disease", "what": "dollar_spot", "seen": False}
        add_scouting(account, User.objects.get(username="manager-alder"), ScoutIn(**told))
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            self.go("book/outcomes")
            self.says("One application against something in")
            expect(self.page.get_by_role("heading", name="Test SC against dollar spot")).to_be_visible()
            expect(self.page.get_by_text("Too few to judge: 5 more applications looked at would do.")).to_be_visible()
            wide = self.page.evaluate("() => document.documentElement.scrollWidth")
            self.assertLessEqual(wide, size["width"])
        self.pick("Area", "North green")
        self.page.wait_for_url("**/outcomes?area=*")
        expect(self.page.get_by_role("heading", name="Test SC against dollar spot")).to_be_visible()
