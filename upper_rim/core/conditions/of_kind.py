"""On the pages of a kind: front pages, dated ones, those with a form, and those that a site has besides its own."""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from typing import ClassVar, Literal

from .place import Names, PageFacts, Place

PageKind = Literal["front", "dated", "form", "not-found", "results"]
MADE: frozenset[str] = frozenset({"not-found", "results"})
"""Pages that come with a published site. Their kind is their id."""


class OfKind(Place):
    RANK: ClassVar[int] = 4
    kind: Literal["page-kind"] = "page-kind"
    which: PageKind = "front"

    @property
    def key(self) -> Hashable:
        return self.which

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        if page.path == "/" or page.path.strip("/").lower() == page.language.lower():
            yield "front"
        if page.dated:
            yield "dated"
        if page.has_form:
            yield "form"
        if page.id in MADE:
            yield page.id

    def in_words(self, names: Names) -> str:
        return _WORDS[self.which]


_WORDS: dict[PageKind, str] = {
    "front": "on front pages",
    "dated": "on dated pages",
    "form": "on pages with a form",
    "not-found": "where nothing is found",
    "results": "on search results",
}
