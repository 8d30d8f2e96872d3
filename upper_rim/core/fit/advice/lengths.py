"""Which texts are too long where they stand, by how many px, and at which widths?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from ...kinds.items.menu import MenuItem
from ...kinds.pieces.base import Piece
from ...kinds.rows import Row
from ...model.navigation.links import Links
from ...model.site import Site
from ...model.texts import SaidText
from ..rows.fitter import Fitter
from ..rows.states import FAILING
from ..rows.sweep import RowFit


class TooLong(NamedTuple):
    """`node`: what does not fit; of a menu that stands in a row, its longest entry there. `px`: how much less its row would have to need, where that is most; the widths are the
    least and the greatest, both included, between which that is so, wholly or here and there."""

    node: str
    language: str
    row: str
    px: float
    from_px: int
    to_px: int


def too_long(fitter: Fitter, site: Site, pieces: Iterable[Piece], languages: Iterable[str]) -> Iterator[TooLong]:
    """In these pieces and languages, as far as the pieces show in them. What is not translated counts as it is shown, which
    is in the site's own language."""
    fitter = fitter.as_published()
    resolved, asked = fitter.resolved(site), list(languages)
    for piece in pieces:
        own = next(one for one in resolved.pieces if one.id == piece.id)
        shown = [language for language in fitter.languages(resolved, own) if language in asked]
        menus = {item.id: item for row in resolved.shown_rows(own) for item in _menus_in(row)}
        for fit in fitter.rows(resolved, own, shown):
            for one in _of_row(fit):
                item = menus.get(one.node)
                yield one._replace(node=_longest(resolved, item, one.language)) if item else one


def _menus_in(row: Row) -> Iterator[MenuItem]:
    return (item for cell in row.cells for item in cell.items if isinstance(item, MenuItem))


def _longest(site: Site, item: MenuItem, language: str) -> str:
    """Of the first level; the menu itself where it has none."""
    menu, links = site.menu(item.menu), Links(site)
    labels = {entry.id: len(links.label(entry, language)) for entry in (menu.entries if menu else ())}
    return max(labels, key=labels.__getitem__, default=item.id)


def _of_row(fit: RowFit) -> Iterator[TooLong]:
    failing: dict[str, TooLong] = {}
    for laid in fit.laid:
        if laid.found.state not in FAILING:
            continue
        px = max(laid.need_px(width) - laid.room_px(width) for width in (laid.from_px, laid.to_px))
        node = laid.found.cause or fit.row
        known = failing.get(node) or TooLong(node, fit.language, fit.row, 0.0, laid.from_px, laid.to_px)
        failing[node] = known._replace(px=max(known.px, px), to_px=laid.to_px)
    yield from failing.values()


def pieces_saying(site: Site, text: SaidText) -> list[Piece]:
    """Those in whose rows a text is said: its own, those that share the row, those that show the menu."""
    inside = {node.id for node in text.path}
    return [
        piece
        for piece in site.pieces
        if any(
            row.id in inside or any(getattr(item, "menu", None) in inside for cell in row.cells for item in cell.items)
            for row in site.shown_rows(piece)
        )
    ]
