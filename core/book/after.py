"""What to expect after an application and when to look again, by what went down; and what two without effect call for.

Days and signs are common practice, no source: turf trade. The label, the weather and the growth of the turf come first.
"""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from enum import StrEnum

from core.days import so_many
from core.errors import InputError
from core.label.product import Kind
from core.readable import joined


@dataclass(frozen=True)
class Sign:
    """What is seen from day `first` to day `last` after an application."""

    first: int
    last: int
    text: str


@dataclass(frozen=True)
class Course:
    """What follows an application of a kind: its signs, and the days on which to look."""

    signs: tuple[Sign, ...]
    looks: tuple[int, ...] = ()


COURSES: Mapping[Kind, Course] = {
    Kind.FUNGICIDE: Course(
        (
            Sign(1, 5, "No new spots where it holds. Old ones stay as they are."),
            Sign(6, 21, "Old spots go with growth, not before: new leaf must grow over them."),
        ),
        (3, 8, 14),
    ),
    Kind.HERBICIDE: Course(
        (
            Sign(2, 7, "Weeds twist, yellow or pale."),
            Sign(8, 21, "Weeds die over about two weeks. Leave them be, and do not pull them before."),
        ),
        (7, 14, 28),
    ),
    Kind.INSECTICIDE: Course(
        (Sign(1, 14, "Insects die over days, grubs over two to three weeks; the turf recovers with growth."),), (7, 21)
    ),
    Kind.GROWTH_REGULATOR: Course(
        (
            Sign(2, 10, "A yellow tint, mostly from day 2 to 4. It is harmless, and goes with mowing."),
            Sign(4, 28, "Fewer clippings, denser turf. When it ends, growth comes back stronger for a while."),
        ),
        (4, 10),
    ),
    Kind.FERTILISER: Course((Sign(3, 7, "Greener and faster growth from what is quick; slow parts follow over weeks."),), (7,)),
    Kind.IRON: Course((Sign(1, 3, "Darker green within two days, for two to three weeks. Too much shows as black leaf."),)),
    Kind.COLOURANT: Course((Sign(0, 2, "The dye is gone in one or two days, and with mowing and rain."),)),
}
"""By kind; of several products in a mix, each has its own."""
WINDOW = timedelta(days=35)
"""After that nobody is asked any more (ours)."""
TOGETHER = timedelta(days=70)
"""Applications against one thing on one ground that lie no further apart are one attempt at it (ours)."""
WITHOUT = 2
"""Applications without effect from which it is said."""


MOST_DAYS = 730
"""Two seasons on nothing is looked at any more (ours)."""
MOST_LOOKS = 40
"""Looks at one thing (ours)."""


class How(StrEnum):
    """How it is now."""

    CLEAN = "clean"
    AS_EXPECTED = "expected"
    BETTER = "better"
    SAME = "same"
    WORSE = "worse"
    HARMED = "harmed"

    @property
    def text(self) -> str:
        return {
            "clean": "Clean",
            "expected": "As expected",
            "better": "Better",
            "same": "The same",
            "worse": "Worse",
            "harmed": "The turf is harmed",
        }[self.value]

    @property
    def without_effect(self) -> bool:
        """Whether it speaks for no effect."""
        return self in (How.SAME, How.WORSE)


def signs(kinds: Iterable[Kind]) -> list[Sign]:
    """What follows a mix of these kinds, in the order of days."""
    found = {s: None for k in kinds if k in COURSES for s in COURSES[k].signs}
    return sorted(found, key=lambda s: (s.first, s.last))


def read_days(text: str, field: str = "days", most: int = MOST_DAYS) -> list[int]:
    """Days after something as typed, `0, 7, 14`, in their order; none where nothing is typed.

    Raises:
        InputError: they are no days, too late, or too many.
    """
    words = [w for w in re.split(r"[,;\s]+", text.strip()) if w]
    if not all(re.fullmatch(r"\d{1,4}", w) for w in words):
        raise InputError(field, text, f"“{text}” are no days.", "Write them like 3, 8, 14: days after it.")
    days = sorted({int(w) for w in words})
    if days and days[-1] > most:
        raise InputError(field, text, f"Day {days[-1]} is too late.", f"Up to day {most}.")
    if len(days) > MOST_LOOKS:
        raise InputError(field, text, f"{len(days)} days are too many.", f"Up to {MOST_LOOKS}.")
    return days


