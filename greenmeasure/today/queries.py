"""The state of an account in one sentence, and the next thing to do."""

from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Entry
from greenmeasure.book.queries import entries, entry_out
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import asking
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.queries import rounds
from greenmeasure.rounds.schemas import RoundLineOut
from greenmeasure.season.queries import due_list
from greenmeasure.season.schemas import DueOut
from greenmeasure.shelf.models import Product
from greenmeasure.today.schemas import SetupStepOut, TodayOut
from greenmeasure.water.queries import open_tasks

SHOWN = 8
"""How many due jobs today's view shows."""


def today(account: Account) -> TodayOut:
    """The state in a sentence, the next thing to do, and what stands open."""
    setup = _setup(account)
    under_way = rounds(account, Round.Status.UNDER_WAY)
    latest = list(entries(account)[:5])
    due = due_list(account, whole=SHOWN)
    sentence, act, to = _next(setup, under_way, due, latest)
    return TodayOut(
        due=due.lines,
        more=due.more,
        fresh=due.fresh if due.fresh.station else None,
        sentence=sentence,
        act=act,
        to=to,
        setup=[] if all(s.done for s in setup) else setup,
        under_way=under_way,
        latest=[entry_out(e) for e in latest],
        tasks=open_tasks(account),
        machines=asking(account),
    )


def _setup(account: Account) -> list[SetupStepOut]:
    def some(model: type[Area] | type[Product] | type[Machine]) -> bool:
        return model.objects.of(account).kept().exists()

    return [
        SetupStepOut(key="ground", text="Add an area: its name, size, grass and height of cut", done=some(Area), to="ground/new"),
        SetupStepOut(key="shelf", text="Add a product: its rate as the label prints it", done=some(Product), to="shelf/new"),
        SetupStepOut(key="kit", text="Add a sprayer or a spreader", done=some(Machine), to="kit/new"),
        SetupStepOut(key="reckon", text="Reckon the first job", to="reckon", done=Round.objects.of(account).exists()),
    ]


def _next(setup: list[SetupStepOut], under_way: list[RoundLineOut], due: DueOut, latest: list[Entry]) -> tuple[str, str, str]:
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
    when = f"{last.applied_on.day} {last.applied_on:%B}"
    return f"Nothing is under way. The last job was {last.product_name} on {last.area_name}, {when}.", "Reckon a job", "reckon"
