"""How likely a disease is on each day of a year to come, by the years before: the share of them in which it was.

What a forecast reaches is taken from it, and the years before for the days after (climatology; Wilks DS (2019) Statistical
Methods in the Atmospheric Sciences, 4th ed., ch. 8).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Spell:
    """Days from `first` on: 1 where a disease was to be expected, 0 where not, NaN where nobody knows [1]."""

    first: date
    risky: Floats


def expected(spells: Sequence[Spell], first: date, days: int) -> Floats:
    """The share of years in which each day was at risk, 0 to 1; NaN for a day that no year knows.

    Args:
        spells: what has been, in any pieces.
        first: the first day that is asked for.
        days: how many.
    """
    total, known = np.zeros((13, 32)), np.zeros((13, 32))
    for spell in spells:
        for i, risky in enumerate(spell.risky):
            if not np.isnan(risky):
                on = spell.first + timedelta(days=i)
                total[on.month, on.day] += risky
                known[on.month, on.day] += 1
    found = np.full(days, np.nan)
    for i in range(days):
        on = first + timedelta(days=i)
        if on.month == 2 and on.day == 29 and not known[2, 29]:
            on -= timedelta(days=1)
        if known[on.month, on.day]:
            found[i] = total[on.month, on.day] / known[on.month, on.day]
    return found


def foretold(usual: Floats, forecast: Spell, first: date) -> Floats:
    """What is expected, with the days that are known or foretold in place of the years before.

    Args:
        usual: by the years before, from `first` on [1].
        forecast: what has been of late, with the forecast in it.
        first: the first day that is asked for.
    """
    found = usual.copy()
    for i, risky in enumerate(forecast.risky):
        at = (forecast.first - first).days + i
        if 0 <= at < len(found) and not np.isnan(risky):
            found[at] = risky
    return found
