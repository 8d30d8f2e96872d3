"""How much of the window does a pinned piece take, at every viewport width: for the published style sheet?

Between two widths a number moves along a line, as fit found it. Heights that follow the viewport's height are taken for
one of `VIEWPORT_HEIGHT_PX`.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

from ..fit.css.amount import Viewport
from ..fit.css.linear import value
from ..fit.rows.fitter import VIEWPORT_HEIGHT_PX, Fitter
from ..fit.rows.sweep import FROM_PX, TO_PX, RowFit, frame_at
from ..kinds.moving import Stage
from ..kinds.pieces.base import Moving, Piece
from ..kinds.rows import Row
from ..model.site import Site
from ..model.stages import in_stage, stages_in
from .heights import SlimRow, slim_row

EQUAL_PX = 0.05


class WidthLine(NamedTuple):
    """A number of px, at the first and at the last of some widths."""

    first: float
    last: float

    @property
    def is_level(self) -> bool:
        return abs(self.first - self.last) <= EQUAL_PX


class WidthSpan(NamedTuple):
    """Widths, both included, and numbers at them."""

    from_px: int
    to_px: int
    lines: tuple[WidthLine, ...]


class Slimmed(NamedTuple):
    """A row at the first of some widths, and at the last."""

    first: SlimRow
    last: SlimRow


class SlimSpan(NamedTuple):
    """A piece slimmed, at some widths: how high it is drawn, and its rows."""

    from_px: int
    to_px: int
    height: WidthLine
    rows: tuple[Slimmed, ...]


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
        if band is None or not is_pinned(band.id):
            continue
        lines = [widths.rest(start, end)]
        for stage in stages_in(piece, band.id):
            lines.append(widths.over(stage, start, end) or widths.drawn(stage, start, end))
        highest = WidthLine(max(line.first for line in lines), max(line.last for line in lines))
        settled = lines[-1] if isinstance(piece, Moving) and piece.way_in(band.id) == "stays" else highest
        found.append(WidthSpan(start, end, (highest, settled)))
    return _joined(found)


def slimmed(widths: Widths, stage: Stage) -> list[SlimSpan]:
    """A piece in a stage in which it keeps its own rows."""
    site, piece = widths.site, widths.piece
    found: list[SlimSpan] = []
    for start, end in widths.stretches(site.rows_in(piece)):
        band = widths.band(start)
        if band is None or stage not in stages_in(piece, band.id):
            continue
        first, last = widths.slim(stage, start), widths.slim(stage, end)
        height = widths.drawn(stage, start, end)
        rows = tuple(Slimmed(one, other) for one, other in zip(first, last, strict=True))
        before = found[-1] if found else None
        span = SlimSpan(start, end, height, rows)
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
            yield span.from_px, sum(row.first.rest_px - row.first.drawn_px for row in span.rows)
            yield span.to_px, sum(row.last.rest_px - row.last.drawn_px for row in span.rows)
        return
    for start, end in widths.stretches(widths.piece.rows):
        band = widths.band(start)
        other = widths.over(stage, start, end) if band and stage in stages_in(widths.piece, band.id) else None
        if other is not None:
            rest = widths.rest(start, end)
            yield start, rest.first - other.first
            yield end, rest.last - other.last


def _same(one: SlimSpan, other: SlimSpan) -> bool:
    level = one.height.is_level and other.height.is_level and abs(one.height.first - other.height.first) <= EQUAL_PX
    return (
        level
        and len(one.rows) == len(other.rows)
        and all(
            _alike(before.last, after.first) and _alike(after.first, after.last) and _alike(before.first, before.last)
            for before, after in zip(one.rows, other.rows, strict=True)
        )
    )


def _alike(one: SlimRow, other: SlimRow) -> bool:
    numbers = zip(one.numbers, other.numbers, strict=True)
    return one.row == other.row and all(abs(before - after) <= EQUAL_PX for before, after in numbers)


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
        self._slim: dict[tuple[str, int], tuple[SlimRow, ...]] = {}

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

    def rest(self, start: int, end: int) -> WidthLine:
        return WidthLine(self._high(None, start), self._high(None, end))

    def over(self, stage: Stage, start: int, end: int) -> WidthLine | None:
        """The rows that it hands over to; None where it keeps its own."""
        if not self.site.rows_in(self.piece, stage.id):
            return None
        return WidthLine(self._high(stage.id, start), self._high(stage.id, end))

    def _high(self, stage: str | None, width: int) -> float:
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
        viewport = Viewport(float(width), VIEWPORT_HEIGHT_PX)
        whole = self.fitter.whole(self.site, in_stage(self.piece, stage), self.language, viewport, stage)
        if whole is None:
            return rows
        high, box = value(whole.frame.height), whole.frame.box
        if box.has_plain_edges and (box.height, box.min_height, box.max_height) == (None, None, None):
            # It is as high as its rows, and always by the same more.
            self._more[key] = high - rows
        return high

    def drawn(self, stage: Stage, start: int, end: int) -> WidthLine:
        """Its own rows, slimmed."""
        rest, first, last = self.rest(start, end), self.slim(stage, start), self.slim(stage, end)
        return WidthLine(
            rest.first - sum(row.rest_px - row.drawn_px for row in first),
            rest.last - sum(row.rest_px - row.drawn_px for row in last),
        )

    def slim(self, stage: Stage, width: int) -> tuple[SlimRow, ...]:
        if (stage.id, width) not in self._slim:
            self._slim[stage.id, width] = self._slimmed(stage, width)
        return self._slim[stage.id, width]

    def _slimmed(self, stage: Stage, width: int) -> tuple[SlimRow, ...]:
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


def _joined(spans: Sequence[WidthSpan]) -> list[WidthSpan]:
    found: list[WidthSpan] = []
    for span in spans:
        before = found[-1] if found else None
        if (
            before is not None
            and before.to_px == span.from_px - 1
            and all(
                one.is_level and other.is_level and abs(one.first - other.first) <= EQUAL_PX
                for one, other in zip(before.lines, span.lines, strict=True)
            )
        ):
            found[-1] = before._replace(to_px=span.to_px)
        else:
            found.append(span)
    return found
