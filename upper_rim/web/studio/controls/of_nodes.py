"""Which controls change the chosen node, in which groups do they lie in the tray, and what is the node called?"""

from __future__ import annotations

from typing import Any

from ....core.kinds.moving import Stage
from ....core.kinds.pieces.asking import Asking
from ....core.kinds.pieces.base import OnPaper, Piece
from ....core.kinds.pieces.gate import Gate
from ....core.kinds.rows import Cell, Row
from ....core.model.names import shared_row
from ....core.model.site import Site
from .control import Control, Group, choice, px, text, told_whether_set, track_in_words, words, yes
from .items import GROUPS as ITEM_GROUPS
from .of_movement import stage_groups
from .pieces import GROUPS as PIECE_GROUPS

UPRIGHT = (("start", "the top"), ("center", "the middle"), ("end", "the bottom"), ("stretch", "the row’s full height"))


def groups_for(node: Any, site: Site) -> list[Group]:
    """The tray's groups for a piece, row, cell or item."""
    return told_whether_set(_groups_for(node, site), node)


def _groups_for(node: Any, site: Site) -> list[Group]:
    match node:
        case Piece():
            return [
                Group("Piece", [text(node, "name", "Name"), yes(node, "on", "Switched on")]),
                *(PIECE_GROUPS[node.kind](node, site) if node.kind in PIECE_GROUPS else ()),
                _shown(node, site),
            ]
        case Stage():
            return stage_groups(node, site)
        case Row(shares=str(shared)):
            row, other = shared_row(site, shared)
            pieces = (piece for piece in site.pieces if not isinstance(piece, Asking))
            rows = [(one.id, f"{piece.name}: {one.name}") for piece in pieces for one in piece.rows if not one.shares]
            return [Group(f"{row.name}, a row of {other.name}", [choice(node, "shares", "Shows", rows)])]
        case Row():
            return [
                Group("Row", [text(node, "name", "Name"), yes(node, "full_width", "Edge to edge")]),
                Group(
                    "Space",
                    [px(node, "gap_px", "Between cells", 400), choice(node, "align", "Cells stand at", UPRIGHT)],
                ),
                *([Group("Columns", _folds(node, site))] if site.bands else []),
                _shown(node, site),
            ]
        case Cell():
            aligned = [("start", "Start"), ("center", "Middle of its room"), ("end", "End")]
            if _stands_between_two(node, site):
                aligned.append((ROW_CENTRE, "Middle of the row"))
            return [
                Group(
                    "Cell",
                    [
                        Control(
                            "text",
                            "Width",
                            node.id,
                            "track",
                            track_in_words(node.track),
                            hint="content, share 1, or 240 px",
                        ),
                        Control("choice", "Items stand at", node.id, "align", _align_of(node, site), aligned),
                    ],
                ),
                Group("Space", [px(node, "gap_px", "Between items", 400)]),
                *([Group("Items stand, by width", _sides(node, site))] if len(site.bands) > 1 else []),
            ]
        case _:
            return [*ITEM_GROUPS[node.kind](node, site), _shown(node, site, words(node, "hint", "Hint", site))]


def _folds(row: Row, site: Site) -> list[Control]:
    """For each width band, into how many columns the cells fold."""
    counts: dict[str, Any] = {one.band: str(one.count) for one in row.columns}
    choices = [("", "side by side")] + [
        (str(count), f"{count} column{'s' if count > 1 else ''}") for count in range(1, 7)
    ]
    return [
        Control("choice", band.name, row.id, "columns", counts.get(band.id, ""), choices, band=band.id)
        for band in site.bands
    ]


ROW_CENTRE = "row-center"
"""Where a cell's items can be put besides in the cell: its neighbours are made alike, too."""


def _stands_between_two(cell: Cell, site: Site) -> bool:
    return any(len(row.cells) == 3 and row.cells[1] is cell for piece in site.pieces for row in piece.rows)


def _align_of(cell: Cell, site: Site) -> str:
    """`ROW_CENTRE` where what is left is shared alike on both sides of what it holds."""
    row = next((row for piece in site.pieces for row in piece.rows if cell in row.cells), None)
    if row is None or not _stands_between_two(cell, site) or cell.align != "center":
        return cell.align
    before, own, after = (one.track for one in row.cells)
    return ROW_CENTRE if own.kind == "content" and before == after and before.kind == "share" else cell.align


def _sides(cell: Cell, site: Site) -> list[Control]:
    """For each width band, where the cell's items stand there."""
    said = {one.band: one.align for one in cell.aligned}
    choices = (("", "as at all widths"), ("start", "Start"), ("center", "Middle"), ("end", "End"))
    return [
        Control("choice", band.name, cell.id, "aligned", said.get(band.id, ""), choices, band=band.id)
        for band in site.bands
    ]


def _shown(node: Any, site: Site, others: list[Control] | None = None) -> Group:
    # A gate stands before a page at all widths: it is not known yet how wide a window is.
    bands = [] if isinstance(node, Gate) else [(band.id, band.name) for band in site.bands]
    shown = [band for band, _ in bands if band not in node.hidden_in]
    widths = [Control("bands", "Widths", node.id, "hidden_in", shown, bands)] if bands else []
    printed = [choice(node, "prints", "In print", _PRINTED)] if isinstance(node, OnPaper) else []
    return Group("Shows at", [*widths, *(others or []), *printed, text(node, "classes", "Classes")])


_PRINTED = (
    ("usual", "As its kind: headers without menus, no notices"),
    ("whole", "All of it"),
    ("plain", "Without menus"),
    ("never", "Nothing"),
)
