"""What colour does a picture have at a place?"""

from __future__ import annotations

import io
from collections.abc import Callable
from functools import lru_cache

from PIL import Image

from .colour import Rgba
from .drawing import drawn

MOST_PIXELS = 40_000_000
"""A picture that claims more is not decoded."""
_SAMPLED_PX = 480


class Picture:
    """A decoded picture; `width` and `height` are its natural size in px."""

    def __init__(self, image: Image.Image, size: tuple[float, float] | None = None) -> None:
        self.width, self.height = size or (float(image.width), float(image.height))
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
        size = None
        if b"<svg" in data[:2000]:
            made = drawn(data, _SAMPLED_PX)
            if made is None:
                return None
            size, data = made
        with Image.open(io.BytesIO(data)) as image:
            if image.width * image.height > MOST_PIXELS:
                return None
            return Picture(image, size)
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return None


__all__ = ["MOST_PIXELS", "Picture", "Pictures", "read_picture"]
