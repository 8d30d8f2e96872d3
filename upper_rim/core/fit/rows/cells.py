"""What is to be seen in a cell of a row, at a width of its own?

A cell whose boxes do not depend on the viewport is a function of its own width alone. So what was found out about it
holds wherever in the sweep it has that width again, in whatever language its words are the same.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from ..css.amount import Viewport
from ..css.boxes import INLINE_END, INLINE_START, Align, Box, Facts, Frame
from ..css.flex import Flex, Line
from ..css.inline import Inline
from ..css.linear import Length, Linear, LinearSpan, exceeds, larger, smaller, value

OVERLAP_PX = 0.5
"""Boxes that lie over each other by less do not collide, and none spills by less: they would be drawn on the same
device pixel."""
_NOWHERE = Viewport(0.0, 0.0)
_MOST_CELLS = 2_000


class CellFacts(NamedTuple):
    """`folds`: the items by which it is on more than one line, or has a label on more than one; `divided`: those with a
    line that ends within a word. `start` and `end`: how far what is drawn reaches, from the cell's own start, and which
    item reaches farthest out of it; `inside`: none does. `spills`: the last item, where all are higher than the room
    that a height that was set leaves them."""

    height: Length
    folds: tuple[str, ...]
    divided: tuple[str, ...]
    start: Length
    end: Length
    farthest: str
    inside: bool
    spills: str


class _Known(NamedTuple):
    """Facts as functions of the cell's width, from `start` on in one `direction` (1 or -1), for `reach` px."""

    start: float
    direction: int
    reach: float
    facts: CellFacts


class Memory:
    """What is known of cells, by box."""

    def __init__(self) -> None:
        self.needs: dict[Box, Length] = {}
        self._known: dict[tuple[Box, bool], list[_Known]] = {}
        self._still: dict[tuple[Box, float, bool], CellFacts] = {}
        self._lines: dict[tuple[tuple[Frame, ...], bool], _LineFacts] = {}

    def forget(self) -> None:
        for kept in (self.needs, self._known, self._still, self._lines):
            kept.clear()

    def facts(self, cell: Flex, width: Length, viewport: Viewport, of: Length, *, tall: bool = False) -> CellFacts:
        """`tall`: the cell is stretched to more than its own height, and its lines share that."""
        if not cell.stays:
            return self._found(cell, width, viewport, of, tall=tall)
        if not isinstance(width, Linear):
            if (cell, width, tall) not in self._still:
                self._still[cell, width, tall] = self._found(cell, width, viewport, of, tall=tall)
            return self._still[cell, width, tall]
        direction = 1 if width.slope > 0 else -1
        listed = self._known.setdefault((cell, tall), [])
        for known in listed:
            inside = (width.at - known.start) * direction
            if known.direction == direction and (0 <= inside < known.reach or inside == 0):
                return _moved(known, width)
        if len(self._known) > _MOST_CELLS:
            self.forget()
            listed = self._known.setdefault((cell, tall), [])
        span = LinearSpan(width.at)
        own = Linear(width.at, float(direction), span)
        facts = self._found(cell, own, _NOWHERE, own, tall=tall)
        known = _Known(width.at, direction, span.until, facts)
        listed.append(known)
        return _moved(known, width)

    def facts_within(
        self, cell: Flex, width: Length, viewport: Viewport, of: Length, high: Length, *, align: Align
    ) -> CellFacts:
        """Of a cell in a row of a height that is known, where heights can be shares of that."""
        height = None
        if cell.height is None and (cell.align_self or align) == "stretch":
            height = high - cell.block_margins(viewport, of)
        return self._found(cell, width, viewport, of, tall=True, height=height, height_of=high)

    def _found(
        self,
        cell: Flex,
        width: Length,
        viewport: Viewport,
        of: Length,
        *,
        tall: bool,
        height: Length | None = None,
        height_of: Length | None = None,
    ) -> CellFacts:
        start_edge, end_edge = cell.edge(INLINE_START, viewport, of), cell.edge(INLINE_END, viewport, of)
        room = width - start_edge - end_edge
        edges = cell.block_edges(viewport, of)
        over: Length = 0.0
        if cell.height is None and cell.max_height is None and height is None:
            # Lines are enough: nothing has to be placed on them.
            rows, used = cell.lines(room, None, viewport)
            height = cell.limited_height(used + edges, viewport)
            tall = tall or exceeds(height, used + edges)
        else:
            height = cell.lay_out(width, viewport, of, height, height_of).height
            rows, used = cell.lines(room, height - edges, viewport)
            over = used + edges - height
        folds: list[str] = []
        divided: list[str] = []
        start: Length | None = None
        end: Length = 0.0
        farthest, out, last = "", None, ""
        for line in rows:
            seen = self._line(line, viewport, tall=tall)
            if last and not folds and seen.first_drawn:
                # The item that begins the second line is the one that did not fit on the first.
                folds.append(seen.first_drawn)
            folds += seen.broken
            divided += seen.divided
            if not seen.first_drawn:
                continue
            last = seen.last_drawn
            line_start, line_end = line.at + seen.start, line.at + seen.end
            beyond = larger(-line_start - start_edge, line_end + start_edge - width)
            start = line_start if start is None else smaller(line_start, start)
            end = larger(line_end, end)
            if out is None or beyond > out:
                out, farthest = beyond, seen.start_node if value(line_start) < 0 else seen.end_node
        spills = (last or node_of(rows[-1].frames[-1])) if over > OVERLAP_PX and rows else ""
        inside = out is None or not exceeds(out, 0.0)
        return CellFacts(
            height,
            tuple(folds),
            tuple(divided),
            0.0 if start is None else start_edge + start,
            start_edge + end,
            farthest,
            inside,
            spills,
        )

    def _line(self, line: Line, viewport: Viewport, *, tall: bool) -> _LineFacts:
        if not line.stays:
            return _line_facts(line, viewport, tall=tall)
        found = self._lines.get((line.frames, tall))
        if found is None:
            found = self._lines[line.frames, tall] = _line_facts(line, viewport, tall=tall)
        return found


