"""Pictures of turf for the demo account, drawn by rule: blades, mottle, straw-coloured patches, and the light of the hour."""

from datetime import datetime
from functools import cache
from io import BytesIO

import numpy as np
from numpy.typing import NDArray
from PIL import Image

from greenmeasure.common.pictures import IFD, SHOT_AT

Floats = NDArray[np.float64]

HIGH, WIDE = 720, 960
LEAF, STRAW = np.array([62.0, 104.0, 44.0]), np.array([178.0, 164.0, 112.0])
LIT = {"sun": 1.18, "cloud": 0.94, "shade": 0.7}


@cache
def picture(seed: int, dead: float, light: str, mown: str, taken: datetime) -> bytes:
    """A JPEG with its hour in it, as a telephone writes one.

    Args:
        seed: of the spot: the same patches lie at the same places.
        dead: share of straw-coloured turf [0..1].
        light: a key of `LIT`.
        mown: fresh turf is paler, and striped.
        taken: on the ground's clock.
    """
    rng, day = np.random.default_rng(seed), np.random.default_rng([seed, taken.toordinal()])
    patches = _clouds(rng, 9) + 0.55 * _clouds(rng, 36)
    straw = _edge(patches, dead)
    blades = _blades(day)
    rgb = LEAF * (1 + 0.16 * _clouds(rng, 5)[..., None] + 0.42 * blades[..., None])
    rgb = rgb * (1 - straw[..., None]) + STRAW * (1 + 0.2 * blades[..., None]) * straw[..., None]
    if mown == "fresh":
        stripe = np.sign(np.sin(np.arange(WIDE) / WIDE * 3 * np.pi))
        rgb = rgb * (1.06 + 0.07 * stripe[None, :, None])
    made = Image.fromarray(np.clip(rgb * LIT.get(light, 1.0), 0, 255).astype(np.uint8))
    exif = Image.Exif()
    exif.get_ifd(IFD)[SHOT_AT] = f"{taken:%Y:%m:%d %H:%M:%S}"
    out = BytesIO()
    made.save(out, "JPEG", quality=88, exif=exif)
    return out.getvalue()


def _clouds(rng: np.random.Generator, grains: int) -> Floats:
    """Smooth noise of about -1 to 1, so many grains wide."""
    small = rng.standard_normal((max(2, grains * HIGH // WIDE), grains))
    large = Image.fromarray(small.astype(np.float32)).resize((WIDE, HIGH), Image.Resampling.BICUBIC)
    return np.asarray(large, dtype=float) / 2


def _blades(rng: np.random.Generator) -> Floats:
    """Short strokes of leaf, of about -1 to 1."""
    noise = rng.standard_normal((HIGH, WIDE))
    drawn = sum(np.roll(noise, (n, n // 2), (0, 1)) for n in range(7)) / np.sqrt(7)
    return np.asarray(drawn / 2.5)


def _edge(height: Floats, share: float) -> Floats:
    """1 where the highest `share` of a field lies, 0 where not, softly between."""
    if share <= 0:
        return np.zeros_like(height)
    limit = np.quantile(height, 1 - share)
    return np.asarray(np.clip((height - limit) / 0.12 + 0.5, 0, 1))
