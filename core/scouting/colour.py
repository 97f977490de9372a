"""What a photograph of turf says of its colour and cover: numbers to compare within one light, never a verdict.

Hue, saturation and brightness as in the published work: hue 0 to 360°, the others 0 to 1. A grey pixel has no hue,
and so no index. Indices are the mean of those of the pixels, not the index of the mean colour, which is another number.
"""

from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]

GREEN, LEAST_SATURATION = (45.0, 140.0), 0.10
"""Hue [°] and saturation of what counts as turf (Karcher & Richardson 2005, Crop Sci 45:1536-1539). Straw passes it in part."""
IN_RANGE = (60.0, 120.0)
"""Hues [°] that the dark green colour index was made for (Karcher & Richardson 2003, Crop Sci 43:943-951)."""
BLACK, WHITE = 0.04, 0.98
"""Brightness under which a pixel is shadow, and over which one channel is cut off (ours)."""
MUCH, SOME = 0.10, 0.02
"""Shares of pixels from which a doubt is told; of straw less is enough, for it is what one looks for (ours)."""


def hue_saturation_brightness(rgb: Floats) -> tuple[Floats, Floats, Floats]:
    """Hue [°], NaN where a pixel is grey; saturation and brightness [0..1].

    Args:
        rgb: red, green and blue along the last axis [0..255].
    """
    part = np.asarray(rgb, dtype=float) / 255.0
    most, least = part.max(axis=-1), part.min(axis=-1)
    spread = most - least
    with np.errstate(invalid="ignore", divide="ignore"):
        red, green, blue = (part[..., i] for i in range(3))
        sector = np.where(
            most == red,
            ((green - blue) / spread) % 6,
            np.where(most == green, (blue - red) / spread + 2, (red - green) / spread + 4),
        )
        saturation = np.where(most > 0, spread / most, 0.0)
    return np.where(spread > 0, 60.0 * sector, np.nan), saturation, most


def dark_green(hue: Floats, saturation: Floats, brightness: Floats) -> Floats:
    """The dark green colour index, 0 to 1 for hues of 60 to 120°: ((H - 60)/60 + (1 - S) + (1 - B))/3.

    It is not cut off outside of them. Karcher & Richardson 2003, Crop Sci 43:943-951.

    Args:
        hue: of pixels [°].
        saturation: of pixels [0..1].
        brightness: of pixels [0..1].
    """
    return ((hue - 60.0) / 60.0 + (1.0 - saturation) + (1.0 - brightness)) / 3.0


def excess_green(rgb: Floats) -> Floats:
    """2g - r - b of the shares of each pixel's channels, -1 to 2; black has none.

    Woebbecke et al. 1995, Trans ASAE 38:259-269.

    Args:
        rgb: red, green and blue along the last axis [0..255].
    """
    rgb = np.asarray(rgb, dtype=float)
    whole = rgb.sum(axis=-1)
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.where(whole > 0, 3.0 * rgb[..., 1] / whole - 1.0, np.nan)


class Doubt(StrEnum):
    """Why a picture's numbers are to be doubted."""

    LITTLE = "little"
    STRAW = "straw"
    HUES = "hues"
    SHADOW = "shadow"
    BRIGHT = "bright"

    @property
    def sentence(self) -> str:
        return {
            "little": "Hardly anything in it counts as green turf. Look at what is shaded.",
            "straw": "Some of what counts as turf is straw-coloured: dead leaf passes for cover. Look at what is shaded.",
            "hues": "Many pixels lie outside of the hues that the index was made for.",
            "shadow": "Much of it lies in shadow.",
            "bright": "Much of it is overexposed: the light was too strong for the camera.",
        }[self.value]


@dataclass(frozen=True)
class Colours:
    """What a picture says: the share that counts as turf, the dark green index of that, excess green of all; None where none is.

    `outside` is the share of turf pixels whose hue the index was not made for.
    """

    cover: float
    index: float | None
    outside: float
    excess: float | None
    doubts: tuple[Doubt, ...]


def turf(rgb: Floats) -> Flags:
    """The pixels that count as turf.

    Args:
        rgb: red, green and blue along the last axis [0..255].
    """
    hue, saturation, _ = hue_saturation_brightness(rgb)
    return _turf(hue, saturation)


def colours(rgb: Floats) -> Colours:
    """What a picture says of its colour.

    Args:
        rgb: rows, columns, and red, green and blue [0..255].
    """
    hue, saturation, brightness = hue_saturation_brightness(rgb)
    mask = _turf(hue, saturation)
    cover = float(mask.mean())
    outside = mask & ((hue < IN_RANGE[0]) | (hue > IN_RANGE[1]))
    straw = mask & (hue < IN_RANGE[0])
    said = dark_green(hue, saturation, brightness)[mask & ~outside]
    green = excess_green(rgb)
    within = max(1, int(mask.sum()))
    doubts = (
        (Doubt.LITTLE, cover < MUCH),
        (Doubt.STRAW, straw.sum() > SOME * within),
        (Doubt.HUES, (outside & ~straw).sum() > MUCH * within),
        (Doubt.SHADOW, (brightness < BLACK).mean() > MUCH),
        (Doubt.BRIGHT, (brightness > WHITE).mean() > MUCH),
    )
    return Colours(
        cover=cover,
        index=float(said.mean()) if said.size else None,
        outside=float(outside.sum() / within),
        excess=None if np.isnan(green).all() else float(np.nanmean(green)),
        doubts=tuple(d for d, holds in doubts if holds),
    )


def _turf(hue: Floats, saturation: Floats) -> Flags:
    with np.errstate(invalid="ignore"):
        return (hue >= GREEN[0]) & (hue <= GREEN[1]) & (saturation >= LEAST_SATURATION)
