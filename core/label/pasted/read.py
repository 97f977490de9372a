"""All that a label's text says of its card, in the order of the card."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from core.label.groups import group_of
from core.label.pasted import holds, rates, ruled, what
from core.label.pasted.pieces import LONGEST, Found, Statement, statements
from core.label.product import FORMULATIONS


@dataclass(frozen=True)
class Pasted:
    """What was found in a text, and the lines of it that nothing was taken from; `cut` where it was longer than is read."""

    found: tuple[Found, ...]
    left: tuple[str, ...]
    cut: bool


@lru_cache(maxsize=32)
def read_pasted(text: str) -> Pasted:
    """What of a card stands in a label's text, each with the words it was taken from. Nothing is guessed: what is not found is
    not there, and what can mean two things comes with its readings. What was read last is kept, for a finding is unticked in
    the same text.
    """
    every = statements(text)
    said = [s for s in every if s.readable]
    held = list(holds.contents(said))
    packed = list(holds.packages(said))
    called = list(what.name(said))
    made = list(what.formulation(said, str(called[0].value) if called else ""))
    groups = [(Statement(c.source, c.line), g) for c in held if (g := group_of(c.row["name"]))]
    size = packed[0].row if packed else None
    heavy = list(holds.density(said))
    other = {f.source for f in (*held, *heavy)}
    rest = [s for s in said if s.text not in other and not s.text.startswith(tuple(f"{c.source} " for c in held))]
    rows = list(rates.rates(rest, f"{size['value']} {_UNIT_WORDS.get(size['unit'], size['unit'])}" if size else ""))
    apart, rows = _every(said, rows)
    found = [
        *called,
        *what.kinds(said, groups, held),
        *made,
        *what.codes(said, held),
        *what.registration(said),
        *(_settled(r, made) for r in rows),
        *held,
        *heavy,
        *packed,
        *ruled.rules(said),
        *ruled.stains(said),
        *ruled.worn(said),
    ]
    used = {f.source for f in found} | apart
    left = tuple(s.text for s in every if s.text not in used)
    return Pasted(tuple(found), left, len(text) > LONGEST)


_UNIT_WORDS = {"oz_wt": "oz wt", "fl_oz": "fl oz"}


def _every(said: Sequence[Statement], rows: list[Found]) -> tuple[set[str], list[Found]]:
    """An interval that the text states apart from its rates is that of all which state none."""
    own = {r.source for r in rows}
    for s in said:
        low, high = rates.interval(s.text) if s.text not in own else ("", "")
        if low and not rates.not_of_rates(s.text):
            filled = [
                r if r.row["interval_low"] else replace(r, value={**r.row, "interval_low": low, "interval_high": high})
                for r in rows
            ]
            return {s.text}, filled
    return set(), rows


def _settled(row: Found, made: Sequence[Found]) -> Found:
    """A bare ounce is settled where the formulation says that the product is poured or weighed."""
    if not row.choices or not made:
        return row
    liquid = FORMULATIONS[str(made[0].value)].liquid
    return replace(row, value={**row.row, "phrase": row.choices[0 if liquid else 1].text}, choices=())
