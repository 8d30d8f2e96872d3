"""At which viewport widths is a row in which state, how high is it there, and what is the cause?

From the narrowest width on, a row is laid out once for each span of widths in which it stays alike (see `linear`).
"""

from __future__ import annotations

from collections.abc import Iterable
from math import ceil
from typing import NamedTuple

from .amount import Viewport
from .block import Block
from .boxes import Frame
from .cells import Memory
from .linear import Length, Linear, Span
from .states import FAILING, Geometry, State, Verdict, geometry, room_in, row_of, verdict

FROM_PX, TO_PX = 280, 2560
"""The widths that are looked at, both included."""


class Context(NamedTuple):
    """Widths from `from_px` up to `to_px`, included, for which the same rules of the style sheet hold. `piece`: with the
    one row in it; None where that does not show. `shrinks`: the piece is as wide as what it holds."""

    from_px: int
    to_px: int
    band: str | None
    piece: Block | None
    shrinks: bool = False


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
    """Widths, both included, at which a row is in one state by one cause. `height_px`: its least and greatest height."""

    from_px: int
    to_px: int
    state: State
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
            same = last is not None and (last.state, last.cause, last.band) == (laid.found.state, laid.found.cause, laid.band)  # fmt: skip
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


def sweep(
    contexts: Iterable[Context], height_px: float, memory: Memory, *, in_lines: bool, inset_px: float = 0.0
) -> list[Laid]:
    """`height_px`: the viewport's. `inset_px`: by how much what holds the row is narrower than the viewport."""
    found: list[Laid] = []
    for context in contexts:
        piece = context.piece
        if piece is None:
            continue
        row, width = row_of(piece), context.from_px
        shape: Geometry | None = None
        while width <= context.to_px:
            if shape is None or width - shape.first >= shape.reach:
                shape = geometry(piece, width, height_px, inset_px, shrinks=context.shrinks, in_lines=in_lines)
            span = Span(width)
            viewport = Viewport(Linear(float(width), 1.0, span), height_px)
            told = verdict(row, shape.at(width, span), viewport, memory, in_lines=in_lines)
            last = context.to_px
            if span.until <= last - width:
                last = width + max(1, ceil(span.until)) - 1
            found.append(Laid(width, last, context, told))
            width = last + 1
    return found


def frame_at(laid: Laid, width: int, height_px: float, inset_px: float = 0.0) -> Frame:
    """The row laid out at one width, with all that stands in it."""
    viewport = Viewport(float(width), height_px)
    piece = laid.context.piece
    assert piece is not None
    row, room = row_of(piece), room_in(piece, viewport, inset_px, shrinks=laid.context.shrinks)
    return row.lay_out(row.filling(viewport, room), viewport, room)
