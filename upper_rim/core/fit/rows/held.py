"""What does a piece stand in, and how wide is that: the whole window, or what a menu's button opens?"""

from __future__ import annotations

from math import inf
from typing import NamedTuple

from ...kinds.items.menu import ALWAYS_PX, MenuItem
from ...kinds.pieces.asking import Asking
from ...kinds.pieces.base import Piece
from ...kinds.pieces.drawer import Drawer
from ...kinds.pieces.float import Float
from ...model.site import Site, drawer_width
from ..css.amount import Amount, Viewport, worked_out
from ..css.linear import Length, smaller, value


class Share(NamedTuple):
    """How wide is what holds a piece: so much of the viewport's width without the scroll bar, without `edges`, `most_px`
    at most, less `less_px`."""

    of: float = 1.0
    most_px: float = inf
    less_px: float = 0.0
    edges: tuple[Amount, ...] = ()
    bar_px: float = 0.0

    def at(self, viewport: Viewport) -> Length:
        window = viewport.width - self.bar_px if self.bar_px else viewport.width
        whole = window if self.of == 1.0 else window * self.of
        for edge in self.edges:
            whole = whole - worked_out(edge, viewport, window)
        return (whole if self.most_px == inf else smaller(whole, self.most_px)) - self.less_px


class Held(NamedTuple):
    """What a piece stands in: its share of the viewport's width, below a viewport width in px."""

    share: Share = Share()
    below_px: int = ALWAYS_PX


DRAWER_PX, DRAWER_EDGES_PX = 360.0, 40.0
"""The greatest width of a drawer that has none of its own, and the padding at its two sides."""


def drawer_share(item: MenuItem) -> Share:
    """Of the viewport's width, what a menu's button opens."""
    if item.drawer_side not in {"start", "end"}:
        return Share()
    return Share(0.86, DRAWER_PX) if item.drawer_px is None else Share(1.0, float(item.drawer_px))


_PHONE = Viewport(390.0, 800.0)


def held_in(site: Site, piece: Piece) -> Held:
    """Of a box of its own, that the piece's edges leave less is still to be said: they differ from band to band (`beyond`
    in `markup.pieces`). A drawer held by several menus: what the narrowest leaves it, as wide as the window is where any holds it."""
    if isinstance(piece, Asking) and piece.is_boxed:
        return Held(Share(most_px=float(piece.width_px)))
    if isinstance(piece, Float):
        return Held(Share(less_px=2.0 * piece.inset_px))
    if not isinstance(piece, Drawer):
        return Held()
    menus = [item for _, item in site.holders(piece)]
    narrowest = min((drawer_share(item) for item in menus), key=lambda share: value(share.at(_PHONE)), default=Share())
    below = max((drawer_width(item, site) or 0 for item in menus), default=0)
    return Held(narrowest._replace(less_px=DRAWER_EDGES_PX), below)
