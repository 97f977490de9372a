"""Quantities at the border: a value, as a number or as typed, and the key of a unit; outward also as text."""

from typing import Annotated

from ninja import Schema
from pydantic import StringConstraints

from core.rates.rate import Rate, RateUnit
from core.rates.working import Step, Term, unit_text
from core.units import Quantity, exact_number, positive, quantity, read_number, show_number

Name = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]
Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=4000)]


class QuantityIn(Schema):
    """`value` is a number or what was typed (`1 1/2`, `1,720`); `unit` is a unit's key."""

    value: float | str
    unit: str


class QuantityOut(Schema):
    """`text` is for people, `exact` for a field or a hover, `value` for drawing."""

    value: float
    unit: str
    symbol: str
    number: str
    exact: str
    text: str


class RateOut(Schema):
    value: float
    unit: str
    symbol: str
    number: str
    exact: str
    text: str


class TermOut(Schema):
    op: str
    text: str
    exact: str
    over: str
    under: str
    over_cancels: bool
    under_cancels: bool


class StepOut(Schema):
    title: str
    terms: list[TermOut]
    result: TermOut
    note: str


def number_in(field: str, value: float | str) -> float:
    """A number from a field. Raises InputError as `core.units.read_number`."""
    return read_number(value, field) if isinstance(value, str) else value


def quantity_in(field: str, given: QuantityIn, *dimensions: str) -> Quantity:
    """A checked quantity from a field. Raises InputError as `core.units.quantity`."""
    return quantity(field, number_in(field, given.value), given.unit, *dimensions)


def quantity_out(found: Quantity) -> QuantityOut:
    return QuantityOut(
        value=found.value, unit=found.unit.key, symbol=found.unit.symbol, number=show_number(found.value),
        exact=exact_number(found.value), text=str(found),
    )  # fmt: skip


def rate_in(field: str, given: QuantityIn) -> Rate:
    """A checked rate from a field. Raises InputError."""
    value = positive(field, number_in(field, given.value), most=1e9)
    return Rate(value, RateUnit.from_key(given.unit, field))


def rate_out(rate: Rate) -> RateOut:
    return RateOut(
        value=rate.value, unit=rate.unit.key, symbol=rate.unit.symbol, number=show_number(rate.value),
        exact=exact_number(rate.value), text=str(rate),
    )  # fmt: skip


def term_out(term: Term) -> TermOut:
    return TermOut(
        op=term.op, text=term.text, exact=exact_number(term.value), over=unit_text(term.over), under=term.under,
        over_cancels=term.over_cancels, under_cancels=term.under_cancels,
    )  # fmt: skip


def working_out(steps: tuple[Step, ...]) -> list[StepOut]:
    return [
        StepOut(title=s.title, terms=[term_out(t) for t in s.terms], result=term_out(s.result), note=s.note)
        for s in steps
    ]
