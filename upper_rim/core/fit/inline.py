"""Text and atomic inlines in lines (CSS Inline 3, CSS 2 10.8)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from .amount import Relative, Viewport, worked_out
from .boxes import Box, Frame, Intrinsic
from .faces import Faces
from .linear import Length, larger, value
from .text import OBJECT, Paragraph, Type, extents


@dataclass(slots=True, eq=False)
class Inline(Box):
    """A block container that holds lines. `type` is its own: that of the strut. `atoms` stand in the paragraph where it
    has `OBJECT`; each is as wide as its content."""

    paragraph: Paragraph | None = None
    type: Type | None = None
    faces: Faces | None = None
    breaks: bool = True
    atoms: list[Box] = field(default_factory=list)

    def kids(self) -> Iterator[Box]:
        return iter(self.atoms)

    def holds_still(self) -> bool:
        assert self.paragraph is not None and self.type is not None
        return self.paragraph.is_fixed and type(self.type.line_height) is not Relative

    def content(self, viewport: Viewport) -> Intrinsic:
        assert self.paragraph is not None
        least, most = self.paragraph.widths(viewport)
        return Intrinsic(least if self.breaks else most, most)

    def arranged(self, width: Length, height: Length | None, viewport: Viewport) -> Frame:
        assert self.paragraph is not None and self.type is not None and self.faces is not None
        top = self.edge("block_start", viewport, width)
        room = width - self.inline_edges(viewport, width)
        strut = extents(self.type, self.faces, viewport, self._fallbacks())
        if not self.paragraph.text:
            whole = top + self.edge("block_end", viewport, width)
            return Frame(self, width, whole if height is None else height, (), 0, False, None)
        if self.breaks:
            count, divides = self.paragraph.lines(room, viewport)
        else:
            count, divides = 1, False
        placed: list[tuple[Length, Length, Frame]] = []
        first = strut.above
        if self._is_plain():
            line_height = self.type.line_height
            one = strut.above + strut.below if line_height is None else worked_out(line_height, viewport, 0.0)
            inside: Length = one * count
        else:
            inside, first = self._mixed(room, viewport, placed)
        whole = inside + self.block_edges(viewport, width)
        baseline = top + first
        return Frame(self, width, whole if height is None else height, tuple(placed), count, divides, baseline)

    def _fallbacks(self) -> frozenset[object]:
        assert self.paragraph is not None
        return frozenset(self.paragraph.fonts)

    def _is_plain(self) -> bool:
        """Whether all lines are equally high: nothing on them differs from the strut in size or height."""
        assert self.paragraph is not None and self.type is not None
        own = self.type
        return not self.atoms and all(
            run.type.size == own.size and run.type.line_height == own.line_height and run.type.face == own.face
            for run in self.paragraph.runs
        )

    def _mixed(
        self, room: Length, viewport: Viewport, placed: list[tuple[Length, Length, Frame]]
    ) -> tuple[Length, float]:
        """Each line as high as what stands on it needs (CSS 2, 10.8.1). Gives the height, and the first baseline."""
        assert self.paragraph is not None and self.type is not None and self.faces is not None
        strut = extents(self.type, self.faces, viewport, self._fallbacks())
        reach: dict[int, list[tuple[Length, Length]]] = {}
        at, atoms = 0, iter(self.atoms)
        for run in self.paragraph.runs:
            own = extents(run.type, self.faces, viewport)
            for offset, char in enumerate(run.text):
                part = self.paragraph.part_of(at + offset)
                if char == OBJECT:
                    atom = next(atoms)
                    frame = atom.lay_out(atom.fitting(viewport, room), viewport)
                    rise = frame.height if frame.baseline is None else frame.baseline
                    placed.append((atom.margin_at("inline_start", viewport, room), 0.0, frame))
                    reach.setdefault(part, []).append((rise, frame.height - rise))
                elif run.type != self.type:
                    reach.setdefault(part, []).append((own.above, own.below))
            at += len(run.text)
        lines = self.paragraph.line_starts(room, viewport) if self.breaks else [(0, len(reach) + 10_000)]
        total: Length = 0.0
        first = strut.above
        for number, (start, end) in enumerate(lines):
            above: Length = strut.above
            below: Length = strut.below
            for part, tall in reach.items():
                if start <= part <= end:
                    for up, down in tall:
                        above, below = larger(up, above), larger(down, below)
            if number == 0:
                first = value(above)
            total = total + above + below
        return total, first
