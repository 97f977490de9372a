"""What was last in a tank or a hopper, how it is cleaned, and what may go in next.

How much cleaning each kind asks for is common practice, no source; a label's own cleaning rule comes first. Traces of a
herbicide hide in lines and screens: without a cleaner and its rinses nothing else is loaded.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from core.days import day
from core.findings import Finding, Weight
from core.label.product import Formulation, Kind, Product


class CleanStep(StrEnum):
    """One step of cleaning."""

    RINSE = "rinse"
    CLEANER = "cleaner"
    SCREENS = "screens"
    BRUSH = "brush"

    @property
    def text(self) -> str:
        return {
            "rinse": "Rinse with clean water, and spray it out through every nozzle",
            "cleaner": "Tank cleaner, agitated and left to stand as its label says, then out through the nozzles",
            "screens": "Screens and nozzles taken out and washed",
            "brush": "Emptied, brushed out and wiped dry, wheels and gate too",
        }[self.value]


_RINSE, _CLEANER, _SCREENS = CleanStep.RINSE, CleanStep.CLEANER, CleanStep.SCREENS

NEEDED = {
    Kind.HERBICIDE: (_RINSE, _CLEANER, _SCREENS, _RINSE, _RINSE),
    Kind.GROWTH_REGULATOR: (_RINSE, _CLEANER, _RINSE),
    Kind.FUNGICIDE: (_RINSE, _RINSE),
    Kind.INSECTICIDE: (_RINSE, _CLEANER, _RINSE),
}
"""Steps by kind, in their order; one rinse for every other kind."""


def worst_kind(kinds: Sequence[Kind]) -> Kind:
    """Of all that a product is, what asks for the most cleaning, a herbicide before all."""
    return max(kinds, key=lambda k: (k is Kind.HERBICIDE, len(NEEDED.get(k, ())), k.label_binds))


@dataclass(frozen=True)
class Held:
    """What was last in a machine: the product's card and name, kind and formulation, the day, and the cleaning since."""

    product_id: int | None
    name: str
    kind: Kind
    sprayed: bool
    on: date
    cleaned: tuple[CleanStep, ...] = ()

    @property
    def needed(self) -> tuple[CleanStep, ...]:
        """Every step of cleaning after it, in order."""
        return needed(self.kind, self.sprayed)

    @property
    def missing(self) -> tuple[CleanStep, ...]:
        """The steps still to do, in order."""
        return missing(self.needed, self.cleaned)


@dataclass(frozen=True)
class Residue:
    """Everything that a machine held and may still hold traces of, the latest first: another filling cleans nothing."""

    every: tuple[Held, ...]

    @property
    def last(self) -> Held:
        """What was in it last."""
        return self.every[0]

    @property
    def worst(self) -> Held:
        """What asks for the most cleaning still; the last where all of it is done."""
        return worst_of(self.every) or self.last


def worst_of(every: Sequence[Held]) -> Held | None:
    """Of what a machine held, what asks for the most cleaning still, a herbicide before all; None where it is clean."""
    unclean = [h for h in every if h.missing]
    return max(unclean, key=lambda h: (h.kind is Kind.HERBICIDE, len(h.missing), h.on), default=None)


def needed(kind: Kind, sprayed: bool) -> tuple[CleanStep, ...]:
    """The steps of cleaning after a kind of product, in order."""
    return NEEDED.get(kind, (_RINSE,)) if sprayed else (CleanStep.BRUSH,)


def missing(wanted: Sequence[CleanStep], done: Sequence[CleanStep]) -> tuple[CleanStep, ...]:
    """The wanted steps that were not done, each as often as it is wanted, the last ones of a kind first to be missing."""
    have, left = Counter(done), []
    for step in wanted:
        if have[step] > 0:
            have[step] -= 1
        else:
            left.append(step)
    return tuple(left)


def before_load(residue: Residue | None, mix: Sequence[Product], machine: str) -> list[Finding]:
    """What earlier fillings say of the next: the worst of them that the machine has not been cleaned of.

    Args:
        residue: what it held; None where nothing is known.
        mix: what is to go in.
        machine: its name.
    """
    held = worst_of([h for h in residue.every if not any(_same(h, p) for p in mix)]) if residue else None
    if held is None:
        return []
    steps = _named(held.missing)
    if held.kind is Kind.HERBICIDE and held.sprayed:
        return [
            Finding(
                "herbicide-in-tank",
                Weight.REFUSE,
                f"{machine} held the herbicide {held.name} ({day(held.on)}) and "
                f"has not been cleaned of it. Still to do: {steps}. Then note the cleaning in Kit.",
            )
        ]
    act = Weight.WARN if held.kind.label_binds else Weight.NOTE
    return [
        Finding(
            "not-cleaned",
            act,
            f"{machine} held {held.name} ({day(held.on)}) and has not been cleaned since. Still to do: {steps}.",
        )
    ]


def _same(held: Held, product: Product) -> bool:
    if held.product_id is not None and product.id is not None:
        return held.product_id == product.id
    return held.name == product.name


def _named(steps: Sequence[CleanStep]) -> str:
    words = {"rinse": "rinse", "cleaner": "tank cleaner", "screens": "wash screens and nozzles", "brush": "brush it out"}
    return ", ".join(words[s.value] for s in steps)


def screens(formulation: Formulation) -> str:
    """What to do about nozzle screens before a formulation is sprayed; empty where they stay in."""
    if formulation.code in ("WG", "WP"):
        return "Take out fine nozzle screens and filters, or fit coarse ones (50 mesh): dispersible products clog them."
    return ""
