"""The one job, from a fresh empty account to the CSV: for a spray by mouse, for granules by keyboard alone."""

import csv
import io
import re
from pathlib import Path

from playwright.sync_api import expect

from e2e.base import BrowserTest
from greenmeasure.book.models import Entry


class SprayFromNothing(BrowserTest):
    def test_a_person_who_has_never_seen_it(self) -> None:
        self.start_an_account()
        self.add_an_area()
        self.add_a_product()
        self.add_a_sprayer()
        self.reckon()
        self.round()
        self.book()

    def start_an_account(self) -> None:
        self.page.goto(self.live_server_url)
        self.button("Start here").click()
        self.page.get_by_text("Grounds", exact=True).click()
        self.fill("Name of the club, course or school", "Otter Lane Bowls")
        self.fill("Your name", "Runa Falk")
        self.fill("Sign-in name", "runa")
        self.page.get_by_label("Password").fill("quiet otter lamp")
        self.button("Start").click()
        self.says("Three things, then the first dose")
        self.page.get_by_role("link", name="Today", exact=False).first.click()
        self.says("Nothing is set up yet")
        expect(self.page.get_by_role("link", name="Do it")).to_have_count(4)

    def add_an_area(self) -> None:
        self.page.get_by_role("link", name="Ground", exact=False).first.click()
        self.says("No ground yet")
        self.page.get_by_role("link", name="Add an area").click()
        self.fill("Name", "Upper green")
        self.fill("Size", "13,500")
        self.pick("Grass", "Creeping bentgrass")
        self.fill("Height of cut", "3/16")
        self.button("Add the area").click()
        self.says("One area, 13,500 ft² in all.")

    def add_a_product(self) -> None:
        self.page.get_by_role("link", name="Shelf", exact=False).first.click()
        self.page.get_by_role("link", name="Add a product").click()
        self.fill("Name", "Spindle SC")
        self.pick("Type", "Fungicide")
        self.pick("Formulation", "suspension concentrate")
        self.fill("Rate, as printed", "1.2 to 2.4 oz per 1,000 sq ft")
        self.page.get_by_role("button", name="1.2 to 2.4 fl oz per 1,000 sq ft").click()
        expect(self.page.get_by_text("Understood: 1.2 to 2.4 fl oz per 1000 ft²")).to_be_visible()
        self.fill("Common name", "an active")
        self.fill("Amount", "18.5")
        self.fill("Density", "9.4")
        self.fill("Package", "1")
        self.pick("Package: unit", "gal")
        self.fill("Price of a package, USD", "280")
        self.button("Put it on the shelf").click()
        self.says("One product on the shelf.")

    def add_a_sprayer(self) -> None:
        self.page.get_by_role("link", name="Kit", exact=False).first.click()
        self.page.get_by_role("link", name="Add a machine").click()
        self.fill("Name", "Barrow sprayer")
        self.fill("Tank holds", "10")
        self.fill("Output of one pass", "1.5")
        self.button("Add the machine").click()
        expect(self.page.get_by_text("6,667 ft²")).to_be_visible()

    def reckon(self) -> None:
        self.page.get_by_role("link", name="Reckon", exact=False).first.click()
        self.pick("Product", "Spindle SC")
        self.pick_many("Areas", "Upper green")
        self.pick("Machine", "Barrow sprayer")
        self.fill("Rate to put down", "3")
        expect(self.page.locator("[data-stand=above]")).to_contain_text("25 % over the label's highest rate")
        expect(self.button("Start the round")).to_be_disabled()
        self.fill("Rate to put down", "2")
        self.says("Pour 27 fl oz of Spindle SC for Upper green: 3 tanks, 20.25 gal in all.")
        expect(self.page.locator("[data-answer=amount]")).to_contain_text("27 fl oz")
        expect(self.page.locator("[data-answer=amount]")).to_contain_text("798.5 mL")
        expect(self.page.get_by_text("59.06 USD")).to_be_visible()
        loads = self.page.locator("table").first.locator("tbody tr")
        expect(loads).to_have_count(2)
        expect(loads.nth(0)).to_contain_text("Tank 1 to tank 2")
        expect(loads.nth(0)).to_contain_text("13.33 fl oz")
        expect(loads.nth(1)).to_contain_text("0.3333 fl oz")
        expect(self.page.get_by_role("img", name=re.compile("13 fl oz in the 32 fl oz"))).to_be_visible()
        expect(self.page.get_by_role("img", name=re.compile("Tank 1: 10 gal of a 10 gal tank"))).to_be_visible()
        margin = self.page.get_by_role("complementary")
        for words in ("Rate × area: product", "27 fl oz", "Spray volume: output × area", "20.25 gal"):
            expect(margin).to_contain_text(words)

    def round(self) -> None:
        self.button("Start the round").click()
        self.says("Put on what the label asks for mixing")
        first = self.page.get_by_role("checkbox", name=re.compile("^Fill with clean water")).first
        expect(first).to_be_disabled()
        expect(self.page.get_by_text("The product label, local law and licensed practice come before")).to_be_visible()
        for gear in ("Long-sleeved shirt", "Socks and closed shoes", "Chemical-resistant gloves", "Eye protection"):
            self.page.locator("label", has_text=gear).first.click()
        expect(first).to_be_enabled()
        for act in self.page.get_by_role("region", name="Tank 1").locator("label:has(input[type=checkbox])").all():
            act.click()
        self.says("Tank 2: Fill with clean water to 5 gal")
        self.page.emulate_media(media="print")
        for sheet in ("Tank 1", "Tank 2", "Tank 3"):
            expect(self.page.get_by_role("region", name=sheet).locator("ol")).to_be_visible()
        expect(self.page.get_by_text("Otter Lane Bowls. Mix sheet.")).to_be_visible()
        expect(self.page.get_by_role("navigation", name="Places", exact=True)).to_be_hidden()
        self.page.emulate_media(media="screen")

    def book(self) -> None:
        self.fill("Product used", "40")
        expect(self.page.get_by_text("is recorded as it was, and marked")).to_be_visible()
        self.fill("Product used", "27.5")
        expect(self.page.locator("[data-answer=actual]")).to_have_text("2.037 fl oz/1000 ft²")
        self.fill("Wind", "4 mph S")
        self.button("Put it in the book").click()
        self.says("Spindle SC on Upper green, 2.037 fl oz/1000 ft²")
        self.page.get_by_role("link", name="All of the book").click()
        self.says("1 application in the book, none against its label.")
        self.page.get_by_role("link", name="Import and export").click()
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Export the book as CSV").click()
        rows = list(csv.DictReader(io.StringIO(Path(download.value.path()).read_text())))
        self.assertEqual(
            [(r["product"], r["used"], r["used_unit"], r["against_label"], r["wind"]) for r in rows],
            [("Spindle SC", "27.5", "fl oz", "within", "4 mph S")],
        )


