"""The reckon line for an account: its names looked up, the core asked, one sentence and its working out."""

from greenmeasure.reckon.line.answering import answer_line
from greenmeasure.reckon.line.examples import examples

__all__ = ["answer_line", "examples"]
