"""What is the HTML of the page that lists what was found?"""

from __future__ import annotations

from collections.abc import Iterable
from html import escape

from ...exchange.html.markers import marked
from ...languages import phrase
from .search_index import Hit

RESULTS = "/search/"
MOST_LISTED = 300


def results_path(language: str, site_language: str) -> str:
    """Where the page of results in a language stands."""
    return RESULTS if language == site_language else f"{RESULTS}{language}/"


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