class GranulesByKeyboard(BrowserTest):
    """Not one press of a mouse."""

    def focused(self) -> str:
        return str(
            self.evaluate("""() => {
            const e = document.activeElement;
            if (e === document.body) return '';
            const by = (e.getAttribute('aria-labelledby') || '').split(' ').map(i => document.getElementById(i)?.innerText ?? '');
            const label = e.labels?.[0]?.innerText ?? '';
            return [e.getAttribute('aria-label') ?? '', label, ...by, e.innerText ?? ''].join(' | ').trim();
        }""")
        )

    def tab_to(self, name: str, back: bool = False) -> None:
        """Press Tab until what has the focus is called `name`."""
        for _ in range(70):
            self.page.keyboard.press("Shift+Tab" if back else "Tab")
            if name in self.focused():
                return
        self.fail(f"Tab never came to “{name}”; it stands on “{self.focused()}”")

    def type_in(self, name: str, text: str) -> None:
        """Type into the field of this name: its unit's button bears the name too, and keys there are shortcuts."""
        self.tab_to(name)
        while self.evaluate("() => !document.activeElement.matches('input, textarea')"):
            self.tab_to(name)
        self.page.keyboard.press("Control+A")
        self.page.keyboard.type(text)

    def choose(self, name: str, letters: str) -> None:
        """Open a list and pick by its first letters."""
        self.tab_to(name)
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("listbox")).to_be_visible()
        self.page.keyboard.type(letters)
        expect(self.page.locator("[role=option][data-focused]")).to_contain_text(re.compile(letters, re.I))
        self.page.keyboard.press("Enter")
        self.list_is_shut()

    def choose_many(self, name: str, letters: str) -> None:
        """Open a list, tick one by its first letters, and close it."""
        self.tab_to(name)
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("listbox")).to_be_visible()
        self.page.keyboard.type(letters)
        expect(self.page.locator("[role=option][data-focused]")).to_contain_text(re.compile(letters, re.I))
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("Escape")
        self.list_is_shut()

    def press(self, name: str) -> None:
        self.tab_to(name)
        self.page.keyboard.press("Enter")

    def leave_field(self) -> None:
        self.evaluate("() => document.activeElement.blur()")

    def test_the_whole_job(self) -> None:
        self.sign_in()
        self.says("Everything is in place")
        self.page.keyboard.press("2")
        self.says("One area")
        self.page.keyboard.press("n")
        self.says("A new area")
        self.type_in("Name", "South bank")
        self.type_in("Size", "12,500")
        self.choose("Grass", "Tall f")
        self.type_in("Height of cut", "2 1/2")
        self.page.keyboard.press("Enter")
        self.says("2 areas")

        self.page.keyboard.press("3")
        self.says("2 products on the shelf")
        self.page.keyboard.press("n")
        self.type_in("Name", "Keel 24-0-6")
        self.choose("Type", "Fert")
        self.choose("Formulation", "GR")
        self.type_in("Rate, as printed", "50 lb bag covers 16,000 sq ft")
        expect(self.page.get_by_text("Understood: 50 lb per 16,000 ft²")).to_be_visible()
        self.choose("Kind of content", "N")
        self.type_in("Amount", "24")
        self.page.keyboard.press("Enter")
        self.says("3 products on the shelf")

        self.page.keyboard.press("4")
        self.says("2 machines")
        self.page.keyboard.press("n")
        self.type_in("Name", "Push spreader")
        self.choose("What it is", "Spread")
        self.type_in("Hopper holds", "25")
        self.page.keyboard.press("Enter")
        self.says("3 machines")

        self.page.keyboard.press("5")
        self.says("Pick a product and an area.")
        self.choose("Product", "Keel")
        self.choose_many("Areas", "South")
        self.choose("Machine", "Push")
        self.choose("Passes", "2")
        self.says("Weigh out 39.06 lb of Keel 24-0-6 for South bank: 2 hopper fills, 2 passes.")
        self.tab_to("Rate to put down")
        while self.evaluate("() => document.activeElement.getAttribute('role')") != "slider":
            self.page.keyboard.press("Tab")
        self.page.keyboard.press("ArrowLeft")
        expect(self.page.locator("[data-stand=below]")).to_be_visible()
        self.page.keyboard.press("End")
        expect(self.page.locator("[data-stand=within]")).to_be_visible()
        self.tab_to("Start the round", back=True)
        self.page.keyboard.press("Enter")

        self.says("Put on what the label asks")
        left = len(self.page.get_by_role("checkbox").all())
        for _ in range(70):
            self.page.keyboard.press("Tab")
            if left and self.evaluate("() => document.activeElement.type") == "checkbox":
                self.page.keyboard.press("Space")
                left -= 1
        self.says(re.compile("Hopper|All loads are out"))
        self.type_in("Product used", "39.5")
        self.type_in("Note", "done by keys")
        self.page.keyboard.press("Enter")
        self.says("Keel 24-0-6 on South bank, 3.16 lb/1000 ft²")
        entry = Entry.objects.get()
        self.assertEqual((entry.application.note, entry.stand, entry.application.loads), ("done by keys", "above", 2))
