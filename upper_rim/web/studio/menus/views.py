"""The menus of a site; one menu as visitors will see it, beside the site's own pages and as text."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlencode

from django.http import HttpRequest

from ....core.exchange.html.places import PlaceInPage, places_in
from ....core.exchange.menu_text import MenuText
from ....core.findings.checks.parts.menus import in_menu, two_buttons
from ....core.findings.words import finding_words
from ....core.kinds.entries import Entry
from ....core.kinds.items.links import LinkList
from ....core.kinds.items.menu import MenuItem
from ....core.kinds.pieces.base import Piece
from ....core.model.navigation.hanging import Hanging, Where
from ....core.model.navigation.links import Links
from ....core.model.navigation.menu_uses import MenuUse, longest_labels, pages_in_no_menu, uses
from ....core.model.navigation.menus import Menus, all_entries
from ....core.model.site import Menu, Page, Site
from ....core.values.targets import ToPage, ToPlace
from ....core.values.words import Words
from ... import wall
from ...sites import contents
from ...sites.looking import ids_of_content
from ...sites.rules import rules_of
from ..controls.control import languages_of
from ..controls.of_entries import entry_groups, entry_name
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..forms.menus import told_of
from ..forms.new_nodes import navigations_of
from ..words.languages import language_name
from .page_tree import page_tree
from .stages import menu_stage

GROWS_ORDERS = (("path", "their paths"), ("title", "their titles"), ("newest", "their dates, newest first"))
MOST_OFFERED = 300


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


@screen("studio/menus/menu.html", "menus")
def menu(request: HttpRequest, opened: Opened, menu_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    found = site.menu(menu_id)
    if found is None:
        raise Redirected(site_url("menus", opened))
    links, grown = Links(site), Menus(site)
    hanging = Hanging(site, found, grown)
    # What is added does not become the chosen one: the next would go below it.
    doubled = made[0] if made and request.POST.get("do") == "duplicate" else ""
    select = doubled or request.POST.get("select") or request.GET.get("select") or ""
    chosen = hanging.own.get(select) or next(
        (hanging.own[place.entry] for place in hanging.places(select) if not place.grows_in), None
    )
    names = {found.id: found.name} | {one.id: links.label(one, site.language) for one in all_entries(hanging.whole)}
    findings = [
        (one.node, finding_words(one, names.__getitem__)) for one in in_menu(found, site, grown, links, _ids_of)
    ]
    shown_by = uses(found, site)
    languages = [site.language, *languages_of(site)]
    kept = {name: request.POST.get(name) or request.GET.get(name) or "" for name in ("lang", "open", "q", "as")}
    language = kept["lang"] if kept["lang"] in languages else site.language
    return {
        "menu": found,
        "holder": chosen or found,
        "count": len(hanging.numbers),
        "findings": [(node, names[node], words) for node, words in findings],
        "uses": _told_uses(shown_by, names),
        "rivals": [
            finding_words(one, str)
            for one in two_buttons(site)
            if {one.node, one.other} & {use.item.id for use in shown_by}
        ],
        "longest": [] if chosen else _longest(hanging, links, languages),
        "languages": [(tag, language_name(tag), tag == language) for tag in languages],
        "language": language,
        "select": select,
        "kept": kept,
        "place": urlencode({name: value for name, value in kept.items() if value}),
        "unopened": urlencode({name: value for name, value in kept.items() if value and name != "open"}),
        "is_table": kept["as"] == "table",
        **_chosen(chosen, select, hanging, links),
        **(_edited(chosen, hanging, links, findings, site) if chosen else {}),
        **(_hand(chosen, hanging, links, language) if chosen else {}),
        **page_tree(hanging, links, findings, select, kept["q"], kept["open"]),
        **menu_stage(site, found, language, chosen.id if chosen else select, rules_of(opened.stored.pk)),
        **_as_text(request, site, found, as_table=kept["as"] == "table"),
        "grows_orders": GROWS_ORDERS,
        "left_out": _left_out(chosen or found, links),
    }


def _longest(hanging: Hanging, links: Links, languages: list[str]) -> list[tuple[str, str, str]]:
    found = longest_labels(hanging.whole, links, languages)
    return [(language_name(tag), label, node) for tag, label, node in found]


def _chosen(chosen: Entry | None, select: str, hanging: Hanging, links: Links) -> dict[str, Any]:
    """What is chosen: an entry made by hand, or a page that has none; and how many pages could grow from it."""
    page = _page_of(chosen, links)
    return {
        "chosen": chosen,
        "chosen_page": None if chosen else links.pages.get(select),
        "chosen_path": page.path if page else "",
        "chosen_leads_to": page.id if page else "",
        "chosen_below": hanging.below(page.id if page else select),
        "chosen_grows": any(place.grows_in for place in hanging.places(select)),
        "places": _places(page),
    }


def _edited(
    chosen: Entry, hanging: Hanging, links: Links, findings: list[tuple[str, str]], site: Site
) -> dict[str, Any]:
    return {
        "chosen_number": hanging.numbers[chosen.id],
        "chosen_name": entry_name(chosen, links, site.language),
        "chosen_findings": [words for node, words in findings if node == chosen.id],
        "groups": entry_groups(chosen, site),
    }


def _told_uses(shown_by: list[MenuUse], names: dict[str, str]) -> list[tuple[Piece, MenuItem | LinkList, str]]:
    """Once for each piece and what it shows of the menu."""
    told: dict[tuple[str, str], tuple[Piece, MenuItem | LinkList, str]] = {}
    for piece, item in shown_by:
        said = use_words(item, names)
        told.setdefault((piece.id, said), (piece, item, said))
    return list(told.values())


def _hand(chosen: Entry, hanging: Hanging, links: Links, language: str) -> dict[str, Any]:
    """What is changed where the entry stands on the menu: its words in the language that is looked at, and what comes
    after it and below it."""
    own = chosen.label.text if language == hanging.language else _translation(chosen.label, language)
    spots: tuple[tuple[Where, str], ...] = (("after", "after"), ("below", "below"))
    return {
        "said_here": own,
        "shown_here": links.label(chosen, language),
        "hand_spots": [(name, *hanging.spot(chosen.id, where)) for where, name in spots],
    }


def _translation(words: Words, language: str) -> str:
    return next((one.text for one in words.translations if one.language == language), "")


def _as_text(request: HttpRequest, site: Site, menu: Menu, *, as_table: bool) -> dict[str, Any]:
    """The menu as a list or a table, with the navigation of a page as lines to go on with, where one is asked for."""
    texts = MenuText(site)
    written = texts.written(menu)
    from_path = request.GET.get("from", "").strip()
    page = next((page for page in site.pages if page.path.rstrip("/") == from_path.rstrip("/")), None)
    offered = navigations_of(page)[:8] if page and from_path else []
    return {
        "text": texts.table(menu) if as_table else written,
        "told": told_of(written),
        "text_ways": (("List", not as_table, "list"), ("Table", as_table, "table")),
        "from_path": from_path,
        "source": page if from_path else None,
        "navigations": [(at, one, texts.navigation(one.entries)) for at, one in enumerate(offered)],
    }


def _ids_of(page: Page) -> frozenset[str]:
    return ids_of_content(page.content, page.encoding) if page.content else frozenset()


def _page_of(entry: Entry | None, links: Links) -> Page | None:
    """The page that an entry leads to."""
    target = entry.target if entry else None
    return links.pages.get(target.page) if isinstance(target, ToPage | ToPlace) else None


def _places(page: Page | None) -> list[PlaceInPage]:
    if page is None or not page.content:
        return []
    return wall.read_or([], places_in, contents.read_content(page.content), page.encoding)


def _left_out(holder: Menu | Entry, links: Links) -> list[tuple[str, str]]:
    """Pages that do not grow there: ids and titles."""
    pages = [links.pages[page] for page in (holder.grows.without if holder.grows else ()) if page in links.pages]
    return [(page.id, page.title or page.path) for page in pages]


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
