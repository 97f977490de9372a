"""What one job asks of another on the same ground: hours between them, an order, or never on one day.

Hours come from the labels. That granules go before liquids, and what stays on the leaf before what is watered in, is common
practice, no source; it gives way where a label asks otherwise.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from core.label.product import Product
from core.label.rules import Leaf
from core.ledger.history import holds_of
from core.outing.jobs import Doing, Job, minutes
from core.units import show_number

DRYING = 2.0
"""Hours until a leaf that was watered is dry again, where no weather tells (ours)."""


@dataclass(frozen=True)
class Asked:
    """What is asked of `second` after `first` on one ground: so many minutes at the least and at the most [min]; `never` where it
    must not follow on that day. `practice` is common practice, which gives way; the rest are rules.
    """

    key: str
    first: str
    second: str
    text: str
    least: int = 0
    most: int | None = None
    never: bool = False
    practice: bool = False


@dataclass(frozen=True)
class Apart:
    """Two jobs that a rule keeps off one ground on one day, in either order."""

    one: str
    other: str
    text: str


def asked(jobs: Sequence[Job], apart: Iterable[Apart] = ()) -> list[Asked]:
    """Everything that jobs ask of each other where they meet on a ground, each in the order first, then second."""
    found = []
    for a in jobs:
        for b in jobs:
            if a.key != b.key and set(a.grounds) & set(b.grounds):
                found += _after(a, b)
    for x in apart:
        found += [Asked("apart", p, q, x.text, never=True) for p, q in ((x.one, x.other), (x.other, x.one))]
    return found


def _after(a: Job, b: Job) -> list[Asked]:
    """What is asked where one job is followed by another."""
    return [*_holds(a, b), *_water(a, b), *_mower(a, b), *_practice(a, b)]


def _longest(products: Iterable[Product], hours: Iterable[float | None]) -> tuple[float, str]:
    known = [(h, p.name) for p, h in zip(products, hours, strict=True) if h]
    return max(known, default=(0.0, ""))


def _holds(a: Job, b: Job) -> list[Asked]:
    """The hours that labels keep people, water and the mower off the ground."""
    holds, found = [holds_of(p.rules) for p in a.products], []
    walk, whose = _longest(a.products, [h.walk for h in holds])
    if walk and (b.hands or b.doing is Doing.MOW):
        said = f"{whose} keeps people off for {show_number(walk)} h."
        found.append(Asked("walk", a.key, b.key, said, minutes(walk)))
    dry, whose = _longest(a.products, [h.dry for h in holds])
    if dry and b.doing is Doing.WATER:
        said = f"{whose} must stay dry for {show_number(dry)} h."
        found.append(Asked("dry", a.key, b.key, said, minutes(dry)))
    mow, whose = _longest(a.products, [h.mow for h in holds])
    if mow and b.doing is Doing.MOW:
        found.append(Asked("mow-after", a.key, b.key, f"No mowing for {show_number(mow)} h after {whose}.", minutes(mow)))
    return found


def _water(a: Job, b: Job) -> list[Asked]:
    """Water after what it waters in, soon enough; and what wants a dry leaf, after water."""
    found = []
    if a.key in b.serves:
        named = [(h.water, p.name) for p in a.products if (h := holds_of(p.rules)).water is not None]
        most, whose = min(named, default=(None, ""), key=lambda x: x[0] or 0.0)
        if most is None:
            found.append(Asked("water-in", a.key, b.key, f"{_names(a)} is watered in."))
        else:
            said = f"{whose} is watered in within {show_number(most)} h."
            found.append(Asked("water-in", a.key, b.key, said, 0, minutes(most)))
    if b.key in a.serves:
        found.append(Asked("water-last", a.key, b.key, f"The water comes after {_names(b)}.", never=True))
    if a.doing is Doing.WATER:
        hours, whose = _longest(b.products, [p.rules.rain_before for p in b.products])
        leaf = next((p.name for p in b.products if p.rules.leaf is Leaf.DRY), "")
        if hours:
            said = f"{whose} wants {show_number(hours)} h without water before it."
            found.append(Asked("dry-before", a.key, b.key, said, minutes(hours)))
        elif leaf:
            found.append(Asked("dry-leaf", a.key, b.key, f"{leaf} wants a dry leaf.", minutes(DRYING)))
    return found


def _mower(a: Job, b: Job) -> list[Asked]:
    """The hours that labels want between the mower and what goes down after it."""
    if a.doing is not Doing.MOW:
        return []
    hours, whose = _longest(b.products, [p.rules.mow_before for p in b.products])
    said = f"{whose} wants {show_number(hours)} h between the mower and it."
    return [Asked("mow-before", a.key, b.key, said, minutes(hours))] if hours else []


def _practice(a: Job, b: Job) -> list[Asked]:
    """What follows in the wrong order by common practice."""
    if a.doing is Doing.SPRAY and b.doing is Doing.SPREAD:
        said = "Granules go down before liquids: they stick to a wet leaf."
        return [Asked("granules-first", a.key, b.key, said, never=True, practice=True)]
    if a.doing is b.doing is Doing.SPRAY and _soaks(a) and not _soaks(b) and _leaf(b):
        said = f"{_names(b)} stays on the leaf and goes before {_names(a)}, which is watered in."
        return [Asked("leaf-first", a.key, b.key, said, never=True, practice=True)]
    return []


def _soaks(job: Job) -> bool:
    return any(p.rules.watered_in for p in job.products)


def _leaf(job: Job) -> bool:
    return any(p.rules.stays_on_leaf for p in job.products)


def _names(job: Job) -> str:
    return " with ".join(p.name for p in job.products) or job.doing.value
