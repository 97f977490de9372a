"""The threshold of an area: the model's own, moved by how easily the turf falls ill, what may be seen on it, and its past.

By how much is common practice, no source; a model says how far its threshold may be moved at all.
"""

from dataclasses import dataclass
from enum import StrEnum

from core.disease.model import Model
from core.errors import InputError


class Level(StrEnum):
    """Less than usual, as usual, more than usual."""

    LOW = "low"
    USUAL = "usual"
    HIGH = "high"


@dataclass(frozen=True)
class Care:
    """How an area is watched for a disease.

    `susceptible` how easily its grass falls ill, `bears` how much of the disease may be seen on it, `history` whether it had
    the disease lately, `own` a threshold of the account's own in the model's unit.
    """

    susceptible: Level = Level.USUAL
    bears: Level = Level.USUAL
    history: bool = False
    own: float | None = None


@dataclass(frozen=True)
class Threshold:
    """A threshold in its model's unit, and what moved it."""

    value: float
    why: str


SUSCEPTIBLE = {Level.LOW: 1.35, Level.USUAL: 1.0, Level.HIGH: 0.8}
BEARS = {Level.LOW: 0.85, Level.USUAL: 1.0, Level.HIGH: 1.5}
HISTORY = 0.9


def threshold_of(model: Model, care: Care = Care()) -> Threshold:
    """The threshold of a model for an area.

    Raises:
        InputError: a threshold of the account's own that is not above 0, or above 1 where values are shares.
    """
    if care.own is not None:
        if care.own <= 0 or (model.share and care.own > 1):
            raise InputError(
                "threshold",
                care.own,
                f"{care.own:g} is no threshold of {model.name}.",
                "Give a share between 0 and 100 %." if model.share else "Give a number above 0.",
            )
        return Threshold(care.own, "set by the account")
    factor = SUSCEPTIBLE[care.susceptible] * BEARS[care.bears] * (HISTORY if care.history else 1.0)
    if model.moves is None or factor == 1.0:
        stays = factor != 1.0
        return Threshold(model.threshold, "the model's own; this one does not move" if stays else "the model's own")
    low, high = model.moves
    value = min(high, max(low, model.threshold * factor))
    return Threshold(value, f"the model's own, moved by {_reasons(care)}")


def _reasons(care: Care) -> str:
    said = []
    if care.susceptible is not Level.USUAL:
        said.append("a grass that falls ill easily" if care.susceptible is Level.HIGH else "a grass that seldom falls ill")
    if care.bears is not Level.USUAL:
        said.append("turf that may show none of it" if care.bears is Level.LOW else "turf that may show some of it")
    if care.history:
        said.append("the disease seen here lately")
    return " and ".join([", ".join(said[:-1]), said[-1]] if len(said) > 1 else said)
