"""The shelf against the season, in words."""

from datetime import date
from decimal import Decimal

from core.days import dated, so_many
from core.season.stock import Buy, Keeps
from core.units import Quantity
from greenmeasure.shelf.models import Lot
from greenmeasure.sky.words import cost_text

NO_SIZE = "No package size is on its card: what to buy cannot be counted."
NO_DENSITY = "It is measured by volume and used by weight, or the other way, and its card has no density: some is not counted."


def sentence(asked: int, soon: int, short: int) -> str:
    """The state of the shelf in a sentence."""
    told = []
    if short:
        told.append(f"{short} {'product falls' if short == 1 else 'products fall'} short")
    if asked:
        told.append(f"{asked} {'lot is' if asked == 1 else 'lots are'} to be looked at before use")
    if soon:
        told.append(f"{soon} {'goes' if soon == 1 else 'go'} out of date soon")
    if not told:
        return "The shelf holds what is planned."
    said = ", ".join(told)
    return f"{said[0].upper()}{said[1:]}."


def jug_text(lot: Lot, keeps: Keeps, today: date) -> str:
    """What is asked of a lot."""
    until = dated(lot.expires_on) if lot.expires_on else ""
    years = (today - lot.received_on).days // 365 if lot.received_on else 0
    return {
        Keeps.PAST: f"Out of date since {until}. Do not use it; dispose of it as the label says.",
        Keeps.SOON: f"Good until {until}.",
        Keeps.OLD: f"Here for {years} years. Is it still good? Look for lumps, layers and frost, and try a little in a jar.",
        Keeps.UNDATED: "Nobody noted when it came.",
        Keeps.GOOD: f"Good until {until}" if until else "",
    }[keeps]


def since_text(lot: Lot, today: date) -> str:
    """Since when a lot is on the shelf."""
    if lot.received_on is None:
        return ""
    days = (today - lot.received_on).days
    if days < 1:
        return dated(lot.received_on)
    age = so_many(days) if days < 60 else f"{days // 30} months" if days < 730 else f"{days // 365} years"
    return f"{dated(lot.received_on)}, {age}"


def buy_text(found: Buy | None, size: Quantity | None, currency: str) -> str:
    """What to buy."""
    if found is None or size is None:
        return ""
    cost = f", {cost_text(found.price, currency)}" if found.price is not None else ""
    return f"{found.count} × {size}{cost}"


def money(found: Decimal, currency: str) -> str:
    """What all of it costs."""
    return cost_text(found, currency)


def until_text(end: date) -> str:
    """Which needs are told."""
    planned = "Planned: steps of the programme, windows and rounds under way."
    return f"{planned} As last year: what went down from this day to {end.day} {end:%B} a year ago."
