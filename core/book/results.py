"""What the scores of a trial show: means, differences with their intervals, and "no difference could be shown".

Two-way analysis of complete blocks without repeats (Box, Hunter & Hunter, Statistics for Experimenters). For two treatments
it is the paired t test. Differences are told against the first treatment by least significant difference, and where there are
more than two, only behind an F that shows something (Fisher's protected test, from memory). Scores are ordinal, so that the
signed-rank test stands beside it; with five pairs or fewer that can never reach 5 % (arithmetic: its least is 2 ÷ 2ⁿ).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from core.book.trial import RISK

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Difference:
    """A treatment less the first, in marks, with the ends of its 95 % interval and how likely chance alone gives as much.

    None of these where nothing can be told. `shown` is whether a difference is shown; `signed_rank` the exact p of the
    signed-rank test, for two treatments alone.
    """

    mean: float
    low: float | None = None
    high: float | None = None
    p: float | None = None
    shown: bool = False
    signed_rank: float | None = None


@dataclass(frozen=True)
class Outcome:
    """What the scores of one day show: means by treatment, differences to the first, and the analysis behind them.

    `mse` is the error mean square on `df` degrees of freedom, `f` and `p` of the treatments, `f_blocks` of the blocks, `lsd` the
    least significant difference. `alike` is whether nothing scattered, so that nothing can be judged by it.
    """

    blocks: int
    means: tuple[float, ...]
    differences: tuple[Difference, ...]
    df: int = 0
    mse: float | None = None
    f: float | None = None
    p: float | None = None
    f_blocks: float | None = None
    lsd: float | None = None
    alike: bool = False


def outcome(scores: ArrayLike) -> Outcome:
    """What complete blocks show.

    Args:
        scores: marks, shape (blocks, treatments); the first treatment is the one that others are held against.
    """
    table: Floats = np.asarray(scores, dtype=float)
    blocks, treatments = table.shape
    means = table.mean(axis=0)
    plain = tuple(Difference(float(m - means[0])) for m in means[1:])
    told = tuple(float(m) for m in means)
    if blocks < 2:
        return Outcome(blocks, told, plain)
    from scipy.stats import f as fisher
    from scipy.stats import t as student

    by_block, whole = table.mean(axis=1), table.mean()
    between = blocks * float(((means - whole) ** 2).sum())
    of_blocks = treatments * float(((by_block - whole) ** 2).sum())
    rest = float(((table - means - by_block[:, None] + whole) ** 2).sum())
    df = (blocks - 1) * (treatments - 1)
    mse = rest / df
    if mse <= 1e-12 * max(1.0, float(np.abs(table).max()) ** 2):
        return Outcome(blocks, told, plain, df, 0.0, alike=True)
    f = between / (treatments - 1) / mse
    p = float(fisher.sf(f, treatments - 1, df))
    error = math.sqrt(2 * mse / blocks)
    lsd = float(student.ppf(1 - RISK / 2, df)) * error
    open_ = treatments == 2 or p < RISK
    differences = tuple(
        Difference(
            d.mean,
            d.mean - lsd,
            d.mean + lsd,
            2 * float(student.sf(abs(d.mean) / error, df)),
            open_ and abs(d.mean) > lsd,
            signed_rank(table[:, i] - table[:, 0]) if treatments == 2 else None,
        )
        for i, d in enumerate(plain, start=1)
    )
    return Outcome(blocks, told, differences, df, mse, f, p, of_blocks / (blocks - 1) / mse, lsd)


def signed_rank(differences: Sequence[float] | Floats) -> float | None:
    """The exact two-sided p of Wilcoxon's signed-rank test, pairs without a difference dropped; None where none is left.

    Args:
        differences: of the pairs [marks].
    """
    from scipy.stats import wilcoxon

    left = [d for d in differences if abs(d) > 1e-12]
    if not left:
        return None
    found: Any = wilcoxon(left, method="exact")
    return float(found.pvalue)
