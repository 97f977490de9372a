"""What goes down on a ground, as the rules of a season look at it: booked, under way, planned, or in the same job."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime
from enum import StrEnum
from typing import TypeVar

from core.days import day
from core.label.product import Content, Kind, Product, leading
from core.label.rate import Basis
from core.label.rules import Incompatible, Intent, Row, Rules
from core.rates.nutrients import brought
from core.units import VOLUME, Quantity

T = TypeVar("T")


class Standing(StrEnum):
    """How far an application has come. What is only planned counts like the rest, but never speaks for a plan."""

    BOOKED = "booked"
    UNDER_WAY = "under_way"
    PLANNED = "planned"
    SAME_JOB = "same_job"


@dataclass(frozen=True)
class Place:
    """A ground by id: an area, a named zone of it, or `some` of it where nobody said which.

    `treated` is how much of it [m²], 0 for all. `spots` are scattered over an area: what lies on them lies not on the rest.
    """

    area: int
    zone: str = ""
    some: bool = False
    treated: float = 0.0
    spots: bool = False

    @property
    def whole(self) -> bool:
        return not self.zone and not self.some


@dataclass(frozen=True)
class Holds:
    """For how long an application keeps things off its ground, as its label says [h, d]; None where it says nothing.

    `dry` hours without rain or water, `mow` without mowing, `walk` without people, `seed` days without seed; `water` the hours
    within which it must be watered in.
    """

    dry: float | None = None
    mow: float | None = None
    walk: float | None = None
    seed: int | None = None
    water: float | None = None


def holds_of(rules: Rules) -> Holds:
    """What a label's rules keep off the ground after an application."""
    water = rules.water_in_delay if rules.watered_in else None
    dry = None if rules.watered_in else rules.rain_after
    return Holds(dry, rules.mow_after, rules.reentry, rules.seed_before, water)


@dataclass(frozen=True)
class Applied:
    """One application to one ground.

    `grams` and `litres` are product per area [g/m², L/m²], None where a density is missing; `actives` [g/m²] are by
    common name, `nutrients` [g/m²] by what labels count. `stays_on_leaf` and `watered_in` tell how it is taken up.
    `product` is the name it went down by; `product_id` the card it was of, None where that is no longer known.
    `application` names the event that it is part of: zones of one job are one application. `at` is the time that its clocks
    run from, None where only the day is known. `apart` and `holds` are what its label keeps away from it and off its ground;
    `target` is what a planned one is for.
    """

    on: date
    product: str
    kind: Kind
    codes: tuple[str, ...] = ()
    grams: float | None = None
    litres: float | None = None
    actives: Mapping[str, float] = field(default_factory=dict)
    nutrients: Mapping[Basis, float] = field(default_factory=dict)
    interval: tuple[int | None, int | None] = (None, None)
    curative: bool = False
    stays_on_leaf: bool = False
    watered_in: bool = False
    product_id: int | None = None
    application: str = ""
    standing: Standing = Standing.BOOKED
    place: Place | None = None
    at: datetime | None = None
    apart: tuple[Incompatible, ...] = ()
    holds: Holds = Holds()
    target: str = ""
    also: tuple[Kind, ...] = ()

    @property
    def label_binds(self) -> bool:
        """Whether its label is law: see `Product.label_binds`."""
        return leading(self.kinds).label_binds or (self.is_a(Kind.FERTILISER) and bool(self.actives))

    @property
    def kinds(self) -> tuple[Kind, ...]:
        """Everything that its product is."""
        return (self.kind, *self.also)

    def is_a(self, kind: Kind) -> bool:
        """Whether its product is of a kind."""
        return kind in self.kinds

    @property
    def planned(self) -> bool:
        return self.standing is Standing.PLANNED

    def goes_with(self, other: "Applied") -> bool:
        """Whether it is of the same job as another: in one tank, or on one outing."""
        return bool(self.application) and self.application == other.application

    @property
    def told(self) -> str:
        """When it went down, or will, in words: on 5 June; under way since 5 June; planned for 5 June."""
        before = {Standing.UNDER_WAY: "under way since", Standing.PLANNED: "planned for"}.get(self.standing, "on")
        return f"{before} {day(self.on)}"

    def is_of(self, product: Product) -> bool:
        """Whether it was an application of a product: of its card, or, where its card is not known, of its actives or name."""
        if self.product_id is not None and product.id is not None:
            return self.product_id == product.id
        return self.product == product.name or self.by_actives(product)

    def by_actives(self, product: Product) -> bool:
        """Whether an application without a card holds what a product of a card holds, active by active."""
        if product.id is None or self.product_id is not None or not self.actives:
            return False
        return set(self.actives) == {c.name for c in product.contents if c.basis is Basis.ACTIVE}


