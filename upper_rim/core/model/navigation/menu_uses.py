"""Where are a site's menus shown, which pages are in none, and what are a menu's longest labels?"""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

from ...kinds.entries import Entry
from ...kinds.items.links import LinkList
from ...kinds.items.menu import MenuItem
from ...kinds.pieces.base import Piece
from ...values.targets import ToPage, ToPlace
from ..site import Menu, Page, Site
from .links import Links
from .menus import Menus, all_entries


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
        longest, node = "", ""
        for entry in listed:
            label = links.label(entry, language)
            if len(label) > len(longest):
                longest, node = label, entry.id
        if longest:
            found.append((language, longest, node))
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
