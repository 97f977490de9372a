"""Plain arithmetic as one types it: numbers and quantities, + − × ÷, brackets, and a share of something.

    sum    = term {("+" | "-") term}
    term   = factor {("x" | "×" | "*" | "/" | "÷") factor}
    factor = number [unit] | "(" sum ")"
    sum    = number "%" "of" sum

Two lengths multiply to an area; a bare number times a length is a side of it too (30 x 40 ft). Lines are not evaluated as code.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass

from core.errors import InputError, NotUnderstood
from core.units import AREA, LENGTH, NUMBER, UNITS, Quantity, Unit, positive, read_number, read_unit_at, show_number, tidy

MOST_TERMS = 40
"""Numbers in one sum (ours)."""
_MONEY = re.compile(r"[$€£]\s?(?=[\d.])")
_NUMBER = re.compile(NUMBER)
_OPERATOR = re.compile(
    r"\s*(?:(?P<times>[x×*]|times\b)|(?P<over>[/÷]|divided by\b)|(?P<plus>\+|plus\b)|(?P<minus>-|minus\b|less\b))\s*", re.I
)
_SIGNS = {"times": "×", "over": "÷", "plus": "+", "minus": "−"}
_PERCENT_OF = re.compile(r"([\d.]+)\s*%\s+of\s+(.+)", re.IGNORECASE)
_SQUARES = {"ft": "ft2", "in": "ft2", "yd": "ft2", "m": "m2", "cm": "m2", "mm": "m2"}
"""In what an area is told whose sides are in a length."""


@dataclass(frozen=True)
class Value:
    """A number, or a quantity of one unit."""

    number: float
    unit: Unit | None = None

    def __str__(self) -> str:
        return f"{show_number(self.number, 6)} {self.unit.symbol}" if self.unit else show_number(self.number, 6)


@dataclass(frozen=True)
class Sum:
    """A sum as it was read, and what it comes to."""

    text: str
    result: Value


def find_sum(text: str) -> Sum | None:
    """The sum that a text is; None where it is none: a lone number or quantity, or anything that is not of a sum.

    Raises:
        InputError: a division by zero, unlike things added, numbers that measure nothing.
    """
    clean = _MONEY.sub("", tidy(text)).strip(" =?")
    if match := _PERCENT_OF.fullmatch(clean):
        whole = _Reader(match[2]).whole()
        if whole is None:
            return None
        share = read_number(match[1])
        return Sum(f"{show_number(share)} % of {whole[0]}", Value(whole[1].number * share / 100, whole[1].unit))
    reader = _Reader(clean)
    found = reader.whole()
    return Sum(*found) if found and reader.operators else None


class _NoSum(Exception):
    """The text is no sum."""


class _Reader:
    def __init__(self, text: str) -> None:
        self.text, self.at, self.operators, self.terms = text, 0, 0, 0

    def whole(self) -> tuple[str, Value] | None:
        """What the whole text says and comes to; None where it is no sum."""
        try:
            said, value = self.sum()
        except _NoSum:
            return None
        return (said, value) if self.at == len(self.text) else None

    def sum(self) -> tuple[str, Value]:
        return self._chain(self.term, {"plus": _plus, "minus": _minus})

    def term(self) -> tuple[str, Value]:
        return self._chain(self.factor, {"times": _times, "over": _over})

    def _chain(
        self, part: "Callable[[], tuple[str, Value]]", does: "dict[str, Callable[[Value, Value], Value]]"
    ) -> tuple[str, Value]:
        said, value = part()
        while (match := _OPERATOR.match(self.text, self.at)) and match.lastgroup in does:
            self.at, self.operators = match.end(), self.operators + 1
            text, other = part()
            value = does[match.lastgroup](value, other)
            said = f"{said} {_SIGNS[match.lastgroup]} {text}"
        return said, value

    def factor(self) -> tuple[str, Value]:
        self.at += len(self.text[self.at :]) - len(self.text[self.at :].lstrip())
        if self.text[self.at : self.at + 1] == "(":
            self.at += 1
            said, value = self.sum()
            if self.text[self.at : self.at + 1] != ")":
                raise _NoSum
            self.at += 1
            return f"({said})", value
        match = _NUMBER.match(self.text, self.at)
        self.terms += 1
        if not match or self.terms > MOST_TERMS:
            raise _NoSum
        self.at = match.end()
        value = Value(positive("line", read_number(match[0], "line"), zero=True), self._unit())
        return str(value), value

    def _unit(self) -> Unit | None:
        start = self.at + len(self.text[self.at :]) - len(self.text[self.at :].lstrip())
        if (
            start >= len(self.text)
            or _OPERATOR.match(self.text, self.at)
            or (not self.text[start].isalpha() and self.text[start] not in "'\"")
        ):
            return None
        try:
            found, self.at = read_unit_at(self.text, start, "line")
        except NotUnderstood:
            raise _NoSum from None
        return found


def _times(a: Value, b: Value) -> Value:
    if a.unit and b.unit:
        if a.unit.dimension == b.unit.dimension == LENGTH:
            unit = UNITS[_SQUARES.get(a.unit.key, "m2")]
            return Value(a.number * a.unit.size * b.number * b.unit.size / unit.size, unit)
        raise InputError("line", f"{a} × {b}", f"{a} × {b} measures nothing.", "Multiply by a number, or two lengths to an area.")
    if b.unit and b.unit.dimension == LENGTH:
        return _times(Value(a.number, b.unit), b)
    return Value(a.number * b.number, a.unit or b.unit)


def _over(a: Value, b: Value) -> Value:
    if b.number == 0:
        raise InputError("line", f"{a} ÷ {b}", f"{a} ÷ 0 is no number.", "Check the sum.")
    if a.unit and b.unit:
        if a.unit.dimension == b.unit.dimension:
            return Value(a.number * a.unit.size / (b.number * b.unit.size))
        if (a.unit.dimension, b.unit.dimension) == (AREA, LENGTH):
            unit = next((UNITS[k] for k, square in _SQUARES.items() if square == a.unit.key), UNITS["m"])
            return Value(a.number * a.unit.size / (b.number * b.unit.size) / unit.size, unit)
        raise _NoSum  # an amount over an area is a rate, and no matter of plain sums
    if b.unit:
        raise _NoSum
    return Value(a.number / b.number, a.unit)


def _plus(a: Value, b: Value) -> Value:
    return _added(a, b, 1.0, "+")


def _minus(a: Value, b: Value) -> Value:
    return _added(a, b, -1.0, "−")


def _added(a: Value, b: Value, sign: float, symbol: str) -> Value:
    """Added.

    Args:
        a: the first.
        b: the second.
        sign: of the second [1].
        symbol: of the sum.
    """
    if a.unit and b.unit and a.unit.dimension == b.unit.dimension:
        return Value(a.number + sign * Quantity(b.number, b.unit).to(a.unit).value, a.unit)
    if a.unit or b.unit:
        raise InputError("line", f"{a} {symbol} {b}", f"{a} and {b} are not alike.", "Add what measures the same.")
    return Value(a.number + sign * b.number)
