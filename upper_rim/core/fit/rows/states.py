"""In which state is a row at a viewport width, how high is it, and which item is the cause?"""

from __future__ import annotations

from itertools import pairwise
from typing import Literal, NamedTuple, TypeAlias

from ..css.amount import Viewport
from ..css.block import Block, offset_in
from ..css.boxes import INLINE_END, INLINE_START, NONE, Box
from ..css.flex import Flex
from ..css.grid import Grid
from ..css.linear import SLACK_PX, Length, Linear, LinearSpan, exceeds, larger, smaller, value
from .cells import OVERLAP_PX, CellFacts, Memory
from .held import Share

RowState = Literal["fits", "tight", "wraps", "breaks words", "clips", "overflows", "collides"]
ROW_STATES: tuple[RowState, ...] = ("fits", "tight", "wraps", "breaks words", "clips", "overflows", "collides")
"""From well to bad: of several that hold, the last one is told."""
FAILING = frozenset({"wraps", "breaks words", "clips", "overflows", "collides"})
RESERVE_PX = 16.0
"""What fits with less to spare, or only since an item has shrunk, is tight."""


class Verdict(NamedTuple):
    """`cause`: id of the item (of the row, where no single one is; empty where all is well). `need_px`: the room that
    the row's cells need for all to be well; `room_px`: what they have."""

    state: RowState
    cause: str
    need_px: Length
    room_px: Length
    height_px: Length


class StateSpot(NamedTuple):
    """A cell in its row: where it begins, from the row's start; its width; and its track's."""

    cell: Flex
    at: Length
    width: Length
    track: Length


class Geometry(NamedTuple):
    """A row before anything stands in it, in px: what it stands in, its own width and the room of its cells, what they
    need, and its cells, line by line. `first` is the viewport's width that it was worked out at, `reach` how many px
    more it holds."""

    first: int
    reach: float
    span: LinearSpan
    of: Length
    width: Length
    room: Length
    need: Length
    lines: tuple[tuple[StateSpot, ...], ...]

    def reaches(self, viewport_width: int) -> bool:
        """Whether it can be moved to a width; where it bends, only its own."""
        by = viewport_width - self.first
        return by == 0 or (0 < by < self.reach and not self.span.bends)

    def at(self, viewport_width: int, span: LinearSpan) -> Geometry:
        """The same at a greater width within its reach."""
        by = viewport_width - self.first
        span.ends_within(self.reach - by)
        return self._in(float(by), span)

    def _in(self, by: float, span: LinearSpan) -> Geometry:
        def moved(length: Length) -> Length:
            return Linear(length.at + length.slope * by, length.slope, span) if isinstance(length, Linear) else length

        lines = tuple(
            tuple(StateSpot(spot.cell, moved(spot.at), moved(spot.width), moved(spot.track)) for spot in line)
            for line in self.lines
        )
        return self._replace(
            of=moved(self.of), width=moved(self.width), room=moved(self.room), need=moved(self.need), lines=lines
        )


def geometry(
    piece: Block, first: int, height_px: float, share: Share, memory: Memory, *, shrinks: bool, in_lines: bool
) -> Geometry:
    """Of a piece that holds one row, at a viewport width, and as far as it keeps its slopes. `share`: what it has of
    that; `shrinks`: it is as wide as what it holds."""
    span = LinearSpan(first)
    viewport = Viewport(Linear(float(first), 1.0, span), height_px)
    row, of = row_of(piece), room_in(piece, viewport, share, shrinks=shrinks)
    width = row.filling(viewport, of)
    grid = _grid_of(row)
    start = row.edge(INLINE_START, viewport, of)
    content = width - start - row.edge(INLINE_END, viewport, of)
    grid_width = grid.filling(viewport, content)
    left = start + offset_in(grid, grid_width, content, viewport) + grid.edge(INLINE_START, viewport, content)
    room = grid_width - grid.inline_edges(viewport, content)
    sizes = grid.track_sizes(room, viewport)
    lines = []
    for from_cell in range(0, len(grid.within), max(1, len(sizes))):
        line, x = [], left
        for cell, size in zip(grid.within[from_cell:], sizes, strict=False):
            assert isinstance(cell, Flex)
            wide = grid.cell_width(cell, size, viewport)
            line.append(StateSpot(cell, x + grid.inset(cell, wide, size, viewport), wide, size))
            x = x + size + grid.column_gap
        lines.append(tuple(line))
    need = _need(grid, viewport, memory, in_lines=in_lines)
    return Geometry(first, span.until, span, of, width, room, need, tuple(lines))


def room_in(piece: Block, viewport: Viewport, share: Share, *, shrinks: bool) -> Length:
    """The width that a piece leaves its rows."""
    of = share.at(viewport)
    whole = piece.fitting(viewport, of) if shrinks else piece.filling(viewport, of)
    return whole - piece.inline_edges(viewport, of)


def height_in(piece: Block, viewport: Viewport, of: Length) -> Length | None:
    """The height that a piece gives its rows to take shares of; None where it is as high as they are."""
    whole = piece.set_height(viewport, of, None)
    return None if whole is None else piece.limited_height(whole, viewport) - piece.block_edges(viewport, of)


def row_of(piece: Block) -> Block:
    row = piece.within[0]
    assert isinstance(row, Block)
    return row


def _grid_of(row: Block) -> Grid:
    grid = row.within[0]
    assert isinstance(grid, Grid)
    return grid


_Seen: TypeAlias = "tuple[StateSpot, CellFacts]"


