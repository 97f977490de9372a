"""What paper says: what records come to and what they lack, what the notice and the note ask."""

from datetime import date

from core.days import clock as at_clock
from core.days import dated
from core.ledger.locks import Forbidden
from core.readable import joined
from greenmeasure.accounts.models import Site
from greenmeasure.book.models import Application
from greenmeasure.outings.schemas import OutingActOut, OutingSiteOut, OutingStopOut
from greenmeasure.reckon.schemas import PourOut

LABEL_FIRST = "The label and the law of the place come first."
ASKED = {
    Forbidden.WALK: "Keep people and pets off until {until}.",
    Forbidden.WATER: "Do not water before {until}.",
    Forbidden.MOW: "Do not mow before {until}.",
    Forbidden.SEED: "Do not seed before {until}.",
}
DRY = "Its label names no hour: keep off until it has dried."
LICENCE = "{count} without it. A manager fills it in with each member, under Account."
REGISTRATION = "{count} without it. It stands on the label: fill it in on the card. What is in the book already stays as it is."
UNREADABLE = "The label “{name}” cannot be read here: see the shelf."
EMPTY = "Nothing is on the shelf."
TO_TASTE, WATER, TOP_UP = "to taste", "Water", "up to {volume}"
WIND = "{count} without it. It is asked when a round is finished."


ACT_HEAD = ("When", "Who", "What", "How", "Done")


def site_lines(site: OutingSiteOut) -> list[tuple[str, str]]:
    """What to know of a site before one goes there, by name."""
    return [
        ("Address", site.address),
        ("Ask for", site.contact),
        ("Getting in", site.gate),
        ("Water for tanks", site.water),
        ("Must be told", site.tell),
        ("Agreed", site.agreed),
    ]


def people_text(people: int) -> str:
    """How many go out, where it is more than one."""
    return f"{people} people" if people > 1 else ""


def person_text(who: int | None, people: int) -> str:
    """Which of several people does something."""
    return f"person {who + 1}" if who is not None and people > 1 else ""


def act_on_paper(act: OutingActOut) -> str:
    """An act with its ground and what is known of it, a line each."""
    head = f"{act.title}: {act.where}" if act.where else act.title
    more = [joined_notes(s) for s in act.stops]
    return "\n".join([head, *(m for m in more if m)])


def joined_notes(stop: OutingStopOut) -> str:
    """What is known of a stop, in a line."""
    told = [x for x in (stop.what, stop.last, stop.note, f"skipped: {stop.why}" if stop.state == "skipped" else "") if x]
    return f"{stop.area}: {'; '.join(told)}" if told else ""


def records_sentence(count: int, begin: date | None, end: date | None) -> str:
    """How many applications there are of some days."""
    days = _days(begin, end)
    if not count:
        return f"Nothing went down{days}."
    return f"{count} {'application' if count == 1 else 'applications'}{days}."


def _days(begin: date | None, end: date | None) -> str:
    if begin and end:
        return f" from {dated(begin)} to {dated(end)}"
    return f" since {dated(begin)}" if begin else f" until {dated(end)}" if end else ""


def foot(name: str, today: date) -> str:
    """What stands at the foot of every page of records."""
    return f"{name}. Printed on {dated(today)}. {LABEL_FIRST}"


def when(a: Application) -> str:
    """When an application was over, on its ground's clock."""
    return at_clock(a.finished_at, a.zone_there)


def put_down(a: Application) -> str:
    """What was put down when, with what it holds."""
    what = joined([f"{e.product_name} ({e.contents})" if e.contents else e.product_name for e in a.entries.all()])
    return f"Put down on {when(a)}: {what}."


def whom(name: str, site: Site | None) -> str:
    """Whose ground it is, and whom one asks."""
    return f"{name}. {site.contact}" if site and site.contact else name


def measured_text(pour: PourOut) -> str:
    """In what a pour is measured, and to which mark."""
    if pour.measure is None:
        return ""
    vessel, told = pour.measure.vessel.name, " ".join(x for x in (pour.measure.instruction, pour.measure.note) if x)
    return told if not vessel or vessel.lower() in told.lower() else f"{vessel}: {told}"
