"""What is the HTML of a search field, and of the page that lists what was found?"""

from __future__ import annotations

from collections.abc import Iterable
from html import escape
from typing import TYPE_CHECKING

from ..exchange.markers import marked
from ..languages import phrase
from ..model.items import SearchBox
from .search_index import Hit

if TYPE_CHECKING:
    from .item_html import Scene

RESULTS = "/search/"
MOST_LISTED = 300


def results_path(language: str, site_language: str) -> str:
    """Where the page of results in a language stands."""
    return RESULTS if language == site_language else f"{RESULTS}{language}/"


def search_html(item: SearchBox, scene: Scene) -> str:
    """A search landmark where pieces come first; below, only a form, so that landmarks stay few and unlike."""
    words = escape(item.words.in_language(scene.language) or phrase("search", scene.language), quote=True)
    field_id = scene.html_id(f"{item.id}-field")
    icon = f'<span class="{scene.name("icon")} {scene.name("icon-search")}"></span>'
    found = escape(phrase("found", scene.language, "{0}"), quote=True)
    action = escape(results_path(scene.language, scene.site.language), quote=True)
    index = escape(scene.index_path, quote=True)
    landmark = ' role="search"' if scene.early else ""
    return (
        f"<div {scene.attributes(item, 'block', 'search', item.id)}>"
        f'<form{landmark} action="{action}" class="{scene.name("asking")}" data-rim-search="{index}" data-rim-late="{scene.late.get("search", "")}">'
        f'<input class="{scene.name("field")}" id="{field_id}" type="search" name="q" autocomplete="off" aria-label="{words}" placeholder="{words}">'
        f'<button class="{scene.name("link")}" aria-label="{words}">{icon}</button></form>'
        f'<div class="{scene.name("found")}" hidden><p role="status" data-rim-words="{found}"></p>'
        '<ul role="list"></ul></div></div>'
    )


def results_body(language: str, index_path: str, pages: Iterable[Hit]) -> str:
    """The page of results before anything was asked: all pages. What was found takes the place of what is marked."""
    title = escape(phrase("search", language))
    return (
        f'<h1>{title}</h1>\n<form><input type="search" name="q" aria-label="{title}"> <button>{title}</button></form>\n'
        f"{marked('found', results_list(pages, index_path))}\n"
    )


def results_list(hits: Iterable[Hit], index_path: str, told: str = "") -> str:
    listed = "".join(
        f'<li><a href="{escape(hit.path, quote=True)}">{escape(hit.title or hit.path)}</a></li>' for hit in hits
    )
    index = escape(index_path, quote=True)
    return f'<p role="status">{escape(told)}</p><ol data-rim-results="{index}">{listed}</ol>'
