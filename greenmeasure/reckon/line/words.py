"""The sentences of the reckon line's answers."""

from collections.abc import Sequence
from datetime import date

from core.days import dated, so_many
from core.label.rate import Rate
from core.readable import joined
from core.units import Quantity, show_number

EXAMPLES = {
    "dose": "the dose, its loads, and what the label says",
    "span": "both ends of a range, and its middle",
    "tank": "what goes into one full tank",
    "nutrient": "product for so much of a nutrient",
    "may": "whether it may go, or from when",
    "last": "from the book",
    "bags": "prices, and which costs least with “vs”",
    "back": "the sum backwards; “less 4 lb” for what is left",
    "water": "minutes by the catch cans, or how much water",
    "reach": "the ground it covers",
    "output": "an output from a measured strip",
    "days": "dates, and days between two",
    "convert": "rates, amounts, temperatures in another unit",
    "sum": "plain sums",
}
"""What each example of a line is answered with."""


def at_ends(product: str, where: str, told: Sequence[tuple[str, Quantity]]) -> str:
    """What goes down at the ends of a range, and in its middle; `told` are the rates and their amounts."""
    names = (
        ("at the low rate", "at the middle", "at the high rate") if len(told) == 3 else ("at the low rate", "at the high rate")
    )
    of = f"{product} on {where}" if product else where
    return f"{of}: {joined([f'{amount} {name}' for (_, amount), name in zip(told, names, strict=False)])}."


def label_says(product: str | None, label: str) -> str:
    """The rate of a label that a line went by."""
    return f"{product}'s label: {label}."


def load_names(names: Sequence[str]) -> str:
    """One load, or several that are alike: Tank 1 to Tank 4, each."""
    return names[0] if len(names) == 1 else f"{names[0]} {'and' if len(names) == 2 else 'to'} {names[-1]}, each"


def more_loads(count: int) -> str:
    """That there are more loads than are told."""
    return f"and {count} more loads of other amounts"


def in_spray(amount: str, product: str, spray: str, rate: str) -> str:
    """What goes into so much finished spray."""
    of = f" of {product}" if product else ""
    return f"Pour {amount}{of} into {spray} of finished spray: {rate}."


def full_tank(machine: str, capacity: str, ground: str) -> str:
    """What a full tank covers."""
    return f"A full tank of {machine} is {capacity} and covers {ground}."


def so_much_covers(machine: str, spray: str, ground: str) -> str:
    """What so much spray covers."""
    return f"{spray} of {machine} covers {ground}."


def costs(amounts: str, where: str, cost: str, per_foot: str) -> str:
    """What a dose costs, in all and per foot."""
    return f"{amounts} for {where} costs {cost}: {per_foot}."


def costs_per(product: str, cost: str, per: str) -> str:
    """What a product costs per unit of itself or of what it holds."""
    return f"{product} costs {cost} per {per}."


def costs_per_area(rate: str, product: str, cost: str, foot: str) -> str:
    """What a rate of a product costs per area."""
    return f"{rate} of {product} costs {cost} per {foot}."


def cheaper(least: str, cost: str, others: Sequence[str]) -> str:
    """Which product costs least, and what the others do."""
    return f"{least} costs least: {cost}; {joined(list(others))}."


def alike(told: Sequence[str]) -> str:
    """Products side by side of which none costs less than the others."""
    return f"{joined(list(told))}."


def enough(product: str, times: int, need: Quantity, have: Quantity | None) -> str:
    """Whether there is enough of a product for so many applications."""
    for_ = f"{times} applications need" if times > 1 else "One application needs"
    if have is None:
        return f"{for_} {need} of {product}; its stock is not counted."
    if have.base >= need.base * (1 - 1e-9):
        left = Quantity((have.base - need.base) / need.unit.size, need.unit)
        return f"Enough: {for_[0].lower()}{for_[1:]} {need} of {product}, {have.to(need.unit)} is in stock, {left} is left over."
    short = Quantity((need.base - have.base) / need.unit.size, need.unit)
    return f"Not enough: {for_[0].lower()}{for_[1:]} {need} of {product}, {have.to(need.unit)} is in stock, {short} short."


