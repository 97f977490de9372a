"""What is kept from day to day: lots, readings, machines, members, the book; and an account with nothing in it yet."""

import re

from playwright.sync_api import expect

from e2e.base import PASSWORD, PHONE, WIDE, BrowserTest
from greenmeasure.accounts.models import Account, Membership, Role, Site, User
from greenmeasure.ground.models import Area
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import FUNGICIDE, make_account


class Keeping(BrowserTest):
    def test_a_lot_is_put_up_counted_and_taken_off_and_comes_back(self) -> None:
        self.let_in()
        self.go(f"shelf/{Product.objects.get(name='Test SC').pk}")
        self.button("A new lot").click()
        self.fill("Lot number", "SC-104")
        self.fill("Left", "4 lb")
        self.button("Put the lot on the shelf").click()
        expect(self.page.locator("[data-field=left] [role=alert]")).to_be_visible()
        self.fill("Left", "90")
        self.fill("Good until", "2020-05-01")
        self.button("Put the lot on the shelf").click()
        row = self.page.get_by_role("row", name=re.compile("SC-104"))
        expect(row).to_contain_text("90 fl oz")
        expect(row).to_contain_text("past")
        self.button("Count it: lot SC-104").click()
        self.fill("Left", "61")
        self.button("Keep the count").click()
        expect(self.page.get_by_role("heading", name="On the shelf: 61 fl oz")).to_be_visible()
        self.button("Off the shelf: lot SC-104").click()
        expect(row).to_have_count(0)
        self.button("Undo").click()
        expect(row).to_contain_text("61 fl oz")

    def test_a_soil_reading_taken_out_comes_back_as_it_was(self) -> None:
        self.let_in()
        self.go(f"ground/{Area.objects.get().pk}/soil")
        self.fill("Spot", "gate")
        self.page.get_by_role("textbox", name="pH", exact=True).fill("7.4")
        self.fill("Depth", "4")
        self.pick("Read by", "Laboratory")
        self.fill("Laboratory", "card 31")
        self.button("Keep the sample").click()
        row = self.page.get_by_role("row", name=re.compile("gate"))
        for said in ("7.4", "4 in", "card 31"):
            expect(row).to_contain_text(said)
        self.button("Take out the sample of gate").click()
        expect(row).to_have_count(0)
        self.button("Undo").click()
        for said in ("7.4", "4 in", "card 31"):
            expect(row).to_contain_text(said)

    def test_a_machine_is_changed_put_away_and_comes_back(self) -> None:
        self.let_in()
        self.go("kit")
        self.page.get_by_role("link", name="Sprayer").click()
        self.page.get_by_role("link", name="Change it").click()
        self.fill("Tank holds", "25")
        self.button("Save the changes").click()
        expect(self.page.get_by_role("row", name=re.compile("^Sprayer"))).to_contain_text("25 gal")
        self.page.get_by_role("link", name="Sprayer").click()
        expect(self.page.get_by_text("25,000 ft²")).to_be_visible()
        self.page.get_by_role("link", name="Change it").click()
        self.button("Put the machine away").click()
        expect(self.page.get_by_role("link", name="Sprayer")).to_have_count(0)
        self.button("Undo").click()
        expect(self.page.get_by_role("link", name="Sprayer")).to_be_visible()

    def test_a_member_is_let_in_and_may_do_what_the_role_says(self) -> None:
        self.let_in()
        self.go("account")
        self.fill("Name", "Odd Berg")
        self.fill("Sign-in name", "odd")
        self.fill("First password", "short")
        add = self.button("Add the member")
        add.click()
        expect(self.page.locator("form[aria-label=Member] [role=alert]").first).to_be_visible()
        self.fill("First password", "moss under the bench")
        add.click()
        expect(self.page.get_by_role("row", name=re.compile("Odd Berg"))).to_be_visible()
        self.assertTrue(User.objects.get(username="odd").check_password("moss under the bench"))
        self.button("Take out Odd Berg").click()
        expect(self.page.get_by_role("row", name=re.compile("Odd Berg"))).to_have_count(0)
        self.assertFalse(Membership.objects.filter(user__username="odd").exists())

    def test_the_book_is_searched_opened_and_exported(self) -> None:
        self.let_in()
        self.pick_spray()
        self.button("Start the round").click()
        self.fill("Product used", "4.4")
        self.fill("Note", "dew on the leaf")
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book**")
        self.go("book")
        search = self.page.get_by_role("searchbox", name="Search the book")
        search.fill("nobody")
        expect(self.page.get_by_role("link", name="Test SC")).to_have_count(0)
        search.fill("north")
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Export these as CSV").click()
        text = download.value.path().read_text(encoding="utf-8-sig")
        self.assertEqual(text.count("North green"), 1)
        self.assertIn("dew on the leaf", text)
        self.page.get_by_role("row", name=re.compile("Test SC")).get_by_role("link").first.click()
        expect(self.page.get_by_role("heading", name="Against the label")).to_be_visible()
        expect(self.page.get_by_text("dew on the leaf")).to_be_visible()


