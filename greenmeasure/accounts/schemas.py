"""What the accounts API takes and gives."""

from typing import Literal

from ninja import Schema

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
