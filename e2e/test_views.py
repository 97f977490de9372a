"""Every view: nothing serious for axe, nothing wider than the phone, nothing on the console, in each theme."""

import json
from urllib.parse import urlencode
from uuid import uuid4

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Membership, Site, User
from greenmeasure.book.models import Application
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.outings.actions import take
from greenmeasure.outings.schemas import TakeOutingIn
from greenmeasure.rounds.models import Round
from greenmeasure.scouting.models import Photo
from greenmeasure.shelf.models import RateRow
from greenmeasure.tests.demo import load_demo
from greenmeasure.trials.models import Trial

THEMES = ("ink", "sunlight")


CRAMPED = """() => {
  const found = [];
  const say = (what, size, words) => found.push(`${what} ${size.toFixed(1)}: ${words.trim().slice(0, 40)}`);
  const seen = e => e?.checkVisibility() && e.getBoundingClientRect().width > 1;
  const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (texts.nextNode()) {
    const { data, parentElement: e } = texts.currentNode;
    if (!data.trim() || !seen(e) || e.ownerSVGElement) continue;
    const size = parseFloat(getComputedStyle(e).fontSize);
    if (size < 12) say("text", size, data);
  }
  for (const e of document.querySelectorAll("main a, main button, main [role=button], main label:has(input), main summary")) {
    if (!seen(e) || e.closest("p, [data-turn]") || e.matches("[data-term]")) continue;
    const { height } = e.getBoundingClientRect();
    if (height > 10 && height < 43.5) say(e.tagName.toLowerCase(), height, e.textContent || e.ariaLabel || "");
  }
  return [...new Set(found)];
}"""
"""What is too small for a phone: text under 12 px, but for that in drawings; what is pressed under 44 px high, but for links in
running text, marks on a year's strip, the ? beside a label, whose reach is larger than it is drawn, and what is there for keys
alone, which is 6 px and not seen."""


