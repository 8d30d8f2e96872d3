"""What is a site to somebody who knows no password? The same without what is locked: nothing that is made of it can tell
of that.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TypeVar

from ..kinds.entries import Branch, Entry
from ..kinds.items.base import Leads
from ..model.site import Page, Site
from ..model.tree import items_of
from ..values.targets import ToPage, ToPlace
from .guards import Guards

Kind = TypeVar("Kind", bound=Branch)


def open_site(site: Site, guards: Guards | None) -> Site:
    """The very site where nothing is locked. Entries of menus that lead to something locked are left out with all below
    them; what else leads there keeps its address, for a door must be found, and knows no more of it."""
    if guards is None or not guards.locks:
        return site
    locked = {page.id: page for page in site.pages if guards.is_locked(page.path)}
    if not locked:
        return site.replaced(assets=tuple(one for one in site.assets if not guards.is_locked(one.path)))
    targets = (item.target for item in items_of(site.pieces) if isinstance(item, Leads))
    doors = {target.page for target in targets if isinstance(target, ToPage | ToPlace) and target.page in locked}
    pages = tuple(
        _door(page) if page.id in doors else page for page in site.pages if page.id not in locked or page.id in doors
    )
    return site.replaced(
        pages=pages,
        assets=tuple(one for one in site.assets if not guards.is_locked(one.path)),
        menus=tuple(_opened(menu, locked, sorted(doors)) for menu in site.menus),
    )


def _door(page: Page) -> Page:
    """An address, and nothing else. It is published by nobody who has only this."""
    return Page(
        id=page.id, path=page.path, language=page.language, translates=page.translates, also=page.also, bare=True
    )


def _opened(branch: Kind, locked: Mapping[str, Page], doors: Sequence[str]) -> Kind:
    """Without the entries that lead to what is locked. Of pages that are gone none grow."""
    entries = tuple(_opened(one, locked, doors) for one in branch.entries if not _leads_in(one, locked))
    grows = branch.grows and branch.grows.replaced(without=(*branch.grows.without, *doors))
    return branch.replaced(entries=entries, grows=grows)


def _leads_in(entry: Entry, locked: Mapping[str, Page]) -> bool:
    return isinstance(entry.target, ToPage | ToPlace) and entry.target.page in locked
