"""Ground as the sums and the rules see it."""

from dataclasses import dataclass, field
from datetime import date
from enum import StrEnum

from core.grasses import Blend, Sward
from core.units import Quantity


class Stress(StrEnum):
    """What the turf suffers from now."""

    NONE = "none"
    DROUGHT = "drought"
    HEAT = "heat"
    DISEASE = "disease"
    INSECTS = "insects"
    DORMANT = "dormant"
    COLD = "cold"
    NEW_SEED = "new_seed"

    @property
    def text(self) -> str:
        return {"none": "no stress", "insects": "insect damage", "dormant": "dormancy", "new_seed": "new seedlings"}.get(
            self.value, self.value
        )


class HazardKind(StrEnum):
    """What lies near and must be kept off."""

    DRAIN = "drain"
    WATER = "water"
    NEIGHBOUR = "neighbour"
    BED = "bed"
    PATH = "path"
    WELL = "well"

    @property
    def text(self) -> str:
        return {"water": "open water", "bed": "flower bed", "path": "path or hard ground"}.get(self.value, self.value)

    @property
    def wet(self) -> bool:
        """Whether what reaches it is in the water."""
        return self in (HazardKind.DRAIN, HazardKind.WATER, HazardKind.WELL)


@dataclass(frozen=True)
class Hazard:
    """Something to keep off, and by how much [m]; 0 where no distance is known."""

    kind: HazardKind
    name: str
    buffer: float = 0.0


@dataclass(frozen=True)
class Ground:
    """A piece of ground: its size, and what of it the label's rules ask for.

    `blend` are the grasses of a mixed sward; `height` is the mown height [m], `slope` a fraction; `tested_p` whether a soil test
    says that phosphorus is wanted; `ph` the mean of the latest readings. `id` tells it from another of the same name, where it is
    known.
    """

    name: str
    size: Quantity
    grass: str = ""
    blend: Blend = ()
    cultivar: str = ""
    height: Quantity | None = None
    use: str = ""
    hazards: tuple[Hazard, ...] = field(default=())
    sown_on: date | None = None
    overseed_on: date | None = None
    stress: Stress = Stress.NONE
    slope: float | None = None
    tested_p: bool = False
    ph: float | None = None
    id: int | None = None

    def is_same(self, other: "Ground") -> bool:
        """Whether this and another are one piece of ground."""
        return self.id == other.id if self.id is not None and other.id is not None else self.name == other.name

    @property
    def sward(self) -> Sward:
        """What grows on it."""
        return Sward(self.grass, self.blend)

    @property
    def grass_name(self) -> str:
        return self.sward.name

    def sown_by(self, on: date) -> date | None:
        """When it was last sown by a day: an overseeding whose day has come counts until somebody says that it was not done."""
        return max((d for d in (self.sown_on, self.overseed_on) if d and d <= on), default=None)
