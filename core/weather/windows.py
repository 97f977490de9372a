"""Hours fit to work: each hour of a table held against what a product's label, the ground and the account ask for.

Every rule looks at an hour and answers good, mind, bad or not known, with its reason; the hour is as good as its worst rule.
What lies ahead is foretold with an error that grows with the lead, so that limits are drawn in by it: the hour must hold with
the error against it. The errors are rules of thumb (ours). A tank of several products asks for the strictest of all.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from enum import IntEnum

import numpy as np
from numpy.typing import NDArray

from core.label.product import Kind
from core.label.rules import Leaf, Rules
from core.spans import spans
from core.units import show_number
from core.weather.hours import Hours
from core.weather.moisture import delta_t
from core.weather.words import breeze, rainfall, warmer, warmth

Floats = NDArray[np.float64]

AIR_ERROR, WIND_ERROR = (0.5, 0.02), (0.3, 0.012)
"""Error of a forecast at once, and more an hour of its lead: air [°C, °C/h], wind [m/s, m/s an hour]."""
RAIN_LEAST = 0.2
"""Less rain than this in an hour [mm] wets no label's clock."""
LOW_WIND = 1.3
"""Below this wind [m/s] near sunrise and sunset air may lie in layers (common practice, no source)."""
DROPLET = (2.0, 10.0)
"""Delta-T [°C] that spray is put down in, where the label says nothing (common practice, no source)."""


class Fit(IntEnum):
    """How fit an hour is; the greater, the worse."""

    GOOD = 0
    MIND = 1
    UNKNOWN = 2
    BAD = 3

    @property
    def text(self) -> str:
        return {0: "go", 1: "mind", 2: "not known", 3: "no"}[self.value]


@dataclass(frozen=True)
class Needs:
    """What is asked of the hours: temperatures [°C], wind [m/s], rain-free and rainy hours, the leaf, the mower.

    `dry_before` and `dry_after` hours without rain; `soaked` whether it is watered in, `rain_wanted` the hours within which
    that must be, None where its label names none; `mow_before` and `mow_after` hours without mowing; `droplets` whether it is
    sprayed, `growing` whether it works on turf that grows. `why` names whose rule each is, by the field's name.
    """

    air: tuple[float | None, float | None] = (None, None)
    wind: tuple[float | None, float | None] = (None, None)
    soil: tuple[float | None, float | None] = (None, None)
    leaf: Leaf = Leaf.EITHER
    dry_before: float | None = None
    dry_after: float | None = None
    soaked: bool = False
    rain_wanted: float | None = None
    mow_before: float | None = None
    mow_after: float | None = None
    droplets: bool = False
    growing: bool = False
    why: dict[str, str] = field(default_factory=dict)

    @property
    def asks(self) -> bool:
        """Whether anything is asked of the hour at hand."""
        spans = (*self.air, *self.wind, *self.soil, self.dry_before, self.dry_after, self.mow_before, self.mow_after)
        return self.leaf is not Leaf.EITHER or any(x is not None for x in spans)


LIMITS_OF = (
    "air",
    "wind",
    "soil",
    "leaf",
    "dry_before",
    "dry_after",
    "soaked",
    "rain_wanted",
    "mow_before",
    "mow_after",
    "growing",
)
GROWING = (Kind.GROWTH_REGULATOR, Kind.HERBICIDE, Kind.FERTILISER, Kind.IRON, Kind.BIOSTIMULANT)


def needs_of(rules: Rules, name: str, sprayed: bool, kind: Kind = Kind.FUNGICIDE) -> Needs:
    """What a product's label asks of the hours."""
    return Needs(
        rules.temperature,
        rules.wind,
        rules.soil,
        rules.leaf,
        rules.rain_before,
        rules.rain_after,
        rules.watered_in,
        rules.water_in_delay if rules.watered_in else None,
        rules.mow_before,
        rules.mow_after,
        sprayed,
        kind in GROWING,
        dict.fromkeys(LIMITS_OF, name),
    )


@dataclass(frozen=True)
class Shut:
    """Hours that something on the ground shuts for what is asked: a lock, a label that keeps two things apart."""

    key: str
    flags: NDArray[np.bool_]
    fit: Fit
    text: str


