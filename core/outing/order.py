"""What is to be put in order, and what comes of it: jobs with the ways between sites; legs with their times, and what is left."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from core.outing.between import Apart, Asked
from core.outing.driving import shortest
from core.outing.jobs import Job


@dataclass(frozen=True)
class Morning:
    """What is to be put in order: jobs from one minute on and until another, by so many people.

    `travel` is how long it takes from one site to another [min]; `apart` what may not go down together on one day; `order` jobs
    that somebody put after each other by hand, the first one first.
    """

    jobs: tuple[Job, ...]
    begin: int
    end: int
    travel: Mapping[tuple[str, str], int]
    people: int = 1
    apart: tuple[Apart, ...] = ()
    order: tuple[str, ...] = ()

    def driven(self) -> "Morning":
        """The same with the legs of each job in the order of the shortest way over all sites: where a search begins."""
        sites = sorted({leg.site for j in self.jobs for leg in j.legs})
        turn = {site: n for n, site in enumerate(shortest(sites, self.travel))}
        jobs = tuple(replace(j, legs=tuple(sorted(j.legs, key=lambda leg: turn[leg.site]))) for j in self.jobs)
        return replace(self, jobs=jobs)

    def without(self, *keys: str) -> "Morning":
        """The morning without some jobs, and without the water of theirs that then serves none."""
        kept = [j for j in self.jobs if j.key not in keys]
        there = {j.key for j in kept}
        watered = [replace(j, serves=tuple(s for s in j.serves if s in there)) for j in kept]
        jobs = tuple(j for j, old in zip(watered, kept, strict=True) if j.serves or not old.serves)
        there = {j.key for j in jobs}
        apart = tuple(a for a in self.apart if {a.one, a.other} <= there)
        return replace(self, jobs=jobs, apart=apart, order=tuple(k for k in self.order if k in there))


@dataclass(frozen=True)
class Timed:
    """A leg of a job with its time; on its job's first leg `ready` is when measuring for it begins, on the last `cleaned` when
    the machine is clean again. `who` of the people does it, counted from 0; None where nobody stays with it.
    """

    job: str
    leg: int
    begin: int
    end: int
    ready: int | None = None
    cleaned: int | None = None
    who: int | None = None


@dataclass(frozen=True)
class Left:
    """A job, or a `leg` of one that is done, that cannot be done that day: for want of fit `hours`, its mix being too old before
    its last leg (`life`), `against` another by a rule, or for want of time with all. `placed` is where it would go, were the two
    not put after each other by hand.
    """

    job: str
    against: str = ""
    rule: Asked | None = None
    hours: bool = False
    life: bool = False
    placed: bool = False
    leg: int | None = None


@dataclass(frozen=True)
class Order:
    """Legs in the order of their begin, what is left for another day, when all of it is over, and whether none ends earlier.

    `gave` is the common practice that gave way.
    """

    legs: tuple[Timed, ...]
    left: tuple[Left, ...]
    end: int
    proven: bool
    gave: tuple[Asked, ...] = ()

    def at(self, job: str) -> tuple[Timed, ...]:
        return tuple(t for t in self.legs if t.job == job)
