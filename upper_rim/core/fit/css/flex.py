"""Items beside or below each other that share their room (CSS Flexible Box Layout 1)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal, NamedTuple

from .amount import Amount, Relative, Viewport, worked_out
from .boxes import BLOCK_END, BLOCK_START, INLINE_END, INLINE_START, Align, Box, Frame, Intrinsic, Placed
from .linear import SLACK_PX, Length, Linear, exceeds, larger, slope_of, smaller, value

INFINITE = 1e9


class _Sized(NamedTuple):
    """A flex item on its way: its base and hypothetical sizes and limits (of the border box), its padding and borders,
    and its margins."""

    box: Box
    base: Length
    hypothetical: Length
    least: Length
    greatest: Length
    edges: Length
    margins: Length


class Line(NamedTuple):
    """Items on one line of a flex box. `at`: where the line begins, from the content's start; `inside`: where each
    item's border box begins, from there. `y`, `high`: the line's place and height. `stays`: the frames and `inside` are
    those of items as wide as they want to be, the same object for the same items."""

    frames: tuple[Frame, ...]
    inside: tuple[Length, ...]
    at: Length
    y: Length
    high: Length
    stays: bool


class _Wished(NamedTuple):
    """Items on a line as they want to be: what of it does not depend on the room. `autos`: how many auto margins there
    are."""

    frames: tuple[Frame, ...]
    inside: tuple[float, ...]
    high: float


@dataclass(slots=True, eq=False)
class Flex(Box):
    direction: Literal["row", "column"] = "row"
    wraps: bool = False
    row_gap: Amount = 0.0
    column_gap: Amount = 0.0
    justify: Align = "start"
    align: Align = "stretch"
    pack: Align = "stretch"
    within: list[Box] = field(default_factory=list)
    _fixed: list[_Sized] | None = field(default=None, init=False)
    _grows: bool = field(default=False, init=False)
    _wished: dict[tuple[int, int], _Wished] = field(default_factory=dict, init=False)

    @property
    def holds_dividers(self) -> bool:
        """Whether something in it is as high as it is itself, where it is stretched."""
        return self.align_self == "stretch" and any(kid.align_self == "stretch" for kid in self.within)

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
        # Negative margins may make all of them narrower than the widest alone, never narrower than nothing.
        least = larger(least, 0.0)
        return Intrinsic(least, larger(most, least))

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        start = self.edge(INLINE_START, viewport, of)
        room = width - start - self.edge(INLINE_END, viewport, of)
        top, bottom = self.edge(BLOCK_START, viewport, of), self.edge(BLOCK_END, viewport, of)
        inner = None if height is None else height - top - bottom
        if self.direction == "column":
            placed, used = self._column(room, inner, viewport, is_definite=is_definite)
            rows: list[Line] = []
            count = 1
            tops = [(y, frame) for _, y, frame in placed]
        else:
            rows, used = self.lines(room, inner, viewport, is_definite=is_definite)
            placed = []
            count = len(rows)
            tops = [
                (line.y + self._down(frame, line, viewport, room), frame) for line in rows[:1] for frame in line.frames
            ]
        whole = used + top + bottom if height is None else height
        baseline: Length | None = None
        if tops:
            # The first item's; where that has none, its lower edge (CSS Flexbox 1, 8.5).
            y, first = tops[0]
            baseline = top + y + (first.height if first.baseline is None else first.baseline)

        def kids() -> Placed:
            spots = placed or [
                spot for line in rows for spot in self._spots(line, viewport, room, inner if is_definite else None)
            ]
            return tuple((start + x, top + y, frame) for x, y, frame in spots)

        made = Frame(self, width, whole, kids, count, False, baseline)
        made.rows = rows
        return made

    def lines(
        self, room: Length, inner: Length | None, viewport: Viewport, *, is_definite: bool = True
    ) -> tuple[list[Line], Length]:
        """Its lines, and how high they are together. `inner`, `is_definite`: its content's height, see `arranged`."""
        height_of = inner if is_definite else None
        gap, row_gap = worked_out(self.column_gap, viewport, room), worked_out(self.row_gap, viewport, 0.0)
        items = self._items(room, viewport)
        lines: list[Line] = []
        y: Length = 0.0
        for first, behind, used in self._filled(items, room, gap):
            if lines:
                y = y + row_gap
            line = self._line(items, first, behind, used, room, height_of, gap, y, viewport)
            lines.append(line)
            y = y + line.high
        if inner is not None and lines:
            if not self.wraps:
                lines = [lines[0]._replace(high=inner)]
            elif self.pack == "stretch":
                if inner > y:
                    # Lines share what is left of the height (8.4).
                    share = (inner - y) / len(lines)
                    lines = [
                        line._replace(y=line.y + share * at, high=line.high + share) for at, line in enumerate(lines)
                    ]
            elif self.pack != "start":
                down = (inner - y) / (2 if self.pack == "center" else 1)
                lines = [line._replace(y=line.y + down) for line in lines]
        return lines, y

    def _filled(self, items: list[_Sized], room: Length, gap: Length) -> Iterator[tuple[int, int, Length]]:
        """Collects items into lines (9.3): from which item to which, and what they use."""
        if not items:
            return
        first, used = 0, items[0].hypothetical + items[0].margins
        # Decided on plain numbers where only the room moves: one comparison then holds for each line.
        moving = room if isinstance(room, Linear) and self._fixed is not None and isinstance(gap, float) else None
        limit = (room if moving is None else moving.at) + SLACK_PX
        for at in range(1, len(items)):
            more = used + gap + items[at].hypothetical + items[at].margins
            if self.wraps and more > limit:
                if moving is not None:
                    _ = moving >= more - SLACK_PX
                    if at - first > 1:
                        _ = moving >= used - SLACK_PX
                yield first, at, used
                first, used = at, items[at].hypothetical + items[at].margins
            else:
                used = more
        if moving is not None and self.wraps and len(items) - first > 1:
            _ = moving >= used - SLACK_PX
        yield first, len(items), used

    def _line(
        self,
        items: list[_Sized],
        first: int,
        behind: int,
        used: Length,
        room: Length,
        height_of: Length | None,
        gap: Length,
        y: Length,
        viewport: Viewport,
    ) -> Line:
        listed = items[first:behind]
        fixed = self._fixed is not None and not self._grows
        if fixed and isinstance(gap, float) and not exceeds(used, room):
            wished = self._wished.get((first, behind))
            if wished is None:
                widths = [item.hypothetical for item in listed]
                wished = self._wished[first, behind] = self._as_wished(listed, widths, gap, viewport)
            return Line(wished.frames, wished.inside, self._begin(listed, room - used), y, wished.high, True)
        if fixed and len(listed) == 1 and listed[0].box.shrink:
            # By itself and too wide: it shrinks to the room, down to its least.
            widths = [larger(smaller(room - listed[0].margins, listed[0].greatest), listed[0].least)]
        else:
            widths = _flexed(listed, room, gap)
        frames = tuple(
            item.box.lay_out(width, viewport, room, None, height_of) for item, width in zip(listed, widths, strict=True)
        )
        taken: Length = gap * (len(listed) - 1)
        for item, width in zip(listed, widths, strict=True):
            taken = taken + width + item.margins
        left = room - taken
        autos = self._autos(listed)
        share = left / autos if autos and left > 0 else 0.0
        inside = tuple(self._inside(listed, widths, gap, share, viewport, room))
        return Line(frames, inside, self._begin(listed, left), y, self._height(frames, viewport, room), False)

    def _as_wished(self, listed: list[_Sized], widths: list[Length], gap: float, viewport: Viewport) -> _Wished:
        frames = tuple(item.box.lay_out(width, viewport, 0.0) for item, width in zip(listed, widths, strict=True))
        inside = tuple(value(x) for x in self._inside(listed, widths, gap, 0.0, viewport, 0.0))
        return _Wished(frames, inside, value(self._height(frames, viewport, 0.0)))

    def _autos(self, listed: list[_Sized]) -> int:
        if self._fixed is not None:
            return 0
        margins = (margin for item in listed for margin in (item.box.margin.inline_start, item.box.margin.inline_end))
        return sum(margin is None for margin in margins)

    def _begin(self, listed: list[_Sized], left: Length) -> Length:
        """Where a line begins (9.5): auto margins come first, then the alignment."""
        if self.justify == "start" or (self._autos(listed) and left > 0):
            return 0.0
        return left / 2 if self.justify == "center" else left

    @staticmethod
    def _inside(
        listed: list[_Sized], widths: list[Length], gap: Length, share: Length, viewport: Viewport, room: Length
    ) -> Iterator[Length]:
        x: Length = 0.0
        for item, width in zip(listed, widths, strict=True):
            margin = item.box.margin
            x = x + (share if margin.inline_start is None else item.box.margin_at(INLINE_START, viewport, room))
            yield x
            x = x + width + (share if margin.inline_end is None else item.box.margin_at(INLINE_END, viewport, room))
            x = x + gap

    @staticmethod
    def _height(frames: tuple[Frame, ...], viewport: Viewport, room: Length) -> Length:
        """A line's cross size (9.4)."""
        high: Length = 0.0
        for frame in frames:
            high = larger(frame.height + frame.box.block_margins(viewport, room), high)
        return high

    def _items(self, room: Length, viewport: Viewport) -> list[_Sized]:
        """All items, sized; kept where none of them depends on the room."""
        if self._fixed is not None:
            return self._fixed
        items = [self._sized(kid, room, viewport) for kid in self.within]
        plain = (kid.takes_its_share and not kid.has_auto_margin and not kid.has_percent_heights for kid in self.within)
        if all(plain):
            self._fixed = items
            self._grows = any(kid.grow for kid in self.within)
        return items

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
        return _Sized(kid, base, hypothetical, least, greatest, edges, kid.inline_margins(viewport, room))

    def _spots(
        self, line: Line, viewport: Viewport, room: Length, height_of: Length | None
    ) -> Iterator[tuple[Length, Length, Frame]]:
        """Where the items of a line stand, stretched where they are to be (9.6)."""
        for x, frame in zip(line.inside, line.frames, strict=True):
            box = frame.box
            shown = frame
            if (box.align_self or self.align) == "stretch" and box.height is None:
                spare = line.high - frame.height - box.block_margins(viewport, room)
                if spare > 0 or spare < 0 or box.holds_shares:
                    shown = box.lay_out(frame.width, viewport, room, frame.height + spare, height_of)
            yield line.at + x, line.y + self._down(frame, line, viewport, room), shown

    def _down(self, frame: Frame, line: Line, viewport: Viewport, room: Length) -> Length:
        """From a line's top to an item's."""
        box = frame.box
        align = box.align_self or self.align
        before = box.margin_at(BLOCK_START, viewport, room)
        if align in {"start", "stretch"}:
            return before
        spare = line.high - frame.height - box.block_margins(viewport, room)
        return before + (spare / 2 if align == "center" else spare)

    def _column(
        self, room: Length, inner: Length | None, viewport: Viewport, *, is_definite: bool
    ) -> tuple[list[tuple[Length, Length, Frame]], Length]:
        placed: list[tuple[Length, Length, Frame]] = []
        gap = worked_out(self.row_gap, viewport, 0.0)
        y: Length = 0.0
        for number, kid in enumerate(self.within):
            align = kid.align_self or self.align
            width = kid.filling(viewport, room) if align == "stretch" else kid.fitting(viewport, room)
            frame = kid.lay_out(width, viewport, room, None, inner if is_definite else None)
            y = y + (gap if number else 0.0) + kid.margin_at(BLOCK_START, viewport, room)
            spare = room - width - kid.inline_margins(viewport, room)
            x = kid.margin_at(INLINE_START, viewport, room)
            x = x + (spare / 2 if align == "center" else spare if align == "end" else 0.0)
            placed.append((x, y, frame))
            y = y + frame.height + kid.margin_at(BLOCK_END, viewport, room)
        if inner is not None and placed:
            spare = inner - y
            growing = sum(kid.grow for kid in self.within)
            if growing and spare > 0:
                placed = self._grown(placed, spare / growing, viewport, room)
            elif self.justify in {"center", "end"}:
                shift = spare / 2 if self.justify == "center" else spare
                placed = [(x, at + shift, frame) for x, at, frame in placed]
        return placed, y

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
            at: line[at].box.grow if growing else (line[at].base - line[at].edges) * line[at].box.shrink
            for at in open_items
        }
        whole: Length = 0.0
        for one in factors.values():
            whole = whole + one
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
    """`free * factor / whole`. Where base sizes move with the viewport too, this is no line: then it is the one that
    touches it at the span's start."""
    if not isinstance(factor, Linear) and not isinstance(whole, Linear):
        return free * (factor / whole) if whole else 0.0
    moving = factor if isinstance(factor, Linear) else whole
    assert isinstance(moving, Linear)
    moving.span.bends = True
    one, two, three = value(free), value(factor), value(whole) or 1.0
    slope = (slope_of(free) * two + one * slope_of(factor)) / three - one * two * slope_of(whole) / three**2
    return Linear(one * two / three, slope, moving.span)
