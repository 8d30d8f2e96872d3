"""On which page is a menu looked at, in its row and in what its button opens?"""

from __future__ import annotations

from typing import Any
from urllib.parse import quote, urlencode

from ....core.kinds.items.menu import MenuItem
from ....core.model.editing.rules import Rules
from ....core.model.navigation.menu_uses import uses
from ....core.model.site import Menu, Page, Site
from ....core.reach.begun import begun
from ....core.reach.coverage import coverage_of
from ...live.stage import ARRANGEMENT, MENU
from ..forms.numbers import PHONE_PX, USUAL_PX


def menu_stage(site: Site, menu: Menu, language: str, chosen: str, rules: Rules) -> dict[str, Any]:
    """The stage's page in a language, and what is chosen on it: the entry, else the item that shows the menu. Where
    nothing shows it, it is seen in a header that there could be."""
    page, item = _seen_on(site, menu, language)
    asked = ""
    if page is None:
        header = begun(site, "line", rules, menu.id)
        page = header.page if header else None
        asked = "?" + urlencode({ARRANGEMENT: "line", MENU: menu.id})
    return {
        "stage_page": quote(page.path if page else "/", safe="/%") + asked,
        "stage_node": chosen or (item.id if item else ""),
        "seen_on": page.path if page else "/",
        "has_button": item is None or (isinstance(item, MenuItem) and item.has_button),
        "width": USUAL_PX,
        "phone_px": PHONE_PX,
    }


def _seen_on(site: Site, menu: Menu, language: str) -> tuple[Page | None, Any]:
    """The front page, else the first page in the language, on which a piece shows the menu; of several pieces a menu
    comes before a list of links."""
    coverage = coverage_of(site)
    shown_by = sorted(uses(menu, site), key=lambda use: not isinstance(use.item, MenuItem))
    for use in shown_by:
        pages = (
            page
            for page, alike in zip(site.pages, coverage.in_order, strict=True)
            if use.piece.id in alike.shown and page.language == language
        )
        page = min(pages, key=lambda page: len(page.path), default=None)
        if page is not None:
            return page, use.item
    return None, None
