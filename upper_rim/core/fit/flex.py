"""Items beside or below each other that share their room (CSS Flexible Box Layout 1)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from .amount import Amount, Relative, Viewport, worked_out
from .boxes import Align, Box, Frame, Intrinsic
from .linear import Length, Linear, exceeds, larger, smaller, value

INFINITE = 1e9


class _Sized(NamedTuple):
    """A flex item on its way: its base and hypothetical sizes and limits (of the border box), and its margins."""

    box: Box
    base: Length
    hypothetical: Length
    least: Length
    greatest: Length
    margins: Length


@dataclass(slots=True, eq=False)
class Flex(Box):
    direction: Literal["row", "column"] = "row"
    wraps: bool = False
    row_gap: Amount = 0.0
    column_gap: Amount = 0.0
    justify: Align = "start"
    align: Align = "stretch"
    within: list[Box] = field(default_factory=list)

    def kids(self) -> Iterator[Box]:
        return iter(self.within)

    def holds_still(self) -> bool:
        return type(self.row_gap) is not Relative and type(self.column_gap) is not Relative

    def content(self, viewport: Viewport) -> Intrinsic:
        least: Length = 0.0
        most: Length = 0.0
        along = self.direction == "row"
        for kid in self.within:
            asked = kid.contribution(viewport)
            least = least + asked.least if along and not self.wraps else larger(asked.least, least)
            most = most + asked.most if along else larger(asked.most, most)
        if along and len(self.within) > 1:
            gaps = worked_out(self.column_gap, viewport, 0.0) * (len(self.within) - 1)
            most = most + gaps
            least = least if self.wraps else least + gaps
        return Intrinsic(least, most)

    def arranged(self, width: Length, height: Length | None, viewport: Viewport, of: Length) -> Frame:
        start = self.edge("inline_start", viewport, of)
        room = width - start - self.edge("inline_end", viewport, of)
        top, bottom = self.edge("block_start", viewport, of), self.edge("block_end", viewport, of)
        inner = None if height is None else height - top - bottom
        if self.direction == "column":
            placed, used, lines = self._column(room, inner, viewport)
        else:
            placed, used, lines = self._row(room, inner, viewport)
        kids = tuple((start + x, top + y, frame) for x, y, frame in placed)
        baseline = next((y + frame.baseline for _, y, frame in kids if frame.baseline is not None), None)
        if baseline is None and kids:
            baseline = kids[0][1] + kids[0][2].height
        return Frame(self, width, used + top + bottom if height is None else height, kids, lines, False, baseline)

    def _row(
        self, room: Length, inner: Length | None, viewport: Viewport
    ) -> tuple[list[tuple[Length, Length, Frame]], Length, int]:
        gap, row_gap = worked_out(self.column_gap, viewport, room), worked_out(self.row_gap, viewport, 0.0)
        lines = self._lines(room, gap, viewport)
        flexed = [_flexed(line, room, gap) for line in lines]
        laid_out = [
            [sized.box.lay_out(width, viewport, room) for sized, width in zip(line, widths, strict=True)]
            for line, widths in zip(lines, flexed, strict=True)
        ]
        heights = [self._height(frames, viewport, room) for frames in laid_out]
        used: Length = row_gap * max(0, len(lines) - 1)
        for high in heights:
            used = used + high
        if inner is not None and not self.wraps:
            heights = [inner for _ in heights]
        elif inner is not None and lines and inner > used:
            # Lines share what is left of the height (8.4).
            heights = [high + (inner - used) / len(lines) for high in heights]
        placed: list[tuple[Length, Length, Frame]] = []
        y: Length = 0.0
        for line, widths, frames, high in zip(lines, flexed, laid_out, heights, strict=True):
            for x, frame in zip(self._places(line, widths, room, gap, viewport), frames, strict=True):
                placed.append((x, *self._across(frame, y, high, viewport, room)))
            y = y + high + row_gap
        return placed, used, len(lines)

    @staticmethod
    def _height(frames: list[Frame], viewport: Viewport, room: Length) -> Length:
        """A line's cross size (9.4)."""
        high: Length = 0.0
        for frame in frames:
            high = larger(frame.height + frame.box.block_margins(viewport, room), high)
        return high

    def _lines(self, room: Length, gap: Length, viewport: Viewport) -> list[list[_Sized]]:
        """Collects items into lines (9.3)."""
        items = [self._sized(kid, room, viewport) for kid in self.within]
        if not self.wraps or len(items) < 2:
            return [items] if items else []
        lines: list[list[_Sized]] = []
        used: Length = 0.0
        for item in items:
            outer = item.hypothetical + item.margins
            if lines and not exceeds(used + gap + outer, room):
                lines[-1].append(item)
                used = used + gap + outer
            else:
                lines.append([item])
                used = outer
        return lines

    def _sized(self, kid: Box, room: Length, viewport: Viewport) -> _Sized:
        """Flex base size, hypothetical main size and limits (9.2, and 4.5 for the automatic least size)."""
        edges = kid.inline_edges(viewport, room)
        definite = None if kid.width is None else larger(worked_out(kid.width, viewport, room), edges)
        wanted = kid.wanted(viewport, room)
        if kid.basis is not None:
            base = larger(worked_out(kid.basis, viewport, room), edges)
        else:
            base = wanted.most if definite is None else definite
        greatest: Length = INFINITE if kid.max_width is None else worked_out(kid.max_width, viewport, room)
        if kid.min_width is not None:
            least = worked_out(kid.min_width, viewport, room)
        else:
            least = wanted.least if definite is None else smaller(definite, wanted.least)
            least = least if kid.max_width is None else smaller(least, greatest)
        least = larger(least, edges)
        hypothetical = larger(base if kid.max_width is None else smaller(base, greatest), least)
        return _Sized(kid, base, hypothetical, least, greatest, kid.inline_margins(viewport, room))

    def _places(
        self, line: list[_Sized], widths: list[Length], room: Length, gap: Length, viewport: Viewport
    ) -> Iterator[Length]:
        """Where items begin on the main axis (9.5): auto margins first, then the line's alignment."""
        left = room
        for sized, width in zip(line, widths, strict=True):
            left = left - width - sized.margins
        left = left - gap * (len(line) - 1)
        autos = sum(
            margin is None for sized in line for margin in (sized.box.margin.inline_start, sized.box.margin.inline_end)
        )
        share: Length = 0.0
        x: Length = 0.0
        if autos and left > 0:
            share = left / autos
        elif self.justify == "center":
            x = left / 2
        elif self.justify == "end":
            x = left
        for sized, width in zip(line, widths, strict=True):
            margin = sized.box.margin
            x = x + (share if margin.inline_start is None else sized.box.margin_at("inline_start", viewport, room))
            yield x
            x = x + width + (share if margin.inline_end is None else sized.box.margin_at("inline_end", viewport, room))
            x = x + gap

    def _across(self, frame: Frame, y: Length, high: Length, viewport: Viewport, room: Length) -> tuple[Length, Frame]:
        """Where an item stands on the cross axis of its line (9.6), stretched where it is to be."""
        box = frame.box
        align = box.align_self or self.align
        before = box.margin_at("block_start", viewport, room)
        spare = high - frame.height - box.block_margins(viewport, room)
        if align == "stretch" and box.height is None:
            stretched = box.limited_height(frame.height + spare, viewport) if spare > 0 else frame.height
            return y + before, box.lay_out(frame.width, viewport, room, stretched) if spare > 0 else frame
        if align == "center":
            before = before + spare / 2
        elif align == "end":
            before = before + spare
        return y + before, frame

    def _column(
        self, room: Length, inner: Length | None, viewport: Viewport
    ) -> tuple[list[tuple[Length, Length, Frame]], Length, int]:
        placed: list[tuple[Length, Length, Frame]] = []
        gap = worked_out(self.row_gap, viewport, 0.0)
        y: Length = 0.0
        for number, kid in enumerate(self.within):
            align = kid.align_self or self.align
            width = kid.filling(viewport, room) if align == "stretch" else kid.fitting(viewport, room)
            frame = kid.lay_out(width, viewport, room)
            y = y + (gap if number else 0.0) + kid.margin_at("block_start", viewport, room)
            spare = room - width - kid.inline_margins(viewport, room)
            x = kid.margin_at("inline_start", viewport, room)
            x = x + (spare / 2 if align == "center" else spare if align == "end" else 0.0)
            placed.append((x, y, frame))
            y = y + frame.height + kid.margin_at("block_end", viewport, room)
        if inner is not None and placed:
            spare = inner - y
            growing = sum(kid.grow for kid in self.within)
            if growing and spare > 0:
                placed = self._grown(placed, spare / growing, viewport, room)
            elif self.justify in {"center", "end"}:
                shift = spare / 2 if self.justify == "center" else spare
                placed = [(x, at + shift, frame) for x, at, frame in placed]
        return placed, y, 1

    def _grown(
        self, placed: list[tuple[Length, Length, Frame]], share: Length, viewport: Viewport, room: Length
    ) -> list[tuple[Length, Length, Frame]]:
        moved: list[tuple[Length, Length, Frame]] = []
        down: Length = 0.0
        for x, y, frame in placed:
            more = share * frame.box.grow
            grown = frame.box.lay_out(frame.width, viewport, room, frame.height + more)
            moved.append((x, y + down, grown))
            down = down + more
        return moved


