"""Small pictures: what a list shows of a piece, and of one that is to come, at once and without a browser."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from django.utils.safestring import SafeString

from ....core.fit.rows.fitter import Fitter
from ....core.kinds.pieces.base import Piece
from ....core.model.arrangements import ARRANGEMENTS
from ....core.model.editing.rules import Rules
from ....core.model.memo import Memo
from ....core.model.site import Site
from ....core.output.drawn.draw_piece import PieceDrawer
from ....core.output.drawn.shapes import Drawing
from ....core.output.drawn.svg import drawn_svg
from ....core.reach.begun import PIECE, begun
from ....core.reach.coverage import coverage_of
from ....core.reach.reached import reached
from ....shipped import shelf
from ..forms.numbers import PHONE_PX, USUAL_PX
from .svg import file_address, for_template

WIDTHS = (USUAL_PX, PHONE_PX)
"""At which a piece is drawn: the first at which it shows."""
FRONT_KINDS = ("header", "footer")
"""Of what a site is known by, in the order in which they stand."""


class SmallPicture(NamedTuple):
    """`is_phone`: as it is on a phone, since it does not show on wider screens."""

    svg: SafeString
    is_phone: bool


class _Drawn(NamedTuple):
    drawing: Drawing
    width_px: int


_pieces: Memo[Site, dict[str, _Drawn]] = Memo(24)
_arrangements: Memo[Site, dict[str, _Drawn]] = Memo(24)
_fronts: Memo[Site, dict[str, _Drawn]] = Memo(24)
"""By the site as it is; whoever looks at it sees its files at an address of their own."""


def pictures_of_pieces(site: Site, fitter: Fitter, address: str) -> dict[str, SmallPicture]:
    """By id, in the first language of the pages that each shows on. `address`: where this designer sees the site's
    files."""
    return _written(_pieces.of(site, lambda site: _of_pieces(site, fitter)), address)


def pictures_of_arrangements(site: Site, fitter: Fitter, rules: Rules, address: str) -> dict[str, SmallPicture]:
    """Of what a new piece can begin with, by the arrangement's key, as it would be on this site."""
    return _written(_arrangements.of(site, lambda site: _of_arrangements(site, fitter, rules)), address)


def pictures_of_piece(
    sites: Mapping[str, Site], piece: str, language: str, fitter: Fitter, address: str
) -> dict[str, SmallPicture]:
    """One piece as it is in several sites, by the names of these."""
    found = {}
    for name, site in sites.items():
        drawer = PieceDrawer(site, fitter)
        one = next((one for one in drawer.site.pieces if one.id == piece), None)
        found[name] = _drawn(drawer, one, language) if one is not None else None
    return _written({name: drawn for name, drawn in found.items() if drawn is not None}, address)


def pictures_of_front(site: Site, fitter: Fitter, address: str) -> list[SmallPicture]:
    """The header and the footer of the front page, for a list of sites; what it has not is left out."""
    return list(_written(_fronts.of(site, lambda site: _of_front(site, fitter)), address).values())


def _of_front(site: Site, fitter: Fitter) -> dict[str, _Drawn]:
    page = site.first_looked_at(site.pages)
    if page is None:
        return {}
    shown, drawer = coverage_of(site).pieces_on(page), PieceDrawer(site, fitter)
    listed = [piece for piece in drawer.site.pieces if piece.id in shown and piece.kind in FRONT_KINDS]
    listed.sort(key=lambda piece: FRONT_KINDS.index(piece.kind))
    drawn = {piece.id: _drawn(drawer, piece, page.language) for piece in listed}
    return {piece: one for piece, one in drawn.items() if one is not None}


def _of_pieces(site: Site, fitter: Fitter) -> dict[str, _Drawn]:
    drawer, languages = PieceDrawer(site, fitter), reached(site).languages
    drawn = {}
    for piece in drawer.site.pieces:
        language = min(languages.get(piece.id) or {site.language}, key=lambda one: (one != site.language, one))
        drawn[piece.id] = _drawn(drawer, piece, language)
    return {piece: one for piece, one in drawn.items() if one is not None}


def _of_arrangements(site: Site, fitter: Fitter, rules: Rules) -> dict[str, _Drawn]:
    drawn = {}
    for key in ARRANGEMENTS:
        new = begun(site, key, rules)
        if new is not None:
            drawer = PieceDrawer(new.site, fitter)
            piece = next(piece for piece in drawer.site.pieces if piece.id == PIECE)
            drawn[key] = _drawn(drawer, piece, new.page.language)
    return {key: one for key, one in drawn.items() if one is not None}


def _drawn(drawer: PieceDrawer, piece: Piece, language: str) -> _Drawn | None:
    for width in WIDTHS:
        drawing = drawer.draw(piece, language, width)
        if drawing is not None and drawing.width > 0 and drawing.height > 0:
            return _Drawn(drawing, width)
    return None


def _written(drawn: Mapping[str, _Drawn], address: str) -> dict[str, SmallPicture]:
    address_of = file_address(address)
    return {
        name: SmallPicture(
            for_template(drawn_svg(one.drawing, shelf(), address_of, f"small-{name}", "")), one.width_px == PHONE_PX
        )
        for name, one in drawn.items()
    }


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    _pieces.forget()
    _arrangements.forget()
    _fronts.forget()
