"""What is due, gathered: areas that want the same mix from the same machine are one job, an area once in it."""

from collections.abc import Sequence
from dataclasses import dataclass

from core.outing.jobs import Doing


@dataclass(frozen=True)
class Want:
    """One thing that is due on a ground: its mix by the keys of its products, the machine, and what leaving it counts.

    `rate` tells how strong it is asked for against others of its mix; `turn` is the ground's place in walking order.
    """

    key: str
    ground: str
    site: str
    mix: tuple[str, ...]
    doing: Doing
    machine: str = ""
    weight: float = 1.0
    rate: float = 0.0
    turn: int = 0


@dataclass(frozen=True)
class Gathered:
    """A job of wants that share a mix and a machine: one for each ground; `along` are those of grounds that have it
    already, for no more of it.
    """

    wants: tuple[Want, ...]
    along: tuple[Want, ...] = ()

    @property
    def key(self) -> str:
        first = self.wants[0]
        return "+".join((first.doing.value, *first.mix, first.machine))

    @property
    def weight(self) -> float:
        """What all of it counts: each ground as the gravest that is asked for there."""
        every: dict[str, float] = {}
        for w in (*self.wants, *self.along):
            every[w.ground] = max(every.get(w.ground, 0.0), w.weight)
        return sum(every.values())

    def of(self, ground: str) -> tuple[Want, ...]:
        """Everything that it does for a ground, what sets the rate first."""
        return tuple(w for w in (*self.wants, *self.along) if w.ground == ground)


def gathered(wants: Sequence[Want]) -> list[Gathered]:
    """What is due as jobs, the gravest first; in each the grounds in walking order, site by site.

    Of two wants of one mix on one ground the stronger sets the rate, and the other comes along.
    """
    jobs: dict[tuple[str, ...], dict[str, list[Want]]] = {}
    for w in wants:
        jobs.setdefault((w.doing.value, w.machine, *w.mix), {}).setdefault(w.ground, []).append(w)
    found = []
    for by_ground in jobs.values():
        first, along = [], []
        for every in by_ground.values():
            best, *rest = sorted(every, key=lambda w: (-w.rate, -w.weight, w.key))
            first.append(best)
            along += rest
        sites = {site: n for n, site in enumerate(dict.fromkeys(w.site for w in wants))}
        first.sort(key=lambda w: (sites[w.site], w.turn, w.ground))
        found.append(Gathered(tuple(first), tuple(sorted(along, key=lambda w: w.key))))
    return sorted(found, key=lambda g: (-max(w.weight for w in g.wants), -g.weight, g.key))
