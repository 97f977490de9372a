"""What a first visit brings over the wire: a budget of bytes, as the build compressed them beforehand."""

from pathlib import Path
from typing import Any

from django.conf import settings

from e2e.base import BrowserTest

CODE, WHOLE = 200_000, 220_000
"""Bytes of scripts and styles by gzip, and of all with the fonts by brotli (ours)."""


class Weight(BrowserTest):
    def first_visit(self, place: str, words: str) -> list[Path]:
        """The built files that a view asks for in a browser that has none of them."""
        tools = self.context.new_cdp_session(self.page)
        tools.send("Network.clearBrowserCache")
        tools.detach()
        asked: list[Any] = []

        def hear(answer: Any) -> None:
            asked.append(answer)

        self.page.on("response", hear)
        self.addCleanup(self.page.remove_listener, "response", hear)
        self.page.goto(f"{self.live_server_url}{place}")
        self.says(words)
        self.settle()
        files = [r for r in asked if "/assets/" in r.url]
        self.assertGreater(len(files), 5)
        bare = [r.url for r in files if r.headers.get("content-encoding") not in ("br", "gzip") and not r.url.endswith(".woff2")]
        self.assertEqual([u for u in bare if _packed(_file(u), ".br") != _file(u).stat().st_size], [], "went out as they are")
        return [_file(r.url) for r in files]

    def weigh(self, files: list[Path]) -> tuple[int, int]:
        """Code by gzip, and everything by brotli [bytes]; a file too small to gain by it goes as it is."""
        code = [f for f in files if f.suffix in (".js", ".css")]
        gzip = sum(_packed(f, ".gz") for f in code)
        return gzip, sum(_packed(f, ".br") for f in code) + sum(f.stat().st_size for f in files if f not in code)

    def test_the_door_and_today_are_within_their_budget(self) -> None:
        door = self.weigh(self.first_visit("/", "Green Measure"))
        self.let_in()
        today = self.weigh(self.first_visit("/a/alder/today", "Everything is in place"))
        for place, (code, whole) in {"door": door, "today": today}.items():
            with self.subTest(place):
                self.assertLessEqual(code, CODE)
                self.assertLessEqual(whole, WHOLE)


def _file(url: str) -> Path:
    return Path(settings.WEB_BUILD) / "assets" / url.rsplit("/", 1)[1]


def _packed(file: Path, suffix: str) -> int:
    packed = file.with_name(file.name + suffix)
    return (packed if packed.exists() else file).stat().st_size
