"""Photographs as they are kept: measured before they are decoded, turned upright, sized down, rid of their place.

What a picture says of where it was taken, by what and by whom is left out; when it was taken is told apart from it. Files lie
beside the database under the digest of what is in them, so that one picture is one file. What reads pictures is loaded with
the first of them, not with the program.
"""

import os
from dataclasses import dataclass
from datetime import datetime
from hashlib import sha256
from io import BytesIO
from pathlib import Path
from typing import TYPE_CHECKING
from uuid import uuid4

from django.conf import settings

from core.errors import InputError
from greenmeasure.common.private import FILE, FOLDER

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

MOST_BYTES, MOST_PIXELS = 12_000_000, 60_000_000
"""What a photograph may be: bytes, and pixels before it is decoded (a telephone takes 12 to 50 million)."""
WIDEST = 2400
"""The longer side of what is kept [pixels]."""
QUALITY = 85
SHOT_AT, WRITTEN_AT, IFD = 0x9003, 0x0132, 0x8769
"""Where a picture says when it was taken, or written: tags of Exif 2.3 (CIPA DC-008), and the part the first is in."""


@dataclass(frozen=True)
class Photograph:
    """A picture fit to keep: its JPEG, its size [pixels], and the hour on its camera's clock, where it told one."""

    jpeg: bytes
    width: int
    height: int
    taken: datetime | None


def photograph(name: str, data: bytes, else_: str = "Pick a JPEG, a PNG or a WebP.") -> Photograph:
    """A photograph from a file's bytes.

    Raises:
        InputError: for `file`: it is none, or too large.
    """
    from PIL import Image, ImageOps, UnidentifiedImageError

    if len(data) > MOST_BYTES:
        raise InputError("file", name, f"{len(data) / 1e6:.1f} MB is too large.", f"Keep it under {MOST_BYTES // 1_000_000} MB.")
    try:
        with Image.open(BytesIO(data), formats=("JPEG", "PNG", "WEBP")) as opened:
            wide, high = opened.size
            if wide * high > MOST_PIXELS:
                raise InputError("file", name, f"{wide:,} × {high:,} pixels are too many.", "Take it smaller, or cut it out.")
            exif = opened.getexif()
            said = exif.get_ifd(IFD).get(SHOT_AT) or exif.get(WRITTEN_AT)
            opened.draft("RGB", (WIDEST, WIDEST))  # a JPEG is decoded no larger than it is kept
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except InputError:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise InputError("file", name, f"“{name}” is no photograph that can be read.", else_) from None
    upright.thumbnail((WIDEST, WIDEST))
    out = BytesIO()
    upright.save(out, "JPEG", quality=QUALITY)
    return Photograph(out.getvalue(), *upright.size, _hour(said))


def _hour(said: object) -> datetime | None:
    """`2026:05:01 06:30:00`, as cameras write it, without a zone."""
    try:
        return datetime.strptime(str(said).strip("\0 "), "%Y:%m:%d %H:%M:%S")
    except ValueError:
        return None


# --- files ------------------------------------------------------------------------------------------------------

SMALL = 480
"""The longer side of the small one that lists show [pixels]."""


def folder() -> Path:
    """Where the files lie: beside the database."""
    return Path(settings.VAR) / "pictures"


def file_of(sha: str, small: bool = False, root: Path | None = None) -> Path:
    """The file of a picture."""
    return (root or folder()) / sha[:2] / f"{sha}{'.small' if small else ''}.jpg"


def store(jpeg: bytes) -> str:
    """Keep a picture's file, once whoever brings it how often; gives its digest. It is on the disk when this returns."""
    from PIL import Image

    sha = sha256(jpeg).hexdigest()
    whole, small = file_of(sha), file_of(sha, small=True)
    if whole.exists() and small.exists():
        return sha
    with Image.open(BytesIO(jpeg), formats=("JPEG",)) as opened:
        if opened.width * opened.height > MOST_PIXELS:
            raise InputError("file", sha[:12], f"{opened.width:,} × {opened.height:,} pixels are too many.")
        opened.draft("RGB", (SMALL, SMALL))
        less = opened.convert("RGB")
    less.thumbnail((SMALL, SMALL))
    out = BytesIO()
    less.save(out, "JPEG", quality=QUALITY)
    _write(small, out.getvalue())
    _write(whole, jpeg)
    return sha


def _write(to: Path, data: bytes) -> None:
    """Write a file whole or not at all."""
    to.parent.mkdir(parents=True, exist_ok=True, mode=FOLDER)
    making = to.with_suffix(f".{uuid4().hex[:8]}")
    with making.open("wb") as file:
        making.chmod(FILE)
        file.write(data)
        file.flush()
        os.fsync(file.fileno())
    making.replace(to)


def drop(sha: str) -> None:
    """Let a picture's file go."""
    for small in (False, True):
        file_of(sha, small).unlink(missing_ok=True)


def pixels(sha: str, wide: int) -> "NDArray[np.float64]":
    """A kept picture's pixels: rows, columns, and red, green and blue [0..255].

    Args:
        sha: its digest.
        wide: the longer side, if it is larger [pixels].

    Raises:
        OSError: its file is not there.
    """
    import numpy as np
    from PIL import Image

    with Image.open(file_of(sha)) as opened:
        opened.draft("RGB", (wide, wide))
        found = opened.convert("RGB")
    found.thumbnail((wide, wide))
    return np.asarray(found, dtype=float)


def shaded(rgb: "NDArray[np.float64]", mask: "NDArray[np.bool_]") -> bytes:
    """A picture (PNG) in which what is in the mask stands as it is, and the rest is faded to paper.

    Args:
        rgb: rows, columns, and red, green and blue [0..255].
        mask: rows and columns.
    """
    import numpy as np
    from PIL import Image

    faded = np.where(mask[..., None], rgb, 235 - (255 - rgb.mean(axis=-1, keepdims=True)) * 0.25)
    out = BytesIO()
    Image.fromarray(np.clip(faded, 0, 255).astype(np.uint8)).save(out, "PNG")
    return out.getvalue()
