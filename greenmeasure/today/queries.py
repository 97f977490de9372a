"""The state of an account in one sentence, and the next thing to do."""

from core.findings import Finding, Weight
from greenmeasure.accounts.models import PARTS_OF, Account
from greenmeasure.book.queries import application_out, applications
from greenmeasure.common import clock
from greenmeasure.common.findings import FindingOut, finding_out
from greenmeasure.common.kept import Kept, kept
from greenmeasure.common.rows import Amiss, amiss
from greenmeasure.ground.models import Area
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import asking
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.queries import rounds
from greenmeasure.scouting.followups import due_followups
from greenmeasure.season.queries import due_list
from greenmeasure.shelf.models import Product
from greenmeasure.sky.locks import locks
from greenmeasure.today.schemas import TodayOut
from greenmeasure.today.words import amiss_text, next_thing, setup_steps
from greenmeasure.trials.queries import due_trials
from greenmeasure.water.queries import open_tasks

SHOWN = 8
"""How many due jobs today's view shows."""


def today(account: Account) -> TodayOut:
    """The state in a sentence, the next thing to do, and what stands open."""
    setup = setup_steps(_set_up(account))
    under_way = rounds(account, Round.Status.UNDER_WAY)
    latest = list(applications(account).select_related("account", "area__site").prefetch_related("entries", "formers")[:5])
    due = due_list(account, whole=SHOWN)
    sentence, act, to = next_thing(setup, under_way, due, latest)
    return TodayOut(
        due=due.lines,
        follow=list(due_followups(account, clock.today(account))),
        trials=due_trials(account),
        more=due.more,
        fresh=due.fresh if due.fresh.station else None,
        sentence=sentence,
        act=act,
        to=to,
        setup=[] if all(s.done for s in setup) else setup,
        under_way=under_way,
        latest=[application_out(a) for a in latest],
        tasks=open_tasks(account),
        machines=asking(account),
        locks=locks(account, clock.now()),
        amiss=_amiss(account),
    )


def _amiss(account: Account) -> list[FindingOut]:
    """Values that cannot be, wherever they stand; of each part they are looked for anew when it changes."""
    return [finding_out(Finding("amiss", Weight.WARN, amiss_text(a))) for read in AMISS for a in read(account)]


HOLDERS = ("ground", "shelf", "kit")
"""What a row without a name is called after lies in these."""


def _amiss_of(app: str) -> Kept[Account, [], list[Amiss]]:
    return kept(*PARTS_OF[app], *HOLDERS)(lambda account: amiss(account, app))


AMISS = tuple(_amiss_of(app) for app in PARTS_OF)


def _set_up(account: Account) -> set[str]:
    """Which of the first steps are done, by their keys."""

    def some(model: type[Area] | type[Product] | type[Machine]) -> bool:
        return model.objects.of(account).kept().exists()

    done = {"ground": some(Area), "shelf": some(Product), "kit": some(Machine), "reckon": Round.objects.of(account).exists()}
    return {key for key, is_done in done.items() if is_done}
