"""The book put right in the interface: an amount and a wind corrected, then struck; what it said before stands below."""

import uuid

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Account, User
from greenmeasure.book.models import Application
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.reckon.schemas import ComponentIn, DoseIn, JobIn, PartIn
from greenmeasure.rounds.actions import finish_round, start_round
from greenmeasure.rounds.schemas import FinishIn, UsedIn
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import make_account


class Corrections(BrowserTest):
    """4.2 fl oz on 7,000 ft² are 0.6 fl oz/1000 ft², 2.1 are 0.3 (arithmetic)."""

    def done(self) -> Application:
        account, user = Account.objects.get(), User.objects.get(username="manager-alder")
        area, spray = Area.objects.get(), Product.objects.get(name="Test SC")
        dose = DoseIn(row_id=spray.rates.get().pk, rate=QuantityIn(value="0.6", unit="fl_oz/kft2"))
        job = JobIn(
            machine_id=Machine.objects.get(kind="sprayer").pk,
            mix=[ComponentIn(product_id=spray.pk)],
            parts=[PartIn(area_id=area.pk, doses=[dose])],
        )
        used = FinishIn(used=[UsedIn(amount=QuantityIn(value=4.2, unit="fl_oz"))], wind="3 mph")
        return finish_round(start_round(account, user, job, uuid.uuid4()), user, used)[0]

    def test_put_right_and_struck(self) -> None:
        make_account("alder")
        self.let_in()
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            made = self.done()
            self.go(f"book/{made.pk}")
            self.says("0.6 fl oz/1000 ft²")
            self.button("Correct it").click()
            self.fill("Used of Test SC", "2.1")
            self.fill("Wind", "6 mph")
            self.button("Put it right").click()
            expect(self.page.get_by_text("It does not say why.", exact=False).first).to_be_visible()
            self.fill("Why it is corrected", "Read the jug wrong.")
            self.button("Put it right").click()
            self.says("0.3 fl oz/1000 ft²")
            before = self.page.locator("section", has=self.page.get_by_role("heading", name="What it said before"))
            for words in ("Read the jug wrong.", "4.2 fl oz", "2.1 fl oz", "3 mph", "6 mph"):
                expect(before).to_contain_text(words)
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])

            self.button("Strike it").click()
            self.fill("Why it is struck", "It was never done.")
            self.button("Strike it").click()
            expect(self.page.get_by_text("By Manager alder: It was never done. It counts for nothing.")).to_be_visible()
            expect(self.button("Correct it")).to_have_count(0)
            self.go("book")
            expect(self.page.get_by_text("Struck by Manager alder: It was never done.").first).to_be_visible()
            made.refresh_from_db()
            self.assertEqual((made.struck_why, made.wind), ("It was never done.", "6 mph"))
