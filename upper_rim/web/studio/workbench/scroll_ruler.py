"""What the workbench shows of movement for a piece: the scroll ruler, and what the tray says of it."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.fit.rows.fitter import Fitter
from ....core.kinds.moving import Stage
from ....core.kinds.pieces.base import Moving, Piece
from ....core.model.editing.edits import edit_adapter
from ....core.model.site import Page, Site
from ....core.model.stages import stages_of
from ....core.model.tree import walk
from ...sites import store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ..controls.of_movement import movement_groups
from ..forms.numbers import stage_width
from ..preview.moving import Looked, limits_told, looked_through, movement_words, scroll_ruler
from ..preview.viewing import looked_at
from .outline import stage_words


def movement_shown(
    fitter: Fitter,
    site: Site,
    piece: Piece,
    chosen: Any,
    page: Page | None,
    looked: Looked | None,
    width: int,
    shown: str,
) -> dict[str, Any]:
    """The scroll ruler, and what the tray says of movement. `site`: as it is shown."""
    stage = chosen if isinstance(chosen, Stage) else None
    rows = {row.id: row.stage for row in piece.rows}
    standing = stage.id if stage else next((rows[row] for row in rows if _holds(piece, row, chosen.id)), None)
    ruler = scroll_ruler(looked, piece)
    held = next((grip.px + 1 for grip in ruler["grips"] if grip.stage == standing), None)
    found_here = looked.found(piece) if looked else []
    context: dict[str, Any] = {
        "scroll_ruler": ruler,
        "scroll_to": "" if held is None else held,
        "moves": isinstance(piece, Moving),
        "overlaps": [movement_words(one, site) for one in found_here if one.kind == "overlap"],
        "stages": [(one, stage_words(one), bool(site.rows_in(piece, one.id))) for one in stages_of(piece)],
        "hands_over": bool(stage and site.rows_in(piece, stage.id)),
    }
    if shown == "movement":
        context["movement_groups"] = movement_groups(piece, site)
        context["movement_found"] = [
            (movement_words(one, site), edit_adapter.dump_json(one.remedy).decode() if one.remedy else "")
            for one in found_here
        ]
    if stage is not None and shown == "content" and page is not None:
        context["limits"] = limits_told(fitter, site, piece, stage, page.language, width)
    return context


def _holds(piece: Piece, row_id: str, node: str) -> bool:
    row = next(row for row in piece.rows if row.id == row_id)
    return node == row_id or any(below.id == node for below in walk(row))


def ruler_again(request: HttpRequest, slug: str, piece_id: str) -> HttpResponse:
    """The scroll ruler alone, once the stage has told how high its page is."""
    stored = site_of(request.user, slug)
    site, _ = store.load(stored.pk)
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    page = looked_at(request, site, piece) if piece is not None else None
    if piece is None or page is None:
        return HttpResponse(status=404)
    looked = looked_through(request, site_fitter(stored.pk), site, page, stage_width(request.GET))
    return render(
        request, "studio/workbench/scroll_ruler.html", {"scroll_ruler": scroll_ruler(looked, piece), "slug": slug}
    )
