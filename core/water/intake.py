"""How fast soils drink, and how much water may stand on them before it runs off.

Basic intake rates by texture are the middles of the ranges of FAO, Irrigation Water Management Training Manual 5 (from
memory): sand over 30, sandy loam 20 to 30, loam 10 to 20, clay loam 5 to 10, clay 1 to 5 mm/h. Compacted and thatched turf
drinks less. How much may stand by slope is common practice, no source.
"""

INTAKE = {"sand": 30.0, "sandy_loam": 25.0, "loam": 15.0, "silt_loam": 12.0, "clay_loam": 7.5, "clay": 3.0}
"""Basic intake rate by texture [mm/h]."""
UNKNOWN = 10.0
"""Taken where the texture is not noted [mm/h]."""


def intake_of(texture: str) -> float:
    """The intake rate of a texture [mm/h]; that of a heavy loam where it is not noted."""
    return INTAKE.get(texture, UNKNOWN)


def pond_of(slope: float | None) -> float:
    """How much water may stand [mm] on ground of a slope [fraction]."""
    if slope is None or slope <= 0.02:
        return 3.0
    return 2.0 if slope <= 0.05 else 1.0
