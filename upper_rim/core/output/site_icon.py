"""What is made of the picture that is a site's icon?

What browsers ask for: `favicon.ico` with three sizes, and larger squares for those who keep the site on a screen (HTML
Standard, 4.6.7.8). A drawing is published as it is besides.
"""

from __future__ import annotations

import io
from functools import lru_cache
from typing import NamedTuple

from PIL import Image

from ..style.paint.drawing import rasterised
from ..style.paint.pictures import MOST_PIXELS

ICO_SIDES = (16, 32, 48)
TOUCH_PX, LARGE_PX = 180, 512


class IconFiles(NamedTuple):
    """An ICO, and PNGs of `TOUCH_PX` and `LARGE_PX` a side."""

    ico: bytes
    touch: bytes
    large: bytes


@lru_cache(maxsize=8)
def icon_files(data: bytes) -> IconFiles | None:
    """The picture in the middle of a clear square; None where it cannot be read."""
    if b"<svg" in data[:2000]:
        made = rasterised(data, LARGE_PX)
        if made is None:
            return None
        data = made[1]
    try:
        with Image.open(io.BytesIO(data)) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                return None
            square = _squared(opened.convert("RGBA"))
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return None
    ico = io.BytesIO()
    square.save(ico, "ICO", sizes=[(side, side) for side in ICO_SIDES])
    return IconFiles(ico.getvalue(), _png(square, TOUCH_PX), _png(square, LARGE_PX))


def _squared(image: Image.Image) -> Image.Image:
    scale = LARGE_PX / max(image.size)
    size = max(1, round(image.width * scale)), max(1, round(image.height * scale))
    image = image.resize(size, Image.Resampling.LANCZOS)
    square = Image.new("RGBA", (LARGE_PX, LARGE_PX), (0, 0, 0, 0))
    square.paste(image, ((LARGE_PX - image.width) // 2, (LARGE_PX - image.height) // 2))
    return square


def _png(square: Image.Image, side: int) -> bytes:
    out = io.BytesIO()
    square.resize((side, side), Image.Resampling.LANCZOS).save(out, "PNG")
    return out.getvalue()
