"""Where is the search index of a site's pages in each language, and what is in it?"""

from __future__ import annotations

from collections.abc import Callable

from ...exchange.html.encoding import decode
from ...kinds.items.search import SearchBox
from ...model.site import Page, Site
from ...model.tree import items_of
from ..naming import PARTS_PATH, short_hash
from ..page.splicing import spliced
from .search_index import PageText, SearchIndex, index_files, made_index, text_of


def index_paths(site: Site) -> dict[str, str]:
    """By language, named by what is in it; none where nothing searches."""
    if not any(isinstance(item, SearchBox) for item in items_of(site.pieces)):
        return {}
    told: dict[str, list[str]] = {}
    for page in site.pages:
        told.setdefault(page.language, []).append(f"{page.path} {page.title} {page.content} {page.cuts}")
    return {
        language: PARTS_PATH + f"search-{language}-{short_hash(repr(said).encode())}{INDEX_FILE}"
        for language, said in told.items()
    }


INDEX_FILE = ".txt"


def files_of_index(path: str, index: SearchIndex) -> dict[str, bytes]:
    """By their paths, what an index of that path consists of."""
    return {part_path(path, part): said.encode() for part, said in index_files(index).items()}


def part_path(path: str, part: str) -> str:
    """Where a part of an index is, by the path of its head."""
    return f"{path.removesuffix(INDEX_FILE)}{part}{INDEX_FILE}"


def is_part(path: str, head: str) -> bool:
    """Whether a file is the head of an index or one of its parts."""
    return path.startswith(head.removesuffix(INDEX_FILE)) and path.endswith(INDEX_FILE)


def site_index(site: Site, language: str, read: Callable[[str], bytes]) -> SearchIndex:
    """Of the pages in a language, as their own contents have it: what pieces say is on every page."""
    return made_index(
        PageText(page.path, page.title, _own_text(read(page.content), page) if page.content else "")
        for page in site.pages
        if page.language == language
    )


def _own_text(content: bytes, page: Page) -> str:
    return text_of(decode(spliced(content, (), page), page.encoding))
