"""At which viewport widths is a row in which state, how high is it there, and what is the cause?

From the narrowest width on, a row is laid out once for each span of widths in which it stays alike (see `linear`).
"""

from __future__ import annotations

from collections.abc import Iterable
from math import ceil
from typing import NamedTuple

from ..css.amount import Viewport
from ..css.block import Block
from ..css.boxes import Frame
from ..css.linear import Length, Linear, LinearSpan, value
from .cells import Memory
from .held import Share
from .states import FAILING, Geometry, RowState, Verdict, geometry, height_in, room_in, row_of, verdict

FROM_PX, TO_PX = 280, 2560
"""The widths that are looked at, both included."""


class Context(NamedTuple):
    """Widths from `from_px` up to `to_px`, included, for which the same rules of the style sheet hold. `piece`: with
    the one row in it; None where that does not show. `shrinks`: the piece is as wide as what it holds; `share`: of the
    viewport's width, what it is held in."""

    from_px: int
    to_px: int
    band: str | None
    piece: Block | None
    shrinks: bool = False
    share: Share = Share()


class Laid(NamedTuple):
    """A row at the widths from `from_px` to `to_px`, where everything in it is what it is at the first of these, moved
    along its slopes."""

    from_px: int
    to_px: int
    context: Context
    found: Verdict

    @property
    def band(self) -> str | None:
        return self.context.band

    def height_px(self, width: int) -> float:
        return at(self.found.height_px, width - self.from_px)

    def need_px(self, width: int) -> float:
        return at(self.found.need_px, width - self.from_px)

    def room_px(self, width: int) -> float:
        return at(self.found.room_px, width - self.from_px)


class Stretch(NamedTuple):
    """Widths, both included, at which a row is in one state by one cause. `height_px`: its least and greatest
    height."""

    from_px: int
    to_px: int
    state: RowState
    cause: str
    band: str | None
    height_px: tuple[float, float]


class RowFit(NamedTuple):
    """A row in one language. `estimated`: nodes whose words are foreseen; `missing`: characters that no face of the
    site's draws, so that widths with them are estimates."""

    row: str
    language: str
    laid: tuple[Laid, ...]
    estimated: frozenset[str]
    missing: str

    @property
    def is_estimate(self) -> bool:
        return bool(self.estimated or self.missing)

    @property
    def stretches(self) -> list[Stretch]:
        joined: list[Stretch] = []
        for laid in self.laid:
            heights = (laid.height_px(laid.from_px), laid.height_px(laid.to_px))
            low, high = min(heights), max(heights)
            last = joined[-1] if joined else None
            same = last is not None and (last.state, last.cause, last.band) == (
                laid.found.state,
                laid.found.cause,
                laid.band,
            )
            if last is not None and same and last.to_px == laid.from_px - 1:
                reach = (min(low, last.height_px[0]), max(high, last.height_px[1]))
                joined[-1] = last._replace(to_px=laid.to_px, height_px=reach)
            else:
                joined.append(
                    Stretch(laid.from_px, laid.to_px, laid.found.state, laid.found.cause, laid.band, (low, high))
                )
        return joined

    @property
    def failing(self) -> list[Stretch]:
        return [stretch for stretch in self.stretches if stretch.state in FAILING]

    @property
    def fits_from_px(self) -> int | None:
        """The least width from which on the row does not fail; None where it fails at the greatest one."""
        failing = self.failing
        if not failing:
            return FROM_PX
        return failing[-1].to_px + 1 if failing[-1].to_px < TO_PX else None

    def at(self, width: int) -> Laid | None:
        """None: the row does not show at this width."""
        return next((laid for laid in self.laid if laid.from_px <= width <= laid.to_px), None)


def at(length: Length, moved_px: float) -> float:
    """A length so many px to the right of its span's start."""
    return length.at + length.slope * moved_px if isinstance(length, Linear) else length


def sweep(contexts: Iterable[Context], height_px: float, memory: Memory, *, in_lines: bool) -> list[Laid]:
    """`height_px`: the viewport's."""
    found: list[Laid] = []
    looked: _Looked | None = None
    for context in contexts:
        piece = context.piece
        if piece is None:
            continue
        if looked is None or looked.piece is not piece:
            looked = _Looked(piece, height_px, context.share, memory, shrinks=context.shrinks, in_lines=in_lines)
        width = context.from_px
        while width <= context.to_px:
            told, span = looked.at(width)
            last = context.to_px
            if span.until <= last - width:
                last = width + max(1, ceil(span.until)) - 1
            if span.bends:
                last = looked.alike_to(width, min(last, width + STRIDE_PX - 1), told)
            found.append(Laid(width, last, context, told))
            width = last + 1
    return found


def look(contexts: Iterable[Context], width: int, height_px: float, memory: Memory, *, in_lines: bool) -> Laid | None:
    """The row at one width, and no other; None where it does not show there."""
    for context in contexts:
        if context.from_px <= width <= context.to_px and context.piece is not None:
            looked = _Looked(
                context.piece, height_px, context.share, memory, shrinks=context.shrinks, in_lines=in_lines
            )
            return Laid(width, width, context, looked.at(width)[0])
    return None


STRIDE_PX = 16
"""How far a bent span is taken for straight, where both its ends are in the same state."""


HEIGHT_PX = 0.5
"""How far from that line its height may be."""


class _Looked:
    """A row in its piece, looked at width by width."""

    def __init__(
        self, piece: Block, height_px: float, share: Share, memory: Memory, *, shrinks: bool, in_lines: bool
    ) -> None:
        self.piece, self._row, self._memory = piece, row_of(piece), memory
        self._height_px, self._share, self._shrinks, self._in_lines = height_px, share, shrinks, in_lines
        self._shape: Geometry | None = None

    def at(self, width: int) -> tuple[Verdict, LinearSpan]:
        shape = self._shape
        if shape is None or not shape.reaches(width):
            shape = self._shape = geometry(
                self.piece, width, self._height_px, self._share, self._memory, shrinks=self._shrinks, in_lines=self._in_lines
            )  # fmt: skip
            # Nobody else has looked along this span yet: what follows can shorten it itself.
            span = shape.span
        else:
            span = LinearSpan(width)
            shape = shape.at(width, span)
        viewport = Viewport(Linear(float(width), 1.0, span), self._height_px)
        height_of = None
        if self._row.has_percent_heights:
            height_of = height_in(self.piece, viewport, self._share.at(viewport))
        told = verdict(self._row, shape, viewport, self._memory, height_of=height_of, in_lines=self._in_lines)
        return told, span

    def alike_to(self, first: int, last: int, told: Verdict) -> int:
        """The last width up to which the row is in the same state by the same cause, and as high as it would be along
        its slope."""

        def same(width: int) -> bool:
            other, _ = self.at(width)
            high = at(told.height_px, width - first)
            alike = (other.state, other.cause) == (told.state, told.cause)
            return alike and abs(value(other.height_px) - high) <= HEIGHT_PX

        if last <= first or same(last):
            return last
        low = first
        while last - low > 1:
            middle = (low + last) // 2
            low, last = (middle, last) if same(middle) else (low, middle)
        return low


def frame_at(laid: Laid, width: int, height_px: float) -> Frame:
    """The row laid out at one width, with all that stands in it."""
    viewport = Viewport(float(width), height_px)
    piece = laid.context.piece
    assert piece is not None
    row, room = row_of(piece), room_in(piece, viewport, laid.context.share, shrinks=laid.context.shrinks)
    height_of = height_in(piece, viewport, laid.context.share.at(viewport))
    return row.lay_out(row.filling(viewport, room), viewport, room, None, height_of)
