"""A mixed morning in the browser: seen on Today, changed, started, followed with a stop skipped at the gate, and ended."""

import re
from datetime import UTC, datetime
from itertools import pairwise
from typing import Any
from unittest.mock import patch

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Site
from greenmeasure.accounts.schemas import SiteIn
from greenmeasure.accounts.sites import save_site
from greenmeasure.book.models import Application
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.outings.models import Outing
from greenmeasure.outings.routes import say_way
from greenmeasure.outings.schemas import WayIn
from greenmeasure.programme.actions import save_step
from greenmeasure.programme.schemas import StepIn
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE

NOW = datetime(2026, 5, 20, 10, 20, tzinfo=UTC)  # 06:20 in New York
SOAK = {"water_in_depth": {"value": 0.25, "unit": "in"}, "water_in_delay": {"value": 8, "unit": "h"}}


class Outings(BrowserTest):
    """On 20 May 2026: a regulator, iron, a fungicide and granules that are watered in, on three areas of one site."""

    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)
        self.let_in()
        account = Area.objects.get().account
        for name in ("Court", "Lawn"):
            save_area(account, AreaIn(**(AREA | {"name": name, "note": "The dog is friendly."})))
        made: tuple[tuple[str, str, dict[str, Any], str, float], ...] = (
            ("Soaked 20-0-0", "fertiliser", FEED | {"rules": SOAK}, "lb/kft2:N", 0.4),
            ("Slow SC", "growth_regulator", FUNGICIDE | {"rules": {"mow_after": {"value": 2, "unit": "h"}}}, "fl_oz/kft2", 0.5),
            ("Colour SL", "iron", FUNGICIDE | {"formulation": "SL"}, "fl_oz/kft2", 0.5),
            ("Test SC", "", {}, "fl_oz/kft2", 0.5),
        )
        for name, kind, card, unit, rate in made:
            if card:
                save_product(account, ProductIn(**(card | {"name": name, "kind": kind})))
            product = Product.objects.get(name=name)
            step: dict[str, Any] = {
                "name": f"Step with {name}",
                "when": {"timing": "dated", "begin": "2026-05-20", "end": "2026-05-22"},
                "products": [{"product_id": product.pk, "rate": {"value": rate, "unit": unit}}],
                "area_ids": [a.pk for a in Area.objects.all()],
            }
            if name == "Test SC":
                step["products"] += [{"product_id": Product.objects.get(name="Colour SL").pk, "instead": True}]
            save_step(account, account.memberships.first().user, StepIn(**step))  # type: ignore[union-attr]

    def test_a_mixed_morning_from_today_to_what_was_done(self) -> None:
        for size in (WIDE, PHONE):
            with self.subTest(size["width"]):
                self.page.set_viewport_size(size)
                self.morning(size["width"])
                Outing.objects.all().delete()
                Application.objects.all().delete()
                Area.objects.first().account.touch()  # type: ignore[union-attr]

    def morning(self, width: int) -> None:
        self.go("today")
        expect(self.page.get_by_role("heading", name="The next seven days")).to_be_visible()
        expect(self.page.get_by_role("img", name="Outing: Today")).to_be_visible()
        expect(self.page.get_by_text("Spread Soaked 20-0-0: Court, Lawn, North green")).to_be_visible()
        self.page.get_by_role("link", name="Change it").click()
        self.says("4 jobs on 3 areas")
        self.page.get_by_text("Step with Colour SL on Lawn", exact=True).click()
        expect(self.page.get_by_text("Spray Colour SL: Court, North green")).to_be_visible()
        self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), width)
        self.settle()
        self.button("Start this outing").click()
        self.page.wait_for_url("**/round/outing/*")
        self.says("0 of 7 jobs done. Next, at 06:20: Spread Soaked 20-0-0.")
        self.settle()
        self.button("Skip Court").first.click()
        self.fill("Why is Court skipped?", "Locked gate")
        self.button("Skip it").click()
        expect(self.page.get_by_text("skipped: Locked gate", exact=False).first).to_be_visible()
        self.settle()
        self.job()
        for _ in range(3):
            self.button("Note it as done").or_(self.button("Water: done")).first.click()
            self.settle()
        for _ in range(3):
            self.button("Skip all of it").click()
            self.fill("Why is all of it skipped?", "Rain came")
            self.button("Skip it").click()
            self.settle()
        self.says("All 7 jobs done. See to the end of the outing.")
        expect(self.button("Finish the outing")).to_be_disabled()
        self.tick_all("At the end")
        self.settle()
        self.button("Finish the outing").click()
        self.says("Today, Wed 20 May 2026:")
        expect(self.page.get_by_text("Skipped Court: Locked gate")).to_be_visible()
        expect(self.page.get_by_text("Spread Soaked 20-0-0 on Lawn, North green", exact=False)).to_be_visible()
        self.assertEqual(Application.objects.count(), 2)
        self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), width)

    def test_another_person_another_product_and_a_stop_left_out_once_its_mix_is_made(self) -> None:
        self.go("round/outing/new")
        self.settle()
        self.page.get_by_role("spinbutton", name="People").fill("2")
        self.settle()
        expect(self.page.get_by_text("person 2").first).to_be_visible()
        self.pick("Step with Test SC on Lawn: with", "Colour SL")
        self.settle()
        expect(self.page.get_by_text("Spray Test SC: Court, North green")).to_be_visible()
        self.button("Start this outing").click()
        self.page.wait_for_url("**/round/outing/*")
        self.settle()
        row = self.page.get_by_role("listitem").filter(has_text="Spray Colour SL")
        row.get_by_role("button", name="Start this one now").click()
        self.page.wait_for_url(re.compile(r"/round/\d+$"))
        tank = self.page.get_by_role("region", name="Tank 1")
        expect(tank).to_contain_text("Runs out on")
        self.tick_all("Put on")
        self.settle()
        tank.locator("label:has(input[type=checkbox])").first.click()
        self.settle()
        self.page.get_by_role("link", name="Back to the outing").click()
        self.settle()
        row.get_by_role("button", name="Skip Lawn").click()
        self.fill("Why is Lawn skipped?", "A dog")
        self.button("Skip it").click()
        falls = self.page.locator("section:has(> h2:has-text('Where its loads run out'))")
        expect(falls).to_contain_text("Lawn is left out: mix only")
        expect(falls).to_contain_text("Lawn is left out: do not mix it.")

    def job(self) -> None:
        """The first job: its mix sheet, ticked, into the book, and back to the outing."""
        self.button("Spread Soaked 20-0-0: mix sheet").click()
        self.page.wait_for_url("**/round/*")
        self.tick_all("Put on")
        for box in self.page.locator("main label:has(input[type=checkbox]:not(:checked):not(:disabled))").all():
            box.click()
        self.settle()
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/round/outing/*")
        self.says("1 of 7 jobs done.")


class Yards(BrowserTest):
    """On 20 May 2026: granules for the lawns of six yards, driven to on one route."""

    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)
        self.let_in()
        account = Area.objects.get().account
        for n in range(6):
            told = {"gate": f"Latch {n}", "tell": f"Owner {n}, the day before", "time_zone": "America/New_York"}
            site = save_site(account, SiteIn(name=f"Yard {n}", **told))
            save_area(account, AreaIn(**(AREA | {"name": "Front lawn", "site_id": site.pk})))
        for n, (one, other) in enumerate(pairwise(Site.objects.filter(name__startswith="Yard").order_by("name"))):
            say_way(account, WayIn(one_id=one.pk, other_id=other.pk, minutes=5 + n))
        granules = save_product(account, ProductIn(**(FEED | {"name": "Granules 20-0-10"})))
        step = {
            "name": "Spring feed",
            "when": {"timing": "dated", "begin": "2026-05-20", "end": "2026-05-22"},
            "products": [{"product_id": granules.pk, "rate": {"value": 0.4, "unit": "lb/kft2:N"}}],
            "area_ids": [a.pk for a in Area.objects.filter(name="Front lawn")],
        }
        save_step(account, account.memberships.first().user, StepIn(**step))  # type: ignore[union-attr]

    def test_a_drive_over_six_yards_from_the_route_to_the_year_of_all_sites(self) -> None:
        self.route()
        for size in (WIDE, PHONE):
            with self.subTest(size["width"]):
                self.page.set_viewport_size(size)
                self.drive(size["width"])
                Outing.objects.all().delete()
                Application.objects.all().delete()
                Area.objects.first().account.touch()  # type: ignore[union-attr]

    def route(self) -> None:
        self.go("account/routes")
        self.button("Add a route").click()
        self.fill("Name", "Harbour road")
        self.pick_many("Days", "Wednesday")
        self.pick_many("Sites", *(f"Yard {n}" for n in range(6)))
        self.button("Add the route").click()
        expect(self.page.get_by_text("Wednesdays: 6 sites, 35 min between them")).to_be_visible()
        way = self.page.get_by_role("textbox", name="Minutes: Yard 0 to Yard 1").or_(
            self.page.get_by_role("textbox", name="Minutes: Yard 1 to Yard 0")
        )
        way.fill("9")
        way.press("Tab")
        expect(self.page.get_by_text("Wednesdays: 6 sites, 39 min between them")).to_be_visible()

    def drive(self, width: int) -> None:
        self.go("round/outing/new")
        self.pick("Where", "Route Harbour road")
        self.says("1 job on 6 areas")
        expect(self.page.get_by_text("Drive to Yard", exact=False)).to_have_count(5)
        self.fill("Who goes", "Wren")
        self.settle()
        self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), width)
        self.button("Start this outing").click()
        self.page.wait_for_url("**/round/outing/*")
        self.says("0 of 1 job done.")
        for n in range(6):
            expect(self.page.get_by_text(f"Owner {n}, the day before")).to_be_visible()
        self.settle()
        self.button("Skip Front lawn, Yard 3").click()
        self.fill("Why is Front lawn, Yard 3 skipped?", "Locked gate")
        self.button("Skip it").click()
        expect(self.page.get_by_text("skipped: Locked gate", exact=False).first).to_be_visible()
        self.button("Stop for now").click()
        self.fill("Why does it stop?", "A puncture")
        self.button("Stop the outing").click()
        expect(self.page.get_by_text("Stopped since 06:20: A puncture.")).to_be_visible()
        self.settle()
        self.button("Go on with the outing").click()
        expect(self.page.get_by_text("Stopped since", exact=False)).to_have_count(0)
        self.settle()
        self.button("Spread Granules 20-0-10: mix sheet").click()
        self.page.wait_for_url(re.compile(r"/round/\d+$"))
        self.tick_all("Put on")
        for box in self.page.locator("main label:has(input[type=checkbox]:not(:checked):not(:disabled))").all():
            box.click()
        self.settle()
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/round/outing/*")
        self.says("All 1 job done.")
        self.tick_all("At the end")
        self.settle()
        self.button("Finish the outing").click()
        expect(self.page.get_by_text("06:20–06:20: stopped, A puncture")).to_be_visible()
        expect(self.page.get_by_role("link", name="Notices for the gates")).to_be_visible()
        self.go("season/sites")
        self.says("7 sites: something is due at 1.")
        self.page.get_by_role("link", name="Yard 3").click()
        expect(self.page.get_by_text("Skipped Front lawn: Locked gate")).to_be_visible()
        expect(self.page.get_by_text("Spring feed on Front lawn, Yard 3: due", exact=False)).to_be_visible()
        self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), width)
