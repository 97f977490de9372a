"""What the whole of an account answers with."""

from typing import Literal

from greenmeasure.common.schemas import Out

KindName = Literal["areas", "products", "machines", "vessels", "mixes"]


class AwayOut(Out):
    """Something that was put away, and on which day; `kind` names the door it is put back at."""

    kind: KindName
    id: int
    name: str
    day: str
