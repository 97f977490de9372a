"""What else is done to ground beside putting something down on it: each kind a row, with what may be told of it.

The rows are the only list: forms, sentences, checks and the stored form are made from them. A kind that a lock keeps off the
ground names it, so that work inside a label's hours is told against that label.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from core.ledger.locks import Forbidden
from core.units import LENGTH


@dataclass(frozen=True)
class Ask:
    """One thing that may be told of a work: a quantity between `least` and `most` in base units, a choice, or words.

    `units` are the keys of the units it is usually given in, US first, of a `dimension`; `choices` by key; `said` is
    how it stands in a sentence.
    """

    key: str
    name: str
    dimension: str = ""
    units: tuple[str, str] = ("", "")
    least: float = 0.0
    most: float = 0.0
    choices: tuple[tuple[str, str], ...] = ()
    said: str = "{}"


@dataclass(frozen=True)
class Doing:
    """A kind of work: its name, what was done when it is done, what may be told of it, and the lock it would break."""

    key: str
    name: str
    done: str
    asks: tuple[Ask, ...] = ()
    breaks: Forbidden | None = None


_DIRECTION = Ask(
    "direction",
    "Direction",
    choices=(("along", "lengthwise"), ("across", "crosswise"), ("diagonal", "diagonally"), ("round", "round and round")),
)


def _depth(name: str, most: float, least: float = 1e-4, said: str = "{}") -> Ask:
    """A depth.

    Args:
        name: in the form.
        most: that is believed [m].
        least: that is believed [m].
        said: how it stands in a sentence.
    """
    return Ask("depth", name, LENGTH, ("in", "mm"), least, most, said=said)


DOINGS: Mapping[str, Doing] = {
    d.key: d
    for d in (
        Doing(
            "mow",
            "Mowing",
            "mown",
            (
                Ask("height", "Cut at", LENGTH, ("in", "mm"), 1e-3, 0.3, said="at {}"),
                _DIRECTION,
                Ask("clippings", "Clippings", choices=(("left", "left"), ("taken", "taken off")), said="clippings {}"),
            ),
            Forbidden.MOW,
        ),
        Doing("water", "Watering", "watered", (_depth("Water", 0.1),), Forbidden.WATER),
        Doing(
            "aerate",
            "Aeration",
            "aerated",
            (
                Ask(
                    "tines",
                    "By",
                    choices=(("solid", "solid tines"), ("hollow", "hollow tines"), ("blade", "blades"), ("water", "water jets")),
                ),
                _depth("Depth", 0.5, 1e-3, "{} deep"),
            ),
        ),
        Doing("verticut", "Verticutting", "verticut", (_depth("Depth", 0.05), _DIRECTION)),
        Doing("topdress", "Topdressing", "topdressed", (Ask("material", "With"), _depth("Layer", 0.05))),
        Doing("seed", "Seeding", "seeded", (Ask("seed", "Seed"),), Forbidden.SEED),
        Doing("roll", "Rolling", "rolled", (_DIRECTION,)),
        Doing("repair", "Repair", "repaired", (Ask("what", "What"),)),
        Doing("visit", "Visit", "visited", (Ask("who", "By whom"),)),
    )
}
"""Every kind of work, in the order of how often it is done; depths that are believed are ours."""
