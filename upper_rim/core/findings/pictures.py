"""What does one see of a finding? The piece as it stands where it is found fault with, or the screen at the moment at which
something is so, drawn from what fit and movement know."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from ..kinds.markup import Element, element
from ..kinds.pieces.base import Piece
from ..languages.names import name_in
from ..model.site import Site
from ..movement.play import SeenPiece, play
from ..movement.scene import Scenes
from ..output.drawn.draw_piece import PieceDrawer
from ..output.drawn.svg import drawn_svg
from ..output.shelf import Shelf
from ..reach.reached import reached
from .subjects import subject_of
from .told import Teller
from .whole import Cause, LookedAt

USUAL_PX = (1280, 390)
"""At which a piece is drawn where no width is told: the first at which it shows."""


class Pictured(NamedTuple):
    """`said`: at which width, and in which language. `width_px`, `height_px`: how large what is drawn is."""

    svg: Element
    said: str
    width_px: float
    height_px: float


class Picturing:
    """Of the findings of one site. `address`: where a picture among its files is fetched from."""

    def __init__(self, looked: LookedAt, shelf: Shelf, address: Callable[[str], str]) -> None:
        self._looked, self._shelf, self._address = looked, shelf, address
        self._teller = Teller(looked.site)
        self._drawer = PieceDrawer(looked.site, looked.fitter)

    def of(self, cause: Cause, name: str) -> Pictured | None:
        """`name`: unlike any other picture's of the same page."""
        if subject_of(cause.kind) == "movement":
            return self._screen(cause)
        holder = self._teller.holder(cause.node)
        piece = next((one for one in self._drawer.site.pieces if holder is not None and one.id == holder.id), None)
        return self._piece(cause, piece, name) if piece is not None else None

    def _piece(self, cause: Cause, piece: Piece, name: str) -> Pictured | None:
        first = cause.findings[0]
        language = first.language or _language_of(piece, self._looked.site)
        at_px = first.about.get("at_px", first.about.get("to_px"))
        widths = (min(int(at_px), USUAL_PX[0]), *USUAL_PX) if at_px is not None else USUAL_PX
        for width in widths:
            drawing = self._drawer.draw(piece, language, max(width, 280))
            if drawing is not None and drawing.width > 0 and drawing.height > 0:
                svg = drawn_svg(drawing, self._shelf, self._address, name, "")
                return Pictured(svg, f"{width} px, {name_in(language, 'en')}", drawing.width, drawing.height)
        return None

    def _screen(self, cause: Cause) -> Pictured | None:
        place = cause.findings[0].place
        page = next((page for page in self._looked.site.pages if page.id == place.page), None)
        if page is None or not any(place.viewport_px):
            return None
        scenes = Scenes(self._looked.fitter.as_published(), self._looked.site)
        scene = scenes.of(page, place.viewport_px, self._looked.shape_of(page, place.viewport_px))
        played = play(scene, [0.0, place.scroll_px])
        wide, high = scene.viewport_px
        shown = [one for one in played.moment(1) if one.shown]
        svg = element(
            "svg",
            {"xmlns": "http://www.w3.org/2000/svg", "viewBox": f"0 0 {wide:.0f} {high:.0f}", "aria-hidden": "true"},
            _rect("window", 0, 0, wide, high),
            *(part for one in shown for part in self._body(one, cause, high)),
        )
        return Pictured(svg, f"{wide:.0f} × {high:.0f} px, scrolled {place.scroll_px:.0f} px", wide, high)

    def _body(self, one: SeenPiece, cause: Cause, high: float) -> list[Element]:
        is_meant = one.piece in {cause.node, cause.other}
        sort = "meant" if is_meant else "piece"
        size = max(12.0, high / 40)
        said = {
            "class": "named",
            "x": f"{one.left_px + 6:.0f}",
            "y": f"{max(one.top_px, 0) + size:.0f}",
            "font-size": f"{size:.0f}",
        }
        return [
            _rect(sort, one.left_px, one.top_px, one.width_px, one.height_px),
            element("text", said, self._teller.name(one.piece)),
        ]


def _rect(css_class: str, left: float, top: float, width: float, height: float) -> Element:
    sides = {"x": f"{left:.1f}", "y": f"{top:.1f}", "width": f"{width:.1f}", "height": f"{height:.1f}"}
    return element("rect", {"class": css_class, **sides})


def _language_of(piece: Piece, site: Site) -> str:
    languages = reached(site).languages.get(piece.id) or {site.language}
    return min(languages, key=lambda one: (one != site.language, one))
