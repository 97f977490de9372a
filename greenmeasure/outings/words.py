"""Outings as one says them: acts, days, why something does not go with one, and what was done."""

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from zoneinfo import ZoneInfo

from core.days import dated
from core.outing.jobs import Doing
from core.outing.order import Left
from core.readable import joined
from greenmeasure.accounts.models import Site
from greenmeasure.ledger.locks import Locked
from greenmeasure.outings.schemas import OutingActOut, WeekSpanOut

NOTHING_DUE = "Nothing is due that could go down: no outing to plan."
NOTHING_FITS = "Nothing of what is due can go down on that day."
NO_HOURS = "No hours of that day are fit for it."
TOO_OLD = "Its mix would be too old before the last area: take fewer areas, or mix it in two goes."
NO_TIME = "There is no time for it beside the rest."
VERBS = {Doing.SPRAY: "Spray", Doing.SPREAD: "Spread", Doing.WATER: "Water", Doing.MOW: "Mow"}
NOT_FOR_IT = "Its label does not list that use."
DRIVE, GONE = "Drive to", "no longer kept"
MOST_NAMED = 3
"""How many sites one sentence names."""
STATUS = {"planned": "planned", "under_way": "under way", "done": "finished", "given_up": "given up", "missed": "missed"}
NO_SERVER = "No letters go out from this server yet."
NO_ADDRESS = "Give your e-mail address first."
LETTER_END = "The label, local law and licensed practice come first. You asked for this letter under Account, You; stop it there."
CLOSING = {
    "left": "What was left in the tank was used up or disposed of as the label says",
    "rinse": "The rinse water went onto treated ground within the label, or where the law lets it",
    "swept": "Walks, kerbs and drains are swept free of granules",
    "gear": "Protective gear and hands are washed",
    "signs": "Signs are out where people are kept off",
    "told": "Whoever must be told has been told",
}
"""What is done at the end of an outing (common practice, no source)."""
ASKS = {"left": "How much was left, and where did it go?"}
"""What is to be said with an act at the end."""


def clean_machine(machine: str) -> str:
    """The cleaning of a machine, as an act at the end."""
    return f"{machine} is rinsed, cleaned and drained"


def paused_text(why: str, since: str) -> str:
    """Why an outing stands still."""
    return f"Stopped since {since}: {why}." if why else f"Stopped since {since}."


def was_paused(why: str, begin: str, end: str) -> str:
    """That an outing stood still for a while."""
    return f"{begin}–{end}: stopped, {why}" if why else f"{begin}–{end}: stopped"


def closing_text(text: str, note: str, by: str) -> str:
    """An act at the end that was done, in a line."""
    return f"{text}: {note} ({by})" if note else f"{text} ({by})"


def sites_sentence(sites: int, late: int, due: int) -> str:
    """How the year stands over all sites."""
    if not late and not due:
        return f"{_count(sites, 'site')}: nothing is due at any of them."
    told = joined([t for t in (f"late at {late}" if late else "", f"due at {due}" if due else "") if t])
    return f"{_count(sites, 'site')}: something is {told}."


def due_line(title: str, state: str) -> str:
    """Something that is due, in a line."""
    return f"{title}: {state}"


def put_down_text(product: str, area: str) -> str:
    """Something that went down on an area."""
    return f"{product} on {area}"


def skipped_turn(step: str, area: str, why: str) -> str:
    """A turn of a step that was skipped."""
    return f"Skipped {step} on {area}: {why}" if why else f"Skipped {step} on {area}"


def time_text(begin: datetime, end: datetime, zone: ZoneInfo) -> str:
    """A stretch of a day: 06:20–07:10."""
    a, b = begin.astimezone(zone), end.astimezone(zone)
    return f"{a:%H:%M}–{b:%H:%M}"


def day_text(on: date, today: date) -> str:
    """A day, nearer ones by name."""
    named = {0: "Today", 1: "Tomorrow"}.get((on - today).days)
    return f"{named}, {dated(on)}" if named else dated(on)


def proposed_sentence(day: str, begin: str, end: str, jobs: int, grounds: int) -> str:
    """A proposed outing in a sentence."""
    return f"{day}: {_count(jobs, 'job')} on {_count(grounds, 'area')}, {begin} to {end}."


def _count(n: int, what: str) -> str:
    return f"{n} {what}" if n == 1 else f"{n} {what}s"


def out_then(machine: str, at: str) -> str:
    """A machine that is wanted twice at once."""
    return f"{machine} is out then with another outing, from {at}."


def job_title(doing: Doing, names: Sequence[str]) -> str:
    """What a job does: Spray Curlew SC and Estuary Iron."""
    return f"{VERBS[doing]} {joined(list(names))}" if names else VERBS[doing]


def ready_text(names: Sequence[str], machine: str) -> str:
    """Measuring and filling, in words."""
    return f"Measure {joined(list(names))}" + (f", fill {machine}" if machine else "")


def clean_text(machine: str) -> str:
    """Cleaning, in words."""
    return f"Rinse and clean {machine}" if machine else "Rinse and clean"


def water_note(minutes: int, names: Sequence[str]) -> str:
    """How long water runs, and what it waters in."""
    return f"{minutes} min, waters in {joined(list(names))}" if names else f"{minutes} min"


def left_text(left: Left, other: str) -> str:
    """Why a job is left for another day."""
    if left.life:
        return TOO_OLD
    if left.hours:
        return NO_HOURS
    if left.placed:
        rule = f" {left.rule.text}" if left.rule else ""
        return f"Not in the order that you put it in with {other}.{rule}"
    if left.rule:
        return f"Not on one day with {other}: {left.rule.text}"
    return f"There is no time for both it and {other}." if other else NO_TIME


WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


def route_text(days: Sequence[int], sites: int, minutes: int) -> str:
    """A route in a line: its days, its sites, its driving."""
    when = joined([f"{WEEKDAYS[d]}s" for d in days]) if days else "Any day"
    drive = f", {minutes} min between them" if sites > 1 else ""
    return f"{when}: {_count(sites, 'site')}{drive}"


def filling_text(site: Site) -> str:
    """Where tanks are filled at a site, and what a filling takes; empty where nobody said."""
    long = "" if site.fill_minutes is None else f"{site.fill_minutes} min a filling"
    return ", ".join(t for t in (site.water, long) if t)


def leg_text(one: str, other: str) -> str:
    """The way from one site to the next."""
    return f"{one} to {other}"


def other_route(site: str, route: str) -> str:
    """A site that is on another route."""
    return f"{site} is on the route {route} already."


def other_days(route: str, days: Sequence[int], count: int) -> str:
    """What is due on a route that is driven on other days."""
    return f"{count} more due on the route {route}, which is driven on {joined([f'{WEEKDAYS[d]}s' for d in days])}."


def unsure_text(sites: Sequence[str]) -> list[str]:
    """That no weather is known at some sites, in one sentence; none where it is known at all of them."""
    if not sites:
        return []
    more = len(sites) - MOST_NAMED
    named = [*sites[:MOST_NAMED], f"{more} more"] if more > 0 else list(sites)
    return [f"No forecast for {joined(named)}: hours of a usual day. Look before you go."]


def keeps_text(products: Sequence[str]) -> str:
    """What a clock of a mix is for: until then its label lets it be used."""
    return f"Spray out {joined(list(products))}: by its label the mix keeps no longer"


def water_by_text(product: str, ground: str) -> str:
    """What a clock of water that is to follow is for."""
    return f"Water in {product} on {ground}"


def gave_text(text: str) -> str:
    """Common practice that gives way to a label, or to an order by hand."""
    return f"Common practice gives way here: {text[0].lower()}{text[1:]}"


def next_hours(text: str) -> str:
    """The next hours of something, in words."""
    return f"Next hours: {text}."


def last_text(product: str, on: date, today: date) -> str:
    """What went down last, in a line."""
    return f"last {went_text(product, on, today)}"


def went_text(product: str, on: date, today: date) -> str:
    """What went down when; its year where it is another."""
    return f"{product}, {on.day} {on:%b}" + ("" if on.year == today.year else f" {on.year}")


def by_state(state: str, by: date | None) -> str:
    """How something stands, and by when."""
    return f"{state}, by {by.day} {by:%b}" if by else state


def under_way_sentence(done: int, of: int, title: str, begin: str) -> str:
    """How far an outing is, and what comes next."""
    if not title:
        return f"All {_count(of, 'job')} done. See to the end of the outing."
    return f"{done} of {_count(of, 'job')} done. Next, at {begin}: {title}."


def planned_sentence(day: str, begin: str, jobs: int) -> str:
    """An outing that was taken up and has not begun."""
    return f"Planned for {day}, from {begin}: {_count(jobs, 'job')}."


def over_sentence(day: str, done: int, skipped: int) -> str:
    """An outing that is over."""
    rest = f", {_count(skipped, 'stop')} skipped" if skipped else ""
    return f"{day}: {_count(done, 'stop')} done{rest}."


def line_text(begin: str, titles: Sequence[str]) -> str:
    """An outing in a line of a list."""
    return f"{begin}: {joined(list(titles))}" if titles else begin


def done_text(title: str, where: str, by: str, at: str) -> str:
    """A job that was done, in a line."""
    return f"{at}: {title} on {where} ({by})" if by else f"{at}: {title} on {where}"


def skipped_text(area: str, why: str) -> str:
    """A stop that was skipped, in a line."""
    return f"Skipped {area}: {why}" if why else f"Skipped {area}"


def fit_text(fit: Sequence[WeekSpanOut], known: bool) -> str:
    """The hours that are fit for something, in words."""
    if not known:
        return "no forecast tells its hours"
    return "; ".join(x.text for x in fit) or "no hours of the week are fit for it"


CALENDAR = {
    "outings": "Outings that are planned",
    "windows": "Hours for what is due",
    "locks": "Locks, and when people may go on again",
    "looks": "Days to look at what went down",
}
"""What a calendar can hold."""


def outing_title(titles: Sequence[str]) -> str:
    """An outing as an entry of a calendar."""
    return f"Outing: {joined(list(dict.fromkeys(titles)))}"


def act_text(act: OutingActOut) -> str:
    """An act of an outing in a line of a calendar."""
    return f"{act.time} {act.title}" + (f": {act.where}" if act.where else "")


def unlocked_title(x: Locked) -> str:
    """The end of a lock, as an entry of a calendar."""
    return f"{x.where}: over is {x.lock.what.text}"


def letter_subject(account: str, today: date, due: str) -> str:
    """The subject of a letter of the day."""
    return f"{account}, {dated(today)}: {due}"


HEADINGS = {
    "outing": "The next outing",
    "due": "Due",
    "locked": "Locked",
    "growth": "Regulators running out",
    "kit": "The kit asks for",
    "stock": "The shelf",
}
"""The parts of a letter of the day."""


def letter_of(name: str, due: str, parts: Mapping[str, Sequence[str]]) -> str:
    """The text of a letter of the day; a part without anything is left out."""
    told = [f"{HEADINGS[key]}\n" + "\n".join(f"- {x}" for x in lines) for key, lines in parts.items() if lines]
    return "\n\n".join([f"{name},", due, *told, LETTER_END]) + "\n"
