"""Which pages of an edition are, byte for byte, what they were in the one before?

A page is made from itself and from what all pages have in common: the pieces, the menus, what other pages are called and
where they stand. Where that is the same, those that are the same themselves are not made again. Of each sort of them one is
made all the same: for what it loads, and to see that it is what it was.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from operator import attrgetter
from typing import Any, NamedTuple

from ..gates.guards import paths_in
from ..kinds.entries import Entry
from ..kinds.items.base import DiffersByPage
from ..kinds.items.languages import LanguageSwitch
from ..kinds.items.posts import Posts
from ..model.navigation.page_index import index_of
from ..model.references import references
from ..model.site import Menu, Page, Site
from ..model.tree import slots_of, walk
from ..values.nodes import Value, within
from .naming import PARTS_PATH

_NOT_OF_PAGES = frozenset({"pages", "assets", "cards", "let_be", "lifts"})
_OF_ITSELF = frozenset({"content", "splice", "cuts", "of", "source", "remark", "shape"})
"""What a page says of itself that no other one is made of."""
_PARTS = re.compile(re.escape(PARTS_PATH.encode()) + rb"[\w./-]{1,200}")


class Making(Value):
    """What is kept of how an edition was made. `made_by`: what tells the program and the year; `sorts`: of each page, by
    its id, which of the others load what it loads: they have the same number."""

    made_by: str
    sorts: dict[str, int]


class Sorts:
    """The pages of an edition that is being made, by the parts that they load."""

    def __init__(self) -> None:
        self._numbers: dict[frozenset[bytes], int] = {}
        self.found: dict[str, int] = {}

    def add(self, page: Page, made: bytes) -> None:
        told = made.replace(b"\0", b"") if page.encoding.startswith("utf-16") else made
        loads = frozenset(_PARTS.findall(told))
        self.found[page.id] = self._numbers.setdefault(loads, len(self._numbers))

    def as_before(self, page: str, like: str) -> None:
        """Of a page that is not made again: it loads what another one of its sort does."""
        self.found[page] = self.found[like]


class Kept(NamedTuple):
    """`pages`: those that are what they were, by their ids; for each the one of its sort that is made again. `proofs`: the
    latter."""

    pages: Mapping[str, str]
    proofs: frozenset[str]


MOST_SORTS = 200
NOTHING_KEPT = Kept({}, frozenset())


def kept_pages(before: Site, making: Making, now: Site, made_by: str) -> Kept:
    """Of a site as it was when an edition was made, and as it is."""
    if making.made_by != made_by or _in_common(before) != _in_common(now):
        return NOTHING_KEPT
    old = index_of(before.pages).by_id
    same = [
        page for page in now.pages if page.id in making.sorts and ((was := old.get(page.id)) is page or was == page)
    ]
    if not _tell_the_same(before.pages, now.pages):
        if _tells_of_any_page(now):
            return NOTHING_KEPT
        around_before, around_now = _Around(before), _Around(now)
        same = [page for page in same if around_before.told_on(old[page.id]) == around_now.told_on(page)]
    proofs: dict[int, str] = {}
    for page in same:
        proofs.setdefault(making.sorts[page.id], page.id)
    if len(proofs) > MOST_SORTS:
        return NOTHING_KEPT
    made_again = frozenset(proofs.values())
    return Kept({page.id: proofs[making.sorts[page.id]] for page in same if page.id not in made_again}, made_again)


def _in_common(site: Site) -> tuple[Any, ...]:
    """Of all pages: what is not theirs, in which languages they are, with which letters, what is told of those that
    something names, and the files that something shows."""
    fields = tuple(getattr(site, name) for name in type(site).model_fields if name not in _NOT_OF_PAGES)
    letters: dict[str, set[str]] = {}
    for page in site.pages:
        letters.setdefault(page.language, set()).update(page.title)
    around, index = _Around(site), index_of(site.pages)
    named = {one.id for node in _nodes(site) for one in references(node) if one.slot == "pages"}
    told = [around.told_on(index.by_id[page]) for page in sorted(named) if page in index.by_id]
    shown = {path for field in fields for path in _paths_in(field)}
    files = [(asset.path, asset.content) for asset in site.assets if asset.path in shown]
    return (*fields, site.languages, letters, named & index.by_id.keys(), told, files)


def _paths_in(value: object) -> Iterator[str]:
    """Of files that something shows: a text by itself, within quotes, or as paths are written."""
    yield from paths_in(value)
    for one in within(value):
        if isinstance(one, str):
            yield one
            yield from _QUOTED.findall(one)


_QUOTED = re.compile(r"""(?<=["'])/[^"']*+""")


def _nodes(site: Site) -> Iterator[Value]:
    yield site
    for slot in slots_of(site):
        if slot not in _NOT_OF_PAGES:
            for node in getattr(site, slot):
                yield node
                yield from walk(node)


def _tells_of_any_page(site: Site) -> bool:
    """Whether pieces show what pages are called that nobody has named: those that grow in a menu, stand above a page or
    beside it, or are the newest."""
    holders = (node for menu in site.menus for node in (menu, *walk(menu)))
    grows = any(node.grows for node in holders if isinstance(node, Menu | Entry))
    items = (item for piece in site.pieces if piece.on for item in site.shown_items(piece))
    return grows or any(
        isinstance(item, Posts) or (isinstance(item, DiffersByPage) and not isinstance(item, LanguageSwitch))
        for item in items
    )


class _Around:
    """What a site's pages tell of others: of those that say the same, of those above, and of the front page."""

    def __init__(self, site: Site) -> None:
        self._pages = index_of(site.pages)
        self._fronts = self._family(self._pages.by_path.get("/"))

    def told_on(self, page: Page) -> tuple[Any, ...]:
        above = map(self._pages.by_path.get, _folders_of(page.path))
        return (self._fronts, self._family(page), *map(self._family, above))

    def _family(self, page: Page | None) -> tuple[Any, ...]:
        return tuple(map(_told_elsewhere, self._pages.family(page))) if page else ()


def _folders_of(path: str) -> Iterator[str]:
    """Of all folders around, the innermost first."""
    at = path.rstrip("/").rfind("/")
    while at > 0:
        yield path[: at + 1]
        at = path.rfind("/", 0, at)


_TOLD = tuple(name for name in Page.model_fields if name not in _OF_ITSELF)


def _told_elsewhere(page: Page) -> tuple[Any, ...]:
    return page.content is None, page.splice is None, _told_of(page)


_told_of = attrgetter(*_TOLD)


def _tell_the_same(before: Sequence[Page], now: Sequence[Page]) -> bool:
    return len(before) == len(now) and all(
        one is other or _told_elsewhere(one) == _told_elsewhere(other) for one, other in zip(before, now, strict=True)
    )
