"""Blocks in columns of equal height (CSS Multi-column Layout 1, 3 and 7; CSS Fragmentation 3, 4).

What flows is laid out in one strip, as wide as a column. Where a column may end are the edges of lines and blocks; the
columns are as high as is needed, from an equal share on, for what is left in the strip to come into the last of them.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import NamedTuple

from .amount import Viewport
from .block import Block
from .boxes import BLOCK_END, BLOCK_START, INLINE_END, INLINE_START, Frame, Intrinsic
from .inline import Inline
from .linear import Length, exceeds, in_64ths, larger, smaller, value


class _Run(NamedTuple):
    """What no column ends within: from `top` to `bottom` of the strip. `is_joined`: nor behind it."""

    top: Length
    bottom: Length
    is_joined: bool = False


@dataclass(slots=True, eq=False)
class Columns(Block):
    """`count`: the most columns; `least_px`: each is at least so wide, where there are several."""

    count: int = 1
    least_px: float = 0.0
    gap_px: float = 0.0

    def content(self, viewport: Viewport) -> Intrinsic:
        inner = Block.content(self, viewport)
        most = larger(inner.most, self.least_px) * self.count + self.gap_px * (self.count - 1)
        return Intrinsic(smaller(inner.least, self.least_px), most)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        start, end = self.edge(INLINE_START, viewport, of), self.edge(INLINE_END, viewport, of)
        top, bottom = self.edge(BLOCK_START, viewport, of), self.edge(BLOCK_END, viewport, of)
        room = width - start - end
        used = self._used(room)
        if not self.within or (used == 1 and height is None):
            return Block.arranged(self, width, height, viewport, of, is_definite=is_definite)
        column = (room - self.gap_px * (used - 1)) / used
        strip = Block.arranged(self, column + start + end, None, viewport, of)
        runs = list(_joined(_runs_below(strip, 0.0, viewport)))
        # A margin at the beginning is that of no break: it stays.
        runs[0] = runs[0]._replace(top=top)
        high, firsts = _balanced(runs, used, strip.height - top - bottom)
        if height is not None and exceeds(high, height - top - bottom):
            high = height - top - bottom
            firsts, _ = _filled(runs, high)
        placed: list[tuple[Length, Length, Frame]] = []
        for at, first in enumerate(firsts):
            last = firsts[at + 1] if at + 1 < len(firsts) else len(runs)
            begins, ends = runs[first].top, runs[last - 1].bottom
            for x, y, kid in strip.kids:
                part = _between(kid, y, begins, ends, viewport)
                if part is not None:
                    placed.append((x + (column + self.gap_px) * at, top + part[0] - begins, part[1]))
        whole = high + top + bottom
        return Frame(self, width, whole if height is None else height, tuple(placed), 1, False, strip.baseline)

    def _used(self, room: Length) -> int:
        """How many columns there is room for."""
        for count in range(self.count, 1, -1):
            if room >= self.least_px * count + self.gap_px * (count - 1):
                return count
        return 1


def _runs(frame: Frame, y: Length, viewport: Viewport) -> Iterator[_Run]:
    """Of what stands in a frame at `y`, which may itself be divided. Its own edges stay with what they are beside."""
    box = frame.box
    runs: list[_Run] = []
    if isinstance(box, Inline) and frame.lines:
        top = y + box.edge(BLOCK_START, viewport, frame.width)
        for high in box.line_heights(frame.width, viewport):
            runs.append(_Run(top, top + high))
            top = top + high
    else:
        runs += _runs_below(frame, y, viewport)
    if not runs:
        runs = [_Run(y, y + frame.height)]
    if value(box.edge(BLOCK_START, viewport, frame.width)):
        runs[0] = runs[0]._replace(top=y)
    if value(box.edge(BLOCK_END, viewport, frame.width)):
        runs[-1] = runs[-1]._replace(bottom=y + frame.height)
    yield from runs


def _runs_below(frame: Frame, y: Length, viewport: Viewport) -> Iterator[_Run]:
    for _, kid_y, kid in frame.kids:
        if kid.box.is_whole or not isinstance(kid.box, Inline | Block):
            yield _Run(y + kid_y, y + kid_y + kid.height, kid.box.is_joined)
        else:
            yield from _runs(kid, y + kid_y, viewport)


def _joined(runs: Iterator[_Run]) -> Iterator[_Run]:
    before: _Run | None = None
    for run in runs:
        if before is not None and before.is_joined:
            run = _Run(before.top, run.bottom, run.is_joined)
        elif before is not None:
            yield before
        before = run
    if before is not None:
        yield before


def _balanced(runs: list[_Run], count: int, whole: Length) -> tuple[Length, list[int]]:
    """How high the columns are, and the first run in each. `whole`: the strip's height, margins at its end included."""
    high = in_64ths(whole / count)
    for run in runs:
        high = larger(high, run.bottom - run.top)
    firsts, short = _filled(runs, high)
    while len(firsts) > count and short is not None:
        high = high + short
        firsts, short = _filled(runs, high)
    return high, firsts


def _filled(runs: list[_Run], high: Length) -> tuple[list[int], Length | None]:
    """The first run of each column so high, and by how much a column would have to be higher for one run more; None
    where all stand in one. Margins at a break are dropped."""
    firsts, short = [0], None
    for at, run in enumerate(runs):
        used = run.bottom - runs[firsts[-1]].top
        if at > firsts[-1] and exceeds(used, high):
            less = used - high
            short = less if short is None else smaller(short, less)
            firsts.append(at)
    return firsts, short


def _between(frame: Frame, y: Length, begins: Length, ends: Length, viewport: Viewport) -> tuple[Length, Frame] | None:
    """What of a frame at `y` stands in a part of the strip, and where that begins; None where nothing does."""
    low, high = value(begins) - _SAME_PX, value(ends) + _SAME_PX
    if value(y) >= low and value(y + frame.height) <= high:
        return y, frame
    if value(y) >= high or value(y + frame.height) <= low:
        return None
    box = frame.box
    if isinstance(box, Inline):
        return _lines_between(frame, box, y, (low, high), viewport)
    kids = [
        (x, found)
        for x, kid_y, kid in frame.kids
        if (found := _between(kid, y + kid_y, begins, ends, viewport)) is not None
    ]
    if not kids or box.is_whole:
        return None
    top, bottom = larger(y, begins), smaller(y + frame.height, ends)
    placed = tuple((x, kid_y - top, kid) for x, (kid_y, kid) in kids)
    return top, Frame(box, frame.width, bottom - top, placed, frame.lines, frame.divides, frame.baseline)


def _lines_between(
    frame: Frame, box: Inline, y: Length, within: tuple[float, float], viewport: Viewport
) -> tuple[Length, Frame] | None:
    top = y + box.edge(BLOCK_START, viewport, frame.width)
    lines: list[tuple[int, Length, Length]] = []
    for at, high in enumerate(box.line_heights(frame.width, viewport)):
        if value(top) >= within[0] and value(top + high) <= within[1]:
            lines.append((at, top, top + high))
        top = top + high
    if not lines:
        return None
    first, start, _ = lines[0]
    part = Frame(box, frame.width, lines[-1][2] - start, (), len(lines), frame.divides, frame.baseline)
    part.skips = first
    return start, part


_SAME_PX = 0.1
"""Edges that are no farther apart are one."""
