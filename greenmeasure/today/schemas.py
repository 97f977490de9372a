"""What today's view is given."""

from greenmeasure.book.schemas import ApplicationOut
from greenmeasure.common.findings import FindingOut
from greenmeasure.common.schemas import Out
from greenmeasure.rounds.schemas import RoundLineOut
from greenmeasure.scouting.schemas import FollowDueOut
from greenmeasure.season.schemas import DueLineOut
from greenmeasure.sky.schemas import FreshOut, LockOut
from greenmeasure.trials.schemas import TrialDueOut
from greenmeasure.water.schemas import TaskOut


class SetupStepOut(Out):
    """One step of setting an account up."""

    key: str
    text: str
    done: bool
    to: str


class TodayOut(Out):
    """`sentence` says the state and the next thing; `to` is where it is done, `act` the words on its button.

    `due` are the jobs that are due, with `more` beyond them; `fresh` says how fresh the weather is, None without a station;
    `tasks` are to be seen to on the ground, `machines` what the kit asks for, `locks` what must not happen on
    the ground and until when; `amiss` is what in the data cannot be, and how it is read.
    """

    sentence: str
    act: str
    to: str
    setup: list[SetupStepOut]
    under_way: list[RoundLineOut]
    due: list[DueLineOut]
    follow: list[FollowDueOut]
    trials: list[TrialDueOut]
    more: int
    fresh: FreshOut | None
    latest: list[ApplicationOut]
    tasks: list[TaskOut]
    machines: list[FindingOut]
    locks: list[LockOut]
    amiss: list[FindingOut]
