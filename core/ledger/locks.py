"""Locks: stretches of time on a ground in which something must not happen.

Each comes of an application's label and of the time it was made: rain or water on the leaf, mowing, walking, seeding. A clock
that is not known is taken at its worst: an application of a day has begun with it and holds from its end.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta, tzinfo
from enum import StrEnum

from core.days import clock, day
from core.findings import Finding, Weight
from core.label.product import Product
from core.ledger.history import Applied, Holds
from core.ledger.rotation import binding
from core.units import show_number

MOST_HOURS_DAYS = 21
"""No label's hours without water or people run longer than so many days (ours)."""


NOTHING = Holds()


class Forbidden(StrEnum):
    """What a lock keeps off the ground."""

    WATER = "water"
    MOW = "mow"
    WALK = "walk"
    SEED = "seed"

    @property
    def text(self) -> str:
        return {"water": "no water", "mow": "no mowing", "walk": "no walking", "seed": "no seeding"}[self.value]


@dataclass(frozen=True)
class Lock:
    """Something that must not happen on a ground from `begin` to `end`, and which application's label says so."""

    what: Forbidden
    begin: datetime
    end: datetime
    by: Applied

    @property
    def binds(self) -> bool:
        """Whether breaking it is refused, by whichever product it would be broken."""
        return self.by.label_binds

    def meets(self, begin: datetime, end: datetime) -> bool:
        """Whether it holds at any time from `begin` to `end`."""
        return self.begin <= end and begin < self.end

    def until(self, zone: tzinfo) -> str:
        """Until when it holds, in words."""
        return day(self.end.astimezone(zone).date()) if self.what is Forbidden.SEED else clock(self.end, zone)


def span_of(a: Applied, zone: tzinfo) -> tuple[datetime, datetime]:
    """The time of an application, its clock; the whole of its day where no clock is known."""
    if a.at is not None:
        return a.at, a.at
    return midnight(a.on, zone), midnight(a.on + timedelta(days=1), zone)


def midnight(on: date, zone: tzinfo) -> datetime:
    """The beginning of a day at the ground."""
    return datetime.combine(on, time(), zone)


def locks_of(past: Sequence[Applied], zone: tzinfo) -> list[Lock]:
    """The locks that applications lay on a ground, those that end first first."""
    found = []
    for a in past:
        begin, end = span_of(a, zone)
        hours = ((Forbidden.WATER, a.holds.dry), (Forbidden.MOW, a.holds.mow), (Forbidden.WALK, a.holds.walk))
        found += [Lock(what, begin, end + timedelta(hours=h), a) for what, h in hours if h]
        if a.stays_on_leaf and not a.holds.dry:  # its label's hours are not kept with it: the day itself is
            found.append(Lock(Forbidden.WATER, begin, midnight(a.on + timedelta(days=1), zone), a))
        if a.holds.seed:
            found.append(Lock(Forbidden.SEED, begin, midnight(a.on + timedelta(days=a.holds.seed), zone), a))
    return sorted(found, key=lambda x: (x.end, x.what, x.by.product))


def locked(product: Product, plan: Applied, past: Sequence[Applied], zone: tzinfo) -> list[Finding]:
    """What a plan would break of what is locked, and what would break the plan's own dry hours.

    Args:
        product: that is planned.
        plan: with its time.
        past: what bears on the ground.
        zone: of the ground.
    """
    near = [a for a in past if abs((a.on - plan.on).days) <= MOST_HOURS_DAYS and _holds(a)]
    if not near:
        return []
    at, locks = span_of(plan, zone), locks_of(near, zone)
    return [
        *_washed_off(product, plan, locks, at, zone),
        *_kept_dry(product, plan, near, at, zone),
        *_walked(plan, locks, at, zone),
    ]


