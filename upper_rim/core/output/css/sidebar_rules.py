"""Where does a sidebar stand beside the content?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ...kinds.pieces.base import Piece
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rule import Rule
from ...model.site import Site
from ...style.boxes import extent
from ...style.resolve import Styling
from ...style.type.faces import character_em
from ...style.type.scale import sidebar_needs_px
from ..shelf import Shelf
from .style_rules import band_queries


def queries_beside(site: Site, piece: Sidebar, shelf: Shelf) -> Iterator[str]:
    """Where that leaves the text its least measure, in the bands in which it shows."""
    needs = sidebar_needs_px(site, character_em(site, shelf.faces), piece.width_px)
    shown = {band.id for band in site.bands} - set(piece.hidden_in)
    queries = [f"{query} and " for query in band_queries(site, shown)] if site.bands else [""]
    return (f"{query}(width >= {needs}px)" for query in queries)


def rules_beside(site: Site, piece: Sidebar, shelf: Shelf, styling: Styling, query: str) -> Iterator[Rule]:
    """Its track is as wide before the sidebar has arrived: it may come after the content, which would move then."""
    key, own, within = site.key, f".{site.key}-{piece.id}", (f"@media {query}",)
    begins, width_px = piece.side == "start", piece.width_px or site.sidebar_px
    needs = sidebar_needs_px(site, character_em(site, shelf.faces), piece.width_px)
    shown: set[str | None] = {band.id for band in site.bands if band.id not in piece.hidden_in}
    track = f"minmax({width_px + _least_around(piece, styling, shown or {None}, needs):g}px,auto)"
    holder = {
        "display": "grid",
        "grid-template-columns": f"{track} minmax(0,1fr)" if begins else f"minmax(0,1fr) {track}",
        "align-items": "start",
        "column-gap": f"{2 * site.gutter_px}px",
        "max-inline-size": f"{site.content_px}px",
        "padding-inline": f"{site.gutter_px}px",
        "margin-inline": "auto",
    }
    yield Rule(f"{own}-beside", holder, within)
    yield Rule(f"{own}-beside>{own}", {"grid-column": "1" if begins else "2", "grid-row": "1"}, within)
    content = {"grid-column": "2" if begins else "1", "grid-row": "1"}
    yield Rule(f"{own}-beside>.{key}-beside-content", content, within)
    yield Rule(f"{own}>.{key}-row", {"inline-size": f"{width_px}px"}, within)
    yield Rule(f"{own} .{key}-cells", {"padding-inline": "0"}, within)


def _least_around(piece: Piece, styling: Styling, bands: Iterable[str | None], width_px: float) -> float:
    """A piece's padding and borders at both sides, in px: the least of these bands'."""
    found = (extent(styling, styling.elements[piece.id, "box"], band, width_px) for band in bands)
    return min((one.around_px if one else 0.0 for one in found), default=0.0)
