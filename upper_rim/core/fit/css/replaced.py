"""Pictures and form fields: boxes with a size of their own (CSS Images 3, 5.3; CSS Sizing 3, 5.2.2)."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from ..text.faces import Faces
from ..text.typesetting import Type, extents, line_height, whole_px
from .amount import Relative, Viewport, worked_out
from .boxes import Box, Frame, Intrinsic
from .linear import Length, Linear, larger, value


@dataclass(slots=True, eq=False)
class Replaced(Box):
    """`ratio`: width by height; 0 where it has none. `natural`: its own width and height in px."""

    ratio: float = 0.0
    natural: tuple[float, float] = (0.0, 0.0)

    def content(self, viewport: Viewport) -> Intrinsic:
        """A limit in percent lets it shrink to nothing: it is compressible."""
        width = self._plain(self.width, viewport)
        own: Length = self.natural[0] if width is None else width - self.inline_edges(viewport, 0.0)
        limited = any(type(limit) is Relative and limit.has_percent for limit in (self.width, self.max_width))
        return Intrinsic(0.0 if limited else own, own)

    def asking(self, viewport: Viewport) -> Intrinsic:
        asked = Box.asking(self, viewport)
        if any(type(limit) is Relative and limit.has_percent for limit in (self.width, self.max_width)):
            return Intrinsic(self.inline_edges(viewport, 0.0) + self.inline_margins(viewport, 0.0), asked.most)
        return asked

    def filling(self, viewport: Viewport, of: Length) -> Length:
        """Its own width, not its container's (CSS 2, 10.3.4)."""
        if self.width is None:
            return self.limited_width(self.natural[0] + self.inline_edges(viewport, of), viewport, of)
        return Box.filling(self, viewport, of)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        edges = self.inline_edges(viewport, of), self.block_edges(viewport, of)
        own: Length = self.natural[1] + edges[1]
        if self.ratio:
            own = (width - edges[0]) / self.ratio + edges[1]
        used = own if height is None else height
        return Frame(self, width, used, (), 1, False, used)


@dataclass(slots=True, eq=False)
class Field(Box):
    """A form field: so many lines high, as wide as it is told to be, or as so many letters are (HTML, the `size`
    attribute). `around_px`: what stands above and below its lines together, besides its edges."""

    type: Type | None = None
    faces: Faces | None = None
    lines: int = 1
    around_px: float = 0.0
    letters: int = 0

    def holds_still(self) -> bool:
        assert self.type is not None
        return type(self.type.size) is not Relative and type(self.type.line_height) is not Relative

    def content(self, viewport: Viewport) -> Intrinsic:
        return Intrinsic(0.0, 0.0)

    def wanted(self, viewport: Viewport, of: Length = 0.0) -> Intrinsic:
        """Its own width: it does not shrink below that by itself, unless it is told a share of what holds it: then to what
        is left with that share at nothing (CSS Sizing 3, 5.2.2: compressible)."""
        width = self._plain(self.width, viewport)
        if width is not None:
            return Intrinsic(width, width)
        around = self.inline_edges(viewport, of)
        most = self._natural(viewport) + around
        return Intrinsic(most if self.width is None else larger(worked_out(self.width, viewport, 0.0), around), most)

    def _natural(self, viewport: Viewport) -> Length:
        """As Chromium has it (measured: `tests/browser/test_fit.py`): a font's mean width is rounded up or kept, its
        greatest is rounded, and so is the whole, up."""
        assert self.type is not None and self.faces is not None
        font = self.faces.primary(self.type.face, self.type.weight, self.type.italic, self.type.stretch)
        if not self.letters or font is None:
            return 0.0
        size = worked_out(self.type.size, viewport, 0.0)
        mean, widest = font.data.average * value(size), font.data.widest * value(size)
        whole = float(ceil(max(mean, whole_px(mean)) * (self.letters - 1) + whole_px(widest)))
        if not isinstance(size, Linear):
            return whole
        size.span.bends = True
        steep = font.data.average * (self.letters - 1) + font.data.widest
        return Linear(whole, steep * size.slope, size.span)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        assert self.type is not None and self.faces is not None
        if self.type.line_height is not None:
            line = line_height(self.type, viewport)
        else:
            line = sum(extents(self.type, self.faces, viewport))
        own = line * self.lines + self.around_px + self.block_edges(viewport, of)
        used = own if height is None else height
        return Frame(self, width, used, (), 1, False, used)
