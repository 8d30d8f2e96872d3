"""The pieces of a site, and what a new one can begin with."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest

from ....core.kinds.pieces import PIECE_KINDS
from ....core.kinds.pieces.base import Piece
from ....core.kinds.pieces.drawer import Drawer
from ....core.kinds.pieces.header import Header
from ....core.model.site import Site
from ....core.reach.coverage import in_words
from ....core.reach.reached import reached
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..forms.arrangements import ARRANGEMENTS


@screen("studio/pieces/pieces.html", "pieces")
def pieces(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if made and made[0].startswith("pc-") and request.POST.get("do") == "add":
        raise Redirected(site_url("workbench", opened, made[0]))
    pages = reached(opened.site).pages
    listed = [
        (
            piece,
            piece.NAME,
            pages.get(piece.id, 0),
            _places(piece, opened.site),
        )
        for piece in opened.site.pieces
    ]
    by_kind = {kind: [(key, one) for key, one in ARRANGEMENTS.items() if one.kind == kind] for kind in PIECE_KINDS}
    chosen = request.POST.get("kind") or request.GET.get("kind") or ""
    kinds = [(kind, one.NAME, kind == chosen) for kind, one in PIECE_KINDS.items()]
    return {
        "listed": listed,
        "kinds": kinds,
        "kind": chosen if chosen in by_kind else "header",
        "kind_name": PIECE_KINDS.get(chosen, Header).NAME,
        "kind_about": KIND_ABOUT.get(chosen, KIND_ABOUT["header"]),
        "arrangements": by_kind.get(chosen, by_kind["header"]),
    }


def _places(piece: Piece, site: Site) -> list[str]:
    """Where a piece shows, in words."""
    if isinstance(piece, Drawer):
        return [f"in a menu of {holder.name}" for holder, _ in site.holders(piece)]
    return [in_words(rule, site) for rule in piece.reach]


KIND_ABOUT = {
    "header": "Before the content of every page that it reaches.",
    "notice": "A bar with a message, at the top or the bottom, for a time.",
    "footer": "After the content.",
    "sidebar": "Beside the content; before or after it where the window is narrow.",
    "bottom": "Two to five targets, always at the bottom of a phone’s screen.",
    "float": "A button, or a few, over the page.",
    "drawer": "Rows of its own in what a menu’s button opens, above and below the menu’s entries.",
}