@dataclass(frozen=True)
class Conditions:
    """What the ground and the account bring to each hour; None where it is not told.

    `shut` what has gone down there shuts; `light` daylight, `quiet` hours the account keeps free, `mown` and `watered` hours in
    which that is done, `dormant` hours of days on which the turf does not grow.
    """

    light: NDArray[np.bool_] | None = None
    quiet: NDArray[np.bool_] | None = None
    mown: NDArray[np.bool_] | None = None
    watered: NDArray[np.bool_] | None = None
    dormant: NDArray[np.bool_] | None = None
    shut: tuple[Shut, ...] = ()


ANYWHERE = Conditions()
DORMANT_BELOW = {True: 4.0, False: 12.0}
"""Soil [°C] below which cool-season and warm-season turf hardly grows (common practice, no source)."""


@dataclass(frozen=True)
class Together:
    """The strictest of several needs, and what in them cannot be had at once."""

    needs: Needs
    contradictions: tuple[str, ...]


def together(every: Sequence[Needs]) -> Together:
    """What all products of a tank ask together.

    Contradictions are named: one that must be watered in within hours and one that must stay dry for as long, a leaf that
    should be wet and dry, limits that leave nothing between them.
    """
    if not every:
        return Together(Needs(), ())
    why: dict[str, str] = {}

    def strictest(name: str, pick: Callable[[Needs], float | None], most: bool) -> float | None:
        known = [(value, n.why.get(name, "")) for n in every if (value := pick(n)) is not None]
        if not known:
            return None
        value, whose = (max if most else min)(known)
        why.setdefault(name, whose)
        return value

    air = (strictest("air", lambda n: n.air[0], True), strictest("air", lambda n: n.air[1], False))
    wind = (strictest("wind", lambda n: n.wind[0], True), strictest("wind", lambda n: n.wind[1], False))
    ground = (strictest("soil", lambda n: n.soil[0], True), strictest("soil", lambda n: n.soil[1], False))
    before = strictest("dry_before", lambda n: n.dry_before, True)
    after = strictest("dry_after", lambda n: n.dry_after, True)
    wanted = strictest("rain_wanted", lambda n: n.rain_wanted, False)
    mow_before = strictest("mow_before", lambda n: n.mow_before, True)
    mow_after = strictest("mow_after", lambda n: n.mow_after, True)
    why["soaked"] = next((n.why.get("soaked", "") for n in every if n.soaked), "")
    leaves = {n.leaf for n in every} - {Leaf.EITHER}
    why["leaf"] = next((n.why.get("leaf", "") for n in every if n.leaf is not Leaf.EITHER), "")
    why["growing"] = next((n.why.get("growing", "") for n in every if n.growing), "")
    found = Needs(
        air,
        wind,
        ground,
        next(iter(leaves)) if len(leaves) == 1 else Leaf.EITHER,
        before,
        after,
        any(n.soaked for n in every),
        wanted,
        mow_before,
        mow_after,
        any(n.droplets for n in every),
        any(n.growing for n in every),
        why,
    )
    return Together(found, tuple(_contradictions(found, leaves, why)))


def _contradictions(n: Needs, leaves: set[Leaf], why: dict[str, str]) -> list[str]:
    said = []
    if n.soaked and n.dry_after and (n.rain_wanted is None or n.dry_after >= n.rain_wanted):
        soon = "" if n.rain_wanted is None else f" within {show_number(n.rain_wanted)} h" if n.rain_wanted else " at once"
        one, other, long = why["soaked"], why["dry_after"], show_number(n.dry_after)
        said.append(f"{one} must be watered in{soon}; {other} must stay dry for {long} h. Put them down apart.")
    if len(leaves) > 1:
        said.append("One of them wants a dry leaf, another a wet one. Put them down apart.")
    for name, (low, high) in (("temperatures", n.air), ("winds", n.wind), ("soil temperatures", n.soil)):
        if low is not None and high is not None and low >= high:
            said.append(f"Their {name} leave nothing between them: from {show_number(low)} and up to {show_number(high)}.")
    return said


@dataclass(frozen=True)
class Reason:
    """What one rule says of one hour."""

    key: str
    fit: Fit
    text: str


