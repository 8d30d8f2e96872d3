"""What is wrong or doubtful about a menu, and what is worth knowing of it?"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from functools import cache
from itertools import combinations
from typing import Literal, NamedTuple

from ..kinds.entries import Entry
from ..kinds.items.links import LinkList
from ..kinds.items.menu import MenuItem
from ..kinds.pieces.base import Piece
from ..model.links import Links
from ..model.menus import Menus, all_entries, with_depth
from ..model.site import Menu, Page, Site, drawer_width
from ..reach.coverage import Coverage
from ..values.targets import Target, ToAddress, ToPage, ToPlace

DEEP = 3
"""More levels than these are hard to find one's way in."""
MenuDoubtKind = Literal["no page", "to come", "no place", "nothing", "double", "same label", "deep", "nothing grows"]


class MenuDoubt(NamedTuple):
    """About an entry. `other`: the entry that it is like, or, for what leads nowhere, where it was to lead."""

    node: str
    kind: MenuDoubtKind
    other: str = ""


IdsOf = Callable[[Page], frozenset[str]]
"""The ids in a page's content."""


def menu_doubts(menu: Menu, site: Site, menus: Menus, links: Links, ids_of: IdsOf) -> list[MenuDoubt]:
    """In the order of the entries. `ids_of` is asked only for pages in which a place is linked to."""

    @cache
    def known() -> set[str]:
        return {page.path.rstrip("/") for page in site.pages} | {asset.path for asset in site.assets}

    found = [doubt for entry in all_entries(menu.entries) for doubt in _lost(entry, known, links, ids_of)]
    found += _barren(menu, menus)
    whole = list(with_depth(menus.whole(menu)))
    targets: dict[str, str] = {}
    labels: dict[str, tuple[str, str]] = {}
    for entry, depth in whole:
        if depth == DEEP + 1:
            found.append(MenuDoubt(entry.id, "deep"))
        leads_to = _key(entry.target)
        if not leads_to:
            continue
        if leads_to in targets:
            found.append(MenuDoubt(entry.id, "double", targets[leads_to]))
        targets.setdefault(leads_to, entry.id)
        label = links.label(entry, site.language).casefold()
        if label and labels.setdefault(label, (leads_to, entry.id))[0] != leads_to:
            found.append(MenuDoubt(entry.id, "same label", labels[label][1]))
    order = {entry.id: at for at, (entry, _) in enumerate(whole)}
    return sorted(found, key=lambda doubt: order.get(doubt.node, -1))


def _lost(entry: Entry, known: Callable[[], set[str]], links: Links, ids_of: IdsOf) -> Iterator[MenuDoubt]:
    target = entry.target
    if isinstance(target, ToPage | ToPlace):
        page = links.pages.get(target.page)
        if page is None:
            yield MenuDoubt(entry.id, "no page")
        elif page.content is None:
            yield MenuDoubt(entry.id, "to come", page.path)
        elif isinstance(target, ToPlace) and target.place not in ids_of(page):
            yield MenuDoubt(entry.id, "no place", target.place)
    elif isinstance(target, ToAddress):
        path = target.address.partition("#")[0].partition("?")[0]
        if path.startswith("/") and path.rstrip("/") not in known():
            yield MenuDoubt(entry.id, "no page", path)
    elif not entry.entries and entry.grows is None:
        yield MenuDoubt(entry.id, "nothing")


def _barren(menu: Menu, menus: Menus) -> Iterator[MenuDoubt]:
    """Branches in which pages are to grow, and none does."""
    whole = {entry.id: entry for entry in all_entries(menus.whole(menu))}
    holders: list[Menu | Entry] = [menu, *all_entries(menu.entries)]
    for holder in holders:
        if holder.grows is None:
            continue
        shown = menus.whole(menu) if isinstance(holder, Menu) else whole[holder.id].entries
        if len(shown) == len(holder.entries):
            yield MenuDoubt(holder.id, "nothing grows", holder.grows.path)


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


class MenuUse(NamedTuple):
    """An item that shows a menu, or a part of it."""

    piece: Piece
    item: MenuItem | LinkList


def uses(menu: Menu, site: Site) -> list[MenuUse]:
    return [
        MenuUse(piece, item)
        for piece in site.pieces
        for row in piece.rows
        for cell in row.cells
        for item in cell.items
        if isinstance(item, MenuItem | LinkList) and item.menu == menu.id
    ]


def longest_labels(entries: Iterable[Entry], links: Links, languages: Iterable[str]) -> list[tuple[str, str, str]]:
    """For each language the longest label: the language, the label, the entry's id."""
    listed = list(all_entries(entries))
    found = []
    for language in languages:
        labels = ((links.label(entry, language), entry.id) for entry in listed)
        label, node = max(labels, key=lambda one: len(one[0]), default=("", ""))
        if label:
            found.append((language, label, node))
    return found


def pages_in_no_menu(site: Site, menus: Menus) -> list[Page]:
    """Pages in the site's own language that no menu leads to; translations follow what they translate."""
    listed = {
        entry.target.page
        for menu in site.menus
        for entry in all_entries(menus.whole(menu))
        if isinstance(entry.target, ToPage | ToPlace)
    }
    return [page for page in site.pages if page.language == site.language and page.id not in listed]


class Rivals(NamedTuple):
    """Two buttons that open menus on the same page, in the same width band: by which a visitor cannot tell which is
    which. `page` is the first on which both show."""

    one: MenuUse
    other: MenuUse
    page: Page
    band: str | None


def rival_buttons(site: Site) -> list[Rivals]:
    """Each pair once. A button shows below its menu's band."""
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
    found: dict[tuple[str, str], Rivals] = {}
    from_px = {band.id: band.from_px for band in site.bands}
    stage_of = {
        item.id: row.stage
        for piece in site.pieces
        for row in site.shown_rows(piece)
        for cell in row.cells
        for item in cell.items
    }
    coverage = Coverage(site)
    for page, slots in coverage.kinds_of_pages():
        for at, band in enumerate(coverage.bands):
            shown = {piece.id for outcomes in slots.values() if (piece := outcomes[at].piece) is not None}
            there = [use for use in openers if use.piece.id in shown and _is_button(use.item, band, from_px, site)]
            for one, other in combinations(there, 2):
                if one.piece is other.piece and stage_of[one.item.id] != stage_of[other.item.id]:
                    # In any stage only one of them is there.
                    continue
                found.setdefault((one.item.id, other.item.id), Rivals(one, other, page, band))
    return list(found.values())


def _is_button(item: MenuItem | LinkList, band: str | None, from_px: dict[str, int], site: Site) -> bool:
    below = drawer_width(item, site) if isinstance(item, MenuItem) else None
    return below is not None and band not in item.hidden_in and from_px.get(band or "", 0) < below
