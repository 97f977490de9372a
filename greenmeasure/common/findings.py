"""Findings at the border."""

from typing import Literal, cast

from core.findings import Finding
from greenmeasure.common.mending import MendOut, mend_out
from greenmeasure.common.schemas import Out

ActName = Literal["refuse", "ask", "warn", "note"]


class ReadingOut(Out):
    """A way out of a finding that can be picked."""

    text: str
    meaning: str


class FindingOut(Out):
    """Something a check found; `readings` can be put into the rate field, `mend` leads to where it is put right."""

    key: str
    act: ActName
    sentence: str
    readings: list[ReadingOut]
    mend: MendOut | None = None


def finding_out(f: Finding) -> FindingOut:
    """A finding at the border."""
    return FindingOut(
        key=f.key,
        act=cast(ActName, f.act.text),
        sentence=f.sentence,
        readings=[ReadingOut(text=r.text, meaning=r.meaning) for r in f.readings],
        mend=mend_out(f.mend),
    )
