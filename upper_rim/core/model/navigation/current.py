"""Which entry of a menu stands for the page that is looked at, and which ones is it below?"""

from __future__ import annotations

from typing import NamedTuple

from ...kinds.entries import Entry
from ...values.targets import ToPage
from ..site import Page
from .links import Links


class Standing(NamedTuple):
    """Ids of entries: those that lead to the page, and those on the way to them from above. Where none leads to it, the
    way leads to the nearest entry: one of the longest path that the page's own begins with, other than the front
    page's.
    """

    here: frozenset[str]
    above: frozenset[str]


BranchWay = tuple[str, ...]
"""From an entry of the first level down to one: their ids."""
NOWHERE = Standing(frozenset(), frozenset())


class _Index(NamedTuple):
    entries: tuple[Entry, ...]
    by_page: dict[str, list[BranchWay]]
    by_path: dict[str, list[BranchWay]]


class Standings:
    """Looks entries up by page. Made once for a site."""

    def __init__(self, links: Links) -> None:
        self._links = links
        self._known: dict[tuple[int, str], _Index] = {}

    def of(self, entries: tuple[Entry, ...], language: str, page_id: str | None, path: str) -> Standing:
        """Of a page in a language, by its id (None: it is no page of the site) and its path, among these entries."""
        index = self._index(entries, language)
        ways = index.by_page.get(page_id or "", [])
        if ways:
            here = frozenset(way[-1] for way in ways)
            return Standing(here, frozenset(one for way in ways for one in way[:-1]) - here)
        near = self._nearest(index, path)
        return Standing(frozenset(), frozenset(one for way in near for one in way)) if near else NOWHERE

    def way(self, entries: tuple[Entry, ...], language: str, page_id: str, path: str) -> BranchWay:
        """The first way to a page, or to the nearest entry; empty where there is none."""
        index = self._index(entries, language)
        ways = index.by_page.get(page_id) or self._nearest(index, path)
        return ways[0] if ways else ()

    def nearest(self, entries: tuple[Entry, ...], language: str, path: str) -> str:
        """The path of the entries that are nearest; empty where none is."""
        index = self._index(entries, language)
        return next((above for above in _above(path) if above in index.by_path), "")

    def _nearest(self, index: _Index, path: str) -> list[BranchWay]:
        return next((index.by_path[above] for above in _above(path) if above in index.by_path), [])

    def _index(self, entries: tuple[Entry, ...], language: str) -> _Index:
        key = (id(entries), language)
        known = self._known.get(key)
        if known is None or known.entries is not entries:
            known = self._known[key] = _Index(entries, {}, {})
            self._add(entries, (), language, known)
        return known

    def _add(self, entries: tuple[Entry, ...], above: BranchWay, language: str, index: _Index) -> None:
        for entry in entries:
            way = (*above, entry.id)
            if isinstance(entry.target, ToPage):
                page: Page | None = self._links.page(entry.target.page, language)
                if page is not None:
                    index.by_page.setdefault(page.id, []).append(way)
                    index.by_path.setdefault(page.path, []).append(way)
            if entry.entries:
                self._add(entry.entries, way, language, index)


def _above(path: str) -> list[str]:
    """The paths of folders that a path lies in, the nearest first, without the front page's."""
    parts = path.split("/")[1:-1]
    return ["/" + "/".join(parts[:end]) + "/" for end in range(len(parts), 0, -1)]
