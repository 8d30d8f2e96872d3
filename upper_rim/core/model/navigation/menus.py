"""Which entries does a menu have where it is used: its own and those that grow from the site's pages, less what is left
out there?"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable, Iterator

from ...kinds.entries import Entry, Grown, MenuPart
from ...languages.sorting import sort_key
from ...values.targets import ToPage
from ..memo import Memo
from ..site import Menu, Page, Site

Grew = dict[tuple[Grown, str], tuple[Entry, ...]]
_grew: Memo[tuple[Page, ...], Grew] = Memo(8)
"""What grew from the very same pages before."""


class Menus:
    """The menus of a site, grown. Made once for a site; what grows is worked out once for its pages."""

    def __init__(self, site: Site) -> None:
        self._site = site
        self._menus = {menu.id: menu for menu in site.menus}
        self._whole: dict[str, tuple[Entry, ...]] = {}
        self._shown: dict[tuple[str, str | None, tuple[str, ...], int | None], tuple[Entry, ...]] = {}
        self._grown = _grew.of(site.pages, lambda _: {})

    def whole(self, menu: Menu) -> tuple[Entry, ...]:
        """All entries of a menu, with what grows in place."""
        if menu.id not in self._whole:
            self._whole[menu.id] = self._in_full(menu)
        return self._whole[menu.id]

    def shown(self, part: MenuPart) -> tuple[Entry, ...]:
        """Those that an item shows; none where its menu or branch is not there."""
        menu = self._menus.get(part.menu or "")
        if menu is None:
            return ()
        key = (menu.id, part.branch, part.without, part.levels)
        if key not in self._shown:
            entries = self.whole(menu)
            if part.branch is not None:
                entries = next((one.entries for one in all_entries(entries) if one.id == part.branch), ())
            self._shown[key] = pruned(entries, frozenset(part.without), part.levels)
        return self._shown[key]

    def _in_full(self, holder: Menu | Entry) -> tuple[Entry, ...]:
        if holder.grows is None and not any(entry.entries or entry.grows for entry in holder.entries):
            return holder.entries
        own = tuple(
            entry.replaced(entries=self._in_full(entry), grows=None) if entry.entries or entry.grows else entry
            for entry in holder.entries
        )
        if holder.grows is None:
            return own
        listed = {entry.target.page for entry in all_entries(own) if isinstance(entry.target, ToPage)}
        return own + _without_listed(self._growing(holder.grows), listed)

    def _growing(self, grows: Grown) -> tuple[Entry, ...]:
        key = (grows, self._site.language)
        if key not in self._grown:
            self._grown[key] = grown(grows, self._site.pages, self._site.language)
        return self._grown[key]


def grown(grows: Grown, pages: tuple[Page, ...], language: str) -> tuple[Entry, ...]:
    """Entries for the pages in `language` below a path; their ids are the pages'. A page stands below the nearest page
    whose path its own begins with. `pages` are sorted by path."""
    roots: list[_Growing] = []
    open_pages: list[_Growing] = []
    without = frozenset(grows.without)
    skipped: str | None = None
    at = bisect_left(pages, grows.path, key=lambda page: page.path)
    while at < len(pages) and pages[at].path.startswith(grows.path):
        page = pages[at]
        at += 1
        if page.path == grows.path or (skipped is not None and page.path.startswith(skipped)):
            continue
        if page.id in without:
            skipped = page.path
            continue
        if page.language != language:
            continue
        while open_pages and not page.path.startswith(open_pages[-1].page.path):
            open_pages.pop()
        growing = _Growing(page)
        if len(open_pages) < grows.depth:
            (open_pages[-1].below if open_pages else roots).append(growing)
        open_pages.append(growing)
    return _ordered(roots, grows.order)


class _Growing:
    def __init__(self, page: Page) -> None:
        self.page = page
        self.below: list[_Growing] = []


def _ordered(growing: list[_Growing], order: str) -> tuple[Entry, ...]:
    listed: Iterable[_Growing] = growing
    if order == "title" and growing:
        language = growing[0].page.language
        listed = sorted(growing, key=lambda one: sort_key(one.page.title or one.page.path, language))
    elif order == "newest":
        listed = sorted(growing, key=lambda one: one.page.dated or "", reverse=True)
    return tuple(
        _BLANK.replaced(id=one.page.id, target=ToPage(page=one.page.id), entries=_ordered(one.below, order))
        for one in listed
    )


_BLANK = Entry(id="none")


def _without_listed(entries: tuple[Entry, ...], listed: set[str]) -> tuple[Entry, ...]:
    """Pages that an entry made by hand leads to do not grow beside it."""
    if not listed:
        return entries
    return tuple(
        entry.replaced(entries=_without_listed(entry.entries, listed)) for entry in entries if entry.id not in listed
    )


def pruned(entries: tuple[Entry, ...], without: frozenset[str], depth: int | None) -> tuple[Entry, ...]:
    """Less the entries in `without`, and no more than `depth` levels."""
    if depth == 0:
        return ()
    if not without and depth is None:
        return entries
    below = None if depth is None else depth - 1
    return tuple(
        entry.replaced(entries=pruned(entry.entries, without, below)) if entry.entries else entry
        for entry in entries
        if entry.id not in without
    )


def all_entries(entries: Iterable[Entry]) -> Iterator[Entry]:
    """Each, followed by those below it."""
    for entry in entries:
        yield entry
        yield from all_entries(entry.entries)


def with_depth(entries: Iterable[Entry], depth: int = 1) -> Iterator[tuple[Entry, int]]:
    """The same, each with its level: 1 for the first."""
    for entry in entries:
        yield entry, depth
        yield from with_depth(entry.entries, depth + 1)
