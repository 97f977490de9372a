"""A round as one says it: what to do next, and what really went down against the plan."""

from collections.abc import Sequence
from datetime import datetime, tzinfo

from core.days import clock as at_clock
from core.job.sheet import Sheet, Ticks
from core.label.rate import Rate
from core.readable import joined
from core.units import Quantity, show_number, show_percent
from greenmeasure.book.models import Entry
from greenmeasure.rounds.left import Left
from greenmeasure.rounds.models import Round

UNSEEN = 0.0005
"""Closer to the plan than this share is just as planned."""


READY = "The mix is ready. Note each outing to the spots; what is left stays here until it is emptied."
UNSAID = "Its labels say nothing of how long it keeps: use it the same day."
STALE = "The mix is older than its label lets it be. Do not spray it: dispose of it as the label says."


def next_act(found: Round, sheet: Sheet, ticks: Ticks, left: Left | None, now: datetime) -> str:
    """What to do now, in one sentence; `left` is what is left of a mix for spots."""
    if found.status == Round.Status.DONE:
        return "This round is done and in the book."
    if found.status == Round.Status.GIVEN_UP:
        return "This round was given up; nothing went in the book."
    if sheet.problem:
        return sheet.problem
    if left and left.used_up:
        return "All of the mix has gone out: say below that it is sprayed out."
    if left and left.stale(now):
        return STALE
    if left and left.litres < left.of:
        return READY
    if not sheet.worn(ticks):
        return "Put on what the label asks for mixing, and tick it; then the loads open."
    following = sheet.next_act(ticks)
    if following:
        load, act = following
        return f"{load.name}: {act.text}"
    if left:
        return READY
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


def through_text(ground: str, treated: Quantity | None, done: float) -> str:
    """On which ground a load runs out, and after how much of it; after which share of its spray where nothing is `treated`."""
    if treated is None:
        return f"Runs out on {ground}, after about {show_percent(done)} of its spray."
    return f"Runs out on {ground}, after about {Quantity(treated.value * done, treated.unit)} of its {treated}."


def lasts_text(ground: str) -> str:
    """That a load runs out where a ground does."""
    return f"Lasts to the end of {ground}."


def left_over_text(amount: str, ground: Sequence[str]) -> str:
    """What is left of what was mixed, its ground being left out."""
    return f"{amount} of it is left over: it was for {joined(list(ground))}. Use it up within the label, or as the label says."


def spare_text(amounts: Sequence[str], left: str, ground: Sequence[str]) -> str:
    """How much of a load is still needed, its ground being left out."""
    out = f"{joined(list(ground))} is left out"
    if not amounts:
        return f"{out}: do not mix it."
    return f"{out}: mix only {', '.join(amounts)}. If it is mixed already, {left_over_text(left, ground)}"


def left_sentence(left: Left, emptied: str) -> str:
    """What is left of a mix for spots, or what became of it."""
    if emptied:
        return f"The mix is {emptied}."
    if left.used_up:
        return "All of the mix has gone out."
    return f"{left.amount} of the mix is left in the tank." if left.mixed else f"{left.amount} is to be mixed."


def left_text(left: Left, now: datetime) -> str:
    """What is left of a mix for spots, as a list says it."""
    if left.used_up:
        return "all gone out"
    return f"{left.amount} left, too old" if left.stale(now) else f"{left.amount} left"


def life_sentence(left: Left, zone: tzinfo, now: datetime) -> str:
    """How old a mix is and until when its labels let it be used."""
    if not left.mixed:
        return UNSAID if left.until is None else ""
    hours = (now - left.mixed_at).total_seconds() / 3600
    age = "less than an hour old" if hours < 1 else f"{hours:.0f} h old" if hours < 48 else f"{hours / 24:.0f} days old"
    said = f"Mixed {at_clock(left.mixed_at, zone)}, {age}."
    if left.until is None:
        return f"{said} {UNSAID}"
    over = " That time is over: do not spray it." if now > left.until else ""
    return f"{said} By its label it is used until {at_clock(left.until, zone)}.{over}"


def stale_sentence(mixed_at: datetime, until: datetime | None, zone: tzinfo) -> str:
    """Why a mix is not used any more."""
    said = f" until {at_clock(until, zone)}" if until else ""
    return f"The mix of {at_clock(mixed_at, zone)} is used{said} by its label, not later."


def taught_sentence(machine: str, rate: Rate, setting: float | None, off: float | None) -> str:
    """What a machine put down in a pass, at a setting [marks] of its dial, and how far [share] that is off what was known."""
    at = "" if setting is None else f"Setting {show_number(setting)}: "
    against = ""
    if off is not None:
        against = ", as it was known" if abs(off) < UNSEEN else f", {show_percent(off, sign=True)} against what was known"
    return f"{at}{machine} put down {rate} in a pass{against}."
