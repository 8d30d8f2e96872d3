"""Pictures and form fields: boxes with a size of their own (CSS Images 3, 5.3; CSS Sizing 3, 5.2.2 and 5.1)."""

from __future__ import annotations

from dataclasses import dataclass

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

    def contribution(self, viewport: Viewport) -> Intrinsic:
        asked = Box.contribution(self, viewport)
        if any(type(limit) is Relative and limit.has_percent for limit in (self.width, self.max_width)):
            return Intrinsic(self.inline_edges(viewport, 0.0) + self.inline_margins(viewport, 0.0), asked.most)
        return asked

    def arranged(self, width: Length, height: Length | None, viewport: Viewport) -> Frame:
        edges = self.inline_edges(viewport, width), self.block_edges(viewport, width)
        own: Length = self.natural[1] + edges[1]
        if self.ratio:
            own = (width - edges[0]) / self.ratio + edges[1]
        used = own if height is None else height
        return Frame(self, width, used, (), 1, False, used)
