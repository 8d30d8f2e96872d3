"""What would mend a failure of fit; and what is tried on: one of these remedies, or another arrangement."""

from __future__ import annotations

from urllib.parse import urlencode

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.kinds.pieces.base import Piece
from ....core.model.rearranging import arrangements_for
from ...sites import store
from ...sites.access import site_of
from ...sites.fitters import site_fitter
from ..cycle.notices import StudioNotice
from ..cycle.screen import Opened, Redirected, site_url
from ..preview.fitting import asked_span, offers, resolved_piece, spans_of
from ..preview.trials import begin, ended
from .rearranging import ARRANGED, arranged


def tried_on(request: HttpRequest, opened: Opened, piece: Piece) -> StudioNotice | None:
    """Something is tried on, kept or taken off, and the workbench shown as it is then; a notice where that cannot be."""
    asked = request.POST.get("trial", "") if request.method == "POST" else ""
    if not asked:
        return None
    if asked in {"keep", "off"}:
        notice = ended(opened, asked)
        if notice is not None:
            return notice
    elif asked.startswith(ARRANGED):
        key = asked.removeprefix(ARRANGED)
        edit = arranged(opened.site, piece, key)
        if edit is None:
            return StudioNotice("It cannot stand like that any more: the piece has changed meanwhile.", True)
        begin(opened, arrangements_for(piece)[key].name, edit)
    else:
        fitter = site_fitter(opened.stored.pk)
        site, piece = resolved_piece(fitter, opened.site, piece)
        span = asked_span(request, spans_of(site, piece, fitter.rows(site, piece)))
        found = (
            next((offer for offer in offers(fitter, site, piece, span) if offer.key == asked), None) if span else None
        )
        if found is None or found.remedy.edit is None:
            return StudioNotice("That would mend nothing any more: the piece has changed meanwhile.", True)
        begin(opened, found.words, found.remedy.edit)
    place = {name: request.POST.get(name, "") for name in ("page", "select", "width", "tray", "failure")}
    raise Redirected(site_url("workbench", opened, piece.id) + "?" + urlencode({k: v for k, v in place.items() if v}))


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
