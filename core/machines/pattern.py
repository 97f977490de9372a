"""A spreader's pattern across its path: what pans caught, what overlapping passes make of it, how far apart to walk.

Passes are one spacing apart. Going back and forth, neighbours are mirrored; going round and round they are not. The
coefficient of variation does not fall and rise once with the spacing: every spacing is tried. Pan tests are described in
ASABE S341 and ISO 5690; acceptance limits are common practice, no source.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from core.errors import InputError
from core.units import positive

FEWEST_PANS, MOST_PANS = 5, 99
VERY_GOOD, GOOD, FAIR = 0.10, 0.15, 0.20
SKEWED = 0.05
"""Beyond this share of the swath between the pattern's middle and the track, the pattern is skewed (common practice)."""


class Way(StrEnum):
    """How the ground is walked: there and back again, or round and round in one sense."""

    BACK_AND_FORTH = "back_and_forth"
    ROUND = "round"


@dataclass(frozen=True)
class Pattern:
    """A single pass's catch by pan from the left [g], pans `apart` [m] with one over the track at `track`."""

    catches: tuple[float, ...]
    apart: float
    track: int

    @property
    def array(self) -> NDArray[np.float64]:
        return np.asarray(self.catches, dtype=float)

    @property
    def middle(self) -> float:
        """Where the mass's middle lies from the track [m], to the right if positive."""
        places = (np.arange(len(self.catches)) - self.track) * self.apart
        return float((places * self.array).sum() / self.array.sum())

    @property
    def left_share(self) -> float:
        """The share of the mass that falls left of the track; the pan over it counts half."""
        a = self.array
        return float((a[: self.track].sum() + a[self.track] / 2) / a.sum())

    @property
    def half_rate_width(self) -> float:
        """The width [m] between the points of half the largest catch, straight between pans."""
        a, half = self.array, float(self.array.max()) / 2
        high = np.flatnonzero(a >= half)
        first, last = int(high[0]), int(high[-1])
        left = first - (a[first] - half) / (a[first] - a[first - 1]) if first else 0.0
        right = last + (a[last] - half) / (a[last] - a[last + 1]) if last < len(a) - 1 else float(len(a) - 1)
        return float(right - left) * self.apart


@dataclass(frozen=True)
class Spacing:
    """One spacing of passes: in pans and metres, the swath it makes [g by pan], and how uneven that is.

    `cv` is by n - 1 and `cv_population` by n, both as shares; `peak` and `trough` are over and under the mean.
    """

    pans: int
    width: float
    swath: tuple[float, ...]
    cv: float
    cv_population: float
    peak: float
    trough: float

    @property
    def verdict(self) -> str:
        words = (("very good", VERY_GOOD), ("good", GOOD), ("fair", FAIR))
        return next((word for word, most in words if self.cv <= most), "poor")


def pattern(catches: Sequence[float], apart: float, track: int | None = None) -> Pattern:
    """A pattern from a pan test.

    Args:
        catches: by pan from the left, of one or several passes in one direction [g].
        apart: from middle to middle of neighbouring pans [m].
        track: the place of the pan on the track, from 0; the middle one unless given.

    Raises:
        InputError: too few pans, nothing caught, a pan below nothing, or a pattern that the pans did not reach the ends of.
    """
    if not FEWEST_PANS <= len(catches) <= MOST_PANS:
        raise InputError(
            "pans",
            len(catches),
            f"{len(catches)} pans show no pattern.",
            f"Lay {FEWEST_PANS} at least, over one and a half times the throw.",
        )
    for i, catch in enumerate(catches):
        positive(f"pans.{i}", catch, zero=True)
    most = max(catches)
    if most <= 0:
        raise InputError("pans", 0, "Nothing was caught.", "Check that the gate was open, and weigh again.")
    positive("apart", apart, most=10)
    place = len(catches) // 2 if track is None else track
    if not 0 <= place < len(catches):
        raise InputError("track", track, "The track runs over no pan.", f"Give its number, 1 to {len(catches)}.")
    for end, name in ((catches[0], "first"), (catches[-1], "last")):
        if end > most / 2:
            raise InputError(
                "pans",
                end,
                f"The {name} pan caught more than half of the fullest: the throw goes on beyond it.",
                "Lay pans further out, and check that they were written down in order.",
            )
    return Pattern(tuple(float(c) for c in catches), apart, place)


def overlapped(found: Pattern, pans: int, way: Way) -> NDArray[np.float64]:
    """What falls on each pan's width between passes that are `pans` apart, starting at a track [g].

    Going back and forth it takes two passes for the swath to repeat, so the answer is twice as long. What falls in is
    what was thrown: the sum is the pattern's, for each pass.

    Raises:
        InputError: a spacing of less than one pan or wider than the pattern.
    """
    if not 1 <= pans <= len(found.catches):
        raise InputError(
            "spacing",
            pans,
            f"{pans} pans is no spacing for a pattern of {len(found.catches)}.",
            f"Take 1 to {len(found.catches)}.",
        )
    from_track = np.arange(len(found.catches)) - found.track
    period = pans if way is Way.ROUND else 2 * pans
    swath = np.zeros(period)
    np.add.at(swath, from_track % period, found.array)
    if way is Way.BACK_AND_FORTH:
        np.add.at(swath, (pans - from_track) % period, found.array)
    return swath


def spacings(found: Pattern, way: Way) -> list[Spacing]:
    """Every spacing that the pans can tell, from two pans to the whole throw."""
    return [_spacing(found, pans, way) for pans in range(2, len(found.catches) + 1)]


def _spacing(found: Pattern, pans: int, way: Way) -> Spacing:
    swath = overlapped(found, pans, way)
    mean = float(swath.mean())
    return Spacing(
        pans,
        pans * found.apart,
        tuple(float(x) for x in swath),
        float(swath.std(ddof=1)) / mean,
        float(swath.std()) / mean,
        float(swath.max()) / mean - 1,
        float(swath.min()) / mean - 1,
    )


def widest(found: Pattern, way: Way, limit: float = GOOD) -> Spacing | None:
    """The effective swath: the widest spacing whose CV (n - 1) is within `limit`; None where there is none.

    Args:
        found: what it is taken from.
        way: how it is walked.
        limit: coefficient of variation allowed [1].
    """
    good = [s for s in spacings(found, way) if s.cv <= limit * (1 + 1e-9)]
    return good[-1] if good else None


def is_skewed(found: Pattern) -> bool:
    """Whether more falls on one side than the track's middle explains."""
    return abs(found.middle) > SKEWED * found.half_rate_width
