"""What a check finds: something to refuse, to ask, to warn of, or to note."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import IntEnum


class Act(IntEnum):
    """What follows from a finding; the lower, the graver."""

    REFUSE = 0
    ASK = 1
    WARN = 2
    NOTE = 3

    @property
    def text(self) -> str:
        return self.name.lower()


@dataclass(frozen=True)
class Reading:
    """One way to read what was typed: `text` can be put in its place, `meaning` is what it would come to."""

    text: str
    meaning: str


@dataclass(frozen=True)
class Finding:
    """`key` names what was caught; `sentence` says it; `readings` are the ways out that can be picked."""

    key: str
    act: Act
    sentence: str
    readings: tuple[Reading, ...] = ()


def by_weight(findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """Each finding once, the gravest first."""
    return tuple(sorted(dict.fromkeys(findings), key=lambda f: f.act))
