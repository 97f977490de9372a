"""Two editors, a lost answer, two sites: as people meet them in the browser."""

import re
from typing import Any

from playwright.sync_api import Route, expect

from e2e.base import PHONE, BrowserTest
from greenmeasure.accounts.models import Account, Site
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.rounds.models import Round
from greenmeasure.tests.base import AREA


class TwoEditors(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.let_in()
        self.area = Area.objects.get()
        self.go(f"ground/{self.area.pk}/change")
        expect(self.page.get_by_role("textbox", name="Note", exact=True)).to_be_visible()
        theirs = AREA | {"note": "Mind the head by the gate", "cultivar": "a blend", "version": self.area.version}
        save_area(Account.objects.get(slug="alder"), AreaIn(**theirs), self.area)
        self.fill("Note", "Closed on Mondays")
        self.fill("Irrigation zone", "B")

    def pick_side(self, field: str, whose: str) -> None:
        self.page.get_by_role("radio", name=re.compile(f"^{field}: {whose}")).check()

    def test_what_differs_is_shown_and_either_is_taken(self) -> None:
        self.button("Save the changes").click()
        sheet = self.page.get_by_role("dialog", name="Changed by somebody else")
        expect(sheet).to_contain_text("Mind the head by the gate")
        expect(sheet).to_contain_text("Closed on Mondays")
        expect(self.button("Save what is picked")).to_be_disabled()
        self.pick_side("Note", "as it stands")
        self.pick_side("Zone", "yours")
        self.pick_side("Cultivar", "as it stands")
        self.button("Save what is picked").click()
        self.page.wait_for_url("**/ground")
        self.area.refresh_from_db()
        self.assertEqual((self.area.note, self.area.zone, self.area.cultivar), ("Mind the head by the gate", "B", "a blend"))

    def test_going_back_keeps_what_was_typed_and_saves_nothing(self) -> None:
        self.button("Save the changes").click()
        self.button("Go back to the form").click()
        expect(self.page.get_by_role("textbox", name="Note", exact=True)).to_have_value("Closed on Mondays")
        expect(self.page.get_by_role("alert")).to_contain_text("while you had it open")
        self.area.refresh_from_db()
        self.assertEqual(self.area.note, "Mind the head by the gate")

    def test_on_a_phone_and_by_keyboard(self) -> None:
        self.page.set_viewport_size(PHONE)
        self.button("Save the changes").click()
        sheet = self.page.get_by_role("dialog", name="Changed by somebody else")
        expect(sheet).to_be_visible()
        wide = self.evaluate("() => document.documentElement.scrollWidth - innerWidth")
        self.assertLessEqual(wide, 0)
        self.button("As it stands").press("Enter")
        self.button("Save what is picked").press("Enter")
        self.page.wait_for_url("**/ground")
        self.area.refresh_from_db()
        self.assertEqual((self.area.note, self.area.zone), ("Mind the head by the gate", ""))


class LostAnswer(BrowserTest):
    """The request reaches the server, its answer is lost on the way."""

    def lose(self, pattern: str) -> None:
        lost: list[str] = []

        def once(route: Route) -> None:
            if route.request.method != "POST" or lost:
                return route.fallback()
            lost.append(route.request.url)
            route.fetch()
            return route.abort("connectionreset")

        self.page.route(pattern, once)

    allowed = re.compile(r"Failed to load resource")

    def test_a_start_pressed_again_is_the_same_round(self) -> None:
        self.let_in()
        self.pick_spray()
        self.lose("**/api/accounts/alder/rounds")
        self.button("Start the round").click()
        expect(self.page.get_by_role("alert").first).to_contain_text("No connection")
        expect(self.page.get_by_text("so it may be saved or not")).to_be_visible()
        self.assertEqual(Round.objects.count(), 1)
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        self.assertEqual(Round.objects.count(), 1)

    def test_and_after_a_reload_too(self) -> None:
        self.let_in()
        self.pick_spray()
        self.lose("**/api/accounts/alder/rounds")
        self.button("Start the round").click()
        expect(self.page.get_by_role("alert").first).to_contain_text("No connection")
        self.page.reload()
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        self.assertEqual(Round.objects.count(), 1)

    def test_the_next_plan_is_another_round(self) -> None:
        self.let_in()
        for count in (1, 2):
            self.pick_spray()
            self.button("Start the round").click()
            self.page.wait_for_url("**/round/*")
            self.assertEqual(Round.objects.count(), count)

    def test_an_area_is_not_already_there(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.fill("Name", "Upper lawn")
        self.fill("Size", "900")
        self.pick("Grass", "Tall fescue")
        self.lose("**/api/accounts/alder/areas")
        self.button("Add the area").click()
        expect(self.page.get_by_role("alert").first).to_contain_text("No connection")
        self.button("Add the area").click()
        self.page.wait_for_url("**/ground")
        self.assertEqual(Area.objects.filter(name="Upper lawn").count(), 1)


class TwoSites(BrowserTest):
    def second(self) -> Site:
        site = Site.objects.create(account=Account.objects.get(slug="alder"), name="Fjord yard", time_zone="Europe/Oslo")
        save_area(site.account, AreaIn(**AREA | {"name": "Fjord lawn", "site_id": site.pk}))
        return site

    def test_one_site_is_no_level(self) -> None:
        self.let_in()
        self.go("ground")
        self.says("One area")
        expect(self.page.get_by_text("Site alder")).to_have_count(0)
        for place in ("ground/new", "sky", "sky/station", "account"):
            self.go(place)
            expect(self.page.locator("h1")).to_be_visible()
            expect(self.page.locator("[data-field=site_id], [name=site_id]")).to_have_count(0)

    def test_a_site_is_added_and_an_area_put_on_it(self) -> None:
        self.let_in()
        self.go("account/sites")
        self.says("All the ground is in one place, on New York time.")
        self.button("Add another site").click()
        self.fill("Name", "Fjord yard")
        self.fill("Getting in", "The slip gate")
        self.pick("Time zone", "Europe/Oslo")
        self.button("Add the site").click()
        self.says("2 sites")
        self.go("ground/new")
        self.fill("Name", "North green")
        self.fill("Size", "900")
        self.pick("Grass", "Tall fescue")
        self.pick("Site", "Fjord yard")
        self.button("Add the area").click()
        self.page.wait_for_url("**/ground")
        for name in ("Site alder", "Fjord yard"):
            expect(self.page.get_by_role("rowheader", name=name)).to_be_visible()

    def test_each_site_has_its_sky(self) -> None:
        self.let_in()
        site = self.second()
        self.go("sky/station")
        self.pick("Site", "Fjord yard")
        self.fill("Name", "Fjord mast")
        self.button("Set it up").click()
        self.says("Fjord mast")
        self.assertIn(f"site={site.pk}", self.page.url)
        self.pick("Site", "Site alder")
        self.says("Where does your weather come from?")

    def test_a_member_limited_to_a_site_sees_that_alone(self) -> None:
        self.let_in()
        self.second()
        self.go("account")
        self.pick_many("Sites of Applicator alder", "Fjord yard")
        expect(self.page.get_by_role("button", name="Fjord yard Sites of Applicator alder")).to_be_visible()
        self.context.clear_cookies()
        self.let_in("applicator")
        self.go("ground")
        self.says("One area")
        expect(self.page.get_by_role("link", name="Fjord lawn")).to_be_visible()
        expect(self.page.get_by_role("link", name="North green")).to_have_count(0)

    def test_addresses_of_before_lead_on(self) -> None:
        self.let_in()
        self.page.goto(f"{self.live_server_url}/c/alder/ground?x=1")
        self.says("One area")
        self.assertTrue(self.page.url.endswith("/a/alder/ground?x=1"))


class BrokenRule(BrowserTest):
    def test_a_rule_that_cannot_be_read_is_told_on_the_card_and_stops_the_plan(self) -> None:
        self.let_in()
        product: Any = Account.objects.get(slug="alder").products.get(name="Test SC")
        product.rules = {"most_per_season": "4 blobs per paddock"}
        product.save()
        self.go(f"shelf/{product.pk}")
        expect(self.page.get_by_text("cannot be read. Open the card").first).to_be_visible()
        self.pick_spray()
        expect(self.page.locator("[data-finding=rule-unreadable]")).to_contain_text("Most product a season")
        expect(self.button("Start the round")).to_be_disabled()
