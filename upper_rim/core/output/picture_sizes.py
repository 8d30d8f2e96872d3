"""In which sizes is a picture published, so that no screen loads more than it shows?"""

from __future__ import annotations

import io
from functools import lru_cache

from PIL import Image

from ..style.paint.pictures import MOST_PIXELS

QUALITY = 82
_RESIZED = frozenset({"PNG", "JPEG", "WEBP", "AVIF"})


def widths(natural_px: int | None, shown_px: int) -> list[int]:
    """Widths besides its own: as wide as it is shown, and twice that for screens of two dots a pixel."""
    return [width for width in (shown_px, 2 * shown_px) if natural_px is not None and width < natural_px * 0.9]


@lru_cache(maxsize=256)
def width_of(data: bytes) -> int | None:
    """In px; None for drawings and what moves."""
    try:
        with Image.open(io.BytesIO(data)) as image:
            still = image.format in _RESIZED and getattr(image, "n_frames", 1) == 1
            return image.width if still and image.width * image.height <= MOST_PIXELS else None
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return None


def resized(data: bytes, width_px: int) -> bytes:
    """The picture at that width, as WebP; as it is, where no more than its size can be read."""
    out = io.BytesIO()
    try:
        with Image.open(io.BytesIO(data)) as image:
            high = max(1, round(image.height * width_px / image.width))
            kept = image.convert("RGBA" if image.has_transparency_data else "RGB")
            kept.resize((width_px, high), Image.Resampling.LANCZOS).save(out, "WEBP", quality=QUALITY)
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return data
    return out.getvalue()
