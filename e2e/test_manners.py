"""What one expects of good software: drafts, lost connections, faults beside their fields, undo, roles, keys."""

import re

from playwright.sync_api import expect

from e2e.base import BrowserTest
from greenmeasure.ground.models import Area
from greenmeasure.rounds.models import Round, Tick


class Typing(BrowserTest):
    def test_a_half_typed_form_survives_a_reload(self) -> None:
        self.let_in()
        self.go("shelf/new")
        self.fill("Name", "Half a prod")
        self.fill("Rate, as printed", "2 to 4 fl oz per ac")
        self.pick("Formulation", "suspension")
        self.page.reload()
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_have_value("Half a prod")
        expect(self.page.get_by_role("textbox", name="Rate, as printed")).to_have_value("2 to 4 fl oz per ac")
        expect(self.page.get_by_text("SC · suspension concentrate").first).to_be_visible()
        expect(self.page.get_by_text("Brought back")).to_be_visible()
        self.page.get_by_role("link", name="Leave it").click()
        self.go("shelf/new")
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_have_value("")

    def test_faults_stand_beside_their_fields_and_the_first_gets_the_focus(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.fill("Size", "-40")
        self.button("Add the area").click()
        for field, words in {"name": "The name is empty", "size": "-40 is below zero", "grass": "No grass is chosen"}.items():
            expect(self.page.locator(f"[data-field='{field}'] [role=alert]")).to_contain_text(words)
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_be_focused()
        expect(self.page.get_by_text("3 fields need mending.")).to_be_visible()

    def test_an_ambiguous_unit_asks_in_its_own_field(self) -> None:
        self.let_in()
        self.go("shelf/new")
        self.fill("Rate, as printed", "3 oz/M")
        expect(self.page.get_by_text("“oz” can mean fluid ounces or ounces by weight. Say which.")).to_be_visible()
        self.button("3 oz wt/M").click()
        expect(self.page.get_by_text("Understood: 3 oz wt per 1000 ft²")).to_be_visible()

    def test_the_answer_follows_the_typing(self) -> None:
        self.let_in()
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        for typed, amount in (("0.5", "3.5"), ("1/2", "3.5"), ("0.71", "4.97")):
            self.fill("Rate to put down", typed)
            expect(self.page.locator("[data-answer=amount] p")).to_have_text(f"{amount} fl oz")
        self.fill("Rate to put down", "much")
        expect(self.page.locator("[data-field='parts.0.doses.0.rate'] [role=alert]")).to_contain_text("“much”")


class Connection(BrowserTest):
    allowed = re.compile(r"Failed to load resource|ERR_INTERNET_DISCONNECTED")

    def test_a_lost_connection_says_so_and_loses_nothing(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.fill("Name", "Far corner")
        self.fill("Size", "900")
        self.pick("Grass", "Zoysiagrass")
        self.context.set_offline(True)
        self.button("Add the area").click()
        expect(self.page.get_by_text("No connection. What you type is kept on this device")).to_be_visible()
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_have_value("Far corner")
        self.assertFalse(Area.objects.filter(name="Far corner").exists())
        self.context.set_offline(False)
        expect(self.page.get_by_text("No connection. What you type is kept")).to_be_hidden()
        self.button("Add the area").click()
        self.says("2 areas")

    def test_ticks_made_without_signal_arrive_when_it_is_back(self) -> None:
        self.let_in()
        self.pick_spray()
        self.button("Start the round").click()
        self.says("Put on")
        self.context.set_offline(True)
        for words in ("Long-sleeved", "Socks"):
            self.page.locator("label", has_text=words).first.click()
        expect(self.page.get_by_role("checkbox", name=re.compile("Long-sleeved")).first).to_be_checked()
        self.assertEqual(Tick.objects.count(), 0)
        self.context.set_offline(False)
        expect(self.page.get_by_text("No connection. What you type is kept")).to_be_hidden()
        for _ in range(100):
            if Tick.objects.count() == 2:
                break
            self.page.wait_for_timeout(100)
        self.page.reload()
        for words in ("Long-sleeved", "Socks"):
            expect(self.page.get_by_role("checkbox", name=re.compile(words)).first).to_be_checked()

    def test_signed_out_meanwhile_one_signs_in_and_goes_on(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.fill("Name", "Kept name")
        self.context.clear_cookies()
        self.button("Add the area").click()
        self.page.get_by_label("Sign-in name").fill("manager-alder")
        self.page.get_by_label("Password").fill("long enough to pass")
        self.button("Sign in").click()
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_have_value("Kept name")


class Undo(BrowserTest):
    def test_an_area_put_away_comes_back(self) -> None:
        self.let_in()
        self.go("ground")
        self.page.get_by_role("link", name="North green").click()
        self.page.get_by_role("link", name="Change it").click()
        self.button("Put the area away").click()
        self.says("No ground yet.")
        self.button("Undo").click()
        self.says("One area")

    def test_a_round_given_up_is_taken_up_again(self) -> None:
        self.let_in()
        self.go("reckon")
        self.pick("Product", "Test 20-0-10")
        self.pick_many("Areas", "North green")
        self.pick("Machine", "Spreader")
        self.button("Start the round").click()
        self.button("Give the round up").click()
        self.says("given up")
        self.button("Take it up again").click()
        self.says("Put on")
        self.assertEqual(Round.objects.get().status, "under_way")


class RolesAndDoors(BrowserTest):
    def test_a_viewer_is_offered_nothing_to_change(self) -> None:
        self.let_in("viewer")
        for place in ("ground", "shelf", "kit", "reckon", "round", "account"):
            self.go(place)
            expect(self.sentence()).to_be_visible()
            expect(self.page.get_by_role("link", name=re.compile("^Add "))).to_have_count(0)
            expect(self.page.get_by_role("button", name=re.compile("^(Add|Start|Put) "))).to_have_count(0)

    def test_another_accounts_address_leads_nowhere(self) -> None:
        self.let_in("manager", "birch")
        self.go("today", "alder")
        expect(self.page.get_by_text("There is nothing at this address.")).to_be_visible()

    def test_a_wrong_password_is_told_beside_the_field(self) -> None:
        self.let_in()
        self.context.clear_cookies()
        self.page.goto(self.live_server_url)
        self.page.get_by_label("Sign-in name").fill("manager-alder")
        self.page.get_by_label("Password").fill("wrong")
        self.button("Sign in").click()
        expect(self.page.locator("[data-field=password] [role=alert]")).to_contain_text("do not go together")


class Keys(BrowserTest):
    def test_the_heading_takes_the_focus_where_one_comes_by_a_link(self) -> None:
        self.let_in()
        self.go("kit")
        self.says("2 machines")
        self.page.get_by_role("link", name="Sprayer", exact=True).click()
        head = self.page.get_by_role("heading", level=1)
        expect(self.page).to_have_url(re.compile(r"/kit/\d+$"))
        expect(head).to_be_focused()
        self.page.get_by_role("link", name="Shelf", exact=True).first.click()
        self.says("2 products")
        expect(self.page.get_by_role("heading", level=1)).to_be_focused()

    def test_the_reckon_line_opens_by_a_key_asks_back_and_opens_the_job(self) -> None:
        self.let_in()
        self.go("kit")
        self.says("2 machines")
        self.page.keyboard.press("=")
        line = self.page.get_by_role("textbox", name="Reckon line")
        expect(line).to_be_focused()
        line.fill("0.6 fl oz/m Test SC, sprayer, north")
        self.button("0.6 fl oz/1000 ft² Test SC, sprayer, north").click()
        expect(self.page.get_by_text("Pour 4.2 fl oz of Test SC for North green: 2 tanks, 7 gal in all.")).to_be_visible()
        expect(self.page.get_by_text("Rate × area: product")).to_be_visible()
        line.focus()
        self.page.keyboard.press("Enter")
        self.says("Pour 4.2 fl oz of Test SC for North green: 2 tanks, 7 gal in all.")
        expect(self.page.get_by_role("dialog")).to_have_count(0)
        self.assertIn("/reckon", self.page.url)

    def test_the_line_shows_what_can_be_asked_and_keeps_it_in_the_address(self) -> None:
        self.let_in()
        self.go("kit")
        self.says("2 machines")
        self.page.keyboard.press("=")
        self.page.get_by_role("button", name=re.compile("what went on North green last")).click()
        expect(self.page.get_by_text("Nothing on North green is in the book.")).to_be_visible()
        expect(self.page).to_have_url(re.compile(r"line=what\+went"))
        self.page.reload()
        line = self.page.get_by_role("textbox", name="Reckon line")
        expect(line).to_have_value("what went on North green last")
        expect(self.page.get_by_text("Nothing on North green is in the book.")).to_be_visible()
        self.button("Close").click()
        expect(self.page.get_by_role("dialog")).to_have_count(0)
        self.assertNotIn("line=", self.page.url)
        self.page.keyboard.press("=")
        expect(self.page.get_by_text("Asked lately")).to_be_visible()
        line.press("ArrowUp")
        expect(line).to_have_value("what went on North green last")

    def test_the_sheet_of_keys_and_single_keys_off(self) -> None:
        self.let_in()
        self.go("today")
        self.says("Everything is in place")
        self.page.keyboard.press("?")
        sheet = self.page.get_by_role("dialog", name="Help")
        expect(sheet).to_contain_text("Open the reckon line")
        self.button("Switch single keys off").click()
        self.button("Close").click()
        expect(sheet).to_have_count(0)
        self.page.keyboard.press("=")
        expect(self.page.get_by_role("dialog")).to_have_count(0)

    def test_keys_do_nothing_while_typing(self) -> None:
        self.let_in()
        self.go("ground/new")
        self.page.get_by_role("textbox", name="Name", exact=True).press_sequentially("7 = n?")
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_have_value("7 = n?")
        self.assertTrue(self.page.url.endswith("ground/new"))
