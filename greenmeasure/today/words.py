"""Today as one says it: the state in a sentence, the next thing to do, and the first steps of an account."""

from core.readable import joined
from greenmeasure.book.models import Application
from greenmeasure.common.rows import Amiss
from greenmeasure.rounds.schemas import RoundLineOut
from greenmeasure.season.schemas import DueOut
from greenmeasure.today.schemas import SetupStepOut

SETUP = (
    ("ground", "Add an area: its name and its size", "start"),
    ("shelf", "Add a product: paste or type what its label says", "start"),
    ("kit", "Add a sprayer or a spreader", "start"),
    ("reckon", "Reckon the first job", "reckon"),
)
"""The first steps of an account: key, what to do, where."""


def setup_steps(done: set[str]) -> list[SetupStepOut]:
    """The first steps of an account, in order, those in `done` ticked."""
    return [SetupStepOut(key=key, text=text, to=to, done=key in done) for key, text, to in SETUP]


def amiss_text(found: Amiss) -> str:
    """A value in the data that cannot be, and what is made of it."""
    where = f"{found.table[:1].upper()}{found.table[1:]} of {found.row}, {found.column}"
    return f"{where}: {found.value} cannot be and is read as {found.read_as}. Change it, or take it out."


def next_thing(
    setup: list[SetupStepOut], under_way: list[RoundLineOut], due: DueOut, latest: list[Application]
) -> tuple[str, str, str]:
    """The state in a sentence, what to do next, and where that is done."""
    if under_way:
        first = under_way[0]
        count = "One round is" if len(under_way) == 1 else f"{len(under_way)} rounds are"
        state = f"{first.loads_done} of {first.loads} {'load' if first.loads == 1 else 'loads'} out"
        return f"{count} under way: {first.title}, {state}.", "Go on with it", f"round/{first.id}"
    missing = next((s for s in setup if not s.done), None)
    if missing and missing.key != "reckon":
        begun = "Nothing is set up yet." if not any(s.done for s in setup) else "Setting up goes on."
        return f"{begun} {missing.text}.", missing.text.split(":")[0], missing.to
    if due.lines:
        return due.sentence, "See what is due", "season"
    if not latest:
        return "Everything is in place for the first job.", "Reckon a job", "reckon"
    last = latest[0]
    name = joined([e.product_name for e in last.entries.all()])
    when = f"{last.applied_on.day} {last.applied_on:%B}"
    return f"Nothing is under way. The last job was {name} on {last.area_name}, {when}.", "Reckon a job", "reckon"
