"""The usual cautions for a job, and the least that is worn. The label's own list binds and comes first."""

from collections.abc import Sequence
from dataclasses import dataclass

from core.label.product import Kind, Product

LABEL_FIRST = "The product label, local law and licensed practice come before this sheet. Read the label before you mix."
LABEL_LEADS = "The label and licensed practice come first."
"""The same in few words, where there is no sheet."""

LEAST_WORN = ("Long-sleeved shirt and long trousers", "Socks and closed shoes or boots", "Chemical-resistant gloves")
"""The least that US labels ask of handlers (40 CFR 156.212, from memory); more while mixing than while spraying."""

LEAST_MIXING = ("Eye protection: splashes happen at the jug",)


@dataclass(frozen=True)
class Caution:
    """One caution; `weight` orders them: 1 people, 2 water and neighbours, 3 turf and surfaces."""

    key: str
    text: str
    weight: int


def worn_for_mixing(mix: Sequence[Product]) -> tuple[str, ...]:
    """What the labels ask to wear for mixing, or the least that is worn where a card lists nothing; all of it, for a mix."""
    return tuple(dict.fromkeys(piece for p in mix for piece in _mixing(p)))


def _mixing(product: Product) -> tuple[str, ...]:
    if product.ppe_mixing:
        return product.ppe_mixing
    dusty = ("Dust mask rated for the product",) if not product.liquid else ()
    return (*LEAST_WORN, *LEAST_MIXING, *dusty)


def worn_for_applying(mix: Sequence[Product]) -> tuple[str, ...]:
    """What the labels ask to wear for applying, or the least that is worn where a card lists nothing."""
    return tuple(dict.fromkeys(piece for p in mix for piece in p.ppe_applying or LEAST_WORN))


def cautions(mix: Sequence[Product], by_hose: bool = False) -> tuple[Caution, ...]:
    """The usual cautions for a mix, each once, those for people first.

    Args:
        mix: what is put down.
        by_hose: whether it is drawn into a hose that hangs on the water main.
    """
    found = {c.key: c for p in mix for c in _cautions(p)}
    if by_hose:
        found["backflow"] = Caution(
            "backflow", "Fit a vacuum breaker at the tap; never leave the bottle on a hose under pressure.", 2
        )
    return tuple(sorted(found.values(), key=lambda c: c.weight))


def _cautions(product: Product) -> list[Caution]:
    sprayed = product.formulation.sprayed
    found = [Caution("clean-water", "Keep clean water and soap at the bench for eyes and skin.", 1)]
    if not product.liquid:
        found.append(Caution("dust", "Pour low and out of the wind; do not breathe the dust.", 1))
    if sprayed:
        found.append(Caution("backflow", "Never leave a filling tank; keep the hose end above the water.", 2))
        found.append(Caution("drift", "Do not spray in wind, in dead calm at dawn or dusk, or towards people.", 2))
    if product.label_binds:
        found.append(Caution("keep-off", "Keep people and animals off until dry, and for as long as the label says.", 1))
        found.append(Caution("leftover", "Spray rinsings out on the treated ground, within the label; none to a drain.", 2))
    found.append(Caution("water", "Keep off drains, ponds and hard ground; sweep or blow back what falls there.", 2))
    if product.is_a(Kind.FERTILISER, Kind.IRON, Kind.BIOSTIMULANT, Kind.AMENDMENT):
        found.append(Caution("burn", "More is not better: salts burn leaf in heat and drought.", 3))
    if product.stains or product.is_a(Kind.IRON):
        found.append(Caution("stains", "It stains stone, concrete, paint and clothes. Rinse splashes at once.", 3))
    return found