def verdict(
    row: Block, shape: Geometry, viewport: Viewport, memory: Memory, *, height_of: Length | None, in_lines: bool
) -> Verdict:
    """`height_of`: what its height can be a share of (`height_in`). `in_lines`: whether its cells' items and labels are
    meant to stand on one line, as in a header; otherwise text flows, and what counts is that no word is wider than its
    cell."""
    grid = _grid_of(row)
    lines = [
        [(spot, memory.facts(spot.cell, spot.width, viewport, spot.track)) for spot in line] for line in shape.lines
    ]
    inner: Length = grid.row_gap * max(0, len(lines) - 1) + grid.block_edges(viewport, shape.width)
    for line in lines:
        tallest: Length = 0.0
        for spot, facts in line:
            tallest = larger(facts.height + spot.cell.block_margins(viewport, spot.track), tallest)
        inner = inner + tallest
        for at, (spot, facts) in enumerate(line):
            if _takes_shares(spot.cell, grid):
                shared = memory.facts_within(spot.cell, spot.width, viewport, spot.track, tallest, align=grid.align)
                line[at] = (spot, shared._replace(height=facts.height))
            elif spot.cell.holds_dividers and tallest > facts.height + spot.cell.block_margins(viewport, spot.track):
                taller = memory.facts(spot.cell, spot.width, viewport, spot.track, tall=True)
                line[at] = (spot, taller._replace(height=facts.height))
    height, spilling = _height(row, inner, viewport, shape.of, height_of)
    found = _problems(lines, shape.width, in_lines=in_lines)
    if spilling:
        found.append(("clips", next((facts.farthest for line in lines for _, facts in reversed(line)), "")))
    if found:
        state, cause = max(found, key=lambda one: ROW_STATES.index(one[0]))
        return Verdict(state, cause or row.node, shape.need, shape.room, height)
    if grid.is_given_its_width and shape.need > shape.room - RESERVE_PX:
        cause = _widest(grid, viewport, in_lines=in_lines) or row.node
        return Verdict("tight", cause, shape.need, shape.room, height)
    return Verdict("fits", "", shape.need, shape.room, height)


def _takes_shares(cell: Flex, grid: Grid) -> bool:
    """Whether something in it is a share of a height that is only known once the row is as high as its tallest cell
    (CSS Grid 2, 6.2; CSS Flexbox 1, 9.8)."""
    if cell.has_percent_heights:
        return True
    stretches = (cell.align_self or grid.align) == "stretch" and cell.height is None
    return stretches and cell.holds_shares


def _height(row: Block, inner: Length, viewport: Viewport, of: Length, height_of: Length | None) -> tuple[Length, bool]:
    """The row's height, and whether what stands in it is higher."""
    whole = inner + row.block_edges(viewport, of)
    own = row.set_height(viewport, of, height_of)
    height = row.limited_height(whole if own is None else own, viewport, height_of)
    return height, whole - height > OVERLAP_PX


def _problems(lines: list[list[_Seen]], row_width: Length, *, in_lines: bool) -> list[tuple[RowState, str]]:
    found: list[tuple[RowState, str]] = []
    for line in lines:
        for _, facts in line:
            if in_lines:
                found += [("wraps", node) for node in facts.folds]
            found += [("breaks words", node) for node in facts.divided]
            if facts.spills:
                found.append(("clips", facts.spills))
        drawn = [seen for seen in line if seen[1].farthest]
        if not drawn:
            continue
        last, _ = drawn[-1]
        settled = True
        for spot, facts in drawn:
            settled = settled and facts.inside and _keeps_to_its_track(spot)
        if settled and not exceeds(last.at + last.width, row_width):
            continue
        for spot, facts in drawn:
            if spot.at + facts.start < -SLACK_PX or exceeds(spot.at + facts.end, row_width):
                found.append(("overflows", facts.farthest))
        for (before, one), (after, other) in pairwise(drawn):
            ends = smaller(before.at + one.end, after.at + other.end)
            if ends - larger(before.at + one.start, after.at + other.start) > OVERLAP_PX:
                out = exceeds(one.end, before.width)
                found.append(("collides", one.farthest if out else other.farthest))
    return found


def _keeps_to_its_track(spot: StateSpot) -> bool:
    return spot.cell.margin is NONE and not exceeds(spot.width, spot.track)


def _widest(grid: Grid, viewport: Viewport, *, in_lines: bool) -> str:
    """The item that asks for the most room."""
    node, most = "", -1.0
    for cell in grid.within:
        for item in cell.kids():
            asked = item.contribution(viewport)
            wide = value(asked.most if in_lines else asked.least)
            if wide > most:
                node, most = _node_in(item), wide
    return node


def _node_in(box: Box) -> str:
    return box.node or next((node for kid in box.kids() if (node := _node_in(kid))), "")


def _need(grid: Grid, viewport: Viewport, memory: Memory, *, in_lines: bool) -> Length:
    """`needed`, worked out once for a grid in which nothing moves."""
    if not grid.stays:
        return needed_px(grid, viewport, in_lines=in_lines)
    if grid not in memory.needs:
        memory.needs[grid] = needed_px(grid, viewport, in_lines=in_lines)
    return memory.needs[grid]


def needed_px(grid: Grid, viewport: Viewport, *, in_lines: bool) -> Length:
    """The room in which every cell is as wide as what stands in it: on one line, or as its longest word."""
    if not grid.tracks:
        return 0.0
    count = len(grid.tracks)
    total: Length = grid.column_gap * (count - 1)
    per_share: Length = 0.0
    shares = 0.0
    for at, track in enumerate(grid.tracks):
        asked: Length = 0.0
        for cell in grid.within[at::count]:
            one = cell.contribution(viewport)
            asked = larger(one.most if in_lines else one.least, asked)
        if track.kind in {"share", "equal"}:
            shares += track.amount
            per_share = larger(asked / track.amount, per_share)
        else:
            total = total + (track.amount if track.kind == "fixed" else asked)
    return total + per_share * (max(shares, 1.0) if shares else 0.0)
