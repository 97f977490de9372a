"""What of an application the rules of a season ask for, as it is stored beside it: made once, when it goes down or is planned."""

from collections.abc import Mapping
from dataclasses import asdict
from datetime import date
from typing import Any

from core.label.product import Kind
from core.label.rate import Basis
from core.label.rules import Incompatible
from core.ledger.history import Applied, Holds

PLAIN = ("codes", "grams", "litres", "actives", "interval", "curative", "stays_on_leaf", "watered_in")


def stored(found: Applied) -> dict[str, Any]:
    """The facts of an application as JSON."""
    whole = asdict(found)
    kept = {name: whole[name] for name in (*PLAIN, "holds", "apart")}
    kept["also"] = [k.value for k in found.also]
    kept["nutrients"] = {basis.value: grams for basis, grams in found.nutrients.items()}
    return kept


def read(facts: Mapping[str, Any], on: date, product: str, kind: Kind, product_id: int | None) -> Applied:
    """An application from its stored facts; what they lack, as those of early records do, is not known."""
    return Applied(
        on,
        product,
        kind,
        tuple(facts.get("codes", ())),
        facts.get("grams"),
        facts.get("litres"),
        facts.get("actives", {}),
        {Basis(k): v for k, v in facts.get("nutrients", {}).items()},
        interval(facts),
        facts.get("curative", False),
        facts.get("stays_on_leaf", False),
        facts.get("watered_in", False),
        product_id,
        apart=tuple(Incompatible(**rule) for rule in facts.get("apart", ())),
        holds=Holds(**facts.get("holds", {})),
        also=tuple(Kind(k) for k in facts.get("also", ())),
    )


def times(facts: Mapping[str, Any], factor: float) -> dict[str, Any]:
    """The facts of an application of which so many times as much went down.

    Args:
        facts: as stored.
        factor: new amount over old [1].
    """

    def of(value: Any) -> Any:
        return {k: of(v) for k, v in value.items()} if isinstance(value, dict) else None if value is None else value * factor

    return dict(facts) | {name: of(facts[name]) for name in ("grams", "litres", "actives", "nutrients") if name in facts}


def interval(facts: Mapping[str, Any]) -> tuple[int | None, int | None]:
    """The label's days to the next application, as they are stored."""
    low, high = facts.get("interval", (None, None))
    return low, high
