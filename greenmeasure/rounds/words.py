"""A round as one says it: what to do next, and what really went down against the plan."""

from core.job.sheet import Sheet, Ticks
from core.label.rate import Rate
from core.readable import joined
from core.units import Quantity, show_number, show_percent
from greenmeasure.book.models import Entry
from greenmeasure.rounds.models import Round

UNSEEN = 0.0005
"""Closer to the plan than this share is just as planned."""


def next_act(found: Round, sheet: Sheet, ticks: Ticks) -> str:
    """What to do now, in one sentence."""
    if found.status == Round.Status.DONE:
        return "This round is done and in the book."
    if found.status == Round.Status.GIVEN_UP:
        return "This round was given up; nothing went in the book."
    if sheet.problem:
        return sheet.problem
    if not sheet.worn(ticks):
        return "Put on what the label asks for mixing, and tick it; then the loads open."
    following = sheet.next_act(ticks)
    if following:
        load, act = following
        return f"{load.name}: {act.text}"
    return "All loads are out. Enter what was really used, and put it in the book."


def brought_line(entry: Entry) -> list[str]:
    """What a line of a file of past records puts in the book, and the rules that stood against it."""
    amount = f"{entry.used}, {entry.actual}" if entry.used else "to taste"
    return [amount, *(f"Marked: {rule}" for rule in entry.against.splitlines())]


def against_plan(made: Rate, planned: Rate) -> str:
    """How far the rate that was really put down is off the planned one."""
    off = made.value / planned.to(made.unit).value - 1
    return "just as planned" if abs(off) < UNSEEN else f"{show_percent(off, 3, sign=True)} against the plan of {planned}"


def partly_sentence(sprayed: Quantity, planned: Quantity, down: list[str]) -> str:
    """That part of a tank is left, and what of its products went down."""
    return f"{sprayed} of {planned} was sprayed: {joined(down)} went down, the rest is still in the tank."


def taught_sentence(machine: str, rate: Rate, setting: float | None, off: float | None) -> str:
    """What a machine put down in a pass, at a setting [marks] of its dial, and how far [share] that is off what was known."""
    at = "" if setting is None else f"Setting {show_number(setting)}: "
    against = ""
    if off is not None:
        against = ", as it was known" if abs(off) < UNSEEN else f", {show_percent(off, sign=True)} against what was known"
    return f"{at}{machine} put down {rate} in a pass{against}."
