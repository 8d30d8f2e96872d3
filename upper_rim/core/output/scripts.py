"""Which scripts does a page load?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ..model.items import BackToTop, Copyright, Item, MenuItem, Pager, SearchBox, Viewer
from ..model.site import Piece, Site
from .movement_rules import moves


def scripts_of(site: Site, pieces: Iterable[Piece], current: str | None) -> set[str]:
    """Names of those that its pieces need: it loads no other. `current`: the page's id, where something is about it."""
    used: set[str] = set()
    for piece in pieces:
        if moves(piece):
            used.add("rim")
        for item in _items_with_drawers(site, piece):
            if item.hint.text or isinstance(item, MenuItem | Copyright | BackToTop):
                used.add("rim")
            if isinstance(item, SearchBox | Viewer) or (isinstance(item, Pager) and item.list_on == current):
                used.add(item.kind)
    return used


def _items_with_drawers(site: Site, piece: Piece) -> Iterator[Item]:
    """The items that a piece shows, and those in its menus' drawers."""
    yield from site.shown_items(piece)
    for _, held in site.drawers_in(piece):
        drawer = site.drawer(held)
        if drawer is not None:
            yield from site.shown_items(drawer)
