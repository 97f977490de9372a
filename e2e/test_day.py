"""The day of a job in the interface: done already, at another hour, against the label, what was looked at, what is locked."""

from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.book.models import Application, Entry
from greenmeasure.ground.models import Area
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import make_account

DRY = {"value": 48, "unit": "h"}


class Day(BrowserTest):
    """An account with a green, a spray and a sprayer."""

    def setUp(self) -> None:
        super().setUp()
        self.account = make_account("alder")
        self.sign_in()

    def rule(self, **rules: object) -> None:
        Product.objects.filter(name="Test SC").update(rules=rules)
        self.account.refresh_from_db()
        self.account.touch()

    def picked(self) -> None:
        """A job on the Reckon view, ready to start."""
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        self.pick("Machine", "Sprayer")
        self.says("Pour")

    def test_done_already_on_another_day_and_into_the_book(self) -> None:
        self.picked()
        self.button("Another day or hour").click()
        yesterday = timezone.now() - timedelta(days=1)
        self.fill("Day", f"{yesterday:%Y-%m-%d}")
        self.fill("Hour", "06:45")
        self.button("It is done already").click()
        self.fill("Wind", "3 mph W")
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book/*")
        entry = Entry.objects.get()
        self.assertEqual((entry.application.wind, entry.against), ("3 mph W", ""))
        self.assertEqual(Round.objects.get().status, Round.Status.DONE)

    def test_against_the_label_it_asks_why_and_marks_it(self) -> None:
        self.rule(applications_per_season=1)
        Area.objects.update(sown_on="2015-01-01")
        for reason in ("", "The gate was open"):
            self.picked() if not reason else None
            if reason:
                self.go("reckon")
                self.pick("Product", "Test SC")
                self.pick_many("Areas", "North green")
                self.pick("Machine", "Sprayer")
                self.says("Do not pour")
                expect(self.button("Start the round")).to_be_disabled()
            self.button("It is done already").click()
            if reason:
                self.button("Put it in the book").click()
                expect(self.page.get_by_text("It is recorded all the same: say why it was done")).to_be_visible()
                self.fill("Reason", reason)
            self.button("Put it in the book").click()
            self.page.wait_for_url("**/book/*")
        expect(self.page.get_by_text("Why it was done all the same: The gate was open")).to_be_visible()
        expect(self.page.get_by_text("the label allows 1")).to_be_visible()

    def test_past_records_come_in_and_one_of_them_is_done_again(self) -> None:
        head, line = "date,area,product,machine,used,used_unit", "2025-06-03,North green,Test SC,Sprayer,3.5,fl oz"
        self.go("book/files")
        self.take_file("File to bring in", {"name": "past.csv", "mimeType": "text/csv", "buffer": f"{head}\n{line}\n".encode()})
        expect(self.page.get_by_text("3.5 fl oz, 0.5 fl oz/1000 ft²")).to_be_visible()
        self.assertEqual(Entry.objects.count(), 0)
        self.button("Bring it in").click()
        self.says("1 application in the book")
        self.page.get_by_role("link", name="Test SC", exact=True).click()
        self.button("Do it again").click()
        self.says("Pour 3.5 fl oz")

    def test_what_nobody_knows_is_looked_at_and_the_round_keeps_it(self) -> None:
        self.rule(leaf="dry")
        self.picked()
        expect(self.page.get_by_text("Whether the leaf is wet is not known")).to_be_visible()
        self.button("Start the round").click()
        expect(self.page.get_by_text("Answer it in Reckon, then start.").first).to_be_visible()
        self.pick("The leaf", "It is dry, I looked")
        expect(self.page.get_by_text("Whether the leaf is wet is not known")).to_have_count(0)
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        expect(self.page.get_by_text("leaf dry", exact=True)).to_be_visible()

    def test_what_is_locked_stands_on_today_and_with_the_area(self) -> None:
        self.rule(rain_after=DRY)
        self.picked()
        self.button("It is done already").click()
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book/*")
        self.go("today")
        expect(self.page.get_by_role("listitem").filter(has_text="No water on North green until")).to_be_visible()
        self.go(f"ground/{Area.objects.get().pk}")
        expect(self.page.get_by_role("heading", name="Locked now")).to_be_visible()

    def test_the_line_says_do_not(self) -> None:
        self.go("today")
        self.says("Everything is in place")
        self.page.keyboard.press("=")
        self.page.get_by_role("textbox", name="Reckon line").fill("1.6 fl oz/M of Test SC on North green with Sprayer")
        expect(self.page.get_by_text("Do not pour 11.2 fl oz of Test SC for North green.")).to_be_visible()


class TypedRun(BrowserTest):
    def test_a_run_of_past_applications_is_typed_line_by_line(self) -> None:
        self.let_in()
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            Application.objects.all().delete()
            Area.objects.get().account.touch()
            self.go("book")
            self.page.get_by_role("link", name="Type past ones").click()
            self.says("Past applications, typed one under the other.")
            self.page.get_by_label("Day").fill("2025-06-03")
            for label, name in (("Area", "North green"), ("Product", "Test SC"), ("Machine", "Sprayer")):
                self.pick(label, name)
            amount = self.page.get_by_role("textbox", name="Used, or its rate")
            amount.fill("3.5 oz")
            expect(self.page.get_by_role("status").filter(has_text="oz")).to_be_visible()
            expect(self.button("Put them in the book")).to_be_disabled()
            amount.fill("3.5 fl oz")
            self.says("1 to add")
            amount.press("Enter")
            expect(self.page.get_by_label("Day").last).to_be_focused()
            self.page.get_by_label("Day").last.fill("2025-07-01")
            amount.last.fill("0.4 fl oz/1000 ft2")
            self.says("2 to add")
            self.page.reload()
            self.says("2 to add")
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])
            self.button("Put them in the book").click()
            self.page.wait_for_url("**/book")
            days = Application.objects.order_by("applied_on").values_list("applied_on", flat=True)
            self.assertEqual([str(on) for on in days], ["2025-06-03", "2025-07-01"])
