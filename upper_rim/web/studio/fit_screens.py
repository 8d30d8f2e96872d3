"""The fit study, the remedies of a failure, and trying one of them on."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote, urlencode

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.safestring import mark_safe

from ...core.fit.columns import measures
from ...core.fit.fitter import Fitter, stands_in_lines
from ...core.fit.opened import all_opened
from ...core.fit.targets import pressed_in, too_close
from ...core.model.site import AnyPiece, Piece, Site
from ..sites import store
from ..sites.access import site_of
from ..sites.fitters import site_fitter
from .asked_numbers import stage_width
from .fit_picture import lines_of, picture
from .fitting import (
    asked_span,
    grouped,
    measure_words,
    offers,
    opened_words,
    spans_of,
    target_words,
)
from .notices import Notice
from .screens import Elsewhere, Opened, screen, site_url
from .trials import begin, ended
from .viewing import looked_at


def tried_on(request: HttpRequest, opened: Opened, piece: Piece) -> Notice | None:
    """A remedy is tried on, kept or taken off, and the workbench shown as it is then; a notice where that cannot be."""
    asked = request.POST.get("trial", "") if request.method == "POST" else ""
    if not asked:
        return None
    if asked in {"keep", "off"}:
        notice = ended(opened, asked)
        if notice is not None:
            return notice
    else:
        fitter = site_fitter(opened.stored.pk)
        site, piece = _resolved(fitter, opened.site, piece)
        span = asked_span(request, spans_of(site, piece, fitter.rows(site, piece)))
        found = next((offer for offer in offers(fitter, site, piece, span) if offer.key == asked), None) if span else None  # fmt: skip
        if found is None or found.remedy.edit is None:
            return Notice("That would mend nothing any more: the piece has changed meanwhile.", True)
        begin(opened, found.words, found.remedy.edit)
    place = {name: request.POST.get(name, "") for name in ("page", "select", "width", "tray", "failure")}
    raise Elsewhere(site_url("workbench", opened, piece.id) + "?" + urlencode({k: v for k, v in place.items() if v}))


def _resolved(fitter: Fitter, site: Site, piece: Piece) -> tuple[Site, AnyPiece]:
    """Both with the widths of menus that depend on what their rows need."""
    resolved = fitter.resolved(site)
    return resolved, next(one for one in resolved.pieces if one.id == piece.id)


def mending(request: HttpRequest, slug: str, piece_id: str) -> HttpResponse:
    """What would mend the failure that is looked at; asked for by itself, since it takes a moment."""
    stored = site_of(request.user, slug)
    site, revision = store.load(stored.pk)
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        return HttpResponse(status=404)
    fitter = site_fitter(stored.pk)
    site, piece = _resolved(fitter, site, piece)
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
    return render(request, "studio/remedies.html", context)


@screen("studio/fit.html", "pieces")
def fit_study(request: HttpRequest, opened: Opened, piece_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        raise Elsewhere(site_url("pieces", opened))
    page = looked_at(request, site, piece)
    fitter = site_fitter(opened.stored.pk)
    site, piece = _resolved(fitter, site, piece)
    fits = fitter.rows(site, piece)
    spans = spans_of(site, piece, fits)
    rows = []
    for row in site.shown_rows(piece):
        own = [fit for fit in fits if fit.row == row.id]
        rows.append((row, mark_safe(picture(own, site.bands)), lines_of(own), grouped(site, piece, (span for span in spans if span.row == row.id and span.fails))))  # noqa: S308 # fmt: skip
    shown = [(row, fit) for row in site.shown_rows(piece) for fit in fits if fit.row == row.id]
    return {
        "piece": piece,
        "rows": rows,
        "drawers": opened_words(
            site, [one for row, fit in shown for one in all_opened(fitter, site, piece, row, fit.language)]
        ),
        "texts": measure_words(site, (one for _, fit in shown for one in measures(site, fit))),
        "targets": [
            target_words(site, one, fit.language) for row, fit in shown for one in too_close(fit, pressed_in(row))
        ],
        "page": page,
        "in_lines": stands_in_lines(piece),
        "stage_page": quote(page.path, safe="/%") if page else "",
        "width": stage_width(request.POST, request.GET),
    }
