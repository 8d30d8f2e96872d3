"""Boxes one below the other (CSS 2, 9.4.1 and 10.6.3)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from .amount import Viewport
from .boxes import BLOCK_END, BLOCK_START, INLINE_END, INLINE_START, Adjoining, Box, Frame, Intrinsic, widest
from .linear import Length, larger, smaller


@dataclass(slots=True, eq=False)
class Block(Box):
    """`contains_margins`: whether its first and last kid's margins stay inside (a block formatting context), and do not
    go through its edges where it has neither padding nor border there (CSS 2, 8.3.1). `fills`: its only kid is as high
    as it is itself, where its height is definite."""

    within: list[Box] = field(default_factory=list)
    contains_margins: bool = True
    fills: bool = False

    def kids(self) -> Iterator[Box]:
        return iter(self.within)

    def content(self, viewport: Viewport) -> Intrinsic:
        return widest(self.within, viewport)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        start = self.edge(INLINE_START, viewport, of)
        top, bottom = self.edge(BLOCK_START, viewport, of), self.edge(BLOCK_END, viewport, of)
        room = width - start - self.edge(INLINE_END, viewport, of)
        inner = None if height is None else height - top - bottom
        y, pending = top, _NOTHING
        placed: list[tuple[Length, Length, Frame]] = []
        baseline: Length | None = None
        at_top = not self.contains_margins and _is_none(top)
        for kid in self.within:
            kid_width = kid.filling(viewport, room)
            before = _collapsed(pending, kid.adjoining(BLOCK_START, viewport, room))
            y = y + (0.0 if at_top else before[0] + before[1])
            frame = kid.lay_out(
                kid_width, viewport, room, inner if self.fills else None, inner if is_definite else None
            )
            placed.append((start + offset_in(kid, kid_width, room, viewport), y, frame))
            if baseline is None and frame.baseline is not None:
                baseline = y + frame.baseline
            y = y + frame.height
            pending = kid.adjoining(BLOCK_END, viewport, room)
            at_top = False
        through = not self.contains_margins and _is_none(bottom) and height is None
        content_height = y + (0.0 if through else pending[0] + pending[1]) + bottom
        return Frame(self, width, content_height if height is None else height, tuple(placed), 1, False, baseline)

    def adjoining(self, side: int, viewport: Viewport, of: Length) -> Adjoining:
        """Its own margin, and that of its first or last kid where nothing keeps them apart."""
        own = Box.adjoining(self, side, viewport, of)
        closed = self.contains_margins or not self.within or (side == BLOCK_END and self.height is not None)
        if closed or not _is_none(self.edge(side, viewport, of)):
            return own
        kid = self.within[0 if side == BLOCK_START else -1]
        return _collapsed(own, kid.adjoining(side, viewport, of))


_NOTHING: Adjoining = (0.0, 0.0)


def offset_in(kid: Box, width: Length, room: Length, viewport: Viewport) -> Length:
    """From the content's start: auto margins share what is left (CSS 2, 10.3.3)."""
    left = room - width - kid.inline_margins(viewport, room)
    start, end = kid.margin.inline_start, kid.margin.inline_end
    if start is None and left > 0:
        return left / 2 if end is None else left
    return kid.margin_at(INLINE_START, viewport, room)


def _collapsed(one: Adjoining, other: Adjoining) -> Adjoining:
    return larger(one[0], other[0]), smaller(one[1], other[1])


def _is_none(edge: Length) -> bool:
    return type(edge) is float and edge == 0.0


@dataclass(slots=True, eq=False)
class Void(Box):
    """A box that holds nothing: a line, a space."""

    inner_width: float = 0.0
    inner_height: float = 0.0

    def content(self, viewport: Viewport) -> Intrinsic:
        return Intrinsic(self.inner_width, self.inner_width)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        own = self.inner_height + self.block_edges(viewport, of)
        return Frame(self, width, own if height is None else height, (), 1, False, None)