@dataclass(frozen=True)
class Judged:
    """Every hour with how fit it is and why, the gravest reason first."""

    fits: NDArray[np.int64]
    reasons: tuple[tuple[Reason, ...], ...]


Rule = Callable[[int], Reason | None]


def judge_hours(
    found: Hours,
    needs: Needs,
    *,
    now: int,
    wet: Floats,
    around: Conditions = ANYWHERE,
    age: float = 0.0,
    us: bool = False,
    count: int | None = None,
) -> Judged:
    """Judge every hour from `now` on, or `count` of them.

    Args:
        found: the hours, measured and foretold.
        needs: what is asked of them.
        now: the place of the hour that is now.
        wet: leaf wetness by the hour [share].
        around: what ground and account bring.
        age: of the forecast [h]; it widens its error as its lead does.
        us: whether to speak in US units.
        count: how many hours are judged; all to the end of the table where None.

    Returns:
        A verdict for each of those hours.
    """
    lead = np.maximum(0.0, np.arange(len(found)) - now + age) * found.forecast
    asked: list[tuple[bool, Callable[[], list[Rule]]]] = [
        (True, lambda: _limits(found, needs, lead, us)),
        (needs.leaf is not Leaf.EITHER, lambda: [_leaf(needs, _wetted(wet, around))]),
        (needs.dry_before is not None, lambda: [_dry(found, needs, around, us, before=True)]),
        (needs.dry_after is not None, lambda: [_dry(found, needs, around, us, before=False)]),
        (needs.mow_before is not None, lambda: [_mown(needs, around, before=True)]),
        (needs.mow_after is not None, lambda: [_mown(needs, around, before=False)]),
        (needs.droplets, lambda: [_drops(found, needs, us), _layers(found, needs, around.light)]),
    ]
    rules = [
        *(rule for asks, make in asked if asks for rule in make()),
        _flag(
            "dormant",
            around.dormant if needs.growing else None,
            Fit.MIND,
            f"The turf hardly grows in soil this cold, and {needs.why.get('growing') or 'this'} works on turf that grows.",
        ),
        _flag("dark", None if around.light is None else ~around.light, Fit.BAD, "It is dark."),
        _flag("quiet", around.quiet, Fit.BAD, "The account keeps these hours free."),
        *(_flag(s.key, s.flags, s.fit, s.text) for s in around.shut),
    ]
    places = range(now, len(found) if count is None else min(len(found), now + count))
    return _judged([[r for rule in rules if (r := rule(i))] for i in places])


def _judged(said: Sequence[Sequence[Reason]]) -> Judged:
    """Hours by what was said of each."""
    reasons = tuple(tuple(sorted(every, key=lambda r: -r.fit)) for every in said)
    fits = [every[0].fit if every else Fit.GOOD for every in reasons]
    return Judged(np.array(fits, dtype=np.int64), reasons)


def shut_by(found: Judged, shut: Sequence[Shut], now: int) -> Judged:
    """Judged hours with what else shuts them; the same as had it been among the conditions they were judged by.

    Args:
        found: hours from the one at the place `now` on.
        shut: what shuts hours of the same table.
        now: the place of the first of them in the table.
    """
    if not shut:
        return found
    rules = [_flag(s.key, s.flags, s.fit, s.text) for s in shut]
    return _judged([[*held, *(r for rule in rules if (r := rule(now + i)))] for i, held in enumerate(found.reasons)])


def _limits(found: Hours, needs: Needs, lead: Floats, us: bool) -> list[Rule]:
    """Rules that air, wind and soil lie between their limits, with the forecast's error against them."""
    every = (
        ("air", needs.air, found.air, AIR_ERROR, warmth),
        ("wind", needs.wind, found.wind, WIND_ERROR, breeze),
        ("soil", needs.soil, found.soil, AIR_ERROR, warmth),
    )
    return [
        _between(key, values, _error(lead, error), needs, lambda v, told=told: f"{told(v, us)}")  # type: ignore[misc]
        for key, limits, values, error, told in every
        if limits != (None, None)
    ]


def _error(lead: Floats, grows: tuple[float, float]) -> Floats:
    return np.where(lead > 0, grows[0] + grows[1] * lead, 0.0)


