"""What is looked for on turf, a row a kind, and the scale that each is scored on.

Scores of 1 to 9 follow the turfgrass trials of the United States (Morris & Shearman, NTEP turfgrass evaluation guidelines,
from memory): 9 is the best there is, whatever is scored, so that of disease and of wilting 9 means none. They are ordinal: a 6
is not twice a 3, and two people score apart; one person scores all that is to be compared.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from core.errors import InputError
from core.label.targets import DISEASE, INSECT, TARGETS, WEED
from core.units import UNITS, show_number


@dataclass(frozen=True)
class Scale:
    """A scale: its name, from `least` to `most` in steps, and what some of its marks mean. `per_area` counts on ground [1/m²]."""

    name: str
    least: float
    most: float
    marks: tuple[tuple[float, str], ...] = ()
    per_area: bool = False

    @property
    def text(self) -> str:
        """The scale in words: what its marks mean."""
        return ", ".join(f"{show_number(n)} {said}" for n, said in self.marks)


@dataclass(frozen=True)
class Look:
    """A kind of thing to look for. `of` is the kind of `TARGETS` it is one of; without, `what` is told in words if at all."""

    key: str
    name: str
    of: str = ""
    scale: Scale | None = None
    share: bool = True


def _nine(name: str, worst: str, best: str, middle: str = "") -> Scale:
    return Scale(name, 1, 9, ((9, best), *([(6.0, middle)] if middle else []), (1, worst)))


_COUNT = Scale("Count", 0, 5000, per_area=True)
"""Insects or grubs found on a piece of ground that was cut out or flushed; more than half a square inch each cannot be."""

LOOKS: Mapping[str, Look] = {
    look.key: look
    for look in (
        Look("disease", "Disease", DISEASE, _nine("Disease", "dead", "none")),
        Look("weed", "Weed", WEED),
        Look("insect", "Insect", INSECT, _COUNT),
        Look("quality", "Quality as a whole", scale=_nine("Quality", "dead", "ideal", "acceptable"), share=False),
        Look("colour", "Colour", scale=_nine("Colour", "straw or brown", "dark green")),
        Look("density", "Density", scale=_nine("Density", "bare", "as dense as can be")),
        Look("drought", "Drought", scale=_nine("Wilting", "all of it wilted", "none")),
        Look(
            "compaction",
            "Compaction",
            scale=Scale("A probe goes in", 1, 4, ((1, "by itself"), (2, "with a push"), (3, "with force"), (4, "not at all"))),
        ),
        Look("damage", "Damage"),
        Look("other", "Something else"),
    )
}


class Sure(StrEnum):
    """How sure it is."""

    SURE = "sure"
    LIKELY = "likely"
    GUESS = "guess"

    @property
    def text(self) -> str:
        return {"sure": "Sure", "likely": "Likely", "guess": "A guess"}[self.value]


class Namer(StrEnum):
    """Who named it."""

    EYE = "eye"
    ADVISER = "adviser"
    LABORATORY = "laboratory"

    @property
    def text(self) -> str:
        return {"eye": "Own eye", "adviser": "An adviser", "laboratory": "A laboratory"}[self.value]


def look_of(key: str) -> Look:
    """Raises InputError where there is no such kind."""
    if key not in LOOKS:
        raise InputError("kind", key, f"“{key}” is no kind of thing to look for.", f"Use one of: {', '.join(LOOKS)}.")
    return LOOKS[key]


def check_what(look: Look, what: str) -> str:
    """What was looked for: the key of one of the kind's targets, or words where it has none.

    Raises:
        InputError: none is named where one must be, or it is of another kind.
    """
    what = what.strip()
    if not look.of:
        return what
    if what not in TARGETS or TARGETS[what].kind != look.of:
        raise InputError("what", what, f"“{what}” is no {look.name.lower()} known here.", "Pick one of the list.")
    return what


def check_score(look: Look, score: float | None, us: bool) -> float | None:
    """A score as it is kept: of what is counted on ground, per square metre.

    Args:
        look: what was looked for.
        score: on its scale; what is counted, for US readers [1/ft²], else [1/m²].
        us: whether the reader counts in square feet.

    Raises:
        InputError: the kind has no score, or it lies outside of the scale.
    """
    if score is None:
        return None
    scale = look.scale
    if scale is None:
        raise InputError("score", score, f"{look.name} has no score.", "Say how much of the turf shows it.")
    if not scale.least <= score <= scale.most:
        low, high = show_number(scale.least), show_number(scale.most)
        raise InputError(
            "score", score, f"{show_number(score)} is not on the scale of {low} to {high}.", scale.text or "Count anew."
        )
    return score / UNITS["ft2"].size if scale.per_area and us else score


def shown_score(look: Look, score: float, us: bool) -> str:
    """A score as one says it.

    Args:
        look: what was looked for.
        score: as kept, what is counted [1/m²].
        us: whether the reader counts in square feet.
    """
    if look.scale is None:
        return ""
    if look.scale.per_area:
        return f"{show_number(score * (UNITS['ft2'].size if us else 1), 2)} in a square {'foot' if us else 'metre'}"
    said = dict(look.scale.marks).get(score, "")
    if look.key == "compaction":
        return f"a probe goes in {said}" if said else ""
    of = f"{show_number(score, 2)} of {show_number(look.scale.most)}"
    return of if look.name.startswith(look.scale.name) and not look.of else f"{look.scale.name.lower()} {of}"


def check_share(share: float | None, seen: bool) -> float | None:
    """How much of the turf shows it [%].

    Args:
        share: of the turf [%].
        seen: whether it was there.

    Raises:
        InputError: it is no share, or something was not seen and yet is on some of the turf.
    """
    if share is None:
        return None
    if not 0 <= share <= 100:
        raise InputError("severity", share, f"{show_number(share)} % of the turf cannot show it.", "0 to 100 %.")
    if share and not seen:
        raise InputError("severity", share, "It was not seen, and yet some of the turf shows it.", "Leave it empty.")
    return share


def check_mark(look: Look, mark: float, us: bool) -> tuple[float | None, float | None, bool]:
    """One number for a plot: its score and its share [%] as they are kept, one of them None, and whether it was seen at all.

    Args:
        look: what was looked for.
        mark: on its scale, or where it has none how much of the turf shows it [%]; what is counted as in `check_score`.
        us: whether the reader counts in square feet.

    Raises:
        InputError: as `check_score` and `check_share`.
    """
    if look.scale is None:
        return None, check_share(mark, True), mark > 0
    clean = {True: look.scale.least, False: look.scale.most}[look.scale.per_area]
    return check_score(look, mark, us), None, not look.of or mark != clean


def mark_of(look: Look, score: float | None, share: float | None, us: bool) -> float | None:
    """The number that a plot was given, as it was typed; None where it was given none.

    Args:
        look: what was looked for.
        score: as kept; what is counted [1/m²].
        share: of the turf [%].
        us: whether the reader counts in square feet.
    """
    if look.scale is None:
        return share
    return score * UNITS["ft2"].size if score is not None and look.scale.per_area and us else score
