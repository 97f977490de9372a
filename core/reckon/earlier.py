"""Lines that ask for what was there before: a kept mix by its name, or what went down on a day.

earlier  = ["same"] "as on" day ["on" ground]
kept     = ["mix"] MIX [("on" | "over") grounds] ["with" MACHINE]
day      = number MONTH [year] | MONTH number [year] | year "-" month "-" day
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from core.errors import NotUnderstood

MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_AS_ON = re.compile(r"(?:the\s+)?(?:same\s+)?as\s+on\s+(?P<day>.+?)(?:\s+(?:on|over)\s+(?:the\s+)?(?P<area>.+))?", re.IGNORECASE)
_ISO = re.compile(r"(\d{4})-(\d{1,2})-(\d{1,2})")
_DAY_FIRST = re.compile(r"(\d{1,2})(?:st|nd|rd|th)?\s+([A-Za-z]{3,9})\.?(?:,?\s+(\d{4}))?")
_MONTH_FIRST = re.compile(r"([A-Za-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?(?:,?\s+(\d{4}))?")


@dataclass(frozen=True)
class Day:
    """A day as it was said; without a year the last one that has been."""

    month: int
    day: int
    year: int | None = None

    def last(self, today: date) -> date:
        """The day meant. Raises NotUnderstood for one that no calendar has."""
        for year in (self.year,) if self.year else range(today.year, today.year - 5, -1):
            try:
                found = date(year, self.month, self.day)
            except ValueError:
                continue
            if self.year or found <= today:
                return found
        raise NotUnderstood("line", f"{self.day}/{self.month}", "No calendar has that day.", "Say it like “4 Aug”.")


@dataclass(frozen=True)
class AsOnAsked:
    """As on DAY [on AREA]: what went down then, once more; `area` as it was typed."""

    day: Day
    area: str


@dataclass(frozen=True)
class KeptAsked:
    """A kept mix by its name; `rest` is what the line goes on with."""

    mix: str
    rest: str


def as_on(clean: str) -> AsOnAsked | None:
    """What a line asks of an earlier day; None where it asks something else. Raises NotUnderstood for a day that is none."""
    match = _AS_ON.fullmatch(clean)
    if not match:
        return None
    return AsOnAsked(_day(match["day"]), (match["area"] or "").strip())


def kept_mix(clean: str, mixes: Sequence[str]) -> KeptAsked | None:
    """The kept mix that a line begins with, the longest name first; None where it begins with none."""
    said = re.sub(r"^(?:the\s+)?mix\s+", "", clean, flags=re.IGNORECASE)
    for name in sorted(mixes, key=len, reverse=True):
        for text in (clean, said):
            rest = text[len(name) :]
            if text.casefold().startswith(name.casefold()) and re.match(r"$|\s+(?:on|over|with|using|in)\s", rest, re.IGNORECASE):
                return KeptAsked(name, rest.strip())
    return None


def _day(text: str) -> Day:
    if match := _ISO.fullmatch(text):
        return Day(int(match[2]), int(match[3]), int(match[1]))
    for pattern, day, month in ((_DAY_FIRST, 1, 2), (_MONTH_FIRST, 2, 1)):
        match = pattern.fullmatch(text)
        if match and match[month][:3].casefold() in MONTHS:
            year = int(match[3]) if match[3] else None
            return Day(MONTHS.index(match[month][:3].casefold()) + 1, int(match[day]), year)
    raise NotUnderstood("line", text, f"“{text}” is no day.", "Say it like “4 Aug” or “2026-08-04”.")
