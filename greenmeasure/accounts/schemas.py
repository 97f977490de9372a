"""What the accounts API takes and gives."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import Line, Name, Out

RoleName = Literal["viewer", "applicator", "manager"]
UnitsName = Literal["us", "metric"]
KeepsName = Literal["lawn", "grounds", "customers"]
Password = Annotated[str, Field(max_length=200)]


class SignInIn(In):
    """A sign-in name and its password."""

    username: Name
    password: Password


class PasswordIn(In):
    """A new password, and the one that it takes the place of."""

    old: Password
    new: Password


class ForgottenIn(In):
    """Whose password is forgotten."""

    username: Name


class ResetIn(In):
    """A new password, by the two parts of a link."""

    uid: Annotated[str, Field(max_length=40)]
    token: Annotated[str, Field(max_length=80)]
    password: Password


class MeIn(In):
    """What is known of oneself."""

    full_name: Name
    email: Annotated[str, Field(max_length=200)] = ""


class ToldOut(Out):
    """What came of it, in a sentence."""

    sentence: str


class LinkOut(Out):
    """A link to hand over, as a path of this server, and until when it holds."""

    path: str
    until: datetime


class CloseIn(In):
    """The account's name, typed, and one's password: what cannot be undone is asked twice."""

    name: Name
    password: Password


class OpenOut(Out):
    """A session: since when, when last used, from where, on what; `this` where it is the one that asks."""

    id: int
    at: datetime
    last_at: datetime
    address: str
    device: str
    this: bool


class OpenAccountIn(In):
    """A new account: what is kept, in which units, its first site's time zone and its first manager."""

    name: Name
    keeps: KeepsName = "grounds"
    units: UnitsName = "us"
    time_zone: Name = "UTC"
    username: Name
    full_name: Name
    password: Password


class AccountOut(Out):
    """An account as a member sees it; `whole` where they see all of its sites."""

    slug: str
    name: str
    keeps: KeepsName
    units: UnitsName
    time_zone: str
    currency: str
    role: RoleName
    whole: bool
    sites: list["SiteLineOut"]


class SiteLineOut(Out):
    """A site in a list to pick from."""

    id: int
    name: str
    time_zone: str


class SessionOut(Out):
    """`user` is empty when nobody is signed in. The CSRF token goes back as the header X-CSRFToken.

    `founding` says whether accounts can be opened here, `mail` whether a link for a new password can be sent, `sample` whether
    there is an account to look round in, `visits` whether one only does that.
    """

    user: str
    username: str
    email: str
    visits: bool
    founding: bool
    mail: bool
    sample: bool
    accounts: list[AccountOut]
    csrf: str


Licence = Annotated[str, Field(max_length=40)]


class MemberIn(In):
    """A new person; `site_ids` limit them to some sites, none means all."""

    username: Name
    full_name: Name
    password: Password
    role: RoleName
    site_ids: list[int] = []
    licence: Licence = ""


class RoleIn(In):
    """`site_ids` limit a member to some sites; none means all. A licence that is not told stays as it is."""

    version: int | None = None
    role: RoleName
    licence: Licence | None = None
    site_ids: list[int] = []


class MemberOut(Out):
    """A member of the account."""

    id: int
    version: int
    site_ids: list[int]
    username: str
    full_name: str
    role: RoleName
    licence: str
    you: bool


class SchoolOut(Out):
    """One answer to a house rule, with the reason its school gives."""

    key: str
    text: str
    reason: str


class QuestionOut(Out):
    """A question that practitioners answer differently, with what the answer changes."""

    key: str
    ask: str
    changes: str
    chosen: str
    default: str
    options: list[SchoolOut]


class DayOut(In):
    """A day of any year."""

    month: Annotated[int, Field(ge=1, le=12)]
    day: Annotated[int, Field(ge=1, le=31)]


class ClosedIn(In):
    """A time of year in which N or P₂O₅ may not go down, both ends in it."""

    what: str
    start: DayOut
    end: DayOut
    why: Name = ""


class SiteIn(In):
    """A place on which areas lie. `gate` says how one gets in, `agreed` what was agreed with its owner, `tell` what they must be
    told, `water` where tanks are filled and `fill_minutes` what a filling takes; `closed` what a by-law closes there.
    """

    version: int | None = None
    name: Name
    address: Line = ""
    contact: Line = ""
    gate: Line = ""
    agreed: Annotated[str, Field(max_length=500)] = ""
    tell: Line = ""
    water: Annotated[str, Field(max_length=200)] = ""
    fill_minutes: Annotated[int, Field(ge=0, le=240)] | None = None
    time_zone: Name = "UTC"
    closed: Annotated[list[ClosedIn], Field(max_length=12)] = []


class SiteOut(Out):
    """A site with how many areas lie on it."""

    id: int
    version: int
    name: str
    address: str
    contact: str
    gate: str
    agreed: str
    tell: str
    water: str
    fill_minutes: int | None
    time_zone: str
    closed: list[ClosedIn]
    areas: int


class HouseOut(Out):
    """The account's house rules."""

    questions: list[QuestionOut]
    answers: dict[str, str]
    season_start: DayOut
    version: int


class HouseIn(In):
    """Answers to the questions, and the day on which season totals begin."""

    version: int | None = None
    answers: dict[str, str] = {}
    season_start: DayOut = DayOut(month=1, day=1)
