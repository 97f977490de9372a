"""Every view: nothing serious for axe, nothing wider than the phone, nothing on the console, in each theme."""

from io import StringIO
from pathlib import Path

from django.conf import settings
from django.core.management import call_command
from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import User
from greenmeasure.book.models import Entry
from greenmeasure.rounds.models import Round

AXE = Path(settings.ROOT) / "web" / "node_modules" / "axe-core" / "axe.min.js"


class Views(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        call_command("load_demo", stdout=StringIO())
        self.client.force_login(User.objects.get(username="ines"), "django.contrib.auth.backends.ModelBackend")
        self.page.goto(self.live_server_url)
        self.page.wait_for_selector("text=Sign in")

    def inside(self) -> list[tuple[str, str]]:
        """Each view's address, and words that are there once it stands."""
        cookie = self.client.cookies["sessionid"].value
        self.context.add_cookies([{"name": "sessionid", "value": cookie, "url": self.live_server_url}])
        Round.objects.filter(pk=Round.objects.earliest("pk").pk).update(status="under_way")
        Entry.objects.filter(round=Round.objects.earliest("pk")).delete()
        entry = Entry.objects.filter(stand="above").get()
        area, product, machine = (getattr(Round.objects.earliest("pk"), name).pk for name in ("area", "product", "machine"))
        reckon = (
            f"reckon?product={product}&row={self.row(product)}&rate=0.5&unit=lb/kft2:N&area={area}&machine={machine}&passes=2"
        )
        return [
            ("today", "Last in the book"), ("ground", "Memorial lawn"), (f"ground/{area}", "Save the changes"),
            ("shelf", "Heronsedge SC"), (f"shelf/{product}", "Understood"), ("kit", "Knapsack"),
            (f"kit/{machine}", "Save the changes"), (reckon, "What it brings"), ("round", "Under way"),
            (f"round/{Round.objects.earliest('pk').pk}", "What was really used"), ("book", "Actual rate"),
            (f"book/{entry.pk}", "What was done"), ("club", "Add a member"), ("parts", "Vessels and tanks"),
        ]  # fmt: skip

    def row(self, product: int) -> int:
        from greenmeasure.shelf.models import RateRow

        return RateRow.objects.filter(product_id=product).earliest("position").pk

    def open(self, place: str, words: str) -> None:
        self.go(place, "alder-quay")
        expect(self.page.get_by_text(words).first).to_be_visible()
        self.page.wait_for_load_state("networkidle")

    def serious(self) -> list[str]:
        if not self.evaluate("() => !!window.axe"):
            self.evaluate(AXE.read_text(encoding="utf-8"))
        found = self.evaluate("() => axe.run(document, {resultTypes: ['violations']})")
        return [
            f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in found["violations"] if v["impact"] in ("serious", "critical")
        ]

    def test_axe_finds_nothing_serious(self) -> None:
        self.assertEqual(self.serious(), [], "door")
        for place, words in self.inside():
            self.open(place, words)
            self.assertEqual(self.serious(), [], place)

    def test_axe_in_the_dark_in_sunlight_and_over_sheets(self) -> None:
        places = dict(self.inside())
        for theme in ("ink", "sunlight"):
            self.evaluate(f"() => localStorage.setItem('settings', JSON.stringify({{theme: '{theme}'}}))")
            for place in [p for p in places if p.startswith(("today", "reckon", "round/", "shelf/"))]:
                self.open(place, places[place])
                self.assertEqual(self.serious(), [], f"{place} in {theme}")
        self.page.keyboard.press("?")
        expect(self.page.get_by_role("dialog")).to_be_visible()
        self.assertEqual(self.serious(), [], "keys")

    def test_nothing_is_wider_than_the_window(self) -> None:
        for size in (PHONE, WIDE):
            self.page.set_viewport_size(size)
            for place, words in self.inside():
                self.open(place, words)
                over = self.evaluate("() => document.documentElement.scrollWidth - innerWidth")
                self.assertLessEqual(over, 0, f"{place} at {size['width']}")

    def test_on_a_phone_the_places_outdoors_are_large_enough_for_wet_hands(self) -> None:
        self.page.set_viewport_size(PHONE)
        places = dict(self.inside())
        for place in ("today", next(p for p in places if p.startswith("round/"))):
            self.open(place, places[place])
            strip = self.page.get_by_role("navigation", name="Places outdoors").get_by_role("link")
            expect(strip).to_have_count(5)
            small = self.evaluate("""() => [...document.querySelectorAll('button, nav a, label:has(input)')]
                .filter(e => e.offsetParent && e.getBoundingClientRect().height < 44)
                .map(e => e.innerText || e.getAttribute('aria-label'))""")  # fmt: skip
            self.assertEqual(small, [], place)
