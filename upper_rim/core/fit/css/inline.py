"""Text and atomic inlines in lines (CSS Inline 3, CSS 2 10.8)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import groupby

from ..text.faces import Faces
from ..text.paragraph import Paragraph
from ..text.typesetting import Extents, Type, extents, line_height
from .amount import Relative, Viewport
from .boxes import BLOCK_END, BLOCK_START, INLINE_START, Box, Frame, Intrinsic
from .linear import Length, larger


@dataclass(slots=True, eq=False)
class Inline(Box):
    """A block container that holds lines of text. `type` is its own: that of the strut."""

    paragraph: Paragraph | None = None
    type: Type | None = None
    faces: Faces | None = None
    breaks: bool = True

    def holds_still(self) -> bool:
        assert self.paragraph is not None and self.type is not None
        return self.paragraph.is_fixed and type(self.type.line_height) is not Relative

    def content(self, viewport: Viewport) -> Intrinsic:
        assert self.paragraph is not None
        least, most = self.paragraph.widths(viewport)
        return Intrinsic(least if self.breaks else most, most)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        assert self.paragraph is not None and self.type is not None and self.faces is not None
        top = self.edge(BLOCK_START, viewport, of)
        room = width - self.inline_edges(viewport, of)
        plain = self._is_plain()
        strut = extents(self.type, self.faces, viewport, roughly=plain and self.type.line_height is not None)
        if not self.paragraph.text:
            whole = top + self.edge(BLOCK_END, viewport, of)
            return Frame(self, width, whole if height is None else height, (), 0, False, None)
        if self.breaks:
            count, divides = self.paragraph.lines(room, viewport)
        else:
            count, divides = 1, False
        first = strut.above
        if plain:
            inside: Length = self._plain_line(viewport, strut) * count
        else:
            lines = self._mixed(room, viewport, strut)
            inside, first = sum(above + below for above, below in lines), lines[0][0]
        whole = inside + self.block_edges(viewport, of)
        return Frame(self, width, whole if height is None else height, (), count, divides, top + first)

    def line_heights(self, width: Length, viewport: Viewport) -> list[Length]:
        """Of each line, where it is laid out so wide."""
        assert self.paragraph is not None and self.type is not None and self.faces is not None
        room = width - self.inline_edges(viewport, width)
        strut = extents(self.type, self.faces, viewport)
        if not self._is_plain():
            return [above + below for above, below in self._mixed(room, viewport, strut)]
        count = self.paragraph.lines(room, viewport)[0] if self.breaks else 1
        return [self._plain_line(viewport, strut)] * count

    def _plain_line(self, viewport: Viewport, strut: Extents) -> Length:
        assert self.type is not None
        return strut.above + strut.below if self.type.line_height is None else line_height(self.type, viewport)

    def _is_plain(self) -> bool:
        """Whether all lines are equally high: nothing on them differs from the strut in size or height."""
        assert self.paragraph is not None and self.type is not None and self.faces is not None
        own = self.type
        if own.line_height is None:
            primary = self.faces.primary(own.face, own.weight, own.italic, own.stretch)
            if any(font != primary for font in self.paragraph.fonts):
                return False
        return all(
            run.type.size == own.size and run.type.line_height == own.line_height and run.type.face == own.face
            for run in self.paragraph.runs
        )

    def _mixed(self, room: Length, viewport: Viewport, strut: Extents) -> list[tuple[float, float]]:
        """Each line as high as what stands on it needs (CSS 2, 10.8.1): above its baseline, and below."""
        assert self.paragraph is not None and self.type is not None and self.faces is not None
        reach: dict[int, list[Extents]] = {}
        at = 0
        for run in self.paragraph.runs:
            end = at + len(run.text)
            for part, inside in groupby(range(at, end), key=self.paragraph.part_of):
                fonts = (self.paragraph.fonts[index] for index in inside) if run.type.line_height is None else ()
                reach.setdefault(part, []).append(extents(run.type, self.faces, viewport, fonts))
            at = end
        lines = self.paragraph.line_starts(room, viewport) if self.breaks else [(0, len(self.paragraph.text))]
        found: list[tuple[float, float]] = []
        for start, end in lines:
            tall = [strut, *(one for part, listed in reach.items() if start <= part <= end for one in listed)]
            found.append((max(one.above for one in tall), max(one.below for one in tall)))
        return found


@dataclass(slots=True, eq=False)
class InlineAround(Box):
    """A block container whose only line holds an atomic inline (CSS 2, 10.8.1)."""

    type: Type | None = None
    faces: Faces | None = None
    atom: Box | None = None

    def kids(self) -> Iterator[Box]:
        assert self.atom is not None
        return iter((self.atom,))

    def holds_still(self) -> bool:
        assert self.type is not None
        return type(self.type.line_height) is not Relative and type(self.type.size) is not Relative

    def content(self, viewport: Viewport) -> Intrinsic:
        assert self.atom is not None
        return self.atom.contribution(viewport)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        assert self.atom is not None and self.type is not None and self.faces is not None
        room = width - self.inline_edges(viewport, of)
        strut = extents(self.type, self.faces, viewport)
        frame = self.atom.lay_out(self.atom.fitting(viewport, room), viewport, room)
        before = self.atom.margin_at(BLOCK_START, viewport, room)
        after = self.atom.margin_at(BLOCK_END, viewport, room)
        rise = before + (frame.height if frame.baseline is None else frame.baseline)
        above = larger(rise, strut.above)
        below = larger(before + frame.height + after - rise, strut.below)
        top = self.edge(BLOCK_START, viewport, of)
        x = self.edge(INLINE_START, viewport, of) + self.atom.margin_at(INLINE_START, viewport, room)
        whole = above + below + self.block_edges(viewport, of)
        kids = ((x, top + above - rise + before, frame),)
        return Frame(self, width, whole if height is None else height, kids, 1, False, top + above)