class Watching(BrowserTest):
    def test_a_viewer_reads_everything_and_is_offered_no_change(self) -> None:
        self.let_in("viewer")
        area, product = Area.objects.get().pk, Product.objects.get(name="Test SC").pk
        for place, words in (
            (f"ground/{area}", "7,000 ft²"),
            (f"ground/{area}/soil", "Soil pH"),
            (f"shelf/{product}", "Test SC"),
            ("account/house", "In what order is the tank filled?"),
            ("account", "Members"),
        ):
            self.go(place)
            expect(self.page.get_by_text(words).first).to_be_visible()
            expect(self.page.locator("button[type=submit]")).to_have_count(0)
            for name in ("Count it", "Take out", "Off the shelf", "Use this size", "A new lot", "Keep the house rules"):
                expect(self.page.get_by_role("button", name=re.compile(f"^{name}"))).to_have_count(0)

    def test_an_applicator_counts_lots_but_leaves_cards_alone(self) -> None:
        self.let_in("applicator")
        self.go(f"shelf/{Product.objects.get(name='Test SC').pk}")
        expect(self.button("A new lot")).to_be_visible()
        expect(self.button("Save the changes")).to_have_count(0)
        self.go("account/house")
        expect(self.button("Keep the house rules")).to_have_count(0)


class Paper(BrowserTest):
    def test_the_printed_sheet_carries_gear_loads_cautions_and_the_labels_word(self) -> None:
        self.let_in()
        account = Account.objects.get(slug="alder")
        card = FUNGICIDE | {"rules": {"most_per_season": "3 fl oz per 1,000 sq ft", "leaf": "dry"}}
        save_product(account, ProductIn(**card, version=1), Product.objects.get(name="Test SC"))
        self.pick_spray()
        self.pick("The leaf", "It is dry, I looked")
        self.button("Start the round").click()
        self.says("Put on")
        self.page.emulate_media(media="print")
        for words in ("Long-sleeved", "Fill with clean water", "The label first.", "Leaf dry", "At most 3 fl oz", "North green"):
            expect(self.page.get_by_text(words).first).to_be_visible()
        for part in ("Places", "Places outdoors"):
            expect(self.page.get_by_role("navigation", name=part, exact=True)).to_be_hidden()
        expect(self.button("Print the sheet")).to_be_hidden()
        wide = self.evaluate("() => document.documentElement.scrollWidth - innerWidth")
        self.assertLessEqual(wide, 0)


class Empty(BrowserTest):
    """An account that has nothing yet is told what each place is for, and led on."""

    PLACES = (
        ("today", "Nothing is set up yet", "Do it"),
        ("ground", "No ground yet", "Add an area"),
        ("shelf", "The shelf is empty", "Add a product"),
        ("kit", "No machines yet", "Add a machine"),
        ("reckon", "nothing to reckon with", "Add an area"),
        ("reckon/back", "nothing to reckon with", "Add an area"),
        ("reckon/compare", "nothing to reckon with", "Add an area"),
        ("round", "No round", None),
        ("book", "The book is empty", None),
        ("sky", "No weather comes in yet", "Set up a station"),
        ("sky/hours", "When can it go down", None),
        ("sky/clocks", "No growth regulator", None),
        ("sky/schools", "Spray by the calendar", None),
        ("sky/watch", "How is each area watched", None),
        ("sky/station", "Where does your weather come from", None),
        ("sky/files", "Bring in a file", None),
        ("sky/long", "All the hours", None),
        ("season", "needs a station: add one under Sky", None),
    )

    def test_every_place_leads_on_at_both_widths(self) -> None:
        account = Account.objects.create(name="New", slug="new", units="us")
        Site.objects.create(account=account, name="New", time_zone="America/New_York")
        user = User.objects.create_user("first", password=PASSWORD, full_name="First Here")
        Membership.objects.create(account=account, user=user, role=Role.MANAGER)
        self.client.force_login(user, "django.contrib.auth.backends.ModelBackend")
        cookie = self.client.cookies["sessionid"].value
        self.context.add_cookies([{"name": "sessionid", "value": cookie, "url": self.live_server_url}])
        for place, words, act in self.PLACES:
            self.go(place, "new")
            for size in (WIDE, PHONE):
                with self.subTest(place, width=size["width"]):
                    self.page.set_viewport_size(size)
                    self.says(re.compile(words, re.IGNORECASE))
                    if act:
                        expect(self.page.get_by_role("link", name=act).first).to_be_visible()
                    self.page.wait_for_function("() => document.documentElement.scrollWidth <= innerWidth")
            self.page.set_viewport_size(WIDE)

    def test_measuring_works_with_nothing_on_the_shelf(self) -> None:
        make_account("alder")
        Product.objects.all().delete()
        Area.objects.all().delete()
        self.let_in()
        self.go("reckon/measure")
        self.fill("Dose", "0.02")
        expect(self.page.get_by_text("Or dilute it")).to_be_visible()
        expect(self.page.locator("[data-answer=measure]")).to_contain_text("mL")
