"""What today's view is given."""

from ninja import Schema

from greenmeasure.book.schemas import EntryOut
from greenmeasure.rounds.schemas import RoundLineOut


class StepOut(Schema):
    """One step of setting a club up."""

    key: str
    text: str
    done: bool
    to: str


class TodayOut(Schema):
    """`sentence` says the state and the next thing; `to` is where it is done, `act` the words on its button."""

    sentence: str
    act: str
    to: str
    setup: list[StepOut]
    under_way: list[RoundLineOut]
    latest: list[EntryOut]
