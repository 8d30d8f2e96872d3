"""The menus of a site; one menu as a tree, with what is chosen in it and what is doubtful about it."""

from __future__ import annotations

from typing import Any, NamedTuple
from urllib.parse import urlencode

from django.http import HttpRequest

from ....core.exchange.html.places import PlaceInPage, ids_in, places_in
from ....core.exchange.imports.import_menu import Draft, entries_from, read_menu
from ....core.findings.checks.menus import in_menu, two_buttons
from ....core.findings.words import finding_words
from ....core.kinds.entries import Entry
from ....core.kinds.items.links import LinkList
from ....core.kinds.items.menu import MenuItem
from ....core.model.navigation.links import Links
from ....core.model.navigation.menu_uses import longest_labels, pages_in_no_menu, uses
from ....core.model.navigation.menus import Menus, all_entries, with_depth
from ....core.model.site import Menu, Page, Site
from ....core.values.targets import ToPage, ToPlace
from ...sites import contents, store
from ..controls.control import languages_of, target_in_words
from ..controls.of_entries import entry_groups, entry_name
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..forms.new_nodes import navigations_of
from ..words.languages import language_name

GROWS_ORDERS = (("path", "their paths"), ("title", "their titles"), ("newest", "their dates, newest first"))
MOST_OFFERED = 300
MOST_OPEN = 250
"""With no more entries than these, all branches are shown open."""


