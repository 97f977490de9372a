"""The text of a label as it is read: its lines, the statements that they make, and what is found in them."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from core.errors import Choice, InputError
from core.label.phrase import spelt
from core.units import NUMBER, read_number, tidy

A_STATEMENT = 800
"""Characters of the longest statement; what runs on is parted (ours)."""
LONGEST = 30_000
"""Characters of a text that are read: about ten printed pages (ours)."""


@dataclass(frozen=True)
class Found:
    """One thing that a label says: the card's field, its value as the card is typed, and the words it was taken from.

    `line` is the first line of those words, from 1. `choices` are the readings to pick from where the words can mean two things;
    the value is then the words as they stand.
    """

    field: str
    value: object
    source: str
    line: int
    choices: tuple[Choice, ...] = ()

    @property
    def row(self) -> dict[str, Any]:
        """Its value, where that is a row of the card: a content, a rate, a package."""
        assert isinstance(self.value, dict)
        return self.value


@dataclass(frozen=True)
class Statement:
    """A sentence of the text, or a row of a table: its words in one line, and the line that it begins in, from 1."""

    text: str
    line: int

    @cached_property
    def tidy(self) -> str:
        """Its words with one spelling for dashes, fractions and spaces."""
        return tidy(self.text)

    @cached_property
    def spelt(self) -> str:
        """Its words with one spelling for what labels write in several ways."""
        return spelt(self.text)

    @cached_property
    def readable(self) -> bool:
        """Whether every number in it is one to measure with."""
        try:
            for match in _NUMBER.finditer(self.tidy):
                read_number(match[0])
        except InputError:
            return False
        return True

    def found(self, field: str, value: object) -> Found:
        return Found(field, value, self.text, self.line)


_NUMBER = re.compile(NUMBER)
_GOES_ON = re.compile(
    r"(?:\b(?:a|an|the|of|at|to|per|with|in|on|than|every|for|from|and|or|within|least|most|exceed|apply|rate|is|are|be)|[,(/-])$",
    re.IGNORECASE,
)
_STARTS_LOW = re.compile(r"[a-z(](?![\w ,-]{1,40}:)(?!.*%\s*$)(?!.*\bingredients?\b)")
_WHOLE = re.compile(r"[.:;%!?]$")
_ENDS = re.compile(
    r"(?<!\bsq)(?<!\bft)(?<!\bfl)(?<!\boz)(?<!\blb)(?<!\blbs)(?<!\bgal)(?<!\bno)(?<!\breg)(?<!\bpt)(?<!\bqt)(?<!\bspp)(?<!\bvs)"
    r"(?<=[^.\s])[.;]\s+(?=[A-Z•*])",
    re.IGNORECASE,
)
_BULLET = re.compile(r"^[•·*–—-]+\s+")


def statements(text: str) -> list[Statement]:
    """The statements of a text: lines that were only wrapped are joined, several sentences of a line are parted."""
    return list(_statements(text[:LONGEST]))


def _statements(text: str) -> Iterator[Statement]:
    held, begun = "", 0
    for number, raw in enumerate(text.splitlines(), start=1):
        line = _BULLET.sub("", raw.strip())
        if held and line and len(held) < A_STATEMENT and not _BULLET.match(raw.strip()) and _wraps(held, line):
            held = f"{held} {line}"
            continue
        yield from _parted(held, begun)
        held, begun = line, number
    yield from _parted(held, begun)


def _wraps(before: str, line: str) -> bool:
    """Whether a line goes on with what the line before began."""
    return bool(_GOES_ON.search(before) or (_STARTS_LOW.match(line) and not _WHOLE.search(before)))


def _parted(text: str, line: int) -> Iterator[Statement]:
    for part in _ENDS.split(text):
        for i in range(0, len(part.strip()), A_STATEMENT):
            yield Statement(part.strip()[i : i + A_STATEMENT], line)
