"""In which state is a row that has been laid out, and which item is the cause?"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import Literal, NamedTuple

from .amount import Viewport
from .boxes import Box, Facts, Frame
from .flex import Flex
from .grid import Grid
from .inline import Inline
from .linear import SLACK_PX, Length, exceeds, larger, smaller

State = Literal["fits", "tight", "wraps", "breaks words", "clips", "overflows", "collides"]
STATES: tuple[State, ...] = ("fits", "tight", "wraps", "breaks words", "clips", "overflows", "collides")
"""From well to bad: of several that hold, the last one is told."""
FAILING = frozenset({"wraps", "breaks words", "clips", "overflows", "collides"})
RESERVE_PX = 16.0
"""What fits with less to spare is tight."""
OVERLAP_PX = 0.5
"""Boxes that lie over each other by less do not collide: they would be drawn on the same device pixel."""


class Verdict(NamedTuple):
    """`cause`: id of the item (or of the row, where no single one is). `need_px`: the room that the row's cells need for
    its state to be well; `room_px`: what they have."""

    state: State
    cause: str
    need_px: Length
    room_px: Length


class _Seen(NamedTuple):
    """An item in a row, as it is drawn: from `start` to `end` on the inline axis."""

    node: str
    facts: Facts
    start: Length
    end: Length
    y: Length


def verdict(row: Frame, viewport: Viewport, *, in_lines: bool) -> Verdict:
    """`in_lines`: whether its cells' items and labels are meant to stand on one line, as in a header; otherwise text
    flows, and what counts is that no word is wider than its cell."""
    grid_x, _, grid_frame = row.kids[0]
    grid = grid_frame.box
    assert isinstance(grid, Grid)
    room = grid_frame.width - grid.inline_edges(viewport, row.width)
    need = needed(grid, viewport, in_lines=in_lines)
    cells = [(grid_x + x, y, cell) for x, y, cell in grid_frame.kids]
    found: list[tuple[State, str]] = []
    lines: list[list[tuple[Length, Length, str]]] = []
    count = max(1, len(grid.tracks))
    for at, (cell_x, _, cell) in enumerate(cells):
        items = list(_items(cell, cell_x, viewport))
        if in_lines:
            found += _folds(cell, items)
        found += [("breaks words", seen.node) for seen in items if seen.facts.divides]
        if at % count == 0:
            lines.append([])
        lines[-1] += [_reach(items, cell, cell_x)] if items else []
        if cell.box.height is not None or grid.height is not None or row.box.height is not None:
            found += _clipped(row, cell, items)
    for line in lines:
        for start, end, node in line:
            if start < -SLACK_PX or exceeds(end, row.width):
                found.append(("overflows", node))
        for (_, end, before), (start, _, after) in pairwise(line):
            if end - start > OVERLAP_PX:
                found.append(("collides", _sticking_out(row, cells, before, after)))
    if found:
        state, cause = max(found, key=lambda one: STATES.index(one[0]))
        return Verdict(state, cause, need, room)
    if need > room - RESERVE_PX and not _stays_small(grid, viewport):
        return Verdict("tight", _widest(cells, viewport, in_lines=in_lines) or row.box.node, need, room)
    return Verdict("fits", "", need, room)


def _stays_small(grid: Grid, viewport: Viewport) -> bool:
    """A row whose own width follows its content is always just as wide as that."""
    return grid.part == "float"


def _items(cell: Frame, cell_x: Length, viewport: Viewport) -> Iterator[_Seen]:
    for x, y, frame in cell.kids:
        facts = facts_of(frame, viewport)
        at = cell_x + x
        yield _Seen(_node_of(frame), facts, at + facts.start, at + facts.end, y)


def _node_of(frame: Frame) -> str:
    if frame.box.node:
        return frame.box.node
    return next((node for _, _, kid in frame.kids if (node := _node_of(kid))), "")


def _folds(cell: Frame, items: list[_Seen]) -> Iterator[tuple[State, str]]:
    if cell.lines > 1 and items:
        # The item that begins the second line is the one that did not fit on the first.
        shown = [seen for seen in items if seen.end - seen.start > 0]
        starts = [after for before, after in pairwise(shown) if after.start <= before.start]
        yield "wraps", (starts[0] if starts else items[-1]).node
    for seen in items:
        if seen.facts.folded or seen.facts.broken:
            yield "wraps", seen.node


def _reach(items: list[_Seen], cell: Frame, cell_x: Length) -> tuple[Length, Length, str]:
    """From where to where a cell's items are drawn, and which one reaches farthest out of it."""
    first = items[0]
    start, end, node = first.start, first.end, first.node
    worst: Length = larger(cell_x - start, end - cell_x - cell.width)
    for seen in items[1:]:
        start, end = smaller(seen.start, start), larger(seen.end, end)
        out = larger(cell_x - seen.start, seen.end - cell_x - cell.width)
        if out > worst:
            worst, node = out, seen.node
    return start, end, node


