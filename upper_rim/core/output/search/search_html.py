"""What is the HTML of the page that lists what was found?"""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

from ...exchange.html.markers import marked
from ...languages import filled
from ...model.site import Site
from .search_index import Hit

RESULTS = "/search/"
MOST_LISTED = 300


def results_path(language: str, site_language: str) -> str:
    """Where the page of results in a language stands."""
    return RESULTS if language == site_language else f"{RESULTS}{language}/"


def results_body(site: Site, language: str, index_path: str, pages: Iterable[Hit]) -> str:
    """The page of results before anything was asked: all pages. What was found takes the place of what is marked."""
    title, told = escape(site.phrase("search", language)), site.phrase("found", language)
    return (
        f'<h1>{title}</h1>\n<form><input type="search" name="q" aria-label="{title}"> <button>{title}</button></form>\n'
        f"{marked('found', results_list(pages, index_path, told))}\n"
    )


def results_list(hits: Iterable[Hit], index_path: str, words: str, found: int | None = None) -> str:
    """`words`: in which it is told how many were `found`."""
    listed = "".join(
        f'<li><a href="{escape(hit.path, quote=True)}">{escape(hit.title or hit.path)}</a></li>' for hit in hits
    )
    index = escape(index_path, quote=True)
    told = "" if found is None else escape(filled(words, [str(found)]))
    return f'<p role="status" data-rim-told="{escape(words, quote=True)}">{told}</p><ol data-rim-results="{index}">{listed}</ol>'
