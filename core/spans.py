"""Runs of what holds: where each begins and where it ends."""

import numpy as np
from numpy.typing import ArrayLike


def spans(flags: ArrayLike) -> list[tuple[int, int]]:
    """The runs of true flags, each from its first place to the place after its last."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], np.asarray(flags, dtype=bool), [False]]).astype(np.int8)))
    return [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True)]