def _clipped(row: Frame, cell: Frame, items: list[_Seen]) -> Iterator[tuple[State, str]]:
    """A height that was set is less than what stands in it."""
    inner: Length = 0.0
    for _, y, frame in cell.kids:
        inner = larger(y + frame.height, inner)
    limit = smaller(cell.height, row.height)
    if items and inner - limit > OVERLAP_PX:
        yield "clips", items[-1].node


def _sticking_out(row: Frame, cells: list[tuple[Length, Length, Frame]], before: str, after: str) -> str:
    """Of two items that lie over each other, the one that reaches out of its cell."""
    for x, _, cell in cells:
        for at, _, frame in cell.kids:
            if _node_of(frame) == before and exceeds(
                x + at + (frame.facts.end if frame.facts else frame.width), x + cell.width
            ):
                return before  # fmt: skip
    return after


def _widest(cells: list[tuple[Length, Length, Frame]], viewport: Viewport, *, in_lines: bool) -> str:
    """The item that asks for the most room."""
    node, most = "", -1.0
    for _, _, cell in cells:
        for _, _, frame in cell.kids:
            asked = frame.box.contribution(viewport)
            wide = asked.most if in_lines else asked.least
            at = wide if isinstance(wide, float) else wide.at
            if at > most:
                node, most = _node_of(frame), at
    return node


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
        drawn = least if box.breaks else most
        edge = box.edge("inline_start", viewport, frame.width)
        end = larger(edge + drawn, end)
    for x, _, kid in frame.kids:
        inner = facts_of(kid, viewport)
        folded, broken, divides = folded or inner.folded, broken or inner.broken, divides or inner.divides
        start, end = smaller(x + inner.start, start), larger(x + inner.end, end)
    found = Facts(folded, broken, divides, start, end)
    if box.stays and isinstance(frame.width, float):
        frame.facts = found
    return found


def needed(grid: Grid, viewport: Viewport, *, in_lines: bool) -> Length:
    """The room in which every cell is as wide as what stands in it: on one line, or as its longest word."""
    if not grid.tracks:
        return 0.0
    count = len(grid.tracks)
    total: Length = grid.column_gap * (count - 1)
    shares, fraction = 0.0, 0.0
    per_share: Length = fraction
    for at, track in enumerate(grid.tracks):
        asked: Length = 0.0
        for cell in grid.within[at::count]:
            one = _cell_needs(cell, viewport, in_lines=in_lines)
            asked = larger(one, asked)
        if track.kind in {"share", "equal"}:
            shares += track.amount
            per_share = larger(asked / track.amount, per_share)
        elif track.kind == "fixed":
            total = total + track.amount
        else:
            total = total + asked
    return total + per_share * max(shares, 1.0 if shares else 0.0)


def _cell_needs(cell: Box, viewport: Viewport, *, in_lines: bool) -> Length:
    if in_lines:
        return cell.contribution(viewport).most
    return cell.contribution(viewport).least
