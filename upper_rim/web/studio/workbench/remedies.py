"""What would mend a failure of fit."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ...sites import store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ..preview.fitting import asked_span, offers, resolved_piece, spans_of


def mending(request: HttpRequest, slug: str, piece_id: str) -> HttpResponse:
    """What would mend the failure that is looked at; asked for by itself, since it takes a moment."""
    stored = site_of(request.user, slug)
    site, revision = store.load(stored.pk)
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        return HttpResponse(status=404)
    fitter = site_fitter(stored.pk)
    site, piece = resolved_piece(fitter, site, piece)
    span = asked_span(request, spans_of(site, piece, fitter.rows(site, piece)))
    context = {
        "slug": slug,
        "piece": piece,
        "span": span,
        "offers": offers(fitter, site, piece, span) if span else [],
        "revision": revision,
        "page_path": request.GET.get("page", ""),
        "width": request.GET.get("width", ""),
        "select": request.GET.get("select", ""),
    }
    return render(request, "studio/workbench/remedies.html", context)
