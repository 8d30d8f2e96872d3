"""What is wrong or doubtful about a menu?"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache
from itertools import combinations

from ....kinds.entries import Entry
from ....kinds.items.links import LinkList
from ....kinds.items.menu import MenuItem
from ....model.navigation.links import Links
from ....model.navigation.menu_uses import MenuUse
from ....model.navigation.menus import Menus, all_entries, with_depth
from ....model.site import Menu, Page, Site, drawer_width
from ....reach.reached import reached
from ....values.targets import Target, ToAddress, ToPage, ToPlace
from ...finding import Finding, FindingKind, SeenAt

DEEP = 3
"""More levels than these are hard to find one's way in."""

IdsOf = Callable[[Page], frozenset[str]]
"""The ids in a page's content."""


def in_menu(menu: Menu, site: Site, menus: Menus, links: Links, ids_of: IdsOf) -> list[Finding]:
    """Nodes are entries, or the menu itself. In the order of the entries. `ids_of` is asked only for pages in which a
    place is linked to."""

    @cache
    def known() -> set[str]:
        return {page.path.rstrip("/") for page in site.pages} | {asset.path for asset in site.assets}

    found = [one for entry in all_entries(menu.entries) for one in _lost(entry, known, links, ids_of)]
    found += _barren(menu, menus)
    whole = list(with_depth(menus.whole(menu)))
    targets: dict[str, str] = {}
    labels: dict[str, tuple[str, str]] = {}
    for entry, depth in whole:
        if depth == DEEP + 1:
            found.append(Finding("deep", entry.id))
        leads_to = _key(entry.target)
        if not leads_to:
            continue
        if leads_to in targets:
            found.append(Finding("double", entry.id, targets[leads_to]))
        targets.setdefault(leads_to, entry.id)
        label = links.label(entry, site.language).casefold()
        if label and labels.setdefault(label, (leads_to, entry.id))[0] != leads_to:
            found.append(Finding("same label", entry.id, labels[label][1]))
    order = {entry.id: at for at, (entry, _) in enumerate(whole)}
    return sorted(found, key=lambda one: order.get(one.node, -1))


def _lost(entry: Entry, known: Callable[[], set[str]], links: Links, ids_of: IdsOf) -> Iterator[Finding]:
    target = entry.target
    if isinstance(target, ToPage | ToPlace):
        page = links.pages.get(target.page)
        if page is None:
            yield Finding("page gone", entry.id)
        elif page.content is None:
            yield Finding("to come", entry.id, about={"path": page.path})
        elif isinstance(target, ToPlace) and target.place not in ids_of(page):
            yield Finding("no place", entry.id, about={"anchor": target.place})
    elif isinstance(target, ToAddress):
        path = target.address.partition("#")[0].partition("?")[0]
        if path.startswith("/") and path.rstrip("/") not in known():
            yield Finding("no page", entry.id, about={"path": path})
    elif not entry.entries and entry.grows is None:
        yield Finding("nothing", entry.id)


def _barren(menu: Menu, menus: Menus) -> Iterator[Finding]:
    """Branches in which pages are to grow, and none does."""
    whole = {entry.id: entry for entry in all_entries(menus.whole(menu))}
    holders: list[Menu | Entry] = [menu, *all_entries(menu.entries)]
    for holder in holders:
        if holder.grows is None:
            continue
        shown = menus.whole(menu) if isinstance(holder, Menu) else whole[holder.id].entries
        if len(shown) == len(holder.entries):
            yield Finding("nothing grows", holder.id, about={"path": holder.grows.path})


def _key(target: Target) -> str:
    match target:
        case ToPage(page=page):
            return page
        case ToPlace(page=page, place=place):
            return f"{page}#{place}"
        case ToAddress(address=address):
            return address
        case _:
            return ""


def two_buttons(site: Site) -> list[Finding]:
    """Two buttons that open menus on the same page, in the same width band: by which a visitor cannot tell which is
    which. Nodes are the items; the page is the first on which both show. Each pair once. A button shows below its
    menu's band."""
    openers = [
        MenuUse(piece, item)
        for piece in site.pieces
        for item in site.shown_items(piece)
        if isinstance(item, MenuItem) and drawer_width(item, site)
    ]
    pieces = {use.piece.id: use.piece.kind for use in openers}
    if len(openers) == len(pieces) and len(set(pieces.values())) < 2:
        # Of one kind only one piece shows in a band.
        return []
    found: dict[tuple[str, str], Finding] = {}
    from_px = {band.id: band.from_px for band in site.bands}
    stage_of = {
        item.id: row.stage
        for piece in site.pieces
        for row in site.shown_rows(piece)
        for cell in row.cells
        for item in cell.items
    }
    known = reached(site)
    for page, in_bands in known.kinds:
        for band, shown in zip(known.bands, in_bands, strict=True):
            there = [use for use in openers if use.piece.id in shown and _is_button(use.item, band, from_px, site)]
            for one, other in combinations(there, 2):
                if one.piece is other.piece and stage_of[one.item.id] != stage_of[other.item.id]:
                    # In any stage only one of them is there.
                    continue
                found.setdefault((one.item.id, other.item.id), _two(one, other, page, band))
    return list(found.values())


def _two(one: MenuUse, other: MenuUse, page: Page, band: str | None) -> Finding:
    first, second = sorted((one.piece.name, other.piece.name))
    about = {"first": first, "second": second, "path": page.path}
    kind: FindingKind = "two buttons in one" if first == second else "two buttons"
    return Finding(kind, one.item.id, other.item.id, about, SeenAt(page=page.id, band=band))


def _is_button(item: MenuItem | LinkList, band: str | None, from_px: dict[str, int], site: Site) -> bool:
    below = drawer_width(item, site) if isinstance(item, MenuItem) else None
    return below is not None and band not in item.hidden_in and from_px.get(band or "", 0) < below
