"""Help where it is needed: a term one press from its field, the manual and the glossary by `?`, chapters with pictures."""

import re

from django.conf import settings
from playwright.sync_api import expect

from e2e.base import PHONE, BrowserTest

MANUAL = settings.ROOT / "docs" / "manual"
CHAPTERS = sorted(MANUAL.glob("[0-9]*.md"))


class Help(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.let_in()

    def test_a_term_is_one_press_from_its_field(self) -> None:
        self.go("kit/new")
        self.page.get_by_role("button", name="What does “Swath” mean?").click()
        expect(self.page.get_by_role("dialog", name="Swath")).to_contain_text("The width that one pass covers")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("dialog")).to_have_count(0)
        self.page.get_by_role("textbox", name="Output of one pass", exact=True).press("F1")
        expect(self.page.get_by_role("dialog", name="Output")).to_contain_text("puts down in one pass")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("textbox", name="Output of one pass", exact=True)).to_be_focused()

    def test_on_a_phone_a_thumb_meets_the_question_mark_beside_a_label(self) -> None:
        """44 px are reached, though 18 are drawn: 20 to the right of its middle, and as many under it."""
        self.page.set_viewport_size(PHONE)
        self.go("kit/new")
        for dx, dy in ((20, 0), (0, 20)):
            mark = self.page.get_by_role("button", name="What does “Swath” mean?")
            mark.evaluate("e => e.scrollIntoView({ block: 'center' })")
            box = mark.bounding_box()
            assert box
            self.page.mouse.click(box["x"] + box["width"] / 2 + dx, box["y"] + box["height"] / 2 + dy)
            expect(self.page.get_by_role("dialog", name="Swath")).to_be_visible()
            self.page.keyboard.press("Escape")
            expect(self.page.get_by_role("dialog")).to_have_count(0)

    def test_the_manual_is_searched_by_its_key_and_leads_to_the_place(self) -> None:
        self.go("today")
        self.page.keyboard.press("?")
        sheet = self.page.get_by_role("dialog", name="Help")
        expect(sheet).to_contain_text("Open the reckon line")
        self.fill_search("degree days")
        expect(sheet.get_by_label("Found").locator("li").first).to_contain_text("The day’s mean temperature over a base")
        self.fill_search("strip known size")
        sheet.get_by_role("link", name="Kit: Calibrating a sprayer").click()
        self.says("Manual: Kit.")
        expect(self.page.get_by_role("heading", name="Calibrating a sprayer")).to_be_in_viewport()
        self.page.keyboard.press("?")
        self.fill_search("zzz")
        expect(sheet).to_contain_text("Nothing is written of that")

    def fill_search(self, words: str) -> None:
        self.page.get_by_label("Search the manual and the glossary").fill(words)

    def test_every_chapter_opens_with_its_pictures(self) -> None:
        self.go("help")
        for path in CHAPTERS:
            text = path.read_text(encoding="utf-8")
            title = text.splitlines()[0].removeprefix("# ")
            with self.subTest(title):
                self.page.get_by_role("navigation", name="Chapters").get_by_role("link", name=title, exact=True).click()
                self.says(f"Manual: {title}.")
                for picture in self.page.locator("main img").all():
                    picture.scroll_into_view_if_needed()
                    expect(picture).to_have_js_property("complete", True)
                    self.assertGreater(picture.evaluate("e => e.naturalWidth"), 0)
                pictures = re.findall(r"!\[(.+?)\]", text)
                self.assertEqual([p.get_attribute("alt") for p in self.page.locator("main img").all()], pictures)