def _between(key: str, values: Floats, error: Floats, needs: Needs, told: Callable[[float], str]) -> Rule:
    low, high = {"air": needs.air, "wind": needs.wind, "soil": needs.soil}[key]
    word, whose = f"{key.capitalize()} of", needs.why.get(key, "the label")

    def rule(i: int) -> Reason | None:
        if low is None and high is None:
            return None
        value, off = float(values[i]), error[i]
        if np.isnan(value):
            return Reason(key, Fit.UNKNOWN, f"The {key} is not known.")
        for limit, side, sign in ((low, "below", 1), (high, "above", -1)):
            if limit is None:
                continue
            room = sign * (value - limit)
            if room < 0:
                return Reason(key, Fit.BAD, f"{word} {told(value)} is {side} {told(limit)} ({whose}).")
            if room < off:
                return Reason(
                    key, Fit.MIND, f"{word} {told(value)} is near {told(limit)} ({whose}), and a forecast can be that far off."
                )
        return None

    return rule


def _wetted(wet: Floats, around: Conditions) -> Floats:
    """Wetness with the hours that are watered."""
    return wet if around.watered is None else np.where(around.watered, 1.0, wet)


def _leaf(needs: Needs, wet: Floats) -> Rule:
    whose = needs.why.get("leaf", "the label")

    def rule(i: int) -> Reason | None:
        if needs.leaf is Leaf.EITHER:
            return None
        if np.isnan(wet[i]):
            return Reason("leaf", Fit.UNKNOWN, "Whether the leaf is wet is not known.")
        is_wet = wet[i] >= 0.5
        if is_wet == (needs.leaf is Leaf.WET):
            return None
        if not is_wet:
            return Reason("leaf", Fit.BAD, f"The leaf is dry; it should be wet ({whose}).")
        dries = np.flatnonzero(wet[i:] < 0.5)
        until = f" It dries in about {int(dries[0])} h." if len(dries) else ""
        return Reason("leaf", Fit.BAD, f"The leaf is wet; it should be dry ({whose}).{until}")

    return rule


def _dry(found: Hours, needs: Needs, around: Conditions, us: bool, *, before: bool) -> Rule:
    """A rule of hours without rain, before or after; water from the hose counts as rain after."""
    asked = needs.dry_before if before else needs.dry_after
    hours = int(np.ceil(asked or 0.0))
    key = "dry_before" if before else "dry_after"
    whose = needs.why.get(key, "the label")
    count = len(found)
    rain = np.concatenate([[0.0], np.cumsum(np.nan_to_num(found.rain))])
    holes = np.concatenate([[0], np.cumsum(np.isnan(found.rain))])
    hose = np.concatenate([[0], np.cumsum(np.zeros(count) if around.watered is None else around.watered)])

    def rule(i: int) -> Reason | None:
        if asked is None:
            return None
        a, b = (max(0, i - hours), i + 1) if before else (i, i + 1 + hours)
        when, end = f"in the {hours} h before" if before else f"within {hours} h after", min(b, count)
        fell = float(rain[end] - rain[a])
        if fell >= RAIN_LEAST:
            return Reason(key, Fit.BAD, f"{rainfall(fell, us)} of rain {when} ({whose}).")
        if not before and hose[end] > hose[a]:
            return Reason(key, Fit.BAD, f"It is watered {when} ({whose}). Shift the watering.")
        if b > count or holes[end] - holes[a] > 0:
            return Reason(key, Fit.UNKNOWN, f"Whether it rains {when} is not known.")
        return None

    return rule


def _mown(needs: Needs, around: Conditions, *, before: bool) -> Rule:
    """A rule of hours without mowing, before or after."""
    asked = needs.mow_before if before else needs.mow_after
    hours = int(np.ceil(asked or 0.0))
    key = "mow_before" if before else "mow_after"
    whose = needs.why.get(key, "the label")

    def rule(i: int) -> Reason | None:
        if asked is None or around.mown is None:
            return None
        a, b = (max(0, i - hours), i) if before else (i, i + hours + 1)
        if not around.mown[a:b].any():
            return None
        when = "before" if before else "after"
        return Reason(key, Fit.BAD, f"It is mown within {hours} h {when} ({whose}). Shift the mowing, or take another hour.")

    return rule


