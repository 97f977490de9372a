"""What a spreader puts down at its settings, from the account's own tests of one product; and checks under way.

Between two tested settings the output is taken as straight; beyond them nothing is said, since gates do not open in
proportion. Another product, size of grain, dampness or pace is another test.
"""

import math
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from core.errors import InputError
from core.units import positive, show_number, show_percent


@dataclass(frozen=True)
class Point:
    """A tested setting and what it put down [g/m²]."""

    setting: float
    rate: float


@dataclass(frozen=True)
class Curve:
    """Tested settings of one product, by setting, each output above the one before."""

    product: str
    points: tuple[Point, ...]


def put_down(grams: float, area: float) -> float:
    """What was put down [g/m²] by weight [g] over an area [m²]. Raises InputError where either is nothing.

    Args:
        grams: spread by each run [g].
        area: covered [m²].
    """
    return positive("weight", grams) / positive("area", area)


def caught(grams: float, length: float, width: float) -> float:
    """A drop spreader's output [g/m²] by what its tray caught [g] over a length [m] and its own width [m].

    Args:
        grams: in the tray by each run [g].
        length: of the tray's path [m].
        width: of the swath [m].
    """
    return positive("weight", grams) / (positive("length", length) * positive("width", width, most=10))


def curve(product: str, tests: Sequence[Point]) -> Curve:
    """A product's curve from its tests; tests of one setting are averaged.

    Raises:
        InputError: no test, a setting below nothing, or a wider setting that put down less.
    """
    if not tests:
        raise InputError(
            "tests", 0, f"{product} has not been tested in this spreader.", "Spread a weighed amount on a known area."
        )
    by_setting: dict[float, list[float]] = {}
    for i, test in enumerate(tests):
        positive(f"tests.{i}.setting", test.setting, zero=True, most=1000)
        by_setting.setdefault(test.setting, []).append(positive(f"tests.{i}.rate", test.rate))
    points = [Point(setting, sum(rates) / len(rates)) for setting, rates in sorted(by_setting.items())]
    for one, other in pairwise(points):
        if other.rate <= one.rate:
            raise InputError(
                "tests",
                other.setting,
                f"Setting {show_number(other.setting)} put down no more than setting {show_number(one.setting)}.",
                "One of the two was misread: test both again.",
            )
    return Curve(product, tuple(points))


def rate_at(found: Curve, setting: float) -> float:
    """What a setting puts down [g/m²], straight between tests.

    Raises:
        InputError: a setting beyond the tested ones.
    """
    settings = [p.setting for p in found.points]
    _within("setting", setting, settings[0], settings[-1], found.product)
    return _between(setting, settings, [p.rate for p in found.points])


def setting_for(found: Curve, rate: float) -> float:
    """The setting that puts down a rate [g/m²], straight between tests.

    Raises:
        InputError: a rate beyond the tested ones.
    """
    rates = [p.rate for p in found.points]
    _within("rate", rate, rates[0], rates[-1], found.product)
    return _between(rate, rates, [p.setting for p in found.points])


def on_dial(found: Curve, setting: float, step: float) -> float:
    """The click of a dial nearest to a setting, among those that the tests reach.

    Args:
        found: the tested curve.
        setting: wanted [marks].
        step: between two clicks [marks].
    """
    low, high = found.points[0].setting, found.points[-1].setting
    nearest = [step * (math.floor(setting / step) + i) for i in (0, 1)]
    inside = [s for s in nearest if low - 1e-9 <= s <= high + 1e-9]
    return min(inside, key=lambda s: abs(s - setting)) if inside else setting


def _within(field: str, value: float, low: float, high: float, product: str) -> None:
    if low * (1 - 1e-9) <= value <= high * (1 + 1e-9):
        return
    side = "less" if value < low else "more"
    raise InputError(
        field,
        value,
        f"That is {side} than any tested {field} of {product}, and gates do not open in proportion.",
        "Test a setting on the other side of it.",
    )


def _between(value: float, xs: Sequence[float], ys: Sequence[float]) -> float:
    if len(xs) == 1:
        return ys[0]
    i = min(max(bisect_left(xs, value), 1), len(xs) - 1)
    share = (value - xs[i - 1]) / (xs[i] - xs[i - 1])
    return ys[i - 1] + share * (ys[i] - ys[i - 1])


@dataclass(frozen=True)
class Midway:
    """A look into the hopper under way: what should be left and is [g], where it leads, and what the rest would need.

    `ends_with` is what would be left at the end at this output (below nothing: it runs out); `factor` is by how much the
    output must change for the rest to come right.
    """

    expected: float
    left: float
    off: float
    ends_with: float
    factor: float
    sentence: str


def midway(loaded: float, done: float, left: float, reserve: float = 0.0) -> Midway:
    """Check the hopper when part of the area is done.

    Args:
        loaded: put in for the whole area, with the reserve [g].
        done: the share of the area that is done, 0 to 1.
        left: in the hopper now [g].
        reserve: meant to be left at the end [g].

    Raises:
        InputError: a share that is nothing or all, or more left than was loaded.
    """
    if not 0 < done < 1:
        raise InputError("done", done, "A check under way needs a part done and a part to do.", "Look when half is done.")
    meant = positive("loaded", loaded) - positive("reserve", reserve, zero=True)
    positive("left", left, zero=True)
    if left >= loaded:
        raise InputError("left", left, "As much is left as was loaded: nothing came out.", "Check the gate and the weight.")
    used, expected = loaded - left, loaded - done * meant
    off = used / (done * meant) - 1
    ends = loaded - used / done
    factor = max(left - reserve, 0.0) / (meant * (1 - done)) / (used / (meant * done))
    return Midway(expected, left, off, ends, factor, _midway(off, ends))


def _midway(off: float, ends: float) -> str:
    said = f"{show_percent(off, sign=True)} against the plan:"
    if abs(off) <= 0.05:
        return f"{said} go on."
    if ends < 0:
        return f"{said} it runs out before the end. Close the gate a little, and test it."
    return f"{said} {'close' if off > 0 else 'open'} the gate a little, and test it."
