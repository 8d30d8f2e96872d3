"""What is a node called where it is worked on?"""

from __future__ import annotations

from typing import Any

from ..kinds.entries import Entry
from ..kinds.items.base import BaseItem
from ..kinds.moving import Stage
from ..kinds.pieces.base import Piece
from ..kinds.rows import Cell, Row
from .navigation.links import Links
from .site import Band, Site
from .tree import holder_of


def cause_name(site: Site, node: str, language: str) -> str:
    """Of what something comes from, with a menu's entry as it is labelled in that language; empty where it is gone."""
    holder = holder_of(site, node) if node else None
    if holder is None:
        return ""
    if isinstance(holder, Band):
        return holder.name
    if isinstance(holder, Entry):
        return f"“{Links(site).label(holder, language)}”"
    return node_name(holder, site)


def node_name(node: Any, site: Site) -> str:
    """What a node is called in the outline and over the tray."""
    match node:
        case Row(shares=str(shared)):
            return f"{shared_row(site, shared)[0].name}, shared"
        case Piece() | Row() | Stage():
            return node.name
        case Cell():
            return _cell_name(node, site)
        case BaseItem():
            return node.outline_name({menu.id: menu.name for menu in site.menus})
        case _:
            raise AssertionError(type(node))


def _cell_name(cell: Cell, site: Site) -> str:
    """By its place in its row: Start, Middle, End, or a number where there are more."""
    cells = next((row.cells for piece in site.pieces for row in piece.rows if cell in row.cells), (cell,))
    at = cells.index(cell)
    if len(cells) == 1:
        return "Whole row"
    if at in {0, len(cells) - 1}:
        return "End" if at else "Start"
    return "Middle" if len(cells) == 3 else f"Cell {at + 1}"


def shared_row(site: Site, row_id: str) -> tuple[Row, Piece]:
    """The row that another one shares, and the piece that it belongs to."""
    return next((row, piece) for piece in site.pieces for row in piece.rows if row.id == row_id)
