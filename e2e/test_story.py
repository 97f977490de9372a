"""An area's story in the interface: one press for the usual, other work in a form, striking, and what did not take place."""

import re
from datetime import timedelta

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.common import clock
from greenmeasure.ground.models import Area
from greenmeasure.sky.models import Rhythm, Station
from greenmeasure.tests.base import make_account
from greenmeasure.work.models import Work


class Story(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        make_account("alder")
        self.let_in()
        self.area = Area.objects.get()

    def open(self) -> None:
        self.go(f"ground/{self.area.pk}")
        expect(self.page.get_by_role("heading", name="Its story")).to_be_visible()

    def test_noted_at_a_press_taken_back_and_noted_in_full(self) -> None:
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            Work.objects.all().delete()
            self.area.account.touch()
            self.open()
            expect(self.page.get_by_text("Nothing is known of it yet.", exact=False)).to_be_visible()
            self.button("Rolled, now").click()
            expect(self.page.get_by_text("North green: Rolled.")).to_be_visible()
            self.button("Undo").click()
            expect(self.page.get_by_text("Struck by Manager alder: Taken back at once.")).to_be_visible()

            self.button("Note other work").click()
            self.pick("What", "Mowing")
            self.fill("Cut at", "40")
            self.button("Note it").click()
            expect(self.page.get_by_text("Cut at of 40 in cannot be.", exact=False).first).to_be_visible()
            self.fill("Cut at", "0.4")
            self.pick("Clippings", "taken off")
            self.button("Note it").click()
            expect(self.sentence()).to_contain_text("cut at 0.4 in")
            expect(self.page.get_by_text("Mown", exact=True).first).to_be_visible()
            self.button("Mown at 0.4 in, clippings taken off, now").click()
            expect(self.page.locator("tr[data-event^=work]")).to_have_count(3)
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])

    def test_struck_with_a_reason(self) -> None:
        self.open()
        self.button("Rolled, now").click()
        self.page.get_by_role("button", name=re.compile("^Strike: Rolled")).click()
        self.button("Strike it").click()
        expect(self.page.get_by_text("It does not say why.", exact=False).first).to_be_visible()
        self.fill("Why it is struck", "It was the other green.")
        self.button("Strike it").click()
        expect(self.page.get_by_text("Struck by Manager alder: It was the other green.")).to_be_visible()
        self.assertEqual(Work.objects.get().struck_why, "It was the other green.")

    def test_the_weeks_rhythm_is_struck_out_where_it_did_not_take_place(self) -> None:
        yesterday = clock.today(self.area) - timedelta(days=1)
        Rhythm.objects.create(
            account=self.area.account,
            site=self.area.site,
            area=self.area,
            kind="mow",
            days=[yesterday.weekday()],
            begin="06:00",
            end="07:00",
            since=yesterday,
        )
        self.area.account.touch()
        self.open()
        self.pick("Show", "The week’s rhythm")
        self.page.get_by_role("button", name=re.compile("^Not done: Mown")).click()
        expect(self.page.get_by_text("North green: Not mown.")).to_be_visible()
        self.assertEqual((Work.objects.get().done, Work.objects.get().done_on), (False, yesterday))

    def test_all_that_happened_everywhere(self) -> None:
        self.go("book/story")
        expect(self.page.get_by_text("Nothing has happened yet.", exact=False)).to_be_visible()
        self.open()
        self.button("Rolled, now").click()
        self.settle()  # it is kept before the page is left
        self.go("book")
        self.page.get_by_role("link", name="Everything that happened").click()
        row = self.page.locator("tr[data-event^=work]")
        expect(row).to_contain_text("Rolled")
        row.get_by_role("link", name="North green").click()
        expect(self.page.get_by_role("heading", name="Its story")).to_be_visible()

    def test_a_gauge_is_read_from_the_areas_page(self) -> None:
        self.open()
        self.button("Read a gauge").click()
        expect(self.page.get_by_text("Readings are kept with the site’s weather station.", exact=False)).to_be_visible()
        Station.objects.create(account=self.area.account, site=self.area.site, name="Gauge")
        self.area.account.touch("sky")
        self.open()
        self.button("Read a gauge").click()
        self.fill("It read", "0.4")
        self.button("Keep the reading").click()
        expect(self.page.locator("tr[data-event^=reading]")).to_contain_text("Rain gauge: 0.4 in")
