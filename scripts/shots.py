"""Take the pictures in docs/screenshots of every main view, from the demo club: `make shots`.

Serves the built interface on a free port with a database of its own, so that nothing else is touched.
"""

import os
import re
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, ViewportSize, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
OUT = ROOT / "docs" / "screenshots"
PORT = int(os.environ.get("SHOTS_PORT", "8177"))
BASE = f"http://localhost:{PORT}"
CHROMIUM = ["--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
            "--disable-background-networking", "--disable-component-update", "--disable-sync"]  # fmt: skip
WIDE: ViewportSize = {"width": 1280, "height": 800}
PHONE: ViewportSize = {"width": 390, "height": 844}


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
    page.goto(f"{BASE}/c/alder-quay/{place}")
    page.wait_for_selector(wait)
    page.wait_for_timeout(250)


def pick_many(page: Page, label: str, *options: str) -> None:
    page.get_by_role("button", name=re.compile(rf"(^|\s){re.escape(label)}$")).first.click()
    for option in options:
        page.get_by_role("option", name=option, exact=False).first.click()
    page.keyboard.press("Escape")


def reckon(page: Page, product: str, areas: tuple[str, ...], machine: str, rate: str | None = None) -> None:
    page.evaluate("() => localStorage.removeItem('draft:alder-quay/reckon')")
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
        if not only or name in only:
            page.screenshot(path=OUT / f"{name}.png")
            print(f"  {name}.png", flush=True)

    page.set_viewport_size(WIDE)
    page.goto(BASE)
    page.wait_for_selector("text=Sign-in name")
    shot("door")
    sign_in(page)
    page.wait_for_selector("text=Last in the book")
    shot("today")
    go(page, "ground", "text=Memorial lawn")
    shot("ground")
    page.get_by_role("link", name="Terrace").click()
    page.wait_for_selector("text=How it was measured")
    page.wait_for_timeout(300)
    shot("area")
    page.get_by_role("link", name="Measure it again").click()
    pick(page, "How it is measured", "Radii around a pin")
    page.get_by_role("textbox", name="Radii, in order").fill("48 52 57 61 55 50 47 51 58 60 54 49")
    page.wait_for_selector("[data-answer=size]")
    page.wait_for_timeout(400)
    shot("measure")
    page.get_by_role("link", name="Soil pH").click()
    page.get_by_role("textbox", name="Target pH").fill("6.8")
    page.wait_for_selector("text=elemental sulfur in all")
    page.wait_for_timeout(300)
    shot("soil")
    go(page, "shelf", "text=Heronsedge SC")
    shot("shelf")
    page.get_by_role("link", name="Heronsedge SC").click()
    page.wait_for_selector("text=Understood")
    page.wait_for_timeout(300)
    shot("product-card")
    go(page, "kit", "text=Knapsack")
    shot("kit")
    reckon(page, "Heronsedge SC", ("Bowling green",), "Walking boom", "0.42")
    shot("reckon-spray")
    page.get_by_role("heading", name="This season").evaluate("e => e.scrollIntoView()")
    page.wait_for_timeout(200)
    shot("reckon-season")
    page.evaluate("() => scrollTo(0, 0)")
    page.locator("h1").click()
    page.keyboard.press("=")
    page.get_by_role("textbox", name="Reckon line").fill("0.5 lb N/M from saltmarsh on terrace with drop in 2 passes")
    page.wait_for_selector("text=Open in Reckon")
    page.wait_for_timeout(200)
    shot("reckon-line")
    page.keyboard.press("Escape")
    go(page, "reckon/compare", "text=As much active as")
    pick(page, "For", "Dollar spot")
    pick(page, "On", "Bowling green")
    page.wait_for_selector("text=costs least here")
    page.wait_for_timeout(300)
    shot("reckon-compare")
    reckon(page, "Reedling ME", ("Croquet 1", "Tennis courts"), "Walking boom")
    shot("reckon-areas")
    page.set_viewport_size(PHONE)
    page.wait_for_timeout(300)
    shot("reckon-phone")
    page.set_viewport_size(WIDE)
    reckon(page, "Heronsedge SC", ("Bowling green",), "Knapsack", "0.42")
    page.get_by_role("button", name="Start the round").click()
    page.wait_for_selector("text=Put on")
    for box in page.locator("section:has(> h2:text-is('Put on')) label").all():
        box.click()
    page.wait_for_selector("text=Tank 1: Fill")
    for box in page.locator("section[aria-label='Tank 1'] label").all()[:2]:
        box.click()
    page.wait_for_timeout(400)
    shot("round")
    page.get_by_role("textbox", name="Product used").fill("8.1")
    page.wait_for_selector("text=It goes in the book all the same")
    page.get_by_role("button", name="Put it in the book").scroll_into_view_if_needed()
    page.wait_for_timeout(400)
    shot("round-finish")
    go(page, "book", "text=applications in the book")
    shot("book")
    go(page, "club/house", "text=In what order is the tank filled?")
    shot("house")


def main() -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as var:
        env = {**os.environ, "GREENMEASURE_VAR": var, "DJANGO_SETTINGS_MODULE": "greenmeasure.settings"}
        for command in (["migrate", "-v0"], ["load_demo"]):
            subprocess.run([sys.executable, "manage.py", *command], cwd=ROOT, env=env, check=True, stdout=subprocess.DEVNULL)
        server = subprocess.Popen([sys.executable, "-m", "greenmeasure.serve", "--port", str(PORT)], cwd=ROOT, env=env,
                                  stdout=subprocess.DEVNULL)  # fmt: skip
        try:
            for _ in range(100):
                try:
                    urllib.request.urlopen(f"{BASE}/api/health", timeout=1)
                    break
                except OSError:
                    time.sleep(0.1)
            with sync_playwright() as tools:
                browser = tools.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
                page = browser.new_context(viewport=WIDE, locale="en-US", color_scheme="light").new_page()
                page.on("pageerror", lambda e: print("page error:", e))
                page.on("console", lambda m: print("console:", m.text) if m.type == "error" else None)
                take(page, set(sys.argv[1:]))
                browser.close()
        finally:
            server.terminate()
            server.wait()


if __name__ == "__main__":
    main()
