"""The order in which a tank or a hopper is filled, one line an act, by formulation.

Half the water with agitation, then dry dispersible products, liquid suspensions, emulsifiable concentrates and
solutions, then top up (the order many extension services teach; common practice, no source). The house may fill
otherwise; a label's order prevails.
"""

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


def fill_tank(
    products: Sequence[tuple[Product, str]], volume: float, shown: str, half: str, order: str = "half_first"
) -> tuple[Act, ...]:
    """The acts that fill one tank to `volume` [L].

    Args:
        products: each with its measured amount in words, in any order.
        volume: finished spray [L].
        shown: that volume in words.
        half: half of it in words.
        order: the house's order, a key of `FIRST`; a label's own note stands before it.
    """
    key, share, words = FIRST[order]
    acts = [
        Act(f"note-{i}", f"The label of {p.name} says: {p.rules.fill_note}")
        for i, (p, _) in enumerate(products)
        if p.rules.fill_note
    ]
    acts += [Act(f"screens-{i}", said) for i, (p, _) in enumerate(products) if (said := screens(p.formulation))]
    acts.append(Act(key, words.format(half=half, full=shown), volume=volume * share))
    for i, (product, amount) in enumerate(in_order(products)):
        kind = product.formulation
        if kind.slurry:
            acts.append(Act(f"slurry-{i}", f"Stir {amount} of {product.name} into a jug of water until it is all wet."))
        acts.append(Act(f"pour-{i}", f"Pour in {amount} of {product.name} ({kind.name}).", product.name, volume * share))
        acts.append(Act(f"rinse-{i}", "Rinse the vessel three times, each rinse into the tank."))
    acts.append(Act("top-up", f"Top up with water to {shown}; keep agitating until it is sprayed out.", volume=volume))
    return tuple(acts)


def fill_hopper(product: Product, amount: str) -> tuple[Act, ...]:
    """The acts that fill one hopper."""
    return (
        Act("gate", "Close the gate. Stand the spreader on a sheet or hard ground that can be swept."),
        Act("weigh", f"Weigh {amount} of {product.name} into a bucket; tare the bucket first.", product.name),
        Act("fill", "Pour it in, level it, pick out lumps."),
        Act("spread", "Open the gate walking, close it before stopping; empty at the end means the rate was right."),
    )


def in_order(products: Sequence[tuple[Product, str]]) -> list[tuple[Product, str]]:
    """Products in their turn: by formulation, with adjuvants and colourants last of all."""
    last = (Kind.ADJUVANT, Kind.COLOURANT)
    return sorted(products, key=lambda p: (p[0].kind in last, p[0].formulation.slot))
