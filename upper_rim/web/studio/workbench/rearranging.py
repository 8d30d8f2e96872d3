"""Other arrangements of a piece: each drawn with what is in it, and one of them tried on."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.kinds.pieces.base import Piece
from ....core.model.editing.apply import apply
from ....core.model.editing.edits import Edit
from ....core.model.rearranging import arrangements_for, rearranged
from ....core.model.site import Site
from ...sites import ids, store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ...sites.rules import rules_of
from ..cycle.screen import Opened, stage_address
from ..preview.small import pictures_of_piece

ARRANGED = "arranged:"
"""Begins the name of what is tried on (`trial`), before the arrangement's key."""
AS_IT_IS = ""


def other_arrangements(request: HttpRequest, slug: str, piece_id: str) -> HttpResponse:
    """The list; asked for by itself, since it takes a moment."""
    stored = site_of(request.user, slug)
    opened = Opened(stored, *store.load(stored.pk), request.user)
    site = opened.site
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        return HttpResponse(status=404)
    sites = {AS_IT_IS: site}
    for key in arrangements_for(piece):
        edit = arranged(site, piece, key)
        made = apply(site, edit, rules_of(stored.pk)) if edit else None
        if isinstance(made, Site):
            sites[key] = made
    fitter = site_fitter(stored.pk)
    language = fitter.languages(site, piece)[0]
    drawn = pictures_of_piece(sites, piece_id, language, fitter, stage_address(request, opened))
    plans = [(key, plan, drawn.get(key)) for key, plan in arrangements_for(piece).items() if key in sites]
    context = {"now": drawn.get(AS_IT_IS), "plans": plans, "piece": piece}
    return render(request, "studio/workbench/rearranging.html", context)


def arranged(site: Site, piece: Piece, key: str) -> Edit | None:
    return rearranged(site, piece, key, ids.new_id)
