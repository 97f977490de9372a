"""What is left of a mix for spots, and how old it is."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from core.units import Quantity, Unit
from greenmeasure.common.errors import Conflict
from greenmeasure.rounds.models import Round

DREGS = 0.02
"""Less than this share of a mix is what a pump leaves in the tank (ours)."""


@dataclass(frozen=True)
class Left:
    """What is left of a mix [L], since when it is mixed, and until when its labels let it be used, None where they do not say.

    It is told in the `unit` of its tank. `mixed` is whether anything of it was poured or went out; until then it is but planned.
    """

    litres: float
    of: float
    unit: Unit
    mixed: bool
    mixed_at: datetime
    until: datetime | None

    @property
    def amount(self) -> Quantity:
        """What is left, as its tank is marked."""
        return Quantity(self.litres / self.unit.size, self.unit)

    @property
    def used_up(self) -> bool:
        return self.litres <= DREGS * self.of

    def stale(self, now: datetime) -> bool:
        """Whether there is some of it that is older than a label lets it be."""
        return self.mixed and not self.used_up and self.until is not None and now > self.until


def left_of(found: Round) -> Left:
    """What is left of the mix of a round to spots.

    Raises:
        Conflict: the round treats no spots.
    """
    if not found.spots or found.spray_litres is None:
        raise Conflict("This round treats no spots.")
    out = found.gone_out
    poured, until = keeps(found)
    mixed_at = poured or found.started_at
    return Left(
        max(0.0, found.spray_litres - out), found.spray_litres, found.machine.capacity.unit, bool(poured or out), mixed_at, until
    )


def keeps(found: Round) -> tuple[datetime | None, datetime | None]:
    """When the first of a round's mix was poured, None before that, and until when its labels let it be used, None where they do
    not say.
    """
    poured = min((t.at for t in found.ticks.all() if t.load), default=None)
    lives = [life for c in found.mix.all() if (life := c.product.core().rules.mixed_life)]
    return poured, (poured or found.started_at) + timedelta(hours=min(lives)) if lives else None
