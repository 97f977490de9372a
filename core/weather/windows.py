"""Hours fit to work: each hour of a table held against what a product's label, the ground and the club ask for.

Every rule looks at an hour and answers good, mind, bad or not known, with its reason; the hour is as good as its worst rule.
What lies ahead is foretold with an error that grows with the lead, so that limits are drawn in by it: the hour must hold with
the error against it. The errors are rules of thumb (ours). A tank of several products asks for the strictest of all.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from enum import IntEnum

import numpy as np
from numpy.typing import NDArray

from core.label.rules import Leaf, Rules
from core.spans import spans
from core.units import show_number
from core.weather.hours import Hours
from core.weather.moisture import delta_t

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
    """What is asked of the hours: temperatures [°C], wind [m/s], rain-free and rainy hours, the leaf.

    `dry_before` and `dry_after` hours without rain; `rain_wanted` hours within which rain is welcome after it; `droplets`
    whether it is sprayed. `why` names whose rule each is, by the field's name.
    """

    air: tuple[float | None, float | None] = (None, None)
    wind: tuple[float | None, float | None] = (None, None)
    leaf: Leaf = Leaf.EITHER
    dry_before: float = 0.0
    dry_after: float = 0.0
    rain_wanted: float = 0.0
    droplets: bool = False
    why: dict[str, str] = field(default_factory=dict)


def needs_of(rules: Rules, name: str, sprayed: bool) -> Needs:
    """What a product's label asks of the hours."""
    why = {
        "air": name, "wind": name, "leaf": name, "dry_before": name, "dry_after": name, "rain_wanted": name,
    }  # fmt: skip
    return Needs(
        rules.temperature, rules.wind, rules.leaf, rules.rain_before or 0.0, rules.rain_after or 0.0,
        (rules.water_in_delay or 0.0) if rules.watered_in else 0.0, sprayed, why,
    )  # fmt: skip


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
    before = strictest("dry_before", lambda n: n.dry_before or None, True) or 0.0
    after = strictest("dry_after", lambda n: n.dry_after or None, True) or 0.0
    wanted = strictest("rain_wanted", lambda n: n.rain_wanted or None, False) or 0.0
    leaves = {n.leaf for n in every} - {Leaf.EITHER}
    found = Needs(air, wind, next(iter(leaves)) if len(leaves) == 1 else Leaf.EITHER, before, after, wanted,
                  any(n.droplets for n in every), why)  # fmt: skip
    return Together(found, tuple(_contradictions(found, leaves, why)))


def _contradictions(n: Needs, leaves: set[Leaf], why: dict[str, str]) -> list[str]:
    said = []
    if n.rain_wanted and n.dry_after and n.dry_after >= n.rain_wanted:
        soon, long = show_number(n.rain_wanted), show_number(n.dry_after)
        one, other = why["rain_wanted"], why["dry_after"]
        said.append(f"{one} must be watered in within {soon} h; {other} must stay dry for {long} h. Put them down apart.")
    if len(leaves) > 1:
        said.append("One of them wants a dry leaf, another a wet one. Put them down apart.")
    for name, (low, high) in (("temperatures", n.air), ("winds", n.wind)):
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


def judge_hours(found: Hours, needs: Needs, *, now: int, wet: Floats, light: NDArray[np.bool_] | None = None,
                quiet: NDArray[np.bool_] | None = None, age: float = 0.0) -> Judged:  # fmt: skip
    """Judge every hour from `now` on.

    Args:
        found: the hours, measured and foretold.
        needs: what is asked of them.
        now: the place of the hour that is now.
        wet: leaf wetness by the hour [share].
        light: hours of daylight; all of them where it is not told.
        quiet: hours in which the club works not, as on match days.
        age: of the forecast [h]; it widens its error as its lead does.

    Returns:
        A verdict for each hour from `now` to the end of the table.
    """
    lead = np.maximum(0.0, np.arange(len(found)) - now + age) * found.forecast
    rules = [
        _air(found, needs, lead), _wind(found, needs, lead), _leaf(found, needs, wet), _dry(found, needs, before=True),
        _dry(found, needs, before=False), _drops(found, needs), _layers(found, needs, light),
        _flag("dark", light is not None, ~light if light is not None else None, "It is dark."),
        _flag("quiet", quiet is not None, quiet, "The club keeps these hours free."),
    ]  # fmt: skip
    reasons, fits = [], []
    for i in range(now, len(found)):
        said = sorted((r for rule in rules if (r := rule(i))), key=lambda r: -r.fit)
        reasons.append(tuple(said))
        fits.append(max((r.fit for r in said), default=Fit.GOOD))
    return Judged(np.array(fits, dtype=np.int64), tuple(reasons))


Rule = Callable[[int], Reason | None]


