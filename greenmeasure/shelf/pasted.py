"""A label's text, read into a card that is still to be confirmed: nothing is saved here."""

from collections.abc import Collection, Mapping, Sequence
from typing import Any

from core.label.pasted.pieces import Found
from core.label.pasted.read import read_pasted
from core.label.table import said
from greenmeasure.shelf.rules import RulesIn
from greenmeasure.shelf.schemas import ContentIn, PackageIn, PastedOut, ProductIn, RateRowIn, ReadOut
from greenmeasure.shelf.words import field_text, read_text

_LISTS = ("also", "contents", "rates", "packages")


def pasted_out(text: str, without: Collection[int] = ()) -> PastedOut:
    """What a label's text says, line by line, and the card that it makes.

    Args:
        text: as it was pasted.
        without: the findings, by their places, that do not go into the card.
    """
    read = read_pasted(text)
    taken = [f for i, f in enumerate(read.found) if i not in without]
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
            for i, f in enumerate(read.found)
        ],
        left=list(read.left),
        cut=read.cut,
    )


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
