"""What the accounts API takes and gives."""

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from greenmeasure.common.schemas import Name, Out

RoleName = Literal["viewer", "applicator", "manager"]
UnitsName = Literal["us", "metric"]


class SignInIn(Schema):
    username: Name
    password: str


class FoundIn(Schema):
    name: Name
    units: UnitsName = "us"
    time_zone: Name = "UTC"
    username: Name
    full_name: Name
    password: str


class ClubOut(Out):
    slug: str
    name: str
    units: UnitsName
    time_zone: str
    currency: str
    role: RoleName


class SessionOut(Out):
    """`user` is empty when nobody is signed in. The CSRF token goes back as the header X-CSRFToken."""

    user: str
    username: str
    clubs: list[ClubOut]
    csrf: str


class MemberIn(Schema):
    username: Name
    full_name: Name
    password: str
    role: RoleName


class RoleIn(Schema):
    role: RoleName


class MemberOut(Out):
    id: int
    username: str
    full_name: str
    role: RoleName
    you: bool


class SchoolOut(Out):
    """One answer to a house rule, with the reason its school gives."""

    key: str
    text: str
    reason: str


class QuestionOut(Out):
    key: str
    ask: str
    changes: str
    chosen: str
    default: str
    options: list[SchoolOut]


class DayOut(Out):
    """A day of any year."""

    month: int
    day: int


class ClosedIn(Out):
    """A time of year in which N or P₂O₅ may not go down, both ends in it."""

    what: str
    start: DayOut
    end: DayOut
    why: Name = ""


class HouseOut(Out):
    questions: list[QuestionOut]
    closed: list[ClosedIn]
    season_start: DayOut


class HouseIn(Schema):
    answers: dict[str, str] = {}
    closed: Annotated[list[ClosedIn], Field(max_length=12)] = []
    season_start: DayOut = DayOut(month=1, day=1)
