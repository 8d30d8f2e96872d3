"""What does the page of results say to a visitor without script? The same search, in the same index, made here."""

from __future__ import annotations

import re
from html import unescape

from django.http import HttpRequest, HttpResponse

from ...core.exchange.html.markers import marked
from ...core.exchange.imports.import_pages import file_name
from ...core.languages import PHRASES_OF, phrase
from ...core.output.search.search_html import MOST_LISTED, results_list
from ...core.output.search.search_index import Searched
from ...core.output.search.site_search import part_path
from ..sites.storage import stored
from .answers import for_one_visitor

LONGEST_QUERY = 200
_FOUND = re.compile(
    rb'<!--rim:found-->(?:<p role="status" data-rim-told="([^"]*)">)?.*?data-rim-results="([^"]+)".*?<!--/rim-->',
    re.DOTALL,
)
"""How what is found is told, and where the index is."""


def answered(request: HttpRequest, files: dict[str, str]) -> HttpResponse | None:
    """The page of results with what was found for `q`; None where this is no such page of ours."""
    content = files.get(file_name(request.path))
    page = stored(content) if content else b""
    place = _FOUND.search(page)
    index = unescape(place[2].decode()) if place else ""
    if place is None or index[1:] not in files:
        return None
    query = request.GET["q"][:LONGEST_QUERY]
    searched = Searched(lambda part: stored(files[part_path(index, part)[1:]]).decode())
    found = searched.find(query)
    # Pages that were published before they said it say it in English.
    told = unescape(place[1].decode()) if place[1] else phrase("found", PHRASES_OF, "{0}")
    listed = results_list(searched.pages(found[:MOST_LISTED]), index, told, len(found))
    filled = page[: place.start()] + marked("found", listed).encode() + page[place.end() :]
    return for_one_visitor(filled)
