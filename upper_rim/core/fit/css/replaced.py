"""Pictures and form fields: boxes with a size of their own (CSS Images 3, 5.3; CSS Sizing 3, 5.2.2)."""

from __future__ import annotations

from dataclasses import dataclass

from ..text.faces import ChosenFace, Faces
from ..text.typesetting import Type, extents, line_height
from .amount import Relative, Viewport
from .boxes import Box, Frame, Intrinsic
from .linear import Length


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
    """A form field: so many lines high, as wide as it is told to be. `fonts`: of what is chosen in it, where that makes
    its line higher; `around_px`: what stands above and below its lines together, besides its edges."""

    type: Type | None = None
    faces: Faces | None = None
    lines: int = 1
    fonts: tuple[ChosenFace | None, ...] = ()
    around_px: float = 0.0

    def holds_still(self) -> bool:
        assert self.type is not None
        return type(self.type.size) is not Relative and type(self.type.line_height) is not Relative

    def content(self, viewport: Viewport) -> Intrinsic:
        return Intrinsic(0.0, 0.0)

    def wanted(self, viewport: Viewport, of: Length = 0.0) -> Intrinsic:
        """Its own width: it does not shrink below that by itself."""
        width = self._plain(self.width, viewport) or 0.0
        return Intrinsic(width, width)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        assert self.type is not None and self.faces is not None
        if self.type.line_height is not None:
            line = line_height(self.type, viewport)
        else:
            line = sum(extents(self.type, self.faces, viewport, self.fonts))
        own = line * self.lines + self.around_px + self.block_edges(viewport, of)
        used = own if height is None else height
        return Frame(self, width, used, (), 1, False, used)