@screen("studio/menus/menus.html", "menus")
def menus(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if made and made[0].startswith("mn-"):
        raise Redirected(site_url("menu", opened, made[0]))
    site = opened.site
    grown, links = Menus(site), Links(site)
    listed = [
        (
            menu,
            sum(1 for _ in all_entries(grown.whole(menu))),
            list(dict.fromkeys(use.piece.name for use in uses(menu, site))),
            len(in_menu(menu, site, grown, links, _ids_of)),
        )
        for menu in site.menus
    ]
    return {"listed": listed, "left_over": pages_in_no_menu(site, grown)[:MOST_OFFERED] if site.menus else []}


class MenuLine(NamedTuple):
    """An entry of the tree. `grows`: it comes from a page, and has no place of its own. `below` is empty where the
    branch is shut; `held` tells how many entries it has all the same, and `twist` is the address that opens or shuts
    it."""

    entry: Entry
    parent: str
    says: str
    leads_to: str
    grows: bool
    holder: str
    doubts: list[str]
    held: int
    twist: str
    is_open: bool
    below: list[MenuLine]


@screen("studio/menus/menu_tree.html", "menus")
def menu(request: HttpRequest, opened: Opened, menu_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    found = site.menu(menu_id)
    if found is None:
        raise Redirected(site_url("menus", opened))
    links, grown = Links(site), Menus(site)
    whole = grown.whole(found)
    own = {entry.id: entry for entry in all_entries(found.entries)}
    # What is added does not become the chosen one: the next would go below it.
    doubled = made[0] if made and request.POST.get("do") == "duplicate" else ""
    chosen = own.get(doubled or request.POST.get("select") or request.GET.get("select") or "")
    told: dict[str, list[str]] = {}
    labels = {entry.id: links.label(entry, site.language) for entry in all_entries(whole)}
    names = {found.id: found.name, **labels}
    shown_by = uses(found, site)
    findings = [
        (one.node, finding_words(one, names.__getitem__)) for one in in_menu(found, site, grown, links, _ids_of)
    ]
    for node, words in findings:
        told.setdefault(node, []).append(words)
    count = len(labels)
    wanted = {part for part in request.GET.get("open", "").split(",") if part}
    open_branches = None if count <= MOST_OPEN else wanted | _way_to(whole, chosen.id if chosen else "")
    tree = _Tree(site, links, own, told, open_branches, chosen.id if chosen else "")
    languages = [site.language, *languages_of(site)]
    page = _page_of(chosen, links)
    return {
        "menu": found,
        "lines": tree.lines(whole, found.id, found.id),
        "chosen": chosen,
        "chosen_name": entry_name(chosen, links, site.language) if chosen else "",
        "groups": entry_groups(chosen, site) if chosen else [],
        "holder": chosen or found,
        "chosen_path": page.path if page else "",
        "left_out": _left_out(chosen or found, links),
        "grows_orders": GROWS_ORDERS,
        "places": _places(page),
        "count": count,
        "open": ",".join(sorted(wanted)),
        "findings": [(node, names[node], words) for node, words in findings],
        "uses": [(use.piece, use.item, use_words(use.item, names)) for use in shown_by],
        "rivals": [
            finding_words(one, str)
            for one in two_buttons(site)
            if {one.node, one.other} & {use.item.id for use in shown_by}
        ],
        "longest": [(language_name(tag), label, node) for tag, label, node in longest_labels(whole, links, languages)],
        **_missing(request, site, whole),
        **_reading(request, site, links),
    }


def _missing(request: HttpRequest, site: Site, whole: tuple[Entry, ...]) -> dict[str, Any]:
    """Pages that are not in the menu, those that were looked for."""
    listed = {entry.target.page for entry in all_entries(whole) if isinstance(entry.target, ToPage)}
    missing = [page for page in site.pages if page.id not in listed and page.language == site.language]
    typed = request.GET.get("q", "").strip().lower()
    if typed:
        missing = [page for page in missing if typed in page.path.lower() or typed in page.title.lower()]
    return {"missing": missing[:MOST_OFFERED], "missing_count": len(missing), "q": typed}


def _reading(request: HttpRequest, site: Site, links: Links) -> dict[str, Any]:
    """What a pasted text, or the navigation of a page, would become: seen before it goes in."""
    text = request.POST.get("text", "") if request.method == "POST" else ""
    from_path = request.GET.get("from", "").strip()
    context: dict[str, Any] = {"text": text if request.POST.get("do") != "add" else "", "from_path": from_path}
    if text and request.POST.get("preview"):
        entries, faults = entries_from(read_menu(text), site, store.new_id)
        context["preview"] = (_preview(entries, links, site), faults, sum(1 for _ in all_entries(entries)))
    if from_path:
        page = next((page for page in site.pages if page.path.rstrip("/") == from_path.rstrip("/")), None)
        context["source"] = page
        context["navigations"] = (
            [(at, one, _preview_drafts(one.entries)) for at, one in enumerate(navigations_of(page)[:8])] if page else []
        )
    return context


def _preview(entries: list[Entry], links: Links, site: Site) -> list[tuple[int, str, str]]:
    """Depth, label and where it leads, line by line."""
    return [
        (depth - 1, links.label(entry, site.language) or "(nothing)", target_in_words(entry.target, site))
        for entry, depth in with_depth(entries)
    ]


def _preview_drafts(drafts: list[Draft], depth: int = 0) -> list[tuple[int, str, str]]:
    lines: list[tuple[int, str, str]] = []
    for draft in drafts:
        lines.append((depth, draft.label, draft.leads_to))
        lines += _preview_drafts(draft.below, depth + 1)
    return lines


def _ids_of(page: Page) -> frozenset[str]:
    return ids_in(contents.read_content(page.content), page.encoding) if page.content else frozenset()


def _page_of(entry: Entry | None, links: Links) -> Page | None:
    """The page that an entry leads to."""
    target = entry.target if entry else None
    return links.pages.get(target.page) if isinstance(target, ToPage | ToPlace) else None


def _places(page: Page | None) -> list[PlaceInPage]:
    return places_in(contents.read_content(page.content), page.encoding) if page and page.content else []


def _left_out(holder: Menu | Entry, links: Links) -> list[tuple[str, str]]:
    """Pages that do not grow there: ids and titles."""
    pages = [links.pages[page] for page in (holder.grows.without if holder.grows else ()) if page in links.pages]
    return [(page.id, page.title or page.path) for page in pages]


def _way_to(entries: tuple[Entry, ...], node: str) -> set[str]:
    """Ids of the branches that an entry stands in, its own included."""
    for entry in entries:
        if entry.id == node:
            return {node}
        below = _way_to(entry.entries, node) if entry.entries else set()
        if below:
            return {entry.id, *below}
    return set()


class _Tree:
    def __init__(
        self,
        site: Site,
        links: Links,
        own: dict[str, Entry],
        told: dict[str, list[str]],
        open_branches: set[str] | None,
        chosen: str,
    ) -> None:
        self.site, self.links, self.own, self.told = site, links, own, told
        self.open_branches, self.chosen = open_branches, chosen

    def _twist(self, entry: Entry) -> str:
        if self.open_branches is None or not entry.entries:
            return ""
        wanted = ",".join(sorted(self.open_branches ^ {entry.id}))
        return "?" + urlencode({"open": wanted, **({"select": self.chosen} if self.chosen else {})})

    def lines(self, entries: tuple[Entry, ...], parent: str, holder: str) -> list[MenuLine]:
        """`holder`: what the entries would have to be left out of, where they grow."""
        lines = []
        for entry in entries:
            grows = entry.id not in self.own
            is_open = self.open_branches is None or entry.id in self.open_branches
            href, _ = self.links.resolve(entry.target, self.site.language)
            inner = holder if grows else entry.id
            lines.append(
                MenuLine(
                    entry,
                    parent,
                    self.links.label(entry, self.site.language),
                    (href or "").removeprefix("mailto:").removeprefix("tel:"),
                    grows,
                    holder,
                    self.told.get(entry.id, []),
                    len(entry.entries),
                    self._twist(entry),
                    is_open,
                    self.lines(entry.entries, entry.id, inner) if is_open else [],
                )
            )
        return lines


def use_words(item: MenuItem | LinkList, names: dict[str, str]) -> str:
    """How much of the menu an item shows."""
    said = [f"only below “{names.get(item.branch, 'what is gone')}”"] if item.branch else []
    if isinstance(item, MenuItem) and item.depth:
        said.append(f"{item.depth} level{'s' if item.depth > 1 else ''} deep")
    if isinstance(item, LinkList):
        said.append("its first level, as a list")
    if item.without:
        said.append("without " + ", ".join(f"“{names.get(one, 'what is gone')}”" for one in item.without))
    return "; ".join(said) or "whole"
