"""A row's cells in their tracks (CSS Grid Layout 2, 12)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from .amount import Viewport, worked_out
from .boxes import BLOCK_END, BLOCK_START, INLINE_END, INLINE_START, Align, Box, Frame, Intrinsic, widest
from .linear import Length, exceeds, larger


class GridTrack(NamedTuple):
    """`content` is `auto`, `share` is `<amount>fr`, `equal` is `minmax(0, 1fr)`, `fixed` is in px."""

    kind: Literal["content", "share", "fixed", "equal"]
    amount: float = 1.0


@dataclass(slots=True, eq=False)
class Grid(Box):
    """`is_given_its_width`: from outside, and not as wide as what it holds."""

    tracks: tuple[GridTrack, ...] = ()
    column_gap: float = 0.0
    row_gap: float = 0.0
    align: Align = "center"
    within: list[Box] = field(default_factory=list)
    is_given_its_width: bool = True

    def kids(self) -> Iterator[Box]:
        return iter(self.within)

    def content(self, viewport: Viewport) -> Intrinsic:
        """As wide as the tracks under a min-content or max-content constraint."""
        least: Length = 0.0
        most: Length = 0.0
        fraction: Length = 0.0
        smallest: Length = 0.0
        shares = 0.0
        for at, track in enumerate(self.tracks):
            cells = self.within[at :: len(self.tracks)]
            asked = [cell.contribution(viewport) for cell in cells]
            if track.kind == "fixed":
                least, most = least + track.amount, most + track.amount
                continue
            track_most: Length = 0.0
            for one in asked:
                track_most = larger(one.most, track_most)
            track_least = self._minimum(cells, viewport)
            if track.kind == "content":
                least, most = least + self._largest_least(asked), most + track_most
            else:
                shares += track.amount
                fraction = larger(track_most / max(track.amount, 1.0), fraction)
                smallest = larger(track_least / max(track.amount, 1.0), smallest)
        gaps = self.column_gap * max(0, len(self.tracks) - 1)
        return Intrinsic(least + smallest * shares + gaps, most + fraction * shares + gaps)

    @staticmethod
    def _largest_least(asked: list[Intrinsic]) -> Length:
        found: Length = 0.0
        for one in asked:
            found = larger(one.least, found)
        return found

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        start = self.edge(INLINE_START, viewport, of)
        room = width - start - self.edge(INLINE_END, viewport, of)
        top, bottom = self.edge(BLOCK_START, viewport, of), self.edge(BLOCK_END, viewport, of)
        sizes = self.track_sizes(room, viewport)
        count = len(sizes)
        placed: list[tuple[Length, Length, Frame]] = []
        y: Length = top
        rows = [self.within[at : at + count] for at in range(0, len(self.within), count)] if count else []
        for number, row in enumerate(rows):
            y = y + (self.row_gap if number else 0.0)
            frames = [
                cell.lay_out(self.cell_width(cell, size, viewport), viewport, size)
                for cell, size in zip(row, sizes, strict=False)
            ]
            high: Length = 0.0
            for frame, size in zip(frames, sizes, strict=False):
                high = larger(frame.height + frame.box.block_margins(viewport, size), high)
            if height is not None and len(rows) == 1:
                high = larger(height - top - bottom, high)
            x = start
            for frame, size in zip(frames, sizes, strict=False):
                placed.append(self._placed(frame, x, y, size, high, viewport))
                x = x + size + self.column_gap
            y = y + high
        return Frame(self, width, y + bottom if height is None else height, tuple(placed), len(rows), False, None)

    def _placed(
        self, frame: Frame, x: Length, y: Length, size: Length, high: Length, viewport: Viewport
    ) -> tuple[Length, Length, Frame]:
        cell = frame.box
        if cell.has_percent_heights:
            frame = cell.lay_out(frame.width, viewport, size, None, high)
        spare = high - frame.height - cell.block_margins(viewport, size)
        before = cell.margin_at(BLOCK_START, viewport, size)
        align = cell.align_self or self.align
        changes = spare > 0 or (spare == 0 and cell.holds_shares)
        if align == "stretch" and changes and cell.height is None:
            frame = cell.lay_out(frame.width, viewport, size, frame.height + spare, high)
        elif align == "center":
            before = before + spare / 2
        elif align == "end":
            before = before + spare
        return x + self.inset(cell, frame.width, size, viewport), y + before, frame

    @staticmethod
    def cell_width(cell: Box, size: Length, viewport: Viewport) -> Length:
        """Stretched over its track, unless a margin is auto (6.2)."""
        return cell.fitting(viewport, size) if cell.has_auto_margin else cell.filling(viewport, size)

    @staticmethod
    def inset(cell: Box, width: Length, size: Length, viewport: Viewport) -> Length:
        """Where in its track a cell begins: auto margins share what is left."""
        inset = cell.margin_at(INLINE_START, viewport, size)
        autos = (cell.margin.inline_start is None, cell.margin.inline_end is None)
        if not any(autos):
            return inset
        left = size - width - cell.inline_margins(viewport, size)
        if left > 0:
            inset = inset + (left / 2 if all(autos) else left if autos[0] else 0.0)
        return inset

    def track_sizes(self, room: Length, viewport: Viewport) -> list[Length]:
        """The track sizing algorithm for items that span one track each, in a container of definite width."""
        free_room = room - self.column_gap * max(0, len(self.tracks) - 1)
        if self.tracks and all(track.kind == "equal" for track in self.tracks):
            share = free_room / len(self.tracks)
            return [share if share > 0 else 0.0] * len(self.tracks)
        bases: list[Length] = []
        limits: list[Length] = []
        for at, track in enumerate(self.tracks):
            cells = self.within[at :: len(self.tracks)]
            if track.kind == "fixed":
                bases.append(track.amount)
                limits.append(track.amount)
                continue
            base = self._minimum(cells, viewport)
            limit = base
            if track.kind == "content":
                for cell in cells:
                    limit = larger(cell.contribution(viewport).most, limit)
            bases.append(base)
            limits.append(limit)
        bases = _maximized(bases, limits, free_room)
        shares = {at: track.amount for at, track in enumerate(self.tracks) if track.kind == "share"}
        if shares:
            return _expanded(bases, shares, free_room)
        return self._stretched(bases, free_room)

    def _minimum(self, cells: list[Box], viewport: Viewport) -> Length:
        """The largest minimum contribution (6.6 and 12.5): a cell whose width is auto asks for its least width."""
        found: Length = 0.0
        for cell in cells:
            width = cell._plain(cell.width, viewport)
            if width is not None:
                asked = cell.contribution(viewport).least
            else:
                if cell.min_width is None:
                    least = cell.wanted(viewport).least
                    greatest = cell._plain(cell.max_width, viewport)
                    least = least if greatest is None or not least > greatest else greatest
                else:
                    least = worked_out(cell.min_width, viewport, 0.0)
                asked = larger(least, cell.inline_edges(viewport, 0.0)) + cell.inline_margins(viewport, 0.0)
            found = larger(asked, found)
        return found

    def _stretched(self, bases: list[Length], free_room: Length) -> list[Length]:
        """What is left goes to the auto tracks, in equal shares (12.8)."""
        autos = [at for at, track in enumerate(self.tracks) if track.kind == "content"]
        left = free_room
        for base in bases:
            left = left - base
        if not autos or not left > 0:
            return bases
        return [base + left / len(autos) if at in autos else base for at, base in enumerate(bases)]


def _maximized(bases: list[Length], limits: list[Length], free_room: Length) -> list[Length]:
    """Free space goes in equal shares to the tracks that have not reached their limit (12.6)."""
    sizes = list(bases)
    growing = {at for at, base in enumerate(bases) if exceeds(limits[at], base)}
    left = free_room
    for size in sizes:
        left = left - size
    while growing and exceeds(left, 0.0):
        share = left / len(growing)
        reached = {at for at in growing if not exceeds(limits[at] - sizes[at], share)}
        if not reached:
            for at in growing:
                sizes[at] = sizes[at] + share
            break
        for at in reached:
            left = left - (limits[at] - sizes[at])
            sizes[at] = limits[at]
        growing -= reached
    return sizes


def _expanded(sizes: list[Length], shares: dict[int, float], free_room: Length) -> list[Length]:
    """Flexible tracks (12.7): none is less than its base."""
    flexible = dict(shares)
    while flexible:
        left = free_room
        for at, size in enumerate(sizes):
            if at not in flexible:
                left = left - size
        fraction = left / max(sum(flexible.values()), 1.0)
        stuck = [at for at, share in flexible.items() if exceeds(sizes[at], fraction * share)]
        if not stuck:
            return [
                larger(sizes[at], fraction * shares[at]) if at in flexible else size for at, size in enumerate(sizes)
            ]
        for at in stuck:
            del flexible[at]
    return sizes


@dataclass(slots=True, eq=False)
class Folding(Box):
    """As many equal columns as `least` px wide ones have room, and no more than there are boxes (CSS Grid 2, 7.2.3.2:
    `auto-fit`). `gaps`: between rows, and between columns."""

    within: list[Box] = field(default_factory=list)
    least: float = 0.0
    gaps: tuple[float, float] = (0.0, 0.0)
    _grids: dict[int, Grid] = field(default_factory=dict, init=False)

    def kids(self) -> Iterator[Box]:
        return iter(self.within)

    def content(self, viewport: Viewport) -> Intrinsic:
        return widest(self.within, viewport)

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        room = width - self.inline_edges(viewport, of)
        number = len(self.within)
        while number > 1 and exceeds(number * self.least + (number - 1) * self.gaps[1], room):
            number -= 1
        grid = self._grids.get(number)
        if grid is None:
            tracks = (GridTrack("equal"),) * max(1, number)
            grid = Grid(
                within=self.within, tracks=tracks, row_gap=self.gaps[0], column_gap=self.gaps[1], align="start"
            ).settle()
            self._grids[number] = grid
        inner = grid.lay_out(room, viewport, room)
        start, top = self.edge(INLINE_START, viewport, of), self.edge(BLOCK_START, viewport, of)
        high = inner.height + self.block_edges(viewport, of)
        return Frame(self, width, high if height is None else height, ((start, top, inner),))
