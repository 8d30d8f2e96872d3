"""Which title in a piece is the first heading of a page that has none of its own?"""

from __future__ import annotations

from typing import NamedTuple

from ..kinds.items.logo import Logo
from ..kinds.pieces.base import Piece
from .site import Site


class Title(NamedTuple):
    """A logo's id. `always`: it shows at every width at which the piece does, until a stage begins."""

    item: str
    always: bool


def title_in(site: Site, piece: Piece) -> Title | None:
    """The first that always shows; else the first."""
    found = [
        Title(item.id, not (row.stage or row.hidden_in or item.hidden_in))
        for row in site.shown_rows(piece)
        for cell in row.cells
        for item in cell.items
        if isinstance(item, Logo)
    ]
    return next((one for one in found if one.always), found[0] if found else None)
