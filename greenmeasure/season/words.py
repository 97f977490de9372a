"""What is due, as one says it: the list in a sentence, by when, where, and what waiting or missing costs."""

from collections.abc import Sequence
from datetime import date

from core.cautions import LABEL_LEADS
from core.days import day
from core.ground import Stress
from core.label.targets import TARGETS
from core.season.choose import Pick
from core.season.due import State
from core.season.standing import Stand
from greenmeasure.season.due import Proposal
from greenmeasure.season.schemas import DueLineOut, DueWindowOut
from greenmeasure.sky.schemas import FreshOut

STATES = {State.LATE: "late", State.DUE: "due today", State.COMING: "coming"}
STATES_OF_STEPS = {Stand.LATE: "late", Stand.DUE: "due", Stand.COMING: "coming"}
NOTHING = {
    "fresh": "Nothing is due.",
    "stale": "No step is due. What the weather asks for needs newer hours and a forecast: fetch the weather.",
    "none": "No step is due. What the weather asks for needs a station: add one under Sky.",
}
TOO_FAR = "the forecast does not reach to now"
NONE_FIT = "none of the hours in the forecast is fit for it"
MANY_AREAS = 4


def name_of(disease: str) -> str:
    """A disease by its name."""
    return TARGETS[disease].name if disease in TARGETS else disease


def fresh_of(site: str, fresh: FreshOut) -> FreshOut:
    """How fresh the weather of one of several sites is: the site's name before it."""
    return fresh.model_copy(update={"sentence": f"{site}: {fresh.sentence[0].lower()}{fresh.sentence[1:]}"})


def due_sentence(lines: Sequence[DueLineOut], more: int, fresh: str) -> str:
    """The due list in a sentence: how much is due, and the best hours for the first of it."""
    if not lines:
        return NOTHING[fresh]
    now = [x for x in lines if x.state in ("late", "due")]
    count = len(now) + more
    if not count:
        return f"Nothing is due today; {len(lines)} {'job is' if len(lines) == 1 else 'jobs are'} coming."
    said = "One job is due" if count == 1 else f"{count} jobs are due"
    best = next((x.window for x in lines if x.window and x.window.begin), None)
    return f"{said}. {_when(best)}" if best else f"{said}."


def _when(w: DueWindowOut) -> str:
    if w.verdict in ("go", "mind"):
        return f"The hours are fit now, until {w.text.split(' to ')[-1]}."
    return f"The best hours are {w.text}."


def by_text(by: date | None, today: date) -> str:
    """By when, in words."""
    if by is None:
        return ""
    if by <= today:
        return "today"
    return "by tomorrow" if (by - today).days == 1 else f"by {by:%A}, {day(by)}"


def on_area(what: str, area: str) -> str:
    """A step of the programme on an area."""
    return f"{what} on {area}"


def from_text(on: date | None) -> str:
    """From when, in words."""
    return f"from {on:%A}, {day(on)}" if on else ""


def on_areas(found: Sequence[Proposal]) -> list[str]:
    """Diseases with the areas they are on; where there are many, how many."""
    by_disease: dict[str, list[str]] = {}
    for p in found:
        by_disease.setdefault(name_of(p.disease), []).append(p.area.name)
    return [
        f"{name} on {', '.join(where) if len(where) < MANY_AREAS else f'{len(where)} areas'}"
        for name, where in by_disease.items()
    ]


def zone_text(zone: str, there: Pick | None, rest: Pick | None) -> str:
    """What differs within an area: how a part on which the disease was seen is treated, and how the rest of it."""
    how = f"{there.rate}, {there.intent.text}" if there else "its label has no curative rate, so the same as the rest"
    return f"{zone}, where it was seen: {how}. The rest: {f'{rest.rate}, {rest.intent.text}' if rest else '—'}."


def missed_text(lost: int) -> str:
    """What a window that passed unused costs."""
    if not lost:
        return "no risk day is lost by it"
    return f"{lost} risk {'day goes' if lost == 1 else 'days go'} unprotected until the next window"


def stressed(area: str, stress: Stress) -> str:
    """Why a regulator is left for now."""
    return f"{area} suffers from {stress.text}: leave it until the turf grows well again."


def again_title(product: str, area: str) -> str:
    """A regulator that is due again."""
    return f"{product} again on {area}"


def planned_text(disease: str, by: str) -> str:
    """What a planned job is for, and who planned it."""
    return f"Against {name_of(disease).lower()}; planned by {by}."


def due_text(line: DueLineOut) -> str:
    """A due job in sentences, for a calendar."""
    rate = f"Rate {line.rate}." if line.rate else ""
    return " ".join(x for x in (f"{line.title}.", line.why, rate, line.delay, LABEL_LEADS) if x)
