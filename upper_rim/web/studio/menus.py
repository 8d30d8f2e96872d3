"""The menus of a site, and one menu as a tree."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.http import HttpRequest

from ...core.model.items import MenuItem
from ...core.model.links import Links
from ...core.model.site import Entry, Menu, Site
from ...core.model.tree import walk
from .control import languages_of, target_in_words
from .screens import Elsewhere, Opened, screen, site_url

MOST_OFFERED = 300


@screen("studio/menus.html", "menus")
def menus(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if made and made[0].startswith("mn-"):
        raise Elsewhere(site_url("menu", opened, made[0]))
    listed = [(menu, sum(1 for _ in walk(menu)), _users(opened.site, menu)) for menu in opened.site.menus]
    return {"listed": listed}


def _users(site: Site, menu: Menu) -> list[str]:
    return [
        piece.name
        for piece in site.pieces
        if any(isinstance(node, MenuItem) and node.menu == menu.id for node in walk(piece))
    ]


@dataclass(frozen=True)
class EntryLine:
    """An entry of the tree, with what it says and where it leads."""

    entry: Entry
    depth: int
    parent: str
    leads_to: str
    own_label: str
    title: str
    translations: list[tuple[str, str]]
    lost: bool
    below: list[EntryLine]


@screen("studio/menu_tree.html", "menus")
def menu(request: HttpRequest, opened: Opened, menu_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    found = site.menu(menu_id)
    if found is None:
        raise Elsewhere(site_url("menus", opened))
    links = Links(site)
    listed = {node.target.page for node in walk(found) if isinstance(node, Entry) and node.target.kind == "page"}
    missing = [page for page in site.pages if page.id not in listed and page.language == site.language]
    typed = request.GET.get("q", "").strip().lower()
    if typed:
        missing = [page for page in missing if typed in page.path.lower() or typed in page.title.lower()]
    return {
        "menu": found,
        "lines": _lines(found.entries, found.id, site, links, 0),
        "missing": missing[:MOST_OFFERED],
        "missing_count": len(missing),
        "q": typed,
        "languages": languages_of(site),
        "users": _users(site, found),
        "entry_count": sum(1 for _ in walk(found)),
    }


def _lines(entries: tuple[Entry, ...], parent: str, site: Site, links: Links, depth: int) -> list[EntryLine]:
    lines = []
    for entry in entries:
        _, page = links.resolve(entry.target, site.language)
        translations = [
            (language, next((t.text for t in entry.label.translations if t.language == language), ""))
            for language in languages_of(site)
        ]
        lines.append(
            EntryLine(
                entry,
                depth,
                parent,
                target_in_words(entry.target, site),
                entry.label.text,
                (page.title or page.path) if page else "",
                translations,
                entry.target.kind == "page" and page is None,
                _lines(entry.entries, entry.id, site, links, depth + 1),
            )
        )
    return lines
