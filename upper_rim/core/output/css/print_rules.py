"""What of the pieces is printed? What leads elsewhere, comes and goes, or lies over the page, is of no use on paper."""

from __future__ import annotations

from collections.abc import Iterator

from ...kinds.items.menu import MenuItem
from ...kinds.pieces.base import OnPaper, Piece
from ...kinds.pieces.bottom import BottomBar
from ...kinds.pieces.float import Float
from ...kinds.rule import Rule
from ...model.site import Site
from .width_rules import media

_PRINT = media("print")


def print_rules(site: Site) -> Iterator[Rule]:
    """Pieces that are not printed, and menus in those that are printed without."""
    for piece in site.pieces:
        own = f".{site.key}.{site.key}-{piece.id}"
        if _is_left_out(piece):
            yield Rule(own, {"display": "none"}, _PRINT)
        elif isinstance(piece, OnPaper) and piece.printed == "plain":
            for item in site.shown_items(piece):
                if isinstance(item, MenuItem):
                    yield Rule(f"{own} .{site.key}-{item.id}", {"display": "none"}, _PRINT)


def _is_left_out(piece: Piece) -> bool:
    return isinstance(piece, BottomBar | Float) or (isinstance(piece, OnPaper) and piece.printed == "never")