def _between(key: str, values: Floats, span: tuple[float | None, float | None], error: Floats, word: str, unit: str,
             whose: str) -> Rule:  # fmt: skip
    """A rule that a value lies between two limits, with its error against it."""
    low, high = span

    def rule(i: int) -> Reason | None:
        if low is None and high is None:
            return None
        value, off = values[i], error[i]
        if np.isnan(value):
            return Reason(key, Fit.UNKNOWN, f"The {word} is not known.")
        told = f"{word} {show_number(round(float(value), 1))} {unit}"
        for limit, side, sign in ((low, "below", 1), (high, "above", -1)):
            if limit is None:
                continue
            room = sign * (value - limit)
            if room < 0:
                return Reason(key, Fit.BAD, f"{told} is {side} {show_number(limit)} ({whose}).")
            if room < off:
                return Reason(
                    key, Fit.MIND, f"{told} is near {show_number(limit)} ({whose}), and a forecast can be that far off."
                )
        return None

    return rule


def _air(found: Hours, needs: Needs, lead: Floats) -> Rule:
    error = np.where(lead > 0, AIR_ERROR[0] + AIR_ERROR[1] * lead, 0.0)
    return _between("air", found.air, needs.air, error, "air", "°C", needs.why.get("air", "the label"))


def _wind(found: Hours, needs: Needs, lead: Floats) -> Rule:
    error = np.where(lead > 0, WIND_ERROR[0] + WIND_ERROR[1] * lead, 0.0)
    return _between("wind", found.wind, needs.wind, error, "wind", "m/s", needs.why.get("wind", "the label"))


def _leaf(found: Hours, needs: Needs, wet: Floats) -> Rule:
    whose = needs.why.get("leaf", "the label")

    def rule(i: int) -> Reason | None:
        if needs.leaf is Leaf.EITHER:
            return None
        if np.isnan(wet[i]):
            return Reason("leaf", Fit.UNKNOWN, "Whether the leaf is wet is not known.")
        is_wet = wet[i] >= 0.5
        if is_wet == (needs.leaf is Leaf.WET):
            return None
        return Reason("leaf", Fit.BAD, f"The leaf is {'wet' if is_wet else 'dry'}; it should be {needs.leaf.value} ({whose}).")

    return rule


def _dry(found: Hours, needs: Needs, *, before: bool) -> Rule:
    """A rule of hours without rain, before or after."""
    hours = int(np.ceil(needs.dry_before if before else needs.dry_after))
    key = "dry_before" if before else "dry_after"
    whose = needs.why.get(key, "the label")
    rain = np.concatenate([[0.0], np.cumsum(np.nan_to_num(found.rain))])
    holes = np.concatenate([[0], np.cumsum(np.isnan(found.rain))])

    def rule(i: int) -> Reason | None:
        if not hours:
            return None
        a, b = (max(0, i - hours), i + 1) if before else (i, i + 1 + hours)
        when = f"in the {hours} h before" if before else f"within {hours} h after"
        fell = float(rain[min(b, len(found))] - rain[a])
        if fell >= RAIN_LEAST:
            return Reason(key, Fit.BAD, f"{show_number(round(fell, 1))} mm of rain {when} ({whose}).")
        if b > len(found) or holes[min(b, len(found))] - holes[a] > 0:
            return Reason(key, Fit.UNKNOWN, f"Whether it rains {when} is not known.")
        return None

    return rule


def _drops(found: Hours, needs: Needs) -> Rule:
    """A rule of how fast droplets dry; common practice, so that it warns."""
    values = delta_t(found.air, found.humidity)

    def rule(i: int) -> Reason | None:
        if not needs.droplets or np.isnan(values[i]):
            return None
        told = f"Delta-T {show_number(round(float(values[i]), 1))} °C"
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


def _flag(key: str, told: bool, flags: NDArray[np.bool_] | None, text: str) -> Rule:
    return lambda i: Reason(key, Fit.BAD, text) if told and flags is not None and flags[i] else None


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
    """Runs of fit hours that are long enough, best first: good ones before those to mind, then the earlier.

    Args:
        found: judged hours.
        needed: how many hours the job takes.
    """
    fit = found.fits <= Fit.MIND
    every = [
        Window(a, b - a, int((found.fits[a:b] == Fit.MIND).sum()))
        for a, b in spans(fit) if b - a >= max(1, needed)
    ]  # fmt: skip
    return sorted(every, key=lambda w: (w.mind / w.hours > 0.5, not w.all_good, w.start))


def limiting(found: Judged) -> str:
    """Which rule keeps most hours from being fit; empty where none does. It is what would have to change."""
    count: dict[str, int] = {}
    for reasons in found.reasons:
        bad = [r.key for r in reasons if r.fit > Fit.MIND]
        if len(bad) == 1:
            count[bad[0]] = count.get(bad[0], 0) + 1
    return max(count, key=count.__getitem__) if count else ""