class Rhythm(StrEnum):
    """How often the house looks after what went down; a card's own days go before it."""

    USUAL = "usual"
    LAST = "last"
    CARD = "card"


def looks(
    kinds: Iterable[Kind],
    preventive: bool = False,
    own: Mapping[Kind, Iterable[int]] | None = None,
    rhythm: Rhythm = Rhythm.USUAL,
) -> list[int]:
    """The days after a mix on which to look.

    Args:
        kinds: of its products.
        preventive: whether nothing was there before: one look is enough then.
        own: the days that cards of these kinds have themselves, in place of the usual ones.
        rhythm: of the house.
    """
    found: set[int] = set()
    for kind in kinds:
        if mine := sorted((own or {}).get(kind, ())):
            found |= set(mine)
        elif kind in COURSES and rhythm is not Rhythm.CARD:
            days = COURSES[kind].looks
            found |= set(days[-1:] if preventive or rhythm is Rhythm.LAST else days)
    return sorted(found)


def answers(kinds: Iterable[Kind]) -> list[How]:
    """How it may be, after a mix of these kinds: pests go or stay, anything else does what was expected or not."""
    if {*kinds} & {Kind.FUNGICIDE, Kind.HERBICIDE, Kind.INSECTICIDE}:
        return [How.CLEAN, How.BETTER, How.SAME, How.WORSE, How.HARMED]
    return [How.AS_EXPECTED, How.SAME, How.HARMED]


def due(on: date, days: Sequence[int], today: date, answered: Iterable[date]) -> int | None:
    """The day of looking that is due: the latest that has come and that nobody has answered since; None where none is.

    Args:
        on: the day of the application.
        days: after it on which to look, as `looks` gives them.
        today: the day it is asked.
        answered: the days on which somebody said how it is.
    """
    if today - on > WINDOW:
        return None
    come = [n for n in days if on + timedelta(days=n) <= today]
    if not come:
        return None
    latest = max([*answered, date.min])
    return come[-1] if latest < on + timedelta(days=come[-1]) else None


@dataclass(frozen=True)
class Tried:
    """An application against something: its day, product and groups, and how it was seen to be last; None where nobody looked."""

    on: date
    product: str
    codes: tuple[str, ...]
    how: How | None


def without_effect(tried: Sequence[Tried]) -> list[Tried]:
    """The latest applications of one attempt that all had no effect, the oldest first; fewer than two call for nothing.

    Those that nobody looked at are left out, and neither speak for an effect nor against it.
    """
    run: list[Tried] = []
    for one in sorted(tried, key=lambda t: t.on, reverse=True):
        if one.how is None:
            continue
        if not one.how.without_effect or (run and run[-1].on - one.on > TOGETHER):
            break
        run.append(one)
    return run[::-1] if len(run) >= WITHOUT else []


def without_effect_text(target: str, run: Sequence[Tried]) -> str:
    """That several had no effect, in words."""
    days = (run[-1].on - run[0].on).days
    products = joined(list(dict.fromkeys(t.product for t in run)))
    return f"{len(run)} applications against {target} within {so_many(days)} showed no effect: {products}."


def what_else(kind: str, run: Sequence[Tried]) -> list[str]:
    """What else to do where several had no effect, a sentence each.

    Args:
        kind: of the target, as `core.label.targets` has it.
        run: the applications, as `without_effect` gives them.
    """
    codes = joined(list(dict.fromkeys(c for t in run for c in t.codes)))
    found = ["Have a sample looked at by a laboratory or an adviser before the next: it may be something else."]
    if codes:
        found.append(f"Take another group than {codes}: what withstands one product withstands its group.")
    found.append("Look back at rate, water carrier, rain and mowing on those days: too little, or washed off, looks the same.")
    if kind == "weed":
        found.append("Dig out what is few, and seed the gaps.")
    if kind == "disease":
        found.append("Change what it lives on: dew, thatch, shade, drainage, nitrogen.")
    return found
