"""A label's rules at the border: the schema, the form's fields and the stored form, made from the core's table of rules."""

from collections.abc import Mapping
from datetime import date
from typing import TYPE_CHECKING, Annotated, Any

from pydantic import Field, ValidationError, create_model

from core.label.rules import DROPLETS, Helper, Leaf, Rules
from core.label.table import RULES, UNITS_OF, Kind, Rule, blank, read, said
from core.units import UNITS
from greenmeasure.common.bounds import In
from greenmeasure.common.errors import Faults
from greenmeasure.common.schemas import Line, Name, OptionOut, Out, QuantityIn, Text


class IncompatibleIn(In):
    """What must not meet the product within `days`: a product, an active or a group code; `product_id` where it is a card."""

    what: Name
    days: int = 0
    note: Name = ""
    product_id: int | None = None


US = {"degF", "mph", "in", "ft"}
"""Units of rules that a US account's form offers first."""
_TYPES: dict[Kind, tuple[Any, Any]] = {
    **dict.fromkeys(UNITS_OF, (QuantityIn | None, None)),
    **dict.fromkeys((Kind.RATE, Kind.ACTIVE_RATE, Kind.LINE, Kind.NAMES), (Line, "")),
    Kind.TEXT: (Text, ""),
    Kind.LEAF: (str, Leaf.EITHER.value),
    Kind.HELPER: (str, Helper.EITHER.value),
    Kind.DROPLETS: (str, ""),
    Kind.COUNT: (int | None, None),
    Kind.DAY: (date | None, None),
    Kind.APART: (Annotated[list[IncompatibleIn], Field(max_length=30)], []),
}

if TYPE_CHECKING:

    class RulesIn(In):
        """The fields of the table; a type checker knows the one that is read by its name."""

        incompatible: list[IncompatibleIn] = []
else:
    RulesIn = create_model(
        "RulesIn",
        __base__=In,
        __doc__="A label's rules as typed. What is left empty is not ruled; temperatures are in degF or degC.",
        **{r.key: _TYPES[r.kind] for r in RULES},
    )


class RuleSaidOut(Out):
    """One rule of the label in a sentence; `key` is the field it came from."""

    key: str
    text: str


class RuleFieldOut(Out):
    """A rule as a field of the card's form; `units` with the account's own first."""

    key: str
    kind: str
    section: str
    label: str
    hint: str
    example: str
    units: list[OptionOut]
    options: list[OptionOut]


def read_rules(data: RulesIn, faults: Faults, actives: tuple[str, ...] = ()) -> Rules:
    """The core's rules from what was typed; faults are gathered under `rules.…`."""
    found = read(data.model_dump(), actives)
    faults.found += [f.on(f"rules.{f.field}") for f in found.faults]
    return found.rules


def rules_of(stored: Mapping[str, Any]) -> Rules:
    """The core's rules from what is stored; what can no longer be read is in their `unreadable`."""
    return read(stored).rules


def stored_rules(data: RulesIn) -> dict[str, Any]:
    """Typed rules as they are stored: only what is ruled."""
    return {k: v for k, v in data.model_dump(mode="json").items() if not blank(v)}


def typed_rules(stored: Mapping[str, Any]) -> RulesIn:
    """Stored rules as the form takes them; one that is no longer of its type is left out, and told by `rules_said`."""
    try:
        return RulesIn(**stored)
    except ValidationError as wrong:
        broken = {str(e["loc"][0]) for e in wrong.errors()}
        return RulesIn(**{k: v for k, v in stored.items() if k not in broken})


def rules_said(stored: Mapping[str, Any]) -> list[RuleSaidOut]:
    """The label's rules in sentences, in the order in which they matter out there."""
    return [RuleSaidOut(key=s.key, text=s.text) for s in said(stored)]


def rule_fields(us: bool) -> list[RuleFieldOut]:
    """The form's fields, in the order of the table."""
    return [
        RuleFieldOut(
            key=r.key,
            kind="quantity" if r.kind.quantity else r.kind.value,
            section=r.section,
            label=r.field,
            hint=r.hint,
            example=r.example,
            units=_units(r, us),
            options=_options(r),
        )
        for r in RULES
    ]


def _units(rule: Rule, us: bool) -> list[OptionOut]:
    keys = UNITS_OF.get(rule.kind, ())
    symbols = {"degF": "°F", "degC": "°C"}
    ordered = sorted(keys, key=lambda k: (k in US) != us) if US & set(keys) else list(keys)
    return [OptionOut(key=k, text=symbols.get(k) or UNITS[k].symbol) for k in ordered]


def _options(rule: Rule) -> list[OptionOut]:
    return [OptionOut(key=key, text=text) for key, text in _WORDS.get(rule.kind, {}).items()]


_WORDS: dict[Kind, dict[str, str]] = {
    Kind.LEAF: {Leaf.EITHER.value: "Dry or wet", Leaf.DRY.value: "Dry", Leaf.WET.value: "Wet"},
    Kind.HELPER: {Helper.EITHER.value: "None", Helper.NEEDED.value: "Needed", Helper.FORBIDDEN.value: "Forbidden"},
    Kind.DROPLETS: {"": "None", **{d: d.capitalize() for d in DROPLETS}},
}
