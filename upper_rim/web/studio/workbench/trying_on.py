"""What is tried on at the workbench: a remedy for a failure of fit, or another arrangement of the piece."""

from __future__ import annotations

from urllib.parse import urlencode

from django.http import HttpRequest

from ....core.kinds.pieces.base import Piece
from ....core.model.editing.edits import Edit
from ....core.model.rearranging import arrangements_for
from ...sites.fitters import site_fitter
from ..cycle.notices import StudioNotice
from ..cycle.screen import Opened, Redirected, site_url
from ..preview.fitting import asked_span, offers, resolved_piece, spans_of
from ..preview.trials import begin, ended
from .rearranging import ARRANGED, arranged


def tried_on(request: HttpRequest, opened: Opened, piece: Piece) -> StudioNotice | None:
    """Something is tried on, kept or taken off, and the workbench shown as it is then; a notice where that cannot
    be."""
    asked = request.POST.get("trial", "") if request.method == "POST" else ""
    if not asked:
        return None
    if asked in {"keep", "off"}:
        notice = ended(opened, asked)
        if notice is not None:
            return notice
    else:
        key = asked.removeprefix(ARRANGED)
        found = _remedy(request, opened, piece, asked) if key == asked else _arrangement(opened, piece, key)
        if found is None:
            return StudioNotice("That cannot be tried on any more: the piece has changed meanwhile.", True)
        begin(opened, *found)
    place = {name: request.POST.get(name, "") for name in ("page", "select", "width", "tray", "failure")}
    raise Redirected(site_url("workbench", opened, piece.id) + "?" + urlencode({k: v for k, v in place.items() if v}))


def _arrangement(opened: Opened, piece: Piece, key: str) -> tuple[str, Edit] | None:
    edit = arranged(opened.site, piece, key)
    return (arrangements_for(piece)[key].name, edit) if edit else None


def _remedy(request: HttpRequest, opened: Opened, piece: Piece, key: str) -> tuple[str, Edit] | None:
    fitter = site_fitter(opened.stored.pk)
    site, piece = resolved_piece(fitter, opened.site, piece)
    span = asked_span(request, spans_of(site, piece, fitter.rows(site, piece)))
    listed = offers(fitter, site, piece, span) if span else []
    found = next((offer for offer in listed if offer.key == key), None)
    return (found.words, found.remedy.edit) if found and found.remedy.edit else None
