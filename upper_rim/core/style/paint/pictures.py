"""What colour does a picture have at a place?"""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import NamedTuple

from PIL import Image

from .colour import CLEAR, Rgba
from .drawing import rasterised

MOST_PIXELS = 40_000_000
"""A picture that claims more is not decoded."""
_SAMPLED_PX = 480


class Sampled(NamedTuple):
    """What is kept of a picture: its natural size in px, and so many pixels of it (RGBA, row by row)."""

    width: float
    height: float
    across: int
    down: int
    pixels: bytes


class Picture:
    """A decoded picture; `width` and `height` are its natural size in px."""

    def __init__(self, sampled: Sampled) -> None:
        self.width, self.height = sampled.width, sampled.height
        self._image = Image.frombytes("RGBA", (sampled.across, sampled.down), sampled.pixels)

    def at(self, across: Iterable[float | None], down: Iterable[float | None]) -> list[Rgba]:
        """The colours at each of the places across with each of those down, given as shares of width and height, 0 to
        1; clear where one is None."""
        wide, high = self._image.size
        columns = [None if share is None else min(wide - 1, int(share * wide)) for share in across]
        rows = [None if share is None else min(high - 1, int(share * high)) for share in down]
        known: dict[tuple[int, int], Rgba] = {}

        def colour(column: int | None, row: int | None) -> Rgba:
            if column is None or row is None:
                return CLEAR
            if (column, row) not in known:
                pixel = self._image.getpixel((column, row))
                assert isinstance(pixel, tuple)
                known[column, row] = Rgba(*(channel / 255 for channel in pixel))
            return known[column, row]

        return [colour(column, row) for column in columns for row in rows]


Pictures = Callable[[str], Picture | None]
"""A picture among the site's files by its path; None where it is not there or cannot be read."""


@lru_cache(maxsize=64)
def read_picture(data: bytes) -> Picture | None:
    """None where it cannot be decoded."""
    sampled = sample(data)
    return Picture(sampled) if sampled else None


def sample(data: bytes) -> Sampled | None:
    """Of a PNG, JPEG, WebP, GIF, AVIF, or an SVG that needs no other file; None where it cannot be decoded."""
    try:
        size = None
        if b"<svg" in data[:2000]:
            made = rasterised(data, _SAMPLED_PX)
            if made is None:
                return None
            size, data = made
        with Image.open(io.BytesIO(data)) as image:
            if image.width * image.height > MOST_PIXELS:
                return None
            natural = size or (float(image.width), float(image.height))
            small = image.convert("RGBA")
            small.thumbnail((_SAMPLED_PX, _SAMPLED_PX), Image.Resampling.BOX)
            return Sampled(*natural, small.width, small.height, small.tobytes())
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return None


__all__ = ["MOST_PIXELS", "Picture", "Pictures", "Sampled", "read_picture", "sample"]
