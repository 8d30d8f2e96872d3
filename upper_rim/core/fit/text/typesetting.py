"""How is a text set, and how high is a line of it?"""

from __future__ import annotations

from collections.abc import Iterable
from ctypes import c_float
from functools import lru_cache
from math import floor
from typing import NamedTuple

from ..css.amount import Amount, Viewport, times, worked_out
from ..css.linear import Length, Linear, value
from .faces import ChosenFace, Faces


class Type(NamedTuple):
    """How a text is set. Sizes in px; `line_height` in px, None: as the fonts have it. `leading`: the number that it
    was given as, which is what a text within inherits. `stretch`: the letters' width in percent."""

    face: str
    weight: int
    italic: bool
    size: Amount
    spacing: Amount
    line_height: Amount | None
    leading: float | None = None
    transform: str = "none"
    between_words: Amount = 0.0
    stretch: float = 100.0

    def at_size(self, size: Amount) -> Type:
        """The same in another size, with the line height that it then inherits."""
        height = self.line_height if self.leading is None else times(size, self.leading)
        return self._replace(size=size, line_height=height)


@lru_cache(maxsize=8192)
def drawn_px(size_px: float) -> float:
    """The size that a font's letters are drawn in, and so advance by: browsers keep a font's size in single precision
    to a hundredth of a px, cut off, and rasterisers keep a 64th of that, cut off. Spaces that are added, line heights
    and lengths in `em` go by the size that was asked for. (Measured: `tests/browser/test_fit.py`.)"""
    kept = c_float(floor(c_float(c_float(size_px).value * 100).value) / 100).value
    return floor(kept * 64) / 64


def drawn(size: Length) -> Length:
    """The same for a size that moves with the viewport: steps, touched by a line where the span begins."""
    if isinstance(size, Linear):
        size.span.bends = True
        return Linear(drawn_px(size.at), size.slope, size.span)
    return drawn_px(size)


def line_height(kind: Type, viewport: Viewport) -> Length:
    """In px, cut off to a 64th as browsers do, which many lines make visible; only where it is not `normal`."""
    assert kind.line_height is not None
    height = worked_out(kind.line_height, viewport, 0.0)
    return height if isinstance(height, Linear) else floor(height * 64) / 64


def whole_px(px: float) -> int:
    """The nearest whole number, a half upwards, as browsers round what fonts say of themselves."""
    return floor(px + 0.5)


class Extents(NamedTuple):
    """How far a line box reaches above and below its baseline, in px."""

    above: float
    below: float


def extents(
    kind: Type, faces: Faces, viewport: Viewport, fonts: Iterable[ChosenFace | None] = (), *, roughly: bool = False
) -> Extents:
    """Of an inline box (CSS Inline 3, 5.1): with a line height, half the leading above, rounded down to whole px as
    browsers do; without, as the fonts say that draw in it besides the first. Where sizes move with the viewport these
    are steps: their span bends, unless they are wanted `roughly`."""
    size_now = worked_out(kind.size, viewport, 0.0)
    if isinstance(size_now, Linear) and not roughly:
        size_now.span.bends = True
    size = drawn_px(value(size_now))
    primary = faces.primary(kind.face, kind.weight, kind.italic, kind.stretch)
    if primary is None:
        ascent, descent, gap = whole_px(0.9 * size), whole_px(0.25 * size), 0
    else:
        ascent, descent, gap = (
            whole_px(share * size) for share in (primary.data.ascent, primary.data.descent, primary.data.line_gap)
        )
    if kind.line_height is None:
        above, below = ascent + gap / 2, descent + gap / 2
        for font in {font for font in fonts if font is not None}:
            above = max(above, float(whole_px(font.data.ascent * size)))
            below = max(below, float(whole_px(font.data.descent * size)))
        return Extents(above, below)
    height = value(line_height(kind, viewport))
    leading = floor((height - ascent - descent) / 2)
    return Extents(ascent + leading, height - ascent - leading)
