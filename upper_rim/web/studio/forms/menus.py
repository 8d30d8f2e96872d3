"""Which edit does a form of a menu's screen mean: a page put in or taken out, an entry let go beside another, a text?"""

from __future__ import annotations

import hashlib
from collections.abc import Callable
from typing import cast

from django.http import QueryDict

from ....core.exchange.menu_text import MenuText
from ....core.model.editing.edits import Together
from ....core.model.navigation.hanging import Hanging, Where
from ....core.model.navigation.menus import Menus
from ....core.model.site import Menu, Page, Site
from ...sites import ids
from .form_error import FormError, NotThere, Posted


def _toggle(site: Site, post: QueryDict) -> Posted:
    return Posted(_hanging(site, post).toggled(_page(site, post), ids.new_id))


def _grow(site: Site, post: QueryDict) -> Posted:
    return Posted(_hanging(site, post).growing(_page(site, post), ids.new_id))


def _put(site: Site, post: QueryDict) -> Posted:
    """`put:before`, `put:after` or `put:below` another entry."""
    where = post["do"].partition(":")[2]
    if where not in {"before", "after", "below"}:
        raise ValueError(where)
    hanging = _hanging(site, post)
    what, beside = post["node"], post.get("beside", "")
    if what not in hanging.own and not any(page.id == what for page in site.pages):
        raise NotThere(what)
    return Posted(hanging.put(what, beside, cast(Where, where), ids.new_id))


def _text(site: Site, post: QueryDict) -> Posted:
    """The whole menu as text. One that was begun on another state of the menu is not taken: what came in between would
    be gone."""
    menu, texts = _menu(site, post), MenuText(site)
    if post.get("told") and post["told"] != told_of(texts.written(menu)):
        raise FormError(
            menu.id,
            "text",
            "the menu has changed meanwhile. Your text is still here: carry over what is new above, then keep it",
        )
    read = texts.read(post.get("value", "").replace("\r\n", "\n"), menu, ids.new_id)
    if read.faults:
        raise FormError(menu.id, "text", read.faults[0].why, read.faults[0].line)
    return Posted(read.edit or Together(edits=()))


def told_of(text: str) -> str:
    """What a text is known by, short."""
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def _hanging(site: Site, post: QueryDict) -> Hanging:
    return Hanging(site, _menu(site, post), Menus(site))


def _menu(site: Site, post: QueryDict) -> Menu:
    menu = site.menu(post["menu"])
    if menu is None:
        raise NotThere(post["menu"])
    return menu


def _page(site: Site, post: QueryDict) -> Page:
    page = next((page for page in site.pages if page.id == post["page"]), None)
    if page is None:
        raise NotThere(post["page"])
    return page


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "hang": _toggle,
    "grow": _grow,
    "put": _put,
    "menu-text": _text,
}
