"""The working of a result as data: one operation a line, with units that cancel, rounded for no one."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from core.units import show_number


@dataclass(frozen=True)
class Term:
    """One factor of a line: `op` joins it to the one before; `over` and `under` are its unit's two halves.

    `over_cancels` and `under_cancels` say which halves are struck out by another term of the line.
    """

    value: float
    over: str = ""
    under: str = ""
    op: str = ""
    over_cancels: bool = False
    under_cancels: bool = False

    @property
    def text(self) -> str:
        return show_number(self.value, 5)

    def __str__(self) -> str:
        unit = f"{unit_text(self.over)}/{self.under}" if self.under else unit_text(self.over)
        return f"{self.op} {self.text} {unit}".strip()


def unit_text(symbol: str) -> str:
    """A unit that begins with a number, such as 1000 ft², in brackets, so that it is not read as part of the value."""
    return f"({symbol})" if symbol[:1].isdigit() else symbol


@dataclass(frozen=True)
class Step:
    """One line of working: `title` says what is worked out, `terms` how, `result` what came of it."""

    title: str
    terms: tuple[Term, ...]
    result: Term
    note: str = ""

    def __str__(self) -> str:
        return f"{self.title}: {' '.join(map(str, self.terms))} = {self.result}"


Later = Callable[[], Step]
"""A line that is written when somebody reads it: most results are only compared, and a line costs more than its sum."""


def written(lines: Sequence[Later]) -> tuple[Step, ...]:
    """The lines, written."""
    return tuple(one() for one in lines)


def times(value: float, over: str = "", under: str = "") -> Term:
    """Times.

    Args:
        value: in the unit of the term [its unit].
        over: the unit above.
        under: the unit below.
    """
    return Term(value, over, under, "×")


def divided_by(value: float, over: str = "", under: str = "") -> Term:
    """Divided by.

    Args:
        value: in the unit of the term [its unit].
        over: the unit above.
        under: the unit below.
    """
    return Term(value, over, under, "÷")


def plus(value: float, over: str = "") -> Term:
    """Plus.

    Args:
        value: in the unit of the term [its unit].
        over: the unit above.
    """
    return Term(value, over, "", "+")


def minus(value: float, over: str = "") -> Term:
    """Minus.

    Args:
        value: in the unit of the term [its unit].
        over: the unit above.
    """
    return Term(value, over, "", "−")


def line(title: str, *terms: Term, result: Term, note: str = "") -> Step:
    """A line of working whose cancelling units are struck out."""
    return Step(title, _strike(terms), result, note)


def _strike(terms: tuple[Term, ...]) -> tuple[Term, ...]:
    """Strike each unit that stands once above and once below the line, pair by pair."""
    above = [(i, True) if t.op != "÷" else (i, False) for i, t in enumerate(terms)]
    below = [(i, not over) for i, over in above]
    struck: set[tuple[int, bool]] = set()
    for top in above:
        unit = _half(terms, top)
        foot = next((b for b in below if unit and b not in struck and _half(terms, b) == unit), None)
        if foot:
            struck |= {top, foot}
    return tuple(
        Term(t.value, t.over, t.under, t.op, (i, True) in struck, (i, False) in struck)
        if (i, True) in struck or (i, False) in struck
        else t
        for i, t in enumerate(terms)
    )


def _half(terms: tuple[Term, ...], place: tuple[int, bool]) -> str:
    """The unit at a place: of a term, its upper half (True) or its lower."""
    term = terms[place[0]]
    return term.over if place[1] else term.under
