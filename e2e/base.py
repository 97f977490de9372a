"""A page for a process, swept between tests, and the words a person would use for what they do."""

import atexit
import os
import re
import warnings
from functools import cache
from pathlib import Path
from typing import Any
from unittest import SkipTest

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")  # Playwright's loop runs beside Django's ORM

from django.conf import settings
from django.test import LiveServerTestCase
from playwright.sync_api import Browser, Locator, Page, TimeoutError, expect, sync_playwright

from e2e.chromium import CHROMIUM, FLAGS
from e2e.pressing import press_at_once
from greenmeasure.accounts.models import Membership, User
from greenmeasure.tests.base import make_account

WIDE, PHONE = {"width": 1280, "height": 800}, {"width": 390, "height": 844}
PASSWORD = "long enough to pass"

AXE = Path(settings.ROOT) / "web" / "node_modules" / "axe-core" / "axe.min.js"

PATIENCE = 30_000
"""How long anything may take [ms]: a machine that is busy with other things fails no test."""

IDLE = "() => new Promise(done => requestIdleCallback(() => requestAnimationFrame(() => done()), {timeout: 2000}))"
"""Waits until the page has nothing to do, and has drawn."""

expect.set_options(timeout=PATIENCE)
press_at_once()


@cache
def chromium() -> Browser:
    """The browser that all tests of this process share."""
    tools = sync_playwright().start()
    atexit.register(tools.stop)
    return tools.chromium.launch(executable_path=CHROMIUM, args=FLAGS)


@cache
def shared_page() -> Page:
    """The page that all tests of this process share: a fresh one costs more than most tests do in it."""
    context = chromium().new_context(
        viewport=WIDE, locale="en-US", timezone_id="America/New_York", accept_downloads=True, reduced_motion="reduce"
    )
    context.set_default_timeout(PATIENCE)
    return context.new_page()


def sweep(page: Page, origin: str) -> None:
    """Leave nothing of a test in the page: no request under way, no session, nothing stored, no width, no route."""
    context = page.context
    page.unroute_all(behavior="ignoreErrors")
    context.set_offline(False)
    page.goto("about:blank")
    context.clear_cookies()
    tools = context.new_cdp_session(page)
    tools.send("Storage.clearDataForOrigin", {"origin": origin, "storageTypes": "all"})
    tools.detach()
    page.emulate_media(media="screen")
    page.set_viewport_size(WIDE)
    for other in context.pages:
        if other is not page:
            other.close()