class Views(BrowserTest):
    maxDiff = None

    def setUp(self) -> None:
        super().setUp()
        load_demo()
        self.client.force_login(User.objects.get(username="ines"), "django.contrib.auth.backends.ModelBackend")
        self.page.goto(self.live_server_url)
        self.page.wait_for_selector("text=Sign in")

    def inside(self) -> list[tuple[str, str]]:
        """Each view's address, and words that are there once it stands."""
        cookie = self.client.cookies["sessionid"].value
        self.context.add_cookies([{"name": "sessionid", "value": cookie, "url": self.live_server_url}])
        first = Round.objects.get(mix__product__name="Saltmarsh 22-0-8", parts__area__name="Memorial lawn", started_at__year=2025)
        Application.objects.filter(round=first).delete()
        Round.objects.filter(pk=first.pk).update(status="under_way", ended_at=None)
        entry = Application.objects.filter(entries__stand="above").get()
        part = first.parts.get()
        area, product, machine = part.area_id, first.mix.get().product_id, first.machine_id
        rate = {"value": "0.5", "unit": "lb/kft2:N"}
        wanted = {"area_id": area, "doses": [{"row_id": self.row(product), "rate": rate}], "share": "", "zone": ""}
        job = {"mix": [{"product_id": product, "target": ""}], "machine_id": machine, "passes": 2, "parts": [wanted]}
        terrace, green = (Area.objects.get(name=n).pk for n in ("Terrace", "Bowling green"))
        manager = Membership.objects.filter(account=entry.account, role="manager")[0].user
        outing = take(entry.account, manager, TakeOutingIn(), uuid4())
        slip = Site.objects.get(name="Slip Field").pk
        shot = Photo.objects.filter(area_id=green).latest("pk")
        knapsack, boom = (Machine.objects.get(name=n).pk for n in ("Knapsack", "Walking boom"))
        self.page.evaluate(f"""() => localStorage.setItem('draft:alder-quay/passes',
            JSON.stringify({{area: {terrace}, machine: {machine}}}))""")
        self.go("today", "alder-quay")
        return [
            ("start", "Everything is in place"),
            ("help/kit", "Calibrating a sprayer"),
            ("help/glossary", "that one pass covers"),
            ("today", "Last in the book"),
            ("ground", "Memorial lawn"),
            (f"ground/{area}", "Its story"),
            (f"ground/{area}/change", "Save the changes"),
            ("ground/new", "Add the area"),
            (f"ground/{area}/measure", "Keep it and use"),
            (f"ground/{terrace}/soil", "The plan"),
            (f"ground/{terrace}/sodium", "Or by its water"),
            ("ground/files", "Bring it in"),
            (f"ground/site/{slip}", "Before you go"),
            ("shelf", "Heronsedge SC"),
            (f"shelf/{product}", "Understood"),
            ("shelf/files", "Bring it in"),
            ("shelf/stock", "On the shelf"),
            ("kit", "Knapsack"),
            (f"kit/{machine}", "Settings for"),
            (f"kit/{machine}/change", "Save the changes"),
            ("kit/new", "Add the machine"),
            (f"kit/{machine}/calibrate", "Weigh it over"),
            (f"kit/{machine}/calibrate?bench=pans", "Pans apart"),
            (f"kit/{machine}/setting", "Half way there"),
            (f"kit/{machine}/clean", "The label first"),
            (f"kit/{knapsack}", "season by season"),
            (f"kit/{knapsack}/calibrate", "Length of the strip"),
            (f"kit/{knapsack}/nozzle", "Droplets for the job"),
            (f"kit/{knapsack}/pace", "Walk to the beat"),
            (f"kit/{boom}/calibrate?bench=tips", "Caught by tip"),
            (f"ground/{green}/water", "How long to run it"),
            (f"ground/{green}/seen", "Fixed spots"),
            (f"ground/{green}/seen/{shot.pk}", "Read its colours"),
            (f"ground/{green}/seen/compare?then={shot.pk - 1}&now={shot.pk}", "Take care"),
            ("sky", "Day by day"),
            ("sky/hours", "The job takes"),
            ("sky/clocks", "regulator"),
            ("sky/schools", "Side by side"),
            (f"sky/watch?area={green}", "What scouts found"),
            ("sky/station", "Read by hand"),
            ("sky/files", "File of weather"),
            ("sky/long", "Drag over a span"),
            ("season", "Due and coming"),
            ("season/programme?year=2026", "Iron before the cup"),
            ("season/programme/step/new", "Add the step"),
            ("season/plan", "Make the plan"),
            ("season/sites", "Slip Field"),
            ("passes", "It is walked"),
            (f"reckon?{urlencode({'job': json.dumps(job)})}", "What it brings"),
            ("reckon/back", "What is known"),
            ("reckon/compare", "All bring as much"),
            ("reckon/mixes", "No mixes are kept yet."),
            ("kit/vessels/new", "Between two marks"),
            ("reckon/measure", "Is a cup true?"),
            ("round", "Under way"),
            ("round/outing/new", "What goes with it"),
            (f"round/outing/{outing.pk}", "At the end"),
            (f"round/{first.pk}", "What was really used"),
            ("book", "Actual rate"),
            ("book/story", "Everything noted"),
            ("book/records", "Print them (PDF)"),
            ("book/past", "What went down"),
            ("book/outcomes", "Forecasts against what was seen"),
            ("book/trials", "What it shows"),
            ("book/trials/new", "Begin the trial"),
            (f"book/trials/{Trial.objects.get().pk}", "Day by day"),
            ("book/files", "Import past applications"),
            (f"book/{entry.pk}", "What was done"),
            ("account", "Add a member"),
            ("account/house", "Season’s totals start on"),
            ("account/sites", "Getting in"),
            ("account/routes", "Both sides of the harbour"),
            ("account/you", "Where you are signed in"),
            ("account/away", "put away"),
            ("account/whole", "Take it along"),
            ("parts", "Vessels and tanks"),
        ]

    def row(self, product: int) -> int:
        return RateRow.objects.filter(product_id=product).earliest("position").pk

    def open(self, place: str, words: str) -> None:
        """Go there as a link does, without loading the page anew: axe stays in it."""
        self.evaluate(
            "to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')); }", f"/a/alder-quay/{place}"
        )
        expect(self.page.get_by_text(words).first).to_be_visible()
        self.still(quiet=100, at_most=2_000)

    def test_each_view_is_sound_in_every_theme_and_fits_the_window_and_the_phone(self) -> None:
        """A theme changes colours alone: by the rules of colour each view is asked once more in each."""
        self.assertEqual(self.serious(), [], "door")
        titles: dict[str, str] = {}
        bare: dict[str, list[str]] = {}
        cramped: dict[str, list[str]] = {}
        for place, words in self.inside():
            self.open(place, words)
            self.assertEqual(self.serious(), [], place)
            titles[place] = self.page.title()
            raw = self.evaluate(r"() => document.body.innerText.match(/\b20\d\d-\d\d-\d\d\b/g)")
            if raw and not place.endswith("files"):
                bare[place] = raw
            usual = self.evaluate("() => document.documentElement.dataset.theme")
            for theme in THEMES:
                self.evaluate(f"() => document.documentElement.dataset.theme = '{theme}'")
                self.assertEqual(self.serious("cat.color"), [], f"{place} in {theme}")
            self.evaluate(f"() => document.documentElement.dataset.theme = '{usual}'")
            for size in (WIDE, PHONE):
                self.page.set_viewport_size(size)
                for _ in range(50):  # a busy machine lays out late; what is wrong stays wrong
                    self.page.wait_for_timeout(60)
                    over = self.evaluate("() => document.documentElement.scrollWidth - innerWidth")
                    if over <= 0:
                        break
                self.assertLessEqual(over, 0, f"{place} at {size['width']}")
            if small := self.evaluate(CRAMPED):
                cramped[place] = small
            self.page.set_viewport_size(WIDE)
        self.assertEqual(bare, {}, "days are written as one says them")
        self.assertEqual(cramped, {}, "too small for a phone")
        self.assertEqual([p for p, title in titles.items() if not title.endswith(" · Green Measure")], [])
        self.assertEqual(len(set(titles.values())), len(titles), "each page has a title of its own")

    def test_a_theme_that_was_chosen_is_there_at_once_and_over_sheets(self) -> None:
        self.inside()
        for theme in THEMES:
            self.evaluate(f"() => localStorage.setItem('settings', JSON.stringify({{theme: '{theme}'}}))")
            self.go("today", "alder-quay")
            self.assertEqual(self.evaluate("() => document.documentElement.dataset.theme"), theme)
            self.assertEqual(self.serious(), [], theme)
            self.page.keyboard.press("?")
            expect(self.page.get_by_role("dialog")).to_be_visible()
            self.assertEqual(self.serious(), [], f"keys in {theme}")

    def test_on_a_phone_the_places_outdoors_are_large_enough_for_wet_hands(self) -> None:
        self.page.set_viewport_size(PHONE)
        places = dict(self.inside())
        for place in ("today", next(p for p in places if p.startswith("round/"))):
            self.open(place, places[place])
            strip = self.page.get_by_role("navigation", name="Places outdoors").get_by_role("link")
            expect(strip).to_have_count(5)
            small = self.evaluate("""() => [...document.querySelectorAll('button, nav a, label:has(input)')]
                .filter(e => e.offsetParent && e.getBoundingClientRect().height < 44)
                .map(e => e.innerText || e.getAttribute('aria-label'))""")
            self.assertEqual(small, [], place)