def edges(plan: Applied, past: Iterable[Applied], zone: tzinfo) -> set[datetime]:
    """The times at which what `locked` says of a plan can change, on each day by itself: the beginning and the end of every lock,
    and those less the hours that the plan asks for itself.
    """
    own = [timedelta(hours=h) for h in (0.0, plan.holds.dry, plan.holds.water) if h is not None]
    found = set[datetime]()
    for a in past:
        if _holds(a):
            begin, end = span_of(a, zone)
            hours = (a.holds.dry, a.holds.mow, a.holds.walk, a.holds.water)
            over = midnight(a.on + timedelta(days=1), zone)
            for at in (begin, end, over, *(end + timedelta(hours=h) for h in hours if h)):
                found |= {at - before for before in own}
    return found


def _holds(a: Applied) -> bool:
    return a.holds != NOTHING or a.stays_on_leaf or a.watered_in


def _washed_off(
    product: Product, plan: Applied, locks: Sequence[Lock], at: tuple[datetime, datetime], zone: tzinfo
) -> list[Finding]:
    """A watered-in product while the leaf must stay dry for another."""
    if not plan.watered_in:
        return []
    wet = at[1] + timedelta(hours=plan.holds.water or 0.0)
    broken = [x for x in locks if x.what is Forbidden.WATER and x.meets(at[0], wet)]
    if not broken:
        return []
    last = max(broken, key=lambda x: (x.binds, x.end))
    act = Weight.REFUSE if any(x.binds for x in broken) else Weight.WARN
    if together := next((x.by for x in broken if plan.goes_with(x.by)), None):
        said = f"{together.product} must stay dry on the leaf, and {product.name} is watered in: not in one job."
        return [Finding("washes-off", act, f"{said} Put them down apart.")]
    free = max(broken, key=lambda x: x.end).until(zone)
    said = (
        f"{last.by.product} ({last.by.told}) must stay dry until {last.until(zone)}, "
        f"and {product.name} is watered in: the water would take it off."
    )
    return [Finding("washes-off", act, f"{said} From {free}.")]


def _kept_dry(
    product: Product, plan: Applied, past: Sequence[Applied], at: tuple[datetime, datetime], zone: tzinfo
) -> list[Finding]:
    """A product that must stay dry while another is still to be watered in, or is planned to be within its hours."""
    hours = plan.holds.dry
    if not hours:
        return []
    dry = at[1] + timedelta(hours=hours)
    for a in past:
        begin, end = span_of(a, zone)
        if not a.watered_in or begin > dry or end + timedelta(hours=a.holds.water or 0.0) <= at[0]:
            continue
        if begin > at[1]:
            said = f"{a.product} is {a.told} and watered in; {product.name} must stay dry for {show_number(hours)} h before that."
            return [Finding("washed-off", binding(product), f"{said} Put it down later, or move the other.")]
        if plan.goes_with(a):
            said = f"{a.product} is watered in, and {product.name} must stay dry on the leaf: not in one job."
            return [Finding("washed-off", binding(product), f"{said} Put them down apart.")]
        if a.holds.water:
            by = clock(end + timedelta(hours=a.holds.water), zone)
            said = f"{a.product} is to be watered in by {by}; {product.name} must then stay dry for {show_number(hours)} h."
            return [Finding("water-first", Weight.WARN, f"{said} Water first, and let the leaf dry.")]
    return []


def _walked(plan: Applied, locks: Sequence[Lock], at: tuple[datetime, datetime], zone: tzinfo) -> list[Finding]:
    """Ground that people are to be kept off; whoever applies may go on it in the gear that the label asks for."""
    shut = [x for x in locks if x.what is Forbidden.WALK and x.begin <= at[0] < x.end and not plan.goes_with(x.by)]
    if not shut:
        return []
    last = max(shut, key=lambda x: x.end)
    said = f"People are kept off it until {last.until(zone)} after {last.by.product}: go on it in the gear of that label."
    return [Finding("walked-on", Weight.WARN, said)]
