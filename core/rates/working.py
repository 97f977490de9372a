"""The working of a result as data: one operation a line, with units that cancel, rounded for no one."""

from collections import Counter
from dataclasses import dataclass, replace

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


def times(value: float, over: str = "", under: str = "") -> Term:
    return Term(value, over, under, "×")


def divided_by(value: float, over: str = "", under: str = "") -> Term:
    return Term(value, over, under, "÷")


def plus(value: float, over: str = "") -> Term:
    return Term(value, over, "", "+")


def line(title: str, *terms: Term, result: Term, note: str = "") -> Step:
    """A line of working whose cancelling units are struck out."""
    return Step(title, _strike(terms), result, note)


def _strike(terms: tuple[Term, ...]) -> tuple[Term, ...]:
    above: Counter[str] = Counter()
    below: Counter[str] = Counter()
    for term in terms:
        up, down = (term.under, term.over) if term.op == "÷" else (term.over, term.under)
        above[up] += 1
        below[down] += 1
    pairs = {unit: min(above[unit], below[unit]) for unit in above if unit and below[unit]}
    left_above, left_below = dict(pairs), dict(pairs)
    struck = []
    for term in terms:
        turned = term.op == "÷"
        over = _take(left_below if turned else left_above, term.over)
        under = _take(left_above if turned else left_below, term.under)
        struck.append(replace(term, over_cancels=over, under_cancels=under))
    return tuple(struck)


def _take(left: dict[str, int], unit: str) -> bool:
    if not left.get(unit):
        return False
    left[unit] -= 1
    return True
