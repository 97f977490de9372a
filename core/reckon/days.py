"""Days as a line says them.

day      = number MONTH [year] | MONTH number [year] | year "-" month "-" day
         | "today" | "yesterday" | "tomorrow" | ["next" | "last" | "on"] WEEKDAY | number ("days" | "weeks" …) "ago"
"""

import calendar
import re
from dataclasses import dataclass
from datetime import date, timedelta

from core.errors import NotUnderstood

MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
WEEKDAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
_MONTH = (
    r"(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?"
    r"|nov(?:ember)?|dec(?:ember)?)\b\.?"
)
_YEAR = r"(?:,?\s+(?P<{}>(?:19|20)\d\d)\b)?"
_WEEKDAY = r"(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?\b"
_DAY = re.compile(
    r"(?P<iso>\d{4}-\d{1,2}-\d{1,2})\b"
    rf"|(?P<d1>\d{{1,2}})(?:st|nd|rd|th)?\s+(?:of\s+)?(?P<m1>{_MONTH}){_YEAR.format('y1')}"
    rf"|(?P<m2>{_MONTH})\s+(?P<d2>\d{{1,2}})(?:st|nd|rd|th)?\b{_YEAR.format('y2')}"
    r"|(?P<near>today|yesterday|tomorrow)\b"
    rf"|(?:(?P<side>next|last|this|on)\s+)?(?P<weekday>{_WEEKDAY})"
    r"|(?P<count>\d{1,4})\s+(?P<span>days?|weeks?)\s+ago\b",
    re.IGNORECASE,
)
_NEAR = {"today": 0, "yesterday": -1, "tomorrow": 1}
LONGEST = 36_600
"""The most days that a sum of days goes: 100 years (ours)."""


@dataclass(frozen=True)
class Day:
    """A day of the calendar as it was said; without a year the last one that has been, the next, or the nearest."""

    month: int
    day: int
    year: int | None = None

    def last(self, today: date) -> date:
        """The day that has been. Raises NotUnderstood for one that no calendar has."""
        return self._first([d for d in self._around(today, -5, 0) if self.year or d <= today][::-1])

    def next(self, today: date) -> date:
        """The day to come, today counted in. Raises NotUnderstood for one that no calendar has."""
        return self._first([d for d in self._around(today, 0, 5) if self.year or d >= today])

    def nearest(self, today: date) -> date:
        """The day that is least far away. Raises NotUnderstood for one that no calendar has."""
        return self._first(sorted(self._around(today, -5, 5), key=lambda d: abs(d - today)))

    def _around(self, today: date, least: int, most: int) -> list[date]:
        found = []
        for year in (self.year,) if self.year else range(today.year + least, today.year + most + 1):
            try:
                found.append(date(year, self.month, self.day))
            except ValueError:
                continue
        return found

    def _first(self, found: list[date]) -> date:
        if found:
            return found[0]
        raise NotUnderstood("line", f"{self.day}/{self.month}", "No calendar has that day.", "Say it like “4 Aug”.")


@dataclass(frozen=True)
class Near:
    """A day so many days from today."""

    days: int

    def last(self, today: date) -> date:
        """The day meant."""
        return today + timedelta(days=self.days)

    next = nearest = last


@dataclass(frozen=True)
class Weekday:
    """A day of the week, Monday 0, on the side of today that was said, if one was."""

    weekday: int
    side: str = ""

    def last(self, today: date) -> date:
        """The one that has been; today, if it is today and nobody said last."""
        back = (today.weekday() - self.weekday) % 7
        return today - timedelta(days=back or (7 if self.side == "last" else 0))

    def next(self, today: date) -> date:
        """The one to come; today, if it is today and nobody said next."""
        ahead = (self.weekday - today.weekday()) % 7
        return today + timedelta(days=ahead or (7 if self.side == "next" else 0))

    def nearest(self, today: date) -> date:
        """That of the side that was said; else the next."""
        return self.last(today) if self.side == "last" else self.next(today)


Said = Day | Near | Weekday


def find_day(clean: str, start: int = 0) -> tuple[Said, int] | None:
    """The day that is said at a place of a text, and where it ends; None where none is."""
    match = _DAY.match(clean, start)
    if not match:
        return None
    if match["iso"]:
        year, month, day = (int(n) for n in match["iso"].split("-"))
        return Day(month, day, year), match.end()
    if month_said := match["m1"] or match["m2"]:
        year_said = match["y1"] or match["y2"]
        month = MONTHS.index(month_said[:3].lower()) + 1
        return Day(month, int(match["d1"] or match["d2"]), int(year_said) if year_said else None), match.end()
    if match["near"]:
        return Near(_NEAR[match["near"].lower()]), match.end()
    if match["weekday"]:
        return Weekday(WEEKDAYS.index(match["weekday"][:3].lower()), (match["side"] or "").lower()), match.end()
    return Near(-int(match["count"]) * (7 if match["span"].lower().startswith("week") else 1)), match.end()


def later(on: date, days: int = 0, months: int = 0) -> date:
    """A day so much later; the last day of a month where the month has no such day.

    Raises:
        NotUnderstood: farther than anybody plans.
    """
    whole = on.year * 12 + on.month - 1 + months
    if abs(days) > LONGEST or not 1 <= whole // 12 <= 9998:
        raise NotUnderstood("line", days or months, "That is farther than a calendar is of use.", "Take fewer.")
    year, month = divmod(whole, 12)
    last = calendar.monthrange(year, month + 1)[1]
    return date(year, month + 1, min(on.day, last)) + timedelta(days=days)
