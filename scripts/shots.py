"""Take the pictures in docs/screenshots of every main view, from the demo account: `make shots`.

Serves the built interface on a free port with a database of its own, so that nothing else is touched.
"""

import os
import re
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, ViewportSize, sync_playwright

from e2e.chromium import CHROMIUM, FLAGS

ROOT = Path(__file__).resolve().parent.parent
OUT = ROOT / "docs" / "screenshots"
PORT = int(os.environ.get("SHOTS_PORT", "8177"))
SIMS = PORT + 1
CLOCK = "2026-08-05T10:15:00Z"
"""A humid morning in the demo's second summer: a quarter past six at the ground."""
BASE = f"http://localhost:{PORT}"
WIDE: ViewportSize = {"width": 1280, "height": 800}
LABEL = """Fairhollow Lawn Food 24-0-6
Total Nitrogen (N) 24.0%
9.6% Slowly available nitrogen
Soluble Potash (K2O) 6.0%
Net weight 50 lb (22.7 kg). This bag covers 12,500 sq. ft.
Apply with a broadcast spreader. Water in with 0.25 inch of irrigation within 24 hours.
"""
PANS = "0.13 0.29 0.46 0.63 0.78 0.88 0.95 1.09 1.26 1.31 1.07 0.61 0.23"


def pick(page: Page, label: str, option: str) -> None:
    page.get_by_role("button", name=re.compile(rf"(^|\s){re.escape(label)}$")).first.click()
    page.get_by_role("option", name=option).first.click()


def sign_in(page: Page) -> None:
    page.goto(BASE)
    page.get_by_label("Sign-in name").fill("ines")
    page.get_by_label("Password").fill("tide-and-turf-41")
    page.get_by_role("button", name="Sign in").click()
    page.wait_for_url("**/today")


def go(page: Page, place: str, wait: str) -> None:
    page.goto(f"{BASE}/a/alder-quay/{place}")
    page.wait_for_selector(wait)
    page.wait_for_timeout(250)


def pick_many(page: Page, label: str, *options: str) -> None:
    page.get_by_role("button", name=re.compile(rf"(^|\s){re.escape(label)}$")).first.click()
    for option in options:
        page.get_by_role("option", name=option, exact=False).first.click()
    page.keyboard.press("Escape")


def reckon(page: Page, product: str, areas: tuple[str, ...], machine: str, rate: str | None = None) -> None:
    page.evaluate("() => localStorage.removeItem('draft:alder-quay/mix')")
    go(page, "reckon", "text=Product")
    pick(page, "Product", product)
    pick_many(page, "Areas", *areas)
    pick(page, "Machine", machine)
    page.wait_for_selector("[data-answer=amount]")
    if rate:
        page.get_by_role("textbox", name="Rate to put down").first.fill(rate)
    page.wait_for_timeout(700)


def take(page: Page, only: set[str]) -> None:
    def shot(name: str) -> None:
        page.wait_for_timeout(300)
        if not only or name in only:
            page.screenshot(path=OUT / f"{name}.png")
            print(f"  {name}.png", flush=True)

    page.set_viewport_size(WIDE)
    sign_in(page)
    page.wait_for_selector("[data-due]")
    page.wait_for_selector("text=Next outing")
    shot("today")
    go(page, "round/outing/new", "text=What goes with it")
    shot("outing")
    take_sky(page, shot)
    take_ground(page, shot)
    take_shelf_and_kit(page, shot)
    take_reckon(page, shot)
    take_passes(page, shot)
    take_round(page, shot)
    go(page, "book/trials", "text=How much iron is enough?")
    page.get_by_role("link", name="How much iron is enough?").click()
    page.wait_for_selector("text=Day by day")
    scroll_to(page, "Day by day")
    shot("trial")
    go(page, "book", "text=applications in the book")
    shot("book")
    take_start(page, shot)


def take_start(page: Page, shot: Callable[[str], None]) -> None:
    """The first hour of an account that has a lawn and pastes its first label."""
    page.context.clear_cookies()
    page.goto(f"{BASE}/?start")
    page.get_by_label("Your name").fill("Rosa Quill")
    page.get_by_label("Password").fill("quiet otter lamp")
    page.get_by_role("button", name="Start", exact=True).click()
    page.get_by_label("Size", exact=True).fill("5,000")
    page.get_by_role("button", name="Next: a product").click()
    page.get_by_label("Text of the label").fill(LABEL)
    page.wait_for_selector("text=24 % N")
    shot("start")


def scroll_to(page: Page, heading: str) -> None:
    page.get_by_role("heading", name=heading).evaluate("e => scrollTo(0, e.getBoundingClientRect().top + scrollY - 20)")


