"""What a check finds: something to refuse, to ask, to warn of, or to note."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import IntEnum

from core.errors import Choice, Mend


class Weight(IntEnum):
    """What follows from a finding; the lower, the graver."""

    REFUSE = 0
    ASK = 1
    WARN = 2
    NOTE = 3

    @property
    def text(self) -> str:
        return self.name.lower()


@dataclass(frozen=True)
class Finding:
    """`key` names what was caught; `sentence` says it; `readings` are the ways out that can be picked, `mend` where what is
    missing is put right.
    """

    key: str
    act: Weight
    sentence: str
    readings: tuple[Choice, ...] = ()
    mend: Mend | None = None


def by_weight(findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """Each finding once, the gravest first."""
    return tuple(sorted(dict.fromkeys(findings), key=lambda f: f.act))