def _drops(found: Hours, needs: Needs, us: bool) -> Rule:
    """A rule of how fast droplets dry; common practice, so that it warns."""
    values = delta_t(found.air, found.humidity)

    def rule(i: int) -> Reason | None:
        if not needs.droplets or np.isnan(values[i]):
            return None
        told = f"Delta-T {warmer(float(values[i]), us)}"
        if values[i] < DROPLET[0]:
            return Reason("drops", Fit.MIND, f"{told}: spray dries slowly, and air may lie in layers.")
        if values[i] > DROPLET[1]:
            return Reason("drops", Fit.MIND, f"{told}: fine drops dry before they land.")
        return None

    return rule


def _layers(found: Hours, needs: Needs, light: NDArray[np.bool_] | None) -> Rule:
    """A hint of an inversion: hardly any wind within two hours of dawn or dusk."""

    def rule(i: int) -> Reason | None:
        if not needs.droplets or light is None or not found.wind[i] < LOW_WIND:
            return None
        around = light[max(0, i - 2) : i + 3]
        if around.all() or not around.any():
            return None
        return Reason("layers", Fit.MIND, "Hardly any wind near dawn or dusk: fine drops may hang and drift far.")

    return rule


def _flag(key: str, flags: NDArray[np.bool_] | None, fit: Fit, text: str) -> Rule:
    return lambda i: Reason(key, fit, text) if flags is not None and flags[i] else None


# --- windows ----------------------------------------------------------------------------------------------------


@dataclass(frozen=True)
class Window:
    """A run of hours that are fit: its first hour's place from now, how long it is [h], and how good."""

    start: int
    hours: int
    mind: int

    @property
    def all_good(self) -> bool:
        return self.mind == 0


def windows(found: Judged, needed: int = 1) -> list[Window]:
    """Runs of hours that are long enough, best first: good hours alone, then runs in which something is to be minded.

    A run that holds a good one is told by that; among equals the earlier comes first.

    Args:
        found: judged hours.
        needed: how many hours the job takes.
    """
    least = max(1, needed)
    good = [Window(a, b - a, 0) for a, b in spans(found.fits == Fit.GOOD) if b - a >= least]
    starts = np.array([w.start for w in good])
    mind = [
        Window(a, b - a, int((found.fits[a:b] == Fit.MIND).sum()))
        for a, b in spans(found.fits <= Fit.MIND)
        if b - a >= least and not ((starts >= a) & (starts < b)).any()
    ]
    return [*good, *sorted(mind, key=lambda w: (w.mind / w.hours > 0.5, w.start))]


def holds(found: Judged) -> int:
    """For how many hours from now on the hours stay fit."""
    bad = np.flatnonzero(found.fits > Fit.MIND)
    return int(bad[0]) if len(bad) else len(found.fits)


WORDS = {
    "air": "temperature",
    "wind": "wind",
    "leaf": "the leaf's wetness",
    "dry_before": "rain before",
    "dry_after": "rain after",
    "mow_before": "the mowing before",
    "mow_after": "the mowing after",
    "dark": "darkness",
    "quiet": "hours the account keeps free",
}
"""Each rule's name as a reason to wait."""


def limiting(found: Judged) -> str:
    """Which rule alone keeps most hours from being fit; empty where none does. It is what would have to change."""
    count: dict[str, int] = {}
    for reasons in found.reasons:
        bad = [r.key for r in reasons if r.fit > Fit.MIND]
        if len(bad) == 1 and bad[0] != "dark":
            count[bad[0]] = count.get(bad[0], 0) + 1
    return max(count, key=count.__getitem__) if count else ""


def verdict(found: Judged, needed: int = 1) -> Fit:
    """Go, wait or no: whether the job can begin now, later in what is foretold, or not at all in it.

    `GOOD` and `MIND` begin now; `UNKNOWN` stands for wait; `BAD` for no.
    """
    least = max(1, needed)
    if holds(found) >= least:
        return Fit.MIND if (found.fits[:least] == Fit.MIND).any() else Fit.GOOD
    return Fit.UNKNOWN if windows(found, needed) else Fit.BAD