def went_down(on: date, today: date, told: Sequence[str]) -> str:
    """What went down last, where and when."""
    days = (today - on).days
    ago = "today" if days == 0 else f"{so_many(days)} ago"
    return f"{dated(on)}, {ago}: {'; '.join(told)}."


def one_down(name: str, rates: str, where: str, machine: str) -> str:
    """One application of those that went down."""
    return f"{name} at {rates} on {where}{f', with {machine}' if machine else ''}"


def season_has(area: str, basis: str, amount: str, count: int, since: date) -> str:
    """How much of a nutrient an area has had in a season."""
    times = "one application" if count == 1 else f"{count} applications"
    return f"{area} has had {amount} of {basis} since {dated(since)}, in {times}."


def sizes(told: str, other: str) -> str:
    """How big some ground is, in the account's units and the others."""
    return f"{told} ({other})."


def brings_on(amount: str, product: str, where: str, brings: Sequence[str], foot: str) -> str:
    """What an amount of a product on its ground brings."""
    return f"{amount} of {product} on {where} brings {joined(list(brings))} per {foot}."


def card_rates(product: str, rates: Sequence[str]) -> str:
    """The rates of a card."""
    return f"{product}: {'; '.join(rates)}."


def amount_costs(amount: str, product: str, cost: str) -> str:
    """What an amount of a product costs."""
    return f"{amount} of {product} costs {cost}."


def puts_down_in(time: str, area: str, depth: str) -> str:
    """What a time of watering puts down."""
    return f"{time} on {area} puts down {depth}."


def no_water_asked(product: str) -> str:
    """That a card asks no watering in."""
    return f"{product}'s card gives no depth or time of watering in."


def nothing_down(area: str, product: str) -> str:
    """That the book has none of it."""
    of, on = (f" of {product}" if product else ""), (f" on {area}" if area else "")
    return f"Nothing{of}{on} is in the book."


def may_go(product: str, area: str, on: date) -> str:
    """That nothing stands against a product on a day."""
    return f"Yes: nothing stands against {product} on {area}, {dated(on)}."


def may_not(product: str, area: str, on: date, first: date | None, days: int) -> str:
    """That something stands against a product on a day, and from when it does not."""
    then = f"from {dated(first)}" if first else f"nor in the {so_many(days)} after"
    return f"{product} not on {area} on {dated(on)}: {then}."


def degrees(total: str, since: date, upto: date, base: str) -> str:
    """A sum of degree days."""
    return f"{total} since {dated(since)}, up to {dated(upto)}, {base}."


def with_forecast(total: str, upto: date) -> str:
    """The same sum with the days to come."""
    return f"With the forecast up to {dated(upto)}: {total}."


def reaches(product: str, goal: str, on: date, total: str, base: str, foretold: bool) -> str:
    """The day on which a sum is reached."""
    by = ", by the forecast" if foretold else ""
    return f"{product} reaches {goal} on {dated(on)}{by}: {total}, {base}."


def not_reached(goal: str, total: str, upto: date) -> str:
    """That what is known does not reach a sum."""
    return f"{goal} is not reached in the days that are known: {total} up to {dated(upto)}."


def days_missing(count: int) -> str:
    """That some days could not be counted."""
    return f"{so_many(count)} without both extremes {'is' if count == 1 else 'are'} not counted."


def water_run(depth: str, area: str, minutes: str, by_quarter: str) -> str:
    """How long to water."""
    return f"{depth} on {area}: {minutes} by what falls on the whole; {by_quarter} for the driest quarter to get it."


def water_volume(depth: str, where: str, volume: str, other: str) -> str:
    """How much water a depth is."""
    return f"{depth} on {where} is {volume} ({other})."


def tank_covers(machine: str, spray: str, ground: str, other: str, output: Rate) -> str:
    """How much ground a volume of spray covers."""
    return f"{spray} from {machine} covers {ground} ({other}) at {output}."


def card_says(machine: str, output: Rate, off: float) -> str:
    """What a machine's card says of its output, and by how much what was measured differs.

    Args:
        machine: its name.
        output: on its card.
        off: how much more was measured, as a share [1].
    """
    if abs(off) < 0.005:
        return f"{machine}'s card says the same."
    more = "more" if off > 0 else "less"
    return (
        f"{machine}'s card says {output}: this is {show_number(abs(off) * 100, 2)} % {more}. Measure it in Kit to take it over."
    )
