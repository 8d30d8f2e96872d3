"""What colour does a picture have at a place?"""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from functools import lru_cache

import resvg_py
from PIL import Image

from .colour import Rgba

MOST_PIXELS = 40_000_000
"""A picture that claims more is not decoded."""
_SAMPLED_PX = 480


class Picture:
    """A decoded picture; `width` and `height` are its natural size in px."""

    def __init__(self, image: Image.Image) -> None:
        self.width, self.height = (float(side) for side in image.size)
        image = image.convert("RGBA")
        image.thumbnail((_SAMPLED_PX, _SAMPLED_PX), Image.Resampling.BOX)
        self._image = image

    def at(self, across: float, down: float) -> Rgba:
        """The colour at a place given as shares of width and height, 0 to 1."""
        wide, high = self._image.size
        pixel = self._image.getpixel((min(wide - 1, int(across * wide)), min(high - 1, int(down * high))))
        assert isinstance(pixel, tuple)
        red, green, blue, alpha = (channel / 255 for channel in pixel)
        return Rgba(red, green, blue, alpha)


Pictures = Callable[[str], Picture | None]
"""A picture among the site's files by its path; None where it is not there or cannot be read."""


@lru_cache(maxsize=64)
def read_picture(data: bytes) -> Picture | None:
    """PNG, JPEG, WebP, GIF, AVIF, or an SVG that needs no other file; None where it cannot be decoded."""
    try:
        if b"<svg" in data[:2000]:
            drawn = _drawn(data)
            if drawn is None:
                return None
            data = drawn
        with Image.open(io.BytesIO(data)) as image:
            if image.width * image.height > MOST_PIXELS:
                return None
            return Picture(image)
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return None


_REACHES_OUT = re.compile(
    rb"""href\s*=\s*["'](?!#)|url\(\s*["']?(?!#)|<!ENTITY|<foreignObject|@import""", re.IGNORECASE
)
LARGEST_SVG = 1_000_000


def _drawn(svg: bytes) -> bytes | None:
    if len(svg) > LARGEST_SVG or _REACHES_OUT.search(svg):
        return None
    return bytes(resvg_py.svg_to_bytes(svg_string=svg.decode("utf-8", "replace"), skip_system_fonts=True))
