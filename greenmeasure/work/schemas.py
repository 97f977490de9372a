"""What the API of other work takes and gives."""

from datetime import date, datetime
from typing import Annotated

from pydantic import Field

from greenmeasure.common.bounds import Id, In, Word
from greenmeasure.common.schemas import Line, OptionOut, Out, QuantityIn


class WorkToldIn(In):
    """What is told of a work: a quantity where its ask has units, else `word`, a choice's key or words."""

    key: Word
    quantity: QuantityIn | None = None
    word: Line = ""


class WorkIn(In):
    """Work on one or more areas: today and now, unless a day or an hour is said. `done` is False for what was not done."""

    kind: Word
    area_ids: Annotated[list[Id], Field(min_length=1, max_length=200)]
    on: date | None = None
    clock: Word = ""
    done: bool = True
    told: Annotated[list[WorkToldIn], Field(max_length=12)] = []
    note: Line = ""


class StrikeIn(In):
    """Why a work is struck."""

    why: Line


class WorkAskOut(Out):
    """What may be told of a work: a quantity in one of `units`, one of `choices`, or words."""

    key: str
    name: str
    units: list[OptionOut]
    choices: list[OptionOut]


class DoingOut(Out):
    """A kind of work."""

    key: str
    name: str
    asks: list[WorkAskOut]


class WorkToldOut(Out):
    """What was told of a work, as a form takes it back."""

    key: str
    value: str
    unit: str
    word: str


class WorkOut(Out):
    """A work in words; `against` are the locks it was inside of, and one that was struck says by whom and why."""

    id: int
    area_id: int
    area: str
    kind: str
    name: str
    text: str
    on: date
    day: str
    clock: str
    done: bool
    told: list[WorkToldOut]
    against: list[str]
    note: str
    by: str
    noted_at: datetime
    struck: str
