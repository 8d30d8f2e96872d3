"""Where is the search index of a site's pages in each language, and what is in it?"""

from __future__ import annotations

import re
from collections.abc import Callable

from ...exchange.html.encoding import decode
from ...kinds.items.search import SearchBox
from ...model.site import Page, Site
from ...model.tree import items_of
from ..naming import PARTS_PATH, short_hash
from ..page.splicing import spliced
from .search_index import PageText, SearchIndex, index_files, made_index, read_index, text_of

INDEX_FILE = ".txt"
_HEAD = re.compile(f"{PARTS_PATH}search-[A-Za-z0-9-]+{re.escape(INDEX_FILE)}")


def is_head(path: str) -> bool:
    """Of an index: what is there changes, while its path stays."""
    return _HEAD.fullmatch(path) is not None


def index_paths(site: Site) -> dict[str, str]:
    """By language, where its head is: there whatever pages say, so that none has to be made anew when another one says
    something else. None where nothing searches."""
    if not any(isinstance(item, SearchBox) for item in items_of(site.pieces)):
        return {}
    return {one: f"{PARTS_PATH}search-{one}{INDEX_FILE}" for one in dict.fromkeys(page.language for page in site.pages)}


def index_state(site: Site, language: str) -> str:
    """Tells its parts from those of other editions: by what is in it."""
    said = [_said(page) for page in site.pages if page.language == language]
    return short_hash(repr(said).encode())


def files_of_index(path: str, index: SearchIndex, state: str) -> dict[str, bytes]:
    """By their paths, what an index of that path consists of."""
    return {part_path(path, part): said.encode() for part, said in index_files(index, state).items()}


def part_path(path: str, part: str) -> str:
    """Where a part of an index is, by the path of its head."""
    return f"{path.removesuffix(INDEX_FILE)}{part}{INDEX_FILE}"


def is_part(path: str, head: str) -> bool:
    """Whether a file is the head of an index or one of its parts."""
    return path == head or path.startswith(f"{head.removesuffix(INDEX_FILE)}.")


def site_index(site: Site, language: str, read: Callable[[str], bytes]) -> SearchIndex:
    """Of the pages in a language, as their own contents have it: what pieces say is on every page."""
    return made_index(_text_of(page, read) for page in site.pages if page.language == language)


def _text_of(page: Page, read: Callable[[str], bytes]) -> PageText:
    own = text_of(decode(spliced(read(page.content), (), page), page.encoding)) if page.content else ""
    return PageText(page.path, page.title, own)


MOST_CHANGED = 0.05
"""Of more pages the index is made anew: what each of them said before has to be read, too."""


def index_again(
    before: Site, now: Site, language: str, kept: Callable[[str], bytes], read: Callable[[str], bytes]
) -> SearchIndex | None:
    """The index of the pages in a language, made of the one that there was: `kept` gives its head or a part, by what is put
    behind its name. None where it has to be made anew, since there are other pages."""
    was, is_ = ([page for page in site.pages if page.language == language] for site in (before, now))
    if [page.id for page in was] != [page.id for page in is_]:
        return None
    changed = [(at, pair) for at, pair in enumerate(zip(was, is_, strict=True)) if _said(pair[0]) != _said(pair[1])]
    if len(changed) > max(1, MOST_CHANGED * len(is_)):
        return None
    index = read_index(lambda part: kept(part).decode())
    return index.with_changed({at: (_text_of(old, read), _text_of(new, read)) for at, (old, new) in changed})


def _said(page: Page) -> tuple[object, ...]:
    return page.path, page.title, page.content, page.cuts
