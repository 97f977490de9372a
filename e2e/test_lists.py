"""Long lists: searched, narrowed and ordered, kept in the address; what was put away is found again."""

import re

from playwright.sync_api import expect

from e2e.base import BrowserTest
from greenmeasure.accounts.models import Site
from greenmeasure.ground.models import Area
from greenmeasure.shelf.models import Product


class Lists(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.let_in()
        site = Site.objects.get(account__slug="alder")
        far = Site.objects.create(account=site.account, name="Far side", time_zone="America/New_York")
        sizes = [(f"Court {n}", 100.0 * n, site) for n in range(1, 13)] + [("Bank", 9_000.0, far), ("Verge", 50.0, far)]
        for name, size, where in sizes:
            Area.objects.create(account=site.account, site=where, name=name, size_value=size, size_unit="m2", grass="tall_fescue")

    def names(self) -> list[str]:
        return self.page.locator("table a").all_inner_texts()

    def test_the_ground_is_searched_narrowed_and_ordered_and_the_address_keeps_it(self) -> None:
        self.go("ground")
        self.says("15 areas")
        names = self.names()
        self.assertLess(names.index("Court 2"), names.index("Court 10"))
        self.pick("Site", "Far side")
        expect(self.page.locator("table a")).to_have_count(2)
        self.pick("Order", "Largest first")
        expect(self.page.locator("table a").first).to_have_text("Bank")
        self.assertEqual(self.names(), ["Bank", "Verge"])
        self.pick("Site", "All sites")
        self.fill("Search", "court 1")
        expect(self.page.locator("table a")).to_have_count(4)
        self.assertEqual(self.names(), ["Court 12", "Court 11", "Court 10", "Court 1"])
        expect(self.page).to_have_url(re.compile(r"words=court\+1.*by=size|by=size.*words=court\+1"))
        self.page.get_by_role("link", name="Court 11").click()
        expect(self.page).to_have_url(re.compile(r"ground/\d+$"))
        self.page.go_back()
        expect(self.page.locator("table a")).to_have_count(4)
        self.fill("Search", "no such thing")
        expect(self.page.get_by_text("No area is like that.")).to_be_visible()

    def test_more_than_a_hundred_areas_come_a_hundred_at_a_time(self) -> None:
        site = Site.objects.get(name="Far side")
        more = [Area(account=site.account, site=site, name=f"Yard {n}", size_value=10, size_unit="m2") for n in range(100)]
        Area.objects.bulk_create(more)
        self.go("ground")
        expect(self.page.locator("table a")).to_have_count(100)
        self.button("Show 15 more of 115").click()
        expect(self.page.locator("table a")).to_have_count(115)

    def test_what_was_put_away_is_put_back(self) -> None:
        Area.objects.get(name="Court 7").archive()
        Product.objects.get(name="Test SC").archive()
        self.go("account/away")
        self.says("2 things were put away")
        self.button("Put back Court 7").click()
        self.says("One thing was put away")
        self.assertIsNone(Area.objects.get(name="Court 7").archived_at)
        self.go("shelf")
        self.says("One product on the shelf")
        self.go("account/away")
        self.button("Put back Test SC").click()
        self.says("Nothing was put away")

    def more(self) -> None:
        """As many areas more as make a list long."""
        site = Area.objects.get(name="Court 1").site
        more = [Area(account=site.account, site=site, name=f"Yard {n}", size_value=10, size_unit="m2") for n in range(5)]
        Area.objects.bulk_create(more)

    def test_a_long_pick_is_searched_by_any_part_of_a_name_or_its_note(self) -> None:
        self.more()
        self.go("reckon")
        self.page.get_by_role("button", name=re.compile("Areas$")).click()
        self.page.get_by_role("searchbox", name="Search: Areas").fill("urt 1")
        expect(self.page.get_by_role("option")).to_have_count(4)
        self.page.get_by_role("searchbox", name="Search: Areas").fill("bentgrass")
        expect(self.page.get_by_role("option")).to_have_count(1)
        self.page.get_by_role("searchbox", name="Search: Areas").fill("zzz")
        expect(self.page.get_by_text("Nothing by that name.")).to_be_visible()

    def test_all_of_a_site_or_a_grass_is_picked_with_one_press_and_left_out_with_another(self) -> None:
        self.more()
        self.go("reckon")
        areas = self.page.get_by_role("button", name=re.compile("Areas$"))
        areas.click()
        self.button("All of Far side").click()
        expect(self.page.get_by_role("option", selected=True)).to_have_count(2)
        self.button("All tall fescue").click()
        expect(self.page.get_by_role("option", selected=True)).to_have_count(14)
        self.button("All tall fescue").click()
        expect(self.page.get_by_role("option", selected=True)).to_have_count(0)
        self.button("All of Far side").click()
        self.page.keyboard.press("Escape")
        expect(areas).to_have_accessible_name("Bank, Verge Areas")
        self.settle()
