"""The fit study: each row of a piece over all widths, in every language."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote

from django.http import HttpRequest

from ....core.findings.checks.laid_out.fit import ill_measured, too_small
from ....core.fit.advice.opened import all_opened
from ....core.fit.rows.fitter import stands_in_lines
from ...sites.fitters import site_fitter
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..forms.numbers import stage_width
from ..preview.fitting import (
    bar_words,
    grouped,
    measure_words,
    opened_words,
    resolved_piece,
    said_in_language,
    spans_of,
)
from ..preview.svg import for_template
from ..preview.viewing import looked_at
from .picture import lines_of, row_picture


@screen("studio/fit/fit.html", "pieces")
def fit_study(request: HttpRequest, opened: Opened, piece_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        raise Redirected(site_url("pieces", opened))
    page = looked_at(request, site, piece)
    fitter = site_fitter(opened.stored.pk)
    site, piece = resolved_piece(fitter, site, piece)
    fits = fitter.rows(site, piece)
    spans = spans_of(site, piece, fits)
    rows = []
    for row in site.shown_rows(piece):
        own = [fit for fit in fits if fit.row == row.id]
        failing = (span for span in spans if span.row == row.id and span.fails)
        drawn = for_template(row_picture(own, site.bands))
        rows.append((row, drawn, lines_of(own), grouped(site, piece, failing)))
    shown = [(row, fit) for row in site.shown_rows(piece) for fit in fits if fit.row == row.id]
    return {
        "piece": piece,
        "rows": rows,
        "drawers": opened_words(
            site, [one for row, fit in shown for one in all_opened(fitter, site, piece, row, fit.language)]
        ),
        "texts": measure_words(site, (one for _, fit in shown for one in ill_measured(site, fit))),
        "targets": [said_in_language(one, site) for row, fit in shown for one in too_small(row, fit)],
        "beside_bars": bar_words(fitter, site, piece, fits),
        "page": page,
        "in_lines": stands_in_lines(piece),
        "stage_page": quote(page.path, safe="/%") if page else "",
        "width": stage_width(request.POST, request.GET),
    }