class BrowserTest(LiveServerTestCase):
    """A live server with Chromium; a console error of the page fails the test."""

    page: Page
    allowed = re.compile(r"Failed to load resource")  # a refused request is told by the page, and by the browser

    @classmethod
    def setUpClass(cls) -> None:
        if not (Path(settings.WEB_BUILD) / "index.html").exists():
            raise SkipTest("the interface is not built: run `make build`")
        super().setUpClass()

    def setUp(self) -> None:
        self.page = shared_page()
        self.context = self.page.context
        self.complaints: list[str] = []
        self.asked: set[Any] = set()
        self.page.on("pageerror", self.wrong)
        self.page.on("console", self.said)
        self.page.on("request", self.asks)
        self.page.on("requestfinished", self.answered)
        self.page.on("requestfailed", self.answered)
        for event, heard in (("pageerror", self.wrong), ("console", self.said), ("request", self.asks)):
            self.addCleanup(self.page.remove_listener, event, heard)
        for event in ("requestfinished", "requestfailed"):
            self.addCleanup(self.page.remove_listener, event, self.answered)
        self.addCleanup(sweep, self.page, self.live_server_url)

    def asks(self, request: Any) -> None:
        self.asked.add(request)

    def answered(self, request: Any) -> None:
        self.asked.discard(request)

    def wrong(self, error: Any) -> None:
        self.complaints.append(str(error))

    def said(self, message: Any) -> None:
        if message.type == "error":
            self.complaints.append(message.text)

    def tearDown(self) -> None:
        bad = [c for c in self.complaints if not self.allowed.search(c)]
        self.assertEqual(bad, [], "the page complained on its console")

    # --- getting in

    def sign_in(self, role: str = "manager", slug: str = "alder", account: bool = True) -> None:
        """Sign in through the door, as a member of an account that has one of each thing."""
        if account and not Membership.objects.filter(account__slug=slug).exists():
            make_account(slug)
        self.page.goto(self.live_server_url)
        self.page.get_by_label("Sign-in name").fill(f"{role}-{slug}")
        self.page.get_by_label("Password").fill(PASSWORD)
        self.page.get_by_role("button", name="Sign in").click()
        self.page.wait_for_url("**/today")

    def let_in(self, role: str = "manager", slug: str = "alder") -> None:
        """Come in with a session made beforehand, for tests that are not about the door."""
        if not Membership.objects.filter(account__slug=slug).exists():
            make_account(slug)
        self.client.force_login(User.objects.get(username=f"{role}-{slug}"), "django.contrib.auth.backends.ModelBackend")
        cookie = self.client.cookies["sessionid"]
        self.context.add_cookies([{"name": "sessionid", "value": cookie.value, "url": self.live_server_url}])

    def go(self, place: str, slug: str = "alder") -> None:
        """Open a view, and wait until what it asks for is there: what comes late moves what is pressed."""
        self.page.goto(f"{self.live_server_url}/a/{slug}/{place}")
        self.still(quiet=100, at_most=2_000)

    # --- doing things

    def button(self, name: str) -> Locator:
        return self.page.get_by_role("button", name=name, exact=True)

    def fill(self, label: str, text: str) -> None:
        self.page.get_by_role("textbox", name=label, exact=True).fill(text)

    def take_file(self, label: str, file: Any) -> None:
        """Give a file to the box with this label."""
        self.page.get_by_role("group", name=label).locator("input[type=file]").set_input_files(file)

    def pick(self, label: str, option: str) -> None:
        """Pick from a list by its label; one that a busy machine left open is pressed once more, and that is told."""
        self.page.get_by_role("button", name=re.compile(rf"(^|\s){re.escape(label)}$")).first.click()
        choice, lists = self.page.get_by_role("option", name=option).first, self.page.get_by_role("listbox")
        choice.click()
        try:
            lists.wait_for(state="hidden", timeout=5_000)
        except TimeoutError as late:
            warnings.warn(f"{self.id()}: the list {label!r} was still open after {option!r} was pressed: {late}", stacklevel=2)
            choice.click()
        expect(lists).to_have_count(0)

    def pick_many(self, label: str, *options: str) -> None:
        """Tick several in a list by its label, and close it."""
        self.page.get_by_role("button", name=re.compile(rf"(^|\s){re.escape(label)}$")).first.click()
        for option in options:
            self.page.get_by_role("option", name=option).first.click()
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("listbox")).to_have_count(0)

    def list_is_shut(self) -> None:
        """Wait until a list is shut and has given the focus back: a tab before that begins at the top of the page."""
        expect(self.page.get_by_role("listbox")).to_have_count(0)
        self.page.wait_for_function("() => document.activeElement !== document.body")

    def pick_spray(self) -> None:
        """Open Reckon with the account's spray, its green and its sprayer picked."""
        self.go("reckon")
        self.pick("Product", "Test SC")
        self.pick_many("Areas", "North green")
        self.pick("Machine", "Sprayer")

    def sentence(self) -> Locator:
        return self.page.locator("h1")

    def says(self, words: str | re.Pattern[str]) -> None:
        """The view's sentence holds these words."""
        expect(self.sentence()).to_contain_text(words)

    def settle(self) -> None:
        """Wait until what was typed has been answered: nothing waits to be asked, is under way, or is still to be drawn."""
        if not self.still(quiet=250, at_most=PATIENCE):
            self.fail(f"The page still asks: {[r.url for r in self.asked]}")

    def still(self, quiet: int, at_most: int) -> bool:
        """Whether within `at_most` [ms] no request was under way, and none came, for `quiet` [ms], and the page had time."""
        still = 0
        for _ in range(at_most // 50):
            self.page.wait_for_timeout(50)
            still = 0 if self.asked else still + 50
            if still >= quiet:
                self.page.evaluate(IDLE)  # what draws an answer may ask for more
                if not self.asked:
                    return True
                still = 0
        return False

    def tick_all(self, section: str) -> None:
        """Tick every box of a section, each once the one before is kept."""
        for box in (
            self.page.get_by_role("region", name=section)
            .or_(self.page.locator(f"section:has(> h2:has-text('{section}'))"))
            .first.locator("label:has(input[type=checkbox])")
            .all()
        ):
            box.click()

    def serious(self, kind: str = "") -> list[str]:
        """What axe finds that is serious: by all of its rules, or by those of a kind alone."""
        if not self.evaluate("() => !!window.axe"):
            self.evaluate(AXE.read_text(encoding="utf-8"))
        more = f", runOnly: {{type: 'tag', values: ['{kind}']}}" if kind else ""
        found = self.evaluate(f"() => axe.run(document, {{resultTypes: ['violations'], preload: false{more}}})")
        return [
            f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in found["violations"] if v["impact"] in ("serious", "critical")
        ]

    def evaluate(self, script: str, *args: Any) -> Any:
        return self.page.evaluate(script, *args)