def take_sky(page: Page, shot: Callable[[str], None]) -> None:
    go(page, "sky", "[data-strip]")
    scroll_to(page, "Day by day")
    shot("sky")
    go(page, "sky/hours", "text=The job takes")
    pick_many(page, "What goes down, one or a tank of several", "Heronsedge SC", "Coot spreader-sticker")
    page.wait_for_selector("[data-verdict]")
    shot("hours")
    go(page, "season", "[data-due]")
    page.get_by_role("link", name="Dollar spot on Croquet 1", exact=True).click()
    page.wait_for_selector("[data-choice]")
    shot("due")
    go(page, "season/programme?year=2026", "[data-turn]")
    page.locator("[data-turn]").nth(8).click()
    scroll_to(page, "The year")
    shot("programme")
    go(page, "season/plan", "text=Make the plan")
    page.get_by_role("button", name="Make the plan").click()
    page.wait_for_selector("text=In ten made-up years")
    scroll_to(page, "The plan")
    shot("plan")


def take_ground(page: Page, shot: Callable[[str], None]) -> None:
    go(page, "ground", "text=Memorial lawn")
    page.get_by_role("link", name="Bowling green").first.click()
    page.wait_for_selector("text=Its story")
    shot("ground")


def take_shelf_and_kit(page: Page, shot: Callable[[str], None]) -> None:
    go(page, "shelf", "text=Heronsedge SC")
    page.get_by_role("link", name="Heronsedge SC").click()
    page.wait_for_selector("text=Understood")
    shot("product-card")
    go(page, "kit", "text=Knapsack")
    page.get_by_role("link", name="Knapsack").click()
    page.wait_for_selector("text=season by season")
    shot("machine")
    go(page, "kit", "text=Rotary spreader")
    page.get_by_role("link", name="Rotary spreader").click()
    page.get_by_role("link", name="Calibrate", exact=True).click()
    pick(page, "Bench", "Pans across the swath")
    page.get_by_role("textbox", name="Pans apart, middle to middle").fill("2")
    page.get_by_role("textbox", name="Caught by pan, from the left").fill(PANS)
    page.wait_for_selector("h2:has-text('How far apart to walk')")
    page.get_by_role("textbox", name="Caught by pan").evaluate("e => scrollTo(0, e.getBoundingClientRect().top - 40)")
    shot("bench")


def take_reckon(page: Page, shot: Callable[[str], None]) -> None:
    reckon(page, "Heronsedge SC", ("Bowling green",), "Walking boom", "0.42")
    shot("reckon-spray")
    page.locator("h1").click()
    page.keyboard.press("=")
    page.get_by_role("textbox", name="Reckon line").fill("heronsedge .6, sticker .25 %, memorial lawn, knapsack")
    page.wait_for_selector("text=Open in Reckon")
    shot("reckon-line")
    page.keyboard.press("Escape")


def take_passes(page: Page, shot: Callable[[str], None]) -> None:
    go(page, "passes", "text=Pick the ground")
    pick(page, "Area", "Terrace")
    pick(page, "Machine", "Rotary spreader")
    page.wait_for_selector("[data-answer=landed]")
    shot("passes")
    scroll_to(page, "What lands where")
    shot("landing")


def take_round(page: Page, shot: Callable[[str], None]) -> None:
    reckon(page, "Heronsedge SC", ("Bowling green",), "Knapsack", "0.42")
    for place, product in ((2, "Coot spreader-sticker"), (3, "Ultramarine")):
        page.get_by_role("button", name="Add to the tank").click()
        pick(page, f"Product {place}", product)
        page.wait_for_timeout(600)
    page.get_by_role("button", name="Start the round").click()
    page.wait_for_selector("text=Put on")
    for box in page.locator("section:has(> h2:text-is('Put on')) label").all():
        box.click()
    page.wait_for_selector("text=Tank 1: Fill")
    for box in page.locator("section[aria-label='Tank 1'] label:has(input[type=checkbox])").all()[:2]:
        box.click()
    shot("round")


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as var:
        env = {
            **os.environ,
            "GREENMEASURE_VAR": var,
            "DJANGO_SETTINGS_MODULE": "greenmeasure.settings",
            "GREENMEASURE_CLOCK": CLOCK,
            "GREENMEASURE_SIMS": f"http://127.0.0.1:{SIMS}",
        }
        for command in (["bring_up_to_date"], ["load_demo", "--plan"]):
            subprocess.run([sys.executable, "manage.py", *command], cwd=ROOT, env=env, check=True, stdout=subprocess.DEVNULL)
        serve = [sys.executable, "-m", "greenmeasure.serve", "--port", str(PORT), "--sims", str(SIMS)]
        server = subprocess.Popen(serve, cwd=ROOT, env=env, stdout=subprocess.DEVNULL)
        try:
            for _ in range(100):
                try:
                    urllib.request.urlopen(f"{BASE}/api/health", timeout=1)
                    break
                except OSError:
                    time.sleep(0.1)
            with sync_playwright() as tools:
                browser = tools.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
                there = browser.new_context(viewport=WIDE, locale="en-US", timezone_id="America/New_York", color_scheme="light")
                page = there.new_page()
                page.on("pageerror", lambda e: print("page error:", e))
                page.on("console", lambda m: print("console:", m.text) if m.type == "error" else None)
                take(page, set(sys.argv[1:]))
                browser.close()
        finally:
            server.terminate()
            server.wait()


if __name__ == "__main__":
    main()
