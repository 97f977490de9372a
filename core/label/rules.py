"""What a label rules beside its rates: limits, timing, weather, water, mowing, seed, people, and what may not be mixed."""

from dataclasses import dataclass, field
from datetime import date
from enum import StrEnum

from core.label.rate import LabelRate, show_label_rate


class Intent(StrEnum):
    """What a rate row is meant for."""

    ANY = "any"
    PREVENTIVE = "preventive"
    CURATIVE = "curative"
    LOW = "low"
    HIGH = "high"
    FIRST_USE = "first_use"

    @property
    def text(self) -> str:
        return {"any": "any", "first_use": "first use"}.get(self.value, self.value)


class Use(StrEnum):
    """What turf is kept for."""

    GREEN = "green"
    TEE = "tee"
    FAIRWAY = "fairway"
    LAWN = "lawn"
    COURT = "court"
    PITCH = "pitch"
    ROUGH = "rough"


class Leaf(StrEnum):
    """How the leaf must be."""

    EITHER = "either"
    DRY = "dry"
    WET = "wet"


class Helper(StrEnum):
    """Whether a product wants an adjuvant in its tank."""

    EITHER = "either"
    NEEDED = "needed"
    FORBIDDEN = "forbidden"


@dataclass(frozen=True)
class Row:
    """One rate row of a label. Empty lists and open ends mean that the label does not narrow it.

    `height` is the range of mown heights [m], both ends in it; `interval` the days to the next application.
    """

    label: LabelRate
    use: str = ""
    target: str = ""
    grasses: tuple[str, ...] = ()
    height: tuple[float | None, float | None] = (None, None)
    uses: tuple[str, ...] = ()
    intent: Intent = Intent.ANY
    interval: tuple[int | None, int | None] = (None, None)


DROPLETS = ("extremely fine", "very fine", "fine", "medium", "coarse", "very coarse", "extremely coarse", "ultra coarse")
"""The classes of ISO 25358, from the finest; a class is told by its place among them."""


@dataclass(frozen=True)
class Incompatible:
    """What must not meet this product on the same ground within `days`: a product, an active or a group code.

    `product_id` is the card that `what` named when the rule was written, where it named one.
    """

    what: str
    days: int
    note: str = ""
    product_id: int | None = None


@dataclass(frozen=True)
class ActiveCap:
    """The most of an active in a season, whatever brings it; without a name it binds each active of the product."""

    name: str
    cap: LabelRate

    def binds(self, active: str) -> bool:
        """Whether an active, by its common name, is bound by it."""
        return not self.name or self.name.casefold() == active.casefold()

    def __str__(self) -> str:
        return f"{show_label_rate(self.cap)}{f' of {self.name}' if self.name else ''}"


@dataclass(frozen=True)
class Rules:
    """The label's rules. None and empty mean that the label says nothing.

    Hours [h], days [d], depths [mm], distances [m], temperatures of air and, at 5 cm, of soil [°C], wind [m/s].
    `droplets` are the finest and the coarsest class, by their places in `DROPLETS`.
    `water_in_delay` is how long after the application the water may come, `water_in_depth` and `water_in_minutes` how much:
    two things, never one.
    `never_all` is what must not all be in one tank with it, `most_mixed` the most where anything else is, `adjuvant` whether its
    tank wants one.
    `rain_before` is how long it must have been dry, `rain_after` how long it must stay dry. `unreadable` names what is ruled
    and cannot be read: nothing is planned until it can.
    """

    most_per_application: LabelRate | None = None
    most_per_season: LabelRate | None = None
    active_per_season: tuple[ActiveCap, ...] = ()
    applications_per_season: int | None = None
    consecutive: int | None = None
    temperature: tuple[float | None, float | None] = (None, None)
    wind: tuple[float | None, float | None] = (None, None)
    soil: tuple[float | None, float | None] = (None, None)
    droplets: tuple[int | None, int | None] = (None, None)
    leaf: Leaf = Leaf.EITHER
    rain_before: float | None = None
    rain_after: float | None = None
    water_in_delay: float | None = None
    water_in_depth: float | None = None
    water_in_minutes: float | None = None
    mow_before: float | None = None
    mow_after: float | None = None
    bag_clippings: int | None = None
    seed_before: int | None = None
    seed_after: int | None = None
    reentry: float | None = None
    reentry_note: str = ""
    buffer: float | None = None
    mixed_life: float | None = None
    fill_note: str = ""
    incompatible: tuple[Incompatible, ...] = field(default=())
    never_all: tuple[str, ...] = ()
    most_mixed: LabelRate | None = None
    adjuvant: Helper = Helper.EITHER
    revised: date | None = None
    unreadable: tuple[str, ...] = ()

    @property
    def watered_in(self) -> bool:
        return self.water_in_depth is not None or self.water_in_minutes is not None

    @property
    def stays_on_leaf(self) -> bool:
        """Whether it works on the leaf: it must stay dry for a while."""
        return self.rain_after is not None and not self.watered_in


def unreadable_text(product: str, said: str) -> str:
    """That a rule of a product's card cannot be read, and what to do."""
    return f"A rule of {product} cannot be read any more ({said}). Open the card, and type it again from the label."


NONE = Rules()
"""A label that rules nothing beside its rates."""
