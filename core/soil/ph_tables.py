"""How much sulfur or limestone moves a soil's pH, as tables with their sources.

Sulfur: elemental, broadcast, lb/acre over the top 6 to 8 in, down to pH 6.5, for soil without free lime; a table of the
Western Fertilizer Handbook's kind (from memory, medium to high confidence).
Limestone: ground, ton/acre over 7 in, from pH 4.5 to 5.5 and 5.5 to 6.5, cool temperate soils (same kind of table, from
memory, medium confidence). A laboratory's buffer-pH advice overrides both.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise

from core.grasses import Sward

TABLE_DEPTH_SULFUR = 7 * 0.0254
"""The depth that the sulfur table is for [m]: the middle of 6 to 8 in."""
TABLE_DEPTH_LIME = 7 * 0.0254

LB_ACRE = 453.59237 / 4046.8564224
"""One lb/acre [g/m²]."""


@dataclass(frozen=True)
class Texture:
    """A soil by feel. `sulfur` and `lime` name its column in the tables."""

    key: str
    name: str
    sulfur: str
    lime: str


TEXTURES = {
    t.key: t
    for t in (
        Texture("sand", "Sand and loamy sand", "sand", "sand"),
        Texture("sandy_loam", "Sandy loam", "sand_loam", "sandy_loam"),
        Texture("loam", "Loam", "loam", "loam"),
        Texture("silt_loam", "Silt loam", "loam", "silt_loam"),
        Texture("clay_loam", "Clay loam", "loam_clay", "clay_loam"),
        Texture("clay", "Clay", "clay", "clay_loam"),
    )
}

SULFUR_TO_65: Mapping[str, Mapping[float, float]] = {
    "sand": {6.5: 0, 7.0: 100, 7.5: 500, 8.0: 1200, 8.5: 2000},
    "loam": {6.5: 0, 7.0: 150, 7.5: 800, 8.0: 1500, 8.5: 2500},
    "clay": {6.5: 0, 7.0: 300, 7.5: 1000, 8.0: 2000, 8.5: 3000},
}
"""Sulfur from a pH down to 6.5 [lb/acre]."""

LIME_STEPS: Mapping[str, tuple[float, float]] = {
    "sand": (0.5, 0.6),
    "sandy_loam": (0.8, 1.3),
    "loam": (1.2, 1.7),
    "silt_loam": (1.5, 2.0),
    "clay_loam": (1.9, 2.3),
}
"""Limestone from 4.5 to 5.5 and from 5.5 to 6.5 [short ton/acre]."""

HIGHEST_SULFUR, LOWEST_LIME, HIGHEST_LIME = 8.5, 4.5, 6.5

GRASS_PH: Mapping[str, tuple[float, float]] = {
    "creeping_bentgrass": (5.5, 6.5),
    "colonial_bentgrass": (5.5, 6.5),
    "annual_bluegrass": (5.5, 6.5),
    "kentucky_bluegrass": (6.0, 7.0),
    "perennial_ryegrass": (6.0, 7.0),
    "tall_fescue": (5.5, 6.5),
    "fine_fescue": (5.5, 6.5),
    "bermudagrass": (6.0, 7.0),
    "zoysiagrass": (6.0, 7.0),
    "st_augustinegrass": (6.0, 7.0),
    "centipedegrass": (5.0, 6.0),
    "seashore_paspalum": (6.0, 7.5),
    "buffalograss": (6.0, 7.5),
    "bahiagrass": (5.5, 6.5),
}
"""The pH that a grass likes, from least to most (extension teaching, from memory)."""

MOST_LIKE = (6.0, 7.0)
"""What most grasses like, where nobody said which they are (common practice, no source)."""

STANDS = 1.0
"""How far outside that range a grass still does well (common practice, no source)."""


def likes(sward: Sward) -> tuple[float, float] | None:
    """The pH that a sward likes, from least to most; None of ornamentals, which differ.

    Of a mixed one it is what all its grasses like; where they like no pH alike it is the middle between them.
    """
    if not sward.turf:
        return None
    ranges = [GRASS_PH[key] for key in sward.grasses if key in GRASS_PH] or [MOST_LIKE]
    low, high = max(low for low, _ in ranges), min(high for _, high in ranges)
    return (low, high) if low <= high else ((low + high) / 2,) * 2


def sulfur_need(column: str, ph: float) -> float:
    """Sulfur from `ph` down to 6.5 [lb/acre], straight between the table's rows; `sand_loam` and `loam_clay` are midway."""
    if column == "sand_loam":
        return (sulfur_need("sand", ph) + sulfur_need("loam", ph)) / 2
    if column == "loam_clay":
        return (sulfur_need("loam", ph) + sulfur_need("clay", ph)) / 2
    rows = sorted(SULFUR_TO_65[column].items())
    for (low, a), (high, b) in pairwise(rows):
        if low <= ph <= high:
            return a + (b - a) * (ph - low) / (high - low)
    raise ValueError(f"pH {ph} is outside the table")


def lime_need(column: str, ph: float, target: float) -> float:
    """Limestone from `ph` up to `target` [short ton/acre], each unit's step shared out evenly over it."""
    lower, upper = LIME_STEPS[column]
    in_lower = max(0.0, min(target, 5.5) - max(ph, 4.5))
    in_upper = max(0.0, min(target, 6.5) - max(ph, 5.5))
    return in_lower * lower + in_upper * upper
