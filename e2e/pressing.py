"""Clicks that do not wait for two more frames: a third of a browser test's time went into watching things stand still.

Playwright clicks once an element is visible, enabled, in view, at the same place in two frames, and under the pointer when it
is pressed. Nothing moves by itself in these tests (`reduced_motion`), so the frames are left out where all else holds at once.
The pointer is moved and pressed by the browser as before; where it meets anything else, because the page was laid out anew in
between, nothing of the press gets through, and Playwright's own click waits until it can be pressed.
"""

from typing import Any

from playwright.sync_api import Error, Locator

AIM = """e => {
  if (e.closest(":disabled, [aria-disabled='true']") || !e.checkVisibility({ visibilityProperty: true })) return null;
  const inside = r => r.top >= 0 && r.left >= 0 && r.bottom <= innerHeight && r.right <= innerWidth;
  if (!inside(e.getBoundingClientRect())) e.scrollIntoView({ block: "center", inline: "nearest", behavior: "instant" });
  const box = [...e.getClientRects()].find(r => r.width && r.height);
  if (!box) return null;
  const at = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
  const hit = document.elementFromPoint(at.x, at.y);
  if (!hit || !e.contains(hit)) return null;
  const events = ["pointerdown", "mousedown", "pointerup", "mouseup", "click"];
  const press = { met: null, over: () => events.forEach(name => removeEventListener(name, watch, true)) };
  const watch = event => {
    press.met ??= event.composedPath().includes(e);
    if (press.met) return;
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  events.forEach(name => addEventListener(name, watch, true));
  window.press = press;
  return at;
}"""
"""Where an element can be pressed now: the middle of its first box, where nothing lies over it. What it meets is watched."""

MET = "() => { const press = window.press; delete window.press; press?.over(); return press ? press.met : true; }"
"""Whether the press met its element; a page that was left by it is taken to have been met."""

patiently = Locator.click


def click(self: Locator, **how: Any) -> None:
    """Press an element where it is, or wait as Playwright does until it can be pressed; `how` is Playwright's."""
    at = None if how else self.evaluate(AIM)
    if at:
        self.page.mouse.click(at["x"], at["y"])
    if not at or not _met(self):
        patiently(self, **how)


def _met(target: Locator) -> bool:
    try:
        return bool(target.page.evaluate(MET))
    except Error:  # the press led to another page
        return True


def press_at_once() -> None:
    """From here on every click of this process is one of these."""
    Locator.click = click
