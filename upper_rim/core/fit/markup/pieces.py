"""Which boxes is a piece made of, in one language and one width band?"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ...kinds.pieces.asking import Asking
from ...kinds.pieces.base import Piece
from ...kinds.pieces.bottom import BottomBar
from ...kinds.pieces.drawer import Drawer
from ...kinds.pieces.float import Float
from ...kinds.pieces.notice import CLOSE_PX, Notice
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rows import Cell, Row, Side
from ..css.amount import Amount
from ..css.block import Block
from ..css.boxes import INLINE_END, INLINE_START, Box, Sides
from ..css.flex import Flex
from ..css.grid import Grid, GridTrack
from ..rows.setting import Setting
from .items import item_box


def piece_box(piece: Piece, setting: Setting) -> Block:
    """The piece with all its rows that show in the band: `Site.shown_rows` in place of shared ones."""
    rows = [row_box(row, piece, setting) for row in piece.rows if setting.band not in row.hidden_in or not setting.band]
    return piece_around(rows, piece, setting)


def piece_around(rows: Sequence[Box], piece: Piece, setting: Setting, *, stands_free: bool = False) -> Block:
    """`stands_free`: it is no block among blocks, so that its rows' margins stay in it (CSS Display 3, 4)."""
    own = setting.part(piece.id)
    base: dict[str, Any] = {}
    if isinstance(piece, Notice) and piece.closable:
        base["padding"] = Sides(None, float(CLOSE_PX), None, None)
    sizes = own.over(**base)
    if isinstance(piece, Asking) and piece.is_boxed:
        sizes |= {edge: sizes[edge]._replace(inline_start=0.0, inline_end=0.0) for edge in ("padding", "border")}
    made = Block(node=piece.id, within=list(rows), contains_margins=stands_free or isinstance(piece, Float), **sizes)
    made.settle()
    return made


def beyond(piece: Piece, setting: Setting) -> tuple[Amount, ...]:
    """What a piece whose rows stand in a box of their own keeps free at both sides of that."""
    if not isinstance(piece, Asking) or not piece.is_boxed:
        return ()
    inset = float(piece.inset_px)
    sizes = setting.part(piece.id).over(padding=Sides(inset, inset, inset, inset))
    return tuple(sizes[edge][side] or 0.0 for edge in ("padding", "border") for side in (INLINE_START, INLINE_END))


def shrinks(piece: Piece, setting: Setting) -> bool:
    """Whether it is as wide as what it holds: a float, and a sidebar beside the content."""
    return isinstance(piece, Float) or (isinstance(piece, Sidebar) and setting.beside)


def row_box(row: Row, piece: Piece, setting: Setting, cells: Mapping[str, Box] | None = None) -> Block:
    """`cells`: its cells' boxes by id, where they are made already."""
    own = setting.part(row.id)
    sizes = own.over()
    if isinstance(piece, BottomBar):
        sizes = own.over(height=float(piece.height_px), padding=Sides(0.0, None, 0.0, None))
    if isinstance(piece, Sidebar) and setting.beside:
        sizes = own.over(width=float(piece.width_px or setting.site.sidebar_px))
    grid = _cells(row, piece, setting, cells)
    made = Block(
        node=row.id, part="row", within=[grid], contains_margins=False, fills=isinstance(piece, BottomBar), **sizes
    )
    made.settle()
    return made


def _cells(row: Row, piece: Piece, setting: Setting, cells: Mapping[str, Box] | None) -> Box:
    site = setting.site
    gutter = float(site.gutter_px)
    inset = isinstance(piece, Float | Drawer) or (isinstance(piece, Sidebar) and setting.beside)
    inset = inset or (isinstance(piece, Asking) and piece.is_boxed)
    fold = next((fold for fold in row.columns if fold.band == setting.band), None)
    if fold is not None:
        tracks = tuple(GridTrack("equal") for _ in range(fold.count))
    else:
        tracks = tuple(GridTrack(cell.track.kind, float(cell.track.amount)) for cell in row.cells) or (
            GridTrack("share"),
        )
    return Grid(
        part="cells",
        tracks=tracks,
        column_gap=float(row.gap_px),
        row_gap=float(row.gap_px) if fold else 0.0,
        align=row.align,
        max_width=None if row.full_width else float(site.content_px),
        padding=Sides() if inset else Sides(inline_start=gutter, inline_end=gutter),
        margin=Sides(inline_start=None, inline_end=None),
        is_given_its_width=not isinstance(piece, Float),
        within=[cells[cell.id] if cells else cell_box(cell, row, setting) for cell in row.cells],
    ).settle()


def cell_box(cell: Cell, row: Row, setting: Setting, items: Sequence[Box | None] | None = None) -> Box:
    """`items`: its items' boxes, where they are made already."""
    own = setting.part(cell.id)
    gap = float(cell.gap_px)
    made = [item_box(item, setting) for item in cell.items] if items is None else items
    ruled = any(style.part == "content" for style in row.styles)
    tall = ruled or row.align == "stretch"
    pack = row.align if ruled and row.align != "stretch" else "start" if ruled else "stretch"
    return Flex(
        node=cell.id, part="cell", wraps=True, align="center", justify=side_of(cell, setting.band), row_gap=gap, column_gap=gap,
        align_self="stretch" if tall else None, pack=pack, within=[box for box in made if box is not None], **own.over(),
    ).settle()  # fmt: skip


def side_of(cell: Cell, band: str | None) -> Side:
    """Where its items stand in a width band."""
    return next((aligned.align for aligned in cell.aligned if aligned.band == band), cell.align)
