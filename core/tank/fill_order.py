"""The order in which a tank or a hopper is filled, one line an act, by formulation.

Half the water with agitation, then dry dispersible products, liquid suspensions, emulsifiable concentrates and
solutions, then top up (the order many extension services teach; common practice, no source). The house may fill
otherwise; a label's order prevails.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from core.label.product import Kind, Product
from core.machines.residue import screens


@dataclass(frozen=True)
class Act:
    """One act of filling. `key` is stable, so that a tick stays with its act; `pours` names the product it adds."""

    key: str
    text: str
    pours: str = ""
    volume: float = 0.0


FIRST = {
    "half_first": ("half", 0.5, "Fill with clean water to {half}; filler hose above the water, agitation on."),
    "water_first": ("water", 0.95, "Fill with clean water almost to {full}; let it stand until it is still."),
    "product_first": ("empty", 0.0, "Start with the tank empty and rinsed; keep the filler hose ready."),
    "slurry_first": ("some", 0.15, "Put in enough clean water to cover the agitator, and start it."),
}
"""What comes first by each house rule: key, how full the tank then is, and the words."""


NEAR = 0.9
"""How full a tank is before what foams goes in (common practice, no source)."""
BUCKET = 2000.0
"""The most that is dissolved in one bucket [g]: more does not go clear in 10 L of warm water by hand (ours)."""


@dataclass(frozen=True)
class Into:
    """What goes into a tank: a product, its amount in words, empty to taste, in grams where it is dry, else in litres."""

    product: Product
    amount: str = ""
    grams: float = 0.0
    litres: float = 0.0

    def __str__(self) -> str:
        return f"{self.amount} of {self.product.name}" if self.amount else f"{self.product.name} to taste"


@dataclass(frozen=True)
class Marks:
    """A tank's volumes in words: full to the load's mark, nearly so, and half of it; `note` what the full mark does."""

    full: str
    near: str
    half: str
    note: str = ""


def fill_tank(mixed: Sequence[Into], volume: float, marks: Marks, order: str = "half_first") -> tuple[Act, ...]:
    """The acts that fill one tank to `volume` [L].

    What the labels say comes before all; a conditioner goes into the water before anything else; what foams goes in last, when
    the tank is nearly full.

    Args:
        mixed: what goes in, in any order.
        volume: finished spray [L].
        marks: that volume in words.
        order: the house's order, a key of `FIRST`.
    """
    key, share, words = FIRST[order]
    turns = in_order(mixed)
    acts = [
        Act(f"note-{i}", f"The label of {x.product.name} says: {x.product.rules.fill_note}")
        for i, x in enumerate(turns)
        if x.product.rules.fill_note
    ]
    clogging = next((said for x in turns if (said := screens(x.product.formulation))), "")
    if clogging:
        acts.append(Act("screens", clogging))
    acts.append(Act(key, words.format(half=marks.half, full=marks.full), volume=volume * share))
    level = share
    for i, x in enumerate(turns):
        if x.product.kind is Kind.ADJUVANT and level < NEAR:
            level = NEAR
            acts.append(Act("nearly", f"Fill with water to {marks.near}: what foams goes in last.", volume=volume * level))
        acts += _into(i, x, volume * level)
    told = f"{marks.full} ({marks.note})" if marks.note else marks.full
    acts.append(Act("top-up", f"Top up with water to {told}; keep agitating until it is sprayed out.", volume=volume))
    return tuple(acts)


def _into(i: int, x: Into, level: float) -> list[Act]:
    """The acts by which one product gets into the tank, which holds `level` [L]."""
    product, kind = x.product, x.product.formulation
    if not x.amount:
        return [Act(f"pour-{i}", f"Add {x}, until the spray can be seen on the ground.", product.name, level)]
    if kind.slot == DISSOLVED and not kind.liquid:
        count = max(1, math.ceil(x.grams / BUCKET))
        share = "" if count == 1 else f", a {_PARTS.get(count, f'{count}th')} of it in each of {count} buckets"
        acts = [
            Act(
                f"dissolve-{i}" if count == 1 else f"dissolve-{i}-{n + 1}",
                f"Bucket{'' if count == 1 else f' {n + 1}'}: dissolve {x}{share}, in warm water until it is clear.",
            )
            for n in range(count)
        ]
        return [*acts, Act(f"pour-{i}", f"Pour the dissolved {product.name} in through the strainer.", product.name, level)]
    acts = []
    if kind.slurry:
        acts.append(Act(f"slurry-{i}", f"Stir {x} into a jug of water until it is all wet."))
    how = "Pour in slowly, agitation low" if product.kind is Kind.ADJUVANT else "Pour in"
    acts.append(Act(f"pour-{i}", f"{how}: {x} ({kind.name}).", product.name, level))
    acts.append(Act(f"rinse-{i}", "Rinse the vessel three times, each rinse into the tank."))
    return acts


@dataclass(frozen=True)
class Hose:
    """How a hose-end is set, in words: its dial, how long a bottle lasts, empty where the flow was never timed."""

    dial: str
    time: str = ""
    undiluted: bool = False


def fill_bottle(mixed: Sequence[Into], volume: float, marks: Marks, hose: Hose) -> tuple[Act, ...]:
    """The acts that fill one bottle of a hose-end to `volume` [L] and set it: the product first, then water to the mark.

    Args:
        mixed: what goes in, in any order.
        volume: what the bottle then holds [L].
        marks: that volume in words.
        hose: how it is set.
    """
    turns = in_order(mixed)
    acts = [
        Act(f"note-{i}", f"The label of {x.product.name} says: {x.product.rules.fill_note}")
        for i, x in enumerate(turns)
        if x.product.rules.fill_note
    ]
    acts.append(Act("bottle", "Start with the bottle empty, rinsed and off the hose; tap shut."))
    level = 0.0
    for i, x in enumerate(turns):
        level += x.litres
        if x.grams:
            acts.append(Act(f"slurry-{i}", f"Stir {x} into a cup of warm water until it is all wet, and strain it."))
        acts.append(Act(f"pour-{i}", f"Pour in: {x} ({x.product.formulation.name}).", x.product.name, level))
        if not hose.undiluted:
            acts.append(Act(f"rinse-{i}", "Rinse the vessel with a little water, into the bottle."))
    if not hose.undiluted:
        told = f"{marks.full} ({marks.note})" if marks.note else marks.full
        acts.append(Act("top-up", f"Add water to {told}; close it and turn it over until it is even.", volume=volume))
    acts.append(Act("dial", f"Set the dial to {hose.dial}."))
    lasts = f": the bottle lasts {hose.time}, cover the ground evenly in that time" if hose.time else ""
    acts.append(Act("spray", f"Open the tap, walk backwards away from what is wet{lasts}."))
    return tuple(acts)


DISSOLVED = 4
"""The turn of what is dissolved: soluble liquids, powders and granules."""
_PARTS = {2: "half", 3: "third", 4: "quarter"}


def fill_hopper(mixed: Sequence[Into]) -> tuple[Act, ...]:
    """The acts that fill one hopper."""
    weighed = [
        Act(f"weigh-{i}" if i else "weigh", f"Weigh {x} into a bucket; tare the bucket first.", x.product.name)
        for i, x in enumerate(mixed)
    ]
    blend = [Act("blend", "Blend them by hand until the colour is even.")] if len(mixed) > 1 else []
    return (
        Act("gate", "Close the gate. Stand the spreader on a sheet or hard ground that can be swept."),
        *weighed,
        *blend,
        Act("fill", "Pour it in, level it, pick out lumps."),
        Act("spread", "Open the gate walking, close it before stopping; empty at the end means the rate was right."),
    )


_TURN = {Kind.CONDITIONER: 0, Kind.COLOURANT: 2, Kind.ADJUVANT: 3}


def in_order(mixed: Sequence[Into]) -> list[Into]:
    """What is mixed in its turn: a water conditioner, then by formulation, then colourants, adjuvants last of all."""
    return sorted(mixed, key=lambda x: (_TURN.get(x.product.kind, 1), x.product.formulation.slot))
