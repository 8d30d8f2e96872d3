"""What is to come at a seam, the place between two things? What is typed decides; each candidate is shown as it would
look there, and is an edit that only has to be made."""

from __future__ import annotations

from typing import NamedTuple

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.safestring import SafeString

from ....core.exchange.imports.typed_items import typed_items
from ....core.kinds.items import ITEM_KINDS
from ....core.kinds.pieces.base import Piece
from ....core.kinds.pieces.drawer import Drawer
from ....core.model.arrangements.arranging import new_item, with_menu
from ....core.model.editing.apply import apply
from ....core.model.editing.edits import Add, Together
from ....core.model.site import Site
from ....core.output.drawn.draw_piece import PieceDrawer
from ....core.output.drawn.shapes import Ground, Rect
from ....core.output.drawn.svg import drawn_svg
from ....shipped import shelf
from ...sites import ids, store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ...sites.rules import rules_of
from ..cycle.screen import Opened, stage_address
from ..forms.numbers import stage_width, whole_number
from ..preview.svg import file_address, for_template
from ..preview.viewing import looked_at

MOST_TYPED = 400
AROUND_PX, MOST_DRAWN, MOST_WIDE_PX, MOST_HIGH_PX = 4.0, 9, 240.0, 64.0


class Candidate(NamedTuple):
    """`edit`: what it takes, as JSON; `picture` with the size at which it is shown, None where nothing is to be
    seen."""

    node: str
    name: str
    about: str
    edit: str
    picture: SafeString | None
    width_px: float


def candidates(request: HttpRequest, slug: str, piece_id: str) -> HttpResponse:
    stored = site_of(request.user, slug)
    opened = Opened(stored, *store.load(stored.pk), request.user)
    site = opened.site
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    cells = [cell for row in piece.rows for cell in row.cells] if piece else []
    cell = next((cell for cell in cells if cell.id == request.GET.get("cell")), None)
    if piece is None or cell is None:
        raise Http404
    asked = whole_number(request.GET.get("at", ""))
    at = len(cell.items) if asked is None else min(asked, len(cell.items))
    offered = typed_items(site, request.GET.get("typed", "")[:MOST_TYPED], shelf().brands, ids.new_id("pf"))
    page = looked_at(request, site, piece)
    drawing = _Drawing(request, opened, piece, page.language if page else site.language)
    listed = []
    for number, one in enumerate(offered):
        ready, first = with_menu(site, (one.kind,), ids.new_id)
        item = new_item(ready, (one.kind, one.fields), ids.new_id, in_drawer=isinstance(piece, Drawer))
        add = Add(parent=cell.id, slot="items", values=(item,), at=at)
        edit = Together(edits=(*first, add)) if first else add
        made = apply(site, edit, rules_of(stored.pk))
        if isinstance(made, Site):
            picture, width = drawing.of(made, item["id"]) if number < MOST_DRAWN else (None, 0.0)
            name = ITEM_KINDS[one.kind].NAME
            listed.append(Candidate(item["id"], name, one.about, edit.model_dump_json(), picture, width))
    return render(request, "studio/workbench/seam.html", {"candidates": listed})


class _Drawing:
    """Draws candidates in their place, for one designer."""

    def __init__(self, request: HttpRequest, opened: Opened, piece: Piece, language: str) -> None:
        self._fitter = site_fitter(opened.stored.pk)
        self._address_of = file_address(stage_address(request, opened))
        self._piece, self._language = piece, language
        self._width = stage_width(request.GET)

    def of(self, made: Site, node: str) -> tuple[SafeString | None, float]:
        drawer = PieceDrawer(made, self._fitter)
        piece = next(piece for piece in drawer.site.pieces if piece.id == self._piece.id)
        drawn = drawer.draw(piece, self._language, self._width)
        shapes = drawn.shapes if drawn else ()
        own = (shape.rect for shape, _ in shapes if isinstance(shape, Ground) and shape.node == node)
        rect = next((rect for rect in own if rect.width >= 1 and rect.height >= 1), None)
        if drawn is None or rect is None:
            return None, 0.0
        left, top = rect.left - AROUND_PX, rect.top - AROUND_PX
        seen = Rect(left, top, rect.width + 2 * AROUND_PX, rect.height + 2 * AROUND_PX)
        scale = min(1.0, MOST_WIDE_PX / seen.width, MOST_HIGH_PX / seen.height)
        svg = drawn_svg(drawn, shelf(), self._address_of, f"seam-{node}", "", seen)
        return for_template(svg), round(seen.width * scale, 1)
