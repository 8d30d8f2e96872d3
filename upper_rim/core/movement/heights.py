"""How high is a piece at a viewport: at rest, and in each stage; and what keeps it from being lower?

A slimmed row is drawn as a band of its own box: around the middle of what stands in it, at its upper or its lower edge,
as its cells are aligned. Nothing in it is laid out anew, so its tallest item limits it.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from ..fit.css.amount import Viewport, worked_out
from ..fit.css.boxes import BLOCK_END, BLOCK_START, Align, Frame
from ..fit.css.linear import value
from ..fit.rows.fitter import Fitter, Whole
from ..fit.rows.styles import box_style
from ..kinds.items.logo import Logo
from ..kinds.moving import Stage, Way
from ..kinds.pieces.base import Piece
from ..kinds.rows import Row
from ..model.site import Site
from ..model.stages import hands_over, in_stage, stages_in
from ..style.resolve import Styling, styling_of


class Thing(NamedTuple):
    """An item in a row, and how much of the row's height it takes, in px."""

    node: str
    height_px: float


class SlimRow(NamedTuple):
    """A row in a stage: as high as it is at rest, and as it is drawn (0 where it does not show). `top_px`: where it
    stands in its piece. `things`: what stands in it, the tallest first. `around_px`: padding and lines above what
    stands in it and below; `slim_px`: the same in the stage. `gained_px`: by how much all rows above it are less
    high."""

    row: str
    align: Align
    rest_px: float
    drawn_px: float
    top_px: float
    wished_px: float | None
    around_px: tuple[float, float]
    slim_px: tuple[float, float]
    gained_px: float
    things: tuple[Thing, ...]

    @property
    def numbers(self) -> tuple[float, ...]:
        """All that decides how it is drawn."""
        return (self.rest_px, self.drawn_px, self.top_px, *self.around_px, *self.slim_px, self.gained_px)

    @property
    def least_px(self) -> float:
        """What it is never lower than: its tallest item, and its padding."""
        return min(self.rest_px, (self.things[0].height_px if self.things else 0.0) + sum(self.slim_px))

    @property
    def off_px(self) -> float:
        """How far it is drawn from where it would stand if just its upper edge, its middle or its lower edge were kept,
        as its cells are aligned; towards the window's upper edge where negative."""
        return self.own_off_px - self.gained_px

    @property
    def own_off_px(self) -> float:
        """The same, without what the rows above it are less high."""
        (above, below), (before, after) = self.around_px, self.slim_px
        match self.align:
            case "start":
                return before - above
            case "end":
                return below - after
            case _:
                return ((before - after) - (above - below)) / 2

    @property
    def moved_px(self) -> float:
        """How far it is drawn from where it stands."""
        less = self.drawn_px - self.rest_px
        return self.off_px + {"start": 0.0, "end": less}.get(self.align, less / 2)

    @property
    def limit(self) -> Thing | None:
        """The item by which it is higher than was wished."""
        too_high = self.wished_px is not None and self.drawn_px > self.wished_px + 0.01
        return self.things[0] if too_high and self.things else None


class StageHeights(NamedTuple):
    """A piece in a stage (None: at rest): how high it is seen, how opaque, and its rows where they are its own ones."""

    stage: str | None
    height_px: float
    opacity: float = 1.0
    rows: tuple[SlimRow, ...] = ()


class Heights(NamedTuple):
    """A piece at a viewport. `start_px`: from the window's start edge. `flow_px`: the room that it takes in the page,
    without its margins; `reach_px`: how far down what stands in it reaches, also out of it. `standings`: at rest, then
    in each stage that it can pass through there."""

    piece: str
    band: str | None
    width_px: float
    start_px: float
    flow_px: float
    margins_px: tuple[float, float]
    standings: tuple[StageHeights, ...]
    reach_px: float


def heights(fitter: Fitter, site: Site, piece: Piece, language: str, viewport: Viewport) -> Heights | None:
    """None where it does not show at that width."""
    whole = fitter.whole(site, piece, language, viewport)
    if whole is None:
        return None
    rest, known = value(whole.frame.height), styling_of(site)

    def opacity(node: str) -> float:
        return float(known.resolve(known.elements[node, "box"], "opacity", "rest", whole.band).value)

    standings = [StageHeights(None, rest, opacity(piece.id))]
    for stage in stages_in(piece, whole.band):
        rows = hands_over(site, piece, stage)
        if rows:
            over = fitter.whole(site, in_stage(piece, stage.id), language, viewport, stage.id)
            standings.append(StageHeights(stage.id, value(over.frame.height) if over else 0.0, opacity(stage.id)))
        else:
            slim = slim_rows(site, piece, stage, whole)
            less = sum(row.rest_px - row.drawn_px for row in slim)
            drawn = max(rest - less, _lines_px(known, stage, whole))
            standings.append(StageHeights(stage.id, drawn, opacity(stage.id), slim))
    return Heights(
        piece.id, whole.band, value(whole.frame.width), whole.start_px, rest, whole.margins_px, tuple(standings),
        _reach_px(whole.frame),
    )  # fmt: skip


