"""In which state is a row at a viewport width, how high is it, and which item is the cause?"""

from __future__ import annotations

from itertools import pairwise
from typing import Literal, NamedTuple

from .amount import Viewport, worked_out
from .block import Block, offset_in
from .boxes import Box
from .cells import CellFacts, Memory
from .flex import Flex
from .grid import Grid
from .linear import SLACK_PX, Length, exceeds, larger, value

State = Literal["fits", "tight", "wraps", "breaks words", "clips", "overflows", "collides"]
STATES: tuple[State, ...] = ("fits", "tight", "wraps", "breaks words", "clips", "overflows", "collides")
"""From well to bad: of several that hold, the last one is told."""
FAILING = frozenset({"wraps", "breaks words", "clips", "overflows", "collides"})
RESERVE_PX = 16.0
"""What fits with less to spare is tight."""
OVERLAP_PX = 0.5
"""Boxes that lie over each other by less do not collide: they would be drawn on the same device pixel."""


class Verdict(NamedTuple):
    """`cause`: id of the item (of the row, where no single one is; empty where all is well). `need_px`: the room that the
    row's cells need for all to be well; `room_px`: what they have."""

    state: State
    cause: str
    need_px: Length
    room_px: Length
    height_px: Length


class _Seen(NamedTuple):
    """A cell in its row: where it begins and ends, from the row's start, and what is drawn in it."""

    at: Length
    width: Length
    facts: CellFacts


def verdict(row: Block, width: Length, viewport: Viewport, of: Length, memory: Memory, *, in_lines: bool) -> Verdict:
    """`width`: the row's. `in_lines`: whether its cells' items and labels are meant to stand on one line, as in a header;
    otherwise text flows, and what counts is that no word is wider than its cell."""
    grid = row.within[0]
    assert isinstance(grid, Grid)
    start = row.edge(3, viewport, of)
    content = width - start - row.edge(1, viewport, of)
    grid_width = grid.filling(viewport, content)
    first = start + offset_in(grid, grid_width, content, viewport) + grid.edge(3, viewport, content)
    room = grid_width - grid.inline_edges(viewport, content)
    lines, heights = _lines(grid, room, first, viewport, memory)
    inner: Length = grid.row_gap * max(0, len(lines) - 1) + grid.block_edges(viewport, content)
    for high in heights:
        inner = inner + high
    height, spilling = _height(row, inner, viewport, of)
    found = _problems(lines, width, in_lines=in_lines)
    if spilling:
        found.append(("clips", next((seen.facts.farthest for line in lines for seen in reversed(line)), "")))
    need = needed(grid, viewport, in_lines=in_lines)
    if found:
        state, cause = max(found, key=lambda one: STATES.index(one[0]))
        return Verdict(state, cause or row.node, need, room, height)
    if need > room - RESERVE_PX and grid.is_given_its_width:
        return Verdict("tight", _widest(grid, viewport, in_lines=in_lines) or row.node, need, room, height)
    return Verdict("fits", "", need, room, height)


def _lines(
    grid: Grid, room: Length, first: Length, viewport: Viewport, memory: Memory
) -> tuple[list[list[_Seen]], list[Length]]:
    """The grid's rows of cells, and how high each is."""
    sizes = grid.track_sizes(room, viewport)
    lines: list[list[_Seen]] = []
    heights: list[Length] = []
    for from_cell in range(0, len(grid.within), max(1, len(sizes))):
        line: list[_Seen] = []
        x, high = first, 0.0
        tallest: Length = high
        for cell, size in zip(grid.within[from_cell:], sizes, strict=False):
            assert isinstance(cell, Flex)
            wide = cell.filling(viewport, size)
            facts = memory.facts(cell, wide, viewport, size)
            line.append(_Seen(x + grid.inset(cell, wide, size, viewport), wide, facts))
            tallest = larger(facts.height + cell.block_margins(viewport, size), tallest)
            x = x + size + grid.column_gap
        lines.append(line)
        heights.append(tallest)
    return lines, heights


def _height(row: Block, inner: Length, viewport: Viewport, of: Length) -> tuple[Length, bool]:
    """The row's height, and whether what stands in it is higher."""
    edges = row.block_edges(viewport, of)
    whole = inner + edges
    if row.height is not None:
        height = row.limited_height(larger(worked_out(row.height, viewport, 0.0), edges), viewport)
    else:
        height = row.limited_height(whole, viewport)
    return height, whole - height > OVERLAP_PX


def _problems(lines: list[list[_Seen]], row_width: Length, *, in_lines: bool) -> list[tuple[State, str]]:
    found: list[tuple[State, str]] = []
    for line in lines:
        drawn: list[_Seen] = []
        for seen in line:
            facts = seen.facts
            if in_lines:
                found += [("wraps", node) for node in facts.folds]
            found += [("breaks words", node) for node in facts.divided]
            if facts.spills:
                found.append(("clips", facts.spills))
            if facts.farthest:
                drawn.append(seen)
                if seen.at + facts.start < -SLACK_PX or exceeds(seen.at + facts.end, row_width):
                    found.append(("overflows", facts.farthest))
        for before, after in pairwise(drawn):
            if before.at + before.facts.end - (after.at + after.facts.start) > OVERLAP_PX:
                out = exceeds(before.facts.end, before.width)
                found.append(("collides", before.facts.farthest if out else after.facts.farthest))
    return found


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


def needed(grid: Grid, viewport: Viewport, *, in_lines: bool) -> Length:
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
