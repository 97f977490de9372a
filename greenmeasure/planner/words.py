"""A plan as one says it: what it comes to, why each choice, what stays bare, and how it differs from the one before."""

from collections.abc import Sequence
from datetime import date
from math import isfinite

from core.days import day
from core.label.targets import TARGETS
from core.readable import joined
from core.season.offers import NITROGEN
from core.season.problem import Tally
from core.season.reasons import Other, Reasons
from core.units import show_number
from greenmeasure.programme.words import many

FEEDS_EVENLY = "No weather tells how the grass grows: it is fed evenly from April to October."
READING, ASKING, CHOOSING, BESIDE, LOOKING = (
    "Reading the years of weather",
    "Asking the gate for every day",
    "Choosing within the rules",
    "Putting other plans beside it",
    "Holding it against ten made-up years",
)
NAMES = {
    "plan": ("This plan", "what costs least within every rule"),
    "standing": ("As it stands", "the plan that was taken before"),
    "greedy": ("One at a time", "always what pays most next"),
    "calendar": ("Calendar", "covered all the usual time"),
    "threshold": ("Threshold", "once a disease is likely and nothing covers"),
    "none": ("Nothing", "no application at all"),
}
RULES = {
    "day": "the gate’s no to that day",
    "interval": "its least interval",
    "most": "how often it may go down in a season",
    "apart": "what its label keeps apart",
    "cap": "a cap of the season",
    "in a row": "how often a group may follow itself",
    "hours": "the hours that people have",
    "stock": "what is on the shelf",
    "one a day": "one application a day",
    "twice": "that it goes down that day already",
}


def no_offer(areas: Sequence[str]) -> str:
    """Nothing on the shelf holds a disease off some areas."""
    return f"nothing on the shelf may go down against it on {joined(list(areas))}."


NO_DAY = "Nobody goes out on a day that would cover them."


def no_price(product: str) -> str:
    """A product that cannot be weighed by money."""
    return f"{product} has no price, so it was not weighed. Give it one on its card, or plan for the least product."


def no_weather(site: str) -> str:
    """A site whose risk is not known."""
    return f"{site} has no weather: nothing is planned against diseases there. Bring in years of it, or set up a station."


def target_text(target: str) -> str:
    """What an application is for."""
    return "feeding" if target == NITROGEN else TARGETS[target].name.lower() if target in TARGETS else target


def money(value: float, currency: str, by_cost: bool) -> str:
    """What a plan counts: money, or what acts in it."""
    return f"{value:,.2f} {currency}" if by_cost else f"{show_number(value, 3)} kg"


def sentence(applications: int, outings: int, bare: float, risk: float, cost: str) -> str:
    """What a plan comes to."""
    if not applications:
        return "Nothing needs to go down: nothing that may pays for itself."
    said = f"{many(applications, 'application')} on {many(outings, 'outing')} for {cost}"
    return f"{said}, {round(risk - bare)} of {round(risk)} risk days covered." if risk >= 0.5 else f"{said}."


def proof_text(proven: bool, gap: float, told: Tally, currency: str, by_cost: bool) -> str:
    """How good a plan is known to be."""
    if proven:
        return "No plan within the rules costs less, risk counted."
    if not isfinite(gap):
        return "How much cheaper another plan could be is not known."
    share = gap / told.total if told.total else 0.0
    return f"Another plan could be cheaper by {money(gap, currency, by_cost)} at the most ({share:.0%} of all, risk counted)."


def searching_text(best: float | None, least: float | None) -> str:
    """How far the search is."""
    if best is None or least is None or best <= 0:
        return CHOOSING
    return f"{CHOOSING}: at most {max(0.0, best - least) / best:.0%} from the best"


def why_text(covers: Sequence[str], days: float, r: Reasons, currency: str, by_cost: bool) -> str:
    """Why an application is in a plan."""
    against = joined([target_text(t) for t in covers])
    said = f"For {against}" if NITROGEN in covers else f"Covers {show_number(days, 2)} risk days of {against}"
    more = r.without.more
    return f"{said}. Leaving it out loses {money(more, currency, by_cost)}, risk counted." if more > 0 else f"{said}."