def _reach_px(frame: Frame) -> float:
    """What a box cannot hold stands out of it, and is scrolled to all the same (CSS Overflow 3, 2.2)."""
    if not frame.box.may_spill:
        return value(frame.height)
    return max([value(frame.height), *(value(top) + _reach_px(kid) for _, top, kid in frame.kids)])


def _lines_px(styling: Styling, stage: Stage, whole: Whole) -> float:
    """What is painted behind its rows in a stage is never less high than its own lines (CSS Sizing 3, 3.3)."""
    border = box_style(styling, styling.elements[stage.id, "box"], whole.band).sizes["border"]
    return sum(value(worked_out(border[side] or 0.0, whole.viewport, 0.0)) for side in (BLOCK_START, BLOCK_END))


def slim_rows(site: Site, piece: Piece, stage: Stage, whole: Whole) -> tuple[SlimRow, ...]:
    rows = {row.id: row for row in site.rows_in(piece)}
    made: list[SlimRow] = []
    gained = 0.0
    for _, top, frame in whole.frame.kids:
        slim = slim_row(rows[frame.box.node], stage, frame, whole.viewport, gained, value(top))
        gained += slim.rest_px - slim.drawn_px
        made.append(slim)
    return tuple(made)


def slim_row(row: Row, stage: Stage, frame: Frame, viewport: Viewport, gained_px: float, top_px: float) -> SlimRow:
    """A row that was laid out, as it is drawn in the stage."""
    rest, box = value(frame.height), frame.box
    around = (
        value(box.edge(BLOCK_START, viewport, frame.width)),
        value(box.edge(BLOCK_END, viewport, frame.width)),
    )
    slim = around if stage.padding_px is None else (float(stage.padding_px), float(stage.padding_px))
    wished = None if stage.height_px is None else float(stage.height_px)
    if row.id in stage.without:
        return SlimRow(row.id, row.align, rest, 0.0, top_px, wished, around, around, gained_px, ())
    things = tuple(sorted(_things(row, stage, frame, *around), key=lambda thing: -thing.height_px))
    slimmed = SlimRow(row.id, row.align, rest, rest, top_px, wished, around, slim, gained_px, things)
    return slimmed._replace(drawn_px=max(slimmed.least_px, min(rest, wished or 0.0)))


def _things(row: Row, stage: Stage, frame: Frame, above: float, below: float) -> Iterator[Thing]:
    """How much room each item needs, as the row's cells are aligned: from the middle, twice as far as it reaches."""
    rest = value(frame.height)
    middle = above + (rest - above - below) / 2
    logos = {item.id for cell in row.cells for item in cell.items if isinstance(item, Logo)}
    for node, top, high in _items(frame):
        if node in stage.without:
            continue
        if node in logos and stage.logo_percent < 100:
            less = high * (100 - stage.logo_percent) / 100
            top, high = top + less / 2, high - less
        match row.align:
            case "start":
                need = top + high - above
            case "end":
                need = rest - below - top
            case _:
                need = 2 * max(abs(top - middle), abs(top + high - middle))
        yield Thing(node, round(need, 3))


def _items(frame: Frame) -> Iterator[tuple[str, float, float]]:
    """Items in a row: id, top within the row, height. What is stretched over its cell is as high as that is made."""
    for _, grid_y, grid in frame.kids:
        for _, cell_y, cell in grid.kids:
            for _, item_y, item in cell.kids:
                if item.box.align_self != "stretch" and item.box.is_seen:
                    yield _node(item), value(grid_y) + value(cell_y) + value(item_y), value(item.height)


def _node(frame: Frame) -> str:
    return frame.box.node or next((node for _, _, kid in frame.kids if (node := _node(kid))), "")


def greatest_px(standings: Sequence[StageHeights]) -> float:
    return max(standing.height_px for standing in standings)


def settled_px(standings: Sequence[StageHeights], way: Way) -> float:
    """The height that a piece comes to at last; of one that comes and goes, the greatest."""
    return standings[-1].height_px if way == "stays" else greatest_px(standings)
