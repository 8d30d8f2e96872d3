"""Which controls change the chosen node, in which groups do they lie in the tray, and what is the node called?"""

from __future__ import annotations

import re
from typing import Any

from ...core.model.items import (
    Contact,
    Copyright,
    Divider,
    IconLink,
    Logo,
    MenuItem,
    PictureItem,
    RichText,
    SocialRow,
    Spacer,
)
from ...core.model.site import Cell, Piece, Row, Site
from .control import Control, Group, choice, px, text, track_in_words, yes
from .item_controls import item_groups
from .piece_controls import folds, piece_groups

UPRIGHT = (("start", "the top"), ("center", "the middle"), ("end", "the bottom"), ("stretch", "the row’s full height"))


def groups_for(node: Any, site: Site) -> list[Group]:
    """The tray's groups for a piece, row, cell or item."""
    match node:
        case Piece():
            return [
                Group("Piece", [text(node, "name", "Name"), yes(node, "on", "Switched on")]),
                *piece_groups(node, site),
                _shown(node, site),
            ]
        case Row():
            return [
                Group("Row", [text(node, "name", "Name"), yes(node, "full_width", "Edge to edge")]),
                Group(
                    "Space",
                    [px(node, "gap_px", "Between cells", 400), choice(node, "align", "Cells stand at", UPRIGHT)],
                ),
                *([Group("Columns", folds(node, site))] if site.bands else []),
                _shown(node, site),
            ]
        case Cell():
            aligned = (("start", "Start"), ("center", "Middle"), ("end", "End"))
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
                        Control("choice", "Items stand at", node.id, "align", node.align, aligned),
                    ],
                ),
                Group("Space", [px(node, "gap_px", "Between items", 400)]),
            ]
        case _:
            return [*item_groups(node, site), _shown(node, site)]


def _shown(node: Any, site: Site) -> Group:
    bands = [(band.id, band.name) for band in site.bands]
    shown = [band for band, _ in bands if band not in node.hidden_in]
    widths = [Control("bands", "Widths", node.id, "hidden_in", shown, bands)] if bands else []
    return Group("Shows at", [*widths, text(node, "classes", "Classes")])


KIND_NAMES = {
    "logo": "Logo",
    "menu": "Menu",
    "text": "Text",
    "rich": "Text with marks",
    "picture": "Picture",
    "button": "Button",
    "icon": "Icon link",
    "links": "List of links",
    "contact": "Contact",
    "social": "Profiles",
    "copyright": "Copyright line",
    "divider": "Divider",
    "spacer": "Spacer",
    "top": "Back to top",
}
PIECE_NAMES = {
    "header": "Header",
    "notice": "Notice bar",
    "footer": "Footer",
    "sidebar": "Sidebar",
    "bottom": "Bottom bar",
    "float": "Float",
}


def node_name(node: Any, site: Site) -> str:
    """What a node is called in the outline and over the tray."""
    match node:
        case Piece() | Row():
            return node.name
        case Cell():
            return _cell_name(node, site)
        case MenuItem():
            menu = next((menu.name for menu in site.menus if menu.id == node.menu), "none yet")
            return f"Menu: {menu}"
        case Logo():
            return "Logo"
        case IconLink():
            return f"Icon: {node.icon}"
        case RichText():
            words = re.sub(r"<[^>]+>", " ", node.rich.text).strip()
            return f"Text: {words[:28] + '…' if len(words) > 29 else words}"
        case PictureItem():
            return f"Picture: {node.picture.rpartition('/')[2]}" if node.picture else "Picture: none yet"
        case Contact() | SocialRow() | Divider() | Spacer() | Copyright():
            return KIND_NAMES[node.kind]
        case _:
            words = node.words.text
            return f"{KIND_NAMES[node.kind]}: {words[:28] + '…' if len(words) > 29 else words}"


def _cell_name(cell: Cell, site: Site) -> str:
    """By its place in its row: Start, Middle, End, or a number where there are more."""
    cells = next((row.cells for piece in site.pieces for row in piece.rows if cell in row.cells), (cell,))
    at = cells.index(cell)
    if len(cells) == 1:
        return "Whole row"
    if at in {0, len(cells) - 1}:
        return "End" if at else "Start"
    return "Middle" if len(cells) == 3 else f"Cell {at + 1}"