def _flexed(line: list[_Sized], room: Length, gap: Length) -> list[Length]:
    """Resolves flexible lengths (9.7)."""
    total: Length = gap * (len(line) - 1)
    for item in line:
        total = total + item.hypothetical + item.margins
    widths = [item.hypothetical for item in line]
    grows = any(item.box.grow for item in line)
    if grows and exceeds(room, total):
        return _resolved(line, room, gap, growing=True)
    if exceeds(total, room) and any(item.box.shrink for item in line):
        return _resolved(line, room, gap, growing=False)
    return widths


def _resolved(line: list[_Sized], room: Length, gap: Length, *, growing: bool) -> list[Length]:
    sizes: list[Length] = [item.hypothetical for item in line]
    open_items = set()
    for at, item in enumerate(line):
        factor = item.box.grow if growing else item.box.shrink
        stuck = item.base > item.hypothetical if growing else item.base < item.hypothetical
        if factor and not stuck:
            open_items.add(at)
    while open_items:
        free = room - gap * (len(line) - 1)
        for at, item in enumerate(line):
            free = free - item.margins - (item.base if at in open_items else sizes[at])
        factors: dict[int, Length] = {
            at: line[at].box.grow if growing else line[at].base * line[at].box.shrink for at in open_items
        }
        whole: Length = 0.0
        for factor in factors.values():
            whole = whole + factor
        violated: dict[int, Length] = {}
        violation: Length = 0.0
        for at in open_items:
            share = _share(free, factors[at], whole)
            wished = line[at].base + share
            kept = larger(smaller(wished, line[at].greatest), line[at].least)
            over = kept - wished
            violated[at] = over
            violation = violation + over
            sizes[at] = kept
        rising, falling = exceeds(violation, 0.0), exceeds(0.0, violation)
        frozen = {
            at
            for at in open_items
            if (not rising and not falling)
            or (rising and exceeds(violated[at], 0.0))
            or (falling and exceeds(0.0, violated[at]))
        }
        open_items -= frozen or set(open_items)
    return sizes


def _share(free: Length, factor: Length, whole: Length) -> Length:
    """`free * factor / whole`. Where base sizes move with the viewport too, this is no line any more: then it is held
    for one px."""
    if type(factor) is float and type(whole) is float:
        return free * (factor / whole) if whole else 0.0
    for one in (factor, whole, free):
        if type(one) is Linear:
            one.span.ends_within(1)
    return value(free) * value(factor) / (value(whole) or 1.0)
