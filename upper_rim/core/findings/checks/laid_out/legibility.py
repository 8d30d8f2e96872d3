"""Which texts are hard to read, or lie over a picture, and which items have less than half of the width that they ask
for?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from functools import partial
from typing import Any

from ....fit.css.amount import Viewport
from ....fit.css.boxes import Frame
from ....fit.css.linear import value
from ....fit.rows.fitter import VIEWPORT_HEIGHT_PX, Fitter
from ....fit.rows.sweep import frame_at
from ....kinds.items.form import Form
from ....kinds.items.map import MapItem
from ....kinds.items.picture import PictureItem
from ....kinds.items.pictures import PictureList
from ....kinds.items.rich import RichText
from ....kinds.pieces.base import Piece
from ....model.site import Site
from ....style.paint.contrast import Glimpse, Glimpses
from ....style.paint.texts import beside_labels
from ...dress import dress_of
from ...finding import Finding

_WIDE = (PictureItem, MapItem, PictureList, Form, RichText)
_USUAL_PX = 240.0
"""What an item asks for that is of use only where it is wide, and says no width: but no more than it could fill."""


def in_texts(fitter: Fitter, site: Site, pieces: Iterable[Piece]) -> Iterator[Finding]:
    """`fitter` keeps what has not changed."""
    for piece in pieces:
        if piece.on:
            yield from weak_texts_of(glimpsed(fitter, site, piece))


def glimpsed(fitter: Fitter, site: Site, piece: Piece) -> dict[str, Glimpse]:
    """By node; only of what is not as it was is the contrast worked out."""
    made: list[Glimpses] = []

    def of(node: str) -> Glimpse:
        if not made:
            made.append(Glimpses(site, piece))
        return made[0].of(node)

    return {
        node: fitter.kept(("legible", node), looks, partial(of, node)) for node, looks in _looks_of(fitter, site, piece)
    }


def _looks_of(fitter: Fitter, site: Site, piece: Piece) -> Iterator[tuple[str, tuple[Any, ...]]]:
    """For each node with texts all that their contrast depends on: equal where that is."""
    holders = [dress_of(holder) for holder, _ in site.holders(piece)] if piece.kind == "drawer" else []
    said = (
        site.replaced(pieces=(), menus=(), pages=(), let_be=()),
        holders,
        piece.id,
        piece.styles,
        piece.wears,
        piece.roles,
    )
    around = fitter.kept(("looks around", piece.id), said, object)
    yield piece.id, (around, getattr(piece, "fan", None))
    for row in piece.rows:
        for cell in row.cells:
            for item in cell.items:
                stands = (row.id, row.styles, row.wears, cell.id, cell.styles, cell.wears)
                yield item.id, (around, *stands, item, beside_labels(item, site))


def weak_texts_of(seen: Mapping[str, Glimpse]) -> Iterator[Finding]:
    """`seen`: by node."""
    for node, (failing, _) in seen.items():
        if failing is not None:
            yield Finding("weak text", node, about={"ratio": failing.ratio, "needed": failing.needed})
    for node, (_, is_pictured) in seen.items():
        if is_pictured:
            yield Finding("over a picture", node)


def squeezed(fitter: Fitter, site: Site, piece: Piece, language: str, viewport_px: int) -> Iterator[Finding]:
    """At one width of the viewport; a piece's rows at rest. `other` is the cell."""
    for row in piece.rows:
        wide = [(cell, item) for cell in row.cells for item in cell.items if isinstance(item, _WIDE)]
        laid = fitter.row_at(site, piece, row, language, viewport_px) if wide and row.stage is None else None
        if laid is None:
            continue
        whole = frame_at(laid, viewport_px, VIEWPORT_HEIGHT_PX)
        drawn = {frame.box.node: frame for frame in _frames(whole) if frame.box.part == ""}
        for cell, item in wide:
            frame = drawn.get(item.id)
            if frame is None:
                continue
            viewport = Viewport(float(viewport_px), VIEWPORT_HEIGHT_PX)
            most = value(frame.box.wanted(viewport, whole.width).most)
            said = float(item.width_px) if isinstance(item, PictureItem | MapItem) else min(_USUAL_PX, most)
            px, asked = value(frame.width), min(said, value(whole.width))
            if px < asked / 2:
                yield Finding("squeezed", item.id, cell.id, {"px": px, "asked_px": asked})


def _frames(frame: Frame) -> Iterator[Frame]:
    yield frame
    for _, _, kid in frame.kids:
        yield from _frames(kid)
