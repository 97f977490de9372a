"""Clicks that do not wait for two more frames: a third of a browser test's time went into watching things stand still.

Playwright clicks once an element is visible, enabled, in view, at the same place in two frames, and under the pointer. Nothing
moves by itself in these tests (`reduced_motion`), so the wait for the frames is left out where all the rest holds at once; the
pointer is moved and pressed by the browser as before. Where any of it does not hold yet, Playwright's own click waits for it.
"""

from typing import Any

from playwright.sync_api import Locator

WHERE = """e => {
  if (e.closest(":disabled, [aria-disabled='true']") || !e.checkVisibility({ visibilityProperty: true })) return null;
  const inside = r => r.top >= 0 && r.left >= 0 && r.bottom <= innerHeight && r.right <= innerWidth;
  if (!inside(e.getBoundingClientRect())) e.scrollIntoView({ block: "center", inline: "nearest", behavior: "instant" });
  const box = [...e.getClientRects()].find(r => r.width && r.height);
  if (!box) return null;
  const at = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
  const hit = document.elementFromPoint(at.x, at.y);
  return hit && e.contains(hit) ? at : null;
}"""
"""Where an element can be pressed now: the middle of its first box, where nothing lies over it."""

patiently = Locator.click


def click(self: Locator, **how: Any) -> None:
    """Press an element where it is, or wait as Playwright does until it can be pressed; `how` is Playwright's."""
    at = None if how else self.evaluate(WHERE)
    if at:
        self.page.mouse.click(at["x"], at["y"])
    else:
        patiently(self, **how)


def press_at_once() -> None:
    """From here on every click of this process is one of these."""
    Locator.click = click
