"""The ledger: everything that bears on a plan for a ground and a day.

Applications before that day and after it, rounds under way, what is planned, and the rest of the same job, on every piece of
the ground; and the rules of the house. Every door makes its ledger here and asks the gate with it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, tzinfo

from core.ground import Ground
from core.ledger.history import Applied, Place, turn
from core.ledger.places import Grounds, Piece
from core.schools import PLAIN, House
from core.weather.windows import Reason


@dataclass(frozen=True)
class Ledger:
    """The pieces of a plan's ground, with what bears on each, and the rules of the house.

    `hour` is what the weather of the plan's hour says against the product's label, where the plan has an hour; `ahead`
    where that hour is too far off for anybody to look.
    """

    pieces: tuple[Piece, ...]
    house: House = PLAIN
    zone: tzinfo = UTC
    hour: tuple[Reason, ...] = ()
    ahead: bool = False


@dataclass(frozen=True)
class Here:
    """Where a plan is judged: the rules of the account with what is closed on the site, and the site's clock."""

    house: House = PLAIN
    zone: tzinfo = UTC


ANYWHERE = Here()


def ledger_of(
    grounds: Grounds, place: Place, every: Sequence[Applied], job: Sequence[Applied] = (), here: Here = ANYWHERE
) -> Ledger:
    """The ledger of a plan for a place.

    Args:
        grounds: the account's areas.
        place: the ground of the plan.
        every: all applications on that ground and its kin, in any order.
        job: the other parts of the same job.
        here: the rules of the house and the clock of the site.
    """
    return Ledger(grounds.pieces(place, every, job), here.house, here.zone)


def plain(ground: Ground, past: Sequence[Applied] = (), house: House = PLAIN) -> Ledger:
    """The ledger of a ground without parts, of which everything in `past` lies on all."""
    return Ledger((Piece(ground, tuple(sorted(past, key=turn))),), house)
