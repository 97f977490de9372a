"""Where the fillings fall: on which ground each load runs out, and what of it is needed once ground is left out."""

from collections.abc import Sequence
from dataclasses import dataclass

from core.errors import InputError
from core.tank.loads import CRUMB


@dataclass(frozen=True)
class Fall:
    """Where one load runs out.

    `ground` is the place of the ground that it ends on, `done` how much of that is treated by then, 0 to 1; None and 0 where
    none of the load is needed. `needed` is the share of it that goes down, 0 to 1.
    """

    ground: int | None
    done: float
    needed: float


def falls(loads: Sequence[float], grounds: Sequence[float]) -> list[Fall]:
    """Where loads run out that are put down one after the other, on one ground after the other.

    Args:
        loads: what each load holds [L, or g].
        grounds: what each ground takes in all, in the order in which they are treated, 0 of what is left out [as the loads].

    Raises:
        InputError: a ground that takes less than nothing, or a load that holds nothing.
    """
    for i, taken in enumerate(grounds):
        if not taken >= 0:
            raise InputError(f"grounds.{i}", taken, "A ground takes nothing or more.", "Enter what goes down on it.")
    whole, before, found = sum(grounds), 0.0, list[Fall]()
    for i, held in enumerate(loads):
        if not held > 0:
            raise InputError(f"loads.{i}", held, "A load holds something.", "Enter what is mixed for it.")
        end = min(before + held, whole)
        out = end - before
        found.append(_ends(grounds, end, out / held) if out > CRUMB * held else Fall(None, 0.0, 0.0))
        before = end
    return found


def _ends(grounds: Sequence[float], end: float, needed: float) -> Fall:
    """The ground on which so much has gone out; the last that takes something where rounding goes past it."""
    begun = 0.0
    last = max(i for i, taken in enumerate(grounds) if taken > 0)
    for i, taken in enumerate(grounds):
        if taken > 0 and (end <= begun + taken * (1 + CRUMB) or i == last):
            done = min(1.0, (end - begun) / taken)
            return Fall(i, 1.0 if done > 1 - CRUMB else done, 1.0 if needed > 1 - CRUMB else needed)
        begun += taken
    raise AssertionError("a load is needed only where a ground takes something")
