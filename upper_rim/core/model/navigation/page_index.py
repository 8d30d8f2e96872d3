"""What is looked up of a site's pages: by id, by path, and which of them say the same. Worked out once for the same pages."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cached_property

from ..memo import Memo
from ..site import Page


class PageIndex:
    """Of some pages, in their order."""

    def __init__(self, pages: Sequence[Page]) -> None:
        self._pages = pages
        self.by_id: Mapping[str, Page] = {page.id: page for page in pages}
        self.by_path: Mapping[str, Page] = {page.path: page for page in pages}

    @cached_property
    def families(self) -> Mapping[str, Sequence[Page]]:
        """By the id of the original, the pages of which all translate it, itself among them."""
        families: dict[str, list[Page]] = {}
        for page in self._pages:
            families.setdefault(self.original(page), []).append(page)
        return families

    @cached_property
    def originals(self) -> Sequence[Page]:
        """One page of each family, of which the others are translations, in the order of their paths."""
        return sorted(map(self.by_id.__getitem__, self.families), key=lambda page: page.path)

    def family(self, page: Page) -> Sequence[Page]:
        return self.families.get(self.original(page), [page])

    def original(self, page: Page) -> str:
        """The page of which all in its family are translations, themselves or by way of one; of a circle one of it."""
        if not page.translates:
            return page.id
        way = [page.id]
        while page.translates and page.translates in self.by_id:
            page = self.by_id[page.translates]
            if page.id in way:
                return min(way[way.index(page.id) :])
            way.append(page.id)
        return page.id


_indexes: Memo[tuple[Page, ...], PageIndex] = Memo(12)


def index_of(pages: tuple[Page, ...]) -> PageIndex:
    """Of a site's pages. Edits that touch no page leave it as it is."""
    return _indexes.of(pages, PageIndex)


def folder_of(page: Page) -> str:
    """In which it lies: its own path, where that is a folder's."""
    return f"{page.path.rpartition('/')[0]}/"


def in_folder_of(page: Page, pages: Sequence[Page]) -> list[Page]:
    """Those that lie in the same folder, or below it."""
    folder = folder_of(page)
    return [one for one in pages if one.path.startswith(folder)]
