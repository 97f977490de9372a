"""Where something that is missing is put right: the act and the place in the interface, from what the core names."""

from pydantic import BaseModel

from core.errors import DENSITY, OUTPUT, Mend

_WAYS = {OUTPUT: ("Measure it now (5 min)", "kit/{id}/calibrate"), DENSITY: ("Enter its density", "shelf/{id}")}


class MendOut(BaseModel):
    """The act that puts something right, and the place in the account where it is done."""

    act: str
    to: str


def mend_out(mend: Mend | None) -> MendOut | None:
    """The way to where it is put right; None where there is no card to go to."""
    if mend is None or mend.id is None:
        return None
    act, to = _WAYS[mend.what]
    return MendOut(act=act, to=to.format(id=mend.id))
