"""How long is a phone's screen once the menu is opened on it? Asked by itself, when the screen is there."""

from __future__ import annotations

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.fit.advice.opened import OpenedDrawer, all_opened
from ....core.kinds.items.menu import MenuItem
from ....core.model.navigation.menu_uses import uses
from ....core.model.site import Menu, Site
from ...sites import store
from ...sites.access import site_of
from ...sites.fitters import site_fitter

PHONE = (390, 844)


def opened(request: HttpRequest, slug: str, menu_id: str) -> HttpResponse:
    stored = site_of(request.user, slug)
    site = site_fitter(stored.pk).resolved(store.load(stored.pk).site)
    menu = site.menu(menu_id)
    if menu is None:
        raise Http404
    asked = request.GET.get("lang", "")
    language = asked if asked in site.languages else site.language
    context = {"drawer": _longest(stored.pk, site, menu, language), "slug": slug}
    return render(request, "studio/menus/menu_opened.html", context)


def _longest(site_id: int, site: Site, menu: Menu, language: str) -> tuple[str, OpenedDrawer] | None:
    """The piece in which it is longest, and how long; None where no button opens it on a phone."""
    fitter = site_fitter(site_id)
    found = [
        (piece.id, one)
        for piece, item in uses(menu, site)
        if isinstance(item, MenuItem) and item.has_button
        for row in site.shown_rows(piece)
        if any(item in cell.items for cell in row.cells)
        for one in all_opened(fitter, site, piece, row, language)
        if one.menu == item.id and one.screen == PHONE
    ]
    return max(found, key=lambda one: one[1].whole_px, default=None)
