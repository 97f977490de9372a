"""Quantities at the border: a value, as a number or as typed, and the key of a unit; outward also as text."""

from decimal import Decimal, InvalidOperation
from typing import Annotated, Any, Self

from pydantic import BaseModel, ConfigDict, ModelWrapValidatorHandler, StringConstraints, ValidationError, model_validator
from pydantic_core import PydanticCustomError

from core.errors import InputError
from core.label.rate import LabelRate, Rate, RateUnit, nice_step
from core.units import Quantity, bounded, exact_number, positive, read_number, read_signed, show_number, typed_quantity
from core.working import Step, Term, unit_text
from greenmeasure.common.bounds import In

Name = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]
Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=4000)]


class Out(BaseModel):
    """What goes out: a plain pydantic model, which is built several times faster than a ninja Schema, and when first used."""

    model_config = ConfigDict(defer_build=True)


class OptionOut(Out):
    """Something to pick."""

    key: str
    text: str


class FactOut(Out):
    """A name and what it is, in words."""

    name: str
    text: str


class QuantityIn(In):
    """`value` is a number or what was typed (`1 1/2`, `1,720`); `unit` is a unit's key."""

    value: float | str
    unit: str

    @model_validator(mode="wrap")
    @classmethod
    def _one_field(cls, given: Any, read: ModelWrapValidatorHandler[Self]) -> Self:
        """A form has one field for it, so that a fault of its number or its unit is the quantity's."""
        try:
            return read(given)
        except ValidationError as wrong:
            last = wrong.errors(include_url=False)[-1]
            raise PydanticCustomError(last["type"], last["msg"], last.get("ctx")) from None


class QuantityOut(Out):
    """`text` is for people, `exact` for a field or a hover, `value` for drawing."""

    value: float
    unit: str
    symbol: str
    number: str
    exact: str
    text: str


class RateOut(Out):
    """A rate: `text` for people, `exact` for a field or a hover, `value` for drawing."""

    value: float
    unit: str
    symbol: str
    number: str
    exact: str
    text: str


class RuleOut(Out):
    """A rate rule to draw: the label's band from `low` to `high`, the marker at `value`, `scale` its far end.

    `step` is what an arrow key moves the marker by; `binds` says whether going above `high` is refused.
    """

    low: float
    high: float
    value: float
    scale: float
    step: float
    symbol: str
    binds: bool


class TermOut(Out):
    """One term of a working, with the units that cancel."""

    op: str
    text: str
    exact: str
    over: str
    under: str
    over_cancels: bool
    under_cancels: bool


class StepOut(Out):
    """One line of a working."""

    title: str
    terms: list[TermOut]
    result: TermOut
    note: str


def rule_out(label: LabelRate, value: float, binds: bool) -> RuleOut:
    """The rate rule of a label with its marker at `value`, in the unit of the label's highest rate."""
    low, high = label.lowest.value, label.highest.value
    return RuleOut(
        low=low,
        high=high,
        value=value,
        scale=max(high * 1.25, min(value * 1.1, high * 3)),
        step=nice_step(low, high),
        symbol=label.highest.unit.symbol,
        binds=binds,
    )


def number_in(field: str, value: float | str) -> float:
    """A number from a field. Raises InputError as `core.units.read_number`."""
    return read_number(value, field) if isinstance(value, str) else bounded(field, value)


def signed_in(field: str, value: float | str) -> float:
    """A number from a field that may be below zero. Raises InputError as `core.units.read_signed`."""
    return read_signed(value, field) if isinstance(value, str) else bounded(field, value)


def quantity_in(field: str, given: QuantityIn, *dimensions: str) -> Quantity:
    """A checked quantity from a field; what was typed may carry its own unit (`2 qt`), which then counts.

    Raises:
        InputError: as `core.units.typed_quantity`.
    """
    return typed_quantity(field, given.value, given.unit, *dimensions)


def filled(given: QuantityIn | None) -> QuantityIn | None:
    """An optional field, or None where nothing was typed in it."""
    return given if given and str(given.value).strip() else None


def quantity_out(found: Quantity) -> QuantityOut:
    """A quantity at the border."""
    return QuantityOut(
        value=found.value,
        unit=found.unit.key,
        symbol=found.unit.symbol,
        number=show_number(found.value),
        exact=exact_number(found.value),
        text=str(found),
    )


def rate_in(field: str, given: QuantityIn) -> Rate:
    """A checked rate from a field. Raises InputError."""
    value = positive(field, number_in(field, given.value), most=1e9)
    return Rate(value, RateUnit.from_key(given.unit, field))


def rate_out(rate: Rate) -> RateOut:
    """A rate at the border."""
    return RateOut(
        value=rate.value,
        unit=rate.unit.key,
        symbol=rate.unit.symbol,
        number=show_number(rate.value),
        exact=exact_number(rate.value),
        text=str(rate),
    )


def term_out(term: Term) -> TermOut:
    """A term of a working at the border."""
    return TermOut(
        op=term.op,
        text=term.text,
        exact=repr(term.value),
        over=unit_text(term.over),
        under=term.under,
        over_cancels=term.over_cancels,
        under_cancels=term.under_cancels,
    )


def working_out(steps: tuple[Step, ...]) -> list[StepOut]:
    """A working at the border."""
    return [StepOut(title=s.title, terms=[term_out(t) for t in s.terms], result=term_out(s.result), note=s.note) for s in steps]


def money_in(field: str, given: str) -> Decimal:
    """An amount of money from a field, to the cent. Raises InputError."""
    text = given.strip().lstrip("$€£").replace(",", "")
    try:
        price = Decimal(text)
    except InvalidOperation:
        raise InputError(field, given, f"“{given}” is no price.", "Write it like 84.50.") from None
    if not price.is_finite():
        raise InputError(field, given, f"“{given}” is no price.", "Write it like 84.50.")
    positive(field, float(price), most=1e6)
    return price.quantize(Decimal("0.01"))
