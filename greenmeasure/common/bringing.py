"""What an import came to: the lines, what each would change, and the sentence that every import says."""

from collections import Counter
from collections.abc import Sequence
from typing import Annotated

from pydantic import Field

from greenmeasure.common.bounds import In
from greenmeasure.common.schemas import Out


class TextIn(In):
    """A file's text."""

    text: Annotated[str, Field(max_length=5_000_000)]


class LineChangeOut(Out):
    """What an import would do with one thing: add, change, leave or refuse it."""

    line: int
    name: str
    act: str
    changes: list[str]
    problems: list[str]


class ImportOut(Out):
    """An import, line by line. `refused` counts the lines that keep it from being done."""

    lines: list[LineChangeOut]
    refused: int
    sentence: str


def brought_in(lines: Sequence[LineChangeOut], keep: bool) -> str:
    """How many lines are to add, to change, as they are; with one at fault nothing is brought in."""
    count = Counter(line.act for line in lines)
    what = f"{count['add']} to add, {count['change']} to change, {count['same']} as they are"
    if count["refused"]:
        return f"{count['refused']} of {len(lines)} lines are at fault; nothing is brought in. {what}."
    return f"Done: {what}." if keep else f"{what}."
