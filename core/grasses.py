"""The grasses of fine turf as data, and what grows on a ground: one of them, several, or no turf at all."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from core.errors import InputError
from core.readable import joined
from core.units import show_number


@dataclass(frozen=True)
class Grass:
    """`cool` tells cool-season (C3) from warm-season (C4) grasses; `turf` what is no turf at all."""

    key: str
    name: str
    botanical: str
    cool: bool
    turf: bool = True


MIXED, ORNAMENTALS = "mixed", "ornamentals"
GRASSES = {
    g.key: g
    for g in (
        Grass("creeping_bentgrass", "Creeping bentgrass", "Agrostis stolonifera", True),
        Grass("colonial_bentgrass", "Colonial bentgrass", "Agrostis capillaris", True),
        Grass("annual_bluegrass", "Annual bluegrass", "Poa annua", True),
        Grass("kentucky_bluegrass", "Kentucky bluegrass", "Poa pratensis", True),
        Grass("perennial_ryegrass", "Perennial ryegrass", "Lolium perenne", True),
        Grass("tall_fescue", "Tall fescue", "Schedonorus arundinaceus", True),
        Grass("fine_fescue", "Fine fescues", "Festuca spp.", True),
        Grass("bermudagrass", "Bermudagrass", "Cynodon spp.", False),
        Grass("zoysiagrass", "Zoysiagrass", "Zoysia spp.", False),
        Grass("st_augustinegrass", "St Augustinegrass", "Stenotaphrum secundatum", False),
        Grass("centipedegrass", "Centipedegrass", "Eremochloa ophiuroides", False),
        Grass("seashore_paspalum", "Seashore paspalum", "Paspalum vaginatum", False),
        Grass("buffalograss", "Buffalograss", "Bouteloua dactyloides", False),
        Grass("bahiagrass", "Bahiagrass", "Paspalum notatum", False),
        Grass(MIXED, "Mixed sward", "", True),
        Grass(ORNAMENTALS, "Ornamentals", "shrubs and flowers", True, turf=False),
    )
}
Blend = tuple[tuple[str, float], ...]
"""Grasses by their keys, each with its share of a sward [1]."""
MOST_IN_BLEND = 5


@dataclass(frozen=True)
class Sward:
    """What grows on a ground: a grass, or several with their shares [1], the largest first; none where nobody said which."""

    grass: str = ""
    blend: Blend = ()

    @property
    def parts(self) -> Blend:
        """Each grass that is known with its share."""
        if self.grass == MIXED:
            return self.blend
        return ((self.grass, 1.0),) if self.grass in GRASSES else ()

    @property
    def grasses(self) -> tuple[str, ...]:
        """The keys of the grasses that are known."""
        return tuple(key for key, _ in self.parts)

    @property
    def name(self) -> str:
        """As one says it: Perennial ryegrass and fine fescues (70:30)."""
        if self.grass != MIXED or not self.blend:
            return GRASSES[self.grass].name if self.grass in GRASSES else "Unknown grass"
        first, *others = (GRASSES[key].name for key in self.grasses)
        names = joined([first, *(n[0].lower() + n[1:] if n.split()[0] not in PROPER else n for n in others)])
        return f"{names} ({':'.join(show_number(share * 100, 3) for _, share in self.blend)})"

    @property
    def unsaid(self) -> bool:
        """Whether it is a mixed one and nobody said of which grasses."""
        return self.grass == MIXED and not self.blend

    @property
    def turf(self) -> bool:
        """Whether it is turf; ornamentals are not."""
        return self.grass not in GRASSES or GRASSES[self.grass].turf

    @property
    def cool(self) -> bool:
        """Whether any of its grasses is of the cool season; a mixed one of which nobody said the grasses is taken for it."""
        return self.unsaid or any(GRASSES[key].cool for key in self.grasses)

    @property
    def seasons(self) -> frozenset[bool]:
        """The seasons of its grasses, True for the cool one."""
        return frozenset(GRASSES[key].cool for key in self.grasses) or frozenset({True} if self.unsaid else ())

    def mean(self, of: Callable[[str], float | None]) -> float | None:
        """The mean of a figure of each grass by its share [of the figure]; None where one of them has none."""
        found = [(of(key), share) for key, share in self.parts]
        if not found or any(value is None for value, _ in found):
            return None
        return sum(value * share for value, share in found if value is not None) / sum(share for _, share in found)


PROPER = ("Kentucky", "St")
"""Words that begin a grass's name and keep their capital."""


def blend_of(given: Sequence[tuple[str, float]]) -> Blend:
    """The grasses of a mixed sward with their shares [1], the largest first.

    Args:
        given: keys with shares [%].

    Raises:
        InputError: a grass that is none, one twice, or shares that are not the whole.
    """
    if len(given) > MOST_IN_BLEND:
        raise InputError("blend", len(given), f"{len(given)} grasses are too many.", f"Name {MOST_IN_BLEND} at the most.")
    keys = [key for key, _ in given]
    for i, (key, percent) in enumerate(given):
        where = f"blend.{i}.grass"
        if key not in GRASSES or key == MIXED or not GRASSES[key].turf:
            raise InputError(where, key, "Which grass?", "Pick one of the list.")
        if key in keys[:i]:
            raise InputError(where, GRASSES[key].name, f"{GRASSES[key].name} stands there twice.", "Give each grass one line.")
        if not 0 < percent <= 100:
            raise InputError(
                f"blend.{i}.share", percent, f"{show_number(percent)} % is no share of a sward.", "70 and 30 are usual."
            )
    if len(given) == 1:
        raise InputError(
            "blend", GRASSES[keys[0]].name, "A mixed sward has two grasses at least.", "Add the other, or pick the one."
        )
    whole = sum(percent for _, percent in given)
    if given and abs(whole - 100) > 0.5:
        said = f"The shares add up to {show_number(whole, 4)} %."
        raise InputError("blend", f"{show_number(whole, 4)} %", said, "Make it 100 % in all.")
    return tuple(sorted(((key, percent / whole) for key, percent in given), key=lambda part: -part[1]))
