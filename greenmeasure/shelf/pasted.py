"""A label's text, read into a card that is still to be confirmed: nothing is saved here."""

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from typing import Any

from annotated_types import MaxLen
from pydantic import ValidationError

from core.label.pasted.pieces import Found
from core.label.pasted.read import read_pasted
from core.label.table import said
from greenmeasure.shelf.rules import RulesIn
from greenmeasure.shelf.schemas import ContentIn, PackageIn, PastedOut, ProductIn, RateRowIn, ReadOut
from greenmeasure.shelf.words import field_text, read_text

_LISTS = ("also", "contents", "rates", "packages")
_MOST = {key: next(m.max_length for m in ProductIn.model_fields[key].metadata if isinstance(m, MaxLen)) for key in _LISTS}
"""How many lines a list of the card takes."""


def pasted_out(text: str, without: Collection[int] = ()) -> PastedOut:
    """What a label's text says, line by line, and the card that it makes.

    Args:
        text: as it was pasted.
        without: the findings, by their places, that do not go into the card.
    """
    read = read_pasted(text)
    found = _fitting(read.found)
    taken = [f for i, f in enumerate(found) if i not in without]
    sources = {f.source for f in found}
    left = [*read.left, *dict.fromkeys(f.source for f in read.found if f.source not in sources)]
    return PastedOut(
        card=_card(taken),
        found=[
            ReadOut(
                field=f.field,
                name=field_text(f.field),
                text=_text(f),
                source=f.source,
                line=f.line,
                asks=bool(f.choices),
                taken=i not in without,
            )
            for i, f in enumerate(found)
        ],
        left=left,
        cut=read.cut,
    )


def _fitting(found: Sequence[Found]) -> list[Found]:
    """What a card has room for: no name is longer than its field, no list than the card takes."""
    fitting, counted = [], Counter[str]()
    for f in found:
        try:
            _card([f])
        except ValidationError:
            continue
        counted[f.field] += 1
        if counted[f.field] <= _MOST.get(f.field, 1):
            fitting.append(f)
    return fitting


def _text(found: Found) -> str:
    key = found.field.removeprefix("rules.")
    if key == found.field:
        return read_text(found.field, found.value)
    return " ".join(s.text for s in said({key: found.value}))


def _card(found: Sequence[Found]) -> ProductIn:
    lists: dict[str, list[Any]] = {key: [f.value for f in found if f.field == key] for key in _LISTS}
    rules = {f.field.removeprefix("rules."): f.value for f in found if f.field.startswith("rules.")}
    plain: Mapping[str, Any] = {f.field: f.value for f in found if f.field not in _LISTS and not f.field.startswith("rules.")}
    return ProductIn(
        **{"name": "", "kind": "", "formulation": "", **plain},
        also=lists["also"],
        contents=[ContentIn(**{**c, "slow": c["slow"] or None}) for c in lists["contents"]],
        rates=[RateRowIn(**{**r, **{k: r[k] or None for k in ("interval_low", "interval_high")}}) for r in lists["rates"]],
        packages=[PackageIn(**p) for p in lists["packages"]],
        rules=RulesIn.model_validate(rules),
    )