def applied(product: Product, amount: Quantity, area: Quantity, on: date, row: Row | None = None) -> Applied:
    """What an amount of a product on an area is to the rules of a season; `row` is the label row that was meant."""
    litres = amount.base if amount.unit.dimension == VOLUME else None
    grams = None if litres is not None else amount.base
    if product.density_g_per_l:
        grams = litres * product.density_g_per_l if litres is not None else grams
        litres = grams / product.density_g_per_l if grams is not None and litres is None and product.liquid else litres
    actives: dict[str, float] = {}
    nutrients: dict[Basis, float] = {}
    for content in product.contents:
        held = _held(product, grams, litres, content)
        if held is None:
            continue
        if content.basis is Basis.ACTIVE:
            actives[content.name] = actives.get(content.name, 0.0) + held / area.base
        else:
            nutrients[content.basis] = nutrients.get(content.basis, 0.0) + held / area.base
    return Applied(
        on,
        product.name,
        product.kind,
        product.codes,
        None if grams is None else grams / area.base,
        None if litres is None else litres / area.base,
        actives,
        brought(product, nutrients),
        row.interval if row else (None, None),
        bool(row and row.intent is Intent.CURATIVE),
        product.rules.stays_on_leaf,
        product.rules.watered_in,
        product.id,
        apart=product.rules.incompatible,
        holds=holds_of(product.rules),
        also=product.also,
    )


def _held(product: Product, grams: float | None, litres: float | None, content: Content) -> float | None:
    """How much of a content an amount of product holds [g]; None where a density is missing."""
    if content.percent is not None:
        return None if grams is None else grams * content.percent / 100
    if content.g_per_l is None:
        return None
    if litres is not None:
        return litres * content.g_per_l
    share = product.share(content)
    return None if grams is None or share is None else grams * share


def added(parts: Sequence[Applied]) -> Applied:
    """The parts of one application of one product that meet on one ground, as one: their amounts together."""
    first = parts[0]
    if len(parts) == 1:
        return first
    return replace(
        first,
        grams=_sum([p.grams for p in parts]),
        litres=_sum([p.litres for p in parts]),
        actives=_sums([p.actives for p in parts]),
        nutrients=_sums([p.nutrients for p in parts]),
        curative=any(p.curative for p in parts),
    )


def _sum(values: Sequence[float | None]) -> float | None:
    known = [v for v in values if v is not None]
    return sum(known) if known else None


def _sums(every: Sequence[Mapping[T, float]]) -> dict[T, float]:
    found: dict[T, float] = {}
    for amounts in every:
        for key, value in amounts.items():
            found[key] = found.get(key, 0.0) + value
    return found


def turn(a: Applied) -> tuple[date, str, str, str, str]:
    """The order of applications: by day, by clock, and then by what they are, so that the order of entry does not matter."""
    return (a.on, a.at.isoformat() if a.at else "", a.product, a.application, a.standing.value)


def in_season(history: Iterable[Applied], start: date, on: date) -> list[Applied]:
    """Applications from `start` to `on`, both in it, oldest first."""
    return sorted((a for a in history if start <= a.on <= on), key=turn)


def of_season(history: Iterable[Applied], start: date) -> list[Applied]:
    """Applications of the whole season that begins at `start`, oldest first: what follows a plan counts against its caps too."""
    end = next_season(start)
    return sorted((a for a in history if start <= a.on < end), key=turn)


def next_season(start: date) -> date:
    """The first day of the season after one that begins at `start`."""
    return date(start.year + 1, start.month, min(start.day, 28) if start.month == 2 else start.day)


def last_of(history: Sequence[Applied], product: Product) -> Applied | None:
    """The latest application of a product."""
    found = [a for a in history if a.is_of(product)]
    return max(found, key=turn) if found else None