class _LineFacts(NamedTuple):
    """Of a flex line: how far what is drawn on it reaches from its beginning, and by which items."""

    start: Length
    end: Length
    start_node: str
    end_node: str
    first_drawn: str
    last_drawn: str
    broken: list[str]
    divided: list[str]


def _line_facts(line: Line, viewport: Viewport, *, tall: bool) -> _LineFacts:
    """`tall`: see `Memory.facts`."""
    start: Length | None = None
    end: Length = 0.0
    start_node = end_node = first = last = ""
    broken: list[str] = []
    divided: list[str] = []
    for x, frame in zip(line.inside, line.frames, strict=True):
        facts, node = facts_of(frame, viewport), node_of(frame)
        if facts.folded or facts.broken:
            broken.append(node)
        if facts.divides:
            divided.append(node)
        stretches = frame.box.align_self == "stretch"
        stretched = stretches and (tall or line.high > frame.box.block_margins(viewport, 0.0))
        if not frame.box.is_seen or not facts.end - facts.start > 0 or not (stretched or frame.height > 0):
            continue
        first, last = first or node, node
        if start is None or x + facts.start < start:
            start, start_node = x + facts.start, node
        if x + facts.end > end:
            end, end_node = x + facts.end, node
    return _LineFacts(0.0 if start is None else start, end, start_node, end_node, first, last, broken, divided)


def _moved(known: _Known, width: Linear) -> CellFacts:
    """Facts at a width that moves with the viewport's: a function of a function. The width's span ends where theirs
    does."""
    inside = (width.at - known.start) * known.direction
    speed = width.slope * known.direction
    width.span.ends_within((known.reach - inside) / speed)

    def along(length: Length) -> Length:
        if not isinstance(length, Linear):
            return length
        return Linear(length.at + length.slope * inside, length.slope * speed, width.span)

    height, folds, divided, start, end, farthest, is_inside, spills = known.facts
    return CellFacts(along(height), folds, divided, along(start), along(end), farthest, is_inside, spills)


def node_of(frame: Frame) -> str:
    """Id of the item that a frame is of; of a wrapper around one, that one's."""
    if frame.box.node:
        return frame.box.node
    return next((node for _, _, kid in frame.kids if (node := node_of(kid))), "")


def facts_of(frame: Frame, viewport: Viewport) -> Facts:
    """Of a frame and all in it; kept with it."""
    if frame.facts is not None:
        return frame.facts
    box = frame.box
    folded = isinstance(box, Flex) and box.part == "list" and box.wraps and frame.lines > 1
    broken = isinstance(box, Inline) and box.part in {"text", ""} and frame.lines > 1
    divides = frame.divides
    start: Length = 0.0
    end = frame.width
    if isinstance(box, Inline) and box.paragraph is not None:
        least, most = box.paragraph.widths(viewport)
        edge = box.edge(INLINE_START, viewport, frame.width)
        end = larger(edge + (least if box.breaks else most), end)
    for x, kid in _inside(frame):
        inner = facts_of(kid, viewport)
        folded, broken, divides = folded or inner.folded, broken or inner.broken, divides or inner.divides
        start, end = smaller(x + inner.start, start), larger(x + inner.end, end)
    found = Facts(folded, broken, divides, start, end)
    if box.stays and isinstance(frame.width, float):
        frame.facts = found
    return found


def _inside(frame: Frame) -> Iterator[tuple[Length, Frame]]:
    if not frame.rows or not frame.box.has_plain_edges:
        for x, _, kid in frame.kids:
            yield x, kid
        return
    edge = frame.box.edge(INLINE_START, _NOWHERE, frame.width)
    for line in frame.rows:
        for x, kid in zip(line.inside, line.frames, strict=True):
            yield edge + line.at + x, kid