def other_text(o: Other, currency: str, by_cost: bool) -> str:
    """Why another choice was not taken."""
    if o.broken:
        return f"against {joined(list(dict.fromkeys(RULES.get(b, b) for b in o.broken)))}"
    if abs(o.more) < 0.005:
        return "as good"
    return f"{money(abs(o.more), currency, by_cost)} {'more' if o.more > 0 else 'less'}, risk counted"


def on_day(product: str, rate: str, on: date) -> str:
    """A product on a day."""
    return f"{product}, {rate}, on {day(on)}"


def outing_text(hours: float, areas: int) -> str:
    """What an outing takes."""
    return f"{many(areas, 'area')}, about {show_number(hours, 2)} h"


def bare_text(bare: float, risk: float) -> str:
    """Risk days without cover."""
    return f"{show_number(bare, 2)} of {show_number(risk, 2)}"


def stays_bare(bare: float, risk: float) -> str:
    """What stays uncovered on an area."""
    return f"{bare_text(bare, risk)} risk days stay bare."


def gives(product: str, on: date, why: str) -> str:
    """What would have to give for a bare spell to be covered."""
    return f"{product} on {day(on)} would cover most of them: {why}"


def not_worth(covered: float) -> str:
    """An application that is allowed, and does not pay."""
    return f"it would cover {show_number(covered, 2)}, which is worth less than it costs."


def breaks(rules: Sequence[str]) -> str:
    """Rules that would have to give."""
    return f"{joined([RULES.get(b, b) for b in rules])} would have to give."


def contradiction(name: str, area: str, on: date, said: str) -> str:
    """A kept step that the gate refuses."""
    return f"{name} on {area}, {day(on)}: {said}"


def change_text(moved: int, dropped: int, added: int, price: str, cost: float, bare: float) -> str:
    """How a plan differs from the one that stands.

    Args:
        moved: how many applications are on another day.
        dropped: how many are gone.
        added: how many are new.
        price: what it costs more or less, in words.
        cost: that as a number, below 0 for less [money or kg].
        bare: risk days more without cover [days].
    """
    if not moved + dropped + added:
        return "Nothing changes against the plan that stands."
    told = [f"{n} {word}" for n, word in ((moved, "moved"), (dropped, "dropped"), (added, "new")) if n]
    costs = f"{price} {'more' if cost > 0 else 'less'}" if abs(cost) >= 0.005 else "at the same cost"
    days = f"{show_number(abs(bare), 2)} risk days {'fewer' if bare < 0 else 'more'} without cover"
    return f"Against the plan that stands: {joined(told)}; {costs}, {days if abs(bare) >= 0.05 else 'as well covered'}."


def moved_text(product: str, area: str, was: date, now: date) -> str:
    """An application that is on another day now."""
    return f"{product} on {area}: {day(was)} becomes {day(now)}"


def dropped_text(product: str, area: str, was: date) -> str:
    """An application that is no longer meant."""
    return f"{product} on {area}, {day(was)}: dropped"


def added_text(product: str, area: str, now: date) -> str:
    """An application that was not meant before."""
    return f"{product} on {area}, {day(now)}: new"


def left_out(product: str, area: str, on: date, why: str) -> str:
    """A choice that the gate refused at the end."""
    return f"{product} on {area}, {day(on)}, was left out: {why}"


def buys(product: str, short: str) -> str:
    """What has to be bought for a plan."""
    return f"{product}: {short} more than is on the shelf."


def range_text(low: float, middle: float, high: float, digits: int = 0) -> str:
    """A middle year with the least and the most."""
    return f"{middle:,.{digits}f} ({low:,.{digits}f} to {high:,.{digits}f})"


def step_name(covers: Sequence[str]) -> str:
    """What a made step is called."""
    held_off = joined([target_text(t) for t in covers if t != NITROGEN])
    return f"Protection from {held_off}" if held_off else target_text(NITROGEN).capitalize()


def made_why(covers: Sequence[str]) -> str:
    """Why a made step is there."""
    return PLANNED_FOOD if NITROGEN in covers else PLANNED_COVER


PLANNED_FOOD, PLANNED_COVER = "Planned: fed as the grass grows.", "Planned: covers the days on which it is usual."


def gone(product: str, on: date) -> str:
    """What has become of a choice since the plan was made."""
    return f"{product} may not go down on {day(on)} any more."
