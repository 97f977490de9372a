"""Which applications lie on which ground: areas, their parts, their zones, and areas that overlap by their outlines.

Ground is one. What goes down on a whole is on its parts, what goes down on a part is on that part of the whole; zones of one
area lie beside each other. A plan's ground is cut into pieces, each with its own facts and its own past, and a rule is asked
of every piece: so that cutting ground up differently changes no verdict.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property

from core.ground import Ground
from core.ledger.history import Applied, Place, Standing, added, turn

NEAR = 1 + 1e-6
"""Sizes as typed are the same within this factor."""


@dataclass(frozen=True)
class Tract:
    """An area as the ledger knows it: its facts, what it is a part of, and which areas of no kin its outline overlaps.

    `gone` is one that was put away: what lies on it counts, and it takes nothing from its whole.
    """

    id: int
    ground: Ground
    parent: int | None = None
    overlaps: frozenset[int] = frozenset()
    gone: bool = False

    @property
    def size(self) -> float:
        """How large it is [m²]."""
        return self.ground.size.base


@dataclass(frozen=True)
class Piece:
    """A piece of a plan's ground: its facts, and what bears on it, each product of each application once.

    `spots` are the days on which spots of it were treated, for a piece that is those spots; they can be left out.
    """

    ground: Ground
    past: tuple[Applied, ...] = ()
    spots: tuple[date, ...] = ()


@dataclass(frozen=True)
class Grounds:
    """The areas of an account by their ids."""

    tracts: Mapping[int, Tract] = field(default_factory=dict)

    @cached_property
    def parts(self) -> dict[int, list[int]]:
        """The parts of each area that has any."""
        found: dict[int, list[int]] = {}
        for t in self.tracts.values():
            if t.parent in self.tracts and t.parent is not None:
                found.setdefault(t.parent, []).append(t.id)
        return found

    def above(self, area: int) -> list[int]:
        """What an area is part of, the nearest first; a ring of parents ends where it closes."""
        found: list[int] = []
        here = self.tracts[area].parent if area in self.tracts else None
        while here is not None and here in self.tracts and here not in found and here != area:
            found.append(here)
            here = self.tracts[here].parent
        return found

    def below(self, area: int) -> list[int]:
        """All parts of an area, and theirs."""
        found: list[int] = []
        grew = list(self.parts.get(area, ()))
        while grew:
            found += grew
            grew = [p for pk in grew for p in self.parts.get(pk, ()) if p not in found and p != area]
        return found

    def kin(self, area: int) -> set[int]:
        """An area with all that it is part of, all its parts, and what overlaps it by its outline."""
        every = {area, *self.above(area), *self.below(area)}
        return every | {o for pk in every if pk in self.tracts for o in self.tracts[pk].overlaps}

    def rest(self, area: int) -> float:
        """How much of an area is none of its parts [m²]."""
        parts = sum(self.tracts[p].size for p in self.parts.get(area, ()) if not self.tracts[p].gone)
        return max(0.0, self.tracts[area].size - parts)

    def pieces(self, place: Place, every: Sequence[Applied], job: Sequence[Applied] = ()) -> tuple[Piece, ...]:
        """The pieces of a plan's ground, the area itself first, each with what lies on it of `every` and of its own `job`."""
        inside = [place.area]
        if place.whole or place.treated > self.rest(place.area) * NEAR:
            inside += [a for a in self.below(place.area) if place.whole or not self._beside(place, a, job)]
        every = [*every, *job]
        jobs = applications(every)
        found = []
        for area in inside:
            here = [a.place for a in every if a.place and a.place.area == area and not a.place.spots]
            zones = {z: None for p in here if (z := _zone(p))}
            if area == place.area and place.zone:
                zones = {_zone(place): None}
            elif area != place.area or not place.zone:
                zones = {"": None, **zones}
            found += [Piece(self.tracts[area].ground, self.past(area, zone, jobs)) for zone in zones]
        return (*found, *self._spotted(inside, jobs))

    def _spotted(self, inside: Sequence[int], jobs: Sequence[Sequence[Applied]]) -> Iterator[Piece]:
        """The spots that were treated on some areas, each area's as one piece with all that lies on it."""
        for area in inside:
            days = {a.on for job in jobs for a in job if a.place and _scattered(a) and self._may_lie(a.place, area)}
            if days:
                yield Piece(self.tracts[area].ground, self.past(area, "", jobs, spots=True), tuple(sorted(days)))

    def _may_lie(self, spots: Place, area: int) -> bool:
        """Whether spots may lie on an area: they are of it, of what it is part of, or of what overlaps it."""
        return spots.area == area or spots.area in self.above(area) or area in self._overlaps(spots.area)

    def _overlaps(self, area: int) -> frozenset[int]:
        return self.tracts[area].overlaps if area in self.tracts else frozenset()

    def past(self, area: int, zone: str, jobs: Sequence[Sequence[Applied]], spots: bool = False) -> tuple[Applied, ...]:
        """What lies on a zone of an area, or on its `spots`, each product of each application once, the oldest first."""
        found = []
        for job in jobs:
            products: dict[object, list[Applied]] = {}
            for a in job:
                if a.place is None:
                    continue
                lies = (spots and self._may_lie(a.place, area)) if _scattered(a) else self._covers(a.place, area, zone, job)
                if lies:
                    products.setdefault(a.product_id or a.product, []).append(a)
            found += [added(parts) for parts in products.values()]
        return tuple(sorted(found, key=turn))

    def _covers(self, place: Place, area: int, zone: str, job: Sequence[Applied]) -> bool:
        """Whether what was treated at `place` lies on a zone of an area, or may; `job` is all that was treated with it."""
        if place.area == area:
            return place.some or place.whole or _zone(place) == zone
        if area in self.tracts and place.area in self.tracts[area].overlaps:
            return True
        if place.area not in self.above(area):
            return False
        if place.whole:
            return True
        if self._beside(place, area, job):
            return False
        return place.treated > self.rest(place.area) * NEAR

    def _beside(self, place: Place, area: int, job: Sequence[Applied]) -> bool:
        """Whether the same job treats the area for itself, so that the treated part of the whole lies beside it."""
        below = set(self.below(place.area))
        others = {
            a.place.area: a.place.treated or self.tracts[a.place.area].size for a in job if a.place and a.place.area in below
        }
        mine = any(o == area or o in self.above(area) for o in others)
        return mine and place.treated + sum(others.values()) <= self.tracts[place.area].size * NEAR


def _zone(place: Place) -> str:
    return "" if place.some else " ".join(place.zone.split()).casefold()


def _scattered(a: Applied) -> bool:
    """Whether it lies on spots of its area, and not on those of the plan's own job."""
    return a.place is not None and a.place.spots and a.standing is not Standing.SAME_JOB


def applications(every: Sequence[Applied]) -> list[list[Applied]]:
    """Applications with all their parts; one that names no application stands for itself."""
    found: dict[object, list[Applied]] = {}
    for i, a in enumerate(every):
        found.setdefault(a.application or i, []).append(a)
    return list(found.values())
