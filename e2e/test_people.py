"""A person's own doors in the browser: password, sessions, a link; the account taken along, brought in and closed."""

from playwright.sync_api import expect

from e2e.base import PASSWORD, BrowserTest
from greenmeasure.accounts.models import Account, User
from greenmeasure.tests.base import make_account

NEW = "three unrelated words"


class Oneself(BrowserTest):
    def test_the_password_is_changed_and_other_sessions_end(self) -> None:
        make_account("alder")
        self.client.login(username="manager-alder", password=PASSWORD)
        self.sign_in()
        self.go("account/you")
        self.says("You are Manager alder")
        rows = self.page.get_by_role("region", name="Where you are signed in").or_(self.page.locator("section")).last
        expect(rows.get_by_role("button", name="End it")).to_have_count(1)
        self.fill("Password now", "not this one")
        self.fill("New password", NEW)
        self.button("Change the password").click()
        expect(self.page.get_by_text("That is not your password.")).to_be_visible()
        self.fill("Password now", PASSWORD)
        self.button("Change the password").click()
        expect(self.page.get_by_text("The new password counts.")).to_be_visible()
        expect(self.page.get_by_text("this one")).to_be_visible()
        expect(self.page.get_by_role("button", name="End it")).to_have_count(0)
        self.assertEqual(self.client.get("/api/session").json()["username"], "")
        self.assertTrue(User.objects.get(username="manager-alder").check_password(NEW))

    def test_a_manager_hands_a_link_over_and_it_is_used(self) -> None:
        self.sign_in()
        self.go("account")
        self.button("New password for Viewer alder").click()
        link = self.page.locator("output").inner_text()
        self.context.clear_cookies()
        self.page.goto(link)
        self.fill("New password", "short")
        self.button("Set it and come in").click()
        expect(self.page.get_by_text("too short").first).to_be_visible()
        self.fill("New password", NEW)
        self.button("Set it and come in").click()
        self.page.wait_for_url("**/a/alder/today")
        self.page.goto(link)
        self.fill("New password", NEW)
        self.button("Set it and come in").click()
        expect(self.page.get_by_text("was used before").first).to_be_visible()

    def test_a_forgotten_password_says_whom_to_ask(self) -> None:
        self.page.goto(self.live_server_url)
        self.button("Forgotten your password?").click()
        self.fill("Sign-in name", "nobody")
        self.button("Ask for a link").click()
        expect(self.page.get_by_text("Ask a manager of your account")).to_be_visible()

    def test_an_account_is_taken_along_brought_in_and_closed(self) -> None:
        self.sign_in()
        self.go("account/whole")
        with self.page.expect_download() as taken:
            self.page.get_by_role("link", name="Take the archive of Account alder").click()
        path = taken.value.path()
        self.take_file("Archive to bring in", {"name": "alder.zip", "mimeType": "application/zip", "buffer": b"no archive"})
        self.button("Bring it in").click()
        expect(self.page.get_by_text("It is no archive of Green Measure")).to_be_visible()
        self.take_file("Archive to bring in", {"name": "alder.zip", "mimeType": "application/zip", "buffer": path.read_bytes()})
        self.button("Bring it in").click()
        self.page.wait_for_url("**/a/account-alder/today")
        self.go("ground", "account-alder")
        expect(self.page.get_by_role("link", name="North green")).to_be_visible()
        self.go("account/whole")
        self.fill("Name of the account", "Account alder")
        self.fill("Your password", PASSWORD)
        self.button("Close it for good").click()
        self.page.wait_for_url("**/a/account-alder/today")
        self.assertEqual(list(Account.objects.values_list("slug", flat=True)), ["account-alder"])
