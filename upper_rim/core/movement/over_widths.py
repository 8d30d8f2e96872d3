"""How much of the window does a pinned piece take, at every viewport width and height: for the published style sheet?

Between two widths a number moves along a line, as fit found it in a viewport that is `VIEWPORT_HEIGHT_PX` high. Where
something of the piece follows the viewport's height, the number is known at the heights between which it moves along a
line as well; those are the ones at the first of its widths. Which rows stand next to each other is taken to be the same
at all heights.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from itertools import pairwise
from typing import Any, NamedTuple, TypeVar

from ..fit.css.amount import Viewport
from ..fit.css.linear import value
from ..fit.rows.fitter import VIEWPORT_HEIGHT_PX, Fitter, Whole
from ..fit.rows.sweep import FROM_PX, TO_PX, RowFit, frame_at
from ..kinds.moving import Stage
from ..kinds.pieces.base import Moving, Piece
from ..kinds.rows import Row
from ..model.site import Site
from ..model.stages import in_stage, stages_in
from ..model.tree import walk
from ..values.styling import Declaration
from .bends import EQUAL_PX, are_equal, bends
from .heights import SlimRow, slim_row, slim_rows

HEIGHTS_PX = (160.0, 2400.0)
"""Viewport heights that are looked at; beyond, what holds between them goes on."""

_Of = TypeVar("_Of")


class WidthLine(NamedTuple):
    """A number of px, at the first and at the last of some widths. `by_height`: viewport heights and the number at the
    first width there, where it follows them; between two it moves along a line."""

    first: float
    last: float
    by_height: tuple[tuple[float, float], ...] = ()

    @property
    def is_level(self) -> bool:
        return abs(self.first - self.last) <= EQUAL_PX

    def more(self, px: float) -> WidthLine:
        return WidthLine(self.first + px, self.last + px, tuple((high, value + px) for high, value in self.by_height))


class WidthSpan(NamedTuple):
    """Widths, both included, and numbers at them."""

    from_px: int
    to_px: int
    lines: tuple[WidthLine, ...]


class Slimmed(NamedTuple):
    """A piece slimmed, in one viewport: how high it is drawn, and its rows."""

    drawn_px: float
    rows: tuple[SlimRow, ...]

    @property
    def numbers(self) -> tuple[float, ...]:
        """All that decides how it is drawn."""
        return (self.drawn_px, *(number for row in self.rows for number in row.numbers))


class SlimSpan(NamedTuple):
    """A piece slimmed at the first of some widths, and at the last. `by_height`: as in `WidthLine`."""

    from_px: int
    to_px: int
    first: Slimmed
    last: Slimmed
    by_height: tuple[tuple[float, Slimmed], ...] = ()

    def line(self, of: Callable[[Slimmed], float]) -> WidthLine:
        """One number of it."""
        return WidthLine(of(self.first), of(self.last), tuple((high, of(slim)) for high, slim in self.by_height))


def widths_of(fitter: Fitter, site: Site, piece: Piece, language: str) -> Widths:
    """The same one as long as nothing of the piece has changed."""
    fits = tuple(fitter.row(site, piece, row, language) for row in site.shown_rows(piece))
    key = ("widths", piece.id, language)
    return fitter.kept(key, (piece, fits), lambda: Widths(fitter, site, piece, language))


def reserved(widths: Widths, is_pinned: Callable[[str | None], bool]) -> list[WidthSpan]:
    """The height that it has where it is highest: at rest, or in one of its stages; and the one that it comes to at
    last. Widths at which it does not show, and bands in which it is not pinned, are left out."""
    piece = widths.piece
    found = []
    for start, end in widths.stretches(piece.rows):
        band = widths.band(start)
        if band is not None and is_pinned(band.id):
            found.append(WidthSpan(start, end, _taken(widths, band.id, start, end)))
    return _joined(found)


def _taken(widths: Widths, band: str | None, start: int, end: int) -> tuple[WidthLine, ...]:
    """Its greatest height, and its last one."""
    piece, stages = widths.piece, stages_in(widths.piece, band)
    stays = isinstance(piece, Moving) and piece.way_in(band) == "stays"

    def numbers(width: int, high: float = VIEWPORT_HEIGHT_PX) -> tuple[float, float]:
        seen = [widths.rest(width, high), *(widths.seen(stage, width, high) for stage in stages)]
        return max(seen), seen[-1] if stays else max(seen)

    first, last = numbers(start), numbers(end)
    known = widths.by_height(f"taken {band}", lambda high: numbers(start, high), lambda seen: seen)
    return tuple(WidthLine(first[at], last[at], tuple((high, seen[at]) for high, seen in known)) for at in (0, 1))


def slimmed(widths: Widths, stage: Stage) -> list[SlimSpan]:
    """A piece in a stage in which it keeps its own rows."""
    return widths.kept(stage, lambda: _slimmed(widths, stage))


def _slimmed(widths: Widths, stage: Stage) -> list[SlimSpan]:
    site, piece = widths.site, widths.piece
    found: list[SlimSpan] = []
    for start, end in widths.stretches(site.rows_in(piece)):
        band = widths.band(start)
        if band is None or stage not in stages_in(piece, band.id):
            continue
        span = SlimSpan(start, end, widths.slim(stage, start), widths.slim(stage, end), widths.slims(stage, start))
        before = found[-1] if found else None
        if before is not None and before.to_px == start - 1 and _same(before, span):
            found[-1] = before._replace(to_px=end)
        else:
            found.append(span)
    return found


def differences(widths: Widths, stage: Stage, *, over: bool) -> Iterator[tuple[int, float]]:
    """By how many px a piece is less high in a stage than at rest, at the first and last of some widths each. `over`:
    it hands over to other rows in it."""
    if not over:
        for span in slimmed(widths, stage):
            yield span.from_px, _less(span.first.rows)
            yield span.to_px, _less(span.last.rows)
        return
    for start, end in widths.stretches(widths.piece.rows):
        band = widths.band(start)
        if band and stage in stages_in(widths.piece, band.id) and widths.hands_over(stage):
            for width in (start, end):
                yield width, widths.rest(width) - widths.seen(stage, width)


def _less(rows: Iterable[SlimRow]) -> float:
    return sum(row.rest_px - row.drawn_px for row in rows)


def _same(before: SlimSpan, after: SlimSpan) -> bool:
    return (
        _alike(before.first, before.last)
        and _alike(before.last, after.first)
        and _alike(after.first, after.last)
        and _alike_by_height(before.by_height, after.by_height, _alike)
    )


def _alike(one: Slimmed, other: Slimmed) -> bool:
    return [row.row for row in one.rows] == [row.row for row in other.rows] and are_equal(one.numbers, other.numbers)


def _alike_by_height(
    some: Sequence[tuple[float, _Of]], others: Sequence[tuple[float, _Of]], are_alike: Callable[[_Of, _Of], bool]
) -> bool:
    return len(some) == len(others) and all(
        high == other_high and are_alike(one, other)
        for (high, one), (other_high, other) in zip(some, others, strict=True)
    )


class _Band(NamedTuple):
    id: str | None


class Widths:
    """One piece in one language, looked at width by width. What fit has swept is used; what a piece adds to its rows is
    looked up once for each band, and what a stage makes of them at each width."""

    def __init__(self, fitter: Fitter, site: Site, piece: Piece, language: str) -> None:
        self.fitter, self.site, self.piece, self.language = fitter, site, piece, language
        self.fits: dict[str, RowFit] = {
            row.id: fitter.row(site, piece, row, language) for row in site.shown_rows(piece)
        }
        self._rows = {row.id: row for row in site.shown_rows(piece)}
        self._more: dict[tuple[str | None, str | None], float] = {}
        self._slim: dict[tuple[str, int, float], Slimmed] = {}
        self._spans: dict[str, list[SlimSpan]] = {}
        self._wholes: dict[tuple[str | None, int, float], Whole | None] = {}
        self._follows_height = _follows_height(site, piece)
        self._by_height: dict[str, tuple[list[Sequence[float]], Any]] = {}

    def stretches(self, rows: Sequence[Row]) -> Iterator[tuple[int, int]]:
        """Widths between which no row changes its state."""
        edges = {FROM_PX, TO_PX + 1}
        shown = {
            row.id for row in self.site.shown_rows(self.piece) if any(row.id in {one.id, one.shares} for one in rows)
        }
        for row in shown:
            for laid in self.fits[row].laid:
                edges |= {laid.from_px, laid.to_px + 1}
        listed = sorted(edges)
        for start, end in pairwise(listed):
            yield start, end - 1

    def band(self, width: int) -> _Band | None:
        """The band at a width, as its rows have been laid out for it; None where it does not show."""
        for row in self.site.rows_in(self.piece):
            laid = self.fits[row.id].at(width)
            if laid is not None:
                return _Band(laid.band)
        return None

    def rest(self, width: int, high: float = VIEWPORT_HEIGHT_PX) -> float:
        """How high it is at rest."""
        return self._high(None, width, high)

    def seen(self, stage: Stage, width: int, high: float = VIEWPORT_HEIGHT_PX) -> float:
        """How high it is seen in a stage: its own rows slimmed, or those that it hands over to."""
        if self.hands_over(stage):
            return self._high(stage.id, width, high)
        return self.slim(stage, width, high).drawn_px

    def hands_over(self, stage: Stage) -> bool:
        return bool(self.site.rows_in(self.piece, stage.id))

    def by_height(
        self, key: str, of: Callable[[float], _Of], numbers: Callable[[_Of], Sequence[float]]
    ) -> tuple[tuple[float, _Of], ...]:
        """What something is at the viewport heights between which each of its numbers moves along a line; nothing, where
        it does not follow them. What has the same numbers at three heights as under this key before, has them at all."""
        if not self._follows_height:
            return ()
        low, high = HEIGHTS_PX
        seen = [numbers(of(one)) for one in (low, VIEWPORT_HEIGHT_PX, high)]
        known = self._by_height.get(key)
        if known is None or not all(map(are_equal, known[0], seen)):
            if are_equal(seen[0], seen[2]) and are_equal(seen[0], seen[1]):
                knots: tuple[float, ...] = ()
            else:
                knots = (low, *bends(lambda one: numbers(of(one)), low, high), high)
            known = self._by_height[key] = seen, tuple((one, of(one)) for one in knots)
        return known[1]

    def _high(self, stage: str | None, width: int, high: float) -> float:
        if high != VIEWPORT_HEIGHT_PX:
            whole = self._whole(stage, width, high)
            return value(whole.frame.height) if whole is not None else 0.0
        rows = 0.0
        band: str | None = None
        for row in self.site.rows_in(self.piece, stage):
            laid = self.fits[row.id].at(width)
            if laid is not None:
                rows += laid.height_px(width)
                band = laid.band
        key = (stage, band)
        if key in self._more:
            return rows + self._more[key]
        whole = self._whole(stage, width, high)
        if whole is None:
            return rows
        own, box = value(whole.frame.height), whole.frame.box
        if box.has_plain_edges and (box.height, box.min_height, box.max_height) == (None, None, None):
            # It is as high as its rows, and always by the same more.
            self._more[key] = own - rows
        return own

    def _whole(self, stage: str | None, width: int, high: float) -> Whole | None:
        key = (stage, width, high)
        if key not in self._wholes:
            self._wholes[key] = self.fitter.whole(
                self.site, in_stage(self.piece, stage), self.language, Viewport(float(width), high), stage
            )
        return self._wholes[key]

    def slim(self, stage: Stage, width: int, high: float = VIEWPORT_HEIGHT_PX) -> Slimmed:
        """Its own rows in a stage."""
        key = (stage.id, width, high)
        if key not in self._slim:
            rows = self._slim_rows(stage, width, high)
            self._slim[key] = Slimmed(self.rest(width, high) - _less(rows), rows)
        return self._slim[key]

    def kept(self, stage: Stage, make: Callable[[], list[SlimSpan]]) -> list[SlimSpan]:
        if stage.id not in self._spans:
            self._spans[stage.id] = make()
        return self._spans[stage.id]

    def slims(self, stage: Stage, width: int) -> tuple[tuple[float, Slimmed], ...]:
        """The same by the viewport's height."""
        band = self.band(width)
        key = f"{stage.id} {band.id if band else None}"
        return self.by_height(key, lambda high: self.slim(stage, width, high), lambda slim: slim.numbers)

    def _slim_rows(self, stage: Stage, width: int, high: float) -> tuple[SlimRow, ...]:
        if high != VIEWPORT_HEIGHT_PX:
            whole = self._whole(None, width, high)
            return slim_rows(self.site, self.piece, stage, whole) if whole is not None else ()
        made: list[SlimRow] = []
        gained, top = 0.0, 0.0
        viewport = Viewport(float(width), VIEWPORT_HEIGHT_PX)
        for row in self.site.rows_in(self.piece):
            laid = self.fits[row.id].at(width)
            if laid is None:
                continue
            frame = frame_at(laid, width, VIEWPORT_HEIGHT_PX)
            slim = slim_row(self._rows[row.id], stage, frame, viewport, gained, top)
            gained += slim.rest_px - slim.drawn_px
            top += slim.rest_px
            made.append(slim)
        return tuple(made)


def _follows_height(site: Site, piece: Piece) -> bool:
    """Whether something that it is styled by names the viewport's height."""
    styled = (*site.looks, *site.roles, piece)
    return any(isinstance(node, Declaration) and "vh" in node.value for one in styled for node in walk(one))


def _joined(spans: Sequence[WidthSpan]) -> list[WidthSpan]:
    found: list[WidthSpan] = []
    for span in spans:
        before = found[-1] if found else None
        if (
            before is not None
            and before.to_px == span.from_px - 1
            and all(
                one.is_level
                and other.is_level
                and abs(one.first - other.first) <= EQUAL_PX
                and _alike_by_height(one.by_height, other.by_height, lambda a, b: abs(a - b) <= EQUAL_PX)
                for one, other in zip(before.lines, span.lines, strict=True)
            )
        ):
            found[-1] = before._replace(to_px=span.to_px)
        else:
            found.append(span)
    return found
