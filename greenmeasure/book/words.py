"""The book as one says it: its state, where and when an entry went down, and when the next may follow."""

from datetime import date

from core.days import day
from core.label.targets import TARGETS
from core.ledger.rotation import next_dates
from greenmeasure.book import facts
from greenmeasure.book.models import Application, Entry


def target_name(target: str) -> str:
    """A target by its name."""
    return TARGETS[target].name if target in TARGETS else target


def again(entry: Entry, on: date) -> str:
    """When the label lets the next one go down, in words; empty where it says nothing."""
    first, last = next_dates(on, facts.interval(entry.facts))
    if first is None and last is None:
        return ""
    if first and last:
        return f"{day(first)} to {day(last)}"
    return f"from {day(first)}" if first else f"by {day(last)}" if last else ""


def where(found: Application) -> str:
    """The ground of an application, as it was called."""
    part = "spots" if found.spots else found.zone
    return f"{found.area_name}, {part}" if part else found.area_name


def book_sentence(words: str, count: int, above: int) -> str:
    """The state of the book in a sentence: how many applications are shown, and how many of them went against the label."""
    if words.strip():
        return f"{count or 'No'} {'application' if count == 1 else 'applications'} with “{words.strip()}”."
    if not count:
        return "The book is empty. It fills itself when a round is finished."
    lines = f"{count} {'application' if count == 1 else 'applications'} in the book"
    return (
        f"{lines}; {above} went against the label and {'is' if above == 1 else 'are'} marked."
        if above
        else f"{lines}, none against its label."
    )
