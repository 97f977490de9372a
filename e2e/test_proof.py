"""Proof on paper: records by days and product, what they lack, licence and registration, the notice and the note."""

import io
import re
from datetime import timedelta

from playwright.sync_api import expect
from pypdf import PdfReader

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Membership, User
from greenmeasure.book.models import Application
from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import make_account


class Proof(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.account = make_account("alder")
        self.let_in()
        self.area = Area.objects.get()

    def put_down(self, days: int) -> Application:
        """An application of some days ago, through the book's own door."""
        self.client.force_login(User.objects.get(username="manager-alder"), "django.contrib.auth.backends.ModelBackend")
        on = clock.today(self.area) - timedelta(days=days)
        line = f"{on},07:30,North green,Test SC,Sprayer,3.5,fl oz"
        text = f"date,time,area,product,machine,used,used_unit\n{line}\n"
        said = self.client.post("/api/accounts/alder/rounds/import", {"text": text}, "application/json")
        self.assertEqual((said.status_code, said.json()["refused"]), (200, 0))
        return Application.objects.latest("pk")

    def printed(self, link: str) -> str:
        """The words of a PDF that a link leads to."""
        place = self.page.get_by_role("link", name=link).get_attribute("href")
        answer = self.page.request.get(f"{self.live_server_url}{place}")
        self.assertEqual((answer.status, answer.headers["content-type"]), (200, "application/pdf"))
        return " ".join(" ".join(p.extract_text() for p in PdfReader(io.BytesIO(answer.body())).pages).split())

    def test_what_records_lack_is_filled_in_and_they_are_printed(self) -> None:
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            Application.objects.all().delete()
            Membership.objects.update(licence="")
            Product.objects.update(registration="")
            self.account.touch()
            self.put_down(400)
            self.go("book")
            self.page.get_by_role("link", name="Records").click()
            self.says("1 application.")
            expect(self.page.get_by_text("A manager fills it in with each member", exact=False)).to_be_visible()
            self.go("account")
            self.page.get_by_role("row", name=re.compile("you")).get_by_role("button", name="Add a licence number").click()
            self.page.get_by_role("form", name=re.compile("Licence of")).get_by_role("textbox").fill("NY-0417")
            self.page.keyboard.press("Enter")
            expect(self.button("Licence NY-0417")).to_be_visible()
            self.go(f"shelf/{Product.objects.get(name='Test SC').pk}")
            self.fill("Registration number", "0000-17")
            self.button("Save the changes").click()
            self.page.wait_for_url("**/shelf")
            self.put_down(3)
            self.go("book/records")
            self.page.get_by_label("From", exact=True).fill(str(clock.today(self.area) - timedelta(days=30)))
            self.says("1 application since")
            expect(self.page.get_by_text("0000-17", exact=False)).to_be_visible()
            words = self.printed("Print them (PDF)")
            for said in ("NY-0417", "0000-17", "Test SC", "North green"):
                self.assertIn(said, words)
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])

    def test_days_that_run_backwards_are_told_beside_the_field(self) -> None:
        self.put_down(3)
        self.go("book/records?begin=2026-05-01&end=2026-04-01")
        expect(self.page.locator("[data-field=end] [role=alert]")).to_contain_text("before the first")
        self.page.get_by_label("To", exact=True).fill("")
        self.page.get_by_label("From", exact=True).fill("2099-01-01")
        self.says("Nothing went down")
        expect(self.page.get_by_text("Choose other days", exact=False)).to_be_visible()

    def test_two_choices_in_one_moment_are_both_kept(self) -> None:
        self.put_down(3)
        self.go("book/records?begin=2026-05-01&end=2026-04-01")
        expect(self.page.locator("[data-field=end] [role=alert]")).to_contain_text("before the first")
        self.evaluate(
            """async () => {
                const put = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
                for (const [name, day] of [["end", ""], ["begin", "2099-01-01"]]) {
                    const field = document.querySelector(`[data-field=${name}] input`);
                    put.call(field, day);
                    field.dispatchEvent(new Event("input", { bubbles: true }));
                    for (let i = 0; i < 40; i++) await null;  // the address is written, the page not yet drawn
                }
            }"""
        )
        self.page.wait_for_url("**/records?begin=2099-01-01")
        self.says("Nothing went down")

    def test_the_label_binder(self) -> None:
        self.go("shelf/files")
        words = self.printed("Print the label binder (PDF)")
        self.assertIn("Test SC", words)
        self.assertIn("Test 20-0-10", words)
        self.go(f"shelf/{Product.objects.get(name='Test SC').pk}")
        self.assertNotIn("Test 20-0-10", self.printed("Print the card with its labels (PDF)"))

    def test_the_notice_and_the_note(self) -> None:
        self.go(f"book/{self.put_down(1).pk}")
        self.assertIn("North green", self.printed("Notice for the gate"))
        self.assertIn("What you will see", self.printed("Customer’s note"))
